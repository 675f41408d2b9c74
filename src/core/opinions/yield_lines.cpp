#include "opinions/yield_lines.h"

#include <algorithm>
#include <cmath>

namespace talvik::opinions {

double yieldLineMoment(double w, double a, double b, const double (&i)[4]) {
    double ar = 2 * a / (std::sqrt(1 + i[0]) + std::sqrt(1 + i[1])),
           br = 2 * b / (std::sqrt(1 + i[2]) + std::sqrt(1 + i[3]));
    double s = std::min(ar, br), l = std::max(ar, br), k = s / l, root = std::sqrt(3 + k * k) - k;
    return w * s * s / 24 * root * root;
}

}  // namespace talvik::opinions

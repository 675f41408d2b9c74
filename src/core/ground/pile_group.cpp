#include "ground/pile_group.h"

#include <algorithm>
#include <cmath>

namespace talvik::ground {

PileReactions reactions(const std::vector<Point>& piles, const CapLoad& load) {
    PileReactions out;
    if (piles.empty()) return out;
    const double n = double(piles.size());
    Point o;
    for (Point p : piles) o.x += p.x / n, o.y += p.y / n;
    double xx = 0, yy = 0, xy = 0;
    for (Point p : piles) {
        xx += (p.x - o.x) * (p.x - o.x), yy += (p.y - o.y) * (p.y - o.y);
        xy += (p.x - o.x) * (p.y - o.y);
    }
    // Moments about the middle of the piles.
    const double mx = load.alongX - load.N * o.x, my = load.alongY - load.N * o.y;
    const double det = xx * yy - xy * xy, scale = xx + yy;
    double b = 0, c = 0;
    if (det > 1e-9 * scale * scale) {
        b = (mx * yy - my * xy) / det, c = (my * xx - mx * xy) / det;
    } else if (scale > 0) {  // in one line: along it alone
        const bool flat = xx >= yy;
        const double length = std::sqrt(flat ? xx * xx + xy * xy : xy * xy + yy * yy),
                     ux = (flat ? xx : xy) / length, uy = (flat ? xy : yy) / length;
        const double m = (mx * ux + my * uy) / scale;
        b = m * ux, c = m * uy;
        out.acrossLeft = std::abs(-mx * uy + my * ux);
    }
    for (Point p : piles) out.all.push_back(load.N / n + b * (p.x - o.x) + c * (p.y - o.y));
    out.most = *std::max_element(out.all.begin(), out.all.end());
    out.least = *std::min_element(out.all.begin(), out.all.end());
    return out;
}

Extremes withTolerance(const std::vector<Point>& piles, const CapLoad& load, double tolerance) {
    const auto drawn = reactions(piles, load);
    Extremes e{drawn.most, drawn.least};
    for (double sx : {-1.0, 1.0})
        for (double sy : {-1.0, 1.0}) {
            auto moved = load;
            moved.alongX += sx * load.N * tolerance, moved.alongY += sy * load.N * tolerance;
            const auto r = reactions(piles, moved);
            e.most = std::max(e.most, r.most), e.least = std::min(e.least, r.least);
        }
    return e;
}

double faceMoment(const std::vector<Point>& piles, const std::vector<double>& reactions, double columnX) {
    double right = 0, left = 0;
    for (std::size_t i = 0; i < piles.size(); ++i) {
        right += reactions[i] * std::max(0.0, piles[i].x - columnX / 2);
        left += reactions[i] * std::max(0.0, -piles[i].x - columnX / 2);
    }
    return std::max(right, left);
}

double tieForce(int piles, double N, double spacing, double z, double column, bool fromMiddle) {
    const double off = fromMiddle ? 0 : column / 4;
    if (piles == 2) return N / 2 * (spacing / 2 - off) / z;
    if (piles == 3) return N * spacing / (9 * z);
    if (piles == 4) return N / 4 * (spacing / 2 - off) / z;
    return 0;
}

TwoPileTie twoPileTie(double N, double spacing, double d, double column, double columnAcross, double fck) {
    // T z = N/2 (s/2 - c/4), z = d - y/2, y = T/(bc sigma).
    const double arm = N / 2 * (spacing / 2 - column / 4), sigma = (1 - fck / 250) * fck / 1.5,
                 k = 1 / (2 * columnAcross * sigma);
    const double under = d * d - 4 * k * arm;
    if (under < 0) return {};  // the node would be deeper than the cap
    TwoPileTie t;
    t.force = (d - std::sqrt(under)) / (2 * k);
    t.node = t.force / (columnAcross * sigma);
    t.z = d - t.node / 2;
    return t;
}

TwoColumnFooting twoColumnFooting(const TwoColumns& in) {
    TwoColumnFooting out;
    const double N = in.N1 + in.N2, x1 = in.a1, x2 = in.a1 + in.apart;
    out.resultant = (in.N1 * x1 + in.N2 * x2) / N;
    out.length = 2 * out.resultant;
    out.a2 = out.length - x2;
    out.width = N / (in.allowable * out.length);
    out.load = N / out.length;
    const double w = out.load;
    auto moment = [&](double x) {
        return w * x * x / 2 - (x > x1 ? in.N1 * (x - x1) : 0) - (x > x2 ? in.N2 * (x - x2) : 0);
    };
    out.zeroShear = in.N1 / w, out.largest = moment(out.zeroShear);
    out.outer1 = moment(x1 - in.c1 / 2), out.inner1 = moment(x1 + in.c1 / 2);
    out.inner2 = moment(x2 - in.c2 / 2), out.outer2 = moment(x2 + in.c2 / 2);
    out.left1 = w * x1, out.right1 = w * x1 - in.N1;
    out.left2 = w * x2 - in.N1, out.right2 = w * x2 - N;
    out.at1 = w * (x1 + in.c1 / 2 + in.d) - in.N1, out.at2 = w * (x2 - in.c2 / 2 - in.d) - in.N1;
    return out;
}

}  // namespace talvik::ground

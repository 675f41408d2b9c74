#include "standards/panel_coefficients.h"

#include <cmath>

namespace talvik::standards {

PanelCoefficients panelCoefficients(double lx, double ly, const PanelEdges& e) {
    PanelCoefficients c;
    int l = e.longContinuous[0] + e.longContinuous[1], s = e.shortContinuous[0] + e.shortContinuous[1];
    struct Case {
        int l, s;
        const char* name;
    };
    constexpr Case cases[] = {{2, 2, "all edges continuous"},
                              {2, 1, "one short edge discontinuous"},
                              {1, 2, "one long edge discontinuous"},
                              {1, 1, "two adjacent edges discontinuous"},
                              {2, 0, "two short edges discontinuous"},
                              {0, 2, "two long edges discontinuous"},
                              {1, 0, "three edges discontinuous, one long edge continuous"},
                              {0, 1, "three edges discontinuous, one short edge continuous"},
                              {0, 0, "all edges discontinuous"}};
    for (int i = 0; i < 9; ++i)
        if (cases[i].l == l && cases[i].s == s) c.caseNumber = i + 1, c.caseName = cases[i].name;
    if (!(lx > 0) || ly < lx) {
        c.refusal = "The shorter span comes first and is more than nothing.";
        return c;
    }
    if (ly > 2 * lx) {
        c.refusal = "The longer span is more than twice the shorter: the panel spans one way.";
        return c;
    }
    // N_d discontinuous edges; beta_1, beta_2 at the short edges, beta_3, beta_4 at the long ones.
    double nd = 4 - l - s, by = (24 + 2 * nd + 1.5 * nd * nd) / 1000;  // (16)
    double root = 0;
    for (bool continuous : e.shortContinuous) root += std::sqrt(by + (continuous ? 4.0 / 3 * by : 0));
    double gamma = 2.0 / 9 * (3 - std::sqrt(18.0) * lx / ly * root);  // (17)
    // (18) solved for beta_x: each long edge gives sqrt(beta_x) or sqrt(7/3 beta_x).
    double sum = 0;
    for (bool continuous : e.longContinuous) sum += std::sqrt(continuous ? 7.0 / 3 : 1.0);
    double bx = gamma / (sum * sum);
    c.spanShort = bx;
    c.spanLong = by;
    c.supportShort = l > 0 ? -4.0 / 3 * bx : 0;
    c.supportLong = s > 0 ? -4.0 / 3 * by : 0;
    return c;
}

}  // namespace talvik::standards

// Strips of two-way slabs: 8.4.1, 8.4.2.2, 6.6.5.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

class Strips final : public StripRules {
  public:
    Strips(const Edition& e, const FlexureRules& flexure) : e_(e), flexure_(flexure) {}

    double columnStripHalf(double span, double across) const override { return std::min(span, across) / 4; }
    std::string columnStripClause() const override { return "ACI 318-19 8.4.1.5"; }
    // The share gamma_f of the moment that passes into the column, over the column and 1.5 h on either side.
    // Read with b_1 and b_2 of an inner column: column and d.
    Peak peak(double, double c1, double c2, double h, double d, Steps* t) const override {
        Peak p;
        p.clause = "ACI 318-19 8.4.2.2.2, 8.4.2.2.3";
        const double L = e_.length;
        p.width = trace::step(t, "b_slab", "c_2 + 3*h",
                              {{"c_2", c2 / L, e_.lengthUnit}, {"h", h / L, e_.lengthUnit}}, (c2 + 3 * h) / L,
                              e_.lengthUnit, "ACI 318-19 8.4.2.2.3") *
                  L;
        p.momentShare = trace::step(
            t, "gamma_f", "1/(1 + 2/3*sqrt((c_1 + d)/(c_2 + d)))",
            {{"c_1", c1 / L, e_.lengthUnit}, {"c_2", c2 / L, e_.lengthUnit}, {"d", d / L, e_.lengthUnit}},
            1 / (1 + 2.0 / 3 * std::sqrt((c1 + d) / (c2 + d))), "-", "ACI 318-19 8.4.2.2.2");
        return p;
    }
    // The share gamma_f with the sides b_1 and b_2 of the critical section of 22.6.4 at an edge or a corner, over the
    // column and 1.5 h on either side, or up to the slab's edge.
    Transfer transfer(const TransferInput& in, Steps* t) const override {
        Transfer r;
        r.clause = "ACI 318-19 8.4.2.2.2, 8.4.2.2.3";
        const double L = e_.length, h = in.section.h, d = in.section.d;
        const double left = std::min(1.5 * h, in.sides[0]), right = std::min(1.5 * h, in.sides[1]);
        r.width = trace::step(t, "b_slab", "c_2 + b_l + b_r",
                              {{"c_2", in.c2 / L, e_.lengthUnit},
                               {"b_l", left / L, e_.lengthUnit},
                               {"b_r", right / L, e_.lengthUnit}},
                              (in.c2 + left + right) / L, e_.lengthUnit, "ACI 318-19 8.4.2.2.3",
                              "1.5h on either side or up to the slab's edge") *
                  L;
        const double b1 = in.c1 + d / 2, b2 = in.c2 + (in.corner ? d / 2 : d);
        r.share = trace::step(t, "gamma_f", "1/(1 + 2/3*sqrt(b_1/b_2))",
                              {{"b_1", b1 / L, e_.lengthUnit}, {"b_2", b2 / L, e_.lengthUnit}},
                              1 / (1 + 2.0 / 3 * std::sqrt(b1 / b2)), "-", "ACI 318-19 8.4.2.2.2");
        return r;
    }
    // 8.6.1.2, before the control section is known: its length is that of a section at d/2 on as many sides as
    // the column has, and all of V passes through it.
    UnderShear underShear(double V, double c1, double c2, int edges, const Section& s) const override {
        constexpr double phi = 0.75;
        const double d = s.d, alpha = edges == 0 ? 40 : edges == 1 ? 30 : 20,
                     bo = edges == 0   ? 2 * (c1 + c2) + 4 * d
                          : edges == 1 ? 2 * std::min(c1, c2) + std::max(c1, c2) + 2 * d
                                       : c1 + c2 + d;
        const auto r = twoWayShear(e_, d, bo, std::max(c1, c2) / std::max(1.0, std::min(c1, c2)), alpha, s.fc, 1);
        if (V / (bo * d) <= 0.95 * r.outside) return {};
        return {5 * V / (phi * alpha * s.fy * d), c2 + 3 * s.h, "ACI 318-19 8.6.1.2"};
    }
    // 6.6.5.3, 6.6.5.4: 1000 eps_t per cent, at most 20, where eps_t is at least 0.0075.
    Finding redistribution(const Section& s, double As, double share, Steps* t) const override {
        Finding f;
        f.clause = "ACI 318-19 6.6.5";
        f.prefix = "share";
        double strain = flexure_.resistance(s, As, 0).strain;
        f.demand = share;
        f.limit = strain < 0.0075 ? 0
                                  : trace::step(t, "r_max", "min(10*epsilon_t, 0.2)", {{"epsilon_t", strain}},
                                                std::min(10 * strain, 0.2), "-", "ACI 318-19 6.6.5.3",
                                                "share that may be taken off");
        if (strain < 0.0075)
            f.notes.push_back("The strain of the tension steel is under 0.0075: no redistribution.");
        return checks::judged(f);
    }

  private:
    const Edition& e_;
    const FlexureRules& flexure_;
};

}  // namespace

std::unique_ptr<StripRules> stripRules(const Edition& e, const FlexureRules& flexure) {
    return std::make_unique<Strips>(e, flexure);
}

}  // namespace talvik::standards::aci318

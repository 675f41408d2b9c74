// Least and most steel, spacing, distribution: 7.3.3, 7.6, 7.7.2, 8.6.1, 8.7.2, 24.4, 25.2.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

class Steel final : public SteelRules {
  public:
    explicit Steel(const Edition& e) : e_(e) {}

    double minimum(const Section& s, Steps* t) const override {
        return shrinkageSteel(s, "A_s,min", clauses(false).minimum, t);
    }
    double beamMinimum(const Section& s, Steps* t) const override {
        return trace::step(t, "A_s,min", "", {}, beamMinimumSteel(e_, s) / area(e_), areaUnit(e_),
                           beamClause(), "of beams") *
               area(e_);
    }
    std::string beamClause() const override { return "ACI 318-19 9.6.1.2"; }
    double maximum(const Section& s, Steps* t) const override {
        // No ceiling as such: a tension-controlled section is the limit. That amount of steel is given.
        double fc = s.fc / e_.stress, fy = s.fy / e_.stress, beta = beta1(e_, fc);
        return trace::step(t, "A_s,max", "0.85*f'_c*b*beta_1*d*0.003/(0.006 + f_y/E_s)/f_y",
                           {{"f'_c", fc, e_.stressUnit},
                            {"b", s.b / e_.length, e_.lengthUnit},
                            {"beta_1", beta},
                            {"d", s.d / e_.length, e_.lengthUnit},
                            {"f_y", fy, e_.stressUnit},
                            {"E_s", e_.Es, e_.stressUnit}},
                           0.85 * fc * s.b * beta * s.d / area(e_) * 0.003 / (0.006 + fy / e_.Es) / fy,
                           areaUnit(e_), clauses(false).maximum,
                           "the steel at which the section stops being tension-controlled") *
               area(e_);
    }
    double spacing(Role role, bool, double h, Steps* t) const override {
        double k = role == Role::Main ? 3 : role == Role::TwoWay ? 2 : 5;
        return trace::step(
                   t, "s_max", "min(k*h, s_cap)",
                   {{"k", k}, {"h", h / e_.length, e_.lengthUnit}, {"s_cap", e_.spacingCap, e_.lengthUnit}},
                   std::min(k * h / e_.length, e_.spacingCap), e_.lengthUnit,
                   role == Role::Main     ? "ACI 318-19 7.7.2.3"
                   : role == Role::TwoWay ? "ACI 318-19 8.7.2.2"
                                          : "ACI 318-19 7.7.6.2.1") *
               e_.length;
    }
    double clear(double diameter, double aggregate, Steps* t) const override {
        return trace::step(t, "s_clear", "max(s_0, d_b, 4/3*d_agg)",
                           {{"s_0", e_.clearLeast, e_.lengthUnit},
                            {"d_b", diameter / e_.length, e_.lengthUnit},
                            {"d_agg", aggregate / e_.length, e_.lengthUnit}},
                           std::max({e_.clearLeast, diameter / e_.length, 4.0 / 3 * aggregate / e_.length}),
                           e_.lengthUnit, clauses(false).clear) *
               e_.length;
    }
    double secondary(double, const Section& s, Steps* t) const override {
        return shrinkageSteel(s, "A_s,T", clauses(false).secondary, t);
    }
    Clauses clauses(bool twoWay) const override {
        if (twoWay)
            return {"ACI 318-19 8.6.1.1", "ACI 318-19 8.3.3.1", "ACI 318-19 8.7.2.2", "ACI 318-19 25.2.1",
                    "ACI 318-19 8.6.1.1, 24.4.3.2"};
        return {"ACI 318-19 7.6.1.1", "ACI 318-19 7.3.3.1", "ACI 318-19 7.7.2.3", "ACI 318-19 25.2.1",
                "ACI 318-19 7.6.4.1, 24.4.3.2"};
    }

  private:
    double shrinkageSteel(const Section& s, const char* symbol, const std::string& clause, Steps* t) const {
        return trace::step(t, symbol, "0.0018*b*h",
                           {{"b", s.b / e_.length, e_.lengthUnit}, {"h", s.h / e_.length, e_.lengthUnit}},
                           0.0018 * s.b * s.h / area(e_), areaUnit(e_), clause) *
               area(e_);
    }
    const Edition& e_;
};

}  // namespace

double beamMinimumSteel(const Edition& e, const Section& stored) {
    const Section s = native(stored, e);
    double fy = std::min(s.fy, e.beamYieldCap);
    return std::max(e.beamSteelRoot * std::sqrt(s.fc) / fy, e.beamSteelLeast / fy) * s.b * s.d * area(e);
}

double twoWaySpacing(const Edition& e, double h) {
    return std::min(2 * h, e.spacingCap * e.length);
}

std::unique_ptr<SteelRules> steelRules(const Edition& e) {
    return std::make_unique<Steel>(e);
}

}  // namespace talvik::standards::aci318

// One-way shear without shear reinforcement (Av < Av,min): Table 22.5.5.1(c) with the size factor.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

constexpr double phi_v = 0.75;

class Shear final : public ShearRules {
  public:
    Shear(const Edition& e, double lambda) : e_(e), lambda_(lambda) {}
    std::string clause() const override { return "ACI 318-19 Table 22.5.5.1(c)"; }
    double oneWay(const Section& s, double As, Steps* t) const override {
        double size = trace::step(t, "lambda_s", e_.sizeExpression, {{"d", s.d / e_.length, e_.lengthUnit}},
                                  sizeFactor(e_, s.d), "-", "ACI 318-19 22.5.5.1.3");
        return shearResistance(e_, s, As, lambda_, size, t);
    }

    // 7.4.3.2(b): with a concentrated load between the face and d the section at the face is critical, with all of it.
    double nearSupport(double, double) const override { return 1; }
    std::string nearClause() const override { return "ACI 318-19 7.4.3.2"; }
    double crushing(const Section&, Steps*) const override { return 0; }

  private:
    const Edition& e_;
    double lambda_;
};

}  // namespace

double sizeFactor(const Edition& e, double d) {
    return std::min(std::sqrt(2 / (1 + e.sizeSlope * d / e.length)), 1.0);
}

double shearResistance(const Edition& e, const Section& stored, double As_, double lambda, double size,
                       Steps* t) {
    const Section s = native(stored, e);
    double As = As_ / area(e), root = std::min(std::sqrt(s.fc), e.rootCap);
    double rho = trace::step(t, "rho_w", "A_s/(b*d)",
                             {{"A_s", As, areaUnit(e)}, {"b", s.b, e.lengthUnit}, {"d", s.d, e.lengthUnit}},
                             As / (s.b * s.d), "-", "ACI 318-19 22.5.5.1");
    double V = std::min(e.shear * lambda * size * std::cbrt(rho), e.shearCap * lambda) * root * s.b * s.d;
    return trace::step(
               t, "phi_V_c",
               "phi*min(k_c*lambda_s*lambda*rho_w^(1/3), k_cap*lambda)*min(sqrt(f'_c), r_cap)*b*d/k_F",
               {{"phi", phi_v},
                {"k_c", e.shear},
                {"lambda_s", size},
                {"lambda", lambda},
                {"rho_w", rho},
                {"k_cap", e.shearCap},
                {"f'_c", s.fc, e.stressUnit},
                {"r_cap", e.rootCap},
                {"b", s.b, e.lengthUnit},
                {"d", s.d, e.lengthUnit},
                {"k_F", e.forceFactor}},
               phi_v * V / e.forceFactor, e.forceUnit, "ACI 318-19 Table 22.5.5.1(c)") *
           e.forceFactor * force(e);
}

std::unique_ptr<ShearRules> shearRules(const Edition& e, double lambda) {
    return std::make_unique<Shear>(e, lambda);
}

}  // namespace talvik::standards::aci318

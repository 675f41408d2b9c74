// One-way shear without shear reinforcement (Av < Av,min): Table 22.5.5.1(c) with the size factor; with
// stirrups, Table 22.5.5.1(a) or (b), the larger, and 22.5.8.5.3.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

constexpr double phi_v = 0.75;
constexpr double linkYield = 420;  // MPa, Table 20.2.2.4(a)

class Shear final : public ShearRules {
  public:
    Shear(const Edition& e, double lambda) : e_(e), lambda_(lambda) {}
    std::string clause() const override { return "ACI 318-19 Table 22.5.5.1(c)"; }
    double oneWay(const Section& s, double As, Steps* t) const override {
        double size = trace::step(t, "lambda_s", e_.sizeExpression, {{"d", s.d / e_.length, e_.lengthUnit}},
                                  sizeFactor(e_, s.d), "-", "ACI 318-19 22.5.5.1.3");
        return shearResistance(e_, s, As, lambda_, size, t);
    }

    // 7.4.3.2(b): with a concentrated load between the face and d the section at the face is critical, with
    // all of it.
    double nearSupport(double, double) const override { return 1; }
    std::string nearClause() const override { return "ACI 318-19 7.4.3.2"; }
    double crushing(const Section&, Steps*) const override { return 0; }

    Linked linked(const Section& stored, double As, double asw, double fyw, Steps* t) const override {
        using trace::step;
        if (asw < leastLinks(stored, fyw, nullptr) * (1 - 1e-9)) return {oneWay(stored, As, t), 1};
        const Section s = native(stored, e_);
        const double root = std::min(std::sqrt(s.fc), e_.rootCap), bd = s.b * s.d, rho = As / area(e_) / bd;
        const double cap = e_.shearCap * lambda_;
        const double Vc =
            std::max(e_.shearLinked * lambda_, std::min(e_.shear * lambda_ * std::cbrt(rho), cap)) * root *
            bd;
        step(t, "phi_V_c",
             "phi*max(k_a*lambda, min(k_c*lambda*rho_w^(1/3), k_cap*lambda))*min(sqrt(f'_c), r_cap)*b*d/k_F",
             {{"phi", phi_v},
              {"k_a", e_.shearLinked},
              {"lambda", lambda_},
              {"k_c", e_.shear},
              {"rho_w", rho},
              {"k_cap", e_.shearCap},
              {"f'_c", s.fc, e_.stressUnit},
              {"r_cap", e_.rootCap},
              {"b", s.b, e_.lengthUnit},
              {"d", s.d, e_.lengthUnit},
              {"k_F", e_.forceFactor}},
             phi_v * Vc / e_.forceFactor, e_.forceUnit, "ACI 318-19 Table 22.5.5.1(a), (b)");
        const double fyt = std::min(fyw, linkYield) / e_.stress, Vs = asw / e_.length * fyt * s.d;
        step(t, "phi_V_s", "phi*a_v*f_yt*d/k_F",
             {{"phi", phi_v},
              {"a_v", asw / e_.length, std::string(areaUnit(e_)) + "/" + e_.lengthUnit},
              {"f_yt", fyt, e_.stressUnit},
              {"d", s.d, e_.lengthUnit},
              {"k_F", e_.forceFactor}},
             phi_v * Vs / e_.forceFactor, e_.forceUnit, "ACI 318-19 22.5.8.5.3");
        const double most = (e_.shearLinked * lambda_ + 4 * e_.shearStep) * root * bd;  // 22.5.1.2, by (a)
        const double V = phi_v * std::min(Vc + Vs, most);
        step(t, "phi_V_n", "", {}, V / e_.forceFactor, e_.forceUnit, "ACI 318-19 22.5.1.1, 22.5.1.2",
             Vc + Vs > most ? "the maximum that the section takes" : "concrete and stirrups");
        return {V * force(e_), 1};
    }
    double leastLinks(const Section& stored, double fyw, Steps* t) const override {
        const Section s = native(stored, e_);
        const double fyt = std::min(fyw, linkYield) / e_.stress;
        return trace::step(t, "a_v,min", "max(k_1*sqrt(f'_c), k_2)*b/f_yt",
                           {{"k_1", e_.linkRoot},
                            {"f'_c", s.fc, e_.stressUnit},
                            {"k_2", e_.linkLeast},
                            {"b", s.b, e_.lengthUnit},
                            {"f_yt", fyt, e_.stressUnit}},
                           std::max(e_.linkRoot * std::sqrt(s.fc), e_.linkLeast) * s.b / fyt,
                           std::string(areaUnit(e_)) + "/" + e_.lengthUnit, "ACI 318-19 Table 9.6.3.4") *
               e_.length;
    }
    double linkSpacing(const Section& stored, double V, Steps* t) const override {
        const Section s = native(stored, e_);
        const bool half = close(s, V);
        const double cap = (half ? 0.5 : 1.0) * e_.linkApart;
        return trace::step(t, "s_max", half ? "min(d/4, s_cap)" : "min(d/2, s_cap)",
                           {{"d", s.d, e_.lengthUnit}, {"s_cap", cap, e_.lengthUnit}},
                           std::min(s.d / (half ? 4 : 2), cap), e_.lengthUnit, "ACI 318-19 Table 9.7.6.2.2") *
               e_.length;
    }
    double leastLinkedThickness() const override { return 0; }
    double linkSpacingAcross(const Section& stored, double V) const override {
        const Section s = native(stored, e_);
        return std::min(s.d / (close(s, V) ? 2 : 1), (close(s, V) ? 0.5 : 1.0) * e_.linkApart) * e_.length;
    }
    LinkClauses linkClauses() const override {
        return {"ACI 318-19 22.5.1, 22.5.8.5.3", "ACI 318-19 9.6.3.4", "ACI 318-19 9.7.6.2.2",
                "ACI 318-19 7.6.3.3, 7.7.5"};
    }

  private:
    // Whether links carry so much of a shear that they lie at half the usual spacings.
    bool close(const Section& s, double V) const {
        const double root = std::min(std::sqrt(s.fc), e_.rootCap), bd = s.b * s.d;
        return V / force(e_) / phi_v - e_.shearLinked * lambda_ * root * bd > 2 * e_.shearStep * root * bd;
    }

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

BeamStirrups beamStirrups(const Section& s, double As, double V) {
    constexpr double phi = 0.75;
    const double bd = s.b * s.d, root = std::min(std::sqrt(s.fc), 8.3), rho = As / bd;
    BeamStirrups r{};
    r.V_a = phi * 0.17 * root * bd;
    r.V_b = phi * std::min(0.66 * std::cbrt(rho), 0.42) * root * bd;
    r.V_0 = phi * 0.083 * root * bd;
    const double least = std::max(0.062 * root, 0.35) * s.b / s.fy;
    auto steel = [&](double Vc) { return V <= r.V_0 ? 0 : std::max(least, (V - Vc) / (phi * s.fy * s.d)); };
    r.a_a = steel(r.V_a), r.a_b = steel(r.V_b);
    const bool high = V - r.V_a > phi * 0.33 * root * bd;
    r.across = high ? std::min(s.d / 2, 300.0) : std::min(s.d, 600.0);
    return r;
}

std::unique_ptr<ShearRules> shearRules(const Edition& e, double lambda) {
    return std::make_unique<Shear>(e, lambda);
}

}  // namespace talvik::standards::aci318

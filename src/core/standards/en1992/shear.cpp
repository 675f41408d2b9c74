// One-way shear of members without links, 6.2.2(1), and with vertical ones, 6.2.3; no axial force.
#include <algorithm>
#include <cmath>

#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

class Shear final : public ShearRules {
  public:
    explicit Shear(const Parameters& p) : p_(p) {}
    std::string clause() const override { return "EN 1992-1-1 6.2.2(1)"; }

    double oneWay(const Section& s, double As, Steps* t) const override {
        using trace::step;
        double k = step(t, "k", "min(1 + sqrt(200/d), 2)", {{"d", s.d, "mm"}},
                        std::min(1 + std::sqrt(200 / s.d), 2.0), "-", clause());
        double rho = step(t, "rho_l", "min(A_sl/(b*d), 0.02)",
                          {{"A_sl", As, "mm²"}, {"b", s.b, "mm"}, {"d", s.d, "mm"}},
                          std::min(As / (s.b * s.d), 0.02), "-", clause());
        double c = p_.shear_numerator / p_.gamma_c;
        double v1 = step(t, "v_Rd,c", "c/gamma_c*k*(100*rho_l*f_ck)^(1/3)",
                         {{"c", p_.shear_numerator},
                          {"gamma_c", p_.gamma_c},
                          {"k", k},
                          {"rho_l", rho},
                          {"f_ck", s.fc, "MPa"}},
                         c * k * std::cbrt(100 * rho * s.fc), "MPa", "EN 1992-1-1 (6.2.a)");
        double v2 = step(t, "v_min", "c_min*k^1.5*sqrt(f_ck)",
                         {{"c_min", p_.v_min_factor}, {"k", k}, {"f_ck", s.fc, "MPa"}},
                         p_.v_min_factor * std::pow(k, 1.5) * std::sqrt(s.fc), "MPa", "EN 1992-1-1 (6.3N)");
        return step(t, "V_Rd,c", "max(v_Rd,c, v_min)*b*d/1000",
                    {{"v_Rd,c", v1, "MPa"}, {"v_min", v2, "MPa"}, {"b", s.b, "mm"}, {"d", s.d, "mm"}},
                    std::max(v1, v2) * s.b * s.d / 1000, "kN", clause()) *
               1000;
    }

    // 6.2.2(6): a_v / 2d for loads within 2d, a_v taken as at least 0.5 d.
    double nearSupport(double a, double d) const override {
        return a >= 2 * d ? 1 : std::max(a, 0.5 * d) / (2 * d);
    }
    std::string nearClause() const override { return "EN 1992-1-1 6.2.2(6)"; }
    double crushing(const Section& s, Steps* t) const override {
        const double nu = trace::step(t, "nu", "0.6*(1 - f_ck/250)", {{"f_ck", s.fc, "MPa"}},
                                      0.6 * (1 - s.fc / 250), "-", "EN 1992-1-1 (6.6N)");
        const double fcd = p_.alpha_cc * s.fc / p_.gamma_c;
        return trace::step(t, "V_max", "0.5*b*d*nu*f_cd/1000",
                           {{"b", s.b, "mm"}, {"d", s.d, "mm"}, {"nu", nu}, {"f_cd", fcd, "MPa"}},
                           0.5 * s.b * s.d * nu * fcd / 1000, "kN", "EN 1992-1-1 (6.5)") *
               1000;
    }

    // z = 0.9 d; the flattest struts, between 1 and 2.5, at which the concrete carries what the links do.
    Linked linked(const Section& s, double As, double asw, double fyw, Steps* t) const override {
        using trace::step;
        const double nu = 0.6 * (1 - s.fc / 250), fcd = p_.alpha_cc * s.fc / p_.gamma_c, z = 0.9 * s.d,
                     fywd = fyw / p_.gamma_s, most = nu * fcd * s.b * z;
        if (asw < leastLinks(s, fyw, nullptr) * (1 - 1e-9)) return {oneWay(s, As, t), 1};
        // asw fywd z cot = b z nu fcd/(cot + 1/cot)
        const double share = asw * fywd / (s.b * nu * fcd);
        const double cot = std::clamp(share < 1 ? std::sqrt(1 / share - 1) : 1.0, 1.0, 2.5);
        step(t, "cot_theta", "min(max(sqrt(b*nu*f_cd/(a_sw*f_ywd) - 1), 1), 2.5)",
             {{"b", s.b, "mm"},
              {"nu", nu},
              {"f_cd", fcd, "MPa"},
              {"a_sw", asw, "mm²/mm"},
              {"f_ywd", fywd, "MPa"}},
             cot, "-", "EN 1992-1-1 6.2.3(2)", "the flattest struts that the concrete resists");
        const double Vs =
            step(t, "V_Rd,s", "a_sw*z*f_ywd*cot_theta/1000",
                 {{"a_sw", asw, "mm²/mm"}, {"z", z, "mm"}, {"f_ywd", fywd, "MPa"}, {"cot_theta", cot}},
                 asw * z * fywd * cot / 1000, "kN", "EN 1992-1-1 (6.8)");
        const double Vm =
            step(t, "V_Rd,max", "b*z*nu*f_cd/(cot_theta + 1/cot_theta)/1000",
                 {{"b", s.b, "mm"}, {"z", z, "mm"}, {"nu", nu}, {"f_cd", fcd, "MPa"}, {"cot_theta", cot}},
                 most / (cot + 1 / cot) / 1000, "kN", "EN 1992-1-1 (6.9)");
        return {std::max(std::min(Vs, Vm) * 1000, std::min(oneWay(s, As, nullptr), Vm * 1000)), cot};
    }
    double leastLinks(const Section& s, double fyw, Steps* t) const override {
        return trace::step(t, "a_sw,min", "0.08*sqrt(f_ck)/f_yk*b",
                           {{"f_ck", s.fc, "MPa"}, {"f_yk", fyw, "MPa"}, {"b", s.b, "mm"}},
                           0.08 * std::sqrt(s.fc) / fyw * s.b, "mm²/mm", "EN 1992-1-1 (9.5N)");
    }
    double linkSpacing(const Section& s, double, Steps* t) const override {
        return trace::step(t, "s_max", "0.75*d", {{"d", s.d, "mm"}}, 0.75 * s.d, "mm",
                           "EN 1992-1-1 9.2.2(6)");
    }
    double leastLinkedThickness() const override { return 200; }                             // 9.3.2(1)
    double linkSpacingAcross(const Section& s, double) const override { return 1.5 * s.d; }  // 9.3.2(5)
    LinkClauses linkClauses() const override {
        return {"EN 1992-1-1 6.2.3", "EN 1992-1-1 9.2.2(5)", "EN 1992-1-1 9.2.2(6)", "EN 1992-1-1 9.3.2"};
    }

  private:
    Parameters p_;
};

}  // namespace

WebTruss webTruss(const Parameters& p, double b, double d, double fck, double fywk, double V, bool needed) {
    const double z = 0.9 * d, most = b * z * 0.6 * (1 - fck / 250) * p.alpha_cc * fck / p.gamma_c;
    WebTruss t{};
    t.V_max1 = most / 2, t.V_max25 = most / 2.9;
    // V = most/(cot + 1/cot)
    const double k = V > 0 ? most / V : 1e9;
    t.cot = k > 2 ? std::clamp((k + std::sqrt(k * k - 4)) / 2, 1.0, 2.5) : 1;
    t.a_sw = V / (z * fywk / p.gamma_s * t.cot);
    t.a_l = needed ? z * t.cot / 2 : d;
    t.dF = needed ? V * t.cot / 2 : 0;
    return t;
}

std::unique_ptr<ShearRules> shearRules(const Parameters& p) {
    return std::make_unique<Shear>(p);
}

}  // namespace talvik::standards::en1992

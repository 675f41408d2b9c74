// Bending with the rectangular block of 22.2.2.4; tension-controlled design, phi by Table 21.2.2 (ties).
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"
#include "standards/equilibrium.h"

namespace talvik::standards::aci318 {
namespace {

constexpr double eps_cu = 0.003;

class Flexure final : public FlexureRules {
  public:
    explicit Flexure(const Edition& e) : e_(e) {}
    std::string clause() const override { return "ACI 318-19 22.2"; }

    // Compression steel is added where a tension-controlled section (21.2.2, 7.3.3.1) would not do; displaced
    // concrete is not deducted.
    RequiredSteel required(const Section& stored, double moment, Steps* t) const override {
        using trace::step;
        RequiredSteel r;
        if (moment <= 0) return r;
        const Section s = native(stored, e_);
        double M = nativeMoment(moment, e_), B = block(s, t), phi = 0.9, mf = e_.momentFactor;
        double beta = beta1(e_, s.fc), c_lim = s.d * eps_cu / (2 * eps_cu + s.fy / e_.Es);
        double z_lim = s.d - beta * c_lim / 2, M_lim = phi * B * beta * c_lim * z_lim;
        const char *L = e_.lengthUnit, *S = e_.stressUnit, *A = areaUnit(e_), *K = e_.momentUnit;
        if (M <= M_lim) {
            double a = step(t, "a", "d - sqrt(d^2 - 2*M_u*k_M/(phi*0.85*f'_c*b))",
                            {{"d", s.d, L},
                             {"M_u", M / mf, K},
                             {"k_M", mf},
                             {"phi", phi},
                             {"f'_c", s.fc, S},
                             {"b", s.b, L}},
                            s.d - std::sqrt(s.d * s.d - 2 * M / (phi * B)), L, clause(),
                            "k_M turns the printed moment into the units of the formula");
            r.x = a / beta * e_.length;
            r.z = (s.d - a / 2) * e_.length;
            double As = step(
                t, "A_s,req", "M_u*k_M/(phi*f_y*(d - a/2))",
                {{"M_u", M / mf, K}, {"k_M", mf}, {"phi", phi}, {"f_y", s.fy, S}, {"d", s.d, L}, {"a", a, L}},
                M / (phi * s.fy * (s.d - a / 2)), A, clause());
            r.As = As * area(e_);
            return r;
        }
        r.doubly = true;
        step(t, "c_lim", "d*0.003/(0.006 + f_y/E_s)", {{"d", s.d, L}, {"f_y", s.fy, S}, {"E_s", e_.Es, S}},
             c_lim, L, "ACI 318-19 21.2.2, 7.3.3.1", "beyond this depth compression steel is added");
        double stress = std::min(s.fy, e_.Es * eps_cu * (c_lim - s.d2) / c_lim);
        r.x = c_lim * e_.length, r.z = z_lim * e_.length, r.sigmaS2 = stress * e_.stress;
        if (stress <= 0 || s.d <= s.d2) {
            r.possible = false;
            return r;
        }
        step(t, "M_lim", "phi*0.85*f'_c*b*beta_1*c_lim*(d - beta_1*c_lim/2)/k_M",
             {{"phi", phi},
              {"f'_c", s.fc, S},
              {"b", s.b, L},
              {"beta_1", beta},
              {"c_lim", c_lim, L},
              {"d", s.d, L},
              {"k_M", mf}},
             M_lim / mf, K, clause());
        double As2 = step(t, "A'_s", "(M_u - M_lim)*k_M/(phi*f'_s*(d - d'))",
                          {{"M_u", M / mf, K},
                           {"M_lim", M_lim / mf, K},
                           {"k_M", mf},
                           {"phi", phi},
                           {"f'_s", stress, S},
                           {"d", s.d, L},
                           {"d'", s.d2, L}},
                          (M - M_lim) / (phi * stress * (s.d - s.d2)), A, clause());
        double As = step(t, "A_s,req", "M_lim*k_M/(phi*f_y*z) + A'_s*f'_s/f_y",
                         {{"M_lim", M_lim / mf, K},
                          {"k_M", mf},
                          {"phi", phi},
                          {"f_y", s.fy, S},
                          {"z", z_lim, L},
                          {"A'_s", As2, A},
                          {"f'_s", stress, S}},
                         M_lim / (phi * s.fy * z_lim) + As2 * stress / s.fy, A, clause());
        r.As2 = As2 * area(e_), r.As = As * area(e_);
        return r;
    }

    Resistance resistance(const Section& stored, double As_, double As2_, Steps* t) const override {
        using trace::step;
        Resistance r;
        if (As_ <= 0) return r;
        const Section s = native(stored, e_);
        double As = As_ / area(e_), As2 = As2_ / area(e_), B = block(s, t), beta = beta1(e_, s.fc),
               yield = s.fy / e_.Es;
        auto forces = [&](double c) { return SteelForces(As, As2, s.d, s.d2, c, eps_cu, e_.Es, s.fy); };
        double c = neutralAxis(s.d, [&](double x) { return B * beta * x + forces(x).net(); });
        SteelForces f = forces(c);
        r.x = c * e_.length;
        r.strain = f.strain;
        r.phi = std::clamp(0.65 + 0.25 * (f.strain - yield) / 0.003, 0.65, 0.9);
        double Mn = B * beta * c * (s.d - beta * c / 2) + f.compression * (s.d - s.d2);
        r.M = storedMoment(r.phi * Mn, e_);
        if (t) {
            const char *L = e_.lengthUnit, *S = e_.stressUnit, *A = areaUnit(e_), *K = e_.momentUnit,
                       *F = e_.forceUnit;
            double ff = e_.forceFactor, Cs = f.compression / ff;
            if (As2 > 0)
                step(t, "C_s", "A'_s*f'_s/k_F",
                     {{"A'_s", As2, A}, {"f'_s", f.compression / As2, S}, {"k_F", ff}}, Cs, F, clause(),
                     "stress from its strain");
            step(t, "c",
                 As2 > 0 ? "(A_s*f_s - C_s*k_F)/(0.85*f'_c*b*beta_1)" : "A_s*f_s/(0.85*f'_c*b*beta_1)",
                 {{"A_s", As, A},
                  {"f_s", f.tension / As, S},
                  {"C_s", Cs, F},
                  {"k_F", ff},
                  {"f'_c", s.fc, S},
                  {"b", s.b, L},
                  {"beta_1", beta}},
                 c, L, clause());
            step(t, "epsilon_t", "0.003*(d - c)/c*1000", {{"d", s.d, L}, {"c", c, L}}, f.strain * 1000, "‰",
                 "ACI 318-19 22.2.1.2");
            step(t, "phi", "min(max(0.65 + 0.25*(epsilon_t/1000 - f_y/E_s)/0.003, 0.65), 0.9)",
                 {{"epsilon_t", f.strain * 1000, "‰"}, {"f_y", s.fy, S}, {"E_s", e_.Es, S}}, r.phi, "-",
                 "ACI 318-19 Table 21.2.2");
            step(t, "phi_M_n",
                 As2 > 0 ? "phi*(0.85*f'_c*b*beta_1*c*(d - beta_1*c/2) + C_s*k_F*(d - d'))/k_M"
                         : "phi*0.85*f'_c*b*beta_1*c*(d - beta_1*c/2)/k_M",
                 {{"phi", r.phi},
                  {"f'_c", s.fc, S},
                  {"b", s.b, L},
                  {"beta_1", beta},
                  {"c", c, L},
                  {"d", s.d, L},
                  {"C_s", Cs, F},
                  {"k_F", ff},
                  {"d'", s.d2, L},
                  {"k_M", e_.momentFactor}},
                 r.phi * Mn / e_.momentFactor, K, clause());
        }
        return r;
    }

    double plain(const Section& stored, Steps* t) const override {
        const Section s = native(stored, e_);
        const double k = e_.plainFlexure;
        return trace::step(t, "M_n,pl", "0.6*k_pl*sqrt(f'_c)*b*h^2/6/k_M",
                           {{"k_pl", k},
                            {"f'_c", s.fc, e_.stressUnit},
                            {"b", s.b, e_.lengthUnit},
                            {"h", s.h, e_.lengthUnit},
                            {"k_M", e_.momentFactor}},
                           0.6 * k * std::sqrt(s.fc) * s.b * s.h * s.h / 6 / e_.momentFactor, e_.momentUnit,
                           "ACI 318-19 14.5.2.1, 21.2.1", "phi = 0.60, lambda = 1") *
               e_.momentFactor * force(e_) * e_.length;
    }

    Finding ductility(const Section& s, double As, double As2, Steps* t) const override {
        Resistance r = resistance(s, As, As2, nullptr);
        Finding f;
        f.kind = units::Kind::Strain;
        f.sense = checks::Sense::AtLeast;
        f.clause = "ACI 318-19 7.3.3.1, Table 21.2.2";
        f.prefix = "strain";
        f.demand = trace::step(t, "epsilon_t", "0.003*(d - c)/c*1000",
                               {{"d", s.d / e_.length, e_.lengthUnit}, {"c", r.x / e_.length, e_.lengthUnit}},
                               r.strain * 1000, "‰", "ACI 318-19 22.2.1.2") /
                   1000;
        f.limit = trace::step(t, "epsilon_lim", "(f_y/E_s + 0.003)*1000",
                              {{"f_y", s.fy / e_.stress, e_.stressUnit}, {"E_s", e_.Es, e_.stressUnit}},
                              (s.fy / e_.stress / e_.Es + 0.003) * 1000, "‰", f.clause) /
                  1000;
        return checks::judged(f);
    }

  private:
    // 0.85 f'c b, with the step that shows beta_1.
    double block(const Section& s, Steps* t) const {
        trace::step(
            t, "beta_1", "min(max(0.85 - k_b*(f'_c - f_0), 0.65), 0.85)",
            {{"k_b", e_.beta1Slope}, {"f'_c", s.fc, e_.stressUnit}, {"f_0", e_.beta1Start, e_.stressUnit}},
            beta1(e_, s.fc), "-", "ACI 318-19 Table 22.2.2.4.3");
        return 0.85 * s.fc * s.b;
    }
    const Edition& e_;
};

}  // namespace

std::unique_ptr<FlexureRules> flexureRules(const Edition& e) {
    return std::make_unique<Flexure>(e);
}

}  // namespace talvik::standards::aci318

// Bending with the rectangular block of 3.1.7(3) and the horizontal steel branch of 3.2.7(2)b.
#include <algorithm>
#include <cmath>

#include "standards/en1992/en1992.h"
#include "standards/equilibrium.h"

namespace talvik::standards::en1992 {
namespace {

class Flexure final : public FlexureRules {
  public:
    explicit Flexure(const Parameters& p) : p_(p) {}

    std::string clause() const override { return "EN 1992-1-1 6.1"; }

    // Compression steel is added beyond x = x_limit d; the concrete it displaces is not deducted. When the
    // ceiling on z governs, x is the value from equilibrium without it.
    RequiredSteel required(const Section& s, double M, Steps* t) const override {
        using trace::step;
        RequiredSteel r;
        if (M <= 0) return r;
        Concrete c = concrete(s.fc);
        double fcd = design(c, t), fyd = yield(s, t);
        double block = c.eta * fcd * s.b;
        double xlim = xLimit(s) * s.d, zlim = s.d - c.lambda * xlim / 2,
               Mlim = block * c.lambda * xlim * zlim;
        if (M <= Mlim) {
            double depth = s.d - std::sqrt(s.d * s.d - 2 * M / block);
            r.x = step(t, "x", "(d - sqrt(d^2 - 2*M*1e6/(eta*f_cd*b)))/lambda",
                       {{"d", s.d, "mm"},
                        {"M", M / 1e6, "kNm"},
                        {"eta", c.eta},
                        {"f_cd", fcd, "MPa"},
                        {"b", s.b, "mm"},
                        {"lambda", c.lambda}},
                       depth / c.lambda, "mm", "EN 1992-1-1 3.1.7(3)");
            double z = s.d - depth / 2;
            if (p_.z_ceiling > 0 && z > p_.z_ceiling * s.d)
                r.z = step(t, "z", "k_z*d", {{"k_z", p_.z_ceiling}, {"d", s.d, "mm"}}, p_.z_ceiling * s.d,
                           "mm", "practice", "the lever arm is limited to its maximum");
            else
                r.z =
                    step(t, "z", "d - lambda*x/2", {{"d", s.d, "mm"}, {"lambda", c.lambda}, {"x", r.x, "mm"}},
                         z, "mm", "EN 1992-1-1 6.1");
            double sigma = tension(c, s, r.x, fyd, t);
            r.As = step(t, "A_s,req", "M*1e6/(z*sigma_s)",
                        {{"M", M / 1e6, "kNm"}, {"z", r.z, "mm"}, {"sigma_s", sigma, "MPa"}},
                        M / (r.z * sigma), "mm²", "EN 1992-1-1 6.1");
            return r;
        }
        r.doubly = true;
        r.x = step(t, "x", "k_x*d", {{"k_x", xLimit(s)}, {"d", s.d, "mm"}}, xlim, "mm", "EN 1992-1-1 5.5(4)",
                   "beyond this depth compression steel is added");
        r.z = zlim;
        r.sigmaS2 = std::min(fyd, Es * c.eps_cu3 * (xlim - s.d2) / xlim);
        if (r.sigmaS2 <= 0 || s.d <= s.d2) {
            r.possible = false;
            return r;
        }
        step(t, "M_lim", "eta*f_cd*b*lambda*x*(d - lambda*x/2)/1e6",
             {{"eta", c.eta},
              {"f_cd", fcd, "MPa"},
              {"b", s.b, "mm"},
              {"lambda", c.lambda},
              {"x", xlim, "mm"},
              {"d", s.d, "mm"}},
             Mlim / 1e6, "kNm", "EN 1992-1-1 6.1");
        r.As2 = step(t, "A_s2", "(M - M_lim)*1e6/(sigma_s2*(d - d_2))",
                     {{"M", M / 1e6, "kNm"},
                      {"M_lim", Mlim / 1e6, "kNm"},
                      {"sigma_s2", r.sigmaS2, "MPa"},
                      {"d", s.d, "mm"},
                      {"d_2", s.d2, "mm"}},
                     (M - Mlim) / (r.sigmaS2 * (s.d - s.d2)), "mm²", "EN 1992-1-1 6.1");
        double sigma = tension(c, s, xlim, fyd, t);
        r.As = step(t, "A_s,req", "M_lim*1e6/(z*sigma_s) + A_s2*sigma_s2/sigma_s",
                    {{"M_lim", Mlim / 1e6, "kNm"},
                     {"z", zlim, "mm"},
                     {"sigma_s", sigma, "MPa"},
                     {"A_s2", r.As2, "mm²"},
                     {"sigma_s2", r.sigmaS2, "MPa"}},
                    Mlim / (zlim * sigma) + r.As2 * r.sigmaS2 / sigma, "mm²", "EN 1992-1-1 6.1");
        return r;
    }

    // No limit on x; both steels from strains; displaced concrete not deducted.
    Resistance resistance(const Section& s, double As, double As2, Steps* t) const override {
        using trace::step;
        Concrete c = concrete(s.fc);
        double fcd = design(c, t), fyd = yield(s, t);
        Resistance r;
        if (As <= 0) return r;
        double block = c.eta * fcd * s.b * c.lambda;
        auto forces = [&](double x) { return SteelForces(As, As2, s.d, s.d2, x, c.eps_cu3, Es, fyd); };
        r.x = neutralAxis(s.d, [&](double x) { return block * x + forces(x).net(); });
        SteelForces f = forces(r.x);
        r.strain = f.strain;
        r.M = block * r.x * (s.d - c.lambda * r.x / 2) + f.compression * (s.d - s.d2);
        if (t) {
            if (As2 > 0)
                step(t, "F_s2", "A_s2*sigma_s2/1000",
                     {{"A_s2", As2, "mm²"}, {"sigma_s2", f.compression / As2, "MPa"}}, f.compression / 1000,
                     "kN", "EN 1992-1-1 6.1", "stress from its strain; tension is negative");
            step(
                t, "x",
                As2 > 0 ? "(A_s*sigma_s - F_s2*1000)/(eta*f_cd*b*lambda)" : "A_s*sigma_s/(eta*f_cd*b*lambda)",
                {{"A_s", As, "mm²"},
                 {"sigma_s", f.tension / As, "MPa"},
                 {"F_s2", f.compression / 1000, "kN"},
                 {"eta", c.eta},
                 {"f_cd", fcd, "MPa"},
                 {"b", s.b, "mm"},
                 {"lambda", c.lambda}},
                r.x, "mm", "EN 1992-1-1 3.1.7(3)");
            step(t, "M_Rd",
                 As2 > 0 ? "(eta*f_cd*b*lambda*x*(d - lambda*x/2) + F_s2*1000*(d - d_2))/1e6"
                         : "eta*f_cd*b*lambda*x*(d - lambda*x/2)/1e6",
                 {{"eta", c.eta},
                  {"f_cd", fcd, "MPa"},
                  {"b", s.b, "mm"},
                  {"lambda", c.lambda},
                  {"x", r.x, "mm"},
                  {"d", s.d, "mm"},
                  {"F_s2", f.compression / 1000, "kN"},
                  {"d_2", s.d2, "mm"}},
                 r.M / 1e6, "kNm", "EN 1992-1-1 6.1");
        }
        return r;
    }

    double plain(const Section& s, Steps* t) const override {
        constexpr double alpha = 0.8;  // recommended
        return trace::step(t, "M_Rd,pl", "alpha_ct,pl*f_ctk/gamma_c*b*h^2/6/1e6",
                           {{"alpha_ct,pl", alpha},
                            {"f_ctk", 0.7 * concrete(s.fc).fctm, "MPa"},
                            {"gamma_c", p_.gamma_c},
                            {"b", s.b, "mm"},
                            {"h", s.h, "mm"}},
                           alpha * 0.7 * concrete(s.fc).fctm / p_.gamma_c * s.b * s.h * s.h / 6 / 1e6, "kNm",
                           "EN 1992-1-1 12.3.1(2)") *
               1e6;
    }

    Finding ductility(const Section& s, double As, double As2, Steps* t) const override {
        Resistance r = resistance(s, As, As2, nullptr);
        Finding f;
        f.clause = "EN 1992-1-1 5.5(4)";
        f.prefix = "x/d";
        f.demand =
            trace::step(t, "x/d", "x/d", {{"x", r.x, "mm"}, {"d", s.d, "mm"}}, r.x / s.d, "-", f.clause);
        f.limit = xLimit(s);
        f.notes.push_back("Limit for an elastic analysis without redistribution (delta = 1).");
        return checks::judged(f);
    }

  private:
    // (5.10a) and, above C50/60, (5.10b) for delta = 1 with the recommended k_1 to k_4; a limit of one's own
    // stands for every class.
    double xLimit(const Section& s) const {
        constexpr double recommended = 0.448;
        if (s.fc <= 50 || std::abs(p_.x_limit - recommended) > 1e-9) return p_.x_limit;
        return (1 - 0.54) / (1.25 * (0.6 + 0.0014 / concrete(s.fc).eps_cu2));
    }
    double design(const Concrete& c, Steps* t) const {
        return trace::step(t, "f_cd", "alpha_cc*f_ck/gamma_c",
                           {{"alpha_cc", p_.alpha_cc}, {"f_ck", c.fck, "MPa"}, {"gamma_c", p_.gamma_c}},
                           p_.alpha_cc * c.fck / p_.gamma_c, "MPa", "EN 1992-1-1 3.1.6(1)");
    }
    double yield(const Section& s, Steps* t) const {
        return trace::step(t, "f_yd", "f_yk/gamma_s", {{"f_yk", s.fy, "MPa"}, {"gamma_s", p_.gamma_s}},
                           s.fy / p_.gamma_s, "MPa", "EN 1992-1-1 3.2.7(2)b");
    }

    // Stress of the tension steel from its strain; below yield only for very deep compression zones.
    static double tension(const Concrete& c, const Section& s, double x, double fyd, Steps* t) {
        return trace::step(t, "sigma_s", "min(f_yd, E_s*epsilon_cu3*(d - x)/x)",
                           {{"f_yd", fyd, "MPa"},
                            {"E_s", Es, "MPa"},
                            {"epsilon_cu3", c.eps_cu3},
                            {"d", s.d, "mm"},
                            {"x", x, "mm"}},
                           std::min(fyd, Es * c.eps_cu3 * (s.d - x) / x), "MPa", "EN 1992-1-1 3.2.7(2)b");
    }

    Parameters p_;
};

}  // namespace

Concrete concrete(double fck) {
    Concrete c{};
    c.fck = fck;
    c.fcm = fck + 8;
    c.fctm = fck <= 50 ? 0.30 * std::pow(fck, 2.0 / 3) : 2.12 * std::log(1 + c.fcm / 10);
    c.Ecm = 22000 * std::pow(c.fcm / 10, 0.3);
    double over = std::max(0.0, fck - 50), below = std::pow((90 - std::min(fck, 90.0)) / 100, 4);
    c.lambda = 0.8 - over / 400;
    c.eta = 1.0 - over / 200;
    c.eps_cu3 = c.eps_cu2 = fck <= 50 ? 0.0035 : (2.6 + 35 * below) / 1000;
    c.eps_c2 = fck <= 50 ? 0.002 : (2.0 + 0.085 * std::pow(over, 0.53)) / 1000;
    c.n = fck <= 50 ? 2.0 : 1.4 + 23.4 * below;
    return c;
}

Resistance parabolaResistance(const Parameters& p, const Section& s, double As, double As2) {
    Concrete c = concrete(s.fc);
    double fcd = p.alpha_cc * c.fck / p.gamma_c, fyd = s.fy / p.gamma_s, k = c.eps_c2 / c.eps_cu2;
    double fullness = 1 - k / (c.n + 1);  // mean stress over f_cd
    // first moment of the stress about the neutral axis, over f_cd x^2
    double moment = (1 - k * k) / 2 + k * k * (0.5 - 1 / ((c.n + 1) * (c.n + 2)));
    auto forces = [&](double x) { return SteelForces(As, As2, s.d, s.d2, x, c.eps_cu2, Es, fyd); };
    Resistance r;
    r.x = neutralAxis(s.d, [&](double x) { return fcd * s.b * fullness * x + forces(x).net(); });
    SteelForces f = forces(r.x);
    r.strain = f.strain;
    r.M = fcd * s.b * (moment * r.x * r.x + fullness * r.x * (s.d - r.x)) + f.compression * (s.d - s.d2);
    return r;
}

std::unique_ptr<FlexureRules> flexureRules(const Parameters& p) {
    return std::make_unique<Flexure>(p);
}

}  // namespace talvik::standards::en1992

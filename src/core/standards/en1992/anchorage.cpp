// Anchorage, laps and bends: 8.3, 8.4, 8.7.3, and at end supports 9.2.1.4, 9.3.1.2.
#include <algorithm>
#include <cmath>

#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

class AnchorageOfBars final : public AnchorageRules {
  public:
    explicit AnchorageOfBars(const Parameters& p) : p_(p) {}

    double length(const AnchorageInput& in, Steps* t) const override {
        return en1992::anchorage(p_, in, t).l_bd;
    }
    double lap(const AnchorageInput& in, Steps* t) const override { return en1992::anchorage(p_, in, t).l_0; }
    // Figure 8.2: up to 250 mm from the bottom of the section.
    bool goodBond(double below) const override { return below <= 250; }
    double designYield(double fy) const override { return fy / p_.gamma_s; }
    Finding atEnd(const EndAnchorageInput& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Length;
        f.clause = "EN 1992-1-1 9.2.1.4, 9.3.1.2";
        double d = in.section.d;
        double F =
            trace::step(t, "F_E", "V*a_l/z",
                        {{"V", in.V / 1000, "kN"}, {"a_l", d, "mm"}, {"z", 0.9 * d, "mm"}}, in.V / 0.9 / 1000,
                        "kN", "EN 1992-1-1 (9.3)", "a_l = d for slabs without shear links") *
            1000;
        AnchorageInput bar = in.bar;
        bar.stress = trace::step(
            t, "sigma_sd", "min(F_E*1000/A_s, f_yd)",
            {{"F_E", F / 1000, "kN"}, {"A_s", in.As, "mm²"}, {"f_yd", designYield(bar.fy), "MPa"}},
            std::min(F / in.As, designYield(bar.fy)), "MPa", f.clause);
        f.demand = en1992::anchorage(p_, bar, t).l_bd;
        f.limit = in.beyondFace;
        f.prefix = "lbd";
        f.notes.push_back(
            "Measured from the face of the support; direct support without the benefit of transverse "
            "pressure (alpha_5 = 1).");
        return checks::judged(f);
    }
    double hookTail(double diameter) const override { return 5 * diameter; }
    double bendRadius(double diameter) const override { return catalogs::bendRadius(diameter); }
    std::string bendClause() const override { return "BS 8666 Table 2"; }
    std::string clause(bool) const override { return "EN 1992-1-1 8.4.4"; }
    std::string lapClause() const override { return "EN 1992-1-1 8.7.3"; }

  private:
    Parameters p_;
};

}  // namespace

Anchorage anchorage(const Parameters& p, const AnchorageInput& in, Steps* t) {
    using trace::step;
    Anchorage a{};
    double phi = in.diameter, fctk = 0.7 * concrete(std::min(in.fc, 60.0)).fctm, eta1 = in.good ? 1.0 : 0.7,
           eta2 = phi <= 32 ? 1 : (132 - phi) / 100;
    a.f_bd = step(t, "f_bd", "2.25*eta_1*eta_2*alpha_ct*f_ctk/gamma_c",
                  {{"eta_1", eta1},
                   {"eta_2", eta2},
                   {"alpha_ct", p.alpha_ct},
                   {"f_ctk", fctk, "MPa"},
                   {"gamma_c", p.gamma_c}},
                  2.25 * eta1 * eta2 * p.alpha_ct * fctk / p.gamma_c, "MPa", "EN 1992-1-1 (8.2)",
                  "f_ctk is the 5 % fractile, limited to that of C60");
    a.l_b_rqd = step(t, "l_b,rqd", "phi/4*sigma_sd/f_bd",
                     {{"phi", phi, "mm"}, {"sigma_sd", in.stress, "MPa"}, {"f_bd", a.f_bd, "MPa"}},
                     phi / 4 * in.stress / a.f_bd, "mm", "EN 1992-1-1 (8.3)");
    double n = in.hooked ? 3 : 1;
    a.alpha_1 = in.hooked && in.cd > 3 * phi ? 0.7 : 1.0;
    a.alpha_2 = step(t, "alpha_2", "min(max(1 - 0.15*(c_d - n*phi)/phi, 0.7), 1)",
                     {{"c_d", in.cd, "mm"}, {"n", n}, {"phi", phi, "mm"}},
                     std::clamp(1 - 0.15 * (in.cd - n * phi) / phi, 0.7, 1.0), "-", "EN 1992-1-1 Table 8.2");
    a.l_bd = step(
        t, "l_bd", "max(alpha_1*alpha_2*l_b,rqd, 0.3*l_b,rqd, 10*phi, 100)",
        {{"alpha_1", a.alpha_1}, {"alpha_2", a.alpha_2}, {"l_b,rqd", a.l_b_rqd, "mm"}, {"phi", phi, "mm"}},
        std::max({a.alpha_1 * a.alpha_2 * a.l_b_rqd, 0.3 * a.l_b_rqd, 10 * phi, 100.0}), "mm",
        "EN 1992-1-1 (8.4)");
    a.alpha_6 = std::clamp(std::sqrt(in.lapShare / 25), 1.0, 1.5);
    a.l_0 = std::max(
        {a.alpha_1 * a.alpha_2 * a.alpha_6 * a.l_b_rqd, 0.3 * a.alpha_6 * a.l_b_rqd, 15 * phi, 200.0});
    return a;
}

std::unique_ptr<AnchorageRules> anchorageRules(const Parameters& p) {
    return std::make_unique<AnchorageOfBars>(p);
}

}  // namespace talvik::standards::en1992

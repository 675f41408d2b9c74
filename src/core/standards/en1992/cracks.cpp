// Crack width and least steel for cracking: 7.3.2 to 7.3.4.
#include <algorithm>
#include <cmath>

#include "standards/cracked_section.h"
#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

// Table 7.2N, columns of 0.2, 0.3 and 0.4 mm; beyond its last row there is none.
constexpr double stresses[] = {160, 200, 240, 280, 320, 360, 400, 450};
constexpr double sizes[3][8] = {
    {25, 16, 12, 8, 6, 5, 4, 0}, {32, 25, 16, 12, 10, 8, 6, 5}, {40, 32, 20, 16, 12, 10, 8, 6}};
// The column for a limit: that of the largest tabulated width not over it, -1 below 0.2 mm.
int tableColumn(double limit) {
    return limit >= 0.4 - 1e-9 ? 2 : limit >= 0.3 - 1e-9 ? 1 : limit >= 0.2 - 1e-9 ? 0 : -1;
}
// The stress at which a size is allowed; sizes over the table's go by the product of stress and size of its
// first row, widths under 0.2 mm by the column of 0.2 in proportion.
double stressForSize(double size, double limit) {
    const int column = std::max(0, tableColumn(limit));
    const auto& row = sizes[column];
    double stress = stresses[7];
    if (size > row[0]) {
        stress = stresses[0] * row[0] / size;
    } else {
        for (int i = 1; i < 8; ++i)
            if (size >= row[i]) {
                stress = stresses[i - 1] +
                         (stresses[i] - stresses[i - 1]) * (row[i - 1] - size) / (row[i - 1] - row[i]);
                break;
            }
    }
    return limit >= 0.2 - 1e-9 ? stress : stress * limit / 0.2;
}

class Cracks final : public CrackRules {
  public:
    explicit Cracks(const Parameters& p) : p_(p) {}

    actions::LimitState state() const override { return actions::LimitState::QuasiPermanent; }
    Finding check(const CrackInput& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Crack;
        f.clause = "EN 1992-1-1 7.3.4";
        f.prefix = "w";
        f.limit = in.limit;
        if (in.M <= 0)
            return checks::notApplicable(f.clause,
                                         "No tension on this face under the quasi-permanent combination.");
        if (in.As <= 0) return checks::notChecked(f.clause, "No steel crosses the crack.");
        if (p_.crack_by_table) {
            // 7.3.3(2) holds where the least steel of 7.3.2 is there.
            const double least = leastSteel(in.section, in.diameter, in.limit, nullptr);
            if (in.As < least * (1 - 1e-9)) {
                leastSteel(in.section, in.diameter, in.limit, t);
                f.clause = "EN 1992-1-1 7.3.3(2), 7.3.2";
                f.kind = units::Kind::SteelPerWidth, f.sense = checks::Sense::AtLeast, f.prefix = "As";
                f.demand = in.As / in.section.b, f.limit = least / in.section.b;
                f.notes.push_back(
                    "The tables hold only with minimum reinforcement for crack control, and it is not "
                    "provided.");
                return checks::judged(f);
            }
            return byTable(in, t);
        }
        f.demand = crackWidth(p_, in, 0.4, t).width;
        f.notes.push_back(
            "Long-term loading (k_t = 0.4), high-bond bars (k_1 = 0.8), bending (k_2 = 0.5), f_ct,eff = "
            "f_ctm.");
        return checks::judged(f);
    }
    std::string leastSteelClause() const override { return "EN 1992-1-1 7.3.2(2)"; }
    // (7.1) for bending: k_c = 0.4, half the depth in tension, the stress by Table 7.2N for the bar's size
    // (7.6N). Slabs up to 200 mm need no such steel where 9.3 is kept (7.3.3(1)).
    double leastSteel(const Section& s, double diameter, double limit, Steps* t) const override {
        if (s.h <= 200 + 1e-9 || diameter <= 0) return 0;
        const double fctm = concrete(s.fc).fctm;
        const double k = trace::step(t, "k", "min(1, max(0.65, 1 - 0.35*(h - 300)/500))", {{"h", s.h, "mm"}},
                                     std::min(1.0, std::max(0.65, 1 - 0.35 * (s.h - 300) / 500)), "-",
                                     "EN 1992-1-1 7.3.2(2)");
        const double star =
            trace::step(t, "phi_star", "phi*2.9/f_ctm*4*(h - d)/(0.4*h)",
                        {{"phi", diameter, "mm"}, {"f_ctm", fctm, "MPa"}, {"h", s.h, "mm"}, {"d", s.d, "mm"}},
                        diameter * 2.9 / fctm * 4 * (s.h - s.d) / (0.4 * s.h), "mm", "EN 1992-1-1 (7.6N)");
        const double stress =
            trace::step(t, "sigma_s", "", {}, std::min(stressForSize(star, limit), s.fy), "MPa",
                        "EN 1992-1-1 Table 7.2N", "by the bar's size, for the limit of the width");
        return trace::step(t, "A_s,min", "0.4*k*f_ctm*b*h/2/sigma_s",
                           {{"k", k},
                            {"f_ctm", fctm, "MPa"},
                            {"b", s.b, "mm"},
                            {"h", s.h, "mm"},
                            {"sigma_s", stress, "MPa"}},
                           0.4 * k * fctm * s.b * s.h / 2 / stress, "mm²", "EN 1992-1-1 (7.1)");
    }

  private:
    // Tables 7.2N and 7.3N: for cracks from loads the bar size or the spacing suffices, interpolated by the
    // stress of the steel; the column of the largest tabulated width that is not over the limit. The size is
    // converted by (7.6N) with k_c = 0.4 and half the depth in tension.
    Finding byTable(const CrackInput& in, Steps* t) const {
        constexpr double spacings[3][8] = {{200, 150, 100, 50, 0, 0, 0, 0},
                                           {300, 250, 200, 150, 100, 50, 0, 0},
                                           {300, 300, 250, 200, 150, 100, 0, 0}};
        const std::string clause = "EN 1992-1-1 7.3.3(2), Tables 7.2N, 7.3N";
        const int column = tableColumn(in.limit);
        if (column < 0)
            return checks::notChecked(clause,
                                      "The tables begin at a crack width of 0.2 mm; calculate it instead.");
        const Section& s = in.section;
        double stress = crackWidth(p_, in, 0.4, nullptr).stress;
        trace::step(t, "sigma_s", "", {}, stress, "MPa", "EN 1992-1-1 7.3.4(2)",
                    "of the cracked section under the quasi-permanent combination");
        auto at = [&](const double(&row)[8]) {
            if (stress <= stresses[0]) return row[0];
            for (int i = 1; i < 8; ++i)
                if (stress <= stresses[i])
                    return row[i - 1] + (row[i] - row[i - 1]) * (stress - stresses[i - 1]) /
                                            (stresses[i] - stresses[i - 1]);
            return 0.0;
        };
        double spacing =
            trace::step(t, "s_max", "", {}, at(spacings[column]), "mm", "EN 1992-1-1 Table 7.3N");
        double star = trace::step(t, "phi_star", "", {}, at(sizes[column]), "mm", "EN 1992-1-1 Table 7.2N");
        double fctm = concrete(s.fc).fctm;
        double size = trace::step(
            t, "phi_max", "phi_star*f_ctm/2.9*0.4*h/(4*(h - d))",
            {{"phi_star", star, "mm"}, {"f_ctm", fctm, "MPa"}, {"h", s.h, "mm"}, {"d", s.d, "mm"}},
            star * fctm / 2.9 * 0.4 * s.h / (4 * (s.h - s.d)), "mm", "EN 1992-1-1 (7.6N)");
        Finding f;
        f.clause = clause;
        bool bySpacing = spacing > 0 && (size <= 0 || in.spacing / spacing <= in.diameter / size);
        f.kind = bySpacing ? units::Kind::BarSpacing : units::Kind::Length;
        f.prefix = bySpacing ? "s" : "phi";
        f.demand = bySpacing ? in.spacing : in.diameter;
        f.limit = bySpacing ? spacing : size;
        f.notes.push_back(
            "Bar size or spacing: one of the two suffices for cracks from loads; the better one is shown.");
        return checks::judged(f);
    }

    Parameters p_;
};

}  // namespace

CrackWidth crackWidth(const Parameters& p, const CrackInput& in, double k_t, Steps* t) {
    using trace::step;
    constexpr double k_1 = 0.8, k_2 = 0.5;
    const Section& s = in.section;
    Concrete c = concrete(s.fc);
    CrackWidth w{};
    double eff = step(t, "E_c,eff", "E_cm/(1 + phi)", {{"E_cm", c.Ecm, "MPa"}, {"phi", in.creep}},
                      c.Ecm / (1 + in.creep), "MPa", "EN 1992-1-1 (7.20)");
    w.x = cracked(s.b, s.d, in.As, Es / eff).x;
    step(t, "x", "E_s/E_c,eff*A_s/b*(sqrt(1 + 2*b*d*E_c,eff/(E_s*A_s)) - 1)",
         {{"E_s", Es, "MPa"},
          {"E_c,eff", eff, "MPa"},
          {"A_s", in.As, "mm²"},
          {"b", s.b, "mm"},
          {"d", s.d, "mm"}},
         w.x, "mm", "cracked section, elastic");
    w.stress = step(t, "sigma_s", "M*1e6/(A_s*(d - x/3))",
                    {{"M", in.M / 1e6, "kNm"}, {"A_s", in.As, "mm²"}, {"d", s.d, "mm"}, {"x", w.x, "mm"}},
                    in.M / (in.As * (s.d - w.x / 3)), "MPa", "EN 1992-1-1 7.3.4(2)");
    w.h_ceff = step(t, "h_c,ef", "min(2.5*(h - d), (h - x)/3, h/2)",
                    {{"h", s.h, "mm"}, {"d", s.d, "mm"}, {"x", w.x, "mm"}},
                    std::min({2.5 * (s.h - s.d), (s.h - w.x) / 3, s.h / 2}), "mm", "EN 1992-1-1 7.3.2(3)");
    w.rho = step(t, "rho_p,eff", "A_s/(b*h_c,ef)",
                 {{"A_s", in.As, "mm²"}, {"b", s.b, "mm"}, {"h_c,ef", w.h_ceff, "mm"}},
                 in.As / (s.b * w.h_ceff), "-", "EN 1992-1-1 (7.10)");
    bool near = in.spacing <= 5 * (in.cover + in.diameter / 2);
    w.spacing =
        near ? step(t, "s_r,max", "k_3*c + k_1*k_2*k_4*phi/rho_p,eff",
                    {{"k_3", p.k_3},
                     {"c", in.cover, "mm"},
                     {"k_1", k_1},
                     {"k_2", k_2},
                     {"k_4", p.k_4},
                     {"phi", in.diameter, "mm"},
                     {"rho_p,eff", w.rho}},
                    p.k_3 * in.cover + k_1 * k_2 * p.k_4 * in.diameter / w.rho, "mm", "EN 1992-1-1 (7.11)")
             : step(t, "s_r,max", "1.3*(h - x)", {{"h", s.h, "mm"}, {"x", w.x, "mm"}}, 1.3 * (s.h - w.x),
                    "mm", "EN 1992-1-1 (7.14)", "bars wider apart than 5(c + φ/2)");
    double ratio = Es / c.Ecm;
    w.strain = std::max((w.stress - k_t * c.fctm / w.rho * (1 + ratio * w.rho)) / Es, 0.6 * w.stress / Es);
    step(t, "Delta_epsilon",
         "max((sigma_s - k_t*f_ctm/rho_p,eff*(1 + E_s/E_cm*rho_p,eff))/E_s, 0.6*sigma_s/E_s)*1000",
         {{"sigma_s", w.stress, "MPa"},
          {"k_t", k_t},
          {"f_ctm", c.fctm, "MPa"},
          {"rho_p,eff", w.rho},
          {"E_s", Es, "MPa"},
          {"E_cm", c.Ecm, "MPa"}},
         w.strain * 1000, "‰", "EN 1992-1-1 (7.9)");
    w.width = step(t, "w_k", "s_r,max*Delta_epsilon/1000",
                   {{"s_r,max", w.spacing, "mm"}, {"Delta_epsilon", w.strain * 1000, "‰"}},
                   w.spacing * w.strain, "mm", "EN 1992-1-1 (7.8)");
    return w;
}

std::unique_ptr<CrackRules> crackRules(const Parameters& p) {
    return std::make_unique<Cracks>(p);
}

}  // namespace talvik::standards::en1992

// Serviceability: crack width 7.3.4, span-to-depth 7.4.2, sag by curvatures 7.4.3.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "standards/cracked_section.h"
#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

constexpr double Es = 200000;

double systemFactor(SpanSystem system) {
    switch (system) {
        case SpanSystem::Simple:
            return 1.0;
        case SpanSystem::End:
            return 1.3;
        case SpanSystem::Interior:
            return 1.5;
        case SpanSystem::Cantilever:
            return 0.4;
    }
    return 1.0;
}

// Curvature of 7.4.3(3) at one station: moment M (any sign) with the steel tensioned by it; magnitude
// returned with the sign of M. Shrinkage bends towards the steel: its curvature carries the sign given by the
// face.
struct StateCurvature {
    double E;     // of the concrete
    double beta;  // 0.5 sustained, 1.0 short
    double fctm;
    double shrinkage;
};

// `before`: the largest moment that has acted until then. By 7.4.3(3) a section counts as cracked where the tensile
// strength has been exceeded; the share zeta then follows from that moment, which opened the crack, as (7.19) does
// from the stress on first cracking and that at the time.
double curvature(const Section& s, const SagStation& st, double M, double before, const StateCurvature& c) {
    double ratio = Es / c.E;
    bool sagging = M >= 0;
    double As = sagging ? st.asBottom : st.asTop, d = sagging ? st.dBottom : s.h - st.dTop;
    // Only the steel tensioned by M is counted; steel of the other face would stiffen a little.
    TransformedSection plain = uncracked(s.b, s.h, d, As, ratio), broken = cracked(s.b, d, As, ratio);
    double Mcr = c.fctm * plain.I / (s.h - plain.x), m = std::abs(M);
    // Of the other sign it has not cracked this face.
    const double opened = std::max(m, before * M > 0 ? std::abs(before) : 0);
    double zeta = opened > Mcr ? 1 - c.beta * (Mcr / opened) * (Mcr / opened) : 0;
    auto blend = [&](double I, double II) { return zeta * II + (1 - zeta) * I; };
    double bending = As > 0 ? blend(m / (c.E * plain.I), m / (c.E * broken.I)) : m / (c.E * plain.I);
    double shrink = As > 0 ? blend(c.shrinkage * ratio * As * (d - plain.x) / plain.I,
                                   c.shrinkage * ratio * As * (d - broken.x) / broken.I)
                           : 0;
    return sagging ? bending + shrink : -bending - shrink;
}

// Table 7.2N, columns of 0.2, 0.3 and 0.4 mm; beyond its last row there is none.
constexpr double stresses[] = {160, 200, 240, 280, 320, 360, 400, 450};
constexpr double sizes[3][8] = {
    {25, 16, 12, 8, 6, 5, 4, 0}, {32, 25, 16, 12, 10, 8, 6, 5}, {40, 32, 20, 16, 12, 10, 8, 6}};
// The column for a limit: that of the largest tabulated width not over it, -1 below 0.2 mm.
int tableColumn(double limit) {
    return limit >= 0.4 - 1e-9 ? 2 : limit >= 0.3 - 1e-9 ? 1 : limit >= 0.2 - 1e-9 ? 0 : -1;
}
// The stress at which a size is allowed; sizes over the table's go by the product of stress and size of its first
// row, widths under 0.2 mm by the column of 0.2 in proportion.
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

class Service final : public ServiceRules {
  public:
    explicit Service(const Parameters& p) : p_(p) {}

    actions::LimitState crackState() const override { return actions::LimitState::QuasiPermanent; }
    std::string slendernessClause() const override { return "EN 1992-1-1 7.4.2(2)"; }
    std::string computedSagClause() const override { return "EN 1992-1-1 7.4.1(6)"; }

    Finding crack(const CrackInput& in, Steps* t) const override {
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
            const double least = leastForCracking(in.section, in.diameter, in.limit, nullptr);
            if (in.As < least * (1 - 1e-9)) {
                leastForCracking(in.section, in.diameter, in.limit, t);
                f.clause = "EN 1992-1-1 7.3.3(2), 7.3.2";
                f.kind = units::Kind::SteelPerWidth, f.sense = checks::Sense::AtLeast, f.prefix = "As";
                f.demand = in.As / in.section.b, f.limit = least / in.section.b;
                f.notes.push_back(
                    "The tables hold only where the least steel for cracking is there, and it is not.");
                return checks::judged(f);
            }
            return crackByTable(in, t);
        }
        f.demand = crackWidth(p_, in, 0.4, t).width;
        f.notes.push_back(
            "Long-term loading (k_t = 0.4), high-bond bars (k_1 = 0.8), bending (k_2 = 0.5), f_ct,eff = "
            "f_ctm.");
        return checks::judged(f);
    }

    std::string crackSteelClause() const override { return "EN 1992-1-1 7.3.2(2)"; }
    // (7.1) for bending: k_c = 0.4, half the depth in tension, the stress by Table 7.2N for the bar's size (7.6N).
    // Slabs up to 200 mm need no such steel where 9.3 is kept (7.3.3(1)).
    double leastForCracking(const Section& s, double diameter, double limit, Steps* t) const override {
        if (s.h <= 200 + 1e-9 || diameter <= 0) return 0;
        const double fctm = concrete(s.fc).fctm;
        const double k = trace::step(t, "k", "min(1, max(0.65, 1 - 0.35*(h - 300)/500))", {{"h", s.h, "mm"}},
                                     std::min(1.0, std::max(0.65, 1 - 0.35 * (s.h - 300) / 500)), "-",
                                     "EN 1992-1-1 7.3.2(2)");
        const double star = trace::step(
            t, "phi_star", "phi*2.9/f_ctm*4*(h - d)/(0.4*h)",
            {{"phi", diameter, "mm"}, {"f_ctm", fctm, "MPa"}, {"h", s.h, "mm"}, {"d", s.d, "mm"}},
            diameter * 2.9 / fctm * 4 * (s.h - s.d) / (0.4 * s.h), "mm", "EN 1992-1-1 (7.6N)");
        const double stress = trace::step(t, "sigma_s", "", {}, std::min(stressForSize(star, limit), s.fy), "MPa",
                                          "EN 1992-1-1 Table 7.2N", "by the bar's size, for the limit of the width");
        return trace::step(t, "A_s,min", "0.4*k*f_ctm*b*h/2/sigma_s",
                           {{"k", k}, {"f_ctm", fctm, "MPa"}, {"b", s.b, "mm"}, {"h", s.h, "mm"}, {"sigma_s", stress, "MPa"}},
                           0.4 * k * fctm * s.b * s.h / 2 / stress, "mm²", "EN 1992-1-1 (7.1)");
    }

    // Tables 7.2N and 7.3N: for cracks from loads the bar size or the spacing suffices, interpolated by the
    // stress of the steel; the column of the largest tabulated width that is not over the limit. The size is
    // converted by (7.6N) with k_c = 0.4 and half the depth in tension.
    Finding crackByTable(const CrackInput& in, Steps* t) const {
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

    Finding slenderness(const SlendernessInput& in, Steps* t) const override {
        Finding f;
        f.clause = "EN 1992-1-1 7.4.2(2)";
        f.prefix = "l/d";
        double bd = in.section.b * in.section.d;
        double steelRatio = in.requiredSteel > 0 ? in.providedSteel / in.requiredSteel : 1;
        if (steelRatio > 1.5) {
            steelRatio = 1.5;
            f.notes.push_back("A_s,prov/A_s,req is taken as at most 1.5.");
        }
        const bool flat =
            in.panel == SlendernessInput::Panel::OnColumns && in.system != SpanSystem::Cantilever;
        const double length = flat ? std::max(in.length, in.longer) : in.length;
        if (in.compressionSteel > 0 && in.compressionSteel >= 0.95 * in.requiredSteel)
            return checks::notChecked(f.clause,
                                      "Expression (7.16.b) has no meaning with as much compression steel as "
                                      "tension steel: make the slab thicker.");
        if (in.requiredSteel < 0.0015 * bd)
            f.notes.push_back(
                "Hardly any steel is asked for; below 0.15 % the expression (7.16.a) is steep, and its limit "
                "tells little more than that sag is no concern.");
        f.limit = spanDepthLimit(flat ? 1.2 : systemFactor(in.system), in.section.fc, in.section.fy,
                                 std::max(in.requiredSteel / bd, 1e-4), in.compressionSteel / bd, steelRatio,
                                 length / 1000, flat ? 8.5 : 7, t);
        if (flat)
            f.notes.push_back("Slab on columns without beams: K = 1.2, the longer span counts (Table 7.4N).");
        f.demand = trace::step(t, "l/d", "l/d", {{"l", length, "mm"}, {"d", in.section.d, "mm"}},
                               length / in.section.d, "-", f.clause);
        f.notes.push_back(flat ? "Spans over 8.5 m are reduced as if they carried partitions that brittle "
                                 "cracking would harm."
                               : "Spans over 7 m are reduced as if they carried partitions that brittle "
                                 "cracking would harm.");
        return checks::judged(f);
    }

    double firstThickness(SpanSystem system, double length, double toSteel, const Section& s,
                          Steps* t) const override {
        constexpr double rho = 0.005;  // lightly stressed slab, Table 7.4N
        double ld = spanDepthLimit(systemFactor(system), s.fc, s.fy, rho, 0, 1, length / 1000, 7, t);
        double h =
            trace::step(t, "h", "l/k_ld + c", {{"l", length, "mm"}, {"k_ld", ld}, {"c", toSteel, "mm"}},
                        length / ld + toSteel, "mm", "EN 1992-1-1 7.4.2(2)",
                        "for 0.5 % of steel, a lightly stressed slab; c from the face to the bar's centre");
        return units::roundUp(h, 10);
    }

    // Table 7.4N: two-way slabs by the shorter span, flat slabs by the longer with K = 1.2. Lengths are clear
    // spans here, a little below the effective spans; that a first thickness is rounded up covers it.
    double panelThickness(const PanelInput& in, Steps* t) const override {
        constexpr double rho = 0.005;
        bool flat = in.kind == PanelInput::Kind::OnColumns;
        double length = flat ? in.longer : in.shorter;
        double K = flat ? 1.2 : systemFactor(in.system);
        double ld =
            spanDepthLimit(K, in.section.fc, in.section.fy, rho, 0, 1, length / 1000, flat ? 8.5 : 7, t);
        double h =
            trace::step(t, "h", "l/k_ld + c", {{"l", length, "mm"}, {"k_ld", ld}, {"c", in.toSteel, "mm"}},
                        length / ld + in.toSteel, "mm", "EN 1992-1-1 7.4.2(2), Table 7.4N",
                        flat ? "flat slab, the longer clear span, 0.5 % of steel"
                             : "the shorter clear span, 0.5 % of steel");
        return units::roundUp(h, 10);
    }

    Curvatures curvatures(const SagInput& in, Steps* t) const override {
        Concrete c = concrete(in.section.fc);
        double Eceff =
            trace::step(t, "E_c,eff", "E_cm/(1 + phi)", {{"E_cm", c.Ecm, "MPa"}, {"phi", in.creep}},
                        c.Ecm / (1 + in.creep), "MPa", "EN 1992-1-1 (7.20)");
        StateCurvature sustained{Eceff, 0.5, c.fctm, in.shrinkage}, early{c.Ecm, 1.0, c.fctm, 0};
        Curvatures k;
        for (const SagStation& st : in.stations) {
            double total = curvature(in.section, st, st.mSustained, st.mTotal, sustained);
            k.total.push_back(total);
            k.after.push_back(total - curvature(in.section, st, st.mBefore, 0, early));
        }
        if (t) explain(in, Eceff, c, t);
        k.notes.push_back(
            "Curvatures under the quasi-permanent combination; whether and how far the section is cracked follows "
            "from the characteristic one, whose cracks remain (7.4.3(3)); beta = 0.5, creep by E_c,eff, "
            "shrinkage included; only the steel tensioned by the moment counts.");
        k.notes.push_back("After partitions: less the immediate sag under self-weight.");
        return k;
    }

    std::vector<SagLimit> sagLimits() const override {
        return {{SagLimit::Which::Total, p_.deflection_limit, "EN 1992-1-1 7.4.1(4)", "Long-term sag"},
                {SagLimit::Which::After, p_.after_limit, "EN 1992-1-1 7.4.1(5)", "Sag after partitions"}};
    }

  private:
    // The working at the station of the largest long-term moment.
    void explain(const SagInput& in, double Eceff, const Concrete& c, Steps* t) const {
        using trace::step;
        const SagStation* st = nullptr;
        for (const SagStation& s : in.stations)
            if (!st || (in.cantilever ? -s.mSustained > -st->mSustained : s.mSustained > st->mSustained))
                st = &s;
        if (!st) return;
        const Section& s = in.section;
        double M = std::abs(st->mSustained), As = st->mSustained >= 0 ? st->asBottom : st->asTop;
        double d = st->mSustained >= 0 ? st->dBottom : s.h - st->dTop, ratio = Es / Eceff;
        if (As <= 0) return;
        TransformedSection I = uncracked(s.b, s.h, d, As, ratio), II = cracked(s.b, d, As, ratio);
        double Mcr = step(
            t, "M_cr", "f_ctm*I_u*1e6/(h - x_u)/1e6",
            {{"f_ctm", c.fctm, "MPa"}, {"I_u", I.I / 1e6, "10⁶ mm⁴"}, {"h", s.h, "mm"}, {"x_u", I.x, "mm"}},
            c.fctm * I.I / (s.h - I.x) / 1e6, "kNm", "EN 1992-1-1 7.4.3(4)");
        const double opened = std::max(M, st->mTotal * st->mSustained > 0 ? std::abs(st->mTotal) : 0);
        double zeta = opened > Mcr * 1e6
                          ? step(t, "zeta", "1 - beta*(M_cr/M_max)^2",
                                 {{"beta", 0.5}, {"M_cr", Mcr, "kNm"}, {"M_max", opened / 1e6, "kNm"}},
                                 1 - 0.5 * std::pow(Mcr * 1e6 / opened, 2), "-", "EN 1992-1-1 7.4.3(3), (7.19)",
                                 "by the largest moment that acts before, of the characteristic combination")
                                    : step(t, "zeta", "", {}, 0, "-", "EN 1992-1-1 (7.19)",
                                           "the section is not cracked");
        step(t, "kappa", "(zeta/I_c + (1 - zeta)/I_u)*M/E_c,eff*1e6",
             {{"zeta", zeta},
              {"I_c", II.I / 1e6, "10⁶ mm⁴"},
              {"I_u", I.I / 1e6, "10⁶ mm⁴"},
              {"M", M / 1e6, "kNm"},
              {"E_c,eff", Eceff, "MPa"}},
             (zeta / II.I + (1 - zeta) / I.I) * M / Eceff * 1e6, "10⁻⁶/mm", "EN 1992-1-1 (7.18)",
             "bending part, at the largest moment");
        step(t, "kappa_cs", "epsilon_cs*E_s/E_c,eff*A_s*(zeta*(d - x_c)/I_c + (1 - zeta)*(d - x_u)/I_u)/1e6",
             {{"epsilon_cs", in.shrinkage * 1e6, "10⁻⁶"},
              {"E_s", Es, "MPa"},
              {"E_c,eff", Eceff, "MPa"},
              {"A_s", As, "mm²"},
              {"zeta", zeta},
              {"d", d, "mm"},
              {"x_c", II.x, "mm"},
              {"I_c", II.I / 1e6, "10⁶ mm⁴"},
              {"x_u", I.x, "mm"},
              {"I_u", I.I / 1e6, "10⁶ mm⁴"}},
             in.shrinkage * 1e6 * ratio * As * (zeta * (d - II.x) / II.I + (1 - zeta) * (d - I.x) / I.I),
             "10⁻⁶/mm", "EN 1992-1-1 (7.21)");
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

double spanDepthLimit(double K, double fck, double fyk, double rho, double rho2, double steelRatio,
                      double length, double longSpan, Steps* t) {
    using trace::step;
    double rho0 = step(t, "rho_0", "sqrt(f_ck)/1000", {{"f_ck", fck, "MPa"}}, std::sqrt(fck) / 1000, "-",
                       "EN 1992-1-1 7.4.2(2)");
    double ld;
    if (rho <= rho0)
        ld = step(t, "k_ld", "K*(11 + 1.5*sqrt(f_ck)*rho_0/rho + 3.2*sqrt(f_ck)*(rho_0/rho - 1)^1.5)",
                  {{"K", K}, {"f_ck", fck, "MPa"}, {"rho_0", rho0}, {"rho", rho}},
                  K * (11 + 1.5 * std::sqrt(fck) * rho0 / rho +
                       3.2 * std::sqrt(fck) * std::pow(rho0 / rho - 1, 1.5)),
                  "-", "EN 1992-1-1 (7.16.a)");
    else
        ld = step(t, "k_ld", "K*(11 + 1.5*sqrt(f_ck)*rho_0/(rho - rho') + sqrt(f_ck)/12*sqrt(rho'/rho_0))",
                  {{"K", K}, {"f_ck", fck, "MPa"}, {"rho_0", rho0}, {"rho", rho}, {"rho'", rho2}},
                  K * (11 + 1.5 * std::sqrt(fck) * rho0 / (rho - rho2) +
                       std::sqrt(fck) / 12 * std::sqrt(rho2 / rho0)),
                  "-", "EN 1992-1-1 (7.16.b)");
    ld = step(t, "k_ld", "k_1*500/f_yk*r_s", {{"k_1", ld}, {"f_yk", fyk, "MPa"}, {"r_s", steelRatio}},
              ld * 500 / fyk * steelRatio, "-", "EN 1992-1-1 (7.17)",
              "k_1 is the value before; r_s = A_s,prov/A_s,req");
    if (length > longSpan)
        ld = step(t, "k_ld", "k_1*l_0/l_eff", {{"k_1", ld}, {"l_0", longSpan, "m"}, {"l_eff", length, "m"}},
                  ld * longSpan / length, "-", "EN 1992-1-1 7.4.2(2)");
    return ld;
}

std::unique_ptr<ServiceRules> serviceRules(const Parameters& p) {
    return std::make_unique<Service>(p);
}

}  // namespace talvik::standards::en1992

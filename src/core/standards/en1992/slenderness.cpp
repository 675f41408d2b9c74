// Span to depth: 7.4.2.
#include <algorithm>
#include <cmath>

#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

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

class Slenderness final : public SlendernessRules {
  public:
    std::string clause() const override { return "EN 1992-1-1 7.4.2(2)"; }

    Finding check(const SlendernessInput& in, Steps* t) const override {
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
                "Very low reinforcement ratio (below 0.15 %): the l/d limit by (7.16.a) is large; deflection "
                "does not govern.");
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

    // Table 7.4N: two-way slabs by the shorter span, flat slabs by the longer with K = 1.2. Lengths of
    // two-way panels are clear spans here, a little below the effective spans; that a first thickness is
    // rounded up covers it.
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
};

}  // namespace

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

std::unique_ptr<SlendernessRules> slendernessRules() {
    return std::make_unique<Slenderness>();
}

}  // namespace talvik::standards::en1992

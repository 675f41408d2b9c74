// Least thickness: Tables 7.3.1.1, 8.3.1.1 and 8.3.1.2.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

struct System {
    double divisor;
    const char* text;
};
System divisor(SpanSystem system) {
    switch (system) {
        case SpanSystem::Simple:
            return {20, "simply supported"};
        case SpanSystem::End:
            return {24, "one end continuous"};
        case SpanSystem::Interior:
            return {28, "both ends continuous"};
        case SpanSystem::Cantilever:
            return {10, "cantilever"};
    }
    return {20, ""};
}

class Slenderness final : public SlendernessRules {
  public:
    explicit Slenderness(const Edition& e) : e_(e) {}

    std::string clause() const override { return "ACI 318-19 Table 7.3.1.1"; }
    Finding check(const SlendernessInput& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Length;
        f.sense = checks::Sense::AtLeast;
        f.clause = "ACI 318-19 Table 7.3.1.1";
        f.prefix = "h";
        f.demand = in.section.h;
        if (in.panel != SlendernessInput::Panel::OneWay && in.system != SpanSystem::Cantilever) {
            const bool columns = in.panel == SlendernessInput::Panel::OnColumns;
            PanelInput panel;
            panel.kind = columns ? PanelInput::Kind::OnColumns : PanelInput::Kind::OnLines;
            panel.system = in.exterior ? SpanSystem::End : SpanSystem::Interior;
            panel.shorter = in.shorter, panel.longer = in.longer;
            panel.edgeBeam = in.edgeBeam;
            panel.drop = in.drop;
            panel.stiffness = in.stiffness;
            panel.softEdge = in.softEdge;
            panel.section = in.section;
            f.clause = columns ? "ACI 318-19 8.3.1.1" : "ACI 318-19 8.3.1.2";
            f.limit = leastPanelThickness(panel, t);
            f.notes.push_back(columns ? "Slab on columns without beams between them; the longer clear span counts, and "
                                        "a panel with one discontinuous edge is an exterior one."
                                      : "Slab on beams or walls on all sides; the longer clear span counts.");
            return checks::judged(f);
        }
        f.limit = leastThickness(in.system, in.length, in.section, t);
        f.notes.push_back(
            "For slabs that do not carry partitions likely to be damaged by large deflections.");
        return checks::judged(f);
    }

    double firstThickness(SpanSystem system, double length, double, const Section& s,
                          Steps* t) const override {
        return units::roundUp(leastThickness(system, length, s, t),
                              e_.units == units::System::Metric ? 10 : 12.7);
    }

    // Tables 8.3.1.1 (on columns) and 8.3.1.2 (on beams or walls).
    double panelThickness(const PanelInput& in, Steps* t) const override {
        double step = e_.units == units::System::Metric ? 10 : 12.7;
        if (in.kind == PanelInput::Kind::OneWay)
            return firstThickness(in.system, in.shorter, in.toSteel, in.section, t);
        return units::roundUp(leastPanelThickness(in, t), step);
    }

  private:
    double leastPanelThickness(const PanelInput& in, Steps* t) const {
        const double L = e_.length, ln = in.longer / L, fy = in.section.fy / e_.stress;
        if (in.kind == PanelInput::Kind::OnLines && in.stiffness > 0.2) {
            const double beta = in.longer / in.shorter;
            const bool stiff = in.stiffness > 2;
            double h = stiff ? trace::step(t, "h", "l_n*(0.8 + f_y/f_0)/(36 + 9*beta)",
                                           {{"l_n", ln, e_.lengthUnit},
                                            {"f_y", fy, e_.stressUnit},
                                            {"f_0", e_.stiffYield, e_.stressUnit},
                                            {"beta", beta}},
                                           ln * (0.8 + fy / e_.stiffYield) / (36 + 9 * beta), e_.lengthUnit,
                                           "ACI 318-19 Table 8.3.1.2", "alpha_fm over 2")
                             : trace::step(t, "h", "l_n*(0.8 + f_y/f_0)/(36 + 5*beta*(alpha_fm - 0.2))",
                                           {{"l_n", ln, e_.lengthUnit},
                                            {"f_y", fy, e_.stressUnit},
                                            {"f_0", e_.stiffYield, e_.stressUnit},
                                            {"beta", beta},
                                            {"alpha_fm", in.stiffness}},
                                           ln * (0.8 + fy / e_.stiffYield) / (36 + 5 * beta * (in.stiffness - 0.2)),
                                           e_.lengthUnit, "ACI 318-19 Table 8.3.1.2");
            if (in.softEdge)
                h = trace::step(t, "h", "1.1*h_1", {{"h_1", h, e_.lengthUnit}}, 1.1 * h, e_.lengthUnit,
                                "ACI 318-19 8.3.1.2.1", "an edge that is not continuous, with alpha_f below 0.80");
            return std::max(h, stiff ? e_.stiffLeast : e_.softLeast) * L;
        }
        const bool stiffEdge = in.system == SpanSystem::Interior || in.edgeBeam;
        // Divisors of the three grades; thicknesses are interpolated between them.
        const double base = in.drop ? (stiffEdge ? 40 : 36) : (stiffEdge ? 36 : 33);
        const double divisors[3] = {base, in.drop ? (stiffEdge ? 36.0 : 33.0) : (stiffEdge ? 33.0 : 30.0),
                                    in.drop ? (stiffEdge ? 33.0 : 30.0) : (stiffEdge ? 30.0 : 27.0)};
        const double* f = e_.gradeThickness;
        const double y = std::clamp(fy, f[0], f[2]);
        const int low = y <= f[1] ? 0 : 1;
        const double h = trace::step(t, "h", "l_n/k_1 + (l_n/k_2 - l_n/k_1)*(f_y - f_1)/(f_2 - f_1)",
                                     {{"l_n", ln, e_.lengthUnit},
                                      {"k_1", divisors[low]},
                                      {"k_2", divisors[low + 1]},
                                      {"f_y", y, e_.stressUnit},
                                      {"f_1", f[low], e_.stressUnit},
                                      {"f_2", f[low + 1], e_.stressUnit}},
                                     ln / divisors[low] + (ln / divisors[low + 1] - ln / divisors[low]) *
                                                              (y - f[low]) / (f[low + 1] - f[low]),
                                     e_.lengthUnit, "ACI 318-19 Table 8.3.1.1",
                                     in.drop ? "with drop panels" : "without drop panels");
        return std::max(h, in.drop ? e_.dropLeast : e_.flatLeast) * L;
    }
    double leastThickness(SpanSystem system, double length, const Section& s, Steps* t) const {
        System k = divisor(system);
        double fy = s.fy / e_.stress;
        return trace::step(t, "h_min", "l/k_l*(0.4 + f_y/f_0)",
                           {{"l", length / e_.length, e_.lengthUnit},
                            {"k_l", k.divisor},
                            {"f_y", fy, e_.stressUnit},
                            {"f_0", e_.thicknessYield, e_.stressUnit}},
                           length / e_.length / k.divisor * (0.4 + fy / e_.thicknessYield), e_.lengthUnit,
                           "ACI 318-19 Table 7.3.1.1", k.text) *
               e_.length;
    }

    const Edition& e_;
};

}  // namespace

std::unique_ptr<SlendernessRules> slendernessRules(const Edition& e) {
    return std::make_unique<Slenderness>(e);
}

}  // namespace talvik::standards::aci318

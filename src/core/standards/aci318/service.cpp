// Serviceability: bar spacing of 24.3.2, least thickness of 7.3.1.1, effective inertia of 24.2.3.5.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"
#include "standards/cracked_section.h"

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

class Service final : public ServiceRules {
  public:
    Service(const Edition& e, const catalogs::ParameterValues& p)
        : e_(e),
          lambda_(p.find("lambda")->second),
          xi_(p.find("xi")->second),
          live_(p.find("live_limit")->second),
          after_(p.find("after_limit")->second),
          total_(p.find("total_limit")->second) {}

    actions::LimitState crackState() const override { return actions::LimitState::Characteristic; }
    std::string slendernessClause() const override { return "ACI 318-19 Table 7.3.1.1"; }
    std::string computedSagClause() const override { return "ACI 318-19 7.3.2.1"; }

    Finding crack(const CrackInput& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::BarSpacing;
        f.clause = "ACI 318-19 24.3.2";
        f.prefix = "s";
        if (in.M <= 0) return checks::notApplicable(f.clause, "No tension on this face under service loads.");
        double fs = trace::step(t, "f_s", "2/3*f_y", {{"f_y", in.section.fy / e_.stress, e_.stressUnit}},
                                in.section.fy * 2 / 3 / e_.stress, e_.stressUnit, "ACI 318-19 24.3.2.1") *
                    e_.stress;
        f.limit = trace::step(t, "s_max", "min(k_s*f_0/f_s - 2.5*c_c, k_cap*f_0/f_s)",
                              {{"k_s", e_.crackReach, e_.lengthUnit},
                               {"f_0", e_.crackStress, e_.stressUnit},
                               {"f_s", fs / e_.stress, e_.stressUnit},
                               {"c_c", in.cover / e_.length, e_.lengthUnit},
                               {"k_cap", e_.crackCap, e_.lengthUnit}},
                              crackSpacing(e_, fs, in.cover) / e_.length, e_.lengthUnit,
                              "ACI 318-19 Table 24.3.2") *
                  e_.length;
        f.demand = in.spacing;
        f.notes.push_back("Steel stress at service taken as two thirds of f_y.");
        return checks::judged(f);
    }

    double leastForCracking(const Section&, double, double, Steps*) const override { return 0; }
    std::string crackSteelClause() const override { return "ACI 318-19 24.3.2"; }
    Finding slenderness(const SlendernessInput& in, Steps* t) const override {
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

    Curvatures curvatures(const SagInput& in, Steps* t) const override {
        Curvatures k;
        const SagStation* peak = nullptr;
        auto magnitude = [&](const SagStation& s) { return in.cantilever ? -s.mTotal : s.mTotal; };
        for (const SagStation& s : in.stations)
            if (!peak || magnitude(s) > magnitude(*peak)) peak = &s;
        if (!peak) return k;
        bool sagging = peak->mTotal >= 0;
        double As = sagging ? peak->asBottom : peak->asTop,
               d = sagging ? peak->dBottom : in.section.h - peak->dTop;
        double topSteel = sagging ? peak->asTop : peak->asBottom;
        double Ec = modulus(in.section), total = effectiveInertia(in.section, peak->mTotal, As, d, t);
        double permanent = effectiveInertia(in.section, peak->mPermanent, As, d, nullptr);
        double rho2 = topSteel / (in.section.b * d);
        double lambda = trace::step(t, "lambda_Delta", "xi/(1 + 50*rho')", {{"xi", xi_}, {"rho'", rho2}},
                                    xi_ / (1 + 50 * rho2), "-", "ACI 318-19 24.2.4.1.1");
        for (const SagStation& s : in.stations) {
            double both = s.mTotal / (Ec * total), dead = s.mPermanent / (Ec * permanent),
                   lasting = lambda * s.mSustained / (Ec * total);
            k.live.push_back(both - dead);
            k.after.push_back(both - dead + lasting);
            k.total.push_back(both + lasting);
        }
        k.notes.push_back(
            "One effective inertia per span, at its largest moment (24.2.3.7); the lasting part uses that of "
            "the total load.");
        k.notes.push_back(
            "After partitions: immediate sag of the imposed load and the lasting part of the sustained "
            "load.");
        return k;
    }

    std::vector<SagLimit> sagLimits() const override {
        return {{SagLimit::Which::Live, live_, "ACI 318-19 Table 24.2.2", "Immediate sag, imposed load"},
                {SagLimit::Which::After, after_, "ACI 318-19 Table 24.2.2", "Sag after partitions"},
                {SagLimit::Which::Total, total_, "office practice", "Long-term sag"}};
    }

  private:
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
    double modulus(const Section& s) const { return e_.modulus * std::sqrt(s.fc / e_.stress) * e_.stress; }

    // Table 24.2.3.5: Ig up to (2/3) Mcr. Stored units; the working in native ones.
    double effectiveInertia(const Section& s, double moment, double As, double d, Steps* t) const {
        double M = std::abs(moment), Ig = s.b * s.h * s.h * s.h / 12, fc = s.fc / e_.stress,
               ratio = e_.Es * e_.stress / modulus(s);
        double fr = e_.rupture * lambda_ * std::sqrt(fc) * e_.stress, Mcr = fr * Ig / (s.h / 2),
               Icr = cracked(s.b, d, As, ratio).I;
        double Ie =
            M <= Mcr * 2 / 3 || As <= 0 ? Ig : Icr / (1 - std::pow(Mcr * 2 / 3 / M, 2) * (1 - Icr / Ig));
        if (!t) return Ie;
        const char *L = e_.lengthUnit, *S = e_.stressUnit, *K = e_.momentUnit;
        double i4 = std::pow(e_.length, 4), mu = e_.momentFactor * force(e_) * e_.length,
               scale = e_.units == units::System::Metric ? 1e6 : 1;
        const char* I4 = e_.units == units::System::Metric ? "10⁶ mm⁴" : "in⁴";
        trace::step(t, "M_cr", "k_r*lambda*sqrt(f'_c)*b*h^2/6/k_M",
                    {{"k_r", e_.rupture},
                     {"lambda", lambda_},
                     {"f'_c", fc, S},
                     {"b", s.b / e_.length, L},
                     {"h", s.h / e_.length, L},
                     {"k_M", e_.momentFactor}},
                    Mcr / mu, K, "ACI 318-19 24.2.3.5, 19.2.3.1");
        if (Ie == Ig)
            trace::step(t, "I_e", "b*h^3/12/k_I",
                        {{"b", s.b / e_.length, L}, {"h", s.h / e_.length, L}, {"k_I", scale}},
                        Ie / i4 / scale, I4, "ACI 318-19 Table 24.2.3.5(a)",
                        "not over two thirds of the cracking moment");
        else
            trace::step(t, "I_e", "I_cr/(1 - (2/3*M_cr/M_a)^2*(1 - I_cr/I_g))",
                        {{"I_cr", Icr / i4 / scale, I4},
                         {"M_cr", Mcr / mu, K},
                         {"M_a", M / mu, K},
                         {"I_g", Ig / i4 / scale, I4}},
                        Ie / i4 / scale, I4, "ACI 318-19 Table 24.2.3.5(b)");
        return Ie;
    }

    const Edition& e_;
    double lambda_, xi_, live_, after_, total_;
};

}  // namespace

double crackSpacing(const Edition& e, double fs, double cover) {
    double k = e.crackStress * e.stress / fs;
    return std::min(e.crackReach * e.length * k - 2.5 * cover, e.crackCap * e.length * k);
}

std::unique_ptr<ServiceRules> serviceRules(const Edition& e, const catalogs::ParameterValues& p) {
    return std::make_unique<Service>(e, p);
}

}  // namespace talvik::standards::aci318

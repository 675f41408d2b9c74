// The two editions, combinations of 5.3.1, coefficients of 6.5 and the assembled standard.
#include "standards/aci318/aci318.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "standards/coverage.h"

namespace talvik::standards::aci318 {
namespace {

class Actions final : public ActionRules {
  public:
    std::vector<actions::Combination> combinations(const catalogs::ImposedUse& use) const override {
        using actions::LimitState;
        auto named = [](double d, double l) {
            return l == 0 ? fmt::format("{} D", d) : fmt::format("{} D + {} L", d, l);
        };
        return {{named(1.4, 0), "ACI 318-19 (5.3.1a)", LimitState::Ultimate, 1.4, 0},
                {named(1.2, 1.6), "ACI 318-19 (5.3.1b)", LimitState::Ultimate, 1.2, 1.6},
                {named(1, 1), "ACI 318-19 24.2, service", LimitState::Characteristic, 1, 1},
                {named(1, use.psi1), "service, frequent", LimitState::Frequent, 1, use.psi1},
                {named(1, use.sustained), "ACI 318-19 24.2.4.1, sustained", LimitState::QuasiPermanent, 1,
                 use.sustained}};
    }

    AreaReduction areaReduction(const catalogs::ImposedUse& use, double area, double actual,
                                Steps* t) const override {
        AreaReduction r{1, "ASCE/SEI 7-16 4.7.2", ""};
        double a = area / 1e6;
        if ((actual > 0 ? actual : use.load) > 4.79e-3 || use.id[0] == 'C' || use.id[0] == 'F')
            r.note = "Loads over 100 psf, of gathering and of vehicles are not reduced by area.";
        else if (a < 37.16)
            r.note = "Influence areas under 400 ft2 (37.2 m2) are not reduced.";
        if (!r.note.empty()) return r;
        r.factor = trace::step(t, "k_L", "max(0.5, min(1, 0.25 + 4.57/sqrt(A_I)))", {{"A_I", a, "m2"}},
                               std::max(0.5, std::min(1.0, 0.25 + 4.57 / std::sqrt(a))), "-", r.clause,
                               "A_I: influence area K_LL A_T; one floor carried");
        return r;
    }
    Pattern pattern(bool twoWay, const std::function<double()>& ratio) const override {
        if (!twoWay)
            return {false, 1,
                    "The floor spans one way: spans are loaded in turn with the whole imposed load (ACI "
                    "318-19 6.4.2)."};
        const double imposedOverPermanent = ratio();
        if (imposedOverPermanent <= 0.75)
            return {true, 1,
                    fmt::format("Imposed loads act on all panels at once: unfactored they are at most {:.2f} "
                                "times the permanent load, and up to 0.75 times the standard requires no "
                                "pattern loading (ACI 318-19 6.4.3.2).",
                                imposedOverPermanent)};
        return {false, 0.75,
                "Pattern loading with 75 % of the factored imposed load, besides all panels with the whole "
                "(ACI 318-19 6.4.3.3)."};
    }
    Equilibrium equilibrium() const override { return {0.9, 1.2, 1.6, "ACI 318-19 5.3.1"}; }
    double accompanying(const actions::Combination& leading, const catalogs::ImposedUse& use) const override {
        using actions::LimitState;
        return leading.state == LimitState::Frequent         ? use.psi1
               : leading.state == LimitState::QuasiPermanent ? use.sustained
                                                             : leading.factorQ;
    }

    std::vector<Stated> windAndAccidental(const std::vector<actions::ActionKind>& kinds) const override {
        using actions::LimitState;
        using actions::Nature;
        std::vector<Stated> all;
        for (auto& s : actions::aciStrength(kinds)) {
            if (!actions::acts(kinds, s, Nature::Wind) && !actions::acts(kinds, s, Nature::Accidental))
                continue;
            if (!s.clause.starts_with("ASCE")) s.clause = "ACI 318-19 (" + s.clause + ")";
            all.push_back({LimitState::Ultimate, std::move(s)});
        }
        for (auto& s : actions::aciService(kinds))
            if (actions::acts(kinds, s, Nature::Wind))
                all.push_back({LimitState::Characteristic, std::move(s)});
        return all;
    }

    Coefficients coefficients(const Spans& s) const override {
        Coefficients c;
        c.source = "ACI 318-19 Table 6.5.2";
        c.onClearSpan = true;
        std::size_t n = s.lengths.size();
        if (n < 2)
            c.refusal = "needs two spans or more (6.5.1d)";
        else if (s.imposed > 3 * s.permanent)
            c.refusal = "imposed load is over three times the permanent load (6.5.1c)";
        for (std::size_t i = 0; i + 1 < n && c.refusal.empty(); ++i) {
            double a = s.lengths[i], b = s.lengths[i + 1];
            if (std::max(a, b) > 1.2 * std::min(a, b) * (1 + 1e-9))
                c.refusal = fmt::format("neighbouring spans {} and {} differ by more than 20 % (6.5.1e)",
                                        i + 1, i + 2);
        }
        if (!c.refusal.empty()) return c;
        constexpr double none = std::numeric_limits<double>::quiet_NaN();
        c.span.assign(n, 1.0 / 16);
        c.support.assign(n + 1, -1.0 / 11);
        c.span.front() = c.span.back() = s.edgeBeams ? 1.0 / 14 : 1.0 / 11;
        c.support[1] = c.support[n - 1] = n == 2 ? -1.0 / 9 : -1.0 / 10;
        c.support.front() = c.support.back() = s.edgeBeams ? -1.0 / 24 : none;
        if (s.cantileverStart) c.span.front() = c.support[0] = c.support[1] = none;
        if (s.cantileverEnd) c.span.back() = c.support[n] = c.support[n - 1] = none;
        return c;
    }
};

class Stiffness final : public StiffnessRules {
  public:
    explicit Stiffness(const Edition& e) : e_(e) {}
    double modulus(double fc) const override { return e_.modulus * std::sqrt(fc / e_.stress) * e_.stress; }
    std::string modulusClause() const override { return "ACI 318-19 19.2.2.1(b)"; }
    // Table 6.3.2.1: s_w is the clear distance to the next web; beyond a free edge there is no more than
    // there is.
    double flange(const Flange& f) const override {
        double h = f.slabThickness, room = f.edge ? f.toNext : f.toNext / 2;
        return f.otherSide ? std::min({8 * h, f.clear / 8, room}) : std::min({6 * h, f.clear / 12, room});
    }
    std::string flangeClause() const override { return "ACI 318-19 6.3.2.1"; }

  private:
    const Edition& e_;
};

}  // namespace

const Edition& si() {
    static const Edition e{.id = "aci318-si",
                           .title = "ACI 318-19 SI",
                           .family = "aci-si",
                           .units = units::System::Metric,
                           .length = 1,
                           .stress = 1,
                           .lengthUnit = "mm",
                           .stressUnit = "MPa",
                           .momentUnit = "kNm",
                           .forceUnit = "kN",
                           .momentFactor = 1e6,
                           .forceFactor = 1000,
                           .Es = 200000,
                           .beta1Start = 28,
                           .beta1Slope = 0.05 / 7,
                           .shear = 0.66,
                           .shearCap = 0.42,
                           .rootCap = 8.3,
                           .sizeExpression = "min(sqrt(2/(1 + 0.004*d)), 1)",
                           .sizeSlope = 0.004,
                           .rupture = 0.62,
                           .modulus = 4700,
                           .crackStress = 280,
                           .crackReach = 380,
                           .crackCap = 300,
                           .spacingCap = 450,
                           .clearLeast = 25,
                           .thicknessYield = 700,
                           .development = 1.1,
                           .developmentA = 2.1,
                           .developmentB = 1.4,
                           .developmentALarge = 1.7,
                           .developmentBLarge = 1.1,
                           .developmentFloor = 300,
                           .hook = 23,
                           .hookFloor = 150,
                           .gradeStep1 = 420,
                           .gradeStep2 = 550,
                           .smallBar = 19.1,
                           .hookStrengthTop = 42,
                           .supportReach = 150,
                           .beamSteelRoot = 0.25,
                           .beamSteelLeast = 1.4,
                           .beamYieldCap = 550,
                           .plainFlexure = 0.42,
                           .gradeThickness = {280, 420, 550},
                           .flatLeast = 125,
                           .dropLeast = 100,
                           .softLeast = 125,
                           .stiffLeast = 90,
                           .stiffYield = 1400,
                           .shearLinked = 0.17,
                           .shearStep = 0.165,
                           .linkRoot = 0.062,
                           .linkLeast = 0.35,
                           .linkApart = 600};
    return e;
}

const Edition& inchPound() {
    // lbf, in, psi. 1 in = 25.4 mm; 1 psi = 4.4482216152605 / 645.16 MPa: the one line where the editions
    // meet.
    static const Edition e{.id = "aci318-us",
                           .title = "ACI 318-19 inch-pound",
                           .family = "aci-us",
                           .units = units::System::UsCustomary,
                           .length = 25.4,
                           .stress = 4.4482216152605 / 645.16,
                           .lengthUnit = "in",
                           .stressUnit = "psi",
                           .momentUnit = "kip·ft",
                           .forceUnit = "kip",
                           .momentFactor = 12000,
                           .forceFactor = 1000,
                           .Es = 29e6,
                           .beta1Start = 4000,
                           .beta1Slope = 0.05 / 1000,
                           .shear = 8,
                           .shearCap = 5,
                           .rootCap = 100,
                           .sizeExpression = "min(sqrt(2/(1 + d/10)), 1)",
                           .sizeSlope = 0.1,
                           .rupture = 7.5,
                           .modulus = 57000,
                           .crackStress = 40000,
                           .crackReach = 15,
                           .crackCap = 12,
                           .spacingCap = 18,
                           .clearLeast = 1,
                           .thicknessYield = 100000,
                           .development = 40.0 / 3,
                           .developmentA = 25,
                           .developmentB = 50.0 / 3,
                           .developmentALarge = 20,
                           .developmentBLarge = 40.0 / 3,
                           .developmentFloor = 12,
                           .hook = 55,
                           .hookFloor = 6,
                           .gradeStep1 = 60000,
                           .gradeStep2 = 80000,
                           .smallBar = 19.1,
                           .hookStrengthTop = 6000,
                           .supportReach = 6,
                           .beamSteelRoot = 3,
                           .beamSteelLeast = 200,
                           .beamYieldCap = 80000,
                           .plainFlexure = 5,
                           .gradeThickness = {40000, 60000, 80000},
                           .flatLeast = 5,
                           .dropLeast = 4,
                           .softLeast = 5,
                           .stiffLeast = 3.5,
                           .stiffYield = 200000,
                           .shearLinked = 2,
                           .shearStep = 2,
                           .linkRoot = 0.75,
                           .linkLeast = 50,
                           .linkApart = 24};
    return e;
}

std::unique_ptr<ActionRules> actionRules() {
    return std::make_unique<Actions>();
}

std::shared_ptr<const Standard> make(const Edition& e, const catalogs::ParameterValues& changes) {
    constexpr const char* file = "parameters_aci318.json";
    auto p = catalogs::values(catalogs::parameterSet(file), changes);
    auto s = std::make_shared<Standard>();
    s->id = e.id;
    s->title = e.title;
    s->edition = "ACI 318-19";
    s->family = e.family;
    s->parameterFile = file;
    s->nativeUnits = e.units;
    s->flexure = flexureRules(e);
    s->shear = shearRules(e, p.find("lambda")->second);
    s->cracks = crackRules(e);
    s->slenderness = slendernessRules(e);
    s->sag = sagRules(e, p);
    s->steel = steelRules(e);
    s->anchorage = anchorageRules(e);
    s->barEnds = barEndRules(e);
    s->supports = supportRules();
    s->actions = actionRules();
    s->stiffness = std::make_unique<Stiffness>(e);
    s->strips = stripRules(e, *s->flexure);
    s->punching = punchingRules(e, p.find("lambda")->second);
    s->bases = baseRules(e, p.find("lambda")->second);
    s->omissions = omissions("coverage_aci318.json", "ACI 318-19 ");
    return s;
}

}  // namespace talvik::standards::aci318

// Bases: ACI 318-19 chapter 13 with 22.6, 22.8, 8.4.4.2; soil pressure and stability under the combinations
// of ASCE/SEI 7-16 2.4.1.
//
// Readings. The size factor of 22.5 and 22.6 is 1 for footings on ground (13.2.6.2), which are shallow
// foundations however deep their section is; caps on piles keep it (13.4.6.3). Against sliding and
// overturning 0.6 of the permanent actions and weights hold against 0.6 W; the standard asks for no more.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

using actions::ActionKind;
using actions::FactorSet;
using actions::Nature;
using trace::step;

class Bases final : public BaseRules {
  public:
    Bases(const Edition& e, double lambda) : e_(e), lambda_(lambda), anchorage_(anchorageRules(e)) {}

    std::vector<BaseCombination> combinations(const std::vector<ActionKind>& kinds, BaseState state,
                                              const BaseChoices&) const override {
        std::vector<FactorSet> sets;
        switch (state) {
            case BaseState::Service:
                sets = actions::aciService(kinds);
                break;
            case BaseState::Strength:
                sets = actions::aciStrength(kinds);
                break;
            case BaseState::Ground:
            case BaseState::Stability:
                sets = actions::aciStability(kinds);
                break;
            case BaseState::Sustained: {
                sets.resize(1);
                sets[0].clause = "ACI 318-19 24.3.2";
                for (const auto& k : kinds)
                    sets[0].factors.push_back(
                        k.nature == Nature::Permanent || k.nature == Nature::Imposed ? 1 : 0);
                break;
            }
        }
        std::vector<BaseCombination> all;
        for (auto& s : sets) {
            BaseCombination c;
            c.clause = s.clause.starts_with("ASCE") || s.clause.starts_with("ACI") ? s.clause
                                                                                   : "ACI 318-19 " + s.clause;
            c.state = state, c.factors = std::move(s.factors);
            for (std::size_t i = 0; i < kinds.size(); ++i)
                if (kinds[i].nature == Nature::Permanent) c.weight = c.concrete = c.factors[i];
            c.surcharge = state == BaseState::Service ? 1 : state == BaseState::Strength ? 1.6 : 0;
            all.push_back(std::move(c));
        }
        return all;
    }

    PunchingFound punching(const FootingPunching& in, Steps* t) const override {
        PunchingFound found;
        // Half the depth there is from the column, at the depth there.
        double a = in.d / 2;
        if (in.low > 0 && in.step && a > in.shoulder) a = std::max(in.shoulder + 1e-6, in.low / 2);
        if (in.low > 0 && !in.step)
            for (int i = 0; i < 60; ++i) a = (a + in.depth(a) / 2) / 2;
        const double d = in.depth(a);
        const auto p = footingPerimeter(in, a, false);
        auto& f = found.stress;
        f.kind = units::Kind::Stress, f.clause = "ACI 318-19 22.6.5, 8.4.4.2", f.prefix = "v";
        found.face = checks::notApplicable("ACI 318-19 22.6", "The section at d/2 alone is checked.");
        if (in.farthest > 0 && a > in.farthest) {
            f = checks::notApplicable(f.clause, "The section at d/2 reaches the opposite reactions.");
            return found;
        }
        if (p.open) {
            f = checks::notApplicable(f.clause, "The column covers the base: no perimeter is on it.");
            return found;
        }
        double up = std::max(0.0, in.pressure) * p.area;
        for (const auto& pile : in.piles) {
            // 13.4.6.5: none of a pile whose middle is half its size or more inside the section, linear
            // between.
            const double x =
                std::max(std::abs(pile.at.x) - in.sides[0] / 2, std::abs(pile.at.y) - in.sides[1] / 2) - a;
            up += pile.up * std::clamp(0.5 - x / std::max(1.0, pile.size), 0.0, 1.0);
        }
        const double V = std::max(0.0, in.N - up);
        double more = 0;
        int cuts = 0;
        for (const auto& edge : in.rooms()) cuts += edge.over < a;
        for (int i : {0, 1}) {
            const auto m = footingMoments(in, a, false, i);
            const double b1 = std::min(a, in.over[2 * i]) + std::min(a, in.over[2 * i + 1]) + in.sides[i],
                         b2 = p.area / b1;
            const double inside = in.gradient[i] * b2 * b1 * b1 * b1 / 12;
            if (in.pile) continue;
            const double M = std::abs(in.moment[i] - inside - V * m.centroid);
            const double J = d * m.second + m.along * std::pow(d, 3) / 12;
            const double v = momentByShear(b1, b2) * M * m.far / J;
            step(t, i == 0 ? "v_x" : "v_y", "gamma_v*M*1000000*c/J",
                 {{"gamma_v", momentByShear(b1, b2)},
                  {"M", M / 1e6, "kNm"},
                  {"c", m.far, "mm"},
                  {"J", J, "mm4"}},
                 v, "MPa", "ACI 318-19 8.4.4.2.3");
            more += v;
        }
        found.distance = a, found.perimeter = p.length, found.force = V;
        f.demand = step(
            t, "v_u", "V_u*1000/(b_o*d) + v_m",
            {{"V_u", V / 1000, "kN"}, {"b_o", p.length, "mm"}, {"d", d, "mm"}, {"v_m", more, "MPa"}},
            V / (p.length * d) + more, "MPa", "ACI 318-19 8.4.4.2.3",
            in.piles.empty() ? "the ground's pressure inside is taken off" : "piles inside are taken off");
        const double beta = std::max(in.sides[0], in.sides[1]) / std::min(in.sides[0], in.sides[1]),
                     alpha = cuts == 0   ? 40
                             : cuts == 1 ? 30
                                         : 20;
        const auto r = twoWayShear(e_, d, p.length, beta, alpha, in.fc, lambda_);
        const double size = in.onPiles ? r.size : 1;
        if (in.onPiles)
            step(t, "lambda_s", e_.sizeExpression, {{"d", d / e_.length, e_.lengthUnit}}, size, "-",
                 "ACI 318-19 22.5.5.1.3");
        f.limit = step(t, "phiv_c", "0.75*lambda_s*min(v_a, v_b, v_c)",
                       {{"lambda_s", size},
                        {"v_a", r.plain / r.size, "MPa"},
                        {"v_b", r.ratio / r.size, "MPa"},
                        {"v_c", r.perimeter / r.size, "MPa"}},
                       r.strength / r.size * size, "MPa", "ACI 318-19 Table 22.6.5.2",
                       in.onPiles ? "" : "size factor 1 by 13.2.6.2");
        f.notes.push_back(in.onPiles
                              ? "Pile caps keep the size factor of shear (ACI 318-19 13.4.6.3); 13.2.6.2 "
                                "exempts footings on ground alone."
                              : "The size factor of shear is 1 for footings (ACI 318-19 13.2.6.2).");
        if (in.pile) f.notes.push_back("A pile passes on no moment to the section around it.");
        f = checks::judged(f);
        return found;
    }

    double oneWay(const Section& s, double As, bool onPiles, Steps* t) const override {
        const double size = onPiles ? twoWayShear(e_, s.d, 4 * s.d, 1, 40, s.fc, lambda_).size : 1;
        return shearResistance(e_, s, As, lambda_, size, t);
    }
    std::string oneWayClause(bool onPiles) const override {
        return onPiles ? "ACI 318-19 22.5.5, 13.4.6.3" : "ACI 318-19 22.5.5, 13.2.6.2";
    }
    LeastDepth leastDepth(bool onPiles) const override {
        const bool metric = e_.units == units::System::Metric;
        return onPiles ? LeastDepth{metric ? 300 : 12 * e_.length, "ACI 318-19 13.4.6.1"}
                       : LeastDepth{metric ? 150 : 6 * e_.length, "ACI 318-19 13.3.1.2"};
    }

    Finding columnFoot(double N, double loaded, double spread, double fc, double fcColumn,
                       Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Force, f.clause = "ACI 318-19 22.8.3.2", f.prefix = "N";
        f.demand = N;
        const double below = step(
            t, "phiB_n", "0.65*0.85*f'_c*A_1*min(sqrt(A_2/A_1), 2)/1000",
            {{"f'_c", fc, "MPa"}, {"A_1", loaded, "mm²"}, {"A_2", spread, "mm²"}},
            0.65 * 0.85 * fc * loaded * std::min(std::sqrt(spread / loaded), 2.0) / 1000, "kN", f.clause);
        f.limit = below * 1000;
        if (const double own = 0.65 * 0.85 * fcColumn * loaded; N > own)
            f.here.push_back(
                "The column's own concrete is not sufficient for its load: starter bars carry the rest.");
        return checks::judged(f);
    }
    Finding anchorage(const FootingAnchorage& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Length, f.clause = "ACI 318-19 13.2.8", f.prefix = "ld";
        AnchorageInput bar;
        bar.diameter = in.diameter, bar.area = in.barArea, bar.fc = in.fc, bar.fy = in.fy,
        bar.spacing = in.spacing;
        bar.cd = std::min(in.cover, (in.spacing - in.diameter) / 2), bar.hooked = in.hooked;
        bar.stress = in.fy;
        f.demand = anchorage_->length(bar, t);
        f.limit = in.overhang - in.cover;
        f.notes.push_back("Bars of bases are developed from the face of the column (ACI 318-19 13.2.8.3).");
        if (in.hooked) f.here.push_back("Bars end in standard hooks.");
        return checks::judged(f);
    }
    bool legsCount() const override { return false; }  // 25.4.3: to the outside of the hook
    double footSpread() const override { return 4; }   // R22.8.3.2: one down, two out
    double pileShare(double clear, double d, double pile) const override {
        return std::clamp((clear + pile - d) / std::max(1.0, pile), 0.0, 1.0);
    }
    std::string pileShareClause() const override { return "ACI 318-19 13.4.6.5"; }
    double node(bool tied, double fc, double spread, Steps* t) const override {
        const double beta = tied ? 0.8 : 1, confined = tied ? 1 : std::clamp(std::sqrt(spread), 1.0, 2.0);
        return step(t, "phif_ce", "0.75*0.85*beta_c*beta_n*f'_c",
                    {{"beta_c", confined}, {"beta_n", beta}, {"f'_c", fc, "MPa"}},
                    0.75 * 0.85 * confined * beta * fc, "MPa", nodeClause());
    }
    std::string nodeClause() const override { return "ACI 318-19 23.9.2"; }
    double tie(double fy) const override { return 0.75 * fy; }  // Table 21.2.1(g)
    std::string tieClause() const override { return "ACI 318-19 23.7.2"; }
    // What the column's own concrete does not bear passes by the bars across the joint (16.3.1.1, 22.8.3).
    double dowels(double N, double columnArea, double fcColumn, double fy) const override {
        return std::max(0.005 * columnArea, (N - 0.65 * 0.85 * fcColumn * columnArea) / (0.65 * fy));
    }
    std::string dowelClause() const override { return "ACI 318-19 16.3.4.1, 22.8.3"; }
    // The band as wide as the shorter side takes 2/(beta + 1) of the steel; spread evenly over the longer
    // side it is beta times 2/(beta + 1) of it that gives the band its share.
    double evenSpread(double ratio, Steps* t) const override {
        return trace::step(t, "f", "2*beta/(beta + 1)", {{"beta", ratio}}, 2 * ratio / (ratio + 1), "-",
                           evenSpreadClause(),
                           "evenly spread steel that gives the band about the column its share");
    }
    std::string evenSpreadClause() const override { return "ACI 318-19 13.3.3.3"; }
    std::string clause(BaseState state) const override {
        switch (state) {
            case BaseState::Service:
            case BaseState::Ground:
            case BaseState::Stability:
                return "ACI 318-19 13.3.1.1";
            default:
                return "ACI 318-19 13.2";
        }
    }

  private:
    const Edition& e_;
    double lambda_;
    std::unique_ptr<AnchorageRules> anchorage_;
};

}  // namespace

std::unique_ptr<BaseRules> baseRules(const Edition& e, double lambda) {
    return std::make_unique<Bases>(e, lambda);
}

}  // namespace talvik::standards::aci318

// Bases: combinations of EN 1990 with the design approaches of EN 1997-1, and EN
// 1992-1-1 6.4.4(2), 6.7, 9.8.2.
//
// Readings. Permanent actions of a column, the weight of the base and of the soil on it have one factor in a
// combination, the larger or the smaller (single source); against overturning the weights hold with 0.9
// always. In approach 3 the weight of the base is a structural action (EN 1997-1 1.5.2.1), that of the soil a
// geotechnical one. Approach 1: both of its combinations. Approach 2: factors on actions and on resistances.
// Approach 3: the loads of columns are structural actions (A1), weights and surcharge geotechnical ones (A2),
// with factors on the ground.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

using actions::ActionKind;
using actions::FactorSet;
using actions::Nature;
using trace::step;

double psi0(const ActionKind& k) {
    return psi(k).p0;
}

class Bases final : public BaseRules {
  public:
    Bases(const Parameters& p, std::unique_ptr<ShearRules> shear, std::unique_ptr<AnchorageRules> anchorage)
        : p_(p), shear_(std::move(shear)), anchorage_(std::move(anchorage)) {}

    std::vector<BaseCombination> combinations(const std::vector<ActionKind>& kinds, BaseState state,
                                              const BaseChoices& choices) const override {
        std::vector<BaseCombination> all;
        auto add = [&](std::vector<FactorSet> sets, double variable, auto set) {
            for (auto& s : sets) {
                BaseCombination c;
                c.clause = std::move(s.clause), c.state = state, c.factors = std::move(s.factors);
                // One source: the weights have the factor of the permanent actions.
                for (std::size_t i = 0; i < kinds.size(); ++i)
                    if (kinds[i].nature == Nature::Permanent) c.weight = c.concrete = c.factors[i];
                c.surcharge = variable;
                set(c);
                all.push_back(std::move(c));
            }
        };
        auto plain = [](BaseCombination&) {};
        auto accidental = [&](auto set) {
            add(actions::accidental(
                    kinds, [](const ActionKind& k) { return psi(k).p1; },
                    [](const ActionKind& k) { return psi(k).p2; }, "EN 1990 (6.11)"),
                0, set);
        };
        const double G = p_.gamma_G, g = p_.gamma_G_inf, Q = p_.gamma_Q;
        switch (state) {
            case BaseState::Service:
                add(actions::leading(kinds, {{1.0}, 1.0, psi0, "EN 1990 (6.14)"}), 1, plain);
                break;
            case BaseState::Sustained: {
                std::vector<FactorSet> one(1);
                one[0].clause = "EN 1990 (6.16)";
                for (const auto& k : kinds)
                    one[0].factors.push_back(k.nature == Nature::Permanent    ? 1
                                             : k.nature == Nature::Accidental ? 0
                                                                              : psi(k).p2);
                add(std::move(one), 0, plain);
                break;
            }
            case BaseState::Strength:
                if (choices.twoFormulas) {
                    auto sets = actions::accompanyingOnly(kinds, {{G, g}, Q, psi0, "EN 1990 (6.10a)"});
                    for (auto& s : actions::leading(kinds, {{p_.xi * G, g}, Q, psi0, "EN 1990 (6.10b)"}))
                        sets.push_back(std::move(s));
                    add(actions::distinct(std::move(sets)), Q, plain);
                } else {
                    add(actions::leading(kinds, {{G, g}, Q, psi0, "EN 1990 (6.10)"}), Q, plain);
                }
                accidental(plain);
                break;
            case BaseState::Ground: {
                const std::string of = "EN 1997-1 2.4.7.3.4";
                if (choices.approach == 1 || choices.approach == 2)
                    add(actions::leading(kinds,
                                         {{G, g},
                                          Q,
                                          psi0,
                                          of + (choices.approach == 1 ? ".2, A1 M1 R1" : ".3, A1 M1 R2")}),
                        Q, [&](BaseCombination& c) {
                            if (choices.approach == 2)
                                c.bearing = p_.gamma_R_v, c.passive = p_.gamma_R_e, c.sliding = p_.gamma_R_h;
                        });
                auto soft = [&](BaseCombination& c) {
                    c.friction = p_.gamma_phi, c.cohesion = p_.gamma_c_soil, c.undrained = p_.gamma_cu;
                };
                if (choices.approach == 1)
                    add(actions::leading(kinds, {{1.0}, p_.gamma_Q_A2, psi0, of + ".2, A2 M2 R1"}),
                        p_.gamma_Q_A2, soft);
                if (choices.approach == 3)
                    add(actions::leading(kinds, {{G, g}, Q, psi0, of + ".4, A1 A2 M2 R3"}), p_.gamma_Q_A2,
                        [&](BaseCombination& c) {
                            soft(c);
                            c.weight = 1;
                        });
                accidental(plain);
                break;
            }
            case BaseState::Stability:
                add(actions::leading(kinds,
                                     {{p_.gamma_G_dst, p_.gamma_G_stb}, Q, psi0, "EN 1990 Table A1.2(A)"}),
                    0, [&](BaseCombination& c) { c.weight = c.concrete = p_.gamma_G_stb; });
                accidental([](BaseCombination& c) { c.weight = c.concrete = 1; });
                break;
        }
        return all;
    }

    PunchingFound punching(const FootingPunching& in, Steps* t) const override {
        PunchingFound found;
        // Edges that a column stands close to cut perimeters off; the others bound how far they are looked
        // for.
        double most = 2 * in.d;
        const auto edges = in.rooms();
        for (const auto& edge : edges)
            if (!in.near(edge)) most = std::min(most, edge.over);
        if (in.farthest > 0) most = std::min(most, in.farthest);
        struct At {
            double u, area, up, V, beta, stress, strength, d, rho, k, v1, v2;
            double ratio() const { return strength > 0 ? stress / strength : 0; }
        };
        auto at = [&](double a) {
            At r{};
            const auto p = footingPerimeter(in, a, true);
            if (p.open) return r;
            r.u = p.length, r.area = p.area, r.up = std::max(0.0, in.pressure) * p.area;
            for (const auto& pile : in.piles)
                if (in.clear(pile.at) <= a) r.up += pile.up;
            r.V = std::max(0.0, in.N - r.up);
            double sum = 0;
            for (int i : {0, 1}) {
                if (in.pile) break;
                const double c1 = in.sides[i], c2 = in.sides[1 - i], share = eccentricityShare(c1 / c2);
                double W = c1 * c1 / 2 + c1 * c2 + 2 * c2 * a + 4 * a * a + std::numbers::pi * a * c1,
                       M = std::abs(in.moment[i]);
                if (!p.whole) {
                    const auto m = footingMoments(in, a, true, i);
                    W = m.first, M = std::abs(in.moment[i] - r.V * m.centroid);
                }
                if (r.V > 0 && W > 0) sum += std::pow(share * M / r.V * r.u / W, 2);
            }
            r.beta = 1 + std::sqrt(sum);
            if (in.pile) {
                int cuts = 0;
                for (const auto& edge : edges) cuts += edge.over < a;
                r.beta = cuts == 0 ? 1 : cuts == 1 ? 1.4 : 1.5;
            }
            r.d = in.depth(a);
            r.rho = std::min(std::sqrt(in.rho[0] * in.rho[1]) * in.d / r.d, 0.02),
            r.k = std::min(1 + std::sqrt(200 / r.d), 2.0);
            r.v1 = p_.shear_numerator / p_.gamma_c * r.k * std::cbrt(100 * r.rho * in.fc),
            r.v2 = p_.v_min_factor * std::pow(r.k, 1.5) * std::sqrt(in.fc);
            r.stress = r.beta * r.V / (r.u * r.d);
            r.strength = std::max(r.v1, r.v2) * 2 * r.d / a;
            return r;
        };
        double best = most, worst = at(most).ratio();
        constexpr int tries = 16;
        const double step0 = most / tries;
        for (int i = 1; i < tries; ++i)
            if (const double r = at(i * step0).ratio(); r > worst) worst = r, best = i * step0;
        double low = std::max(best - step0, 1e-3 * most), high = std::min(best + step0, most);
        const double golden = (std::sqrt(5.0) - 1) / 2;
        double a = high - golden * (high - low), b = low + golden * (high - low), ra = at(a).ratio(),
               rb = at(b).ratio();
        for (int i = 0; i < 14; ++i) {
            if (ra >= rb) {
                high = b, b = a, rb = ra;
                a = high - golden * (high - low), ra = at(a).ratio();
            } else {
                low = a, a = b, ra = rb;
                b = low + golden * (high - low), rb = at(b).ratio();
            }
        }
        if (const double m = (low + high) / 2; at(m).ratio() > worst) worst = at(m).ratio(), best = m;
        // Just beyond a step the depth is less.
        if (const double m = in.shoulder + 1e-6; in.step && m < most && at(m).ratio() > worst) best = m;
        auto& f = found.stress;
        f.kind = units::Kind::Stress, f.clause = "EN 1992-1-1 6.4.4(2)", f.prefix = "v";
        if (most < 1) {
            f = checks::notApplicable("EN 1992-1-1 6.4.4(2)",
                                      "The column covers the base: no perimeter is on it.");
        } else {
            const At r = at(best);
            found.distance = best, found.perimeter = r.u, found.force = r.V;
            step(t, "V_Ed,red", "max(N_Ed - V_in, 0)",
                 {{"N_Ed", in.N / 1000, "kN"}, {"V_in", r.up / 1000, "kN"}}, r.V / 1000, "kN",
                 "EN 1992-1-1 (6.48)",
                 in.piles.empty() ? "less the ground's net pressure inside the perimeter that governs"
                                  : "less the piles inside the perimeter that governs");
            f.demand =
                step(t, "v_Ed", "beta*V_Ed,red*1000/(u*d)",
                     {{"beta", r.beta}, {"V_Ed,red", r.V / 1000, "kN"}, {"u", r.u, "mm"}, {"d", r.d, "mm"}},
                     r.stress, "MPa", "EN 1992-1-1 (6.51)");
            step(t, "v_1", "c/gamma_c*k*(100*rho_l*f_ck)^(1/3)",
                 {{"c", p_.shear_numerator},
                  {"gamma_c", p_.gamma_c},
                  {"k", r.k},
                  {"rho_l", r.rho},
                  {"f_ck", in.fc, "MPa"}},
                 r.v1, "MPa", "EN 1992-1-1 (6.50)");
            step(t, "v_min", "c_min*k^1.5*sqrt(f_ck)",
                 {{"c_min", p_.v_min_factor}, {"k", r.k}, {"f_ck", in.fc, "MPa"}}, r.v2, "MPa",
                 "EN 1992-1-1 (6.3N)");
            f.limit =
                step(t, "v_Rd", "max(v_1, v_min)*2*d/a",
                     {{"v_1", r.v1, "MPa"}, {"v_min", r.v2, "MPa"}, {"d", r.d, "mm"}, {"a", best, "mm"}},
                     r.strength, "MPa", "EN 1992-1-1 (6.50)");
            f.notes.push_back(
                "Punching of bases: perimeters wholly on the base up to 2d, the worst of them; the ground's "
                "pressure "
                "at the column's middle is taken off inside; eccentricities of both axes by the root of "
                "their squares.");
            if (in.pile)
                f.notes.push_back(
                    "A pile passes on no moment: where one edge of the cap cuts its perimeter off, beta is "
                    "that of edge columns, of two or more that of corner columns (EN 1992-1-1 6.4.3(6)).");
            if (in.low > 0)
                f.notes.push_back(
                    "The depth of a perimeter is that at its place, less than 6.4.2(6) allows for sloping "
                    "tops "
                    "and beyond the step of stepped ones.");
            f = checks::judged(f);
        }
        auto& face = found.face;
        face.kind = units::Kind::Stress, face.clause = "EN 1992-1-1 6.4.5(3)", face.prefix = "v";
        const double u0 = in.freeSides();
        const double beta = most < 1 ? 1 : at(best).beta;
        face.demand =
            step(t, "v_Ed,0", "beta*N_Ed*1000/(u_0*d)",
                 {{"beta", beta}, {"N_Ed", in.N / 1000, "kN"}, {"u_0", u0, "mm"}, {"d", in.d, "mm"}},
                 beta * std::max(0.0, in.N) / (u0 * in.d), "MPa", "EN 1992-1-1 (6.53)");
        const double nu = step(t, "nu", "0.6*(1 - f_ck/250)", {{"f_ck", in.fc, "MPa"}},
                               0.6 * (1 - in.fc / 250), "-", "EN 1992-1-1 (6.6N)");
        const double fcd = p_.alpha_cc * in.fc / p_.gamma_c;
        face.limit = step(t, "v_Rd,max", "0.4*nu*f_cd", {{"nu", nu}, {"f_cd", fcd, "MPa"}}, 0.4 * nu * fcd,
                          "MPa", "EN 1992-1-1 6.4.5(3)");
        face = checks::judged(face);
        return found;
    }

    double oneWay(const Section& s, double As, bool, Steps* t) const override {
        return shear_->oneWay(s, As, t);
    }
    std::string oneWayClause(bool) const override { return shear_->clause(); }
    LeastDepth leastDepth(bool) const override { return {}; }

    Finding columnFoot(double N, double loaded, double spread, double fc, double, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Force, f.clause = "EN 1992-1-1 6.7(2)", f.prefix = "N";
        f.demand = N;
        const double fcd = p_.alpha_cc * fc / p_.gamma_c;
        f.limit = step(t, "F_Rdu", "A_c0*f_cd*min(sqrt(A_c1/A_c0), 3)/1000",
                       {{"A_c0", loaded, "mm²"}, {"f_cd", fcd, "MPa"}, {"A_c1", spread, "mm²"}},
                       loaded * fcd * std::min(std::sqrt(spread / loaded), 3.0) / 1000, "kN",
                       "EN 1992-1-1 (6.63)") *
                  1000;
        return checks::judged(f);
    }

    Finding anchorage(const FootingAnchorage& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Length, f.clause = "EN 1992-1-1 9.8.2.2", f.prefix = "lbd";
        const double x = std::min(in.h / 2, in.overhang);
        const double ze = step(t, "z_e", "l + 0.15*b - x/2",
                               {{"l", in.overhang, "mm"}, {"b", in.columnSide, "mm"}, {"x", x, "mm"}},
                               in.overhang + 0.15 * in.columnSide - x / 2, "mm", "EN 1992-1-1 9.8.2.2(3)");
        const double R = step(t, "R", "p*x", {{"p", in.edgePressure, "N/mm²"}, {"x", x, "mm"}},
                              in.edgePressure * x, "N/mm", "EN 1992-1-1 9.8.2.2(2)", "outermost h/2, per mm");
        const double F =
            step(t, "F_s", "R*z_e/z_i", {{"R", R, "N/mm"}, {"z_e", ze, "mm"}, {"z_i", 0.9 * in.d, "mm"}},
                 std::max(0.0, R) * ze / (0.9 * in.d), "N/mm", "EN 1992-1-1 (9.13)");
        AnchorageInput bar;
        bar.diameter = in.diameter, bar.area = in.barArea, bar.fc = in.fc, bar.fy = in.fy,
        bar.spacing = in.spacing;
        bar.cd = std::min(in.cover, (in.spacing - in.diameter) / 2), bar.hooked = in.hooked;
        bar.stress = step(
            t, "sigma_sd", "min(F_s/a_s, f_yd)",
            {{"F_s", F, "N/mm"}, {"a_s", in.area, "mm²/mm"}, {"f_yd", anchorage_->designYield(in.fy), "MPa"}},
            std::min(F / in.area, anchorage_->designYield(in.fy)), "MPa", f.clause);
        f.demand = anchorage_->length(bar, t);
        f.limit = x - in.cover;
        f.notes.push_back(
            "Bars of bases are anchored beyond h/2 from the edge, where straight ones are worst "
            "(9.8.2.2(5)).");
        // A bend leads on up the side: what lies beyond it counts, too.
        if (in.hooked) {
            const double up = std::max(0.0, in.h - 2 * in.cover);
            f.limit += up;
            f.here.push_back("Bars are bent up at their ends; the leg counts.");
        }
        return checks::judged(f);
    }
    bool legsCount() const override { return true; }  // Figure 8.1a
    double footSpread() const override { return 1; }  // Figure 6.29
    double pileShare(double clear, double d, double) const override {
        return shear_->nearSupport(std::max(clear, 0.5 * d), d);
    }
    std::string pileShareClause() const override { return "EN 1992-1-1 6.2.2(6)"; }
    // Struts from below on all sides of a partially loaded area: 6.5.4(6) with the resistance of 6.7.
    double node(bool tied, double fc, double spread, Steps* t) const override {
        const double k = tied ? 0.85 : 1, fcd = p_.alpha_cc * fc / p_.gamma_c;
        const double plain = step(t, "sigma_Rd,max", "k*(1 - f_ck/250)*f_cd",
                                  {{"k", k}, {"f_ck", fc, "MPa"}, {"f_cd", fcd, "MPa"}},
                                  k * (1 - fc / 250) * fcd, "MPa", nodeClause());
        if (tied || spread <= 1) return plain;
        return step(t, "sigma_Rdu", "max(sigma_Rd,max, f_cd*min(sqrt(A_c1/A_c0), 3))",
                    {{"sigma_Rd,max", plain, "MPa"}, {"f_cd", fcd, "MPa"}, {"A_c1/A_c0", spread}},
                    std::max(plain, fcd * std::min(std::sqrt(spread), 3.0)), "MPa",
                    "EN 1992-1-1 6.5.4(6), (6.63)", "confined by the concrete around");
    }
    std::string nodeClause() const override { return "EN 1992-1-1 6.5.4(4)"; }
    double tie(double fy) const override { return fy / p_.gamma_s; }
    std::string tieClause() const override { return "EN 1992-1-1 6.5.3(1)"; }
    double dowels(double N, double columnArea, double, double fy) const override {
        return std::max(0.1 * std::max(0.0, N) / (fy / p_.gamma_s), 0.002 * columnArea);
    }
    std::string dowelClause() const override { return "EN 1992-1-1 9.5.2(2), 9.8.2.1"; }
    double evenSpread(double, Steps*) const override { return 1; }
    std::string evenSpreadClause() const override { return "EN 1992-1-1 9.8.2.1"; }
    // Reading of 9.8.1(3): top steel is two bars each way at least.
    TopBars topBars() const override { return {2, "EN 1992-1-1 9.8.1(3)"}; }
    // (6.19), within the middle three quarters of the way.
    double nearLinks(double clear, double asw, double fywd, trace::Steps* t) const override {
        return trace::step(t, "V_links", "0.75*a_v*a_sw*f_ywd/1000",
                           {{"a_v", clear, "mm"}, {"a_sw", asw, "mm²/mm"}, {"f_ywd", fywd, "MPa"}},
                           0.75 * clear * asw * fywd / 1000, "kN", "EN 1992-1-1 (6.19)",
                           "links in the middle three quarters of the way to the nearest pile") *
               1000;
    }
    bool hasApproaches() const override { return true; }
    Care care() const override {
        return {"EN 1997-1 6.6.2, Annex F.1",
                "EN 1997-1 6.6.2(16)",
                "EN 1997-1 6.5.4",
                "EN 1992-1-1 12.9.3(2)",
                1.0 / 3,
                2};
    }
    std::string clause(BaseState state) const override {
        switch (state) {
            case BaseState::Service:
                return "EN 1997-1 6.5.2.4";
            case BaseState::Ground:
                return "EN 1997-1 6.5.3";
            case BaseState::Stability:
                return "EN 1990 6.4.1(1)a";
            default:
                return "EN 1992-1-1 9.8.2";
        }
    }

  private:
    Parameters p_;
    std::unique_ptr<ShearRules> shear_;
    std::unique_ptr<AnchorageRules> anchorage_;
};

}  // namespace

std::unique_ptr<BaseRules> baseRules(const Parameters& p) {
    return std::make_unique<Bases>(p, shearRules(p), anchorageRules(p));
}

}  // namespace talvik::standards::en1992

// Parameters, combinations (EN 1990 6.4.3, 6.5.3) and the assembled standard.
#include "standards/en1992/en1992.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "standards/coverage.h"

namespace talvik::standards::en1992 {
Psi psi(const actions::ActionKind& k) {
    if (k.nature == actions::Nature::Wind) return {0.6, 0.2, 0};
    const auto* use = catalogs::imposedUse(k.use);
    if (!use && k.use == "C") use = catalogs::imposedUse("C1");
    return use ? Psi{use->psi0, use->psi1, use->psi2} : Psi{0.7, 0.5, 0.3};
}
namespace {

class Actions final : public ActionRules {
  public:
    explicit Actions(const Parameters& p) : p_(p) {}

    std::vector<actions::Combination> combinations(const catalogs::ImposedUse& use) const override {
        using actions::LimitState;
        std::vector<actions::Combination> all;
        auto add = [&](const char* clause, LimitState state, double g, double q) {
            all.push_back(
                {fmt::format("{} G + {} Q", units::plain(g, 4), units::plain(q, 4)), clause, state, g, q});
        };
        if (p_.use_610ab) {
            add("EN 1990 (6.10a)", LimitState::Ultimate, p_.gamma_G, p_.gamma_Q * use.psi0);
            add("EN 1990 (6.10b)", LimitState::Ultimate, p_.xi * p_.gamma_G, p_.gamma_Q);
        } else {
            add("EN 1990 (6.10)", LimitState::Ultimate, p_.gamma_G, p_.gamma_Q);
        }
        add("EN 1990 (6.10), G favourable", LimitState::Ultimate, p_.gamma_G_inf, p_.gamma_Q);
        add("EN 1990 (6.14b)", LimitState::Characteristic, 1, 1);
        add("EN 1990 (6.15b)", LimitState::Frequent, 1, use.psi1);
        add("EN 1990 (6.16b)", LimitState::QuasiPermanent, 1, use.psi2);
        return all;
    }

    AreaReduction areaReduction(const catalogs::ImposedUse& use, double area, double,
                                Steps* t) const override {
        AreaReduction r{1, "EN 1991-1-1 6.3.1.2(10), (6.1)", ""};
        if (use.id.empty() || use.id[0] > 'E') {
            r.note = "Only imposed loads of uses A to E are reduced by area.";
            return r;
        }
        double a = area / 1e6, value = 5.0 / 7 * use.psi0 + 10 / std::max(a, 1e-3);
        bool public_ = use.id[0] == 'C' || use.id[0] == 'D';
        double limit = public_ ? 0.6 : 0;
        r.factor = trace::step(
            t, "alpha_A", "max(alpha_min, min(1, 5/7*psi_0 + A_0/A))",
            {{"alpha_min", limit}, {"psi_0", use.psi0}, {"A_0", 10, "m2"}, {"A", std::max(a, 1e-3), "m2"}},
            std::max(limit, std::min(1.0, value)), "-", r.clause,
            public_ ? "not below 0.6 for uses C and D" : "");
        return r;
    }
    Pattern pattern(bool, const std::function<double()>&) const override {
        return {false, 1,
                "Imposed loads act on all panels, on every second one and on each two neighbours (EN "
                "1992-1-1 5.1.3(1)P)."};
    }
    Equilibrium equilibrium() const override { return {0.9, 1.1, p_.gamma_Q, "EN 1990 Table A1.2(A)"}; }
    double accompanying(const actions::Combination& leading, const catalogs::ImposedUse& use) const override {
        using actions::LimitState;
        switch (leading.state) {
            case LimitState::Ultimate:
                return leading.factorQ == 0 ? 0 : p_.gamma_Q * use.psi0;
            case LimitState::Characteristic:
                return use.psi0;
            case LimitState::Frequent:
            case LimitState::QuasiPermanent:
                return use.psi2;
        }
        return 0;
    }

    std::vector<Stated> windAndAccidental(const std::vector<actions::ActionKind>& kinds) const override {
        using actions::LimitState;
        using actions::Nature;
        std::vector<Stated> all;
        auto add = [&](LimitState state, const std::vector<actions::FactorSet>& sets, bool imposed = true) {
            for (const auto& s : sets)
                if ((actions::acts(kinds, s, Nature::Wind) || actions::acts(kinds, s, Nature::Accidental)) &&
                    (imposed || !actions::acts(kinds, s, Nature::Imposed)))
                    all.push_back({state, s});
        };
        const auto psi0 = [](const actions::ActionKind& k) { return psi(k).p0; };
        const auto psi1 = [](const actions::ActionKind& k) { return psi(k).p1; };
        const auto psi2 = [](const actions::ActionKind& k) { return psi(k).p2; };
        const double Q = p_.gamma_Q;
        if (p_.use_610ab) {
            add(LimitState::Ultimate,
                actions::accompanyingOnly(kinds, {{p_.gamma_G}, Q, psi0, "EN 1990 (6.10a)"}));
            add(LimitState::Ultimate,
                actions::leading(kinds, {{p_.xi * p_.gamma_G}, Q, psi0, "EN 1990 (6.10b)"}));
        } else {
            add(LimitState::Ultimate, actions::leading(kinds, {{p_.gamma_G}, Q, psi0, "EN 1990 (6.10)"}));
        }
        add(LimitState::Ultimate,
            actions::leading(kinds, {{p_.gamma_G_inf}, Q, psi0, "EN 1990 (6.10), G favourable"}), false);
        add(LimitState::Ultimate, actions::accidental(kinds, psi1, psi2, "EN 1990 (6.11b)"));
        add(LimitState::Characteristic, actions::leading(kinds, {{1.0}, 1.0, psi0, "EN 1990 (6.14b)"}));
        add(LimitState::Frequent, actions::frequentWinds(kinds, psi1, psi2, "EN 1990 (6.15b)"));
        return all;
    }

    // EN 1992-1-1 has no table of coefficients; the one most used beside it is that of BS 8110-1.
    Coefficients coefficients(const Spans& s) const override {
        Coefficients c;
        c.source = "BS 8110-1:1997 Table 3.12 (EN 1992-1-1 gives no coefficients)";
        c.note =
            "The table includes a redistribution of 20 % from supports to spans, so supports read lower and "
            "spans higher than the elastic envelope.";
        std::size_t n = s.lengths.size();
        double longest = *std::max_element(s.lengths.begin(), s.lengths.end()),
               shortest = *std::min_element(s.lengths.begin(), s.lengths.end());
        if (n < 3)
            c.refusal = "needs three spans or more";
        else if (longest > 1.15 * shortest * 1.15)
            c.refusal = fmt::format("spans differ too much ({:.2f} times)", longest / shortest);
        else if (s.imposed > 1.25 * s.permanent)
            c.refusal = "imposed load is over 1.25 times the permanent load";
        else if (s.imposed > 5.0e-3 * (1 + 1e-9))
            c.refusal = "imposed load is over 5 kN/m²";
        else if (s.area < 30e6)
            c.refusal = "the bay is smaller than 30 m²";
        if (!c.refusal.empty()) return c;
        constexpr double none = std::numeric_limits<double>::quiet_NaN();
        c.span.assign(n, 0.063);
        c.support.assign(n + 1, -0.063);
        c.span.front() = s.cantileverStart ? none : 0.086;
        c.span.back() = s.cantileverEnd ? none : 0.086;
        c.support[1] = s.cantileverStart ? none : -0.086;
        c.support[n - 1] = s.cantileverEnd ? none : -0.086;
        c.support.front() = c.support.back() = none;
        return c;
    }

  private:
    Parameters p_;
};

class Stiffness final : public StiffnessRules {
  public:
    double modulus(double fc) const override { return concrete(fc).Ecm; }
    std::string modulusClause() const override { return "EN 1992-1-1 Table 3.1"; }
    // (5.7a), (5.7b): b_i is half the distance to the next beam, all of it to a free edge.
    double flange(const Flange& f) const override {
        double b = f.edge ? f.toNext : f.toNext / 2;
        return std::min({0.2 * b + 0.1 * f.zeroMoment, 0.2 * f.zeroMoment, b});
    }
    std::string flangeClause() const override { return "EN 1992-1-1 5.3.2.1(3)"; }
};

}  // namespace

Parameters::Parameters(const catalogs::ParameterValues& v) {
    auto at = [&](const char* key) { return v.find(key)->second; };
    gamma_c = at("gamma_c"), gamma_s = at("gamma_s"), alpha_cc = at("alpha_cc"), alpha_ct = at("alpha_ct");
    x_limit = at("x_limit"), z_ceiling = at("z_ceiling"), shear_numerator = at("C_Rd,c_numerator"),
    v_min_factor = at("v_min_factor");
    k_3 = at("k_3"), k_4 = at("k_4"), as_min_factor = at("as_min_factor"), as_min_floor = at("as_min_floor");
    as_max_ratio = at("as_max_ratio"), secondary_ratio = at("secondary_ratio"), end_fixity = at("end_fixity");
    support_moment_floor = at("support_moment_floor"), deflection_limit = at("deflection_limit"),
    after_limit = at("after_limit");
    gamma_G = at("gamma_G"), gamma_G_inf = at("gamma_G_inf"), gamma_Q = at("gamma_Q"), xi = at("xi"),
    use_610ab = at("use_6.10ab") != 0;
    crack_by_table = at("crack_by_table") != 0;
    punching_ceiling = at("punching_ceiling");
    gamma_Q_A2 = at("gamma_Q_A2"), gamma_phi = at("gamma_phi"), gamma_c_soil = at("gamma_c'"),
    gamma_cu = at("gamma_cu"), gamma_R_v = at("gamma_R_v"), gamma_R_h = at("gamma_R_h"),
    gamma_R_e = at("gamma_R_e"), gamma_G_dst = at("gamma_G_dst"), gamma_G_stb = at("gamma_G_stb");
}

std::unique_ptr<ActionRules> actionRules(const Parameters& p) {
    return std::make_unique<Actions>(p);
}

std::shared_ptr<const Standard> make(const catalogs::ParameterValues& changes) {
    constexpr const char* file = "parameters_en1992.json";
    Parameters p(catalogs::values(catalogs::parameterSet(file), changes));
    auto s = std::make_shared<Standard>();
    s->id = "en1992";
    s->title = "EN 1992-1-1";
    s->edition = catalogs::parameterSet(file).standard;
    s->family = "en";
    s->parameterFile = file;
    s->flexure = flexureRules(p);
    s->shear = shearRules(p);
    s->cracks = crackRules(p);
    s->slenderness = slendernessRules();
    s->sag = sagRules(p);
    s->steel = steelRules(p);
    s->anchorage = anchorageRules(p);
    s->barEnds = barEndRules();
    s->supports = supportRules(p);
    s->actions = actionRules(p);
    s->stiffness = std::make_unique<Stiffness>();
    s->strips = stripRules(*s->flexure);
    s->punching = punchingRules(p);
    s->bases = baseRules(p);
    s->omissions = omissions("coverage_en1992.json", "EN 1992-1-1 ");
    return s;
}

}  // namespace talvik::standards::en1992

#include "bases/strap.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace talvik::bases {

using checks::Finding;
using checks::Topic;
using standards::Section;

StrapLine strapLine(const model::BaseColumn& near, const model::BaseColumn& far) {
    StrapLine s;
    const double x = far.x - near.x, y = far.y - near.y;
    s.axis = std::abs(x) >= std::abs(y) ? 0 : 1;
    const double along = s.axis == 0 ? x : y, across = s.axis == 0 ? y : x;
    s.way = along < 0 ? -1 : 1, s.length = std::abs(along), s.farSide = s.axis == 0 ? far.width : far.depth;
    // Out of line by more than the strap itself evens out it would be twisted.
    if (std::abs(across) > std::min(25.0, 0.01 * s.length))
        s.trouble =
            fmt::format("The strap beam must run parallel to x or y: {} and {} are {:.0f} mm out of line.",
                        near.name, far.name, std::abs(across));
    if (s.length < 500) s.trouble = fmt::format("{} and {} are too near for a strap.", near.name, far.name);
    return s;
}

double StrapLoad::weight() const {
    return w * std::max(0.0, length - e - B / 2);
}
double StrapLoad::lifts() const {
    const double W = weight(), at = (e + B / 2 + length) / 2;
    return (e * N - m + W * (e - at)) / std::max(1.0, length - e);
}
double StrapLoad::presses() const {
    return N + lifts() + weight();
}
double StrapLoad::moment(double x) const {
    const double q = presses() / B, x0 = e - B / 2, x1 = e + B / 2, on = std::clamp(x, x0, x1) - x0,
                 beyond = std::max(0.0, x - x1);
    return q * on * (on / 2 + beyond) - (x > 0 ? N * x - m : 0) - w * beyond * beyond / 2;
}
double StrapLoad::shear(double x) const {
    const double q = presses() / B, x0 = e - B / 2, x1 = e + B / 2;
    return q * (std::clamp(x, x0, x1) - x0) - (x > 0 ? N : 0) - w * std::max(0.0, x - x1);
}

double StrapEnd::lifts(const standards::BaseCombination& k,
                       const std::vector<model::ActionCase>& cases) const {
    auto of = [&](const Forces& f, double weight) {
        return StrapLoad{f.N, line.way * f.along(line.axis, lever), e, B, line.length, weight}.lifts();
    };
    double sum = k.lightStrap ? of({}, w * k.concrete) : 0;
    for (std::size_t i = 0; i < actions.size() && i < k.factors.size(); ++i) {
        const double one = k.factors[i] * of(actions[i], 0);
        if (k.lightStrap && one > 0 && cases[i].kind.nature == actions::Nature::Imposed) continue;
        sum += one;
    }
    return sum;
}

std::string StrapBars::text() const {
    return bar ? fmt::format("{} {}", number, bar->name) : std::string();
}

StrapBeam::StrapBeam(const Context& in, const StrapLine& line, double side, Loads strength, Loads service)
    : in_(in), line_(line), side_(side), strength_(std::move(strength)), service_(std::move(service)) {}

std::array<StrapBeam::Extreme, 2> StrapBeam::moments(const Loads& loads) const {
    std::array<Extreme, 2> out;
    for (std::size_t i = 0; i < loads.all.size(); ++i) {
        const auto& l = loads.all[i];
        const double x0 = l.e - l.B / 2, x1 = l.e + l.B / 2;
        auto look = [&](double x) {
            if (x <= x0 || x >= l.length || std::abs(x) < side_ / 2 - 1e-6) return;
            const double m = l.moment(x);
            if (m > out[0].value) out[0] = {m, x, int(i)};
            if (-m > out[1].value) out[1] = {-m, x, int(i)};
        };
        for (int k = 1; k < 24; ++k) look(x0 + k * l.B / 24), look(x1 + k * (l.length - x1) / 24);
        look(-side_ / 2), look(side_ / 2), look(x1);
        if (const double P = l.presses(); P > 0) look(x0 + l.N / P * l.B);  // no shear there
    }
    return out;
}
StrapBeam::Extreme StrapBeam::shear(double d) const {
    Extreme out;
    for (std::size_t i = 0; i < strength_.all.size(); ++i) {
        const auto& l = strength_.all[i];
        const double x0 = l.e - l.B / 2, x1 = l.e + l.B / 2, cut = side_ / 2 + d;
        auto look = [&](double x) {
            if (x <= x0 || x > l.length || std::abs(x) < cut - 1e-6) return;
            if (const double v = std::abs(l.shear(x)); v > out.value) out = {v, x, int(i)};
        };
        look(-cut), look(cut), look(std::max(x1, cut)), look(l.length);
    }
    return out;
}
Section StrapBeam::section(const StrapDesign& s, bool top) const {
    return {s.width, s.depth, s.d[top ? 1 : 0], s.depth - s.d[top ? 0 : 1], in_.fc, in_.fy};
}

StrapDesign StrapBeam::choose(double width, double depth, double under) const {
    const auto& catalog = *catalogs::barCatalog(in_.basis->barCatalog);
    const auto& rules = *in_.standard;
    StrapDesign s;
    s.line = line_, s.width = width, s.depth = depth, s.under = under;
    if (!strength_.all.empty()) s.from = strength_.all.front().e - strength_.all.front().B / 2;
    s.to = line_.length + line_.farSide / 2;
    const auto M = moments(strength_), Ms = moments(service_);
    for (const auto& link : catalog.bars) {
        if (link.diameter < 8 - 1e-9 || link.diameter > 16 + 1e-9) continue;
        for (bool top : {false, true}) {
            StrapBars best;
            double& d = s.d[top ? 1 : 0];
            const double off = (top ? in_.cover : under) + link.diameter;
            for (const auto& name : in_.set.bars) {
                const auto* bar = catalog.find(name);
                if (!bar || bar->diameter < 12 - 1e-9) continue;
                d = depth - off - bar->diameter / 2;
                s.d[top ? 0 : 1] = s.d[top ? 0 : 1] > 0 ? s.d[top ? 0 : 1] : depth - under - 30;
                if (d < 100) continue;
                const Section sec = section(s, top);
                const auto need = rules.flexure->required(sec, M[top].value);
                if (!need.possible || need.doubly) continue;
                const double area = std::max(need.As, rules.steel->beamMinimum(sec)),
                             clear = rules.steel->clear(bar->diameter, in_.basis->aggregate);
                const int fits =
                    int((width - 2 * in_.cover - 2 * link.diameter + clear) / (bar->diameter + clear) + 1e-9);
                int n = std::max(2, int(std::ceil(area / bar->area - 1e-9)));
                // More of them where cracks ask for it.
                auto cracks = [&] {
                    if (!(Ms[top].value > 0)) return false;
                    const standards::CrackInput crack{
                        sec,
                        Ms[top].value,
                        n * bar->area,
                        bar->diameter,
                        (width - 2 * off) / std::max(1, n - 1),
                        in_.cover + link.diameter,
                        in_.basis->creep,
                        top ? in_.basis->crackLimitTop : in_.basis->crackLimitBottom};
                    return rules.cracks->check(crack).outcome == checks::Outcome::Over;
                };
                while (n <= fits && cracks()) ++n;
                if (n > fits) continue;
                if (!best.bar || n * bar->area < best.area() - 1e-9) best = {bar, n};
            }
            (top ? s.top : s.bottom) = best;
            d = depth - off - (best.bar ? best.bar->diameter / 2 : 10);
        }
        if (!s.top.bar || !s.bottom.bar) continue;
        const double d = std::min(s.d[0], s.d[1]), V = shear(d).value;
        Section sec = section(s, s.d[1] < s.d[0]);
        const double As = std::min(s.top.area(), s.bottom.area());
        const double most = rules.shear->linkSpacing(sec, V);
        s.legs = width - 2 * in_.cover > std::min(600.0, most) ? 4 : 2;
        for (double apart = std::min(300.0, std::floor(most / 25) * 25); apart >= 100; apart -= 25) {
            const double asw = s.legs * link.area / apart;
            if (asw < rules.shear->leastLinks(sec, in_.fy)) continue;
            if (rules.shear->linked(sec, As, asw, in_.fy).V * (1 + 1e-9) < V) continue;
            s.link = &link, s.spacing = apart;
            break;
        }
        if (s.link) break;
    }
    return s;
}

bool StrapBeam::carries(const StrapDesign& design) const {
    Sink asks;
    checks(design, asks);
    return design.link && !asks.over();
}

void StrapBeam::checks(const StrapDesign& s, Sink& sink) const {
    const bool working = sink.working();
    const auto& rules = *in_.standard;
    const auto M = moments(strength_), Ms = moments(service_);
    auto of = [](units::Kind kind, double demand, double limit, std::string clause, const char* prefix) {
        Finding f;
        f.kind = kind, f.demand = demand, f.limit = limit, f.clause = std::move(clause), f.prefix = prefix;
        return f;
    };
    // How the strap's statics came to a moment or shear.
    auto statics = [&](trace::Steps& t, const StrapLoad& l, double x) {
        if (!working) return;
        using trace::step;
        const std::string clause = "statics";
        step(&t, "W", "w*max(L - e - B/2, 0)/1000",
             {{"w", l.w, "N/mm"}, {"L", l.length, "mm"}, {"e", l.e, "mm"}, {"B", l.B, "mm"}},
             l.weight() / 1000, "kN", clause, "weight of the strap beyond the pad");
        step(&t, "D", "(N*e - M*1000 + W*(e - (e + B/2 + L)/2))/(L - e)",
             {{"N", l.N / 1000, "kN"},
              {"e", l.e, "mm"},
              {"M", l.m / 1e6, "kNm"},
              {"W", l.weight() / 1000, "kN"},
              {"B", l.B, "mm"},
              {"L", l.length, "mm"}},
             l.lifts() / 1000, "kN", clause, "uplift on the inner base");
        step(&t, "R", "N + D + W",
             {{"N", l.N / 1000, "kN"}, {"D", l.lifts() / 1000, "kN"}, {"W", l.weight() / 1000, "kN"}},
             l.presses() / 1000, "kN", clause, "on the pad, evenly along the strap");
        step(&t, "x", "", {}, x, "mm", clause, "from the column, towards the other one");
    };
    const char* notes =
        "The strap carries its column over the full length of the pad, whose pressure is uniform along it; "
        "no soil support below the strap, not treated as a deep beam; side bars are not designed.";
    for (bool top : {false, true}) {
        const auto& bars = top ? s.top : s.bottom;
        const auto& m = M[top];
        trace::Steps t;
        Finding f = of(units::Kind::Moment, m.value, 0, rules.flexure->clause(), "M");
        if (m.in >= 0) statics(t, strength_.all[std::size_t(m.in)], m.at);
        if (bars.bar)
            f.limit = rules.flexure->resistance(section(s, top), bars.area(), 0, working ? &t : nullptr).M;
        else
            f.here.push_back("No allowed bars fit in one layer; the strap is too small.");
        f.notes.push_back(notes);
        sink.add(top ? "strap-top" : "strap-bottom",
                 top ? "Strap, flexure at the top" : "Strap, flexure at the bottom", Topic::Flexure,
                 checks::judged(f), t, {strength_.state, m.in});
    }
    if (!s.top.bar || !s.bottom.bar) return;
    for (bool top : {false, true}) {
        const auto& bars = top ? s.top : s.bottom;
        trace::Steps t;
        Finding f = of(units::Kind::Area, bars.area(), 0, rules.steel->beamClause(), "As");
        f.sense = checks::Sense::AtLeast;
        f.limit = rules.steel->beamMinimum(section(s, top), working ? &t : nullptr);
        sink.add(
            top ? "strap-least-top" : "strap-least-bottom",
            top ? "Strap, minimum reinforcement at the top" : "Strap, minimum reinforcement at the bottom",
            Topic::Steel, checks::judged(f), t);
    }
    const Section sec = section(s, s.d[1] < s.d[0]);
    const auto V = shear(sec.d);
    const auto clauses = rules.shear->linkClauses();
    {
        trace::Steps t;
        Finding f = of(units::Kind::Force, V.value, 0, clauses.resistance, "V");
        if (V.in >= 0) statics(t, strength_.all[std::size_t(V.in)], V.at);
        const double asw = s.link ? s.legs * s.link->area / s.spacing : 0;
        f.limit =
            rules.shear
                ->linked(sec, std::min(s.top.area(), s.bottom.area()), asw, in_.fy, working ? &t : nullptr)
                .V;
        if (!s.link) f.here.push_back("No links are close enough; the strap is too small.");
        sink.add("strap-shear", "Strap, shear", Topic::OneWayShear, checks::judged(f), t,
                 {strength_.state, V.in});
        if (s.link) {
            trace::Steps a, b;
            Finding g =
                of(units::Kind::BarSpacing, s.spacing,
                   rules.shear->linkSpacing(sec, V.value, working ? &a : nullptr), clauses.spacing, "s");
            sink.add("strap-spacing", "Strap, spacing of links", Topic::Spacing, checks::judged(g), a);
            Finding l =
                of(units::Kind::SteelPerWidth, asw,
                   rules.shear->leastLinks(sec, in_.fy, working ? &b : nullptr), clauses.least, "asw");
            l.sense = checks::Sense::AtLeast;
            sink.add("strap-links", "Strap, minimum links", Topic::Steel, checks::judged(l), b);
        }
    }
    for (bool top : {false, true}) {
        if (!(Ms[top].value > 0)) continue;
        const auto& bars = top ? s.top : s.bottom;
        const double link = s.link ? s.link->diameter : 10, off = (top ? in_.cover : s.under) + link;
        trace::Steps t;
        const standards::CrackInput crack{section(s, top),
                                          Ms[top].value,
                                          bars.area(),
                                          bars.bar->diameter,
                                          (s.width - 2 * off) / std::max(1, bars.number - 1),
                                          in_.cover + link,
                                          in_.basis->creep,
                                          top ? in_.basis->crackLimitTop : in_.basis->crackLimitBottom};
        sink.add(top ? "strap-cracks-top" : "strap-cracks-bottom",
                 top ? "Strap, cracks at the top" : "Strap, cracks at the bottom", Topic::Cracks,
                 rules.cracks->check(crack, working ? &t : nullptr), t, {service_.state, Ms[top].in});
    }
    // Of the top bars from where they are pulled most to their bent ends at the pad's edge.
    if (M[1].in >= 0) {
        trace::Steps t;
        const auto& anchorage = *rules.anchorage;
        standards::AnchorageInput bar;
        bar.diameter = s.top.bar->diameter, bar.area = s.top.bar->area, bar.fc = in_.fc, bar.fy = in_.fy;
        bar.stress = std::min(M[1].value / (0.9 * s.d[1] * s.top.area()), anchorage.designYield(in_.fy));
        bar.cd = in_.cover, bar.spacing = s.width / std::max(1, s.top.number - 1);
        bar.good = anchorage.goodBond(s.depth - in_.cover), bar.hooked = true;
        Finding f = of(units::Kind::Length, 0, M[1].at - s.from - in_.cover, anchorage.clause(true), "lbd");
        f.demand = anchorage.length(bar, working ? &t : nullptr);
        if (in_.rules.legsCount()) f.limit += s.depth - in_.cover - s.under;
        f.here.push_back(
            "Bars of the strap are bent at the edge of the pad, and at the outer face of the other column, "
            "where their stress is zero.");
        sink.add("strap-anchorage", "Strap, anchorage at the edge", Topic::Anchorage, checks::judged(f), t,
                 {strength_.state, M[1].in});
    }
}

}  // namespace talvik::bases

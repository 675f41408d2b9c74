#include "design/floor_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <optional>
#include <set>

#include "checks/places.h"
#include "design/slab_sag.h"
#include "model/steps.h"
#include "verify/support_checks.h"

namespace talvik::design {
namespace {

using checks::Finding;

// What lifts supports against what holds them: imposed loads on the panels that lift, and permanent ones that
// hold.
std::optional<Finding> uplift(const FloorDesign& f) {
    const auto& a = *f.analysis;
    if (a.nonlinear || a.model->supports.empty()) return std::nullopt;
    const auto rule = f.standard->actions->equilibrium();
    verify::Lifting worst{0, 1};
    std::string where = "No uplift at any support.";
    std::vector<std::string> lifted;
    for (std::size_t s = 0; s < a.model->supports.size(); ++s) {
        if (a.model->supports[s].kind == analysis::FloorSupport::Kind::Ground) continue;
        double permanent = 0, wind = 0;
        std::map<int, double> imposed;  // by arrangement; 0: on all panels
        for (std::size_t c = 0; c < a.cases.size() && c < f.floor->actions.cases.size(); ++c) {
            const auto& row = f.floor->actions.cases[c];
            const double up = a.supportForces[c][s].up;
            if (row.permanent())
                permanent += up;
            else if (row.nature == model::LoadCase::Nature::Imposed)
                imposed[row.arrangement] -= std::min(0.0, up);
            else if (row.nature == model::LoadCase::Nature::Wind)
                wind = std::max(wind, -up);
        }
        double most = 0;
        for (const auto& [name, down] : imposed) most = std::max(most, down);
        most += wind;
        const auto here = verify::lifting(rule, std::max(0.0, permanent), std::max(0.0, -permanent), most);
        if (here.ratio() > 1) lifted.push_back(a.model->supports[s].name);
        if (here.ratio() <= worst.ratio()) continue;
        worst = here;
        where = fmt::format("Support {}: uplift {:.1f} kN, stabilising {:.1f} kN.", a.model->supports[s].name,
                            here.lifts / 1000, here.holds / 1000);
    }
    Finding x = verify::upliftFinding(worst, rule, units::Kind::Force);
    x.here.push_back(where);
    if (lifted.size() > 1)
        x.here.push_back(fmt::format("Uplift at {} supports: {}.", lifted.size(), fmt::join(lifted, ", ")));
    x.notes.push_back(
        "Favourable and unfavourable permanent loads are not distinguished between panels, and walls and "
        "line supports are taken as a whole. The strongest wind acts with the full imposed load; accidental "
        "cases are not considered here.");
    return x;
}

// Where something that is not checked stands on a floor, "5 columns: A1, A2, ..."; empty for all over it,
// nothing where there is none of it.
std::optional<std::string> whereOmitted(const FloorDesign& f, const std::string& key) {
    std::vector<std::string> names;
    auto here = [&](const char* one, const char* many) {
        return names.empty() ? std::nullopt : std::optional(checks::places(names, one, many));
    };
    auto named = [](const auto& m) { return m.name.empty() ? m.id : m.name; };
    if (key == "sag" && f.sag && f.sag->why.empty()) return std::nullopt;
    if (key == "vibration") return f.vibration ? std::nullopt : std::optional<std::string>("");
    if (key == "beams") {
        for (const auto& b : f.floor->beams) names.push_back(named(b));
        return here("beam", "beams");
    }
    if (key == "beams-at-columns") {
        for (const auto& c : f.connections)
            if (!c->site->without.empty()) names.push_back(c->site->label);
        return here("column", "columns");
    }
    if (key == "steps") {
        std::set<std::pair<std::size_t, std::size_t>> pairs;
        for (const auto& s : model::slabSides(*f.floor))
            if (s.beside >= 0) pairs.insert(std::minmax({s.slab, std::size_t(s.beside)}));
        for (const auto& [a, b] : pairs)
            names.push_back(fmt::format("{}–{}", named(f.floor->slabs[a]), named(f.floor->slabs[b])));
        return here("step", "steps");
    }
    return "";
}

}  // namespace

void checkFloor(FloorDesign& f) {
    using checks::Topic;
    verify::CheckList list(f.floor->id + "/");
    const checks::Place whole{{{f.floor->id}, model::Spot::In::Whole, {}}, "floor"};
    auto add = [&](const std::string& name, const std::string& title, Topic topic, Finding finding) {
        list.add({name, title, topic, std::move(finding), {}}, whole);
    };
    for (int d : {0, 1}) {
        const auto& cover = f.layout->coverage[std::size_t(d)];
        Finding gap;
        gap.kind = units::Kind::Area;
        gap.prefix = "A";
        gap.clause = "geometry";
        gap.demand = cover.uncovered;
        for (const auto& p : cover.gaps)
            gap.here.push_back(fmt::format("{:.2f} m² in no strip near ({:.2f}, {:.2f}) m: not designed.",
                                           p.area / 1e6, p.at.x / 1000, p.at.y / 1000));
        add(fmt::format("uncovered-{}", d + 1),
            fmt::format("Area not covered by strips, {}", strips::directionName(d)), Topic::Coverage,
            checks::judged(gap));
        Finding both = gap;
        both.here.clear();
        both.demand = cover.overlapped;
        for (const auto& p : cover.overlaps)
            both.here.push_back(fmt::format("{:.2f} m² in two strips, {}, near ({:.2f}, {:.2f}) m.",
                                            p.area / 1e6, p.between, p.at.x / 1000, p.at.y / 1000));
        if (cover.overlapped > 0)
            add(fmt::format("overlapped-{}", d + 1),
                fmt::format("Area covered twice, {}", strips::directionName(d)), Topic::Coverage,
                checks::judged(both));
    }
    proofChecks(f, f.proof.get(), list);
    sagChecks(f, f.sag.get(), list);
    vibrationChecks(f, f.vibration.get(), list);
    if (auto lifting = uplift(f)) add("uplift", "Uplift of supports", Topic::Uplift, std::move(*lifting));
    for (const auto& o : f.standard->omissions)
        if (const auto where = o.floors || o.beams ? whereOmitted(f, o.key) : std::nullopt)
            add("omitted-" + o.key, o.title, Topic::Omission,
                checks::notChecked(o.clause, where->empty() ? o.reason : o.reason + " " + *where));
    f.checks = list.take();
    // Where no span of any strip is thinner than the standard's table asks; limits drawn by hand hold.
    bool thick = false, thin = false;
    for (const auto& d : f.strips)
        for (const auto& c : d->checks) {
            if (c.topic != checks::Topic::Slenderness) continue;
            thick |= c.outcome == checks::Outcome::Within, thin |= c.outcome == checks::Outcome::Over;
        }
    if (thick && !thin && f.standard->sag && f.sag)
        spareSags(
            f.checks, f.standard->sag->sparedBy(true),
            [&](const checks::Check& c) {
                return std::any_of(f.sag->rows.begin(), f.sag->rows.end(), [&](const auto& r) {
                    return r.line.empty() && c.key.ends_with("/" + r.panel);
                });
            },
            f.basis->units);
}

}  // namespace talvik::design

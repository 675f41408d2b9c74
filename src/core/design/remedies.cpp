#include "design/remedies.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "model/edits.h"

namespace talvik::design {
namespace {

using model::OneWaySlab;
using model::Project;

struct Verdict {
    int over = 0;
    double worst = 0, steel = 0;
};

Verdict verdict(const Project& project, std::string_view id) {
    Project alone = project;  // the other slabs do not change
    std::erase_if(alone.slabs, [&](const auto& s) { return s->id != id; });
    Design d = run(alone, {.trace = false});
    Verdict v;
    if (d.slabs.empty() || !d.slabs[0].error.empty()) return {1, 99, 0};
    for (const auto& c : d.slabs[0].checks) {
        if (c.outcome == checks::Outcome::Over) ++v.over;
        if (c.outcome == checks::Outcome::Over || c.outcome == checks::Outcome::Within)
            v.worst = std::max(v.worst, checks::ratio(c));
    }
    v.steel = d.slabs[0].schedule.mass;
    return v;
}

double volume(const OneWaySlab& s) {
    return s.thickness * s.width * (model::concreteEnd(s) - model::concreteStart(s)) / 1e9;
}

}  // namespace

std::vector<Remedy> remedies(const Project& project, std::string_view id, std::stop_token stop) {
    std::vector<Remedy> found;
    const OneWaySlab* slab = model::findSlab(project, id);
    if (!slab || !model::validate(project).empty()) return found;
    const Verdict now = verdict(project, id);
    if (now.over == 0) return found;

    auto tryOut = [&](std::string text, Project next) {
        if (stop.stop_requested()) return false;
        next = withMarks(next);
        if (!model::validate(next).empty()) return false;
        Verdict v = verdict(next, id);
        if (v.over > 0) return false;
        double concrete = volume(*model::findSlab(next, id)) - volume(*slab);
        found.push_back({std::move(text), v.worst, v.steel - now.steel, concrete, std::move(next)});
        return true;
    };
    const bool pinned =
        std::any_of(slab->bars.begin(), slab->bars.end(), [](const auto& r) { return r.pinned; });
    bool barsDo = tryOut(pinned ? "Other bars anew, yours kept" : "Bars anew", proposeBars(project, id));
    if (pinned && !barsDo) tryOut("All bars anew", proposeBars(model::setUnpinned(project, id), id));

    const auto system = project.basis.units;
    const double step = system == units::System::Metric ? 10 : 12.7;
    auto thickness = [&](double h) {
        return model::editSlab(project, id, [h](OneWaySlab& s, Project&) { s.thickness = h; });
    };
    for (bool anew : {false, true})
        for (double h = units::roundDown(slab->thickness, step) + step; h <= slab->thickness + 120;
             h += step) {
            if (stop.stop_requested()) return {};
            std::string text =
                fmt::format("Slab {} → {}{}", units::number(slab->thickness, units::Kind::Length, system),
                            units::number(h, units::Kind::Length, system), anew ? ", bars anew" : "");
            Project next = thickness(h);
            if (tryOut(text, anew ? proposeBars(next, id) : next)) break;
        }
    if (found.size() == 2 && found[0].concrete == found[1].concrete && found[1].steel >= found[0].steel)
        found.pop_back();

    auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    for (const auto& c : catalogs::concreteClasses()) {
        if (c.family != standard->family || c.strength <= project.basis.concreteStrength ||
            project.slabs.size() > 1)
            continue;
        Project next = project;
        next.basis.concrete = c.id;
        next.basis.concreteStrength = c.strength;
        if (tryOut(fmt::format("Concrete {}, bars anew", c.id), proposeBars(next, id))) break;
    }
    return stop.stop_requested() ? std::vector<Remedy>{} : found;
}

}  // namespace talvik::design

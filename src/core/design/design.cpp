#include "design/design.h"

#include <algorithm>
#include <cmath>

#include "design/slab_checks.h"
#include "geometry/polygon.h"
#include "model/edits.h"
#include "reinforcement/coverage.h"
#include "reinforcement/proposal.h"

namespace talvik::design {
namespace {

using model::OneWaySlab;
using model::Project;

std::shared_ptr<const standards::Standard> standardOf(const Project& project) {
    return standards::makeStandard(project.basis.standard, project.basis.parameters);
}

schedule::LapLength lapRule(const OneWaySlab& slab, const model::Basis& basis,
                            const standards::Standard& standard) {
    return [&](const model::BarRun& run) {
        return standard.detailing->lap(
            reinforcement::Coverage::anchorageInput(run, false, slab, basis, standard));
    };
}
schedule::Bends bendRule(const standards::Standard& standard) {
    return {[&](double diameter) { return catalogs::bendRadius(diameter, standard.family); },
            [&](double diameter) { return standard.detailing->hookTail(diameter); }};
}

geometry::Ring rectangle(double x0, double x1, double y0, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

SlabDesign designSlab(const OneWaySlab& slab, const Project& project, const standards::Standard& standard,
                      const Options& options) {
    SlabDesign d;
    d.slab = slab.id;
    const auto* use = catalogs::imposedUse(slab.imposedUse);
    d.analysis = analysis::analyse(slab, project.basis, standard.actions->combinations(*use));
    if (d.error = d.analysis.error; !d.error.empty()) return d;
    d.demand = reinforcement::demand(slab, d.analysis, standard);
    checkSlab(slab, project.basis, standard, d, options);
    d.secondOpinion = secondOpinion(slab, standard, d);
    d.items = schedule::items(slab, project.basis, project.marks, lapRule(slab, project.basis, standard),
                              bendRule(standard));
    d.schedule = schedule::make(d.items, slab.name);
    double x0 = model::concreteStart(slab), x1 = model::concreteEnd(slab);
    std::vector<geometry::Ring> strips{rectangle(x0, x1, 0, slab.width)};
    auto coverage = geometry::coverage(rectangle(x0, x1, 0, slab.width), strips);
    d.uncoveredArea = coverage.uncovered;
    d.overlappedArea = coverage.overlapped;
    return d;
}

// Proposed runs take over the ids of the free runs they replace, so that selection and history hold on to
// them.
void keepIds(const OneWaySlab& before, std::vector<model::BarRun>& runs, Project& next) {
    std::vector<const model::BarRun*> old;
    for (const auto& r : before.bars)
        if (!r.pinned) old.push_back(&r);
    for (auto& run : runs) {
        if (run.pinned) continue;
        auto same = std::find_if(old.begin(), old.end(), [&](const model::BarRun* r) {
            return r && r->role == run.role &&
                   std::abs((r->from + r->to) - (run.from + run.to)) / 2 < 0.4 * (run.to - run.from);
        });
        if (same == old.end()) {
            run.id = model::newId(next, 'b');
        } else {
            run.id = (*same)->id;
            *same = nullptr;
        }
    }
}

bool good(const SlabDesign& d) {
    return d.error.empty() && std::none_of(d.checks.begin(), d.checks.end(), [](const checks::Check& c) {
               return c.outcome == checks::Outcome::Over;
           });
}

}  // namespace

const SlabDesign* Design::find(std::string_view id) const {
    for (const auto& s : slabs)
        if (s.slab == id) return &s;
    return nullptr;
}

checks::Summary Design::summary() const {
    checks::Summary sum;
    for (const auto& s : slabs) {
        auto part = checks::summary(s.checks);
        sum += part;
    }
    return sum;
}

Design run(const Project& project, const Options& options) {
    Design d;
    d.standard = standardOf(project);
    if (!d.standard)
        d.trouble.push_back({"basis.standard", "There is no standard \"" + project.basis.standard +
                                                   "\"; choose one of the list."});
    auto found = model::validate(project);
    d.trouble.insert(d.trouble.end(), found.begin(), found.end());
    if (!d.trouble.empty()) return d;
    const Project marked =
        withMarks(project);  // bars without a mark, as in a file edited by hand, get theirs here
    for (const auto& slab : marked.slabs) d.slabs.push_back(designSlab(*slab, marked, *d.standard, options));
    return d;
}

Project withMarks(const Project& project) {
    Project next = project;
    auto standard = standardOf(project);
    if (!standard || !model::validate(project).empty()) return next;
    for (const auto& slab : project.slabs) {
        Project one = next;
        one.slabs = {slab};
        schedule::assignMarks(one, lapRule(*slab, project.basis, *standard), bendRule(*standard));
        next.marks = one.marks;
    }
    return next;
}

Project proposeBars(const Project& project, std::string_view id) {
    auto standard = standardOf(project);
    if (!standard || !model::validate(project).empty()) return project;
    Project next = model::editSlab(project, id, [&](OneWaySlab& slab, Project& into) {
        auto a = analysis::analyse(slab, project.basis,
                                   standard->actions->combinations(*catalogs::imposedUse(slab.imposedUse)));
        if (!a.error.empty()) return;
        auto demand = reinforcement::demand(slab, a, *standard);
        auto runs = reinforcement::proposeBars(slab, project.basis, *standard, a, demand,
                                               [] { return std::string(); });
        keepIds(slab, runs, into);
        slab.bars = std::move(runs);
    });
    return withMarks(next);
}

Project designAll(const Project& project, const Progress& progress) {
    Project next = project;
    auto standard = standardOf(project);
    if (!standard || !model::validate(project).empty()) return next;
    double step = standard->nativeUnits == units::System::Metric ? 10 : 12.7;
    double done = 0;
    for (const auto& row : project.slabs) {
        const double from = done;
        done += 1.0 / static_cast<double>(project.slabs.size());
        if (row->thicknessPinned) {
            next = proposeBars(next, row->id);
            continue;
        }
        double least = units::roundUp(project.basis.coverTop + project.basis.coverBottom + 50, step);
        Project best = next;
        for (double h = std::max(least, units::roundUp(100, step)); h <= 800; h += step) {
            if (progress && !progress(from + (done - from) * (h / 801))) return project;
            Project trial =
                model::editSlab(next, row->id, [&](OneWaySlab& slab, Project&) { slab.thickness = h; });
            best = proposeBars(trial, row->id);
            if (good(designSlab(*model::findSlab(best, row->id), best, *standard, {.trace = false}))) break;
        }
        next = best;
    }
    return next;
}

}  // namespace talvik::design

#include "design/design.h"

#include <algorithm>
#include <cmath>

#include "design/slab_checks.h"
#include "model/edits.h"
#include "reinforcement/proposal.h"

namespace talvik::design {
namespace {

using model::OneWaySlab;
using model::Project;

std::shared_ptr<const standards::Standard> standardOf(const Project& project) {
    return standards::makeStandard(project.basis.standard, project.basis.parameters);
}

line::LineBasis slabBasis(const model::Basis& basis, const standards::Standard& standard) {
    line::LineBasis in{basis, standard};
    in.edgesClosed = true;
    return in;
}
schedule::LapLength lapRule(const OneWaySlab& slab, const model::Basis& basis,
                            const standards::Standard& standard) {
    return [&](const model::BarRun& bars) {
        const auto in = slabBasis(basis, standard);
        const auto run = reinforcement::runOf(bars, slab.thickness, in);
        return standard.anchorage->lap(reinforcement::anchorageInput(run, false, slab.thickness, in));
    };
}
schedule::Bends bendRule(const standards::Standard& standard) {
    return {[&](double diameter) { return standard.anchorage->bendRadius(diameter); },
            [&](double diameter) { return standard.anchorage->hookTail(diameter); }};
}

SlabDesign designSlab(const OneWaySlab& slab, const Project& project, const standards::Standard& standard,
                      const Options& options) {
    SlabDesign d;
    d.slab = slab.id;
    const auto* use = catalogs::imposedUse(slab.imposedUse);
    d.analysis = analysis::analyse(slab, project.basis, standard.actions->combinations(*use));
    if (d.error = d.analysis.error; !d.error.empty()) return d;
    d.line = line::lineOf(slab, d.analysis, standard);
    const auto in = slabBasis(project.basis, standard);
    d.runs = reinforcement::runsOf(slab, in);
    verify::fillCurves(d, {d.line.line, d.line.stations, d.line.demand}, in);
    checkSlab(slab, in, d, options.trace);
    d.secondOpinion = secondOpinion(slab, standard, d);
    d.items = schedule::items(slab, project.basis, project.marks, lapRule(slab, project.basis, standard),
                              bendRule(standard));
    d.schedule = schedule::make(d.items, slab.name);
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
        auto runs =
            reinforcement::proposeBars(slab, slabBasis(project.basis, *standard),
                                       line::lineOf(slab, a, *standard), [] { return std::string(); });
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

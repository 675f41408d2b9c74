#include "model/edits.h"

#include <algorithm>
#include <cmath>

#include "catalogs/catalogs.h"

namespace talvik::model {
namespace {

std::vector<double> nodes(const OneWaySlab& slab) {
    std::vector<double> x;
    for (std::size_t i = 0; i <= slab.spans.size(); ++i) x.push_back(spanStart(slab, i));
    return x;
}

// A run carried from one layout to another with the same number of spans: each end keeps its distance from
// the outermost support or tip that the run crosses, or else from the nearer end of its span.
void move(BarRun& run, const std::vector<double>& before, const std::vector<double>& after) {
    std::vector<std::size_t> crossed;
    for (std::size_t i = 0; i < before.size(); ++i)
        if (run.from <= before[i] && before[i] <= run.to) crossed.push_back(i);
    auto nearest = [&](double x) {
        std::size_t best = 0;
        for (std::size_t i = 0; i < before.size(); ++i)
            if (std::abs(x - before[i]) < std::abs(x - before[best])) best = i;
        return best;
    };
    std::size_t first = crossed.empty() ? nearest(run.from) : crossed.front(),
                last = crossed.empty() ? nearest(run.to) : crossed.back();
    run.from += after[first] - before[first];
    run.to += after[last] - before[last];
}

}  // namespace

Project emptyProject() {
    Project p;
    p.name = "Untitled";
    return p;
}

Project freshProject(const std::string& standard) {
    Project p = emptyProject();
    auto& b = p.basis;
    b.shearSteel = ConnectionChoice::Steel::Studs;
    const auto& v = catalogs::startingValues(standard);
    b.standard = standard;
    b.units = v.usCustomary ? units::System::UsCustomary : units::System::Metric;
    b.concrete = v.concrete, b.steel = v.steel, b.concreteDensity = v.density;
    for (const auto& m : catalogs::concreteClasses())
        if (m.id == v.concrete) b.concreteStrength = m.strength;
    for (const auto& m : catalogs::steelGrades())
        if (m.id == v.steel) b.steelYield = m.yield;
    b.aggregate = v.aggregate;
    b.coverTop = v.coverTop, b.coverBottom = v.coverBottom, b.coverSide = v.coverSide;
    b.coverFoundation = v.coverFoundation;
    b.crackLimitTop = b.crackLimitBottom = v.crack;
    b.barCatalog = v.bars, b.mainBars = v.main, b.secondaryBars = v.secondary, b.linkBars = v.links;
    b.spacingLeast = v.spacingLeast, b.spacingMost = v.spacingMost, b.spacingStep = v.spacingStep;
    b.stockLength = v.stock;
    for (Material* m : {&b.beam, &b.column, &b.foundation, &b.pileCap}) {
        m->concrete = b.concrete, m->strength = b.concreteStrength, m->density = b.concreteDensity;
        m->steel = b.steel, m->yield = b.steelYield;
    }
    return p;
}

std::shared_ptr<BaseSet> newBaseSet(const Project& project, std::string name, BaseSet::Kind kind) {
    const auto& v = catalogs::startingValues(project.basis.standard);
    auto set = std::make_shared<BaseSet>();
    set->name = std::move(name), set->kind = kind;
    set->planStep = v.planStep, set->depthStep = v.depthStep, set->leastDepth = v.leastDepth;
    set->ground.depth = v.founding, set->ground.allowable = v.allowable;
    set->outline = CapOutline::CornersCut;
    set->pile.diameter = v.pile, set->pile.compression = v.pileCapacity;
    // Bars that the project has: its catalogue may be another one than its standard begins with.
    set->bars = project.basis.barCatalog == v.bars ? v.foundationBars : project.basis.mainBars;
    return set;
}

Project newProject() {
    return addSlab(freshProject(), "Slab 1");
}

Project addSlab(const Project& project, std::string name) {
    Project next = project;
    auto slab = std::make_shared<OneWaySlab>();
    slab->id = newId(next, 's');
    slab->name = std::move(name);
    const auto& v = catalogs::startingValues(project.basis.standard);
    slab->width = v.width, slab->thickness = v.thickness, slab->imposed = v.imposed;
    next.slabs.push_back(slab);
    next = setSpans(next, slab->id, v.spans, false, false);
    return editSlab(next, slab->id, [&](OneWaySlab& s, Project&) {
        for (auto& support : s.supports) support.width = v.support;
    });
}

Project removeElement(const Project& project, std::string_view element) {
    Project next = project;
    std::erase_if(next.slabs, [&](const auto& row) { return row->id == element; });
    std::erase_if(next.floors, [&](const auto& row) { return row->id == element; });
    std::erase_if(next.bases, [&](const auto& row) { return row->id == element; });
    return next;
}
Project renameElement(const Project& project, std::string_view element, const std::string& name) {
    auto rename = [&](auto& row, Project&) { row.name = name; };
    return editBases(editFloor(editSlab(project, element, rename), element, rename), element, rename);
}
Project editConnections(const Project& project, std::string_view floor,
                        const std::vector<std::string>& connections,
                        const std::function<void(ConnectionChoice&)>& change) {
    return editFloor(project, floor, [&](Floor& f, Project& next) {
        auto& all = f.punching.choices;
        for (const auto& key : connections) {
            auto found =
                std::find_if(all.begin(), all.end(), [&](const auto& c) { return c.connection == key; });
            ConnectionChoice choice = found != all.end() ? *found : ConnectionChoice{{}, key};
            change(choice);
            if (choice == ConnectionChoice{choice.id, key}) {
                if (found != all.end()) all.erase(found);
            } else if (found != all.end()) {
                *found = std::move(choice);
            } else {
                choice.id = newId(next, 'p');
                all.push_back(std::move(choice));
            }
        }
    });
}

Project setShearSteel(const Project& project, std::string_view floor,
                      const std::vector<std::string>& connections, ConnectionChoice::Steel steel,
                      double diameter) {
    return editConnections(project, floor, connections, [&](ConnectionChoice& c) {
        const bool kind = steel == ConnectionChoice::Steel::Links || steel == ConnectionChoice::Steel::Studs;
        c.steel = steel, c.diameter = kind ? diameter : 0;
    });
}
Project moveElement(const Project& project, std::string_view element, int by) {
    Project next = project;
    auto move = [&](auto& all) {
        for (std::size_t i = 0; i < all.size(); ++i) {
            if (all[i]->id != element) continue;
            const auto to =
                std::clamp<std::ptrdiff_t>(std::ptrdiff_t(i) + by, 0, std::ptrdiff_t(all.size()) - 1);
            auto row = all[i];
            all.erase(all.begin() + std::ptrdiff_t(i));
            all.insert(all.begin() + to, std::move(row));
            return;
        }
    };
    move(next.slabs);
    move(next.floors);
    move(next.bases);
    return next;
}

Project setSpans(const Project& project, std::string_view id, const std::vector<double>& lengths,
                 bool cantileverStart, bool cantileverEnd) {
    return editSlab(project, id, [&](OneWaySlab& slab, Project& next) {
        bool sameLayout = slab.spans.size() == lengths.size() && slab.cantileverStart == cantileverStart &&
                          slab.cantileverEnd == cantileverEnd;
        const std::vector<double> before = nodes(slab);
        slab.spans.resize(lengths.size());
        for (std::size_t i = 0; i < lengths.size(); ++i) {
            if (slab.spans[i].id.empty()) slab.spans[i].id = newId(next, 'p');
            slab.spans[i].length = lengths[i];
        }
        slab.cantileverStart = cantileverStart;
        slab.cantileverEnd = cantileverEnd;
        std::size_t cantilevers = std::size_t(cantileverStart) + cantileverEnd;
        std::size_t count = lengths.size() >= cantilevers ? lengths.size() - cantilevers + 1 : 0;
        Support model = slab.supports.empty() ? Support{} : slab.supports.back();
        while (slab.supports.size() < count) {
            model.id = newId(next, 'u');
            slab.supports.push_back(model);
        }
        slab.supports.resize(count);
        if (!sameLayout) slab.bars.clear();
        const std::vector<double> after = nodes(slab);
        for (BarRun& run : slab.bars) {
            move(run, before, after);
            run.from = std::max(run.from, concreteStart(slab));
            run.to = std::min(run.to, concreteEnd(slab));
        }
        std::erase_if(slab.bars, [](const BarRun& run) { return run.to - run.from < 50; });
    });
}

}  // namespace talvik::model

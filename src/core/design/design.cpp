#include "design/design.h"

#include <algorithm>
#include <atomic>

#include "design/bases.h"
#include "fem/parallel/pool.h"
#include "model/edits.h"

namespace talvik::design {

using model::Project;

const ElementAnswer* Design::find(std::string_view id) const {
    for (const auto& e : elements)
        if (e->element == id) return e.get();
    return nullptr;
}

const SlabDesign& Design::slab(std::size_t number) const {
    return *dynamic_cast<const SlabAnswer&>(*elements.at(number)).design;
}

checks::Summary Design::summary() const {
    checks::Summary sum;
    for (const auto& e : elements) sum += e->summary;
    return sum;
}

schedule::Schedule Design::scheduleOf(const ElementAnswer& element) const {
    if (const auto groups = element.alike(); !groups.empty()) {
        std::vector<schedule::Schedule> all;
        for (const auto& g : groups)
            all.push_back(scheduleOf(element, g.part->items, element.name + ", " + g.name,
                                     g.members * element.members));
        return schedule::join(all);
    }
    std::vector<schedule::Item> items;
    for (const auto& p : element.parts) items.insert(items.end(), p->items.begin(), p->items.end());
    return scheduleOf(element, items);
}
schedule::Schedule Design::scheduleOf(const ElementAnswer& element,
                                      const std::vector<schedule::Item>& items) const {
    return scheduleOf(element, items, element.name, element.members);
}
schedule::Schedule Design::scheduleOf(const ElementAnswer& element, const std::vector<schedule::Item>& items,
                                      const std::string& member, int members) const {
    auto all = schedule::make(items, marks, member, members);
    if (revisions.empty()) return all;
    std::map<std::string, int> whole;  // numbers of what is in the element as a whole
    for (const auto& p : element.parts)
        for (const auto& i : p->items) whole[schedule::signature(i)] += i.number;
    for (auto& row : all.rows) {
        const std::string bar = schedule::signature(row.bar, row.shape, row.dimensions);
        row.revision = letter;
        for (auto r = revisions.rbegin(); r != revisions.rend(); ++r) {
            const auto found = (*r)->bars.find(element.element + "|" + bar);
            if (found == (*r)->bars.end() || found->second != whole[bar]) break;
            row.revision = (*r)->letter;
        }
    }
    return all;
}
schedule::Schedule Design::schedule() const {
    std::vector<schedule::Schedule> all;
    for (const auto& e : elements) all.push_back(scheduleOf(*e));
    return schedule::join(all);
}
std::string Design::callout(const PartAnswer& part, const model::Id& run, units::System system) const {
    return schedule::callout(part.items, run, marks, system);
}

Design joined(const Project& project, std::shared_ptr<const standards::Standard> standard,
              std::vector<std::shared_ptr<const ElementAnswer>> elements) {
    Design d;
    d.standard = std::move(standard);
    if (!d.standard)
        d.trouble.push_back({"basis.standard", "There is no standard \"" + project.basis.standard +
                                                   "\"; choose one of the list."});
    d.elements = std::move(elements);
    d.marks = project.marks;
    d.revisions = project.revisions, d.letter = project.sheet.revision;
    for (const auto& e : d.elements)
        for (const auto& p : e->parts) schedule::number(p->items, d.marks);
    return d;
}

Design run(const Project& project, const Options& options) {
    const auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    Design d = joined(project, standard, {});
    auto found = model::validate(project);
    d.trouble.insert(d.trouble.end(), found.begin(), found.end());
    if (!d.trouble.empty()) return d;
    std::vector<std::shared_ptr<const ElementAnswer>> answers(project.slabs.size());
    const auto basis = std::make_shared<const model::Basis>(project.basis);
    fem::parallelFor(answers.size(), [&](std::size_t i) {
        answers[i] = designSlab(project.slabs[i], basis, standard, options.trace);
    });
    for (const auto& floor : project.floors)
        if (options.floors)
            if (auto answer = designNow(project, floor->id)) answers.push_back(std::move(answer));
    const auto whole = std::make_shared<const Project>(project);
    for (const auto& set : project.bases)
        BasesDesigner().design({whole, set->id, 0,
                                [&](const model::Id& id) {
                                    for (const auto& a : answers)
                                        if (a->element == id) return a;
                                    return std::shared_ptr<const ElementAnswer>();
                                }},
                               {}, {}, [&](Designer::Answer a) { answers.push_back(std::move(a)); });
    return joined(project, standard, std::move(answers));
}

Project designAll(const Project& project, const Progress& progress) {
    Project next = project;
    const auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (!standard || !model::validate(project).empty()) return next;
    const auto basis = std::make_shared<const model::Basis>(project.basis);
    const double step = standard->nativeUnits == units::System::Metric ? 10 : 12.7;
    const double least = units::roundUp(project.basis.coverTop + project.basis.coverBottom + 50, step);
    // On all cores, a slab to each.
    std::atomic<std::size_t> done{0};
    std::atomic<bool> stopped{false};
    fem::parallelFor(project.slabs.size(), [&](std::size_t i) {
        const auto& row = project.slabs[i];
        const double count = static_cast<double>(project.slabs.size());
        for (double h = std::max(least, units::roundUp(100, step)); h <= 800 && !row->thicknessPinned;
             h += step) {
            if (stopped) return;
            if (progress && !progress((static_cast<double>(done) + h / 801) / count)) stopped = true;
            auto trial = std::make_shared<model::OneWaySlab>(*row);
            trial->thickness = h;
            const auto answer = designSlab(trial, basis, standard);
            next.slabs[i] = trial;
            if (answer->error.empty() && answer->summary.over == 0) break;
        }
        ++done;
    });
    if (stopped) return project;
    return next;
}

}  // namespace talvik::design

#include "report/index.h"

#include <fmt/format.h>

#include <algorithm>

namespace talvik::report {
namespace {

using model::Spot;

void places(const design::Design& design, const design::PartAnswer& part, bool alone, units::System system,
            std::vector<Entry>& into) {
    const std::string of = alone ? "" : part.name + ", ";
    if (!alone) into.push_back({part.name, "part", {part.part, Spot::In::Whole, {}}, {}});
    if (const auto* line = dynamic_cast<const design::LineAnswer*>(&part)) {
        const auto view = line->view();
        for (const auto& s : view.line.supports)
            into.push_back({of + "support " + s.name, "support", {part.part, Spot::In::Support, s.id}, {}});
        for (const auto& s : view.line.spans)
            into.push_back({of + "span " + s.name, "span", {part.part, Spot::In::Span, s.id}, {}});
    }
    for (const auto& item : part.items)
        into.push_back({schedule::callout(item, design.marks, system),
                        fmt::format("mark {:02}", design.marks.at(schedule::signature(item))),
                        {part.part, Spot::In::Run, item.run},
                        {}});
}

}  // namespace

std::vector<Entry> index(const design::Design& design, std::string_view inHand, units::System system) {
    std::vector<const design::ElementAnswer*> elements;
    for (const auto& e : design.elements) elements.push_back(e.get());
    std::stable_partition(elements.begin(), elements.end(),
                          [&](const auto* e) { return e->element == inHand; });
    std::vector<Entry> all;
    for (const auto* e : elements) {
        const bool alone = e->parts.size() == 1;
        for (const auto& part : e->parts) places(design, *part, alone, system, all);
        for (const auto* c : checks::worstFirst(e->all())) {
            const auto* part = alone ? nullptr : e->find(c->place.spot.part);
            all.push_back({c->title + (part ? ", " + part->name : ""), "check, " + checks::name(c->outcome),
                           c->place.spot, c->key});
        }
    }
    return all;
}

}  // namespace talvik::report

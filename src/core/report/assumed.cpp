#include "report/assumed.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "model/sources.h"

namespace talvik::report {

std::vector<Assumed> assumed(const model::Project& project, const design::Design& design, const model::Id& only) {
    std::vector<Assumed> all;
    // Values with one label, "Imposed, Deck: 3.00, 5.00 kN/m²"; those of the project first, then element by element.
    auto values = [&](const model::Project& of, const std::string& element, std::size_t from) {
        std::vector<std::pair<std::string, std::vector<std::string>>> labels;
        const auto governing = model::governingValues(of);
        for (std::size_t i = from; i < governing.size(); ++i) {
            const auto& g = governing[i];
            const auto source = project.sources.find(g.key);
            if (source != project.sources.end() && source->second.kind != model::Source::Kind::Assumed) continue;
            auto text = units::text(g.value, g.kind, project.basis.units);
            if (source != project.sources.end() && !source->second.note.empty())
                text += " (" + source->second.note + ")";
            auto known = std::find_if(labels.begin(), labels.end(), [&](const auto& l) { return l.first == g.label; });
            if (known == labels.end()) known = labels.insert(known, {g.label, {}});
            if (std::find(known->second.begin(), known->second.end(), text) == known->second.end())
                known->second.push_back(text);
        }
        for (const auto& [label, texts] : labels)
            all.push_back({element, fmt::format("{}: {}.", label, fmt::join(texts, ", "))});
    };
    model::Project alone = project;
    alone.slabs.clear(), alone.floors.clear(), alone.bases.clear();
    values(alone, {}, 0);
    const std::size_t shared = model::governingValues(alone).size();
    for (const auto& e : design.elements) {
        if (!only.empty() && e->element != only) continue;
        model::Project one = alone;
        for (const auto& s : project.slabs)
            if (s->id == e->element) one.slabs.push_back(s);
        for (const auto& f : project.floors)
            if (f->id == e->element) one.floors.push_back(f);
        for (const auto& b : project.bases)
            if (b->id == e->element) one.bases.push_back(b);
        values(one, e->name, shared);
        for (const auto& a : e->assumptions) all.push_back({e->name, a});
    }
    return all;
}

}  // namespace talvik::report

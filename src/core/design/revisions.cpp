#include "design/revisions.h"

#include <fmt/format.h>

#include <set>

namespace talvik::design {
namespace {

// Numbers of all bars, and all call-outs, as they are now.
model::Revision now(const Design& design, units::System system) {
    model::Revision r;
    for (const auto& e : design.elements)
        for (const auto& p : e->parts) {
            std::set<model::Id> runs;
            for (const auto& i : p->items) {
                r.bars[e->element + "|" + schedule::signature(i)] += i.number;
                if (runs.insert(i.run).second)
                    r.calls[callKey(*p, i.run)] = design.callout(*p, i.run, system);
            }
        }
    return r;
}

}  // namespace

Fixed fixRevision(const model::Project& project, const Design& design) {
    const auto& sheet = project.sheet;
    if (sheet.revision.empty()) return {project, "Give the revision a letter before it is frozen."};
    auto r = now(design, project.basis.units);
    r.letter = sheet.revision, r.date = sheet.date, r.author = sheet.author, r.note = sheet.note;
    for (const auto& old : project.revisions)
        if (old->letter == r.letter) {
            if (old->bars == r.bars && old->calls == r.calls)
                return {project, fmt::format("Revision {} is frozen already, with these bars.", r.letter)};
            return {project,
                    fmt::format("Revision {} was frozen with other bars; give what changed the next letter.",
                                r.letter)};
        }
    Fixed f{project, {}};
    f.project.marks = design.marks;
    f.project.revisions.push_back(std::make_shared<const model::Revision>(std::move(r)));
    return f;
}

const model::Revision* compared(const Design& design) {
    for (auto r = design.revisions.rbegin(); r != design.revisions.rend(); ++r)
        if ((*r)->letter != design.letter) return r->get();
    return nullptr;
}

std::string callKey(const PartAnswer& part, const model::Id& run) {
    return part.part.element + "|" + part.part.key + "|" + run;
}

bool changed(const Design& design, const PartAnswer& part, const model::Id& run, const std::string& callout) {
    const auto* r = compared(design);
    if (!r) return false;
    const auto found = r->calls.find(callKey(part, run));
    return found == r->calls.end() || found->second != callout;
}

std::vector<std::string> gone(const Design& design, const ElementAnswer& element) {
    std::vector<std::string> all;
    const auto* r = compared(design);
    if (!r) return all;
    std::set<std::string> here;
    for (const auto& p : element.parts)
        for (const auto& i : p->items) here.insert(callKey(*p, i.run));
    const std::string own = element.element + "|";
    for (const auto& [key, call] : r->calls)
        if (key.starts_with(own) && !here.contains(key)) all.push_back(call);
    return all;
}

}  // namespace talvik::design

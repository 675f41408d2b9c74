#include "design/answer.h"

#include <fmt/format.h>

#include <algorithm>

namespace talvik::design {

const PartAnswer* ElementAnswer::find(const model::PartRef& part) const {
    for (const auto& p : parts)
        if (p->part == part) return p.get();
    return nullptr;
}

std::vector<const checks::Check*> ElementAnswer::all() const {
    std::vector<const checks::Check*> list;
    for (const auto& c : checks) list.push_back(&c);
    for (const auto& p : parts)
        for (const auto& c : p->checks) list.push_back(&c);
    return list;
}

const checks::Check* ElementAnswer::check(std::string_view key) const {
    for (const auto* c : all())
        if (c->key == key) return c;
    return nullptr;
}

double ElementAnswer::worst() const {
    double most = checks::worst(checks);
    for (const auto& p : parts) most = std::max(most, p->worst());
    return most;
}

void ElementAnswer::summarise() {
    summary = checks::summary(checks);
    for (const auto& p : parts) summary += checks::summary(p->checks);
}

std::vector<Fact> linkFacts(const verify::LineDesign& line, units::System system) {
    using units::Kind;
    std::vector<Fact> all;
    if (!line.links.empty()) all.push_back({Fact::Kind::Heading, "Shear links", "legs along × across"});
    for (const auto& z : line.links)
        all.push_back({Fact::Kind::Pair,
                       fmt::format("{}, {} to {}", z.bar, units::number(z.from, Kind::Span, system),
                                   units::text(z.to, Kind::Span, system)),
                       fmt::format("{} × {}", units::number(z.along, Kind::BarSpacing, system),
                                   units::text(z.across, Kind::BarSpacing, system))});
    return all;
}

line::LineBasis lineBasis(const ElementAnswer& answer, const LineAnswer& line) {
    return {*answer.basis, *answer.standard, line.outerTop, line.outerBottom};
}

checks::Check withWorking(const ElementAnswer& answer, const checks::Check& check) {
    if (check.steps.empty())
        if (const auto* part = answer.find(check.place.spot.part))
            for (auto& c : answer.withWorking(*part))
                if (c.key == check.key) return c;
    return check;
}

}  // namespace talvik::design

// What floors and their strips say besides their checks.
#include <fmt/format.h>

#include <algorithm>

#include "design/floor_design.h"
#include "design/strip_opinions.h"

namespace talvik::design {
namespace {

using enum Fact::Kind;
using units::Kind;

std::vector<Fact> ofFloor(const FloorDesign& f) {
    std::vector<Fact> all{{Heading, "Strip coverage", "of the slab"}};
    for (int d : {0, 1}) {
        const auto& c = f.layout->coverage[std::size_t(d)];
        all.push_back({Pair, std::string("Strips ") + strips::directionName(d),
                       c.uncovered == 0 && c.overlapped == 0
                           ? "complete"
                           : fmt::format("{:.2f} m² in none, {:.2f} m² in two", c.uncovered / 1e6,
                                         c.overlapped / 1e6)});
    }
    int changed = 0, overruled = 0;
    for (const auto& s : f.layout->strips) {
        changed += s.changed;
        for (const auto& span : s.spans) overruled += span.overruled[0] + span.overruled[1];
    }
    const int fixed = static_cast<int>(f.floor->strips.bars.size()),
              raised = static_cast<int>(f.floor->cambers.size());
    if (changed + overruled + fixed + raised == 0) return all;
    all.push_back({Heading, "User overrides"});
    for (const auto& [what, count] : {std::pair{"Strips changed or drawn", changed},
                                      {"End conditions overridden", overruled},
                                      {"Bars fixed", fixed},
                                      {"Panels with precamber", raised}})
        if (count) all.push_back({Pair, what, std::to_string(count)});
    return all;
}

// What the strip carries: the slab's own, and beams along it apart.
std::vector<Fact> ofStrip(const FloorDesign& f, const StripDesign& d, units::System system) {
    double slab[2] = {0, 0}, beam[2] = {0, 0};
    for (std::size_t i = 0; i < d.stations().size(); ++i) {
        slab[0] = std::max(slab[0], d.demand.most[i].value);
        slab[1] = std::min(slab[1], d.demand.least[i].value);
        beam[0] = std::max(beam[0], d.demand.beamMost[i].value);
        beam[1] = std::min(beam[1], d.demand.beamLeast[i].value);
    }
    auto both = [&](const double(&m)[2]) {
        return units::number(m[0], Kind::Moment, system) + ", " + units::text(m[1], Kind::Moment, system);
    };
    std::vector<Fact> all{{Heading, "On the whole strip", "largest, smallest"},
                          {Pair, "Moment of the slab", both(slab)}};
    if (beam[0] > 1e5 || beam[1] < -1e5) all.push_back({Pair, "Moment of beams", both(beam)});
    all.push_back({Pair, "Axial force", "none: plate in bending"});
    for (auto& fact : linkFacts(d, system)) all.push_back(std::move(fact));
    if (d.strip->kind == strips::Strip::Kind::Column)
        all.push_back({Note, "Width by " + f.standard->strips->columnStripClause() + "."});
    for (bool top : {true, false}) {
        double from = 1e300, to = -1e300, most = 0;
        for (const auto& w : d.wanted)
            if (w.top == top)
                from = std::min(from, w.u), to = std::max(to, w.u), most = std::max(most, w.area);
        if (most <= 0) continue;
        const auto at = [&](double u) { return units::text(u - d.strip->from, Kind::Span, system); };
        all.push_back({Note, fmt::format("{} bars from {} to {} along it: {} is more than its moments need; "
                                         "the FE field requires it.",
                                         top ? "Top" : "Bottom", at(from), at(to),
                                         units::text(most, Kind::SteelPerWidth, system))});
    }
    std::string source;
    for (const auto& o : stripOpinions(f, d)) {
        if (source.empty()) all.push_back({Heading, "Cross-check", "analysis / hand method"});
        if (o.source != source) all.push_back({Note, source = o.source});
        all.push_back({Pair, o.what, opinions::beside(o, system)});
        if (!o.word.empty()) all.push_back({Note, o.word});
    }
    return all;
}

// Where it stands, what acts on it in the combination that governs, and its shear steel.
std::vector<Fact> ofConnection(const FloorDesign& f, const ConnectionDesign& c, units::System system) {
    std::vector<Fact> all{{Heading, "Connection"}, {Pair, "Position", c.position()}};
    const auto* s = c.shown();
    const auto* d = c.shownDemand();
    if (!s || !d) return all;
    auto text = [&](double v, Kind kind) { return units::text(v, kind, system); };
    all.push_back({Pair, "Effective depth", text(s->d, Kind::Length)});
    all.push_back({Pair, "Control perimeter", text(s->length, Kind::Length)});
    all.push_back({Pair, "Bars over it X, Y",
                   units::number(c.place.steel[0], Kind::SteelPerWidth, system) + ", " +
                       text(c.place.steel[1], Kind::SteelPerWidth)});
    all.push_back({Heading, "Design actions"});
    all.push_back({Note, f.analysis->combinations[d->combination].name});
    all.push_back({Pair, "Punching force V_Ed", text(std::abs(d->forces.V), Kind::Force)});
    all.push_back({Pair, "Moments X, Y",
                   units::number(std::abs(d->forces.Mx), Kind::Moment, system) + ", " +
                       text(std::abs(d->forces.My), Kind::Moment)});
    all.push_back({Heading, "Shear reinforcement"});
    if (!c.steel) {
        all.push_back({Note, c.wanted ? c.steelTrouble
                                      : "None: press K on the plan, or choose it in the form on the left."});
        return all;
    }
    const auto& l = *c.steel;
    all.push_back({Note, c.steelText(system)});
    all.push_back(
        {Pair, "First, then spacing", text(l.first, Kind::Length) + ", " + text(l.spacing, Kind::Length)});
    all.push_back({Pair, "Height of legs", text(l.height, Kind::Length)});
    all.push_back({Pair, "Legs, mass", fmt::format("{}, {}", l.legs.legs.size(), text(l.mass, Kind::Mass))});
    all.push_back(
        {Note,
         "Lines are placed between the bars that run along them, set out from the middle of the column."});
    return all;
}

}  // namespace

std::string StripDesign::detail(units::System system) const {
    using K = strips::Strip::Kind;
    const auto& s = *strip;
    const char* kind = s.kind == K::Column   ? s.alongBeam   ? "along a beam"
                                               : s.alongWall ? "along a wall"
                                                             : "column strip"
                       : s.kind == K::Middle ? "middle strip"
                       : s.kind == K::Drawn  ? "drawn by hand"
                                             : "full width";
    return fmt::format("{}, {} wide · bars at {:.4g}°{}", kind,
                       units::text(s.area() / std::max(1.0, s.to - s.from), Kind::Span, system), s.axes.angle,
                       s.changed ? " · changed by hand" : "");
}

std::vector<Fact> FloorDesign::facts(const std::optional<model::Spot>& spot, units::System system) const {
    if (!layout) return {};
    if (!spot) return ofFloor(*this);
    if (spot->part.kind == model::PartKind::Connection) {
        const auto* c = connection(spot->part.key);
        return c ? ofConnection(*this, *c, system) : std::vector<Fact>{};
    }
    if (spot->part.kind == model::PartKind::Edge) {
        std::vector<Fact> all{{Fact::Kind::Heading, "Bars"}};
        if (const auto* part = find(spot->part))
            for (const auto& i : part->items)
                all.push_back({Fact::Kind::Pair,
                               fmt::format("{}, {}", i.bar,
                                           i.shape == "21"     ? "U-bars"
                                           : i.layer == "U"    ? "in their corners"
                                           : i.layer[0] == 'T' ? "beside it, top"
                                                               : "beside it, bottom"),
                               fmt::format("{} × {}", i.number,
                                           units::text(i.cutLength, units::Kind::Length, system))});
        return all;
    }
    const auto* strip = spot->in == model::Spot::In::Whole ? find(spot->part.key) : nullptr;
    return strip ? ofStrip(*this, *strip, system) : std::vector<Fact>{};
}

}  // namespace talvik::design

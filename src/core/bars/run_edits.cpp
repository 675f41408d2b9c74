#include "bars/run_edits.h"

#include <fmt/format.h>

#include <algorithm>

namespace talvik::bars {

WrittenBars readBars(std::string_view text, const model::Basis& basis) {
    WrittenBars out;
    auto skip = [&] {
        auto at = text.find_first_not_of(" \t@-");
        text.remove_prefix(std::min(at, text.size()));
    };
    skip();
    std::string_view first = text.substr(0, text.find_first_of(" \t@-"));
    if (!first.empty() && catalogs::barCatalog(basis.barCatalog)->find(std::string(first))) {
        out.bar = std::string(first);
        text.remove_prefix(first.size());
        skip();
    }
    if (!text.empty()) {
        auto parsed = units::parse(text, units::Kind::BarSpacing, basis.units);
        if (parsed.value) out.spacing = *parsed.value;
    }
    if (text.empty() ? !out.bar : !out.spacing)
        out = {{},
               {},
               fmt::format("Write a bar of the catalogue and a spacing, such as {} @ {}.",
                           basis.mainBars.front(), units::number(150, units::Kind::BarSpacing, basis.units))};
    return out;
}

double nextSpacing(double spacing, int steps, const model::Basis& b) {
    double at = units::roundDown(spacing + (steps > 0 ? 1e-6 : b.spacingStep - 1e-6), b.spacingStep);
    return std::clamp(at + steps * b.spacingStep, b.spacingLeast, b.spacingMost);
}

std::string nextBar(const std::string& bar, int steps, const model::Basis& basis) {
    const auto& bars = catalogs::barCatalog(basis.barCatalog)->bars;
    auto at = std::find_if(bars.begin(), bars.end(), [&](const auto& b) { return b.name == bar; });
    return bars[std::size_t(std::clamp<long>(at - bars.begin() + steps, 0, long(bars.size()) - 1))].name;
}

model::Id fixRun(model::Project& project, Fixed& fixed, const Run& run) {
    model::BarRun b = run;
    if (!run.fixed) b.id = model::newId(project, 'b');
    auto known = std::find_if(fixed.begin(), fixed.end(), [&](const auto& f) { return f.id == b.id; });
    if (known != fixed.end())
        *known = b;
    else
        fixed.push_back(b);
    return b.id;
}

double lapLength(const Run& run, double thickness, const line::LineBasis& in) {
    return units::roundUp(in.standard.anchorage->lap(anchorageInput(run, false, thickness, in)), 10);
}

SplitRun splitRun(model::Project& project, Fixed& fixed, const Run& run, double u, double lap) {
    Run first = run, second = run;
    first.to = u + lap / 2;
    second.from = u - lap / 2;
    if (u <= run.from + lap || u >= run.to - lap)
        return {"Bars are divided where a lap of " +
                    units::text(lap, units::Kind::Length, project.basis.units) +
                    " fits on both sides; point at a place further from their ends.",
                {},
                {}};
    first.end = second.start = model::BarEnd::Straight;
    second.fixed = false;
    SplitRun out;
    out.first = fixRun(project, fixed, first);
    out.second = fixRun(project, fixed, second);
    return out;
}

const Run* neighbour(const std::vector<Run>& runs, const Run& run) {
    const Run *after = nullptr, *before = nullptr;
    for (const Run& r : runs) {
        if (r.role != run.role || r.part != run.part || r.id == run.id) continue;
        if (r.from > run.from && (!after || r.from < after->from)) after = &r;
        if (r.from <= run.from && (!before || r.from > before->from)) before = &r;
    }
    return after ? after : before;
}

model::Id joinRuns(model::Project& project, Fixed& fixed, const Run& run, const Run& with) {
    const Run &first = run.from <= with.from ? run : with, &last = run.to >= with.to ? run : with;
    Run one = run;
    if (with.area > run.area) one.bar = with.bar, one.spacing = with.spacing;
    one.from = first.from, one.start = first.start;
    one.to = last.to, one.end = last.end;
    const auto id = fixRun(project, fixed, one);
    std::erase_if(fixed, [&](const auto& r) { return r.id == with.id && r.id != id; });
    return id;
}

std::optional<RoomForRun> roomForRun(const line::Line& line, bool top, const model::Id& at, double cover) {
    RoomForRun room;
    for (const auto& span : line.spans) {
        const double L = span.length();
        if (!top && span.id == at)
            room = {span.from + 0.15 * L, span.to - 0.15 * L, (span.from + span.to) / 2};
        for (int side : {-1, 1}) {
            const int support = side < 0 ? span.right : span.left;
            if (!top || support < 0 || line.supports[std::size_t(support)].id != at) continue;
            room.middle = line.supports[std::size_t(support)].u;
            if (room.from == room.to) room.from = room.to = room.middle;
            (side < 0 ? room.from : room.to) = room.middle + side * (span.cantilever() ? L : L / 4);
        }
    }
    room.from = std::max(units::roundDown(room.from, 50), line.from + cover);
    room.to = std::min(units::roundUp(room.to, 50), line.to - cover);
    if (room.to - room.from < 300) return std::nullopt;
    return room;
}

model::Id addRun(model::Project& project, Fixed& fixed, const Run& like, double from, double to,
                 const std::vector<Run>& runs) {
    for (const auto& r : runs)
        if (!r.fixed && r.role == like.role && r.from < to && r.to > from) fixRun(project, fixed, r);
    Run more = like;
    more.fixed = false;
    more.from = from, more.to = to;
    more.start = more.end = model::BarEnd::Straight;
    return fixRun(project, fixed, more);
}

}  // namespace talvik::bars

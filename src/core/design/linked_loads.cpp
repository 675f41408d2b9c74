#include "design/linked_loads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "bases/context.h"
#include "model/edits.h"

namespace talvik::design {
namespace {

using actions::ActionKind;
using actions::Nature;
using model::BaseColumn;
using model::BaseSet;
using model::Floor;

constexpr double near = 50;  // mm: what stands so near is one

// The case of a set in which floors put on what is of this kind; made where there is none yet. Winds and
// accidents that bear the same name on several floors act at once.
const model::ActionCase& caseOf(BaseSet& set, const model::LoadCase& of) {
    const ActionKind kind = of.kind();
    const bool stays = kind.nature == Nature::Permanent, named = !stays && kind.nature != Nature::Imposed;
    const std::string name = (stays ? "Permanent" : named ? of.name : "Imposed " + kind.use) + " of floors";
    int winds = 0;
    for (const auto& c : set.cases) {
        if (c.fromFloors && c.kind == kind && (!named || c.name == name)) return c;
        winds += c.fromFloors && c.kind == kind;
    }
    auto& c = set.cases.emplace_back();
    c.kind = kind, c.fromFloors = true, c.name = name;
    c.id = set.id + (stays                         ? "-permanent"
                     : !named                      ? "-imposed-" + kind.use
                     : kind.nature == Nature::Wind ? fmt::format("-wind-{}", winds + 1)
                                                   : fmt::format("-accidental-{}", winds + 1));
    return c;
}

std::string caseNameOf(const BaseSet& set, const model::Id& id) {
    for (const auto& c : set.cases)
        if (c.id == id) return c.name;
    return id;
}

// What one support hands down under one case of its floor.
bases::Forces handedDown(const Floor& floor, const model::Id& support, const analysis::SupportForce& f,
                         bool lowest) {
    bases::Forces out;
    out.N = f.up;
    if (!lowest) return out;
    for (const auto& c : floor.columns) {
        if (c.id != support || !c.below || c.bearing == model::Bearing::Pinned) continue;
        const double below = 1 / c.heightBelow, share = below / (below + (c.above ? 1 / c.heightAbove : 0));
        const double foot = c.farEndsFixed ? 0.5 : 0, shear = (1 + foot) / c.heightBelow;
        out.My = foot * share * f.mx, out.Hx = shear * share * f.mx;
        out.Mx = -foot * share * f.my, out.Hy = shear * share * f.my;
    }
    for (const auto& w : floor.walls) {
        if (w.id != support) continue;
        const bool alongX = std::abs(w.b.x - w.a.x) > std::abs(w.b.y - w.a.y);
        // Along the wall as one stiff body; across it as a column fixed at its foot.
        (alongX ? out.My : out.Mx) = alongX ? -f.mx : f.my;
        if (w.stiff) {
            const double shear = 1.5 / w.height;
            if (alongX)
                out.Mx = -0.5 * f.my, out.Hy = shear * f.my;
            else
                out.My = 0.5 * f.mx, out.Hx = shear * f.mx;
        }
    }
    return out;
}

// Weight of the column or wall itself, from the storey's floor down.
double ownWeight(const Floor& floor, const model::Id& support, double density) {
    for (const auto& c : floor.columns)
        if (c.id == support && c.below)
            return density * c.heightBelow *
                   (c.circular ? std::numbers::pi / 4 * c.width * c.width : c.width * c.depth);
    for (const auto& w : floor.walls)
        if (w.id == support) return density * w.height * w.thickness * geometry::length(w.a, w.b);
    return 0;
}

}  // namespace

bool linked(const BaseSet& set) {
    return std::any_of(set.columns.begin(), set.columns.end(),
                       [](const BaseColumn& c) { return !c.from.empty(); });
}

LinkedLoads withFloors(const model::Project& project, const std::shared_ptr<const BaseSet>& set,
                       const AnalysisOf& analysisOf) {
    LinkedLoads out;
    out.set = set;
    if (!linked(*set)) return out;
    struct Below {
        const Floor* floor;
        std::shared_ptr<const analysis::FloorAnalysis> analysis;
        std::map<model::Id, std::size_t> supports;
    };
    std::map<model::Id, Below> floors;
    auto whole = std::make_shared<BaseSet>(*set);
    auto fail = [&](std::string why) {
        if (out.error.empty()) out.error = std::move(why);
    };
    double weight = 0;
    for (auto& column : whole->columns) {
        if (column.from.empty()) continue;
        std::map<model::Id, bases::Forces> sums;
        bool lowest = true;
        for (const auto& from : column.from) {
            auto found = floors.find(from.floor);
            if (found == floors.end()) {
                const Floor* floor = model::findFloor(project, from.floor);
                Below below{floor, floor ? analysisOf(*floor) : nullptr, {}};
                if (below.analysis && below.analysis->good()) {
                    const auto& supports = below.analysis->model->supports;
                    for (std::size_t i = 0; i < supports.size(); ++i)
                        below.supports.emplace(supports[i].id, i);
                    if (below.analysis->nonlinear)
                        out.notes.push_back(
                            fmt::format("The slab lifts off the ground below {}: its cases do not add up, "
                                        "and its loads on the bases are those of each case by itself.",
                                        floor->name));
                }
                found = floors.emplace(from.floor, std::move(below)).first;
            }
            const Below& below = found->second;
            if (!below.floor) {
                fail(
                    fmt::format("Column {} takes its loads from a floor that no longer exists: unlink it, or "
                                "enter its loads by hand.",
                                column.name));
                continue;
            }
            if (!below.analysis || !below.analysis->good()) {
                fail(fmt::format("{}, whose loads these bases carry, has no results: {}", below.floor->name,
                                 below.analysis && !below.analysis->trouble.empty()
                                     ? below.analysis->trouble.front().message
                                     : "it cannot be analysed yet."));
                continue;
            }
            const auto support = below.supports.find(from.support);
            if (support == below.supports.end()) {
                fail(
                    fmt::format("Column {} takes its loads from a support of {} that no longer exists: link "
                                "the floor again, or unlink it.",
                                column.name, below.floor->name));
                continue;
            }
            const auto& a = *below.analysis;
            if (const double own = ownWeight(*below.floor, from.support, project.basis.column.density);
                own > 0) {
                const auto& cases = below.floor->actions.cases;
                const auto dead = std::find_if(cases.begin(), cases.end(), [](const model::LoadCase& k) {
                    return k.kind().nature == Nature::Permanent;
                });
                if (dead != cases.end()) sums[caseOf(*whole, *dead).id].N += own, weight += own;
            }
            for (std::size_t c = 0; c < a.cases.size() && c < below.floor->actions.cases.size(); ++c) {
                if (a.cases[c].arranged) continue;
                const model::Id own = caseOf(*whole, below.floor->actions.cases[c]).id;
                const auto f =
                    handedDown(*below.floor, from.support, a.supportForces[c][support->second], lowest);
                auto& sum = sums[own];
                sum.N += f.N, sum.Hx += f.Hx, sum.Hy += f.Hy, sum.Mx += f.Mx, sum.My += f.My;
            }
            lowest = false;
        }
        if (!out.error.empty()) continue;
        std::map<model::Id, double> noted;
        for (const auto& a : column.actions) noted[a.loadCase] = a.N;
        auto fromFloors = [&](const model::Id& id) {
            return std::any_of(whole->cases.begin(), whole->cases.end(),
                               [&](const model::ActionCase& k) { return k.id == id && k.fromFloors; });
        };
        std::erase_if(column.actions, [&](const model::ColumnAction& a) { return fromFloors(a.loadCase); });
        // To a newton and a newton millimetre: what an analysis leaves behind that is no change.
        auto r = [](double v) { return std::round(v); };
        for (const auto& [id, f] : sums)
            column.actions.push_back({id, r(f.N), r(f.Hx), r(f.Hy), r(f.Mx), r(f.My)});
        for (const auto& [id, f] : sums)
            if (const double before = noted.contains(id) ? noted[id] : 0;
                std::abs(f.N - before) > std::max(500.0, 0.005 * std::abs(before)))
                out.changed.push_back({column.id, caseNameOf(*whole, id), before, f.N});
        for (const auto& [id, N] : noted)
            if (fromFloors(id) && !sums.contains(id) && std::abs(N) > 500)
                out.changed.push_back({column.id, caseNameOf(*whole, id), N, 0});
    }
    if (weight > 0)
        out.notes.push_back(
            fmt::format("Columns and walls below the linked floors weigh {:.0f} kN in total, from their "
                        "sizes and storey heights: included in the permanent loads.",
                        weight / 1000));
    out.set = std::move(whole);
    return out;
}

model::Project linkFloor(const model::Project& project, std::string_view set, const Floor& floor,
                         std::vector<std::string>& left) {
    return model::editBases(project, set, [&](BaseSet& s, model::Project& next) {
        // Support, name, place and sides.
        auto put = [&](const model::Id& id, const std::string& name, model::Point at, double width,
                       double depth) {
            for (auto& c : s.columns) {
                if (std::hypot(c.x - at.x, c.y - at.y) > near) continue;
                const model::FloorSupport own{floor.id, id};
                if (std::find(c.from.begin(), c.from.end(), own) == c.from.end()) c.from.push_back(own);
                return;
            }
            BaseColumn c;
            c.id = newId(next, 'c');
            c.name = name.empty() ? id : name;
            c.x = units::rounded(at.x, 6), c.y = units::rounded(at.y, 6);
            c.width = width, c.depth = depth;
            c.from.push_back({floor.id, id});
            model::Base b;
            b.id = newId(next, 'b');
            b.columns = {c.id};
            s.columns.push_back(std::move(c));
            s.bases.push_back(std::move(b));
        };
        for (const auto& c : floor.columns) {
            if (!c.below) continue;
            const double turns = c.angle / 90, off = std::abs(turns - std::round(turns));
            double width = c.width, depth = c.circular ? c.width : c.depth;
            if (c.circular)
                // A square of the same area.
                width = depth = units::roundDown(c.width * 0.886, 5);
            else if (off > 1e-6) {
                left.push_back(fmt::format("Column {} is rotated in plan and was not linked.",
                                           c.name.empty() ? c.id : c.name));
                continue;
            } else if (std::lround(turns) % 2 != 0)
                std::swap(width, depth);
            put(c.id, c.name, {c.x, c.y}, width, depth);
        }
        for (const auto& w : floor.walls) {
            const double dx = std::abs(w.b.x - w.a.x), dy = std::abs(w.b.y - w.a.y);
            if (std::min(dx, dy) > 1 || std::max(dx, dy) > 10000) {
                left.push_back(fmt::format(
                    "Wall {} {}.", w.name.empty() ? w.id : w.name,
                    std::min(dx, dy) > 1 ? "is rotated in plan" : "is longer than 10 m: divide it"));
                continue;
            }
            const bool alongX = dx > dy;
            put(w.id, w.name, {(w.a.x + w.b.x) / 2, (w.a.y + w.b.y) / 2}, alongX ? dx : w.thickness,
                alongX ? w.thickness : dy);
        }
    });
}

model::Project unlinkFloor(const model::Project& project, std::string_view set, std::string_view floor) {
    return model::editBases(project, set, [&](BaseSet& s, model::Project&) {
        auto ofFloors = [&](const model::Id& id) {
            return std::any_of(s.cases.begin(), s.cases.end(),
                               [&](const model::ActionCase& k) { return k.id == id && k.fromFloors; });
        };
        std::vector<model::Id> gone;
        for (auto& c : s.columns) {
            const auto before = c.from.size();
            std::erase_if(c.from, [&](const model::FloorSupport& f) { return f.floor == floor; });
            if (before == 0 || c.from.size() == before || !c.from.empty()) continue;
            std::erase_if(c.actions, [&](const model::ColumnAction& a) { return ofFloors(a.loadCase); });
            if (c.actions.empty()) gone.push_back(c.id);
        }
        auto isGone = [&](const model::Id& id) {
            return std::find(gone.begin(), gone.end(), id) != gone.end();
        };
        std::erase_if(s.columns, [&](const BaseColumn& c) { return isGone(c.id); });
        for (auto& b : s.bases) std::erase_if(b.columns, isGone);
        std::erase_if(s.bases, [](const model::Base& b) { return b.columns.empty(); });
        model::dropLooseStraps(s);
    });
}

model::Project takeNote(const model::Project& project, std::string_view set, const BaseSet& withLoads) {
    return model::editBases(project, set, [&](BaseSet& s, model::Project&) {
        s.cases = withLoads.cases;
        for (auto& c : s.columns)
            if (const auto* now = model::findColumn(withLoads, c.id)) c.actions = now->actions;
    });
}

}  // namespace talvik::design

#include "design/connections.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "design/floor_design.h"
#include "design/shear_steel.h"
#include "design/steel_at.h"
#include "fem/parallel/pool.h"
#include "schedule/cutting.h"
#include "standards/control_lines.h"
#include "strips/strip_finder.h"

namespace talvik::design {
namespace {

using analysis::Resultant;
using geometry::Point;
using geometry::Ring;
using standards::ControlSection;
using standards::extent;
using standards::PunchingForces;
using Demand = verify::ConnectionCase::Demand;
using At = ControlSection::At;

constexpr int samples = 12;  // across the width over which steel is averaged

// Whether connections find the same around them in two floors.
bool sameSites(const model::Floor& a, const model::Floor& b) {
    return a.slabs == b.slabs && a.zones == b.zones && a.openings == b.openings && a.columns == b.columns &&
           a.walls == b.walls && a.edges == b.edges && a.beams == b.beams && a.piles == b.piles &&
           a.grounds.empty() == b.grounds.empty() && a.actions.loads == b.actions.loads;
}

// One connection after another; shares what belongs to the floor.
class Maker {
  public:
    Maker(const FloorDesign& f, const analysis::Equilibrium& equilibrium, const analysis::LineShear* shear)
        : f_(f), rules_(*f.standard->punching), equilibrium_(equilibrium), shear_(shear), edges_(*f.floor) {
        const auto& all = f.analysis->combinations;
        for (std::size_t k = 0; k < all.size(); ++k)
            if (all[k].state == actions::LimitState::Ultimate) ultimate_.push_back(k);
    }

    std::shared_ptr<const ConnectionDesign> make(const std::shared_ptr<const ConnectionSite>& site,
                                                 const std::shared_ptr<const ConnectionDesign>& last) const {
        auto c = std::make_shared<ConnectionDesign>();
        c->site = site;
        c->part = {f_.floor->id, model::PartKind::Connection, site->key};
        c->name = site->name;
        c->analysis = f_.analysis;
        c->without = site->without;
        c->notes = site->notes;
        c->place = site->place;
        c->place.fixedEccentricity = f_.floor->punching.fixedEccentricity;
        c->place.moreByBending = f_.floor->punching.moreByBending;
        for (const auto& choice : f_.floor->punching.choices)
            if (choice.connection == site->key) c->choice = choice;
        c->wanted = kind(*c) != model::ConnectionChoice::Steel::None;
        const bool sameForces = last && last->analysis == c->analysis;
        if (c->without.empty()) {
            // Inside what is loaded: of every ultimate combination.
            std::vector<PunchingForces> own;
            auto find = [&] {
                if (own.empty())
                    own = c->place.of == standards::PunchingPlace::Of::Wall
                              ? std::vector<PunchingForces>(ultimate_.size())
                              : forces(*c, geometry::hull(c->place.site.loaded));
            };
            if (!sameForces) find();
            c->topTension = sameForces ? last->topTension : topTension(*c, own);
            const BarsThere bars = steel(*c);
            if (sameForces && last->place == c->place && last->choice == c->choice &&
                last->notes == c->notes && last->without == c->without)
                return last;
            sections(*c, last.get());
            find();
            demand(*c, own);
            if (c->wanted) reinforce(*c, bars);
        }
        c->checks = checkConnection(*c, f_, false);
        if (c->steel) items(*c);
        return c;
    }

  private:
    const FloorDesign& f_;
    const standards::PunchingRules& rules_;
    const analysis::Equilibrium& equilibrium_;
    const analysis::LineShear* shear_;  // where there are ends of walls
    const SlabEdges edges_;
    std::vector<std::size_t> ultimate_;

    // Of shear steel: as someone chose, or as the basis prefers.
    model::ConnectionChoice::Steel kind(const ConnectionDesign& c) const {
        using Steel = model::ConnectionChoice::Steel;
        return c.choice.steel != Steel::Solved         ? c.choice.steel
               : f_.basis->shearSteel != Steel::Solved ? f_.basis->shearSteel
                                                       : Steel::None;
    }

    // Rails by their number of studs; links as closed ones round the pairs of legs.
    void items(ConnectionDesign& c) const {
        const auto& l = *c.steel;
        schedule::Item blank;
        blank.diameter = l.diameter, blank.spacing = l.spacing, blank.layer = "S";
        if (l.kind == standards::ShearSteel::Studs) {
            std::map<int, schedule::Item> rails;
            for (const auto& line : l.legs.lines) {
                auto& i = rails.try_emplace(line.perimeters, blank).first->second;
                const double last = l.first + (line.perimeters - 1) * l.spacing;
                i.run = "rails", i.bar = l.product, i.shape = "99";
                i.cutLength = l.spacing * line.perimeters;
                i.dimensions = {{'A', i.cutLength}};
                i.massEach = line.perimeters * l.mass / double(l.legs.legs.size());
                i.note = fmt::format("rail of {} studs Ø {}, proprietary", line.perimeters,
                                     units::plain(l.diameter));
                i.lie.push_back({{line.face.x + l.first * line.way.x, line.face.y + l.first * line.way.y},
                                 {line.face.x + last * line.way.x, line.face.y + last * line.way.y}});
                ++i.number;
            }
            for (auto& [studs, i] : rails) c.items.push_back(std::move(i));
            return;
        }
        schedule::Item i = blank;
        const auto* catalog = catalogs::barCatalog(f_.basis->barCatalog);
        const catalogs::Bar* bar = nullptr;
        for (const auto& name : f_.basis->linkBars)
            if (const auto* b = catalog->find(name); b && std::abs(b->diameter - l.diameter) < 0.1) bar = b;
        if (!bar || l.legs.legs.size() < 2) return;
        const double across = geometry::length(l.legs.legs[0].at, l.legs.legs[1].at),
                     tail = units::roundUp(std::max(10 * l.diameter, 70.0), 5);
        i.run = "links", i.bar = bar->name, i.shape = "51";
        i.dimensions = {
            {'A', units::roundDown(l.height, 5)}, {'B', units::roundUp(across + l.diameter, 5)}, {'C', tail}};
        for (std::size_t k = 0; k + 1 < l.legs.legs.size(); k += 2) {
            i.lie.push_back({l.legs.legs[k].at, l.legs.legs[k + 1].at});
            ++i.number;
        }
        schedule::cut(i, *bar, *f_.standard->anchorage);
        c.items.push_back(std::move(i));
    }

    // By the combination with the largest force: columns that push up have tension above.
    bool topTension(const ConnectionDesign& c, const std::vector<PunchingForces>& own) const {
        if (c.place.of == standards::PunchingPlace::Of::Load) return false;
        if (c.place.of == standards::PunchingPlace::Of::Wall) return true;
        double most = 0;
        for (const auto& f : own)
            if (std::abs(f.V) > std::abs(most)) most = f.V;
        return most >= 0;
    }

    // Of the tension face at the place: the thickest bar, and how the two directions lie.
    struct BarsThere {
        double diameter = 0;
        punching::BarGrid grid[2];
    };
    // Depths and anchored steel of the two directions.
    BarsThere steel(ConnectionDesign& c) const {
        auto& p = c.place;
        const auto& basis = *f_.basis;
        const bool top = c.topTension;
        BarsThere bars;
        double depth[2];
        for (int k : {0, 1}) {
            const strips::StripFinder finder(*f_.layout, k);
            const int own = finder.at(inside(p));
            const strips::Axes axes = own < 0 ? strips::Axes(f_.layout->angle[std::size_t(k)])
                                              : f_.strips[std::size_t(own)]->strip->axes;
            p.directions[k] = axes.angle;
            const auto* strip = own < 0 ? nullptr : f_.strips[std::size_t(own)].get();
            const line::LineBasis in{basis, *f_.standard, strip ? strip->outerTop : 0,
                                     strip ? strip->outerBottom : 0};
            const SteelAt here =
                strip ? steelAt(*strip, top, axes.local(inside(p)), true, basis.coverSide, edges_)
                      : SteelAt{};
            bars.diameter = std::max(bars.diameter, here.diameter);
            if (strip) bars.grid[k] = {axes.angle, here.spacing};
            const double bar = here.diameter > 0 ? here.diameter : 12;
            depth[k] = std::max(20.0, line::section(top, bar, p.h, in, 1000).d);
            const Point along{axes.c, axes.s}, across{-axes.s, axes.c};
            const double breadth = extent(p.site.loaded, across);
            const double d = depth[k] + (p.hasDrop() ? p.dropH - p.h : 0);
            p.steel[k] =
                mean(c, finder, axes, breadth / 2 + 3 * d, extent(p.site.loaded, along) / 2 + rules_.reach(d))
                    .steel;
            const double half = breadth / 2 + 1.5 * (p.hasDrop() ? p.dropH : p.h);
            const auto over = mean(c, finder, axes, half, 0);
            p.overSteel[k] = over.steel, p.overWidth[k] = 2 * half * over.share;
            p.dropSteel[k] = p.hasDrop() ? mean(c, finder, axes, extent(p.drop, across) / 2 + 3 * depth[k],
                                                extent(p.drop, along) / 2 + rules_.reach(depth[k]))
                                               .steel
                                         : p.steel[k];
        }
        p.d = (depth[0] + depth[1]) / 2;
        for (int k : {0, 1}) p.offset[k] = depth[k] - p.d;
        p.dropD = p.hasDrop() ? p.d + p.dropH - p.h : 0;
        p.fc = basis.concreteStrength, p.fy = basis.steelYield;
        return bars;
    }
    // The middle of what is loaded, or the nearest to it in the slab.
    Point inside(const standards::PunchingPlace& p) const {
        for (const Ring& slab : p.site.slabs)
            if (geometry::contains(slab, p.middle)) return p.middle;
        for (const Ring& slab : p.site.slabs)
            for (const auto& part : geometry::intersection(p.site.loaded, slab))
                return geometry::inside(part);
        return p.middle;
    }
    // Mean over a breadth of the least that is anchored on either side, where there is slab; and the share of
    // the breadth that has slab.
    struct Mean {
        double steel, share;
    };
    Mean mean(const ConnectionDesign& c, const strips::StripFinder& finder, const strips::Axes& axes,
              double half, double beyond) const {
        const Point middle = inside(c.place);
        const Point across{-axes.s, axes.c};
        double sum = 0;
        int n = 0;
        for (int i = 0; i < samples; ++i) {
            const double off = half * (2 * (i + 0.5) / samples - 1);
            const Point at{middle.x + off * across.x, middle.y + off * across.y};
            if (!on(at)) continue;
            ++n;
            double least = 1e300;
            for (int side : {-1, 0, 1}) {
                if (side != 0 && beyond <= 0) continue;
                const Point q{at.x + side * beyond * axes.c, at.y + side * beyond * axes.s};
                if (side != 0 && !on(q)) continue;  // held by hooks and U-bars at the edge
                const int strip = finder.at(q);
                if (strip < 0) {
                    least = 0;
                    break;
                }
                const auto& s = *f_.strips[std::size_t(strip)];
                const bool edge = edges_.toEdge(q) < std::max(c.place.h, f_.basis->coverSide + 50);
                const auto there =
                    steelAt(s, c.topTension, s.strip->axes.local(q), edge, f_.basis->coverSide, edges_);
                least = std::min(least, edge || beyond <= 0 ? there.full : there.anchored);
            }
            sum += least < 1e300 ? least : 0;
        }
        return {n > 0 ? sum / n : 0, double(n) / samples};
    }
    bool on(Point p) const {
        // Outlines of slabs come first, then those of openings.
        const std::size_t openings = f_.floor->openings.size(), slabs = edges_.outline.size() - openings;
        bool in = false;
        for (std::size_t i = 0; i < slabs; ++i) in |= geometry::contains(edges_.outline[i], p);
        for (std::size_t i = slabs; i < edges_.outline.size(); ++i)
            in = in && !geometry::contains(edges_.outline[i], p);
        return in;
    }

    void sections(ConnectionDesign& c, const ConnectionDesign* last) const {
        if (last && !last->sections.empty()) {
            auto before = last->place;
            for (int k : {0, 1})
                before.steel[k] = c.place.steel[k], before.dropSteel[k] = c.place.dropSteel[k],
                before.offset[k] = c.place.offset[k], before.directions[k] = c.place.directions[k],
                before.overSteel[k] = c.place.overSteel[k], before.overWidth[k] = c.place.overWidth[k];
            before.fixedEccentricity = c.place.fixedEccentricity;
            before.moreByBending = c.place.moreByBending;
            if (before == c.place) {
                c.sections = last->sections;
                return;
            }
        }
        c.sections = rules_.sections(c.place);
    }

    // What passes through a section in every ultimate combination.
    std::vector<PunchingForces> forces(const ConnectionDesign& c, const ControlSection& s) const {
        if (c.place.of != standards::PunchingPlace::Of::Wall || !shear_) return forces(c, s.line.outline);
        auto lines = s.line.paths;
        lines.insert(lines.end(), s.line.dead.begin(), s.line.dead.end());
        return combined(shear_->across(lines, c.place.middle));
    }
    std::vector<PunchingForces> forces(const ConnectionDesign& c, const Ring& outline) const {
        return combined(equilibrium_.inside(outline, c.place.middle, c.site->members));
    }
    std::vector<PunchingForces> combined(const std::vector<Resultant>& acting) const {
        std::vector<PunchingForces> all;
        for (std::size_t k : ultimate_) {
            const Resultant r = equilibrium_.combined(acting, k);
            all.push_back({r.up, r.mx, r.my});
        }
        return all;
    }

    void demand(ConnectionDesign& c, const std::vector<PunchingForces>& own) const {
        const bool wall = c.place.of == standards::PunchingPlace::Of::Wall;
        c.demand.assign(c.sections.size(), {});
        for (std::size_t i = 0; i < c.sections.size(); ++i) {
            const auto& s = c.sections[i];
            const auto through = s.at == At::Face ? own : forces(c, s);
            Demand& d = c.demand[i];
            d.strength = rules_.strength(c.place, s);
            for (std::size_t k = 0; k < through.size(); ++k) {
                const double v = rules_.stress(c.place, s, through[k]);
                if (v > d.stress)
                    d.stress = v, d.combination = ultimate_[k], d.forces = through[k],
                    d.reaction = wall ? through[k].V : own[k].V;
                if (s.at == At::Control && std::abs(through[k].V) > std::abs(c.most.forces.V))
                    c.most = {ultimate_[k], through[k], v, d.strength, own[k].V};
            }
        }
        bending(c);
    }

    // Where the most passes by bending, of every combination.
    void bending(ConnectionDesign& c) const {
        const int worst = c.governing(At::Control);
        if (worst < 0 || !c.place.moreByBending)
            return;  // the plain share is held against bars by the strips
        const auto& s = c.sections[std::size_t(worst)];
        std::vector<PunchingForces> through;
        for (int k : {0, 1}) {
            double most = -1;
            if (rules_.bending(c.place, s, c.most.forces, k).clause.empty()) continue;
            if (through.empty()) through = forces(c, s);
            for (std::size_t i = 0; i < through.size(); ++i)
                if (const auto b = rules_.bending(c.place, s, through[i], k); b.ratio() > most) {
                    most = b.ratio();
                    c.bending[k] = Demand{ultimate_[i], through[i], b.moment, b.resistance, 0};
                }
        }
    }

    void reinforce(ConnectionDesign& c, const BarsThere& bars) const {
        const bool solved = c.choice.steel == model::ConnectionChoice::Steel::Solved;
        const int worst = c.governing(At::Control);
        if (worst >= 0 && c.demand[std::size_t(worst)].ratio() <= 1) {
            c.steelTrouble =
                solved ? std::string() : "Shear reinforcement is specified, and none is required.";
            c.wanted = !solved;
            return;
        }
        ShearSteelTask task(c, rules_, *f_.basis);
        task.kind = kind(c) == model::ConnectionChoice::Steel::Studs ? standards::ShearSteel::Studs
                                                                     : standards::ShearSteel::Links;
        task.diameter = c.choice.diameter;
        task.grid = c.choice.legs == model::ConnectionChoice::Legs::Grid;
        task.barDiameter = bars.diameter;
        for (int k : {0, 1}) task.bars[k] = bars.grid[k];
        if (worst >= 0) {
            task.forces = forces(c, c.sections[std::size_t(worst)]);
            task.combinations = ultimate_;
        }
        auto answer = shearSteel(task);
        if (solved && !answer.layout) {
            // Where nobody chose, the other kind does as well.
            const auto first = task.kind;
            task.kind = first == standards::ShearSteel::Studs ? standards::ShearSteel::Links
                                                              : standards::ShearSteel::Studs;
            if (auto other = shearSteel(task); other.layout) answer = std::move(other);
        }
        c.steel = std::move(answer.layout);
        c.outer = answer.outer;
        c.steelTrouble = std::move(answer.trouble), c.steelClause = std::move(answer.clause);
    }
};

}  // namespace

double ConnectionDesign::faceRatio() const {
    const int i = governing(At::Face);
    return i < 0 ? 0 : demand[std::size_t(i)].ratio();
}
double ConnectionDesign::controlRatio() const {
    const auto* d = shownDemand();
    return d ? d->ratio() : 0;
}
double ConnectionDesign::steelRatio() const {
    for (const auto& c : checks)
        if (c.key.ends_with("/with-steel")) return checks::ratio(c);
    return 0;
}
const ControlSection* ConnectionDesign::shown() const {
    int control = governing(At::Control), drop = governing(At::Drop);
    if (control < 0 ||
        (drop >= 0 && demand[std::size_t(drop)].ratio() > demand[std::size_t(control)].ratio()))
        control = drop;
    return control < 0 ? nullptr : &sections[std::size_t(control)];
}
const Demand* ConnectionDesign::shownDemand() const {
    const auto* s = shown();
    return s ? &demand[std::size_t(s - sections.data())] : nullptr;
}
std::string ConnectionDesign::steelText(units::System system) const {
    if (!steel) return !wanted ? "none" : steelTrouble;
    const auto diameter = units::number(steel->diameter, units::Kind::Length, system);
    if (steel->kind == standards::ShearSteel::Studs)
        return fmt::format("{} rails of {} studs Ø {}, {}", steel->legs.lines.size(), steel->legs.perimeters,
                           diameter, steel->product);
    return fmt::format("{} lines of {} links Ø {} at {}", steel->legs.lines.size(), steel->legs.perimeters,
                       diameter, units::number(steel->spacing, units::Kind::Length, system));
}
std::string ConnectionDesign::detail(units::System system) const {
    const auto* d = shownDemand();
    if (!d) return without.empty() ? position() : "not checked";
    return fmt::format("{} · V {}", position(),
                       units::text(std::abs(d->forces.V), units::Kind::Force, system));
}

std::vector<checks::Check> checkConnection(const ConnectionDesign& c, const FloorDesign& f, bool tracing) {
    verify::CheckList list(f.floor->id + "/" + c.site->key + "/", "punching");
    verify::checkConnection(
        c, c.part, c.site->label, *f.standard->punching,
        [&](std::size_t k) { return f.analysis->combinations[k].name; }, f.basis->units, list, tracing);
    return list.take();
}

std::vector<std::shared_ptr<const ConnectionDesign>> ConnectionDesigner::design(const FloorDesign& f,
                                                                                std::stop_token stop) {
    if (!f.standard->punching) return {};
    const double toSteel = f.basis->coverTop + 16;
    if (basis_ != f.basis) last_.clear();
    if (!floor_ || !sameSites(*floor_, *f.floor) || basis_ != f.basis) {
        sites_.clear();
        for (auto& s : connectionSites(*f.floor, *f.standard->punching, toSteel))
            sites_.push_back(std::make_shared<const ConnectionSite>(std::move(s)));
    }
    floor_ = f.floor, basis_ = f.basis;
    if (analysis_ != f.analysis || !equilibrium_) {
        equilibrium_ =
            std::make_shared<const analysis::Equilibrium>(*f.floor, *f.analysis, f.basis->concreteDensity);
        analysis_ = f.analysis, weighed_ = f.floor;
    }
    const bool walls = std::any_of(sites_.begin(), sites_.end(), [](const auto& s) {
        return s->place.of == standards::PunchingPlace::Of::Wall;
    });
    if (!walls || shearOf_ != f.analysis) shear_ = nullptr;
    if (walls && !shear_)
        shear_ = std::make_shared<const analysis::LineShear>(*f.analysis), shearOf_ = f.analysis;
    const Maker maker(f, *equilibrium_, shear_.get());
    std::vector<std::shared_ptr<const ConnectionDesign>> made(sites_.size());
    fem::parallelFor(sites_.size(), [&](std::size_t i) {
        if (stop.stop_requested()) return;
        const auto last = std::find_if(last_.begin(), last_.end(),
                                       [&](const auto& c) { return c && c->site->key == sites_[i]->key; });
        made[i] = maker.make(sites_[i], last == last_.end() ? nullptr : *last);
    });
    if (stop.stop_requested()) return {};
    last_ = made;
    return made;
}

}  // namespace talvik::design

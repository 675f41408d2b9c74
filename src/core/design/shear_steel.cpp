#include "design/shear_steel.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <set>

namespace talvik::design {
namespace {

using standards::ControlSection;
using standards::ShearSteel;
using verify::ShearSteelLayout;
using At = ControlSection::At;

constexpr int most = 16;             // perimeters
constexpr double density = 7850e-9;  // kg per mm3
constexpr double step = 5;           // mm, to which spacings are rounded

double area(double diameter) {
    return std::numbers::pi / 4 * diameter * diameter;
}
double floorTo(double v) {
    return std::floor(v / step + 1e-9) * step;
}

// What stands at one spacing: legs as far out as they are needed.
struct Spread {
    punching::Legs legs;
    ControlSection outer;
    verify::ConnectionCase::Demand demand;
    bool good = false;
};

class Search {
  public:
    explicit Search(const ShearSteelTask& task)
        : t_(task),
          place_(task.of.place),
          control_(task.of.sections[std::size_t(task.of.governing(At::Control))]),
          demand_(task.of.demand[std::size_t(task.of.governing(At::Control))]) {}

    ShearSteelAnswer find() {
        if (const int face = t_.of.governing(At::Face);
            face >= 0 && t_.of.demand[std::size_t(face)].ratio() > 1) {
            const auto& d = t_.of.demand[std::size_t(face)];
            return refused(
                fmt::format("Maximum punching resistance exceeded at the column face: {:.2f} MPa exceed the "
                            "maximum of {:.2f} MPa by {:.0f} %. Shear reinforcement cannot help.",
                            d.stress, d.strength, 100 * (d.ratio() - 1)),
                t_.rules.clause(At::Face));
        }
        if (t_.kind == ShearSteel::Links)
            links();
        else
            studs();
        if (best_) {
            answer_.layout = std::move(best_);
            answer_.trouble.clear();
        } else if (answer_.trouble.empty()) {
            answer_.trouble = "No arrangement of legs was found that fits here.";
        }
        return std::move(answer_);
    }

  private:
    const ShearSteelTask& t_;
    const standards::PunchingPlace& place_;
    const ControlSection& control_;
    const verify::ConnectionCase::Demand& demand_;
    ShearSteelAnswer answer_;
    std::optional<ShearSteelLayout> best_;
    std::map<std::tuple<double, double, double, int>, Spread> spreads_;

    double largestLink() const {
        double d = 8;
        if (const auto* catalog = catalogs::barCatalog(t_.basis.barCatalog))
            for (const auto& name : t_.basis.linkBars)
                if (const auto* bar = catalog->find(name)) d = std::max(d, bar->diameter);
        return d;
    }
    double depth() const { return place_.hasDrop() ? place_.dropH : place_.h; }
    double room() const { return depth() - t_.basis.coverTop - t_.basis.coverBottom; }

    ShearSteelAnswer refused(std::string why, std::string clause) {
        answer_.trouble = std::move(why), answer_.clause = std::move(clause);
        return std::move(answer_);
    }
    void say(std::string why, const std::string& clause) {
        if (answer_.trouble.empty()) answer_.trouble = std::move(why), answer_.clause = clause;
    }

    // The rule where it allows shear steel at all.
    std::optional<standards::ShearSteelRule> rule(double yield) {
        auto r = t_.rules.steel(place_, control_, t_.kind, demand_.stress, yield);
        if (!r.possible) {
            say("Shear reinforcement is not possible: " + r.word, r.clause);
            return std::nullopt;
        }
        if (demand_.stress > r.ceiling) {
            say(fmt::format("Maximum punching resistance with {} exceeded: {:.2f} MPa on the control "
                            "perimeter exceed the maximum of {:.2f} MPa by {:.0f} %.",
                            t_.kind == ShearSteel::Links ? "links" : "studs", demand_.stress, r.ceiling,
                            100 * (demand_.stress / r.ceiling - 1)),
                r.ceilingClause);
            return std::nullopt;
        }
        return r;
    }

    void links() {
        const auto* catalog = catalogs::barCatalog(t_.basis.barCatalog);
        const double yield = t_.basis.steelYield;
        const auto r = rule(yield);
        if (!r) return;
        std::set<double> spacings{floorTo(r->radial), floorTo(0.75 * r->radial), floorTo(0.55 * r->radial)};
        for (const auto& name : t_.basis.linkBars) {
            const auto* bar = catalog ? catalog->find(name) : nullptr;
            if (!bar || (t_.diameter > 0 && std::abs(bar->diameter - t_.diameter) > 0.1)) continue;
            if (r->diameterMost > 0 && bar->diameter > r->diameterMost) {
                say(fmt::format("Links of {:.0f} mm are thicker than d/16.", bar->diameter),
                    r->spacingClause);
                continue;
            }
            for (double s : spacings) attempt(*r, bar->diameter, yield, s, room(), "", 1, most);
        }
        say("No permitted link size is sufficient: allow larger ones in Basis (1).", r->clause);
    }

    void studs() {
        const auto& rails = model::studRails(t_.basis);
        const double tall = room(), low = tall - std::max(t_.barDiameter, 10.0) / 2;
        bool height = false;
        for (const auto& rail : rails) {
            if (t_.diameter > 0 && std::abs(rail.diameter - t_.diameter) > 0.1) continue;
            if (rail.height > tall + 1e-6 || rail.height < low - 1e-6) continue;
            height = true;
            // The list that comes with the program is of no maker: its studs are those of a plain order.
            const double yield =
                t_.basis.studRails.empty() ? std::min(rail.yield, t_.rules.stockStudYield()) : rail.yield;
            const auto r = rule(yield);
            if (!r) return;
            if (rail.spacing > r->radial + 1e-6) continue;
            attempt(*r, rail.diameter, yield, rail.spacing, rail.height, rail.name, rail.least, rail.most);
        }
        if (!height)
            say(fmt::format("No stud in \"{}\" is {:.0f} to {:.0f} mm high.", model::studTable(t_.basis), low,
                            tall),
                "");
        say(fmt::format("No rail in \"{}\" is sufficient with the spacings that fit.",
                        model::studTable(t_.basis)),
            "");
    }

    // Lines as few as suffice, then more of them.
    void attempt(const standards::ShearSteelRule& r, double diameter, double yield, double spacing,
                 double height, const std::string& product, int least, int longest) {
        if (spacing < 40) return;
        // Legs of a link stand a little farther from a round face or a corner than their line does.
        const double first = floorTo(r.firstMost - (t_.kind == ShearSteel::Links ? 15 : 0));
        for (double closer : {1.0, 0.75, 0.55, 0.4}) {
            const Spread& s = spread(r, first, spacing, closer, least);
            if (!s.good) {
                say(place_.hasDrop() ? "The outer perimeter that needs no shear reinforcement is not reached "
                                       "by legs within the drop: make the drop wider."
                                     : "The outer perimeter that needs no shear reinforcement is not reached "
                                       "within the slab.",
                    t_.rules.clause(At::Outer));
                return;
            }
            if (s.legs.perimeters > longest) {
                say(fmt::format("No rail has the {} studs that are needed.", s.legs.perimeters), "");
                return;
            }
            ShearSteelLayout l;
            l.area = s.legs.fewest * area(diameter);
            const double round = std::max({s.legs.widest, s.legs.widestOutside, 1.0});
            if (l.area < r.perSpacing * spacing - 1e-6 || l.area < r.leastPerimeter * spacing - 1e-6 ||
                area(diameter) < r.least * spacing * round - 1e-6)
                continue;
            l.kind = t_.kind, l.diameter = diameter, l.yield = yield, l.height = height, l.product = product;
            l.first = first, l.spacing = spacing;
            l.mass = double(s.legs.legs.size()) * area(diameter) * height * density;
            const bool better =
                !best_ || l.mass < best_->mass - 1e-6 ||
                (l.mass < best_->mass + 1e-6 && s.legs.lines.size() < best_->legs.lines.size());
            if (!better) return;
            l.legs = s.legs, l.outer = s.outer;
            if (!l.legs.fitted)
                l.note =
                    "Near its corners some legs clash with bars: move bars there by less than half a "
                    "spacing.";
            if (t_.grid && (place_.round || place_.site.loaded.size() != 4))
                l.note = "An orthogonal layout requires sides at right angles: a radial layout is used here.";
            answer_.outer = s.demand;
            best_ = std::move(l);
            return;
        }
        say(fmt::format("Legs of {:.0f} mm do not provide the area required.", diameter), r.clause);
    }

    const Spread& spread(const standards::ShearSteelRule& r, double first, double spacing, double closer,
                         int least) {
        auto [at, fresh] = spreads_.try_emplace({first, spacing, closer, least});
        Spread& s = at->second;
        if (!fresh) return s;
        punching::LegPlan plan;
        plan.first = first, plan.spacing = spacing;
        plan.apart = closer * r.tangential;
        plan.apartOutside = std::min(closer * r.tangentialOutside, 1e6);
        plan.inside = r.inside;
        plan.clear = t_.basis.coverSide + 10;
        plan.shaded = t_.rules.lineAt(0, place_.h, control_.d);
        plan.least = least;
        // The legs of a link stand beside the line, clear of the bars on both sides of it.
        if (t_.kind == ShearSteel::Links) {
            plan.across = std::min(0.5 * plan.apart, 70.0);
            for (const auto& g : t_.bars)
                if (g.spacing > 0)
                    plan.across = std::min(plan.across,
                                           std::max(30.0, g.spacing - t_.barDiameter - largestLink() - 10));
        }
        if (t_.grid) plan.across = std::min(plan.across, 0.5 * spacing);
        plan.bars.assign(t_.bars, t_.bars + 2);
        plan.edges = control_.line.edges;
        plan.grid = t_.grid;
        // Legs are as high as the drop: they stand in it.
        punching::Site site = place_.site;
        if (place_.hasDrop()) site.slabs = {place_.drop};
        std::size_t before = 0;
        for (int n = std::max(r.perimeters, least); n <= most; ++n) {
            plan.perimeters = n;
            s.legs = punching::placeLegs(site, place_.round ? place_.c1 : 0, place_.angle, plan);
            const auto hull = s.legs.hull();
            if (hull.size() < 3 || s.legs.legs.size() == before) return s;
            before = s.legs.legs.size();
            s.outer = t_.rules.outer(place_, control_, hull);
            if (s.outer.line.length() <= 0) return s;
            s.demand = worst(s.outer);
            if (s.demand.ratio() <= 1) {
                s.good = true;
                return s;
            }
        }
        return s;
    }
    verify::ConnectionCase::Demand worst(const ControlSection& outer) const {
        verify::ConnectionCase::Demand d;
        d.strength = t_.rules.strength(place_, outer);
        for (std::size_t k = 0; k < t_.forces.size(); ++k) {
            const double v = t_.rules.stress(place_, outer, t_.forces[k]);
            if (v > d.stress) d.stress = v, d.combination = t_.combinations[k], d.forces = t_.forces[k];
        }
        return d;
    }
};

}  // namespace

ShearSteelAnswer shearSteel(const ShearSteelTask& task) {
    if (task.of.governing(At::Control) < 0)
        return {std::nullopt,
                {},
                "The drop is too small for a control perimeter inside it: no reinforcement there.",
                task.rules.clause(At::Control)};
    return Search(task).find();
}

}  // namespace talvik::design

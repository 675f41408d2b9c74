#include "verify/connection_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace talvik::verify {
namespace {

using checks::Finding;
using checks::Topic;
using standards::ControlSection;
using standards::ShearSteel;
using trace::Steps;
using units::Kind;
using At = ControlSection::At;

class Checker {
  public:
    Checker(const ConnectionCase& of, const model::PartRef& part, const std::string& name,
            const standards::PunchingRules& rules, const std::function<std::string(std::size_t)>& combination,
            units::System system, CheckList& list, bool tracing)
        : of_(of), rules_(rules), combination_(combination), system_(system), list_(list), tracing_(tracing) {
        place_.spot = {part, model::Spot::In::Whole, {}};
        place_.name = name;
        place_.at = of.place.middle;
    }

    void run() {
        if (!of_.without.empty()) {
            add("punching", "Punching", checks::notChecked(rules_.clause(At::Control), of_.without), {}, {});
            return;
        }
        if (of_.sections.empty()) {
            add("punching", "Punching",
                checks::notChecked(rules_.clause(At::Control),
                                   fmt::format("No effective control perimeter at ({:.2f}, {:.2f}) m: "
                                               "openings and edges cut it off completely.",
                                               of_.place.middle.x / 1000, of_.place.middle.y / 1000)),
                {}, {});
            return;
        }
        for (At at : {At::Face, At::Control, At::Drop}) section(at);
        shearSteel();
        leastSteel();
        bending();
    }

  private:
    const ConnectionCase& of_;
    const standards::PunchingRules& rules_;
    const std::function<std::string(std::size_t)>& combination_;
    const units::System system_;
    CheckList& list_;
    const bool tracing_;
    checks::Place place_;

    Steps* tracer(Steps& steps) const { return tracing_ ? &steps : nullptr; }
    void add(const std::string& name, const std::string& title, Finding finding, Steps steps,
             std::optional<std::size_t> combination, Topic topic = Topic::Punching) {
        list_.add({name, title, topic, std::move(finding), std::move(steps)}, place_,
                  combination ? combination_(*combination) : std::string());
    }
    std::string text(double v, Kind kind) const { return units::text(v, kind, system_); }

    // What acts, and on what: the same for all checks of a section.
    std::string acting(const ConnectionCase::Demand& d, const ControlSection& s) const {
        const double inside = std::abs(d.reaction) - std::abs(d.forces.V);
        std::string what = fmt::format("V {}", text(std::abs(d.forces.V), Kind::Force));
        if (std::abs(inside) > 500 && s.at != At::Face)
            what += inside > 0 ? fmt::format(": {} less {} inside", text(std::abs(d.reaction), Kind::Force),
                                             text(inside, Kind::Force))
                               : fmt::format(": {} and {} inside", text(std::abs(d.reaction), Kind::Force),
                                             text(-inside, Kind::Force));
        return fmt::format("{}; M {} and {} about its middle. Perimeter {}, {}.", what,
                           text(std::abs(d.forces.Mx), Kind::Moment),
                           text(std::abs(d.forces.My), Kind::Moment), text(s.length, Kind::Length),
                           standards::name(s.position));
    }

    void section(At at) {
        const int worst = of_.governing(at);
        if (worst < 0) return;
        const auto& s = of_.sections[std::size_t(worst)];
        const auto& d = of_.demand[std::size_t(worst)];
        Steps steps;
        Finding f;
        f.kind = Kind::ShearStress, f.prefix = "v", f.clause = rules_.clause(at);
        f.demand = d.stress, f.limit = d.strength;
        if (tracing_) {
            rules_.stress(of_.place, s, d.forces, &steps);
            rules_.strength(of_.place, s, &steps);
        }
        f.notes = rules_.notes(of_.place, s);
        f.here = of_.notes;
        f.here.insert(f.here.begin(), acting(d, s));
        if (s.distance > 0)
            f.here.push_back(fmt::format("The perimeter {} from the face governs, {:.2f} d.",
                                         text(s.distance, Kind::Length), s.distance / s.d));
        for (std::size_t i = 0; i < of_.sections.size(); ++i)
            if (of_.sections[i].at == at && int(i) != worst && of_.sections[i].distance == s.distance)
                f.here.push_back(
                    fmt::format("A second perimeter, as {}, {} long, has {:.2f}; the worse governs.",
                                standards::name(of_.sections[i].position),
                                text(of_.sections[i].length, Kind::Length), of_.demand[i].ratio()));
        if (const double dead = punching::Perimeter{s.line.dead, {}, {}, {}}.length();
            dead > 1 && at != At::Face)
            f.here.push_back(
                fmt::format("{:.0f} % of the control perimeter is ineffective because of openings.",
                            100 * dead / (dead + s.length)));
        const bool carried = at == At::Control && of_.steel && of_.steel->area > 0;
        if (carried && d.ratio() > 1) {
            auto none =
                checks::notApplicable(f.clause, fmt::format("{} is {:.2f} times the resistance without shear "
                                                            "reinforcement; shear reinforcement is provided.",
                                                            text(d.stress, Kind::ShearStress), d.ratio()));
            none.notes = f.notes, none.here = f.here;
            f = std::move(none);
        } else {
            f = checks::judged(f);
        }
        if (of_.wanted && !of_.steel && at == At::Control) f.here.push_back(of_.steelTrouble);
        add(at == At::Face   ? "face"
            : at == At::Drop ? "drop"
                             : "control",
            at == At::Face   ? "Punching at column face"
            : at == At::Drop ? "Punching beyond the drop"
                             : "Punching, without shear reinforcement",
            std::move(f), std::move(steps), d.combination);
    }

    void shearSteel() {
        const int worst = of_.governing(At::Control);
        if (!of_.steel || worst < 0) return;
        const auto& s = of_.sections[std::size_t(worst)];
        const auto& d = of_.demand[std::size_t(worst)];
        const auto& steel = *of_.steel;
        Steps own;
        const auto rule = rules_.steel(of_.place, s, steel.kind, d.stress, steel.yield, tracer(own));
        const bool studs = steel.kind == ShearSteel::Studs;
        {
            Steps steps;
            Finding f;
            f.kind = Kind::ShearStress, f.prefix = "v", f.clause = rule.clause;
            f.demand = d.stress;
            if (tracing_) rules_.stress(of_.place, s, d.forces, &steps);
            f.limit = rules_.withSteel(of_.place, s, steel.kind, steel.area, steel.spacing, steel.yield,
                                       tracer(steps));
            f.here.push_back(fmt::format("{} lines of {} {} of {}, {} legs in the perimeter with the fewest.",
                                         steel.legs.lines.size(), steel.legs.perimeters,
                                         studs ? "studs" : "links", text(steel.yield, Kind::Stress),
                                         steel.legs.fewest));
            if (!steel.note.empty()) f.here.push_back(steel.note);
            add("with-steel", studs ? "Punching with studs" : "Punching with links", checks::judged(f),
                std::move(steps), d.combination);
        }
        {
            Steps steps;
            Finding f;
            f.kind = Kind::ShearStress, f.prefix = "v", f.clause = rules_.clause(At::Outer);
            f.demand = of_.outer.stress, f.limit = of_.outer.strength;
            if (tracing_) {
                rules_.stress(of_.place, steel.outer, of_.outer.forces, &steps);
                rules_.strength(of_.place, steel.outer, &steps);
            }
            f.here.push_back(fmt::format("Perimeter {} beyond the outermost legs, {} long.",
                                         text(rule.beyond, Kind::Length),
                                         text(steel.outer.line.length(), Kind::Length)));
            add("outer", "Punching, outer perimeter", checks::judged(f), std::move(steps),
                of_.outer.combination);
        }
        auto spacing = [&](const char* name, const char* title, double demand, double limit, const char* note,
                           checks::Sense sense = checks::Sense::AtMost) {
            if (limit > 1e8 || demand <= 0) return;
            Finding f;
            f.kind = Kind::BarSpacing, f.prefix = "s", f.clause = rule.spacingClause, f.sense = sense;
            f.demand = demand, f.limit = limit;
            if (*note) f.here.push_back(note);
            add(name, title, checks::judged(f), {}, {}, Topic::Spacing);
        };
        spacing("radial", "Radial spacing s_r", steel.spacing, rule.radial, "");
        spacing("first", "First perimeter, maximum distance", steel.first, rule.firstMost, "From the face.");
        if (rule.firstLeast > 0)
            spacing("first-least", "First perimeter, minimum distance", steel.first, rule.firstLeast,
                    "From the face.", checks::Sense::AtLeast);
        spacing("round", "Tangential spacing s_t", steel.legs.widest, rule.tangential, "");
        spacing("round-outside", "Tangential spacing s_t, outside 2d", steel.legs.widestOutside,
                rule.tangentialOutside, "");
        const double leg = std::numbers::pi / 4 * steel.diameter * steel.diameter;
        if (rule.least > 0) {
            const double round = std::max({steel.legs.widest, steel.legs.widestOutside, 1.0});
            Finding f;
            f.kind = Kind::Area, f.prefix = "A", f.clause = rule.leastClause,
            f.sense = checks::Sense::AtLeast;
            f.demand = leg, f.limit = rule.least * steel.spacing * round;
            Steps steps;
            if (tracing_)
                trace::step(&steps, "A_leg,min", "c*s_r*s_t",
                            {{"c", rule.least}, {"s_r", steel.spacing, "mm"}, {"s_t", round, "mm"}}, f.limit,
                            "mm²", rule.leastClause);
            add("least-leg", "Minimum area of a leg", checks::judged(f), std::move(steps), {}, Topic::Steel);
        }
        if (rule.leastPerimeter > 0) {
            Finding f;
            f.kind = Kind::Area, f.prefix = "A", f.clause = rule.leastClause,
            f.sense = checks::Sense::AtLeast;
            f.demand = steel.area, f.limit = rule.leastPerimeter * steel.spacing;
            add("least-perimeter", "Minimum steel of a perimeter", checks::judged(f), {}, {}, Topic::Steel);
        }
        if (rule.diameterMost > 0) {
            Finding f;
            f.kind = Kind::Length, f.prefix = "Ø", f.clause = rule.spacingClause;
            f.demand = steel.diameter, f.limit = rule.diameterMost;
            add("leg-diameter", "Diameter of links", checks::judged(f), {}, {}, Topic::Steel);
        }
    }

    std::string barsOver(int k) const {
        return fmt::format("Bars at {:.0f}° within {}.", of_.place.directions[k],
                           text(of_.place.overWidth[k], Kind::Length));
    }

    void leastSteel() {
        const int worst = of_.governing(At::Control);
        if (worst < 0) return;
        // By the direct shear alone: of the combination with the largest force, not of that with the largest
        // stress.
        const auto& s = of_.sections[std::size_t(worst)];
        for (int k : {0, 1}) {
            Steps steps;
            const auto least = rules_.leastSteel(of_.place, s, of_.most.forces, k, tracer(steps));
            if (least.area <= 0) continue;
            Finding f;
            f.kind = Kind::Area, f.prefix = "As", f.clause = least.clause, f.sense = checks::Sense::AtLeast;
            f.demand = of_.place.overSteel[k] * of_.place.overWidth[k], f.limit = least.area;
            f.here.push_back(barsOver(k));
            add(fmt::format("least-bars-{}", k + 1),
                fmt::format("Minimum flexural steel over the column, {}", k == 0 ? "X" : "Y"),
                checks::judged(f), std::move(steps), of_.most.combination, Topic::Steel);
        }
    }

    // What of the moment passes by bending, against the bars right over the column.
    void bending() {
        const int worst = of_.governing(At::Control);
        for (int k : {0, 1}) {
            if (worst < 0 || !of_.bending[k]) continue;
            Steps steps;
            const auto b = rules_.bending(of_.place, of_.sections[std::size_t(worst)], of_.bending[k]->forces,
                                          k, tracer(steps));
            if (b.moment < 1e5) continue;  // 0.1 kNm
            Finding f;
            f.kind = Kind::Moment, f.prefix = "M", f.clause = b.clause;
            f.demand = b.moment, f.limit = b.resistance;
            f.here.push_back(barsOver(k));
            if (b.share > b.plain + 1e-9)
                f.here.push_back(fmt::format("gamma_f {:.2f} in place of {:.2f}.", b.share, b.plain));
            add(fmt::format("bending-{}", k + 1),
                fmt::format("Moment transfer by flexure, {}", k == 0 ? "X" : "Y"), checks::judged(f),
                std::move(steps), of_.bending[k]->combination, Topic::Flexure);
        }
    }
};

}  // namespace

int ConnectionCase::governing(At at) const {
    int found = -1;
    for (std::size_t i = 0; i < sections.size() && i < demand.size(); ++i)
        if (sections[i].at == at &&
            (found < 0 || demand[i].ratio() > demand[std::size_t(found)].ratio() + 1e-12))
            found = int(i);
    return found;
}

std::string ConnectionCase::position() const {
    if (sections.empty()) return "no perimeter";
    const int control = governing(At::Control), drop = governing(At::Drop);
    const auto& s = sections[std::size_t(control >= 0 ? control : std::max(drop, 0))];
    std::string p = standards::name(s.position);
    if (!s.line.dead.empty()) p += ", near an opening";
    if (place.hasDrop()) p += ", drop";
    return p;
}

void checkConnection(const ConnectionCase& of, const model::PartRef& part, const std::string& name,
                     const standards::PunchingRules& rules,
                     const std::function<std::string(std::size_t)>& combination, units::System system,
                     CheckList& list, bool tracing) {
    Checker(of, part, name, rules, combination, system, list, tracing).run();
}

}  // namespace talvik::verify

// The checks of a connection of slab and column, pile or load: stress on its control sections without and
// with shear steel, and the rules that shear steel keeps.
#pragma once

#include <functional>

#include "punching/legs.h"
#include "standards/punching_rules.h"
#include "verify/check_list.h"

namespace talvik::verify {

// Shear steel as it is laid out.
struct ShearSteelLayout {
    standards::ShearSteel kind = standards::ShearSteel::Links;
    double diameter = 0, yield = 0, height = 0;
    double first = 0, spacing = 0;
    std::string product;  // of the table; empty for links
    punching::Legs legs;
    double area = 0;  // of the legs that count in the perimeter that has the fewest
    standards::ControlSection outer;
    double mass = 0;  // kg
    std::string note;
};

// A connection with what acts on it. Of every section the combination that stresses it most.
struct ConnectionCase {
    standards::PunchingPlace place;
    std::vector<standards::ControlSection> sections;
    struct Demand {
        std::size_t combination = 0;
        standards::PunchingForces forces;
        double stress = 0, strength = 0, reaction = 0;  // reaction: of its supports or loads alone
        double ratio() const { return strength > 0 ? stress / strength : stress > 0 ? 99 : 0; }
    };
    std::vector<Demand> demand;  // per section
    Demand most;                 // with the largest force on the first section beside the face
    bool topTension = true;
    std::optional<Demand> bending[2];  // of the two directions of bars, where the most passes by bending
    std::string without;               // why there is none to check
    std::vector<std::string> notes;
    // Shear steel that someone asked for: as laid out, or why it cannot be.
    bool wanted = false;
    std::optional<ShearSteelLayout> steel;
    Demand outer;  // on the section beyond it
    std::string steelTrouble, steelClause;

    // The section of a kind that is stressed most, -1 without.
    int governing(standards::ControlSection::At at) const;
    std::string position() const;  // "interior, near an opening"
};

void checkConnection(const ConnectionCase& of, const model::PartRef& part, const std::string& name,
                     const standards::PunchingRules& rules,
                     const std::function<std::string(std::size_t)>& combination, units::System system,
                     CheckList& list, bool tracing);

}  // namespace talvik::verify

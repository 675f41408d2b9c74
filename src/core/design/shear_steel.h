// Shear steel of a connection: the least that carries a stress and keeps the standard's rules, from bars for
// links or from a table of studs on rails.
#pragma once

#include "model/project.h"
#include "verify/connection_checks.h"

namespace talvik::design {

struct ShearSteelTask {
    ShearSteelTask(const verify::ConnectionCase& connection, const standards::PunchingRules& by,
                   const model::Basis& with)
        : of(connection), rules(by), basis(with) {}
    const verify::ConnectionCase& of;  // with demand on its sections
    const standards::PunchingRules& rules;
    const model::Basis& basis;
    standards::ShearSteel kind = standards::ShearSteel::Links;
    double diameter = 0;                            // 0: to be chosen
    bool grid = false;                              // lines parallel to the sides in place of fans
    double barDiameter = 0;                         // of the tension bars that legs hold on to
    punching::BarGrid bars[2];                      // between which lines of legs run
    std::vector<standards::PunchingForces> forces;  // of every ultimate combination, on the control section
    std::vector<std::size_t> combinations;          // their numbers
};
// `trouble` says why there is none: which ceiling is passed and by how much, or what does not fit.
struct ShearSteelAnswer {
    std::optional<verify::ShearSteelLayout> layout;
    verify::ConnectionCase::Demand outer;
    std::string trouble, clause;
};
// Of all diameters, spacings and numbers of lines that suffice the one with the least steel, then with fewer
// lines. Perimeters go on until the section beyond them needs none.
ShearSteelAnswer shearSteel(const ShearSteelTask& task);

}  // namespace talvik::design

// Continuous beams by the stiffness method: Hermite elements, exact for uniform loads on prismatic spans.
// Any consistent units. Loads act downwards, positive; deflection is positive downwards; moments are sagging
// positive; shear V = dM/dx; reactions are positive upwards.
#pragma once

#include <string>
#include <vector>

namespace talvik::fem {

struct Beam {
    struct Span {
        double length, EI;
    };
    std::vector<Span> spans;
    std::vector<bool> supported;  // per node, spans + 1 of them: held vertically, free to rotate
};

// The state of the beam under one load case (one uniform load per span).
struct BeamSolution {
    std::vector<double> load;                     // per span
    std::vector<double> deflection, rotation;     // per node; rotation is the slope dw/dx
    std::vector<double> reaction;                 // per node, zero where free
    std::vector<double> momentStart, shearStart;  // per span, at its left end
    double moment(std::size_t span, double x) const {
        return momentStart[span] + shearStart[span] * x - load[span] * x * x / 2;
    }
    double shear(std::size_t span, double x) const { return shearStart[span] - load[span] * x; }
};

// Status of a solution: on failure `error` names the part that moves.
struct BeamResult {
    std::vector<BeamSolution> cases;
    std::string error;
};

// Solves all load cases with one factorisation. Fewer than two supports, or none at all, is a mechanism.
BeamResult solve(const Beam& beam, const std::vector<std::vector<double>>& loads);

// Deflection inside a span from its solution: the Hermite shape and the particular one of the uniform load.
double deflection(const Beam& beam, const BeamSolution& s, std::size_t span, double x);

// Deflection by integrating curvatures (positive where it sags) at stations x twice, with w = 0 at both ends
// of the range (Simpson on the linearly varying curvature, trapezoidal slopes). Also gives the end slopes.
struct IntegratedSag {
    std::vector<double> w;
    double slopeStart = 0, slopeEnd = 0;
};
IntegratedSag integrateBetweenSupports(const std::vector<double>& x, const std::vector<double>& curvature);
// The same from a known start: w = 0 and the given slope dw/dx at the first station.
std::vector<double> integrateFrom(double slope, const std::vector<double>& x,
                                  const std::vector<double>& curvature);

}  // namespace talvik::fem

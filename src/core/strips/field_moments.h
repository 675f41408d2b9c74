// Moments for two directions of bars in a slab that bends and twists. Per width, N; sagging positive.
#pragma once

#include <span>

namespace talvik::strips {

// Magnitudes for bars along the x axis and for bars at an angle to it (radians, not near 0); 0 where the face
// needs none.
struct BarMoments {
    double along = 0, other = 0;
};
// Least sum of steel that resists every direction of bending on one face (R. H. Wood, The reinforcement of
// slabs in accordance with a pre-determined field of moments, Concrete, 1968; skew bars: G. S. T. Armer,
// discussion of it, 1968). mx, my, mxy transform as a tensor: the moment on a normal at an angle t is mx
// cos^2 t
// + my sin^2 t + 2 mxy sin t cos t. `top`: for the face that hogging puts in tension.
BarMoments barMoments(double mx, double my, double mxy, double angle, bool top);
// `along` of both faces for many places at once, bars at a right angle.
void squareBarMoments(std::span<const double> mx, std::span<const double> my, std::span<const double> mxy,
                      std::span<double> bottom, std::span<double> top);

}  // namespace talvik::strips

// How a floor answers to people who walk on it: natural frequencies of the uncracked slab and the response
// factor, place by place.
//
// Readings. The floor vibrates with its permanent loads and a share of the imposed ones as mass, with the
// stiffness of the analysis (uncracked, short-term). One person walks at 1.6 to 2.4 steps a second with the
// first five harmonics of ISO 10137:2007 Table A.1; long enough that each harmonic is in a steady state (no
// credit for a short walk), at the place that is looked at. Responses of the modes to a harmonic add with
// their phases, harmonics by the root of their squares; accelerations are measured by the base curve of ISO
// 10137 Figure C.1. Floors whose lowest frequency lies above the fifth harmonic answer step by step: that is
// not looked at. Units N, mm, s, Hz.
#pragma once

#include <memory>
#include <stop_token>

#include "fem/plate/modes.h"
#include "verify/check_list.h"

namespace talvik::design {

struct FloorDesign;

struct FloorVibration {
    std::string why;  // why it was not worked out; the rest is empty then
    std::vector<fem::Mode> modes;
    std::vector<float> response;  // factor per node of the analysis
    // The worst place of each panel.
    struct Row {
        std::string panel;
        geometry::Point centre, at;
        double response = 0, pace = 0;  // steps a second that are worst
        double acceleration = 0;        // rms of all harmonics, mm/s2
    };
    std::vector<Row> rows;
    double mass = 0;  // t, of all
};
// Null when stopped.
std::shared_ptr<const FloorVibration> floorVibration(const FloorDesign& design, std::stop_token stop = {});

// Response factor at a place where each mode moves by `shape`, with the pace that is worst.
struct Walking {
    double response = 0, pace = 0, acceleration = 0;
};
Walking walking(const std::vector<fem::Mode>& modes, const std::vector<double>& shape, double damping);
// Acceleration that is just felt, rms, mm/s2: the base curve.
double justFelt(double frequency);
// Share of a person's weight in a harmonic of walking.
double harmonic(int n, double pace);
inline constexpr double walker = 700;  // N
inline constexpr double slowest = 1.6, fastest = 2.4;
inline constexpr int harmonics = 5;

void vibrationChecks(const FloorDesign& design, const FloorVibration* found, verify::CheckList& list);

}  // namespace talvik::design

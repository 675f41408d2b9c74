#include "design/floor_vibration.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <complex>
#include <set>

#include "design/floor_design.h"
#include "fem/parallel/pool.h"
#include "layout/panels.h"

namespace talvik::design {
namespace {

constexpr double gravity = 9810;  // mm/s2
constexpr int mostModes = 192;
const char* const clause = "ISO 10137:2007 A.2.1, C.1";

}  // namespace

double justFelt(double f) {
    return f < 4 ? 10 / std::sqrt(std::max(f, 1.0)) : f <= 8 ? 5 : 5 * f / 8;
}
double harmonic(int n, double pace) {
    return n == 1 ? 0.37 * (pace - 1) : n == 2 ? 0.1 : 0.06;
}

namespace {

// What a walker makes of every mode, at every pace that is looked at and for each harmonic.
class Paces {
  public:
    Paces(const std::vector<fem::Mode>& modes, double damping) : modes_(modes.size()) {
        std::set<long> all;  // in 1/500 of a step a second
        auto look = [&](double pace) {
            if (pace > slowest - 1e-9 && pace < fastest + 1e-9) all.insert(std::lround(500 * pace));
        };
        for (int i = 0; i <= 16; ++i) look(slowest + i * (fastest - slowest) / 16);
        // Where a harmonic meets a mode.
        for (const auto& m : modes)
            for (int n = 1; n <= harmonics; ++n) look(m.frequency / n);
        for (long p : all) {
            const double pace = double(p) / 500;
            paces_.push_back(pace);
            for (int n = 1; n <= harmonics; ++n) {
                felt_.push_back(1 / justFelt(n * pace));
                for (const auto& m : modes) {
                    const double r = n * pace / m.frequency;
                    table_.push_back(std::complex<double>(harmonic(n, pace) * walker / m.mass * r * r) /
                                     std::complex<double>(1 - r * r, 2 * damping * r));
                }
            }
        }
    }
    Walking at(const std::vector<double>& shape) const {
        std::vector<double> squares(modes_);
        for (std::size_t m = 0; m < modes_; ++m) squares[m] = shape[m] * shape[m];
        Walking worst;
        const auto* a = table_.data();
        for (std::size_t p = 0; p < paces_.size(); ++p) {
            double felt = 0, whole = 0;
            for (std::size_t n = 0; n < std::size_t(harmonics); ++n) {
                double re = 0, im = 0;
                for (std::size_t m = 0; m < modes_; ++m, ++a)
                    re += squares[m] * a->real(), im += squares[m] * a->imag();
                const double mean = (re * re + im * im) / 2, f = felt_[p * std::size_t(harmonics) + n];
                felt += mean * f * f, whole += mean;
            }
            if (felt > worst.response) worst = {felt, paces_[p], whole};
        }
        worst.response = std::sqrt(worst.response), worst.acceleration = std::sqrt(worst.acceleration);
        return worst;
    }

  private:
    const std::size_t modes_;
    std::vector<double> paces_, felt_;
    std::vector<std::complex<double>> table_;
};

}  // namespace

Walking walking(const std::vector<fem::Mode>& modes, const std::vector<double>& shape, double damping) {
    return Paces(modes, damping).at(shape);
}

std::shared_ptr<const FloorVibration> floorVibration(const FloorDesign& design, std::stop_token stop) {
    auto out = std::make_shared<FloorVibration>();
    const auto& a = *design.analysis;
    const auto& floor = *design.floor;
    if (!a.system || !a.model || a.nonlinear) {
        out->why = "The slab lifts off the ground: it has no natural frequencies of its own.";
        return out;
    }
    const std::size_t n = a.model->plate.nodes.size();
    std::vector<double> mass(n, 0);
    for (std::size_t c = 0; c < a.cases.size(); ++c) {
        if (a.cases[c].arranged) continue;
        const auto row = std::find_if(floor.actions.cases.begin(), floor.actions.cases.end(),
                                      [&](const model::LoadCase& l) { return l.id == a.cases[c].id; });
        if (row == floor.actions.cases.end()) continue;
        using Nature = model::LoadCase::Nature;
        const double share = row->nature == Nature::SelfWeight || row->nature == Nature::Permanent ? 1
                             : row->nature == Nature::Imposed ? floor.vibration.imposed
                                                              : 0;
        if (share <= 0) continue;
        out->mass += share * a.cases[c].load / gravity;
        const auto loads = fem::internalForces(a.model->plate, a.u[c]);
        for (std::size_t i = 0; i < n; ++i) mass[i] += share * std::max(0.0, loads[3 * i]) / gravity;
        if (stop.stop_requested()) return nullptr;
    }
    const double highest = 1.5 * harmonics * fastest;
    out->modes = fem::lowestModes(*a.system, mass, mostModes, highest, stop);
    if (stop.stop_requested()) return nullptr;
    if (out->modes.empty()) {
        out->why = "No natural frequency was found: nothing on the floor has mass.";
        return out;
    }
    if (out->modes.front().frequency > harmonics * fastest) {
        out->why = fmt::format(
            "The lowest natural frequency, {:.1f} Hz, lies above the fifth harmonic of walking "
            "(high-frequency floor): impulsive response is not assessed.",
            out->modes.front().frequency);
        return out;
    }
    if (int(out->modes.size()) == mostModes && out->modes.back().frequency < harmonics * fastest) {
        out->why = fmt::format(
            "More than {} natural frequencies lie below {:.0f} Hz: the floor is too large to be assessed in "
            "one piece.",
            mostModes, harmonics * fastest);
        return out;
    }
    out->response.assign(n, 0);
    const Paces paces(out->modes, floor.vibration.damping);
    std::vector<Walking> all(n);
    fem::parallelFor(n, [&](std::size_t i) {
        if (stop.stop_requested()) return;
        std::vector<double> shape(out->modes.size());
        for (std::size_t m = 0; m < shape.size(); ++m) shape[m] = out->modes[m].shape[i];
        all[i] = paces.at(shape);
        out->response[i] = float(all[i].response);
    });
    if (stop.stop_requested()) return nullptr;
    for (const auto& panel : layout::findPanels(floor)) {
        FloorVibration::Row row;
        row.panel = panel.name, row.centre = panel.centre;
        for (std::size_t i = 0; i < n; ++i) {
            const auto p = a.model->plate.nodes[i];
            if (all[i].response <= row.response) continue;
            if (std::any_of(panel.parts.begin(), panel.parts.end(), [&](const geometry::Ring& part) {
                    // Free edges, where it is often worst, belong to the panel.
                    return geometry::contains(part, p) || geometry::distanceToEdge(part, p) < 1;
                }))
                row.at = p, row.response = all[i].response, row.pace = all[i].pace,
                row.acceleration = all[i].acceleration;
        }
        out->rows.push_back(std::move(row));
    }
    return out;
}

void vibrationChecks(const FloorDesign& f, const FloorVibration* found, verify::CheckList& list) {
    if (!found) return;
    const checks::Place whole{{{f.floor->id}, model::Spot::In::Whole, {}}, "floor"};
    if (!found->why.empty()) {
        list.add({"vibration", "Vibration", checks::Topic::Sag, checks::notChecked(clause, found->why), {}},
                 whole);
        return;
    }
    const auto& choice = f.floor->vibration;
    for (const auto& r : found->rows) {
        checks::Finding n;
        n.kind = units::Kind::None, n.prefix = "R", n.clause = clause;
        n.demand = r.response, n.limit = choice.limit;
        trace::Steps t;
        using trace::step;
        step(&t, "f_1", "", {}, found->modes.front().frequency, "Hz", clause,
             fmt::format("the lowest natural frequency of {}, uncracked", found->modes.size()));
        step(&t, "m", "", {}, found->mass, "t", clause,
             fmt::format("of the whole floor: permanent loads and {:.0f} % of the imposed ones",
                         100 * choice.imposed));
        step(&t, "f_p", "", {}, r.pace, "Hz", clause, "step frequency that governs here");
        step(&t, "a_rms", "", {}, r.acceleration, "mm/s²", clause,
             fmt::format("one person of {:.0f} N, five harmonics, damping {:.1f} %", walker,
                         100 * choice.damping));
        n.here.push_back(fmt::format(
            "Worst at ({:.2f}, {:.2f}) m; the lowest natural frequency of the floor is {:.1f} Hz.",
            r.at.x / 1000, r.at.y / 1000, found->modes.front().frequency));
        n.notes.push_back(
            "Vibration: one person walking on the spot considered, in a steady state, by the harmonics and "
            "the base curve of ISO 10137; uncracked stiffness; machines, crowds and impulsive response are "
            "not considered.");
        checks::Place place{{{f.floor->id}, model::Spot::In::Whole, {}}, r.panel};
        place.at = r.centre;
        list.add({"vibration/" + r.panel, "Response to walking", checks::Topic::Sag, checks::judged(n), t,
                  r.panel},
                 place, "");
    }
}

}  // namespace talvik::design

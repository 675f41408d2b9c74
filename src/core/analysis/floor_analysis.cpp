#include "analysis/floor_analysis.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "fem/parallel/aside.h"
#include "fem/plate/loads.h"
#include "model/floor_validation.h"

namespace talvik::analysis {

struct FloorAnalyser::Kept {
    model::Floor floor;
    FloorBasis basis;
    std::shared_ptr<FloorModel> model;
    std::shared_ptr<fem::PlateSystem> system = std::make_shared<fem::PlateSystem>();
    FloorAnalysis answer;
    bool factorValid = true;  // not once the ground has let go: the factor is that of the last contact
};

namespace {

using model::Point;

std::string metres(Point p) {
    return fmt::format("({:.2f}, {:.2f}) m", p.x / 1000, p.y / 1000);
}

bool sameStructure(model::Floor a, model::Floor b) {
    for (auto* f : {&a, &b}) {
        f->actions = {};
        f->name.clear();
        f->grids.clear();
        f->underlays.clear();
        f->panels.clear();
    }
    return a == b;
}
bool sameFactors(const std::vector<FloorCombination>& a, const std::vector<FloorCombination>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const auto& x, const auto& y) {
        return x.factors == y.factors && x.state == y.state;
    });
}
bool sameBasis(const FloorBasis& a, const FloorBasis& b) {
    // Flange rules of one modulus and density come from one standard; they cannot be compared.
    return a.modulus == b.modulus && a.beamModulus == b.beamModulus && a.columnModulus == b.columnModulus &&
           a.poisson == b.poisson && a.density == b.density && a.beamDensity == b.beamDensity &&
           a.oneWay == b.oneWay;
}

// The word for a part that nothing holds.
model::Diagnostic freeSentence(const fem::FreeMovement& free, const model::Floor& floor,
                               const std::string& path) {
    std::string name = floor.name.empty() ? "The slab" : "The slab of " + floor.name;
    for (const auto& s : floor.slabs)
        if (geometry::contains(model::ring(s.outline), free.at) && !s.name.empty()) name = "Slab " + s.name;
    if (free.sinks)
        return {path,
                fmt::format("{} has no support near {}; add a column, a wall, a beam on supports or ground "
                            "there.",
                            name, metres(free.at))};
    double angle = std::atan2(free.cy, free.cx) * 180 / 3.14159265358979;
    if (angle < -0.5) angle += 180;
    if (angle > 179.5) angle -= 180;  // a line has no sense
    return {
        path,
        fmt::format("{} around {} can rotate about a line at {:.0f}° to the x axis: all its supports lie on "
                    "that line and are pinned. Add a support off the line, or columns that resist rotation.",
                    name, metres(free.at), std::abs(angle))};
}

// Force of every support under displacements u.
std::vector<SupportForce> supportForces(const FloorModel& m,
                                        const std::vector<fem::PlateSystem::Reaction>& held,
                                        const fem::NodeVector& u, const std::vector<char>* lifted) {
    std::vector<SupportForce> all(m.supports.size());
    auto add = [&](int support, int node, double up, double cx, double cy) {
        SupportForce& s = all[std::size_t(support)];
        double dx = m.plate.nodes[node].x - m.supports[support].at.x,
               dy = m.plate.nodes[node].y - m.supports[support].at.y;
        s.up += up;
        // A force at (dx, dy) goes with -bx dx - by dy.
        s.mx += cx - up * dx;
        s.my += cy - up * dy;
    };
    for (const auto& r : held)
        if (int s = m.nodeSupport[r.node]; s >= 0) add(s, r.node, r.force[0], r.force[1], r.force[2]);
    for (std::size_t i = 0; i < m.plate.springs.size(); ++i) {
        const auto& s = m.plate.springs[i];
        if (lifted && (*lifted)[i]) continue;
        const double* v = &u[3 * std::size_t(s.node)];
        add(m.springSupport[i], s.node, s.w * v[0], s.xx * v[1] + s.xy * v[2], s.xy * v[1] + s.yy * v[2]);
    }
    return all;
}

// Sums of forces and of moments about the middle of the plan, of loads and of supports.
double imbalance(const FloorModel& m, const fem::NodeVector& load,
                 const std::vector<SupportForce>& supports) {
    Point o = m.plate.nodes[m.plate.nodes.size() / 2];
    double sum[3] = {0, 0, 0}, size[3] = {0, 0, 0};
    double reach = 1;
    for (Point p : m.plate.nodes) reach = std::max({reach, std::abs(p.x - o.x), std::abs(p.y - o.y)});
    auto add = [&](double up, double cx, double cy, double dx, double dy) {
        sum[0] += up, sum[1] += cx - up * dx, sum[2] += cy - up * dy;
        size[0] += std::abs(up);
        for (int i : {1, 2}) size[i] += std::abs(up) * reach + std::abs(i == 1 ? cx : cy);
    };
    for (std::size_t n = 0; n < m.plate.nodes.size(); ++n)
        if (load[3 * n] != 0 || load[3 * n + 1] != 0 || load[3 * n + 2] != 0)
            add(-load[3 * n], -load[3 * n + 1], -load[3 * n + 2], m.plate.nodes[n].x - o.x,
                m.plate.nodes[n].y - o.y);
    for (std::size_t s = 0; s < supports.size(); ++s)
        add(supports[s].up, supports[s].mx, supports[s].my, m.supports[s].at.x - o.x,
            m.supports[s].at.y - o.y);
    double worst = 0;
    for (int i = 0; i < 3; ++i)
        if (size[i] > 0) worst = std::max(worst, std::abs(sum[i]) / size[i]);
    return worst;
}

constexpr int mostContactRounds = 40;

}  // namespace

FloorAnalysis FloorAnalyser::analyse(const model::Floor& floor, const std::string& path,
                                     const FloorBasis& basis,
                                     const std::vector<FloorCombination>& combinations, std::stop_token stop,
                                     const std::function<void(double)>& progress) {
    FloorAnalysis a;
    auto tell = [&](double share) {
        if (progress) progress(share);
    };
    auto halted = [&] {
        if (!stop.stop_requested()) return false;
        a.stopped = true;
        return true;
    };
    // What a stopped run leaves is freed elsewhere.
    struct Leavings {
        std::vector<std::shared_ptr<void>> all;
        std::stop_token stop;
        ~Leavings() {
            if (stop.stop_requested())
                for (auto& x : all) fem::letGo(std::move(x));
        }
    } leavings{{}, stop};
    a.trouble = basis.trouble.empty() ? model::validateFloor(floor, path) : basis.trouble;
    if (!a.trouble.empty()) return a;
    a.assumptions = assumptions(floor);
    a.assumptions.insert(a.assumptions.end(), basis.assumptions.begin(), basis.assumptions.end());
    bool sameModel = kept_ && sameStructure(kept_->floor, floor) && sameBasis(kept_->basis, basis);
    if (sameModel && kept_->floor.actions.cases == floor.actions.cases &&
        kept_->floor.actions.loads == floor.actions.loads &&
        (!kept_->answer.nonlinear || sameFactors(kept_->answer.combinations, combinations))) {
        auto words = std::move(a.assumptions);
        a = kept_->answer;  // only names or combinations changed
        a.combinations = combinations;
        a.assumptions = std::move(words);
        a.stages = {};
        a.reusedFactor = a.reusedAll = true;
        return a;
    }
    bool keepFactor = sameModel && kept_->factorValid;
    std::shared_ptr<Kept> now = keepFactor ? kept_ : std::make_shared<Kept>();
    auto loadsOwner = std::make_shared<FloorLoads>();
    leavings.all = {now, loadsOwner};
    if (!keepFactor) {
        tell(0);
        now->model =
            std::make_shared<FloorModel>(makeFloorModel(floor, path, basis, a.stages, stop, refined_));
        if (halted()) return a;
        a.trouble = now->model->trouble;
        for (const auto& free :
             a.trouble.empty() ? fem::freeMovements(now->model->plate) : std::vector<fem::FreeMovement>{})
            a.trouble.push_back(freeSentence(free, floor, path));
        if (!a.trouble.empty()) return a;
        tell(0.1);
        if (auto error = now->system->build(now->model->plate, a.stages, stop); !error.empty()) {
            if (!halted()) a.trouble.push_back({path, error});
            return a;
        }
        if (halted()) return a;
        tell(0.2);
        auto outcome = now->system->factorise(now->model->plate, a.stages, stop,
                                              [&](double share) { tell(0.2 + 0.6 * share); });
        if (halted()) return a;
        if (outcome == fem::Cholesky::Outcome::NotPositive)
            a.trouble.push_back(
                {path,
                 fmt::format(
                     "The slab is not sufficiently supported near {}: it is nearly a mechanism. Add a "
                     "support or stiffen it.",
                     metres(now->model->plate.nodes[std::size_t(std::max(0, now->system->badNode()))]))});
        if (outcome == fem::Cholesky::Outcome::TooLarge)
            a.trouble.push_back(
                {path, "The model is too large for this machine; choose a larger size of mesh."});
        if (!a.trouble.empty()) return a;
    }
    a.reusedFactor = keepFactor;
    const FloorModel& m = *now->model;
    a.model = now->model;
    if (m.groundSprings.empty()) a.system = now->system;  // ground that lets go changes the factor
    a.notes = m.notes;
    a.unknowns = now->system->unknowns();
    a.factorEntries = now->system->cholesky().entries();
    FloorLoads& loads = *loadsOwner;
    loads = floorLoads(floor, path, m, basis, stop);
    a.notes.insert(a.notes.end(), loads.notes.begin(), loads.notes.end());
    a.combinations = combinations;
    if (halted()) return a;
    // Balance is checked for every case; a badly shaped mesh may need the answer refined first.
    for (int rounds : {0, 2}) {
        a.u = now->system->solve(loads.cases, a.stages, stop, rounds);
        if (halted()) return a;
        auto held = now->system->reactions(m.plate, loads.cases, a.u);
        a.cases.clear();
        a.supportForces.clear();
        double worst = 0;
        for (std::size_t c = 0; c < loads.cases.size(); ++c) {
            if (halted()) return a;
            auto forces = supportForces(m, held[c], a.u[c], nullptr);
            const auto& own = floor.actions.cases[c];
            FloorCase row{own.id, own.name, own.arranged(), loads.total[c], 0, 0};
            for (const auto& s : forces) row.reaction += s.up;
            row.imbalance = imbalance(m, loads.cases[c], forces);
            worst = std::max(worst, row.imbalance);
            a.cases.push_back(row);
            a.supportForces.push_back(std::move(forces));
        }
        if (worst < 1e-10) break;
    }
    tell(0.9);
    for (const auto& c : a.cases)
        if (c.imbalance > 1e-6)
            a.trouble.push_back(
                {path, fmt::format("Load case {} is not in equilibrium: loads and reactions differ by a "
                                   "share of {:.1e}. Part of the slab is hardly supported; add supports.",
                                   c.name, c.imbalance)});
    // Ground that does not pull: where the linear answer lifts, contact is searched for, combination by
    // combination.
    bool lifts = false;
    if (!floor.choices.groundTakesTension && !m.groundSprings.empty())
        for (const auto& k : combinations)
            for (int i : m.groundSprings) {
                double w = 0;
                for (std::size_t c = 0; c < a.u.size(); ++c)
                    w += k.factors[c] * a.u[c][3 * std::size_t(m.plate.springs[i].node)];
                lifts |= w < 0;
            }
    if (lifts && a.trouble.empty()) {
        a.nonlinear = true;
        now->factorValid = false;  // from here on, also when stopped half-way
        int unsettled = 0, most = 0;
        std::string first;
        std::vector<fem::NodeVector> answers;
        std::vector<std::vector<SupportForce>> forces;
        fem::PlateModel plate = m.plate;
        for (std::size_t k = 0; k < combinations.size(); ++k) {
            fem::NodeVector f(3 * m.plate.nodes.size(), 0), u(f.size(), 0);
            for (std::size_t c = 0; c < loads.cases.size(); ++c)
                for (std::size_t i = 0; i < f.size(); ++i) {
                    f[i] += combinations[k].factors[c] * loads.cases[c][i];
                    u[i] += combinations[k].factors[c] * a.u[c][i];
                }
            std::vector<char> lifted(plate.springs.size(), 0);
            std::vector<fem::PlateSystem::Reaction> heldNow;
            int round = 0;
            bool settled = false;
            for (; round < mostContactRounds && !settled; ++round) {
                settled = true;
                double deepest = 0;
                for (int i : m.groundSprings)
                    deepest = std::max(deepest, std::abs(u[3 * std::size_t(plate.springs[i].node)]));
                for (int i : m.groundSprings) {
                    double w = u[3 * std::size_t(plate.springs[i].node)];
                    bool up = w < -1e-9 * deepest;
                    if (up != bool(lifted[i])) lifted[i] = up, settled = false;
                }
                if (settled && round > 0) break;
                for (int i : m.groundSprings) plate.springs[i].w = lifted[i] ? 0 : m.plate.springs[i].w;
                if (!fem::freeMovements(plate).empty()) break;  // lifts off altogether
                if (now->system->factorise(plate, a.stages, stop) != fem::Cholesky::Outcome::Done) break;
                auto one = now->system->solve({f}, a.stages, stop);
                if (halted()) return a;
                u = one[0];
                heldNow = now->system->reactions(plate, {f}, one)[0];
                settled = false;
            }
            if (halted()) return a;
            most = std::max(most, round);
            if (!settled && ++unsettled == 1) first = combinations[k].name;
            forces.push_back(supportForces(m, heldNow, u, &lifted));
            answers.push_back(std::move(u));
            tell(0.9 + 0.05 * double(k + 1) / double(combinations.size()));
        }
        a.u = std::move(answers);
        a.supportForces = std::move(forces);
        a.contactWord =
            unsettled == 0
                ? fmt::format("The no-tension contact iteration converged in at most {} rounds.", most)
                : fmt::format(
                      "The no-tension contact iteration did not converge under {} combination{}, {} first: "
                      "the slab may lift off or tip there. Its results are not reliable.",
                      unsettled, unsettled == 1 ? "" : "s", first);
        if (unsettled) a.notes.push_back({path, a.contactWord});
    }
    a.moments = fem::recoverMoments(m.plate, m.points, a.u, a.stages, stop);
    if (halted()) return a;
    now->floor = floor;
    now->basis = basis;
    now->answer = a;
    kept_ = a.trouble.empty() ? now : nullptr;
    tell(1);
    return a;
}

Convergence FloorAnalyser::convergence(const model::Floor& floor, const std::string& path,
                                       const FloorBasis& basis,
                                       const std::vector<FloorCombination>& combinations,
                                       std::stop_token stop) {
    Convergence c;
    FloorAnalysis coarse = analyse(floor, path, basis, combinations, stop);
    if (!coarse.good() || coarse.stopped) {
        c.error = coarse.stopped ? "stopped" : coarse.trouble.front().message;
        return c;
    }
    FloorAnalyser other;
    other.refined_ = true;
    FloorAnalysis fine = other.analyse(floor, path, basis, combinations, stop);
    if (!fine.good() || fine.stopped) {
        c.error = fine.stopped ? "stopped" : fine.trouble.front().message;
        return c;
    }
    c.trianglesCoarse = coarse.model->plate.triangles.size();
    c.trianglesFine = fine.model->plate.triangles.size();
    auto row = [&](std::string what, double x, double y, const char* unitName) {
        c.rows.push_back({std::move(what), x, y, unitName});
    };
    auto a = coarse.extremes(actions::LimitState::QuasiPermanent),
         b = fine.extremes(actions::LimitState::QuasiPermanent);
    if (!a.empty()) row("largest deflection, quasi-permanent", a[0].most.value, b[0].most.value, "mm");
    a = coarse.extremes(actions::LimitState::Ultimate), b = fine.extremes(actions::LimitState::Ultimate);
    for (std::size_t i = 0; i < a.size(); ++i)
        if (a[i].field == Field::Mx || a[i].field == Field::My) {
            row(fmt::format("largest sagging {}", key(a[i].field)), a[i].most.value / factor(a[i].field),
                b[i].most.value / factor(a[i].field), unit(a[i].field));
            row(fmt::format("largest hogging {}", key(a[i].field)), a[i].least.value / factor(a[i].field),
                b[i].least.value / factor(a[i].field), unit(a[i].field));
        }
    double largest = 0;
    std::size_t which = 0, by = 0;
    for (std::size_t k = 0; k < combinations.size(); ++k) {
        auto forces = coarse.forces(k);
        for (std::size_t s = 0; s < forces.size(); ++s)
            if (coarse.model->supports[s].kind == FloorSupport::Kind::Column && forces[s].up > largest)
                largest = forces[s].up, which = s, by = k;
    }
    if (largest > 0)
        row("largest column reaction, " + coarse.model->supports[which].name, largest / 1000,
            fine.forces(by)[which].up / 1000, "kN");
    return c;
}

}  // namespace talvik::analysis

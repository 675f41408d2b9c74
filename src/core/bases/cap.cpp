#include "bases/cap.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "ground/pile_group.h"

namespace talvik::bases {

using checks::Finding;
using geometry::Point;
using standards::Section;

Cap::Cap(const Context& in, const model::Base& base) : Standing(in, base) {}

double Cap::toBars() const {
    return std::max(in_.cover, in_.set.pile.embedment + 20);
}
double Cap::weight(const PadSize& s, const standards::BaseCombination* k) const {
    const auto& g = in_.set.ground;
    const double u = g.water ? waterWeight * std::max(0.0, g.depth - g.waterDepth) : 0;
    const double concrete = in_.density * s.h * s.area(),
                 soil = g.soil * std::max(0.0, g.depth - s.h) * s.area() - soilDisplaced(s.h);
    return (k ? k->concrete * concrete + k->weight * soil : concrete + soil) - u * s.area();
}

CapDesign Cap::laid(std::vector<Point> piles, double h, bool mayCut) const {
    CapDesign d;
    const auto& p = in_.set.pile;
    d.piles = std::move(piles);
    d.size.h = h;
    d.size.off = base_.offPinned ? Point{base_.offX, base_.offY} : Point{0, 0};
    const bool free = base_.B <= 0 && base_.L <= 0 && base_.pilesAt.empty();
    if (mayCut && free && in_.set.outline != model::CapOutline::Rectangular && cut(d)) return d;
    double x = 0, y = 0;
    if (base_.pilesAt.empty()) {
        // Three piles: the rectangle is about them, not about their middle.
        double low = 0, high = 0;
        for (Point q : d.piles) low = std::min(low, q.y), high = std::max(high, q.y);
        d.size.shift.y = (low + high) / 2;
        if (std::abs(d.size.shift.y) < 1) d.size.shift.y = 0;
        for (Point& q : d.piles) q.y -= d.size.shift.y;
        d.size.off.y += d.size.shift.y;
    }
    for (Point q : d.piles) x = std::max(x, std::abs(q.x)), y = std::max(y, std::abs(q.y));
    for (const auto& c : columns_) {
        x = std::max(x, std::abs(c.at.x - d.size.off.x) + c.side(0) / 2 - p.diameter / 2 - p.edge);
        y = std::max(y, std::abs(c.at.y - d.size.off.y) + c.side(1) / 2 - p.diameter / 2 - p.edge);
    }
    d.size.B =
        base_.B > 0 ? base_.B : units::roundUp(2 * x + p.diameter + 2 * p.edge - 1e-6, in_.set.planStep);
    d.size.L =
        base_.L > 0 ? base_.L : units::roundUp(2 * y + p.diameter + 2 * p.edge - 1e-6, in_.set.planStep);
    placed(d.size);
    return d;
}

bool Cap::cut(CapDesign& d) const {
    const auto& p = in_.set.pile;
    const bool corners = in_.set.outline == model::CapOutline::CornersCut;
    double edge = p.diameter / 2 + p.edge;
    geometry::Ring ring = alongPiles(d.piles, edge, corners);
    if (ring.empty()) return false;
    // No column stands beyond it.
    auto holds = [&] {
        for (const auto& c : columns_)
            for (int k = 0; k < 4; ++k) {
                const Point corner{c.at.x - d.size.off.x + (k % 2 ? 0.5 : -0.5) * c.side(0),
                                   c.at.y - d.size.off.y + (k / 2 ? 0.5 : -0.5) * c.side(1)};
                if (!geometry::contains(ring, corner)) return false;
            }
        return true;
    };
    for (int more = 0; !holds(); ++more) {
        if (more > 200) return false;
        edge += 25, ring = alongPiles(d.piles, edge, corners);
    }
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (Point q : ring)
        x0 = std::min(x0, q.x), x1 = std::max(x1, q.x), y0 = std::min(y0, q.y), y1 = std::max(y1, q.y);
    const Point middle{(x0 + x1) / 2, (y0 + y1) / 2};
    for (auto* all : {&d.piles, &ring})
        for (Point& q : *all) q.x -= middle.x, q.y -= middle.y;
    d.size.B = x1 - x0, d.size.L = y1 - y0, d.size.outline = std::move(ring), d.size.shift = middle;
    d.size.off.x += middle.x, d.size.off.y += middle.y;
    placed(d.size);
    return true;
}

ground::CapLoad Cap::load(const Sum& sum, const PadSize& size, double weight) const {
    const auto r = resultant(sum, size, weight);
    return {r.N, r.alongX, r.alongY};
}

Cap::PileForces Cap::pileForces(const CapDesign& design) const {
    PileForces out;
    const auto& s = design.size;
    const BaseState state = capacityState();
    for (std::size_t i = 0; i < sums(state).size(); ++i) {
        const auto& k = of(state)[i];
        const double q = k.surcharge * in_.set.ground.surcharge * s.area() / double(design.piles.size());
        const auto e = ground::withTolerance(design.piles, load(sums(state)[i], s, weight(s, &k)),
                                             in_.set.pile.tolerance);
        out.compression.larger(e.most + q, int(i));
        out.tension.larger(-e.least, int(i));
        const auto& H = sums(state)[i];
        out.lateral.larger(std::hypot(H.Hx, H.Hy) / double(design.piles.size()), int(i));
    }
    // What no pile takes, of the strength, where accidental actions are.
    for (std::size_t i = 0; i < sums(BaseState::Strength).size(); ++i) {
        const auto on = load(sums(BaseState::Strength)[i], s, 0);
        out.across.larger(design.piles.size() == 1 ? std::hypot(on.alongX, on.alongY)
                                                   : ground::reactions(design.piles, on).acrossLeft,
                          int(i));
    }
    return out;
}

std::vector<std::vector<double>> Cap::reactions(const CapDesign& design) const {
    const auto& s = design.size;
    const BaseState state = capacityState();
    std::vector<std::vector<double>> all;
    for (std::size_t i = 0; i < sums(state).size(); ++i) {
        const auto& k = of(state)[i];
        const double q = k.surcharge * in_.set.ground.surcharge * s.area() / double(design.piles.size());
        all.push_back(ground::reactions(design.piles, load(sums(state)[i], s, weight(s, &k))).all);
        for (double& r : all.back()) r += q;
    }
    return all;
}
std::vector<std::string> Cap::reactionNames() const {
    std::vector<std::string> all;
    for (std::size_t i = 0; i < sums(capacityState()).size(); ++i)
        all.push_back(combination(capacityState(), int(i)));
    return all;
}

bool Cap::held(const CapDesign& design) const {
    const auto& p = in_.set.pile;
    const auto f = pileForces(design);
    return design.size.onSite && f.compression.value <= p.compression * (1 + 1e-9) &&
           (p.lateral <= 0 || f.lateral.value <= p.lateral * (1 + 1e-9)) &&
           f.tension.value <= p.tension * (1 + 1e-9) + 1 &&
           f.across.value <= 1e-3 * p.compression * p.diameter;
}

// What piles push up under the columns' loads alone: the weight of the cap bends nothing.
std::vector<double> Cap::upward(const CapDesign& design, std::size_t i, double slipX, double slipY) const {
    auto on = load(sums(BaseState::Strength)[i], design.size, 0);
    on.alongX += on.N * slipX, on.alongY += on.N * slipY;
    return ground::reactions(design.piles, on).all;
}
std::vector<Asked> Cap::largestReactions(const CapDesign& design) const {
    std::vector<Asked> largest(design.piles.size());
    const double off = in_.set.pile.tolerance;
    for (std::size_t i = 0; i < of(BaseState::Strength).size(); ++i)
        for (double sx : {-off, off})
            for (double sy : {-off, off}) {
                const auto R = upward(design, i, sx, sy);
                for (std::size_t k = 0; k < R.size(); ++k) largest[k].larger(R[k], int(i));
                if (off <= 0) break;
            }
    return largest;
}
double Cap::topDepth(const CapDesign& design, int axis) const {
    const auto& top = design.top;
    const double outer = axis == 1 && top[0].bar ? top[0].bar->diameter : 0,
                 own = top[std::size_t(axis)].bar ? top[std::size_t(axis)].bar->diameter : 20;
    return design.size.h - in_.cover - outer - own / 2;
}

Cap::Demand Cap::demand(const CapDesign& design, BaseState state) const {
    Demand out;
    const auto& s = design.size;
    // Reactions follow the tolerance towards the side that is looked at.
    const double slip = state == BaseState::Strength ? in_.set.pile.tolerance : 0;
    for (std::size_t i = 0; i < of(state).size(); ++i) {
        auto reactions = [&](int axis, double sign) {
            auto on = load(sums(state)[i], s, 0);
            (axis == 0 ? on.alongX : on.alongY) += sign * slip * on.N;
            return ground::reactions(design.piles, on).all;
        };
        for (int axis : {0, 1})
            for (const auto& c : columns_)
                for (double sign : {1.0, -1.0}) {
                    const auto R = reactions(axis, sign);
                    if (state == BaseState::Strength && trussed(design)) {
                        const Arm a = arm(design, R);
                        const double z = a.z > 0 ? a.z : design.d[0] / 2;
                        if (banded(design)) {
                            const double T = bandForce(design, R, z);
                            for (Asked& tie : out.tie) tie.larger(T, int(i));
                        } else {
                            out.tie[axis].larger(a.moment[axis] / z, int(i));
                        }
                    }
                    for (double r : R) out.pulled |= r < -1;
                    const double face = c.place(axis, s) + sign * c.side(axis) / 2;
                    double M = 0, V = 0, reduced = 0;
                    for (std::size_t k = 0; k < R.size(); ++k) {
                        const double arm =
                            sign * ((axis == 0 ? design.piles[k].x : design.piles[k].y) - face);
                        if (arm <= 0) continue;
                        M += R[k] * arm, V += R[k];
                        if (const double clear = arm - in_.set.pile.diameter / 2; clear > 0)
                            out.clear[axis] = std::min(out.clear[axis], clear);
                        reduced +=
                            R[k] * in_.rules.pileShare(arm - in_.set.pile.diameter / 2,
                                                       design.d[std::size_t(axis)], in_.set.pile.diameter);
                    }
                    // Other columns beyond press down.
                    for (const auto& other : columns_) {
                        const double arm = sign * (other.place(axis, s) - face);
                        if (&other == &c || arm <= 0) continue;
                        const Forces f = forces(other, state, i);
                        M -= f.N * arm + sign * f.along(axis, s.h);
                        V -= f.N, reduced -= f.N;
                    }
                    out.moment[axis].larger(M, int(i));
                    out.top[axis].larger(-M, int(i));
                    out.shear[axis].larger(std::abs(V), int(i));
                    out.reduced[axis].larger(std::abs(reduced), int(i));
                }
    }
    return out;
}

double Cap::breadth(const PadSize& s, int axis, double beyond) const {
    double b = s.side(1 - axis);
    if (!s.outline.empty())
        for (const auto& c : columns_)
            for (double sign : {1.0, -1.0})
                b = std::min(b,
                             s.across(axis, c.place(axis, s) + sign * (c.side(axis) / 2 + beyond)).length());
    return b;
}
double Cap::reached(const CapDesign& design, int axis) const {
    const auto& s = design.size;
    double b = breadth(s, axis);
    if (s.outline.empty()) return b;
    for (const auto& c : columns_)
        for (double sign : {1.0, -1.0}) {
            double nearest = 1e300;
            for (Point q : design.piles) {
                const double off = sign * ((axis == 0 ? q.x : q.y) - c.place(axis, s));
                if (off > c.side(axis) / 2) nearest = std::min(nearest, off);
            }
            if (nearest < 1e299)
                b = std::min(
                    b,
                    s.across(axis, c.place(axis, s) + sign * (nearest + in_.set.pile.diameter / 2)).length());
        }
    return b;
}

double Cap::run(const CapDesign& design, std::size_t k, int axis) const {
    const auto& c = columns_.front();
    const double off = (axis == 0 ? design.piles[k].x : design.piles[k].y) - c.place(axis, design.size);
    return std::max(0.0, std::abs(off) - c.side(axis) / 4);
}
Cap::Arm Cap::arm(const CapDesign& design, const std::vector<double>& R) const {
    const auto& s = design.size;
    const auto& c = columns_.front();
    const double d = (design.d[0] + design.d[1]) / 2, plain = in_.rules.node(false, in_.fc, 1);
    Arm a{0, d};
    for (int axis : {0, 1})
        for (double sign : {-1.0, 1.0}) {
            double moment = 0;
            for (std::size_t k = 0; k < R.size(); ++k)
                if (sign * ((axis == 0 ? design.piles[k].x : design.piles[k].y) - c.place(axis, s)) > 0)
                    moment += std::max(0.0, R[k]) * run(design, k, axis);
            a.moment[axis] = std::max(a.moment[axis], moment);
        }
    // y = M/((d - y/2) b f), of the axis that asks for more.
    for (int axis : {0, 1}) {
        const double area = a.moment[axis] / (c.side(1 - axis) * plain), under = d * d - 2 * area;
        const double node = under > 0 ? d - std::sqrt(under) : 2 * d;
        if (node > a.node) a.node = node, a.z = d - node / 2;
    }
    if (a.z < d / 2) a.z = 0;
    return a;
}
double Cap::bandForce(const CapDesign& design, const std::vector<double>& R, double z) const {
    const auto& s = design.size;
    const auto& c = columns_.front();
    double most = 0;
    for (std::size_t k = 0; k < 3; ++k) {
        const Point q = design.piles[k];
        // Inwards, what balances the strut on the pile; shared by the two bands that meet there.
        const double push = std::max(0.0, R[k]) / z,
                     hx = push * run(design, k, 0) * (q.x > c.place(0, s) ? -1 : 1),
                     hy = push * run(design, k, 1) * (q.y > c.place(1, s) ? -1 : 1);
        const Point a = design.piles[(k + 1) % 3], b = design.piles[(k + 2) % 3];
        const double la = geometry::length(a, q), lb = geometry::length(b, q);
        const Point u{(a.x - q.x) / la, (a.y - q.y) / la}, v{(b.x - q.x) / lb, (b.y - q.y) / lb};
        const double det = u.x * v.y - u.y * v.x;
        most = std::max({most, (hx * v.y - hy * v.x) / det, (u.x * hy - u.y * hx) / det});
    }
    return most;
}

Face Cap::face(const CapDesign& design, const Demand& m, const Demand& service, Way way) const {
    const auto& mat = (way.top ? design.top : design.bottom)[std::size_t(way.axis)];
    Face f{way,
           mat,
           across(design, way.axis),
           {},
           (way.top ? m.top : m.moment)[way.axis],
           (way.top ? service.top : service.moment)[way.axis],
           crackState()};
    if (way.top) f.section.d = topDepth(design, way.axis);
    f.gross = f.section;
    if (mat.bar) {
        // Of bands: that of the lowest.
        const double to =
            mat.bands && !way.top ? toBars() : design.size.h - f.section.d - mat.bar->diameter / 2;
        f.cover = std::max(in_.cover, way.top ? to : std::min(to, in_.cover + mat.bar->diameter));
    }
    f.flexure = way.top || bent(design);
    // Bars at the top that hold links alone have no least steel.
    f.leastSteel = !way.top || m.pulled || f.moment.value > in_.standard->flexure->plain(f.section);
    f.pinned = pinnedBars();
    f.notes[0] = "Moments of caps are those of the piles beyond the faces of columns, on the whole width.";
    f.plain = "No top reinforcement: hogging moment carried by the plain concrete section.";
    f.none = "No allowed bars are sufficient; the cap is too shallow.";
    return f;
}

void Cap::chooseBars(CapDesign& design) const {
    const auto& s = design.size;
    const auto& rules = *in_.standard;
    design.d = {s.h - toBars() - 10, s.h - toBars() - 30};
    const auto m = demand(design), service = demand(design, crackState());
    const double most = rules.steel->spacing(standards::SteelRules::Role::TwoWay, true, s.h);
    const bool bands = banded(design);
    // Bars of a band lie over the piles.
    const double inBand = in_.set.pile.diameter + 2 * in_.cover;
    double below = 0;
    for (int axis : {0, 1}) {
        const auto a = std::size_t(axis);
        const double b = breadth(s, axis), reaching = bands ? inBand : reached(design, axis);
        for (bool top : {false, true}) {
            Mat& mat = top ? design.top[a] : design.bottom[a];
            mat = {};
            if (bands && axis == 1 && !top) {
                mat = design.bottom[0], design.d[1] = design.d[0];
                continue;
            }
            const double M = top ? m.top[axis].value : m.moment[axis].value;
            const double off = top ? in_.cover : toBars();
            Section section{b, s.h, s.h - off - below - 10, off + 10, in_.fc, in_.fy};
            if (section.d < 50) continue;
            // Pulled piles want bars at the top (EN 1992-1-1 9.8.1(3)).
            const bool plain = top && M <= rules.flexure->plain(section) && !m.pulled;
            if (plain && in_.set.linkBar.empty() && !in_.set.topBars) continue;
            const double outer =
                top ? (axis == 1 && design.top[0].bar ? design.top[0].bar->diameter : 0) : below;
            // Of bands, the third layer counts for all, and one and a half of them along any axis.
            const bool inBands = bands && !top;
            const double counts = inBands ? 1.5 : 1;
            auto chosen = [&](double area, double largest) {
                Mat one = bases::mat(in_, base_, top ? b : reaching, area / counts, most, largest);
                one.bands = inBands;
                return one;
            };
            double area = 0, diameter = 16, largest = 1e9;
            for (int pass = 0; pass < 30; ++pass) {
                section.d = s.h - off - outer - (inBands ? 2.5 : 0.5) * diameter;
                // Of pulled piles the moment may be the other way round in both directions.
                const double Ma = inBands ? std::max(m.moment[0].value, m.moment[1].value) : M;
                const auto need = rules.flexure->required(section, top || bent(design) ? Ma : 0);
                // Links stand about bars of both faces: where nothing else asks for them, the least there
                // are.
                double least = plain ? 0
                                     : std::max(need.possible && !need.doubly ? need.As : 1e9,
                                                rules.steel->minimum(section));
                if (!top && trussed(design))
                    least = std::max(least, counts * m.tie[axis].value / in_.rules.tie(in_.fy));
                if (pass > 0 && mat.area() + 1e-9 >= least) {
                    if (!top) design.d[a] = section.d;
                    // Thinner bars where these are not anchored beyond the piles.
                    if (!top && base_.bar.empty()) {
                        mat.hooked = true;
                        if (anchorage(design, axis, m, nullptr).outcome == checks::Outcome::Over) {
                            const auto thinner = chosen(least, mat.bar->diameter - 0.1);
                            if (thinner.bar) {
                                area = least;
                                largest = mat.bar->diameter - 0.1, mat = thinner,
                                diameter = mat.bar->diameter;
                                continue;
                            }
                        }
                    }
                    if (plain || base_.spacing > 0 || !base_.bar.empty()) break;
                    const auto wide = cracksOf(in_, face(design, m, service, {axis, top}));
                    if (!wide || wide->outcome != checks::Outcome::Over) break;
                    area = std::max(area, 1.06 * mat.area());
                }
                area = std::max(area, least);
                mat = chosen(area, largest);
                if (!mat.bar || ((base_.spacing > 0 || !base_.bar.empty()) && pass > 2)) break;
                diameter = mat.bar->diameter;
            }
            if (!top) {
                design.d[a] = s.h - off - below - (mat.bar ? (inBands ? 2.5 : 0.5) * mat.bar->diameter : 10);
                mat.hooked = true;  // anchored beyond the piles
            }
            if (mat.bar && !s.outline.empty() && !mat.bands) {
                const auto places = matPlaces(in_, s.outline, mat, axis);
                mat.beyond = int(
                    std::count_if(places.begin(), places.end(), [](const MatPlace& p) { return p.beyond; }));
            }
        }
        below = design.bottom[a].bar ? design.bottom[a].bar->diameter : 16;
    }
    for (const Mat& one : sameBothWays(s, design.bottom, most)) {
        CapDesign same = design;
        same.bottom = {one, one};
        same.d[0] = s.h - toBars() - one.bar->diameter / 2, same.d[1] = same.d[0] - one.bar->diameter;
        const auto again = demand(same);
        Sink asks;
        for (int axis : {0, 1}) {
            checkFace(in_, face(same, again, service, {axis, false}), asks);
            if (trussed(same)) tieCheck(asks, same, again, axis);
            asks.add("anchorage", "", {axis, false}, checks::Topic::Anchorage,
                     anchorage(same, axis, again, nullptr));
        }
        if (asks.over()) continue;
        design = std::move(same);
        break;
    }
}

struct Cap::Worst {
    const standards::BaseRules& rules;
    Punched punched;
    double most = -1;
    standards::FootingPunching governs{};
    Worst(const standards::BaseRules& r, const char* none) : rules(r) {
        punched.found.stress = punched.found.face = checks::notApplicable("", none);
    }
    void add(const standards::FootingPunching& in, int combination) {
        auto found = rules.punching(in);
        if (const double ratio = ratioOf(found); ratio > most)
            most = ratio, governs = in, punched.found = std::move(found), punched.combination = combination;
    }
    Punched take(trace::Steps* t) {
        if (t && most >= 0) punched.found = rules.punching(governs, t);
        return std::move(punched);
    }
};

Cap::Punched Cap::atColumns(const CapDesign& design, trace::Steps* t) const {
    Worst worst(in_.rules, "No column in compression.");
    const auto& s = design.size;
    for (const auto& c : columns_)
        for (std::size_t i : worstLooking(c, s.h, design.d[0])) {
            const Forces f = forces(c, BaseState::Strength, i);
            if (!(f.N > 0)) continue;
            const Point at{c.place(0, s), c.place(1, s)};
            auto in = pushing(at, c.side(0), c.side(1), s, design.d, design.bottom);
            in.N = f.N, in.moment[0] = f.along(0, s.h), in.moment[1] = f.along(1, s.h);
            in.onPiles = true;
            const auto R = upward(design, i);
            for (std::size_t k = 0; k < R.size(); ++k)
                in.piles.push_back(
                    {{design.piles[k].x - at.x, design.piles[k].y - at.y}, R[k], in_.set.pile.diameter});
            worst.add(in, int(i));
        }
    return worst.take(t);
}

Cap::Punched Cap::atPiles(const CapDesign& design, trace::Steps* t) const {
    Worst worst(in_.rules, "No pile in compression.");
    const auto& s = design.size;
    const auto& pile = in_.set.pile;
    const double side = pile.circular ? pile.diameter * std::sqrt(std::numbers::pi) / 2 : pile.diameter;
    // Each pile under its largest force.
    const auto largest = largestReactions(design);
    for (std::size_t k = 0; k < largest.size(); ++k) {
        if (largest[k].combination < 0) continue;
        const Point q = design.piles[k];
        // A pile within the column's own perimeter does not punch.
        const bool under = std::any_of(columns_.begin(), columns_.end(), [&](const Column& c) {
            return std::abs(q.x - c.at.x + s.off.x) < c.side(0) / 2 + design.d[0] / 2 &&
                   std::abs(q.y - c.at.y + s.off.y) < c.side(1) / 2 + design.d[0] / 2;
        });
        if (under) continue;
        auto in = pushing(q, side, side, s, design.d, design.bottom);
        in.N = largest[k].value, in.onPiles = in.pile = true;
        // Perimeters end where a column stands: beyond its face its load is inside.
        in.farthest = 1e9;
        for (const auto& c : columns_)
            in.farthest = std::min(
                in.farthest,
                std::hypot(std::max(0.0, std::abs(q.x - c.at.x + s.off.x) - c.side(0) / 2 - side / 2),
                           std::max(0.0, std::abs(q.y - c.at.y + s.off.y) - c.side(1) / 2 - side / 2)));
        if (in.farthest < 1) continue;
        worst.add(in, largest[k].combination);
    }
    return worst.take(t);
}

// Struts from the quarters of the column's sides down to the piles. Below the column every strut has the part
// of the column's face that its share of the load takes, which presses with N/A; the node is as deep as the
// horizontal force asks for at the node's strength, so that the faces of the struts, between the two, are
// pressed no more. Above a pile the strut's face is as wide as the pile and twice the height of the bars give
// it.
Cap::Struts Cap::struts(const CapDesign& design, trace::Steps* t) const {
    Struts out;
    out.column = out.pile =
        checks::notApplicable(in_.rules.nodeClause(), "Struts are checked below a single column.");
    if (columns_.size() != 1 || design.piles.size() < 2) return out;
    const auto& s = design.size;
    const auto& c = columns_.front();
    const auto& pile = in_.set.pile;
    const double d = (design.d[0] + design.d[1]) / 2, x = c.place(0, s), y = c.place(1, s);
    double N = 0;
    Arm worst{0, d};
    int in = -1;
    for (std::size_t i = 0; i < of(BaseState::Strength).size(); ++i) {
        const double load = forces(c, BaseState::Strength, i).N;
        if (load > N) N = load, in = int(i), worst = arm(design, upward(design, i));
    }
    out.combination = in;
    if (in < 0) return out;
    {
        Finding f;
        f.kind = units::Kind::Stress, f.clause = in_.rules.nodeClause(), f.prefix = "σ";
        // The concrete around that confines the node: similar to the column's face, within the cap and its
        // depth.
        auto around = [&](int axis) {
            if (s.outline.empty()) return (s.side(axis) - 2 * std::abs(axis == 0 ? x : y)) / c.side(axis);
            return 2 * geometry::distanceToEdge(s.outline, {x, y}) / std::hypot(c.side(0), c.side(1));
        };
        const double ratio =
            std::max(1.0, std::min({around(0), around(1),
                                    1 + in_.rules.footSpread() * s.h / std::max(c.side(0), c.side(1)), 3.0}));
        f.demand = trace::step(t, "sigma_column", "N*1000/(c_x*c_y)",
                               {{"N", N / 1000, "kN"}, {"c_x", c.side(0), "mm"}, {"c_y", c.side(1), "mm"}},
                               N / (c.side(0) * c.side(1)), "MPa", f.clause,
                               "on the column's face; each strut has its share of it");
        f.limit = in_.rules.node(false, in_.fc, ratio * ratio, t);
        trace::step(t, "y_node", "", {}, worst.node, "mm", f.clause,
                    "depth of the node for the horizontal force at the unconfined strength");
        trace::step(t, "z", "d - y_node/2", {{"d", d, "mm"}, {"y_node", worst.node, "mm"}},
                    d - worst.node / 2, "mm", f.clause);
        if (!(worst.z > 0)) {
            // Deeper than the cap: as if it were pressed so much more.
            f.demand = std::max(f.demand, f.limit * worst.node / d);
            f.here.push_back("The node below the column would be deeper than the cap: increase the depth.");
        }
        f.notes.push_back(
            "Struts of caps start at the quarters of the column's sides; the node below the column is as "
            "deep as "
            "the horizontal force requires, with the column's area as its upper face.");
        out.column = checks::judged(f);
    }
    const double side = pile.circular ? pile.diameter * std::sqrt(std::numbers::pi) / 2 : pile.diameter,
                 low = std::max(0.0, 2 * (s.h - d - pile.embedment)), z = std::max(worst.z, d / 2);
    double R = 0, sine = 1, cosine = 0, most = -1;
    const auto largest = largestReactions(design);
    for (std::size_t k = 0; k < largest.size(); ++k) {
        const double way = std::hypot(run(design, k, 0), run(design, k, 1)), l = std::hypot(z, way),
                     si = z / l, co = way / l,
                     stress = largest[k].value / (si * side * (side * si + low * co));
        if (stress > most) most = stress, R = largest[k].value, sine = si, cosine = co;
    }
    Finding f;
    f.kind = units::Kind::Stress, f.clause = in_.rules.nodeClause(), f.prefix = "σ";
    f.demand =
        trace::step(t, "sigma_pile", "R*1000/(sin_theta*a*(a*sin_theta + u*cos_theta))",
                    {{"R", R / 1000, "kN"},
                     {"sin_theta", sine},
                     {"a", side, "mm"},
                     {"u", low, "mm"},
                     {"cos_theta", cosine}},
                    R / (sine * side * (side * sine + low * cosine)), "MPa", f.clause,
                    "on the face of the strut above the pile, a square as large as the pile; u is twice the "
                    "height of the bars above its head");
    f.limit = in_.rules.node(true, in_.fc, 1, t);
    out.pile = checks::judged(f);
    return out;
}

// From the centres of the outermost piles to the ends of the concrete, along the bars that pass over them.
double Cap::roomBeyondPiles(const CapDesign& design, int axis) const {
    const auto& s = design.size;
    const auto& piles = design.piles;
    double least = 1e300;
    if (design.bottom[0].bands) {
        // The outer bars of each band, both ways.
        const auto& m = design.bottom[0];
        const double off = (m.number - 1) / 2.0 * m.spacing;
        for (std::size_t k = 0; k < 3; ++k)
            for (std::size_t o : {(k + 1) % 3, (k + 2) % 3}) {
                const double l = geometry::length(piles[k], piles[o]);
                const Point way{(piles[k].x - piles[o].x) / l, (piles[k].y - piles[o].y) / l};
                for (double side : {-off, off})
                    least = std::min(
                        least, reach(s.outline, {piles[k].x - side * way.y, piles[k].y + side * way.x}, way));
            }
        return least;
    }
    double outer = 0;
    for (Point p : piles) outer = std::max(outer, std::abs(axis == 0 ? p.x : p.y));
    if (s.outline.empty()) return s.side(axis) / 2 - outer;
    for (Point p : piles)
        for (double sign : {-1.0, 1.0}) {
            const double u = sign * (axis == 0 ? p.x : p.y), v = axis == 0 ? p.y : p.x;
            const bool last = std::none_of(piles.begin(), piles.end(), [&](Point q) {
                return std::abs((axis == 0 ? q.y : q.x) - v) < 1 && sign * (axis == 0 ? q.x : q.y) > u + 1;
            });
            if (!last || u < 1) continue;
            const auto c = s.across(1 - axis, v);
            least = std::min(least, (sign > 0 ? c.to : -c.from) - u);
        }
    return least;
}

checks::Finding Cap::anchorage(const CapDesign& design, int axis, const Demand& m, trace::Steps* t) const {
    const auto a = std::size_t(axis);
    const auto& mat = design.bottom[a];
    const auto& s = design.size;
    const auto& rules = *in_.standard->anchorage;
    const Section section = across(design, axis);
    const double resists = in_.standard->flexure->resistance(section, mat.area(), 0).M;
    double used = 0;
    if (bent(design) && resists > 0) used = m.moment[axis].value / resists;
    const double ties = in_.rules.tie(in_.fy) * mat.area() / (mat.bands ? 1.5 : 1);
    if (trussed(design) && ties > 0) used = std::max(used, m.tie[axis].value / ties);
    standards::AnchorageInput bar;
    bar.diameter = mat.bar->diameter, bar.area = mat.bar->area, bar.fc = in_.fc, bar.fy = in_.fy;
    bar.spacing = mat.spacing, bar.cd = std::min(in_.cover, (mat.spacing - bar.diameter) / 2);
    bar.hooked = mat.hooked;
    bar.stress = rules.designYield(in_.fy) * std::clamp(resists > 0 ? used : 1.0, 0.0, 1.0);
    Finding f;
    f.kind = units::Kind::Length, f.clause = rules.clause(true), f.prefix = "lbd";
    f.demand = rules.length(bar, t);
    f.limit = roomBeyondPiles(design, axis) + in_.set.pile.diameter / 2 - in_.cover;
    // Where the length is measured along the bar (EN 1992-1-1), piles that stand nearer to the edge by the
    // tolerance shorten it (9.8.1(1)); ACI 318-19 measures to the hook and has no such rule.
    if (in_.rules.legsCount()) f.limit -= in_.set.pile.tolerance;
    if (mat.hooked && in_.rules.legsCount()) f.limit += std::max(0.0, s.h - toBars() - in_.cover);
    if (design.squared)
        f.here.push_back("The cap is rectangular: bars of one cut to its piles would not be sufficient.");
    f.notes.push_back("Bars of caps are anchored beyond the inner face of the outermost piles.");
    return checks::judged(f);
}

double Cap::oneWay(const CapDesign& design, const Demand& m, int axis, std::string* by,
                   trace::Steps* t) const {
    const auto& s = design.size;
    const auto a = std::size_t(axis);
    const auto& mat = design.bottom[a];
    const auto& rules = *in_.standard->shear;
    Section section = across(design, axis);
    // Half way to the nearest pile, where a cap cut to its piles is narrower.
    if (!s.outline.empty() && m.clear[axis] < 1e8) section.b = breadth(s, axis, m.clear[axis] / 2);
    auto take = [&](const trace::Steps& steps, double V, std::string clause) {
        if (t) t->insert(t->end(), steps.begin(), steps.end());
        if (by) *by = std::move(clause);
        return V;
    };
    trace::Steps without, steps;
    const double plain = in_.rules.oneWay(section, mat.area(), true, t ? &without : nullptr);
    auto grid = linkGrid(in_, s.B, s.L);
    if (!s.outline.empty())
        grid.number[1 - axis] =
            std::min(grid.number[1 - axis], int((section.b - 2 * in_.cover) / grid.apart[1 - axis]) + 1);
    if (!grid.bar || grid.apart[axis] > rules.linkSpacing(section, m.shear[axis].value) + 1e-6)
        return take(without, plain, in_.rules.oneWayClause(true));
    const double asw = grid.area(axis);
    trace::step(&steps, "a_sw", "n*A_link/s",
                {{"n", double(grid.number[1 - axis])},
                 {"A_link", grid.bar->area, "mm²"},
                 {"s", grid.apart[axis], "mm"}},
                asw, "mm²/mm", rules.linkClauses().resistance, "legs on the width");
    double V = rules.linked(section, mat.area(), asw, in_.fy, &steps).V;
    // Where the share of near loads counts, the links in the middle of the way to them carry it.
    if (rules.nearSupport(0, section.d) < 1 && m.clear[axis] < 2 * section.d) {
        const double fywd = in_.standard->anchorage->designYield(in_.fy);
        V = std::min(V, in_.rules.nearLinks(m.clear[axis], asw, fywd, &steps));
    }
    if (V <= plain) return take(without, plain, in_.rules.oneWayClause(true));
    return take(steps, V, rules.linkClauses().resistance);
}

// Whether the cap itself carries, with the bars chosen for it: the checks that are reported.
bool Cap::strong(CapDesign& design) const {
    chooseBars(design);
    Sink asks;
    bodyChecks(asks, design);
    return !asks.over();
}

CapDesign Cap::solve() const {
    CapDesign first = solvedFrom(1);
    if (first.possible() || base_.piles > 0 || !base_.pilesAt.empty() || first.piles.empty()) return first;
    // Where no depth does, more piles may.
    int tried = int(first.piles.size());
    for (int more = 0; more < 3; ++more) {
        const CapDesign next = solvedFrom(tried + 1);
        if (next.possible()) return next;
        if (int(next.piles.size()) <= tried) break;
        tried = int(next.piles.size());
    }
    return first;
}

CapDesign Cap::solvedFrom(int leastPiles) const {
    CapDesign cut = solvedFrom(leastPiles, true);
    if (cut.possible() || cut.size.outline.empty()) return cut;
    CapDesign rectangle = solvedFrom(leastPiles, false);
    if (!rectangle.possible() || rectangle.piles.size() > cut.piles.size()) return cut;
    rectangle.squared = true;
    return rectangle;
}
CapDesign Cap::solvedFrom(int leastPiles, bool mayCut) const {
    CapDesign out;
    if (columns_.empty()) {
        out.trouble = "The cap has no column.";
        return out;
    }
    const auto& set = in_.set;
    const double step = set.depthStep, spacing = set.pile.spacingFactor * set.pile.diameter;
    const double first =
        base_.h > 0 ? base_.h : units::roundUp(std::max(set.leastDepth, toBars() + 200), step);
    double h = first;
    auto chosen = [&](double depth) {
        CapDesign d;
        if (!base_.pilesAt.empty()) {
            d = laid(base_.pilesAt, depth, mayCut);
        } else if (base_.piles > 0) {
            d = laid(pileArrangement(base_.piles, spacing), depth, mayCut);
            if (d.piles.empty())
                d.trouble =
                    fmt::format("There is no arrangement of {} piles; give their places.", base_.piles);
            return d;
        } else {
            for (int n : pileNumbers()) {
                if (n < leastPiles) continue;
                d = laid(pileArrangement(n, spacing), depth, mayCut);
                if (held(d)) return d;
            }
        }
        if (!held(d))
            d.trouble = fmt::format("The largest standard pile group ({} piles) is not sufficient.",
                                    pileNumbers().back());
        return d;
    };
    for (std::size_t i = 0; i < base_.pilesAt.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            if (geometry::length(base_.pilesAt[i], base_.pilesAt[k]) < set.pile.diameter) {
                out = laid(base_.pilesAt, first, mayCut);
                out.trouble = fmt::format("Piles {} and {} overlap.", k + 1, i + 1);
                strong(out);
                return out;
            }
    for (int round = 0; round < 8; ++round) {
        out = chosen(h);
        if (!out.piles.empty() && (base_.piles > 0 || !base_.pilesAt.empty()) && out.trouble.empty() &&
            !held(out))
            out.trouble = "The fixed piles are not sufficient.";
        if (out.piles.empty()) return out;
        const std::string trouble = out.trouble;
        const bool does = strong(out);
        out.trouble = trouble;
        if (does || base_.h > 0) break;
        double low = h, high = h;
        do {
            low = high, high += std::max(step, units::roundUp(0.25 * high, step));
            out.size.h = high;
        } while (high < largestDepth && !strong(out));
        if (high >= largestDepth) {
            out.size.h = std::max(first, units::roundUp(0.4 * std::max(out.size.B, out.size.L), step));
            strong(out);
            std::string what;
            double most = 1;
            for (const auto& c : checks(out, {}, false))
                if (checks::isJudged(c) && checks::ratio(c) > most) most = checks::ratio(c), what = c.title;
            out.trouble = "No depth is sufficient" + (what.empty() ? std::string(".") : ": " + what + ".");
            return out;
        }
        while (high - low > step * 1.5) {
            const double m = units::roundUp((low + high) / 2 - 1e-6, step);
            out.size.h = m;
            (strong(out) ? high : low) = m;
        }
        h = high;
    }
    // One step less deep has to fail.
    while (base_.h == 0 && out.size.h - step >= first - 1e-9) {
        CapDesign less = out;
        less.size.h -= step;
        const bool pinned = base_.piles > 0 || !base_.pilesAt.empty();
        if (!strong(less) || (!pinned && !held(less))) break;
        out = std::move(less);
    }
    if (!strong(out) && base_.h > 0 && out.trouble.empty())
        out.trouble = fmt::format("The fixed depth of {} is not sufficient.", units::plain(base_.h));
    return out;
}

}  // namespace talvik::bases

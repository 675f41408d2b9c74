#include "bases/pad.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "ground/rigid_base.h"

namespace talvik::bases {
namespace {

using geometry::Point;
using standards::Section;

constexpr double largestPlan = 30000;  // mm: beyond that there is no base

}  // namespace

double GroundAnswer::worst() const {
    return std::max({pressure.value, sliding.value, overturning.value, uplift.value, settlement.value,
                     onSite ? 0 : noAnswer});
}

Pad::Pad(const Context& in, const model::Base& base, std::vector<StrapEnd> ends)
    : Standing(in, base, std::move(ends)) {
    if (columns_.empty()) return;
    if (const auto* far = base.strap.any() && columns_.size() == 1 ? in.column(base.strap.to) : nullptr) {
        const auto line = strapLine(*columns_.front().column, *far);
        strapTrouble_ = line.trouble;
        if (strapTrouble_.empty()) strap_ = line;
        strapWidth_ = base.strap.width > 0
                          ? base.strap.width
                          : units::roundUp(std::max(300.0, columns_.front().side(1 - line.axis)), 50);
    }
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (const auto& c : columns_) {
        x0 = std::min(x0, c.at.x), x1 = std::max(x1, c.at.x), y0 = std::min(y0, c.at.y),
        y1 = std::max(y1, c.at.y);
    }
    spanX_ = x1 - x0, spanY_ = y1 - y0;
    ratio_ = base.ratio;
    if (base.offPinned) wish_ = {base.offX, base.offY};
    if (base.offPinned || columns_.size() < 2) return;
    // In the middle of where the resultants of all service combinations fall.
    Point low{1e300, 1e300}, high{-1e300, -1e300};
    for (const auto& sum : sums(BaseState::Service)) {
        if (!(sum.N > 0)) continue;
        const Point e{sum.alongX / sum.N, sum.alongY / sum.N};
        low = {std::min(low.x, e.x), std::min(low.y, e.y)},
        high = {std::max(high.x, e.x), std::max(high.y, e.y)};
    }
    if (low.x < 1e299)
        wish_ = {25 * std::round((low.x + high.x) / 50), 25 * std::round((low.y + high.y) / 50)};
}

double Pad::leastSide(int axis, double off) const {
    double least = 0;
    for (const auto& c : columns_)
        least = std::max(least, 2 * (std::abs((axis == 0 ? c.at.x : c.at.y) - off) + c.side(axis) / 2));
    return least;
}
double Pad::topDepth(const PadDesign& design, int axis) const {
    const auto& top = design.top;
    return design.size.h - in_.cover - (axis == 1 && top[0].bar ? top[0].bar->diameter : 0) -
           (top[std::size_t(axis)].bar ? top[std::size_t(axis)].bar->diameter : 16) / 2;
}
Face Pad::face(const PadDesign& design, const Top& shape, const Demand& m, const Demand& service,
               Way way) const {
    const auto& mats = way.top ? design.top : design.bottom;
    const auto& mat = mats[std::size_t(way.axis)];
    const double outer = way.axis == 1 && mats[0].bar ? mats[0].bar->diameter : 0;
    Face f{way,
           mat,
           across(design, shape, way.axis, 0),
           {},
           (way.top ? m.top : m.moment)[way.axis],
           (way.top ? service.top : service.moment)[way.axis],
           crackState()};
    f.cover = in_.cover + outer;
    f.section.d = design.size.h - f.cover - (mat.bar ? mat.bar->diameter : 16) / 2;
    f.gross = f.section;
    f.gross.b = meanWidth(shape, design.size, way.axis);
    f.pinned = pinnedBars();
    f.notes[0] = "Moments of bases are those at the faces of columns, on the full width.";
    if (columns_.size() > 1)
        f.notes[1] =
            "Across a line of columns each column's load is taken by a strip as wide as the column plus d on "
            "either side; the whole base has the reinforcement of the worst strip.";
    f.plain =
        shape.level()
            ? "No top reinforcement: hogging moment carried by the plain concrete section."
            : "A sloped or stepped top has no bars: hogging moment carried by the plain concrete section.";
    f.none = "No allowed bars are sufficient; the base is too shallow.";
    return f;
}

Pad::Demand Pad::demand(const PadSize& s, BaseState state, const std::array<double, 2>& d) const {
    Demand out;
    const double side[2] = {s.B, s.L};
    const Top top = this->top(s);
    for (int axis : {0, 1})
        for (double from : top.places(axis)) {
            // Shear beyond a step as beyond a column: at the depth there from it.
            const double away = top.stepped() ? d[std::size_t(axis)] - (s.h - top.edge()) : 0;
            out.lower[axis].push_back({from, from + away, {}, {}});
        }
    const auto& sums = this->sums(state);
    for (std::size_t i = 0; i < sums.size(); ++i) {
        const auto& k = of(state)[i];
        // Upwards the soil's pressure where there is any and the water's everywhere.
        const double wk = downward(s, k);
        const auto p = soilPressure(sums[i], s, k);
        if (!p.good()) {
            if (out.outsideIn < 0 || p.outside > out.outside) out.outside = p.outside, out.outsideIn = int(i);
            continue;
        }
        std::vector<Forces> forces;
        for (const auto& c : columns_) forces.push_back(this->forces(c, k));
        if (strap_) forces.front().N += strapAdds(sums[i], s);
        for (int axis : {0, 1}) {
            if (strap_ && axis == strap_->axis) {
                out.atFace[axis] = side[axis] / 2, out.side[axis] = columns_.front().side(axis);
                continue;
            }
            const double half = side[axis] / 2, width = side[1 - axis];
            auto sideOf = [&](const Column& c) { return strap_ ? strapWidth_ : c.side(axis); };
            // Net of the weights, and of columns beyond, on the side where the base ends sooner.
            auto at = [&](double x) {
                const bool positive = x >= 0;
                const double sign = positive ? 1 : -1, reach = std::max(0.0, half - std::abs(x));
                auto b = ground::beyond(p, axis, x, positive);
                b.force -= wk * width * reach, b.moment -= wk * width * reach * reach / 2;
                for (std::size_t c = 0; c < columns_.size(); ++c) {
                    const double arm = sign * (columns_[c].place(axis, s) - x);
                    if (arm <= 0) continue;
                    const Forces& f = forces[c];
                    b.force -= f.N;
                    b.moment -= f.N * arm + sign * f.along(axis, strapDepth(s));
                }
                return b;
            };
            auto bend = [&](double x, const Column* c) {
                if (std::abs(x) >= half) return;
                const double m = at(x).moment;
                if (m > out.moment[axis].value) {
                    out.moment[axis] = {m, int(i)};
                    if (c) {
                        const double edge = std::min(s.h / 2, half - std::abs(x));
                        const double from = (x >= 0 ? 1 : -1) * (half - edge);
                        const auto b = ground::beyond(p, axis, from, x >= 0);
                        out.edge[axis] = edge > 0 ? std::max(0.0, b.force / (edge * width) - wk) : 0;
                        out.atFace[axis] = half - std::abs(x), out.side[axis] = sideOf(*c);
                    }
                }
                out.top[axis].larger(-m, int(i));
            };
            for (const auto& c : columns_)
                for (double sign : {1.0, -1.0}) {
                    const double face = c.place(axis, s) + sign * sideOf(c) / 2,
                                 cut = face + sign * d[std::size_t(axis)];
                    bend(face, &c);
                    if (std::abs(cut) < half) out.shear[axis].larger(std::abs(at(cut).force), int(i));
                    for (auto& low : out.lower[axis]) {
                        const double x = face + sign * low.from, v = face + sign * low.cut;
                        if (std::abs(x) < half) low.moment.larger(at(x).moment, int(i));
                        if (std::abs(v) < half) low.shear.larger(std::abs(at(v).force), int(i));
                    }
                }
            if (columns_.size() > 1)
                for (int n = 1; n < 24; ++n) {
                    const double x = -half + n * side[axis] / 24;
                    if (std::none_of(columns_.begin(), columns_.end(), [&](const Column& c) {
                            return std::abs(x - c.place(axis, s)) < c.side(axis) / 2;
                        }))
                        bend(x, nullptr);
                }
            acrossColumns(s, forces, axis, int(i), out);
        }
    }
    return out;
}

// Reading: the load of a column spreads over the breadth of the base within a strip as wide as the column and
// a depth on either side, cut off half-way to its neighbours and at the edges; the pressure across it is the
// plane that balances the column's force and moment. All of the base gets the steel that the worst strip asks
// for.
void Pad::acrossColumns(const PadSize& s, const std::vector<Forces>& forces, int axis, int i,
                        Demand& into) const {
    if (columns_.size() < 2) return;
    const int line = 1 - axis;
    const double side = s.side(axis), d = std::max(50.0, s.h - in_.cover - 20);
    for (std::size_t k = 0; k < columns_.size(); ++k) {
        const Column& c = columns_[k];
        const double at = c.place(line, s), half = s.side(line) / 2;
        double low = std::max(-half, at - c.side(line) / 2 - d),
               high = std::min(half, at + c.side(line) / 2 + d);
        bool alone = true;
        for (const auto& other : columns_) {
            const double there = other.place(line, s);
            if (&other == &c) continue;
            // Columns side by side along this axis share their strip: the beam as a whole is looked at.
            if (std::abs(there - at) < (c.side(line) + other.side(line)) / 2) alone = false;
            if (there > at) high = std::min(high, (at + there) / 2);
            if (there < at) low = std::max(low, (at + there) / 2);
        }
        if (!alone || !(forces[k].N > 0) || high - low < 1) continue;
        const double e = c.place(axis, s), M = std::abs(forces[k].along(axis, s.h) + forces[k].N * e);
        for (double sign : {1.0, -1.0}) {
            const double over = side / 2 - sign * e - c.side(axis) / 2;
            if (over <= 0) continue;
            const double q = forces[k].N / side + 6 * M / (side * side),
                         m = q * over * over / 2 / (high - low) * s.side(line);
            if (m <= into.moment[axis].value) continue;
            into.moment[axis] = {m, i};
            into.atFace[axis] = over, into.side[axis] = c.side(axis);
            into.edge[axis] = std::max(into.edge[axis], q / (high - low));
        }
    }
}

// Bars for the moments of a size: the least that carry them, keep the least steel, the spacing, and the crack
// rule.
void Pad::chooseBars(PadDesign& design, const Demand& service) const {
    const auto& s = design.size;
    const auto& rules = *in_.standard;
    const double side[2] = {s.B, s.L};
    const auto m = demand(s, BaseState::Strength, {1e9, 1e9});
    const double most = rules.steel->spacing(standards::SteelRules::Role::TwoWay, true, s.h);
    const bool pinned = pinnedBars();
    const Top shape = this->top(s);
    design.bottom = {}, design.top = {};
    for (int axis : {0, 1}) {
        const double b = side[1 - axis], up = shape.breadth(axis, 0);
        for (bool top : {false, true}) {
            auto& mats = top ? design.top : design.bottom;
            Mat& mat = mats[std::size_t(axis)];
            const double M = top ? m.top[axis].value : m.moment[axis].value;
            const double below = axis == 0 ? 0 : mats[0].bar ? mats[0].bar->diameter : top ? 0 : 16;
            // Concrete without bars carries the little that hogs, as the standard says; tops that are not
            // level have no bars.
            if (top && (!shape.level() || M <= rules.flexure->plain({up, s.h, s.h - in_.cover - below - 10,
                                                                     in_.cover + 10, in_.fc, in_.fy})))
                continue;
            // What the bars chosen ask for with their own depth; more, as long as they crack too wide.
            double area = 0, diameter = 16, largest = 1e9;
            for (int pass = 0; pass < 30; ++pass) {
                Section section{b,      s.h,   s.h - in_.cover - below - diameter / 2, in_.cover + 10,
                                in_.fc, in_.fy};
                if (section.d < 50) break;
                // What is compressed is as wide as the base is there.
                auto required = [&](double from, double moment) {
                    Section there = section;
                    there.b = shape.breadth(axis, from), there.h = shape.height(axis, from);
                    there.d = section.d - (s.h - there.h);
                    if (there.d < 50) return 1e9;
                    const auto need = rules.flexure->required(there, moment);
                    return need.possible && !need.doubly ? need.As : 1e9;
                };
                double needs = required(0, M);
                if (!top)
                    for (const auto& low : m.lower[axis])
                        needs = std::max(needs, required(low.from, low.moment.value));
                Section gross = section;
                gross.b = meanWidth(shape, s, axis);
                const double least = std::max(needs < 1e9 ? needs * (top ? 1 : evenly(s, axis)) : 1e9,
                                              rules.steel->minimum(gross));
                if (pass > 0 && mat.area() + 1e-9 >= least) {
                    if (pinned) break;
                    const auto wide = cracksOf(in_, face(design, shape, m, service, {axis, top}));
                    if (wide && wide->outcome == checks::Outcome::Over) {
                        area = std::max(area, 1.06 * mat.area());
                    } else {
                        if (top) break;
                        // Thinner bars where these are not anchored even bent.
                        design.d[std::size_t(axis)] = section.d;
                        if (in_.rules.anchorage(anchored(design, m, axis, true)).outcome !=
                            checks::Outcome::Over)
                            break;
                        if (!bases::mat(in_, base_, b, least, most, mat.bar->diameter - 0.1).bar) break;
                        area = least, largest = mat.bar->diameter - 0.1;
                    }
                }
                area = std::max(area, least);
                mat = bases::mat(in_, base_, b, area, most, largest);
                if (!mat.bar || (pinned && pass > 2)) break;
                diameter = mat.bar->diameter;
            }
            if (top) continue;
            design.d[std::size_t(axis)] = s.h - in_.cover - below - (mat.bar ? mat.bar->diameter / 2 : 10);
            // Bent up where straight bars are not anchored.
            if (mat.bar)
                mat.hooked =
                    in_.rules.anchorage(anchored(design, m, axis, false)).outcome == checks::Outcome::Over;
        }
    }
    for (const Mat& one : sameBothWays(s, design.bottom, most)) {
        PadDesign same = design;
        same.bottom = {one, one};
        same.d[0] = s.h - in_.cover - one.bar->diameter / 2, same.d[1] = same.d[0] - one.bar->diameter;
        Sink asks;
        bool held = true;
        for (int axis : {0, 1}) {
            checkFace(in_, face(same, shape, m, service, {axis, false}), asks);
            held &= in_.rules.anchorage(anchored(same, m, axis, one.hooked)).outcome != checks::Outcome::Over;
        }
        if (!held || asks.over()) continue;
        design = std::move(same);
        break;
    }
}

double Pad::evenly(const PadSize& s, int axis, trace::Steps* t) const {
    const double ratio = s.side(1 - axis) / s.side(axis);
    return columns_.size() == 1 && ratio > 1 + 1e-9 ? in_.rules.evenSpread(ratio, t) : 1;
}

standards::FootingAnchorage Pad::anchored(const PadDesign& design, const Demand& m, int axis,
                                          bool hooked) const {
    const auto a = std::size_t(axis);
    const Mat& mat = design.bottom[a];
    const double b = design.size.side(1 - axis);
    const double lower = design.size.h - top(design.size).edge();
    return {m.atFace[axis],
            design.size.h - lower,
            design.d[a] - lower,
            m.side[axis],
            in_.cover,
            m.edge[axis],
            m.moment[axis].value / b,
            mat.area() / b,
            mat.bar->diameter,
            mat.bar->area,
            mat.spacing,
            in_.fc,
            in_.fy,
            hooked};
}

standards::FootingPunching Pad::punchingOf(const PadDesign& design, std::size_t column, std::size_t i) const {
    const auto& s = design.size;
    const Column& c = columns_[column];
    const Forces f = forces(c, BaseState::Strength, i);
    const auto& k = of(BaseState::Strength)[i];
    const double wk = downward(s, k);
    const Point at{c.place(0, s), c.place(1, s)};
    auto in = pushing(at, c.side(0), c.side(1), s, design.d, design.bottom);
    in.N = f.N, in.moment[0] = f.along(0, s.h), in.moment[1] = f.along(1, s.h);
    if (const Top top = this->top(s); !top.level()) {
        in.shoulder = std::min(top.shoulder(0), top.shoulder(1)), in.step = top.stepped();
        in.low = in.d - (s.h - top.edge());
        in.run = std::min(top.run(0) > 1 ? top.run(0) : 1e9, top.run(1) > 1 ? top.run(1) : 1e9);
    }
    const auto p = soilPressure(sums(BaseState::Strength)[i], s, k);
    if (p.good()) {
        in.pressure = std::max(0.0, p.at(at) - wk);
        if (p.share > 1 - 1e-9) in.gradient[0] = p.b, in.gradient[1] = p.c;
    }
    return in;
}

Pad::Punched Pad::punched(const PadDesign& design, trace::Steps* t) const {
    Punched worst;
    if (!(design.d[0] > 50) || !(design.d[1] > 50) || strap_) return worst;
    const Top top = this->top(design.size);
    const double d = (design.d[0] + design.d[1]) / 2;
    double most = -1;
    for (std::size_t c = 0; c < columns_.size(); ++c)
        for (std::size_t i : worstLooking(columns_[c], design.size.h, d)) {
            Punched p;
            p.column = c, p.combination = int(i), p.in = punchingOf(design, c, i);
            if (!(p.in.N > 0) || (!top.level() && p.in.low < 50)) continue;
            p.found = in_.rules.punching(p.in);
            if (const double ratio = ratioOf(p.found); ratio > most) most = ratio, worst = p;
            if (top.level() || !top.stepped()) continue;
            // The upper part, as if it were a column on the lower one.
            const auto& u = top.upper();
            const Point middle{(u[0] + u[1]) / 2, (u[2] + u[3]) / 2};
            const double lower = design.size.h - top.edge();
            auto block = pushing(middle, u[1] - u[0], u[3] - u[2], design.size,
                                 {design.d[0] - lower, design.d[1] - lower}, design.bottom);
            block.N = p.in.N, block.pressure = p.in.pressure;
            for (int axis : {0, 1}) {
                const double off = columns_[c].place(axis, design.size) - (axis == 0 ? middle.x : middle.y);
                block.moment[axis] = p.in.moment[axis] + p.in.N * off;
                block.gradient[axis] = p.in.gradient[axis];
            }
            p.in = block;
            p.found = in_.rules.punching(p.in);
            if (const double ratio = ratioOf(p.found); ratio > most) most = ratio, worst = p;
        }
    if (worst.combination >= 0 && t) worst.found = in_.rules.punching(worst.in, t);
    return worst;
}

// Whether the base itself carries, with the bars chosen for it: the checks that are reported.
bool Pad::strong(PadDesign& design) const {
    const auto service = serviceDemand(design.size);
    chooseBars(design, service);
    Sink asks;
    bodyChecks(asks, design, service);
    return !asks.over();
}

PadSize Pad::sized(double grown, double h) const {
    const double step = in_.set.planStep;
    PadSize s;
    s.h = h;
    if (strap_) s.strap = base_.strap.depth > 0 ? base_.strap.depth : strapDepth_;
    s.off = wish_;
    const double leastX = leastSide(0, s.off.x), leastY = leastSide(1, s.off.y);
    s.B = base_.B > 0 ? base_.B : units::roundUp(std::max(spanX_ + grown + longer_, leastX) - 1e-6, step);
    s.L = base_.L > 0 ? base_.L : units::roundUp(std::max(spanY_ + grown - longer_, leastY) - 1e-6, step);
    if (const double r = ratio_; r > 0) {
        if (!(base_.L > 0))
            s.L = units::roundUp(std::max(s.B * r, leastY) - 1e-6, step);
        else if (!(base_.B > 0))
            s.B = units::roundUp(std::max(s.L / r, leastX) - 1e-6, step);
    }
    placed(s);
    return s;
}
PadSize Pad::sited(PadSize s) const {
    placed(s);
    return s;
}

// The least growth beyond the columns, by steps, for which the ground is within; negative without.
double Pad::leastPlan(double h, double from) const {
    auto enough = [&](double g) { return ground(sized(g, h)).worst() <= 1 + 1e-9; };
    if (base_.B > 0 && base_.L > 0) return enough(0) ? 0 : -1;
    const double step = in_.set.planStep;
    double low = 0, high = std::max(step, units::roundUp(from, step));
    while (!enough(high)) {
        low = high, high *= 1.5;
        high = units::roundUp(high, step);
        if (high > largestPlan) return -1;
    }
    while (high - low > step * 1.5) {
        const double m = units::roundUp((low + high) / 2 - 1e-6, step);
        (enough(m) ? high : low) = m;
    }
    return high;
}

PadDesign Pad::ofSize(const PadSize& size) const {
    PadDesign d;
    d.size = size;
    strong(d);
    chooseStrap(d);
    return d;
}

// The strap is as deep as it has to be: it decides how far above the underside horizontal forces act.
PadDesign Pad::solve() const {
    if (!strap_) {
        PadDesign out = unstrapped();
        if (out.possible()) out.trouble = strapTrouble_;
        return out;
    }
    Pad own = *this;
    const double step = in_.set.depthStep, most = std::max(2000.0, strap_->length / 2);
    for (own.strapDepth_ = units::roundUp(strap_->length / 8, step);; own.strapDepth_ += step) {
        PadDesign out = own.solved();
        own.chooseStrap(out);
        if (!out.possible() || own.strapBeam(out.size).carries(out.strap)) return out;
        if (base_.strap.depth > 0 || own.strapDepth_ > most) {
            out.trouble = base_.strap.depth > 0
                              ? fmt::format("The fixed strap depth of {} is not sufficient.",
                                            units::plain(base_.strap.depth))
                              : "No strap depth is sufficient; make the strap wider.";
            return out;
        }
    }
}

// Of several columns also with its centre in their middle, of a base that the site pushes aside also long
// ones along it: whichever has the least concrete. Of a column much longer than wide also with the same
// overhang all round, where that costs less.
PadDesign Pad::unstrapped() const {
    PadDesign best = solved();
    auto attempt = [&](const Pad& other) {
        PadDesign next = other.solved();
        if (next.possible() &&
            (!best.possible() || other.top(next.size).volume() < 0.999 * top(best.size).volume()))
            best = std::move(next);
    };
    if (std::hypot(wish_.x, wish_.y) > 1 && !base_.offPinned) {
        Pad other = *this;
        other.wish_ = {0, 0};
        attempt(other);
    }
    const bool aside =
        best.size.onSite && std::hypot(best.size.off.x - wish_.x, best.size.off.y - wish_.y) > 1;
    const bool free = columns_.size() == 1 && !(base_.ratio > 0) && !(base_.B > 0) && !(base_.L > 0);
    if (free && in_.set.site.size() > 2 && (aside || !best.possible()))
        for (double r : {1.5, 2.0, 2.5, 3.0, 4.0})
            for (double ratio : {r, 1 / r}) {
                Pad other = *this;
                other.ratio_ = ratio;
                attempt(other);
            }
    if (free && best.possible()) {
        const double x = columns_[0].side(0), y = columns_[0].side(1);
        if (std::max(x, y) > 1.5 * std::min(x, y)) {
            Pad other = *this;
            other.longer_ = (x - y) / 2;
            if (PadDesign next = other.solved();
                next.possible() &&
                price(other.amounts(next), other.items(next)) < price(amounts(best), items(best)))
                best = std::move(next);
        }
    }
    return best;
}

bool Pad::deepened(PadDesign& out, double grown, double first) const {
    const double step = in_.set.depthStep;
    out.size = sized(grown, first);
    if (strong(out)) return true;
    // Deeper: by steps that grow, then back.
    double low = first, high = first;
    do {
        low = high, high += std::max(step, units::roundUp(0.25 * high, step));
        out.size.h = high;
    } while (high < largestDepth && !strong(out));
    if (high >= largestDepth) return false;
    while (high - low > step * 1.5) {
        const double m = units::roundUp((low + high) / 2 - 1e-6, step);
        out.size.h = m;
        (strong(out) ? high : low) = m;
    }
    out.size.h = high;
    return true;
}

PadDesign Pad::solved() const {
    PadDesign out;
    if (columns_.empty()) {
        out.trouble = "The base has no column.";
        return out;
    }
    const double step = in_.set.depthStep;
    const double first = base_.h > 0 ? base_.h : units::roundUp(in_.set.leastDepth, step);
    double h = first, grown = 0;
    double service = 0;
    for (const auto& s : sums(BaseState::Service)) service = std::max(service, s.N);
    const double guess = std::sqrt(std::max(service, 1e4) / std::max(in_.set.ground.allowable, 0.05));
    double widened = 0;  // where the base itself asked for a larger plan
    for (int round = 0; round < 8; ++round) {
        grown = leastPlan(h, round == 0 ? guess : grown);
        if (grown >= 0) grown = std::max(grown, widened);
        if (grown < 0) {
            // As large as it may be, to say what fails.
            out = ofSize(sized(std::min(largestPlan, 4 * guess + 4000), h));
            const auto g = ground(out.size);
            out.trouble = !g.onSite ? "The outline of the site has no room for an adequate base."
                          : g.outsideIn >= 0 && g.outside > 0
                              ? fmt::format("The resultant falls {:.0f} mm outside the base.", g.outside)
                          : g.uplift.value > 1     ? "Net uplift: the base cannot be made heavy enough."
                          : g.settlement.value > 1 ? "No base is large enough for the allowable settlement."
                          : g.sliding.value > 1    ? "No base is heavy enough against sliding."
                                                   : "No base is large enough for the bearing resistance.";
            if (base_.B > 0 || base_.L > 0) {
                out.size = sized(guess, h);
                out = ofSize(out.size);
                out.trouble =
                    fmt::format("The fixed size {} is not sufficient.", base_.B > 0 && base_.L > 0 ? "in plan"
                                                                        : base_.B > 0              ? "along x"
                                                                                      : "along y");
            }
            return out;
        }
        if (base_.h > 0) break;
        const double before = h;
        bool carries = deepened(out, grown, h);
        // Where no depth does, a larger plan may.
        for (double g = grown; !carries && !(base_.B > 0 && base_.L > 0) && g < 1.8 * grown + 500;) {
            g += std::max(in_.set.planStep, units::roundUp(0.04 * grown, in_.set.planStep));
            PadDesign wider;
            if ((carries = deepened(wider, g, h))) out = wider, grown = widened = g;
        }
        if (!carries) {
            out.size =
                sized(grown, std::max(first, units::roundUp(0.25 * std::max(out.size.B, out.size.L), step)));
            strong(out);
            out.trouble = "No depth is sufficient with the bars allowed.";
            return out;
        }
        h = out.size.h;
        if (h == before) break;
    }
    out.size = sized(grown, h);
    // Down again: one step less of either has to fail.
    for (int round = 0; round < 80; ++round) {
        if (base_.h == 0 && out.size.h - step >= first - 1e-9) {
            PadDesign less = out;
            less.size.h -= step;
            if (ground(less.size).worst() <= 1 + 1e-9 && strong(less)) {
                out.size = less.size, h = less.size.h;
                continue;
            }
        }
        if (!(base_.B > 0 && base_.L > 0) && grown > in_.set.planStep) {
            PadDesign less;
            less.size = sized(grown - in_.set.planStep, h);
            if ((less.size.B < out.size.B || less.size.L < out.size.L) &&
                ground(less.size).worst() <= 1 + 1e-9 && (base_.h > 0 || strong(less))) {
                grown -= in_.set.planStep, out.size = less.size;
                continue;
            }
        }
        break;
    }
    if (!strong(out) && base_.h > 0)
        out.trouble = fmt::format("The fixed depth of {} is not sufficient.", units::plain(base_.h));
    return out;
}

double Pad::ratio(const PadDesign& design) const {
    double most = 0;
    for (const auto& c : checks(design, {}, false))
        most = std::max(most, checks::isJudged(c) ? checks::ratio(c) : 0);
    return most;
}

}  // namespace talvik::bases

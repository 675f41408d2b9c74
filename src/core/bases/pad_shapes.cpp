// What a pad has besides a level top and columns of its own: a strap, a top that falls to the edges.
#include <algorithm>
#include <cmath>

#include "bases/pad.h"

namespace talvik::bases {

using checks::Finding;
using standards::Section;

Top Pad::top(const PadSize& s) const {
    if (columns_.size() != 1 || strap_) return Top(s, {0, 0}, {0, 0}, {});
    const auto& c = columns_.front();
    return Top(s, {c.place(0, s), c.place(1, s)}, c.sides, base_.top);
}

Section Pad::across(const PadDesign& design, const Top& top, int axis, double from) const {
    const auto a = std::size_t(axis);
    const double h = top.height(axis, from), lower = design.size.h - h;
    const auto* bar = design.bottom[a].bar;
    return {top.breadth(axis, from),
            h,
            design.d[a] - lower,
            in_.cover + (bar ? bar->diameter / 2 : 10),
            in_.fc,
            in_.fy};
}
double Pad::meanWidth(const Top& top, const PadSize& s, int axis) {
    const double whole = s.side(1 - axis), upper = top.breadth(axis, 0);
    if (top.level()) return whole;
    return (whole * top.edge() + (s.h - top.edge()) * (top.stepped() ? upper : (upper + whole) / 2)) / s.h;
}
Section Pad::sheared(const PadDesign& design, const Top& top, int axis, double from) const {
    Section s = across(design, top, axis, from);
    if (top.level()) return s;
    // Above the bars: the width of the base up to its edges' depth, from there narrowing to what is level.
    const double whole = design.size.side(1 - axis), edge = s.d - (s.h - top.edge());
    const double area = whole * edge + (s.d - edge) * (top.stepped() ? s.b : (s.b + whole) / 2);
    s.b = area / s.d;
    return s;
}
std::optional<Pad::Lowest> Pad::lowest(const PadDesign& design, const Top& top, const Demand& demand,
                                       int axis, bool shear) const {
    std::optional<Lowest> worst;
    const auto& all = demand.lower[axis];
    const auto& mat = design.bottom[std::size_t(axis)];
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto& asked = shear ? all[i].shear : all[i].moment;
        if (asked.combination < 0) continue;
        const Section s =
            shear ? sheared(design, top, axis, all[i].cut) : across(design, top, axis, all[i].from);
        // Nearer than that to a column loads go straight into it.
        if (shear && !top.stepped() && s.d > all[i].cut) continue;
        const double R = s.d < 50 ? 0
                         : shear  ? in_.rules.oneWay(s, mat.area(), false)
                                  : in_.standard->flexure->resistance(s, mat.area(), 0).M;
        const double ratio = R > 0 ? asked.value / R : 99;
        if (!worst || ratio > worst->ratio) worst = Lowest{i, ratio};
    }
    return worst;
}

StrapLoad Pad::strapOn(const Sum& sum, const PadSize& s) const {
    const auto& c = columns_.front();
    const int axis = strap_->axis;
    const double H = axis == 0 ? sum.Hx : sum.Hy, m = axis == 0 ? sum.alongX : sum.alongY;
    return {sum.N,
            strap_->way * (m + H * strapDepth(s)),
            -strap_->way * c.place(axis, s),
            s.side(axis),
            strap_->length,
            in_.density * strapWidth_ * strapDepth(s) * sum.weight};
}
double Pad::strapAdds(const Sum& sum, const PadSize& s) const {
    return strap_ ? strapOn(sum, s).presses() - sum.N : 0;
}
ground::Resultant Pad::resultant(const Sum& sum, const PadSize& s, double weight) const {
    if (!strap_) return Standing::resultant(sum, s, weight);
    PadSize tall = s;
    tall.h = strapDepth(s);
    auto r = Standing::resultant(sum, tall, weight);
    r.N += strapAdds(sum, s);
    // The strap's line passes through the column: off the centre across it by as much.
    const double off = columns_.front().place(1 - strap_->axis, s) * strapAdds(sum, s);
    (strap_->axis == 0 ? r.alongX : r.alongY) = 0;
    (strap_->axis == 0 ? r.alongY : r.alongX) += off;
    return r;
}
std::optional<StrapEnd> Pad::strapEnd(const PadSize& s) const {
    if (!strap_) return {};
    const auto& c = columns_.front();
    // A pad that reaches so far has no answer, and says so.
    if (-strap_->way * c.place(strap_->axis, s) > 0.8 * strap_->length) return {};
    return StrapEnd{base_.strap.to,
                    c.actions,
                    *strap_,
                    -strap_->way * c.place(strap_->axis, s),
                    s.side(strap_->axis),
                    strapDepth(s),
                    in_.density * strapWidth_ * strapDepth(s)};
}
StrapBeam Pad::strapBeam(const PadSize& s) const {
    auto loads = [&](BaseState state) {
        StrapBeam::Loads all{state};
        for (const auto& sum : sums(state)) all.all.push_back(strapOn(sum, s));
        return all;
    };
    const bool sustained = in_.standard->cracks->state() == actions::LimitState::QuasiPermanent;
    return StrapBeam(in_, *strap_, columns_.front().side(strap_->axis), loads(BaseState::Strength),
                     loads(sustained ? BaseState::Sustained : BaseState::Service));
}
void Pad::chooseStrap(PadDesign& design) const {
    if (!strap_) return;
    double under = in_.cover;
    for (const auto& m : design.bottom) under += m.bar ? m.bar->diameter : 16;
    design.strap = strapBeam(design.size).choose(strapWidth_, strapDepth(design.size), under);
}
}  // namespace talvik::bases

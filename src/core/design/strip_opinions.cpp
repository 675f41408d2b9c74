#include "design/strip_opinions.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace talvik::design {
namespace {

using opinions::Opinion;
using strips::Strip;

// Load per area at a place: each case's spread loads, unfactored.
std::vector<double> pressures(const FloorDesign& f, model::Point at) {
    const auto& floor = *f.floor;
    std::vector<double> q(floor.actions.cases.size(), 0);
    double thickness = 0;
    for (const auto& s : floor.slabs)
        if (thickness == 0 || geometry::contains(model::ring(s.outline), at)) thickness = s.thickness;
    for (const auto& z : floor.zones)
        if (geometry::contains(model::ring(z.outline), at)) thickness = z.thickness;
    for (std::size_t c = 0; c < q.size(); ++c) {
        if (floor.actions.cases[c].nature == model::LoadCase::Nature::SelfWeight)
            q[c] += thickness * f.basis->concreteDensity;
        for (const auto& l : floor.actions.loads)
            if (l.loadCase == floor.actions.cases[c].id && l.kind == model::FloorLoad::Kind::Area &&
                (l.outline.empty() || geometry::contains(model::ring(l.outline), at)))
                q[c] += model::intensity(l);
    }
    return q;
}

struct Load {
    double w = 0, permanent = 0, imposed = 0;
    int combination = -1;
};
// The largest ultimate load per area there.
Load largest(const FloorDesign& f, model::Point at) {
    Load load;
    auto q = pressures(f, at);
    for (std::size_t c = 0; c < q.size(); ++c) {
        const auto& of = f.floor->actions.cases[c];
        if (of.permanent())
            load.permanent += q[c];
        else if (of.nature == model::LoadCase::Nature::Imposed)
            load.imposed += q[c];
    }
    const auto& all = f.analysis->combinations;
    for (std::size_t k = 0; k < all.size(); ++k) {
        if (all[k].state != actions::LimitState::Ultimate) continue;
        double sum = 0;
        for (std::size_t c = 0; c < q.size() && c < all[k].factors.size(); ++c)
            sum += all[k].factors[c] * q[c];
        if (sum > load.w + 1e-12) load.w = sum, load.combination = int(k);
    }
    return load;
}

// Moment of slab and beams of a strip at u, in a combination.
double momentAt(const StripDesign& d, std::size_t combination, double u) {
    const auto& st = d.stations();
    if (st.empty()) return 0;
    auto value = [&](std::size_t i) {
        const auto& v = d.forces->at(combination, i);
        return v.moment + v.beamMoment;
    };
    if (u <= st.front().u) return value(0);
    for (std::size_t i = 1; i < st.size(); ++i)
        if (u <= st[i].u) {
            double k = (u - st[i - 1].u) / (st[i].u - st[i - 1].u);
            return value(i - 1) + k * (value(i) - value(i - 1));
        }
    return value(st.size() - 1);
}

std::string differ(double ratio, double low, double high, const std::string& why) {
    if (ratio >= low && ratio <= high) return {};
    return fmt::format("They differ by more than expected: {}", why);
}

void staticMoments(const FloorDesign& f, const StripDesign& d, std::vector<Opinion>& out) {
    const Strip& s = *d.strip;
    const StripDesign* beside[2] = {nullptr, nullptr};
    for (const auto& o : f.strips) {
        const Strip& m = *o->strip;
        if (m.direction != s.direction || m.kind != Strip::Kind::Middle) continue;
        if (m.line == s.line) beside[0] = o.get();
        if (m.lineLeft == s.line) beside[1] = o.get();
    }
    for (std::size_t i = 0; i < s.spans.size(); ++i) {
        const auto& span = s.spans[i];
        if (span.cantilever() || span.left < 0) continue;
        double mid = (span.clearFrom + span.clearTo) / 2, ln = span.clearTo - span.clearFrom;
        Load load = largest(f, s.axes.plan({mid, s.v(mid)}));
        if (load.combination < 0 || load.w <= 0) continue;
        const auto k = std::size_t(load.combination);
        auto sum = [&](double u) {
            double m = momentAt(d, k, u);
            for (int side : {0, 1})
                if (beside[side])
                    m += momentAt(*beside[side], k, u) * (beside[side]->strip->edge[side] ? 1.0 : 0.5);
            return m;
        };
        // The panel's width: the strips' own at mid-span.
        auto widthAt = [&](const StripDesign& x) {
            double best = 1e300, width = 0;
            for (const auto& st : x.stations())
                if (std::abs(st.u - mid) < best) best = std::abs(st.u - mid), width = st.width;
            return width;
        };
        double l2 = widthAt(d);
        for (int side : {0, 1})
            if (beside[side]) l2 += widthAt(*beside[side]) * (beside[side]->strip->edge[side] ? 1.0 : 0.5);
        Opinion o;
        o.source =
            "Total static moment w l2 ln²/8 of the panel (J. R. Nichols, 1914): column strip and half of the "
            "middle strips, beams included.";
        o.what = span.name;
        o.engine = sum(mid) - (sum(span.clearFrom) + sum(span.clearTo)) / 2;
        o.opinion = load.w * l2 * ln * ln / 8;
        o.word =
            differ(o.ratio(), 0.85, 1.15,
                   "the panel is far from regular, carries line or point loads, or supports other panels.");
        out.push_back(std::move(o));
    }
}

void coefficients(const FloorDesign& f, const StripDesign& d, std::vector<Opinion>& out) {
    const Strip& s = *d.strip;
    standards::ActionRules::Spans in;
    std::vector<std::size_t> index;
    Load load = largest(f, s.axes.plan({(s.from + s.to) / 2, s.v((s.from + s.to) / 2)}));
    if (load.combination < 0) return;
    for (std::size_t i = 0; i < s.spans.size(); ++i) {
        const auto& span = s.spans[i];
        if (span.left < 0 || span.right < 0) {
            (span.left < 0 ? in.cantileverStart : in.cantileverEnd) = true;
            continue;
        }
        index.push_back(i);
        in.lengths.push_back(span.length());
        in.clear.push_back(span.clearTo - span.clearFrom);
    }
    if (index.empty()) return;
    in.permanent = load.permanent, in.imposed = load.imposed;
    in.area = s.area() / double(index.size());
    in.edgeBeams = s.spans[index.front()].ends[0] == model::EndCondition::OnBeam;
    auto c = f.standard->actions->coefficients(in);
    if (!c.refusal.empty()) return;
    const auto& l = c.onClearSpan ? in.clear : in.lengths;
    auto extreme = [&](double from, double to, bool top) {
        double most = 0;
        for (std::size_t i = 0; i < d.stations().size(); ++i)
            if (d.stations()[i].u >= from && d.stations()[i].u <= to)
                most = std::max(
                    most, (top ? -d.demand.least[i].value : d.demand.most[i].value) / d.stations()[i].width);
        return most;
    };
    auto add = [&](const std::string& what, double engine, double coefficient) {
        Opinion o{c.source, what, engine, std::abs(coefficient), units::Kind::MomentPerWidth, {}};
        if (o.opinion <= 0) return;
        o.word = differ(o.ratio(), 0.7, 1.3,
                        "coefficients are for uniform loads on all panels and rigid supports.");
        out.push_back(std::move(o));
    };
    for (std::size_t n = 0; n < index.size(); ++n) {
        const auto& span = s.spans[index[n]];
        if (n < c.span.size() && std::isfinite(c.span[n]))
            add("span " + span.name, extreme(span.clearFrom, span.clearTo, false),
                c.span[n] * load.w * l[n] * l[n]);
        if (n + 1 < index.size() && n + 1 < c.support.size() && std::isfinite(c.support[n + 1])) {
            double mean = (l[n] + l[n + 1]) / 2;
            const auto& p = s.supports[std::size_t(span.right)];
            add("support " + p.name, extreme(p.from - 2, p.to + 2, true),
                c.support[n + 1] * load.w * mean * mean);
        }
    }
}

}  // namespace

std::vector<opinions::Opinion> stripOpinions(const FloorDesign& design, const StripDesign& strip) {
    std::vector<opinions::Opinion> out;
    const Strip& s = *strip.strip;
    if (s.onLines)
        coefficients(design, strip, out);
    else if (s.kind == Strip::Kind::Column || s.kind == Strip::Kind::Full)
        staticMoments(design, strip, out);
    return out;
}

}  // namespace talvik::design

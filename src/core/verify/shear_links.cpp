// Vertical links in slabs where concrete alone does not carry the shear.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "verify/line_checker.h"

namespace talvik::verify {

double LinkZone::steel() const {
    return along > 0 && across > 0 ? std::numbers::pi / 4 * diameter * diameter / (along * across) : 0;
}

namespace {

// EN 1992-1-1 9.2.1.3(2): the tension is moved by z cot(theta)/2, with z = 0.9 d no more than d up to this.
double carriedByLinks(const standards::ShearRules& rules, const standards::Section& section, double As,
                      const LinkZone& links, double yield, trace::Steps* t = nullptr) {
    constexpr double flattest = 2 / 0.9;
    const auto found = rules.linked(section, As, links.steel() * section.b, yield, t);
    return found.cot > flattest ? found.V * flattest / found.cot : found.V;
}

}  // namespace

double shearResistance(const standards::ShearRules& rules, const standards::Section& section, double As,
                       const LinkZone* links, double yield, trace::Steps* t) {
    trace::Steps plain, linked;
    const double alone = rules.oneWay(section, As, t ? &plain : nullptr),
                 with = links ? carriedByLinks(rules, section, As, *links, yield, t ? &linked : nullptr) : 0;
    if (t) {
        const auto& of = with > alone ? linked : plain;
        t->insert(t->end(), of.begin(), of.end());
    }
    return std::max(alone, with);
}

namespace {

std::vector<LinkZone> shearLinks(const LineCase& of) {
    std::vector<LinkZone> zones;
    const auto& [line, stations, demand] = of.view;
    const auto& in = of.in;
    const auto& rules = *in.standard.shear;
    const auto* catalog = catalogs::barCatalog(in.basis.barCatalog);
    constexpr double b = 1000;
    struct At : ShearAt {
        double V = 0;  // on b
    };
    for (std::size_t s = 0; s < line.spans.size(); ++s) {
        const auto& span = line.spans[s];
        const auto clear = line::stationsWithin(stations, span.clearFrom, span.clearTo);
        if (!clear) continue;
        auto judged = [&](std::size_t i) {
            return stations[i].u >= of.spans[s].shearFrom && stations[i].u <= of.spans[s].shearTo;
        };
        for (std::size_t i = clear->first; i <= clear->second; ++i) {
            auto over = [&](std::size_t k) {
                return judged(k) && demand.shear[k].value > of.design.shearResistance[k] * (1 + 1e-9);
            };
            if (!over(i)) continue;
            std::size_t last = i;
            while (last < clear->second && over(last + 1)) ++last;
            std::vector<At> there;
            double depth = 1e300, thin = 1e300;
            for (std::size_t k = i; k <= last; ++k) {
                there.push_back(
                    {shearAt(of.design, of.view, in, k), demand.shear[k].value / stations[k].width * b});
                depth = std::min(depth, there.back().section.d);
                thin = std::min(thin, stations[k].leastThickness);
            }
            // An effective depth beyond what is over; up to the face where it begins as near to it as shear is judged.
            LinkZone zone;
            zone.from = stations[i].u - depth, zone.to = stations[last].u + depth;
            if (i == clear->first || !judged(i - 1)) zone.from = span.clearFrom;
            if (last == clear->second || !judged(last + 1)) zone.to = span.clearTo;
            zone.from = std::max(zone.from, span.clearFrom), zone.to = std::min(zone.to, span.clearTo);
            i = last;
            if (thin < rules.leastLinkedThickness() - 1e-6) continue;
            double along = 1e300, across = 1e300, least = 0;
            const double step = in.basis.spacingStep > 0 ? in.basis.spacingStep : 25;
            double yield = in.basis.steelYield;
            for (const auto& a : there) {
                along = std::min(along, rules.linkSpacing(a.section, a.V));
                across = std::min(across, rules.linkSpacingAcross(a.section, a.V));
                least = std::max(least, rules.leastLinks(a.section, yield) / b);
            }
            along = std::floor(along / step + 1e-9) * step, across = std::floor(across / step + 1e-9) * step;
            std::optional<LinkZone> best;
            for (const auto& name : in.basis.linkBars) {
                const auto* bar = catalog ? catalog->find(name) : nullptr;
                if (!bar) continue;
                for (double x = along; x >= 3 * step - 1e-6; x -= step)
                    for (double y = across; y >= 4 * step - 1e-6; y -= step) {
                        LinkZone one = zone;
                        one.bar = name, one.diameter = bar->diameter, one.along = x, one.across = y;
                        if (one.steel() < least || (best && one.steel() >= best->steel() - 1e-12)) continue;
                        if (std::all_of(there.begin(), there.end(), [&](const At& a) {
                                return carriedByLinks(rules, a.section, a.As, one, yield) >= a.V;
                            }))
                            best = one;
                    }
            }
            if (best) zones.push_back(*best);
        }
    }
    // Those that meet become one, of the heavier legs.
    std::vector<LinkZone> joined;
    for (const auto& z : zones)
        if (!joined.empty() && z.from <= joined.back().to + 1) {
            const double from = joined.back().from;
            if (z.steel() > joined.back().steel()) joined.back() = z;
            joined.back().from = from, joined.back().to = std::max(joined.back().to, z.to);
        } else {
            joined.push_back(z);
        }
    return joined;
}

}  // namespace

const LinkZone* linksAt(const LineDesign& design, double u) {
    for (const auto& z : design.links)
        if (u >= z.from - 1e-6 && u <= z.to + 1e-6) return &z;
    return nullptr;
}

void addLinks(LineDesign& design, const LineCase& of) {
    design.links = shearLinks(of);
    constexpr double b = 1000;
    for (std::size_t i = 0; i < of.view.stations.size() && !design.links.empty(); ++i) {
        const auto* zone = linksAt(design, of.view.stations[i].u);
        if (!zone) continue;
        const auto at = shearAt(design, of.view, of.in, i);
        design.shearResistance[i] =
            shearResistance(*of.in.standard.shear, at.section, at.As, zone, of.in.basis.steelYield) / b *
            of.view.stations[i].width;
    }
}

}  // namespace talvik::verify

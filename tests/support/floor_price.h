// What a floor costs with its columns and beams, summed here member by member.
#pragma once

#include <numbers>

#include "design/floor_design.h"

namespace talvik::test {

struct FloorPrice {
    double concrete = 0, price = 0, carbon = 0;  // m3 with columns and beams
};
inline FloorPrice floorPrice(const model::Project& p, const design::FloorDesign& d) {
    FloorPrice all;
    const auto& f = *p.floors[0];
    const auto& r = p.basis.rates;
    all.concrete = d.concrete;
    double sides = 0;
    for (const auto& c : f.columns)
        if (c.below)
            all.concrete += (c.circular ? std::numbers::pi / 4 * c.width * c.width : c.width * c.depth) *
                            1e-6 * c.heightBelow / 1000;
    for (const auto& b : f.beams) {
        const double below = (b.depth - f.slabs[0].thickness) / 1000,
                     length = std::hypot(b.b.x - b.a.x, b.b.y - b.a.y) / 1000;
        all.concrete += b.width / 1000 * below * length, sides += 2 * below * length;
    }
    int bars = 0;
    for (const auto& part : d.parts)
        for (const auto& i : part->items) bars += i.number;
    all.price = all.concrete * r.concrete.price + d.steel * r.steel.price +
                (d.formwork + sides) * r.formwork.price + d.blinding * r.blinding.price +
                bars * r.piece.price;
    all.carbon = all.concrete * r.concrete.carbon + d.steel * r.steel.carbon +
                 (d.formwork + sides) * r.formwork.carbon + d.blinding * r.blinding.carbon +
                 bars * r.piece.carbon;
    return all;
}
// What it costs more than before, with stronger concrete by its rate.
inline FloorPrice dearer(const model::Project& p, const design::FloorDesign& before, const model::Project& q,
                         const design::FloorDesign& after) {
    const auto a = floorPrice(p, before), b = floorPrice(q, after);
    const double stronger = b.concrete * (q.basis.concreteStrength - p.basis.concreteStrength);
    return {b.concrete - a.concrete, b.price - a.price + stronger * p.basis.rates.stronger.price,
            b.carbon - a.carbon + stronger * p.basis.rates.stronger.carbon};
}

}  // namespace talvik::test

#include "reinforcement/coverage.h"

#include <algorithm>

namespace talvik::reinforcement {

double effectiveDepth(bool top, double diameter, const model::OneWaySlab& slab, const model::Basis& basis) {
    return slab.thickness - (top ? basis.coverTop : basis.coverBottom) - diameter / 2;
}

standards::Section section(bool top, double diameter, const model::OneWaySlab& slab,
                           const model::Basis& basis, double b) {
    double otherCover = top ? basis.coverBottom : basis.coverTop;
    return {b,
            slab.thickness,
            effectiveDepth(top, diameter, slab, basis),
            otherCover + diameter / 2,
            basis.concreteStrength,
            basis.steelYield};
}

standards::AnchorageInput Coverage::anchorageInput(const model::BarRun& run, bool hooked,
                                                   const model::OneWaySlab& slab, const model::Basis& basis,
                                                   const standards::Standard& standard) {
    const catalogs::Bar& bar = *catalogs::barCatalog(basis.barCatalog)->find(run.bar);
    const bool top = model::topFace(run.role);
    standards::AnchorageInput in;
    in.diameter = bar.diameter;
    in.area = bar.area;
    in.fc = basis.concreteStrength;
    in.fy = basis.steelYield;
    in.stress = standard.detailing->designYield(basis.steelYield);
    in.cd = std::min((run.spacing - bar.diameter) / 2, top ? basis.coverTop : basis.coverBottom);
    in.good = !top || standard.detailing->goodBond(slab.thickness - basis.coverTop - bar.diameter);
    in.hooked = hooked;
    in.spacing = run.spacing;
    return in;
}

double Coverage::anchorageLength(const model::BarRun& run, bool hooked, const model::OneWaySlab& slab,
                                 const model::Basis& basis, const standards::Standard& standard,
                                 trace::Steps* t) {
    return standard.detailing->anchorage(anchorageInput(run, hooked, slab, basis, standard), t);
}

Coverage::Coverage(const model::OneWaySlab& slab, const model::Basis& basis,
                   const standards::Standard& standard) {
    for (const auto& run : slab.bars) {
        if (run.role != model::Role::BottomMain && run.role != model::Role::TopMain) continue;
        const catalogs::Bar& bar = *catalogs::barCatalog(basis.barCatalog)->find(run.bar);
        auto length = [&](model::BarEnd end) {
            return anchorageLength(run, end == model::BarEnd::Hook, slab, basis, standard);
        };
        pieces_.push_back({run.role == model::Role::TopMain, run.from, run.to, length(run.start),
                           length(run.end), bar.area / run.spacing, bar.diameter, run.spacing});
    }
}

SteelAt Coverage::at(bool top, double x) const {
    SteelAt s;
    for (const Piece& p : pieces_) {
        if (p.top != top || x < p.from || x > p.to) continue;
        s.full += p.area;
        s.effective += p.area * std::min({1.0, (x - p.from) / p.lengthStart, (p.to - x) / p.lengthEnd});
        s.diameter = std::max(s.diameter, p.diameter);
        s.spacing = s.spacing == 0 ? p.spacing : std::min(s.spacing, p.spacing);
    }
    return s;
}

}  // namespace talvik::reinforcement

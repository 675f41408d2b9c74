#include "line/section.h"

#include <algorithm>

namespace talvik::line {

standards::Section section(bool top, double diameter, double thickness, const LineBasis& in, double b) {
    return {b,
            thickness,
            thickness - in.cover(top) - in.outer(top) - diameter / 2,
            in.cover(!top) + in.outer(!top) + diameter / 2,
            in.basis.concreteStrength,
            in.basis.steelYield};
}
standards::Section section(bool top, double diameter, const Station& station, const LineBasis& in, double b) {
    return section(top, diameter, station.thickness, in, b);
}
standards::CrackInput crackInput(const standards::Section& section, bool top, double moment, double area,
                                 double diameter, double spacing, const LineBasis& in) {
    return {section,           moment, area, diameter, spacing, in.cover(top) + in.outer(top), in.basis.creep,
            in.crackLimit(top)};
}

std::vector<double> movedDemand(const Line& line, const std::vector<Station>& stations, const Demand& demand,
                                bool top, const std::vector<double>& diameter, const LineBasis& in) {
    std::vector<double> out(stations.size());
    const auto& asked = top ? demand.top : demand.bottom;
    auto per = [&](std::size_t i) { return asked[i].value / stations[i].width; };
    auto at = [&](double u) {
        if (u <= stations.front().u) return per(0);
        for (std::size_t i = 1; i < stations.size(); ++i)
            if (u <= stations[i].u) {
                double k = (u - stations[i - 1].u) / (stations[i].u - stations[i - 1].u);
                return per(i - 1) + k * (per(i) - per(i - 1));
            }
        return per(stations.size() - 1);
    };
    for (std::size_t i = 0; i < stations.size(); ++i) {
        const double shift =
            in.standard.barEnds->momentShift(section(top, diameter[i], stations[i], in, 1000).d, diameter[i]);
        double u = stations[i].u, best = std::max({per(i), at(u - shift), at(u + shift)});
        for (std::size_t k = i; k-- > 0 && u - stations[k].u <= shift;) best = std::max(best, per(k));
        for (std::size_t k = i + 1; k < stations.size() && stations[k].u - u <= shift; ++k)
            best = std::max(best, per(k));
        out[i] = best * stations[i].width;
        if (line.alone && stations[i].span >= 0 && line.spans[std::size_t(stations[i].span)].cantilever())
            out[i] = std::min(out[i], asked[i].value + demand.shear[i].value * shift);
    }
    return out;
}

}  // namespace talvik::line

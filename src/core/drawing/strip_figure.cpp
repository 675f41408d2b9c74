#include "drawing/strip_figure.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "drawing/label_places.h"

namespace talvik::drawing {

double stripFigureHeight(const LongSection& section) {
    const auto tops =
        std::count_if(section.bars.begin(), section.bars.end(), [](const auto& b) { return b.top; });
    const auto most = std::max<std::ptrdiff_t>(tops, std::ptrdiff_t(section.bars.size()) - tops);
    return most <= 10 ? 51 : most <= 16 ? 70 : 100;
}

Sheet stripFigure(const LongSection& section, const std::string& title, double width, double height,
                  units::System system) {
    const double depth = 9, low = (height - depth) / 2, high = low + depth;
    Sheet s;
    s.width = width, s.height = height, s.title = title;
    // Bars may go on where a skew edge lets them, beside the middle line of the strip.
    double first = section.from, last = section.to;
    for (const auto& b : section.bars) first = std::min(first, b.from), last = std::max(last, b.to);
    for (const auto& p : section.supports) first = std::min(first, p.from), last = std::max(last, p.to);
    const double k = (width - 12) / std::max(last - first, 1.0);
    auto X = [&](double u) { return 6 + (u - first) * k; };
    const auto names = wrapped(title, 2.2, width - 8);
    LabelPlaces places({1, 1}, {width - 1, height - 5});
    s.text({4, height - 4}, 2.2, names.front() + (names.size() > 1 ? " …" : ""), Align::Left, true);
    s.rectangle({X(section.from), low}, {X(section.to), high}, Layer::Outline);
    for (const auto& p : section.supports) {
        s.rectangle({X(p.from), low - 4}, {X(p.to), low}, Layer::Structure, !p.hinted);
        s.line({X(p.u), high + 1}, {X(p.u), low - 5}, Layer::Grid);
        places.block({X(p.from), low - 2}, {X(p.to), low - 2});
        const double room = textWidth(p.name, 1.8) / 2;
        const double x = std::clamp(X(p.u), 1 + room, width - 1 - room);
        Text t{{x, low - 7}, 1.8, p.name, Align::Centre, 0, true, Layer::Text};
        LabelPlaces::Place place;
        if (places.put({t}, t.at, place) && !place.leader) s.items.emplace_back(place.text);
    }
    places.block({0, low}, {width, low});
    places.block({0, high}, {width, high});
    // Bars at their faces; those that lie alike beside each other.
    auto y = [&](const LongSection::Bar& b) {
        const double off = 1.6 + 1.1 * (b.turn % 2);
        return b.top ? high - off : low + off;
    };
    for (const auto& b : section.bars) {
        const double far = b.top ? low + 1.6 : high - 1.6;
        s.line({X(b.from), y(b)}, {X(b.to), y(b)}, Layer::BarsX);
        if (b.hookStart) s.line({X(b.from), y(b)}, {X(b.from), far}, Layer::BarsX);
        if (b.hookEnd) s.line({X(b.to), y(b)}, {X(b.to), far}, Layer::BarsX);
        for (double u : {b.from, b.to})
            if ((u == b.from && !b.hookStart) || (u == b.to && !b.hookEnd))
                s.line({X(u), y(b) - 0.5}, {X(u), y(b) + 0.5}, Layer::BarsX);
    }
    for (const auto& z : section.legs)
        for (double u = z.from + z.along / 2; u < z.to; u += std::max(z.along, 1.2 / k))
            s.line({X(u), low + 1.2}, {X(u), high - 1.2}, Layer::ShearSteel);
    for (const auto& a : section.across) {
        const double dot = a.top ? high - 3.6 : low + 3.6;
        for (double u = a.from; u <= a.to; u += std::max(a.spacing, 3 / k))
            s.circle({X(u), dot}, 0.3, Layer::BarsY, true);
    }
    for (const auto& b : section.bars) {
        const double m = X((b.from + b.to) / 2);
        std::vector<Text> offered;
        for (double row = 0; row < (height - depth) / 2 - 6; row += 2.8)
            for (double shift : {0.0, -8.0, 8.0, -16.0, 16.0, -24.0, 24.0}) {
                const double half = textWidth(b.callout, 2) / 2,
                             x = std::clamp(m + shift, 2 + half, std::max(2 + half, width - 2 - half));
                offered.push_back({{x, b.top ? high + 1.4 + row : low - 3.8 - row},
                                   2,
                                   b.callout,
                                   Align::Centre,
                                   0,
                                   true,
                                   Layer::Text});
            }
        LabelPlaces::Place place;
        places.put(offered, {m, y(b)}, place);
        const double side = b.top ? place.text.at.y - 0.4 : place.text.at.y + 2.4;
        s.line({m, y(b)}, {std::clamp(m, place.text.at.x - 4, place.text.at.x + 4), side}, Layer::Dimension);
        s.items.emplace_back(place.text);
    }
    // How far ends lie from the nearest support; once where several end.
    std::set<std::pair<bool, long>> said;
    for (const auto& b : section.bars)
        for (double u : {b.from, b.to}) {
            double nearest = 1e300;
            for (const auto& p : section.supports)
                if (std::abs(u - p.u) < std::abs(nearest)) nearest = u - p.u;
            const bool inside = u > section.from + 200 && u < section.to - 200;
            if (!inside || std::abs(nearest) > 1e6 || std::abs(nearest) < 1) continue;
            if (!said.emplace(b.top, std::lround(u)).second) continue;
            Text t{{X(u), b.top ? high + 1.4 : low - 3.4},
                   1.8,
                   units::number(std::abs(nearest), units::Kind::Length, system),
                   Align::Centre,
                   0,
                   false,
                   Layer::Text};
            std::vector<Text> offered{t};
            for (double row = 2.8; row < (height - depth) / 2 - 6; row += 2.8) {
                offered.push_back(t);
                offered.back().at.y += b.top ? row : -row;
            }
            LabelPlaces::Place place;
            if (!places.put(offered, t.at, place) || place.leader) continue;
            const double side = b.top ? place.text.at.y - 0.4 : place.text.at.y + 2.2;
            s.line({X(u), y(b)}, {X(u), side}, Layer::Dimension);
            s.items.emplace_back(place.text);
        }
    return s;
}

}  // namespace talvik::drawing

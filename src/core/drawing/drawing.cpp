#include "drawing/drawing.h"

#include <cmath>
#include <numbers>

namespace talvik::drawing {

const std::vector<Layer>& layers() {
    static const std::vector<Layer> all{Layer::Frame,      Layer::Outline,   Layer::Structure, Layer::Hidden,
                                        Layer::Grid,       Layer::Dimension, Layer::Text,      Layer::BarsX,
                                        Layer::BarsXTop,   Layer::BarsY,     Layer::BarsYTop,  Layer::Moment,
                                        Layer::Resistance, Layer::Perimeter, Layer::ShearSteel};
    return all;
}

const LayerStyle& style(Layer layer) {
    static const std::vector<LayerStyle> styles{{"FRAME", 0.5, 0x1f2a33, {}, 7},
                                                {"OUTLINE", 0.5, 0x1f2a33, {}, 7},
                                                {"STRUCTURE-CUT", 0.35, 0x39454d, {}, 8},
                                                {"HIDDEN", 0.25, 0x5d6b74, {2, 1}, 8},
                                                {"GRID", 0.18, 0x5d6b74, {6, 1.5, 1, 1.5}, 9},
                                                {"DIMENSION", 0.18, 0x5d6b74, {}, 9},
                                                {"TEXT", 0.25, 0x1f2a33, {}, 7},
                                                {"BARS-X-BOTTOM", 0.6, 0x34508f, {}, 5},
                                                {"BARS-X-TOP", 0.6, 0x34508f, {3, 1.2}, 5},
                                                {"BARS-Y-BOTTOM", 0.5, 0x8c4a2f, {}, 30},
                                                {"BARS-Y-TOP", 0.5, 0x8c4a2f, {3, 1.2}, 30},
                                                {"MOMENT", 0.35, 0x1f2a33, {}, 7},
                                                {"RESISTANCE", 0.35, 0x34508f, {2, 1}, 5},
                                                {"PERIMETER", 0.5, 0xc8401f, {}, 1},
                                                {"SHEAR-STEEL", 0.3, 0x8c4a2f, {}, 34}};
    return styles[static_cast<std::size_t>(layer)];
}

void Sheet::line(Point a, Point b, Layer layer) {
    polyline({a, b}, layer);
}
void Sheet::circle(Point centre, double radius, Layer layer, bool filled) {
    items.emplace_back(Circle{centre, radius, filled, layer});
}
void Sheet::rectangle(Point a, Point b, Layer layer, bool filled) {
    items.emplace_back(Polyline{{a, {b.x, a.y}, b, {a.x, b.y}}, true, filled, layer});
}
void Sheet::text(Point at, double size, std::string string, Align align, bool bold, double angle) {
    items.emplace_back(Text{at, size, std::move(string), align, angle, bold, Layer::Text});
}
void Sheet::polyline(std::vector<Point> points, Layer layer) {
    items.emplace_back(Polyline{std::move(points), false, false, layer});
}

void Sheet::dimension(Point a, Point b, double off, std::string words, std::optional<double> angle) {
    const double degrees = angle ? *angle : std::atan2(b.y - a.y, b.x - a.x) * 180 / std::numbers::pi;
    const double t = degrees * std::numbers::pi / 180;
    const Point way{std::cos(t), std::sin(t)}, side{-way.y, way.x};
    Dimension d;
    d.a = a, d.b = b, d.angle = degrees, d.text = words;
    const double length = (b.x - a.x) * way.x + (b.y - a.y) * way.y;
    d.at = {a.x + off * side.x, a.y + off * side.y};
    const Point end{d.at.x + length * way.x, d.at.y + length * way.y};
    d.first = items.size();
    line(d.at, end, Layer::Dimension);
    for (Point p : {d.at, end})  // strokes at 45 degrees to it
        line({p.x - 0.7 * (way.x + side.x), p.y - 0.7 * (way.y + side.y)},
             {p.x + 0.7 * (way.x + side.x), p.y + 0.7 * (way.y + side.y)}, Layer::Dimension);
    for (const auto& [from, to] : {std::pair{a, d.at}, {b, end}})
        if (const double far = geometry::length(from, to); far > 1.5) {
            const Point w{(to.x - from.x) / far, (to.y - from.y) / far};
            line({from.x + w.x, from.y + w.y}, {to.x + w.x, to.y + w.y}, Layer::Dimension);
        }
    // The text reads from below or from the right.
    double reads = std::remainder(degrees, 360);
    const bool turned = reads > 91 || reads <= -89;
    if (turned) reads = std::remainder(reads + 180, 360);
    const Point m{(d.at.x + end.x) / 2, (d.at.y + end.y) / 2};
    const double s = turned ? -0.8 : 0.8;
    const Point base{m.x + s * side.x, m.y + s * side.y};
    d.middle = {m.x + 1.8 * (turned ? -1 : 1) * side.x, m.y + 1.8 * (turned ? -1 : 1) * side.y};
    items.emplace_back(Text{base, 2, std::move(words), Align::Centre, reads, false, Layer::Text});
    d.count = items.size() - d.first;
    dimensions.push_back(std::move(d));
}
void Sheet::put(const Sheet& other, Point off) {
    auto move = [&](Point& p) { p = {p.x + off.x, p.y + off.y}; };
    const std::size_t before = items.size();
    for (auto item : other.items) {
        std::visit(
            [&](auto& i) {
                using T = std::decay_t<decltype(i)>;
                if constexpr (std::is_same_v<T, Polyline>)
                    for (Point& p : i.points) move(p);
                else if constexpr (std::is_same_v<T, Circle>)
                    move(i.centre);
                else
                    move(i.at);
            },
            item);
        items.push_back(std::move(item));
    }
    if (other.scale != scale) return;
    for (auto d : other.dimensions) {
        for (Point* p : {&d.a, &d.b, &d.at, &d.middle}) move(*p);
        d.first += before;
        dimensions.push_back(std::move(d));
    }
}

double textWidth(const std::string& text, double height) {
    std::size_t letters = 0;
    for (char c : text) letters += (c & 0xC0) != 0x80;
    return 0.82 * height * static_cast<double>(letters);
}

std::vector<std::string> wrapped(const std::string& text, double height, double width) {
    std::vector<std::string> lines;
    std::string line;
    for (std::size_t at = 0; at < text.size();) {
        std::size_t end = text.find(' ', at);
        if (end == std::string::npos) end = text.size();
        std::string word = text.substr(at, end - at);
        at = end + 1;
        std::string longer = line.empty() ? word : line + " " + word;
        if (!line.empty() && textWidth(longer, height) > width) {
            lines.push_back(line);
            line = word;
        } else {
            line = longer;
        }
    }
    if (!line.empty()) lines.push_back(line);
    return lines;
}

}  // namespace talvik::drawing

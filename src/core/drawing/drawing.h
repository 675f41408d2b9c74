// A drawing without a device: lines, text and fills on a sheet of paper, in mm of paper, y upwards from the
// lower left corner. Exporters and the printer read it.
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "geometry/polygon.h"

namespace talvik::drawing {

using geometry::Point;

enum class Layer {
    Frame,
    Outline,
    Structure,
    Hidden,
    Grid,
    Dimension,
    Text,
    BarsX,
    BarsXTop,
    BarsY,
    BarsYTop,
    Moment,
    Resistance,
    Perimeter,
    ShearSteel
};
struct LayerStyle {
    const char* name;
    double width;              // pen, mm of paper
    unsigned colour;           // 0xRRGGBB
    std::vector<double> dash;  // mm of paper; empty: continuous
    int dxfColour;             // colour number of the DXF format
};
const LayerStyle& style(Layer layer);
const std::vector<Layer>& layers();

struct Polyline {
    std::vector<Point> points;
    bool closed = false;
    bool filled = false;
    Layer layer = Layer::Outline;
};
struct Circle {
    Point centre;
    double radius = 1;
    bool filled = false;
    Layer layer = Layer::Outline;
};
enum class Align { Left, Centre, Right };
struct Text {
    Point at;             // on the baseline
    double height = 2.5;  // of capitals, mm
    std::string text;
    Align align = Align::Left;
    double angle = 0;  // degrees, counter-clockwise
    bool bold = false;
    Layer layer = Layer::Text;
};
using Item = std::variant<Polyline, Circle, Text>;

// A distance measured: from `a` to `b` along `angle`, its line through `at`. Its lines and its text stand
// among the items of the sheet, `count` of them from `first`; formats that know dimensions write it as one.
struct Dimension {
    Point a, b, at;
    double angle = 0;  // degrees
    std::string text;
    Point middle;  // of the text
    std::size_t first = 0, count = 0;
};

struct Sheet {
    double width = 594, height = 420;
    double scale = 1;  // drawing scale 1:scale of the main views
    std::string title;
    std::vector<Item> items;
    std::vector<Dimension> dimensions;

    void line(Point a, Point b, Layer layer);
    void polyline(std::vector<Point> points, Layer layer);
    void circle(Point centre, double radius, Layer layer, bool filled = false);
    void rectangle(Point a, Point b, Layer layer, bool filled = false);
    // From a to b, measured along the line through them or, with an angle, along that; the line stands `off`
    // from a, to its left.
    void dimension(Point a, Point b, double off, std::string text, std::optional<double> angle = {});
    // Another sheet's items, moved. Its dimensions stay dimensions where its scale is this one's; in details at
    // another scale they are lines and text, since what is measured on the sheet is not what they say.
    void put(const Sheet& other, Point off);
    void text(Point at, double size, std::string string, Align align = Align::Left, bool bold = false,
              double angle = 0);
};

// Estimated width of a line of text, mm; used to break and place text without a device.
double textWidth(const std::string& text, double height);
// Lines of at most `width` mm.
std::vector<std::string> wrapped(const std::string& text, double height, double width);

}  // namespace talvik::drawing

#include "formats/dxf_reading.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <numbers>
#include <unordered_map>

#include "formats/encoding.h"
#include "formats/file.h"

namespace talvik::formats {
namespace {

using geometry::Point;
using layout::Path;
using model::Outline;

constexpr std::size_t mostPaths = 2'000'000, mostCorners = 12'000'000, mostVain = 500'000;
constexpr int deepest = 24;       // blocks within blocks
constexpr double largest = 1e12;  // coordinates beyond are damage
constexpr double pi = std::numbers::pi;

struct Tag {
    int code = 0;
    std::string_view value;
};

// A point and direction map of the plane: x' = a x + c y + e, y' = b x + d y + f.
struct Map {
    double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;
    Point operator()(Point p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f}; }
    Map after(const Map& m) const {  // this, then m
        return {m.a * a + m.c * b, m.b * a + m.d * b,       m.a * c + m.c * d,
                m.b * c + m.d * d, m.a * e + m.c * f + m.e, m.b * e + m.d * f + m.f};
    }
    double determinant() const { return a * d - b * c; }
    // Turns, mirrors and equal scales keep arcs arcs.
    bool similar() const {
        double x = std::hypot(a, b), y = std::hypot(c, d);
        return std::abs(x - y) < 1e-6 * std::max(x, y) && std::abs(a * c + b * d) < 1e-6 * x * y;
    }
};

// One thing drawn: in its block's coordinates, so that a block is read once and shown often.
struct Shape {
    int layer = 0;
    Outline corners;
    bool closed = false;
};
struct Insert {
    std::string block;
    int layer = 0;
    Map map;
    int columns = 1, rows = 1;
    double columnStep = 0, rowStep = 0, angle = 0;
};
struct Block {
    Point base;
    std::vector<Shape> shapes;
    std::vector<Insert> inserts;
};

bool number(std::string_view text, double& into) {
    while (!text.empty() && (text.front() == ' ' || text.front() == '\t' || text.front() == '+'))
        text.remove_prefix(1);
    while (!text.empty() && (text.back() == ' ' || text.back() == '\t')) text.remove_suffix(1);
    double v = 0;
    auto r = std::from_chars(text.data(), text.data() + text.size(), v);
    if (r.ec != std::errc() || r.ptr != text.data() + text.size() || !(std::abs(v) < largest)) return false;
    into = v;
    return true;
}
int whole(std::string_view text, int otherwise) {
    double v = 0;
    return number(text, v) && std::abs(v) < 1e9 ? static_cast<int>(v) : otherwise;
}

// What stands as \U+XXXX at `i`, or -1.
int escaped(std::string_view text, std::size_t i) {
    if (text.compare(i, 3, "\\U+") != 0 || i + 7 > text.size()) return -1;
    int code = -1;
    const char *from = text.data() + i + 3, *end = from + 4;
    return *from != '-' && std::from_chars(from, end, code, 16).ptr == end ? code : -1;
}
// Names as UTF-8: files before 2007 are in a Latin code page and write other letters as \U+XXXX, those beyond
// U+FFFF as the two of UTF-16.
std::string utf8(std::string_view raw) {
    const auto text = asUtf8(raw);
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        int code = escaped(text, i);
        if (code >= 0xD800 && code < 0xDC00) {
            const int low = escaped(text, std::min(i + 7, text.size()));
            code = low >= 0xDC00 && low < 0xE000 ? 0x10000 + ((code - 0xD800) << 10) + (low - 0xDC00) : -1;
        }
        if (code >= 32 && (code < 0xDC00 || code >= 0xE000)) {
            putUtf8(out, static_cast<unsigned>(code));
            i += code < 0x10000 ? 6 : 13;
        } else {
            out += static_cast<unsigned char>(text[i]) < 32 ? ' ' : text[i];
        }
    }
    return out;
}

class Reader {
  public:
    Reader(std::string_view text, const std::function<void(double)>& progress, std::stop_token stop)
        : text_(text), progress_(progress), stop_(std::move(stop)) {}

    ReadLinework run() {
        if (text_.find('\0') != std::string_view::npos) {
            out_.error = "This is a binary DXF file; save it as ASCII DXF and read that.";
            return std::move(out_);
        }
        while (next()) {
            if (tag_.code != 0) continue;
            if (tag_.value == "SECTION") section();
            if (tag_.value == "EOF") {
                ended_ = true;
                break;
            }
        }
        if (stop_.stop_requested()) {
            out_ = {};
            out_.error = "Reading was stopped.";
            return std::move(out_);
        }
        if (!bad_.empty() && !sections_) {
            out_.error = bad_;
            return std::move(out_);
        }
        if (!sections_) {
            out_.error = "This is not a DXF drawing: it has no sections.";
            return std::move(out_);
        }
        if (!ended_) {
            out_.cut = bad_.empty() ? fmt::format("The file ends early, at line {}.", line_) : bad_;
            work().notes.push_back(out_.cut + " What stands before is shown; what came after is missing.");
        }
        show(drawing_, Map{}, -1, 0);
        if (full_)
            work().notes.push_back("The drawing has more lines than can be shown; the rest was left out.");
        if (work().paths.empty() && out_.error.empty())
            work().notes.push_back("No line of the drawing could be read.");
        return std::move(out_);
    }

  private:
    std::string_view text_;
    const std::function<void(double)>& progress_;
    std::stop_token stop_;
    ReadLinework out_;
    std::size_t at_ = 0, told_ = 0, corners_ = 0;
    int line_ = 0;
    Tag tag_;
    std::string bad_;
    bool sections_ = false, ended_ = false, full_ = false, held_ = false;
    std::unordered_map<std::string, int> layerIndex_;
    std::unordered_map<std::string, Block> blocks_;
    Block drawing_;
    std::vector<Tag> tags_;

    layout::Linework& work() { return out_.work; }

    bool nextLine(std::string_view& into) {
        if (at_ >= text_.size()) return false;
        std::size_t end = text_.find('\n', at_);
        if (end == std::string_view::npos) end = text_.size();
        into = text_.substr(at_, end - at_);
        if (!into.empty() && into.back() == '\r') into.remove_suffix(1);
        at_ = end + 1;
        ++line_;
        return true;
    }
    // The next pair of group code and value; false at the end, at damage and when stopped.
    bool next() {
        if (held_) return held_ = false, true;
        std::string_view code, value;
        if (!bad_.empty() || !nextLine(code)) return false;
        if (!nextLine(value)) return false;
        int c = 0;
        while (!code.empty() && (code.front() == ' ' || code.front() == '\t')) code.remove_prefix(1);
        while (!code.empty() && (code.back() == ' ' || code.back() == '\t')) code.remove_suffix(1);
        auto r = std::from_chars(code.data(), code.data() + code.size(), c);
        if (code.empty() || r.ec != std::errc() || r.ptr != code.data() + code.size()) {
            if (code.empty() && value.empty() && at_ >= text_.size()) return false;
            bad_ = fmt::format("Line {} should hold a group code, a whole number, and does not.", line_ - 1);
            return false;
        }
        if (c == 0 || c == 2 || c == 8 || c == 9) {
            while (!value.empty() && (value.front() == ' ' || value.front() == '\t')) value.remove_prefix(1);
            while (!value.empty() && (value.back() == ' ' || value.back() == '\t')) value.remove_suffix(1);
        }
        tag_ = {c, value};
        if (at_ - told_ > 1'000'000) {
            told_ = at_;
            if (progress_) progress_(0.9 * double(at_) / double(text_.size()));
            if (stop_.stop_requested()) return false;
        }
        return true;
    }
    void hold() { held_ = true; }

    int layer(std::string_view raw) {
        std::string name = utf8(raw.empty() ? "0" : raw);
        auto [it, fresh] = layerIndex_.try_emplace(name, int(work().layers.size()));
        if (fresh) work().layers.push_back(name), work().offInFile.push_back(false);
        return it->second;
    }

    // A thing of the file: its name was just read; its tags up to the next 0 go to tags_.
    void gather() {
        tags_.clear();
        while (next()) {
            if (tag_.code == 0) return hold();
            if (tags_.size() < 4'000'000) tags_.push_back(tag_);
        }
    }
    const Tag* find(int code) const {
        for (const auto& t : tags_)
            if (t.code == code) return &t;
        return nullptr;
    }
    double value(int code, double otherwise, bool& good) const {
        const Tag* t = find(code);
        double v = otherwise;
        if (t && !number(t->value, v)) good = false;
        return v;
    }

    void section() {
        if (!next()) return;
        if (tag_.code != 2) return hold();
        sections_ = true;
        std::string name(tag_.value);
        if (name == "HEADER") return header();
        if (name == "BLOCKS") return blocks();
        if (name == "ENTITIES") return things(drawing_, "ENDSEC");
        if (name == "TABLES") return tables();
        while (next())
            if (tag_.code == 0 && (tag_.value == "ENDSEC" || tag_.value == "EOF")) return ended(tag_.value);
    }
    void ended(std::string_view value) {
        if (value == "EOF") hold();
    }
    void header() {
        std::string variable;
        while (next()) {
            if (tag_.code == 0) return ended(tag_.value);
            if (tag_.code == 9) variable = tag_.value;
            if (variable == "$INSUNITS" && tag_.code == 70) {
                static const std::map<int, double> mm{{1, 25.4}, {2, 304.8},  {4, 1},     {5, 10},  {6, 1000},
                                                      {7, 1e6},  {10, 914.4}, {13, 1e-3}, {14, 100}};
                auto found = mm.find(whole(tag_.value, 0));
                if (found != mm.end()) work().unit = found->second, work().unitKnown = true;
            }
        }
    }
    void tables() {
        while (next()) {
            if (tag_.code != 0) continue;
            if (tag_.value == "ENDSEC" || tag_.value == "EOF") return ended(tag_.value);
            if (tag_.value != "LAYER") continue;
            gather();
            const Tag *name = find(2), *colour = find(62), *flags = find(70);
            if (!name) continue;
            int index = layer(name->value);
            if ((colour && whole(colour->value, 7) < 0) || (flags && (whole(flags->value, 0) & 1)))
                work().offInFile[std::size_t(index)] = true;
        }
    }
    void blocks() {
        while (next()) {
            if (tag_.code != 0) continue;
            if (tag_.value == "ENDSEC" || tag_.value == "EOF") return ended(tag_.value);
            if (tag_.value != "BLOCK") continue;
            gather();
            bool good = true;
            std::string name(find(2) ? find(2)->value : "");
            Block b;
            b.base = {value(10, 0, good), value(20, 0, good)};
            things(b, "ENDBLK");
            if (!name.empty() && good) blocks_[name] = std::move(b);
        }
    }

    // Entities up to the word that ends them.
    void things(Block& into, std::string_view end) {
        while (next()) {
            if (tag_.code != 0) continue;
            if (tag_.value == end) return;
            if (tag_.value == "EOF" || tag_.value == "ENDSEC") return hold();
            std::string name(tag_.value);
            gather();
            thing(name, into);
        }
    }
    void leaveOut(const std::string& what) {
        if (work().unread.size() < 200 || work().unread.contains(what)) ++work().unread[what];
    }

    void thing(const std::string& name, Block& into) {
        if (const Tag* paper = find(67); paper && whole(paper->value, 0) == 1) {
            if (name == "POLYLINE") vertices(nullptr);
            return leaveOut("on paper space");
        }
        bool good = true;
        Shape s;
        const Tag* l = find(8);
        s.layer = layer(l ? l->value : "0");
        // Seen from below, x runs the other way.
        double normal = value(230, 1, good);
        Map turned;
        if (normal < 0) turned.a = -1;
        auto finish = [&](bool mirrored) {
            if (!good || s.corners.size() < 2) return leaveOut(name + " with values missing or damaged");
            if (mirrored && normal < 0) map(s, turned);
            if (corners_ += s.corners.size(); corners_ > mostCorners) return void(full_ = true);
            into.shapes.push_back(std::move(s));
        };
        auto require = [&](std::initializer_list<int> codes) {
            for (int c : codes) good = good && find(c);
        };
        if (name == "LINE") {
            require({10, 20, 11, 21});
            s.corners = {{value(10, 0, good), value(20, 0, good)}, {value(11, 0, good), value(21, 0, good)}};
            finish(false);
        } else if (name == "CIRCLE") {
            require({10, 20, 40});
            double x = value(10, 0, good), y = value(20, 0, good), r = value(40, 0, good);
            good = good && r > 0;
            s.corners = {{x - r, y, 1}, {x + r, y, 1}};
            s.closed = true;
            finish(true);
        } else if (name == "ARC") {
            require({10, 20, 40, 50, 51});
            double x = value(10, 0, good), y = value(20, 0, good), r = value(40, 0, good);
            double from = value(50, 0, good), to = value(51, 0, good);
            good = good && r > 0;
            double turn = std::fmod(to - from, 360.0);
            if (turn <= 0) turn += 360;
            int parts = turn > 180 ? 2 : 1;
            for (int k = 0; k <= parts; ++k) {
                double t = (from + turn * k / parts) * pi / 180;
                s.corners.push_back({x + r * std::cos(t), y + r * std::sin(t),
                                     k < parts ? std::tan(turn / parts * pi / 180 / 4) : 0});
            }
            finish(true);
        } else if (name == "LWPOLYLINE") {
            lightPolyline(s, good);
            finish(true);
        } else if (name == "POLYLINE") {
            int flags = find(70) ? whole(find(70)->value, 0) : 0;
            if (flags & (16 | 64)) {
                vertices(nullptr);
                return leaveOut("POLYLINE as a mesh of faces");
            }
            s.closed = flags & 1;
            good = vertices(&s.corners) && good;
            finish(!(flags & 8));
        } else if (name == "ELLIPSE") {
            ellipse(s, good);
            finish(false);
        } else if (name == "SPLINE") {
            spline(s, good);
            finish(false);
        } else if (name == "SOLID" || name == "TRACE" || name == "3DFACE") {
            require({10, 20, 11, 21, 12, 22});
            auto corner = [&](int k) {
                s.corners.push_back({value(10 + k, 0, good), value(20 + k, 0, good), 0});
            };
            corner(0), corner(1);
            if (name == "3DFACE") {
                corner(2);
                if (find(13)) corner(3);
            } else {
                if (find(13)) corner(3);
                corner(2);
            }
            if (s.corners.size() == 4 && s.corners[2].x == s.corners[3].x && s.corners[2].y == s.corners[3].y)
                s.corners.pop_back();
            s.closed = true;
            finish(name != "3DFACE");
        } else if (name == "INSERT") {
            insert(s.layer, into, normal < 0);
        } else if (name == "SEQEND" || name == "VIEWPORT" || name == "ATTRIB" || name == "ENDBLK") {
            // Belong to what stands before, or to paper.
        } else {
            leaveOut(name.empty() ? "nameless" : utf8(name.substr(0, 40)));
        }
    }

    void lightPolyline(Shape& s, bool& good) const {
        for (const auto& t : tags_) {
            double v = 0;
            if (t.code == 70) s.closed = whole(t.value, 0) & 1;
            if (t.code != 10 && t.code != 20 && t.code != 42) continue;
            if (!number(t.value, v)) good = false;
            if (t.code == 10)
                s.corners.push_back({v, 0, 0});
            else if (s.corners.empty())
                good = false;
            else if (t.code == 20)
                s.corners.back().y = v;
            else
                s.corners.back().bulge = std::clamp(v, -10.0, 10.0);
        }
    }
    // The VERTEX entries that follow a POLYLINE, up to SEQEND.
    bool vertices(Outline* into) {
        bool good = true;
        while (next()) {
            if (tag_.code != 0) continue;
            if (tag_.value == "SEQEND") {
                gather();
                return good;
            }
            if (tag_.value != "VERTEX") {
                hold();
                return good;
            }
            gather();
            int flags = find(70) ? whole(find(70)->value, 0) : 0;
            if (!into || (flags & 16)) continue;  // control points of a curve drawn by other vertices
            if (into->size() > mostCorners) return false;
            double x = value(10, 0, good), y = value(20, 0, good), b = value(42, 0, good);
            into->push_back({x, y, std::clamp(b, -10.0, 10.0)});
        }
        return good;
    }
    void ellipse(Shape& s, bool& good) const {
        double x = value(10, 0, good), y = value(20, 0, good), ux = value(11, 0, good),
               uy = value(21, 0, good);
        double ratio = value(40, 1, good), from = value(41, 0, good), to = value(42, 2 * pi, good);
        double normal = value(230, 1, good);
        if (!find(10) || !find(11) || std::hypot(ux, uy) == 0 || !(std::abs(to - from) < 100)) good = false;
        if (to <= from) to += 2 * pi;
        double vx = -uy * ratio, vy = ux * ratio;
        if (normal < 0) vx = -vx, vy = -vy;
        double turn = to - from;
        s.closed = turn > 2 * pi - 1e-6;
        // Chords of 5.6 degrees leave a thousandth of the axis.
        int parts = std::clamp(int(std::ceil(turn / (2 * pi) * 64)), 2, 128);
        for (int k = 0; k < parts + (s.closed ? 0 : 1); ++k) {
            double t = from + turn * k / parts;
            s.corners.push_back(
                {x + ux * std::cos(t) + vx * std::sin(t), y + uy * std::cos(t) + vy * std::sin(t), 0});
        }
    }
    // A rational B-spline at eight places per span (de Boor's recurrence: C. de Boor, On calculating with
    // B-splines, 1972), or the points it was fitted through.
    void spline(Shape& s, bool& good) const {
        int degree = 3, flags = 0;
        std::vector<double> knots, weights;
        std::vector<Point> control, fit;
        for (const auto& t : tags_) {
            double v = 0;
            switch (t.code) {
                case 70:
                    flags = whole(t.value, 0);
                    break;
                case 71:
                    degree = whole(t.value, 3);
                    break;
                case 40:
                    good = number(t.value, v) && good;
                    knots.push_back(v);
                    break;
                case 41:
                    good = number(t.value, v) && good;
                    weights.push_back(v);
                    break;
                case 10:
                case 11:
                    good = number(t.value, v) && good;
                    (t.code == 10 ? control : fit).push_back({v, 0});
                    break;
                case 20:
                case 21: {
                    auto& list = t.code == 20 ? control : fit;
                    good = number(t.value, v) && !list.empty() && good;
                    if (!list.empty()) list.back().y = v;
                    break;
                }
            }
        }
        s.closed = flags & 1;
        std::size_t n = control.size(), p = std::size_t(std::max(degree, 0));
        if (degree < 1 || degree > 15 || n < p + 1 || knots.size() != n + p + 1 || control.size() > 100000 ||
            !std::is_sorted(knots.begin(), knots.end())) {
            for (Point q : fit) s.corners.push_back({q.x, q.y, 0});
            if (fit.size() < 2) good = false;
            return;
        }
        if (weights.size() != n) weights.assign(n, 1);
        std::vector<std::array<double, 3>> d(p + 1);
        auto point = [&](double t, std::size_t span) -> Point {
            for (std::size_t j = 0; j <= p; ++j) {
                std::size_t i = span - p + j;
                d[j] = {control[i].x * weights[i], control[i].y * weights[i], weights[i]};
            }
            for (std::size_t r = 1; r <= p; ++r)
                for (std::size_t j = p; j >= r; --j) {
                    std::size_t i = span - p + j;
                    double width = knots[i + p - r + 1] - knots[i];
                    double a = width > 0 ? (t - knots[i]) / width : 0;
                    for (std::size_t k = 0; k < 3; ++k) d[j][k] = (1 - a) * d[j - 1][k] + a * d[j][k];
                }
            return d[p][2] != 0 ? Point{d[p][0] / d[p][2], d[p][1] / d[p][2]} : Point{d[p][0], d[p][1]};
        };
        for (std::size_t span = p; span < n; ++span) {
            if (knots[span + 1] <= knots[span]) continue;
            int parts = p == 1 ? 1 : 8;
            for (int k = 0; k <= parts; ++k) {
                if (k == 0 && !s.corners.empty()) continue;
                Point q = point(knots[span] + (knots[span + 1] - knots[span]) * k / parts, span);
                if (!(std::abs(q.x) < largest && std::abs(q.y) < largest)) good = false;
                s.corners.push_back({q.x, q.y, 0});
            }
        }
        if (s.closed && s.corners.size() > 2 &&
            std::hypot(s.corners.front().x - s.corners.back().x, s.corners.front().y - s.corners.back().y) <
                1e-6)
            s.corners.pop_back();
    }
    void insert(int layerOf, Block& into, bool fromBelow) {
        bool good = true;
        Insert in;
        const Tag* name = find(2);
        if (!name) return leaveOut("INSERT with values missing or damaged");
        in.block = std::string(name->value);
        in.layer = layerOf;
        double x = value(10, 0, good), y = value(20, 0, good), sx = value(41, 1, good),
               sy = value(42, 1, good);
        in.angle = value(50, 0, good) * pi / 180;
        in.columns = find(70) ? whole(find(70)->value, 1) : 1;
        in.rows = find(71) ? whole(find(71)->value, 1) : 1;
        in.columnStep = value(44, 0, good), in.rowStep = value(45, 0, good);
        if (!good || !std::isfinite(in.angle)) return leaveOut("INSERT with values missing or damaged");
        double c = std::cos(in.angle), s = std::sin(in.angle);
        in.map = {sx * c, sx * s, -sy * s, sy * c, x, y};
        if (fromBelow) in.map = in.map.after(Map{-1, 0, 0, 1, 0, 0});
        in.columns = std::clamp(in.columns, 1, 10000), in.rows = std::clamp(in.rows, 1, 10000);
        into.inserts.push_back(std::move(in));
    }

    static void map(Shape& s, const Map& m) {
        bool arcs =
            std::any_of(s.corners.begin(), s.corners.end(), [](const auto& c) { return c.bulge != 0; });
        if (arcs && !m.similar()) {
            // Stretched arcs become short lines.
            Outline flat;
            std::size_t n = s.corners.size();
            for (std::size_t i = 0; i < n; ++i) {
                const auto &a = s.corners[i], &b = s.corners[(i + 1) % n];
                flat.push_back({a.x, a.y, 0});
                if (a.bulge == 0 || (!s.closed && i + 1 == n)) continue;
                // Within a thousandth of the chord.
                const double tolerance = std::hypot(b.x - a.x, b.y - a.y) / 1000;
                for (Point p : geometry::alongArc({a.x, a.y}, {b.x, b.y}, a.bulge, tolerance))
                    flat.push_back({p.x, p.y, 0});
            }
            s.corners = std::move(flat);
        }
        double sign = m.determinant() < 0 ? -1 : 1;
        for (auto& c : s.corners) {
            Point p = m({c.x, c.y});
            c = {p.x, p.y, sign * c.bulge};
        }
    }

    // Puts a block's shapes on the drawing; those on layer 0 take the layer of what shows them.
    void show(const Block& b, const Map& m, int onLayer, int depth) {
        int zero = layerIndex_.contains("0") ? layerIndex_["0"] : -1;
        for (const auto& shape : b.shapes) {
            if (work().paths.size() >= mostPaths || corners_ > mostCorners) return void(full_ = true);
            Shape s = shape;
            map(s, m);
            if (depth > 0) corners_ += s.corners.size();
            bool good = true;
            for (const auto& c : s.corners) good = good && std::abs(c.x) < largest && std::abs(c.y) < largest;
            if (!good) {
                leaveOut("lines too far away");
                continue;
            }
            work().paths.push_back(
                {onLayer >= 0 && s.layer == zero ? onLayer : s.layer, std::move(s.corners), s.closed});
        }
        for (const auto& in : b.inserts) {
            auto found = blocks_.find(in.block);
            if (found == blocks_.end()) {
                leaveOut("INSERT of a block that is not there");
                continue;
            }
            if (depth >= deepest) {
                leaveOut("INSERT nested too deeply");
                continue;
            }
            const Block& inner = found->second;
            if (inner.shapes.empty() && inner.inserts.empty()) continue;  // texts alone, say
            for (int r = 0; r < in.rows; ++r)
                for (int k = 0; k < in.columns; ++k) {
                    if (full_ || stop_.stop_requested()) return;
                    if (++shown_ > mostPaths) return void(full_ = true);
                    double dx = k * in.columnStep, dy = r * in.rowStep;
                    Map base{1, 0, 0, 1, -inner.base.x, -inner.base.y};
                    Map step{1,
                             0,
                             0,
                             1,
                             dx * std::cos(in.angle) - dy * std::sin(in.angle),
                             dx * std::sin(in.angle) + dy * std::cos(in.angle)};
                    const auto before = work().paths.size();
                    show(inner, base.after(in.map).after(step).after(m),
                         in.layer == zero ? onLayer : in.layer, depth + 1);
                    if (work().paths.size() == before && ++vain_ > mostVain) return void(full_ = true);
                }
        }
    }
    std::size_t shown_ = 0, vain_ = 0;  // blocks shown, and those of them that showed nothing
};

}  // namespace

ReadLinework readDxfText(std::string_view text, const std::function<void(double)>& progress,
                         std::stop_token stop) {
    return Reader(text, progress, std::move(stop)).run();
}

ReadLinework openDxf(const std::string& path, const std::function<void(double)>& progress,
                     std::stop_token stop) {
    FileText file = readFile(path, std::size_t(1) << 29);
    if (!file.error.empty()) return {{}, file.error};
    auto read = readDxfText(file.text, progress, std::move(stop));
    if (!read.error.empty()) read.error = path + ": " + read.error;
    return read;
}

}  // namespace talvik::formats

#include "drawing/floor_sheets.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "design/revisions.h"
#include "drawing/connection_detail.h"
#include "drawing/label_places.h"
#include "drawing/long_section.h"
#include "drawing/plan_figure.h"
#include "drawing/sheet_column.h"
#include "drawing/strip_figure.h"
#include "layout/grid.h"
#include "layout/panels.h"

namespace talvik::drawing {
namespace {

using geometry::Ring;
using schedule::Item;
using units::Kind;

constexpr double margin = SheetColumn::margin, leftMargin = SheetColumn::leftMargin, around = 21;
constexpr double textHeight = 2;

using model::Paper;

// Scale and paper on which a plan of this size fits, the most readable first; those given are kept.
struct Fit {
    Paper paper = *model::paperSize("A0");
    double scale = 5000;
};
Fit fit(double wide, double high, const model::IssueSheet& sheet) {
    constexpr std::pair<double, const char*> choices[] = {{50, "A2"},  {50, "A1"},  {75, "A1"},  {100, "A1"},
                                                          {100, "A0"}, {150, "A0"}, {200, "A0"}, {250, "A0"},
                                                          {500, "A0"}, {1000, "A0"}};
    constexpr double scales[] = {20, 25, 50, 75, 100, 125, 150, 200, 250, 500, 1000, 2000, 5000};
    auto fits = [&](const Paper& paper, double scale) {
        const double room = paper.width - leftMargin - margin - SheetColumn::width - 2 * around,
                     up = paper.height - 2 * margin - 2 * around - 10;
        return wide / scale <= room && high / scale <= up;
    };
    const Paper* given = model::paperSize(sheet.paper);
    if (given && sheet.scale > 0) return {*given, sheet.scale};
    if (given) {
        for (double scale : scales)
            if (fits(*given, scale)) return {*given, scale};
        return {*given, scales[std::size(scales) - 1]};
    }
    if (sheet.scale > 0) {
        for (const Paper& paper : model::papers())
            if (fits(paper, sheet.scale)) return {paper, sheet.scale};
        return {*model::paperSize("A0"), sheet.scale};
    }
    for (const auto& [scale, name] : choices)
        if (const Paper& paper = *model::paperSize(name); fits(paper, scale)) return {paper, scale};
    return {};
}

class FloorSheets {
  public:
    FloorSheets(const model::Project& project, const design::Design& design, const design::FloorDesign& f)
        : project_(project), design_(design), f_(f), system_(project.basis.units) {
        for (const auto& s : f.floor->slabs)
            for (Point p : model::ring(s.outline)) take(p);
        for (const auto& c : f.floor->columns)
            for (Point p : model::footprint(c)) take(p);
        fit_ = fit(high_.x - low_.x, high_.y - low_.y, project.sheet);
    }

    std::vector<Sheet> make() {
        plan(false);
        plan(true);
        sections();
        connections();
        scheduleSheets();
        const std::size_t n = all_.size();
        for (std::size_t i = 0; i < n; ++i) {
            const SheetColumn column(all_[i], project_, design_);
            column.titleBlock(all_[i].title, n > 1 ? fmt::format("-{}", i + 1) : std::string());
            all_[i].text({column.right() - 4, margin + 20}, 2, fmt::format("Sheet {} of {}", i + 1, n),
                         Align::Right);
        }
        return std::move(all_);
    }

  private:
    const model::Project& project_;
    const design::Design& design_;
    const design::FloorDesign& f_;
    const units::System system_;
    Point low_{1e300, 1e300}, high_{-1e300, -1e300};
    Fit fit_;
    std::vector<Sheet> all_;
    Sheet* sheet_ = nullptr;
    Point origin_;  // of the plan on paper
    struct Label {
        std::vector<Text> offered;
        Point tip;
        bool changed = false;  // since the revision with which this one is compared
    };
    std::vector<Label> labels_;  // of what is drawn: they are placed when all bars lie

    void take(Point p) {
        low_ = {std::min(low_.x, p.x), std::min(low_.y, p.y)};
        high_ = {std::max(high_.x, p.x), std::max(high_.y, p.y)};
    }
    std::string text(double v, Kind kind) const { return units::text(v, kind, system_); }
    Point at(Point p) const {
        return {origin_.x + (p.x - low_.x) / fit_.scale, origin_.y + (p.y - low_.y) / fit_.scale};
    }
    Sheet& begin(const std::string& title, Paper paper, double scale) {
        Sheet& s = all_.emplace_back();
        s.width = paper.width, s.height = paper.height, s.scale = scale;
        s.title = f_.name + ": " + title;
        sheet_ = &s;
        return s;
    }
    void plan(bool top) {
        Sheet& s = begin(top ? "top bars" : "bottom bars", fit_.paper, fit_.scale);
        const double room = s.width - leftMargin - margin - SheetColumn::width,
                     wide = (high_.x - low_.x) / fit_.scale, high = (high_.y - low_.y) / fit_.scale;
        origin_ = {leftMargin + (room - wide) / 2, margin + (s.height - 2 * margin - 10 - high) / 2};
        s.text({leftMargin + 6, s.height - margin - 8}, 3,
               top ? "Plan: top bars" : "Plan: bottom bars and edges", Align::Left, true);
        s.text({leftMargin + 6, s.height - margin - 12.5}, 2.2, fmt::format("1:{:.0f}", fit_.scale));
        LabelPlaces places({leftMargin + 2, margin + 2}, {leftMargin + room - 2, s.height - margin - 15});
        structure(places);
        dimensions(places);
        SheetColumn(s, project_, design_)
            .north({leftMargin + room - 14, s.height - margin - 14}, project_.sheet.north);
        std::vector<const Item*> shown;
        for (const auto& strip : f_.strips) {
            for (const auto& r : strip->runs)
                if (r.top() == top) run(*strip, r, places);
            for (const auto& i : strip->items)
                if (i.layer.starts_with(top ? 'T' : 'B')) shown.push_back(&i);
            if (top) links(*strip, places, shown);
        }
        for (const auto& p : f_.parts)
            if (p->part.kind == model::PartKind::Edge) edge(*p, top, places, shown);
        if (top) steel(places);
        for (const auto& l : labels_) write(l, places);
        labels_.clear();
        column(shown, top);
    }

    // What bars lie in and hang on.
    void structure(LabelPlaces& places) {
        const auto& floor = *f_.floor;
        for (const auto& g : floor.grids)
            for (const auto& l : layout::gridLines(g, beyond(g))) {
                const Point a = at(l.line.a), b = at(l.line.b);
                sheet_->line(a, b, Layer::Grid);
                const double length = std::max(geometry::length(a, b), 1e-9);
                const Point end{a.x + (a.x - b.x) / length * 3.5, a.y + (a.y - b.y) / length * 3.5};
                sheet_->circle(end, 3.5, Layer::Outline);
                sheet_->text({end.x, end.y - 1.1}, 2.4, l.label, Align::Centre, true);
                places.blockText({{end.x - 3.5, end.y - 3.5},
                                  {end.x + 3.5, end.y - 3.5},
                                  {end.x + 3.5, end.y + 3.5},
                                  {end.x - 3.5, end.y + 3.5}});
            }
        drawStructure(
            *sheet_, floor, [this](Point p) { return at(p); }, Layer::Hidden);
        for (const auto& c : floor.columns) {
            Ring box = model::footprint(c);
            for (Point& p : box) p = at(p);
            places.blockText(geometry::hull(box));
        }
    }
    // How far the lines of a grid go on, so that they end clear of the slab.
    double beyond(const model::Grid& g) const {
        double out = 0;
        for (const auto& l : layout::gridLines(g, 0)) {
            const double length = geometry::length(l.line.a, l.line.b);
            if (length < 1) continue;
            const Point way{(l.line.b.x - l.line.a.x) / length, (l.line.b.y - l.line.a.y) / length};
            for (const auto& s : f_.floor->slabs)
                for (Point p : model::ring(s.outline)) {
                    const double t = (p.x - l.line.a.x) * way.x + (p.y - l.line.a.y) * way.y;
                    out = std::max({out, -t, t - length});
                }
        }
        return out + 13 * fit_.scale;
    }
    // Between the lines of each grid, and over all.
    void dimensions(LabelPlaces& places) {
        auto add = [&](Point a, Point b, double off, double length, std::optional<double> angle) {
            if (length / fit_.scale < 3) return;
            Sheet trial;
            trial.scale = sheet_->scale;
            trial.dimension(a, b, off, units::number(length, Kind::Length, system_), angle);
            const auto box = LabelPlaces::box(std::get<Text>(trial.items.back()), 0.2);
            if (!places.free(box)) return;
            sheet_->put(trial, {0, 0});
            places.blockText(box);
        };
        for (const auto& g : f_.floor->grids) {
            const auto lines = layout::gridLines(g, beyond(g) - 5 * fit_.scale);
            for (std::size_t i = 0; i + 1 < lines.size(); ++i) {
                if (lines[i].along != lines[i + 1].along) continue;
                const auto &l = lines[i].line, &next = lines[i + 1].line;
                const double long_ = std::max(geometry::length(l.a, l.b), 1.0);
                const Point way{(l.b.x - l.a.x) / long_, (l.b.y - l.a.y) / long_};
                // From the end of one line square to the next.
                const double across = -(next.a.x - l.a.x) * way.y + (next.a.y - l.a.y) * way.x;
                const Point b{l.a.x - across * way.y, l.a.y + across * way.x};
                add(at(l.a), at(b), 0, std::abs(across), {});
            }
        }
        const Point low = at(low_), high = at(high_);
        add({low.x, low.y}, {high.x, low.y}, -5, high_.x - low_.x, 0.0);
        add({high.x, low.y}, {high.x, high.y}, -5, high_.y - low_.y, 90.0);
    }
    // One line of a run drawn, the breadth over which the others lie, and its call-out.
    void run(const design::StripDesign& strip, const bars::Run& r, LabelPlaces& places) {
        struct Lie {
            double v, from, to;
        };
        const auto& axes = strip.strip->axes;
        std::vector<Lie> lies;
        for (const auto& i : strip.items)
            if (i.run == r.id)
                for (const auto& l : i.lie) {
                    const Point a = axes.local(l.a), b = axes.local(l.b);
                    lies.push_back({a.y, a.x, b.x});
                }
        if (lies.empty()) return;
        std::sort(lies.begin(), lies.end(),
                  [](const Lie& a, const Lie& b) { return a.v != b.v ? a.v < b.v : a.from < b.from; });
        std::vector<double> lines;
        for (const auto& l : lies)
            if (lines.empty() || l.v > lines.back() + 0.5) lines.push_back(l.v);
        const bool x = strip.direction == 0;
        const Layer layer =
            r.top() ? (x ? Layer::BarsXTop : Layer::BarsYTop) : (x ? Layer::BarsX : Layer::BarsY);
        const std::string label = design_.callout(strip, r.id, system_);
        double angle = std::remainder(axes.angle, 360);
        bool turned = false;
        if (angle > 91 || angle <= -89) turned = true, angle = std::remainder(angle + 180, 360);
        const Point way{axes.c, axes.s}, up{turned ? axes.s : -axes.s, turned ? -axes.c : axes.c};
        // The line beside which the fewest others are drawn.
        struct Choice {
            std::vector<std::pair<Point, Point>> pieces;
            Point middle;
            double from = 0, to = 0, v = 0;
        };
        Choice best;
        int least = 1 << 20;
        for (double share : {0.5, 0.36, 0.64, 0.24, 0.76, 0.12, 0.88}) {
            const double v = lines[std::min(lines.size() - 1, std::size_t(share * double(lines.size())))];
            Choice c;
            c.v = v, c.from = 1e300, c.to = -1e300;
            int crossed = 0, k = 0;
            for (const auto& l : lies) {
                if (std::abs(l.v - v) > 0.5) continue;
                // Lapped pieces beside each other.
                const double off = 0.35 * fit_.scale * (k++ % 2);
                const Point a = at(axes.plan({l.from, v + off})), b = at(axes.plan({l.to, v + off}));
                c.pieces.emplace_back(a, b);
                c.from = std::min(c.from, l.from), c.to = std::max(c.to, l.to);
                crossed += places.beside(a, b);
            }
            c.middle = at(axes.plan({(c.from + c.to) / 2, v}));
            if (crossed < least) least = crossed, best = std::move(c);
            if (crossed == 0) break;
        }
        if (project_.sheet.everyBar)
            for (const auto& l : lies)
                if (std::abs(l.v - best.v) > 0.5)
                    sheet_->line(at(axes.plan({l.from, l.v})), at(axes.plan({l.to, l.v})), layer);
        for (const auto& [a, b] : best.pieces) sheet_->line(a, b, layer), places.block(a, b);
        ends(r, best.pieces.front().first, best.pieces.back().second, way, layer, places);
        // Over which breadth.
        if (lines.size() > 1)
            for (double share : {0.3, 0.7, 0.2, 0.8, 0.4, 0.6}) {
                const double u = best.from + share * (best.to - best.from);
                const Point a = at(axes.plan({u, lines.front()})), b = at(axes.plan({u, lines.back()}));
                if (places.beside(a, b) > 0 && share != 0.6) continue;
                sheet_->line(a, b, Layer::Dimension);
                for (Point p : {a, b})
                    sheet_->line({p.x - 0.8 * way.x, p.y - 0.8 * way.y},
                                 {p.x + 0.8 * way.x, p.y + 0.8 * way.y}, Layer::Dimension);
                sheet_->circle(at(axes.plan({u, best.v})), 0.7, Layer::Dimension);
                break;
            }
        std::vector<Text> offered;
        for (double share : {0.5, 0.36, 0.64, 0.24, 0.76})
            for (double off : {0.9, -0.9 - textHeight}) {
                const Point p = at(axes.plan({best.from + share * (best.to - best.from), best.v}));
                offered.push_back({{p.x + off * up.x, p.y + off * up.y},
                                   textHeight,
                                   label,
                                   Align::Centre,
                                   angle,
                                   true,
                                   Layer::Text});
            }
        labels_.push_back({std::move(offered), best.middle, design::changed(design_, strip, r.id, label)});
    }
    void ends(const bars::Run& r, Point a, Point b, Point way, Layer layer, LabelPlaces& places) {
        const Point side{-way.y, way.x};
        for (const auto& [p, end] : {std::pair(a, r.start), std::pair(b, r.end)}) {
            const double k = end == model::BarEnd::Hook ? (r.top() ? -2.0 : 2.0) : 0.7;
            const Point q{p.x + k * side.x, p.y + k * side.y},
                o = end == model::BarEnd::Hook ? p : Point{p.x - k * side.x, p.y - k * side.y};
            sheet_->line(o, q, layer);
            places.block(o, q);
        }
    }
    void write(const Label& label, LabelPlaces& places) {
        const Point tip = label.tip;
        LabelPlaces::Place place;
        places.put(label.offered, tip, place);
        if (place.leader) leader(*sheet_, place);
        if (label.changed) cloud(*sheet_, LabelPlaces::box(place.text, 1.2));
        sheet_->items.emplace_back(place.text);
    }

    // U-bars stand for all along an edge; bars beside openings one by one.
    void edge(const design::PartAnswer& p, bool top, LabelPlaces& places, std::vector<const Item*>& shown) {
        std::map<std::string, const Item*> last;
        for (const auto& i : p.items) {
            const bool u = i.layer == "U";
            if (u ? top : i.layer.starts_with('T') != top) continue;
            shown.push_back(&i);
            if (i.lie.empty()) continue;
            // Of U-bars a few; of bars beside an opening the outer ones of either side.
            const bool bent = i.shape == "21";
            const std::size_t n = i.lie.size(), step = bent ? std::max<std::size_t>(1, n / 12) : 1;
            for (std::size_t k = step / 2; k < n; k += step) {
                if (!u && k != 0 && k != n - 1 && k != n / 2 && k + 1 != n / 2) continue;
                const Point a = at(i.lie[k].a), b = at(i.lie[k].b);
                const bool across = std::abs(a.y - b.y) > std::abs(a.x - b.x);
                sheet_->line(a, b, across ? Layer::BarsY : Layer::BarsX);
                places.block(a, b);
            }
            if (last.contains(i.run)) continue;
            last[i.run] = &i;
            const auto& l = i.lie[std::min(n - 1, bent ? step / 2 + step * (n / step / 2) : n / 2)];
            const Point a = at(l.a), b = at(l.b), m{(a.x + b.x) / 2, (a.y + b.y) / 2};
            Text t{{m.x, m.y + 1}, textHeight, design_.callout(p, i.run, system_), Align::Centre, 0,
                   true,           Layer::Text};
            labels_.push_back({{t}, m, design::changed(design_, p, i.run, t.text)});
        }
    }

    // Stretches of strips with links: every link as it lies, called out once.
    void links(const design::StripDesign& strip, LabelPlaces& places, std::vector<const Item*>& shown) {
        for (const auto& i : strip.items) {
            if (i.layer != "S" || i.lie.empty()) continue;
            shown.push_back(&i);
            for (const auto& l : i.lie) sheet_->line(at(l.a), at(l.b), Layer::ShearSteel);
            const auto& l = i.lie[i.lie.size() / 2];
            const Point a = at(l.a), b = at(l.b), m{(a.x + b.x) / 2, (a.y + b.y) / 2};
            places.block(a, b);
            Text t{{m.x, m.y + 1}, textHeight, linkCallout(i, design_, system_), Align::Centre, 0,
                   true,           Layer::Text};
            labels_.push_back({{t}, m});
        }
    }

    void steel(LabelPlaces& places) {
        for (const auto& c : f_.connections) {
            if (!c->steel) continue;
            for (const auto& l : c->steel->legs.lines) {
                const double last = c->steel->first + (l.perimeters - 1) * c->steel->spacing;
                const Point a = at(
                                {l.face.x + c->steel->first * l.way.x, l.face.y + c->steel->first * l.way.y}),
                            b = at({l.face.x + last * l.way.x, l.face.y + last * l.way.y});
                sheet_->line(a, b, Layer::ShearSteel);
                places.block(a, b);
            }
            const Point m = at(c->place.middle);
            std::string label;
            for (const auto& i : c->items)
                label += (label.empty() ? "" : " + ") + fmt::format("{} {}-{:02}", i.number, i.bar,
                                                                    design_.marks.at(schedule::signature(i)));
            if (label.empty()) continue;
            Text t{{m.x, m.y + 4}, textHeight, label, Align::Centre, 0, true, Layer::Text};
            labels_.push_back({{t}, m});
        }
    }

    void column(const std::vector<const Item*>& shown, bool top) {
        const SheetColumn column(*sheet_, project_, design_);
        std::vector<Item> items;
        for (const auto* i : shown) {
            items.push_back(*i);
            items.back().lie.clear();
        }
        double y = column.top();
        const auto schedule = design_.scheduleOf(f_, items);
        column.schedule(schedule, column.left() + 4, y, column.right() - 4, 180);
        column.notes(notes(items, top), y - 8);
    }

    // What formwork is raised by, panel by panel.
    std::string camberNote() const {
        if (f_.floor->cambers.empty()) return "No precamber: formwork is level.";
        std::map<double, std::vector<std::string>> raised;
        for (const auto& panel : layout::findPanels(*f_.floor))
            if (const double rise = layout::camberOf(*f_.floor, panel); rise > 0)
                raised[rise].push_back(panel.name);
        std::string all;
        for (const auto& [rise, names] : raised)
            all += fmt::format("{}{} of {} {}", all.empty() ? "" : "; ", text(rise, Kind::Length),
                               names.size() > 1 ? "panels" : "panel", fmt::join(names, ", "));
        return "Precamber of formwork in the middle of the panel, reducing to zero at the supports: " + all +
               ".";
    }
    std::vector<std::string> notes(const std::vector<Item>& items, bool top) const {
        const auto& b = *f_.basis;
        std::vector<double> depths;
        for (const auto& s : f_.floor->slabs) depths.push_back(s.thickness);
        for (const auto& z : f_.floor->zones) depths.push_back(z.thickness);
        std::sort(depths.begin(), depths.end());
        depths.erase(std::unique(depths.begin(), depths.end()), depths.end());
        std::string thick;
        for (double d : depths) thick += (thick.empty() ? "" : ", ") + text(d, Kind::Length);
        std::vector<std::string> all{
            fmt::format("Slab {} thick. Concrete {}, reinforcement {}.", thick, b.concrete, b.steel),
            fmt::format("Cover: top {}, bottom {}, sides {}.", text(b.coverTop, Kind::Length),
                        text(b.coverBottom, Kind::Length), text(b.coverSide, Kind::Length)),
            fmt::format("Outermost at the top: bars along {}; at the bottom: along {}. 1 is the outer layer, "
                        "2 the inner.",
                        strips::directionName(f_.floor->strips.rules.outerTop),
                        strips::directionName(f_.floor->strips.rules.outerBottom)),
            std::string(project_.sheet.everyBar ? "Every bar is drawn, the call-out is at one of its set; "
                                                : "One bar of each set is drawn; ") +
                "the thin line shows the width over which they are placed. Call-outs: total number, type and "
                "size, marks, spacing, layer. Bars of several lengths are cut in steps.",
            "Laps and ends as drawn; stagger laps.",
            top ? "Chairs support the top bars, at most 1 m apart, set out by the steel fixer."
                : "U-bars close all edges and openings, with a bar in either corner. Bars cut by openings "
                  "are replaced by equal trimmer steel, half each side. Drops have a mat of bars bent up at "
                  "their ends.",
            camberNote(),
            f_.floor->strips.rules.twisting == model::StripChoices::Twisting::WoodArmer
                ? "Corners have no separate torsion steel: twisting is in the moments of the strips (Wood "
                  "and Armer)."
                : "Corners have no torsion steel: twisting moments are left out by the user.",
            fmt::format("Designed to {}.", design_.standard->edition)};
        if (f_.find({f_.floor->id, model::PartKind::Edge, "steps"}))
            all.push_back(
                "At steps of level bars of the higher top and of the lower soffit end with U-bars; those of "
                "the lower top and of the higher soffit continue by their lap, where there is concrete.");
        addItemNotes(items, design_.marks, all);
        addRevisionNotes(design_, f_, all);
        addCheckNotes(f_.all(), all);
        return all;
    }

    // Details of connections with shear steel, in rows.
    void connections() {
        std::vector<const design::ConnectionDesign*> with;
        for (const auto& c : f_.connections)
            if (c->steel) with.push_back(c.get());
        constexpr double wide = 180, high = 92;
        const Paper paper = *model::paperSize(with.size() > 8 ? "A1" : "A2");
        const int columns = int((paper.width - leftMargin - margin - SheetColumn::width) / wide),
                  rows = int((paper.height - 2 * margin) / high);
        for (std::size_t k = 0; k < with.size(); ++k) {
            const int place = int(k) % (columns * rows);
            if (place == 0) {
                begin("shear reinforcement", paper, 1);
                const SheetColumn column(*sheet_, project_, design_);
                std::vector<Item> items;
                for (std::size_t n = k; n < with.size() && n < k + std::size_t(columns * rows); ++n)
                    items.insert(items.end(), with[n]->items.begin(), with[n]->items.end());
                double y = column.top();
                column.schedule(design_.scheduleOf(f_, items), column.left() + 4, y, column.right() - 4, 120);
                std::vector<std::string> all{
                    "Legs are placed on the perimeters and lines drawn; dashed: outer control perimeter "
                    "u_out.",
                    "Proprietary stud rails: mark, number and studs in the schedule.",
                    "Not to scale; dimensions govern."};
                addItemNotes(items, design_.marks, all);
                column.notes(all, y - 8);
            }
            const Sheet detail = connectionDetail(*with[k], project_.basis, wide - 8);
            const Point off{leftMargin + 4 + (place % columns) * wide,
                            sheet_->height - margin - 4 - (place / columns + 1) * high};
            sheet_->put(detail, off);
        }
    }

    // The edge of a slab of each thickness in section: the U-bar with a bar in either corner, and its covers.
    std::vector<Sheet> edgeDetails() const {
        std::vector<Sheet> all;
        std::set<double> known;
        for (const auto& p : f_.parts) {
            if (p->part.kind != model::PartKind::Edge) continue;
            for (const auto& i : p->items) {
                if (i.layer != "U" || i.shape != "21" || !known.insert(i.dimensions.at('B')).second) continue;
                const auto& b = *f_.basis;
                const double deep = i.dimensions.at('B'), leg = i.dimensions.at('A'), k = 20;  // 1:20
                // The slab or thickening that they close: legs are rounded.
                double h = deep + b.coverTop + b.coverBottom, off = 30;
                const double inside = h;
                auto nearer = [&](double thickness) {
                    if (const double d = std::abs(thickness - inside); d < off) off = d, h = thickness;
                };
                for (const auto& s : f_.floor->slabs) nearer(s.thickness);
                for (const auto& z : f_.floor->zones) nearer(z.thickness);
                Sheet d;
                d.width = 86, d.height = 46, d.scale = k;
                const double x = 14, y = 14;  // lower corner of the edge
                auto at = [&](double u, double v) { return Point{x + u / k, y + v / k}; };
                const double end = std::min(leg * 1.15 + b.coverSide, 60 * k);
                d.text({2, d.height - 5}, 2.2, "Edge and openings, slab " + text(h, Kind::Length) + ", 1:20",
                       Align::Left, true);
                d.polyline({at(end, h), at(0, h), at(0, 0), at(end, 0)}, Layer::Outline);
                const double r = i.diameter / 2, low = b.coverBottom + r, high = h - b.coverTop - r,
                             in = b.coverSide + r, tip = std::min(b.coverSide + leg, end);
                d.polyline({at(tip, high), at(in, high), at(in, low), at(tip, low)}, Layer::BarsX);
                for (double v : {low + i.diameter, high - i.diameter})
                    d.circle(at(in + i.diameter, v), std::max(0.5, r / k), Layer::BarsY, true);
                d.dimension(at(0, 0), at(0, h), 5, units::number(h, Kind::Length, system_));
                d.dimension(at(0, 0), at(b.coverSide, 0), -3.5,
                            units::number(b.coverSide, Kind::Length, system_));
                const auto marks = design_.marks.find(schedule::signature(i));
                d.text({x + 6, y - 8.5}, 2,
                       fmt::format("{}-{:02}-{} U, a bar in either corner", i.bar,
                                   marks == design_.marks.end() ? 0 : marks->second,
                                   units::number(i.spacing, Kind::BarSpacing, system_)));
                all.push_back(std::move(d));
            }
        }
        return all;
    }

    // Long sections of the strips with their bars; of those that are alike one.
    void sections() {
        struct Drawn {
            std::string names;
            LongSection section;
        };
        std::vector<Drawn> all;
        double high = 0;
        std::map<std::string, std::size_t> known;
        for (const auto& strip : f_.strips) {
            if (strip->runs.empty()) continue;
            auto s = longSection(*strip, *f_.basis, design_.marks);
            high = std::max(high, stripFigureHeight(s));
            std::string key = fmt::format("{:.0f}", s.to - s.from);
            for (const auto& b : s.bars)
                key += fmt::format("|{} {:.0f} {:.0f}", b.callout, b.from - s.from, b.to - s.from);
            const auto [at, fresh] = known.try_emplace(key, all.size());
            if (!fresh) {
                all[at->second].names += ", " + strip->name;
                continue;
            }
            all.push_back({strip->name, std::move(s)});
        }
        const Paper paper = *model::paperSize(all.size() > 14 ? "A1" : "A2");
        const double room = paper.width - leftMargin - margin - SheetColumn::width - 4;
        const int columns = int(room / 180), rows = int((paper.height - 2 * margin - 4) / high);
        const double wide = room / columns;
        for (std::size_t k = 0; k < all.size(); ++k) {
            const int place = int(k) % (columns * rows);
            if (place == 0) {
                begin("long sections", paper, 1);
                const SheetColumn column(*sheet_, project_, design_);
                double left = column.left() + 4, top = margin + 150;
                for (const Sheet& detail : k == 0 ? edgeDetails() : std::vector<Sheet>{}) {
                    if (left + detail.width > column.right()) left = column.left() + 4, top += detail.height;
                    if (top + detail.height > sheet_->height - 60) break;
                    sheet_->put(detail, {left, top});
                    left += detail.width;
                }
                column.notes(
                    {"Long sections along the strips, depth enlarged, not to scale. Ends of bars are "
                     "given from the nearest line of supports. Bars across are dots.",
                     "Identical strips are drawn once."},
                    column.top());
            }
            const Sheet figure = stripFigure(all[k].section, all[k].names, wide - 10, high, system_);
            sheet_->put(figure, {leftMargin + 4 + (place % columns) * wide,
                                 sheet_->height - margin - 2 - (place / columns + 1) * high});
        }
    }

    // All marks of the floor, in columns.
    void scheduleSheets() {
        const auto schedule = design_.scheduleOf(f_);
        if (schedule.rows.empty()) return;
        std::size_t from = 0;
        while (from < schedule.rows.size()) {
            begin("bar schedule", *model::paperSize("A2"), 1);
            const SheetColumn column(*sheet_, project_, design_);
            constexpr double wide = 184;
            for (int k = 0; k < 3 && from < schedule.rows.size(); ++k) {
                double y = column.top();
                const double x = k < 2 ? leftMargin + 4 + k * wide : column.left() + 4;
                from = column.schedule(schedule, x, y, x + wide - 8, k < 2 ? margin + 16 : margin + 66, from);
            }
        }
    }
};

}  // namespace

std::vector<Sheet> floorSheets(const model::Project& project, const design::Design& design,
                               const design::FloorDesign& floor) {
    return FloorSheets(project, design, floor).make();
}

}  // namespace talvik::drawing

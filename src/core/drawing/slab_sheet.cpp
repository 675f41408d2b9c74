#include "drawing/slab_sheet.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

#include "design/revisions.h"
#include "drawing/label_places.h"
#include "drawing/long_section.h"
#include "drawing/sheet_column.h"

namespace talvik::drawing {
namespace {

using model::OneWaySlab;
using model::Role;
using units::Kind;

constexpr double margin = SheetColumn::margin, leftMargin = SheetColumn::leftMargin,
                 columnWidth = SheetColumn::width;

// Views share these: where the slab's x = 0 lies on paper, and the scale.
struct View {
    double x0, y0, scale;  // paper position of (0, 0) and 1:scale
    Point at(double x, double y) const { return {x0 + x / scale, y0 + y / scale}; }
};

class SlabSheet {
  public:
    SlabSheet(const model::Project& project, const design::Design& design, const design::SlabDesign& d)
        : project_(project), slab_(*d.slab), design_(design), d_(d), system_(project.basis.units) {
        schedule_ = design.scheduleOf(*design.find(slab_.id));
    }

    Sheet make() {
        sheet_.title = slab_.name;
        if (const auto* paper = model::paperSize(project_.sheet.paper))
            sheet_.width = paper->width, sheet_.height = paper->height;
        double length = model::concreteEnd(slab_) - model::concreteStart(slab_);
        double room = sheet_.width - leftMargin - 2 * margin - columnWidth,
               high = sheet_.height - 2 * margin - 110;
        for (double s : {20, 25, 50, 75, 100, 125, 150, 200, 250, 500, 1000, 2000, 5000}) {
            sheet_.scale = project_.sheet.scale > 0 ? project_.sheet.scale : s;
            if (project_.sheet.scale > 0) break;
            if (length / s <= room - 20 && 2 * slab_.width / s <= high - 30) break;
        }
        double s = sheet_.scale, planHeight = slab_.width / s,
               x0 = leftMargin + 10 - model::concreteStart(slab_) / s;
        double top = sheet_.height - margin - 22;
        View section{x0, top - 18, s};
        longSection(section);
        View topPlan{x0, section.y0 - 44 - planHeight, s};
        plan(topPlan, true);
        View bottomPlan{x0, topPlan.y0 - 38 - planHeight, s};
        plan(bottomPlan, false);
        place();
        column();
        return std::move(sheet_);
    }

  private:
    std::string num(double v, Kind kind) const { return units::number(v, kind, system_); }
    std::string text(double v, Kind kind) const { return units::text(v, kind, system_); }

    void heading(Point at, const std::string& title, const std::string& detail) {
        sheet_.text(at, 3, title, Align::Left, true);
        sheet_.text({at.x + textWidth(title, 3) + 5, at.y}, 2.2, detail);
    }

    void grid(const View& v, double yLow, double yHigh) {
        for (std::size_t i = 0; i < slab_.supports.size(); ++i) {
            double x = v.at(model::axis(slab_, i), 0).x;
            sheet_.line({x, yLow - 2}, {x, yHigh + 3}, Layer::Grid);
            sheet_.circle({x, yHigh + 6}, 3, Layer::Outline, false);
            sheet_.text({x, yHigh + 5}, 2.2, model::supportLabel(slab_, i), Align::Centre, true);
        }
    }

    void dimensionChain(const View& v, double y) {
        for (std::size_t i = 0; i < slab_.spans.size(); ++i) {
            const double a = v.at(model::spanStart(slab_, i), 0).x,
                         b = v.at(model::spanStart(slab_, i + 1), 0).x;
            sheet_.dimension({a, y}, {b, y}, 0, num(slab_.spans[i].length, Kind::Length));
        }
    }

    void supportsBelow(const View& v) {
        for (std::size_t i = 0; i < slab_.supports.size(); ++i) {
            double x = model::axis(slab_, i), half = slab_.supports[i].width / 2;
            if (slab_.supports[i].kind == model::Support::Kind::Wall) {
                sheet_.rectangle(v.at(x - half, 0), v.at(x + half, slab_.width), Layer::Hidden);
                for (double y = 0; y + 600 < slab_.width; y += 900)
                    sheet_.line(v.at(x - half, y), v.at(x + half, y + 600), Layer::Hidden);
            } else {
                for (double side : {x - half, x + half})
                    sheet_.line(v.at(side, 0), v.at(side, slab_.width), Layer::Hidden);
            }
        }
    }

    void plan(const View& v, bool top) {
        double x0 = model::concreteStart(slab_), x1 = model::concreteEnd(slab_);
        heading({leftMargin + 6, v.at(0, slab_.width).y + 16},
                top ? "Plan: top bars" : "Plan: bottom bars and edge bars",
                fmt::format("1:{:.0f}", sheet_.scale));
        sheet_.rectangle(v.at(x0, 0), v.at(x1, slab_.width), Layer::Outline);
        supportsBelow(v);
        grid(v, v.y0, v.at(0, slab_.width).y);
        dimensionChain(v, v.y0 - 6);
        // Runs that would lie over each other take turns across the width.
        int along = 0, crossing = 0;
        for (const auto& run : d_.bars) {
            if (run.role == Role::EndU || run.role == Role::SideU) {
                if (!top) edge(v, run);
            } else if (run.top() == top) {
                if (model::across(run.role))
                    crossBars(v, run, top, crossing++);
                else
                    mainBars(v, run, top, along++);
            }
        }
        if (!top) links(v);
    }

    // One bar of the run drawn, and the line over which the others lie.
    void mainBars(const View& v, const bars::Run& run, bool top, int turn) {
        double y = slab_.width * (turn % 2 ? 0.62 : 0.34), cover = project_.basis.coverSide;
        Layer layer = top ? Layer::BarsXTop : Layer::BarsX;
        Point a = v.at(run.from, y), b = v.at(run.to, y);
        sheet_.line(a, b, layer);
        for (auto [p, end] : {std::pair{a, run.start}, std::pair{b, run.end}}) {
            if (end == model::BarEnd::Hook)
                sheet_.line(p, {p.x, p.y + (top ? -2.5 : 2.5)}, layer);
            else
                sheet_.line({p.x, p.y - 0.8}, {p.x, p.y + 0.8}, layer);
        }
        double x = run.from + (run.to - run.from) * (turn % 2 ? 0.86 : 0.14);
        spread(v.at(x, cover), v.at(x, slab_.width - cover), v.at(x, y));
        label({(a.x + b.x) / 2, a.y + 1.4}, run);
        if (top) endDistance(v, run.from, y), endDistance(v, run.to, y);
    }

    // How far a bar's end lies from the nearest axis, where it ends inside the slab.
    void endDistance(const View& v, double x, double y) {
        double cover = project_.basis.coverSide, nearest = HUGE_VAL;
        if (x < model::concreteStart(slab_) + cover + 1 || x > model::concreteEnd(slab_) - cover - 1) return;
        for (std::size_t i = 0; i < slab_.supports.size(); ++i)
            if (std::abs(x - model::axis(slab_, i)) < std::abs(nearest)) nearest = x - model::axis(slab_, i);
        Point p = v.at(x, y);
        if (std::abs(nearest) > 1)
            labels_.push_back({{{p.x, p.y - 3},
                                1.8,
                                num(std::abs(nearest), Kind::Length),
                                nearest < 0 ? Align::Left : Align::Right,
                                0,
                                false,
                                Layer::Text},
                               p,
                               false,
                               false});
    }

    // Call-outs wait until all is drawn, and then take places on neither bars nor texts.
    void label(Point at, const bars::Run& run, const char* more = "") {
        const auto callout = design_.callout(d_, run.id, system_);
        label(at, callout + more, design::changed(design_, d_, run.id, callout));
    }
    void label(Point at, const std::string& callout, bool changed = false) {
        labels_.push_back({{at, 2.2, callout, Align::Centre, 0, true, Layer::Text}, at, changed, true});
    }
    void place() {
        LabelPlaces places({leftMargin + 1, margin + 1},
                           {sheet_.width - margin - columnWidth - 1, sheet_.height - margin - 14});
        for (const auto& item : sheet_.items) {
            if (const auto* t = std::get_if<Text>(&item)) {
                places.blockText(LabelPlaces::box(*t, 0.1));
            } else if (const auto* c = std::get_if<Circle>(&item); c && c->radius > 2) {
                const double r = c->radius;
                const Point o = c->centre;
                places.blockText(
                    {{o.x - r, o.y - r}, {o.x + r, o.y - r}, {o.x + r, o.y + r}, {o.x - r, o.y + r}});
            } else if (const auto* line = std::get_if<Polyline>(&item)) {
                const bool bar = line->layer == Layer::BarsX || line->layer == Layer::BarsXTop ||
                                 line->layer == Layer::BarsY || line->layer == Layer::BarsYTop ||
                                 line->layer == Layer::ShearSteel;
                for (std::size_t k = 0; bar && k + 1 < line->points.size(); ++k)
                    places.block(line->points[k], line->points[k + 1]);
            }
        }
        for (const auto& l : labels_) {
            std::vector<Text> offered;
            const double step = textWidth(l.text.text, l.text.height) / 3;
            for (double down : {0.0, -l.text.height - 2.4})
                for (int k : {0, 1, -1, 2, -2, 3, -3, 4, -4}) {
                    if ((!l.wanted || l.stays) && k != 0) continue;
                    offered.push_back(l.text);
                    offered.back().at = {l.text.at.x + k * step, l.text.at.y + down};
                }
            LabelPlaces::Place at;
            const bool found = places.put(offered, l.tip, at);
            if (!l.wanted && (!found || at.leader)) continue;
            if (at.leader) leader(sheet_, at);
            if (l.changed) cloud(sheet_, LabelPlaces::box(at.text, 0.6));
            sheet_.items.emplace_back(at.text);
        }
        labels_.clear();
    }

    void crossBars(const View& v, const bars::Run& run, bool top, int turn) {
        double cover = project_.basis.coverSide, x = run.from + (run.to - run.from) * (top ? 0.82 : 0.53),
               y = slab_.width * (top ? (turn % 2 ? 0.08 : 0.19) : 0.14);
        sheet_.line(v.at(x, cover), v.at(x, slab_.width - cover), top ? Layer::BarsYTop : Layer::BarsY);
        spread(v.at(run.from, y), v.at(run.to, y), v.at(x, y));
        Point p = v.at((run.from + run.to) / 2, y);
        label({p.x, p.y + 1.2}, run);
    }

    // Rows of links, called out once for each stretch.
    void links(const View& v) {
        const double cover = project_.basis.coverSide;
        for (const auto& i : d_.items) {
            if (i.layer != "S") continue;
            for (double x : schedule::linkRows(i.from, i.to, i.spacing))
                sheet_.line(v.at(x, cover), v.at(x, slab_.width - cover), Layer::ShearSteel);
            // Above the edge, over its own stretch and on into the span.
            const double middle = (i.from + i.to) / 2;
            double nearest = HUGE_VAL;
            for (std::size_t k = 0; k < slab_.supports.size(); ++k)
                if (const double a = model::axis(slab_, k); std::abs(a - middle) < std::abs(nearest - middle))
                    nearest = a;
            const bool before = middle < nearest;
            const Point at = v.at(before ? i.to : i.from, slab_.width);
            labels_.push_back({{{at.x, at.y + 1.2},
                                2.2,
                                linkCallout(i, design_, system_),
                                before ? Align::Right : Align::Left,
                                0,
                                true,
                                Layer::Text},
                               v.at(middle, slab_.width),
                               false,
                               true,
                               true});
        }
    }

    void edge(const View& v, const bars::Run& run) {
        double cover = project_.basis.coverSide;
        if (run.role == Role::EndU) {
            Point a = v.at(run.from, slab_.width * 0.8), b = v.at(run.to, slab_.width * 0.8);
            sheet_.line(a, b, Layer::BarsX);
            spread(v.at((run.from + run.to) / 2, cover), v.at((run.from + run.to) / 2, slab_.width - cover),
                   {(a.x + b.x) / 2, a.y});
            label({(a.x + b.x) / 2, a.y + 1.4}, run);
            return;
        }
        double leg = 2 * slab_.thickness, x = run.from + (run.to - run.from) * 0.15;
        for (bool far : {false, true}) {
            double y = far ? slab_.width - cover : cover, inner = far ? y - leg : y + leg;
            sheet_.line(v.at(x, y), v.at(x, inner), Layer::BarsY);
        }
        const Point p = v.at(x, slab_.width - cover);
        label({p.x + 24, p.y - 3.5}, run, " both edges");
    }

    void spread(Point a, Point b, Point bar) {
        sheet_.line(a, b, Layer::Dimension);
        for (Point p : {a, b}) {
            bool vertical = std::abs(a.x - b.x) < std::abs(a.y - b.y);
            sheet_.line(vertical ? Point{p.x - 1, p.y} : Point{p.x, p.y - 1},
                        vertical ? Point{p.x + 1, p.y} : Point{p.x, p.y + 1}, Layer::Dimension);
        }
        sheet_.circle(bar, 0.8, Layer::Dimension, false);
    }

    void longSection(const View& v) {
        constexpr double depth = 9;  // of the slab on paper: the vertical scale is exaggerated
        const auto s = drawing::longSection(d_, project_.basis, design_.marks);
        const double h = slab_.thickness, k = depth / h;
        auto at = [&](double x, double up) { return Point{v.at(x, 0).x, v.y0 + up * k}; };
        auto up = [h](bool top, double fromFace) { return top ? h - fromFace : fromFace; };
        heading(
            {leftMargin + 6, v.y0 + depth + 22}, "Long section",
            fmt::format("1:{:.0f}, depth enlarged {:.1f} times", sheet_.scale, depth / (h / sheet_.scale)));
        sheet_.rectangle(at(s.from, 0), at(s.to, h), Layer::Outline);
        grid({v.x0, v.y0, v.scale}, v.y0 - 6, v.y0 + depth);
        for (const auto& p : s.supports)
            sheet_.rectangle({at(p.from, 0).x, v.y0 - (p.wall ? 8 : 5)}, {at(p.to, 0).x, v.y0},
                             Layer::Structure, true);
        int turn = 0;
        for (const auto& b : s.bars) {
            const double near = up(b.top, b.fromFace), far = up(!b.top, b.fromFace);
            sheet_.line(at(b.from, near), at(b.to, near), Layer::BarsX);
            if (b.hookStart) sheet_.line(at(b.from, near), at(b.from, far), Layer::BarsX);
            if (b.hookEnd) sheet_.line(at(b.to, near), at(b.to, far), Layer::BarsX);
            label({at((b.from + b.to) / 2, 0).x, b.top ? v.y0 + depth + 10.8 + 3.2 * (turn++ % 2) : v.y0 - 4},
                  b.callout);
        }
        for (const auto& a : s.across)
            for (double x = a.from; x <= a.to; x += std::max(a.spacing, 3 * sheet_.scale))
                sheet_.circle(at(x, up(a.top, a.fromFace)), 0.35, Layer::BarsY, true);
        for (const auto& l : s.legs)
            for (double x : schedule::linkRows(l.from, l.to, l.along))
                sheet_.line(at(x, project_.basis.coverBottom), at(x, h - project_.basis.coverTop),
                            Layer::ShearSteel);
        for (const auto& run : d_.bars) {
            if (run.role != Role::EndU) continue;
            const bool end = run.to > model::length(slab_) / 2;
            const double tip = end ? run.to : run.from, inner = end ? run.from : run.to,
                         top = h - project_.basis.coverTop - 2 * run.diameter,
                         bottom = project_.basis.coverBottom + 2 * run.diameter;
            sheet_.polyline({at(inner, top), at(tip, top), at(tip, bottom), at(inner, bottom)}, Layer::BarsX);
        }
        dimensionChain(v, v.y0 - 12);
    }

    // The right-hand column: schedule, notes, title block.
    void column() {
        const SheetColumn column(sheet_, project_, design_);
        double y = column.top();
        column.schedule(schedule_, column.left() + 4, y, column.right() - 4, 190);
        column.notes(notes(), y - 8);
        column.titleBlock(slab_.name + ": reinforcement");
    }

    std::vector<std::string> notes() const {
        const auto& b = project_.basis;
        std::vector<std::string> all{
            fmt::format("Slab {} thick. Concrete {}, reinforcement {}.", text(slab_.thickness, Kind::Length),
                        b.concrete, b.steel),
            fmt::format("Cover: top {}, bottom {}, sides {}.", text(b.coverTop, Kind::Length),
                        text(b.coverBottom, Kind::Length), text(b.coverSide, Kind::Length)),
            "Layers: B1 outermost at the bottom, B2 above it; T1 outermost at the top, T2 below it. Bottom "
            "bars full lines, top bars dashed lines.",
            "Call-outs: number, type and size, mark, spacing, layer.",
            fmt::format(
                "Loads: finishes {}, other permanent {}, imposed {} (use {}), in addition to self-weight.",
                text(d_.analysis.load.finishes, Kind::AreaLoad), text(d_.analysis.load.other, Kind::AreaLoad),
                text(slab_.imposed, Kind::AreaLoad), slab_.imposedUse),
            d_.camber > 0 ? fmt::format("Precamber the formwork by up to {} as listed in the calculation.",
                                        text(d_.camber, Kind::Length))
                          : "No precamber.",
            fmt::format("Designed to {}.", design_.standard->edition)};
        addItemNotes(d_.items, design_.marks, all);
        addRevisionNotes(design_, *design_.find(slab_.id), all);
        std::vector<const checks::Check*> checks;
        for (const auto& c : d_.checks) checks.push_back(&c);
        addCheckNotes(checks, all);
        return all;
    }

    const model::Project& project_;
    const OneWaySlab& slab_;
    const design::Design& design_;
    const design::SlabDesign& d_;
    units::System system_;
    schedule::Schedule schedule_;
    Sheet sheet_;
    struct Label {
        Text text;
        Point tip;
        bool changed = false;  // since the revision compared with
        bool wanted = true;    // otherwise left out where there is no place
        bool stays = false;    // moves up or down alone
    };
    std::vector<Label> labels_;
};

}  // namespace

Sheet slabSheet(const model::Project& project, const design::Design& design, const design::SlabDesign& d) {
    return SlabSheet(project, design, d).make();
}

}  // namespace talvik::drawing

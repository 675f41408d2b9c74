#include "drawing/base_sheets.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "drawing/sheet_column.h"

namespace talvik::drawing {
namespace {

using design::BasePart;

constexpr double text = 2.5, small = 2.0;

Layer barLayer(int axis, bool top) {
    return axis == 0 ? (top ? Layer::BarsXTop : Layer::BarsX) : (top ? Layer::BarsYTop : Layer::BarsY);
}
std::string length(double v, units::System system) {
    return units::number(v, units::Kind::Length, system);
}
std::string size(const BasePart& b, units::System system) {
    const auto& s = b.size();
    return length(s.B, system) + " × " + length(s.L, system) + " × " + length(s.h, system);
}

}  // namespace

BaseFigure basePlan(const design::BasesAnswer& answer, const BasePart& base, const design::Design& design,
                    double scale, units::System system) {
    BaseFigure f;
    const auto& s = base.size();
    const double left = 14, below = 14, w = s.B / scale, h = s.L / scale;
    f.width = left + w + 6, f.height = below + h + 12;
    f.sheet.scale = scale;
    auto at = [&](Point p) {
        return Point{left + w / 2 + (p.x - base.centre.x) / scale,
                     below + h / 2 + (p.y - base.centre.y) / scale};
    };
    auto& sheet = f.sheet;
    sheet.text({left, below + h + 6}, 3, fmt::format("{} plan", base.type), Align::Left, true);
    sheet.rectangle({left, below}, {left + w, below + h}, Layer::Outline);
    for (const auto& id : answer.set->bases[base.number].columns)
        if (const auto* c = model::findColumn(*answer.set, id))
            sheet.rectangle(at({c->x - c->width / 2, c->y - c->depth / 2}),
                            at({c->x + c->width / 2, c->y + c->depth / 2}), Layer::Structure);
    const auto& pile = answer.set->pile;
    for (Point p : base.piles()) {
        const Point c = at({base.centre.x + p.x, base.centre.y + p.y});
        const double r = pile.diameter / 2 / scale;
        if (pile.circular)
            sheet.circle(c, r, Layer::Hidden);
        else
            sheet.rectangle({c.x - r, c.y - r}, {c.x + r, c.y + r}, Layer::Hidden);
    }
    // One bar of each mat, with its call-out beside it.
    for (const auto& i : base.items) {
        if (i.lie.empty()) continue;
        const bool alongX = std::abs(i.lie[0].b.x - i.lie[0].a.x) > std::abs(i.lie[0].b.y - i.lie[0].a.y);
        const bool upper = i.layer.starts_with('T');
        const auto& l =
            i.lie[std::min(i.lie.size() - 1, std::size_t(double(i.lie.size()) * (upper ? 0.75 : 0.25)))];
        sheet.line(at(l.a), at(l.b), barLayer(alongX ? 0 : 1, upper));
        const auto call = schedule::callout(base.items, i.run, design.marks, system);
        const Point a = at(l.a);
        if (alongX)
            sheet.text({left + 0.64 * w, a.y + 0.8}, small, call, Align::Centre);
        else
            sheet.text({a.x - 0.8, below + 0.7 * h}, small, call, Align::Centre, false, 90);
    }
    sheet.dimension({left, below}, {left + w, below}, -6, length(s.B, system));
    sheet.dimension({left, below + h}, {left, below}, -6, length(s.L, system));
    return f;
}

BaseFigure baseSection(const design::BasesAnswer& answer, const BasePart& base, double scale,
                       units::System system) {
    BaseFigure f;
    const auto& s = base.size();
    const double left = 14, below = 14, w = s.B / scale, h = s.h / scale, stub = 400 / scale,
                 cover = answer.basis->coverBottom;
    f.width = left + w + 6, f.height = below + h + stub + 12;
    f.sheet.scale = scale;
    auto& sheet = f.sheet;
    sheet.text({left, below + h + stub + 6}, 3, fmt::format("{} section along x", base.type), Align::Left,
               true);
    auto at = [&](double x, double z) { return Point{left + (x + s.B / 2) / scale, below + z / scale}; };
    sheet.rectangle(at(-s.B / 2, 0), at(s.B / 2, s.h), Layer::Outline);
    for (const auto& id : answer.set->bases[base.number].columns)
        if (const auto* c = model::findColumn(*answer.set, id)) {
            const double x = c->x - base.centre.x;
            sheet.line(at(x - c->width / 2, s.h), at(x - c->width / 2, s.h + 400), Layer::Outline);
            sheet.line(at(x + c->width / 2, s.h), at(x + c->width / 2, s.h + 400), Layer::Outline);
        }
    const double blinding = answer.set->ground.blinding;
    if (blinding > 0) sheet.rectangle(at(-s.B / 2 - 100, -blinding), at(s.B / 2 + 100, 0), Layer::Hidden);
    const auto& pile = answer.set->pile;
    for (Point p : base.piles())
        for (double side : {-1.0, 1.0})
            sheet.line(at(p.x + side * pile.diameter / 2, pile.embedment),
                       at(p.x + side * pile.diameter / 2, -300), Layer::Hidden);
    const double up = base.piles().empty() ? cover : std::max(cover, pile.embedment + 20);
    for (const auto& i : base.items) {
        if (i.lie.empty()) continue;
        const bool alongX = std::abs(i.lie[0].b.x - i.lie[0].a.x) > std::abs(i.lie[0].b.y - i.lie[0].a.y);
        const bool upper = i.layer.starts_with('T');
        double inner = 0;  // what lies between these and the face
        for (const auto& other : base.items)
            if (&other != &i && other.layer.starts_with(upper ? 'T' : 'B') && i.layer.ends_with('2'))
                inner = other.diameter;
        const double off = (upper ? cover : up) + inner + i.diameter / 2, z = upper ? s.h - off : off;
        if (alongX) {
            const double half = geometry::length(i.lie[0].a, i.lie[0].b) / 2;
            std::vector<Point> line{at(-half, z), at(half, z)};
            if (i.shape == "21") {
                const double leg = std::min(i.dimensions.at('A'), s.h - 2 * cover);
                const double end = upper ? z - leg : z + leg;
                line.insert(line.begin(), at(-half, end));
                line.push_back(at(half, end));
            }
            sheet.polyline(line, barLayer(0, upper));
        } else {
            for (const auto& l : i.lie)
                sheet.circle(at(l.a.x - base.centre.x, z), std::max(0.5, i.diameter / 2 / scale),
                             barLayer(1, upper), true);
        }
    }
    sheet.dimension({left, below}, {left + w, below}, -6, length(s.B, system));
    sheet.dimension({left, below + h}, {left, below}, -6, length(s.h, system));
    return f;
}

std::vector<Sheet> baseSheets(const model::Project& project, const design::Design& design,
                              const design::BasesAnswer& answer) {
    std::vector<Sheet> all;
    const auto system = project.basis.units;
    const model::Paper paper = *model::paperSize("A1");
    const char* kind = answer.set->kind == model::BaseSet::Kind::Pads ? "bases" : "pile caps";
    auto notes = [&] {
        const auto& b = *answer.basis;
        std::vector<std::string> n{
            fmt::format("Concrete {}, steel {}, cover {}.", b.concrete, b.steel,
                        units::text(b.coverBottom, units::Kind::Length, system)),
            fmt::format("Blinding {}, underside {} below the ground.",
                        units::text(answer.set->ground.blinding, units::Kind::Length, system),
                        units::text(answer.set->ground.depth, units::Kind::Length, system)),
            "Starter bars and links of columns are not drawn.",
            fmt::format("Designed to {}.", design.standard->edition)};
        if (answer.set->kind == model::BaseSet::Kind::Pads &&
            (answer.set->ground.by == model::GroundValues::By::Gross ||
             answer.set->ground.by == model::GroundValues::By::Net)) {
            std::string from = "its source is not given";
            if (const auto source = project.sources.find("allowable " + answer.set->id);
                source != project.sources.end()) {
                if (!source->second.note.empty()) from = source->second.note;
                for (const auto& c : source->second.history)
                    if (c.afterFailure && c.to > c.from) from += "; raised after a check failed";
            }
            n.push_back(fmt::format("Allowable pressure {}: {}.",
                                    units::text(answer.set->ground.allowable, units::Kind::AreaLoad, system),
                                    from));
        }
        std::vector<schedule::Item> items;
        for (const auto& p : answer.parts) items.insert(items.end(), p->items.begin(), p->items.end());
        addItemNotes(items, design.marks, n);
        addRevisionNotes(design, answer, n);
        addCheckNotes(answer.all(), n);
        return n;
    };
    // The plan.
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (const auto& b : answer.bases) {
        x0 = std::min(x0, b->centre.x - b->size().B / 2), x1 = std::max(x1, b->centre.x + b->size().B / 2);
        y0 = std::min(y0, b->centre.y - b->size().L / 2), y1 = std::max(y1, b->centre.y + b->size().L / 2);
    }
    const double wide = paper.width - SheetColumn::leftMargin - 2 * SheetColumn::margin - SheetColumn::width -
                        20,
                 high = paper.height - 2 * SheetColumn::margin - 40;
    double scale = 20;
    for (double s : {50.0, 100.0, 200.0, 500.0, 1000.0, 2000.0, 5000.0, 10000.0, 20000.0}) {
        scale = s;
        if ((x1 - x0) / s <= wide && (y1 - y0) / s <= high) break;
    }
    {
        Sheet sheet;
        sheet.width = paper.width, sheet.height = paper.height, sheet.scale = scale;
        sheet.title = fmt::format("{}: plan of {}", answer.name, kind);
        SheetColumn column(sheet, project, design);
        const double left = SheetColumn::leftMargin + 10 + (wide - (x1 - x0) / scale) / 2,
                     below = SheetColumn::margin + 15 + (high - (y1 - y0) / scale) / 2;
        auto at = [&](Point p) { return Point{left + (p.x - x0) / scale, below + (p.y - y0) / scale}; };
        for (const auto& b : answer.bases) {
            const auto& s = b->size();
            const Point a = at({b->centre.x - s.B / 2, b->centre.y - s.L / 2}),
                        c = at({b->centre.x + s.B / 2, b->centre.y + s.L / 2});
            sheet.rectangle(a, c, Layer::Outline);
            for (const auto& id : answer.set->bases[b->number].columns)
                if (const auto* col = model::findColumn(*answer.set, id))
                    sheet.rectangle(at({col->x - col->width / 2, col->y - col->depth / 2}),
                                    at({col->x + col->width / 2, col->y + col->depth / 2}), Layer::Structure,
                                    true);
            for (Point p : b->piles())
                sheet.circle(at({b->centre.x + p.x, b->centre.y + p.y}),
                             answer.set->pile.diameter / 2 / scale, Layer::Hidden);
        }
        for (const auto& b : answer.bases) {
            const auto& s = b->size();
            const Point c = at({b->centre.x + s.B / 2, b->centre.y + s.L / 2});
            sheet.text({c.x + 0.8, c.y - 2.2}, small,
                       model::baseName(*answer.set, answer.set->bases[b->number]));
            sheet.text({c.x + 0.8, c.y - 5}, small, b->type, Align::Left, true);
        }
        column.north({SheetColumn::leftMargin + 16, paper.height - SheetColumn::margin - 18},
                     project.sheet.north);
        sheet.text({SheetColumn::leftMargin + 10, SheetColumn::margin + 6}, 3,
                   fmt::format("Plan 1:{}", units::plain(scale)), Align::Left, true);
        // Types, with their number.
        double y = column.top() - 6;
        sheet.text({column.left() + 4, y}, 3, "Types", Align::Left, true);
        y -= 5;
        std::map<std::string, const BasePart*> one;
        for (const auto& b : answer.bases) one.try_emplace(b->type, b.get());
        for (const auto& [name, number] : answer.types) {
            if (y < 150) {
                sheet.text({column.left() + 4, y}, small,
                           fmt::format("and others: {} types in all", answer.types.size()));
                y -= 4;
                break;
            }
            sheet.text({column.left() + 4, y}, text, name, Align::Left, true);
            sheet.text({column.left() + 22, y}, text, fmt::format("{} off", number));
            sheet.text({column.left() + 44, y}, text, size(*one.at(name), system));
            y -= 4.2;
        }
        column.notes(notes(), std::min(y - 4, 145.0));
        column.titleBlock(sheet.title, "-1");
        all.push_back(std::move(sheet));
    }
    // Of each type a plan and a section, side by side in rows; the schedule stands on the first of them.
    std::map<std::string, const BasePart*> one;
    for (const auto& b : answer.bases) one.try_emplace(b->type, b.get());
    std::vector<const BasePart*> kinds;
    for (const auto& [name, number] : answer.types) kinds.push_back(one.at(name));
    // As large as all of them fit on one sheet, else 1:50.
    const double fullTop = paper.height - SheetColumn::margin - 8,
                 fullRight = SheetColumn::leftMargin + wide + 15;
    double detail = 50;
    for (double s : {10.0, 20.0, 25.0}) {
        double x = SheetColumn::leftMargin + 6, y = fullTop, tallest = 0;
        bool fits = kinds.size() <= 40;
        for (std::size_t i = 0; i < kinds.size() && fits; ++i) {
            const auto& z = kinds[i]->size();
            const double w = z.B / s + 28, h = z.L / s + z.h / s + 400 / s + 62;
            if (x + w > fullRight && tallest > 0)
                x = SheetColumn::leftMargin + 6, y -= tallest + 6, tallest = 0;
            fits = y - h >= SheetColumn::margin + 4 && x + w <= fullRight;
            x += w, tallest = std::max(tallest, h);
        }
        if (fits) {
            detail = s;
            break;
        }
    }
    const auto schedule = design.scheduleOf(answer);
    std::size_t row = 0, k = 0;
    constexpr std::size_t mostSheets = 40;
    while ((k < kinds.size() || row < schedule.rows.size()) && all.size() < mostSheets) {
        Sheet sheet;
        sheet.width = paper.width, sheet.height = paper.height, sheet.scale = detail;
        sheet.title = fmt::format("{}: details of {}", answer.name, kind);
        SheetColumn column(sheet, project, design);
        const double top = paper.height - SheetColumn::margin - 8,
                     right = SheetColumn::leftMargin + wide + 15;
        double x = SheetColumn::leftMargin + 6, y = top, tallest = 0;
        for (; k < kinds.size(); ++k) {
            const auto plan = basePlan(answer, *kinds[k], design, detail, system),
                       section = baseSection(answer, *kinds[k], detail, system);
            const double w = std::max(plan.width, section.width) + 8, h = plan.height + section.height + 6;
            if (x + w > right && tallest > 0) x = SheetColumn::leftMargin + 6, y -= tallest + 6, tallest = 0;
            if (y - h < SheetColumn::margin + 4 && y < top) break;
            sheet.put(plan.sheet, {x, y - plan.height});
            sheet.put(section.sheet, {x, y - plan.height - 6 - section.height});
            x += w, tallest = std::max(tallest, h);
        }
        double at = column.top() - 4;
        row = column.schedule(schedule, column.left() + 4, at, column.right() - 4, 70, row);
        column.titleBlock(sheet.title, fmt::format("-{}", all.size() + 1));
        all.push_back(std::move(sheet));
    }
    return all;
}

}  // namespace talvik::drawing

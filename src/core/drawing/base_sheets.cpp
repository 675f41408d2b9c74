#include "drawing/base_sheets.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "design/pile_schedule.h"
#include "drawing/sheet_column.h"

namespace talvik::drawing {
namespace {

using design::BasePart;

constexpr double text = 2.5, small = 2.0;

std::string length(double v, units::System system) {
    return units::number(v, units::Kind::Length, system);
}
std::string size(const BasePart& b, units::System system) {
    const auto& s = b.size();
    return length(s.B, system) + " × " + length(s.L, system) + " × " + length(s.h, system);
}

// Rows of the pile schedule from `k` on, down to `low`; what is left is for another place.
constexpr double pileStep = 3.6, pileBreadth = 134;
void addPiles(Sheet& sheet, const design::BasesAnswer& answer,
              const std::vector<design::ScheduledPile>& piles, std::size_t& k, double x, double top,
              double low, units::System system) {
    auto unit = [&](units::Kind kind) { return std::string(units::unit(kind, system).symbol); };
    const std::vector<double> places{0, 34, 44, 64, 84, 104, 124};
    const std::vector<std::string> heads{"Pile cap",
                                         "Pile",
                                         "x " + unit(units::Kind::Span),
                                         "y " + unit(units::Kind::Span),
                                         "Head " + unit(units::Kind::Span),
                                         "Largest " + unit(units::Kind::Force),
                                         "Least"};
    auto line = [&](const std::vector<std::string>& row, double y, bool bold) {
        for (std::size_t i = 0; i < row.size(); ++i)
            sheet.text({x + places[i] + (i > 1 ? 8 : 0), y}, small, row[i],
                       i > 1 ? Align::Right : Align::Left, bold);
    };
    line(heads, top, true);
    sheet.line({x, top - 1.4}, {x + places.back() + 9, top - 1.4}, Layer::Dimension);
    for (double y = top - 5; y > low && k < piles.size(); ++k, y -= pileStep) {
        const auto& p = piles[k];
        line({model::baseName(*answer.set, answer.set->bases[p.base->number]), std::to_string(p.number),
              units::number(p.at.x, units::Kind::Span, system),
              units::number(p.at.y, units::Kind::Span, system),
              units::number(-design::cutOff(*answer.set), units::Kind::Span, system),
              units::number(p.largest, units::Kind::Force, system),
              units::number(p.least, units::Kind::Force, system)},
             y, false);
    }
}
std::vector<std::string> pileNotes(const design::BasesAnswer& answer, units::System system) {
    const auto& pile = answer.set->pile;
    return {
        fmt::format("Piles of {}, capacity in compression {} ({}), tolerance of position {}.",
                    units::text(pile.diameter, units::Kind::Length, system),
                    units::text(pile.compression, units::Kind::Force, system),
                    pile.ultimate ? "design value" : "for characteristic loads",
                    units::text(pile.tolerance, units::Kind::Length, system)),
        "Pile schedule: level of the heads from the ground; largest and least reaction with the weight of "
        "the cap, piles as drawn, compression positive."};
}
// Where they do not fit beside the plan: sheets of their own.
void addPileSheets(std::vector<Sheet>& all, const model::Project& project, const design::Design& design,
                   const design::BasesAnswer& answer, const std::vector<design::ScheduledPile>& piles,
                   const model::Paper& paper, double wide) {
    const auto columns = std::size_t(wide / pileBreadth);
    constexpr std::size_t mostSheets = 6;
    for (std::size_t k = 0, sheets = 0; k < piles.size() && sheets < mostSheets; ++sheets) {
        Sheet sheet;
        sheet.width = paper.width, sheet.height = paper.height, sheet.scale = 1;
        sheet.title = fmt::format("{}: pile schedule", answer.name);
        SheetColumn column(sheet, project, design);
        for (std::size_t c = 0; c < columns && k < piles.size(); ++c)
            addPiles(sheet, answer, piles, k, SheetColumn::leftMargin + 8 + double(c) * pileBreadth,
                     paper.height - SheetColumn::margin - 17, SheetColumn::margin + 10, project.basis.units);
        column.notes(pileNotes(answer, project.basis.units), column.top() - 10);
        column.titleBlock(sheet.title, fmt::format("-{}", all.size() + 1));
        all.push_back(std::move(sheet));
    }
}

}  // namespace

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
            "Starter bars cover minimum column steel and net tension only; see the columns for other "
            "requirements.",
            fmt::format("Designed to {}.", design.standard->edition)};
        if (answer.set->kind == model::BaseSet::Kind::Pads &&
            (answer.set->ground.by == model::GroundValues::By::Gross ||
             answer.set->ground.by == model::GroundValues::By::Net)) {
            std::string from = "its source is not given";
            if (const auto source = project.sources.find("allowable " + answer.set->id);
                source != project.sources.end()) {
                if (!source->second.note.empty()) from = source->second.note;
                for (const auto& c : source->second.history)
                    if (c.afterFailure && c.to > c.from) from += "; increased after a failed check";
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
    const auto piles = design::pileSchedule(answer);
    bool pilesBeside = false;
    // The plan.
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (const auto& b : answer.bases) {
        x0 = std::min(x0, b->centre.x - b->size().B / 2), x1 = std::max(x1, b->centre.x + b->size().B / 2);
        y0 = std::min(y0, b->centre.y - b->size().L / 2), y1 = std::max(y1, b->centre.y + b->size().L / 2);
    }
    for (Point p : answer.set->site)
        x0 = std::min(x0, p.x), x1 = std::max(x1, p.x), y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
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
            std::vector<Point> around;
            for (Point p : b->outline()) around.push_back(at(p));
            around.push_back(around.front());
            sheet.polyline(around, Layer::Outline);
            if (b->shaped) {
                const auto& u = b->shaped->upper();
                sheet.rectangle(at({b->centre.x + u[0], b->centre.y + u[2]}),
                                at({b->centre.x + u[1], b->centre.y + u[3]}), Layer::Outline);
            }
            if (const auto& t = b->strap)
                sheet.rectangle(at({(*t)[0], (*t)[2]}), at({(*t)[1], (*t)[3]}), Layer::Outline);
            for (const auto& id : answer.set->bases[b->number].columns)
                if (const auto* col = model::findColumn(*answer.set, id))
                    sheet.rectangle(at({col->x - col->width / 2, col->y - col->depth / 2}),
                                    at({col->x + col->width / 2, col->y + col->depth / 2}), Layer::Structure,
                                    true);
            int number = 0;
            for (Point p : b->piles()) {
                const Point c = at({b->centre.x + p.x, b->centre.y + p.y});
                const double r = answer.set->pile.diameter / 2 / scale;
                sheet.circle(c, r, Layer::Hidden);
                // Their numbers where these are as large as they can be read.
                if (++number; r > 2) sheet.text({c.x, c.y - 0.8}, 1.8, std::to_string(number), Align::Centre);
            }
        }
        for (const auto& b : answer.bases) {
            const auto& s = b->size();
            const Point c = at({b->centre.x + s.B / 2, b->centre.y + s.L / 2});
            sheet.text({c.x + 0.8, c.y - 2.2}, small,
                       model::baseName(*answer.set, answer.set->bases[b->number]));
            sheet.text({c.x + 0.8, c.y - 5}, small, b->type, Align::Left, true);
        }
        // The site, and how the columns are set out.
        const auto& site = answer.set->site;
        for (std::size_t i = 0; i < site.size(); ++i)
            sheet.line(at(site[i]), at(site[(i + 1) % site.size()]), Layer::Hidden);
        if (!site.empty()) sheet.text({at(site.front()).x + 1, at(site.front()).y + 1}, small, "site");
        for (int axis : {0, 1}) {
            std::vector<double> places;
            for (const auto& c : answer.set->columns) places.push_back(axis == 0 ? c.x : c.y);
            std::sort(places.begin(), places.end());
            places.erase(std::unique(places.begin(), places.end(),
                                     [](double a, double b) { return std::abs(a - b) < 1; }),
                         places.end());
            // Chains of very many are no help: places stand in the register then.
            if (places.size() > 40) continue;
            for (std::size_t i = 1; i < places.size(); ++i) {
                const std::string far = length(places[i] - places[i - 1], system);
                if (axis == 0)
                    sheet.dimension(at({places[i - 1], y0}), at({places[i], y0}), -12, far);
                else
                    sheet.dimension(at({x0, places[i]}), at({x0, places[i - 1]}), -12, far);
            }
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
            sheet.text({column.left() + 22, y}, text, fmt::format("{} no.", number));
            sheet.text({column.left() + 44, y}, text, size(*one.at(name), system));
            y -= 4.2;
        }
        if (!piles.empty() && double(piles.size()) * pileStep + 16 < y - 150) {
            std::size_t k = 0;
            addPiles(sheet, answer, piles, k, column.left() + 4, y - 5, 0, system);
            pilesBeside = true;
        }
        auto said = notes();
        if (pilesBeside)
            for (auto& n : pileNotes(answer, system)) said.push_back(std::move(n));
        column.notes(said, std::min(y - 4, 145.0));
        column.titleBlock(sheet.title, "-1");
        all.push_back(std::move(sheet));
    }
    // Of each type a plan, sections and the cage, in rows; the schedule stands on the first of them.
    std::map<std::string, const BasePart*> one;
    for (const auto& b : answer.bases) one.try_emplace(b->type, b.get());
    std::vector<const BasePart*> kinds;
    for (const auto& [name, number] : answer.types) kinds.push_back(one.at(name));
    // As large as all of them fit on one sheet, else 1:25 on several, of very many 1:50.
    const double fullTop = paper.height - SheetColumn::margin - 8,
                 fullRight = SheetColumn::leftMargin + wide + 15;
    double detail = kinds.size() <= 24 ? 25 : 50;
    // Plan over its two sections, and the cage beside them, half as large.
    struct Block {
        BaseFigure plan, along, across, cage;
        double width = 0, height = 0;
    };
    auto block = [&](const BasePart& base, double to) {
        Block b{basePlan(answer, base, design, to, system), baseSection(answer, base, 0, to, system),
                baseSection(answer, base, 1, to, system), baseCage(answer, base, {}, 1.6 * to)};
        b.width = std::max(b.plan.width + b.cage.width, b.along.width + b.across.width) + 10;
        b.height = std::max(b.plan.height, b.cage.height) + std::max(b.along.height, b.across.height) + 6;
        return b;
    };
    for (double s : {10.0, 20.0, 25.0}) {
        double x = SheetColumn::leftMargin + 6, y = fullTop, tallest = 0;
        bool fits = kinds.size() <= 40;
        for (std::size_t i = 0; i < kinds.size() && fits; ++i) {
            const auto b = block(*kinds[i], s);
            if (x + b.width > fullRight && tallest > 0)
                x = SheetColumn::leftMargin + 6, y -= tallest + 6, tallest = 0;
            fits = y - b.height >= SheetColumn::margin + 4 && x + b.width <= fullRight;
            x += b.width, tallest = std::max(tallest, b.height);
        }
        if (fits) {
            detail = s;
            break;
        }
    }
    if (!pilesBeside) addPileSheets(all, project, design, answer, piles, paper, wide);
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
            const auto b = block(*kinds[k], detail);
            const double w = b.width, h = b.height;
            if (x + w > right && tallest > 0) x = SheetColumn::leftMargin + 6, y -= tallest + 6, tallest = 0;
            if (y - h < SheetColumn::margin + 4 && y < top) break;
            const double middle = y - std::max(b.plan.height, b.cage.height);
            sheet.put(b.plan.sheet, {x, y - b.plan.height});
            sheet.put(b.cage.sheet, {x + b.plan.width, y - b.cage.height});
            sheet.put(b.along.sheet, {x, middle - 6 - b.along.height});
            sheet.put(b.across.sheet, {x + b.along.width, middle - 6 - b.across.height});
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

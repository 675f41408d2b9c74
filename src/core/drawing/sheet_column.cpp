#include "drawing/sheet_column.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

#include "design/revisions.h"

namespace talvik::drawing {

using units::Kind;

SheetColumn::SheetColumn(Sheet& sheet, const model::Project& project, const design::Design& design)
    : sheet_(sheet), project_(project), design_(design) {}
double SheetColumn::left() const {
    return sheet_.width - margin - width;
}
double SheetColumn::right() const {
    return sheet_.width - margin;
}
double SheetColumn::top() const {
    return sheet_.height - margin - 8;
}
std::string SheetColumn::num(double v, Kind kind) const {
    return units::number(v, kind, project_.basis.units);
}

std::size_t SheetColumn::schedule(const schedule::Schedule& all, double x, double& y, double right,
                                  double least, std::size_t from) const {
    sheet_.text({x, y}, 3, "Bar schedule", Align::Left, true);
    sheet_.text({right, y}, 2,
                fmt::format("shape codes and lengths: BS 8666, ISO 3766; minimum bends: {}",
                            design_.standard->anchorage->bendClause()),
                Align::Right);
    y -= 6;
    const auto system = project_.basis.units;
    const std::string l(units::unit(Kind::Length, system).symbol), m(units::unit(Kind::Mass, system).symbol);
    // Legs that no bar has are left out; the letters of revisions where one was fixed.
    std::string letters = "A";
    for (const auto& row : all.rows)
        for (const auto& [letter, value] : row.dimensions)
            if (letters.find(letter) == std::string::npos) letters += letter;
    std::sort(letters.begin(), letters.end());
    bool revised = false;
    for (const auto& row : all.rows) revised |= !row.revision.empty();
    std::vector<std::string> head{"Mark", "Size", "Memb.", "Each", "Total", "Length " + l, "Shape"};
    double size = 12;  // of the longest name
    for (const auto& row : all.rows) size = std::max(size, textWidth(row.bar, 2) + 2);
    std::vector<double> col{0, 10, 10 + size, 20 + size, 29 + size, 39 + size, 56 + size};
    double next = 67 + size;
    const double wide = std::min(17.0, (right - x - next - 18 - (revised ? 10 : 0)) / double(letters.size()));
    for (char letter : letters) {
        head.push_back(std::string(1, letter) + " " + l), col.push_back(next);
        next += wide;
    }
    if (revised) head.push_back("Rev."), col.push_back(next), next += 10;
    head.push_back("Mass " + m), col.push_back(next);
    for (std::size_t i = 0; i < head.size(); ++i) sheet_.text({x + col[i], y}, 2, head[i], Align::Left, true);
    y -= 2;
    sheet_.line({x, y}, {right, y}, Layer::Dimension);
    std::size_t k = from;
    const bool several = std::any_of(all.rows.begin(), all.rows.end(), [&](const schedule::Row& r) {
        return r.member != all.rows.front().member;
    });
    for (; k < all.rows.size(); ++k) {
        const auto& row = all.rows[k];
        y -= 4.2;
        if (several && y >= least + 4.2 && (k == from || row.member != all.rows[k - 1].member)) {
            y -= 0.8;
            sheet_.text({x, y}, 2, row.member, Align::Left, true);
            y -= 3.8;
        }
        if (y < least) {
            sheet_.text({x, y}, 2,
                        from == 0 && k + 1 < all.rows.size() && least > 60
                            ? fmt::format("… all {} marks are in the schedule.", all.rows.size())
                            : "… goes on");
            break;
        }
        std::vector<std::string> cells{fmt::format("{:02}", row.mark),
                                       row.bar,
                                       std::to_string(row.members),
                                       std::to_string(row.number),
                                       std::to_string(row.total()),
                                       num(row.cutLength, Kind::Length),
                                       row.shape};
        for (char letter : letters) {
            auto it = row.dimensions.find(letter);
            cells.push_back(it == row.dimensions.end() ? std::string("–") : num(it->second, Kind::Length));
        }
        if (revised) cells.push_back(row.revision);
        cells.push_back(num(row.mass(), Kind::Mass));
        for (std::size_t i = 0; i < cells.size(); ++i) sheet_.text({x + col[i], y}, 2, cells[i]);
    }
    y -= 2;
    sheet_.line({x, y}, {right, y}, Layer::Dimension);
    if (k < all.rows.size() && least < 100) return k;  // the total stands where the table ends
    y -= 4.2;
    std::string totals;
    for (const auto& t : all.totals)
        totals += (totals.empty() ? "" : ", ") + t.bar + " " + units::text(t.mass, Kind::Mass, system);
    for (const auto& line : wrapped(
             "Total " + units::text(all.mass, Kind::Mass, system) + " (" + totals + ")", 2.1, right - x)) {
        sheet_.text({x, y}, 2, line, Align::Left, true);
        y -= 3.6;
    }
    y += 3.6;
    return k;
}

void SheetColumn::notes(const std::vector<std::string>& all, double y) const {
    const double x = left() + 4, least = revisions(margin + 48) + 4;
    sheet_.text({x, y}, 3, "Notes", Align::Left, true);
    y -= 5;
    int number = 1;
    for (const auto& note : all) {
        const auto lines = wrapped(note, 2.2, width - 16);
        if (y - 3.8 * double(lines.size()) < least) {
            sheet_.text({x, y}, 2.2, "Further notes are in the report.");
            return;
        }
        sheet_.text({x, y}, 2.2, fmt::format("{}.", number++));
        for (const auto& line : lines) {
            sheet_.text({x + 7, y}, 2.2, line);
            y -= 3.8;
        }
        y -= 0.8;
    }
}

void SheetColumn::titleBlock(const std::string& title, const std::string& number) const {
    sheet_.rectangle({leftMargin, margin}, {sheet_.width - margin, sheet_.height - margin}, Layer::Frame);
    sheet_.line({left(), margin}, {left(), sheet_.height - margin}, Layer::Frame);
    const double y = margin, h = 48, x = left();
    sheet_.line({x, y + h}, {right(), y + h}, Layer::Frame);
    sheet_.line({x, y + 16}, {right(), y + 16}, Layer::Dimension);
    const double step = width / 5;
    for (int i = 1; i < 5; ++i) sheet_.line({x + i * step, y}, {x + i * step, y + 16}, Layer::Dimension);
    sheet_.text({x + 4, y + 40}, 2, "Project");
    sheet_.text({x + 4, y + 34}, 4, project_.name, Align::Left, true);
    sheet_.text({x + 4, y + 28}, 2, "Drawing");
    sheet_.text({x + 4, y + 21}, 3.5, title, Align::Left, true);
    const char* paper = "A2";
    for (const auto& p : model::papers())
        if (std::abs(sheet_.width - p.width) < 1) paper = p.name;
    const std::string drawn = project_.sheet.number.empty() ? std::string() : project_.sheet.number + number;
    const std::array<std::pair<std::string, std::string>, 5> cells{
        std::pair<std::string, std::string>{"Drawing no.", drawn},
        {"Revision", project_.sheet.revision},
        {fmt::format("Scale at {}", paper),
         sheet_.scale > 1 ? fmt::format("1:{:.0f}", sheet_.scale) : "as noted"},
        {"Date", project_.sheet.date},
        {"Drawn", project_.sheet.author}};
    for (std::size_t i = 0; i < cells.size(); ++i) {
        sheet_.text({x + double(i) * step + 3, y + 11}, 1.8, cells[i].first);
        sheet_.text({x + double(i) * step + 3, y + 4}, 2.8, cells[i].second.empty() ? "–" : cells[i].second,
                    Align::Left, true);
    }
    if (!project_.sheet.note.empty())
        sheet_.text({right() - 4, y + h - 8}, 2, project_.sheet.note, Align::Right);
}

double SheetColumn::revisions(double y) const {
    const auto& all = project_.revisions;
    if (all.empty()) return y;
    const double x = left() + 4;
    // The last ones, so many as there is room for.
    const std::size_t from = all.size() > 6 ? all.size() - 6 : 0;
    y += 4.2 * double(all.size() - from + 1) + 2;
    const double top = y;
    double line = y - 3;
    sheet_.text({x, line}, 2, "Rev.", Align::Left, true);
    sheet_.text({x + 12, line}, 2, "Date", Align::Left, true);
    sheet_.text({x + 34, line}, 2, "By", Align::Left, true);
    sheet_.text({x + 60, line}, 2, "Note", Align::Left, true);
    for (std::size_t i = from; i < all.size(); ++i) {
        line -= 4.2;
        sheet_.text({x, line}, 2, all[i]->letter);
        sheet_.text({x + 12, line}, 2, all[i]->date);
        sheet_.text({x + 34, line}, 2, all[i]->author);
        const auto words = wrapped(all[i]->note, 2, right() - x - 64);
        if (!words.empty()) sheet_.text({x + 60, line}, 2, words.front() + (words.size() > 1 ? " …" : ""));
    }
    sheet_.line({left(), top}, {right(), top}, Layer::Dimension);
    return top;
}

void SheetColumn::north(Point at, double degrees) const {
    const double a = degrees * std::numbers::pi / 180;
    const Point way{std::cos(a), std::sin(a)}, side{-way.y, way.x};
    auto point = [&](double along, double across) {
        return Point{at.x + along * way.x + across * side.x, at.y + along * way.y + across * side.y};
    };
    sheet_.circle(at, 5, Layer::Dimension);
    sheet_.line(point(-5, 0), point(5, 0), Layer::Outline);
    sheet_.items.emplace_back(
        Polyline{{point(5, 0), point(0.5, 1.6), point(0.5, 0)}, true, true, Layer::Outline});
    const Point n = point(8, 0);
    sheet_.text({n.x, n.y - 1.2}, 2.5, "N", Align::Centre, true);
}

std::string linkCallout(const schedule::Item& item, const design::Design& design, units::System system) {
    return fmt::format("{} {}-{:02} links {}", item.number, item.bar,
                       design.marks.at(schedule::signature(item)),
                       units::text(item.spacing, units::Kind::BarSpacing, system));
}

void addItemNotes(const std::vector<schedule::Item>& items, const schedule::Marks& marks,
                  std::vector<std::string>& all) {
    std::map<std::string, std::vector<int>> of;  // note to marks
    std::vector<std::string> order;
    for (const auto& item : items) {
        if (item.note.empty()) continue;
        auto& list = of[item.note];
        if (list.empty()) order.push_back(item.note);
        const int mark = marks.at(schedule::signature(item));
        if (std::find(list.begin(), list.end(), mark) == list.end()) list.push_back(mark);
    }
    for (const auto& note : order) {
        const auto& list = of[note];
        std::string which;
        for (std::size_t k = 0; k < list.size() && k < 12; ++k)
            which += fmt::format("{}{:02}", k == 0 ? "" : ", ", list[k]);
        if (list.size() > 12) which += ", …";
        all.push_back(fmt::format("Mark{} {}: {}.", list.size() > 1 ? "s" : "", which, note));
    }
}

void addRevisionNotes(const design::Design& design, const design::ElementAnswer& element,
                      std::vector<std::string>& all) {
    const auto* before = design::compared(design);
    if (!before) return;
    all.push_back(fmt::format("Clouds: changed since revision {}.", before->letter));
    const auto gone = design::gone(design, element);
    std::string words;
    for (std::size_t i = 0; i < gone.size() && i < 8; ++i) words += (i ? "; " : "") + gone[i];
    if (gone.size() > 8) words += fmt::format("; and {} more", gone.size() - 8);
    if (!gone.empty()) all.push_back("Deleted since last revision: " + words + ".");
}

void cloud(Sheet& sheet, const geometry::Ring& box) {
    std::vector<Point> points;
    const double turn = geometry::area(box) > 0 ? 1 : -1;
    for (std::size_t i = 0; i < box.size(); ++i) {
        const Point a = box[i], b = box[(i + 1) % box.size()];
        const double length = geometry::length(a, b);
        const int n = std::max(1, int(std::round(length / 2.6)));
        const Point way{(b.x - a.x) / n, (b.y - a.y) / n};
        for (int k = 0; k < n; ++k)
            for (int j = 0; j < 6; ++j) {  // half a circle outwards
                const double t = std::numbers::pi * j / 6;
                const double along = k + 0.5 - 0.5 * std::cos(t), out = 0.35 * std::sin(t) * turn;
                points.push_back({a.x + along * way.x + out * way.y, a.y + along * way.y - out * way.x});
            }
    }
    sheet.items.emplace_back(Polyline{std::move(points), true, false, Layer::Perimeter});
}

void addCheckNotes(const std::vector<const checks::Check*>& checks, std::vector<std::string>& all) {
    int over = 0;
    std::string unchecked;
    for (const auto* c : checks) {
        over += c->outcome == checks::Outcome::Over;
        if (c->outcome == checks::Outcome::NotChecked)
            unchecked += (unchecked.empty() ? "" : "; ") + c->title;
    }
    if (over > 0)
        all.insert(all.begin(), over == 1 ? std::string("NOT FOR CONSTRUCTION: 1 check fails.")
                                          : fmt::format("NOT FOR CONSTRUCTION: {} checks fail.", over));
    if (!unchecked.empty()) all.push_back("Not checked by this calculation: " + unchecked + ".");
}

}  // namespace talvik::drawing

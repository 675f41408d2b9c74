#include "drawing/sheet_column.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>

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
                fmt::format("shape codes and lengths: BS 8666, ISO 3766; least bends: {}",
                            design_.standard->anchorage->bendClause()),
                Align::Right);
    y -= 6;
    const std::array<double, 9> col{0, 12, 32, 44, 58, 79, 100, 121, 147};
    const auto system = project_.basis.units;
    const std::string l(units::unit(Kind::Length, system).symbol), m(units::unit(Kind::Mass, system).symbol);
    const std::array<std::string, 9> head{"Mark",   "Size",   "No.",      "Shape",    "A " + l,
                                          "B " + l, "C " + l, "Cut " + l, "Mass " + m};
    for (std::size_t i = 0; i < head.size(); ++i) sheet_.text({x + col[i], y}, 2, head[i], Align::Left, true);
    y -= 2;
    sheet_.line({x, y}, {right, y}, Layer::Dimension);
    std::size_t k = from;
    for (; k < all.rows.size(); ++k) {
        const auto& row = all.rows[k];
        y -= 4.2;
        if (y < least) {
            sheet_.text({x, y}, 2,
                        from == 0 && k + 1 < all.rows.size() && least > 60
                            ? fmt::format("… all {} marks are in the schedule.", all.rows.size())
                            : "… goes on");
            break;
        }
        auto leg = [&](char letter) {
            auto it = row.dimensions.find(letter);
            return it == row.dimensions.end() ? std::string("–") : num(it->second, Kind::Length);
        };
        const std::array<std::string, 9> cells{fmt::format("{:02}", row.mark),
                                               row.bar,
                                               std::to_string(row.number),
                                               row.shape,
                                               leg('A'),
                                               leg('B'),
                                               leg('C'),
                                               num(row.cutLength, Kind::Length),
                                               num(row.mass(), Kind::Mass)};
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
    const double x = left() + 4;
    sheet_.text({x, y}, 3, "Notes", Align::Left, true);
    y -= 5;
    int number = 1;
    for (const auto& note : all) {
        const auto lines = wrapped(note, 2.2, width - 16);
        if (y - 3.8 * double(lines.size()) < margin + 52) {
            sheet_.text({x, y}, 2.2, "Further notes stand in the report.");
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
    const std::array<std::pair<const char*, double>, 5> papers{
        std::pair<const char*, double>{"A4", 297}, {"A3", 420}, {"A2", 594}, {"A1", 841}, {"A0", 1189}};
    const char* paper = "A2";
    for (const auto& [name, wide] : papers)
        if (std::abs(sheet_.width - wide) < 1) paper = name;
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

void addCheckNotes(const std::vector<const checks::Check*>& checks, std::vector<std::string>& all) {
    int over = 0;
    std::string unchecked;
    for (const auto* c : checks) {
        over += c->outcome == checks::Outcome::Over;
        if (c->outcome == checks::Outcome::NotChecked)
            unchecked += (unchecked.empty() ? "" : "; ") + c->title;
    }
    if (over > 0)
        all.insert(all.begin(), fmt::format("NOT FOR CONSTRUCTION: {} checks are over their limits.", over));
    if (!unchecked.empty()) all.push_back("Not checked by this calculation: " + unchecked + ".");
}

}  // namespace talvik::drawing

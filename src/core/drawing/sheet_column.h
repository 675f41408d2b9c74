// The right-hand column of a sheet: schedule, notes, title block.
#pragma once

#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

class SheetColumn {
  public:
    static constexpr double margin = 10, leftMargin = 20, width = 188;  // of the sheet; mm of paper
    SheetColumn(Sheet& sheet, const model::Project& project, const design::Design& design);
    double left() const, right() const, top() const;

    // A table of marks from y downwards, y then below it. Rows that would lie below `least` are left out, and
    // a line says so; `from`: the first row. Gives the first row that is left.
    std::size_t schedule(const schedule::Schedule& all, double x, double& y, double right, double least,
                         std::size_t from = 0) const;
    // Notes from y downwards, above the table of revisions.
    void notes(const std::vector<std::string>& all, double y) const;
    // An arrow to the north round a point.
    void north(Point at, double degrees) const;
    // And the frame of the sheet.
    void titleBlock(const std::string& title, const std::string& number = {}) const;

  private:
    Sheet& sheet_;
    const model::Project& project_;
    const design::Design& design_;
    // The table of what was fixed, above y; its upper end.
    double revisions(double y) const;
    std::string num(double v, units::Kind kind) const;
};

// Notes of bars and of what was checked, added where they are not among them.
void addItemNotes(const std::vector<schedule::Item>& items, const schedule::Marks& marks,
                  std::vector<std::string>& all);
// "24 H8-07 links 150 mm": links of a stretch with the spacing of their rows.
std::string linkCallout(const schedule::Item& item, const design::Design& design, units::System system);
// What was called out in the revision compared with and is no longer.
void addRevisionNotes(const design::Design& design, const design::ElementAnswer& element,
                      std::vector<std::string>& all);
// A line in arcs round a text that changed since the revision before.
void cloud(Sheet& sheet, const geometry::Ring& box);
void addCheckNotes(const std::vector<const checks::Check*>& checks, std::vector<std::string>& all);

}  // namespace talvik::drawing

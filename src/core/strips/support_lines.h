// Lines of supports of one direction: columns, piles, walls, beams and line supports that follow each other.
// Inside this room only. All points are local to the direction: u along it, v to its left, mm.
#pragma once

#include "strips/strip_layout.h"

namespace talvik::strips {

// Something that holds the slab.
struct Element {
    Id id;
    std::string name;
    Support::Kind kind = Support::Kind::Column;
    Point a, b;          // a.x <= b.x; the same for columns
    Point at;            // plan
    double half = 0;     // of its size along the strip (columns) or of its thickness
    double across = 0;   // of a column, across the strip
    bool turns = false;  // the slab is free to turn on it
    bool column() const { return kind == Support::Kind::Column; }
    double vAt(double u) const;
};

struct Chain {
    SupportLine out;
    std::vector<Support> supports;  // u ascending; those on the line and those that cross it
    bool beam = false, wall = false, columns = false;  // what runs along it or stands on it by itself
    std::vector<std::pair<double, double>> walls;      // u from and to of walls and line supports along it
    double first = 0, last = 0;                        // u of its own supports
    double start() const { return out.points.front().x; }
    double end() const { return out.points.back().x; }
    double v(double u) const;
    // Length of the span in which u lies, or of the one nearest.
    double spanAt(double u) const;
    // Held by members that cross and by nothing of its own: the slab spans one way.
    bool onLines() const;
    // So held, and no column stands below where they cross: nothing peaks, the strip is as wide as the slab it has.
    bool fullWidth() const;
};

class SupportLines {
  public:
    // `domain`: the slab, plan. `join`: whether lines are sought, or only what could be on them.
    SupportLines(const model::Floor& floor, double angle, const std::vector<Ring>& domain, bool join = true);

    const Axes& axes() const { return axes_; }
    const std::vector<Ring>& slab() const { return local_; }
    Point low() const { return low_; }  // of its bounding box
    Point high() const { return high_; }
    const std::vector<Chain>& lines() const { return lines_; }          // v ascending
    const std::vector<Element>& elements() const { return elements_; }  // along the direction, and columns
    // Where members that cross the direction meet a line of points, as supports of it.
    void addCrossing(std::vector<Support>& all, const std::vector<Point>& line) const;
    void wallEnds(const Element& e, std::vector<Support>& all) const;

  private:
    const model::Floor& f_;
    Axes axes_;
    std::vector<Ring> local_;
    Point low_, high_;
    std::vector<Element> elements_, across_;
    std::vector<Chain> lines_;

    bool inside(Point local, double tolerance = 400) const;
    void gather();
    bool onSlab(Point p, Point q) const;
    void link();
    void make(const std::vector<int>& chain, const std::vector<int>& host);
    double reach(Point p, int sign) const;
    void extend(Chain& l) const;
    void nameLines();
};

// Puts supports in order of u and makes those that touch one: a column keeps its name and place.
void joinTouching(std::vector<Support>& all);

// By number, then by letter: "c9" before "c10".
bool smaller(const Id& a, const Id& b);

}  // namespace talvik::strips

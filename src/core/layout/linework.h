// Lines of a drawing below the plan, and what can be made of them. Points are in the drawing's own units
// until an Underlay places them.
#pragma once

#include <map>
#include <set>

#include "layout/placing.h"

namespace talvik::layout {

struct Path {
    int layer = 0;
    model::Outline corners;  // `bulge` as in outlines; an open path's last bulge means nothing
    bool closed = false;
};
struct Linework {
    std::vector<std::string> layers;
    std::vector<bool> offInFile;  // layers switched off or frozen there
    std::vector<Path> paths;
    double unit = 1;  // mm per unit, as the file says
    bool unitKnown = false;
    std::map<std::string, int> unread;  // what was left out, and how often
    std::vector<std::string> notes;     // sentences
};

// The placing of new linework: in the file's unit, where it was drawn; moved to the origin when it lies more
// than a kilometre away.
model::Underlay placeAsDrawn(const Linework& work, std::string name);
// Turned, scaled and moved so that the file's points p and q come to lie on a and b.
void placeByTwoPoints(model::Underlay& under, Point a, Point b, Point newA, Point newB);

Point placed(const model::Underlay& under, Point p);
model::Outline placed(const model::Underlay& under, const model::Outline& corners);
// Straight pieces of the layers that are shown, in plan; arcs within 20 mm.
std::vector<Segment> segments(const Linework& work, const model::Underlay& under);
// The path of a shown layer nearest to a plan point within a tolerance, -1 for none.
int pathAt(const Linework& work, const model::Underlay& under, Point p, double tolerance);

// Joins paths that meet end to end (within 5 mm in plan) into closed outlines; what stays open comes last.
struct Joined {
    std::vector<model::Outline> closed, open;
};
Joined join(const Linework& work, const model::Underlay& under, const std::vector<int>& paths);

enum class As { Slab, Zone, Opening, Column, Wall, Beam, LineSupport, AreaLoad, LineLoad, Grid };
// Makes members of paths: outlines of closed ones; columns of circles and four-sided outlines (others become
// the rectangle around them); walls and beams of long rectangles, or of lines with the width in `like`; a
// grid of straight lines in two directions. `notes` gets a sentence for each path that does not fit.
Ids make(Project& project, Floor& floor, const Linework& work, const model::Underlay& under,
         const std::vector<int>& paths, As as, const model::Id& loadCase, std::vector<std::string>& notes);

}  // namespace talvik::layout

// Placing, copying and changing members of a floor: what the drawing tools, the import and tests call. Each
// function changes `floor`, which belongs to `project` (ids come from there), and returns the ids it made or
// touched. Plan mm, degrees anticlockwise.
#pragma once

#include <map>
#include <set>

#include "layout/grid.h"

namespace talvik::layout {

using model::Floor;
using model::Id;
using model::Project;
using Ids = std::vector<Id>;

struct Box {
    Point a, b;  // any two opposite corners
    bool contains(Point p) const;
};

// The next free name with a prefix: "W3".
std::string freeName(const Floor& floor, const std::string& prefix);

// A new floor with a case of self-weight, one of finishes and one of imposed load, without members.
Id addFloor(Project& project, std::string name);

// One member, named by itself where it has no name: columns after their grid crossing, the rest by a letter
// and a number. The id in `like` is ignored.
Id add(Project& project, Floor& floor, model::Column like);
Id add(Project& project, Floor& floor, model::Wall like);
Id add(Project& project, Floor& floor, model::FloorBeam like);
Id add(Project& project, Floor& floor, model::LineSupport like);
Id add(Project& project, Floor& floor, model::SagLine like);
Id add(Project& project, Floor& floor, model::SlabArea like);
Id add(Project& project, Floor& floor, model::Zone like);
Id add(Project& project, Floor& floor, model::Opening like);
Id add(Project& project, Floor& floor, model::Pile like);
Id add(Project& project, Floor& floor, model::Ground like);
Id add(Project& project, Floor& floor, model::FloorLoad like);
Id add(Project& project, Floor& floor, model::Grid like);
Id add(Project& project, Floor& floor, model::LoadCase like);

// Columns on the grid crossings in the box where none stands yet.
Ids placeColumns(Project& project, Floor& floor, const Box& box, const model::Column& like);
// Beams along the sides of the grid bays whose middles lie in the box, each from crossing to crossing; sides
// that have a beam stay as they are.
Ids placeBeams(Project& project, Floor& floor, const Box& box, const model::FloorBeam& like);
// A slab on each grid bay whose middle lies in the box and in no slab; sides with no slab beyond them reach the outer
// faces of the beams, walls and columns that stand on them.
Ids placePanels(Project& project, Floor& floor, const Box& box, const model::SlabArea& like);
// Cuts a beam at every column, wall and other beam that it passes over: pieces in its place. One piece: none.
Ids splitBeam(Project& project, Floor& floor, const Id& beam);

void move(Floor& floor, const std::set<Id>& ids, Point by);
void rotate(Floor& floor, const std::set<Id>& ids, Point about, double degrees);
void remove(Floor& floor, const std::set<Id>& ids);  // with loads of removed cases and factors on them
// Copies, each moved by a further `by`.
Ids copy(Project& project, Floor& floor, const std::set<Id>& ids, Point by, int times = 1);
// Copies mirrored in the line a b.
Ids mirror(Project& project, Floor& floor, const std::set<Id>& ids, Point a, Point b);
// Copies at every other crossing of the grid's row ("along") or column of crossings, or both, through the
// crossing nearest to the members.
Ids repeatAlongGrid(Project& project, Floor& floor, const std::set<Id>& ids, bool along, bool across);

// Places rounded to thousandths of a millimetre, which the file keeps exactly: what is read again is what was
// drawn.
void roundPlaces(Floor& floor);

// An outline with one side, or all sides (side < 0), moved outwards by a distance. Straight neighbours are
// lengthened to meet it; empty when that is not possible, or a side touched is an arc.
model::Outline offsetSide(const model::Outline& outline, int side, double distance);
// The side of an outline with a new length: its end moves along it.
model::Outline setSideLength(const model::Outline& outline, std::size_t side, double length);
model::Outline rectangle(Point a, Point b);

// Members within a box, or crossing it.
std::set<Id> inside(const Floor& floor, const Box& box, bool crossing);
// What lies under a point within a tolerance, the smallest kind first; empty where nothing does.
Id hit(const Floor& floor, Point p, double tolerance);
std::vector<Id> hits(const Floor& floor, Point p, double tolerance);

// "Column B2", "Line load Finishes": of one member, and of all.
std::string displayName(const Floor& floor, const Id& id);
std::map<Id, std::string> displayNames(const Floor& floor);

// Corners and ends that can be dragged, in the order in which `setHandle` numbers them.
std::vector<Point> handles(const Floor& floor, const Id& id);
void setHandle(Floor& floor, const Id& id, std::size_t handle, Point to);

// Gives f the outline of the member: of slabs, zones, openings, grounds and area loads. False otherwise.
const model::Outline* outlineOf(const Floor& floor, const Id& id);
model::Outline* outlineOf(Floor& floor, const Id& id);

// The load of a case on every slab, null without; and the same, made where there is none.
const model::FloorLoad* loadEverywhere(const model::Floor& floor, const model::Id& loadCase);
model::FloorLoad& loadEverywhere(model::Project& project, model::Floor& floor, const model::Id& loadCase);

}  // namespace talvik::layout

// Panels: the bays into which columns, walls and beams divide the slabs, their clear spans and how they
// carry. Plan mm, degrees.
#pragma once

#include "layout/grid.h"

namespace talvik::layout {

enum class SideKind { Free, Line, Columns };  // slab edge, wall/beam/line support, line of columns

struct Panel {
    std::string name;  // "A-B/1-2" with a grid, else "P3"
    geometry::Ring outline;
    std::vector<geometry::Ring> parts;  // the outline and narrow strips beyond its supports: together every
                                        // panel's parts cover the slabs
    Point centre;
    double thickness = 0;  // of the slab around the centre
    // The two directions in which spans are measured: that of the grid's numbered lines' row, and the other.
    struct Span {
        double angle = 0;
        double clear = 0, length = 0;  // face to face; axis to axis
        SideKind ends[2] = {SideKind::Free, SideKind::Free};
        bool continuous[2] = {false, false};  // slab goes on beyond the support
    } spans[2];
    bool oneWay = false;
    double direction = 0;                  // of a one-way panel's span
    std::string reason;                    // why one-way or two-way
    bool chosen = false;                   // by someone, against or with what the sides say
    bool differs = false;                  // from what the sides say
    int chequer = 0, row = 0, column = 0;  // for arrangements of load: colour of a chessboard, strips
};

// Panels from left to right in rows from below. Empty without slabs or supports.
std::vector<Panel> findPanels(const model::Floor& floor);

// Sets a choice for the panel around each point; no choice: what its sides say again.
void choosePanels(model::Project& project, model::Floor& floor, const std::vector<Panel>& panels,
                  const std::vector<std::size_t>& which, std::optional<model::PanelChoice> choice);

// Formwork of these panels raised by so much; 0: level.
void setCamber(model::Project& project, model::Floor& floor, const std::vector<Panel>& panels,
               const std::vector<std::size_t>& which, double rise);
// What it is raised by in the middle.
double camberOf(const model::Floor& floor, const Panel& panel);

}  // namespace talvik::layout

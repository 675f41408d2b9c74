// Places for texts on a sheet, where they meet neither other texts nor bars. Paper mm.
#pragma once

#include "drawing/drawing.h"

namespace talvik::drawing {

class LabelPlaces {
  public:
    LabelPlaces(Point low, Point high) : low_(low), high_(high) {}  // texts stay within
    void block(Point a, Point b);                                   // a bar
    void blockText(const geometry::Ring& box);                      // a text that stands already
    bool free(const geometry::Ring& box) const;                     // of texts and bars, and within
    // How many bars lie along a line, nearer than a text is high.
    int beside(Point a, Point b) const;

    struct Place {
        Text text;
        Point tip;            // to which it belongs
        bool leader = false;  // a line leads from the text to it
    };
    // The first of the places offered that is free; else the nearest free one around `tip`, with a leader.
    // False where there is none: the text is then left where it was wanted first.
    bool put(const std::vector<Text>& offered, Point tip, Place& out);
    static geometry::Ring box(const Text& text, double margin = 0.4);

  private:
    struct Box {
        geometry::Ring ring;
        Point low, high;
    };
    struct Bar {
        Point a, b;
    };
    Point low_, high_;
    std::vector<Box> texts_;
    std::vector<Bar> bars_;
    static Box boxed(geometry::Ring ring);
};

// The line from the nearest point of a placed text to what it belongs to.
void leader(Sheet& sheet, const LabelPlaces::Place& place);

}  // namespace talvik::drawing

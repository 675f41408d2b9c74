// What the panels around a span of a strip say about it: how they carry, and what least thickness goes by.
#pragma once

#include "layout/panels.h"
#include "standards/rules.h"
#include "strips/strip_layout.h"

namespace talvik::design {

// The panel's own data in the terms of standards::SlendernessInput. A value.
struct SpanPanel {
    standards::SlendernessInput::Panel kind = standards::SlendernessInput::Panel::OneWay;
    double longer = 0, shorter = 0;  // clear
    bool exterior = false, edgeBeam = false, drop = false, softEdge = false;
    double stiffness = 99;
    bool oneWay = false;   // by its sides or by someone's word
    bool across = false;   // a one-way panel that spans the other way
    bool longWay = false;  // a panel on lines whose longer span this is
    bool known = false;    // a panel was found here
    bool twoWay() const { return known && kind != standards::SlendernessInput::Panel::OneWay; }
};

// Of a panel, seen by a strip that runs at `angle` (degrees).
SpanPanel spanPanel(const layout::Panel& panel, const model::Floor& floor, double angle);
// Per span of a strip: the panel in which it lies; of the two beside a line of supports the one on columns,
// else that which carries both ways, else that with the longer span.
std::vector<SpanPanel> spanPanels(const strips::Strip& strip, const model::Floor& floor,
                                  const std::vector<layout::Panel>& panels);

// Whether thickenings at the columns of a panel are drop panels: a quarter of the slab deeper at least and a
// sixth of the span from the column's centre in each direction (ACI 318-19 8.2.4), at every column of the
// panel.
bool hasDropPanels(const layout::Panel& panel, const model::Floor& floor);

}  // namespace talvik::design

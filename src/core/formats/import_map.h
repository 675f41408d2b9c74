// What the lines of a drawing become, as a JSON file: for `talvik import` and for offices that draw alike.
//
//   {"talvik_import": 1, "floor": "Deck", "make": [{"as": "slab", "layers": ["SLAB"], "set": {"thickness":
//   "250 mm"}}]}
//
// Keys: "floor" (name), "place" (optional: "from", two points in the file's units, and "to_mm", where they
// lie), "cases" (optional, name, nature, use), "make" (a list; each with "as", "layers", and "set", property
// to text such as "250 mm"; loads also with "case"), "loads" (optional: whole-floor area loads, "case",
// "value", "layers" of material, thickness_mm, density_kN_m3; with "point_m" and "footprint_m" a point load).
#pragma once

#include "formats/dxf_reading.h"
#include "formats/project_file.h"

namespace talvik::formats {

struct Imported {
    model::Project project;
    std::vector<model::Diagnostic> trouble;  // located in the map; the project is then not changed
    std::vector<std::string> notes;          // what did not fit, what was left out
    std::vector<std::string> made;           // "14 columns from COLUMN"
};
// Adds a floor to the project: the drawing as underlay (named `file`), and the members that the map asks for.
Imported importFloor(model::Project project, const ReadLinework& drawing, const std::string& file,
                     std::string_view map);

}  // namespace talvik::formats

// Columns with their characteristic loads from a table (CSV), and the ground of bases from JSON: the formats
// of docs/bases-format.md.
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "model/project.h"

namespace talvik::formats {

// A set with cases, columns and a base for each column; what was kept out as sentences that begin with "row
// N".
struct ColumnLoads {
    model::BaseSet set;
    std::vector<std::string> keptOut;  // rows, and columns that went with them
    std::vector<std::string> notes;    // what was taken as it is, with a word
    std::string error;                 // why nothing can be used; empty where something can
};
// `headers`: our name of a column of the table -> the text of its header. Ids come from `project`.
ColumnLoads readColumnLoads(std::string_view csv, const std::map<std::string, std::string>& headers,
                            model::Project& project);
// A table that can be read, with every head and a few rows to write over.
std::string columnLoadsTemplate(units::System system);
// MAP.json. A sentence where it cannot be used.
std::string readColumnMap(std::string_view json, std::map<std::string, std::string>& headers);

// GROUND.json, into the basis of a project and a set. A sentence that names the key where it cannot be used.
// `notes` is told what of it could not be followed: columns that are named and not there.
std::string readGround(std::string_view json, model::Project& project, model::BaseSet& set,
                       std::string& source, std::vector<std::string>* notes = nullptr);

}  // namespace talvik::formats

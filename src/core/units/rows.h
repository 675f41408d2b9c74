// Several rows of values typed in one line: "0 0; 46 0; 46 19".
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "units/units.h"

namespace talvik::units {

// Rows end with a semicolon, values with a blank (or a comma and a blank); each has the kind of its place, in
// display units of the system. Values of the last kinds may be missing, not more than `optional`. On an error
// there are no rows, and a sentence says which row.
struct Rows {
    std::vector<std::vector<double>> rows;
    std::string error;
};
Rows parseRows(std::string_view text, const std::vector<Kind>& kinds, System system,
               std::size_t optional = 0);
// The same back as text.
std::string rowsText(const std::vector<std::vector<double>>& rows, const std::vector<Kind>& kinds,
                     System system);

}  // namespace talvik::units

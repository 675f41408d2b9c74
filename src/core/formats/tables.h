// Tables that leave the program: bar schedule as CSV and XLSX, results as JSON.
#pragma once

#include <string>

#include "design/design.h"
#include "design/sweep.h"

namespace talvik::formats {

// Schedule of all slabs; lengths in mm (or inches in US units), masses in kg (or lb). One row per mark, then
// totals.
std::string scheduleCsv(const model::Project& project, const design::Design& design);
// The same as a workbook with sheets for the bars, the totals, the quantities and the cutting list. Empty on
// success, else a sentence.
std::string writeScheduleXlsx(const std::string& path, const model::Project& project,
                              const design::Design& design);

// Checks with their working, reactions, totals, and the strips of floors with their bars, as JSON with sorted
// keys; values in the project's displayed units, positions along a strip from the plan's origin.
std::string resultsJson(const model::Project& project, const design::Design& design);

// Of sets of bases (docs/bases-format.md): a row for each base, metric; and all their checks as a list.
std::string baseRegisterCsv(const design::Design& design);
std::string writeBaseRegisterXlsx(const std::string& path, const design::Design& design);
// Every pile of the caps: number, place, level of its head and what it carries; and that in every
// combination.
std::string pileScheduleCsv(const design::Design& design);
std::string pileReactionsCsv(const design::Design& design);
std::string baseChecksJson(const design::Design& design);

// A row for each design of a sweep, in display units.
std::string sweepCsv(const std::vector<design::SweepPoint>& points, const model::Project& project);

}  // namespace talvik::formats

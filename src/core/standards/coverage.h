// The list of a standard's clauses and what this program does with each: data/coverage_*.json, of which
// docs/coverage.md is made.
#pragma once

#include "standards/rules.h"

namespace talvik::standards {

// What the list says is not checked and worth a word beside the checks. `prefix` stands before clauses that
// name no standard of their own.
std::vector<Omission> omissions(std::string_view file, const std::string& prefix);

}  // namespace talvik::standards

// The quantities of a project on one page, and the list by which its bars are cut from stock.
#pragma once

#include "report/report.h"

namespace talvik::report {

Document quantitiesPage(const model::Project& project, const design::Design& design);
// Adds the same to a document, under a heading.
void addQuantities(Document& document, const model::Project& project, const design::Design& design);

// Every stock bar with the pieces cut from it, size by size, and the waste beside the least that any cutting
// could reach.
Document cuttingPage(const model::Project& project, const design::Design& design);

}  // namespace talvik::report

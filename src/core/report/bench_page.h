// One page for a section or panel of the bench: what was put in, sketch, bars, checks with their working.
#pragma once

#include "design/bench.h"
#include "report/report.h"

namespace talvik::report {

// The working of the check that governs, or of all of them. The answer must outlive the document.
Document benchPage(const design::BenchInput& input, const design::BenchAnswer& answer,
                   const model::Basis& basis, bool allWorking = false);

}  // namespace talvik::report

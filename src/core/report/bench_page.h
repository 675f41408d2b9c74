// One page for a section or panel of the bench: what was put in, sketch, bars, checks with their working.
#pragma once

#include "opinions/bench.h"
#include "report/report.h"

namespace talvik::report {

// The working of the check that governs, or of all of them. The answer must outlive the document.
Document benchPage(const opinions::BenchInput& input, const opinions::BenchAnswer& answer,
                   const model::Basis& basis, bool allWorking = false);

}  // namespace talvik::report

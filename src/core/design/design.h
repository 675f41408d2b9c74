// The whole pipeline: a project snapshot in, everything the window, the report and the command line show out.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "analysis/slab_analysis.h"
#include "checks/checks.h"
#include "design/opinion.h"
#include "line/one_way.h"
#include "model/project.h"
#include "schedule/schedule.h"
#include "standards/rules.h"
#include "verify/line_checks.h"

namespace talvik::design {

// Sag of a span at its stations, mm, positive downwards. `live` is empty where the standard has no such
// limit.
struct SpanSag {
    std::vector<double> x, total, after, live;
    double largest = 0, at = 0;
    double limit = 0;   // of the total; 0 where it is not judged
    double camber = 0;  // proposed at mid-span or tip, 0 for none
};

// Coefficient moments beside the engine's.
struct SecondOpinion {
    std::string source, refusal, note;
    std::vector<Opinion> rows;  // signed
};

struct SlabDesign : verify::LineDesign {
    model::Id slab;
    analysis::SlabAnalysis analysis;
    line::OneWayLine line;
    std::vector<SpanSag> sag;   // per span
    double firstThickness = 0;  // suggestion by the span-to-depth rule
    std::size_t firstThicknessSpan = 0;
    double camber = 0;  // largest proposed
    SecondOpinion secondOpinion;
    std::vector<checks::Check> checks;
    std::vector<schedule::Item> items;
    schedule::Schedule schedule;
    std::string error;  // why there are no results
};

struct Design {
    std::shared_ptr<const standards::Standard> standard;
    std::vector<model::Diagnostic> trouble;  // the project is not valid; nothing else is filled then
    std::vector<SlabDesign> slabs;
    const SlabDesign* find(std::string_view slab) const;
    checks::Summary summary() const;
};

struct Options {
    bool trace = true;  // keep the working of every check
};
Design run(const model::Project& project, const Options& options = {});

// Edits that need the pipeline. All give a new project; marks are brought up to date.
model::Project proposeBars(const model::Project& project, std::string_view slab);
// Every slab: the smallest thickness (10 mm or half-inch steps) at which bars can be found with no check
// over, where it is not pinned; then bars.
// `progress` is told the share done and answers whether to go on; a stopped search gives the project
// unchanged.
using Progress = std::function<bool(double)>;
model::Project designAll(const model::Project& project, const Progress& progress = {});
// Marks for bars that have none.
model::Project withMarks(const model::Project& project);

}  // namespace talvik::design

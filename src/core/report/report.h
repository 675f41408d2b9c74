// The calculation report as a tree of blocks, and its HTML form. PDF is made from the same tree by src/paper.
#pragma once

#include <string>
#include <vector>

#include "analysis/floor_analysis.h"
#include "design/design.h"
#include "design/floor_design.h"
#include "drawing/drawing.h"

namespace talvik::report {

enum class Depth { Summary, Full };  // Full: with the working of every check

struct Block {
    enum class Kind { Title, Heading, Subheading, Paragraph, Table, Check, Figure } kind = Kind::Paragraph;
    std::string text;                            // HTML-escaped by the writer
    std::vector<std::vector<std::string>> rows;  // Table: first row is the head
    const checks::Check* check = nullptr;        // points into the design
    int figure = -1;                             // index into Document::figures
};
struct Document {
    std::string title;
    std::vector<Block> blocks;
    std::vector<drawing::Sheet> figures;
    units::System system = units::System::Metric;
    bool working = true;
};

// A floor with its analysis and, where it was asked for, how far that is from converged.
struct FloorAnswer {
    model::Id floor;
    analysis::FloorAnalysis analysis;
    analysis::Convergence convergence;
    std::shared_ptr<const design::FloorDesign> design =
        nullptr;                            // strips, bars and checks, where there are any
    std::vector<checks::Check> shown = {};  // with working: what governs in each strip, and what is over
};
FloorAnswer floorAnswer(const design::FloorInput& input, analysis::FloorAnalysis analysis,
                        analysis::Convergence convergence, const model::Basis& basis);

// The design must outlive the document.
Document make(const model::Project& project, const design::Design& design, Depth depth,
              const std::vector<FloorAnswer>& floors = {});

// How the writer shows what HTML alone cannot: `Page` with inline SVG for browsers; `Flow` with <img> named
// "figure:N" and "gauge:RATIO:OUTCOME", which the PDF writer resolves.
enum class Target { Page, Flow };
std::string html(const Document& document, Target target);

// A drawing as SVG text, for inline use.
std::string svg(const drawing::Sheet& sheet);

}  // namespace talvik::report

// The calculation report as a tree of blocks, and its HTML form. PDF is made from the same tree by src/paper.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "analysis/floor_analysis.h"
#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::design {
struct FloorDesign;
}

namespace talvik::report {

enum class Depth { Summary, Full };  // Full: with the working of every check

struct Block {
    enum class Kind { Title, Heading, Subheading, Paragraph, Table, Check, Figure } kind = Kind::Paragraph;
    std::string text;                            // HTML-escaped by the writer
    std::vector<std::vector<std::string>> rows;  // Table: first row is the head
    int index = -1;                              // of a check or a figure in the document
};
// What of a check's working stands above it, under the same heading: it is not worked out again.
struct Told {
    std::vector<bool> steps;
    struct Note {
        int number;
        bool above;
    };
    std::vector<Note> notes;
};
struct Document {
    std::string title;
    std::vector<Block> blocks;
    std::vector<drawing::Sheet> figures;
    std::vector<checks::Check> checks;
    std::vector<Told> told;  // of each check
    units::System system = units::System::Metric;
    bool working = true;

    void add(Block::Kind kind, std::string words);
    void table(std::vector<std::vector<std::string>> rows) {
        blocks.push_back({Block::Kind::Table, "", std::move(rows)});
    }
    void check(checks::Check c);
    void figure(drawing::Sheet sheet, std::string caption) {
        figures.push_back(std::move(sheet));
        blocks.push_back({Block::Kind::Figure, std::move(caption), {}, static_cast<int>(figures.size()) - 1});
    }

  private:
    std::map<std::string, int> above_;  // steps, and the numbers of notes, since the last heading
    int notes_ = 0;
};

// How far the analyses of floors are from converged, by the floor's id, where it was asked for.
using Convergences = std::map<model::Id, analysis::Convergence>;
// The whole project, or one element of it by its id: what governs first, then the basis with sources, then
// element by element, and the quantities.
Document make(const model::Project& project, const design::Design& design, Depth depth,
              const Convergences& convergences = {}, std::string_view element = {});

// The analysis of a floor alone, without its strips and in short, as the window shows it beside the plan.
Document analysisPage(const model::Project& project, const design::Design& design,
                      const design::FloorDesign& floor, const analysis::Convergence& convergence);

// How the writer shows what HTML alone cannot: `Page` with inline SVG for browsers; `Flow` with <img> named
// "figure:N" and "gauge:RATIO:OUTCOME", which the PDF writer resolves.
enum class Target { Page, Flow };
std::string html(const Document& document, Target target);
// What a writer needs to go through a document piece by piece: the blocks from..to as HTML, without its
// frame.
std::string html(const Document& document, std::size_t from, std::size_t to, Target target);
// Where pieces may begin: at headings, and at subheadings when a piece has become longer than `most` blocks.
std::vector<std::size_t> pieces(const Document& document, std::size_t most = 120);
// Whether so much stands in it that it has a table of contents.
bool hasContents(const Document& document);

// A drawing as SVG text, for inline use.
std::string svg(const drawing::Sheet& sheet);

}  // namespace talvik::report

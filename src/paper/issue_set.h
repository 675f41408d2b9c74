// The issue set: everything that leaves the office, in one folder.
#pragma once

#include "paper/paper.h"

namespace talvik::paper {

struct IssueSet {
    std::vector<std::string> written;  // paths
    std::string why;                   // a sentence where nothing was written
};
// What a set may be without: large ones are read by people, not by programs.
struct LeftOut {
    bool model = false, results = false, editable = false;  // IFC; JSON; the report as HTML and ODT
};
// Of more parts the report is the short one, and the command for bases leaves out all three unless it is asked.
inline constexpr std::size_t mostInFull = 500;
// Drawings of every element (PDF, DXF and SVG sheet by sheet), schedule (CSV, XLSX, bending data), quantities
// and cutting list, the model as IFC, the report (PDF, HTML, ODT; the short one of more than 500 parts) with
// the convergence of floors where it is given, results as JSON, and a page that says what is over, not
// checked and assumed. All files are made in a folder beside the others first: either all of them are there
// at the end or none; those of an earlier issue are replaced. `besides`: more files, name and text.
IssueSet writeIssueSet(const std::string& folder, const model::Project& project, const design::Design& design,
                       const report::Convergences& convergences, const Progress& progress = {},
                       const std::vector<std::pair<std::string, std::string>>& besides = {},
                       const LeftOut& without = {});

}  // namespace talvik::paper

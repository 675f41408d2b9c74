// Results of a floor's analysis as text: fields at points as CSV or VTU (the XML format of unstructured grids
// that general viewers read), everything as JSON.
#pragma once

#include "analysis/floor_analysis.h"
#include "opinions/panel_opinions.h"

namespace talvik::formats {

struct FieldText {
    std::string text, error;
};
// `field`: a key of analysis::Field or "all". `combination`: its name or a load case's; empty for the first
// ultimate one. `format`: "csv" or "vtu". Values in kN, m, mm as named in the columns.
FieldText fieldText(const analysis::FloorAnalysis& a, const std::string& field,
                    const std::string& combination, const std::string& format);

struct AnalysisExtras {
    std::vector<opinions::PanelOpinion> panels;
    analysis::Convergence convergence;
};
std::string analysisJson(const model::Floor& floor, const analysis::FloorAnalysis& a,
                         const AnalysisExtras& extras);

}  // namespace talvik::formats

// The design of a floor: strips, their forces, bars and checks, joined to one answer. Built on an analysis of
// the floor; what an edit does not touch is kept.
#pragma once

#include <memory>
#include <stop_token>

#include "checks/checks.h"
#include "design/field_proof.h"
#include "design/floors.h"
#include "design/panels_around.h"
#include "reinforcement/steel.h"
#include "verify/line_checks.h"

namespace talvik::design {

struct StripDesign : verify::LineDesign {
    std::shared_ptr<const strips::Strip> strip;
    std::shared_ptr<const strips::StripForces> forces;
    line::Demand demand;
    std::vector<reinforcement::PeakBand> bands;
    double outerTop = 0, outerBottom = 0;
    double distribution = 0;        // bottom steel asked by the one-way strips that it crosses, mm2 per mm
    std::vector<SpanPanel> panels;  // per span
    bool twoWay() const;            // at least one of them carries both ways
    std::vector<checks::Check> checks;  // without working; see withWorking
    double worst() const;               // largest ratio of a judged check
    const std::vector<strips::Station>& stations() const { return forces->stations; }
};

struct FloorDesign {
    std::shared_ptr<const model::Floor> floor;
    std::shared_ptr<const analysis::FloorAnalysis> analysis;
    std::shared_ptr<const standards::Standard> standard;
    std::shared_ptr<const model::Basis> basis;
    std::shared_ptr<const strips::StripLayout> layout;
    std::vector<std::shared_ptr<const StripDesign>> strips;  // in the layout's order
    std::vector<checks::Check> checks;        // of the floor as a whole: coverage, proof by field, omissions
    std::shared_ptr<const FieldProof> proof;  // null until it is worked out
    checks::Summary summary;
    const StripDesign* find(std::string_view key) const;
    const checks::Check* check(std::string_view key) const;
    // All checks: the floor's, then strip by strip.
    std::vector<const checks::Check*> all() const;
};

// A check of a strip with its working; all checks of a strip with theirs.
checks::Check withWorking(const FloorDesign& design, const checks::Check& check);
std::vector<checks::Check> withWorking(const FloorDesign& design, const StripDesign& strip);

// Keeps the layout while the geometry is the same, forces while the analysis is, and every strip of which
// nothing changed.
class FloorDesigner {
  public:
    // Null when stopped, or when the analysis has no answer.
    std::shared_ptr<const FloorDesign> design(const std::shared_ptr<const model::Floor>& floor,
                                              const std::shared_ptr<const analysis::FloorAnalysis>& analysis,
                                              const model::Basis& basis, std::stop_token stop = {});

  private:
    std::shared_ptr<const FloorDesign> last_;
    std::shared_ptr<const analysis::FloorAnalysis> readFrom_;
    std::shared_ptr<const strips::ForceReader> reader_;
    std::shared_ptr<const std::vector<layout::Panel>> panels_;
};

// The same design with its proof by field, which takes longer than the design; null when stopped.
std::shared_ptr<const FloorDesign> proved(const std::shared_ptr<const FloorDesign>& design,
                                          std::stop_token stop = {});

// One floor of a project, analysed, designed and (where asked) proved from nothing: for the command line,
// remedies and tests. Null when stopped.
std::shared_ptr<const FloorDesign> designFloor(const model::Project& project, std::size_t floor,
                                               const std::function<void(double)>& progress = {},
                                               bool prove = true, std::stop_token stop = {});

}  // namespace talvik::design

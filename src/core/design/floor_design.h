// The design of a floor: strips, their forces, bars and checks, joined to one answer. Built on an analysis of
// the floor; what an edit does not touch is kept.
#pragma once

#include <array>

#include "analysis/floor_analysis.h"
#include "bars/bar_choices.h"
#include "design/connections.h"
#include "design/designer.h"
#include "design/field_proof.h"
#include "design/floor_sag.h"
#include "design/floor_vibration.h"
#include "design/floors.h"
#include "design/panels_around.h"

namespace talvik::design {

struct StripDesign : LineAnswer {
    std::shared_ptr<const strips::Strip> strip;
    std::shared_ptr<const strips::StripForces> forces;
    line::Demand demand;
    std::vector<bars::PeakBand> bands;
    double distribution = 0;          // bottom steel asked by the one-way strips that it crosses, mm2 per mm
    std::vector<SpanPanel> panels;    // per span
    std::vector<SteelWanted> wanted;  // what the proof by field asked back
    // As chosen for the strip alone, before what it owes to others: what that is follows from these, so that
    // an answer does not depend on those before it.
    std::shared_ptr<const verify::LineDesign> alone;
    bool twoWay() const;  // at least one of them carries both ways
    const std::vector<strips::Station>& stations() const { return forces->stations; }
    line::View view() const override { return {*strip, forces->stations, demand}; }
    std::string detail(units::System system) const override;
};

// Strips and all that follows are there where the analysis has an answer; else `error` says why not.
struct FloorDesign : ElementAnswer {
    std::shared_ptr<const model::Floor> floor;
    std::shared_ptr<const analysis::FloorAnalysis> analysis;
    std::shared_ptr<const strips::StripLayout> layout;
    // The parts: strips in the layout's order, then connections, then edges and openings.
    std::vector<std::shared_ptr<const StripDesign>> strips;
    std::vector<std::shared_ptr<const ConnectionDesign>> connections;
    // By direction and face (bottom, top): bars and spacings that strips share where it costs them little.
    std::array<std::array<std::vector<bars::BarChoice>, 2>, 2> usual;
    std::shared_ptr<const FieldProof> proof;          // null until it is worked out
    std::shared_ptr<const FloorSag> sag;              // likewise
    std::shared_ptr<const FloorVibration> vibration;  // likewise, where it is asked for
    std::shared_ptr<const FloorDesign> first;         // the same before proof and sag; null in that
    bool strengthened = false;  // by what the proof asked back: strips differ from the first
    using ElementAnswer::find;
    const StripDesign* find(std::string_view key) const;
    const ConnectionDesign* connection(std::string_view key) const;
    std::vector<checks::Check> withWorking(const PartAnswer& part) const override;
    // Coverage and what was decided by hand; of a strip what it carries and second opinions.
    std::vector<Fact> facts(const std::optional<model::Spot>& spot, units::System system) const override;
};

// Keeps the analysis while nothing it reads changed, the layout while the geometry is the same, forces while
// the analysis is, and every strip of which nothing changed.
class FloorDesigner : public Designer {
  public:
    bool serves(const model::Project& project, const model::Id& element) const override {
        return model::findFloor(project, element) != nullptr;
    }
    // First with strips and their checks; the proof by field, which takes longer, follows.
    void design(const Request& request, std::stop_token stop, const std::function<void(double)>& progress,
                const std::function<void(Answer)>& publish) override;
    void startFrom(const Request& request, const Answer& answer) override;
    // Of an analysis that is there. Null when stopped, or when the analysis has no answer.
    std::shared_ptr<const FloorDesign> design(const std::shared_ptr<const model::Floor>& floor,
                                              const std::shared_ptr<const analysis::FloorAnalysis>& analysis,
                                              const model::Basis& basis, std::stop_token stop = {},
                                              const std::vector<SteelWanted>& wanted = {});

  private:
    class Stages;
    std::shared_ptr<const FloorDesign> last_;
    std::shared_ptr<const analysis::FloorAnalysis> readFrom_;
    std::shared_ptr<const strips::ForceReader> reader_;
    std::shared_ptr<const std::vector<layout::Panel>> panels_;
    ConnectionDesigner connections_;
    // Of the whole answer to the last request.
    analysis::FloorAnalyser analyser_;
    std::shared_ptr<const model::Floor> asked_, analysed_;
    std::shared_ptr<const model::Basis> askedBasis_;
    std::shared_ptr<const FloorDesign> answer_;
};

// The same design with its proof by field, which takes longer than the design; null when stopped. `before`: a
// whole answer whose proof holds where it is to the same forces and bars. `again` designs anew with the steel
// that the proof wants, which is taken where less area is short then; without it the design stays.
using Strengthen = std::function<std::shared_ptr<const FloorDesign>(const std::vector<SteelWanted>& wanted)>;
std::shared_ptr<const FloorDesign> proved(const std::shared_ptr<const FloorDesign>& design,
                                          std::stop_token stop = {}, const FloorDesign* before = nullptr,
                                          const Strengthen& again = {});

// One floor of a project, analysed, designed and (where asked) proved from nothing: for the command line and
// tests. Null when stopped, or without an answer.
std::shared_ptr<const FloorDesign> designFloor(const model::Project& project, std::size_t floor,
                                               const std::function<void(double)>& progress = {},
                                               bool prove = true, std::stop_token stop = {});

}  // namespace talvik::design

// The design of a one-way slab: analysis, line, bars and checks joined to one answer.
#pragma once

#include "analysis/slab_analysis.h"
#include "design/designer.h"
#include "line/one_way.h"
#include "opinions/opinion.h"

namespace talvik::design {

// Coefficient moments beside the engine's.
struct SecondOpinion {
    std::string source, refusal, note;
    std::vector<opinions::Opinion> rows;  // signed
};

// The one part of a one-way slab: itself, seen along its spans.
struct SlabDesign : LineAnswer {
    std::shared_ptr<const model::OneWaySlab> slab;
    analysis::SlabAnalysis analysis;
    line::OneWayLine line;
    std::vector<bars::Run> bars;  // all of them; `runs` are those along the line
    double firstThickness = 0;    // suggestion by the span-to-depth rule
    std::size_t firstThicknessSpan = 0;
    double camber = 0;  // largest proposed
    SecondOpinion secondOpinion;
    std::string error;  // why there are no results
    line::View view() const override { return {line.line, line.stations, line.demand}; }
    std::vector<bars::Run> crossing() const override;
    std::string detail(units::System system) const override;
};

struct SlabAnswer : ElementAnswer {
    std::shared_ptr<const SlabDesign> design;
    std::vector<checks::Check> withWorking(const PartAnswer& part) const override;
    // Camber, reactions, moment coefficients.
    std::vector<Fact> facts(const std::optional<model::Spot>& spot, units::System system) const override;
};
// `tracing`: the checks keep their working.
std::shared_ptr<const SlabAnswer> designSlab(std::shared_ptr<const model::OneWaySlab> slab,
                                             std::shared_ptr<const model::Basis> basis,
                                             std::shared_ptr<const standards::Standard> standard,
                                             bool tracing = false);

// Keeps its answer while slab and basis stay as they are.
class SlabDesigner : public Designer {
  public:
    bool serves(const model::Project& project, const model::Id& element) const override {
        return model::findSlab(project, element) != nullptr;
    }
    void design(const Request& request, std::stop_token stop, const std::function<void(double)>& progress,
                const std::function<void(Answer)>& publish) override;

  private:
    std::shared_ptr<const SlabAnswer> last_;
};

}  // namespace talvik::design

// The answer of a set of bases: one part for each, with its checks and bars, and types of which bases are
// alike.
#pragma once

#include <map>
#include <variant>

#include "bases/cap.h"
#include "bases/pad.h"
#include "design/designer.h"
#include "design/linked_loads.h"

namespace talvik::design {

struct BasePart : PartAnswer, model::Amounts {
    std::size_t number = 0;  // in the set
    std::variant<bases::PadDesign, bases::CapDesign> design;
    geometry::Point centre;
    std::string type;                  // "F1"
    std::string shape;                 // what makes two bases the same to build
    std::optional<bases::Top> shaped;  // its top, where that is not level
    bases::Top solid() const { return shaped ? *shaped : bases::Top(size(), {0, 0}, {0, 0}, {}); }
    // Its strap on plan: least and largest x, least and largest y.
    std::optional<std::array<double, 4>> strap;
    double cost = 0, emissions = 0;  // by the rates of the basis; kg CO2e
    std::optional<bases::Pad::Shown> pressure;
    // Bases of the set that it lies on, by their place in it: nothing here holds for such bases.
    std::vector<std::size_t> overlaps;
    const bases::PadSize& size() const;
    geometry::Ring outline() const;  // on plan, anticlockwise
    const std::array<bases::Mat, 2>& bottom() const;
    const std::array<bases::Mat, 2>& top() const;
    const std::vector<geometry::Point>& piles() const;  // from the centre; none of pads
    const std::string& trouble() const;
    const checks::Check* governing() const;  // the worst of those judged; null without
    std::string detail(units::System system) const override;
};

struct BasesAnswer : ElementAnswer {
    std::shared_ptr<const model::BaseSet> set;  // with the loads that floors put on it now
    std::shared_ptr<const bases::Context> context;
    std::vector<LinkedChange> changed;                   // beside the loads that were taken note of
    std::vector<std::shared_ptr<const BasePart>> bases;  // the parts
    std::vector<std::pair<std::string, int>> types;      // with the number of bases of each
    // Least cost of all bases with at the most so many types, from one on; of bases that are solved.
    std::vector<double> costs;
    bool costsExact = false;  // of all groupings there are, not of those in the order of size alone
    std::vector<checks::Check> withWorking(const PartAnswer& part) const override;
    std::vector<Fact> facts(const std::optional<model::Spot>& spot, units::System system) const override;
    // Bases with the same bars, type by type.
    std::vector<Alike> alike() const override;
    // Bars of a part in three dimensions.
    std::vector<bases::Laid> laid(const BasePart& part) const;
};

// Sizes of a base that carry, with what they take: depths from the least on, and for each the least plan size
// and larger ones (for caps: numbers of piles). In the order of cost.
struct Alternative {
    bases::PadSize size;
    int piles = 0;
    double cost = 0, carbon = 0, steel = 0, worst = 0;  // worst: largest ratio
};
std::vector<Alternative> alternatives(const BasesAnswer& answer, const BasePart& part,
                                      std::stop_token stop = {});

// Solves a set. `last` gives what an edit left alone. Null when stopped.
std::shared_ptr<const BasesAnswer> designBases(const std::shared_ptr<const model::BaseSet>& set,
                                               const model::Basis& basis,
                                               const std::shared_ptr<const standards::Standard>& standard,
                                               const BasesAnswer* last = nullptr, std::stop_token stop = {},
                                               const std::function<void(double)>& progress = {});

class BasesDesigner : public Designer {
  public:
    bool serves(const model::Project& project, const model::Id& element) const override {
        return model::findBases(project, element) != nullptr;
    }
    void design(const Request& request, std::stop_token stop, const std::function<void(double)>& progress,
                const std::function<void(Answer)>& publish) override;

  private:
    struct Analysed {
        std::shared_ptr<const model::Floor> floor;
        std::shared_ptr<const model::Basis> basis;
        std::shared_ptr<const analysis::FloorAnalysis> analysis;
        analysis::FloorAnalyser analyser;
    };
    std::shared_ptr<const analysis::FloorAnalysis> analysisOf(const model::Floor& floor,
                                                              const Request& request, std::stop_token stop);

    std::shared_ptr<const BasesAnswer> last_;
    std::shared_ptr<const model::Basis> askedBasis_;
    std::map<model::Id, Analysed> floors_;
};

}  // namespace talvik::design

// The connections of a floor as parts of its answer: demand by equilibrium, control sections, checks, shear
// steel.
#pragma once

#include "analysis/equilibrium.h"
#include "design/answer.h"
#include "design/connection_sites.h"
#include "verify/connection_checks.h"

namespace talvik::design {

struct FloorDesign;

struct ConnectionDesign : PartAnswer, verify::ConnectionCase {
    std::shared_ptr<const ConnectionSite> site;
    model::ConnectionChoice choice;
    std::shared_ptr<const analysis::FloorAnalysis> analysis;  // from which the demand was read
    std::string detail(units::System system) const override;
    // Ratios of the face, of the control sections by concrete alone and with steel, beyond the steel; 0
    // without.
    double faceRatio() const, controlRatio() const, steelRatio() const;
    // The section and the demand that its row in a table shows: that of the control perimeter, or beyond a
    // drop.
    const standards::ControlSection* shown() const;
    const Demand* shownDemand() const;
    // "12 rails of 5 studs Ø 12", "none".
    std::string steelText(units::System system) const;
};

// Keeps what an edit leaves alone.
class ConnectionDesigner {
  public:
    // Of a floor whose strips and bars are designed. Empty where the standard has no rule of punching.
    std::vector<std::shared_ptr<const ConnectionDesign>> design(const FloorDesign& f, std::stop_token stop);

  private:
    std::shared_ptr<const model::Floor> floor_;
    std::shared_ptr<const analysis::FloorAnalysis> analysis_;
    std::vector<std::shared_ptr<const ConnectionSite>> sites_;
    std::shared_ptr<const analysis::Equilibrium> equilibrium_;
    std::vector<std::shared_ptr<const ConnectionDesign>> last_;
    std::shared_ptr<const model::Basis> basis_;
    std::shared_ptr<const analysis::LineShear> shear_;
    std::shared_ptr<const analysis::FloorAnalysis> shearOf_;
    std::shared_ptr<const model::Floor> weighed_;  // to which `equilibrium_` refers
};

std::vector<checks::Check> checkConnection(const ConnectionDesign& c, const FloorDesign& f, bool tracing);

}  // namespace talvik::design

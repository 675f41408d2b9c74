// Bar spacing for cracks: 24.3.2.
#include <algorithm>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

class Cracks final : public CrackRules {
  public:
    explicit Cracks(const Edition& e) : e_(e) {}

    actions::LimitState state() const override { return actions::LimitState::Characteristic; }

    Finding check(const CrackInput& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::BarSpacing;
        f.clause = "ACI 318-19 24.3.2";
        f.prefix = "s";
        if (in.M <= 0) return checks::notApplicable(f.clause, "No tension on this face under service loads.");
        double fs = trace::step(t, "f_s", "2/3*f_y", {{"f_y", in.section.fy / e_.stress, e_.stressUnit}},
                                in.section.fy * 2 / 3 / e_.stress, e_.stressUnit, "ACI 318-19 24.3.2.1") *
                    e_.stress;
        f.limit = trace::step(t, "s_max", "min(k_s*f_0/f_s - 2.5*c_c, k_cap*f_0/f_s)",
                              {{"k_s", e_.crackReach, e_.lengthUnit},
                               {"f_0", e_.crackStress, e_.stressUnit},
                               {"f_s", fs / e_.stress, e_.stressUnit},
                               {"c_c", in.cover / e_.length, e_.lengthUnit},
                               {"k_cap", e_.crackCap, e_.lengthUnit}},
                              crackSpacing(e_, fs, in.cover) / e_.length, e_.lengthUnit,
                              "ACI 318-19 Table 24.3.2") *
                  e_.length;
        f.demand = in.spacing;
        f.notes.push_back("Steel stress at service taken as two thirds of f_y.");
        return checks::judged(f);
    }
    double leastSteel(const Section&, double, double, Steps*) const override { return 0; }
    std::string leastSteelClause() const override { return "ACI 318-19 24.3.2"; }

  private:
    const Edition& e_;
};

}  // namespace

double crackSpacing(const Edition& e, double fs, double cover) {
    double k = e.crackStress * e.stress / fs;
    return std::min(e.crackReach * e.length * k - 2.5 * cover, e.crackCap * e.length * k);
}

std::unique_ptr<CrackRules> crackRules(const Edition& e) {
    return std::make_unique<Cracks>(e);
}

}  // namespace talvik::standards::aci318

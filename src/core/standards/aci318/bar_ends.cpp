// Where bars may end and what goes on over supports: 7.7.3, 8.7.4.
#include <algorithm>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

class BarEnds final : public BarEndRules {
  public:
    explicit BarEnds(const Edition& e) : e_(e) {}

    double momentShift(double d, double diameter) const override { return std::max(d, 12 * diameter); }
    double topReach(double clearSpan, double d, double diameter) const override {
        return std::max({d, 12 * diameter, clearSpan / 16});
    }
    // 7.7.3.8.1, 7.7.3.8.2: a third at simple supports, a quarter at others, 6 in. past the face; 8.7.4.1.3
    // and Figure 8.7.4.1.3: all bottom bars of column strips go through, half of those of middle
    // strips; 8.7.4.2.2: two bars within the core of the column.
    Through through(Over over, double, Steps* t) const override {
        Through r;
        r.share = over == Over::EndSupport    ? 1.0 / 3
                  : over == Over::Support     ? 0.25
                  : over == Over::ColumnStrip ? 1
                                              : 0.5;
        r.clause = over == Over::EndSupport ? "ACI 318-19 7.7.3.8.1"
                   : over == Over::Support  ? "ACI 318-19 7.7.3.8.2"
                                            : "ACI 318-19 8.7.4.1.3, Figure 8.7.4.1.3";
        if (over == Over::ColumnStrip) r.bars = 2, r.barsClause = "ACI 318-19 8.7.4.2.2";
        r.beyond = trace::step(t, "l_in", "", {}, e_.supportReach, e_.lengthUnit, r.clause) * e_.length;
        return r;
    }
    std::string clause(bool twoWay) const override {
        return twoWay ? "ACI 318-19 8.7.4.1.2, 7.7.3.3" : "ACI 318-19 7.7.3.3, 7.7.3.8.4";
    }

  private:
    const Edition& e_;
};

// ACI 318-19 has no rules of its own for these moments.
class Supports final : public SupportRules {
  public:
    double endFixity() const override { return 0; }
    double momentFloor(double) const override { return 0; }
    double roundedOff(double, double) const override { return 0; }
    std::string endTopClause() const override { return "ACI 318-19 7.7.3.8"; }
};

}  // namespace

std::unique_ptr<BarEndRules> barEndRules(const Edition& e) {
    return std::make_unique<BarEnds>(e);
}
std::unique_ptr<SupportRules> supportRules() {
    return std::make_unique<Supports>();
}

}  // namespace talvik::standards::aci318

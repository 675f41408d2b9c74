// Where bars may end, what goes on over supports, and moments there: 5.3.2.2, 9.2.1, 9.3.1, 9.4.1(3).
#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

class BarEnds final : public BarEndRules {
  public:
    double momentShift(double d, double) const override { return d; }
    double topReach(double, double, double) const override { return 0; }
    // 9.3.1.2(1): half of the span's steel at supports that are simple; 9.2.1.4(1), 9.2.1.5 by 9.3.1.1(4): a
    // quarter at others, 10 diameters past the face. 9.4.1(3): two bars in each direction through an inner
    // column.
    Through through(Over over, double diameter, Steps* t) const override {
        Through r;
        r.clause = over == Over::EndSupport ? "EN 1992-1-1 9.3.1.2(1)" : "EN 1992-1-1 9.2.1.4(1), 9.2.1.5";
        r.share = over == Over::EndSupport ? 0.5 : 0.25;
        if (over != Over::EndSupport)
            r.beyond = trace::step(t, "l_bd", "10*phi", {{"phi", diameter, "mm"}}, 10 * diameter, "mm",
                                   "EN 1992-1-1 9.2.1.5(2)");
        if (over == Over::ColumnStrip) r.bars = 2, r.barsClause = "EN 1992-1-1 9.4.1(3)";
        return r;
    }
    std::string clause(bool) const override { return "EN 1992-1-1 9.2.1.3, 9.3.1.1(4)"; }
};

class Supports final : public SupportRules {
  public:
    explicit Supports(const Parameters& p) : p_(p) {}

    double endFixity() const override { return p_.end_fixity; }
    double momentFloor(double fixedEnd) const override { return p_.support_moment_floor * fixedEnd; }
    double roundedOff(double R, double t) const override { return R * t / 8; }
    std::string endTopClause() const override { return "EN 1992-1-1 9.3.1.2(2)"; }

  private:
    Parameters p_;
};

}  // namespace

std::unique_ptr<BarEndRules> barEndRules() {
    return std::make_unique<BarEnds>();
}
std::unique_ptr<SupportRules> supportRules(const Parameters& p) {
    return std::make_unique<Supports>(p);
}

}  // namespace talvik::standards::en1992

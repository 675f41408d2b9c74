// Development, splices and bends: 25.3 to 25.5, and at end supports 7.7.3.8.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {
namespace {

// psi_g of Table 25.4.2.5; fy in the edition's unit.
double gradeFactor(const Edition& e, double fy) {
    auto upTo = [fy](double step) { return fy <= step * (1 + 1e-6); };
    return upTo(e.gradeStep1) ? 1.0 : upTo(e.gradeStep2) ? 1.15 : 1.3;
}

class AnchorageOfBars final : public AnchorageRules {
  public:
    explicit AnchorageOfBars(const Edition& e) : e_(e) {}

    double length(const AnchorageInput& in, Steps* t) const override {
        using trace::step;
        const char *L = e_.lengthUnit, *S = e_.stressUnit;
        double db = in.diameter / e_.length, fc = in.fc / e_.stress, fy = in.fy / e_.stress,
               root = std::min(std::sqrt(fc), e_.rootCap);
        if (in.hooked) {
            double wide = in.spacing >= 6 * in.diameter ? 1.0 : 1.6,
                   strength = std::min(fc / (2.5 * e_.hookStrengthTop) + 0.6, 1.0);
            return step(t, "l_dh",
                        "max(f_y*psi_r*psi_o*psi_c/(k_h*min(sqrt(f'_c), r_cap))*d_b^1.5, 8*d_b, l_0)",
                        {{"f_y", fy, S},
                         {"psi_r", wide},
                         {"psi_o", 1.25},
                         {"psi_c", strength},
                         {"k_h", e_.hook},
                         {"f'_c", fc, S},
                         {"r_cap", e_.rootCap},
                         {"d_b", db, L},
                         {"l_0", e_.hookFloor, L}},
                        std::max({fy * wide * 1.25 * strength / (e_.hook * root) * std::pow(db, 1.5), 8 * db,
                                  e_.hookFloor}),
                        L, "ACI 318-19 25.4.3.1", "psi_o as for side cover under 6 bar diameters") *
                   e_.length;
        }
        bool small = in.diameter <= e_.smallBar;
        double cb = in.cd / e_.length + db / 2, top = in.good ? 1.0 : 1.3, grade = gradeFactor(e_, fy),
               size = small ? 0.8 : 1.0;
        return step(t, "l_d",
                    "max(f_y*psi_t*psi_s*psi_g/(k_d*min(sqrt(f'_c), r_cap)*min(c_b/d_b, 2.5))*d_b, l_0)",
                    {{"f_y", fy, S},
                     {"psi_t", top},
                     {"psi_s", size},
                     {"psi_g", grade},
                     {"k_d", e_.development},
                     {"f'_c", fc, S},
                     {"r_cap", e_.rootCap},
                     {"c_b", cb, L},
                     {"d_b", db, L},
                     {"l_0", e_.developmentFloor, L}},
                    std::max(fy * top * size * grade / (e_.development * root * std::min(cb / db, 2.5)) * db,
                             e_.developmentFloor),
                    L, "ACI 318-19 25.4.2.4", "K_tr = 0, normal weight, uncoated") *
               e_.length;
    }
    double lap(const AnchorageInput& in, Steps* t) const override {
        AnchorageInput straight = in;
        straight.hooked = false;
        double ld = length(straight, t) / e_.length;
        return trace::step(t, "l_st", "max(1.3*l_d, l_0)",
                           {{"l_d", ld, e_.lengthUnit}, {"l_0", e_.developmentFloor, e_.lengthUnit}},
                           std::max(1.3 * ld, e_.developmentFloor), e_.lengthUnit, lapClause(), "class B") *
               e_.length;
    }
    // Table 25.4.2.5, casting position: more than 12 in. (300 mm) of fresh concrete below counts as top.
    bool goodBond(double below) const override { return below <= e_.developmentFloor * e_.length; }
    double designYield(double fy) const override { return fy; }

    Finding atEnd(const EndAnchorageInput& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Length;
        f.clause = "ACI 318-19 7.7.3.8";
        if (in.bar.hooked && in.beyondCentre > 0) {
            f.sense = checks::Sense::AtLeast;
            f.demand = in.beyondFace;
            f.limit = trace::step(t, "l_in", "", {}, e_.supportReach, e_.lengthUnit, "ACI 318-19 7.7.3.8.1") *
                      e_.length;
            f.notes.push_back(
                "Bars end in a standard hook beyond the centre of the support, so that 7.7.3.8.3 requires no "
                "more.");
            return checks::judged(f);
        }
        if (in.beyondFace < e_.supportReach * e_.length) {
            f.sense = checks::Sense::AtLeast;
            f.demand = in.beyondFace;
            f.limit = e_.supportReach * e_.length;
            trace::step(t, "l_in", "", {}, e_.supportReach, e_.lengthUnit, "ACI 318-19 7.7.3.8.1");
            return checks::judged(f);
        }
        const Section s = native(in.section, e_);
        double As = in.As / area(e_), a = As * s.fy / (0.85 * s.fc * s.b), Mn = As * s.fy * (s.d - a / 2),
               V = in.V / force(e_);
        double la = std::min(in.beyondCentre, std::max(in.section.d, 12 * in.bar.diameter)) / e_.length;
        f.demand = length(in.bar, t);
        f.limit = trace::step(t, "l_lim", "1.3*M_n*k_M/(V_u*k_F) + l_a",
                              {{"M_n", Mn / e_.momentFactor, e_.momentUnit},
                               {"k_M", e_.momentFactor},
                               {"V_u", V / e_.forceFactor, e_.forceUnit},
                               {"k_F", e_.forceFactor},
                               {"l_a", la, e_.lengthUnit}},
                              1.3 * Mn / std::max(V, 1e-9) + la, e_.lengthUnit, "ACI 318-19 7.7.3.8.3") *
                  e_.length;
        return checks::judged(f);
    }
    double hookTail(double diameter) const override { return 12 * diameter; }
    // Half the inside diameter: 3d up to No. 25, 4d up to No. 36, 5d above.
    double bendRadius(double diameter) const override {
        return (diameter < 26 ? 3 : diameter < 37 ? 4 : 5) * diameter;
    }
    std::string bendClause() const override { return "ACI 318-19 Table 25.3.1"; }
    std::string clause(bool) const override { return "ACI 318-19 25.4.2.4"; }
    std::string lapClause() const override { return "ACI 318-19 25.5.2.1"; }

  private:
    const Edition& e_;
};

}  // namespace

Development development(const Edition& e, double diameter, double fc_, double fy_, bool top, double cb,
                        bool small) {
    double db = diameter / e.length, fc = fc_ / e.stress, fy = fy_ / e.stress,
           root = std::min(std::sqrt(fc), e.rootCap);
    double grade = gradeFactor(e, fy), place = top ? 1.3 : 1.0;
    double k = fy * place * grade / root * db;
    Development d{};
    d.general = std::max(k * (small ? 0.8 : 1.0) / (e.development * std::min(cb / diameter, 2.5)),
                         e.developmentFloor);
    d.tableA = std::max(k / (small ? e.developmentA : e.developmentALarge), e.developmentFloor);
    d.tableB = std::max(k / (small ? e.developmentB : e.developmentBLarge), e.developmentFloor);
    d.lapB = std::max(1.3 * d.general, e.developmentFloor);
    for (double* v : {&d.general, &d.tableA, &d.tableB, &d.lapB}) *v *= e.length;
    return d;
}

TableDevelopment tableDevelopment(const Edition& e, double diameter, double fc, double fy, bool top,
                                  bool small) {
    const bool metric = e.units == units::System::Metric;
    const double root = std::min(std::sqrt(fc / e.stress), e.rootCap), f = fy / e.stress,
                 factors = (top ? 1.3 : 1) * gradeFactor(e, f) * f / root * diameter;
    const double first = metric ? (small ? 2.1 : 1.7) : (small ? 25 : 20),
                 others = metric ? (small ? 1.4 : 1.1) : (small ? 50 / 3.0 : 40 / 3.0),
                 least = e.developmentFloor * e.length;
    return {std::max(factors / first, least), std::max(factors / others, least)};
}

std::unique_ptr<AnchorageRules> anchorageRules(const Edition& e) {
    return std::make_unique<AnchorageOfBars>(e);
}

}  // namespace talvik::standards::aci318

// Detailing of one-way slabs: 7.6, 7.7, 24.4, 25.2, 25.4, 25.5.
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

class Detailing final : public DetailingRules {
  public:
    explicit Detailing(const Edition& e) : e_(e) {}

    double minimumSteel(const Section& s, Steps* t) const override {
        return shrinkageSteel(s, "A_s,min", clauses(false).minimum, t);
    }
    double maximumSteel(const Section& s, Steps* t) const override {
        // No ceiling as such: a tension-controlled section is the limit. That amount of steel is given.
        double fc = s.fc / e_.stress, fy = s.fy / e_.stress, beta = beta1(e_, fc);
        return trace::step(t, "A_s,max", "0.85*f'_c*b*beta_1*d*0.003/(0.006 + f_y/E_s)/f_y",
                           {{"f'_c", fc, e_.stressUnit},
                            {"b", s.b / e_.length, e_.lengthUnit},
                            {"beta_1", beta},
                            {"d", s.d / e_.length, e_.lengthUnit},
                            {"f_y", fy, e_.stressUnit},
                            {"E_s", e_.Es, e_.stressUnit}},
                           0.85 * fc * s.b * beta * s.d / area(e_) * 0.003 / (0.006 + fy / e_.Es) / fy,
                           areaUnit(e_), clauses(false).maximum,
                           "the steel at which the section stops being tension-controlled") *
               area(e_);
    }
    double maximumSpacing(Role role, bool, double h, Steps* t) const override {
        double k = role == Role::Main ? 3 : role == Role::TwoWay ? 2 : 5;
        return trace::step(
                   t, "s_max", "min(k*h, s_cap)",
                   {{"k", k}, {"h", h / e_.length, e_.lengthUnit}, {"s_cap", e_.spacingCap, e_.lengthUnit}},
                   std::min(k * h / e_.length, e_.spacingCap), e_.lengthUnit,
                   role == Role::Main     ? "ACI 318-19 7.7.2.3"
                   : role == Role::TwoWay ? "ACI 318-19 8.7.2.2"
                                          : "ACI 318-19 7.7.6.2.1") *
               e_.length;
    }
    double minimumClearSpacing(double diameter, double aggregate, Steps* t) const override {
        return trace::step(t, "s_clear", "max(s_0, d_b, 4/3*d_agg)",
                           {{"s_0", e_.clearLeast, e_.lengthUnit},
                            {"d_b", diameter / e_.length, e_.lengthUnit},
                            {"d_agg", aggregate / e_.length, e_.lengthUnit}},
                           std::max({e_.clearLeast, diameter / e_.length, 4.0 / 3 * aggregate / e_.length}),
                           e_.lengthUnit, clauses(false).clear) *
               e_.length;
    }
    double secondarySteel(double, const Section& s, Steps* t) const override {
        return shrinkageSteel(s, "A_s,T", clauses(false).secondary, t);
    }

    double anchorage(const AnchorageInput& in, Steps* t) const override {
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
        double ld = anchorage(straight, t) / e_.length;
        return trace::step(t, "l_st", "max(1.3*l_d, l_0)",
                           {{"l_d", ld, e_.lengthUnit}, {"l_0", e_.developmentFloor, e_.lengthUnit}},
                           std::max(1.3 * ld, e_.developmentFloor), e_.lengthUnit, clauses(false).lap, "class B") *
               e_.length;
    }
    // Table 25.4.2.5, casting position: more than 12 in. (300 mm) of fresh concrete below counts as top.
    bool goodBond(double below) const override { return below <= e_.developmentFloor * e_.length; }
    double designYield(double fy) const override { return fy; }
    double momentShift(double d, double diameter) const override { return std::max(d, 12 * diameter); }
    double topReach(double clearSpan, double d, double diameter) const override {
        return std::max({d, 12 * diameter, clearSpan / 16});
    }

    Finding endAnchorage(const EndAnchorageInput& in, Steps* t) const override {
        Finding f;
        f.kind = units::Kind::Length;
        f.clause = "ACI 318-19 7.7.3.8";
        if (in.bar.hooked && in.beyondCentre > 0) {
            f.sense = checks::Sense::AtLeast;
            f.demand = in.beyondFace;
            f.limit = trace::step(t, "l_in", "", {}, e_.supportReach, e_.lengthUnit, "ACI 318-19 7.7.3.8.1") *
                      e_.length;
            f.notes.push_back(
                "Bars end in a standard hook beyond the centre of the support, so that 7.7.3.8.3 asks no "
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
        f.demand = anchorage(in.bar, t);
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

    double endFixity() const override { return 0; }
    double hookTail(double diameter) const override { return 12 * diameter; }
    double supportMomentFloor(double) const override { return 0; }
    double roundedOff(double, double) const override { return 0; }
    // 7.7.3.8.1, 7.7.3.8.2: a third at simple supports, a quarter at others, 6 in. past the face; 8.7.4.1.3 and Figure
    // 8.7.4.1.3: all bottom bars of column strips go through, half of those of middle strips; 8.7.4.2.2: two bars
    // within the core of the column.
    Through through(Over over, double, Steps* t) const override {
        Through r;
        r.share = over == Over::EndSupport ? 1.0 / 3 : over == Over::Support ? 0.25 : over == Over::ColumnStrip ? 1 : 0.5;
        r.clause = over == Over::EndSupport ? "ACI 318-19 7.7.3.8.1"
                   : over == Over::Support  ? "ACI 318-19 7.7.3.8.2"
                                            : "ACI 318-19 8.7.4.1.3, Figure 8.7.4.1.3";
        if (over == Over::ColumnStrip) r.bars = 2, r.barsClause = "ACI 318-19 8.7.4.2.2";
        r.beyond = trace::step(t, "l_in", "", {}, e_.supportReach, e_.lengthUnit, r.clause) * e_.length;
        return r;
    }
    Clauses clauses(bool twoWay) const override {
        if (twoWay)
            return {"ACI 318-19 8.6.1.1",
                    "ACI 318-19 8.3.3.1",
                    "ACI 318-19 8.7.2.2",
                    "ACI 318-19 25.2.1",
                    "ACI 318-19 8.6.1.1, 24.4.3.2",
                    "ACI 318-19 25.4.2.4",
                    "ACI 318-19 25.5.2.1",
                    "ACI 318-19 8.7.4.1.2, 7.7.3.3",
                    "ACI 318-19 8.7.4.1.3"};
        return {"ACI 318-19 7.6.1.1",
                "ACI 318-19 7.3.3.1",
                "ACI 318-19 7.7.2.3",
                "ACI 318-19 25.2.1",
                "ACI 318-19 7.6.4.1, 24.4.3.2",
                "ACI 318-19 25.4.2.4",
                "ACI 318-19 25.5.2.1",
                "ACI 318-19 7.7.3.3, 7.7.3.8.4",
                "ACI 318-19 7.7.3.8"};
    }

  private:
    double shrinkageSteel(const Section& s, const char* symbol, const std::string& clause, Steps* t) const {
        return trace::step(t, symbol, "0.0018*b*h",
                           {{"b", s.b / e_.length, e_.lengthUnit}, {"h", s.h / e_.length, e_.lengthUnit}},
                           0.0018 * s.b * s.h / area(e_), areaUnit(e_), clause) *
               area(e_);
    }
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

double beamMinimumSteel(const Edition& e, const Section& stored) {
    const Section s = native(stored, e);
    double fy = std::min(s.fy, e.beamYieldCap);
    return std::max(e.beamSteelRoot * std::sqrt(s.fc) / fy, e.beamSteelLeast / fy) * s.b * s.d * area(e);
}

double twoWaySpacing(const Edition& e, double h) {
    return std::min(2 * h, e.spacingCap * e.length);
}

std::unique_ptr<DetailingRules> detailingRules(const Edition& e) {
    return std::make_unique<Detailing>(e);
}

}  // namespace talvik::standards::aci318

// Strips of two-way slabs: Annex I, 9.4.1, 5.5.
#include <algorithm>

#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

class Strips final : public StripRules {
  public:
    explicit Strips(const FlexureRules& flexure) : flexure_(flexure) {}

    double columnStripHalf(double span, double across) const override { return std::min(span, across) / 4; }
    std::string columnStripClause() const override { return "EN 1992-1-1 I.1.2, Figure I.1"; }
    // Half of the steel for the panels on both sides in an eighth of their width on either side.
    Peak peak(double panels, double, double, double, double, Steps* t) const override {
        Peak p;
        p.clause = "EN 1992-1-1 9.4.1(2)";
        p.steelShare = 0.5;
        p.width = trace::step(t, "b_peak", "0.25*l_p", {{"l_p", panels, "mm"}}, 0.25 * panels, "mm", p.clause,
                              "0.125 of the panel width on either side of the column");
        return p;
    }
    // Figure 9.9: b_e is the column and the distance from the edge to its inner face (9.4.2(1)); at a corner
    // half of that distance. I.1.2(5): the moment is held to 0.17 b_e d2 f_ck.
    Transfer transfer(const TransferInput& in, Steps* t) const override {
        Transfer r;
        r.clause = "EN 1992-1-1 9.4.2(1), Figure 9.9";
        r.mostClause = "EN 1992-1-1 I.1.2(5)";
        double room = in.c2 + in.sides[0] + in.sides[1];
        r.width = in.corner
                      ? trace::step(t, "b_e", "min(c_z + y/2, b_room)",
                                    {{"c_z", in.c2, "mm"}, {"y", in.toEdge, "mm"}, {"b_room", room, "mm"}},
                                    std::min(in.c2 + in.toEdge / 2, room), "mm", r.clause)
                      : trace::step(t, "b_e", "min(c_z + y, b_room)",
                                    {{"c_z", in.c2, "mm"}, {"y", in.toEdge, "mm"}, {"b_room", room, "mm"}},
                                    std::min(in.c2 + in.toEdge, room), "mm", r.clause);
        r.most =
            trace::step(t, "M_t,max", "0.17*b_e*d^2*f_ck/1e6",
                        {{"b_e", r.width, "mm"}, {"d", in.section.d, "mm"}, {"f_ck", in.section.fc, "MPa"}},
                        0.17 * r.width * in.section.d * in.section.d * in.section.fc / 1e6, "kNm",
                        r.mostClause) *
            1e6;
        return r;
    }
    // (5.10a): delta >= k_1 + k_2 x_u/d up to C50/60, not below 0.7 (steel of class B or C), 0.8 (class A);
    // recommended values. Read for class B and C.
    Finding redistribution(const Section& s, double As, double share, Steps* t) const override {
        Finding f;
        f.clause = "EN 1992-1-1 5.5(4)";
        f.prefix = "share";
        double x = flexure_.resistance(s, As, 0).x, eps = concrete(s.fc).eps_cu2;
        double k1 = s.fc <= 50 ? 0.44 : 0.54, k2 = 1.25 * (0.6 + 0.0014 / eps);
        f.demand = share;
        f.limit = trace::step(t, "r_max", "min(1 - (k_1 + k_2*x_u/d), 0.3)",
                              {{"k_1", k1}, {"k_2", k2}, {"x_u", x, "mm"}, {"d", s.d, "mm"}},
                              std::min(1 - (k1 + k2 * x / s.d), 0.3), "-", f.clause,
                              "share that may be taken off; steel of class B or C");
        f.notes.push_back("Adjacent spans must stay within ratios of 0.5 to 2, which is not checked here.");
        return checks::judged(f);
    }

  private:
    const FlexureRules& flexure_;
};

}  // namespace

std::unique_ptr<StripRules> stripRules(const FlexureRules& flexure) {
    return std::make_unique<Strips>(flexure);
}

}  // namespace talvik::standards::en1992

// Least and most steel, spacing, distribution: 8.2, 9.2.1.1, 9.3.1.1.
#include <algorithm>
#include <cmath>

#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

class Steel final : public SteelRules {
  public:
    explicit Steel(const Parameters& p) : p_(p) {}

    double minimum(const Section& s, Steps* t) const override {
        double fctm = concrete(s.fc).fctm;
        return trace::step(t, "A_s,min", "max(k_min*f_ctm/f_yk, r_min)*b*d",
                           {{"k_min", p_.as_min_factor},
                            {"f_ctm", fctm, "MPa"},
                            {"f_yk", s.fy, "MPa"},
                            {"r_min", p_.as_min_floor},
                            {"b", s.b, "mm"},
                            {"d", s.d, "mm"}},
                           std::max(p_.as_min_factor * fctm / s.fy, p_.as_min_floor) * s.b * s.d, "mm²",
                           clauses(false).minimum);
    }
    double beamMinimum(const Section& s, Steps* t) const override { return minimum(s, t); }
    std::string beamClause() const override { return "EN 1992-1-1 9.2.1.1(1)"; }
    double maximum(const Section& s, Steps* t) const override {
        return trace::step(t, "A_s,max", "k_max*b*h",
                           {{"k_max", p_.as_max_ratio}, {"b", s.b, "mm"}, {"h", s.h, "mm"}},
                           p_.as_max_ratio * s.b * s.h, "mm²", clauses(false).maximum);
    }
    double spacing(Role role, bool peak, double h, Steps* t) const override {
        const bool main = role != Role::Secondary;
        double k = main ? (peak ? 2 : 3) : (peak ? 3 : 3.5);
        double cap = main ? (peak ? 250 : 400) : (peak ? 400 : 450);
        return trace::step(t, "s_max", "min(k*h, s_cap)", {{"k", k}, {"h", h, "mm"}, {"s_cap", cap, "mm"}},
                           std::min(k * h, cap), "mm", clauses(false).spacing,
                           peak ? "area of largest moment" : "");
    }
    double clear(double diameter, double aggregate, Steps* t) const override {
        return trace::step(t, "s_clear", "max(phi, d_g + 5, 20)",
                           {{"phi", diameter, "mm"}, {"d_g", aggregate, "mm"}},
                           std::max({diameter, aggregate + 5, 20.0}), "mm", clauses(false).clear);
    }
    double secondary(double mainSteel, const Section&, Steps* t) const override {
        return trace::step(t, "A_s,sec", "k_sec*A_s",
                           {{"k_sec", p_.secondary_ratio}, {"A_s", mainSteel, "mm²"}},
                           p_.secondary_ratio * mainSteel, "mm²", clauses(false).secondary);
    }
    Clauses clauses(bool) const override {
        return {"EN 1992-1-1 9.3.1.1(1), 9.2.1.1(1)", "EN 1992-1-1 9.2.1.1(3)", "EN 1992-1-1 9.3.1.1(3)",
                "EN 1992-1-1 8.2(2)", "EN 1992-1-1 9.3.1.1(2)"};
    }

  private:
    Parameters p_;
};

}  // namespace

std::unique_ptr<SteelRules> steelRules(const Parameters& p) {
    return std::make_unique<Steel>(p);
}

}  // namespace talvik::standards::en1992

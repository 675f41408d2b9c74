// Connections: 22.6 and 8.4.4 on real perimeters.
//
// Readings. Moments act about the principal axes of the section, which for columns at corners and beside
// openings are not those of the column; its first moment of area is that of the line times the depth, with
// the twisting term d3/12 of the sides along the axis. gamma_v takes the extents of the section along these
// axes. A corner that looks inwards counts as an edge for alpha_s, a strip between two edges as a corner.
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "standards/aci318/native.h"
#include "standards/control_lines.h"

namespace talvik::standards::aci318 {
namespace {

using geometry::Point;
using geometry::Ring;
using punching::Perimeter;
using trace::step;
using At = ControlSection::At;

constexpr double phi = 0.75;

class Rules final : public PunchingRules {
  public:
    Rules(const Edition& e, double lambda) : e_(e), lambda_(lambda), flexure_(flexureRules(e)) {}
    double reach(double d) const override { return d / 2; }
    punching::Rule lineAt(double distance, double h, double) const override {
        return {distance, false, 4 * h};
    }

    std::vector<ControlSection> sections(const PunchingPlace& at) const override {
        auto all = lines(at, at.site, at.hasDrop() ? at.dropD : at.d, At::Control);
        if (at.hasDrop()) {
            punching::Site drop = at.site;
            drop.loaded = at.drop;
            for (auto& s : lines(at, drop, at.d, At::Drop)) all.push_back(std::move(s));
        }
        return all;
    }

    double stress(const PunchingPlace& at, const ControlSection& s, const PunchingForces& f,
                  trace::Steps* t) const override {
        if (s.length <= 0 || s.d <= 0) return 0;
        const double sign = f.V < 0 ? -1 : 1, V = std::abs(f.V);
        const Point arm{at.middle.x - s.about.x, at.middle.y - s.about.y};
        const Point m{sign * f.Mx + V * arm.x, sign * f.My + V * arm.y};
        const double M[2] = {dot(m, along(s.axis)), dot(m, along(s.axis + 90))};
        double most = 0, v = V / (s.length * s.d), share[2];
        for (int i : {0, 1}) share[i] = byShear(at, s, f, i, t);
        Point where;
        for (Point c : s.corners) {
            const double here = std::abs(v + share[0] * M[0] * c.x / s.W[0] + share[1] * M[1] * c.y / s.W[1]);
            if (here > most) most = here, where = c;
        }
        if (!t) return most;
        const double l = e_.length, l4 = l * l * l * l;
        const double native =
            step(t, "v_u", "abs(V_u*k_F/(b_o*d) + gamma_v1*M_1*k_M*e_1/J_1 + gamma_v2*M_2*k_M*e_2/J_2)",
                 {{"V_u", V / force(e_) / e_.forceFactor, e_.forceUnit},
                  {"k_F", e_.forceFactor},
                  {"b_o", s.length / l, e_.lengthUnit},
                  {"d", s.d / l, e_.lengthUnit},
                  {"gamma_v1", share[0]},
                  {"M_1", nativeMoment(M[0], e_) / e_.momentFactor, e_.momentUnit},
                  {"k_M", e_.momentFactor},
                  {"e_1", where.x / l, e_.lengthUnit},
                  {"J_1", s.W[0] / l4, ""},
                  {"gamma_v2", share[1]},
                  {"M_2", nativeMoment(M[1], e_) / e_.momentFactor, e_.momentUnit},
                  {"e_2", where.y / l, e_.lengthUnit},
                  {"J_2", s.W[1] / l4, ""}},
                 most / e_.stress, e_.stressUnit, "ACI 318-19 8.4.4.2",
                 "about the principal axes of the section, at the place where it is largest");
        return native * e_.stress;
    }

    double strength(const PunchingPlace& at, const ControlSection& s, trace::Steps* t) const override {
        if (s.at == At::Outer) {
            const auto r = values(at, s);
            return step(t, "phi_v_c", "phi*k_c*lambda_s*lambda*min(sqrt(f'_c), r_cap)",
                        {{"phi", phi},
                         {"k_c", plain() / 2},
                         {"lambda_s", r.size},
                         {"lambda", lambda_},
                         {"f'_c", at.fc / e_.stress, e_.stressUnit},
                         {"r_cap", e_.rootCap}},
                        r.outside / e_.stress, e_.stressUnit, "ACI 318-19 22.6.6.1") *
                   e_.stress;
        }
        const auto r = values(at, s);
        const double fc = at.fc / e_.stress, l = e_.length;
        const bool metric = e_.units == units::System::Metric;
        const double size = step(t, "lambda_s", e_.sizeExpression, {{"d", s.d / l, e_.lengthUnit}}, r.size,
                                 "-", "ACI 318-19 22.5.5.1.3");
        const double root = step(
            t, "r", "lambda_s*lambda*min(sqrt(f'_c), r_cap)",
            {{"lambda_s", size}, {"lambda", lambda_}, {"f'_c", fc, e_.stressUnit}, {"r_cap", e_.rootCap}},
            size * lambda_ * std::min(std::sqrt(fc), e_.rootCap), e_.stressUnit, "ACI 318-19 22.6.3.1");
        const double a = step(t, "v_c,a", "k_c*r", {{"k_c", plain()}, {"r", root, e_.stressUnit}},
                              r.plain / e_.stress, e_.stressUnit, "ACI 318-19 Table 22.6.5.2(a)");
        const double b = step(t, "v_c,b", "k_c/2*(1 + 2/beta)*r",
                              {{"k_c", metric ? 0.34 : 4}, {"beta", beta(at, s)}, {"r", root, e_.stressUnit}},
                              r.ratio / e_.stress, e_.stressUnit, "ACI 318-19 Table 22.6.5.2(b)");
        const double c = step(t, "v_c,c", "k_c*(2 + alpha_s*d/b_o)*r",
                              {{"k_c", metric ? 0.083 : 1},
                               {"alpha_s", alpha(s)},
                               {"d", s.d / l, e_.lengthUnit},
                               {"b_o", s.length / l, e_.lengthUnit},
                               {"r", root, e_.stressUnit}},
                              r.perimeter / e_.stress, e_.stressUnit, "ACI 318-19 Table 22.6.5.2(c)");
        return step(t, "phi_v_c", "phi*min(v_c,a, v_c,b, v_c,c)",
                    {{"phi", phi},
                     {"v_c,a", a, e_.stressUnit},
                     {"v_c,b", b, e_.stressUnit},
                     {"v_c,c", c, e_.stressUnit}},
                    r.strength / e_.stress, e_.stressUnit, "ACI 318-19 22.6.5.2") *
               e_.stress;
    }

    std::string clause(At at) const override {
        return at == At::Outer  ? "ACI 318-19 22.6.6.1"
               : at == At::Drop ? "ACI 318-19 22.6.4.1"
                                : "ACI 318-19 22.6.5.2";
    }
    std::vector<std::string> notes(const PunchingPlace& at, const ControlSection&) const override {
        return {
            at.moreByBending
                ? "Moments act about the principal axes of the real section; gamma_f is modified by Table "
                  "8.4.2.2.4 where its conditions hold."
                : "Moments act about the principal axes of the real section; gamma_f is not modified by "
                  "Table "
                  "8.4.2.2.4."};
    }
    std::string bendingFactors() const override {
        return "Table 8.4.2.2.4: as much of the moment by bending as the bars within the column and 1.5h on "
               "either side take, where shear and strain there keep the table's limits.";
    }

    // ASTM A1044, which 20.2.1.7 asks of headed shear studs: 350 MPa (51 ksi).
    double stockStudYield() const override {
        return e_.units == units::System::Metric ? 350 : 51000 * e_.stress;
    }

    ShearSteelRule steel(const PunchingPlace& at, const ControlSection& s, ShearSteel kind, double v,
                         double fyw, trace::Steps* t) const override {
        const auto r = values(at, s);
        const bool studs = kind == ShearSteel::Studs;
        ShearSteelRule rule;
        rule.ceilingClause = "ACI 318-19 Table 22.6.6.3";
        rule.clause = studs ? "ACI 318-19 22.6.8.2" : "ACI 318-19 22.6.7.2";
        const double concrete = (studs ? r.withStuds : r.withStirrups) / e_.stress,
                     f = yield(fyw) / e_.stress;
        rule.ceiling = step(t, "v_ceiling", "phi*k*min(sqrt(f'_c), r_cap)",
                            {{"phi", phi},
                             {"k", ceilingFactor(studs)},
                             {"f'_c", at.fc / e_.stress, e_.stressUnit},
                             {"r_cap", e_.rootCap}},
                            (studs ? r.ceilingStuds : r.ceilingStirrups) / e_.stress, e_.stressUnit,
                            rule.ceilingClause) *
                       e_.stress;
        rule.perSpacing = step(t, "A_v/s", "max(0, v_u/phi - v_c)*b_o/f_yt",
                               {{"v_u", v / e_.stress, e_.stressUnit},
                                {"phi", phi},
                                {"v_c", concrete, e_.stressUnit},
                                {"b_o", s.length / e_.length, e_.lengthUnit},
                                {"f_yt", f, e_.stressUnit}},
                               std::max(0.0, v / e_.stress / phi - concrete) * s.length / e_.length / f,
                               std::string(areaUnit(e_)) + "/" + e_.lengthUnit, rule.clause) *
                          e_.length;
        rule.spacingClause = studs ? "ACI 318-19 Table 8.7.7.1.2" : "ACI 318-19 Table 8.7.6.3";
        rule.leastClause = "ACI 318-19 22.6.8.3";
        rule.firstMost = s.d / 2;
        rule.radial = studs && v <= r.halfDepth ? 0.75 * s.d : s.d / 2;
        rule.tangential = 2 * s.d, rule.tangentialOutside = 1e9, rule.inside = s.d;
        rule.beyond = s.d / 2;
        if (studs) rule.leastPerimeter = r.leastStuds * s.length / yield(fyw);
        if (!studs) {
            rule.diameterMost = s.d / 16;
            rule.possible = s.d >= (e_.units == units::System::Metric ? 150 : 6 * e_.length);
            if (!rule.possible)
                rule.word = "Links require an effective depth of at least 150 mm (ACI 318-19 22.6.7.1).";
        }
        return rule;
    }
    double withSteel(const PunchingPlace& at, const ControlSection& s, ShearSteel kind, double area_,
                     double spacing, double fyw, trace::Steps* t) const override {
        const auto r = values(at, s);
        const bool studs = kind == ShearSteel::Studs;
        const double concrete = (studs ? r.withStuds : r.withStirrups) / e_.stress,
                     f = yield(fyw) / e_.stress, b = s.length / e_.length, A = area_ / area(e_),
                     sp = spacing / e_.length;
        const double ceiling = (studs ? r.ceilingStuds : r.ceilingStirrups) / e_.stress;
        return step(t, "phi_v_n", "min(phi*(v_c + A_v*f_yt/(b_o*s)), v_ceiling)",
                    {{"phi", phi},
                     {"v_c", concrete, e_.stressUnit},
                     {"A_v", A, areaUnit(e_)},
                     {"f_yt", f, e_.stressUnit},
                     {"b_o", b, e_.lengthUnit},
                     {"s", sp, e_.lengthUnit},
                     {"v_ceiling", ceiling, e_.stressUnit}},
                    std::min(phi * (concrete + A * f / (b * sp)), ceiling), e_.stressUnit,
                    studs ? "ACI 318-19 22.6.8.2" : "ACI 318-19 22.6.7.2") *
               e_.stress;
    }
    ControlSection outer(const PunchingPlace& at, const ControlSection& control,
                         const Ring& legs) const override {
        punching::Site site = at.site;
        site.loaded = legs;
        site.from = geometry::centroid(at.site.loaded);
        double d = control.d;
        auto p = punching::perimeter(site, lineAt(d / 2, at.h, d));
        if (leavesDrop(at, p)) d = at.d, p = punching::perimeter(site, lineAt(d / 2, at.h, d));
        ControlSection s = section(at, classed(std::move(p)), d, At::Outer);
        s.position = control.position;
        return s;
    }
    // 8.6.1.2: where the direct shear exceeds phi 2 lambda_s lambda sqrt(f'c).
    LeastSteel leastSteel(const PunchingPlace& at, const ControlSection& s, const PunchingForces& f,
                          int direction, trace::Steps* t) const override {
        LeastSteel out;
        const double width = at.overWidth[direction];
        const double v = std::abs(f.V) / (s.length * s.d);
        const auto r = values(at, s);
        if (v <= r.outside || at.of != PunchingPlace::Of::Column) return out;
        out.clause = "ACI 318-19 8.6.1.2";
        out.area =
            step(t, "A_s,min", "5*v_uv*b_slab*b_o/(phi*alpha_s*f_y)",
                 {{"v_uv", v / e_.stress, e_.stressUnit},
                  {"b_slab", width / e_.length, e_.lengthUnit},
                  {"b_o", s.length / e_.length, e_.lengthUnit},
                  {"phi", phi},
                  {"alpha_s", alpha(s)},
                  {"f_y", at.fy / e_.stress, e_.stressUnit}},
                 5 * v * width * s.length / (phi * alpha(s) * at.fy) / area(e_), areaUnit(e_), out.clause) *
            area(e_);
        return out;
    }

    // 8.4.2.2. Readings: the moment is that about the middle of the column, along the bars; b1 and b2 are the
    // extents of the control section along and across them; the bars counted are those of the tension face.
    Bending bending(const PunchingPlace& at, const ControlSection& s, const PunchingForces& f, int direction,
                    trace::Steps* t) const override {
        Bending out;
        const double width = at.overWidth[direction];
        if (at.of != PunchingPlace::Of::Column || s.at != At::Control || width <= 0) return out;
        const double l = e_.length, angle = at.directions[direction];
        const auto M = std::abs(dot({f.Mx, f.My}, along(angle)));
        // Extents of the section along and across the bars.
        double b[2] = {0, 0};
        for (int k : {0, 1}) {
            const Point way = along(angle + 90 * k - s.axis);
            double low = 1e300, high = -1e300;
            for (Point c : s.corners) low = std::min(low, dot(c, way)), high = std::max(high, dot(c, way));
            b[k] = std::max(high - low, 1.0);
        }
        const double plain_ = 1 - momentByShear(b[0], b[1]);
        out.clause = "ACI 318-19 8.4.2.2";
        double share = step(t, "gamma_f", "1/(1 + 2/3*sqrt(b_1/b_2))",
                            {{"b_1", b[0] / l, e_.lengthUnit}, {"b_2", b[1] / l, e_.lengthUnit}}, plain_, "-",
                            "ACI 318-19 8.4.2.2.2");
        const double drop = at.hasDrop() ? at.dropD - at.d : 0;
        const Section section{width,     at.h + drop, std::max(20.0, at.d + at.offset[direction] + drop),
                              at.d / 10, at.fc,       at.fy};
        const auto bars = flexure_->resistance(section, at.overSteel[direction] * width, 0, t);
        out.resistance = bars.M;
        if (at.moreByBending) {
            const double v = std::abs(f.V) / (s.length * s.d), yields = at.fy / e_.stress / e_.Es;
            // Table 8.4.2.2.4: largest direct shear as a share of phi v_c, strain beyond that of yielding,
            // most.
            double shear = 0, strain = 0, most = 0;
            const bool square = s.position == Position::Edge && !s.line.edges.empty() &&
                                std::abs(dot(s.line.edges.front(), along(angle))) > std::numbers::sqrt2 / 2;
            if (s.position == Position::Corner)
                shear = 0.5, strain = 0.003, most = 1;
            else if (square)
                shear = 0.75, strain = 0.003, most = 1;
            else if (s.position == Position::Edge || s.position == Position::Interior)
                shear = 0.4, strain = 0.008, most = std::min(1.0, 1.25 * plain_);
            if (most > share && v <= shear * values(at, s).strength && bars.strain >= yields + strain &&
                M > 0)
                share = step(t, "gamma_f,mod", "max(gamma_f, min(gamma_max, phi_M_n/M_sc))",
                             {{"gamma_f", plain_},
                              {"gamma_max", most},
                              {"phi_M_n", nativeMoment(bars.M, e_) / e_.momentFactor, e_.momentUnit},
                              {"M_sc", nativeMoment(M, e_) / e_.momentFactor, e_.momentUnit}},
                             std::max(share, std::min(most, bars.M / M)), "-", "ACI 318-19 Table 8.4.2.2.4");
        }
        out.share = share, out.plain = plain_;
        out.moment =
            step(t, "M_f", "gamma_f*M_sc",
                 {{"gamma_f", share}, {"M_sc", nativeMoment(M, e_) / e_.momentFactor, e_.momentUnit}},
                 share * nativeMoment(M, e_) / e_.momentFactor, e_.momentUnit, out.clause) *
            e_.momentFactor;
        out.moment = storedMoment(out.moment, e_);
        return out;
    }

  private:
    const Edition& e_;
    double lambda_;
    std::unique_ptr<FlexureRules> flexure_;

    // gamma_v about one of the section's axes: what bending leaves. An axis aslant to the bars gets as much
    // as the direction that can least.
    double byShear(const PunchingPlace& at, const ControlSection& s, const PunchingForces& f, int axis,
                   trace::Steps* t) const {
        if (!at.moreByBending || s.at != At::Control || at.of != PunchingPlace::Of::Column)
            return s.share[axis];
        double more = 1e300;
        for (int k : {0, 1}) {
            if (std::abs(dot(along(s.axis + 90 * axis), along(at.directions[k]))) < 0.35) continue;
            const auto b = bending(at, s, f, k, nullptr);
            more = std::min(more, b.plain > 0 ? b.share / b.plain : 1);
        }
        if (more > 1e299 || more <= 1 + 1e-9) return s.share[axis];
        const double f_ = 1 - s.share[axis];
        return step(t, axis == 0 ? "gamma_v1" : "gamma_v2", "max(0, 1 - k_mod*gamma_f)",
                    {{"k_mod", more}, {"gamma_f", f_}}, std::max(0.0, 1 - more * f_), "-",
                    "ACI 318-19 Table 8.4.2.2.4", "k_mod: modified over plain gamma_f along the bars");
    }

    double plain() const { return e_.units == units::System::Metric ? 0.33 : 4; }
    double ceilingFactor(bool studs) const {
        return e_.units == units::System::Metric ? (studs ? 0.66 : 0.5) : (studs ? 8 : 6);
    }
    // Table 20.2.2.4(a): 420 MPa (60 ksi) at the most.
    double yield(double fyw) const {
        return std::min(fyw, e_.units == units::System::Metric ? 420 : 60000 * e_.stress);
    }
    static double alpha(const ControlSection& s) {
        return s.position == Position::Interior                                    ? 40
               : s.position == Position::Edge || s.position == Position::ReEntrant ? 30
                                                                                   : 20;
    }
    static double beta(const PunchingPlace& at, const ControlSection& s) {
        if (at.round && s.at == At::Control) return 1;
        const double a = s.at == At::Drop ? extent(at.drop, along(at.angle)) : at.c1,
                     b = s.at == At::Drop ? extent(at.drop, along(at.angle + 90)) : at.c2;
        return std::max(a, b) / std::max(1.0, std::min(a, b));
    }
    TwoWayShear values(const PunchingPlace& at, const ControlSection& s) const {
        return twoWayShear(e_, s.d, s.length, beta(at, s), alpha(s), at.fc, lambda_);
    }

    std::vector<ControlSection> lines(const PunchingPlace& at, const punching::Site& site, double d,
                                      At which) const {
        std::vector<ControlSection> all;
        for (auto& line : controlLines(site, lineAt(d / 2, at.h, d)))
            all.push_back(section(at, std::move(line), d, which));
        return all;
    }
    ControlSection section(const PunchingPlace& at, ControlLine control, double d, At which) const {
        ControlSection s;
        s.at = which, s.d = d;
        s.length = control.length, s.position = control.position;
        Perimeter& line = control.line;
        s.about = line.centroid();
        s.axis = at.angle;
        if (s.position == Position::Edge && !line.edges.empty())
            s.axis = std::atan2(line.edges.front().y, line.edges.front().x) * 180 / std::numbers::pi;
        auto J = [&](double angle) {
            const auto m = line.moments(s.about, angle);
            return std::array{d * m.second + d * d * d / 12 * m.across, m.across, m.reach[1] - m.reach[0]};
        };
        const auto one = J(s.axis), two = J(s.axis + 90);
        const double mixed = line.moments(s.about, s.axis + 45).across - (one[1] + two[1]) / 2;
        const double product = d * line.product(s.about, s.axis) + d * d * d / 12 * mixed;
        if (std::abs(product) > 1e-3 * (one[0] + two[0]))
            s.axis += std::atan2(2 * product, one[0] - two[0]) * 90 / std::numbers::pi;
        double b[2];
        for (int k : {0, 1}) {
            const auto j = J(s.axis + 90 * k);
            s.W[k] = std::max(j[0], 1.0), b[k] = j[2];
            s.extent[k] = j[2];
        }
        for (int k : {0, 1}) s.share[k] = momentByShear(std::max(b[k], 1.0), std::max(b[1 - k], 1.0));
        const Point x = along(s.axis), y = along(s.axis + 90);
        for (const auto& path : line.paths)
            for (Point p : path) {
                const Point off{p.x - s.about.x, p.y - s.about.y};
                s.corners.push_back({dot(off, x), dot(off, y)});
            }
        s.line = std::move(line);
        return s;
    }
};

}  // namespace

std::unique_ptr<PunchingRules> punchingRules(const Edition& e, double lambda) {
    return std::make_unique<Rules>(e, lambda);
}

}  // namespace talvik::standards::aci318

// Connections: 6.4.2 to 6.4.5 and 9.4.3 on real perimeters.
//
// Readings. Eccentricities of both axes are joined as in (6.43): the root of the sum of squares of what
// (6.39) says of each, with the first moments W of the real perimeter about its centroid. Edge and corner
// columns whose eccentricity points into the slab follow (6.44) and (6.46); the reduced perimeter loses what
// the sides of the column are longer than 1.5d or half of them, a rim beyond the column counts. Openings
// within 6d take out what lies in their shadow (6.4.2(3)), those longer outwards than across as Figure 6.14
// has it. Where a rim is so thin that two perimeters are about as long, both are looked at. On ground every
// perimeter from d/4 outwards is looked at, with the ground's pressure inside it taken off and 2d/a times the
// strength (6.4.4(2)). Columns more than four times as long as thick are walls by 5.3.1(7): 1.5d of each end
// counts, what lies beside the rest takes nothing.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "standards/control_lines.h"
#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

using geometry::Point;
using geometry::Ring;
using punching::Perimeter;
using trace::step;
using At = ControlSection::At;

double degrees(Point way) {
    return std::atan2(way.y, way.x) * 180 / std::numbers::pi;
}

class Rules final : public PunchingRules {
  public:
    explicit Rules(const Parameters& p) : p_(p) {}
    std::string fixedFactors() const override {
        return "EN 1992-1-1 Figure 6.21N: only if the structure is braced and adjacent spans differ by at "
               "most 25 % (confirm).";
    }
    double reach(double d) const override { return 2 * d; }
    double endThatCounts(double longer, double shorter, double d) const override {
        return longer > 4 * shorter ? 1.5 * d : 0;
    }
    punching::Rule lineAt(double distance, double, double d) const override {
        return {distance, true, 6 * d, true};
    }

    std::vector<ControlSection> sections(const PunchingPlace& at) const override {
        std::vector<ControlSection> all;
        const double dColumn = at.hasDrop() ? at.dropD : at.d;
        const double lH = at.hasDrop() ? toDropEdge(at) : 0;
        const bool inside = !at.hasDrop() || lH >= 2 * (at.dropH - at.h);
        // The perimeter beside the column is needed for the face too, where it is not looked at itself.
        auto control = lines(at, at.site, 2 * dColumn, dColumn, At::Control);
        if (control.empty()) return all;
        if (at.of == PunchingPlace::Of::Column) all.push_back(face(at, control.front(), dColumn));
        if (inside)
            for (auto& s : control) all.push_back(std::move(s));
        if (at.onGround && at.of != PunchingPlace::Of::Wall)
            for (int k = 2; k < 16; ++k)
                for (auto& s : lines(at, at.site, k * dColumn / 8, dColumn, At::Control)) {
                    s.distance = k * dColumn / 8;
                    all.push_back(std::move(s));
                }
        if (at.hasDrop()) {
            punching::Site drop = at.site;
            drop.loaded = at.drop;
            if (!inside && control.front().line.edges.empty()) {
                const double a = extent(at.drop, along(at.angle)), b = extent(at.drop, along(at.angle + 90));
                const double r = std::min(0.56 * std::sqrt(a * b), 0.69 * std::min(a, b));
                drop.loaded = geometry::round(at.middle, 2 * std::min(r, std::max(a, b) / 2));
            }
            for (auto& s : lines(at, drop, 2 * at.d, at.d, At::Drop)) all.push_back(std::move(s));
        }
        return all;
    }

    double stress(const PunchingPlace& at, const ControlSection& s, const PunchingForces& f,
                  trace::Steps* t) const override {
        const double V = std::abs(f.V);
        if (V <= 0 || s.length <= 0) return 0;
        const double beta = eccentricity(at, s, f, t);
        const std::string clause = s.at == At::Face ? "EN 1992-1-1 (6.53)" : "EN 1992-1-1 (6.38)";
        const double u = s.length * s.scale;
        return step(t, "v_Ed", "beta*V_Ed*1000/(u*d)",
                    {{"beta", beta}, {"V_Ed", V / 1000, "kN"}, {"u", u, "mm"}, {"d", s.d, "mm"}},
                    beta * V / (u * s.d), "MPa", clause,
                    s.at == At::Outer ? "beta is that of the basic control perimeter" : "");
    }

    double strength(const PunchingPlace& at, const ControlSection& s, trace::Steps* t) const override {
        if (s.at == At::Face) {
            const double nu = step(t, "nu", "0.6*(1 - f_ck/250)", {{"f_ck", at.fc, "MPa"}},
                                   0.6 * (1 - at.fc / 250), "-", "EN 1992-1-1 (6.6N)");
            const double fcd = p_.alpha_cc * at.fc / p_.gamma_c;
            return step(t, "v_Rd,max", "0.4*nu*f_cd", {{"nu", nu}, {"f_cd", fcd, "MPa"}}, 0.4 * nu * fcd,
                        "MPa", "EN 1992-1-1 6.4.5(3)");
        }
        const double k = step(t, "k", "min(1 + sqrt(200/d), 2)", {{"d", s.d, "mm"}},
                              std::min(1 + std::sqrt(200 / s.d), 2.0), "-", "EN 1992-1-1 6.4.4(1)");
        double rho[2];
        for (int i : {0, 1}) {
            const double a = (s.at == At::Drop ? at.dropSteel : at.steel)[i], d = s.d + at.offset[i];
            rho[i] = step(t, i == 0 ? "rho_y" : "rho_z", "a_s/(1000*d)",
                          {{"a_s", a * 1000, "mm²/m"}, {"d", d, "mm"}}, a / d, "-", "EN 1992-1-1 6.4.4(1)",
                          "anchored, mean over what is loaded and 3d on either side");
        }
        const double mean =
            step(t, "rho_l", "min(sqrt(rho_y*rho_z), 0.02)", {{"rho_y", rho[0]}, {"rho_z", rho[1]}},
                 std::min(std::sqrt(rho[0] * rho[1]), 0.02), "-", "EN 1992-1-1 6.4.4(1)");
        const double v1 = step(t, "v_1", "c/gamma_c*k*(100*rho_l*f_ck)^(1/3)",
                               {{"c", p_.shear_numerator},
                                {"gamma_c", p_.gamma_c},
                                {"k", k},
                                {"rho_l", mean},
                                {"f_ck", at.fc, "MPa"}},
                               p_.shear_numerator / p_.gamma_c * k * std::cbrt(100 * mean * at.fc), "MPa",
                               "EN 1992-1-1 (6.47)");
        const double v2 =
            step(t, "v_min", "c_min*k^1.5*sqrt(f_ck)",
                 {{"c_min", p_.v_min_factor}, {"k", k}, {"f_ck", at.fc, "MPa"}},
                 p_.v_min_factor * std::pow(k, 1.5) * std::sqrt(at.fc), "MPa", "EN 1992-1-1 (6.3N)");
        const double vc = step(t, "v_Rd,c", "max(v_1, v_min)", {{"v_1", v1, "MPa"}, {"v_min", v2, "MPa"}},
                               std::max(v1, v2), "MPa", "EN 1992-1-1 (6.47)");
        if (s.distance <= 0) return vc;
        return step(t, "v_Rd", "v_Rd,c*2*d/a",
                    {{"v_Rd,c", vc, "MPa"}, {"d", s.d, "mm"}, {"a", s.distance, "mm"}},
                    vc * 2 * s.d / s.distance, "MPa", "EN 1992-1-1 (6.50)");
    }

    std::string clause(At at) const override {
        return at == At::Face    ? "EN 1992-1-1 6.4.5(3)"
               : at == At::Drop  ? "EN 1992-1-1 6.4.2(8)"
               : at == At::Outer ? "EN 1992-1-1 6.4.5(4)"
                                 : "EN 1992-1-1 6.4.4(1)";
    }
    std::vector<std::string> notes(const PunchingPlace& at, const ControlSection& s) const override {
        std::vector<std::string> all;
        if (s.at == At::Face) {
            all.push_back("The force at the face is the column reaction less the load on its own area.");
            return all;
        }
        if (s.reduced > 0)
            all.push_back(
                "The reduced perimeter (Figure 6.20) leaves out what the sides of the column are longer than "
                "1.5d or half "
                "of them; a rim of the slab beyond the column's outer face counts in it.");
        if (at.onGround && at.of != PunchingPlace::Of::Wall)
            all.push_back(
                "On ground all perimeters from d/4 to 2d are checked, less the ground pressure inside them "
                "(6.4.4(2)); shear reinforcement is checked on the same perimeter, with 2d/a on the "
                "resistance of "
                "the concrete.");
        if (at.site.idle)
            all.push_back(
                "The column is more than four times as long as thick, which makes it a wall (5.3.1(7)): the "
                "force is assumed to pass at its ends, 1.5d of each.");
        if (at.fixedEccentricity && fixedFactor(s) > 0)
            all.push_back(
                "Approximate β (Figure 6.21N): the structure is assumed to be braced and adjacent spans to "
                "differ by at most 25 %, as specified.");
        else
            all.push_back(
                "Eccentricities about both axes are joined by the root of their squares, as in (6.43), "
                "with the first moment of the real perimeter about its centroid.");
        return all;
    }

    ShearSteelRule steel(const PunchingPlace& at, const ControlSection& s, ShearSteel, double v, double fyw,
                         trace::Steps* t) const override {
        ShearSteelRule r;
        const double vc = strength(at, s, t), f = yield(s.d, fyw, t);
        r.ceilingClause = "EN 1992-1-1 6.4.5(1)", r.clause = "EN 1992-1-1 (6.52)";
        r.ceiling =
            step(t, "v_ceiling", "k_max*v_Rd,c", {{"k_max", p_.punching_ceiling}, {"v_Rd,c", vc, "MPa"}},
                 p_.punching_ceiling * vc, "MPa", r.ceilingClause);
        r.perSpacing =
            step(t, "A_sw/s_r", "max(0, v_Ed - 0.75*v_Rd,c)*u_1/(1.5*f_ywd,ef)",
                 {{"v_Ed", v, "MPa"}, {"v_Rd,c", vc, "MPa"}, {"u_1", s.length, "mm"}, {"f_ywd,ef", f, "MPa"}},
                 std::max(0.0, v - 0.75 * vc) * s.length / (1.5 * f), "mm²/mm", r.clause);
        r.spacingClause = "EN 1992-1-1 9.4.3(1)", r.leastClause = "EN 1992-1-1 (9.11)";
        r.firstLeast = 0.3 * s.d, r.firstMost = 0.5 * s.d, r.radial = 0.75 * s.d;
        r.tangential = 1.5 * s.d, r.tangentialOutside = 2 * s.d, r.inside = 2 * s.d;
        r.beyond = 1.5 * s.d;
        r.least = 0.08 * std::sqrt(at.fc) / fyw / 1.5;
        r.possible = at.h >= 200;
        if (!r.possible)
            r.word = "Shear reinforcement requires a slab of at least 200 mm (EN 1992-1-1 9.3.2(1)).";
        return r;
    }
    double withSteel(const PunchingPlace& at, const ControlSection& s, ShearSteel, double area,
                     double spacing, double fyw, trace::Steps* t) const override {
        const double vc = strength(at, s, t), f = yield(s.d, fyw, t);
        const double v = step(t, "v_Rd,cs", "0.75*v_Rd,c + 1.5*A_sw*f_ywd,ef/(s_r*u_1)",
                              {{"v_Rd,c", vc, "MPa"},
                               {"A_sw", area, "mm²"},
                               {"f_ywd,ef", f, "MPa"},
                               {"s_r", spacing, "mm"},
                               {"u_1", s.length, "mm"}},
                              0.75 * vc + 1.5 * area * f / (spacing * s.length), "MPa", "EN 1992-1-1 (6.52)");
        return step(t, "v_Rd", "min(v_Rd,cs, k_max*v_Rd,c)",
                    {{"v_Rd,cs", v, "MPa"}, {"k_max", p_.punching_ceiling}, {"v_Rd,c", vc, "MPa"}},
                    std::min(v, p_.punching_ceiling * vc), "MPa", "EN 1992-1-1 6.4.5(1)");
    }
    ControlSection outer(const PunchingPlace& at, const ControlSection& control,
                         const Ring& legs) const override {
        ControlSection s = control;
        punching::Site site = at.site;
        site.loaded = legs;
        site.idle.reset();
        site.from = geometry::centroid(at.site.loaded);
        s.at = At::Outer, s.distance = 0;
        s.line = punching::perimeter(site, lineAt(1.5 * control.d, at.h, control.d));
        if (leavesDrop(at, s.line)) {
            s.d = at.d;
            s.line = punching::perimeter(site, lineAt(1.5 * at.d, at.h, at.d));
        }
        s.scale = control.length > 0 ? s.line.length() / control.length : 0;
        return s;
    }
    LeastSteel leastSteel(const PunchingPlace&, const ControlSection&, const PunchingForces&, int,
                          trace::Steps*) const override {
        return {};
    }

  private:
    Parameters p_;

    double yield(double d, double fyw, trace::Steps* t) const {
        return step(t, "f_ywd,ef", "min(250 + 0.25*d, f_ywk/gamma_s)",
                    {{"d", d, "mm"}, {"f_ywk", fyw, "MPa"}, {"gamma_s", p_.gamma_s}},
                    std::min(250 + 0.25 * d, fyw / p_.gamma_s), "MPa", "EN 1992-1-1 6.4.5(1)");
    }

    static double toDropEdge(const PunchingPlace& at) {
        // Along the sides of the drop that are no edge of the slab.
        double least = 1e300;
        for (std::size_t i = 0; i < at.drop.size(); ++i) {
            const Point a = at.drop[i], b = at.drop[(i + 1) % at.drop.size()],
                        m{(a.x + b.x) / 2, (a.y + b.y) / 2};
            bool free = false;
            for (const Ring& slab : at.site.slabs) free |= geometry::distanceToEdge(slab, m) < 1;
            if (free) continue;
            for (Point p : at.site.loaded) least = std::min(least, geometry::distance(p, a, b));
        }
        return least;
    }

    std::vector<ControlSection> lines(const PunchingPlace& at, const punching::Site& site, double distance,
                                      double d, At which) const {
        std::vector<ControlSection> all;
        for (auto& [line, length, position] : controlLines(site, lineAt(distance, at.h, d))) {
            ControlSection s;
            s.at = which, s.d = d;
            s.length = length, s.position = position;
            s.about = line.centroid();
            const auto& loaded = site.loaded;
            const auto& n = line.edges;
            s.axis = !n.empty() && (s.position == Position::Edge || s.position == Position::Corner)
                         ? degrees(n.front())
                         : at.angle;
            double c[2];
            for (int k : {0, 1}) {
                c[k] = which == At::Control && at.round ? at.c1 : extent(loaded, along(s.axis + 90 * k));
                s.extent[k] = c[k];
                s.W[k] = line.moments(s.about, s.axis + 90 * k).first;
            }
            for (int k : {0, 1})
                s.share[k] = eccentricityShare(at.round ? 1 : c[k] / std::max(c[1 - k], 1.0));
            // What the outer sides of the column lose; a rim beyond them counts.
            auto lost = [&](double across) {
                return std::max(0.0, across - std::min(1.5 * d, 0.5 * across));
            };
            if (at.of == PunchingPlace::Of::Wall) {
                // The wall goes on where the line ends: no edge, and no reduced perimeter.
            } else if (s.position == Position::Edge && !n.empty()) {
                s.reduced = s.length - 2 * lost(c[0]);
                s.share[1] = eccentricityShare(at.round ? 0.5 : c[0] / std::max(2 * c[1], 1.0));  // 6.4.3(4)
            } else if (s.position == Position::Corner && n.size() > 1) {
                s.reduced = s.length - lost(c[0]) - lost(c[1]);
            }
            if (s.reduced > s.length) s.reduced = s.length;
            s.line = std::move(line);
            all.push_back(std::move(s));
        }
        return all;
    }

    // The column's own perimeter, 6.4.5(3); eccentricity is that of the control perimeter.
    ControlSection face(const PunchingPlace& at, const ControlSection& control, double d) const {
        ControlSection s = control;
        s.at = At::Face, s.d = d;
        double u = 0;
        const double c1 = control.extent[0], c2 = control.extent[1];
        switch (control.position) {
            case Position::Edge:
                u = columnPerimeter(Place::Edge, c1, c2, d);
                break;
            case Position::Corner:
                u = columnPerimeter(Place::Corner, c1, c2, d);
                break;
            default: {
                Perimeter own;
                own.paths = {at.site.loaded};
                own.paths[0].push_back(at.site.loaded.front());
                u = at.round ? std::numbers::pi * at.c1 : own.length();
                // At a corner that looks inwards a quarter of it has no slab beside it; between edges half.
                if (control.position == Position::ReEntrant) u *= 0.75;
                if (control.position == Position::Between) u *= 0.5;
            }
        }
        // What an opening right beside the column takes away.
        if (!at.site.openings.empty() || !at.site.bodies.empty() || at.site.idle) {
            const auto lit = punching::perimeter(at.site, {0.05 * d, true, 0.5 * d});
            const double dead = Perimeter{lit.dead, {}, {}, {}}.length();
            if (dead > 0) u *= lit.length() / (lit.length() + dead);
        }
        s.line.paths = {at.site.loaded};
        s.line.paths[0].push_back(at.site.loaded.front());
        s.line.dead.clear();
        s.scale = u / control.length;
        return s;
    }

    static double fixedFactor(const ControlSection& s) {
        switch (s.position) {
            case Position::Interior:
                return 1.15;
            case Position::Edge:
                return 1.4;
            case Position::Corner:
                return 1.5;
            default:
                return 0;
        }
    }

    double eccentricity(const PunchingPlace& at, const ControlSection& s, const PunchingForces& f,
                        trace::Steps* t) const {
        if (at.fixedEccentricity && at.of == PunchingPlace::Of::Column && fixedFactor(s) > 0)
            return step(t, "beta", "", {}, fixedFactor(s), "-", "EN 1992-1-1 6.4.3(6)",
                        "fixed factor for " + name(s.position) + " columns");
        const Point e{f.Mx / f.V, f.My / f.V};  // of the line of action from the middle
        const Point own{e.x + at.middle.x - s.about.x, e.y + at.middle.y - s.about.y};
        const double e1 = dot(own, along(s.axis)), e2 = dot(own, along(s.axis + 90));
        const double u = s.length;
        bool inwards = s.reduced > 0;
        for (Point n : s.line.edges) inwards &= dot(e, n) >= 0;
        if (inwards && s.position == Position::Edge)
            return step(t, "beta", "u_1/u_1s + k*abs(e_par)*u_1/W_1",
                        {{"u_1", u, "mm"},
                         {"u_1s", s.reduced, "mm"},
                         {"k", s.share[1]},
                         {"e_par", e2, "mm"},
                         {"W_1", s.W[1], "mm²"}},
                        u / s.reduced + s.share[1] * std::abs(e2) * u / s.W[1], "-", "EN 1992-1-1 (6.44)",
                        "eccentricity into the slab; u_1s is the reduced perimeter of Figure 6.20");
        if (inwards && s.position == Position::Corner)
            return step(t, "beta", "u_1/u_1s", {{"u_1", u, "mm"}, {"u_1s", s.reduced, "mm"}}, u / s.reduced,
                        "-", "EN 1992-1-1 (6.46)",
                        "eccentricity into the slab; u_1s is the reduced perimeter of Figure 6.20");
        double k[2] = {s.share[0], s.share[1]};
        if (s.position == Position::Edge && !at.round)
            k[1] = eccentricityShare(s.extent[1] / std::max(s.extent[0], 1.0));
        return step(t, "beta", "1 + u_1*sqrt((k_1*e_1/W_1)^2 + (k_2*e_2/W_2)^2)",
                    {{"u_1", u, "mm"},
                     {"k_1", k[0]},
                     {"e_1", e1, "mm"},
                     {"W_1", s.W[0], "mm²"},
                     {"k_2", k[1]},
                     {"e_2", e2, "mm"},
                     {"W_2", s.W[1], "mm²"}},
                    1 + u * std::hypot(k[0] * e1 / s.W[0], k[1] * e2 / s.W[1]), "-", "EN 1992-1-1 (6.39)",
                    "eccentricities from the centroid of the perimeter along its two axes");
    }
};

}  // namespace

std::unique_ptr<PunchingRules> punchingRules(const Parameters& p) {
    return std::make_unique<Rules>(p);
}

}  // namespace talvik::standards::en1992

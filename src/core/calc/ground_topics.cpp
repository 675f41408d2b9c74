// Topics of ground, bases and piles.
#include <fmt/format.h>

#include <cmath>
#include <sstream>

#include "calc/topics.h"
#include "ground/bearing_resistance.h"
#include "ground/pile_group.h"
#include "ground/rigid_base.h"
#include "ground/settlement.h"
#include "standards/aci318/aci318.h"
#include "standards/en1992/en1992.h"

namespace talvik::calc {
namespace {

using A = Accepts;
using ground::Point;

constexpr double kNm = 1e6, kN = 1e3, m = 1e3, kPa = 1e-3;

// Numbers of "a:b;c:d", each group with so many.
std::vector<std::vector<double>> groups(const std::string& text, std::size_t each, const char* what) {
    std::vector<std::vector<double>> all;
    std::istringstream in(text);
    for (std::string one; std::getline(in, one, ';');) {
        std::vector<double> values;
        std::istringstream part(one);
        for (std::string cell; std::getline(part, cell, ':');) {
            char* end = nullptr;
            const double v = std::strtod(cell.c_str(), &end);
            if (cell.empty() || *end != 0 || !std::isfinite(v))
                throw NoAnswer{fmt::format("\"{}\" is no number; {}", cell, what)};
            values.push_back(v);
        }
        if (values.size() != each) throw NoAnswer{fmt::format("\"{}\" is not complete; {}", one, what)};
        all.push_back(std::move(values));
    }
    if (all.empty()) throw NoAnswer{what};
    return all;
}
std::vector<Point> pilesOf(const Row& r) {
    std::vector<Point> all;
    for (const auto& g : groups(r.text.find("piles")->second, 2, "piles are written x:y;x:y."))
        all.push_back({g[0] * m, g[1] * m});
    return all;
}

Topic bearingDrained() {
    return {"en_bearing_resistance",
            "Drained bearing resistance",
            "EN 1997-1 Annex D.4; horizontal rough base, strengths as given, no depth factors",
            {{"phi", "deg", "effective friction angle"},
             {"c", "kPa", "effective cohesion", A::NotNegative},
             {"gamma", "kN/m3", "effective weight of the ground below the base"},
             {"Bp", "m", "effective width, the shorter side"},
             {"Lp", "m", "effective length"},
             {"q", "kPa", "effective overburden pressure at the base", A::NotNegative},
             {"V_", "kN", "load normal to the base"},
             {"H", "kN", "load parallel to the base", A::NotNegative},
             {"theta", "deg", "angle between H and the direction of the length", A::NotNegative}},
            {{"Nq", "-", "surcharge factor"},
             {"Nc", "-", "cohesion factor"},
             {"Ng", "-", "weight factor"},
             {"sq", "-", "shape, surcharge"},
             {"sc", "-", "shape, cohesion"},
             {"sg", "-", "shape, weight"},
             {"m", "-", "exponent of the inclination factors"},
             {"iq", "-", "inclination, surcharge"},
             {"ic", "-", "inclination, cohesion"},
             {"ig", "-", "inclination, weight"},
             {"r", "kPa", "resistance per effective area"},
             {"R", "kN", "resistance"},
             {"util", "-", "load over resistance"}},
            {},
            [](const Row& r) {
                const auto x = ground::drained(
                    {r["Bp"] * m, r["Lp"] * m, r["q"] * kPa, r["V_"] * kN, r["H"] * kN, r["theta"]}, r["phi"],
                    r["c"] * kPa, r["gamma"] * 1e-6);
                if (!(x.resistance > 0))
                    throw NoAnswer{"the base slides before it bears: H is too large for V and the cohesion."};
                return std::vector<double>{x.Nq,
                                           x.Nc,
                                           x.Ng,
                                           x.sq,
                                           x.sc,
                                           x.sg,
                                           x.m,
                                           x.iq,
                                           x.ic,
                                           x.ig,
                                           x.stress / kPa,
                                           x.resistance / kN,
                                           r["V_"] * kN / x.resistance};
            }};
}

Topic bearingUndrained() {
    return {
        "en_bearing_undrained",
        "Undrained bearing resistance",
        "EN 1997-1 Annex D.3; horizontal base, strength as given",
        {{"cu", "kPa", "undrained shear strength"},
         {"Bp", "m", "effective width, the shorter side"},
         {"Lp", "m", "effective length"},
         {"q", "kPa", "total overburden pressure at the base", A::NotNegative},
         {"V_", "kN", "load normal to the base"},
         {"H", "kN", "load parallel to the base", A::NotNegative}},
        {{"sc", "-", "shape factor"},
         {"ic", "-", "inclination factor"},
         {"r", "kPa", "resistance per effective area"},
         {"R", "kN", "resistance"},
         {"util", "-", "load over resistance"}},
        {},
        [](const Row& r) {
            const auto x = ground::undrained(
                {r["Bp"] * m, r["Lp"] * m, r["q"] * kPa, r["V_"] * kN, r["H"] * kN}, r["cu"] * kPa);
            if (!(x.resistance > 0))
                throw NoAnswer{"the base slides: H is larger than the effective area times the strength."};
            return std::vector<double>{x.sc, x.ic, x.stress / kPa, x.resistance / kN,
                                       r["V_"] * kN / x.resistance};
        }};
}

Topic padPressure() {
    return {"pad_pressure",
            "Pressures under a rigid pad",
            "equilibrium of a plane pressure without tension over the part in contact, exact",
            {{"B_", "m", "side along x"},
             {"L", "m", "side along y"},
             {"N", "kN", "vertical load"},
             {"Mx", "kNm", "moment that moves the resultant to +y", A::NotNegative},
             {"My", "kNm", "moment that moves it to +x", A::NotNegative}},
            {{"p1", "kPa", "pressure at the corner (-x,-y)"},
             {"p2", "kPa", "at (+x,-y)"},
             {"p3", "kPa", "at (+x,+y), the largest"},
             {"p4", "kPa", "at (-x,+y)"},
             {"contact", "-", "share of the base in contact"}},
            {},
            [](const Row& r) {
                const double b = r["B_"] * m / 2, l = r["L"] * m / 2;
                const ground::Ring base{{-b, -l}, {b, -l}, {b, l}, {-b, l}};
                const auto p = ground::pressure(base, {r["N"] * kN, r["My"] * kNm, r["Mx"] * kNm});
                if (!p.good()) throw NoAnswer{p.trouble};
                std::vector<double> out;
                for (Point q : base) out.push_back(p.at(q) / kPa);
                out.push_back(p.share);
                return out;
            }};
}

Topic padSide() {
    return {"pad_min_side",
            "Smallest square pad for an allowable pressure",
            "statics; effective area of EN 1997-1 Annex D",
            {{"N", "kN", "column load"},
             {"Mx", "kNm", "moment", A::NotNegative},
             {"My", "kNm", "moment", A::NotNegative},
             {"w", "kPa", "weight of pad and fill per area, added to N", A::NotNegative},
             {"p_allow", "kPa", "allowable gross pressure"}},
            {{"side", "m", "by the largest edge pressure"}, {"side_eff", "m", "by the effective area"}},
            {},
            [](const Row& r) {
                const auto s = ground::leastSide(r["N"] * kN, r["Mx"] * kNm, r["My"] * kNm, r["w"] * kPa,
                                                 r["p_allow"] * kPa);
                if (!(s.byEdge > 0))
                    throw NoAnswer{"no pad is large enough: its own weight passes the allowable pressure."};
                return std::vector<double>{s.byEdge / m, s.byEffectiveArea / m};
            }};
}

Topic padStability() {
    return {"pad_stability",
            "Sliding and overturning of a pad",
            "statics",
            {{"N", "kN", "vertical load"},
             {"H", "kN", "horizontal load"},
             {"B_", "m", "side in the direction of H"},
             {"L", "m", "other side"},
             {"M", "kNm", "overturning moment at the underside"},
             {"tan_d", "-", "tangent of the angle of friction at the base", A::NotNegative},
             {"c", "kPa", "adhesion on the base", A::NotNegative}},
            {{"slide", "-", "resistance to sliding over H"}, {"over", "-", "N B/2 over M"}},
            {},
            [](const Row& r) {
                const auto s = ground::stability(r["N"] * kN, r["H"] * kN, r["B_"] * m, r["L"] * m,
                                                 r["M"] * kNm, r["tan_d"], r["c"] * kPa);
                return std::vector<double>{s.sliding, s.overturning};
            }};
}

// Values in a unit, separated by semicolons.
std::string joined(const std::vector<double>& values, double unit) {
    std::string all;
    for (double v : values) all += fmt::format("{}{:.6g}", all.empty() ? "" : ";", v / unit);
    return all;
}

ground::Settlement settlementOf(const Row& r) {
    std::vector<ground::SoilLayer> layers;
    for (const auto& g :
         groups(r.text.find("layers")->second, 3, "layers are written modulus:ratio:thickness;…")) {
        if (!(g[0] > 0) || !(g[1] >= 0 && g[1] <= 0.5) || !(g[2] > 0))
            throw NoAnswer{"a layer has a positive modulus and thickness and a ratio from 0 to 0.5."};
        layers.push_back({g[0], g[1], g[2] * m});
    }
    return ground::settlement(r["q"] * kPa, r["B_"] * m, r["L"] * m, layers);
}

Topic settlementLayers() {
    return {
        "settlement_layers",
        "Elastic settlement on layers",
        "closed form of Steinbrenner; EN 1997-1 6.6.2, Annex F.1",
        {{"q", "kPa", "allowable net pressure"},
         {"B_", "m", "side"},
         {"L", "m", "other side"},
         {"layers", "MPa:-:m", "modulus, Poisson's ratio and thickness of each layer, downwards", A::Text}},
        {{"centre", "mm", "settlement of the centre"},
         {"corner", "mm", "of a corner"},
         {"char", "mm", "of the characteristic point"}},
        {},
        [](const Row& r) {
            const auto s = settlementOf(r);
            return std::vector<double>{s.centre, s.corner, s.characteristic};
        },
        {{"sz", "kPa", "vertical stress in the middle of each layer below the characteristic point"}},
        [](const Row& r) { return std::vector{joined(settlementOf(r).stress, kPa)}; }};
}

Topic pileReactions() {
    return {"pile_reactions",
            "Pile reactions of a rigid cap",
            "statics; equal elastic piles, cap moments by bending theory",
            {{"piles", "m", "places x:y;x:y", A::Text},
             {"N", "kN", "vertical load"},
             {"Mx", "kNm", "moment that loads piles at +y", A::Signed},
             {"My", "kNm", "moment that loads piles at +x", A::Signed},
             {"tol", "m", "out of position of the whole group, in x and y at once", A::NotNegative},
             {"cx", "m", "column side along x", A::NotNegative},
             {"cy", "m", "column side along y", A::NotNegative}},
            {{"Rmax", "kN", "largest reaction"},
             {"Rmin", "kN", "smallest, tension negative"},
             {"Rmax_tol", "kN", "largest with the tolerance"},
             {"Rmin_tol", "kN", "smallest with the tolerance"},
             {"M_x", "kNm", "moment for bars along x at the worse face of the column"},
             {"M_y", "kNm", "the same along y"}},
            {},
            [](const Row& r) {
                const auto piles = pilesOf(r);
                const ground::CapLoad load{r["N"] * kN, r["My"] * kNm, r["Mx"] * kNm};
                const auto all = ground::reactions(piles, load);
                const auto shifted = ground::withTolerance(piles, load, r["tol"] * m);
                std::vector<Point> turned;
                for (Point p : piles) turned.push_back({p.y, p.x});
                return std::vector<double>{all.most / kN,
                                           all.least / kN,
                                           shifted.most / kN,
                                           shifted.least / kN,
                                           ground::faceMoment(piles, all.all, r["cx"] * m) / kNm,
                                           ground::faceMoment(turned, all.all, r["cy"] * m) / kNm};
            },
            {{"R", "kN", "reactions in the order given"}},
            [](const Row& r) {
                return std::vector{joined(
                    ground::reactions(pilesOf(r), {r["N"] * kN, r["My"] * kNm, r["Mx"] * kNm}).all, kN)};
            }};
}

Topic capTie() {
    return {"pile_cap_tie",
            "Tie of a cap on two, three or four piles",
            "EN 1992-1-1 6.5.3, statics",
            {{"n", "-", "piles: 2, 3 or 4"},
             {"N", "kN", "central column load"},
             {"s", "m", "spacing of the piles"},
             {"z", "m", "from the tie to the node below the column"},
             {"c", "m", "side of the square column"}},
            {{"T", "kN", "force in one tie, struts from a quarter of the column off its middle"},
             {"T_centre", "kN", "the same with the struts meeting in the middle"},
             {"As", "mm2", "steel of the tie, fyk 500, gamma_s 1.15"},
             {"M_face", "kNm", "bending-theory moment at the face of the column, whole cap"}},
            {},
            [](const Row& r) {
                const int n = int(std::lround(r["n"]));
                if (n < 2 || n > 4 || std::abs(r["n"] - n) > 1e-9)
                    throw NoAnswer{"this model is for 2, 3 or 4 piles."};
                const double N = r["N"] * kN, s = r["s"] * m, z = r["z"] * m, c = r["c"] * m;
                const double T = ground::tieForce(n, N, s, z, c, false);
                return std::vector<double>{T / kN, ground::tieForce(n, N, s, z, c, true) / kN,
                                           T / (500 / 1.15),
                                           n == 3 ? 0 : N / 2 * std::max(0.0, s / 2 - c / 2) / kNm};
            }};
}

Topic capTwoPiles() {
    return {
        "pile_cap_two_pile",
        "Cap on two piles: strut and tie, and bending theory",
        "EN 1992-1-1 6.5.3, 6.5.4(4)a, 6.1; alpha_cc 1",
        {{"N", "kN", "central column load"},
         {"s", "m", "spacing of the piles"},
         {"d", "m", "effective depth of the tie"},
         {"c", "m", "column side along the cap"},
         {"bc", "m", "column side across"},
         {"fck", "MPa", "cylinder strength"},
         {"b", "m", "width of the cap"}},
        {{"T", "kN", "force in the tie"},
         {"z", "m", "lever arm"},
         {"y", "m", "height of the node"},
         {"As", "mm2", "steel of the tie, fyk 500"},
         {"M_face", "kNm", "bending-theory moment at the face of the column"},
         {"As_bend", "mm2", "its steel"},
         {"M_centre", "kNm", "moment at the middle of the column"},
         {"As_centre", "mm2", "its steel"}},
        {},
        [](const Row& r) {
            const double N = r["N"] * kN, s = r["s"] * m, d = r["d"] * m, c = r["c"] * m;
            const auto t = ground::twoPileTie(N, s, d, c, r["bc"] * m, r["fck"]);
            if (!(t.force > 0))
                throw NoAnswer{"the node below the column is deeper than the cap; make it deeper."};
            const auto rules = standards::en1992::flexureRules(standards::en1992::Parameters(catalogs::values(
                catalogs::parameterSet("parameters_en1992.json"), {{"alpha_cc", 1.0}, {"z_ceiling", 0.0}})));
            auto steel = [&](double moment) {
                const auto a = rules->required({r["b"] * m, d * 1.1, d, 0.1 * d, r["fck"], 500}, moment);
                if (!a.possible) throw NoAnswer{"the cap is too shallow for this moment."};
                return a.As;
            };
            const double face = N / 2 * std::max(0.0, s / 2 - c / 2), centre = N / 2 * s / 2;
            return std::vector<double>{t.force / kN, t.z / m,     t.node / m,   t.force / (500 / 1.15),
                                       face / kNm,   steel(face), centre / kNm, steel(centre)};
        }};
}

Topic twoColumns() {
    return {"lever_moment_two_columns",
            "Footing on two columns, uniform pressure",
            "statics; column loads act as line loads at the columns' middles, own weight left out",
            {{"N1", "kN", "load of column 1"},
             {"N2", "kN", "load of column 2"},
             {"s", "m", "distance of the columns"},
             {"a1", "m", "from the fixed left end to column 1"},
             {"c1", "m", "side of column 1 along the footing"},
             {"c2", "m", "side of column 2 along the footing"},
             {"d", "m", "effective depth"},
             {"p_allow", "kPa", "allowable net pressure"}},
            {{"x", "m", "resultant from the left end"},
             {"L", "m", "length that centres the resultant"},
             {"a2", "m", "overhang beyond column 2"},
             {"B", "m", "width for the allowable pressure"},
             {"w", "kN/m", "upward load per length"},
             {"x0", "m", "point without shear between the columns"},
             {"M0", "kNm", "moment there, hogging negative"},
             {"M1o", "kNm", "at the outer face of column 1"},
             {"M1i", "kNm", "at its inner face"},
             {"M2i", "kNm", "at the inner face of column 2"},
             {"M2o", "kNm", "at its outer face"},
             {"V1l", "kN", "shear left of column 1"},
             {"V1r", "kN", "right of it"},
             {"V2l", "kN", "left of column 2"},
             {"V2r", "kN", "right of it"},
             {"Vd1", "kN", "at d from the inner face of column 1"},
             {"Vd2", "kN", "at d from the inner face of column 2"}},
            {},
            [](const Row& r) {
                const auto f =
                    ground::twoColumnFooting({r["N1"] * kN, r["N2"] * kN, r["s"] * m, r["a1"] * m,
                                              r["c1"] * m, r["c2"] * m, r["d"] * m, r["p_allow"] * kPa});
                if (!(f.a2 >= 0))
                    throw NoAnswer{
                        "the length that centres the loads ends before column 2; begin it further left."};
                return std::vector<double>{f.resultant / m, f.length / m,    f.a2 / m,        f.width / m,
                                           f.load,          f.zeroShear / m, f.largest / kNm, f.outer1 / kNm,
                                           f.inner1 / kNm,  f.inner2 / kNm,  f.outer2 / kNm,  f.left1 / kN,
                                           f.right1 / kN,   f.left2 / kN,    f.right2 / kN,   f.at1 / kN,
                                           f.at2 / kN};
            }};
}

Topic padDesign() {
    return {"pad_design",
            "Design effects in a rigid pad with a central column",
            "statics; exact pressure without tension",
            {{"B_", "m", "side along x"},
             {"L", "m", "side along y"},
             {"cx", "m", "column side along x"},
             {"cy", "m", "column side along y"},
             {"d", "m", "effective depth"},
             {"N", "kN", "column load"},
             {"Mx", "kNm", "moment at the underside, toward +y", A::Signed},
             {"My", "kNm", "moment at the underside, toward +x", A::Signed},
             {"w", "kPa", "weight of pad and fill per area, added to N and taken off the net pressure",
              A::NotNegative}},
            {{"pmax", "kPa", "largest gross pressure"},
             {"contact", "-", "fraction in contact"},
             {"M_x", "kNm", "moment for bars along x at the worse column face, whole width"},
             {"M_y", "kNm", "moment for bars along y"},
             {"V_x", "kN", "shear at d from the worse face, across x"},
             {"V_y", "kN", "the same across y"}},
            {},
            [](const Row& r) {
                const double side[2] = {r["B_"] * m, r["L"] * m}, c[2] = {r["cx"] * m, r["cy"] * m},
                             d = r["d"] * m, w = r["w"] * kPa;
                const auto p = ground::rectanglePressure(
                    side[0], side[1], {r["N"] * kN + w * side[0] * side[1], r["My"] * kNm, r["Mx"] * kNm});
                if (!p.good()) throw NoAnswer{p.trouble};
                double M[2] = {0, 0}, V[2] = {0, 0};
                for (int axis : {0, 1})
                    for (bool positive : {false, true}) {
                        const double sign = positive ? 1 : -1;
                        auto at = [&](double from) {
                            const double reach = std::max(0.0, side[axis] / 2 - from), width = side[1 - axis];
                            const auto b = ground::beyond(p, axis, sign * from, positive);
                            return ground::Beyond{b.force - w * width * reach,
                                                  b.moment - w * width * reach * reach / 2};
                        };
                        M[axis] = std::max(M[axis], at(c[axis] / 2).moment);
                        V[axis] = std::max(V[axis], at(c[axis] / 2 + d).force);
                    }
                return std::vector<double>{p.largest / kPa, p.share,   M[0] / kNm,
                                           M[1] / kNm,      V[0] / kN, V[1] / kN};
            }};
}

Topic footingPunching() {
    return {"en_punching_footing",
            "Punching of pad footings inside 2d",
            "EN 1992-1-1 6.4.2(2), 6.4.4(2); perimeters wholly on the pad, uniform pressure",
            {{"N", "kN", "column load"},
             {"M", "kNm", "column moment, eccentricity along c1", A::NotNegative},
             {"c1", "mm", "column side"},
             {"c2", "mm", "column side"},
             {"B1", "mm", "pad side along c1"},
             {"B2", "mm", "pad side along c2"},
             {"d", "mm", "effective depth"},
             {"fck", "MPa", "cylinder strength"},
             {"rho", "%", "mean steel ratio", A::NotNegative}},
            {{"a", "mm", "governing distance from the face"},
             {"u", "mm", "perimeter there"},
             {"Vred", "kN", "load less the pressure inside the perimeter"},
             {"vEd", "MPa", "stress"},
             {"vRd", "MPa", "strength"},
             {"util", "-", "stress over strength"},
             {"v0", "MPa", "N/(u0 d)"}},
            {},
            [](const Row& r) {
                const auto standard = standards::makeStandard("en1992");
                standards::FootingPunching in;
                in.sides[0] = r["c1"], in.sides[1] = r["c2"], in.d = r["d"], in.fc = r["fck"];
                in.rho[0] = in.rho[1] = r["rho"] / 100;
                in.over[0] = in.over[1] = (r["B1"] - r["c1"]) / 2,
                in.over[2] = in.over[3] = (r["B2"] - r["c2"]) / 2;
                in.N = r["N"] * kN, in.moment[0] = r["M"] * kNm, in.pressure = in.N / (r["B1"] * r["B2"]);
                const auto p = standard->bases->punching(in);
                if (p.stress.outcome == checks::Outcome::NotApplicable) throw NoAnswer{p.stress.reason};
                return std::vector<double>{p.distance,
                                           p.perimeter,
                                           p.force / kN,
                                           p.stress.demand,
                                           p.stress.limit,
                                           p.stress.demand / p.stress.limit,
                                           in.N / (2 * (r["c1"] + r["c2"]) * r["d"])};
            }};
}

Topic capShear() {
    return {"cap_shear_en",
            "One-way shear of a pile cap",
            "EN 1992-1-1 6.2.2(1), 6.2.2(6); gamma_c 1.5, alpha_cc 1",
            {{"R", "kN", "reaction of each pile"},
             {"n", "-", "piles in the row across the section"},
             {"s", "mm", "pile spacing"},
             {"dp", "mm", "pile diameter"},
             {"c", "mm", "column side"},
             {"b", "mm", "cap width"},
             {"d", "mm", "effective depth"},
             {"fck", "MPa", "cylinder strength"},
             {"As", "mm2", "anchored tension steel on b"}},
            {{"av", "mm", "clear distance from the column to the pile"},
             {"beta", "-", "share of the reaction that counts"},
             {"V", "kN", "shear"},
             {"Vred", "kN", "shear with the share"},
             {"VRdc", "kN", "resistance"},
             {"Vlim", "kN", "limit of the shear without the share"},
             {"util", "-", "the worse of both"}},
            {},
            [](const Row& r) {
                const auto standard = standards::makeStandard("en1992", {{"alpha_cc", 1.0}});
                const double av = r["s"] / 2 - r["c"] / 2 - r["dp"] / 2;
                const double beta = standard->shear->nearSupport(std::max(av, 0.5 * r["d"]), r["d"]);
                const standards::Section s{r["b"], r["d"] * 1.1, r["d"], 0, r["fck"], 500};
                const double V = r["n"] * r["R"] * kN, vc = standard->bases->oneWay(s, r["As"], true),
                             most = standard->shear->crushing(s);
                return std::vector<double>{
                    av, beta, V / kN, beta * V / kN, vc / kN, most / kN, std::max(beta * V / vc, V / most)};
            }};
}

Topic padAci() {
    return {"pad_aci",
            "Square pad with a column moment about one axis",
            "ACI 318-19 13.2.6, 13.2.7, 13.3.3, 22.5.5, 22.6.5, 8.4.4.2, 22.8.3.2, 25.4.2.3",
            {{"D", "kN", "dead load"},
             {"L", "kN", "live load", A::NotNegative},
             {"MD", "kNm", "dead-load moment at the base, toward +x", A::NotNegative},
             {"ML", "kNm", "live-load moment", A::NotNegative},
             {"p_allow", "kPa", "allowable gross pressure"},
             {"w", "kPa", "weight of pad and fill per area", A::NotNegative},
             {"c", "mm", "square column side"},
             {"h", "mm", "depth"},
             {"d", "mm", "mean effective depth"},
             {"fc", "MPa", "strength of the pad"},
             {"fc_col", "MPa", "strength of the column"},
             {"fy", "MPa", "yield strength"},
             {"db", "mm", "bar diameter"},
             {"cover", "mm", "end cover of the bars"}},
            {{"side", "m", "smallest side for the allowable pressure"},
             {"B_", "m", "side rounded up to 50 mm"},
             {"Nu", "kN", "factored load"},
             {"Mu", "kNm", "factored moment"},
             {"p1", "kPa", "net pressure at the +x edge"},
             {"p2", "kPa", "at the -x edge"},
             {"Mx", "kNm", "moment at the +x face of the column"},
             {"My", "kNm", "moment at the y faces"},
             {"As_x", "mm2", "steel for Mx"},
             {"As_y", "mm2", "steel for My"},
             {"As_min", "mm2", "minimum steel"},
             {"V1", "kN", "shear at d from the +x face"},
             {"phiVc", "kN", "strength in one-way shear"},
             {"Vp", "kN", "load less the pressure inside the perimeter"},
             {"Mp", "kNm", "moment less that of the pressure inside it"},
             {"vp", "MPa", "largest stress"},
             {"phivc", "MPa", "strength in two-way shear"},
             {"l_av", "mm", "length of bars beyond the face"},
             {"l_req", "mm", "development length"},
             {"Bn_f", "kN", "bearing of the pad"},
             {"Bn_c", "kN", "bearing of the column"}},
            {},
            [](const Row& r) {
                const auto standard = standards::makeStandard("aci318-si");
                const double N = (r["D"] + r["L"]) * kN, M = (r["MD"] + r["ML"]) * kNm;
                const double side = ground::leastSide(N, 0, M, r["w"] * kPa, r["p_allow"] * kPa).byEdge;
                if (!(side > 0)) throw NoAnswer{"no pad is large enough for this pressure."};
                const double B = std::ceil(side / 50 - 1e-6) * 50, Nu = (1.2 * r["D"] + 1.6 * r["L"]) * kN,
                             Mu = (1.2 * r["MD"] + 1.6 * r["ML"]) * kNm, c = r["c"], d = r["d"];
                const double mean = Nu / (B * B), slope = 12 * Mu / std::pow(B, 4), over = (B - c) / 2;
                const auto p = ground::rectanglePressure(B, B, {Nu, Mu, 0});
                if (!p.good()) throw NoAnswer{p.trouble};
                const double Mx = ground::beyond(p, 0, c / 2, true).moment, My = mean * B * over * over / 2;
                const standards::Section s{B, r["h"], d, 0.1 * d, r["fc"], r["fy"]};
                const auto ax = standard->flexure->required(s, Mx), ay = standard->flexure->required(s, My);
                if (!ax.possible || !ay.possible) throw NoAnswer{"the pad is too shallow for its moment."};
                const double least = 0.0018 * B * r["h"];
                const double V1 = d < over ? ground::beyond(p, 0, c / 2 + d, true).force : 0;
                const double vc = standard->bases->oneWay(s, std::max(ax.As, least), false);
                standards::FootingPunching in;
                in.sides[0] = in.sides[1] = c, in.d = d, in.fc = r["fc"], in.N = Nu, in.moment[0] = Mu;
                for (double& o : in.over) o = over;
                in.pressure = mean, in.gradient[0] = slope;
                const auto punch = standard->bases->punching(in);
                const double b = c + d, inside = slope * std::pow(b, 4) / 12;
                const auto& e = standards::aci318::si();
                const double develops =
                    standards::aci318::development(e, r["db"], r["fc"], r["fy"], false, 1e9, r["db"] <= 19.1)
                        .tableA;
                const double spread = std::pow(std::min(c + 4 * r["h"], B), 2);
                const double foot =
                    standard->bases->columnFoot(Nu, c * c, spread, r["fc"], r["fc_col"]).limit;
                return std::vector<double>{side / m,
                                           B / m,
                                           Nu / kN,
                                           Mu / kNm,
                                           (mean + slope * B / 2) / kPa,
                                           (mean - slope * B / 2) / kPa,
                                           Mx / kNm,
                                           My / kNm,
                                           ax.As,
                                           ay.As,
                                           least,
                                           V1 / kN,
                                           vc / kN,
                                           punch.force / kN,
                                           (Mu - inside) / kNm,
                                           punch.stress.demand,
                                           punch.stress.limit,
                                           over - r["cover"],
                                           develops,
                                           foot / kN,
                                           0.65 * 0.85 * r["fc_col"] * c * c / kN};
            }};
}

// "G:190;L:400;W:270"
struct Cases {
    std::vector<actions::ActionKind> kinds;
    std::vector<double> effects;
};
Cases casesOf(const std::string& text) {
    using actions::Nature;
    Cases all;
    std::istringstream in(text);
    for (std::string one; std::getline(in, one, ';');) {
        const auto colon = one.find(':');
        const std::string kind = one.substr(0, colon);
        char* end = nullptr;
        const std::string number = colon == std::string::npos ? "" : one.substr(colon + 1);
        const double v = std::strtod(number.c_str(), &end);
        if (number.empty() || *end != 0 || !std::isfinite(v))
            throw NoAnswer{fmt::format("\"{}\" is no case; cases are written kind:effect;kind:effect.", one)};
        if (kind == "G")
            all.kinds.push_back({Nature::Permanent, ""});
        else if (kind == "W")
            all.kinds.push_back({Nature::Wind, ""});
        else if (kind == "Lr")
            all.kinds.push_back({Nature::Imposed, "H"});
        else if (kind == "L" || kind == "Q")
            all.kinds.push_back({Nature::Imposed, ""});
        else if (kind.size() == 2 && kind[0] == 'Q' && kind[1] >= 'A' && kind[1] <= 'E')
            all.kinds.push_back({Nature::Imposed, kind[1] == 'C' ? "C1" : kind.substr(1)});
        else
            throw NoAnswer{fmt::format("\"{}\" is no kind of case; G, QA to QE, W, L, Lr and Q are.", kind)};
        all.effects.push_back(v);
    }
    if (all.kinds.empty()) throw NoAnswer{"cases are written kind:effect;kind:effect."};
    return all;
}
std::vector<actions::FactorSet> setsOf(const std::string& rule,
                                       const std::vector<actions::ActionKind>& kinds) {
    auto base = [&](const char* id, bool two) {
        std::vector<actions::FactorSet> all;
        for (auto& c : standards::makeStandard(id)->bases->combinations(kinds, standards::BaseState::Strength,
                                                                        {two, 1}))
            all.push_back({c.clause, c.factors});
        return all;
    };
    if (rule == "en610") return base("en1992", false);
    if (rule == "en610ab") return base("en1992", true);
    if (rule == "aci") return base("aci318-si", false);
    if (rule == "bs") return actions::bsUltimate(kinds);
    if (rule == "is") return actions::isUltimate(kinds);
    if (rule == "is_sls") return actions::isService(kinds);
    if (rule == "csa") return actions::csaUltimate(kinds);
    throw NoAnswer{"the rules are en610, en610ab, aci, bs, is, is_sls and csa."};
}
Topic combinations() {
    return {"wind_combos",
            "Combinations of permanent, imposed and wind actions",
            "EN 1990 6.4.3.2; ACI 318-19 5.3.1; BS 8110-1 Table 2.1; IS 456 Table 18; CSA A23.3 Annex C",
            {{"rule", "-", "en610, en610ab, aci, bs, is, is_sls, csa", A::Text},
             {"cases", "-:kN", "kind and effect of each case", A::Text}},
            {{"n", "-", "distinct sets of factors"},
             {"hi", "kN", "largest combined effect"},
             {"lo", "kN", "smallest combined effect"}},
            {},
            [](const Row& r) {
                const auto c = casesOf(r.text.find("cases")->second);
                const auto sets = setsOf(r.text.find("rule")->second, c.kinds);
                double high = -1e300, low = 1e300;
                for (const auto& s : sets) {
                    double sum = 0;
                    for (std::size_t i = 0; i < s.factors.size(); ++i) sum += s.factors[i] * c.effects[i];
                    high = std::max(high, sum), low = std::min(low, sum);
                }
                return std::vector<double>{double(sets.size()), high, low};
            },
            {{"sets", "-", "factors in the order of the cases, the largest first"}},
            [](const Row& r) {
                std::vector<std::vector<double>> factors;
                for (const auto& s :
                     setsOf(r.text.find("rule")->second, casesOf(r.text.find("cases")->second).kinds))
                    factors.push_back(s.factors);
                std::sort(factors.rbegin(), factors.rend());
                std::string all;
                for (const auto& f : factors) {
                    std::string one;
                    for (double v : f) one += fmt::format("{}{:.6g}", one.empty() ? "" : ":", v);
                    all += (all.empty() ? "" : ";") + one;
                }
                return std::vector{all};
            }};
}

}  // namespace

std::vector<actions::FactorSet> combinationSets(const std::string& rule, const std::string& cases) {
    return setsOf(rule, casesOf(cases).kinds);
}

std::vector<Topic> groundTopics() {
    return {padPressure(),      padSide(),          padStability(),  twoColumns(), bearingDrained(),
            bearingUndrained(), settlementLayers(), pileReactions(), capTie(),     capTwoPiles(),
            padDesign(),        footingPunching(),  capShear(),      padAci(),     combinations()};
}

}  // namespace talvik::calc

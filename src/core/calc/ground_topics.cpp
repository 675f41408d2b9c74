// Topics of ground, bases and piles.
#include <fmt/format.h>

#include <cmath>
#include <sstream>

#include "calc/topics.h"
#include "ground/bearing_resistance.h"
#include "ground/pile_group.h"
#include "ground/rigid_base.h"
#include "ground/settlement.h"
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

Topic settlementLayers() {
    return {
        "settlement_layers",
        "Elastic settlement on layers",
        "closed form of Steinbrenner; EN 1997-1 6.6.2, Annex F.1",
        {{"q", "kPa", "net pressure"},
         {"B_", "m", "side"},
         {"L", "m", "other side"},
         {"layers", "MPa:-:m", "modulus, Poisson's ratio and thickness of each layer, downwards", A::Text}},
        {{"centre", "mm", "settlement of the centre"},
         {"corner", "mm", "of a corner"},
         {"char", "mm", "of the characteristic point"}},
        {"sz"},
        [](const Row& r) {
            std::vector<ground::SoilLayer> layers;
            for (const auto& g :
                 groups(r.text.find("layers")->second, 3, "layers are written modulus:ratio:thickness;…")) {
                if (!(g[0] > 0) || !(g[1] >= 0 && g[1] <= 0.5) || !(g[2] > 0))
                    throw NoAnswer{"a layer has a positive modulus and thickness and a ratio from 0 to 0.5."};
                layers.push_back({g[0], g[1], g[2] * m});
            }
            const auto s = ground::settlement(r["q"] * kPa, r["B_"] * m, r["L"] * m, layers);
            return std::vector<double>{s.centre, s.corner, s.characteristic};
        }};
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
            {"R"},
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

}  // namespace

std::vector<Topic> groundTopics() {
    return {padPressure(),      padSide(),          padStability(),  twoColumns(), bearingDrained(),
            bearingUndrained(), settlementLayers(), pileReactions(), capTie(),     capTwoPiles()};
}

}  // namespace talvik::calc

// Punching of single columns: perimeters, eccentricity, resistance, shear steel.
#include <algorithm>
#include <cmath>

#include "calc/topics.h"
#include "punching/perimeter.h"
#include "standards/aci318/aci318.h"
#include "standards/en1992/en1992.h"

namespace talvik::calc {
namespace {

namespace en = standards::en1992;
namespace aci = standards::aci318;
using A = Accepts;
using punching::Perimeter;
using punching::Point;
using punching::Ring;

constexpr double kN = 1000, kNm = 1e6;

en::Parameters parameters() {
    return en::Parameters(catalogs::values(catalogs::parameterSet("parameters_en1992.json"), {}));
}

en::Place placeOf(const Row& r) {
    const std::string& kind = r.text.at("kind");
    if (kind == "interior") return en::Place::Interior;
    if (kind == "edge") return en::Place::Edge;
    if (kind == "corner") return en::Place::Corner;
    throw NoAnswer{"the kind is one of: interior, edge, corner."};
}
double alphaOf(en::Place place) {
    return place == en::Place::Interior ? 40 : place == en::Place::Edge ? 30 : 20;
}

// A column at the origin with side c1 along x; the slab ends `over1` beyond it towards negative x at edges
// and corners, `over2` beyond it towards negative y at corners.
punching::Site site(en::Place place, double c1, double c2, const Ring& loaded, double over1 = 0,
                    double over2 = 0) {
    const double far = 1e5, left = place == en::Place::Interior ? -far : -c1 / 2 - over1,
                 below = place == en::Place::Corner ? -c2 / 2 - over2 : -far;
    return {loaded, {{{left, below}, {far, below}, {far, far}, {left, far}}}, {}};
}
punching::Site site(en::Place place, double c1, double c2, double over1 = 0, double over2 = 0) {
    return site(place, c1, c2, geometry::rectangle({0, 0}, c1, c2), over1, over2);
}
Perimeter rounded(en::Place place, double c1, double c2, double distance) {
    return punching::perimeter(site(place, c1, c2), {distance, true});
}
Perimeter sharp(en::Place place, double c1, double c2, double d) {
    return punching::perimeter(site(place, c1, c2), {d / 2, false});
}
// How far from the column's faces a perimeter of this length lies: lengths grow straight with the distance.
template <class Length>
double distanceOf(double length, Length of) {
    const double a = of(1000), b = of(2000);
    return 1000 + (length - a) * 1000 / (b - a);
}

// Where no shear steel is needed for V times beta, EN 1992-1-1 6.4.5(4): its length, its distance from the
// column's faces, and how far the outermost links must lie. N, MPa, mm.
struct Outermost {
    double length, distance, links;
};
Outermost outermost(en::Place place, double c1, double c2, double d, double V, double v_Rdc) {
    const double length = V / (v_Rdc * d),
                 distance =
                     distanceOf(length, [&](double at) { return rounded(place, c1, c2, at).length(); });
    return {length, distance, distance - 1.5 * d};
}

std::vector<Column> columnInputs(const std::string& length) {
    return {{"kind", "-", "interior, edge or corner column", A::Text},
            {"c1", length, "side square to the free edge (edge columns), else the first side"},
            {"c2", length, "other side"},
            {"d", length, "mean effective depth"}};
}
std::vector<Column> with(std::vector<Column> columns, std::initializer_list<Column> more) {
    columns.insert(columns.end(), more);
    return columns;
}

Topic perimeters() {
    return {"punching_perimeters",
            "Control perimeters with the slab running past the outer faces of the column",
            "EN 1992-1-1 6.4.2, 6.4.5(3); ACI 318-19 22.6.4",
            with(columnInputs("mm"),
                 {{"ov1", "mm", "slab beyond the outer face along c1 (edge and corner)", A::NotNegative},
                  {"ov2", "mm", "the same along c2 (corner)", A::NotNegative}}),
            {{"u0", "mm", "the column's own perimeter, EN"},
             {"u1", "mm",
              "perimeter at 2d with round corners, the shortest of those that end at edges and the closed"},
             {"bo", "mm", "perimeter at d/2 with sharp corners, likewise"}},
            {},
            [](const Row& r) {
                const auto place = placeOf(r);
                const auto where = site(place, r["c1"], r["c2"], r["ov1"], r["ov2"]);
                return std::vector<double>{en::columnPerimeter(place, r["c1"], r["c2"], r["d"]),
                                           punching::perimeter(where, {2 * r["d"], true}).length(),
                                           punching::perimeter(where, {r["d"] / 2, false}).length()};
            }};
}

Topic enPunching() {
    return {"en_punching",
            "Punching of flat slabs",
            "EN 1992-1-1 6.4.2, 6.4.3, 6.4.4(1), 6.4.5, 9.4.3; the edge flush with the column",
            with(columnInputs("mm"), {{"V_", "kN", "design reaction of the column"},
                                      {"beta", "-", "eccentricity factor"},
                                      {"fck", "MPa", "cylinder strength"},
                                      {"rho_y", "%", "steel ratio, y"},
                                      {"rho_z", "%", "steel ratio, z"}}),
            {{"u0", "mm", "perimeter of the column"},
             {"u1", "mm", "basic control perimeter at 2d"},
             {"v0", "MPa", "stress along u0"},
             {"v1", "MPa", "stress along u1"},
             {"vrdc", "MPa", "v_Rd,c"},
             {"vrdmax", "MPa", "0.4 nu f_cd"},
             {"vrdmax5", "MPa", "0.5 nu f_cd, of the first text"},
             {"need", "0/1", "shear steel needed"},
             {"Asw", "mm2", "steel of one perimeter at s_r = 0.75d"},
             {"leg", "mm2", "minimum area of one vertical leg at s_t = 1.5d"},
             {"uout", "mm", "perimeter where none is needed"},
             {"r_out", "mm", "its distance from the face of the column"},
             {"last", "mm", "minimum distance of the outermost links, r_out - 1.5d"}},
            {},
            [](const Row& r) {
                const auto place = placeOf(r);
                const double c1 = r["c1"], c2 = r["c2"], d = r["d"], V = r["beta"] * r["V_"] * kN;
                const auto s = en::punching(parameters(), d, r["rho_y"] / 100, r["rho_z"] / 100, r["fck"]);
                const double u0 = en::columnPerimeter(place, c1, c2, d),
                             u1 = rounded(place, c1, c2, 2 * d).length(), v1 = V / (u1 * d);
                const auto out = outermost(place, c1, c2, d, V, s.v_Rdc);
                return std::vector<double>{u0,
                                           u1,
                                           V / (u0 * d),
                                           v1,
                                           s.v_Rdc,
                                           s.v_Rdmax,
                                           s.v_Rdmaxn,
                                           double(v1 > s.v_Rdc),
                                           s.steel(v1, u1, 0.75 * d),
                                           s.leastLeg * 0.75 * d * 1.5 * d,
                                           out.length,
                                           out.distance,
                                           out.links};
            }};
}

Topic enBeta() {
    return {
        "en_punching_beta",
        "Eccentricity factor of punching",
        "EN 1992-1-1 6.4.3(3) to (5); (6.43) with each eccentricity over the perimeter's breadth across it",
        with(columnInputs("mm"), {{"V_", "kN", "design reaction"},
                                  {"M1", "kNm", "moment whose eccentricity lies along c1", A::NotNegative},
                                  {"M2", "kNm", "moment whose eccentricity lies along c2", A::NotNegative}}),
        {{"u1", "mm", "basic control perimeter"},
         {"W1", "mm2", "its first moment: (6.41), (6.45); corner 0"},
         {"k", "-", "Table 6.1; corner 0"},
         {"u1s", "mm", "reduced perimeter u_1*"},
         {"beta", "-", "interior (6.39) with M1, edge (6.44), corner (6.46)"},
         {"beta_bi", "-", "interior (6.43) with both; else 0"}},
        {},
        [](const Row& r) {
            const auto place = placeOf(r);
            const double c1 = r["c1"], c2 = r["c2"], d = r["d"], V = r["V_"];
            const auto p = rounded(place, c1, c2, 2 * d);
            const double u1 = p.length(), reduced = en::reducedPerimeter(place, u1, c1, c2, d);
            if (place == en::Place::Corner) return std::vector<double>{u1, 0, 0, reduced, u1 / reduced, 0};
            const double e1 = r["M1"] / V * 1000, e2 = r["M2"] / V * 1000;
            // About the column's middle: across c1 at interior columns, along the edge at edge columns.
            const double W = p.moments({0, 0}, place == en::Place::Interior ? 0 : 90).first;
            if (place == en::Place::Edge) {
                const double k = en::eccentricityShare(c1 / (2 * c2));
                return std::vector<double>{u1, W, k, reduced, u1 / reduced + k * u1 / W * e2, 0};
            }
            const double k = en::eccentricityShare(c1 / c2);
            return std::vector<double>{u1,
                                       W,
                                       k,
                                       reduced,
                                       1 + k * e1 * u1 / W,
                                       1 + 1.8 * std::hypot(e1 / (c2 + 4 * d), e2 / (c1 + 4 * d))};
        }};
}

// The critical section at d/2 and what moments do there. Stored units.
struct Critical {
    Perimeter perimeter;
    Point centre;           // its centroid, from the column's middle
    double gamma[2], J[2];  // of the moments along c1 and c2
    double vmax;            // largest magnitude along it
};
Critical critical(en::Place place, double c1, double c2, double d, double V, double M1, double M2,
                  bool atColumn) {
    Critical c;
    c.perimeter = sharp(place, c1, c2, d);
    c.centre = c.perimeter.centroid();
    Perimeter::Moments m[2] = {c.perimeter.moments(c.centre, 0), c.perimeter.moments(c.centre, 90)};
    double b[2], M[2] = {M1, M2};
    for (int i : {0, 1}) b[i] = m[i].reach[1] - m[i].reach[0];
    if (atColumn) M[0] -= V * c.centre.x, M[1] -= V * c.centre.y;
    for (int i : {0, 1}) {
        c.gamma[i] = aci::momentByShear(b[i], b[1 - i]);
        c.J[i] = d * m[i].second + d * d * d / 12 * m[i].across;
    }
    c.vmax = 0;
    const double v = V / (c.perimeter.length() * d);
    for (const auto& path : c.perimeter.paths)
        for (const Point& p : path)
            c.vmax = std::max(c.vmax, std::abs(v + c.gamma[0] * M[0] * (p.x - c.centre.x) / c.J[0] +
                                               c.gamma[1] * M[1] * (p.y - c.centre.y) / c.J[1]));
    return c;
}

Topic aciPunchingSi() {
    return {"aci_punching_si",
            "Two-way shear with transfer of moments",
            "ACI 318-19 8.4.2.2, 8.4.4.2, 22.6.4, 22.6.5; SI; the edge flush with the column",
            with(columnInputs("mm"),
                 {{"V_", "kN", "factored shear"},
                  {"M1", "kNm", "moment whose stress varies along c1", A::NotNegative},
                  {"M2", "kNm", "moment whose stress varies along c2", A::NotNegative},
                  {"at_column", "0/1", "1: moments at the column's middle, 0: about the centroid", A::Flag},
                  {"fc", "MPa", "f'c"}}),
            {{"bo", "mm", "perimeter at d/2"},
             {"gv1", "-", "share of M1 by shear"},
             {"gv2", "-", "share of M2 by shear"},
             {"J1", "1e6 mm4", "J_c for M1"},
             {"J2", "1e6 mm4", "J_c for M2"},
             {"g1", "mm", "from the column's middle to the centroid along c1, towards the inside"},
             {"g2", "mm", "the same along c2"},
             {"vmax", "MPa", "largest stress at the corners of the section"},
             {"lam_s", "-", "size factor"},
             {"va", "MPa", "Table 22.6.5.2 (a)"},
             {"vb", "MPa", "(b)"},
             {"vc3", "MPa", "(c)"},
             {"phivc", "MPa", "design strength"},
             {"ratio", "-", "vmax over it"}},
            {},
            [](const Row& r) {
                const auto place = placeOf(r);
                const double c1 = r["c1"], c2 = r["c2"], d = r["d"];
                const auto c = critical(place, c1, c2, d, r["V_"] * kN, r["M1"] * kNm, r["M2"] * kNm,
                                        r["at_column"] != 0);
                const auto s = aci::twoWayShear(aci::si(), d, c.perimeter.length(),
                                                std::max(c1, c2) / std::min(c1, c2), alphaOf(place), r["fc"]);
                return std::vector<double>{c.perimeter.length(),
                                           c.gamma[0],
                                           c.gamma[1],
                                           c.J[0] / 1e6,
                                           c.J[1] / 1e6,
                                           c.centre.x,
                                           c.centre.y,
                                           c.vmax,
                                           s.size,
                                           s.plain,
                                           s.ratio,
                                           s.perimeter,
                                           s.strength,
                                           c.vmax / s.strength};
            }};
}

Topic aciPunchingUs() {
    return {"aci_punching_us",
            "Two-way shear with transfer of moments",
            "ACI 318-19 8.4.2.2, 8.4.4.2, 22.6.4, 22.6.5; inch-pound; the edge flush with the column",
            with(columnInputs("in"),
                 {{"V_", "kip", "factored shear"},
                  {"M1", "kip.ft", "moment about the centroid, stress along c1", A::NotNegative},
                  {"fc", "psi", "f'c"}}),
            {{"bo", "in", "perimeter at d/2"},
             {"gv1", "-", "share by shear"},
             {"J1", "in4", "J_c"},
             {"vmax", "psi", "largest stress"},
             {"phivc", "psi", "design strength"},
             {"ratio", "-", "vmax over it"}},
            {},
            [](const Row& r) {
                const auto& e = aci::inchPound();
                const auto place = placeOf(r);
                const double in = e.length, psi = e.stress, kip = 1000 * psi * in * in, c1 = r["c1"] * in,
                             c2 = r["c2"] * in, d = r["d"] * in;
                const auto c = critical(place, c1, c2, d, r["V_"] * kip, r["M1"] * kip * 12 * in, 0, false);
                const auto s =
                    aci::twoWayShear(e, d, c.perimeter.length(), std::max(c1, c2) / std::min(c1, c2),
                                     alphaOf(place), r["fc"] * psi);
                return std::vector<double>{c.perimeter.length() / in, c.gamma[0],
                                           c.J[0] / std::pow(in, 4),  c.vmax / psi,
                                           s.strength / psi,          c.vmax / s.strength};
            }};
}

Topic aciSteel() {
    return {"aci_punching_steel",
            "Shear steel for punching",
            "ACI 318-19 22.6.6 to 22.6.8, 8.7.6, 8.7.7; SI; the size factor stays in every term",
            with(columnInputs("mm"), {{"fc", "MPa", "f'c"},
                                      {"fyt", "MPa", "yield strength of the shear steel"},
                                      {"vu", "MPa", "factored stress on the inner section"}}),
            {{"bo", "mm", "perimeter at d/2"},
             {"vc_t", "MPa", "concrete part with stirrups"},
             {"vmax_t", "MPa", "ceiling with stirrups"},
             {"Avs_t", "mm2/mm", "steel of one line over its spacing, stirrups"},
             {"smax_t", "mm", "largest spacing, stirrups"},
             {"vc_s", "MPa", "concrete part with headed studs"},
             {"vmax_s", "MPa", "ceiling with studs"},
             {"Avs_s", "mm2/mm", "steel of one line over its spacing, studs"},
             {"smax_s", "mm", "largest spacing, studs"},
             {"v_out", "MPa", "limit beyond the steel"}},
            {},
            [](const Row& r) {
                const auto place = placeOf(r);
                const double d = r["d"], bo = sharp(place, r["c1"], r["c2"], d).length();
                const auto s = aci::twoWayShear(aci::si(), d, bo, 1, alphaOf(place), r["fc"]);
                auto steel = [&](double concrete) {
                    return std::max(0.0, r["vu"] / 0.75 - concrete) * bo / r["fyt"];
                };
                return std::vector<double>{bo,
                                           s.withStirrups,
                                           s.ceilingStirrups,
                                           steel(s.withStirrups),
                                           d / 2,
                                           s.withStuds,
                                           s.ceilingStuds,
                                           std::max(steel(s.withStuds), s.leastStuds * bo / r["fyt"]),
                                           r["vu"] > s.halfDepth ? d / 2 : 0.75 * d,
                                           s.outside};
            }};
}

Topic aciLeastSteel() {
    return {"aci_min_steel_column",
            "Minimum tension steel over a column where the shear stress is high",
            "ACI 318-19 8.6.1.2",
            {{"kind", "-", "interior, edge or corner column", A::Text},
             {"vuv", "MPa", "factored direct shear stress on the critical section"},
             {"bslab", "mm", "effective width of the slab"},
             {"bo", "mm", "perimeter at d/2"},
             {"fy", "MPa", "yield strength"}},
            {{"As", "mm2", "5 v_uv b_slab b_o / (phi alpha_s f_y)"}},
            {},
            [](const Row& r) {
                return std::vector<double>{5 * r["vuv"] * r["bslab"] * r["bo"] /
                                           (0.75 * alphaOf(placeOf(r)) * r["fy"])};
            }};
}

Topic outer() {
    return {"punching_outer",
            "Outer perimeters of punching reinforcement",
            "EN 1992-1-1 6.4.5(4), 9.4.3(1); ACI 318-19 22.6.4.2, 22.6.6.1, 8.7.7; the edge flush with the "
            "column, rails "
            "in two directions in line with its faces",
            with(columnInputs("mm"), {{"V_", "kN", "design shear"},
                                      {"beta", "-", "eccentricity factor, EN"},
                                      {"fck", "MPa", "cylinder strength, also f'c"},
                                      {"rho", "%", "mean steel ratio, EN"},
                                      {"s0", "mm", "first perimeter of links from the face"},
                                      {"sr", "mm", "spacing of the perimeters"},
                                      {"rs", "mm", "outermost studs from the face, ACI"}}),
            {{"uout", "mm", "perimeter where no steel is needed, EN"},
             {"r_out", "mm", "its distance from the face"},
             {"last", "mm", "minimum distance of the last perimeter of links"},
             {"n", "-", "perimeters that reach it, two at least"},
             {"r_last", "mm", "distance of the last of them"},
             {"v_out", "MPa", "limit beyond the studs, ACI"},
             {"bo_req", "mm", "perimeter on which the stress is that"},
             {"r_req", "mm", "outermost studs that give it"},
             {"bo", "mm", "outer perimeter at d/2 beyond studs at rs"},
             {"vu", "MPa", "stress along it"},
             {"ex", "mm", "from the column's middle to its centroid along c1, towards the inside"},
             {"J1", "1e6 mm4", "d times its second moment along c1 about the centroid"}},
            {},
            [](const Row& r) {
                const auto place = placeOf(r);
                const double c1 = r["c1"], c2 = r["c2"], d = r["d"], V = r["V_"] * kN;
                const double rho = r["rho"] / 100;
                const auto s = en::punching(parameters(), d, rho, rho, r["fck"]);
                const auto out = outermost(place, c1, c2, d, r["beta"] * V, s.v_Rdc);
                const double n = std::max(2.0, std::ceil((out.links - r["s0"]) / r["sr"] - 1e-9) + 1);
                // Studs end on an octagon round the column.
                auto beyond = [&](double at) {
                    const double x = c1 / 2, y = c2 / 2;
                    const Ring studs{{-x, -y - at}, {x, -y - at}, {x + at, -y}, {x + at, y},
                                     {x, y + at},   {-x, y + at}, {-x - at, y}, {-x - at, -y}};
                    return punching::perimeter(site(place, c1, c2, studs), {d / 2, false});
                };
                const double limit = aci::twoWayShear(aci::si(), d, 1000, 1, 40, r["fck"]).outside,
                             wanted = V / (limit * d),
                             studs = distanceOf(wanted, [&](double at) { return beyond(at).length(); });
                const auto p = beyond(r["rs"]);
                const Point centre = p.centroid();
                return std::vector<double>{out.length,
                                           out.distance,
                                           out.links,
                                           n,
                                           r["s0"] + (n - 1) * r["sr"],
                                           limit,
                                           wanted,
                                           studs,
                                           p.length(),
                                           V / (p.length() * d),
                                           centre.x,
                                           d * p.moments(centre, 0).second / 1e6};
            }};
}

}  // namespace

std::vector<Topic> punchingTopics() {
    return {perimeters(),    enPunching(), enBeta(),        aciPunchingSi(),
            aciPunchingUs(), aciSteel(),   aciLeastSteel(), outer()};
}

}  // namespace talvik::calc

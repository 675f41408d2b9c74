// Sag of single spans, and the thickness that needs none: EN 1992-1-1 7.4.3, ACI 318-19 24.2 and 8.3.1.
#include <algorithm>
#include <cmath>

#include "calc/topics.h"
#include "fem/beam/continuous_beam.h"
#include "standards/aci318/aci318.h"
#include "standards/cracked_section.h"
#include "standards/en1992/en1992.h"

namespace talvik::calc {
namespace {

namespace en = standards::en1992;
namespace aci = standards::aci318;
using A = Accepts;

constexpr double kNm = 1e6;
constexpr int pieces = 2000;  // of a span

// A section of 1 m with steel of both faces: centre of area from the compressed face, second moment, and the
// first moment of the steel about the centre.
struct TwoLayers {
    double x, I, S;
};
TwoLayers whole(double h, double d, double As, double d2, double As2, double ratio) {
    constexpr double b = 1000;
    const double more = ratio - 1, area = b * h + more * (As + As2),
                 x = (b * h * h / 2 + more * (As * d + As2 * d2)) / area;
    return {x,
            b * h * h * h / 12 + b * h * std::pow(x - h / 2, 2) +
                more * (As * std::pow(d - x, 2) + As2 * std::pow(x - d2, 2)),
            As * (d - x) - As2 * (x - d2)};
}
TwoLayers cracked(double d, double As, double d2, double As2, double ratio) {
    constexpr double b = 1000;
    // b x2/2 + (n-1) A2 (x - d2) = n A (d - x); steel above the axis takes the place of concrete.
    auto axis = [&](double n2) {
        const double p = n2 * As2 + ratio * As, q = n2 * As2 * d2 + ratio * As * d;
        return (-p + std::sqrt(p * p + 2 * b * q)) / b;
    };
    double n2 = ratio - 1, x = axis(n2);
    if (x < d2) n2 = ratio, x = axis(n2);  // below the axis it is pulled
    return {x, b * x * x * x / 3 + ratio * As * std::pow(d - x, 2) + n2 * As2 * std::pow(x - d2, 2),
            As * (d - x) - As2 * (x - d2)};
}

// EN 1992-1-1 (7.18), (7.19), (7.21) of a slab with steel `As` at depth d that M > 0 pulls.
struct Slab {
    double h, E, fctm, beta, shrinkage;
    double d, As, d2, As2;  // depths from the compressed face
    double cracks() const {
        const auto u = whole(h, d, As, d2, As2, en::Es / E);
        return fctm * u.I / (h - u.x);
    }
    double curvature(double M) const {
        const double ratio = en::Es / E, Mcr = cracks();
        const auto u = whole(h, d, As, d2, As2, ratio), c = calc::cracked(d, As, d2, As2, ratio);
        const double zeta = M > Mcr ? 1 - beta * std::pow(Mcr / M, 2) : 0;
        return zeta * (M / (E * c.I) + shrinkage * ratio * c.S / c.I) +
               (1 - zeta) * (M / (E * u.I) + shrinkage * ratio * u.S / u.I);
    }
};
Slab slabOf(const Row& r, double d, double As, double d2, double As2) {
    const auto c = en::concrete(r["fck"]);
    return {r["h"], c.Ecm / (1 + r["creep"]), c.fctm, r["beta"], r["ecs"] * 1e-6, d, As, d2, As2};
}
void inTheSlab(double d, double h) {
    if (d >= h) throw NoAnswer{"the steel lies below the slab: d is not less than h."};
}

Topic simple() {
    return {"en_deflection_ss",
            "Long-term deflection of a simply supported one-way slab",
            "EN 1992-1-1 7.4.3(3) to (7), curvatures integrated",
            {{"L", "m", "span"},
             {"w", "kN/m", "load on a strip of 1 m"},
             {"h", "mm", "depth"},
             {"d", "mm", "depth of the bottom steel"},
             {"As", "mm2/m", "bottom steel"},
             {"fck", "MPa", "cylinder strength"},
             {"creep", "-", "creep coefficient", A::NotNegative},
             {"ecs", "1e-6", "shrinkage strain", A::NotNegative},
             {"beta", "-", "0.5 sustained, 1.0 short term", A::Share}},
            {{"Mmid", "kNm", "mid-span moment"},
             {"Mcr", "kNm", "cracking moment"},
             {"Iu", "1e6 mm4", "second moment, uncracked, with the steel"},
             {"Ic", "1e6 mm4", "second moment, cracked"},
             {"kmid", "1e-6/mm", "mid-span curvature"},
             {"defl", "mm", "mid-span deflection"},
             {"ratio", "-", "span over deflection"}},
            {},
            [](const Row& r) {
                inTheSlab(r["d"], r["h"]);
                const Slab s = slabOf(r, r["d"], r["As"], 0, 0);
                const double L = r["L"] * 1000, w = r["w"], M = w * L * L / 8;
                std::vector<double> x, k;
                for (int i = 0; i <= pieces; ++i) {
                    x.push_back(L * i / pieces);
                    k.push_back(s.curvature(w * x.back() * (L - x.back()) / 2));
                }
                const double sag = fem::integrateBetweenSupports(x, k).w[pieces / 2];
                return std::vector<double>{M / kNm,
                                           s.cracks() / kNm,
                                           whole(s.h, s.d, s.As, 0, 0, en::Es / s.E).I / 1e6,
                                           cracked(s.d, s.As, 0, 0, en::Es / s.E).I / 1e6,
                                           s.curvature(M) * 1e6,
                                           sag,
                                           L / sag};
            }};
}

Topic propped() {
    return {"en_deflection_propped",
            "Long-term deflection of a propped one-way slab: fixed at one end, simply supported at the other",
            "EN 1992-1-1 7.4.3(3) to (7); the moment at the fixed end by the curvatures, both steels counted",
            {{"L", "m", "span"},
             {"w", "kN/m", "load on a strip of 1 m"},
             {"h", "mm", "depth"},
             {"d", "mm", "depth of the bottom steel"},
             {"As", "mm2/m", "bottom steel"},
             {"dt", "mm", "effective depth of the top steel, from the bottom face"},
             {"At", "mm2/m", "top steel, over the whole length"},
             {"fck", "MPa", "cylinder strength"},
             {"creep", "-", "creep coefficient", A::NotNegative},
             {"ecs", "1e-6", "shrinkage strain", A::NotNegative},
             {"beta", "-", "0.5 sustained, 1.0 short term", A::Share}},
            {{"Xel", "kNm", "elastic moment at the fixed end"},
             {"X", "kNm", "moment at the fixed end by the curvatures"},
             {"mid", "mm", "mid-span deflection"},
             {"dmax", "mm", "largest deflection"},
             {"xmax", "m", "its distance from the fixed end"}},
            {},
            [](const Row& r) {
                const double h = r["h"], L = r["L"] * 1000, w = r["w"];
                inTheSlab(r["d"], h), inTheSlab(r["dt"], h);
                const Slab sags = slabOf(r, r["d"], r["As"], h - r["dt"], r["At"]),
                           hogs = slabOf(r, r["dt"], r["At"], h - r["d"], r["As"]);
                std::vector<double> x(pieces + 1), k(pieces + 1);
                for (int i = 0; i <= pieces; ++i) x[std::size_t(i)] = L * i / pieces;
                // Turn of the line from the simple support, which the fixed end has to undo.
                auto gap = [&](double X) {
                    double sum = 0;
                    for (std::size_t i = 0; i < x.size(); ++i) {
                        const double m = X * (1 - x[i] / L) + w * x[i] * (L - x[i]) / 2;
                        k[i] = m >= 0 ? sags.curvature(m) : -hogs.curvature(-m);
                        sum += k[i] * (1 - x[i] / L) * (i == 0 || i + 1 == x.size() ? 0.5 : 1);
                    }
                    return sum;
                };
                double low = -w * L * L / 2, high = 0;
                for (int i = 0; i < 80; ++i) {
                    const double X = (low + high) / 2;
                    (gap(X) > 0 ? high : low) = X;
                }
                const double X = (low + high) / 2;
                gap(X);
                // Positive curvature sags: seen from the fixed end, downwards is minus its double integral.
                auto sag = fem::integrateFrom(0, x, k);
                for (double& v : sag) v = std::abs(v);
                const auto most = std::max_element(sag.begin(), sag.end());
                return std::vector<double>{-w * L * L / 8 / kNm, X / kNm, sag[pieces / 2], *most,
                                           x[std::size_t(most - sag.begin())] / 1000};
            }};
}

Topic aciDeflection() {
    return {"aci_deflection",
            "Effective inertia and deflection of a simply supported span",
            "ACI 318-19 19.2.2.1, 19.2.3.1, Table 24.2.3.5, 24.2.4.1.1",
            {{"M", "kNm", "mid-span service moment"},
             {"b", "mm", "width"},
             {"h", "mm", "depth"},
             {"d", "mm", "effective depth"},
             {"As", "mm2", "tension steel"},
             {"fc", "MPa", "cylinder strength"},
             {"w_sust_ratio", "-", "sustained over total load", A::Share},
             {"xi", "-", "time factor", A::NotNegative},
             {"L", "m", "span under an even load"}},
            {{"n", "-", "modular ratio"},
             {"Ig", "1e6 mm4", "gross second moment"},
             {"Icr", "1e6 mm4", "cracked second moment"},
             {"Mcr", "kNm", "cracking moment"},
             {"Ie", "1e6 mm4", "effective second moment"},
             {"imm", "mm", "immediate deflection under the total load"},
             {"lt", "mm", "what the sustained part adds in time"}},
            {},
            [](const Row& r) {
                inTheSlab(r["d"], r["h"]);
                const auto p =
                    catalogs::values(catalogs::parameterSet("parameters_aci318.json"), {{"xi", r["xi"]}});
                const auto& e = aci::si();
                const double L = r["L"] * 1000, M = r["M"] * kNm, h = r["h"], fc = r["fc"],
                             Ec = e.modulus * std::sqrt(fc / e.stress) * e.stress, n = 200000 / Ec,
                             Ig = r["b"] * h * h * h / 12;
                standards::SagInput in;
                in.section = {r["b"], h, r["d"], 30, fc, 420};
                in.stations.push_back({L / 2, r["w_sust_ratio"] * M, M, 0, 0, r["As"], r["d"], 0, 30});
                const auto k = aci::sagRules(e, p)->curvatures(in);
                // One effective inertia: curvatures follow the moments.
                const double factor = 5.0 / 48 * L * L;
                return std::vector<double>{n,
                                           Ig / 1e6,
                                           standards::cracked(r["b"], r["d"], r["As"], n).I / 1e6,
                                           0.62 * std::sqrt(fc) * Ig / (h / 2) / kNm,
                                           M / (Ec * k.live[0]) / 1e6,
                                           factor * k.live[0],
                                           factor * (k.total[0] - k.live[0])};
            }};
}

Topic twoWayThickness() {
    return {"aci_two_way_thickness",
            "Minimum thickness of two-way slabs without computed deflection",
            "ACI 318-19 Table 8.3.1.1, Table 8.3.1.2",
            {{"ln", "mm", "clear span in the long direction"},
             {"beta", "-", "long over short clear span"},
             {"fy", "MPa", "yield strength"},
             {"panel", "-", "interior, ext_beam (with edge beams), ext_none (without)", A::Text},
             {"drop", "0/1", "drop panels", A::Flag},
             {"afm", "-", "mean alpha_f of the beams on all edges", A::NotNegative},
             {"edge", "0/1", "an edge ends with alpha_f below 0.80", A::Flag}},
            {{"flat", "mm", "without beams inside"},
             {"beams", "mm", "with beams on all sides; 0: afm up to 0.2"}},
            {},
            [](const Row& r) {
                const std::string& panel = r.text.at("panel");
                if (panel != "interior" && panel != "ext_beam" && panel != "ext_none")
                    throw NoAnswer{"the panel is one of: interior, ext_beam, ext_none."};
                if (r["beta"] < 1) throw NoAnswer{"beta is the long over the short span: at least 1."};
                const auto rules = standards::makeStandard("aci318-si");
                standards::SlendernessInput in{
                    {1000, 250, 214, 36, 30, r["fy"]}, standards::SpanSystem::Interior, 6000, 600, 0, 700};
                in.longer = r["ln"], in.shorter = r["ln"] / r["beta"];
                in.exterior = panel != "interior", in.edgeBeam = panel == "ext_beam",
                in.drop = r["drop"] != 0;
                in.panel = standards::SlendernessInput::Panel::OnColumns;
                const double flat = rules->slenderness->check(in).limit;
                if (r["afm"] <= 0.2) return std::vector<double>{flat, 0};
                in.panel = standards::SlendernessInput::Panel::OnLines;
                in.stiffness = r["afm"], in.softEdge = r["edge"] != 0;
                return std::vector<double>{flat, rules->slenderness->check(in).limit};
            }};
}

}  // namespace

std::vector<Topic> sagTopics() {
    return {simple(), propped(), aciDeflection(), twoWayThickness()};
}

}  // namespace talvik::calc

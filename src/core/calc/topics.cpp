// The topics, each a table of columns and a rule that calls the facets of the standards.
#include "calc/topics.h"

#include <fmt/format.h>

#include <cmath>

#include "standards/aci318/aci318.h"
#include "standards/en1992/en1992.h"
#include "standards/panel_coefficients.h"

namespace talvik::calc {
namespace {

namespace en = standards::en1992;
namespace aci = standards::aci318;
using standards::Section;
using A = Accepts;

constexpr double kNm = 1e6, kN = 1000;

en::Parameters enParameters(catalogs::ParameterValues changes = {}) {
    return en::Parameters(catalogs::values(catalogs::parameterSet("parameters_en1992.json"), changes));
}

const std::vector<Column> requiredOutputs(const std::string& area, const std::string& length) {
    return {{"As", area, "required tension steel"},
            {"As2", area, "required compression steel"},
            {"x", length, "neutral axis depth"},
            {"z", length, "lever arm of the concrete force"},
            {"doubly", "0/1", "compression steel needed"}};
}

standards::RequiredSteel answered(const standards::RequiredSteel& r) {
    if (!r.possible)
        throw NoAnswer{
            "no amount of steel resists this moment: the compression steel lies below the neutral axis "
            "limit; make the section deeper."};
    return r;
}

Topic enFlexure() {
    Topic t{"en_flexure",
            "Required flexural steel",
            "EN 1992-1-1 3.1.6, 3.1.7(3), 3.2.7(2)b, 6.1; gamma_c 1.5, gamma_s 1.15",
            {{"M", "kNm", "design moment", A::NotNegative},
             {"b", "mm", "width"},
             {"d", "mm", "effective depth"},
             {"d2", "mm", "depth of the compression steel"},
             {"fck", "MPa", "cylinder strength"},
             {"fyk", "MPa", "yield strength"},
             {"alpha_cc", "-", "coefficient on fck", A::Share},
             {"xlim", "-", "largest x/d before compression steel is added", A::Share},
             {"zmax", "-", "ceiling on z/d; 0 = none", A::Share}},
            requiredOutputs("mm2", "mm"),
            {},
            [](const Row& r) {
                auto rules = en::flexureRules(enParameters(
                    {{"alpha_cc", r["alpha_cc"]}, {"x_limit", r["xlim"]}, {"z_ceiling", r["zmax"]}}));
                auto s = answered(rules->required({r["b"], r["d"] * 1.1, r["d"], r["d2"], r["fck"], r["fyk"]},
                                                  r["M"] * kNm));
                return std::vector<double>{s.As, s.As2, s.x, s.z, double(s.doubly), s.sigmaS2};
            }};
    t.outputs.push_back({"sig_s2", "MPa", "stress in the compression steel"});
    return t;
}

Topic enCapacity() {
    return {"en_capacity",
            "Moment resistance of given steel",
            "EN 1992-1-1 3.1.7(1), 3.1.7(3), 6.1",
            {{"As", "mm2", "tension steel"},
             {"As2", "mm2", "compression steel", A::NotNegative},
             {"b", "mm", "width"},
             {"d", "mm", "effective depth"},
             {"d2", "mm", "depth of the compression steel"},
             {"fck", "MPa", "cylinder strength"},
             {"fyk", "MPa", "yield strength"},
             {"alpha_cc", "-", "coefficient on fck", A::Share}},
            {{"M", "kNm", "resistance, rectangular block"},
             {"x", "mm", "neutral axis, rectangular block"},
             {"eps_s", "1e-3", "tension steel strain, rectangular block"},
             {"M_par", "kNm", "resistance, parabola-rectangle"},
             {"x_par", "mm", "neutral axis, parabola-rectangle"}},
            {},
            [](const Row& r) {
                en::Parameters p = enParameters({{"alpha_cc", r["alpha_cc"]}});
                Section s{r["b"], r["d"] * 1.1, r["d"], r["d2"], r["fck"], r["fyk"]};
                auto block = en::flexureRules(p)->resistance(s, r["As"], r["As2"]);
                auto parabola = en::parabolaResistance(p, s, r["As"], r["As2"]);
                return std::vector<double>{block.M / kNm, block.x, block.strain * 1000, parabola.M / kNm,
                                           parabola.x};
            }};
}

Topic aciFlexure(const char* name, const aci::Edition& e, const char* moment, double momentUnit,
                 const char* length, const char* stress, const char* area) {
    return {name,
            "Required flexural steel",
            "ACI 318-19 22.2, 21.2.2, 7.3.3.1; phi = 0.90, tension-controlled",
            {{"M", moment, "factored moment Mu", A::NotNegative},
             {"b", length, "width"},
             {"d", length, "effective depth"},
             {"d2", length, "depth of the compression steel"},
             {"fc", stress, "f'c"},
             {"fy", stress, "yield strength"}},
            requiredOutputs(area, length),
            {},
            [&e, momentUnit](const Row& r) {
                double L = e.length, S = e.stress;
                auto s = answered(aci::flexureRules(e)->required(
                    {r["b"] * L, r["d"] * 1.1 * L, r["d"] * L, r["d2"] * L, r["fc"] * S, r["fy"] * S},
                    r["M"] * momentUnit));
                return std::vector<double>{s.As / L / L, s.As2 / L / L, s.x / L, s.z / L, double(s.doubly)};
            }};
}

Topic aciCapacity() {
    return {"aci_capacity_si",
            "Design moment strength",
            "ACI 318-19 22.2, Table 21.2.2 (ties)",
            {{"As", "mm2", "tension steel"},
             {"As2", "mm2", "compression steel", A::NotNegative},
             {"b", "mm", "width"},
             {"d", "mm", "effective depth"},
             {"d2", "mm", "depth of the compression steel"},
             {"fc", "MPa", "f'c"},
             {"fy", "MPa", "yield strength"}},
            {{"phiMn", "kNm", "phi Mn"},
             {"c", "mm", "neutral axis"},
             {"eps_t", "1e-3", "net tensile strain"},
             {"phi", "-", "strength reduction factor"}},
            {},
            [](const Row& r) {
                auto s = aci::flexureRules(aci::si())->resistance(
                    {r["b"], r["d"] * 1.1, r["d"], r["d2"], r["fc"], r["fy"]}, r["As"], r["As2"]);
                return std::vector<double>{s.M / kNm, s.x, s.strain * 1000, s.phi};
            }};
}

Topic shearOneWay() {
    return {"shear_oneway",
            "One-way shear resistance of slabs without links",
            "EN 1992-1-1 6.2.2(1); ACI 318-19 Table 22.5.5.1(c), phi 0.75",
            {{"b", "mm", "width"},
             {"d", "mm", "effective depth"},
             {"h", "mm", "overall depth"},
             {"fck", "MPa", "concrete strength as the standard defines it"},
             {"As", "mm2", "anchored tension steel on b"}},
            {{"en", "kN", "V_Rd,c"},
             {"aci", "kN", "phi Vc with the size factor"},
             {"aci_ns", "kN", "phi Vc, size factor 1"},
             {"lam_s", "-", "ACI size factor"}},
            {"bs", "is_", "csa", "csa_f"},
            [](const Row& r) {
                Section s{r["b"], r["h"], r["d"], 0, r["fck"], 500};
                double size = aci::sizeFactor(aci::si(), s.d);
                return std::vector<double>{en::shearRules(enParameters())->oneWay(s, r["As"]) / kN,
                                           aci::shearRules(aci::si(), 1)->oneWay(s, r["As"]) / kN,
                                           aci::shearResistance(aci::si(), s, r["As"], 1, 1) / kN, size};
            }};
}

Topic shearOneWayUs() {
    return {"shear_oneway_aci_us",
            "One-way shear resistance of slabs without links",
            "ACI 318-19 Table 22.5.5.1(c), phi 0.75; inch-pound",
            {{"b", "in", "width"},
             {"d", "in", "effective depth"},
             {"fc", "psi", "f'c"},
             {"As", "in2", "tension steel on b"}},
            {{"phiVc", "kip", "phi Vc with the size factor"}, {"lam_s", "-", "size factor"}},
            {},
            [](const Row& r) {
                const auto& e = aci::inchPound();
                const double in = e.length, d = r["d"] * in;
                const Section s{r["b"] * in, d * 1.1, d, 0, r["fc"] * e.stress, 60000 * e.stress};
                const double V = aci::shearRules(e, 1)->oneWay(s, r["As"] * in * in);
                return std::vector<double>{V / (1000 * e.stress * in * in), aci::sizeFactor(e, d)};
            }};
}

// Least links for a shear, at least those of the rule: by halving, as resistance grows with them.
double linksFor(const standards::ShearRules& rules, const Section& s, double As, double fyw, double V) {
    double low = rules.leastLinks(s, fyw), high = low;
    if (rules.linked(s, As, low, fyw).V >= V) return low;
    for (int i = 0; i < 40 && rules.linked(s, As, high, fyw).V < V; ++i) high *= 2;
    if (rules.linked(s, As, high, fyw).V < V) throw NoAnswer{"no links are enough: the concrete crushes."};
    for (int i = 0; i < 60; ++i) {
        const double m = (low + high) / 2;
        (rules.linked(s, As, m, fyw).V >= V ? high : low) = m;
    }
    return high;
}

Topic enLinks() {
    return {"en_links",
            "Vertical links of a beam with variable strut angle",
            "EN 1992-1-1 6.2.2(1), 6.2.3, 9.2.2(5), 9.2.2(6)",
            {{"V_", "kN", "design shear"},
             {"b", "mm", "width of the web"},
             {"d", "mm", "effective depth"},
             {"fck", "MPa", "cylinder strength"},
             {"fywk", "MPa", "yield strength of the links"},
             {"As", "mm2", "anchored tension steel"}},
            {{"VRdc", "kN", "V_Rd,c"},
             {"Vmax1", "kN", "V_Rd,max at 45 degrees"},
             {"need", "-", "1 where links are needed"},
             {"asw_min", "mm2/mm", "minimum links"},
             {"asw", "mm2/mm", "links"},
             {"smax", "mm", "their maximum spacing"},
             {"Vmax25", "kN", "V_Rd,max at cot theta 2.5"},
             {"cot", "-", "flattest struts that V_Rd,max allows"},
             {"asw_v", "mm2/mm", "links of the truss"},
             {"al", "mm", "by which the moment line moves"},
             {"dF", "kN", "tension that the shear adds"}},
            {},
            [](const Row& r) {
                const Section s{r["b"], r["d"] * 1.1, r["d"], 0, r["fck"], r["fywk"]};
                const auto rules = en::shearRules(enParameters());
                const double V = r["V_"] * kN, plain = rules->oneWay(s, r["As"]), fyw = r["fywk"];
                const double least = rules->leastLinks(s, fyw);
                const auto truss = en::webTruss(enParameters(), s.b, s.d, s.fc, fyw, V, V > plain);
                return std::vector<double>{plain / kN,
                                           rules->linked(s, r["As"], 1000 * s.b, fyw).V / kN,
                                           V > plain ? 1.0 : 0.0,
                                           least,
                                           V > plain ? linksFor(*rules, s, r["As"], fyw, V) : least,
                                           rules->linkSpacing(s, V),
                                           truss.V_max25 / kN,
                                           truss.cot,
                                           truss.a_sw,
                                           truss.a_l,
                                           truss.dF / kN};
            }};
}

Topic aciLinks() {
    return {"aci_links",
            "Stirrups of a beam",
            "ACI 318-19 22.5.1.2, 22.5.5.1, 22.5.8.5.3, 9.6.3.4, 9.7.6.2.2, phi 0.75",
            {{"V_", "kN", "factored shear"},
             {"b", "mm", "width of the web"},
             {"d", "mm", "effective depth"},
             {"fc", "MPa", "f'c"},
             {"fyt", "MPa", "yield strength of the stirrups"},
             {"As", "mm2", "tension steel"}},
            {{"Vc_c", "kN", "phi Vc without stirrups"},
             {"Vlim", "kN", "maximum that the section takes"},
             {"av_min", "mm2/mm", "minimum stirrups"},
             {"smax", "mm", "their maximum spacing"},
             {"Vc_a", "kN", "phi Vc with minimum stirrups, by (a)"},
             {"Vc_b", "kN", "the same by (b)"},
             {"V0", "kN", "stirrups are required above it"},
             {"av_a", "mm2/mm", "stirrups with Vc_a"},
             {"av_b", "mm2/mm", "stirrups with Vc_b"},
             {"sw", "mm", "legs apart across, at most"}},
            {},
            [](const Row& r) {
                const Section s{r["b"], r["d"] * 1.1, r["d"], 0, r["fc"], r["fyt"]};
                const auto rules = aci::shearRules(aci::si(), 1);
                const auto web = aci::beamStirrups(s, r["As"], r["V_"] * kN);
                return std::vector<double>{rules->oneWay(s, r["As"]) / kN,
                                           rules->linked(s, r["As"], 1000 * s.b, r["fyt"]).V / kN,
                                           rules->leastLinks(s, r["fyt"]),
                                           rules->linkSpacing(s, r["V_"] * kN),
                                           web.V_a / kN,
                                           web.V_b / kN,
                                           web.V_0 / kN,
                                           web.a_a,
                                           web.a_b,
                                           web.across};
            }};
}

Topic enAnchorage() {
    return {"en_anchorage",
            "Anchorage and lap length in tension",
            "EN 1992-1-1 8.4.2 to 8.4.4, 8.7.3; alpha3 = alpha4 = alpha5 = 1",
            {{"phi", "mm", "bar size"},
             {"fck", "MPa", "cylinder strength"},
             {"sigma", "MPa", "design stress of the bar"},
             {"good", "0/1", "good bond conditions", A::Flag},
             {"cd", "mm", "cover or half the clear spacing, Figure 8.3"},
             {"straight", "0/1", "straight bar", A::Flag},
             {"pct", "%", "bars lapped at one place"}},
            {{"fbd", "MPa", "bond strength"},
             {"lb_rqd", "mm", "basic length"},
             {"a1", "-", "alpha1"},
             {"a2", "-", "alpha2"},
             {"lbd", "mm", "design anchorage length"},
             {"a6", "-", "alpha6"},
             {"l0", "mm", "lap length"}},
            {},
            [](const Row& r) {
                standards::AnchorageInput in;
                in.diameter = r["phi"], in.fc = r["fck"], in.stress = r["sigma"], in.good = r["good"] == 1;
                in.cd = r["cd"], in.hooked = r["straight"] == 0, in.lapShare = r["pct"];
                const auto a = en::anchorage(enParameters(), in);
                return std::vector<double>{a.f_bd, a.l_b_rqd, a.alpha_1, a.alpha_2, a.l_bd, a.alpha_6, a.l_0};
            }};
}

Topic aciDevelopment() {
    return {"aci_development",
            "Development length in tension",
            "ACI 318-19 25.4.2, 25.5.2; uncoated, normal weight",
            {{"db", "mm", "bar diameter"},
             {"fc", "MPa", "f'c"},
             {"fy", "MPa", "yield strength"},
             {"top", "0/1", "more than 300 mm of concrete below", A::Flag},
             {"cb", "mm", "to the nearest surface or half the spacing, from the bar's middle"},
             {"small", "0/1", "No. 19 and smaller", A::Flag}},
            {{"ld_gen", "mm", "25.4.2.4, K_tr = 0"},
             {"ld_a", "mm", "Table 25.4.2.3, first row"},
             {"ld_b", "mm", "Table 25.4.2.3, other cases"},
             {"lapB", "mm", "class B lap"}},
            {},
            [](const Row& r) {
                standards::AnchorageInput in;
                in.diameter = r["db"], in.fc = r["fc"], in.fy = in.stress = r["fy"], in.good = r["top"] == 0;
                in.cd = r["cb"] - in.diameter / 2;
                const auto rules = aci::anchorageRules(aci::si());
                const auto table = aci::tableDevelopment(aci::si(), in.diameter, in.fc, in.fy, r["top"] == 1,
                                                         r["small"] == 1);
                return std::vector<double>{rules->length(in), table.first, table.others, rules->lap(in)};
            }};
}

Topic minimumSteel() {
    return {"minimum_steel",
            "Minimum and maximum steel and bar spacing of slabs",
            "EN 1992-1-1 9.2.1.1, 9.3.1.1; ACI 318-19 7.6.1.1, 9.6.1.2, 7.7.2.3, 8.7.2.2",
            {{"b", "mm", "width"},
             {"h", "mm", "depth"},
             {"d", "mm", "effective depth"},
             {"fck", "MPa", "concrete strength as the standard defines it"},
             {"fy", "MPa", "yield strength"}},
            {{"en_min", "mm2", "minimum steel, EN"},
             {"en_max", "mm2", "maximum steel, EN"},
             {"aci_slab", "mm2", "minimum steel of slabs, ACI"},
             {"aci_beam", "mm2", "minimum steel of beams, ACI"},
             {"en_s", "mm", "largest spacing, EN"},
             {"en_s_peak", "mm", "at peak moment"},
             {"aci_s", "mm", "largest spacing, ACI one-way"},
             {"aci_s_2w", "mm", "two-way, critical sections"}},
            {"bs_slab", "is_slab", "csa_slab", "is_s", "csa_s", "csa_s_band"},
            [](const Row& r) {
                Section s{r["b"], r["h"], r["d"], 0, r["fck"], r["fy"]};
                auto e = en::steelRules(enParameters());
                auto a = aci::steelRules(aci::si());
                using Role = standards::SteelRules::Role;
                return std::vector<double>{e->minimum(s),
                                           e->maximum(s),
                                           a->minimum(s),
                                           aci::beamMinimumSteel(aci::si(), s),
                                           e->spacing(Role::Main, false, s.h),
                                           e->spacing(Role::Main, true, s.h),
                                           a->spacing(Role::Main, false, s.h),
                                           aci::twoWaySpacing(aci::si(), s.h)};
            }};
}

Topic enCrackWidth() {
    return {"en_crack_width",
            "Crack width of slabs, per metre width",
            "EN 1992-1-1 7.3.2(3), 7.3.4",
            {{"M", "kNm/m", "service moment"},
             {"h", "mm", "depth"},
             {"d", "mm", "effective depth"},
             {"phi", "mm", "bar diameter"},
             {"s", "mm", "bar spacing"},
             {"c", "mm", "cover to these bars"},
             {"fck", "MPa", "cylinder strength"},
             {"creep", "-", "creep coefficient", A::NotNegative},
             {"kt", "-", "0.4 long term, 0.6 short term", A::Share}},
            {{"As", "mm2/m", "steel"},
             {"x", "mm", "cracked neutral axis"},
             {"ss", "MPa", "steel stress"},
             {"hcef", "mm", "h_c,ef"},
             {"rho", "%", "rho_p,eff"},
             {"sr", "mm", "s_r,max"},
             {"de", "1e-3", "eps_sm - eps_cm"},
             {"wk", "mm", "crack width"}},
            {},
            [](const Row& r) {
                if (r["d"] >= r["h"]) throw NoAnswer{"d must be less than h."};
                standards::CrackInput in{{1000, r["h"], r["d"], 0, r["fck"], 500},
                                         r["M"] * kNm,
                                         M_PI / 4 * r["phi"] * r["phi"] * 1000 / r["s"],
                                         r["phi"],
                                         r["s"],
                                         r["c"],
                                         r["creep"],
                                         0.3};
                auto w = en::crackWidth(enParameters(), in, r["kt"]);
                return std::vector<double>{in.As,       w.x,       w.stress,        w.h_ceff,
                                           w.rho * 100, w.spacing, w.strain * 1000, w.width};
            }};
}

Topic enSpanDepth() {
    return {"en_span_depth",
            "Limiting span/depth",
            "EN 1992-1-1 (7.16), (7.17), Table 7.4N; rectangular sections",
            {{"system", "-", "simple, end, interior, flat, cantilever", A::Text},
             {"fck", "MPa", "cylinder strength"},
             {"rho", "%", "required tension steel"},
             {"rho2", "%", "required compression steel", A::NotNegative},
             {"fyk", "MPa", "yield strength"},
             {"as_ratio", "-", "As,prov/As,req"},
             {"leff", "m", "effective span"}},
            {{"ld", "-", "limiting l/d"}},
            {},
            [](const Row& r) {
                static const std::map<std::string, double, std::less<>> systems{
                    {"simple", 1.0}, {"end", 1.3}, {"interior", 1.5}, {"flat", 1.2}, {"cantilever", 0.4}};
                auto system = systems.find(r.text.find("system")->second);
                if (system == systems.end())
                    throw NoAnswer{fmt::format(
                        "column system[-]: \"{}\" is not one of simple, end, interior, flat, cantilever.",
                        r.text.find("system")->second)};
                double longSpan = system->first == "flat" ? 8.5 : 7;
                return std::vector<double>{en::spanDepthLimit(system->second, r["fck"], r["fyk"],
                                                              r["rho"] / 100, r["rho2"] / 100, r["as_ratio"],
                                                              r["leff"], longSpan)};
            }};
}

Topic serviceRules() {
    return {"service_rules",
            "Crack-control spacing of bars",
            "ACI 318-19 Table 24.3.2",
            {{"fs", "MPa", "service steel stress (ACI)"},
             {"cc", "mm", "clear cover to the bars (ACI)", A::NotNegative},
             {"M", "kNm/m", "ultimate moment on 1 m (BS)", A::NotNegative},
             {"d", "mm", "effective depth (BS)"},
             {"fy", "MPa", "yield strength (BS, IS)"},
             {"ratio", "-", "As,prov/As,req (BS, IS)"},
             {"pt", "%", "tension steel (IS)", A::NotNegative},
             {"pc", "%", "compression steel (BS, IS)", A::NotNegative}},
            {{"aci", "mm", "largest bar spacing"}},
            {"bs", "is_"},
            [](const Row& r) { return std::vector<double>{aci::crackSpacing(aci::si(), r["fs"], r["cc"])}; }};
}

Topic barCutLength() {
    return {
        "bar_cut_length",
        "Cut length and mass of scheduled bars",
        "BS 8666:2020 (ISO 3766 shapes); 7850 kg/m3",
        {{"code", "-", "shape code with a leading s", A::Text},
         {"d", "mm", "bar size"},
         {"A", "mm", "leg"},
         {"B_", "mm", "leg B", A::NotNegative},
         {"C", "mm", "leg", A::NotNegative},
         {"D", "mm", "leg", A::NotNegative},
         {"E", "mm", "leg", A::NotNegative},
         {"R", "mm", "given radius (shape 12), else 0", A::NotNegative}},
        {{"r", "mm", "minimum internal bend radius"},
         {"L_exact", "mm", "cut length before rounding"},
         {"L", "mm", "cut length rounded up to 25 mm"},
         {"kg_m", "kg/m", "mass per metre"},
         {"kg", "kg", "mass of one bar of length L"}},
        {},
        [](const Row& r) {
            std::string code = r.text.find("code")->second;
            if (code.starts_with("s")) code.erase(0, 1);
            double d = r["d"];
            auto exact = catalogs::cutLength(
                code, d, catalogs::bendRadius(d),
                {{'A', r["A"]}, {'B', r["B_"]}, {'C', r["C"]}, {'D', r["D"]}, {'E', r["E"]}, {'R', r["R"]}});
            if (!exact) throw NoAnswer{fmt::format("column code[-]: there is no shape \"{}\".", code)};
            if (*exact <= 0) throw NoAnswer{"the legs are too short for their bends."};
            double L = units::roundUp(*exact, 25), mass = catalogs::massPerMetre(M_PI / 4 * d * d);
            return std::vector<double>{catalogs::bendRadius(d), *exact, L, mass, mass * L / 1000};
        }};
}

Topic oneWaySlab() {
    return {"one_way_slab",
            "Moments of continuous one-way slabs of equal spans",
            "BS 8110-1:1997 Table 3.12 within its conditions; a single span by statics",
            {{"n", "-", "number of spans"},
             {"l", "m", "span, axis to axis"},
             {"g", "kN/m2", "permanent load, unfactored", A::NotNegative},
             {"q", "kN/m2", "imposed load, unfactored", A::NotNegative},
             {"w", "kN/m2", "ultimate load"}},
            {{"m_end", "kNm/m", "end span"},
             {"m_first", "kNm/m", "first inner support, hogging"},
             {"m_inner", "kNm/m", "inner span"},
             {"m_support", "kNm/m", "inner support, hogging"}},
            {},
            [](const Row& r) {
                auto n = std::size_t(r["n"]);
                if (double(n) != r["n"] || n > 50)
                    throw NoAnswer{"column n[-]: give a whole number of spans up to 50."};
                double wl2 = r["w"] * r["l"] * r["l"];
                if (n == 1) return std::vector<double>{wl2 / 8, 0, 0, 0};
                standards::ActionRules::Spans s;
                s.lengths.assign(n, r["l"] * 1000);
                s.clear = s.lengths;
                s.permanent = r["g"] / 1000, s.imposed = r["q"] / 1000, s.area = 30e6;
                auto c = en::actionRules(enParameters())->coefficients(s);
                if (!c.refusal.empty()) throw NoAnswer{c.source + ": " + c.refusal + "."};
                return std::vector<double>{c.span[0] * wl2, -c.support[1] * wl2, n > 2 ? c.span[1] * wl2 : 0,
                                           n > 3 ? -c.support[2] * wl2 : 0};
            }};
}

Topic twoWayPanel() {
    return {"two_way_panel",
            "Moments of rectangular panels on four sides, nine cases of edges",
            "BS 8110-1:1997 3.5.3.4, (14) to (18), corners held down",
            {{"lx", "m", "shorter span"},
             {"ly", "m", "longer span"},
             {"w", "kN/m2", "ultimate load"},
             {"long1", "0/1", "one long edge is continuous", A::Flag},
             {"long2", "0/1", "the other long edge is continuous", A::Flag},
             {"short1", "0/1", "one short edge is continuous", A::Flag},
             {"short2", "0/1", "the other short edge is continuous", A::Flag}},
            {{"case", "-", "number of the case, 1 to 9"},
             {"m_sx", "kNm/m", "span moment, shorter way"},
             {"m_sy", "kNm/m", "span moment, longer way"},
             {"m_ex", "kNm/m", "hogging at continuous long edges"},
             {"m_ey", "kNm/m", "hogging at continuous short edges"}},
            {},
            [](const Row& r) {
                standards::PanelEdges e;
                e.longContinuous = {r["long1"] != 0, r["long2"] != 0};
                e.shortContinuous = {r["short1"] != 0, r["short2"] != 0};
                auto c = standards::panelCoefficients(r["lx"], r["ly"], e);
                if (!c.refusal.empty()) throw NoAnswer{c.refusal};
                double k = r["w"] * r["lx"] * r["lx"];
                return std::vector<double>{double(c.caseNumber), c.spanShort * k, c.spanLong * k,
                                           -c.supportShort * k, -c.supportLong * k};
            }};
}

}  // namespace

const std::vector<Topic>& topics() {
    constexpr double kipFoot = 4448.2216152605 * 304.8;
    static const std::vector<Topic> all = [] {
        std::vector<Topic> topics{
            enFlexure(),
            enCapacity(),
            aciFlexure("aci_flexure_si", aci::si(), "kNm", kNm, "mm", "MPa", "mm2"),
            aciFlexure("aci_flexure_us", aci::inchPound(), "kip.ft", kipFoot, "in", "psi", "in2"),
            aciCapacity(),
            shearOneWay(),
            shearOneWayUs(),
            enLinks(),
            aciLinks(),
            enAnchorage(),
            aciDevelopment(),
            minimumSteel(),
            enCrackWidth(),
            enSpanDepth(),
            serviceRules(),
            oneWaySlab(),
            twoWayPanel(),
            barCutLength()};
        for (auto& t : punchingTopics()) topics.push_back(std::move(t));
        for (auto& t : groundTopics()) topics.push_back(std::move(t));
        for (auto& t : sagTopics()) topics.push_back(std::move(t));
        return topics;
    }();
    return all;
}

}  // namespace talvik::calc

// EN 1992-1-1:2004+A1:2014 with the combinations of EN 1990. Nationally determined parameters come from a
// parameter set. Units N, mm, MPa; moments on the section's width.
#pragma once

#include "standards/rules.h"

namespace talvik::standards::en1992 {

constexpr double Es = 200000;  // 3.2.7(4)

// EN 1990 Table A1.1.
struct Psi {
    double p0, p1, p2;
};
Psi psi(const actions::ActionKind& k);

// Concrete of class f_ck by Table 3.1. Strains as ratios.
struct Concrete {
    double fck, fcm, fctm, Ecm;
    double lambda, eta;         // rectangular block, 3.1.7(3)
    double eps_cu3;             // ultimate strain for the block
    double eps_c2, eps_cu2, n;  // parabola-rectangle, 3.1.7(1)
};
Concrete concrete(double fck);

// The parameters used by the rules; see data/parameters_en1992.json.
struct Parameters {
    double gamma_c, gamma_s, alpha_cc, alpha_ct, x_limit, z_ceiling, shear_numerator, v_min_factor, k_3, k_4;
    double as_min_factor, as_min_floor, as_max_ratio, secondary_ratio, end_fixity, support_moment_floor;
    double deflection_limit, after_limit, gamma_G, gamma_G_inf, gamma_Q, xi;
    double punching_ceiling;
    // Of EN 1997-1 Annex A and EN 1990 Table A1.2(A).
    double gamma_Q_A2, gamma_phi, gamma_c_soil, gamma_cu, gamma_R_v, gamma_R_h, gamma_R_e, gamma_G_dst,
        gamma_G_stb;
    bool use_610ab, crack_by_table;
    explicit Parameters(const catalogs::ParameterValues& values);
};

// Resistance with the parabola-rectangle of 3.1.7(1), beside the block that the facet uses.
Resistance parabolaResistance(const Parameters& p, const Section& s, double As, double As2);

// Everything the crack width of 7.3.4 passes through, for the batch calculator. Lengths mm, stress MPa.
struct CrackWidth {
    double x, stress, h_ceff, rho, spacing, strain, width;
};
CrackWidth crackWidth(const Parameters& p, const CrackInput& in, double k_t, Steps* t = nullptr);

// Limiting l/d of (7.16) with the factors of 7.4.2(2). K: structural system of Table 7.4N; ratios of steel as
// numbers; longSpan: span above which brittle partitions ask for a reduction (7 m, 8.5 m for flat slabs).
double spanDepthLimit(double K, double fck, double fyk, double rho, double rho2, double steelRatio,
                      double length, double longSpan, Steps* t = nullptr);

// Anchorage and lap of 8.4.4 and 8.7.3 with alpha_3 = alpha_4 = alpha_5 = 1.
struct Anchorage {
    double f_bd, l_b_rqd, alpha_1, alpha_2, l_bd, alpha_6, l_0;
};
Anchorage anchorage(const Parameters& p, const AnchorageInput& in, Steps* t = nullptr);

// Links of a beam's web by 6.2.3 with z = 0.9d: the ceilings at cot theta 1 and 2.5, the flattest struts that a shear
// allows, the links of the truss at these, by how much the moment line moves and the pull that shear adds. N, mm.
struct WebTruss {
    double V_max1, V_max25, cot, a_sw, a_l, dF;
};
WebTruss webTruss(const Parameters& p, double b, double d, double fck, double fywk, double V, bool needed);

// Punching without and with shear steel, 6.4.4, 6.4.5, 9.4.3. d: mean effective depth, rho: steel ratios of
// the two directions as numbers, fck and stresses MPa, lengths mm.
struct Punching {
    double v_Rdc;     // (6.47), with v_min
    double v_Rdmax;   // 0.4 nu f_cd, 6.4.5(3)
    double v_Rdmaxn;  // 0.5 nu f_cd, of the first text of 2004
    double f_ywd_ef;  // 6.4.5(1)
    double leastLeg;  // area of a vertical leg over s_r s_t, (9.11)
    // Steel of one perimeter at spacing s_r for the stress v along u_1, (6.52); nought where none is needed.
    double steel(double v, double u1, double s_r) const;
};
Punching punching(const Parameters& p, double d, double rho_y, double rho_z, double fck, double fywk = 500);
// Length of the column's own perimeter, 6.4.5(3): of the whole section, at an edge c_2 + 3d, at a corner 3d
// at the most.
enum class Place { Interior, Edge, Corner };
double columnPerimeter(Place place, double c1, double c2, double d);
// Table 6.1 for a ratio of sides c_1/c_2 (half of it at edges, 6.4.3(4)), straight between its entries.
double eccentricityShare(double ratio);
// The reduced perimeter u_1* of edge and corner columns, Figure 6.20: what the outer sides lose beyond 1.5d
// or half a side.
double reducedPerimeter(Place place, double u1, double c1, double c2, double d);

std::unique_ptr<FlexureRules> flexureRules(const Parameters& p);
std::unique_ptr<ShearRules> shearRules(const Parameters& p);
std::unique_ptr<CrackRules> crackRules(const Parameters& p);
std::unique_ptr<SlendernessRules> slendernessRules();
std::unique_ptr<SagRules> sagRules(const Parameters& p);
std::unique_ptr<SteelRules> steelRules(const Parameters& p);
std::unique_ptr<AnchorageRules> anchorageRules(const Parameters& p);
std::unique_ptr<BarEndRules> barEndRules();
std::unique_ptr<SupportRules> supportRules(const Parameters& p);
std::unique_ptr<StripRules> stripRules(const FlexureRules& flexure);
std::unique_ptr<PunchingRules> punchingRules(const Parameters& p);
std::unique_ptr<BaseRules> baseRules(const Parameters& p);
std::unique_ptr<ActionRules> actionRules(const Parameters& p);
std::shared_ptr<const Standard> make(const catalogs::ParameterValues& changes);

}  // namespace talvik::standards::en1992

// ACI 318-19 in its SI and its inch-pound form. Both run the same code in their own units (N, mm, MPa or lbf,
// in, psi) with the empirical constants of their own edition; values are converted where a rule is entered
// and left.
#pragma once

#include "standards/rules.h"

namespace talvik::standards::aci318 {

// Units and empirical constants of an edition. Stored unit = native unit * factor.
struct Edition {
    const char *id, *title, *family;
    units::System units;
    double length, stress;  // mm per unit of length, MPa per unit of stress
    const char *lengthUnit, *stressUnit, *momentUnit, *forceUnit;
    double momentFactor, forceFactor;  // native moment (force) per printed unit: 1e6 N mm per kNm
    double Es;
    double beta1Start, beta1Slope;    // 22.2.2.4.3
    double shear, shearCap, rootCap;  // Table 22.5.5.1(c), 22.5.5.1.1, 22.5.3.1
    const char* sizeExpression;       // 22.5.5.1.3
    double sizeSlope;
    double rupture, modulus;                      // 19.2.3.1, 19.2.2.1(b)
    double crackStress, crackReach, crackCap;     // Table 24.3.2: reach*(stress/fs) - 2.5cc, cap*(stress/fs)
    double spacingCap, clearLeast;                // 7.7.2.3, 25.2.1
    double thicknessYield;                        // 7.3.1.1.1: 0.4 + fy/thicknessYield
    double development;                           // 25.4.2.4: fy/(development*sqrt(fc))
    double developmentA, developmentB;            // Table 25.4.2.3 for No. 19 (No. 6) and smaller
    double developmentALarge, developmentBLarge;  // and for larger bars
    double developmentFloor, hook, hookFloor;
    double gradeStep1, gradeStep2;  // psi_g
    double smallBar;                // largest diameter that counts as No. 19 / No. 6 and smaller
    double hookStrengthTop;         // psi_c reaches 1 here: f'c/(2.5 top) + 0.6
    double supportReach;            // 7.7.3.8.1
    double beamSteelRoot, beamSteelLeast, beamYieldCap;  // 9.6.1.2
    double plainFlexure;                                 // 14.5.2.1
    double gradeThickness[3];                            // Tables 8.3.1.1, 8.3.1.2: f_y at 40, 60, 80 ksi
    double flatLeast, dropLeast, softLeast, stiffLeast;  // least thicknesses of 8.3.1.1, 8.3.1.2
    double stiffYield;                                   // Table 8.3.1.2
    double shearLinked,
        shearStep;  // Table 22.5.5.1(a); half of what makes links stand closer, Table 9.7.6.2.2
    double linkRoot, linkLeast, linkApart;  // Table 9.6.3.4, Table 9.7.6.2.2
};
const Edition& si();
const Edition& inchPound();

// Tension development of 25.4.2 (factors psi by Table 25.4.2.5) and the class B lap of 25.5.2. Stored units.
struct Development {
    double general, tableA, tableB, lapB;
};
Development development(const Edition& e, double diameter, double fc, double fy, bool top, double cb,
                        bool small);

// 9.6.1.2, for batch tables: least flexural steel of beams.
double beamMinimumSteel(const Edition& e, const Section& s);
// Development of straight bars by Table 25.4.2.3, uncoated and normal weight: with the clear spacing and cover of its
// first row, and in other cases.
struct TableDevelopment {
    double first, others;
};
TableDevelopment tableDevelopment(const Edition& e, double diameter, double fc, double fy, bool top, bool small);
// Stirrups of a beam, 22.5.5.1, 22.5.8.5.3, 9.6.3.1, 9.7.6.2.2, with phi = 0.75: what concrete takes by (a) and by (b),
// the shear above which stirrups are wanted, the stirrups per length with either, and legs apart across the web.
struct BeamStirrups {
    double V_a, V_b, V_0, a_a, a_b, across;
};
BeamStirrups beamStirrups(const Section& s, double As, double V);
// 8.7.2.2: largest spacing of two-way slabs at critical sections, mm.
double twoWaySpacing(const Edition& e, double h);
// Size factor of 22.5.5.1.3 for an effective depth in mm.
double sizeFactor(const Edition& e, double d);
// phi Vc with the size factor given.
double shearResistance(const Edition& e, const Section& s, double As, double lambda, double size,
                       Steps* t = nullptr);
// Table 24.3.2 for the service stress fs (stored units).
double crackSpacing(const Edition& e, double fs, double cover);

std::unique_ptr<FlexureRules> flexureRules(const Edition& e);
std::unique_ptr<ShearRules> shearRules(const Edition& e, double lambda);
std::unique_ptr<CrackRules> crackRules(const Edition& e);
std::unique_ptr<SlendernessRules> slendernessRules(const Edition& e);
std::unique_ptr<SagRules> sagRules(const Edition& e, const catalogs::ParameterValues& p);
std::unique_ptr<SteelRules> steelRules(const Edition& e);
std::unique_ptr<AnchorageRules> anchorageRules(const Edition& e);
std::unique_ptr<BarEndRules> barEndRules(const Edition& e);
std::unique_ptr<SupportRules> supportRules();
std::unique_ptr<StripRules> stripRules(const Edition& e, const FlexureRules& flexure);
std::unique_ptr<PunchingRules> punchingRules(const Edition& e, double lambda);
std::unique_ptr<BaseRules> baseRules(const Edition& e, double lambda);
std::unique_ptr<ActionRules> actionRules();
// Two-way shear, 22.6. Stored units: mm, MPa; bo: perimeter at d/2; alpha: 40, 30, 20 for interior, edge and
// corner columns; beta: ratio of the column's sides, 1 at least.
struct TwoWayShear {
    double size;                     // lambda_s
    double plain, ratio, perimeter;  // Table 22.6.5.2 (a), (b), (c), without phi
    double strength;                 // phi times the least
    // With shear steel, 22.6.6: concrete part and ceiling with stirrups and with headed studs; beyond the
    // steel.
    double withStirrups, ceilingStirrups, withStuds, ceilingStuds, outside;
    double leastStuds;  // A_v fyt / (s bo), 22.6.8.3
    double halfDepth;   // phi 0.50 sqrt(f'c): the stress above which studs stand at d/2, Table 8.7.7.1.2
};
TwoWayShear twoWayShear(const Edition& e, double d, double bo, double beta, double alpha, double fc,
                        double lambda = 1);
// Share of the moment that shear carries, 8.4.4.2: b1 along the moment's span, b2 across it.
double momentByShear(double b1, double b2);

std::shared_ptr<const Standard> make(const Edition& e, const catalogs::ParameterValues& changes);

}  // namespace talvik::standards::aci318

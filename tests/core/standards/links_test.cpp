// Vertical links of beams: resistance at the steel that the reference tables ask for, and what has to hold of
// any.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "standards/aci318/aci318.h"
#include "standards/en1992/en1992.h"
#include "support/reference.h"

using namespace talvik;
using standards::Section;

TEST(Links, ResistanceAtTheSteelOfTheTables) {
    const auto en = standards::makeStandard("en1992");
    int n = 0;
    for (const auto& r : test::rows(test::readText(test::referencePath("en_links")))) {
        const Section s{
            test::num(r, "b"), 1.1 * test::num(r, "d"), test::num(r, "d"), 0, test::num(r, "fck"), 500};
        if (test::num(r, "need") < 1 || test::num(r, "asw_v") < test::num(r, "asw_min")) continue;
        const auto found =
            en->shear->linked(s, test::num(r, "As"), test::num(r, "asw_v"), test::num(r, "fywk"));
        EXPECT_NEAR(found.V, test::num(r, "V_") * 1e3, 1e-3 * found.V);
        EXPECT_NEAR(found.cot, test::num(r, "cot"), 2e-3 * found.cot);
        ++n;
    }
    EXPECT_GT(n, 10);
    const auto aci = standards::makeStandard("aci318-si");
    n = 0;
    for (const auto& r : test::rows(test::readText(test::referencePath("aci_links")))) {
        const Section s{
            test::num(r, "b"), 1.1 * test::num(r, "d"), test::num(r, "d"), 0, test::num(r, "fc"), 420};
        const double V = test::num(r, "V_"), asked = std::min(test::num(r, "av_a"), test::num(r, "av_b"));
        if (V > test::num(r, "Vlim") || asked < test::num(r, "av_min") * 1.001) continue;
        const auto found = aci->shear->linked(s, test::num(r, "As"), asked, test::num(r, "fyt"));
        EXPECT_NEAR(found.V, V * 1e3, 1e-3 * found.V);
        ++n;
    }
    EXPECT_GT(n, 5);
}

// More links never carry less, beyond the least; never more than the concrete takes at 45 degrees or the
// code's ceiling; and the two editions of ACI 318 agree, their constants being rounded.
TEST(Links, PropertiesOverRandomSections) {
    std::mt19937 random(2);
    auto u = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    const auto en = standards::makeStandard("en1992"), si = standards::makeStandard("aci318-si"),
               us = standards::makeStandard("aci318-us");
    for (int k = 0; k < 200; ++k) {
        const double d = u(250, 1200);
        const Section s{u(200, 1000), d + 60, d, 60, u(20, 60), 500};
        const double As = u(0.003, 0.02) * s.b * s.d;
        for (const auto* rules : {en->shear.get(), si->shear.get(), us->shear.get()}) {
            const double least = rules->leastLinks(s, 420);
            double before = 0;
            for (double asw = least; asw < 40 * least; asw *= 1.3) {
                const double V = rules->linked(s, As, asw, 420).V;
                EXPECT_GE(V, before * (1 - 1e-9));
                before = V;
            }
            EXPECT_NEAR(rules->linked(s, As, 0.9 * least, 420).V, rules->oneWay(s, As), 1e-6);
        }
        const double a = si->shear->linked(s, As, 2 * si->shear->leastLinks(s, 420), 420).V,
                     b = us->shear->linked(s, As, 2 * si->shear->leastLinks(s, 420), 420).V;
        EXPECT_NEAR(a, b, 0.03 * a);
    }
}

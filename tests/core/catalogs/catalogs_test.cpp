#include "catalogs/catalogs.h"

#include <gtest/gtest.h>

#include <set>

using namespace talvik::catalogs;

TEST(Catalogs, BarsAscendAndWeighWhatTheirAreaSays) {
    for (const auto& catalog : barCatalogs()) {
        double last = 0;
        for (const auto& bar : catalog.bars) {
            EXPECT_GT(bar.diameter, last);
            last = bar.diameter;
            EXPECT_NEAR(bar.area, 3.14159265 / 4 * bar.diameter * bar.diameter, 0.02 * bar.area) << bar.name;
            EXPECT_NEAR(bar.massPerMetre, bar.area * 7850e-6, 0.025 * bar.massPerMetre) << bar.name;
            EXPECT_EQ(catalog.find(bar.name), &bar);
        }
    }
    EXPECT_EQ(barCatalog("none"), nullptr);
}

TEST(Catalogs, MaterialsAndUsesAreSensible) {
    std::set<std::string> ids;
    for (const auto& c : concreteClasses()) {
        EXPECT_TRUE(ids.insert(c.id).second) << c.id;
        EXPECT_GE(c.strength, 12);
        EXPECT_LE(c.strength, 90);
    }
    for (const auto& u : imposedUses()) {
        EXPECT_GE(u.psi0, u.psi1) << u.id;
        EXPECT_GE(u.psi1, u.psi2) << u.id;
        EXPECT_LE(u.sustained, 1);
    }
    for (const auto& c : coverSets()) {
        EXPECT_GE(c.cover, 15) << c.id;
        EXPECT_LE(c.cover, 80);
        EXPECT_TRUE(c.family == "en" || c.family == "aci-si" || c.family == "aci-us");
    }
    for (const auto& f : finishes()) EXPECT_GT(f.density, 0) << f.id;
}

TEST(Catalogs, ParameterDefaultsLieInTheirRange) {
    for (const char* file : {"parameters_en1992.json", "parameters_aci318.json"})
        for (const auto& p : parameterSet(file).parameters) {
            EXPECT_GE(p.value, p.low) << p.key;
            EXPECT_LE(p.value, p.high) << p.key;
            EXPECT_FALSE(p.clause.empty());
        }
    auto changed = values(parameterSet("parameters_en1992.json"), {{"gamma_c", 1.4}});
    EXPECT_EQ(changed.at("gamma_c"), 1.4);
    EXPECT_EQ(changed.at("gamma_s"), 1.15);
}

TEST(Shapes, BendsShortenTheBar) {
    // 90 degree bends: the cut length is less than the legs added, by less than a bend would take at worst.
    for (double d : {8.0, 12.0, 16.0, 20.0, 32.0}) {
        double l = *cutLength("11", d, bendRadius(d), {{'A', 1000}, {'B', 300}});
        EXPECT_LT(l, 1300);
        EXPECT_GT(l, 1300 - 3 * bendRadius(d) - 2 * d);
        EXPECT_GT(*cutLength("21", d, bendRadius(d), {{'A', 400}, {'B', 1000}, {'C', 400}}), l);
    }
    EXPECT_FALSE(cutLength("zz", 12, 24, {{'A', 1000}}));
}

// Links in strips where concrete alone does not carry one-way shear, against formulas written here.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "design/design.h"
#include "design/floor_design.h"
#include "design/remedies.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;
using checks::Outcome;

namespace {

// A slab on three walls, 5 m apart, under a heavy load.
model::Project heavy(double thickness, bool en, double imposed = 70e-3) {
    auto p = test::regularFloor(2, 2, 5000, 5000);
    auto f = std::make_shared<model::Floor>(*p.floors[0]);
    f->columns.clear();
    f->slabs = {{"d1", "S", test::rectangle(-100, 0, 10100, 8000), thickness}};
    for (double x : {0.0, 5000.0, 10000.0})
        f->walls.push_back({"w" + std::to_string(int(x) / 5000 + 1), "", {x, 0}, {x, 8000}, 200});
    f->actions.loads[1].value = imposed;
    p.floors[0] = f;
    if (!en) p.basis.standard = "aci318-si";
    return p;
}
std::shared_ptr<const design::FloorDesign> designed(const model::Project& p) {
    return std::dynamic_pointer_cast<const design::FloorDesign>(design::designNow(p, p.floors[0]->id));
}
int shearOver(const design::FloorDesign& f) {
    int n = 0;
    for (const auto& s : f.strips)
        for (const auto& c : s->checks)
            n += c.topic == checks::Topic::OneWayShear && c.outcome == Outcome::Over;
    return n;
}

}  // namespace

TEST(StripLinks, CarryWhatConcreteDoesNotByTheStandard) {
    for (bool en : {true, false}) {
        const auto f = designed(heavy(300, en));
        ASSERT_TRUE(f) << en;
        EXPECT_EQ(shearOver(*f), 0) << en;
        int zones = 0;
        for (const auto& s : f->strips) {
            double least = 1e9;
            for (const auto& r : s->runs) least = std::min(least, 300 - 25 - 1.5 * r.diameter);
            for (const auto& z : s->links) {
                ++zones;
                const double d = 300 - f->basis->coverTop - 16, fc = f->basis->concreteStrength,
                             fy = f->basis->steelYield;
                // Spacings, with a little for the bars' own size.
                EXPECT_LE(z.along, (en ? 0.75 : 0.5) * (d + 12)) << en;
                EXPECT_LE(z.across, (en ? 1.5 : 1.0) * (d + 12)) << en;
                EXPECT_GE(z.steel(), en ? 0.08 * std::sqrt(fc) / fy * 0.999
                                        : std::max(0.062 * std::sqrt(fc), 0.35) / std::min(fy, 420.0) * 0.999);
                // What they carry at every station inside, per mm of width, and what is asked.
                for (std::size_t i = 0; i < s->stations().size(); ++i) {
                    const auto& st = s->stations()[i];
                    if (st.u < z.from || st.u > z.to) continue;
                    const double at = st.leastThickness - (s->demand.shearHogs[i] ? f->basis->coverTop
                                                                                  : f->basis->coverBottom) -
                                      8;  // no smaller bars there
                    double resists = 0;
                    if (en) {
                        const double nu = 0.6 * (1 - fc / 250) * fc / 1.5;
                        for (double cot = 1; cot <= 2 / 0.9; cot += 0.01)
                            resists = std::max(resists, std::min(z.steel() * 0.9 * at * fy / 1.15 * cot,
                                                                 0.9 * at * nu / (cot + 1 / cot)));
                    } else {
                        resists = 0.75 * (0.17 * std::sqrt(fc) * at + z.steel() * std::min(fy, 420.0) * at);
                    }
                    EXPECT_LE(s->shearResistance[i] / st.width, resists * 1.01) << en << " " << st.u;
                }
                // As many legs as are called out.
                double legs = 0;
                for (const auto& item : s->items)
                    if (item.layer == "S" && std::abs(item.from - z.from) < 1) legs += 2 * item.number;
                const double area = (z.to - z.from) * s->strip->area() / (s->strip->to - s->strip->from);
                EXPECT_GE(legs * std::numbers::pi / 4 * z.diameter * z.diameter / area, 0.97 * z.steel());
            }
        }
        EXPECT_GE(zones, 2) << en;
    }
}

TEST(StripLinks, AreAChoiceAndARemedy) {
    auto p = heavy(300, true, 50e-3);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) { f.strips.rules.links = false; });
    const auto without = designed(p);
    EXPECT_GT(shearOver(*without), 0);
    for (const auto& s : without->strips) EXPECT_TRUE(s->links.empty());
    const model::PartRef part = [&] {
        for (const auto& s : without->strips)
            for (const auto& c : s->checks)
                if (c.topic == checks::Topic::OneWayShear && c.outcome == Outcome::Over) return s->part;
        return model::PartRef{};
    }();
    bool offered = false;
    for (const auto& r : design::remedies(p, part).found) offered |= r.text.starts_with("Links");
    EXPECT_TRUE(offered);
}

// EN 1992-1-1 9.3.2(1): none in slabs under 200 mm; the check says so.
TEST(StripLinks, ThinSlabsHaveNone) {
    const auto f = designed(heavy(190, true, 40e-3));
    bool said = false;
    for (const auto& s : f->strips) {
        EXPECT_TRUE(s->links.empty());
        for (const auto& c : s->checks)
            for (const auto& note : c.here) said |= note.find("take no links") != std::string::npos;
    }
    EXPECT_GT(shearOver(*f), 0);
    EXPECT_TRUE(said);
}

// Links in strips and one-way slabs where concrete alone does not carry one-way shear, against formulas
// written here.
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

// Shear per mm of width with links of this area per mm2 of plan: EN 1992-1-1 (6.8), (6.9), struts no flatter
// than the shift of the tension by d allows; ACI 318-19 22.5.1.1 with Table 22.5.5.1(a).
double linked(bool en, double steel, double d, double fc, double fy) {
    if (!en) return 0.75 * (0.17 * std::sqrt(fc) * d + steel * std::min(fy, 420.0) * d);
    const double nu = 0.6 * (1 - fc / 250) * fc / 1.5;
    double most = 0;
    for (double cot = 1; cot <= 2 / 0.9; cot += 0.01)
        most = std::max(most, std::min(steel * 0.9 * d * fy / 1.15 * cot, 0.9 * d * nu / (cot + 1 / cot)));
    return most;
}
// By concrete alone with tension steel per mm: EN 1992-1-1 (6.2a); ACI 318-19 22.5.5.1(c), lambda_s
// of 22.5.5.1.3.
double plain(bool en, double d, double fc, double As) {
    const double rho = As / d;
    if (!en)
        return 0.75 * 0.66 * std::min(1.0, std::sqrt(2 / (1 + 0.004 * d))) * std::cbrt(rho) * std::sqrt(fc) *
               d;
    const double k = std::min(2.0, 1 + std::sqrt(200 / d));
    return std::max(0.12 * k * std::cbrt(100 * std::min(rho, 0.02) * fc), 0.035 * k * std::sqrt(k * fc)) * d;
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
                    const double resists =
                        std::max(linked(en, z.steel(), at, fc, fy),
                                 plain(en, at, fc, s->bottom.provided[i] + s->top.provided[i]));
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
            for (const auto& note : c.here) said |= note.find("cannot have links") != std::string::npos;
    }
    EXPECT_GT(shearOver(*f), 0);
    EXPECT_TRUE(said);
}

namespace {

// Two spans between walls under a heavy load, of which concrete alone does not carry the shear.
model::Project slabOf(const std::string& standard, double thickness, double imposed) {
    auto p = model::newProject();
    p.basis.standard = standard;
    p.basis.units = standard == "aci318-us" ? units::System::UsCustomary : units::System::Metric;
    p = model::setSpans(p, "s1", {5000, 5000}, false, false);
    return model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project&) {
        s.thickness = thickness, s.imposed = imposed, s.width = 7000;
        for (auto& support : s.supports) support.width = 250;
    });
}
int shearOver(const design::SlabDesign& d) {
    return int(std::count_if(d.checks.begin(), d.checks.end(), [](const auto& c) {
        return c.topic == checks::Topic::OneWayShear && c.outcome == Outcome::Over;
    }));
}

}  // namespace

TEST(SlabLinks, CarryWhatConcreteDoesNotByTheStandard) {
    for (const std::string standard : {"en1992", "aci318-si", "aci318-us"}) {
        const bool en = standard == "en1992";
        auto p = slabOf(standard, 300, 60e-3);
        const auto with = design::run(p);
        const auto& d = with.slab(0);
        EXPECT_EQ(shearOver(d), 0) << standard;
        ASSERT_GE(d.links.size(), 2u) << standard;
        const auto& basis = p.basis;
        const double fc = basis.concreteStrength, fy = basis.steelYield;
        for (const auto& z : d.links) {
            int rows = 0, legs = 0;
            for (const auto& item : d.items)
                if (item.layer == "S" && std::abs(item.from - z.from) < 1) {
                    legs += 2 * item.number, ++rows;
                    EXPECT_EQ(item.dimensions.at('A'),
                              std::floor((300 - basis.coverTop - basis.coverBottom) / 5) * 5);
                }
            EXPECT_EQ(rows, 1);
            const double area = (z.to - z.from) * (7000 - 2 * basis.coverSide);
            EXPECT_GE(legs * std::numbers::pi / 4 * z.diameter * z.diameter / area, z.steel() * 0.999)
                << standard;
            for (std::size_t i = 0; i < d.analysis.stations.size(); ++i) {
                const double x = d.analysis.stations[i].x;
                if (x < z.from || x > z.to) continue;
                const bool top = d.line.demand.shearHogs[i];
                const double at =
                    300 - (top ? basis.coverTop : basis.coverBottom) - 4;  // no smaller bars there
                const double most =
                    std::max(linked(en, z.steel(), at, fc, fy),
                             plain(en, at, fc, top ? d.top.provided[i] : d.bottom.provided[i]));
                EXPECT_LE(d.shearResistance[i] / d.line.stations[i].width, most * 1.01)
                    << standard << " " << x;
            }
        }
        p = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) { s.shearLinks = false; });
        const auto without = design::run(p);
        EXPECT_GT(shearOver(without.slab(0)), 0);
        EXPECT_TRUE(without.slab(0).links.empty());
        EXPECT_GT(with.elements[0]->steel, without.elements[0]->steel);
        // Where nothing but shear is over, links are the first remedy that changes neither depth nor
        // concrete.
        bool offered = false;
        const auto one = model::setSpans(p, "s1", {3000}, false, false);
        for (double imposed = 40e-3; imposed < 98e-3 && !offered; imposed += 5e-3) {
            const auto q = model::editSlab(
                one, "s1", [&](model::OneWaySlab& s, model::Project&) { s.imposed = imposed; });
            const auto light = design::run(q);
            if (shearOver(light.slab(0)) == 0 || light.summary().over != shearOver(light.slab(0))) continue;
            for (const auto& r : design::remedies(q, {"s1"}).found) offered |= r.text.starts_with("Links");
            EXPECT_TRUE(offered) << standard << " " << imposed;
            break;
        }
        EXPECT_TRUE(offered) << standard;
    }
}

// A slab that concrete alone carries has none, and one too thin for them says so.
TEST(SlabLinks, OnlyWhereTheyAreNeededAndAllowed) {
    EXPECT_TRUE(design::run(slabOf("en1992", 300, 5e-3)).slab(0).links.empty());
    const auto thin = design::run(slabOf("en1992", 190, 40e-3));
    EXPECT_TRUE(thin.slab(0).links.empty());
    EXPECT_GT(shearOver(thin.slab(0)), 0);
    bool said = false;
    for (const auto& c : thin.slab(0).checks)
        for (const auto& note : c.here) said |= note.find("cannot have links") != std::string::npos;
    EXPECT_TRUE(said);
}

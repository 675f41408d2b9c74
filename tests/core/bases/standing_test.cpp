// What bases have besides their own strength: a site, ratios, pedestals, the ground beside, settlement,
// starter bars; and bars as they lie.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "bases/cap.h"
#include "bases/pad.h"
#include "ground/settlement.h"
#include "model/edits.h"

using namespace talvik;
using bases::BaseState;
using geometry::Point;

namespace {

model::BaseSet one(double G, double Q, double My = 0, double Hx = 0) {
    model::BaseSet set;
    set.id = "f1", set.name = "Bases";
    set.cases = {{"q1", "G", {actions::Nature::Permanent, ""}},
                 {"q2", "Q", {actions::Nature::Imposed, "B"}},
                 {"q3", "W", {actions::Nature::Wind, ""}}};
    set.columns = {{"c1", "A1", 0, 0, 400, 400, {{"q1", G}, {"q2", Q}, {"q3", 0, Hx, 0, 0, My}}}};
    model::Base base;
    base.id = "b1", base.columns = {"c1"};
    set.bases = {base};
    return set;
}
std::shared_ptr<const standards::Standard> en() {
    static const auto standard = standards::makeStandard("en1992");
    return standard;
}
model::Basis basis() {
    return model::emptyProject().basis;
}
const checks::Check* find(const std::vector<checks::Check>& all, const std::string& key) {
    for (const auto& c : all)
        if (c.key.ends_with(key)) return &c;
    return nullptr;
}
const model::PartRef part{"f1", model::PartKind::Base, "b1"};

// Whether every point of a fine grid in the rectangle lies in the outline.
bool inside(const geometry::Ring& site, Point c, double B, double L) {
    constexpr int n = 24;
    for (int i = 0; i <= n; ++i)
        for (int k = 0; k <= n; ++k)
            if (!geometry::contains(
                    site, {c.x + (double(i) / n - 0.5) * (B - 1), c.y + (double(k) / n - 0.5) * (L - 1)}))
                return false;
    return true;
}

}  // namespace

// Random sites with re-entrant corners: the place found is within, and no place on a grid is much nearer.
TEST(Site, NearestPlaceAgainstAGrid) {
    std::mt19937 random(31);
    auto u = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    int moved = 0, none = 0;
    for (int k = 0; k < 150; ++k) {
        auto set = one(500e3, 300e3);
        // A star of corners about the origin: simple by construction.
        const int n = 4 + int(random() % 6);
        for (int i = 0; i < n; ++i) {
            const double a = 2 * M_PI * (i + u(0.1, 0.9)) / n, r = u(600, 5000);
            set.site.push_back({r * std::cos(a), r * std::sin(a)});
        }
        const bases::Context in(set, basis(), en());
        const double B = u(600, 2500), L = u(600, 2500);
        const Point wish{u(-5000, 5000), u(-5000, 5000)};
        const auto at = in.within(wish, B, L);
        double best = 1e300;
        for (double x = -6000; x <= 6000; x += 150)
            for (double y = -6000; y <= 6000; y += 150)
                if (const double d = std::hypot(x - wish.x, y - wish.y);
                    d < best && inside(set.site, {x, y}, B, L))
                    best = d;
        if (!at) {
            ++none;
            // A grid may only find a place where there is hardly room for it.
            EXPECT_GT(best, 1e299) << k;
            continue;
        }
        EXPECT_TRUE(inside(set.site, *at, B, L)) << k;
        const double d = std::hypot(at->x - wish.x, at->y - wish.y);
        EXPECT_LE(d, best + 1) << k;
        moved += d > 1;
    }
    EXPECT_GT(moved, 30);
    EXPECT_GT(none, 10);
}

TEST(Site, ABaseOnTheBoundaryIsEccentricAndHolds) {
    auto set = one(500e3, 300e3);
    set.ground.allowable = 0.2;
    set.site = {{-8000, -8000}, {250, -8000}, {250, 8000}, {-8000, 8000}};
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    ASSERT_TRUE(d.possible()) << d.trouble;
    EXPECT_NEAR(d.size.off.x + d.size.B / 2, 250, 1e-6);
    EXPECT_EQ(d.size.off.y, 0);
    // The eccentricity asks for a larger one than in the open.
    auto open = set;
    open.site.clear();
    const bases::Context free(open, basis(), en());
    const auto alone = bases::Pad(free, open.bases[0]).solve();
    EXPECT_GT(d.size.area() * d.size.h, alone.size.area() * alone.size.h);
    // Long along the boundary rather than square with a part of it lifted.
    EXPECT_GT(d.size.L, 1.2 * d.size.B);
    for (const auto& c : pad.checks(d, part, true)) EXPECT_NE(c.outcome, checks::Outcome::Over) << c.title;
    // No room: said, with a check that is over; so with a centre that someone pinned outside.
    set.site = {{-300, -300}, {300, -300}, {300, 300}, {-300, 300}};
    const bases::Context narrow(set, basis(), en());
    const bases::Pad tight(narrow, set.bases[0]);
    const auto no = tight.solve();
    EXPECT_NE(no.trouble.find("site"), std::string::npos) << no.trouble;
    ASSERT_NE(find(tight.checks(no, part, false), "site"), nullptr);
    EXPECT_EQ(find(tight.checks(no, part, false), "site")->outcome, checks::Outcome::Over);
}

TEST(Pad, RatioOfSidesIsKept) {
    for (double ratio : {0.5, 1.5, 2.0}) {
        auto set = one(800e3, 400e3);
        set.bases[0].ratio = ratio;
        const bases::Context in(set, basis(), en());
        const auto d = bases::Pad(in, set.bases[0]).solve();
        ASSERT_TRUE(d.possible()) << d.trouble;
        EXPECT_NEAR(d.size.L, std::ceil(d.size.B * ratio / 50 - 1e-9) * 50, 1e-6);
        set.bases[0].L = 3000;
        const bases::Context pinned(set, basis(), en());
        const auto e = bases::Pad(pinned, set.bases[0]).solve();
        EXPECT_EQ(e.size.L, 3000);
        EXPECT_NEAR(e.size.B, std::ceil(3000 / ratio / 50 - 1e-9) * 50, 1e-6);
    }
}

// ACI 318-19 13.3.3.3: steel along the shorter side grows so that a band about the column has its share.
TEST(Pad, BandOfARectangularBase) {
    auto set = one(900e3, 500e3);
    set.bases[0].B = 4000, set.bases[0].L = 2200, set.bases[0].h = 600;
    set.ground.allowable = 0.3;
    set.bars = {"No.13", "No.16", "No.19", "No.22", "No.25"};
    auto b = basis();
    b.standard = "aci318-si", b.barCatalog = "aci-si";
    const auto aci = standards::makeStandard("aci318-si");
    for (const auto& catalog : catalogs::barCatalogs())
        if (catalog.find("No.16")) b.barCatalog = catalog.id;
    const bases::Context in(set, b, aci);
    const bases::Pad pad(in, set.bases[0]);
    const auto all = pad.checks(pad.solve(), part, true);
    const auto* band = find(all, "band-y");
    ASSERT_NE(band, nullptr);
    EXPECT_EQ(find(all, "band-x"), nullptr) << "along the longer side it lies evenly";
    const double beta = 4000.0 / 2200;
    ASSERT_GE(band->steps.size(), 2u);
    EXPECT_NEAR(band->steps[0].result, 2 * beta / (beta + 1), 1e-9);
    EXPECT_NE(band->outcome, checks::Outcome::Over);
    // In a band as wide as the shorter side lies its share of what the moment asks for.
    const auto* flexure = find(all, "flexure-y");
    ASSERT_NE(flexure, nullptr);
    const double need = band->limit / (2 * beta / (beta + 1));
    EXPECT_GE(band->demand * 2200 / 4000, need * 2 / (beta + 1) * (1 - 1e-9));
    // A square one asks for none.
    set.bases[0].B = 2200;
    const bases::Context square(set, b, aci);
    const auto none =
        bases::Pad(square, set.bases[0]).checks(bases::Pad(square, set.bases[0]).solve(), part, false);
    EXPECT_EQ(find(none, "band-y"), nullptr);
}

// A pedestal is weight, a lever for horizontal forces, and a wider column: the same as a column with all of
// these put in by hand.
TEST(Pad, PedestalIsAWiderColumnWithALever) {
    auto set = one(600e3, 300e3, 20e6, 25e3);
    set.ground.depth = 1600, set.ground.soil = 0;
    set.bases[0].B = set.bases[0].L = 2600, set.bases[0].h = 500;
    auto by = set;
    set.bases[0].pedestal = {700, 600, 900};
    const double W = 25e-6 * 700 * 600 * 900;
    auto& c = by.columns[0];
    c.width = 700, c.depth = 600;
    c.actions[0].N += W;
    c.actions[2].My += 25e3 * 900;
    const bases::Context in(set, basis(), en()), other(by, basis(), en());
    const bases::Pad a(in, set.bases[0]), b(other, by.bases[0]);
    const auto da = a.solve(), db = b.solve();
    const auto ca = a.checks(da, part, false), cb = b.checks(db, part, false);
    for (const char* key : {"pressure", "flexure-x", "flexure-y", "shear-x", "punching", "overturning"}) {
        ASSERT_TRUE(find(ca, key) && find(cb, key)) << key;
        EXPECT_NEAR(find(ca, key)->demand, find(cb, key)->demand, 1e-6 * find(cb, key)->demand) << key;
    }
    // Soil displaced by the stub is not above the base.
    auto soil = set;
    soil.ground.soil = 18e-6;
    const bases::Context deep(soil, basis(), en());
    const auto cs = bases::Pad(deep, soil.bases[0]).checks(da, part, false);
    const double more = (find(cs, "pressure")->demand - find(ca, "pressure")->demand) * 2600 * 2600;
    EXPECT_NEAR(more, 18e-6 * (1100.0 * 2600 * 2600 - 900.0 * 700 * 600), 1e-3 * more);
}

// Against sliding: adhesion on the effective area and Rankine's passive pressure, by hand.
TEST(Pad, AdhesionAndPassivePressureByHand) {
    auto set = one(400e3, 0, 0, 60e3);
    set.bases[0].B = 2000, set.bases[0].L = 3000, set.bases[0].h = 500;
    auto& g = set.ground;
    g.depth = 1200, g.soil = 18e-6, g.friction = 32, g.baseFriction = 22, g.adhesion = 0.012,
    g.passiveShare = 0.5;
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    const auto* slide = find(pad.checks(d, part, true), "sliding");
    const auto all = pad.checks(d, part, true);
    slide = find(all, "sliding");
    ASSERT_NE(slide, nullptr);
    const double W = (25e-6 * 500 + 18e-6 * 700) * 6e6;
    // Wind alone with 1.3 and the ground's factors of the second combination of approach 1, permanent 1.0;
    // and 1.5 with 1.0 on the ground: the worse.
    double worst = 0;
    for (auto [gG, gQ, gM] : {std::tuple(1.0, 1.3, 1.25), {1.0, 1.5, 1.0}, {1.35, 1.5, 1.0}}) {
        const double V = gG * (400e3 + W), H = gQ * 60e3, e = H * 500 / V, A = (2000 - 2 * e) * 3000;
        const double phi = std::atan(std::tan(32 * M_PI / 180) / gM),
                     Kp = (1 + std::sin(phi)) / (1 - std::sin(phi));
        // Wedge beside the base from 0.7 to 1.2 m below the ground, on the side of 3 m.
        const double E = Kp * 18e-6 * (1200.0 * 1200 - 700.0 * 700) / 2 * 3000;
        const double R = V * std::tan(22 * M_PI / 180) / gM + A * 0.012 / gM + 0.5 * E;
        worst = std::max(worst, H / R);
    }
    EXPECT_NEAR(checks::ratio(*slide), worst, 2e-3 * worst);
    EXPECT_GE(slide->steps.size(), 4u);
    // More of it helps, none of it the least.
    for (double share : {0.0, 1.0}) {
        auto other = set;
        other.ground.passiveShare = share;
        const bases::Context with(other, basis(), en());
        const auto c = bases::Pad(with, other.bases[0]).checks(d, part, false);
        EXPECT_EQ(checks::ratio(*find(c, "sliding")) > worst, share == 0);
    }
}

TEST(Pad, SettlementIsThatOfTheLayers) {
    auto set = one(900e3, 500e3);
    set.ground.layers = {{2000, 15, 0.3}, {4000, 40, 0.25}};
    set.ground.settlement = 12, set.ground.allowable = 0.4;
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    ASSERT_TRUE(d.possible()) << d.trouble;
    const auto all = pad.checks(d, part, true);
    const auto* s = find(all, "settlement");
    ASSERT_NE(s, nullptr);
    EXPECT_LE(s->demand, 12);
    // Quasi-permanent: G + 0.3 Q of offices, with the weights, less the soil dug out.
    const double A = d.size.area(),
                 p = (900e3 + 0.3 * 500e3) / A + 25e-6 * d.size.h + 18e-6 * (1000 - d.size.h) - 18e-6 * 1000;
    EXPECT_NEAR(s->demand,
                ground::settlement(p, d.size.B, d.size.L, {{15, 0.3, 2000}, {40, 0.25, 4000}}).characteristic,
                1e-6);
    // It asks for a larger base than the pressure does; one step less settles more than is accepted.
    auto other = set;
    other.ground.layers.clear();
    const bases::Context without(other, basis(), en());
    EXPECT_GT(d.size.B, bases::Pad(without, other.bases[0]).solve().size.B);
    auto less = d.size;
    less.B -= 50, less.L -= 50;
    EXPECT_GT(pad.ground(less).settlement.value, 1);
}

TEST(Starters, LeastSteelAndPullByHand) {
    auto set = one(2400e3, 1200e3);
    {
        const bases::Context in(set, basis(), en());
        const bases::Pad pad(in, set.bases[0]);
        const double N = 1.35 * 2400e3 + 1.5 * 1200e3;
        ASSERT_EQ(pad.starters().size(), 1u);
        const auto& s = pad.starters()[0];
        EXPECT_NEAR(s.need, std::max(0.1 * N / (500 / 1.15), 0.002 * 160000.0), 1);
        EXPECT_GE(s.area(), s.need);
    }
    // A pull asks for bars of its own, anchored in the depth.
    set = one(-300e3, -200e3);
    set.ground.depth = 2500;
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    const auto& s = pad.starters()[0];
    EXPECT_NEAR(s.need, (1.35 * 300e3 + 1.5 * 200e3) / (500 / 1.15), 1);
    const auto all = pad.checks(d, part, true);
    ASSERT_NE(find(all, "starters-anchorage"), nullptr);
    if (d.possible()) {
        EXPECT_NE(find(all, "starters-anchorage")->outcome, checks::Outcome::Over);
    }
}

// Bars lie in the concrete: every point of every bar, and no two of one mat on each other; what is cut is as
// long as what lies.
TEST(Reinforcement, LiesInTheConcrete) {
    std::mt19937 random(17);
    auto u = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    int bars = 0;
    for (int k = 0; k < 60; ++k) {
        auto set = one(u(200e3, 3000e3), u(100e3, 1500e3), u(-200e6, 200e6), u(-40e3, 40e3));
        set.columns[0].width = 50 * std::round(u(5, 16)), set.columns[0].depth = 50 * std::round(u(5, 16));
        const bool cap = k % 3 == 0;
        if (cap) {
            set.kind = model::BaseSet::Kind::Caps;
            set.pile.compression = 900e3, set.pile.tension = 200e3;
            set.sideBar = k % 2 ? "H12" : "";
            set.linkBar = k % 4 < 2 ? "H10" : "";
        } else if (k % 4 == 1) {
            set.ground.depth = 2200;
            set.bases[0].pedestal = {set.columns[0].width + 200, set.columns[0].depth + 200, 700};
        } else if (k % 4 == 2) {
            set.bases[0].top = {k % 8 == 2 ? model::BaseTop::Kind::Sloped : model::BaseTop::Kind::Stepped,
                                250, 100};
        }
        const bases::Context in(set, basis(), en());
        std::vector<bases::Laid> laid;
        bases::PadSize size;
        Point centre;
        std::vector<schedule::Item> items;
        std::optional<bases::Top> top;
        if (cap) {
            const bases::Cap c(in, set.bases[0]);
            const auto d = c.solve();
            laid = c.laid(d), size = d.size, centre = c.centre(d.size), items = c.items(d);
        } else {
            const bases::Pad p(in, set.bases[0]);
            const auto d = p.solve();
            laid = p.laid(d), size = d.size, centre = p.centre(d.size), items = p.items(d);
            top = p.top(d.size);
        }
        ASSERT_EQ(laid.size(), items.size());
        for (const auto& l : laid) {
            ASSERT_EQ(int(l.lines.size()), l.item.number) << l.item.run;
            bars += l.item.number;
            const double r = l.item.diameter / 2;
            double along = 0;
            for (const auto& line : l.lines) {
                double length = 0;
                for (std::size_t i = 0; i < line.size(); ++i) {
                    const auto& p = line[i];
                    if (i)
                        length += std::hypot(p.x - line[i - 1].x, p.y - line[i - 1].y, p.z - line[i - 1].z);
                    // A straight bar ends with its cut face.
                    const double side = line.size() == 2 ? 0 : r;
                    EXPECT_LE(std::abs(p.x - centre.x) + side, size.B / 2 - in.cover + 1)
                        << k << " " << l.item.run;
                    EXPECT_LE(std::abs(p.y - centre.y) + side, size.L / 2 - in.cover + 1)
                        << k << " " << l.item.run;
                    EXPECT_GE(p.z - r, in.cover - 1) << k << " " << l.item.run;
                    // Starters and their links go on into pedestal and column.
                    if (l.item.run != "starters" && l.item.run != "links") {
                        EXPECT_LE(p.z + r, size.h - in.cover + r + 1) << k << " " << l.item.run;
                    }
                    // Legs of mats end below the edges of tops that are not level.
                    if (top && l.item.run.starts_with("bottom")) {
                        EXPECT_LE(p.z, top->edge() - in.cover + 1) << k << " " << l.item.run;
                    }
                }
                along = length;
            }
            // Bends take a little off; legs that lie tilted are longer than they rise.
            if (l.item.note.empty() && l.item.shape != "51") {
                EXPECT_NEAR(l.item.cutLength, along, 4 * l.item.diameter + 60) << k << " " << l.item.run;
            }
            for (std::size_t i = 1; i < l.lines.size() && l.item.layer.size() == 2; ++i)
                EXPECT_GE(
                    std::hypot(l.lines[i][0].x - l.lines[i - 1][0].x, l.lines[i][0].y - l.lines[i - 1][0].y),
                    l.item.diameter + 20);
            if (l.item.run != "starters") continue;
            for (const auto& line : l.lines) EXPECT_GT(line.back().z, size.h + 300);
        }
    }
    EXPECT_GT(bars, 1500);
}

TEST(Cap, HorizontalForcesAreShared) {
    auto set = one(2000e3, 800e3, 0, 90e3);
    set.kind = model::BaseSet::Kind::Caps;
    set.pile.compression = 900e3, set.pile.lateral = 40e3;
    const bases::Context in(set, basis(), en());
    const bases::Cap cap(in, set.bases[0]);
    const auto d = cap.solve();
    const auto all = cap.checks(d, part, true);
    const auto* c = find(all, "pile-lateral");
    ASSERT_NE(c, nullptr);
    EXPECT_NEAR(c->demand, 90e3 / double(d.piles.size()), 1);
    // The number of piles follows where they carry little of it; without a value nothing is claimed.
    set.pile.lateral = 12e3;
    const bases::Context weak(set, basis(), en());
    EXPECT_GE(bases::Cap(weak, set.bases[0]).solve().piles.size(), 8u);
    set.pile.lateral = 0;
    const bases::Context none(set, basis(), en());
    const auto said = bases::Cap(none, set.bases[0]).checks(d, part, false);
    EXPECT_EQ(find(said, "pile-lateral")->outcome, checks::Outcome::NotChecked);
}

// A one-way slab as a line: supports, spans and design moments, against values by hand.
#include "line/one_way.h"

#include <gtest/gtest.h>

#include <cmath>

#include "bars/steel.h"
#include "model/edits.h"
#include "support/random_slab.h"

using namespace talvik;

namespace {

model::Project twoSpans(bool monolithic) {
    auto p = model::setSpans(test::randomProject(1), "s1", {5000, 5000}, false, false);
    return model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project&) {
        for (auto& u : s.supports) u.monolithic = monolithic, u.width = 300;
    });
}
struct Lined {
    std::shared_ptr<const standards::Standard> standard;
    analysis::SlabAnalysis a;
    line::OneWayLine line;
};
Lined lined(const model::Project& p, const std::string& id) {
    Lined out{standards::makeStandard(id), {}, {}};
    const auto& slab = *p.slabs.front();
    out.a = analysis::analyse(slab, p.basis,
                              out.standard->actions->combinations(*catalogs::imposedUse(slab.imposedUse)));
    out.line = line::lineOf(slab, out.a, *out.standard);
    return out;
}

}  // namespace

TEST(OneWayLine, HogsAtTheFacesOfSupportsCastWithIt) {
    auto l = lined(twoSpans(true), "aci318-si");
    const double atFace = -l.a.momentExtreme(actions::LimitState::Ultimate, false, 0, 4850).value;
    EXPECT_NEAR(l.line.supports[1].moment, atFace, 1e-9 * atFace);
    // Every station over the support is designed for it.
    for (std::size_t i = 0; i < l.line.stations.size(); ++i)
        if (std::abs(l.line.stations[i].u - 5000) <= 150) {
            EXPECT_EQ(l.line.stations[i].support, 1);
            EXPECT_EQ(l.line.demand.top[i].value, l.line.supports[1].moment);
        }
}

// EN 1992-1-1 5.3.2.2(4) rounds off by F t/8; ACI 318-19 has no such rule. Two equal spans under w: w l2/8, F
// = 1.25 w l.
TEST(OneWayLine, HoggingOnSupportsThatAreFreeToTurnIsRoundedOffWhereTheStandardAllowsIt) {
    auto p = twoSpans(false);
    for (const char* id : {"en1992", "aci318-si", "aci318-us"}) {
        auto l = lined(p, id);
        const double axis = -l.a.momentExtreme(actions::LimitState::Ultimate, false, 0, 5000).value,
                     w = axis * 8 / 25e6;
        const double rounded = std::string(id) == "en1992" ? 1.25 * w * 5000 * 300 / 8 : 0;
        EXPECT_NEAR(l.line.supports[1].moment, axis - rounded, 1e-6 * axis) << id;
    }
    auto en = standards::makeStandard("en1992");
    EXPECT_NEAR(en->supports->momentFloor(100), 65, 1e-12);
}

TEST(OneWayLine, SystemsOfSpansAreFoundFromTheLayout) {
    model::Project p = model::setSpans(model::newProject(), "s1", {4000, 5000, 4000, 1200}, false, true);
    const auto all = line::lineOf(*p.slabs.front()).spans;
    using standards::SpanSystem;
    EXPECT_EQ(line::spanSystem(all[0]), SpanSystem::End);
    EXPECT_EQ(line::spanSystem(all[1]), SpanSystem::Interior);
    EXPECT_EQ(line::spanSystem(all[2]), SpanSystem::Interior) << "continuous over a cantilever's support";
    EXPECT_EQ(line::spanSystem(all[3]), SpanSystem::Cantilever);
    model::Project one = model::setSpans(p, "s1", {4000}, false, false);
    EXPECT_EQ(line::spanSystem(line::lineOf(*one.slabs.front()).spans[0]), SpanSystem::Simple);
}

// Over random slabs: supports and spans are where the model says, and stations stand at every face and an
// effective depth from it.
TEST(OneWayLine, HasStationsWhereChecksAreMade) {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        auto p = test::randomProject(seed);
        const auto& slab = *p.slabs.front();
        auto l = lined(p, "en1992");
        ASSERT_EQ(l.line.stations.size(), l.a.stations.size());
        auto stands = [&](double u) {
            return std::abs(l.line.stations[line::nearestStation(l.line.stations, u)].u - u) < 0.11;
        };
        const double d = slab.thickness - p.basis.coverTop - model::largestBar(p.basis) / 2;
        for (const auto& span : l.line.line.spans) {
            EXPECT_TRUE(stands(span.clearFrom) && stands(span.clearTo)) << seed;
            if (span.clearTo - span.clearFrom < 2 * d) continue;
            EXPECT_TRUE(span.left < 0 || stands(span.clearFrom + d)) << seed;
            EXPECT_TRUE(span.right < 0 || stands(span.clearTo - d)) << seed;
        }
        for (std::size_t s = 0; s < slab.supports.size(); ++s)
            EXPECT_NEAR(l.line.line.supports[s].to - l.line.line.supports[s].from, slab.supports[s].width,
                        1e-9);
    }
}

// The moment line moved by a_l: of a cantilever under a uniform load, m + v a_l exactly (EN
// 1992-1-1 9.2.1.3(2)).
TEST(OneWayLine, MovedMomentOfACantileverEndsAtItsTip) {
    auto p = model::setSpans(model::newProject(), "s1", {4000, 2000}, false, true);
    auto l = lined(p, "en1992");
    const line::LineBasis in{p.basis, *l.standard};
    const auto& st = l.line.stations;
    const auto moved =
        line::movedDemand(l.line.line, st, l.line.demand, true, std::vector<double>(st.size(), 12), in);
    const double shift =
        l.standard->barEnds->momentShift(line::section(true, 12, p.slabs.front()->thickness, in, 1000).d, 12);
    ASSERT_GT(shift, 100);
    const double x = 6000 - 500;  // 500 mm from the tip
    const auto i = line::nearestStation(st, x);
    const double from = 6000 - st[i].u, w = l.line.demand.top[i].value * 2 / (from * from);
    EXPECT_NEAR(moved[i], w * from * from / 2 + w * from * shift, 1e-6 * moved[i]);
    EXPECT_NEAR(moved.back(), 0, 1e-9 * moved[i]);
    // In a span it is read between stations: never less than the demand itself a shift away.
    for (std::size_t k = 0; k + 1 < st.size(); ++k)
        EXPECT_TRUE(st[k].u >= 3800 || moved[k] >= l.line.demand.top[k].value);
}

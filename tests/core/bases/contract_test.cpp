// What every base promises, over random sets of all shapes, pins, grounds and both standards: what is solved
// without trouble has nothing over but what a pin or the column decides; over if and only if the ratio is
// above 1; every check says what it is about, where, and by which clause.
#include <gtest/gtest.h>

#include <set>

#include "design/bases.h"
#include "model/edits.h"
#include "support/cases.h"
#include "support/random_bases.h"

using namespace talvik;
using checks::Outcome;
using checks::Topic;

namespace {

bool has(const checks::Check& c, const char* part) {
    return c.key.find(part) != std::string::npos;
}
// What nobody but who pinned it, or who drew the column, can change.
bool decidedElsewhere(const checks::Check& c, const model::Base& base) {
    const bool bars = !base.bar.empty() || base.spacing > 0;
    return (bars && (has(c, "/least-") || has(c, "/spacing-") || has(c, "/cracks-"))) ||
           has(c, "/starters") || has(c, "/foot") || has(c, "/pedestal") || has(c, "/clear");
}

}  // namespace

TEST(BaseContract, WhatIsSolvedPassesAndEveryCheckSaysWhatItIs) {
    const int n = test::share(400);
    int solved = 0;
    std::set<std::string> titles;
    for (int k = 1; k <= n; ++k) {
        model::Basis basis = model::emptyProject().basis;
        const auto set = std::make_shared<model::BaseSet>(test::randomBases(unsigned(k), basis));
        const auto answer =
            design::designBases(set, basis, standards::makeStandard(k / 2 % 2 ? "en1992" : "aci318-si"));
        ASSERT_TRUE(answer) << k;
        for (const auto& b : answer->bases) {
            const auto& base = set->bases[b->number];
            solved += b->trouble().empty();
            std::set<std::string> keys;
            for (const auto& c : b->checks) {
                const std::string where =
                    std::to_string(k) + " " + c.key + " " + std::to_string(checks::ratio(c));
                titles.insert(c.title);
                EXPECT_TRUE(keys.insert(c.key).second) << where << " twice";
                EXPECT_NE(c.topic, Topic::None) << where;
                EXPECT_FALSE(c.title.empty()) << where;
                EXPECT_TRUE(c.place.at) << where;
                if (c.outcome == Outcome::NotChecked || c.outcome == Outcome::NotApplicable) {
                    EXPECT_FALSE(c.reason.empty()) << where;
                    continue;
                }
                EXPECT_FALSE(c.clause.empty()) << where;
                EXPECT_EQ(c.outcome == Outcome::Over, checks::ratio(c) > 1 + 1e-9) << where;
                if (c.topic == Topic::Flexure || c.topic == Topic::Cracks) {
                    EXPECT_TRUE(c.face || has(c, "/strap")) << where;
                }
                if (b->trouble().empty() && c.outcome == Outcome::Over) {
                    EXPECT_TRUE(decidedElsewhere(c, base)) << where;
                }
            }
            // Trouble is never without a check that fails for it.
            if (!b->trouble().empty() && b->overlaps.empty()) {
                EXPECT_TRUE(std::any_of(b->checks.begin(), b->checks.end(),
                                        [](const auto& c) { return c.outcome == Outcome::Over; }))
                    << k << " " << b->trouble();
            }
        }
    }
    EXPECT_GT(solved, n * 6 / 10);
    EXPECT_GT(titles.size(), 40u);
}

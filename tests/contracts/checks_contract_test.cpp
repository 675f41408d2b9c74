// Every check says what it is about and where it belongs, whatever standard and element it is of: margin,
// plan, long section, find and files go by that alone.
#include <gtest/gtest.h>

#include <set>

#include "design/design.h"
#include "support/random_floor.h"
#include "support/random_slab.h"

namespace talvik {
namespace {

void expectPlaced(const design::ElementAnswer& e, const checks::Check& c) {
    using In = model::Spot::In;
    SCOPED_TRACE(c.key);
    EXPECT_NE(c.topic, checks::Topic::None);
    EXPECT_FALSE(c.what.empty());
    EXPECT_TRUE(c.title.starts_with(c.what)) << "like checks are known by what they check";
    EXPECT_FALSE(c.place.name.empty());
    EXPECT_LE(c.place.from, c.place.to);
    const auto& spot = c.place.spot;
    EXPECT_EQ(spot.part.element, e.element);
    const bool faced = c.topic == checks::Topic::Cracks || c.topic == checks::Topic::BarEnds;
    if (spot.part.kind == model::PartKind::Whole) {
        EXPECT_TRUE(spot.id.empty());
        return;
    }
    if (faced) {
        EXPECT_TRUE(c.face) << "of which face?";
    }
    const auto* part = e.find(spot.part);
    ASSERT_TRUE(part) << "of a part that there is none of";
    EXPECT_TRUE(std::any_of(part->checks.begin(), part->checks.end(), [&](const auto& own) {
        return &own == &c;
    })) << "listed with another part";
    const auto* line = dynamic_cast<const design::LineAnswer*>(part);
    if (!line) {  // a part without stations has a place in plan
        EXPECT_EQ(spot.in, In::Whole);
        EXPECT_TRUE(c.place.at);
        return;
    }
    const auto view = line->view();
    auto has = [&](const auto& all) {
        return std::any_of(all.begin(), all.end(), [&](const auto& x) { return x.id == spot.id; });
    };
    EXPECT_EQ(spot.in == In::Whole, spot.id.empty());
    if (spot.in == In::Span) {
        EXPECT_TRUE(has(view.line.spans)) << spot.id;
    }
    if (spot.in == In::Support) {
        EXPECT_TRUE(has(view.line.supports)) << spot.id;
    }
    EXPECT_GE(c.place.x, view.line.from - 1);
    EXPECT_LE(c.place.x, view.line.to + 1);
}

class ChecksOfEveryStandard : public ::testing::TestWithParam<std::string> {};

}  // namespace

TEST_P(ChecksOfEveryStandard, HaveATopicAndAPlace) {
    std::set<checks::Topic> topics;
    for (unsigned seed = 1; seed <= 8; ++seed) {
        auto p = test::randomProject(seed);
        p.basis.standard = GetParam();
        p.floors.push_back(std::make_shared<const model::Floor>(test::randomFloor(seed)));
        const auto design = design::run(p, {.trace = false});
        ASSERT_EQ(design.elements.size(), 2u);
        for (const auto& e : design.elements) {
            std::set<std::string> keys;
            for (const auto* c : e->all()) {
                expectPlaced(*e, *c);
                topics.insert(c->topic);
                EXPECT_TRUE(keys.insert(c->key).second) << c->key << " is there twice";
                EXPECT_EQ(e->check(c->key), c);
            }
        }
    }
    EXPECT_GE(topics.size(), 11u);
}

// What is opened is what was listed, with its working.
TEST_P(ChecksOfEveryStandard, AreTheSameWithTheirWorking) {
    auto p = test::randomProject(3);
    p.basis.standard = GetParam();
    p.floors.push_back(std::make_shared<const model::Floor>(test::randomFloor(4)));
    const auto design = design::run(p, {.trace = false});
    std::size_t worked = 0;
    for (const auto& e : design.elements)
        for (const auto& part : e->parts) {
            const auto whole = e->withWorking(*part);
            ASSERT_EQ(whole.size(), part->checks.size());
            for (std::size_t i = 0; i < whole.size(); ++i) {
                const auto &a = part->checks[i], &b = whole[i];
                EXPECT_EQ(a.key, b.key);
                EXPECT_EQ(a.demand, b.demand) << a.key;
                EXPECT_EQ(a.limit, b.limit) << a.key;
                EXPECT_EQ(a.outcome, b.outcome) << a.key;
                EXPECT_TRUE(a.steps.empty());
                worked += !b.steps.empty();
            }
        }
    EXPECT_GT(worked, 100u);
}

INSTANTIATE_TEST_SUITE_P(Catalogue, ChecksOfEveryStandard, ::testing::ValuesIn(standards::standardIds()),
                         [](const auto& row) {
                             std::string name = row.param;
                             std::replace(name.begin(), name.end(), '-', '_');
                             return name;
                         });

}  // namespace talvik

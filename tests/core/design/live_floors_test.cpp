// The background run: the latest wish is answered, older ones are dropped.
#include "design/live_floors.h"

#include <gtest/gtest.h>

#include "support/random_floor.h"

using namespace talvik;

namespace {

design::LiveFloors::Job job(model::Floor f) {
    analysis::FloorCombination c{"all", "", actions::LimitState::Ultimate, {}};
    c.factors.assign(f.actions.cases.size(), 1);
    return {{std::make_shared<model::Floor>(std::move(f)), "floors[0]", {30000, 0.2, 25e-6, {}}, {c}}, {}};
}

}  // namespace

TEST(LiveFloors, AnswersTheLatestWish) {
    std::mutex mutex;
    std::vector<double> loads;
    int told = 0, asked = 0;
    {
        design::LiveFloors live(
            [&](const design::LiveFloors::Job& answered, std::shared_ptr<const analysis::FloorAnalysis> a,
                auto) {
                std::lock_guard lock(mutex);
                EXPECT_EQ(answered.input.floor->id, "f");
                asked = answered.asked;
                ASSERT_TRUE(a->good());
                loads.push_back(a->cases[1].load);
            },
            [&](const model::Id&, double) {
                std::lock_guard lock(mutex);
                ++told;
            });
        model::Floor f = test::randomFloor(3);
        double last = 0;
        for (int i = 1; i <= 30; ++i) {
            f.actions.loads[0].value = last = 1e-3 * i;
            auto wish = job(f);
            wish.asked = i;
            live.want({wish});
        }
        live.waitUntilIdle();
        EXPECT_FALSE(live.busy());
        std::lock_guard lock(mutex);
        ASSERT_FALSE(loads.empty());
        EXPECT_LT(loads.size(), 30u) << "older wishes were dropped";
        auto direct =
            analysis::FloorAnalyser().analyse(f, "f", {30000, 0.2, 25e-6, {}}, job(f).input.combinations);
        EXPECT_EQ(asked, 30);
        EXPECT_EQ(loads.back(), direct.cases[1].load);
        EXPECT_GT(told, 0);
    }
}

TEST(LiveFloors, StopsAndPublishesNothing) {
    int published = 0;
    design::LiveFloors live([&](const auto&, auto, auto) { ++published; });
    model::Floor f = test::randomFloor(5);
    f.choices.meshSize = 60;
    live.want({job(f)});
    std::this_thread::sleep_for(std::chrono::milliseconds(30));
    live.stop();
    live.waitUntilIdle();
    EXPECT_EQ(published, 0);
}

TEST(LiveFloors, AnswersSeveralFloorsInOrder) {
    std::vector<std::string> order;
    design::LiveFloors live([&](const auto& of, auto, auto) { order.push_back(of.input.floor->id); });
    auto a = test::randomFloor(11), b = test::randomFloor(12);
    a.id = "a", b.id = "b";
    live.want({job(b), job(a)});
    live.waitUntilIdle();
    EXPECT_EQ(order, (std::vector<std::string>{"b", "a"}));
}

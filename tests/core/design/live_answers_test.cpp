// The background run: the latest wish is answered, older ones are dropped.
#include "design/live_answers.h"

#include <gtest/gtest.h>

#include "design/design.h"
#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_floor.h"

using namespace talvik;

namespace {

design::Request request(std::vector<model::Floor> floors, const model::Id& wanted, int asked = 0) {
    auto p = model::emptyProject();
    for (auto& f : floors) p.floors.push_back(std::make_shared<const model::Floor>(std::move(f)));
    return {std::make_shared<const model::Project>(std::move(p)), wanted, asked};
}

}  // namespace

TEST(LiveAnswers, AnswerTheLatestWish) {
    std::mutex mutex;
    std::vector<double> loads;
    int told = 0, asked = 0;
    {
        design::LiveAnswers live(
            [&](const design::Request& of, design::Designer::Answer answer) {
                std::lock_guard lock(mutex);
                EXPECT_EQ(answer->element, "f");
                asked = of.asked;
                const auto& f = dynamic_cast<const design::FloorDesign&>(*answer);
                ASSERT_TRUE(f.analysis->good());
                loads.push_back(f.analysis->cases[1].load);
            },
            [&](const model::Id&, double) {
                std::lock_guard lock(mutex);
                ++told;
            });
        model::Floor f = test::randomFloor(3);
        for (int i = 1; i <= 30; ++i) {
            f.actions.loads[0].value = 1e-3 * i;
            live.want({request({f}, "f", i)});
        }
        live.waitUntilIdle();
        EXPECT_FALSE(live.busy());
        std::lock_guard lock(mutex);
        ASSERT_FALSE(loads.empty());
        EXPECT_LT(loads.size(), 30u) << "older wishes were dropped";
        EXPECT_EQ(asked, 30);
        EXPECT_EQ(loads.back(), design::analyseFloor(*request({f}, "f").project, 0).cases[1].load);
        EXPECT_GT(told, 0);
    }
}

TEST(LiveAnswers, StopAndPublishNothing) {
    int published = 0;
    design::LiveAnswers live([&](const auto&, auto) { ++published; });
    model::Floor f = test::randomFloor(5);
    f.choices.meshSize = 60;
    live.want({request({f}, "f")});
    std::this_thread::sleep_for(std::chrono::milliseconds(30));
    live.stop();
    live.waitUntilIdle();
    EXPECT_EQ(published, 0);
}

TEST(LiveAnswers, ServeSeveralElementsInOrder) {
    std::vector<std::string> order;
    design::LiveAnswers live([&](const auto&, auto answer) {
        if (answer->complete || !answer->error.empty()) order.push_back(answer->element);
    });
    auto a = test::randomFloor(11), b = test::randomFloor(12);
    a.id = "a", b.id = "b";
    live.want({request({a, b}, "b"), request({a, b}, "a")});
    live.waitUntilIdle();
    EXPECT_EQ(order, (std::vector<std::string>{"b", "a"}));
}

// An element under an id that another kind had before, as after opening another project.
TEST(LiveAnswers, TheKindOfAnElementMayChange) {
    std::vector<std::string> names;
    design::LiveAnswers live([&](const auto&, auto answer) {
        if (answer->complete) names.push_back(answer->name);
    });
    auto f = test::randomFloor(3);
    f.id = "s1", f.name = "a floor";
    live.want({request({f}, "s1")});
    live.waitUntilIdle();
    live.want({{std::make_shared<const model::Project>(formats::demoProject()), "s1"}});
    live.waitUntilIdle();
    EXPECT_EQ(names, (std::vector<std::string>{"a floor", "Visitors' gallery"}));
}

// What did not change is not worked out again: the very same answer is given.
TEST(LiveAnswers, TheSameElementHasTheSameAnswer) {
    std::vector<design::Designer::Answer> given;
    design::LiveAnswers live([&](const auto&, auto answer) { given.push_back(answer); });
    auto p = formats::demoProject();
    for (bool renamed : {false, true}) {
        p.name = renamed ? "another" : "one";
        live.want({{std::make_shared<const model::Project>(p), "s1"}});
        live.waitUntilIdle();
    }
    ASSERT_EQ(given.size(), 2u);
    EXPECT_EQ(given[0], given[1]);
}

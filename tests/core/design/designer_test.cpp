// Designers keep what an edit leaves alone, stop when asked, and say why there is no answer.
#include "design/designer.h"

#include <gtest/gtest.h>

#include "design/design.h"
#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;
using Answer = design::Designer::Answer;

namespace {

std::vector<Answer> ask(design::Designer& designer, const model::Project& p, const model::Id& id,
                        std::stop_token stop = {}) {
    std::vector<Answer> given;
    designer.design({std::make_shared<const model::Project>(p), id}, stop, {},
                    [&](Answer a) { given.push_back(std::move(a)); });
    return given;
}

}  // namespace

TEST(Designer, IsMadeForTheKindOfElement) {
    auto p = test::regularFloor(2, 2, 5000, 5000);
    p = model::addSlab(p, "Ramp");
    const model::Id slab = p.slabs[0]->id, floor = p.floors[0]->id;
    EXPECT_TRUE(dynamic_cast<design::SlabDesigner*>(design::makeDesigner(p, slab).get()));
    EXPECT_TRUE(dynamic_cast<design::FloorDesigner*>(design::makeDesigner(p, floor).get()));
    EXPECT_FALSE(design::makeDesigner(p, "nobody"));
    EXPECT_FALSE(design::designNow(p, "nobody"));
    const auto answer = design::designNow(p, slab);
    ASSERT_TRUE(answer);
    EXPECT_EQ(answer->element, slab);
    EXPECT_EQ(answer->name, "Ramp");
    EXPECT_TRUE(answer->complete);
}

TEST(Designer, OfASlabAnswersAnewOnlyWhereSomethingChanged) {
    design::SlabDesigner designer;
    auto p = formats::demoProject();
    const auto first = ask(designer, p, "s1").at(0);
    p.name = "renamed", p.sheet.note = "another note";
    p = model::addSlab(p, "Second");
    EXPECT_EQ(ask(designer, p, "s1").at(0), first) << "neither names nor other elements matter";
    auto thicker = model::editSlab(p, "s1", [](auto& s, auto&) { s.thickness += 10; });
    const auto second = ask(designer, thicker, "s1").at(0);
    EXPECT_NE(second, first);
    EXPECT_NE(ask(designer, p, "s1").at(0), second);
    p.basis.concreteStrength = 25;
    const auto weaker = ask(designer, p, "s1").at(0);
    EXPECT_NE(weaker, first);
    EXPECT_EQ(weaker->basis->concreteStrength, 25);
    p.basis.standard = "none";
    EXPECT_TRUE(ask(designer, p, "s1").empty());
}

// First with strips and checks, then with the proof; an edit of bars leaves the analysis as it is.
TEST(Designer, OfAFloorAnswersInStagesAndKeepsTheAnalysis) {
    design::FloorDesigner designer;
    auto p = test::regularFloor(3, 3, 5000, 5000);  // the FE field asks for no more bars than the strips
    const model::Id id = p.floors[0]->id;
    const auto given = ask(designer, p, id);
    ASSERT_EQ(given.size(), 2u);
    EXPECT_FALSE(given[0]->complete);
    EXPECT_TRUE(given[1]->complete);
    const auto& first = dynamic_cast<const design::FloorDesign&>(*given[0]);
    const auto& whole = dynamic_cast<const design::FloorDesign&>(*given[1]);
    EXPECT_FALSE(first.proof);
    EXPECT_TRUE(whole.proof);
    ASSERT_EQ(first.strips.size(), whole.strips.size());
    for (std::size_t i = 0; i < first.strips.size(); ++i) {  // but for their sag, which comes with the proof
        EXPECT_EQ(first.strips[i]->forces, whole.strips[i]->forces) << "shared, not copied";
        EXPECT_EQ(first.strips[i]->runs, whole.strips[i]->runs);
        EXPECT_TRUE(first.strips[i]->sag.empty());
        EXPECT_FALSE(whole.strips[i]->sag.empty());
    }
    EXPECT_EQ(first.connections, whole.connections);
    EXPECT_EQ(first.parts.size(),
              first.strips.size() + first.connections.size() + 1 + first.floor->openings.size())
        << "and the bars of edges and openings";
    const auto again = ask(designer, p, id);
    ASSERT_EQ(again.size(), 1u) << "nothing changed: the answer there is";
    EXPECT_EQ(again[0], given[1]);
    // One run of one strip is fixed.
    const auto& strip = *first.strips[0];
    auto run = strip.runs.front();
    run.id = "b900", run.spacing = 100;
    p = model::editBars(p, id, [&](auto& bars, auto&) { bars.push_back(run); });
    const auto edited = ask(designer, p, id);
    ASSERT_EQ(edited.size(), 2u);
    const auto& after = dynamic_cast<const design::FloorDesign&>(*edited[0]);
    EXPECT_EQ(after.analysis, first.analysis);
    std::size_t same = 0;
    for (std::size_t i = 0; i < after.strips.size(); ++i) same += after.strips[i] == first.strips[i];
    EXPECT_GE(same, after.strips.size() / 2);
    EXPECT_NE(after.strips[0], first.strips[0]);
}

TEST(Designer, StopsAndAnswersNothing) {
    std::stop_source stop;
    stop.request_stop();
    design::SlabDesigner slab;
    EXPECT_TRUE(ask(slab, formats::demoProject(), "s1", stop.get_token()).empty());
    design::FloorDesigner floor;
    const auto p = test::regularFloor(3, 3, 6000, 6000);
    EXPECT_TRUE(ask(floor, p, p.floors[0]->id, stop.get_token()).empty());
    EXPECT_FALSE(design::designNow(p, p.floors[0]->id, stop.get_token()));
    // And works as ever afterwards.
    EXPECT_EQ(ask(floor, p, p.floors[0]->id).size(), 2u);
}

TEST(Designer, GoesNoFurtherThanWhatIsEnough) {
    const auto p = test::regularFloor(3, 3, 6000, 6000);
    const auto first = design::designNow(p, p.floors[0]->id, {}, [](const auto&) { return true; });
    ASSERT_TRUE(first);
    EXPECT_FALSE(first->complete);
    EXPECT_TRUE(design::designNow(p, p.floors[0]->id)->complete);
}

TEST(Designer, SaysWhyAFloorHasNoAnswer) {
    auto p = test::regularFloor(2, 2, 5000, 5000);
    p = model::editFloor(p, model::Id(p.floors[0]->id), [](auto& f, auto&) { f.columns.clear(); });
    const auto answer = design::designNow(p, p.floors[0]->id);
    ASSERT_TRUE(answer);
    EXPECT_FALSE(answer->error.empty());
    EXPECT_TRUE(answer->parts.empty());
    EXPECT_EQ(answer->summary.within, 0);
    EXPECT_TRUE(answer->facts({}, units::System::Metric).empty());
    const auto design = design::run(p);
    ASSERT_EQ(design.elements.size(), 1u);
    EXPECT_EQ(design.elements[0]->error, answer->error);
}

TEST(Answer, IsLookedThroughByPartAndKey) {
    const auto p = test::regularFloor(3, 2, 6000, 5000);
    const auto answer = design::designNow(p, p.floors[0]->id);
    std::size_t own = answer->checks.size();
    for (const auto& part : answer->parts) {
        own += part->checks.size();
        EXPECT_EQ(answer->find(part->part), part.get());
        double worst = 0;
        for (const auto& c : part->checks)
            if (checks::isJudged(c)) worst = std::max(worst, checks::ratio(c));
        EXPECT_EQ(part->worst(), worst);
    }
    const auto all = answer->all();
    EXPECT_EQ(all.size(), own);
    checks::Summary sum;
    for (const auto* c : all) {
        sum.over += c->outcome == checks::Outcome::Over;
        sum.within += c->outcome == checks::Outcome::Within;
        EXPECT_EQ(answer->check(c->key), c);
    }
    EXPECT_EQ(sum.over, answer->summary.over);
    EXPECT_EQ(sum.within, answer->summary.within);
    EXPECT_EQ(answer->check("nothing"), nullptr);
    EXPECT_EQ(answer->find(model::PartRef{"f9"}), nullptr);
    const auto& check = answer->parts[0]->checks[0];
    EXPECT_FALSE(design::withWorking(*answer, check).steps.empty());
    EXPECT_GT(answer->steel, 0);
}

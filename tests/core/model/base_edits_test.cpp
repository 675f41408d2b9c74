// Columns joined on one base and parted again.
#include "model/base_edits.h"

#include <gtest/gtest.h>

#include "design/bases.h"

using namespace talvik;

namespace {

model::Project three() {
    auto p = model::emptyProject();
    auto set = std::make_shared<model::BaseSet>();
    set->id = model::newId(p, 'f'), set->name = "Bases";
    set->cases = {{model::newId(p, 'q'), "G", {actions::Nature::Permanent, ""}}};
    for (int i = 0; i < 3; ++i) {
        model::BaseColumn c;
        c.id = model::newId(p, 'c'), c.name = "C" + std::to_string(i), c.x = 1800.0 * i;
        c.actions = {{set->cases[0].id, 600e3 + 100e3 * i}};
        model::Base b;
        b.id = model::newId(p, 'b'), b.columns = {c.id};
        set->columns.push_back(c), set->bases.push_back(b);
    }
    p.bases.push_back(set);
    return p;
}

}  // namespace

TEST(BaseEdits, JoinedAndPartedAgain) {
    auto p = three();
    p = model::editBases(p, p.bases[0]->id,
                         [](model::BaseSet& s, model::Project&) { s.bases[0].h = 700, s.bases[0].B = 1500; });
    const auto& before = *p.bases[0];
    const auto joined = model::joinBases(p, before.id, {before.bases[0].id, before.bases[1].id});
    ASSERT_TRUE(model::validate(joined).empty());
    ASSERT_EQ(joined.bases[0]->bases.size(), 2u);
    const auto& b = joined.bases[0]->bases[0];
    EXPECT_EQ(b.columns.size(), 2u);
    EXPECT_EQ(b.h, 700);
    EXPECT_EQ(b.B, 0) << "the plan was for one column";
    EXPECT_EQ(model::baseName(*joined.bases[0], b), "C0 + C1");
    const auto standard = standards::makeStandard("en1992");
    const auto answer = design::designBases(joined.bases[0], joined.basis, standard);
    const auto& size = answer->bases[0]->size();
    EXPECT_GT(size.B, size.L) << "longer along the row of columns";
    EXPECT_TRUE(answer->bases[0]->trouble().empty());
    const auto parted = model::partBases(joined, before.id, {b.id});
    ASSERT_TRUE(model::validate(parted).empty());
    ASSERT_EQ(parted.bases[0]->bases.size(), 3u);
    for (const auto& own : parted.bases[0]->bases) EXPECT_EQ(own.columns.size(), 1u);
    EXPECT_TRUE(model::joinBases(p, before.id, {before.bases[0].id}) == p) << "one alone stays as it is";
}

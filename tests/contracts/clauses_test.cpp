// Every check cites a clause of the standard in hand, or says what else it goes by.
#include <gtest/gtest.h>

#include "design/design.h"
#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

// Codes of other families, which a check of this one must not go by.
std::vector<std::string> others(const std::string& standard) {
    if (standard == "en1992") return {"ACI ", "IS ", "CSA "};
    return {"EN ", "BS ", "IS ", "CSA "};
}
void expectOwn(const design::ElementAnswer& e, const std::string& standard) {
    int seen = 0;
    for (const auto* c : e.all()) {
        if (!checks::isJudged(*c)) continue;
        ++seen;
        EXPECT_FALSE(c->clause.empty()) << standard << " " << c->key;
        for (const auto& other : others(standard))
            EXPECT_FALSE(c->clause.starts_with(other)) << standard << " " << c->key << ": " << c->clause;
    }
    EXPECT_GT(seen, 10) << standard << " " << e.name;
}

}  // namespace

TEST(Clauses, AreThoseOfTheStandardInHand) {
    for (const auto& standard : standards::standardIds()) {
        for (auto p : {formats::demoProject(), formats::demoFloorProject(), test::regularFloor(3, 3, 6000, 6000, 240),
                       test::regularFloor(3, 3, 6000, 6000, 180, 200, 500)}) {
            p.basis.standard = standard;
            p.basis.parameters.clear();
            const auto d = design::run(p, {.trace = false});
            for (const auto& e : d.elements)
                if (e->error.empty()) expectOwn(*e, standard);
        }
    }
}

TEST(Clauses, OfBasesToo) {
    for (const auto& standard : standards::standardIds())
        for (auto kind : {model::BaseSet::Kind::Pads, model::BaseSet::Kind::Caps}) {
            auto p = model::emptyProject();
            p.basis.standard = standard;
            auto set = std::make_shared<model::BaseSet>();
            set->id = "f1", set->name = "Bases", set->kind = kind;
            set->cases = {{"q1", "G", {actions::Nature::Permanent, ""}}, {"q2", "Q", {actions::Nature::Imposed, "B"}}};
            set->columns = {{"c1", "A1", 0, 0, 400, 400, {{"q1", 900e3, 0, 0, 0, 20e6}, {"q2", 400e3}}}};
            set->ground.depth = 1500;
            model::Base b;
            b.id = "b1", b.columns = {"c1"};
            set->bases = {b};
            p.bases.push_back(set);
            for (const auto& e : design::run(p, {.trace = false}).elements)
                if (e->error.empty()) expectOwn(*e, standard);
        }
}

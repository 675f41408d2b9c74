// What new work begins with, by standard: usual there, round in its units, and never failing by itself.
#include <gtest/gtest.h>

#include <cmath>

#include "catalogs/catalogs.h"
#include "design/bases.h"
#include "design/design.h"
#include "design/slab_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "standards/rules.h"

using namespace talvik;

namespace {

// A multiple of a step, within rounding.
bool round(double value, double step) {
    return std::abs(value / step - std::round(value / step)) < 1e-4;
}

}  // namespace

TEST(StartingValues, AreUsualAndRoundInTheUnitsOfTheStandard) {
    for (const auto& id : standards::standardIds()) {
        const auto p = model::freshProject(id);
        EXPECT_TRUE(p.slabs.empty() && p.floors.empty() && p.bases.empty())
            << "nothing that was not asked for";
        const auto& b = p.basis;
        EXPECT_EQ(b.standard, id);
        const bool us = id == "aci318-us";
        EXPECT_EQ(b.units == units::System::UsCustomary, us) << id;
        const auto* bars = catalogs::barCatalog(b.barCatalog);
        ASSERT_TRUE(bars) << id;
        for (const auto* names : {&b.mainBars, &b.secondaryBars, &b.linkBars})
            for (const auto& n : *names) EXPECT_TRUE(bars->find(n)) << id << " " << n;
        const auto& v = catalogs::startingValues(id);
        EXPECT_EQ(v.standard, id) << "each standard has its own";
        const double length = us ? 25.4 / 4 : 5;
        for (double x : {b.coverTop,    b.coverBottom, b.coverSide, b.coverFoundation, b.spacingLeast,
                         b.spacingMost, b.spacingStep, v.thickness, v.floorSlab,       v.zone,
                         v.column,      v.wall,        v.beamWidth, v.beamDepth,       v.planStep,
                         v.depthStep,   v.leastDepth,  v.footprint, v.support,         v.pile})
            EXPECT_TRUE(round(x, length)) << id << " " << x;
        for (double x : v.spans) EXPECT_TRUE(round(x, us ? 304.8 : 100)) << id << " " << x;
        for (double x : {v.imposed, v.areaLoad, v.allowable})
            EXPECT_TRUE(round(x, us ? 10 * 4.788026e-5 : 1e-4)) << id << " " << x;
        bool concrete = false, steel = false;
        for (const auto& c : catalogs::concreteClasses())
            concrete |= c.id == b.concrete && c.strength == b.concreteStrength;
        for (const auto& g : catalogs::steelGrades()) steel |= g.id == b.steel && g.yield == b.steelYield;
        EXPECT_TRUE(concrete && steel) << id;
    }
    // What the window and the command line begin with has not changed where nothing was asked for.
    auto plain = model::emptyProject();
    plain.basis.shearSteel = model::ConnectionChoice::Steel::Studs;
    EXPECT_EQ(formats::projectText(model::freshProject()), formats::projectText(plain));
}

TEST(StartingValues, ANewElementFailsNothing) {
    for (const auto& id : standards::standardIds()) {
        auto p = model::addSlab(model::freshProject(id), "Slab 1");
        for (auto kind : {model::BaseSet::Kind::Pads, model::BaseSet::Kind::Caps}) {
            auto set = model::newBaseSet(p, "Bases", kind);
            set->id = model::newId(p, 'f');
            const std::string tag = kind == model::BaseSet::Kind::Pads ? "p" : "k";
            set->cases = {{tag + "g", "G", {actions::Nature::Permanent, ""}},
                          {tag + "q", "Q", {actions::Nature::Imposed, "B"}}};
            for (int k = 0; k < 3; ++k) {
                model::BaseColumn c;
                c.id = tag + "c" + std::to_string(k), c.name = c.id, c.x = 9000 * k;
                c.width = c.depth = catalogs::startingValues(id).column;
                c.actions = {{tag + "g", 500e3 + 200e3 * k}, {tag + "q", 250e3}};
                set->columns.push_back(c);
                model::Base base;
                base.id = tag + "b" + std::to_string(k), base.columns = {c.id};
                set->bases.push_back(base);
            }
            p.bases.push_back(set);
        }
        ASSERT_TRUE(model::validate(p).empty()) << id << formats::sentences(model::validate(p));
        const auto d = design::run(p, {.trace = false});
        for (const auto& e : d.elements) {
            EXPECT_EQ(e->error, "");
            for (const auto* c : e->all())
                EXPECT_NE(c->outcome, checks::Outcome::Over) << id << " " << e->name << ": " << c->title;
        }
        // Sizes of bases come out in steps of the units.
        const double step = catalogs::startingValues(id).planStep;
        for (const auto& e : d.elements)
            if (const auto* bases = dynamic_cast<const design::BasesAnswer*>(e.get()))
                for (const auto& b : bases->bases) {
                    EXPECT_TRUE(round(b->size().B, step)) << id << " " << b->size().B;
                    EXPECT_TRUE(round(b->size().h, step)) << id << " " << b->size().h;
                }
    }
}

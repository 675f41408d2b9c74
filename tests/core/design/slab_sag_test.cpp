// Deflection where the standard's table of thicknesses spares it, and limits that the basis sets.
#include "design/slab_sag.h"

#include <gtest/gtest.h>

#include "design/design.h"
#include "model/edits.h"

using namespace talvik;
using checks::Outcome;
using checks::Topic;

namespace {

std::shared_ptr<const design::ElementAnswer> answer(const char* standard, double thickness, double limit) {
    auto p = model::setSpans(model::newProject(), "s1", {4000}, false, false);
    p.basis.standard = standard, p.basis.sagLimit = limit;
    p = model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project&) { s.thickness = thickness; });
    return design::designNow(p, "s1");
}

}  // namespace

// ACI 318-19 7.3.2.1: l/20 of 4 m is 200 mm. As thick as that, no computed deflection fails; thinner, it may.
TEST(SlabSag, AciSparesSlabsAsThickAsTheTable) {
    const auto thick = answer("aci318-si", 200, 250);
    for (const auto* c : thick->all())
        if (c->topic == Topic::Sag) {
            EXPECT_NE(c->outcome, Outcome::Over) << c->title;
        }
    const auto thin = answer("aci318-si", 120, 250);
    bool over = false;
    for (const auto* c : thin->all()) over |= c->topic == Topic::Sag && c->outcome == Outcome::Over;
    EXPECT_TRUE(over);
}

// What the basis says of deflections is used: half the limit at twice the number.
TEST(SlabSag, LimitsOfTheBasisHold) {
    auto limit = [](double number) {
        const auto a = answer("en1992", 200, number);
        for (const auto* c : a->all())
            if (c->key.ends_with("/sag-total")) return c->limit;
        return 0.0;
    };
    EXPECT_NEAR(limit(250), 4000 / 250.0, 1e-6);
    EXPECT_NEAR(limit(500), 4000 / 500.0, 1e-6);
}

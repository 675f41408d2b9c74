// Remedies of failing connections on random small floors: each, applied and designed from nothing, passes all
// it touches and leaves nothing else over that was not.
#include <gtest/gtest.h>

#include <random>
#include <set>

#include "design/floor_design.h"
#include "design/remedies.h"
#include "model/edits.h"
#include "support/cases.h"
#include "support/floor_price.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

model::Project randomFailing(unsigned seed) {
    std::mt19937 random(seed);
    auto u = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    const int nx = 2 + int(u(0, 1.6)), ny = 2 + int(u(0, 1.3));
    auto p =
        test::regularFloor(nx, ny, u(4200, 5400), u(4200, 5400), std::round(u(20, 25)) * 10, u(150, 900));
    p.basis.standard = seed % 3 ? "en1992" : "aci318-si";
    const double q = u(4e-3, 9e-3), size = std::round(u(5, 9)) * 50;
    return model::editFloor(p, "f1", [&](model::Floor& f, model::Project&) {
        f.actions.loads[1].value = q;
        f.actions.arrangement = model::Arrangement::All;
        f.choices.meshSize = 900;
        for (auto& c : f.columns) {
            c.circular = u(0, 1) < 0.3;
            c.width = c.depth = size;
        }
        if (u(0, 1) < 0.4) f.openings.push_back({"o1", "O1", test::rectangle(900, 300, 1500, 800)});
    });
}
std::set<std::string> over(const design::FloorDesign& d) {
    std::set<std::string> keys;
    for (const auto* c : d.all())
        if (c->outcome == checks::Outcome::Over) keys.insert(c->key);
    return keys;
}

}  // namespace

class ConnectionRemedies : public ::testing::TestWithParam<unsigned> {};

TEST_P(ConnectionRemedies, AreTrue) {
    const int wanted = test::share(75);
    int connections = 0, offered = 0, helped = 0;
    std::set<std::string> kinds;
    for (unsigned seed = 1 + GetParam() * 1000; connections < wanted && seed < GetParam() * 1000 + 400;
         ++seed) {
        const auto p = randomFailing(seed);
        const auto before = design::designFloor(p, 0);
        if (!before) continue;
        const auto was = over(*before);
        for (const auto& c : before->connections) {
            if (c->worst() <= 1 || connections >= wanted) continue;
            ++connections;
            std::size_t told = 0;
            const auto all = design::remedies(p, c->part, {}, [&](const auto&) { ++told; }).found;
            EXPECT_EQ(told, all.size());
            helped += !all.empty();
            for (const auto& r : all) {
                const std::string where = std::to_string(seed) + " " + c->name + ": " + r.text;
                const auto after = design::designFloor(r.project, 0);
                ASSERT_TRUE(after) << where;
                const auto* own = after->connection(c->site->key);
                ASSERT_TRUE(own) << where;
                EXPECT_LE(own->worst(), 1 + 1e-9) << where;
                EXPECT_NEAR(own->worst(), r.worst, 1e-9) << where;
                const auto now = over(*after);
                for (const auto& key : now) EXPECT_TRUE(was.contains(key)) << where << " leaves " << key;
                EXPECT_EQ(now.size(), r.left.size()) << where << ": what stays over is counted";
                EXPECT_NEAR(r.price, test::dearer(p, *before, r.project, *after).price, 1e-6) << where;
                kinds.insert(r.text.substr(0, r.text.find(' ')));
                ++offered;
            }
        }
    }
    EXPECT_EQ(connections, wanted);
    EXPECT_GT(helped, wanted * 2 / 3) << "mostly something helps";
    EXPECT_GT(offered, wanted * 8 / 5);
    EXPECT_GE(kinds.size(), std::size_t(std::min(5, wanted / 4)));
}

// Four shares, so that they run beside each other.
INSTANTIATE_TEST_SUITE_P(Shares, ConnectionRemedies, ::testing::Range(0u, 4u));

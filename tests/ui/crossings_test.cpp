// Lines of equal value: joined, smooth and where the value is.
#include "board/crossings.h"

#include <gtest/gtest.h>

#include <cmath>

namespace talvik::app {
namespace {

// The line of one value of a field over a square grid of triangles.
template <class Field>
std::vector<QPolygonF> line(int n, double level, Field field) {
    Crossings all;
    auto at = [&](int k) { return QPointF(k % (n + 1), k / (n + 1)); };
    auto value = [&](int k) { return field(at(k)); };
    for (int y = 0; y < n; ++y)
        for (int x = 0; x < n; ++x) {
            const int a = y * (n + 1) + x, b = a + 1, c = a + n + 1, d = c + 1;
            for (const auto& tri : {std::array{a, b, d}, std::array{a, d, c}}) {
                std::vector<Crossings::End> ends;
                for (std::size_t i = 0; i < 3; ++i) {
                    const int p = tri[i], q = tri[(i + 1) % 3];
                    if ((value(p) < level) == (value(q) < level)) continue;
                    const double k = (level - value(p)) / (value(q) - value(p));
                    ends.push_back({std::minmax(p, q), at(p) + k * (at(q) - at(p))});
                }
                if (ends.size() == 2) all.add(ends[0], ends[1]);
            }
        }
    return all.chains();
}
double sharpest(const QPolygonF& chain) {
    double most = 0;
    for (qsizetype i = 1; i + 1 < chain.size(); ++i) {
        const QPointF a = chain[i] - chain[i - 1], b = chain[i + 1] - chain[i];
        most = std::max(most, std::abs(std::atan2(a.x() * b.y() - a.y() * b.x(), QPointF::dotProduct(a, b))));
    }
    return most;
}

TEST(Crossings, ACircleIsOneClosedSmoothChainOfItsRadius) {
    const int n = 24;
    auto field = [&](QPointF p) { return std::hypot(p.x() - 12.3, p.y() - 11.8); };
    const auto chains = line(n, 8, field);
    ASSERT_EQ(chains.size(), 1u);
    EXPECT_EQ(chains[0].front(), chains[0].back());
    for (const auto& p : chains[0]) EXPECT_NEAR(field(p), 8, 0.12);
    EXPECT_LT(sharpest(chains[0]), 0.35);
}

TEST(Crossings, StraightLinesStayStraightAndReachTheEdges) {
    const auto chains = line(10, 4.3, [](QPointF p) { return 0.7 * p.x() + 0.3 * p.y(); });
    ASSERT_EQ(chains.size(), 1u);
    for (const auto& p : chains[0]) EXPECT_NEAR(0.7 * p.x() + 0.3 * p.y(), 4.3, 1e-9);
    const double ends[] = {chains[0].front().y(), chains[0].back().y()};
    EXPECT_NEAR(std::min(ends[0], ends[1]), 0, 1e-9);
    EXPECT_NEAR(std::max(ends[0], ends[1]), 10, 1e-9);
}

TEST(Crossings, TwoHillsHaveTwoChains) {
    const auto chains = line(30, 2, [](QPointF p) {
        return std::min(std::hypot(p.x() - 8, p.y() - 8.2), std::hypot(p.x() - 22, p.y() - 21.7));
    });
    EXPECT_EQ(chains.size(), 2u);
}

}  // namespace
}  // namespace talvik::app

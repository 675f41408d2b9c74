#include "layout/grid.h"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <numbers>

namespace talvik::layout {
namespace {

Point direction(double degrees) {
    // Right angles come out exact, so that drawn coordinates stay round.
    double quarter = degrees / 90;
    if (quarter == std::round(quarter)) {
        int k = (static_cast<int>(quarter) % 4 + 4) % 4;
        return std::array{Point{1, 0}, Point{0, 1}, Point{-1, 0}, Point{0, -1}}[std::size_t(k)];
    }
    double t = degrees * std::numbers::pi / 180;
    return {std::cos(t), std::sin(t)};
}
Point at(const model::Grid& g, double u, double v) {
    Point e = direction(g.angle), n = direction(g.angle + g.between);
    return {g.origin.x + u * e.x + v * n.x, g.origin.y + u * e.y + v * n.y};
}
std::string letters(std::size_t index) {
    static constexpr std::string_view alphabet = "ABCDEFGHJKLMNPQRSTUVWXYZ";
    std::string text(1, alphabet[index % alphabet.size()]);
    return index < alphabet.size() ? text : letters(index / alphabet.size() - 1) + text;
}

}  // namespace

std::vector<double> positions(const std::vector<double>& spacings) {
    std::vector<double> all{0};
    for (double d : spacings) all.push_back(all.back() + d);
    return all;
}

std::string label(const model::Grid& grid, bool along, std::size_t index) {
    const auto& own = along ? grid.alongLabels : grid.acrossLabels;
    if (index < own.size() && !own[index].empty()) return own[index];
    return along ? std::to_string(index + 1) : letters(index);
}

Point crossing(const model::Grid& grid, std::size_t along, std::size_t across) {
    return at(grid, positions(grid.along)[along], positions(grid.across)[across]);
}
std::string crossingName(const model::Grid& grid, std::size_t along, std::size_t across) {
    return label(grid, false, across) + label(grid, true, along);
}

std::vector<GridLine> gridLines(const model::Grid& grid, double beyond) {
    auto us = positions(grid.along), vs = positions(grid.across);
    std::vector<GridLine> all;
    for (std::size_t i = 0; i < us.size(); ++i)
        all.push_back(
            {label(grid, true, i), true, i, {at(grid, us[i], -beyond), at(grid, us[i], vs.back() + beyond)}});
    for (std::size_t j = 0; j < vs.size(); ++j)
        all.push_back({label(grid, false, j),
                       false,
                       j,
                       {at(grid, -beyond, vs[j]), at(grid, us.back() + beyond, vs[j])}});
    return all;
}

std::vector<Crossing> crossings(const model::Floor& floor) {
    std::vector<Crossing> all;
    for (const auto& g : floor.grids) {
        auto us = positions(g.along), vs = positions(g.across);
        for (std::size_t j = 0; j < vs.size(); ++j)
            for (std::size_t i = 0; i < us.size(); ++i)
                all.push_back({at(g, us[i], vs[j]), crossingName(g, i, j)});
    }
    return all;
}

std::optional<std::string> crossingAt(const model::Floor& floor, Point p, double tolerance) {
    for (const auto& c : crossings(floor))
        if (geometry::length(c.at, p) <= tolerance) return c.name;
    return {};
}

std::string reference(const model::Floor& floor, Point p) {
    const model::Grid* grid = floor.grids.empty() ? nullptr : &floor.grids.front();
    std::string best;
    double least = 1e300;
    for (const auto& g : floor.grids) {
        auto us = positions(g.along), vs = positions(g.across);
        for (std::size_t j = 0; j < vs.size(); ++j)
            for (std::size_t i = 0; i < us.size(); ++i)
                if (double d = geometry::length(at(g, us[i], vs[j]), p); d < least)
                    least = d, best = label(g, false, j) + "/" + label(g, true, i);
    }
    if (!grid || least > 20000) return fmt::format("({:.2f}, {:.2f}) m", p.x / 1000, p.y / 1000);
    return least < 50 ? best : "near " + best;
}

}  // namespace talvik::layout

#include "board/crossings.h"

#include <algorithm>

namespace talvik::app {
namespace {

QPolygonF smooth(QPolygonF chain) {
    const qsizetype n = chain.size();
    const bool closed = n > 3 && chain.front() == chain.back();
    for (int pass = 0; pass < 2 && n > 2; ++pass) {
        const QPolygonF before = chain;
        for (qsizetype i = closed ? 0 : 1; i + 1 < n; ++i)
            chain[i] = (before[i == 0 ? n - 2 : i - 1] + 2 * before[i] + before[i + 1]) / 4;
        if (closed) chain[n - 1] = chain[0];
    }
    return chain;
}

}  // namespace

void Crossings::add(const End& a, const End& b) {
    const std::size_t i = point(a), j = point(b);
    next_[i].push_back(j), next_[j].push_back(i);
}

std::vector<QPolygonF> Crossings::chains() const {
    std::vector<QPolygonF> all;
    std::vector<char> seen(at_.size(), 0);
    auto walk = [&](std::size_t start) {
        QPolygonF chain;
        std::size_t i = start;
        for (bool on = true; on;) {
            seen[i] = 1, chain << at_[i], on = false;
            for (std::size_t n : next_[i])
                if (!seen[n]) {
                    i = n, on = true;
                    break;
                }
        }
        const auto& ends = next_[i];
        if (chain.size() > 2 && std::find(ends.begin(), ends.end(), start) != ends.end())
            chain << chain.front();
        all.push_back(smooth(chain));
    };
    for (std::size_t i = 0; i < at_.size(); ++i)  // open ones from their ends, then what closes
        if (!seen[i] && next_[i].size() == 1) walk(i);
    for (std::size_t i = 0; i < at_.size(); ++i)
        if (!seen[i]) walk(i);
    return all;
}

std::size_t Crossings::point(const End& e) {
    const auto [found, fresh] = known_.try_emplace(e.edge, at_.size());
    if (fresh) at_.push_back(e.at), next_.emplace_back();
    return found->second;
}

}  // namespace talvik::app

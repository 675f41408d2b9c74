#include "schedule/stock.h"

#include <glpk.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <numeric>

namespace talvik::schedule {
namespace {

constexpr std::size_t mostKinds = 150;  // of lengths, for the relaxation

// Pieces in whole units, equal ones together, longest first.
struct Kind {
    int size = 0, left = 0;
    std::vector<std::pair<int, int>> marks;  // mark and how many are left of it
};
struct Whole {
    std::vector<Kind> kinds;
    int stock = 0;
    double unit = 1;
};

Whole inUnits(const std::vector<Piece>& pieces, double stock, std::vector<Piece>& tooLong) {
    std::map<int, Kind, std::greater<>> kinds;  // by length, whole mm rounded up
    const int whole = int(std::floor(stock + 1e-6));
    int unit = whole;
    for (const Piece& p : pieces) {
        const int size = std::max(1, int(std::ceil(p.length - 1e-6)));
        if (p.number <= 0) continue;
        if (size > whole) {
            tooLong.push_back(p);
            continue;
        }
        Kind& k = kinds[size];
        k.size = size, k.left += p.number;
        k.marks.emplace_back(p.mark, p.number);
        unit = std::gcd(unit, size);
    }
    Whole all{{}, whole / unit, double(unit)};
    for (auto& [size, k] : kinds) {
        k.size /= unit;
        all.kinds.push_back(std::move(k));
    }
    return all;
}

// Numbers of each kind in a bar, the longest kind left among them, that leave least of it.
std::vector<int> fullest(const Whole& w, const std::vector<int>& left) {
    std::vector<int> taken(w.kinds.size(), 0);
    std::size_t lead = 0;
    while (left[lead] == 0) ++lead;
    taken[lead] = 1;
    const int room = w.stock - w.kinds[lead].size;
    // reached[c]: the kind last added to reach c, and how many of it; longer kinds first, so that what is
    // hard to place later goes first.
    struct Step {
        int kind = -1, number = 0;
    };
    std::vector<Step> reached(std::size_t(room) + 1);
    std::vector<bool> can(std::size_t(room) + 1, false);
    can[0] = true;
    int best = 0;
    for (std::size_t k = lead; k < w.kinds.size() && best < room; ++k) {
        const int size = w.kinds[k].size, most = left[k] - (k == lead ? 1 : 0);
        if (most <= 0) continue;
        std::vector<int> used(std::size_t(room) + 1, 0);  // of this kind to reach c
        for (int c = size; c <= room; ++c) {
            if (can[std::size_t(c)] || !can[std::size_t(c - size)] || used[std::size_t(c - size)] >= most)
                continue;
            used[std::size_t(c)] = used[std::size_t(c - size)] + 1;
            can[std::size_t(c)] = true;
            reached[std::size_t(c)] = {int(k), used[std::size_t(c)]};
            best = std::max(best, c);
        }
    }
    for (int c = best; c > 0;) {
        const Step s = reached[std::size_t(c)];
        taken[std::size_t(s.kind)] += s.number;
        c -= s.number * w.kinds[std::size_t(s.kind)].size;
    }
    return taken;
}

using Pattern = std::pair<std::vector<int>, int>;  // of each kind in a bar, and so many bars

std::vector<Pattern> fillBars(const Whole& w) {
    std::vector<Pattern> all;
    std::vector<int> left;
    int pieces = 0;
    for (const Kind& k : w.kinds) left.push_back(k.left), pieces += k.left;
    while (pieces > 0) {
        const auto taken = fullest(w, left);
        int times = pieces;
        for (std::size_t k = 0; k < taken.size(); ++k)
            if (taken[k] > 0) times = std::min(times, left[k] / taken[k]);
        for (std::size_t k = 0; k < taken.size(); ++k)
            left[k] -= times * taken[k], pieces -= times * taken[k];
        all.emplace_back(taken, times);
    }
    return all;
}

std::vector<Pattern> firstFitBars(const Whole& w) {
    struct Bar {
        int room;
        std::vector<int> taken;
        int times;
    };
    std::vector<Bar> bars;  // equal ones together, in the order they were begun
    for (std::size_t k = 0; k < w.kinds.size(); ++k) {
        int left = w.kinds[k].left;
        const int size = w.kinds[k].size;
        for (std::size_t b = 0; b < bars.size() && left > 0; ++b) {
            const int fit = bars[b].room / size;
            if (fit == 0) continue;
            // So many bars take all they can; the next takes what is left over.
            const int whole = std::min(bars[b].times, left / fit), rest = left - whole * fit;
            const bool partly = whole < bars[b].times && rest > 0;
            std::vector<Bar> parts;
            auto part = [&](int times, int more) {
                if (times == 0) return;
                Bar p = bars[b];
                p.times = times, p.taken[k] += more, p.room -= more * size;
                parts.push_back(std::move(p));
            };
            part(whole, fit);
            part(partly ? 1 : 0, rest);
            part(bars[b].times - whole - (partly ? 1 : 0), 0);
            left -= whole * fit + (partly ? rest : 0);
            const std::size_t n = parts.size();
            bars.erase(bars.begin() + std::ptrdiff_t(b));
            bars.insert(bars.begin() + std::ptrdiff_t(b), parts.begin(), parts.end());
            b += n - 1;
        }
        const int fit = w.stock / size;
        for (int times : {left / fit, left % fit > 0 ? 1 : 0}) {
            if (times == 0) continue;
            const int each = left >= fit ? fit : left;
            Bar p{w.stock - each * size, std::vector<int>(w.kinds.size(), 0), times};
            p.taken[k] = each;
            left -= each * times;
            bars.push_back(std::move(p));
        }
    }
    std::vector<Pattern> all;
    for (auto& b : bars) all.emplace_back(std::move(b.taken), b.times);
    return all;
}

int count(const std::vector<Pattern>& all) {
    int n = 0;
    for (const auto& [taken, times] : all) n += times;
    return n;
}

// Linear relaxation: how often each pattern is cut, in parts of bars, so that all pieces come out of the
// fewest. New patterns are those of most worth at the prices of the pieces, until none is worth more than a
// bar.
struct Relaxed {
    std::vector<std::pair<std::vector<int>, double>> patterns;
    double bars = 0;     // in parts
    bool whole = false;  // no pattern is left that would better it: a bound
};
Relaxed relaxed(const Whole& w) {
    const int n = int(w.kinds.size());
    Relaxed out;
    std::unique_ptr<glp_prob, void (*)(glp_prob*)> lp(glp_create_prob(), glp_delete_prob);
    glp_set_obj_dir(lp.get(), GLP_MIN);
    glp_add_rows(lp.get(), n);
    std::vector<std::vector<int>> patterns;
    auto add = [&](std::vector<int> taken) {
        const int column = glp_add_cols(lp.get(), 1);
        glp_set_col_bnds(lp.get(), column, GLP_LO, 0, 0);
        glp_set_obj_coef(lp.get(), column, 1);
        std::vector<int> rows(1, 0);
        std::vector<double> values(1, 0);
        for (int k = 0; k < n; ++k)
            if (taken[std::size_t(k)] > 0) rows.push_back(k + 1), values.push_back(taken[std::size_t(k)]);
        glp_set_mat_col(lp.get(), column, int(rows.size()) - 1, rows.data(), values.data());
        patterns.push_back(std::move(taken));
    };
    for (int k = 0; k < n; ++k) {
        const Kind& kind = w.kinds[std::size_t(k)];
        glp_set_row_bnds(lp.get(), k + 1, GLP_LO, kind.left, 0);
        std::vector<int> alone(std::size_t(n), 0);
        alone[std::size_t(k)] = std::min(kind.left, w.stock / kind.size);
        add(std::move(alone));
    }
    glp_smcp control;
    glp_init_smcp(&control);
    control.msg_lev = GLP_MSG_OFF;
    for (int round = 0; round < 40 * n + 100; ++round) {
        if (glp_simplex(lp.get(), &control) != 0 || glp_get_status(lp.get()) != GLP_OPT) return out;
        // The pattern of most worth: dynamic programming over lengths, no piece more often than it is wanted.
        std::vector<double> worth(std::size_t(w.stock) + 1, 0);
        std::vector<std::vector<int>> number(std::size_t(n), std::vector<int>(std::size_t(w.stock) + 1, 0));
        for (int k = 0; k < n; ++k) {
            const double price = glp_get_row_dual(lp.get(), k + 1);
            const int size = w.kinds[std::size_t(k)].size, most = w.kinds[std::size_t(k)].left;
            if (price <= 1e-9) continue;
            const auto before = worth;
            auto& own = number[std::size_t(k)];
            for (int c = size; c <= w.stock; ++c)
                for (int m = 1; m <= most && m * size <= c; ++m)
                    if (const double v = before[std::size_t(c - m * size)] + m * price;
                        v > worth[std::size_t(c)] + 1e-12)
                        worth[std::size_t(c)] = v, own[std::size_t(c)] = m;
        }
        if (worth.back() <= 1 + 1e-7) {
            out.whole = true;
            break;
        }
        std::vector<int> taken(std::size_t(n), 0);
        for (int k = n, c = w.stock; k-- > 0;) {
            taken[std::size_t(k)] = number[std::size_t(k)][std::size_t(c)];
            c -= taken[std::size_t(k)] * w.kinds[std::size_t(k)].size;
        }
        add(std::move(taken));
    }
    out.bars = glp_get_obj_val(lp.get());
    for (std::size_t p = 0; p < patterns.size(); ++p)
        if (const double x = glp_get_col_prim(lp.get(), int(p) + 1); x > 1e-9)
            out.patterns.emplace_back(std::move(patterns[p]), x);
    return out;
}
// Its whole bars, and what is left by filling.
std::vector<Pattern> roundedBars(const Whole& w, const Relaxed& r) {
    Whole rest = w;
    std::vector<Pattern> all;
    auto take = [&](const std::vector<int>& taken, int times) {
        for (std::size_t k = 0; k < taken.size(); ++k)
            if (taken[k] > 0) times = std::min(times, rest.kinds[k].left / taken[k]);
        if (times <= 0) return;
        for (std::size_t k = 0; k < taken.size(); ++k) rest.kinds[k].left -= times * taken[k];
        all.emplace_back(taken, times);
    };
    for (const auto& [taken, times] : r.patterns) take(taken, int(std::floor(times + 1e-7)));
    // Then the patterns of which most is left over, once each where they still fit.
    std::vector<std::size_t> order(r.patterns.size());
    std::iota(order.begin(), order.end(), 0u);
    auto part = [&](std::size_t p) { return r.patterns[p].second - std::floor(r.patterns[p].second + 1e-7); };
    std::stable_sort(order.begin(), order.end(), [&](auto a, auto b) { return part(a) > part(b) + 1e-9; });
    auto plain = all;
    const Whole left = rest;
    for (std::size_t p : order)
        if (part(p) > 0.5) take(r.patterns[p].first, 1);
    for (auto& more : fillBars(rest)) all.push_back(std::move(more));
    for (auto& more : fillBars(left)) plain.push_back(std::move(more));
    return count(plain) < count(all) ? plain : all;
}

// Martello and Toth: for every threshold t the pieces longer than stock - t need a bar each, those above a
// half too, and what of the others does not fit beside the latter needs more.
int bound(const Whole& w) {
    auto with = [&](int t) {
        long long big = 0, medium = 0, room = 0, small = 0;
        for (const Kind& k : w.kinds) {
            if (k.size > w.stock - t)
                big += k.left;
            else if (2 * k.size > w.stock)
                medium += k.left, room += (long long)(w.stock - k.size) * k.left;
            else if (k.size >= t)
                small += (long long)k.size * k.left;
        }
        const long long over = std::max(0LL, small - room);
        return int(big + medium + (over + w.stock - 1) / w.stock);
    };
    int most = with(0);
    for (const Kind& k : w.kinds)
        if (2 * k.size <= w.stock) most = std::max(most, with(k.size));
    return most;
}

}  // namespace

CuttingPlan cutFromStock(const std::vector<Piece>& pieces, double stock, Effort effort) {
    CuttingPlan plan;
    plan.stock = stock;
    Whole w = inUnits(pieces, stock, plan.tooLong);
    for (const Piece& p : pieces)
        if (p.number > 0 && std::ceil(p.length - 1e-6) <= stock + 1e-6) plan.used += p.length * p.number;
    auto patterns = fillBars(w);
    if (auto other = firstFitBars(w); count(other) < count(patterns)) patterns = std::move(other);
    plan.bound = bound(w);
    if (effort == Effort::Thorough && w.kinds.size() <= mostKinds && count(patterns) > plan.bound) {
        const auto r = relaxed(w);
        if (r.whole) plan.bound = std::max(plan.bound, int(std::ceil(r.bars - 1e-6)));
        if (!r.patterns.empty())
            if (auto other = roundedBars(w, r); count(other) < count(patterns)) patterns = std::move(other);
    }
    // Marks are handed out in the order in which they were given; bars alike are split where marks change.
    for (const auto& [taken, times] : patterns)
        for (int done = 0; done < times;) {
            Cut c;
            int filled = 0;
            int same = times - done;
            for (std::size_t k = 0; k < taken.size(); ++k) {
                Kind& kind = w.kinds[k];
                filled += taken[k] * kind.size;
                for (int open = taken[k]; open > 0;) {
                    auto& [mark, left] = kind.marks.front();
                    const int now = std::min(open, left);
                    // As often as this can be repeated before another mark begins.
                    same = std::min(same, now == taken[k] ? left / now : 1);
                    c.pieces.push_back({kind.size * w.unit, now, mark});
                    open -= now, left -= now;
                    if (left == 0) kind.marks.erase(kind.marks.begin());
                }
            }
            for (const Piece& p : c.pieces)
                for (Kind& kind : w.kinds)
                    if (kind.size * w.unit == p.length && same > 1)
                        kind.marks.front().second -= (same - 1) * p.number;
            for (Kind& kind : w.kinds)
                if (!kind.marks.empty() && kind.marks.front().second == 0)
                    kind.marks.erase(kind.marks.begin());
            c.bars = same, c.left = stock - filled * w.unit;
            done += same, plan.bars += same;
            plan.cuts.push_back(std::move(c));
        }
    return plan;
}

int firstFit(const std::vector<Piece>& pieces, double stock) {
    std::vector<Piece> tooLong;
    return count(firstFitBars(inUnits(pieces, stock, tooLong)));
}

std::vector<SizePlan> cuttingList(const Schedule& schedule, double stock) {
    std::vector<SizePlan> all;
    for (const auto& t : schedule.totals) {
        std::vector<Piece> pieces;
        double perMetre = 0;
        for (const auto& row : schedule.rows) {
            if (row.bar != t.bar || row.diameter != t.diameter || row.shape == "99") continue;
            pieces.push_back({row.cutLength, row.total(), row.mark});
            if (row.cutLength > 0) perMetre = row.massEach / row.cutLength * 1000;
        }
        if (!pieces.empty()) all.push_back({t.bar, t.diameter, perMetre, cutFromStock(pieces, stock)});
    }
    return all;
}

}  // namespace talvik::schedule

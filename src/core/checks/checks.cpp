#include "checks/checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <tuple>

namespace talvik::checks {

std::vector<std::string> said(const Finding& f) {
    auto all = f.here;
    all.insert(all.end(), f.notes.begin(), f.notes.end());
    return all;
}

double ratio(const Finding& f) {
    double over = f.sense == Sense::AtMost ? f.demand : f.limit;
    double under = f.sense == Sense::AtMost ? f.limit : f.demand;
    if (over <= 0) return 0;
    if (under <= over / 99) return 99;
    return over / under;
}

Finding judged(Finding f) {
    f.outcome = ratio(f) <= 1 + 1e-9 ? Outcome::Within : Outcome::Over;
    return f;
}

Finding notApplicable(std::string clause, std::string reason) {
    Finding f;
    f.clause = std::move(clause);
    f.outcome = Outcome::NotApplicable;
    f.reason = std::move(reason);
    return f;
}

Finding notChecked(std::string clause, std::string reason) {
    Finding f = notApplicable(std::move(clause), std::move(reason));
    f.outcome = Outcome::NotChecked;
    return f;
}

double worst(const std::vector<Check>& all) {
    double most = 0;
    for (const Check& c : all)
        if (isJudged(c)) most = std::max(most, ratio(c));
    return most;
}

Summary& Summary::operator+=(const Summary& more) {
    over += more.over, within += more.within;
    notChecked += more.notChecked, notApplicable += more.notApplicable;
    return *this;
}
Summary summary(const std::vector<Check>& all) {
    Summary s;
    for (const Check& c : all) {
        switch (c.outcome) {
            case Outcome::Over:
                ++s.over;
                break;
            case Outcome::Within:
                ++s.within;
                break;
            case Outcome::NotChecked:
                ++s.notChecked;
                break;
            case Outcome::NotApplicable:
                ++s.notApplicable;
                break;
        }
    }
    return s;
}

std::vector<const Check*> worstFirst(const std::vector<Check>& all) {
    std::vector<const Check*> order;
    for (const Check& c : all) order.push_back(&c);
    return worstFirst(std::move(order));
}

std::vector<const Check*> worstFirst(std::vector<const Check*> order) {
    auto rank = [](const Check& c) {
        switch (c.outcome) {
            case Outcome::Over:
                return 0;
            case Outcome::Within:
                return 1;
            case Outcome::NotChecked:
                return 2;
            case Outcome::NotApplicable:
                return 3;
        }
        return 4;
    };
    std::sort(order.begin(), order.end(), [&](const Check* a, const Check* b) {
        return std::tuple(rank(*a), -ratio(*a), a->key) < std::tuple(rank(*b), -ratio(*b), b->key);
    });
    return order;
}

std::string name(Outcome outcome) {
    switch (outcome) {
        case Outcome::Within:
            return "within";
        case Outcome::Over:
            return "over";
        case Outcome::NotApplicable:
            return "not applicable";
        case Outcome::NotChecked:
            return "not checked";
    }
    return {};
}

std::string ratioText(const Finding& f) {
    if (!isJudged(f)) return name(f.outcome);
    const double r = ratio(f);
    if (r >= 99) return ">99";
    int decimals = 2;
    // What is over is not shown as 1.00.
    while (f.outcome == Outcome::Over && decimals < 6 && fmt::format("{:.{}f}", r, decimals) == fmt::format("{:.{}f}", 1.0, decimals))
        ++decimals;
    return fmt::format("{:.{}f}", r, decimals);
}

std::string figures(const Finding& f, units::System system) {
    if (f.outcome == Outcome::NotApplicable || f.outcome == Outcome::NotChecked) return name(f.outcome);
    const std::string wanted = ratioText(f);
    // As many decimals as it takes that the two numbers as they are shown have the ratio that is shown.
    auto agree = [&](int more) {
        const auto& unit = units::unit(f.kind, system);
        const double scale = std::pow(10, unit.decimals + more);
        Finding shown = f;
        shown.demand = std::round(f.demand / unit.factor * scale), shown.limit = std::round(f.limit / unit.factor * scale);
        const double given = wanted == ">99" ? 99 : std::strtod(wanted.c_str(), nullptr);
        const auto decimals = wanted.size() - std::min(wanted.size(), wanted.find('.') + 1);
        const double near = wanted == ">99" ? 1 : 0.56 * std::pow(10, -double(std::max<std::size_t>(decimals, 2)));
        return std::abs(std::min(ratio(shown), 99.0) - given) <= near &&
               (ratio(shown) > 1 + 1e-9) == (f.outcome == Outcome::Over);
    };
    constexpr int most = 6;
    int more = 0;
    while (more < most && f.kind != units::Kind::Count && !agree(more)) ++more;
    if (more == most) more = 0;  // nought beside next to nothing
    const auto symbol = units::unit(f.kind, system).symbol;
    std::string s = f.prefix.empty() ? "" : f.prefix + " ";
    s += units::number(f.demand, f.kind, system, more) + (f.sense == Sense::AtMost ? " of " : ", min ") +
         units::number(f.limit, f.kind, system, more);
    if (!symbol.empty()) s += (symbol == "%" ? "" : " ") + std::string(symbol);
    return s;
}

}  // namespace talvik::checks

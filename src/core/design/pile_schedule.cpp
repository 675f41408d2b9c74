#include "design/pile_schedule.h"

namespace talvik::design {

PileReactions pileReactions(const BasesAnswer& answer, const BasePart& base) {
    const auto* design = std::get_if<bases::CapDesign>(&base.design);
    if (!design || design->piles.empty()) return {};
    const bases::Cap cap(*answer.context, answer.set->bases[base.number]);
    return {cap.reactionNames(), cap.reactions(*design)};
}

std::vector<ScheduledPile> pilesOf(const BasesAnswer& answer, const BasePart& base) {
    std::vector<ScheduledPile> all;
    const auto found = pileReactions(answer, base);
    for (std::size_t k = 0; k < base.piles().size(); ++k) {
        ScheduledPile p;
        p.base = &base, p.number = int(k) + 1;
        p.at = {base.centre.x + base.piles()[k].x, base.centre.y + base.piles()[k].y};
        for (std::size_t i = 0; i < found.forces.size(); ++i) {
            const double R = found.forces[i][k];
            if (i == 0 || R > p.largest) p.largest = R, p.largestIn = found.combinations[i];
            if (i == 0 || R < p.least) p.least = R, p.leastIn = found.combinations[i];
        }
        all.push_back(std::move(p));
    }
    return all;
}

std::vector<ScheduledPile> pileSchedule(const BasesAnswer& answer) {
    std::vector<ScheduledPile> all;
    for (const auto& b : answer.bases)
        for (auto& p : pilesOf(answer, *b)) all.push_back(std::move(p));
    return all;
}

double cutOff(const model::BaseSet& set) {
    return set.ground.depth - set.pile.embedment;
}

}  // namespace talvik::design

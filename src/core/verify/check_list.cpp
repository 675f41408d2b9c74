#include "verify/check_list.h"

namespace talvik::verify {

void CheckList::add(NamedFinding named, const checks::Place& place, std::string combination,
                    std::optional<model::Face> face) {
    const bool whole = place.spot.in == model::Spot::In::Whole;
    const std::string& id = whole ? whole_ : place.spot.id;
    checks::Check c;
    static_cast<checks::Finding&>(c) = std::move(named.finding);
    c.key = prefix_ + (id.empty() ? "" : id + "/") + named.name;
    c.what = std::move(named.title);
    c.title = c.what + (!named.of.empty() ? ", " + named.of : id.empty() ? "" : ", " + place.name);
    c.topic = named.topic;
    c.face = face;
    c.combination = std::move(combination);
    c.place = place;
    c.steps = trace::withoutRepeats(std::move(named.steps));
    all_.push_back(std::move(c));
}

}  // namespace talvik::verify

#include "design/quantities.h"

namespace talvik::design {

Quantities& Quantities::operator+=(const Quantities& other) {
    Amounts::operator+=(other);
    area += other.area, cost += other.cost, emissions += other.emissions;
    members += other.members;
    for (const auto& [size, mass] : other.bySize) bySize[size] += mass;
    return *this;
}

std::vector<Quantities> quantities(const model::Project& project, const Design& design) {
    std::vector<Quantities> all;
    for (const auto& e : design.elements) {
        if (!e->error.empty()) continue;
        Quantities q;
        static_cast<model::Amounts&>(q) = e->times(e->members);
        q.name = e->name, q.members = e->members, q.area = e->area * e->members;
        q.steel = q.pieces = 0;
        for (const auto& t : design.scheduleOf(*e).totals) {
            q.bySize[{t.diameter, t.bar}] += t.mass;
            q.steel += t.mass, q.pieces += t.number;
        }
        q.cost = q.price(project.basis.rates), q.emissions = q.carbon(project.basis.rates);
        all.push_back(std::move(q));
    }
    return all;
}

Quantities sum(const std::vector<Quantities>& all) {
    Quantities total;
    total.name = "All elements", total.members = 0;
    for (const auto& q : all) total += q;
    return total;
}

}  // namespace talvik::design

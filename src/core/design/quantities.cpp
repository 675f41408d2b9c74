#include "design/quantities.h"

namespace talvik::design {

Quantities& Quantities::operator+=(const Quantities& other) {
    concrete += other.concrete, formwork += other.formwork, blinding += other.blinding, area += other.area;
    steel += other.steel, price += other.price, carbon += other.carbon;
    members += other.members;
    for (const auto& [size, mass] : other.bySize) bySize[size] += mass;
    return *this;
}

std::vector<Quantities> quantities(const model::Project& project, const Design& design) {
    std::vector<Quantities> all;
    const auto& rates = project.basis.rates;
    for (const auto& e : design.elements) {
        if (!e->error.empty()) continue;
        Quantities q;
        q.name = e->name, q.members = e->members;
        q.concrete = e->concrete * e->members, q.formwork = e->formwork * e->members;
        q.blinding = e->blinding * e->members, q.area = e->area * e->members;
        for (const auto& t : design.scheduleOf(*e).totals) {
            q.bySize[{t.diameter, t.bar}] += t.mass;
            q.steel += t.mass;
        }
        for (const auto& [amount, rate] : {std::pair{q.concrete, &rates.concrete},
                                           {q.steel, &rates.steel},
                                           {q.formwork, &rates.formwork},
                                           {q.blinding, &rates.blinding}})
            q.price += amount * rate->price, q.carbon += amount * rate->carbon;
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

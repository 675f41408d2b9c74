#include "design/bases.h"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <map>
#include <set>
#include <tuple>
#include <unordered_map>

#include "checks/places.h"
#include "design/base_types.h"
#include "design/floor_design.h"
#include "design/floors.h"
#include "design/pile_schedule.h"
#include "fem/parallel/pool.h"
#include "verify/check_list.h"

namespace talvik::design {

using bases::Context;

namespace {

bool pads(const model::BaseSet& set) {
    return set.kind == model::BaseSet::Kind::Pads;
}

// Columns by id.
using ColumnIndex = std::unordered_map<std::string_view, const model::BaseColumn*>;
ColumnIndex indexOf(const model::BaseSet& set) {
    ColumnIndex all;
    for (const auto& c : set.columns) all.emplace(c.id, &c);
    return all;
}
bool sameRules(const model::BaseSet& a, const model::BaseSet& b) {
    return a.kind == b.kind && a.ground == b.ground && a.pile == b.pile && a.twoFormulas == b.twoFormulas &&
           a.approach == b.approach && a.planStep == b.planStep && a.depthStep == b.depthStep &&
           a.leastDepth == b.leastDepth && a.bars == b.bars && a.cases == b.cases && a.site == b.site &&
           a.starterBar == b.starterBar && a.sideBar == b.sideBar && a.sideSpacing == b.sideSpacing &&
           a.outline == b.outline && a.capSteel == b.capSteel && a.topBars == b.topBars &&
           a.linkBar == b.linkBar && a.linkSpacing == b.linkSpacing && a.leftOut == b.leftOut;
}

// The base of each column, and of each base those from which straps come; by their place in the set.
std::vector<std::vector<std::size_t>> strapsOn(const model::BaseSet& set) {
    std::vector<std::vector<std::size_t>> all(set.bases.size());
    if (std::none_of(set.bases.begin(), set.bases.end(), [](const model::Base& b) { return b.strap.any(); }))
        return all;
    std::unordered_map<std::string_view, std::size_t> below;
    for (std::size_t i = 0; i < set.bases.size(); ++i)
        for (const auto& id : set.bases[i].columns) below.emplace(id, i);
    for (std::size_t i = 0; i < set.bases.size(); ++i)
        if (const auto far = below.find(set.bases[i].strap.to); far != below.end())
            all[far->second].push_back(i);
    return all;
}

// A pad with what straps of other bases do to it. `sizeOf`: the size of the base at a place in the set; null
// where it is not known.
bases::Pad padOf(const Context& in, std::size_t number, const std::vector<std::vector<std::size_t>>& straps,
                 const std::function<const bases::PadSize*(std::size_t)>& sizeOf, const model::Base& base) {
    std::vector<bases::StrapEnd> ends;
    for (std::size_t k : straps[number])
        if (const auto* size = sizeOf(k))
            if (auto end = bases::Pad(in, in.set.bases[k]).strapEnd(*size)) ends.push_back(std::move(*end));
    return {in, base, std::move(ends)};
}

// What makes two bases the same to build, as text.
std::string shapeOf(const BasePart& p) {
    auto text = [](const bases::Mat& m) { return m.text() + (m.hooked ? " bent" : ""); };
    std::string all = fmt::format("{:012.3f} {:012.3f} {:012.3f} ", p.size().B, p.size().L, p.size().h);
    if (const auto n = p.size().outline.size()) all += fmt::format("{} sides ", n);
    for (auto q : p.piles()) all += fmt::format("{:.0f}:{:.0f};", q.x, q.y);
    for (const auto* mats : {&p.bottom(), &p.top()})
        for (const auto& m : *mats) all += "|" + text(m);
    if (const auto* pad = std::get_if<bases::PadDesign>(&p.design)) {
        if (const auto& s = pad->strap; s.any())
            all +=
                fmt::format("|strap {:.0f} {:.0f} {:.0f} {:.0f} {} {} {} {}", s.width, s.depth, s.line.length,
                            s.from, s.top.text(), s.bottom.text(), s.link ? s.link->name : "", s.spacing);
        if (p.shaped)
            all += fmt::format("|{} {:.0f} {:.0f}", p.shaped->stepped() ? "step" : "slope", p.shaped->edge(),
                               p.shaped->shoulder(0));
    }
    return all;
}

class Maker {
  public:
    using SizeOf = std::function<const bases::PadSize*(std::size_t)>;
    // `sizeOf`: of bases that are solved already.
    Maker(const std::shared_ptr<const model::BaseSet>& set, const model::Basis& basis,
          const std::shared_ptr<const standards::Standard>& standard, SizeOf sizeOf)
        : set_(set),
          context_(std::make_shared<Context>(*set, basis, standard)),
          in_(*context_),
          straps_(strapsOn(*set)),
          sizeOf_(std::move(sizeOf)) {}
    // Of an answer that is there.
    explicit Maker(const BasesAnswer& answer)
        : set_(answer.set),
          context_(answer.context),
          in_(*context_),
          straps_(strapsOn(*answer.set)),
          sizeOf_([&answer](std::size_t i) { return &answer.bases[i]->size(); }) {}

    // Bases from which straps come to that one.
    const std::vector<std::size_t>& strapsTo(std::size_t number) const { return straps_[number]; }
    bases::Pad padAt(std::size_t number, const model::Base& base) const {
        return padOf(in_, number, straps_, sizeOf_, base);
    }

    const std::shared_ptr<const Context>& context() const { return context_; }

    std::shared_ptr<BasePart> solve(std::size_t number, const model::Base& base) const {
        auto part = std::make_shared<BasePart>();
        part->number = number;
        if (pads(*set_)) {
            part->design = padAt(number, base).solve();
        } else {
            const bases::Cap cap(in_, base);
            part->design = cap.solve();
        }
        complete(*part, base);
        return part;
    }
    // Checks, bars and what it takes, of a design that is there.
    void complete(BasePart& part, const model::Base& base) const {
        part.part = {set_->id, model::PartKind::Base, base.id};
        part.name = (pads(*set_) ? "Base " : "Cap ") + model::baseName(*set_, base);
        model::Amounts built;
        if (const auto* own = std::get_if<bases::PadDesign>(&part.design)) {
            const bases::Pad maker = padAt(part.number, base);
            part.checks = maker.checks(*own, part.part, false);
            part.items = maker.items(*own);
            part.centre = maker.centre(own->size), built = maker.amounts(*own);
            part.pressure = maker.shown(*own);
        } else {
            const auto& cap = std::get<bases::CapDesign>(part.design);
            const bases::Cap maker(in_, base);
            part.checks = maker.checks(cap, part.part, false);
            part.items = maker.items(cap);
            part.centre = maker.centre(cap.size), built = maker.amounts(cap);
        }
        if (!part.trouble().empty()) {
            // Said with the worst check; where none of them fails, the search for a design is a check itself.
            checks::Check* worst = nullptr;
            for (auto& c : part.checks)
                if (c.outcome == checks::Outcome::Over &&
                    (!worst || checks::ratio(c) > checks::ratio(*worst)))
                    worst = &c;
            if (!worst) {
                verify::CheckList list(part.part.key + "/");
                checks::Finding f = bases::finding(units::Kind::Count, 1, 0, "the search for a design");
                checks::Place at;
                at.spot.part = part.part, at.name = model::baseName(*set_, base), at.at = part.centre;
                list.add({"design", "Design", checks::Topic::Flexure, checks::judged(f), {}}, at, {});
                part.checks.push_back(list.take().front());
                worst = &part.checks.back();
            }
            worst->here.push_back(part.trouble());
        }
        const auto& s = part.size();
        const auto* pad = std::get_if<bases::PadDesign>(&part.design);
        if (pad) {
            const auto top = padAt(part.number, base).top(s);
            part.shaped = top.level() ? std::nullopt : std::optional(top);
            part.strap.reset();
            if (const auto& t = pad->strap; t.any()) {
                if (const auto* near = in_.column(base.columns.front())) {
                    const bool x = t.line.axis == 0;
                    const double along = x ? near->x : near->y, across = x ? near->y : near->x,
                                 a = along + t.line.way * t.from, b = along + t.line.way * t.to;
                    const double plan[4] = {std::min(a, b), std::max(a, b), across - t.width / 2,
                                            across + t.width / 2};
                    part.strap = {plan[x ? 0 : 2], plan[x ? 1 : 3], plan[x ? 2 : 0], plan[x ? 3 : 1]};
                }
            }
        }
        part.shape = shapeOf(part);
        static_cast<model::Amounts&>(part) = built;
        part.steel = part.pieces = 0;
        for (const auto& i : part.items) part.steel += i.number * i.massEach, part.pieces += i.number;
        part.cost = part.price(in_.basis->rates), part.emissions = part.carbon(in_.basis->rates);
    }

    // One design that serves all of these bases, each with its pins: sizes of the largest, bars of the most.
    // False where there is none.
    bool together(const std::vector<std::shared_ptr<BasePart>>& parts) const {
        if (parts.size() < 2 || !pads(*set_)) return parts.size() < 2;
        bases::PadSize size;
        for (const auto& p : parts) {
            if (!p->trouble().empty()) return false;
            size.B = std::max(size.B, p->size().B), size.L = std::max(size.L, p->size().L);
            size.h = std::max(size.h, p->size().h), size.strap = std::max(size.strap, p->size().strap);
        }
        for (int round = 0; round < 10; ++round) {
            std::array<bases::Mat, 2> bottom, top;
            std::vector<bases::PadDesign> designs;
            for (const auto& p : parts) {
                const bases::Pad pad = padAt(p->number, set_->bases[p->number]);
                auto s = size;
                s.off = p->size().off;
                designs.push_back(pad.ofSize(pad.sited(s)));
                for (int a : {0, 1}) {
                    auto larger = [](bases::Mat& most, const bases::Mat& own) {
                        const bool hooked = most.hooked || own.hooked;
                        if (own.area() > most.area()) most = own;
                        most.hooked = hooked;
                    };
                    larger(bottom[std::size_t(a)], designs.back().bottom[std::size_t(a)]);
                    larger(top[std::size_t(a)], designs.back().top[std::size_t(a)]);
                }
            }
            bool groundOver = false, baseOver = false;
            for (std::size_t i = 0; i < parts.size(); ++i) {
                const bases::Pad pad = padAt(parts[i]->number, set_->bases[parts[i]->number]);
                auto& d = designs[i];
                d.bottom = bottom, d.top = top, d.trouble.clear();
                if (!bottom[0].bar || !bottom[1].bar) {
                    baseOver = true;
                    continue;
                }
                d.d[0] = size.h - in_.cover - bottom[0].bar->diameter / 2;
                d.d[1] = size.h - in_.cover - bottom[0].bar->diameter - bottom[1].bar->diameter / 2;
                for (const auto& c : pad.checks(d, {}, false))
                    if (c.outcome == checks::Outcome::Over)
                        (c.topic == checks::Topic::Ground ? groundOver : baseOver) = true;
            }
            if (!groundOver && !baseOver) {
                for (std::size_t i = 0; i < parts.size(); ++i) {
                    parts[i]->design = designs[i];
                    complete(*parts[i], set_->bases[parts[i]->number]);
                }
                return true;
            }
            if (groundOver) size.B += set_->planStep, size.L += set_->planStep;
            if (baseOver) size.h += set_->depthStep;
        }
        return false;
    }

  private:
    const std::shared_ptr<const model::BaseSet> set_;
    const std::shared_ptr<const Context> context_;
    const Context& in_;
    const std::vector<std::vector<std::size_t>> straps_;
    const SizeOf sizeOf_;
};

// A base that is as it was, or one solved anew.
struct Slot {
    std::shared_ptr<const BasePart> kept;
    std::shared_ptr<BasePart> made;
    const BasePart& get() const { return made ? *made : *kept; }
    void name(const std::string& type) {
        if (get().type == type) return;
        if (!made) made = std::make_shared<BasePart>(*kept);
        made->type = type;
    }
};

// Groups by hand first, then at the most so many types by cost; the rest as they are.
void findTypes(const Maker& maker, BasesAnswer& answer, std::vector<Slot>& slots,
               const std::stop_token& stop) {
    std::vector<std::shared_ptr<BasePart>> parts;  // those that are new
    for (auto& s : slots)
        if (s.made) parts.push_back(s.made);
    const auto& set = *answer.set;
    std::map<std::string, std::vector<std::shared_ptr<BasePart>>> byHand;
    std::vector<std::shared_ptr<BasePart>> free;
    // What a strap does hangs on the size of its pad: such bases stay as they are solved, types of their own.
    auto strapped = [&](std::size_t i) { return set.bases[i].strap.any(); };
    std::set<std::string_view> apartByStrap;
    for (const auto& s : slots)
        if (strapped(s.get().number) && set.bases[s.get().number].type.empty())
            apartByStrap.insert(s.get().shape);
    if (!apartByStrap.empty() && set.mostTypes > 0)
        answer.assumptions.push_back(
            fmt::format("Bases with straps keep individual designs: {} of the types {} theirs.",
                        apartByStrap.size(), apartByStrap.size() > 1 ? "are" : "is"));
    for (auto& p : parts) {
        const auto& type = set.bases[p->number].type;
        if (strapped(p->number)) {
            if (!type.empty())
                answer.assumptions.push_back(fmt::format(
                    "{} has a strap: it keeps its individual design, whatever its type.", p->name));
        } else if (!type.empty())
            byHand[type].push_back(p);
        else if (p->trouble().empty())
            free.push_back(p);
    }
    int apart = 0;
    for (auto& [name, group] : byHand) apart += !maker.together(group);
    // Different shapes, by cost: bases near to each other in cost are near in size.
    std::unordered_map<std::string_view, std::vector<const BasePart*>> shapes;
    for (const auto& s : slots)
        if (set.bases[s.get().number].type.empty() && s.get().trouble().empty() && !strapped(s.get().number))
            shapes[s.get().shape].push_back(&s.get());
    if (shapes.size() > 1 && pads(set)) {
        std::vector<std::vector<const BasePart*>*> rows;
        for (auto& [shape, all] : shapes) rows.push_back(&all);
        std::sort(rows.begin(), rows.end(), [](const auto* a, const auto* b) {
            const BasePart &p = *a->front(), &q = *b->front();
            return std::tuple(p.size().area(), p.size().h, p.steel, std::string_view(p.shape)) <
                   std::tuple(q.size().area(), q.size().h, q.steel, std::string_view(q.shape));
        });
        // A type costs each of its bases what the largest size and the most steel of them cost.
        struct Sum {
            double B = 0, L = 0, h = 0, steel = 0, pieces = 0;
            std::size_t n = 0;
        };
        auto add = [&](Sum& sum, std::size_t row) {
            const auto& p = *rows[row]->front();
            sum.B = std::max(sum.B, p.size().B), sum.L = std::max(sum.L, p.size().L);
            sum.h = std::max(sum.h, p.size().h);
            sum.steel = std::max(sum.steel, p.steel / std::max(1e-9, p.size().area()));
            sum.pieces = std::max(sum.pieces, p.pieces);
            sum.n += rows[row]->size();
        };
        auto price = [&](const Sum& t) {
            bases::PadSize size;
            size.B = t.B, size.L = t.L, size.h = t.h;
            auto all = bases::amountsOf(set, size, size.area() * t.h, size.perimeter() * t.h);
            all.steel = t.steel * size.area(), all.pieces = t.pieces;
            return double(t.n) * all.price(answer.basis->rates);
        };
        // The whole curve whatever is asked for; then what is. Of few all groupings there are, else those in
        // stretches by size.
        const std::size_t shown = std::min<std::size_t>(12, rows.size()),
                          asked = set.mostTypes > 0
                                      ? std::size_t(std::max(1, set.mostTypes - int(apartByStrap.size())))
                                      : 0,
                          most = std::max(shown, std::min(asked, rows.size()));
        std::vector<std::vector<std::size_t>> types;
        if (rows.size() <= mostSets) {
            auto of = [&](unsigned chosen) {
                Sum sum;
                for (std::size_t i = 0; i < rows.size(); ++i)
                    if (chosen >> i & 1) add(sum, i);
                return price(sum);
            };
            const auto whole = groupSets(rows.size(), most, of);
            answer.costs = whole.costs, answer.costsExact = true;
            if (asked > 0)
                for (unsigned type : groupSets(rows.size(), asked, of).types) {
                    auto& one = types.emplace_back();
                    for (std::size_t i = 0; i < rows.size(); ++i)
                        if (type >> i & 1) one.push_back(i);
                }
        } else if (rows.size() <= 600) {
            Sum sum;
            std::size_t from = 0, upTo = 0;  // of the stretch asked last, which grows by one row at a time
            auto of = [&](std::size_t first, std::size_t last) {
                const bool on = sum.n > 0 && first == from && last == upTo + 1;
                if (!on) sum = {}, from = first;
                for (std::size_t i = on ? last : first; i <= last; ++i) add(sum, i);
                upTo = last;
                return price(sum);
            };
            answer.costs = group(rows.size(), most, of).costs;
            if (asked > 0) {
                const auto begins = group(rows.size(), asked, of).begins;
                for (std::size_t k = 0; k < begins.size(); ++k) {
                    auto& one = types.emplace_back();
                    for (std::size_t i = begins[k]; i < (k + 1 < begins.size() ? begins[k + 1] : rows.size());
                         ++i)
                        one.push_back(i);
                }
            }
        }
        if (asked < rows.size())
            for (const auto& type : types) {
                if (stop.stop_requested()) break;
                std::vector<std::shared_ptr<BasePart>> all;
                std::set<std::size_t> numbers;
                for (std::size_t i : type)
                    for (const auto* p : *rows[i]) numbers.insert(p->number);
                for (const auto& p : free)
                    if (numbers.contains(p->number)) all.push_back(p);
                apart += !maker.together(all);
            }
    }
    if (apart > 0)
        answer.assumptions.push_back(
            fmt::format("{} type{} could not be standardised: their bases keep individual designs.", apart,
                        apart > 1 ? "s" : ""));
    // Names: those given by hand, else F1, F2, ... from the largest.
    std::unordered_map<std::string_view, std::vector<Slot*>> alike;
    std::map<std::string, int> own;  // bases with straps, of a type by hand
    for (auto& p : slots) {
        const auto& type = set.bases[p.get().number].type;
        if (type.empty()) alike[p.get().shape].push_back(&p);
        if (!type.empty() && strapped(p.get().number)) {
            p.name(type);
            if (!byHand.contains(type)) byHand[type];
            ++own[type];
        }
    }
    std::vector<std::vector<Slot*>*> order;
    for (auto& [shape, all] : alike) order.push_back(&all);
    std::sort(order.begin(), order.end(), [](const auto* a, const auto* b) {
        const BasePart &p = a->front()->get(), &q = b->front()->get();
        return std::tuple(-p.concrete, std::string_view(p.shape)) <
               std::tuple(-q.concrete, std::string_view(q.shape));
    });
    for (auto& [name, group] : byHand) {
        for (auto& p : group) p->type = name;
        answer.types.push_back({name, int(group.size()) + own[name]});
    }
    int n = 0;
    for (const auto* all : order) {
        std::string name;
        do name = fmt::format("{}{}", pads(set) ? 'F' : 'P', ++n);
        while (byHand.contains(name));
        for (auto* p : *all) p->name(name);
        answer.types.push_back({name, int(all->size())});
    }
}

// Bases that lie on each other, found by a sweep along x: told as a check of both, and taken back where they
// no longer do.
void findOverlaps(const BasesAnswer& answer, std::vector<Slot>& slots) {
    struct Side {
        double from, to;
        std::size_t slot;
    };
    std::vector<Side> sides;
    for (std::size_t i = 0; i < slots.size(); ++i) {
        const auto& p = slots[i].get();
        sides.push_back({p.centre.x - p.size().B / 2, p.centre.x + p.size().B / 2, i});
    }
    std::stable_sort(sides.begin(), sides.end(),
                     [](const Side& a, const Side& b) { return a.from < b.from; });
    std::vector<std::vector<std::size_t>> on(slots.size());
    constexpr double touch = 1;  // mm
    std::vector<Side> open;
    for (const Side& s : sides) {
        std::erase_if(open, [&](const Side& o) { return o.to < s.from + touch; });
        const auto& p = slots[s.slot].get();
        for (const Side& o : open) {
            const auto& q = slots[o.slot].get();
            if (std::abs(p.centre.y - q.centre.y) >= (p.size().L + q.size().L) / 2 - touch) continue;
            // Columns all at one place have no places yet: their bases are only sized.
            if (std::hypot(p.centre.x - q.centre.x, p.centre.y - q.centre.y) < touch) continue;
            if (!p.size().outline.empty() || !q.size().outline.empty())
                if (geometry::shared(p.outline(), q.outline()).area < 100) continue;
            on[s.slot].push_back(q.number), on[o.slot].push_back(p.number);
        }
        open.push_back(s);
    }
    for (std::size_t i = 0; i < slots.size(); ++i) {
        std::sort(on[i].begin(), on[i].end());
        if (slots[i].get().overlaps.empty() && on[i].empty()) continue;
        if (!slots[i].made) slots[i].made = std::make_shared<BasePart>(*slots[i].kept);
        auto& p = *slots[i].made;
        p.overlaps = on[i];
        const std::string key = p.part.key + "/clear";
        std::erase_if(p.checks, [&](const checks::Check& c) { return c.key == key; });
        if (on[i].empty()) continue;
        const auto& q = slots[on[i].front()].get();
        checks::Check c;
        c.key = key, c.what = c.title = "Overlap with other bases", c.topic = checks::Topic::Ground;
        c.kind = units::Kind::Length, c.clause = "geometry";
        const double x = (p.size().B + q.size().B) / 2 - std::abs(p.centre.x - q.centre.x),
                     y = (p.size().L + q.size().L) / 2 - std::abs(p.centre.y - q.centre.y);
        c.demand = std::max(1.0, std::min(x, y)), c.limit = 0;
        std::string names;
        for (std::size_t k = 0; k < on[i].size() && k < 4; ++k)
            names += (k ? ", " : "") + model::baseName(*answer.set, answer.set->bases[on[i][k]]);
        c.here.push_back(
            fmt::format("Overlaps {}: combine the columns on one base, or fix sizes and positions.", names));
        static_cast<checks::Finding&>(c) = checks::judged(c);
        c.place = {{p.part, model::Spot::In::Whole, {}},
                   model::baseName(*answer.set, answer.set->bases[p.number]),
                   0,
                   0,
                   0};
        c.place.at = p.centre;
        p.checks.push_back(std::move(c));
    }
}

// Where something that is not checked stands in a set, "2 bases: A1, A2."; empty for everywhere, "none" where
// there is none of it.
std::string whereOmitted(const model::BaseSet& set, const std::string& key) {
    const bool caps = set.kind == model::BaseSet::Kind::Caps;
    auto bases = [&](auto has) {
        std::vector<std::string> names;
        for (const auto& b : set.bases)
            if (has(b)) names.push_back(model::baseName(set, b));
        return names.empty() ? std::string("none") : checks::places(names, "base", "bases");
    };
    auto acts = [&](const model::Base& b, auto measure) {
        return std::any_of(b.columns.begin(), b.columns.end(), [&](const auto& id) {
            const auto* c = model::findColumn(set, id);
            return c && std::any_of(c->actions.begin(), c->actions.end(), measure);
        });
    };
    if (key == "base-settlement") return caps || !set.ground.layers.empty() ? "none" : "";
    if (key == "base-tilt") return caps || set.ground.layers.empty() ? "none" : "";
    if (key == "base-pedestal") return bases([](const auto& b) { return b.pedestal.any() || b.strap.any(); });
    if (key == "cap-horizontal")
        return caps ? bases([&](const auto& b) {
            return acts(b, [](const auto& a) { return a.Hx != 0 || a.Hy != 0; });
        })
                    : "none";
    if (key == "base-accidental")
        return std::any_of(set.cases.begin(), set.cases.end(),
                           [](const auto& c) { return c.kind.nature == actions::Nature::Accidental; })
                   ? ""
                   : "none";
    return "";
}

}  // namespace

const bases::PadSize& BasePart::size() const {
    return std::visit([](const auto& d) -> const bases::PadSize& { return d.size; }, design);
}
const std::array<bases::Mat, 2>& BasePart::bottom() const {
    return std::visit([](const auto& d) -> const std::array<bases::Mat, 2>& { return d.bottom; }, design);
}
const std::array<bases::Mat, 2>& BasePart::top() const {
    return std::visit([](const auto& d) -> const std::array<bases::Mat, 2>& { return d.top; }, design);
}
const std::string& BasePart::trouble() const {
    return std::visit([](const auto& d) -> const std::string& { return d.trouble; }, design);
}
geometry::Ring BasePart::outline() const {
    auto ring = size().ring();
    for (auto& p : ring) p.x += centre.x, p.y += centre.y;
    return ring;
}
const std::vector<geometry::Point>& BasePart::piles() const {
    static const std::vector<geometry::Point> none;
    const auto* cap = std::get_if<bases::CapDesign>(&design);
    return cap ? cap->piles : none;
}
const checks::Check* BasePart::governing() const {
    const checks::Check* worst = nullptr;
    for (const auto& c : checks)
        if (checks::isJudged(c) &&
            (!worst || (c.outcome == checks::Outcome::Over) > (worst->outcome == checks::Outcome::Over) ||
             ((c.outcome == checks::Outcome::Over) == (worst->outcome == checks::Outcome::Over) &&
              checks::ratio(c) > checks::ratio(*worst))))
            worst = &c;
    return worst;
}
std::string BasePart::detail(units::System system) const {
    auto length = [&](double v) { return units::text(v, units::Kind::Length, system); };
    return fmt::format(
        "type {} · {} × {} × {}{}", type, length(size().B), length(size().L), length(size().h),
        piles().empty() ? "" : fmt::format(" · {} pile{}", piles().size(), piles().size() > 1 ? "s" : ""));
}

std::vector<checks::Check> BasesAnswer::withWorking(const PartAnswer& part) const {
    const auto* base = dynamic_cast<const BasePart*>(&part);
    if (!base) return part.checks;
    const Context& in = *context;
    const auto& row = set->bases[base->number];
    auto all =
        std::holds_alternative<bases::PadDesign>(base->design)
            ? padOf(
                  in, base->number, strapsOn(*set), [&](std::size_t i) { return &bases[i]->size(); }, row)
                  .checks(std::get<bases::PadDesign>(base->design), part.part, true)
            : bases::Cap(in, row).checks(std::get<bases::CapDesign>(base->design), part.part, true);
    for (std::size_t i = 0; i < all.size() && i < part.checks.size(); ++i)
        all[i].outcome = part.checks[i].outcome, all[i].here = part.checks[i].here;
    // What only the whole set knows.
    for (std::size_t i = all.size(); i < part.checks.size(); ++i) all.push_back(part.checks[i]);
    return all;
}

std::vector<Fact> BasesAnswer::facts(const std::optional<model::Spot>& spot, units::System system) const {
    using enum Fact::Kind;
    std::vector<Fact> all;
    auto text = [&](double v, units::Kind kind) { return units::text(v, kind, system); };
    if (!spot) {
        all.push_back({Heading, "Types", "number of bases"});
        for (std::size_t i = 0; i < types.size() && i < 20; ++i)
            all.push_back({Pair, types[i].first, fmt::format("{}", types[i].second)});
        if (types.size() > 20) all.push_back({Note, fmt::format("and {} more types", types.size() - 20)});
        if (!changed.empty()) {
            all.push_back({Heading, "Loads from floors", "accepted, now"});
            for (std::size_t i = 0; i < changed.size() && i < 12; ++i) {
                const auto* c = model::findColumn(*set, changed[i].column);
                all.push_back({Pair,
                               fmt::format("{}, {}", c ? c->name : changed[i].column, changed[i].loadCase),
                               text(changed[i].before, units::Kind::Force) + " → " +
                                   text(changed[i].now, units::Kind::Force)});
            }
            if (changed.size() > 12)
                all.push_back({Note, fmt::format("and {} more loads", changed.size() - 12)});
            all.push_back({Note,
                           "Designed for the accepted floor loads, which have changed since. Accept the "
                           "current ones under Actions (3)."});
        }
        return all;
    }
    const auto* part = dynamic_cast<const BasePart*>(find(spot->part));
    if (!part) return all;
    const auto& s = part->size();
    if (!part->trouble().empty()) all.push_back({Note, part->trouble()});
    all.push_back({Heading, pads(*set) ? "Base" : "Cap", "type " + part->type});
    all.push_back(
        {Pair, "Along x, along y", text(s.B, units::Kind::Length) + " × " + text(s.L, units::Kind::Length)});
    all.push_back({Pair, "Depth", text(s.h, units::Kind::Length)});
    if (!part->piles().empty()) all.push_back({Pair, "Piles", fmt::format("{}", part->piles().size())});
    if (const auto piles = pilesOf(*this, *part); !piles.empty()) {
        all.push_back({Heading, "Pile reactions, largest and least",
                       set->pile.ultimate ? "ultimate, with weight" : "characteristic, with weight"});
        for (const auto& p : piles)
            all.push_back({Pair, fmt::format("Pile {}", p.number),
                           text(p.largest, units::Kind::Force) + " · " + text(p.least, units::Kind::Force)});
    }
    for (int axis : {0, 1}) {
        const auto& m = part->bottom()[std::size_t(axis)];
        all.push_back(
            {Pair, axis == 0 ? "Bars along x" : "Bars along y", m.text() + (m.hooked ? ", bent up" : "")});
    }
    if (const auto* pad = std::get_if<bases::PadDesign>(&part->design); pad && pad->strap.any()) {
        const auto& t = pad->strap;
        const auto* far = model::findColumn(*set, set->bases[part->number].strap.to);
        all.push_back({Heading, "Strap", far ? "to " + far->name : std::string()});
        all.push_back({Pair, "Width, depth",
                       text(t.width, units::Kind::Length) + " × " + text(t.depth, units::Kind::Length)});
        all.push_back({Pair, "Top, bottom", t.top.text() + ", " + t.bottom.text()});
        if (t.link)
            all.push_back({Pair, "Links",
                           fmt::format("{}-{}{}", t.link->name, units::plain(t.spacing),
                                       t.legs > 2 ? fmt::format(", {} legs", t.legs) : "")});
    }
    const auto straps = strapsOn(*set);
    for (std::size_t k : straps[part->number])
        all.push_back(
            {Note, fmt::format("A strap from {} lifts this base.", model::baseName(*set, set->bases[k]))});
    for (const auto& c : changed) {
        const auto& columns = set->bases[part->number].columns;
        if (std::find(columns.begin(), columns.end(), c.column) == columns.end()) continue;
        all.push_back(
            {Note, fmt::format("{} from floors: {} when accepted, {} now.", c.loadCase,
                               text(c.before, units::Kind::Force), text(c.now, units::Kind::Force))});
    }
    if (part->pressure) {
        const auto* p = part->pressure->corners;
        all.push_back({Heading, "Pressure at the corners", part->pressure->combination});
        all.push_back(
            {Pair, "upper", text(p[3], units::Kind::AreaLoad) + " · " + text(p[2], units::Kind::AreaLoad)});
        all.push_back(
            {Pair, "lower", text(p[0], units::Kind::AreaLoad) + " · " + text(p[1], units::Kind::AreaLoad)});
    }
    all.push_back({Heading, "Quantities"});
    all.push_back(
        {Pair, "Concrete, steel",
         text(part->concrete * 1e9, units::Kind::Volume) + ", " + text(part->steel, units::Kind::Mass)});
    all.push_back({Pair, "Cost", fmt::format("{} {:.0f}", basis->rates.currency, part->cost)});
    return all;
}

std::shared_ptr<const BasesAnswer> designBases(const std::shared_ptr<const model::BaseSet>& set,
                                               const model::Basis& basis,
                                               const std::shared_ptr<const standards::Standard>& standard,
                                               const BasesAnswer* last, std::stop_token stop,
                                               const std::function<void(double)>& progress) {
    auto answer = std::make_shared<BasesAnswer>();
    answer->element = set->id, answer->name = set->name, answer->set = set, answer->standard = standard;
    std::vector<Slot> slots(set->bases.size());
    const Maker maker(set, basis, standard, [&](std::size_t i) {
        return slots[i].made || slots[i].kept ? &slots[i].get().size() : nullptr;
    });
    answer->context = maker.context();
    answer->basis = maker.context()->basis;
    if (set->bases.empty()) {
        answer->error = "There are no bases yet: columns with their loads come from a table.";
        answer->summarise();
        return answer;
    }
    if (maker.context()->choices.empty()) {
        answer->error = "None of the permitted bar sizes fits its spacing.";
        answer->summarise();
        return answer;
    }
    const bool same =
        last && sameRules(*last->set, *set) && last->standard == standard && *last->basis == *answer->basis;
    // Types join bases: what was joined may have another size alone.
    const bool keeps = same && set->mostTypes == 0 && last->set->mostTypes == 0;
    const auto columns = keeps ? indexOf(*set) : ColumnIndex();
    // Mostly columns stand in the order they had.
    const auto& now = set->columns;
    const bool inOrder = keeps && now.size() == last->set->columns.size() &&
                         std::equal(now.begin(), now.end(), last->set->columns.begin(),
                                    [](const auto& a, const auto& b) { return a.id == b.id; });
    const auto before = keeps && !inOrder ? indexOf(*last->set) : ColumnIndex();
    auto sameColumn = [&](const model::Id& id) {
        const auto q = columns.find(id);
        if (q == columns.end()) return false;
        if (inOrder) return last->set->columns[std::size_t(q->second - now.data())] == *q->second;
        const auto p = before.find(id);
        return p != before.end() && *p->second == *q->second;
    };
    std::atomic<std::size_t> done = 0;
    // Those first that lie below the far end of no strap.
    const auto strapsBefore = same ? strapsOn(*last->set) : std::vector<std::vector<std::size_t>>();
    for (bool far : {false, true})
        fem::parallelFor(slots.size(), [&](std::size_t i) {
            if (stop.stop_requested() || far == maker.strapsTo(i).empty()) return;
            const auto& base = set->bases[i];
            const auto& from = maker.strapsTo(i);
            const bool asBefore =
                std::all_of(from.begin(), from.end(), [&](std::size_t k) { return bool(slots[k].kept); }) &&
                i < strapsBefore.size() && strapsBefore[i] == from;
            if (keeps && asBefore && i < last->bases.size() && last->bases[i]->number == i &&
                base.type.empty() && last->set->bases[i] == base &&
                std::all_of(base.columns.begin(), base.columns.end(), sameColumn) &&
                (!base.strap.any() || sameColumn(base.strap.to)))
                slots[i].kept = last->bases[i];
            if (!slots[i].kept) slots[i].made = maker.solve(i, base);
            if (const auto n = ++done; progress && n % 64 == 0) progress(double(n) / double(slots.size()));
        });
    if (stop.stop_requested()) return nullptr;
    findTypes(maker, *answer, slots, stop);
    findOverlaps(*answer, slots);
    for (auto& slot : slots) {
        const std::shared_ptr<const BasePart> p = slot.made ? slot.made : slot.kept;
        static_cast<model::Amounts&>(*answer) += *p;
        answer->area += p->size().area() / 1e6;
        answer->bases.push_back(p);
        answer->parts.push_back(p);
    }
    for (const auto& o : standard->omissions) {
        const std::string where = o.bases ? whereOmitted(*set, o.key) : "none";
        if (where == "none") continue;
        checks::Check c;
        static_cast<checks::Finding&>(c) =
            checks::notChecked(o.clause, where.empty() ? o.reason : o.reason + " " + where);
        c.key = set->id + "/" + o.key, c.what = c.title = o.title, c.topic = checks::Topic::Omission;
        c.place = {{{set->id, model::PartKind::Whole, {}}, model::Spot::In::Whole, {}}, set->name, 0, 0, 0};
        answer->checks.push_back(std::move(c));
    }
    for (const auto& name : maker.context()->leftOut) {
        checks::Check c;
        static_cast<checks::Finding&>(c) =
            checks::notChecked("combinations", "Excluded by the user for all bases.");
        c.key = set->id + "/left-out/" + name, c.what = c.title = "Combination " + name,
        c.topic = checks::Topic::Omission;
        c.place = {{{set->id, model::PartKind::Whole, {}}, model::Spot::In::Whole, {}}, set->name, 0, 0, 0};
        answer->checks.push_back(std::move(c));
    }
    answer->summarise();
    return stop.stop_requested() ? nullptr : answer;
}

std::vector<Alike> BasesAnswer::alike() const {
    std::vector<Alike> all;
    std::map<std::string, std::size_t> known;
    std::map<std::string, int> variants;
    for (const auto& [type, number] : types)
        for (const auto& b : bases) {
            if (b->type != type) continue;
            std::string key = type;
            for (const auto& i : b->items)
                key += fmt::format("|{} {} {}", i.run, i.number, schedule::signature(i));
            const auto [found, first] = known.emplace(key, all.size());
            if (!first) {
                ++all[found->second].members;
                continue;
            }
            // One type may carry columns with other starter bars.
            const int n = ++variants[type];
            all.push_back({n == 1 ? type : fmt::format("{} ({})", type, n), b, 1});
        }
    return all;
}

std::vector<bases::Laid> BasesAnswer::laid(const BasePart& part) const {
    const auto& row = set->bases[part.number];
    if (const auto* pad = std::get_if<bases::PadDesign>(&part.design))
        return padOf(
                   *context, part.number, strapsOn(*set), [&](std::size_t i) { return &bases[i]->size(); },
                   row)
            .laid(*pad);
    return bases::Cap(*context, row).laid(std::get<bases::CapDesign>(part.design));
}

std::vector<Alternative> alternatives(const BasesAnswer& answer, const BasePart& part, std::stop_token stop) {
    std::vector<Alternative> all;
    const Maker maker(answer);
    model::Base base = answer.set->bases[part.number];
    const auto& set = *answer.set;
    auto take = [&](const model::Base& pinned) {
        const auto made = maker.solve(part.number, pinned);
        if (!made->trouble().empty() || stop.stop_requested()) return false;
        const auto* governs = made->governing();
        if (!governs || governs->outcome == checks::Outcome::Over) return false;
        const Alternative a{made->size(), int(made->piles().size()), made->cost, made->emissions,
                            made->steel,  checks::ratio(*governs)};
        if (std::none_of(all.begin(), all.end(), [&](const Alternative& o) {
                return o.size.B == a.size.B && o.size.L == a.size.L && o.size.h == a.size.h &&
                       o.piles == a.piles;
            }))
            all.push_back(a);
        return true;
    };
    // Pins of sizes stay where they are not what varies; those of plan and depth are given back.
    const double ratio = base.L > 0 && base.B > 0 ? base.L / base.B : base.ratio;
    base.h = base.B = base.L = 0, base.ratio = ratio;
    if (base.pilesAt.empty()) base.piles = 0;
    const auto least = maker.solve(part.number, base);
    if (!least->trouble().empty()) return all;
    constexpr int depths = 8, plans = 6;
    if (pads(set)) {
        for (int k = 0; k < plans && !stop.stop_requested(); ++k)
            for (int n = 0; n < depths; ++n) {
                model::Base b = base;
                b.B = least->size().B + k * set.planStep, b.L = least->size().L + k * set.planStep;
                b.h = std::max(set.leastDepth, least->size().h + (n - 2) * set.depthStep);
                take(b);
            }
    } else {
        int more = 0;
        for (int piles : bases::pileNumbers()) {
            if (piles < int(least->piles().size()) || more++ > 4) continue;
            for (int n = 0; n < depths && !stop.stop_requested(); ++n) {
                model::Base b = base;
                if (b.pilesAt.empty()) b.piles = piles;
                b.h = std::max(set.leastDepth, least->size().h + (n - 3) * set.depthStep);
                take(b);
            }
            if (!base.pilesAt.empty()) break;
        }
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const Alternative& a, const Alternative& b) { return a.cost < b.cost; });
    return all;
}

std::shared_ptr<const analysis::FloorAnalysis> BasesDesigner::analysisOf(const model::Floor& floor,
                                                                         const Request& request,
                                                                         std::stop_token stop) {
    const auto& project = *request.project;
    const std::shared_ptr<const model::Floor>* row = nullptr;
    for (const auto& f : project.floors)
        if (f->id == floor.id) row = &f;
    if (!row) return nullptr;
    auto& own = floors_[floor.id];
    if (own.floor && *own.floor == **row && *own.basis == project.basis) return own.analysis;
    const auto in = floorInput(project, std::size_t(row - project.floors.data()));
    if (request.known)
        if (const auto known = std::dynamic_pointer_cast<const FloorDesign>(request.known(floor.id)))
            if (known->analysis && known->basis && known->floor && *known->floor == *in.floor &&
                *known->basis == project.basis)
                return known->analysis;
    auto found = std::make_shared<analysis::FloorAnalysis>(
        own.analyser.analyse(*in.floor, in.path, in.basis, in.combinations, stop));
    if (stop.stop_requested()) return nullptr;
    own.floor = *row, own.basis = std::make_shared<model::Basis>(project.basis), own.analysis = found;
    return found;
}

void BasesDesigner::design(const Request& request, std::stop_token stop,
                           const std::function<void(double)>& progress,
                           const std::function<void(Answer)>& publish) {
    for (const auto& row : request.project->bases) {
        if (row->id != request.element) continue;
        const auto& basis = request.project->basis;
        const bool sameBasis = last_ && askedBasis_ && *askedBasis_ == basis;
        if (!sameBasis) askedBasis_ = std::make_shared<const model::Basis>(basis);
        auto loads = withFloors(*request.project, row,
                                [&](const model::Floor& floor) { return analysisOf(floor, request, stop); });
        if (stop.stop_requested()) return;
        auto standard =
            sameBasis ? last_->standard : standards::makeStandard(basis.standard, basis.parameters);
        if (!standard) return;
        if (!loads.error.empty()) {
            auto none = std::make_shared<BasesAnswer>();
            none->element = row->id, none->name = row->name, none->set = row, none->standard = standard;
            none->error = loads.error;
            const Maker maker(row, basis, standard, [](std::size_t) { return nullptr; });
            none->context = maker.context(), none->basis = none->context->basis;
            none->summarise();
            last_ = std::move(none);
        } else if (!sameBasis || !last_->error.empty() || *last_->set != *loads.set ||
                   last_->name != row->name || last_->changed != loads.changed) {
            auto next =
                designBases(loads.set, basis, standard,
                            sameBasis && last_->error.empty() ? last_.get() : nullptr, stop, progress);
            if (!next) return;
            last_ = next;
            if (!linked(*row)) return publish(last_);
            // What changed, and how loads come, is known here alone.
            auto told = std::make_shared<BasesAnswer>(*next);
            told->changed = loads.changed;
            told->assumptions.insert(told->assumptions.end(), loads.notes.begin(), loads.notes.end());
            told->assumptions.push_back(
                "Loads from floors: imposed loads on all panels at once, with their characteristic "
                "values; moments and horizontal forces from the lowest floor alone, as storeys that do "
                "not sway.");
            last_ = std::move(told);
        }
        if (!stop.stop_requested()) publish(last_);
    }
}

}  // namespace talvik::design

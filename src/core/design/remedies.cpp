#include "design/remedies.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

#include "design/bases.h"
#include "design/designer.h"
#include "design/floor_design.h"
#include "design/ladders.h"

namespace talvik::design {

namespace {

using model::PartKind;
using model::Project;

// What has to be so after an edit: nothing over that was within before; of a part none of its own checks; of
// a whole element nothing at all, or of a floor at least not the check that governed.
class Goal {
  public:
    Goal(const model::PartRef& part, const ElementAnswer& now)
        : part_(part),
          whole_(part.kind == PartKind::Whole),
          partly_(whole_ && dynamic_cast<const FloorDesign*>(&now)) {
        double most = 0;
        for (const auto* c : now.all())
            if (c->outcome == checks::Outcome::Over) {
                over_.insert(c->key);
                if (const double ratio = checks::ratio(*c); ratio > most) most = ratio, governs_ = c->key;
            } else if (checks::isJudged(*c)) {
                within_[c->key] = checks::ratio(*c);
            }
    }
    bool anythingNew(const ElementAnswer& then) const {
        const auto all = then.all();
        return std::any_of(all.begin(), all.end(), [&](const auto* c) {
            return c->outcome == checks::Outcome::Over && !over_.contains(c->key);
        });
    }
    // Of the checks that were within the one that comes closest to its limit by an edit: "Cracks top, X2 0.71
    // → 0.84"; empty where none comes closer by more than 2 % of its limit, or not beyond half of it.
    std::string beside(const ElementAnswer& then) const {
        const checks::Check* most = nullptr;
        for (const auto* c : then.all()) {
            const auto was = within_.find(c->key);
            if (was == within_.end() || !checks::isJudged(*c) || checks::ratio(*c) < 0.5 ||
                checks::ratio(*c) < was->second + 0.02)
                continue;
            if (!most || checks::ratio(*c) > checks::ratio(*most)) most = c;
        }
        return most ? fmt::format("{} {:.2f} → {:.2f}", most->title, within_.at(most->key),
                                  checks::ratio(*most))
                    : "";
    }
    bool reached(const ElementAnswer& then) const {
        if (whole_ && !partly_) return then.summary.over == 0;
        for (const auto* c : then.all())
            if (c->outcome == checks::Outcome::Over &&
                (!over_.contains(c->key) || (partly_ ? c->key == governs_ : c->place.spot.part == part_)))
                return false;
        return true;
    }
    // Whether there is anything to seek.
    bool open(const ElementAnswer& now) const {
        if (whole_) return now.summary.over > 0;
        const auto* own = now.find(part_);
        return own && own->worst() > 1;
    }
    double worst(const ElementAnswer& then) const {
        const auto* own = whole_ ? nullptr : then.find(part_);
        return own ? own->worst() : then.worst();
    }

  private:
    const model::PartRef& part_;
    const bool whole_, partly_;
    std::set<std::string> over_;
    std::map<std::string, double> within_;
    std::string governs_;
};

// One designer for all attempts: what an edit leaves alone is kept from the one before.
class Trials {
  public:
    Trials(const Project& project, const model::Id& element, std::stop_token stop)
        : element_(element), designer_(makeDesigner(project, element)), stop_(std::move(stop)) {}
    // The complete answer, or the first for which `enough` holds.
    Designer::Answer of(const Project& project, const std::function<bool(const ElementAnswer&)>& enough) {
        Designer::Answer last;
        if (!designer_) return last;
        std::stop_source own;
        std::stop_callback passOn(stop_, [&] { own.request_stop(); });
        designer_->design({std::make_shared<const Project>(project), element_}, own.get_token(), {},
                          [&](Designer::Answer answer) {
                              last = std::move(answer);
                              if (enough && enough(*last)) own.request_stop();
                          });
        return stop_.stop_requested() ? nullptr : last;
    }

    void startFrom(const Project& project, const Designer::Answer& answer) {
        if (designer_) designer_->startFrom({std::make_shared<const Project>(project), element_}, answer);
    }

  private:
    const model::Id element_;
    const std::unique_ptr<Designer> designer_;
    const std::stop_token stop_;
};

// What an element costs by the rates of its project, with the columns and beams of a floor, which its own
// figures leave out: concrete in m3 and the strength of it, MPa. Stronger concrete costs more, which is told
// apart.
struct Costs {
    double concrete = 0, strength = 0, price = 0, carbon = 0;
    Costs(const Project& project, const ElementAnswer& a) {
        model::Amounts all = a;
        strength = project.basis.concreteStrength;
        if (const auto* bases = dynamic_cast<const BasesAnswer*>(&a))
            strength = (bases->set->kind == model::BaseSet::Kind::Pads ? project.basis.foundation
                                                                       : project.basis.pileCap)
                           .strength;
        if (const auto* floor = model::findFloor(project, a.element)) {
            const model::Thickness thickness(*floor);
            for (const auto& c : floor->columns)
                if (c.below) all.concrete += model::area(c) * c.heightBelow / 1e9;
            for (const auto& b : floor->beams) {
                const double below =
                    std::max(0.0, b.depth - thickness.at({(b.a.x + b.b.x) / 2, (b.a.y + b.b.y) / 2}));
                all.concrete += b.width * below * geometry::length(b.a, b.b) / 1e9;
                all.formwork += 2 * below * geometry::length(b.a, b.b) / 1e6;
            }
        }
        concrete = all.concrete;
        price = all.price(project.basis.rates), carbon = all.carbon(project.basis.rates);
    }
};

std::vector<std::string> stillOver(const ElementAnswer& then) {
    std::vector<std::string> all;
    for (const auto* c : then.all())
        if (c->outcome == checks::Outcome::Over) all.push_back(c->title);
    return all;
}

}  // namespace

Remedies remedies(const Project& project, const model::PartRef& part, std::stop_token stop,
                  const std::function<void(const Remedy&)>& each, std::shared_ptr<const ElementAnswer> now) {
    Remedies out;
    if (stop.stop_requested() || !model::validate(project).empty()) return out;
    Trials trials(project, part.element, stop);
    // All that takes longer is needed first: it says what was over before.
    if (now)
        trials.startFrom(project, now);
    else
        now = trials.of(project, {});
    if (!now || !now->error.empty()) return out;
    const Goal goal(part, *now);
    if (!goal.open(*now)) return out;
    const Costs before(project, *now);
    for (const auto& ladder : ladders(project, *now, part)) {
        if (ladder.onlyWhereNoneDoes &&
            std::any_of(out.found.begin(), out.found.end(), [](const Remedy& r) { return r.left.empty(); }))
            continue;
        std::optional<Remedy> best;
        double nearest = 0;
        for (const auto& attempt : ladder.steps) {
            if (stop.stop_requested()) return {};
            Project next = attempt.edit(project);
            if (next == project || !model::validate(next).empty()) continue;
            // What takes longer only where nothing is wrong so far.
            const auto then =
                trials.of(next, [&](const ElementAnswer& first) { return !goal.reached(first); });
            if (!then || !then->error.empty()) continue;
            if (!then->complete || !goal.reached(*then)) {
                const double came = goal.anythingNew(*then) ? 0 : goal.worst(*then);
                if (came > 0 && (nearest == 0 || came < nearest)) nearest = came;
                continue;
            }
            auto left = stillOver(*then);
            // A larger step of the kind only where it leaves less over.
            if (best && left.size() >= best->left.size()) continue;
            const Costs after(next, *then);
            Remedy r{attempt.text,
                     std::move(left),
                     goal.worst(*then),
                     goal.beside(*then),
                     ladder.reach,
                     then->steel - now->steel,
                     after.concrete - before.concrete,
                     after.price - before.price,
                     after.carbon - before.carbon,
                     std::move(next)};
            const auto& stronger = project.basis.rates.stronger;
            r.price += after.concrete * (after.strength - before.strength) * stronger.price;
            r.carbon += after.concrete * (after.strength - before.strength) * stronger.carbon;
            best = std::move(r);
            if (best->left.empty() || part.kind != PartKind::Whole) break;
        }
        // Two measures that leave no less over than one are none.
        if (best && ladder.onlyWhereNoneDoes &&
            std::any_of(out.found.begin(), out.found.end(),
                        [&](const Remedy& r) { return r.left.size() <= best->left.size(); }))
            continue;
        if (best) {
            if (each) each(*best);
            out.found.push_back(std::move(*best));
        } else if (!ladder.empty()) {
            auto known = std::find_if(out.vain.begin(), out.vain.end(),
                                      [&](const InVain& v) { return v.what == ladder.what; });
            if (known == out.vain.end()) known = out.vain.insert(known, {ladder.what, nearest});
            if (nearest > 0 && (known->nearest == 0 || nearest < known->nearest)) known->nearest = nearest;
        }
    }
    if (stop.stop_requested()) return {};
    std::stable_sort(out.found.begin(), out.found.end(), [](const Remedy& a, const Remedy& b) {
        return std::tuple(!a.left.empty(), a.reach, a.price) < std::tuple(!b.left.empty(), b.reach, b.price);
    });
    return out;
}

std::string InVain::text() const {
    return nearest > 1 ? fmt::format("{} ({:.2f} at best)", what, nearest) : what;
}

}  // namespace talvik::design

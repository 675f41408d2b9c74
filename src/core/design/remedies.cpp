#include "design/remedies.h"

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

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
            }
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
    const auto& rates = project.basis.rates;
    for (const auto& ladder : ladders(project, *now, part)) {
        std::optional<Remedy> best;
        for (const auto& attempt : ladder.steps) {
            if (stop.stop_requested()) return {};
            Project next = attempt.edit(project);
            if (next == project || !model::validate(next).empty()) continue;
            // What takes longer only where nothing is wrong so far.
            const auto then =
                trials.of(next, [&](const ElementAnswer& first) { return !goal.reached(first); });
            if (!then || !then->error.empty() || !then->complete || !goal.reached(*then)) continue;
            auto left = stillOver(*then);
            // A larger step of the kind only where it leaves less over.
            if (best && left.size() >= best->left.size()) continue;
            Remedy r{attempt.text,
                     std::move(left),
                     goal.worst(*then),
                     then->steel - now->steel,
                     then->concrete - now->concrete,
                     0,
                     0,
                     std::move(next)};
            r.price = r.steel * rates.steel.price + r.concrete * rates.concrete.price;
            r.carbon = r.steel * rates.steel.carbon + r.concrete * rates.concrete.carbon;
            best = std::move(r);
            if (best->left.empty() || part.kind != PartKind::Whole) break;
        }
        if (best) {
            if (each) each(*best);
            out.found.push_back(std::move(*best));
        } else if (!ladder.empty() &&
                   std::find(out.vain.begin(), out.vain.end(), ladder.what) == out.vain.end()) {
            out.vain.push_back(ladder.what);
        }
    }
    if (stop.stop_requested()) return {};
    std::stable_sort(out.found.begin(), out.found.end(), [](const Remedy& a, const Remedy& b) {
        return std::tuple(!a.left.empty(), a.price) < std::tuple(!b.left.empty(), b.price);
    });
    return out;
}

}  // namespace talvik::design

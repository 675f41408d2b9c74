#include "design/economy.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

#include "bars/bar_choices.h"
#include "design/designer.h"
#include "model/edits.h"
#include "schedule/stock.h"

namespace talvik::design {
namespace {

using bars::BarChoice;
using model::Project;

constexpr int passes = 3;
constexpr double mostSteel = 1.6;  // times what a run has
constexpr std::size_t mostChoices = 10;

// What may be chosen for one run, and what it is now.
struct Place {
    bars::Run run;
    int group = 0;  // of its face and direction
    std::vector<BarChoice> choices;
    double mass = 0;  // as the program laid it
    int pieces = 0, marks = 0;
};
// For every place the number of a choice, -1 for what the program chose.
using Layout = std::vector<int>;

// Keys of the checks that are over; and whether none is besides them.
std::set<std::string> overOf(const ElementAnswer& answer) {
    std::set<std::string> keys;
    for (const auto* c : answer.all())
        if (c->outcome == checks::Outcome::Over) keys.insert(c->key);
    return keys;
}
bool noMoreOver(const ElementAnswer& answer, const std::set<std::string>& than) {
    const auto all = answer.all();
    return std::none_of(all.begin(), all.end(), [&](const checks::Check* c) {
        return c->outcome == checks::Outcome::Over && !than.contains(c->key);
    });
}

class Search {
  public:
    Search(const Project& project, const model::Id& element, std::stop_token stop,
           const std::function<void(double)>& progress)
        : project_(project),
          element_(element),
          stop_(std::move(stop)),
          progress_(progress),
          designer_(makeDesigner(project, element)) {}

    Economy run() {
        Economy e;
        e.project = project_;
        if (!designer_) return e;
        plain_ = answer(project_);
        if (!plain_ || !plain_->error.empty()) {
            e.stopped = stop_.stop_requested();
            return e;
        }
        over_ = overOf(*plain_);
        places();
        e.before = e.after = layoutCost(*plain_, project_.basis);
        best_ = Layout(places_.size(), -1), bestCost_ = e.before;
        together();
        for (int pass = 0; pass < passes && !stop_.stop_requested(); ++pass)
            if (!oneByOne(pass)) break;
        // What takes longer is asked once at the end; what it finds over is taken back, the last first.
        while (!taken_.empty() && !stop_.stop_requested() && !sound(edited(best_))) {
            best_ = taken_.back();
            taken_.pop_back();
            const auto then = answer(edited(best_));
            if (!then) break;
            bestCost_ = layoutCost(*then, project_.basis);
        }
        e.tried = tried_;
        e.stopped = stop_.stop_requested();
        for (int c : best_) e.changed += c >= 0;
        if (e.stopped || e.changed == 0) {
            e.changed = 0;
            return e;
        }
        e.project = edited(best_), e.after = bestCost_;
        return e;
    }

  private:
    const Project& project_;
    const model::Id element_;
    std::stop_token stop_;
    const std::function<void(double)>& progress_;
    std::unique_ptr<Designer> designer_;
    Designer::Answer plain_;
    std::set<std::string> over_;                         // of the first answer
    std::optional<std::set<std::string>> completeOver_;  // with what takes longer; once that was asked
    std::vector<Place> places_;
    Layout best_;
    LayoutCost bestCost_;
    std::vector<Layout> taken_;  // what was best before each one that was better
    int tried_ = 0;

    // The first answer, without what takes longer.
    Designer::Answer answer(const Project& project) {
        Designer::Answer first;
        std::stop_source own;
        std::stop_callback passOn(stop_, [&] { own.request_stop(); });
        designer_->design({std::make_shared<const Project>(project), element_}, own.get_token(), {},
                          [&](Designer::Answer a) {
                              first = std::move(a);
                              own.request_stop();
                          });
        return stop_.stop_requested() ? nullptr : first;
    }
    // The complete answer to a project: no more is over than in that to the first one.
    bool sound(const Project& project) {
        if (!completeOver_) {
            const auto now = designNow(project_, element_, stop_);
            if (!now) return true;
            completeOver_ = overOf(*now);
        }
        const auto then = designNow(project, element_, stop_);
        return !then || noMoreOver(*then, *completeOver_);
    }

    void places() {
        const auto& basis = project_.basis;
        for (const auto& part : plain_->parts) {
            const auto* line = dynamic_cast<const LineAnswer*>(part.get());
            if (!line) continue;
            auto runs = line->runs;
            const auto across = line->crossing();
            runs.insert(runs.end(), across.begin(), across.end());
            for (const auto& r : runs) {
                if (r.fixed || r.role == model::Role::EndU || r.role == model::Role::SideU || r.band())
                    continue;
                Place p{r, 4 * line->direction + 2 * r.top() + model::across(r.role), {}, 0, 0, 0};
                p.run.part = part->part.key;
                for (const auto& c :
                     bars::barChoices(model::across(r.role) ? basis.secondaryBars : basis.mainBars,
                                      basis.spacingMost, basis, *plain_->standard)) {
                    const bool same = c.bar->name == r.bar && std::abs(c.spacing - r.spacing) < 0.1;
                    if (same || c.area() < r.area * (1 - 1e-9) || c.area() > r.area * mostSteel) continue;
                    if (p.choices.size() < mostChoices) p.choices.push_back(c);
                }
                std::set<std::string> marks;
                for (const auto& i : part->items)
                    if (i.run == r.id) {
                        p.mass += i.number * i.massEach, p.pieces += i.number;
                        marks.insert(schedule::signature(i));
                    }
                p.marks = int(marks.size());
                if (!p.choices.empty()) places_.push_back(std::move(p));
            }
        }
    }
    // Runs that are other than the program's become fixed ones.
    Project edited(const Layout& layout) const {
        return model::editBars(project_, element_, [&](auto& fixed, Project& p) {
            for (std::size_t i = 0; i < layout.size(); ++i) {
                if (layout[i] < 0) continue;
                model::BarRun run = places_[i].run;
                const auto& c = places_[i].choices[std::size_t(layout[i])];
                run.id = model::newId(p, 'b'), run.bar = c.bar->name, run.spacing = c.spacing;
                fixed.push_back(std::move(run));
            }
        });
    }
    // Keeps the layout where it costs less.
    bool attempt(Layout layout) {
        if (layout == best_ || stop_.stop_requested()) return false;
        const auto then = answer(edited(layout));
        if (!then) return false;
        ++tried_;
        if (!then->error.empty() || !noMoreOver(*then, over_)) return false;
        const auto cost = layoutCost(*then, project_.basis);
        if (cost.price >= bestCost_.price - 1e-6) return false;
        taken_.push_back(best_);
        best_ = std::move(layout), bestCost_ = cost;
        return true;
    }
    void tell(double share) const {
        if (progress_) progress_(share);
    }

    // One bar and spacing for all runs of a face and direction, where it is enough and not far too much.
    void together() {
        std::set<int> groups;
        for (const auto& p : places_) groups.insert(p.group);
        std::size_t done = 0;
        for (int group : groups) {
            std::set<std::pair<std::string, double>> known;
            for (const auto& p : places_)
                if (p.group == group)
                    for (const auto& c : p.choices) known.emplace(c.bar->name, c.spacing);
            for (const auto& [bar, spacing] : known) {
                Layout next = best_;
                for (std::size_t i = 0; i < places_.size(); ++i)
                    for (std::size_t k = 0; k < places_[i].choices.size() && places_[i].group == group; ++k)
                        if (places_[i].choices[k].bar->name == bar &&
                            places_[i].choices[k].spacing == spacing)
                            next[i] = int(k);
                attempt(std::move(next));
            }
            tell(0.3 * double(++done) / double(groups.size()));
        }
    }
    bool oneByOne(int pass) {
        bool better = false;
        const auto& rates = project_.basis.rates;
        for (std::size_t i = 0; i < places_.size() && !stop_.stop_requested(); ++i) {
            const auto& p = places_[i];
            auto massOf = [&](int c) {
                return c < 0 ? p.mass : p.mass * p.choices[std::size_t(c)].area() / p.run.area;
            };
            auto piecesOf = [&](int c) {
                return c < 0 ? double(p.pieces)
                             : p.pieces * p.run.spacing / p.choices[std::size_t(c)].spacing;
            };
            for (int c = -1; c < int(p.choices.size()); ++c) {
                if (c == best_[i]) continue;
                // The most that it can save: all marks of the run and all that is wasted now.
                const double dearer = (massOf(c) - massOf(best_[i])) * rates.steel.price +
                                      (piecesOf(c) - piecesOf(best_[i])) * rates.piece.price;
                if (dearer > p.marks * rates.mark.price + bestCost_.waste * rates.steel.price) continue;
                Layout next = best_;
                next[i] = c;
                better |= attempt(std::move(next));
            }
            tell(0.3 + 0.65 * (pass + double(i + 1) / double(places_.size())) / passes);
        }
        return better;
    }
};

}  // namespace

LayoutCost layoutCost(const ElementAnswer& element, const model::Basis& basis) {
    LayoutCost c;
    std::set<std::string> marks;
    struct Size {
        std::map<double, int> lengths;
        double massPerMetre = 0;
    };
    std::map<std::string, Size> sizes;  // of what is cut from stock
    for (const auto& p : element.parts)
        for (const auto& i : p->items) {
            c.steel += i.number * i.massEach, c.pieces += i.number;
            marks.insert(schedule::signature(i));
            if (i.shape == "99" || i.cutLength <= 0) continue;
            Size& s = sizes[i.bar];
            s.lengths[i.cutLength] += i.number, s.massPerMetre = i.massEach / i.cutLength * 1000;
        }
    c.marks = int(marks.size());
    for (const auto& [bar, size] : sizes) {
        std::vector<schedule::Piece> pieces;
        for (const auto& [length, number] : size.lengths) pieces.push_back({length, number, 0});
        const auto plan = schedule::cutFromStock(pieces, basis.stockLength, schedule::Effort::Quick);
        c.waste += (plan.bars * plan.stock - plan.used) / 1000 * size.massPerMetre;
    }
    c.price = (c.steel + c.waste) * basis.rates.steel.price + c.marks * basis.rates.mark.price +
              c.pieces * basis.rates.piece.price;
    return c;
}

Economy economicalLayout(const Project& project, const model::Id& element, std::stop_token stop,
                         const std::function<void(double)>& progress) {
    return Search(project, element, std::move(stop), progress).run();
}

}  // namespace talvik::design

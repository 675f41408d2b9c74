#include "design/floor_design.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "catalogs/catalogs.h"
#include "design/edge_bars.h"
#include "design/floor_checks.h"
#include "design/measure.h"
#include "design/peak_bands.h"
#include "design/strip_checks.h"
#include "fem/parallel/pool.h"
#include "schedule/plan_bars.h"
#include "units/units.h"

namespace talvik::design {
namespace {

using bars::PeakBand;
using checks::Check;
using strips::Strip;

// The least moment at the face of inner supports cast with the slab, of strips that span one way between
// beams and stiff walls (EN 1992-1-1 5.3.2.2(3)): a share of the fixed-end moment of the span, w l_n2 / 12,
// which is two thirds of its static moment.
void leastFaceMoments(StripDesign& d, const analysis::FloorAnalysis& a, const standards::Standard& standard) {
    const Strip& s = *d.strip;
    if (!s.onLines || standard.supports->momentFloor(1) <= 0 || d.stations().empty()) return;
    const auto& st = d.stations();
    for (const auto& span : s.spans) {
        if (span.cantilever() || span.alongWall) continue;
        const std::size_t from = line::nearestStation(st, span.clearFrom),
                          to = line::nearestStation(st, span.clearTo),
                          mid = line::nearestStation(st, (span.clearFrom + span.clearTo) / 2);
        double most = 0;
        std::size_t by = 0;
        for (std::size_t k = 0; k < a.combinations.size(); ++k) {
            if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
            const double fixed = 2.0 / 3 *
                                 (d.forces->at(k, mid).moment -
                                  (d.forces->at(k, from).moment + d.forces->at(k, to).moment) / 2);
            if (fixed > most) most = fixed, by = k;
        }
        const double least = standard.supports->momentFloor(most);
        for (int e : {0, 1}) {
            if (span.ends[e] != model::EndCondition::Continuous) continue;
            const auto& p = s.supports[std::size_t(e == 0 ? span.left : span.right)];
            if (p.turns || p.kind == strips::Support::Kind::Columns) continue;
            for (std::size_t i = 0; i < st.size(); ++i)
                if (st[i].u > p.from - 6 && st[i].u < p.to + 6 && d.demand.top[i].value < least)
                    d.demand.top[i] = {least, std::uint16_t(by)};
        }
    }
}

// Top steel at ends on beams and walls, for unintended fixity: a share of the span's moment at their faces.
void endFixity(StripDesign& d, const standards::Standard& standard) {
    const double share = standard.supports->endFixity();
    const auto& st = d.stations();
    for (const auto& span : d.strip->spans)
        for (int e : {0, 1}) {
            if (span.ends[e] != model::EndCondition::OnBeam || span.cantilever()) continue;
            line::Extreme most;
            double width = 1;
            for (std::size_t k = 0; k < st.size(); ++k)
                if (st[k].u > span.from && st[k].u < span.to &&
                    d.demand.bottom[k].value / st[k].width > most.value / width)
                    most = d.demand.bottom[k], width = st[k].width;
            const double face = e == 0 ? span.clearFrom : span.clearTo;
            for (std::size_t k = 0; k < st.size(); ++k)
                if (std::abs(st[k].u - face) < 5 &&
                    share * most.value / width * st[k].width > d.demand.top[k].value)
                    d.demand.top[k] = {share * most.value / width * st[k].width, most.by};
        }
}

std::vector<model::BarRun> barsOf(const model::Floor& floor, const std::string& strip) {
    std::vector<model::BarRun> list;
    for (const auto& b : floor.strips.bars)
        if (b.part == strip) list.push_back(b);
    return list;
}

bool alike(const std::vector<PeakBand>& a, const std::vector<PeakBand>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const PeakBand& p, const PeakBand& q) {
        return p.support == q.support && p.width == q.width && p.steel == q.steel;
    });
}

}  // namespace

bool StripDesign::twoWay() const {
    return std::any_of(panels.begin(), panels.end(), [](const SpanPanel& p) { return p.twoWay(); });
}

const StripDesign* FloorDesign::find(std::string_view key) const {
    for (const auto& s : strips)
        if (s->strip->key == key) return s.get();
    return nullptr;
}

const ConnectionDesign* FloorDesign::connection(std::string_view key) const {
    for (const auto& c : connections)
        if (c->site->key == key) return c.get();
    return nullptr;
}

std::vector<Check> FloorDesign::withWorking(const PartAnswer& part) const {
    if (const auto* connection = dynamic_cast<const ConnectionDesign*>(&part))
        return checkConnection(*connection, *this, true);
    if (part.part.kind == model::PartKind::Edge) return part.checks;
    const auto& strip = dynamic_cast<const StripDesign&>(part);
    const line::LineBasis in{*basis, *standard, strip.outerTop, strip.outerBottom, 0, strip.twoWay()};
    auto all = checkStrip(strip, *floor, *analysis, in, true);
    // Where the computed sag decided, span-to-depth stands as it was left.
    for (std::size_t i = 0; i < all.size() && i < part.checks.size(); ++i)
        if (all[i].topic == checks::Topic::Slenderness && all[i].key == part.checks[i].key)
            static_cast<checks::Finding&>(all[i]) = part.checks[i];
    return all;
}

// One design, stage by stage; every stage keeps of the last answer what it can.
class FloorDesigner::Stages {
  public:
    Stages(FloorDesigner& of, std::shared_ptr<FloorDesign> f, std::stop_token stop,
           const std::vector<SteelWanted>& wanted)
        : of_(of),
          last_(of.last_),
          f_(std::move(f)),
          floor_(*f_->floor),
          stop_(std::move(stop)),
          wanted_(wanted),
          room_(floor_, coverOfBars()) {}

    // False when stopped.
    bool run() {
        if (!layStrips() || !readForces()) return false;
        if (sameForces_ && last_->floor->strips.bars == floor_.strips.bars && wanted_.empty() &&
            !last_->strengthened) {
            f_->strips = last_->strips, f_->usual = last_->usual;
        } else {
            choose();
            owed();
            finish();
        }
        f_->strengthened = !wanted_.empty();
        f_->connections = of_.connections_.design(*f_, stop_);
        if (stop_.stop_requested()) return false;
        f_->parts.assign(f_->strips.begin(), f_->strips.end());
        f_->parts.insert(f_->parts.end(), f_->connections.begin(), f_->connections.end());
        for (auto& edge : edgeBars(*f_, room_)) f_->parts.push_back(edge);
        for (const auto& part : f_->parts)
            for (const auto& i : part->items) f_->steel += i.massEach * i.number, f_->pieces += i.number;
        measure(floor_, *f_);
        checkFloor(*f_);
        f_->summarise();
        return true;
    }

  private:
    FloorDesigner& of_;
    const std::shared_ptr<const FloorDesign> last_;
    const std::shared_ptr<FloorDesign> f_;
    const model::Floor& floor_;
    const std::stop_token stop_;
    const std::vector<SteelWanted>& wanted_;
    const schedule::Room room_;  // of bars
    bool sameLayout_ = false, sameForces_ = false;
    std::vector<std::shared_ptr<StripDesign>> made_;
    std::vector<std::array<char, 2>> sameRuns_;  // of the bottom, of the top

    line::LineBasis basisOf(const StripDesign& d) const {
        return {*f_->basis, *f_->standard, d.outerTop, d.outerBottom, 0, d.twoWay()};
    }
    bool sameBars(const std::string& strip) const {
        return sameForces_ && barsOf(*last_->floor, strip) == barsOf(floor_, strip);
    }
    // The bars of one face anew.
    void propose(StripDesign& d, const line::Demand& demand, bool top, const std::vector<PeakBand>& bands) {
        auto in = basisOf(d);
        in.leastBottom = d.distribution;
        std::erase_if(d.runs, [top](const auto& r) { return r.top() == top; });
        for (auto& r : bars::proposeStrip(*d.strip, d.stations(), demand, top, in, floor_.strips.bars, bands,
                                          f_->usual[std::size_t(d.strip->direction)][top]))
            d.runs.push_back(std::move(r));
    }

    bool layStrips() {
        const bool sameBasis = last_ && last_->basis == f_->basis;
        sameLayout_ = sameBasis && strips::sameLayout(*last_->floor, floor_);
        const auto half = [&](double span, double across) {
            return f_->standard->strips->columnStripHalf(span, across);
        };
        f_->layout = sameLayout_
                         ? last_->layout
                         : std::make_shared<const strips::StripLayout>(strips::layStrips(floor_, half));
        if (!sameLayout_ || last_->floor->panels != floor_.panels || last_->floor->zones != floor_.zones)
            of_.panels_ = std::make_shared<const std::vector<layout::Panel>>(layout::findPanels(floor_));
        return !stop_.stop_requested();
    }

    bool readForces() {
        const bool sameAnalysis = last_ && of_.readFrom_ == f_->analysis;
        const bool sameZones = last_ && last_->floor->zones == floor_.zones &&
                               last_->floor->panels == floor_.panels &&
                               last_->floor->actions.loads == floor_.actions.loads;
        sameForces_ =
            sameAnalysis && sameLayout_ && sameZones && last_->floor->strips.rules == floor_.strips.rules;
        if (!sameAnalysis || (!sameForces_ && !of_.reader_)) {
            of_.readFrom_ = nullptr;
            of_.reader_ = std::make_shared<const strips::ForceReader>(*f_->analysis,
                                                                      f_->standard->cracks->state(), stop_);
            if (stop_.stop_requested()) return false;
        }
        made_.resize(f_->layout->strips.size());
        fem::parallelFor(made_.size(), [&](std::size_t i) {
            if (!stop_.stop_requested()) made_[i] = forcesOf(i);
        });
        if (stop_.stop_requested()) return false;
        of_.readFrom_ = f_->analysis;
        return true;
    }

    std::shared_ptr<StripDesign> forcesOf(std::size_t i) const {
        auto d = std::make_shared<StripDesign>();
        const Strip& laid = f_->layout->strips[i];
        d->part = {floor_.id, model::PartKind::Strip, laid.key};
        d->name = "Strip " + laid.name;
        d->direction = laid.direction;
        const auto& all = f_->analysis->combinations;
        d->envelope = fmt::format("{} combinations", std::count_if(all.begin(), all.end(), [](const auto& c) {
                                      return c.state == actions::LimitState::Ultimate;
                                  }));
        if (sameForces_) {
            const auto& before = *last_->strips[i];
            d->strip = before.strip, d->forces = before.forces;
            d->demand = before.demand, d->panels = before.panels;
            return d;
        }
        const auto& standard = *f_->standard;
        d->strip = std::make_shared<const Strip>(laid);
        d->forces = std::make_shared<const strips::StripForces>(of_.reader_->read(*d->strip, floor_));
        d->demand = strips::demand(*d->strip, *d->forces, *f_->analysis, floor_.strips.rules,
                                   standard.cracks->state(),
                                   [&](double R, double t) { return standard.supports->roundedOff(R, t); });
        leastFaceMoments(*d, *f_->analysis, standard);
        d->panels = spanPanels(*d->strip, floor_, *of_.panels_);
        endFixity(*d, standard);
        return d;
    }

    // Which bars and spacings strips share, from what each would have with its least steel. Bars fixed by
    // someone say nothing here, so that fixing one leaves the others as they are.
    void findUsual() {
        if (sameForces_) {
            f_->usual = last_->usual;
            return;
        }
        const auto& rules = floor_.strips.rules;
        for (bool top : {true, false}) {
            double outer = 0;
            for (int pass : {0, 1}) {
                const int direction = (top ? rules.outerTop : rules.outerBottom) == 0 ? pass : 1 - pass;
                std::vector<std::vector<bars::Run>> runs(made_.size());
                fem::parallelFor(made_.size(), [&](std::size_t i) {
                    const StripDesign& d = *made_[i];
                    if (d.strip->direction != direction) return;
                    auto in = basisOf(d);
                    (top ? in.outerTop : in.outerBottom) = pass == 0 ? 0 : outer;
                    runs[i] = bars::proposeStrip(*d.strip, d.stations(), d.demand, top, in, {}, {}, {});
                });
                std::vector<std::pair<bars::BarChoice, double>> all;
                const auto* catalog = catalogs::barCatalog(f_->basis->barCatalog);
                for (std::size_t i = 0; i < runs.size(); ++i)
                    for (const auto& r : runs[i]) {
                        outer = pass == 0 ? std::max(outer, r.diameter) : outer;
                        const bars::BarChoice c{catalog->find(r.bar), r.spacing};
                        const auto& strip = *made_[i]->strip;
                        const double steel =
                            r.area * (r.to - r.from) * strip.area() / std::max(1.0, strip.to - strip.from);
                        auto known = std::find_if(all.begin(), all.end(), [&](const auto& a) {
                            return a.first.bar == c.bar && a.first.spacing == c.spacing;
                        });
                        if (known == all.end())
                            all.push_back({c, steel});
                        else
                            known->second += steel;
                    }
                f_->usual[std::size_t(direction)][top] = bars::usualChoices(std::move(all));
            }
        }
    }

    // Bars of the outer layer of each face first: the others lie inside of them. Then what they resist.
    void choose() {
        findUsual();
        const auto& rules = floor_.strips.rules;
        double outer[2] = {0, 0};  // bottom, top
        sameRuns_.assign(made_.size(), {0, 0});
        for (int pass : {0, 1})
            for (bool top : {true, false}) {
                const int first = top ? rules.outerTop : rules.outerBottom;
                fem::parallelFor(made_.size(), [&](std::size_t i) {
                    StripDesign& d = *made_[i];
                    if ((d.strip->direction == first) != (pass == 0)) return;
                    const double over = pass == 0 ? 0 : outer[top];
                    (top ? d.outerTop : d.outerBottom) = over;
                    if (sameBars(d.strip->key) &&
                        (top ? last_->strips[i]->outerTop : last_->strips[i]->outerBottom) == over) {
                        for (const auto& r : last_->strips[i]->alone->runs)
                            if (r.top() == top) d.runs.push_back(r);
                        sameRuns_[i][top] = 1;
                        return;
                    }
                    propose(d, d.demand, top, {});
                });
                if (pass == 0)
                    for (const auto& d : made_)
                        for (const auto& r : d->runs)
                            if (r.top() == top) outer[top] = std::max(outer[top], r.diameter);
            }
        fem::parallelFor(made_.size(), [&](std::size_t i) {
            StripDesign& d = *made_[i];
            if (sameRuns_[i][0] && sameRuns_[i][1]) {
                d.alone = last_->strips[i]->alone;
                static_cast<verify::LineDesign&>(d) = *d.alone;
                return;
            }
            verify::fillCurves(d, d.view(), {*f_->basis, *f_->standard, d.outerTop, d.outerBottom});
            d.alone = std::make_shared<const verify::LineDesign>(d);
        });
        f_->strips.assign(made_.begin(), made_.end());
    }

    // What strips owe to those beside and across them: bands over columns, distribution steel.
    void owed() {
        for (const auto& d : made_) {
            const line::LineBasis in{*f_->basis, *f_->standard, d->outerTop, d->outerBottom};
            bands_.push_back(peakBands(*f_, *d, in));
            distribution_.push_back(distributionSteel(*f_, *d, in));
        }
    }
    std::vector<std::vector<PeakBand>> bands_;
    std::vector<double> distribution_;

    // From an edge to the middle of the thickest bar allowed.
    double coverOfBars() const {
        double largest = 10;
        const auto* catalog = catalogs::barCatalog(f_->basis->barCatalog);
        for (const auto& name : f_->basis->mainBars)
            if (const auto* bar = catalog->find(name)) largest = std::max(largest, bar->diameter);
        return f_->basis->coverSide + largest / 2;
    }

    // Bars with what is owed and with compression steel; checks. A strip of which nothing changed stays.
    void finish() {
        std::vector<char> kept(made_.size(), 0);
        fem::parallelFor(made_.size(), [&](std::size_t i) {
            StripDesign& d = *made_[i];
            for (const auto& more : wanted_)
                if (more.strip == d.strip->key) d.wanted.push_back(more);
            if (sameBars(d.strip->key)) {
                const auto& before = *last_->strips[i];
                kept[i] = before.wanted == d.wanted && before.outerTop == d.outerTop &&
                          before.outerBottom == d.outerBottom && before.distribution == distribution_[i] &&
                          alike(before.bands, bands_[i]);
                if (kept[i]) return;
            }
            d.bands = bands_[i];
            d.distribution = distribution_[i];
            auto in = basisOf(d);
            in.leastBottom = d.distribution;
            const auto asked = withWanted(d, in);
            bool again = false;
            for (bool top : {true, false}) {
                if (!(top ? !d.bands.empty() : d.distribution > 0) &&
                    std::none_of(d.wanted.begin(), d.wanted.end(),
                                 [top](const auto& s) { return s.top == top; }))
                    continue;
                propose(d, asked, top, top ? d.bands : std::vector<PeakBand>());
                again = true;
            }
            for (bool top : {true, false}) again |= helpCompression(d, asked, top);
            if (again) verify::fillCurves(d, d.view(), in);
            if (floor_.strips.rules.links) addStripLinks(d, floor_, *f_->analysis, in);
            double least = 1e300;
            for (const auto& s : d.stations()) least = std::min(least, s.leastThickness);
            const schedule::StripBody body{*d.strip, room_, d.stations(), least};
            d.items = schedule::items(d.runs, body, in);
            for (const auto& zone : d.links)
                d.items.push_back(
                    schedule::links(zone.bar, zone.from, zone.to, zone.along, zone.across, body, in));
            d.checks = checkStrip(d, floor_, *f_->analysis, in, false);
        });
        for (std::size_t i = 0; i < made_.size(); ++i)
            if (kept[i]) f_->strips[i] = last_->strips[i];
    }

    // Asks for an area, mm2 per mm, as the moment that it resists would.
    void askFor(line::Demand& demand, const StripDesign& d, bool top, std::size_t k, double area,
                const line::LineBasis& in) const {
        const auto section = line::section(top, 16, d.stations()[k], in, 1000);
        const double m = f_->standard->flexure->resistance(section, area * 1000, 0).M / 1000;
        auto& value = (top ? demand.top : demand.bottom)[k].value;
        value = std::max(value, m * d.stations()[k].width);
    }
    // What the strip's forces ask, and the steel wanted by the field: at the stations on both sides of its
    // place.
    line::Demand withWanted(const StripDesign& d, const line::LineBasis& in) const {
        auto demand = d.demand;
        const auto& st = d.stations();
        for (const auto& s : d.wanted) {
            std::size_t k = 0;
            while (k < st.size() && st[k].u < s.u) ++k;
            if (k > 0) askFor(demand, d, s.top, k - 1, s.area, in);
            if (k < st.size()) askFor(demand, d, s.top, k, s.area, in);
        }
        return demand;
    }

    // Compression steel comes from the other face, which is chosen for it as a moment would ask.
    bool helpCompression(StripDesign& d, const line::Demand& asked, bool top) {
        auto in = basisOf(d);
        in.leastBottom = d.distribution;
        const auto compression = compressionNeed(d, top, in);
        if (compression.empty()) return false;
        auto demand = asked;
        for (std::size_t k = 0; k < compression.size(); ++k)
            if (compression[k] > 0) askFor(demand, d, !top, k, compression[k], in);
        propose(d, demand, !top, top ? std::vector<PeakBand>() : d.bands);
        return true;
    }
};

namespace {

// Slabs on ground are cast like foundations.
model::Basis asCast(const model::Floor& floor, model::Basis basis) {
    if (!floor.grounds.empty()) basis.coverBottom = basis.coverFoundation;
    return basis;
}

// Where a slab or zone is so thin that bars in the second layer have no depth worth the name; nothing
// otherwise.
std::string noRoom(const model::Floor& floor, const model::Basis& basis) {
    constexpr double leastDepth = 20;
    double bar = model::largestBar(basis);
    for (const auto& run : floor.strips.bars)
        if (const auto* known = catalogs::barCatalog(basis.barCatalog)->find(run.bar))
            bar = std::max(bar, known->diameter);
    const double least = std::max(basis.coverTop, basis.coverBottom) + 1.5 * bar + leastDepth;
    const auto sentence = [&](const char* kind, const auto& of) {
        return fmt::format(
            "{} {}, {} mm thick, leaves no room for two layers of bars of {} mm inside its covers; make it "
            "at least {} mm thick, or use smaller covers or bars.",
            kind, of.name.empty() ? of.id : of.name, units::plain(of.thickness), units::plain(bar),
            units::plain(std::ceil(least)));
    };
    for (const auto& slab : floor.slabs)
        if (slab.thickness < least) return sentence("Slab", slab);
    for (const auto& zone : floor.zones)
        if (zone.thickness < least) return sentence("Zone", zone);
    return {};
}

}  // namespace

std::shared_ptr<const FloorDesign> FloorDesigner::design(
    const std::shared_ptr<const model::Floor>& floor,
    const std::shared_ptr<const analysis::FloorAnalysis>& analysis, const model::Basis& of,
    std::stop_token stop, const std::vector<SteelWanted>& wanted) {
    if (!analysis || !analysis->good() || analysis->stopped) return nullptr;
    const model::Basis basis = asCast(*floor, of);
    if (!noRoom(*floor, basis).empty()) return nullptr;
    auto f = std::make_shared<FloorDesign>();
    f->element = floor->id, f->name = floor->name;
    f->floor = floor;
    f->analysis = analysis;
    f->assumptions = analysis->assumptions;
    f->complete = false;
    const bool sameBasis = last_ && *last_->basis == basis;
    f->basis = sameBasis ? last_->basis : std::make_shared<const model::Basis>(basis);
    f->standard = sameBasis ? last_->standard : standards::makeStandard(basis.standard, basis.parameters);
    if (!f->standard || !Stages(*this, f, stop, wanted).run()) return nullptr;
    last_ = f;
    return f;
}

void FloorDesigner::design(const Request& request, std::stop_token stop,
                           const std::function<void(double)>& progress,
                           const std::function<void(Answer)>& publish) {
    const auto& floors = request.project->floors;
    const auto& basis = request.project->basis;
    for (std::size_t i = 0; i < floors.size(); ++i) {
        if (floors[i]->id != request.element) continue;
        const bool sameBasis = askedBasis_ && *askedBasis_ == basis;
        if (answer_ && answer_->complete && sameBasis && *asked_ == *floors[i]) return publish(answer_);
        const auto input = floorInput(*request.project, i);
        // Where strips alone changed, the analysis stays.
        auto analysis = answer_ ? answer_->analysis : nullptr;
        if (!analysis || !sameBasis || !model::sameButStrips(*analysed_, *input.floor))
            analysis = std::make_shared<const analysis::FloorAnalysis>(
                analyser_.analyse(*input.floor, input.path, input.basis, input.combinations, stop, progress));
        if (analysis->stopped || stop.stop_requested()) return;
        auto f = design(input.floor, analysis, basis, stop);
        if (stop.stop_requested()) return;
        if (!f) {
            auto none = std::make_shared<FloorDesign>();
            none->element = request.element, none->name = floors[i]->name;
            none->floor = input.floor, none->analysis = analysis;
            none->error = analysis->trouble.empty() ? noRoom(*input.floor, asCast(*input.floor, basis))
                                                    : analysis->trouble.front().message;
            if (none->error.empty()) none->error = "The floor could not be designed.";
            f = std::move(none);
        }
        const auto before = answer_;
        asked_ = floors[i], analysed_ = input.floor;
        if (!sameBasis) askedBasis_ = std::make_shared<const model::Basis>(basis);
        answer_ = f;
        publish(f);
        // The proof takes longer than the design: it follows, unless something newer is asked meanwhile.
        if (f->complete || stop.stop_requested()) return;
        const auto again = [&](const std::vector<SteelWanted>& wanted) {
            return design(input.floor, analysis, basis, stop, wanted);
        };
        auto whole = proved(f, stop, before.get(), again);
        last_ = f;  // what comes next is compared with the design as moments ask for it
        if (whole && !stop.stop_requested()) publish(answer_ = whole);
    }
}

void FloorDesigner::startFrom(const Request& request, const Answer& answer) {
    const auto known = std::dynamic_pointer_cast<const FloorDesign>(answer);
    if (!known || !known->complete || !known->first) return;
    for (const auto& floor : request.project->floors) {
        if (floor->id != request.element) continue;
        answer_ = known, last_ = known->first;
        readFrom_ = known->analysis, reader_ = nullptr;
        panels_ =
            std::make_shared<const std::vector<layout::Panel>>(layout::findPanels(*known->first->floor));
        asked_ = floor, analysed_ = known->floor;
        askedBasis_ = std::make_shared<const model::Basis>(request.project->basis);
    }
}

std::shared_ptr<const FloorDesign> designFloor(const model::Project& project, std::size_t floor,
                                               const std::function<void(double)>& progress, bool prove,
                                               std::stop_token stop) {
    auto in = floorInput(project, floor);
    auto a = std::make_shared<const analysis::FloorAnalysis>(
        analysis::FloorAnalyser().analyse(*in.floor, in.path, in.basis, in.combinations, stop, progress));
    FloorDesigner designer;
    auto d = designer.design(in.floor, a, project.basis, stop);
    return d && prove ? proved(d, stop, nullptr,
                               [&](const std::vector<SteelWanted>& wanted) {
                                   return designer.design(in.floor, a, project.basis, stop, wanted);
                               })
                      : d;
}

namespace {

double shortArea(const FieldProof& proof) {
    double sum = proof.shear.shortArea;
    for (const auto& faces : proof.steel)
        for (const auto& of : faces) sum += of.shortArea;
    return sum;
}

// Strips with their sag, for who shows them along their lines.
void sagAlong(FloorDesign& f) {
    if (!f.sag || f.sag->strips.size() != f.strips.size()) return;
    for (std::size_t i = 0; i < f.strips.size(); ++i) {
        if (f.sag->strips[i].empty()) continue;
        auto next = std::make_shared<StripDesign>(*f.strips[i]);
        next->sag = f.sag->strips[i];
        for (auto& part : f.parts)
            if (part == f.strips[i]) part = next;
        f.strips[i] = std::move(next);
    }
}

// Where the computed sag of all panels that a strip crosses is within its limits, span-to-depth of that strip
// gives way to it.
void sagDecides(FloorDesign& f) {
    if (!f.sag || !f.sag->why.empty()) return;
    std::optional<std::vector<layout::Panel>> panels;  // found where some strip asks
    auto crosses = [&](const StripDesign& strip, const FloorSag::Row& row) {
        // A panel of which the strip has a part, or the line itself.
        if (!panels) panels = layout::findPanels(*f.floor);
        for (const auto& panel : *panels)
            if (panel.centre.x == row.centre.x && panel.centre.y == row.centre.y)
                for (const auto& part : strip.strip->parts)
                    if (!geometry::intersection(panel.outline, part).empty()) return true;
        for (int k = 0; k <= 8; ++k) {
            const double x = k / 8.0;
            const geometry::Point p{row.from.x + x * (row.to.x - row.from.x),
                                    row.from.y + x * (row.to.y - row.from.y)};
            for (const auto& part : strip.strip->parts)
                if (geometry::contains(part, p)) return true;
        }
        return false;
    };
    for (auto& strip : f.strips) {
        auto slender = [](const checks::Check& c) {
            return c.topic == checks::Topic::Slenderness && c.outcome == checks::Outcome::Over;
        };
        if (std::none_of(strip->checks.begin(), strip->checks.end(), slender)) continue;
        double worst = -1;
        for (const auto& row : f.sag->rows)
            if (crosses(*strip, row)) worst = std::max(worst, row.sag / row.allowed);
        if (worst < 0 || worst > 1) continue;
        auto next = std::make_shared<StripDesign>(*strip);
        for (auto& c : next->checks) {
            if (!slender(c)) continue;
            const double ratio = checks::ratio(c);
            static_cast<checks::Finding&>(c) = checks::notApplicable(
                c.clause, fmt::format("Exceeded by {:.2f}, but the computed deflection of the panels it "
                                      "crosses is within its limits ({}), which governs.",
                                      ratio, f.standard->sag->clause()));
        }
        for (auto& part : f.parts)
            if (part == strip) part = next;
        strip = std::move(next);
    }
}

}  // namespace

std::shared_ptr<const FloorDesign> proved(const std::shared_ptr<const FloorDesign>& design,
                                          std::stop_token stop, const FloorDesign* before,
                                          const Strengthen& again) {
    const bool same = before && before->proof && before->first && !before->strengthened &&
                      before->analysis == design->analysis &&
                      model::sameButStrips(*before->floor, *design->floor) &&
                      before->first->strips == design->strips &&
                      before->first->connections == design->connections && *before->basis == *design->basis;
    auto proof = same ? before->proof : proveByField(*design, stop);
    if (!proof) return nullptr;
    auto sound = design;
    std::vector<SteelWanted> wanted;
    constexpr int rounds = 3;  // thicker bars lie deeper and carry a little less, bars lie elsewhere then
    // Where the proof is that of before, what it wants was tried then.
    for (int round = 0; round < rounds && again && !same && !proof->wanted.empty(); ++round) {
        wanted.insert(wanted.end(), proof->wanted.begin(), proof->wanted.end());
        auto next = again(wanted);
        auto then = next ? proveByField(*next, stop) : nullptr;
        if (!then) return nullptr;
        if (shortArea(*then) >= shortArea(*proof)) break;
        sound = std::move(next), proof = std::move(then);
    }
    auto sag = floorSag(*sound, stop);
    if (!sag) return nullptr;
    std::shared_ptr<const FloorVibration> vibration;
    if (const auto& v = design->floor->vibration; v.on) {
        const bool known = before && before->vibration && before->analysis == design->analysis &&
                           before->floor->vibration == v;
        vibration = known ? before->vibration : floorVibration(*sound, stop);
        if (!vibration) return nullptr;
    }
    auto f = std::make_shared<FloorDesign>(*sound);
    f->vibration = std::move(vibration);
    f->proof = std::move(proof), f->sag = std::move(sag);
    f->complete = true, f->first = design;
    sagAlong(*f);
    sagDecides(*f);
    checkFloor(*f);
    f->summarise();
    return f;
}

}  // namespace talvik::design

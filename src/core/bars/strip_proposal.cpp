// From what a strip is designed for to bars people can fix.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "bars/bar_choices.h"
#include "bars/steel.h"

namespace talvik::bars {
namespace {

using model::BarEnd;
using strips::Station;
using strips::Strip;

constexpr double noise = 0.01;     // mm: of numbers that differ between mirrored places by rounding alone
constexpr double endStep = 50;     // bar ends are rounded to this
constexpr double drawnGap = 100;   // between bars that do not lap
constexpr double alike = 1.35;     // bottom steel of spans within this ratio becomes the same throughout
constexpr double onlyBand = 1e-4;  // mm2 per mm that a band must add to be worth it

class Proposer {
  public:
    Proposer(const Strip& strip, const std::vector<Station>& stations, const line::Demand& demand, bool top,
             const line::LineBasis& in, const std::vector<model::BarRun>& fixed,
             const std::vector<PeakBand>& bands, const std::vector<BarChoice>& usual)
        : strip_(strip),
          stations_(stations),
          ultimate_(top ? demand.top : demand.bottom),
          service_(top ? demand.topService : demand.bottomService),
          demand_(demand),
          top_(top),
          in_(in),
          bands_(bands),
          usual_(usual),
          catalog_(*catalogs::barCatalog(in.basis.barCatalog)) {
        if (!stations.empty())
            asked_ = line::movedDemand(strip, stations_, demand, top,
                                       std::vector<double>(stations.size(), model::largestBar(in.basis)), in);
        for (const auto& b : fixed) {
            if (b.part != strip.key || model::topFace(b.role) != top || !catalog_.find(b.bar)) continue;
            Run r{b};
            r.fixed = true;
            size(r, thicknessAt((b.from + b.to) / 2), in_);
            if (r.band()) r.width = bandWidthNear((b.from + b.to) / 2);
            fixed_.push_back(std::move(r));
        }
    }

    std::vector<Run> run() {
        if (stations_.empty()) return fixed_;
        if (top_)
            tops();
        else
            bottoms();
        for (auto& r : made_)
            if (!replaced(r)) fixed_.push_back(std::move(r));
        std::stable_sort(fixed_.begin(), fixed_.end(), [](const Run& a, const Run& b) {
            return std::tuple(a.band(), a.from, a.to) < std::tuple(b.band(), b.from, b.to);
        });
        return fixed_;
    }

  private:
    const Strip& strip_;
    const std::vector<Station>& stations_;
    const std::vector<line::Extreme>&ultimate_, &service_;
    const line::Demand& demand_;
    bool top_;
    const line::LineBasis& in_;
    const std::vector<PeakBand>& bands_;
    const std::vector<BarChoice>& usual_;
    const catalogs::BarCatalog& catalog_;
    // Demand moved outwards: it asks for more than the demand itself where the slab gets thinner.
    std::vector<double> asked_;
    std::vector<Run> fixed_, made_;

    double outerStart() const { return strip_.from - strip_.room[0] + in_.basis.coverSide; }
    double outerEnd() const { return strip_.to + strip_.room[1] - in_.basis.coverSide; }
    // Where a run that goes to the strip's end stops: at the cover, or anchored in the slab that goes on.
    double outer(int side, const BarChoice& c) const {
        if (!strip_.inside[side < 0 ? 0 : 1]) return side < 0 ? outerStart() : outerEnd();
        Run r;
        r.role = role();
        fill(r, c, thicknessAt(side < 0 ? strip_.from : strip_.to));
        const double l = units::roundUp(r.anchorStart, endStep);
        return side < 0 ? std::floor((strip_.from - l) / endStep) * endStep
                        : std::ceil((strip_.to + l) / endStep) * endStep;
    }
    double thicknessAt(double u) const {
        if (stations_.empty()) return 200;
        return stations_[line::nearestStation(stations_, u)].thickness;
    }
    double bandWidthNear(double u) const {
        double width = 0, least = 1e300;
        for (const auto& b : bands_)
            if (double d = std::abs(strip_.supports[std::size_t(b.support)].u - u); d < least)
                least = d, width = b.width;
        return width;
    }
    bool replaced(const Run& r) const {
        return std::any_of(fixed_.begin(), fixed_.end(),
                           [&](const Run& f) { return f.fixed && replaces(f, r); });
    }
    model::Role role() const { return top_ ? model::Role::TopMain : model::Role::BottomMain; }

    void fill(Run& r, const BarChoice& c, double thickness) const {
        r.part = strip_.key;
        r.bar = c.bar->name, r.spacing = c.spacing;
        size(r, thickness, in_);
    }

    // How far apart bottom bars may lie so that as many as the standard asks pass through inner columns, 40
    // mm from their faces; small columns that would want bars all over are left to the check.
    double throughColumns() const {
        double most = 1e9;
        for (std::size_t k = 0; k < strip_.supports.size(); ++k) {
            const auto& p = strip_.supports[k];
            if (!strips::innerColumn(strip_, k)) continue;
            const auto rule = in_.standard.barEnds->through(standards::BarEndRules::Over::ColumnStrip, 12);
            if (rule.bars < 2) continue;
            const double apart = (p.across - 2 * line::coreCover) / (rule.bars - 1);
            if (apart >= in_.basis.spacingLeast) most = std::min(most, apart);
        }
        return most;
    }

    // Whether hooked bottom bars end within the support at an end of the strip, whatever they carry there: EN
    // asks for at least ten diameters beyond its face.
    bool roomAtEnd(int side, const Run& r) const {
        const std::size_t i = side < 0 ? 0 : strip_.spans.size() - 1;
        const auto& span = strip_.spans[i];
        const auto end = span.ends[side < 0 ? 0 : 1];
        if ((side < 0 ? span.left : span.right) < 0 ||
            (end != model::EndCondition::Free && end != model::EndCondition::OnBeam))
            return true;
        auto at = endAnchorage(strip_, stations_, demand_, i, side, r, true, in_);
        at.V = std::min(at.V, 1.0);
        return in_.standard.anchorage->atEnd(at).outcome != checks::Outcome::Over;
    }

    // The least steel for what the stations from..to ask. Where the bars end at a slab's edge, hooked, they
    // count at stations near it as far as they are anchored there.
    BarChoice choose(std::size_t from, std::size_t to, bool edgeBefore = false,
                     bool edgeAfter = false) const {
        const auto& flexure = *in_.standard.flexure;
        std::size_t worst = from, crackAt = from, thick = from;
        double most = -1, mostService = -1;
        for (std::size_t i = from; i <= to; ++i) {
            const Station& s = stations_[i];
            double d = std::max(20.0, s.thickness - 40);
            if (double k = asked_[i] / (s.width * d); k > most) most = k, worst = i;
            if (double k = service_[i].value / (s.width * d); k > mostService) mostService = k, crackAt = i;
            if (s.thickness > stations_[thick].thickness) thick = i;
        }
        double least = 1e300;
        for (std::size_t i = from; i <= to; ++i) least = std::min(least, stations_[i].thickness);
        auto all = barChoices(
            in_.basis.mainBars,
            std::min(in_.standard.steel->spacing(in_.role(), true, least), top_ ? 1e9 : throughColumns()),
            in_.basis, in_.standard);
        struct Need {
            double area = 0, most = 1e300;
            bool possible = true;
        };
        std::map<const catalogs::Bar*, Need> needs;
        constexpr double b = 1000;
        auto need = [&](const catalogs::Bar* bar) -> const Need& {
            auto found = needs.find(bar);
            if (found != needs.end()) return found->second;
            Need n;
            const Station& w = stations_[worst];
            auto sec = line::section(top_, bar->diameter, w, in_, b);
            auto r = flexure.required(sec, asked_[worst] / w.width * b);
            n.possible = r.possible;
            n.area = r.As / b;
            if (in_.basis.minimumSteel)
                n.area = std::max(n.area, in_.standard.steel->minimum(
                                              line::section(top_, bar->diameter, stations_[thick], in_, b)) /
                                              b);
            if (in_.basis.minimumSteel && service_[crackAt].value > 0)
                n.area = std::max(n.area, in_.standard.cracks->leastSteel(
                                              line::section(top_, bar->diameter, stations_[thick], in_, b),
                                              bar->diameter, in_.crackLimit(top_)) /
                                              b);
            if (!top_) n.area = std::max(n.area, in_.leastBottom);
            n.most = in_.standard.steel->maximum(sec) / b;
            return needs[bar] = n;
        };
        auto hooked = [&](const BarChoice& c) {
            Run r;
            r.role = role();
            r.start = r.end = BarEnd::Hook;
            fill(r, c, stations_[from].thickness);
            r.from = outer(-1, c), r.to = outer(1, c);
            return r;
        };
        // Where not even the thinnest bar has room at a support its check says so.
        bool room[2] = {false, false};
        if (!top_ && (edgeBefore || edgeAfter)) {
            const Run thinnest =
                hooked(*std::min_element(all.begin(), all.end(), [](const auto& a, const auto& c) {
                    return a.bar->diameter < c.bar->diameter;
                }));
            room[0] = edgeBefore && roomAtEnd(-1, thinnest), room[1] = edgeAfter && roomAtEnd(1, thinnest);
        }
        auto anchored = [&](const BarChoice& c) {
            if (!edgeBefore && !edgeAfter) return true;
            const Run r = hooked(c);
            if ((room[0] && !roomAtEnd(-1, r)) || (room[1] && !roomAtEnd(1, r))) return false;
            for (std::size_t i = from; i <= to; ++i) {
                const Station& s = stations_[i];
                double before = s.u - outerStart(), after = outerEnd() - s.u;
                if (leftToEdge(strip_, s, edgeReach(s, in_))) continue;
                double share = std::min(
                    {1.0, edgeBefore ? before / r.anchorStart : 1.0, edgeAfter ? after / r.anchorEnd : 1.0});
                if (share >= 1 || ultimate_[i].value <= 0) continue;
                double d = line::section(top_, c.bar->diameter, s, in_, b).d;
                double reach = in_.standard.barEnds->momentShift(d, c.bar->diameter), asks = 0;
                for (std::size_t k = from; k <= to; ++k)
                    if (std::abs(stations_[k].u - s.u) <= reach)
                        asks = std::max(asks, ultimate_[k].value / stations_[k].width);
                auto asked = flexure.required(line::section(top_, c.bar->diameter, s, in_, b), asks * b);
                if (!asked.possible || asked.As / b > share * c.area()) return false;
            }
            return true;
        };
        auto sound = [&](const BarChoice& c) {
            if (!anchored(c)) return false;
            if (service_[crackAt].value <= 0) return true;
            const Station& s = stations_[crackAt];
            auto sec = line::section(top_, c.bar->diameter, s, in_, b);
            const auto crack = line::crackInput(sec, top_, service_[crackAt].value / s.width * b,
                                                c.area() * b, c.bar->diameter, c.spacing, in_);
            return in_.standard.cracks->check(crack).outcome != checks::Outcome::Over;
        };
        auto usual = [&](const BarChoice& c) {
            return std::any_of(usual_.begin(), usual_.end(),
                               [&](const BarChoice& u) { return u.bar == c.bar && u.spacing == c.spacing; });
        };
        std::optional<BarChoice> loose, best;
        double limit = 1e300;
        for (const auto& c : all) {
            if (c.area() > limit) break;
            const Need& n = need(c.bar);
            if (!n.possible || c.area() < n.area * (1 + 1e-9) || c.area() > n.most) continue;
            if (!loose) loose = c;
            if ((best && !usual(c)) || !sound(c)) continue;
            if (!best) limit = littleMore * c.area();
            best = c;
            if (usual_.empty() || usual(c)) break;
        }
        return best ? *best : loose ? *loose : all.back();
    }

    std::optional<std::pair<std::size_t, std::size_t>> range(double a, double b) const {
        return line::stationsWithin(stations_, a, b);
    }

    void bottoms() {
        const std::size_t n = strip_.spans.size();
        std::vector<std::optional<BarChoice>> chosen(n);
        double low = 1e300, high = 0;
        struct {
            std::size_t from = 0, to = 0;
            bool before = false, after = false, any = false;
        } all;
        for (std::size_t i = 0; i < n; ++i) {
            const auto& span = strip_.spans[i];
            auto where = range(i == 0 ? strip_.from : span.from, i + 1 == n ? strip_.to : span.to);
            if (!where) continue;
            bool asked = !span.cantilever();
            for (std::size_t k = where->first; k <= where->second; ++k)
                asked |= ultimate_[k].value > 1e-3 * stations_[k].width;
            if (!asked) continue;
            // At the slab's edges bars count as far as they are anchored there, also for twisting at corners.
            const bool before = i == 0 && !strip_.inside[0], after = i + 1 == n && !strip_.inside[1];
            chosen[i] = choose(where->first, where->second, before, after);
            low = std::min(low, chosen[i]->area());
            high = std::max(high, chosen[i]->area());
            if (!all.any) all = {where->first, where->second, before, after, true};
            all.to = where->second, all.after = after;
        }
        // Much the same everywhere: one bar that serves all spans.
        if (all.any && high <= alike * low) {
            auto one = choose(all.from, all.to, all.before, all.after);
            for (auto& c : chosen)
                if (c) c = one;
        }
        for (std::size_t i = 0; i < n; ++i) {
            if (!chosen[i]) continue;
            const auto& span = strip_.spans[i];
            const BarChoice& c = *chosen[i];
            Run r;
            r.id = fmt::format("bottom/{}", i);
            bool first = i == 0 || !chosen[i - 1], last = i + 1 == n || !chosen[i + 1];
            auto past = [&](int support) {
                double half =
                    (strip_.supports[std::size_t(support)].to - strip_.supports[std::size_t(support)].from) /
                    2;
                double least = std::max(150.0, 10 * c.bar->diameter - std::min(half, 300.0));
                // Through inner columns without beams bars of both sides pass, and lap there.
                if (strips::innerColumn(strip_, std::size_t(support)) &&
                    in_.standard.barEnds->through(standards::BarEndRules::Over::ColumnStrip, c.bar->diameter)
                            .bars > 1) {
                    Run lapped;
                    const double thick = thicknessAt(strip_.supports[std::size_t(support)].u);
                    fill(lapped, c, thick);
                    least = std::max(
                        {least, half,
                         in_.standard.anchorage->lap(anchorageInput(lapped, false, thick, in_)) / 2});
                }
                return units::roundUp(least, endStep);
            };
            // Through an overhang or a cantilever that asks for none of its own.
            r.from = first || span.left < 0 ? outer(-1, c) : span.from - past(span.left);
            r.to = last || span.right < 0 ? outer(1, c) : span.to + past(span.right);
            if (i > 0 && !chosen[i - 1] && i > 1) r.from = span.from - past(span.left);
            r.from = std::max(r.from, outer(-1, c)), r.to = std::min(r.to, outer(1, c));
            double h = thicknessAt((span.from + span.to) / 2);
            // At a free edge that asks for bottom steel the bars are turned up.
            if (span.cantilever() && !strip_.inside[span.left < 0 ? 0 : 1])
                (span.left < 0 ? r.start : r.end) = BarEnd::Hook;
            fill(r, c, h);
            // No gap over supports that lie side by side.
            if (!made_.empty() && i > 0 && chosen[i - 1] && made_.back().to < r.from)
                r.from = std::floor((made_.back().to - r.anchorStart) / endStep) * endStep;
            if (r.to - r.from < 200) continue;
            if (!made_.empty() && made_.back().bar == r.bar && made_.back().spacing == r.spacing &&
                made_.back().to >= r.from) {
                made_.back().to = r.to;
                made_.back().end = r.end;
                made_.back().anchorEnd = r.anchorEnd;
                continue;
            }
            made_.push_back(r);
        }
        reachStations();
        // Hooks where straight ends do not anchor at an end support.
        for (auto& r : made_)
            for (int side : {-1, 1}) {
                for (std::size_t i = 0; i < n; ++i) {
                    const auto& span = strip_.spans[i];
                    bool end = side < 0 ? (span.ends[0] == model::EndCondition::Free ||
                                           span.ends[0] == model::EndCondition::OnBeam)
                                        : (span.ends[1] == model::EndCondition::Free ||
                                           span.ends[1] == model::EndCondition::OnBeam);
                    int support = side < 0 ? span.left : span.right;
                    double face = side < 0 ? span.clearFrom : span.clearTo;
                    if (!end || support < 0 || r.from > face || r.to < face) continue;
                    auto straight = endAnchorage(strip_, stations_, demand_, i, side, r, false, in_);
                    if (in_.standard.anchorage->atEnd(straight).outcome == checks::Outcome::Within) continue;
                    (side < 0 ? r.start : r.end) = BarEnd::Hook;
                }
                double h = thicknessAt((r.from + r.to) / 2);
                fill(r, {catalog_.find(r.bar), r.spacing}, h);
            }
    }

    // Ends a little farther out, or hooked at the slab's edge, where what is anchored falls short of what the
    // stations there ask for.
    void reachStations() {
        for (int round = 0; round < 12; ++round) {
            bool short_ = false;
            for (std::size_t i = 0; i < stations_.size(); ++i) {
                const Station& s = stations_[i];
                if (asked_[i] <= 1e-6 || leftToEdge(strip_, s, edgeReach(s, in_))) continue;
                const auto there = steelAt(made_, false, s.u, s.width);
                if (there.diameter <= 0) continue;
                const auto need = in_.standard.flexure->required(
                    line::section(false, there.diameter, s, in_, 1000), asked_[i] / s.width * 1000);
                if (!need.possible || need.As / 1000 <= there.effective * (1 - 1e-9) ||
                    need.As / 1000 > there.full)
                    continue;
                for (auto& r : made_) {
                    if (s.u < r.from || s.u > r.to) continue;
                    const BarChoice c{catalog_.find(r.bar), r.spacing};
                    if (s.u - r.from < r.anchorStart) {
                        const double to = std::max(r.from - endStep, outer(-1, c));
                        short_ |= to < r.from - 1 || r.start != BarEnd::Hook;
                        if (to > r.from - 1 && !strip_.inside[0]) r.start = BarEnd::Hook;
                        r.from = std::min(r.from, to);
                    }
                    if (r.to - s.u < r.anchorEnd) {
                        const double to = std::min(r.to + endStep, outer(1, c));
                        short_ |= to > r.to + 1 || r.end != BarEnd::Hook;
                        if (to < r.to + 1 && !strip_.inside[1]) r.end = BarEnd::Hook;
                        r.to = std::max(r.to, to);
                    }
                    fill(r, c, thicknessAt((r.from + r.to) / 2));
                }
            }
            if (!short_) return;
        }
    }

    void tops() {
        if (strip_.supports.empty()) {
            auto where = range(strip_.from, strip_.to);
            bool asked = false;
            for (const auto& e : ultimate_) asked |= e.value > 0;
            if (where && asked) topZone("top/whole", -1, strip_.from, strip_.to, *where);
            return;
        }
        for (std::size_t s = 0; s < strip_.supports.size(); ++s) {
            const auto& support = strip_.supports[s];
            double from = strip_.from, to = strip_.to;
            for (const auto& span : strip_.spans) {
                if (span.right == int(s))
                    from = span.left < 0 ? strip_.from : (span.clearFrom + span.clearTo) / 2;
                if (span.left == int(s))
                    to = span.right < 0 ? strip_.to : (span.clearFrom + span.clearTo) / 2;
            }
            auto where = range(from, to);
            if (!where) continue;
            bool asked = false;
            for (std::size_t i = where->first; i <= where->second; ++i) asked |= ultimate_[i].value > 0;
            if (asked) topZone("top/" + support.id, int(s), from, to, *where);
        }
        lapNeighbours(made_, drawnGap, endStep, [&](const Run& r) {
            return in_.standard.anchorage->lap(
                anchorageInput(r, false, thicknessAt((r.from + r.to) / 2), in_));
        });
    }

    // Where a band of the heaviest bars does not make up what is wanted over a column, the others do.
    void makeUp(double wanted, std::pair<std::size_t, std::size_t> where, BarChoice& c) const {
        double thin = 1e300, most = 0;
        for (std::size_t i = where.first; i <= where.second; ++i)
            thin = std::min(thin, stations_[i].thickness);
        const auto all = barChoices(in_.basis.mainBars, in_.standard.steel->spacing(in_.role(), true, thin),
                                    in_.basis, in_.standard);
        for (const auto& x : all) most = std::max(most, x.area());
        if (wanted - c.area() <= most) return;
        for (const auto& x : all)
            if (x.area() >= wanted - most && (c.area() < wanted - most || x.area() < c.area())) c = x;
    }

    // A run over a support; it reaches as far as the hogging asks, moved outwards and anchored.
    void topZone(const std::string& zone, int support, double zoneFrom, double zoneTo,
                 std::pair<std::size_t, std::size_t> where) {
        bool atStart = support >= 0, atEnd = support >= 0;  // no span on that side, or one that ends at a tip
        for (const auto& span : strip_.spans) {
            if (span.right == support && span.left >= 0) atStart = false;
            if (span.left == support && span.right >= 0) atEnd = false;
        }
        atStart = atStart && !strip_.inside[0], atEnd = atEnd && !strip_.inside[1];
        BarChoice c = choose(where.first, where.second, atStart, atEnd);
        // What several ask for over one support lies in one band, as wide as the widest.
        PeakBand band;
        for (const auto& b : bands_)
            if (b.support == support) {
                band.support = support;
                band.steel = std::max(band.steel, b.steel), band.width = std::max(band.width, b.width);
            }
        if (band.support >= 0 && band.steel > c.area()) makeUp(band.steel, where, c);
        Run r;
        r.id = zone;
        r.role = role();
        double u = support >= 0 ? strip_.supports[std::size_t(support)].u : (zoneFrom + zoneTo) / 2;
        fill(r, c, thicknessAt(u));
        double d = line::section(true, c.bar->diameter, stations_[where.first], in_, 1000).d;
        auto moved = line::movedDemand(strip_, stations_, demand_, true,
                                       std::vector<double>(stations_.size(), c.bar->diameter), in_);
        // Stations next to the zone on which nothing hogs and something is moved.
        auto tail = [&](int side, std::size_t i) {
            if (side > 0 ? i <= where.second : i >= where.first) return false;
            for (std::size_t k = side > 0 ? where.second + 1 : i; k <= (side > 0 ? i : where.first - 1); ++k)
                if (ultimate_[k].value > 0 || moved[k] <= 1e-6) return false;
            return true;
        };
        // Where each side ends: beyond every station by the share of the anchorage that it needs.
        auto reach = [&](int side) {
            double end = u;
            for (std::size_t i = 0; i < stations_.size(); ++i) {
                const Station& s = stations_[i];
                // What was moved out of the zone belongs to it, too.
                if ((i < where.first || i > where.second) && !tail(side, i)) continue;
                if (side * (s.u - u) < 0 || moved[i] <= 1e-6) continue;
                auto need = in_.standard.flexure->required(line::section(true, c.bar->diameter, s, in_, 1000),
                                                           moved[i] / s.width * 1000);
                double share = need.possible ? std::min(1.0, need.As / 1000 / c.area() * (1 + 1e-6)) : 1;
                end = side > 0 ? std::max(end, s.u + share * r.anchorEnd)
                               : std::min(end, s.u - share * r.anchorStart);
            }
            return end;
        };
        double clearBefore = 0, clearAfter = 0, faceBefore = u, faceAfter = u;
        bool tipBefore = false, tipAfter = false, edgeBefore = true, edgeAfter = true;
        for (const auto& span : strip_.spans) {
            if (support >= 0 && span.right == support) {
                edgeBefore = false, tipBefore = span.left < 0;
                clearBefore = span.clearTo - span.clearFrom, faceBefore = span.clearTo;
            }
            if (support >= 0 && span.left == support) {
                edgeAfter = false, tipAfter = span.right < 0;
                clearAfter = span.clearTo - span.clearFrom, faceAfter = span.clearFrom;
            }
        }
        const bool columns =
            !strip_.onLines && (strip_.kind == Strip::Kind::Column || strip_.kind == Strip::Kind::Full);
        const double least = columns ? 0.3 : 0.25;
        // Where hogging ends, for the standard's least reach past it.
        auto zero = [&](int side) {
            double end = u;
            for (std::size_t i = where.first; i <= where.second; ++i)
                if (side * (stations_[i].u - u) >= 0 && ultimate_[i].value > 1e-6 * stations_[i].width)
                    end = side > 0 ? std::max(end, stations_[i].u) : std::min(end, stations_[i].u);
            return end;
        };
        if (support < 0 || edgeBefore || tipBefore)
            r.from = outer(-1, c);
        else
            r.from = std::min({reach(-1), faceBefore - least * clearBefore,
                               zero(-1) - in_.standard.barEnds->topReach(clearBefore, d, c.bar->diameter)});
        if (support < 0 || edgeAfter || tipAfter)
            r.to = outer(1, c);
        else
            r.to = std::max({reach(1), faceAfter + least * clearAfter,
                             zero(1) + in_.standard.barEnds->topReach(clearAfter, d, c.bar->diameter)});
        if (support >= 0 && (edgeBefore || tipBefore) && !strip_.inside[0]) r.start = BarEnd::Hook;
        if (support >= 0 && (edgeAfter || tipAfter) && !strip_.inside[1]) r.end = BarEnd::Hook;
        if (!(edgeBefore || tipBefore || support < 0)) r.from = units::roundDown(r.from + noise, endStep);
        if (!(edgeAfter || tipAfter || support < 0)) r.to = units::roundUp(r.to - noise, endStep);
        r.from = std::max(r.from, outer(-1, c)), r.to = std::min(r.to, outer(1, c));
        fill(r, c, thicknessAt(u));
        if (r.to - r.from < 200) return;
        made_.push_back(r);
        if (band.support >= 0 && band.steel - c.area() >= onlyBand) {
            // Between the others, at the same spacing where a bar allows it.
            auto all = barChoices(in_.basis.mainBars, in_.basis.spacingMost, in_.basis, in_.standard);
            std::optional<BarChoice> same, any;
            for (const auto& x : all) {
                if (x.area() < band.steel * (1 - 1e-6) - c.area()) continue;
                if (!any) any = x;
                if (!same && x.spacing == c.spacing && x.area() < 2.2 * (band.steel - c.area())) same = x;
            }
            Run more = r;
            more.id = "band/" + strip_.supports[std::size_t(support)].id;
            more.role = model::Role::TopBand;
            more.width = band.width;
            fill(more, same ? *same : any ? *any : all.back(), thicknessAt(u));
            made_.push_back(more);
        }
    }
};

}  // namespace

std::vector<Run> proposeStrip(const Strip& strip, const std::vector<Station>& stations,
                              const line::Demand& demand, bool top, const line::LineBasis& in,
                              const std::vector<model::BarRun>& fixed, const std::vector<PeakBand>& bands,
                              const std::vector<BarChoice>& usual) {
    auto runs = Proposer(strip, stations, demand, top, in, fixed, bands, usual).run();
    // A support may hold a strip twice: the second run over it gets a name of its own.
    std::map<model::Id, int> taken;
    for (Run& r : runs)
        if (const int n = ++taken[r.id]; n > 1) r.id += fmt::format("/{}", n);
    return runs;
}

}  // namespace talvik::bars

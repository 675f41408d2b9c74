#include "schedule/plan_bars.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "model/steps.h"
#include "schedule/cutting.h"

namespace talvik::schedule {
namespace {

using geometry::Point;
using model::BarEnd;
using Stretch = Room::Stretch;

constexpr double shortest = 300;  // shorter pieces are left to the bars along edges
constexpr int fewLengths = 3;     // so many on a run are cut as they are

// Of a ring, where a line along x (or y) is inside.
void cutRing(const Ring& ring, bool along, double at, std::vector<Stretch>& into) {
    thread_local std::vector<double> cuts;
    cuts.clear();
    Point before = ring.back();
    for (const Point& p : ring) {
        const double a = along ? before.y : before.x, b = along ? p.y : p.x;
        if ((a > at) != (b > at)) {
            const double t = (at - a) / (b - a);
            cuts.push_back(along ? before.x + t * (p.x - before.x) : before.y + t * (p.y - before.y));
        }
        before = p;
    }
    std::sort(cuts.begin(), cuts.end());
    for (std::size_t k = 0; k + 1 < cuts.size(); k += 2) into.push_back({cuts[k], cuts[k + 1]});
}

// What touches becomes one; ascending.
std::vector<Stretch> joined(std::vector<Stretch> all) {
    std::sort(all.begin(), all.end(), [](const Stretch& a, const Stretch& b) { return a.from < b.from; });
    std::vector<Stretch> out;
    for (const Stretch& s : all) {
        if (!out.empty() && s.from <= out.back().to + 1)
            out.back().to = std::max(out.back().to, s.to);
        else
            out.push_back(s);
    }
    return out;
}

std::vector<Stretch> less(const std::vector<Stretch>& all, const std::vector<Stretch>& holes) {
    std::vector<Stretch> out;
    for (Stretch s : all) {
        for (const Stretch& h : holes) {
            if (h.to <= s.from || h.from >= s.to) continue;
            if (h.from > s.from) out.push_back({s.from, h.from});
            s.from = std::max(s.from, h.to);
        }
        if (s.to > s.from) out.push_back(s);
    }
    return out;
}

class StripMaker {
  public:
    StripMaker(const StripBody& body, const line::LineBasis& in)
        : body_(body),
          strip_(body.strip),
          room_(body.room.in(body.strip.axes)),
          in_(in),
          basis_(in.basis),
          anchorage_(*in.standard.anchorage) {
        for (const Ring& part : strip_.parts) {
            Ring& own = parts_.emplace_back();
            for (const Point& p : part) {
                own.push_back(strip_.axes.local(p));
                low_ = std::min(low_, own.back().y), high_ = std::max(high_, own.back().y);
            }
        }
        for (const auto& st : body.stations) across_.push_back(region(st.u, false));
    }

    std::vector<Item> run(const std::vector<bars::Run>& runs) {
        for (const auto& r : runs)
            if (!model::across(r.role)) add(r);
        return std::move(items_);
    }

  private:
    // A bar before it is cut: along its line, with what its ends are.
    struct Bar {
        double v, from, to;
        Stretch free;           // how far there is room
        bool edgeFrom, edgeTo;  // at the end of the room: may be cut shorter there
        bool first, last;       // of its line
    };
    const StripBody& body_;
    const strips::Strip& strip_;
    const Room room_;  // in the axes of the strip, as its parts
    std::vector<Ring> parts_;
    std::vector<std::vector<Stretch>> across_;  // of the strip, per station
    const line::LineBasis& in_;
    const model::Basis& basis_;
    const standards::AnchorageRules& anchorage_;
    double low_ = 1e300, high_ = -1e300;
    std::vector<Item> items_;

    std::vector<Stretch> region(double at, bool along) const {
        std::vector<Stretch> all;
        for (const Ring& part : parts_) cutRing(part, along, at, all);
        return joined(std::move(all));
    }

    // On which lines bars of the run stand: closer than its spacing where the strip changes its width and
    // fewer would stand across it somewhere than its spacing asks for.
    std::vector<double> lines(const bars::Run& r) const {
        auto all = lines(r, r.spacing);
        if (r.band()) return all;
        double spacing = r.spacing;
        for (double share = 0.98; share > 0.7 && !enough(r, all); share -= 0.02)
            all = lines(r, spacing = share * r.spacing);
        return throughColumns(r, spacing, std::move(all));
    }
    // As many bottom bars as the standard asks pass through inner columns: where they would lie otherwise one
    // more is laid, or all a little to the side. Mirrored strips have mirrored bars.
    std::vector<double> throughColumns(const bars::Run& r, double spacing, std::vector<double> all) const {
        if (r.top()) return all;
        const int wanted =
            in_.standard.barEnds->through(standards::BarEndRules::Over::ColumnStrip, r.diameter).bars;
        struct Core {
            double from, to;
            int wanted;
        };
        std::vector<Core> cores;
        for (std::size_t k = 0; k < strip_.supports.size(); ++k)
            if (const auto& p = strip_.supports[k];
                strips::innerColumn(strip_, k) && r.from < p.from && r.to > p.to) {
                const double v = strip_.v(p.u), half = p.across / 2 - line::coreCover;
                cores.push_back({v - half, v + half, wanted - strips::edgeBarThrough(strip_, k)});
            }
        // The first column through which too few pass.
        auto missed = [&](const std::vector<double>& at) -> const Core* {
            for (const Core& c : cores)
                if (std::count_if(at.begin(), at.end(), [&](double v) { return v >= c.from && v <= c.to; }) <
                    c.wanted)
                    return &c;
            return nullptr;
        };
        if (wanted < 2 || !missed(all)) return all;
        for (int more : {0, 1}) {
            const auto other = lines(r, spacing, more);
            const Core* core = missed(other);
            if (!core) return other;
            // The middle between two bars onto the middle of the column.
            double aside = 1e9;
            for (std::size_t k = 0; k + 1 < other.size(); ++k)
                if (const double off = (core->from + core->to - other[k] - other[k + 1]) / 2;
                    std::abs(off) < std::abs(aside))
                    aside = off;
            if (const auto moved = lines(r, spacing, more, aside); !missed(moved)) return moved;
        }
        return all;
    }
    bool enough(const bars::Run& r, const std::vector<double>& all) const {
        for (std::size_t k = 0; k < across_.size(); ++k) {
            const auto& st = body_.stations[k];
            if (st.u < r.from || st.u > r.to || st.width < 2 * r.spacing) continue;
            double n = 0, width = 0;
            for (const Stretch& s : across_[k]) {
                width += s.to - s.from;
                n += double(std::lower_bound(all.begin(), all.end(), s.to) -
                            std::upper_bound(all.begin(), all.end(), s.from));
            }
            if (n * r.spacing <= width - 0.01 * r.spacing) return false;
        }
        return true;
    }
    // `more` bars than that spacing needs, all of them moved `aside` where there is room.
    std::vector<double> lines(const bars::Run& r, double spacing, int more = 0, double aside = 0) const {
        double a = 0, b = 0;  // the width in the middle of the run
        const double u = std::clamp((r.from + r.to) / 2, strip_.from + 1, strip_.to - 1);
        if (r.band()) {
            a = strip_.v(u) - r.width / 2, b = a + r.width;
        } else {
            for (const Stretch& s : region(u, false)) {
                if (a == b)
                    a = s.from, b = s.to;
                else
                    a = std::min(a, s.from), b = std::max(b, s.to);
            }
            if (a == b) a = low_, b = high_;
        }
        const int n = std::max(1, int(std::ceil((b - a) / spacing - 1e-6))) + more;
        // Not nearer to an edge than the room goes, at that place.
        double low = a, high = b;
        const auto room = room_.across(u);
        if (!room.empty()) {
            const double outer[2] = {room.front().from, room.back().to};
            if (outer[0] > low && outer[0] < high) low = outer[0] + 0.5;
            if (outer[1] < high && outer[1] > low) high = outer[1] - 0.5;
        }
        const double even = more > 0 ? (b - a) / n : spacing,
                     pitch = n > 1 ? std::min(even, (high - low) / (n - 1)) : even;
        double first = (a + b) / 2 - (n - 1) * pitch / 2 + aside;
        first = std::clamp(first, low, std::max(low, high - (n - 1) * pitch));
        std::vector<double> all;
        // Beyond that width where the strip is wider elsewhere.
        const bool wider = !r.band() && pitch > 1;
        for (double v = first - pitch; wider && v > low_; v -= pitch) all.push_back(v);
        for (int k = 0; k < n; ++k) all.push_back(first + k * pitch);
        for (double v = first + n * pitch; wider && v < high_; v += pitch) all.push_back(v);
        std::sort(all.begin(), all.end());
        return all;
    }

    std::vector<Bar> barsOf(const bars::Run& r, double lap) const {
        std::vector<Bar> all;
        for (double v : lines(r)) {
            auto line = barsOn(v, r, lap);
            // Along a step there is no room on either side of it: beside it.
            if (room_.stepped(r.top()))
                for (double off : {room_.cover() + 1, -room_.cover() - 1})
                    if (auto beside = barsOn(v + off, r, lap); length(beside) > length(line) + shortest)
                        line = std::move(beside);
            if (!line.empty()) line.front().first = true, line.back().last = true;
            all.insert(all.end(), line.begin(), line.end());
        }
        return all;
    }
    static double length(const std::vector<Bar>& line) {
        double sum = 0;
        for (const Bar& b : line) sum += b.to - b.from;
        return sum;
    }
    std::vector<Bar> barsOn(double v, const bars::Run& r, double lap) const {
        std::vector<Bar> all;
        const auto strip = r.band() ? std::vector<Stretch>{{r.from, r.to}} : region(v, true);
        for (const auto& [own, free] : room_.pieces(v, r.top())) {
            // Where the strip ends beside the bar it goes on until it is anchored, at a step by its lap.
            double from = 1e300, to = -1e300;
            for (const Stretch& s : strip) {
                const double start = std::max(s.from, own.from), end = std::min(s.to, own.to);
                const double a = std::max({start, free.from, r.from}), b = std::min({end, free.to, r.to});
                if (b - a < 50) continue;
                from = std::min(from, a - (a > start + 1 ? 0 : own.from > s.from ? lap : r.anchorStart));
                to = std::max(to, b + (b < end - 1 ? 0 : own.to < s.to ? lap : r.anchorEnd));
            }
            if (to < from) continue;
            const double a = std::max({from, free.from, r.from}), b = std::min({to, free.to, r.to});
            if (b - a < shortest) continue;
            all.push_back({v, a, b, free, a - 1 < free.from, b + 1 > free.to, false, false});
        }
        return all;
    }

    // Cut in steps, larger ones where there are many lengths: shorter at ends that lie at an edge, else
    // longer where there is room.
    void round(std::vector<Bar>& all) const {
        const std::vector<double> steps =
            basis_.lengthStep > 0 ? std::vector{basis_.lengthStep} : std::vector{50.0, 100.0, 200.0};
        for (double step : steps) {
            std::set<double> lengths;
            for (Bar& b : all) {
                const double is = b.to - b.from;
                double l = units::roundDown(is + 1e-6, step);
                if (b.edgeFrom && b.edgeTo) {
                    b.from += (is - l) / 2, b.to -= (is - l) / 2;
                } else if (b.edgeFrom) {
                    b.from += is - l;
                } else if (b.edgeTo) {
                    b.to -= is - l;
                } else {
                    l = units::roundUp(is - 1e-6, step);
                    const double more = l - is, end = std::min(more, b.free.to - b.to);
                    if (b.from - b.free.from + end >= more) b.to += end, b.from -= more - end;
                }
                lengths.insert(std::round(b.to - b.from));
            }
            if (lengths.size() <= fewLengths) return;
        }
    }

    void add(const bars::Run& r) {
        if (r.role == model::Role::EndU || r.role == model::Role::SideU) return;
        const auto& bar = *catalogs::barCatalog(basis_.barCatalog)->find(r.bar);
        const double lap =
            units::roundUp(anchorage_.lap(bars::anchorageInput(r, false, body_.thickness, in_)), 50);
        auto all = barsOf(r, lap);
        round(all);
        const double depth = units::roundDown(body_.thickness - basis_.coverTop - basis_.coverBottom, 5),
                     leg = hookLeg(depth, bar.diameter, anchorage_);
        Item blank;
        blank.run = r.id, blank.bar = r.bar, blank.diameter = bar.diameter, blank.spacing = r.spacing;
        const bool outer = (r.top() ? in_.outerTop : in_.outerBottom) <= 0;
        blank.layer = fmt::format("{}{}", r.top() ? 'T' : 'B', outer ? 1 : 2);
        blank.from = r.from, blank.to = r.to;
        std::map<std::tuple<bool, bool, double>, std::size_t> known;
        auto place = [&](double v, double from, double to, bool start, bool end, const std::string& note) {
            const double straight = units::roundDown(to - from + 1e-6, 5);
            const auto [at, fresh] = known.try_emplace({start, end, straight}, items_.size());
            if (fresh) {
                Item i = blank;
                shape(i, straight, leg, start, end);
                if ((start || end) && leg > depth) i.note = tilted;
                if (!note.empty()) i.note = note;
                cut(i, bar, anchorage_);
                items_.push_back(std::move(i));
            }
            Item& i = items_[at->second];
            ++i.number;
            i.lie.push_back({strip_.axes.plan({from, v}), strip_.axes.plan({from + straight, v})});
        };
        double longest = 0;
        for (const Bar& b : all) longest = std::max(longest, b.to - b.from);
        int turn = 0;
        double line = 1e300;
        for (const Bar& b : all) {
            if (b.v != line) line = b.v, ++turn;
            const bool start = r.start == BarEnd::Hook && b.first, end = r.end == BarEnd::Hook && b.last;
            const double total = b.to - b.from, stock = basis_.stockLength - leg * (start + end);
            if (total <= stock) {
                place(b.v, b.from, b.to, start, end, {});
                continue;
            }
            // As few pieces as the stock allows. All but the last are those of the run's longest line, the
            // first by turns longer and shorter, so that laps of neighbours lie apart.
            const double shift = units::roundUp(0.65 * lap, 50);
            auto piecesOf = [&](double length) {
                const double step = std::max(stock - lap - shift - 100, 1000.0);
                return std::max(2, int(std::ceil((length - lap) / step - 1e-9)));
            };
            auto eachOf = [&](double length, int n) {
                return units::roundUp((length + (n - 1) * lap) / n, 100);
            };
            const int pieces = piecesOf(total);
            double each = eachOf(longest, piecesOf(longest));
            if (const double rest = total - (pieces - 1) * (each - lap);
                rest < 2 * lap + shift || rest + shift + 100 > stock)
                each = eachOf(total, pieces);
            const std::string note = fmt::format("{} pieces, laps of at least {}", pieces, units::plain(lap));
            const double off = turn % 2 ? shift : -shift;
            double at = b.from;
            for (int k = 0; k < pieces; ++k) {
                const bool last = k + 1 == pieces;
                double to = at + each + (k == 0 ? off : 0);
                if (last) to = b.to, at = std::max(b.from, b.to - units::roundUp(b.to - at, 100));
                place(b.v, at, to, start && k == 0, end && last, note);
                at = to - lap;
            }
        }
    }
};

}  // namespace

Room::Room(const model::Floor& floor, double cover) : cover_(cover) {
    for (const Ring& s : model::concrete(floor))
        for (auto& r : geometry::offset(s, -cover)) slabs_.push_back(std::move(r));
    for (const auto& o : floor.openings)
        for (auto& r : geometry::offset(model::ring(o.outline), cover)) openings_.push_back(std::move(r));
    for (bool top : {false, true}) {
        auto faces = model::faceLevels(floor, top);
        if (faces.size() < 2) continue;
        for (auto& f : faces) {
            Level& l = levels_[top].emplace_back();
            l.others = std::move(f.others);
            for (const Ring& s : f.missing)
                for (auto& r : geometry::offset(s, cover)) l.missing.push_back(std::move(r));
        }
    }
}

Room Room::in(const strips::Axes& axes) const {
    Room room = *this;
    auto turn = [&](std::vector<Ring>& rings) {
        for (Ring& r : rings)
            for (Point& p : r) p = axes.local(p);
    };
    turn(room.slabs_), turn(room.openings_);
    for (auto& face : room.levels_)
        for (Level& l : face) turn(l.others), turn(l.missing);
    return room;
}
std::vector<Stretch> Room::cut(bool along, double at) const {
    std::vector<Stretch> slabs, holes;
    for (const Ring& r : slabs_) cutRing(r, along, at, slabs);
    for (const Ring& r : openings_) cutRing(r, along, at, holes);
    return less(joined(std::move(slabs)), joined(std::move(holes)));
}
std::vector<Stretch> Room::along(double y) const {
    return cut(true, y);
}
std::vector<Stretch> Room::across(double x) const {
    return cut(false, x);
}
std::vector<Room::Piece> Room::pieces(double y, bool top) const {
    constexpr Stretch everywhere{-1e9, 1e9};
    std::vector<Piece> all;
    const auto room = along(y);
    if (levels_[top].empty())
        for (const Stretch& free : room) all.push_back({everywhere, free});
    for (const Level& l : levels_[top]) {
        std::vector<Stretch> others, missing;
        for (const Ring& r : l.others) cutRing(r, true, y, others);
        for (const Ring& r : l.missing) cutRing(r, true, y, missing);
        const auto own = less({everywhere}, joined(std::move(others)));
        for (const Stretch& free : less(room, joined(std::move(missing))))
            for (const Stretch& o : own)
                if (std::min(o.to, free.to) > std::max(o.from, free.from)) all.push_back({o, free});
    }
    std::stable_sort(all.begin(), all.end(), [](const Piece& a, const Piece& b) {
        return std::max(a.own.from, a.free.from) < std::max(b.own.from, b.free.from);
    });
    return all;
}

std::vector<Item> items(const std::vector<bars::Run>& runs, const StripBody& body,
                        const line::LineBasis& in) {
    return StripMaker(body, in).run(runs);
}

Item links(const std::string& bar, double from, double to, double along, double across, const StripBody& body,
           const line::LineBasis& in) {
    const double diameter = catalogs::barCatalog(in.basis.barCatalog)->find(bar)->diameter;
    const auto room = body.room.in(body.strip.axes);
    double widest = 0;
    std::vector<std::pair<double, std::vector<std::pair<double, double>>>> stretches;
    for (double middle : linkRows(from, to, along)) {
        const double aside = body.room.cover() + 1,
                     u = std::clamp(middle, body.strip.from + (body.strip.inside[0] ? 0 : aside),
                                    body.strip.to - (body.strip.inside[1] ? 0 : aside));
        auto& row = stretches.emplace_back(u, std::vector<std::pair<double, double>>{}).second;
        std::vector<Stretch> pieces;
        for (const auto& part : body.strip.parts) {
            Ring local;
            for (const auto& p : part) local.push_back(body.strip.axes.local(p));
            cutRing(local, false, u, pieces);
        }
        for (const auto& c : joined(std::move(pieces)))
            for (const auto& r : room.across(u))
                if (const double a = std::max(c.from, r.from), b = std::min(c.to, r.to); b - a > 2 * diameter)
                    row.emplace_back(a, b), widest = std::max(widest, b - a);
    }
    const int pairs = linkPairs(widest, diameter, across);
    const double apart = widest / (2 * pairs);
    Item i = closedLink(bar, body.thickness, apart, in);
    i.run = fmt::format("links/{:.0f}", from);
    i.spacing = along, i.from = from, i.to = to;
    const double broad = i.dimensions.at('B');
    for (const auto& [u, row] : stretches)
        for (const auto& [a, b] : row) {
            if (b - a < broad) continue;  // no room for one; the strip beside has its own
            const int n = std::max(1, int(std::ceil((b - a) / apart / 2 - 1e-9)));
            const double step = (b - a) / (2 * n);
            for (int k = 0; k < n; ++k) {
                const double mid = a + (2 * k + 1) * step, half = broad / 2;
                i.lie.push_back(
                    {body.strip.axes.plan({u, mid - half}), body.strip.axes.plan({u, mid + half})});
                ++i.number;
            }
        }
    return i;
}

}  // namespace talvik::schedule

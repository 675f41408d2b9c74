#include "design/edge_bars.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "bars/bar_choices.h"
#include "bars/steel.h"
#include "model/steps.h"
#include "schedule/cutting.h"

namespace talvik::design {
namespace {

using geometry::Point;
using geometry::Ring;
using geometry::Segment;
using schedule::Item;

constexpr double apart = 60;       // of bars beside an opening
constexpr double shortSide = 400;  // sides so short, as of arcs, have no bars along them

class Maker {
  public:
    Maker(const FloorDesign& f, const schedule::Room& room)
        : f_(f), room_(room), basis_(*f.basis), thickness_(*f.floor) {
        // The least of the steel allowed across strips.
        const auto all = bars::barChoices(basis_.secondaryBars, basis_.spacingMost, basis_, *f.standard);
        if (!all.empty()) bar_ = all.front().bar, spacing_ = all.front().spacing;
    }

    std::vector<std::shared_ptr<const PartAnswer>> make() {
        std::vector<std::shared_ptr<const PartAnswer>> all;
        if (!bar_ || f_.floor->slabs.empty()) return all;
        auto edges = part("edges", "Edges"), steps = part("steps", "Steps of level");
        std::vector<Segment> free, ending;
        for (const auto& s : model::slabSides(*f_.floor)) (s.beside < 0 ? free : ending).push_back(s.along);
        line(*edges, free, "edge/0");
        all.push_back(std::move(edges));
        line(*steps, ending, "step/0");
        if (!steps->items.empty()) all.push_back(std::move(steps));
        for (const auto& z : f_.floor->zones) {
            auto drop = part(z.id, "Drop " + (z.name.empty() ? z.id : z.name));
            mat(*drop, z);
            if (!drop->items.empty()) all.push_back(std::move(drop));
        }
        for (const auto& o : f_.floor->openings) {
            auto opening = part(o.id, "Opening " + (o.name.empty() ? o.id : o.name));
            const Ring outline = model::ring(o.outline);
            Ring reversed = outline;  // so that the slab lies on the left of its sides
            if (geometry::area(reversed) > 0) std::reverse(reversed.begin(), reversed.end());
            std::vector<Segment> sides;
            for (std::size_t i = 0; i < reversed.size(); ++i)
                sides.push_back({reversed[i], reversed[(i + 1) % reversed.size()]});
            line(*opening, sides, "edge/" + o.id);
            cut(*opening, outline, thickness_.at(outline.front()));
            all.push_back(std::move(opening));
        }
        return all;
    }

  private:
    const FloorDesign& f_;
    const schedule::Room& room_;
    const model::Basis& basis_;
    const model::Thickness thickness_;
    const catalogs::Bar* bar_ = nullptr;
    double spacing_ = 200;

    std::shared_ptr<PartAnswer> part(const std::string& key, const std::string& name) const {
        auto p = std::make_shared<PartAnswer>();
        p->part = {f_.floor->id, model::PartKind::Edge, key};
        p->name = name;
        return p;
    }
    void finish(PartAnswer& part, Item item, const catalogs::Bar& bar) const {
        if (item.number == 0) return;
        schedule::cut(item, bar, *f_.standard->anchorage);
        part.items.push_back(std::move(item));
    }

    // Of the bars in the corners of U-bars, by the standard, as top bars lie.
    double lapOf(double h) const {
        const line::LineBasis in{basis_, *f_.standard};
        bars::Run r;
        r.role = model::Role::TopMain, r.bar = bar_->name, r.spacing = spacing_;
        bars::size(r, h, in);
        return units::roundUp(in.standard.anchorage->lap(bars::anchorageInput(r, false, h, in)), 50);
    }

    // Along sides that have the slab on their left: U-bars across the edge, and a bar in either corner of
    // them.
    void line(PartAnswer& part, const std::vector<Segment>& sides, const std::string& run) const {
        const double d = bar_->diameter, cover = basis_.coverSide;
        std::map<double, Item> us;  // by the thickness of the slab where they stand
        auto uAt = [&](double h) -> Item& {
            const auto [at, fresh] = us.try_emplace(h);
            Item& u = at->second;
            if (!fresh) return u;
            const double leg = units::roundUp(2 * h, 50);
            u.run = us.size() == 1 ? run : fmt::format("{}/{}", run, units::plain(h));
            u.bar = bar_->name, u.diameter = d, u.shape = "21", u.layer = "U", u.spacing = spacing_;
            u.dimensions = {
                {'A', leg}, {'B', units::roundDown(h - basis_.coverTop - basis_.coverBottom, 5)}, {'C', leg}};
            return u;
        };
        std::map<double, Item> along;
        double owed = 0;  // bars that short sides before have not had
        for (const auto& [a, b] : sides) {
            const double length = geometry::length(a, b);
            if (length < 1) continue;
            const Point way{(b.x - a.x) / length, (b.y - a.y) / length}, in{-way.y, way.x};
            const bool whole = length >= shortSide;
            const double inside = length - 2 * cover;
            owed += whole ? 0 : length / spacing_;
            const int n = whole ? int(std::ceil(inside / spacing_ - 1e-6)) + 1 : int(owed);
            owed -= whole ? owed : n;
            for (int k = 0; k < n; ++k) {
                const double t =
                    whole ? cover + inside * (n > 1 ? double(k) / (n - 1) : 0.5) : length * (k + 0.5) / n;
                const Point at{a.x + t * way.x + cover * in.x, a.y + t * way.y + cover * in.y};
                Item& u = uAt(thickness_.at(at));
                const double leg = u.dimensions.at('A');
                const Point tip{at.x + leg * in.x, at.y + leg * in.y};
                u.lie.push_back({at, tip});
                ++u.number;
            }
            if (!whole) continue;
            // Pieces of the stock length at the most, lapped.
            const double lap = lapOf(
                             thickness_.at({(a.x + b.x) / 2 + cover * in.x, (a.y + b.y) / 2 + cover * in.y})),
                         straight = units::roundDown(inside, 50);
            const int pieces = straight <= basis_.stockLength
                                   ? 1
                                   : int(std::ceil((straight - lap) / (basis_.stockLength - lap) - 1e-9));
            const double each =
                pieces == 1 ? straight : units::roundUp((straight + (pieces - 1) * lap) / pieces, 50);
            Item& line = along[each];
            line.run = run + "/along", line.bar = bar_->name, line.diameter = d, line.shape = "00";
            line.layer = "U", line.spacing = 0, line.dimensions = {{'A', each}};
            const double step = pieces == 1 ? 0 : (straight - each) / (pieces - 1);
            for (int k = 0; k < pieces; ++k) {
                const double from = cover + (inside - straight) / 2 + k * step, off = cover + 1.5 * d;
                const Point p{a.x + from * way.x + off * in.x, a.y + from * way.y + off * in.y};
                // In the lower and in the upper corner of the U-bars.
                line.lie.insert(line.lie.end(), 2, {p, {p.x + each * way.x, p.y + each * way.y}});
                line.number += 2;
            }
        }
        for (auto& [h, item] : us) finish(part, std::move(item), *bar_);
        for (auto& [length, item] : along) finish(part, std::move(item), *bar_);
    }

    // Below a slab that is thicker in places its own bars pass above: a mat of bars bent up at their ends,
    // both ways, closes the soffit and the sides there.
    void mat(PartAnswer& part, const model::Zone& z) const {
        const Ring outline = model::ring(z.outline);
        model::Floor plain = *f_.floor;
        plain.zones.clear();
        const double slab = model::Thickness(plain).at(geometry::centroid(outline));
        if (z.thickness < slab + 50 || z.level == model::Zone::Level::Bottom) return;
        model::Floor only;  // the drop alone, less what is open in it
        for (const Ring& o : model::outlines(*f_.floor))
            for (const Ring& in : geometry::intersection(outline, o)) {
                model::SlabArea a;
                for (Point p : in) a.outline.push_back({p.x, p.y});
                only.slabs.push_back(std::move(a));
            }
        only.openings = f_.floor->openings;
        const schedule::Room room(only, room_.cover());
        const double leg = units::roundDown(z.thickness - basis_.coverTop - basis_.coverBottom, 5);
        for (int direction : {0, 1}) {
            const StripDesign* like = nullptr;
            for (const auto& s : f_.strips)
                if (s->direction == direction && !like) like = s.get();
            if (!like) continue;
            const auto& axes = like->strip->axes;
            const auto turned = room.in(axes);
            double low = 1e300, high = -1e300;
            for (Point p : outline)
                low = std::min(low, axes.local(p).y), high = std::max(high, axes.local(p).y);
            low += room_.cover() + 1, high -= room_.cover() + 1;
            if (high < low) continue;
            const int n = int(std::ceil((high - low) / spacing_ - 1e-6)) + 1;
            std::map<double, Item> lengths;
            for (int k = 0; k < n; ++k) {
                const double v = n > 1 ? low + k * (high - low) / (n - 1) : (low + high) / 2;
                for (const auto& free : turned.along(v)) {
                    const double straight = units::roundDown(free.to - free.from + 1e-6, 10);
                    if (straight < 200) continue;
                    Item& i = lengths[straight];
                    i.run = fmt::format("drop/{}", direction);
                    i.bar = bar_->name, i.diameter = bar_->diameter, i.spacing = spacing_;
                    i.shape = "21", i.dimensions = {{'A', leg}, {'B', straight}, {'C', leg}};
                    const auto in = lineBasis(f_, *like);
                    i.layer = fmt::format("B{}", in.outer(false) <= 0 ? 1 : 2);
                    const double from = (free.from + free.to - straight) / 2;
                    i.lie.push_back({axes.plan({from, v}), axes.plan({from + straight, v})});
                    ++i.number;
                }
            }
            for (auto& [length, item] : lengths) finish(part, std::move(item), *bar_);
        }
    }

    // Half of the steel that an opening cuts off on either side of it, with its anchorage beyond; of both
    // directions and faces.
    void cut(PartAnswer& part, const Ring& outline, double h) const {
        const auto* catalog = catalogs::barCatalog(basis_.barCatalog);
        for (int direction : {0, 1})
            for (bool top : {false, true}) {
                // The strongest run of the face that lies at the opening.
                const bars::Run* most = nullptr;
                const StripDesign* of = nullptr;
                for (const auto& s : f_.strips) {
                    if (s->direction != direction) continue;
                    const bool here =
                        std::any_of(s->strip->parts.begin(), s->strip->parts.end(), [&](const Ring& r) {
                            return std::any_of(outline.begin(), outline.end(), [&](Point p) {
                                return geometry::contains(r, p) || geometry::distanceToEdge(r, p) < 5;
                            });
                        });
                    if (!here) continue;
                    double low = 1e300, high = -1e300;
                    for (Point p : outline) {
                        const double x = s->strip->axes.local(p).x;
                        low = std::min(low, x), high = std::max(high, x);
                    }
                    for (const auto& r : s->runs)
                        if (r.top() == top && !r.band() && model::isMain(r.role) && r.from < high &&
                            r.to > low && (!most || r.area > most->area))
                            most = &r, of = s.get();
                }
                if (!most) continue;
                const auto& axes = of->strip->axes;
                double low[2] = {1e300, 1e300}, high[2] = {-1e300, -1e300};
                for (Point p : outline) {
                    const Point q = axes.local(p);
                    low[0] = std::min(low[0], q.x), high[0] = std::max(high[0], q.x);
                    low[1] = std::min(low[1], q.y), high[1] = std::max(high[1], q.y);
                }
                const auto& bar = *catalog->find(most->bar);
                const int n = std::max(1, int(std::ceil((high[1] - low[1]) / most->spacing / 2 - 1e-6)));
                const auto in = lineBasis(f_, *of);
                const double anchor = units::roundUp(
                    f_.standard->anchorage->length(bars::anchorageInput(*most, false, h, in)), 50);
                const auto room = room_.in(axes);
                std::map<double, Item> lengths;
                for (int side : {0, 1})
                    for (int k = 0; k < n; ++k) {
                        const double off = room_.cover() + 1 + k * apart,
                                     v = side == 0 ? low[1] - off : high[1] + off,
                                     middle = (low[0] + high[0]) / 2;
                        for (const auto& [own, free] : room.pieces(v, top)) {
                            if (free.from > middle || free.to < middle || own.from > middle ||
                                own.to < middle)
                                continue;
                            const double from = std::max(free.from, low[0] - anchor),
                                         to = std::min(free.to, high[0] + anchor),
                                         straight = units::roundDown(to - from + 1e-6, 50);
                            if (straight < 300) continue;
                            Item& i = lengths[straight];
                            i.run = fmt::format("beside/{}{}", direction, top ? "t" : "b");
                            i.bar = bar.name, i.diameter = bar.diameter, i.shape = "00";
                            i.dimensions = {{'A', straight}}, i.spacing = apart;
                            i.layer = fmt::format("{}{}", top ? 'T' : 'B', in.outer(top) <= 0 ? 1 : 2);
                            i.lie.push_back({axes.plan({from, v}), axes.plan({from + straight, v})});
                            ++i.number;
                        }
                    }
                for (auto& [length, item] : lengths) finish(part, std::move(item), bar);
            }
    }
};

}  // namespace

std::vector<std::shared_ptr<const PartAnswer>> edgeBars(const FloorDesign& f, const schedule::Room& room) {
    return Maker(f, room).make();
}

}  // namespace talvik::design

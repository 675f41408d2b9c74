#include "design/arrangements.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "model/floor_validation.h"

namespace talvik::design {
namespace {

using Kind = model::FloorLoad::Kind;
using Nature = model::LoadCase::Nature;
using layout::Panel;
using model::Point;

constexpr double crumb = 60;   // mm: pieces of lines shorter than this are no loads of their own
constexpr int pairsApart = 5;  // rows from a loaded pair to the next in the same arrangement

// A load as it falls on panels: pieces of areas and lines, points and moments whole.
class Divider {
  public:
    Divider(const std::vector<Panel>& panels, const model::Floor& floor) : panels_(panels) {
        for (const auto& o : floor.openings) openings_.push_back(model::ring(o.outline));
    }

    // Calls take(panel, piece of the load) for every piece.
    template <class Take>
    void divide(const model::FloorLoad& load, Take take) const {
        if (load.kind == Kind::Area)
            area(load, take);
        else if (load.kind == Kind::Line)
            line(load, take);
        else
            take(ownerOf(load.a), load);
    }

  private:
    const std::vector<Panel>& panels_;
    std::vector<geometry::Ring> openings_;

    // The panel in which a point lies, else the one nearest.
    std::size_t ownerOf(Point p) const {
        std::size_t best = 0;
        double least = 1e300;
        for (std::size_t k = 0; k < panels_.size(); ++k)
            for (const auto& ring : panels_[k].parts) {
                if (geometry::contains(ring, p)) return k;
                if (double d = geometry::distanceToEdge(ring, p); d < least) least = d, best = k;
            }
        return best;
    }

    template <class Take>
    void line(const model::FloorLoad& load, Take take) const {
        const double length = geometry::length(load.a, load.b);
        if (length < 1) return take(ownerOf(load.a), load);
        std::vector<double> stops{0, 1};
        for (const auto& p : panels_)
            for (const auto& ring : p.parts)
                for (std::size_t i = 0; i < ring.size(); ++i)
                    if (Point at; geometry::cross(load.a, load.b, ring[i], ring[(i + 1) % ring.size()], &at))
                        stops.push_back(geometry::length(load.a, at) / length);
        std::sort(stops.begin(), stops.end());
        auto place = [&](double t) {
            return Point{load.a.x + t * (load.b.x - load.a.x), load.a.y + t * (load.b.y - load.a.y)};
        };
        double from = 0;
        for (double stop : stops) {
            // Crumbs go with the piece before or after them.
            const bool last = stop >= 1;
            if (!last && ((stop - from) * length < crumb || (1 - stop) * length < crumb)) continue;
            if (stop <= from) continue;
            auto piece = load;
            piece.a = place(from), piece.b = place(stop);
            take(ownerOf(place((from + stop) / 2)), piece);
            from = stop;
            if (last) break;
        }
    }

    template <class Take>
    void area(const model::FloorLoad& load, Take take) const {
        for (std::size_t k = 0; k < panels_.size(); ++k)
            for (const auto& ring : panels_[k].parts) {
                std::vector<geometry::Ring> pieces;
                for (auto& piece : load.outline.empty()
                                       ? std::vector<geometry::Ring>(1, ring)
                                       : geometry::intersection(ring, model::ring(load.outline))) {
                    const bool cut = std::any_of(openings_.begin(), openings_.end(), [&](const auto& o) {
                        return geometry::shared(piece, o).area > 0;
                    });
                    if (!cut)
                        pieces.push_back(std::move(piece));
                    else
                        for (auto& rest : geometry::difference(piece, openings_))
                            pieces.push_back(std::move(rest));
                }
                for (const auto& piece : pieces) {
                    if (geometry::area(piece) < 1e4) continue;
                    auto one = load;
                    one.outline = outline(piece);
                    if (one.outline.size() > 2 && geometry::invalid(model::ring(one.outline)).empty())
                        take(k, one);
                }
            }
    }
    static model::Outline outline(const geometry::Ring& ring) {
        model::Outline out;
        auto close = [](const model::Corner& a, Point b) { return std::hypot(a.x - b.x, a.y - b.y) <= 1; };
        for (Point q : ring)
            if (out.empty() || !close(out.back(), q)) out.push_back({q.x, q.y});
        if (out.size() > 2 && close(out.back(), {out.front().x, out.front().y})) out.pop_back();
        return out;
    }
};

double total(const model::FloorLoad& load) {
    if (load.kind == Kind::Area)
        return std::abs(model::intensity(load)) * geometry::area(model::ring(load.outline));
    if (load.kind == Kind::Line) return std::abs(load.value) * geometry::length(load.a, load.b);
    return load.kind == Kind::Point ? std::abs(load.value) : 0;
}

// The largest ratio of imposed to permanent load over the panels.
double imposedOverPermanent(const model::Floor& floor, const std::vector<Panel>& panels, double density) {
    std::vector<double> imposed(panels.size(), 0), permanent(panels.size(), 0);
    for (std::size_t k = 0; k < panels.size(); ++k)
        for (const auto& ring : panels[k].parts)
            permanent[k] += panels[k].thickness * density * geometry::area(ring);
    const Divider divider(panels, floor);
    for (const auto& c : floor.actions.cases)
        for (const auto& l : floor.actions.loads)
            if (l.loadCase == c.id && (c.permanent() || c.nature == Nature::Imposed))
                divider.divide(l, [&](std::size_t k, const model::FloorLoad& piece) {
                    (c.nature == Nature::Imposed ? imposed : permanent)[k] += total(piece);
                });
    double most = 0;
    for (std::size_t k = 0; k < panels.size(); ++k)
        most = std::max(most, imposed[k] / std::max(permanent[k], 1e-9));
    return most;
}

// "A–B, C–D": the bays of a row as the grid names them; panels of their own names one by one.
std::string rowName(const std::vector<Panel>& panels, int Panel::*where, int row) {
    std::vector<std::string> names;
    std::set<std::string> parts[2];  // before and after the stroke
    for (const auto& p : panels) {
        if (p.*where != row) continue;
        names.push_back(p.name);
        const auto stroke = p.name.find('/');
        for (int k : {0, 1})
            parts[k].insert(stroke == std::string::npos ? p.name
                            : k == 0                    ? p.name.substr(0, stroke)
                                                        : p.name.substr(stroke + 1));
    }
    const bool grid =
        std::all_of(names.begin(), names.end(), [](const auto& n) { return n.find('/') != n.npos; });
    if (grid && names.size() > 1)
        for (const auto& common : parts)
            if (common.size() == 1) return *common.begin();
    return names.size() > 3 ? fmt::format("{} … {}", names.front(), names.back())
                            : fmt::format("{}", fmt::join(names, " + "));
}
std::string listed(std::vector<std::string> names) {
    const std::size_t all = names.size();
    if (all > 5) names.resize(4), names.push_back(fmt::format("{} more", all - 4));
    return fmt::format("{}", fmt::join(names, ", "));
}

}  // namespace

std::vector<PanelLoading> panelLoadings(const std::vector<Panel>& panels) {
    std::vector<PanelLoading> all;
    auto add = [&](auto title, auto loaded) {
        PanelLoading one;
        std::size_t count = 0;
        for (const auto& p : panels) one.loaded.push_back(loaded(p)), count += one.loaded.back();
        if (count == 0 || count == panels.size()) return;
        for (const auto& o : all)
            if (o.loaded == one.loaded) return;
        one.title = title(one.loaded);
        all.push_back(std::move(one));
    };
    for (auto where : {&Panel::row, &Panel::column}) {
        int last = 0;
        for (const auto& p : panels) last = std::max(last, p.*where);
        auto rows = [&](const auto& loaded) {
            std::set<int> which;
            for (std::size_t k = 0; k < panels.size(); ++k)
                if (loaded[k]) which.insert(panels[k].*where);
            std::vector<std::string> names;
            for (int row : which) names.push_back(rowName(panels, where, row));
            return "panels " + listed(std::move(names));
        };
        for (int k : {0, 1}) add(rows, [k, w = where](const Panel& p) { return p.*w % 2 == k; });
        for (int first = 0; first < pairsApart && first < last; ++first)
            add(rows, [first, last, w = where](const Panel& p) {
                const int i = p.*w - first;
                // A pair begins at every fifth row; a last row alone is none.
                return i >= 0 && (i % pairsApart == 1 || (i % pairsApart == 0 && p.*w < last));
            });
    }
    auto each = [&](const auto& loaded) {
        std::vector<std::string> names;
        for (std::size_t k = 0; k < panels.size(); ++k)
            if (loaded[k]) names.push_back(panels[k].name);
        return "panels " + listed(std::move(names));
    };
    for (int k : {0, 1}) add(each, [k](const Panel& p) { return p.chequer == k; });
    return all;
}

Arranged arranged(const std::shared_ptr<const model::Floor>& floor, const model::Basis& basis,
                  const standards::Standard& standard) {
    Arranged out{floor, "", 1};
    if (!model::wellFormed(*floor, "").empty()) return out;
    bool imposed = false;
    for (const auto& c : floor->actions.cases) imposed |= c.nature == Nature::Imposed;
    if (!imposed) return out;
    if (floor->actions.arrangement == model::Arrangement::All) {
        out.word = "Pattern loading is switched off by the user: imposed loads act on all panels at once.";
        return out;
    }
    if (!floor->grounds.empty()) {
        out.word = "Imposed loads act on all panels at once: no pattern loading of slabs on ground.";
        return out;
    }
    auto panels = layout::findPanels(*floor);
    if (panels.size() < 2) return out;
    const bool twoWay = std::any_of(panels.begin(), panels.end(), [](const Panel& p) { return !p.oneWay; });
    const auto rule = standard.actions->pattern(
        twoWay, [&] { return imposedOverPermanent(*floor, panels, basis.concreteDensity); });
    out.word = rule.word;
    if (rule.waived) return out;
    out.share = rule.share;
    const auto loadings = panelLoadings(panels);
    auto whole = std::make_shared<model::Floor>(*floor);
    const Divider divider(panels, *floor);
    for (const auto& c : floor->actions.cases) {
        if (c.nature != Nature::Imposed) continue;
        std::vector<std::pair<std::size_t, model::FloorLoad>> pieces;
        for (const auto& l : floor->actions.loads)
            if (l.loadCase == c.id)
                divider.divide(
                    l, [&](std::size_t k, const model::FloorLoad& piece) { pieces.emplace_back(k, piece); });
        for (std::size_t s = 0; s < loadings.size(); ++s) {
            model::LoadCase part = c;
            part.id = fmt::format("{}/{}", c.id, s + 1);
            part.name = c.name + ", " + loadings[s].title;
            part.whole = c.id, part.arrangement = static_cast<int>(s) + 1;
            int n = 0;
            for (const auto& [k, piece] : pieces) {
                if (!loadings[s].loaded[k]) continue;
                auto load = piece;
                load.id = fmt::format("{}/{}/{}", piece.id, s + 1, ++n);
                load.loadCase = part.id;
                whole->actions.loads.push_back(std::move(load));
            }
            if (n > 0) whole->actions.cases.push_back(part);
        }
    }
    out.floor = std::move(whole);
    return out;
}

}  // namespace talvik::design

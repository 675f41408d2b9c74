#include "design/floor_sag.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "analysis/cracked_plate.h"
#include "design/floor_design.h"
#include "design/slab_sag.h"
#include "design/steel_at.h"
#include "fem/parallel/pool.h"
#include "fem/plate/loads.h"
#include "layout/panels.h"
#include "strips/strip_finder.h"

namespace talvik::design {
namespace {

using actions::LimitState;
using analysis::Three;
using geometry::Point;
using standards::SagLimit;

constexpr double b = 1000;             // width of sections
constexpr std::size_t block = 256;     // triangles to a piece of parallel work
constexpr double crackedBeams = 2;     // as flexible as whole ones
constexpr double shortest = 1000;      // mm: lines of a panel shorter than this are not looked at
constexpr double leastOverhang = 600;  // mm: what stands out less is no cantilever

double radians(double degrees) {
    return degrees * std::numbers::pi / 180;
}

// Moments in axes turned by (c, s), and curvatures in them back in plan axes.
Three turned(const Three& m, double c, double s) {
    return {m.x * c * c + m.y * s * s + 2 * m.xy * c * s, m.x * s * s + m.y * c * c - 2 * m.xy * c * s,
            (m.y - m.x) * c * s + m.xy * (c * c - s * s)};
}
Three back(const Three& k, double c, double s) {
    return {k.x * c * c + k.y * s * s - k.xy * c * s, k.x * s * s + k.y * c * c + k.xy * c * s,
            2 * (k.x - k.y) * c * s + k.xy * (c * c - s * s)};
}

class Sagger {
  public:
    Sagger(const FloorDesign& f, std::stop_token stop)
        : f_(f), a_(*f.analysis), rules_(*f.standard->sag), plate_(a_), stop_(std::move(stop)) {}

    std::shared_ptr<const FloorSag> run() {
        auto out = std::make_shared<FloorSag>();
        choose(*out);
        if (!out->why.empty()) return out;
        places();
        if (stop_.stop_requested()) return nullptr;
        const auto sustained = displacement(sustainedFactors_);
        const double lastingBeams = crackedBeams * (rules_.lastingBesides() ? 2 : 1 + f_.basis->creep);
        // By parts: what each adds, in the order in which they come.
        const auto elastic = part(
            sustained, [](const standards::SagPlace& p) { return p.gross; }, false, 1);
        const auto cracked = part(
            sustained, [](const standards::SagPlace& p) { return p.cracked; }, false, crackedBeams);
        std::vector<double> bare, total, after, live;
        if (rules_.lastingBesides()) {
            const auto all = part(
                           displacement(allFactors_), [](const standards::SagPlace&p) { return p.cracked; },
                           false, crackedBeams),
                       permanent = part(
                           displacement(permanentFactors_),
                           [](const standards::SagPlace&p) { return p.before; }, false, 1),
                       lasting = part(
                           sustained, [](const standards::SagPlace&p) { return p.lasting; }, false,
                           lastingBeams);
            if (all.empty() || permanent.empty() || lasting.empty()) return nullptr;
            total = sum(all, lasting, 1), bare = total;
            live = sum(all, permanent, -1), after = sum(live, lasting, 1);
        } else {
            bare = part(
                sustained, [](const standards::SagPlace& p) { return p.lasting; }, false, lastingBeams);
            total = part(
                sustained, [](const standards::SagPlace& p) { return p.lasting; }, true, lastingBeams);
            const auto before = part(
                displacement(beforeFactors_), [](const standards::SagPlace& p) { return p.before; }, false,
                1);
            if (bare.empty() || total.empty() || before.empty()) return nullptr;
            after = sum(total, before, -1);
        }
        if (stop_.stop_requested() || elastic.empty() || cracked.empty()) return nullptr;
        if (!settled_) {
            out->why = "The cracked-section iteration did not converge.";
            return out;
        }
        out->rounds = rounds_;
        auto floats = [](const std::vector<double>& v) { return std::vector<float>(v.begin(), v.end()); };
        out->elastic = floats(elastic), out->total = floats(total), out->after = floats(after),
        out->live = floats(live);
        std::vector<double> permanent(elastic.size());
        const auto stays = displacement(permanentFactors_);
        for (std::size_t i = 0; i < permanent.size(); ++i) permanent[i] = stays[3 * i];
        measure(*out, {elastic, cracked, bare, total, after, live, permanent});
        return out;
    }

  private:
    const FloorDesign& f_;
    const analysis::FloorAnalysis& a_;
    const standards::SagRules& rules_;
    const analysis::CrackedPlate plate_;
    std::stop_token stop_;
    std::vector<double> sustainedFactors_, allFactors_, permanentFactors_, beforeFactors_;
    std::vector<std::size_t> characteristic_;
    int rounds_ = 0;
    bool settled_ = true;

    // Of a triangle: axes of its strips, flexibilities of both directions per width, curvatures of shrinkage.
    struct Place {
        double c = 1, s = 0;
        standards::SagPlace way[2];
    };
    std::vector<Place> place_;

    static std::vector<double> sum(const std::vector<double>& a, const std::vector<double>& c,
                                   double factor) {
        std::vector<double> out(a.size());
        for (std::size_t i = 0; i < a.size(); ++i) out[i] = a[i] + factor * c[i];
        return out;
    }
    fem::NodeVector displacement(const std::vector<double>& factors) const {
        fem::NodeVector u(a_.u.front().size(), 0.0);
        for (std::size_t c = 0; c < factors.size(); ++c)
            if (factors[c] != 0)
                for (std::size_t i = 0; i < u.size(); ++i) u[i] += factors[c] * a_.u[c][i];
        return u;
    }

    void choose(FloorSag& out) {
        const auto& cases = f_.floor->actions.cases;
        if (!f_.floor->grounds.empty())
            out.why = "Slabs on ground: their deflection is that of the ground.";
        else if (a_.nonlinear || !a_.system)
            out.why = "The analysis of this floor is not linear.";
        if (!out.why.empty()) return;
        auto heaviest = [&](LimitState state) -> const analysis::FloorCombination* {
            const analysis::FloorCombination* most = nullptr;
            double load = -1e300;
            for (const auto& c : a_.combinations) {
                if (c.state != state) continue;
                double sum = 0;
                for (std::size_t i = 0; i < c.factors.size() && i < a_.cases.size(); ++i)
                    sum += c.factors[i] * a_.cases[i].load;
                if (sum > load) load = sum, most = &c;
            }
            return most;
        };
        const auto *sustained = heaviest(rules_.sustainedState()),
                   *all = heaviest(LimitState::Characteristic);
        if (!sustained || !all) {
            out.why = "There is no combination of sustained loads, or of all service loads.";
            return;
        }
        sustainedFactors_ = sustained->factors, allFactors_ = all->factors;
        out.combination = sustained->name;
        permanentFactors_.assign(a_.u.size(), 0), beforeFactors_.assign(a_.u.size(), 0);
        for (std::size_t i = 0; i < cases.size() && i < a_.u.size(); ++i) {
            using Nature = model::LoadCase::Nature;
            permanentFactors_[i] = cases[i].permanent();
            beforeFactors_[i] = cases[i].nature == Nature::SelfWeight;
        }
        for (std::size_t k = 0; k < a_.combinations.size(); ++k)
            if (a_.combinations[k].state == LimitState::Characteristic) characteristic_.push_back(k);
    }

    // What the standard says of every triangle, with the bars there.
    void places() {
        const auto sustained = plate_.moments(displacement(sustainedFactors_)),
                   before = plate_.moments(displacement(beforeFactors_)),
                   permanent = plate_.moments(displacement(permanentFactors_));
        std::vector<std::vector<Three>> all;
        for (std::size_t k : characteristic_)
            all.push_back(plate_.moments(displacement(a_.combinations[k].factors)));
        const auto& m = *a_.model;
        const std::size_t n = plate_.middles().size();
        place_.resize(n);
        const SlabEdges edges(*f_.floor);
        fem::parallelFor((n + block - 1) / block, [&](std::size_t piece) {
            if (stop_.stop_requested()) return;
            const strips::StripFinder finders[2] = {{*f_.layout, 0}, {*f_.layout, 1}};
            for (std::size_t t = piece * block; t < std::min(n, (piece + 1) * block); ++t) {
                const Point p = plate_.middles()[t];
                const double h = m.thickness[t];
                const bool edge = edges.toEdge(p) < h;
                Place& at = place_[t];
                double angle = 0;
                bool first = true;
                for (int d : {0, 1}) {
                    const int owner = finders[d].at(p);
                    const StripDesign* strip = owner < 0 ? nullptr : f_.strips[std::size_t(owner)].get();
                    double share = 1;  // of askew bars
                    if (strip && first) angle = strip->strip->axes.angle - (d == 1 ? 90 : 0);
                    if (strip && first) at.c = std::cos(radians(angle)), at.s = std::sin(radians(angle));
                    if (strip && !first) {
                        const double off = radians(strip->strip->axes.angle - angle);
                        share = std::pow(d == 1 ? std::sin(off) : std::cos(off), 2);
                    }
                    if (strip) first = false;
                    // Along the direction, and the twisting beside it.
                    auto own = [&](const Three& moment) {
                        const Three l = turned(moment, at.c, at.s);
                        return std::pair(d == 0 ? l.x : l.y, std::abs(l.xy));
                    };
                    standards::SagStation st;
                    const double stays = own(sustained[t]).first, sign = stays < 0 ? -1 : 1;
                    // The worst of the characteristic combinations on the side on which the sustained loads
                    // bend.
                    double worst = std::abs(stays);
                    for (const auto& moments : all) {
                        const auto [along, twist] = own(moments[t]);
                        worst = std::max(worst, sign * along + twist);
                    }
                    const auto [dead, deadTwist] = own(permanent[t]);
                    st.mTotal = sign * worst * b;
                    st.mSustained = stays * b;
                    st.mBefore = own(before[t]).first * b;
                    st.mPermanent = sign * (std::max(0.0, sign * dead) + deadTwist) * b;
                    standards::Section section{
                        b, h, 0.85 * h, 0.15 * h, f_.basis->concreteStrength, f_.basis->steelYield};
                    st.dBottom = 0.85 * h, st.dTop = 0.15 * h;
                    if (strip) {
                        const Point local = strip->strip->axes.local(p);
                        for (bool top : {false, true}) {
                            const auto steel = steelAt(*strip, top, local, edge, f_.basis->coverSide, edges);
                            strips::Station where;
                            where.thickness = h;
                            const auto ofFace = line::section(
                                top, steel.diameter > 0 ? steel.diameter : 12, where,
                                {*f_.basis, *f_.standard, strip->outerTop, strip->outerBottom}, b);
                            (top ? st.asTop : st.asBottom) = steel.anchored * share * b;
                            (top ? st.dTop : st.dBottom) = top ? h - ofFace.d : ofFace.d;
                            if (top == (stays < 0)) section = ofFace;
                        }
                    }
                    at.way[d] = rules_.place(section, st, f_.basis->creep, f_.basis->shrinkage);
                    auto& w = at.way[d];
                    for (double* v : {&w.gross, &w.cracked, &w.lasting, &w.before}) *v *= b;  // per width
                }
            }
        });
    }

    // Displacements under loads whose elastic answer is `u`, with one of the flexibilities everywhere.
    template <class Of>
    std::vector<double> part(const fem::NodeVector& u, Of of, bool shrinkage, double beams) {
        if (stop_.stop_requested()) return {};
        const auto& plate = a_.model->plate;
        std::vector<analysis::Flexibility> flexible(place_.size());
        std::vector<Three> initial;
        for (std::size_t t = 0; t < place_.size(); ++t) {
            const Place& p = place_[t];
            const auto& material = plate.materials[std::size_t(plate.material[t])];
            const double nu = material.nu;
            const double fx = of(p.way[0]), fy = of(p.way[1]), fxy = 2 * (1 + nu) * std::sqrt(fx * fy);
            // Poisson's effect is that of the slab while it is whole; cracks do away with it.
            const double cross = -nu * std::min(fx, fy);
            // A panel that carries one way by someone's word goes on doing so.
            const bool alongFirst = std::abs(material.cosine * p.c + material.sine * p.s) > 0.7;
            const auto& carries = p.way[alongFirst ? 0 : 1];
            const double softer = of(carries) / carries.gross;
            for (int column = 0; column < 3; ++column) {
                const Three m =
                    turned({column == 0 ? 1.0 : 0, column == 1 ? 1.0 : 0, column == 2 ? 1.0 : 0}, p.c, p.s);
                Three k = back({fx * m.x + cross * m.y, fy * m.y + cross * m.x, fxy * m.xy}, p.c, p.s);
                if (material.oneWay > 0) {
                    k = plate_.elastic(t,
                                       {column == 0 ? 1.0 : 0, column == 1 ? 1.0 : 0, column == 2 ? 1.0 : 0});
                    k.x *= softer, k.y *= softer, k.xy *= softer;
                }
                flexible[t][std::size_t(column)] = k.x, flexible[t][std::size_t(3 + column)] = k.y,
                flexible[t][std::size_t(6 + column)] = k.xy;
            }
            if (shrinkage) initial.push_back(back({p.way[0].shrinkage, p.way[1].shrinkage, 0}, p.c, p.s));
        }
        const auto state = plate_.solve(u, flexible, initial, beams, stop_);
        rounds_ = std::max(rounds_, state.rounds);
        settled_ = settled_ && state.settled;
        std::vector<double> w(state.u.size() / 3);
        for (std::size_t i = 0; i < w.size(); ++i) w[i] = state.u[3 * i];
        return w;
    }
    struct Parts {
        const std::vector<double>&elastic, &cracked, &bare, &total, &after, &live, &permanent;
    };

    // Whether something long holds the slab there.
    bool onLine(Point p, double beyond) const {
        const auto& floor = *f_.floor;
        for (const auto& w : floor.walls)
            if (geometry::distance(p, w.a, w.b) < w.thickness / 2 + beyond) return true;
        for (const auto& x : floor.beams)
            if (geometry::distance(p, x.a, x.b) < x.width / 2 + beyond) return true;
        for (const auto& e : floor.edges)
            if (geometry::distance(p, e.a, e.b) < beyond) return true;
        return false;
    }

    // Formwork of a panel, raised: along the directions of its spans from one end of it to the other.
    class Raised {
      public:
        Raised(const Sagger& of, const layout::Panel& panel) : rise_(layout::camberOf(*of.f_.floor, panel)) {
            if (rise_ <= 0) return;
            const auto& ring = panel.outline;
            for (int k : {0, 1}) {
                const double angle = radians(panel.spans[k].angle);
                way_[k] = {std::cos(angle), std::sin(angle)};
                from_[k] = 1e300;
                double to = -1e300;
                for (Point p : ring)
                    from_[k] = std::min(from_[k], along(k, p)), to = std::max(to, along(k, p));
                length_[k] = std::max(1.0, to - from_[k]);
            }
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point p = ring[i], q = ring[(i + 1) % ring.size()];
                // Across a direction: it ends on such a side.
                for (int k : {0, 1})
                    if (std::abs(along(k, q) - along(k, p)) < 0.5 * geometry::length(p, q) &&
                        geometry::length(p, q) > shortest)
                        held_[k] |= of.onLine({(p.x + q.x) / 2, (p.y + q.y) / 2}, 150);
            }
            if (panel.oneWay) {
                const double d = radians(panel.direction);
                const bool first = std::abs(way_[0].x * std::cos(d) + way_[0].y * std::sin(d)) > 0.7;
                held_[0] = first, held_[1] = !first;
            }
        }
        double rise() const { return rise_; }
        double at(Point p) const {
            if (rise_ <= 0) return 0;
            double s[2];
            for (int k : {0, 1}) {
                const double x = std::clamp((along(k, p) - from_[k]) / length_[k], 0.0, 1.0);
                s[k] = 4 * x * (1 - x);
            }
            return rise_ * (held_[0] && held_[1] ? s[0] * s[1]
                            : held_[0]           ? s[0]
                            : held_[1]           ? s[1]
                                                 : (s[0] + s[1]) / 2);
        }

      private:
        double along(int k, Point p) const { return p.x * way_[k].x + p.y * way_[k].y; }
        double rise_ = 0, from_[2] = {0, 0}, length_[2] = {1, 1};
        Point way_[2];
        bool held_[2] = {false, false};  // by what is long, at the ends of a direction
    };

    // Places of a panel that something holds: corners and middles of sides.
    std::vector<Point> held(const layout::Panel& panel, const std::vector<Point>& supports) const {
        std::vector<Point> all;
        auto add = [&](Point p) {
            for (Point q : all)
                if (geometry::length(p, q) < 300) return;
            all.push_back(p);
        };
        for (std::size_t i = 0; i < panel.outline.size(); ++i) {
            const Point p = panel.outline[i], q = panel.outline[(i + 1) % panel.outline.size()];
            // A column near the corner is what holds there.
            const Point* near = nullptr;
            for (const Point& s : supports)
                if (geometry::length(s, p) < 800 &&
                    (!near || geometry::length(s, p) < geometry::length(*near, p)))
                    near = &s;
            if (near)
                add(*near);
            else if (onLine(p, 150))
                add(p);
            const Point middle{(p.x + q.x) / 2, (p.y + q.y) / 2};
            if (geometry::length(p, q) > 2 * shortest && onLine(middle, 150)) add(middle);
        }
        return all;
    }

    void measure(FloorSag& out, const Parts& w) const {
        const auto& m = *a_.model;
        const fem::TriangleFinder finder(m.plate.nodes, m.plate.triangles);
        auto at = [&](const std::vector<double>& of, Point p, double* value) {
            std::array<double, 3> shares{};
            const int t = finder.find(p, &shares);
            if (t < 0) return false;
            *value = 0;
            for (int c = 0; c < 3; ++c)
                *value += shares[std::size_t(c)] *
                          of[std::size_t(m.plate.triangles[std::size_t(t)][std::size_t(c)])];
            return true;
        };
        std::vector<Point> supports;
        for (const auto& c : f_.floor->columns) supports.push_back({c.x, c.y});
        for (const auto& p : f_.floor->piles) supports.push_back({p.x, p.y});
        auto valuesOf = [&](SagLimit::Which which) -> const std::vector<double>& {
            return which == SagLimit::Which::Total   ? w.total
                   : which == SagLimit::Which::After ? w.after
                                                     : w.live;
        };
        auto consider = [&](const FloorSag::Row& row, FloorSag::Row& most) {
            if (row.sag / row.allowed > most.sag / std::max(1e-9, most.allowed) || most.allowed == 0)
                most = row;
        };
        const auto panels = layout::findPanels(*f_.floor);
        std::vector<Raised> formwork;
        for (const auto& panel : panels) formwork.emplace_back(*this, panel);
        alongStrips(out, w, at, panels, formwork);
        for (std::size_t number = 0; number < panels.size(); ++number) {
            const auto& panel = panels[number];
            const auto points = held(panel, supports);
            const Raised& raised = formwork[number];
            for (const auto& limit : sagLimits(rules_, *f_.basis)) {
                const auto& of = valuesOf(limit.which);
                if (of.empty()) continue;
                FloorSag::Row most;
                for (std::size_t i = 0; i < points.size(); ++i)
                    for (std::size_t k = 0; k < i; ++k) {
                        const Point p = points[k], q = points[i];
                        const double L = geometry::length(p, q);
                        double w0 = 0, w1 = 0;
                        if (L < shortest || !at(of, p, &w0) || !at(of, q, &w1)) continue;
                        constexpr int steps = 24;
                        for (int s = 1; s < steps; ++s) {
                            const double x = double(s) / steps;
                            const Point r{p.x + x * (q.x - p.x), p.y + x * (q.y - p.y)};
                            double v = 0;
                            // Also along its sides, which two panels share.
                            if (!(geometry::contains(panel.outline, r) ||
                                  geometry::distanceToEdge(panel.outline, r) < 300) ||
                                !at(of, r, &v))
                                continue;
                            FloorSag::Row row;
                            row.panel = panel.name, row.centre = panel.centre, row.from = p, row.to = q,
                            row.at = r;
                            row.limit = limit, row.span = L, row.allowed = L / limit.spanOver;
                            if (limit.which == SagLimit::Which::Total)
                                row.raised = raised.rise(),
                                row.camber = raised.at(r) - (1 - x) * raised.at(p) - x * raised.at(q);
                            row.sag = v - (1 - x) * w0 - x * w1 - row.camber;
                            consider(row, most);
                        }
                    }
                if (most.allowed == 0) continue;
                explain(most, w, at);
                out.rows.push_back(most);
            }
        }
        // Tips: corners of the slabs that stand out beyond what holds them.
        for (const auto& ring : model::outlines(*f_.floor))
            for (Point tip : ring) {
                Point root{0, 0};
                double L = 1e300;
                auto nearer = [&](Point p) {
                    if (const double d = geometry::length(p, tip); d < L) L = d, root = p;
                };
                for (Point s : supports) nearer(s);
                auto along = [&](Point p, Point q) {
                    const double l = std::max(1e-9, geometry::length(p, q)),
                                 x = std::clamp(
                                     ((tip.x - p.x) * (q.x - p.x) + (tip.y - p.y) * (q.y - p.y)) / l / l, 0.0,
                                     1.0);
                    nearer({p.x + x * (q.x - p.x), p.y + x * (q.y - p.y)});
                };
                for (const auto& v : f_.floor->walls) along(v.a, v.b);
                for (const auto& v : f_.floor->beams) along(v.a, v.b);
                for (const auto& v : f_.floor->edges) along(v.a, v.b);
                if (L < leastOverhang || L > 1e200) continue;
                for (const auto& limit : sagLimits(rules_, *f_.basis)) {
                    const auto& of = valuesOf(limit.which);
                    double v = 0, w0 = 0;
                    // Just inside the corner.
                    const Point inside{tip.x + (root.x - tip.x) * 20 / L, tip.y + (root.y - tip.y) * 20 / L};
                    if (of.empty() || !at(of, inside, &v) || !at(of, root, &w0)) continue;
                    FloorSag::Row row;
                    row.panel =
                        fmt::format("cantilever tip near ({:.2f}, {:.2f}) m", tip.x / 1000, tip.y / 1000);
                    row.tip = true, row.centre = row.at = inside, row.from = root, row.to = inside;
                    row.limit = limit, row.span = L, row.allowed = L / limit.spanOver, row.sag = v - w0;
                    explain(row, w, at);
                    out.rows.push_back(row);
                }
            }
        alongLines(out, w, at);
    }
    template <class At>
    void alongStrips(FloorSag& out, const Parts& w, At at, const std::vector<layout::Panel>& panels,
                     const std::vector<Raised>& raised) const {
        auto camber = [&](Point p) {
            for (std::size_t i = 0; i < panels.size(); ++i)
                if (raised[i].rise() > 0 && geometry::contains(panels[i].outline, p)) return raised[i].at(p);
            return 0.0;
        };
        double spanOver = 0;
        for (const auto& limit : sagLimits(rules_, *f_.basis))
            if (limit.which == SagLimit::Which::Total) spanOver = limit.spanOver;
        for (const auto& strip : f_.strips) {
            auto& spans = out.strips.emplace_back();
            for (const auto& span : strip->strip->spans) {
                SpanSag& one = spans.emplace_back();
                for (const auto& st : strip->stations()) {
                    if (st.u < span.from - 1 || st.u > span.to + 1 || st.cuts.empty()) continue;
                    const auto widest =
                        std::max_element(st.cuts.begin(), st.cuts.end(), [](const auto& a, const auto& c) {
                            return geometry::length(a.a, a.b) < geometry::length(c.a, c.b);
                        });
                    const Point p{(widest->a.x + widest->b.x) / 2, (widest->a.y + widest->b.y) / 2};
                    double total = 0, after = 0, live = 0;
                    if (!at(w.total, p, &total) || !at(w.after, p, &after)) continue;
                    if (!w.live.empty()) at(w.live, p, &live), one.live.push_back(live);
                    one.x.push_back(st.u);
                    one.total.push_back(total - camber(p)), one.after.push_back(after);
                }
                if (one.x.size() < 3) {
                    one = {};
                    continue;
                }
                for (std::size_t i = 0; i < one.x.size(); ++i)
                    if (one.total[i] > one.largest) one.largest = one.total[i], one.at = one.x[i];
                // Between lines that sag themselves it is the panel that is judged, not the strip.
                const bool held = (span.left < 0 || one.total.front() < 0.1 * one.largest) &&
                                  (span.right < 0 || one.total.back() < 0.1 * one.largest);
                if (spanOver > 0 && held) one.limit = (span.to - span.from) / spanOver;
            }
        }
    }
    // Along lines with limits of their own, from the level as cast.
    template <class At>
    void alongLines(FloorSag& out, const Parts& w, At at) const {
        for (const auto& line : f_.floor->sagLines) {
            FloorSag::Row most;
            most.panel = "line " + (line.name.empty() ? line.id : line.name);
            most.line = line.id, most.from = most.centre = most.at = line.a, most.to = line.b;
            most.allowed = line.limit, most.span = geometry::length(line.a, line.b);
            const bool total = line.of == model::SagLine::Of::Total;
            most.limit = {total ? SagLimit::Which::Total : SagLimit::Which::After, 0, "own limit",
                          total ? "Long-term deflection" : "Deflection after partitions"};
            const int n = std::max(2, int(most.span / 200));
            bool any = false;
            for (int k = 0; k <= n; ++k) {
                const double x = double(k) / n;
                const Point p{line.a.x + x * (line.b.x - line.a.x), line.a.y + x * (line.b.y - line.a.y)};
                double v = 0;
                if (!at(total ? w.total : w.after, p, &v)) continue;
                if (!any || v > most.sag) most.sag = v, most.at = p;
                any = true;
            }
            most.centre = most.at;
            if (any) out.rows.push_back(most);
        }
    }
    template <class At>
    static void explain(FloorSag::Row& row, const Parts& w, At at) {
        const double L = std::max(1e-9, geometry::length(row.from, row.to)),
                     x = row.tip ? 0 : geometry::length(row.from, row.at) / L;
        auto own = [&](const std::vector<double>& of) {
            double v = 0, w0 = 0, w1 = 0;
            if (!at(of, row.at, &v) || !at(of, row.from, &w0) || !at(of, row.to, &w1)) return 0.0;
            return v - (1 - x) * w0 - x * w1;
        };
        const double e = own(w.elastic), c = own(w.cracked), l = own(w.bare), t = own(w.total),
                     stays = own(w.permanent);
        row.permanent = e > 1e-9 ? t * std::clamp(stays / e, 0.0, 1.0) : 0;
        row.elastic = e, row.cracks = c - e, row.creep = l - c, row.shrinkage = t - l;
    }
};

}  // namespace

double proposedCamber(const FloorSag::Row& row, const standards::SagRules& rules) {
    if (row.limit.which != SagLimit::Which::Total || row.tip || !row.line.empty() || row.sag <= row.allowed)
        return 0;
    // At the place, of which the middle may have more.
    const double share = row.raised > 0 ? std::max(0.1, row.camber / row.raised) : 1;
    const double rise = row.raised + units::roundUp((row.sag - row.allowed) / share, 5);
    const double most = std::min(camberShare * row.permanent, row.span / rules.camber().first);
    return rise <= most + 1e-9 ? rise : 0;
}

double FloorSag::ratio() const {
    double most = 0;
    for (const auto& r : rows) most = std::max(most, r.sag / r.allowed);
    return most;
}

std::shared_ptr<const FloorSag> floorSag(const FloorDesign& design, std::stop_token stop) {
    if (!design.analysis || !design.layout || design.analysis->u.empty()) return std::make_shared<FloorSag>();
    if (!design.standard->sag) {
        auto none = std::make_shared<FloorSag>();
        none->why = "This standard has no rule for computed deflection here.";
        return none;
    }
    if (!design.floor->grounds.empty() || !design.analysis->system) {
        auto none = std::make_shared<FloorSag>();
        none->why = "Slabs on ground: their deflection is that of the ground.";
        return none;
    }
    return Sagger(design, std::move(stop)).run();
}

void sagChecks(const FloorDesign& f, const FloorSag* sag, verify::CheckList& list) {
    if (!sag) return;
    using checks::Finding;
    const std::string clause = f.standard->sag ? f.standard->sag->clause() : "";
    if (!sag->why.empty()) {
        list.add(
            {"sag", "Long-term deflection", checks::Topic::Sag, checks::notChecked(clause, sag->why), {}},
            {{{f.floor->id}, model::Spot::In::Whole, {}}, "floor"});
        return;
    }
    for (const auto& r : sag->rows) {
        Finding n;
        n.kind = units::Kind::Sag, n.prefix = "w", n.clause = r.limit.clause;
        n.demand = std::max(0.0, r.sag), n.limit = r.allowed;
        trace::Steps t;
        using trace::step;
        const bool total = r.limit.which == SagLimit::Which::Total, drawn = !r.line.empty();
        if (total && !drawn)
            step(&t, "w_long", "w_el + w_cr + w_phi + w_cs",
                 {{"w_el", r.elastic, "mm"},
                  {"w_cr", r.cracks, "mm"},
                  {"w_phi", r.creep, "mm"},
                  {"w_cs", r.shrinkage, "mm"}},
                 r.sag + r.camber, "mm", r.limit.clause,
                 "elastic part, plus increments from cracking, creep and shrinkage");
        if (r.camber > 0)
            step(&t, "w", "w_long - w_0", {{"w_long", r.sag + r.camber, "mm"}, {"w_0", r.camber, "mm"}},
                 r.sag, "mm", r.limit.clause, "w_0: precamber at that place");
        if (!drawn)
            step(&t, "w_lim", "l/n", {{"l", r.span, "mm"}, {"n", r.limit.spanOver}}, r.allowed, "mm",
                 r.limit.clause, r.tip ? "l of a cantilever is its length" : "between two supported points");
        n.here.push_back(
            fmt::format("{} ({:.2f}, {:.2f}) and ({:.2f}, {:.2f}) m, largest at ({:.2f}, {:.2f}) m.",
                        drawn ? "Along the line between" : "Between", r.from.x / 1000, r.from.y / 1000,
                        r.to.x / 1000, r.to.y / 1000, r.at.x / 1000, r.at.y / 1000));
        if (total && !drawn && !r.tip && r.sag > r.allowed) {
            if (const double rise = proposedCamber(r, *f.standard->sag); rise > 0)
                n.here.push_back(
                    fmt::format("A precamber of {} mm in the middle of the panel would bring the deflection "
                                "within its limit.",
                                units::plain(rise)));
            else
                n.here.push_back(
                    fmt::format("No precamber proposed: it would exceed {:.0f} % of the permanent-load "
                                "deflection or span/{:.0f}.",
                                100 * camberShare, f.standard->sag->camber().first));
        }
        if (drawn)
            n.notes.push_back(
                "Limits on lines drawn on plan are in mm, of the deflection from the level as cast; "
                "precamber is not deducted.");
        n.notes.push_back(
            "Deflection of floors: cracked by the elastic moments of the characteristic combinations, creep "
            "and shrinkage by the standard at every point with its bars; cracked beams are assumed to have "
            "half the stiffness of uncracked ones.");
        checks::Place place{{{f.floor->id}, model::Spot::In::Whole, {}}, r.panel};
        place.at = r.centre;
        const char* key = r.limit.which == SagLimit::Which::Live    ? "sag-live"
                          : r.limit.which == SagLimit::Which::Total ? "sag-total"
                                                                    : "sag-after";
        list.add({fmt::format("{}/{}", key, r.panel), r.limit.title, checks::Topic::Sag, checks::judged(n), t,
                  r.panel},
                 place, sag->combination);
        if (total && r.raised > 0) {
            const auto [over, camberClause] = f.standard->sag->camber();
            Finding rise;
            rise.kind = units::Kind::Sag, rise.prefix = "w", rise.clause = camberClause;
            rise.demand = r.raised;
            trace::Steps steps;
            rise.limit =
                step(&steps, "w_0,max", "min(s*w_G, l/n)",
                     {{"s", camberShare}, {"w_G", r.permanent, "mm"}, {"l", r.span, "mm"}, {"n", over}},
                     std::min(camberShare * r.permanent, r.span / over), "mm", camberClause,
                     "w_G: long-term deflection under the permanent loads there");
            rise.notes.push_back(
                "Precamber is kept below a share of the permanent-load deflection, so that no floor stays "
                "cambered; it is deducted from the long-term deflection alone.");
            list.add({"precamber/" + r.panel, "Precamber", checks::Topic::Sag, checks::judged(rise), steps,
                      r.panel},
                     place, sag->combination);
        }
    }
}

}  // namespace talvik::design

#include "design/field_proof.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>
#include <numbers>
#include <tuple>
#include <unordered_map>

#include "analysis/cuts.h"
#include "design/floor_design.h"
#include "design/steel_at.h"
#include "fem/parallel/pool.h"
#include "strips/field_moments.h"
#include "strips/sharing.h"
#include "strips/strip_finder.h"

namespace talvik::design {
namespace {

using analysis::Tensor;
using geometry::Point;
using geometry::Ring;
using strips::Strip;

constexpr double b = 1000;         // width of sections
constexpr double small = 0.1;      // of the moment of the plain section: needs no bars
constexpr std::size_t block = 64;  // points to a piece of parallel work

constexpr double twoWay = 6;  // depths from a column within which shear goes round it

double radians(double degrees) {
    return degrees * std::numbers::pi / 180;
}

// What the proof knows of the floor besides its field.
struct Ground : SlabEdges {
    const FloorDesign& f;
    std::vector<Ring> columns;
    struct Line {
        Point a, b;
        double half;
    };
    std::vector<Line> lines;  // walls, beams and line supports
    std::vector<Point> wallEnds;
    std::vector<Ring> loads;  // footprints of point loads
    std::vector<Point> piles;

    explicit Ground(const FloorDesign& design) : SlabEdges(*design.floor), f(design) {
        const auto& floor = *f.floor;
        for (const auto& c : floor.columns) columns.push_back(model::footprint(c));
        for (const auto& w : floor.walls) {
            lines.push_back({w.a, w.b, w.thickness / 2});
            wallEnds.push_back(w.a), wallEnds.push_back(w.b);
        }
        for (const auto& e : floor.edges) {
            lines.push_back({e.a, e.b, 0});
            wallEnds.push_back(e.a), wallEnds.push_back(e.b);
        }
        for (const auto& x : floor.beams) lines.push_back({x.a, x.b, x.width / 2});
        for (const auto& p : floor.piles) piles.push_back({p.x, p.y});
        for (const auto& l : floor.actions.loads)
            if (l.kind == model::FloorLoad::Kind::Point) {
                auto foot = l;
                foot.width = std::max(foot.width, 1.0), foot.depth = std::max(foot.depth, 1.0);
                loads.push_back(model::footprint(foot));
            }
    }
    bool inColumn(Point p, double beyond = 0) const {
        for (const auto& r : columns)
            if (geometry::contains(r, p) || (beyond > 0 && geometry::distanceToEdge(r, p) < beyond))
                return true;
        return false;
    }
    bool onLine(Point p, double beyond = 0) const {
        for (const auto& l : lines)
            if (geometry::distance(p, l.a, l.b) < l.half + beyond) return true;
        return false;
    }
    // Where punching is checked: near what presses through the slab, and as far as its shear steel reaches.
    bool punching(Point p, double reach) const {
        for (const auto& c : f.connections)
            if (c->steel && geometry::contains(c->steel->outer.line.outline, p)) return true;
        if (inColumn(p, reach)) return true;
        for (const auto& list : {wallEnds, piles})
            for (Point e : list)
                if (geometry::length(p, e) < reach) return true;
        for (const auto& r : loads)
            if (geometry::contains(r, p) || geometry::distanceToEdge(r, p) < reach) return true;
        return false;
    }
};

// Resistance of the bars of a strip at a place. Remembers sections: most places have the same.
class Bars {
  public:
    explicit Bars(const FloorDesign& f) : f_(f) {}

    standards::Section section(const StripDesign& d, bool top, double h, double diameter) const {
        strips::Station s;
        s.thickness = h;
        return line::section(top, diameter > 0 ? diameter : 12, s,
                             {*f_.basis, *f_.standard, d.outerTop, d.outerBottom}, b);
    }
    // Per width. Never less than a tenth of what the plain section carries, so that next to nothing needs no
    // bar.
    double resistance(int strip, bool top, double h, double area, double diameter) {
        const Key key{strip * 2 + top, h, area, diameter};
        auto found = known_.find(key);
        if (found != known_.end()) return found->second;
        const auto s = section(*f_.strips[std::size_t(strip)], top, h, diameter);
        const double bars = area > 0 ? f_.standard->flexure->resistance(s, area * b, 0).M / b : 0;
        return known_[key] = std::max(bars, small * f_.standard->flexure->plain(s) / b);
    }

  private:
    struct Key {
        int which;
        double h, area, diameter;
        bool operator==(const Key&) const = default;
    };
    struct Hash {
        std::size_t operator()(const Key& k) const {
            auto mix = [](std::size_t a, double v) { return a * 1000003 ^ std::hash<double>()(v); };
            return mix(mix(mix(std::size_t(k.which), k.h), k.area), k.diameter);
        }
    };
    const FloorDesign& f_;
    std::unordered_map<Key, double, Hash> known_;
};

// A piece of the line across the bars: moments at its two ends, what the bars resist on it.
struct Piece {
    double length = 0;
    std::vector<Tensor> from, to;  // per case
    double resists[2] = {0, 0};    // bottom, top
};

struct Mean {
    double ratio, asked, provided;
};

// Moments against bars as means over a stretch of a line in pieces: of the given width where the line is as
// long, and containing the point at `own` along it.
class Sharing {
  public:
    Sharing(const std::vector<Piece>& pieces, std::size_t face, double own, double width)
        : own_(own), place_(1, 0), resist_(1, 0), demand_(1, 0) {
        for (const auto& piece : pieces) {
            place_.push_back(place_.back() + piece.length);
            resist_.push_back(resist_.back() + piece.resists[face] * piece.length);
        }
        w_ = std::min(width, place_.back());
        low_ = std::max(0.0, own - w_), high_ = std::max(0.0, std::min(own, place_.back() - w_));
        middle_ = std::clamp(own - w_ / 2, low_, high_);
        aboutResists_ = (at(resist_, middle_ + w_) - at(resist_, middle_)) / w_;
    }
    // The ratio on the stretch about the point; the most favourable one has no more. `of` gives the mean
    // demand on a piece.
    template <class Of>
    double about(const Of& of) const {
        double sum = 0;
        for (std::size_t k = 0; k + 1 < place_.size(); ++k) {
            const double part = std::min(place_[k + 1], middle_ + w_) - std::max(place_[k], middle_);
            if (part > 0) sum += of(k) * part;
        }
        return ratio(sum / w_, aboutResists_);
    }
    // The most favourable stretch: one that begins or ends with a piece, or at the point.
    template <class Of>
    Mean best(const Of& of) {
        demand_.resize(1);
        for (std::size_t k = 0; k + 1 < place_.size(); ++k)
            demand_.push_back(demand_.back() + of(k) * (place_[k + 1] - place_[k]));
        Mean least{1e300, 0, 0};
        auto take = [&](double from) {
            from = std::clamp(from, low_, high_);
            const double m = (at(demand_, from + w_) - at(demand_, from)) / w_,
                         r = (at(resist_, from + w_) - at(resist_, from)) / w_;
            if (ratio(m, r) < least.ratio) least = {ratio(m, r), m, r};
        };
        take(own_ - w_ / 2), take(own_ - w_), take(own_);
        for (double x : place_) {
            if (x >= own_ - w_ - 1 && x <= own_ + 1) take(x);
            if (x >= own_ - 1 && x <= own_ + w_ + 1) take(x - w_);
        }
        return least;
    }

  private:
    double own_, w_, low_, high_, middle_, aboutResists_;
    std::vector<double> place_, resist_, demand_;  // ends of pieces, sums up to there

    static double ratio(double m, double r) { return m <= 0 ? 0 : m / std::max(r, 1e-9); }
    double at(const std::vector<double>& sum, double x) const {
        auto k = std::size_t(std::upper_bound(place_.begin(), place_.end(), x) - place_.begin());
        k = std::clamp<std::size_t>(k, 1, place_.size() - 1);
        const double part = place_[k] - place_[k - 1];
        return part > 0 ? sum[k - 1] + (sum[k] - sum[k - 1]) * (x - place_[k - 1]) / part : sum[k];
    }
};

class Prover {
  public:
    Prover(const FloorDesign& f, std::stop_token stop)
        : f_(f), a_(*f.analysis), m_(*f.analysis->model), stop_(std::move(stop)), ground_(f), cutter_(m_) {
        for (std::size_t k = 0; k < a_.combinations.size(); ++k) {
            if (a_.combinations[k].state != actions::LimitState::Ultimate) continue;
            Weights w{k, {}};
            if (a_.nonlinear)
                w.cases.emplace_back(k, 1);
            else
                for (std::size_t c = 0; c < a_.combinations[k].factors.size(); ++c)
                    if (a_.combinations[k].factors[c] != 0)
                        w.cases.emplace_back(c, a_.combinations[k].factors[c]);
            weights_.push_back(std::move(w));
        }
        points();
    }

    std::shared_ptr<const FieldProof> run() {
        auto proof = std::make_shared<FieldProof>();
        for (int d : {0, 1}) {
            moments(d, proof->steel[std::size_t(d)]);
            if (stop_.stop_requested()) return nullptr;
        }
        shear(*proof);
        const auto& o = proof->steel;
        if (std::max({o[0][0].worst, o[0][1].worst, o[1][0].worst, o[1][1].worst, proof->shear.worst}) > 1)
            for (auto& [key, w] : wanted_) proof->wanted.push_back(std::move(w));
        return stop_.stop_requested() ? nullptr : proof;
    }

  private:
    struct Weights {
        std::size_t combination;
        std::vector<std::pair<std::size_t, double>> cases;
    };
    const FloorDesign& f_;
    const analysis::FloorAnalysis& a_;
    const analysis::FloorModel& m_;
    std::stop_token stop_;
    Ground ground_;
    analysis::Cutter cutter_;
    std::vector<Weights> weights_;
    // Per field point: a place just inside its triangles, its share of area, the least thickness, whether it
    // lies inside a support.
    std::vector<Point> place_, inner_;
    std::vector<double> tributary_, thickness_;
    std::vector<char> skip_, byRule_;

    void points() {
        const std::size_t n = m_.points.node.size();
        place_.assign(n, {0, 0}), tributary_.assign(n, 0), thickness_.assign(n, 1e300);
        std::vector<int> count(n, 0);
        for (std::size_t t = 0; t < m_.plate.triangles.size(); ++t) {
            const auto& c = m_.plate.triangles[t];
            const Point p[3] = {m_.plate.nodes[std::size_t(c[0])], m_.plate.nodes[std::size_t(c[1])],
                                m_.plate.nodes[std::size_t(c[2])]};
            const double area =
                ((p[1].x - p[0].x) * (p[2].y - p[0].y) - (p[1].y - p[0].y) * (p[2].x - p[0].x)) / 2;
            const Point g{(p[0].x + p[1].x + p[2].x) / 3, (p[0].y + p[1].y + p[2].y) / 3};
            for (std::size_t k = 0; k < 3; ++k) {
                const auto i = std::size_t(m_.points.corner[3 * t + k]);
                place_[i].x += g.x, place_[i].y += g.y, ++count[i];
                tributary_[i] += area / 3;
                thickness_[i] = std::min(thickness_[i], m_.thickness[t]);
            }
        }
        skip_.assign(n, 0);
        inner_ = place_;
        for (std::size_t i = 0; i < n; ++i) {
            if (count[i] == 0) {
                skip_[i] = 1;
                continue;
            }
            const Point node = m_.plate.nodes[std::size_t(m_.points.node[i])];
            const Point g{place_[i].x / count[i], place_[i].y / count[i]};
            inner_[i] = g;
            place_[i] = {node.x + 0.05 * (g.x - node.x), node.y + 0.05 * (g.y - node.y)};
            skip_[i] = ground_.inColumn(place_[i]) || ground_.onLine(place_[i]);
        }
    }

    void moments(int direction, std::array<ProofOf, 2>& out) {
        const std::size_t n = place_.size();
        std::vector<std::array<float, 2>> asked(n), provided(n);
        std::vector<std::array<int, 2>> by(n, {-1, -1});
        byRule_.assign(n, 0);
        for (auto& o : out) o.ratio.assign(n, 0);
        fem::parallelFor((n + block - 1) / block, [&](std::size_t piece) {
            if (stop_.stop_requested()) return;
            const strips::StripFinder finder(*f_.layout, direction);
            Bars bars(f_);
            std::array<std::size_t, 2> first{0, 0};
            for (std::size_t i = piece * block; i < std::min(n, (piece + 1) * block); ++i)
                if (!skip_[i]) at(i, finder, bars, out, asked[i], provided[i], by[i], first);
        });
        for (std::size_t face : {0u, 1u}) {
            auto& o = out[face];
            for (std::size_t i = 0; i < n; ++i) {
                if (skip_[i] || byRule_[i] == 2 || (face == 1 && byRule_[i])) {
                    o.byRule += tributary_[i];
                    o.ratio[i] = -1;
                    continue;
                }
                count(o, i, asked[i][face], provided[i][face], by[i][face]);
            }
        }
    }

    // A point that is judged; whether it is the worst so far.
    bool count(ProofOf& o, std::size_t i, double asked, double provided, int by) const {
        o.judged += tributary_[i];
        if (o.ratio[i] > 1) o.shortArea += tributary_[i];
        if (o.ratio[i] <= o.worst) return false;
        o.worst = o.ratio[i], o.at = m_.plate.nodes[std::size_t(m_.points.node[i])];
        o.asked = asked, o.provided = provided;
        if (by >= 0) o.combination = a_.combinations[std::size_t(by)].name;
        return true;
    }

    void at(std::size_t i, const strips::StripFinder& finder, Bars& bars, std::array<ProofOf, 2>& out,
            std::array<float, 2>& asked, std::array<float, 2>& provided, std::array<int, 2>& by,
            std::array<std::size_t, 2>& first) {
        const Point p = place_[i];
        int owner = finder.at(p);
        if (owner < 0) owner = finder.at(inner_[i]);  // on the slab's very edge
        if (owner < 0 &&
            ground_.toEdge(inner_[i]) < 15) {  // the mesh passes the edge where it follows a column
            byRule_[i] = 2;
            return;
        }
        if (owner < 0) {  // in no strip: no bars either
            out[0].ratio[i] = out[1].ratio[i] = 99;
            return;
        }
        const StripDesign& d = *f_.strips[std::size_t(owner)];
        const Strip& s = *d.strip;
        const Point local = s.axes.local(p);
        double width[2];
        widths(d, local.x, thickness_[i], width);
        const double reach = std::max(width[0], width[1]);
        double skew = radians(s.otherAngle - s.axes.angle);
        const bool square = std::abs(std::cos(skew)) < 1e-9;
        if (square) skew = std::numbers::pi / 2;
        const bool twisting =
            f_.floor->strips.rules.twisting == model::StripChoices::Twisting::WoodArmer || !square;
        // From high to low, so that the normal points along the bars.
        const auto cut =
            cutter_.cut(s.axes.plan({local.x, local.y + reach}), s.axes.plan({local.x, local.y - reach}));
        std::vector<Piece> pieces;
        double own = 0;  // of the point along what is kept of the line
        divide(cut, s, local, reach, finder, bars, pieces, own);
        if (pieces.empty()) return;
        for (std::size_t face : {0u, 1u}) {
            if (face == 1 && betweenFaces(s, local.x)) {
                byRule_[i] = 1;
                continue;
            }
            Sharing sharing(pieces, face, own, width[face]);
            auto along = [&](const Weights& w, const Piece& piece) {
                double sum = 0;
                for (const auto* end : {&piece.from, &piece.to}) {
                    Tensor t;
                    for (const auto& [c, factor] : w.cases) {
                        t.along += factor * (*end)[c].along, t.across += factor * (*end)[c].across;
                        t.twist += factor * (*end)[c].twist;
                    }
                    sum += twisting ? strips::barMoments(t.along, t.across, t.twist, skew, face == 1).along
                                    : (face == 1 ? -t.along : t.along);
                }
                return sum / 2;
            };
            double worst = 0;
            int which = -1;
            // What governed the point before is tried first: it most often governs here, and the rest falls
            // short of it by the mean about the point alone.
            for (std::size_t k = 0; k <= weights_.size() && !weights_.empty(); ++k) {
                if (k > 0 && k - 1 == first[face]) continue;
                const std::size_t index = k == 0 ? first[face] : k - 1;
                const Weights& w = weights_[index];
                auto of = [&](std::size_t piece) { return along(w, pieces[piece]); };
                const double about = sharing.about(of);
                if (about == 0 || about < worst) continue;
                const auto [ratio, most, least] = sharing.best(of);
                if (ratio < worst || (ratio == worst && (which < 0 || int(index) > which))) continue;
                worst = ratio, which = int(index);
                asked[face] = float(most), provided[face] = float(least);
            }
            if (which < 0 || worst <= 0) continue;
            out[face].ratio[i] = float(worst);
            by[face] = int(weights_[std::size_t(which)].combination);
            first[face] = std::size_t(which);
            if (worst <= spare) continue;
            // More bars help where those that lie there are anchored.
            const auto steel = steelAt(d, face == 1, local, false, f_.basis->coverSide, ground_);
            if (steel.full <= 0 || steel.anchored < 0.9 * steel.full) continue;
            auto resists = [&](double a) {
                return bars.resistance(owner, face == 1, thickness_[i], a, steel.diameter);
            };
            const double lacks = resists(steel.anchored) - provided[face], greatest = 2 * steel.full,
                         target = std::min(asked[face] / spare + lacks, resists(greatest));
            if (target < asked[face] + lacks) continue;
            want({s.key, face == 1, local.x,
                  least(steel.anchored, greatest, [&](double a) { return resists(a) >= target; })});
        }
    }

    // Hogging between the faces of a support is held to that at the faces: what the strip's own rule says.
    bool betweenFaces(const Strip& s, double u) const {
        return f_.floor->strips.rules.faceOfSupport &&
               std::any_of(s.supports.begin(), s.supports.end(),
                           [u](const auto& p) { return u > p.from - 1 && u < p.to + 1; });
    }
    static void widths(const StripDesign& d, double u, double h, double (&width)[2]) {
        if (d.stations().empty()) {
            width[0] = width[1] = strips::sharingWidth(h, d.strip->to - d.strip->from);
            return;
        }
        const auto& station = d.stations()[line::nearestStation(d.stations(), u)];
        width[0] = station.share[0], width[1] = station.share[1];
    }

    // The pieces of a cut on which moments vary linearly and bars are the same; inside columns there is no
    // slab to look at, and beyond bars of other directions nothing is shared.
    void divide(const analysis::CutLine& cut, const Strip& s, Point local, double reach,
                const strips::StripFinder& finder, Bars& bars, std::vector<Piece>& pieces, double& own) {
        // Where bars change: edges of strips and of bands.
        std::vector<double> stops;
        for (const auto& other : f_.strips) {
            const Strip& o = *other->strip;
            if (o.direction != s.direction || std::abs(o.axes.angle - s.axes.angle) > 1e-6) continue;
            for (const auto& ring : o.parts)
                for (std::size_t k = 0; k < ring.size(); ++k) {
                    const Point q = s.axes.local(ring[k]), r = s.axes.local(ring[(k + 1) % ring.size()]);
                    if ((q.x > local.x) == (r.x > local.x)) continue;
                    stops.push_back(local.y + reach - (q.y + (r.y - q.y) * (local.x - q.x) / (r.x - q.x)));
                }
            for (const auto& run : other->runs)
                if (run.band() && local.x >= run.from && local.x <= run.to)
                    for (double side : {-0.5, 0.5})
                        stops.push_back(local.y + reach - (o.v(local.x) + side * run.width));
        }
        std::sort(stops.begin(), stops.end());
        const std::size_t cases = a_.moments.size();
        double kept = 0, before = 0;
        own = 0;
        bool found = false;
        std::size_t first = 0;  // of the pieces that hang together with the point
        for (std::size_t k = 0; k + 1 < cut.samples.size(); k += 2) {
            const auto &from = cut.samples[k], &to = cut.samples[k + 1];
            const double part = to.along - from.along;
            if (part < 1e-6) continue;
            if (k > 0 && from.along - before > 1) {  // an opening or the slab's edge between
                if (found) break;
                first = pieces.size();
            }
            before = to.along;
            std::vector<double> ends{from.along};
            for (auto stop = std::upper_bound(stops.begin(), stops.end(), from.along + 0.5);
                 stop != stops.end() && *stop < to.along - 0.5; ++stop)
                if (*stop > ends.back() + 0.5) ends.push_back(*stop);
            ends.push_back(to.along);
            std::vector<Tensor> a(cases), z(cases);
            for (std::size_t c = 0; c < cases; ++c) {
                a[c] = analysis::tensorAt(from, a_.moments[c], cut.nx, cut.ny);
                z[c] = analysis::tensorAt(to, a_.moments[c], cut.nx, cut.ny);
            }
            for (std::size_t e = 0; e + 1 < ends.size(); ++e) {
                const double middle = (ends[e] + ends[e + 1]) / 2;
                const Point at{local.x, local.y + reach - middle}, plan = s.axes.plan(at);
                const int strip = finder.at(plan);
                const bool same = strip >= 0 && std::abs(f_.strips[std::size_t(strip)]->strip->axes.angle -
                                                         s.axes.angle) < 1e-6;
                if (!same) {
                    if (found) return finish(pieces, first, own);
                    first = pieces.size();
                    continue;
                }
                if (ground_.inColumn(plan)) continue;
                Piece piece;
                piece.length = ends[e + 1] - ends[e];
                auto between = [&](double x) {
                    std::vector<Tensor> t(cases);
                    const double q = (x - from.along) / part;
                    for (std::size_t c = 0; c < cases; ++c)
                        t[c] = {a[c].along + q * (z[c].along - a[c].along),
                                a[c].across + q * (z[c].across - a[c].across),
                                a[c].twist + q * (z[c].twist - a[c].twist)};
                    return t;
                };
                piece.from = between(ends[e]), piece.to = between(ends[e + 1]);
                const double h = m_.thickness[std::size_t(from.triangle)];
                const StripDesign& d = *f_.strips[std::size_t(strip)];
                const bool edge = ground_.toEdge(plan) < std::max(h, f_.basis->coverSide + 50);
                for (bool top : {false, true}) {
                    const auto steel = steelAt(d, top, at, edge, f_.basis->coverSide, ground_);
                    piece.resists[top] =
                        bars.resistance(strip, top, h, edge ? steel.full : steel.anchored, steel.diameter);
                }
                if (!found && reach <= ends[e + 1]) {
                    found = true;
                    own = kept + std::clamp(reach - ends[e], 0.0, piece.length);
                }
                kept += piece.length;
                pieces.push_back(std::move(piece));
            }
        }
        if (!found) own = kept;
        finish(pieces, first, own);
    }
    static void finish(std::vector<Piece>& pieces, std::size_t first, double& own) {
        for (std::size_t k = 0; k < first && k < pieces.size(); ++k) own -= pieces[k].length;
        pieces.erase(pieces.begin(), pieces.begin() + std::ptrdiff_t(std::min(first, pieces.size())));
        own = std::max(own, 0.0);
    }

    void shear(FieldProof& proof) {
        auto& o = proof.shear;
        const std::size_t n = place_.size();
        o.ratio.assign(n, 0);
        std::vector<fem::ShearField> q(a_.moments.size());
        fem::parallelFor(q.size(), [&](std::size_t c) {
            if (!stop_.stop_requested()) q[c] = fem::recoverShears(m_.plate, m_.points, a_.moments[c]);
        });
        std::vector<float> asked(n, 0), provided(n, 0), width(n, 0);
        std::vector<int> by(n, -1);
        std::vector<char> why(n, 0);  // 1 near columns, 2 beside lines
        fem::parallelFor((n + block - 1) / block, [&](std::size_t piece) {
            const strips::StripFinder finders[2] = {{*f_.layout, 0}, {*f_.layout, 1}};
            for (std::size_t i = piece * block; i < std::min(n, (piece + 1) * block); ++i) {
                if (skip_[i] || stop_.stop_requested()) continue;
                const double d = std::max(20.0, thickness_[i] - f_.basis->coverTop - 16);
                if (ground_.punching(place_[i], 2 * d))
                    why[i] = 1;
                else if (ground_.onLine(place_[i], d))
                    why[i] = 2;
                else
                    shearAt(i, d, q, finders, o, asked, provided, by), width[i] = float(2 * d);
            }
        });
        for (std::size_t i = 0; i < n; ++i) {
            if (why[i] == 1) proof.punching += tributary_[i];
            if (skip_[i] || why[i]) {
                o.ratio[i] = -1;
                continue;
            }
            if (count(o, i, asked[i], provided[i], by[i])) o.width = width[i];
        }
    }

    void shearAt(std::size_t i, double d, const std::vector<fem::ShearField>& q,
                 const strips::StripFinder (&finders)[2], ProofOf& o, std::vector<float>& asked,
                 std::vector<float>& provided, std::vector<int>& by) {
        const Point p = place_[i];
        // The combination with the largest resultant at the point itself.
        double most = -1, mx = 0, my = 0;
        const Weights* worst = nullptr;
        for (const auto& w : weights_) {
            double x = 0, y = 0;
            for (const auto& [c, factor] : w.cases) x += factor * q[c][2 * i], y += factor * q[c][2 * i + 1];
            if (std::hypot(x, y) > most) most = std::hypot(x, y), mx = x, my = y, worst = &w;
        }
        if (!worst || most < 1e-9) return;
        const double ex = mx / most, ey = my / most;
        const auto cut = cutter_.cut({p.x - ey * d, p.y + ex * d}, {p.x + ey * d, p.y - ex * d});
        double sum = 0;
        for (const auto& [c, factor] : worst->cases)
            for (std::size_t k = 0; k + 1 < cut.samples.size(); k += 2)
                sum += factor *
                       (analysis::shearAt(cut, cut.samples[k], q[c]) +
                        analysis::shearAt(cut, cut.samples[k + 1], q[c])) /
                       2 * (cut.samples[k + 1].along - cut.samples[k].along);
        if (cut.onSlab < 1) return;
        const double v = std::abs(sum) / cut.onSlab;
        // Which face is in tension along the resultant.
        double m[3] = {0, 0, 0};
        for (const auto& [c, factor] : worst->cases)
            for (std::size_t k = 0; k < 3; ++k) m[k] += factor * a_.moments[c][3 * i + k];
        const bool top = m[0] * ex * ex + m[1] * ey * ey + 2 * m[2] * ex * ey < 0;
        double area = 0, depth = 0, share = 0, diameter = 12;
        const verify::LinkZone* links = nullptr;
        // The strip that runs most nearly along the shear: its share, the place along it, its steel there.
        const StripDesign* nearest = nullptr;
        double main = 0, u = 0, lies = 0;
        for (int k : {0, 1}) {
            const int strip = finders[k].at(p);
            if (strip < 0) continue;
            const StripDesign& s = *f_.strips[std::size_t(strip)];
            const Point local = s.strip->axes.local(p);
            const bool edge = ground_.toEdge(p) < std::max(thickness_[i], f_.basis->coverSide + 50);
            const auto steel = steelAt(s, top, local, edge, f_.basis->coverSide, ground_);
            const double along = ex * s.strip->axes.c + ey * s.strip->axes.s, w = along * along;
            const double h = thickness_[i];
            area += w * (edge ? steel.full : steel.anchored);
            depth += w * Bars(f_).section(s, top, h, steel.diameter).d;
            diameter = std::max(diameter, steel.diameter);
            share += w;
            if (w > main) main = w, nearest = &s, u = local.x, lies = edge ? steel.full : steel.anchored;
            if (const auto* zone = verify::linksAt(s, local.x);
                zone && (!links || zone->steel() > links->steel()))
                links = zone;
        }
        if (share <= 0) return;
        standards::Section section{
            b, thickness_[i], depth / share, 30, f_.basis->concreteStrength, f_.basis->steelYield};
        double resists = verify::shearResistance(*f_.standard->shear, section, area / share * b, links,
                                                 f_.basis->steelYield) /
                         b;
        // Round columns shear is two-way: what the standard gives it far from them, without any steel.
        if (f_.standard->punching && ground_.inColumn(p, twoWay * section.d)) {
            standards::PunchingPlace place;
            place.h = section.h, place.d = section.d, place.fc = section.fc, place.fy = section.fy;
            standards::ControlSection far;
            far.at = standards::ControlSection::At::Outer;
            far.d = section.d, far.length = 100 * section.d;
            resists = std::max(resists, f_.standard->punching->strength(place, far) * section.d);
        }
        asked[i] = float(v), provided[i] = float(resists), by[i] = int(worst->combination);
        o.ratio[i] = resists > 0 ? float(v / resists) : 99;
        if (o.ratio[i] <= spare || links) return;
        // What steel would do: up to 2 % of the section (EN 1992-1-1 6.2.2(1) counts no more) and to twice
        // what lies there, beyond which a thicker slab or links are the better answer.
        const double has = area / share, greatest = std::min(0.02 * section.d, 2 * has);
        const auto carries = [&](double a) {
            return verify::shearResistance(*f_.standard->shear, section, a * b, nullptr,
                                           f_.basis->steelYield) /
                   b;
        };
        const double target = std::min(v / spare, carries(greatest));
        if (target < v) return;
        const double more = least(has, greatest, [&](double a) { return carries(a) >= target; }) - has;
        want({nearest->strip->key, top, u, lies + more * share / main});
    }

    // Of near places of a strip the one that asks most.
    void want(SteelWanted w) {
        const std::lock_guard lock(wantedLock_);
        auto& known = wanted_[{w.strip, w.top, std::lround(w.u / 50)}];
        if (std::tuple(w.area, -w.u) > std::tuple(known.area, -known.u)) known = std::move(w);
    }
    // The least area between two that is enough.
    template <class Enough>
    static double least(double low, double high, const Enough& enough) {
        for (int step = 0; step < 40; ++step) (enough((low + high) / 2) ? high : low) = (low + high) / 2;
        return high;
    }
    // Where some place is short, all that have less to spare than this are given it, so that like places have
    // like bars.
    static constexpr double spare = 0.97;
    std::mutex wantedLock_;
    std::map<std::tuple<std::string, bool, long>, SteelWanted> wanted_;
};

}  // namespace

std::shared_ptr<const FieldProof> proveByField(const FloorDesign& design, std::stop_token stop) {
    return Prover(design, std::move(stop)).run();
}

void proofChecks(const FloorDesign& f, const FieldProof* proof, verify::CheckList& list) {
    auto add = [&](const std::string& name, const std::string& title, checks::Finding finding,
                   const ProofOf* of) {
        checks::Place place{{{f.floor->id}, model::Spot::In::Whole, {}}, "floor"};
        if (of && of->worst > 0) place.at = of->at;
        list.add({name, title, checks::Topic::Coverage, std::move(finding), {}}, place);
    };
    auto found = [&](const ProofOf& o, units::Kind kind, const char* prefix, const std::string& clause) {
        checks::Finding x;
        x.kind = kind, x.prefix = prefix, x.clause = clause;
        x.demand = o.asked, x.limit = o.provided;
        const double share = o.judged > 0 ? o.shortArea / o.judged : 0;
        x.here.push_back(fmt::format("Worst at ({:.2f}, {:.2f}) m. {:.2f} m² of {:.1f} m² fail{}.",
                                     o.at.x / 1000, o.at.y / 1000, o.shortArea / 1e6, o.judged / 1e6,
                                     o.shortArea > 0 ? fmt::format(", {:.2f} %", 100 * share) : ""));
        return x;
    };
    for (int d : {0, 1})
        for (bool top : {false, true}) {
            const auto name = fmt::format("everywhere-{}-{}", top ? "top" : "bottom", d + 1);
            const auto title = fmt::format("Reinforcement by FE field, {} {}", top ? "top" : "bottom",
                                           strips::directionName(d));
            if (!proof) {
                add(name, title,
                    checks::notChecked("FE field check", "The FE field check is still being calculated."),
                    nullptr);
                continue;
            }
            const ProofOf& of = proof->steel[std::size_t(d)][top];
            auto x = found(of, units::Kind::MomentPerWidth, "m", "FE field check");
            x.notes.push_back(
                "The FE field against the bars provided, both averaged over a width that contains the point: "
                "min(5h, l/5), at least 2h (" +
                std::string(strips::sharingSource()) +
                "); in the top over columns the width of the standard's strips; of strips drawn or moved by "
                "hand their "
                "own width.");
            x.notes.push_back(
                fmt::format("Not assessed here: {:.1f} m² inside columns, walls and beams and (top) between "
                            "support faces, where the face moment governs. Within a slab thickness of edges "
                            "and openings U-bars and trimmers are assumed to be sufficient.",
                            of.byRule / 1e6));
            if (!of.combination.empty()) x.notes.push_back("Governed by " + of.combination + ".");
            add(name, title, checks::judged(x), &of);
        }
    if (!proof) {
        add("everywhere-shear", "Shear by FE field",
            checks::notChecked("FE field check", "The FE field check is still being calculated."), nullptr);
        return;
    }
    auto x = found(proof->shear, units::Kind::ForcePerWidth, "v", f.standard->shear->clause());
    x.notes.push_back(
        "Resultant shear averaged over 2d across it; steel by its direction (EN 1992-2 Annex LL).");
    x.notes.push_back(
        fmt::format("Not assessed here: {:.1f} m² where punching governs, within 2d of columns, piles, wall "
                    "ends and point loads and as far as shear reinforcement extends; nearer than d to walls, "
                    "beams and line supports.",
                    proof->punching / 1e6));
    if (f.standard->punching && !f.floor->columns.empty())
        x.notes.push_back(
            fmt::format("Within {:.0f}d of columns shear is two-way: the two-way resistance far from a "
                        "column, without shear "
                        "reinforcement, counts where it exceeds the one-way resistance.",
                        twoWay));
    if (std::any_of(f.floor->actions.loads.begin(), f.floor->actions.loads.end(),
                    [](const auto& l) { return l.kind == model::FloorLoad::Kind::Line; }))
        x.notes.push_back(
            "Beside line loads the FE field spreads the jump of the shear over an element; the strips check "
            "it there by statics.");
    add("everywhere-shear", "Shear by FE field", checks::judged(x), &proof->shear);
}

}  // namespace talvik::design

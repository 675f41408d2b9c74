#include "bases/standing.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace talvik::bases {

checks::Finding finding(units::Kind kind, double demand, double limit, std::string clause) {
    checks::Finding f;
    f.kind = kind, f.demand = demand, f.limit = limit, f.clause = std::move(clause);
    return f;
}

double PadSize::perimeter() const {
    if (outline.empty()) return 2 * (B + L);
    double all = 0;
    for (std::size_t i = 0; i < outline.size(); ++i)
        all += geometry::length(outline[i], outline[(i + 1) % outline.size()]);
    return all;
}

model::Amounts amountsOf(const model::BaseSet& set, const PadSize& s, double solid, double forms) {
    const auto& g = set.ground;
    const double dug = s.area() + 100 * s.perimeter() + 4 * 100 * 100;
    model::Amounts a;
    a.concrete = solid / 1e9, a.formwork = forms / 1e6;
    a.blinding = dug * g.blinding / 1e9;
    a.excavation = dug * (std::max(g.depth, s.h) + g.blinding) / 1e9;
    return a;
}

double ratioOf(const standards::PunchingFound& found) {
    return std::max(checks::isJudged(found.stress) ? checks::ratio(found.stress) : 0,
                    checks::isJudged(found.face) ? checks::ratio(found.face) : 0);
}

Standing::Standing(const Context& in, const model::Base& base, std::vector<StrapEnd> ends)
    : in_(in), base_(base), ends_(std::move(ends)) {
    for (const auto& id : base.columns)
        if (const auto* c = in.column(id)) {
            const auto& p = base.pedestal;
            columns_.push_back({c,
                                {c->x, c->y},
                                in.actions(*c),
                                {p.any() ? std::max(p.width, c->width) : c->width,
                                 p.any() ? std::max(p.depth, c->depth) : c->depth}});
        }
    if (columns_.empty()) return;
    for (const auto& c : columns_)
        middle_.x += c.at.x / double(columns_.size()), middle_.y += c.at.y / double(columns_.size());
    for (auto& c : columns_) c.at.x -= middle_.x, c.at.y -= middle_.y;
    if (!base.leftOut.empty()) {
        own_ = in.combinations;
        for (auto& all : *own_)
            std::erase_if(all, [&](const standards::BaseCombination& c) {
                return std::find(base.leftOut.begin(), base.leftOut.end(), c.name(in.caseNames)) !=
                       base.leftOut.end();
            });
    }
    if (!ends_.empty()) {
        // Each combination once more, with less that lifts.
        if (!own_) own_ = in.combinations;
        for (auto& all : *own_)
            for (std::size_t i = 0, n = all.size(); i < n; ++i) {
                all.push_back(all[i]);
                all.back().lightStrap = true;
            }
    }
    for (int s = 0; s < states; ++s)
        for (const auto& k : of(BaseState(s))) {
            Sum& sum = sums_[std::size_t(s)].emplace_back();
            sum.weight = k.concrete;
            for (const auto& c : columns_) {
                const Forces f = forces(c, k);
                sum.N += f.N, sum.Hx += f.Hx, sum.Hy += f.Hy;
                sum.alongX += f.N * c.at.x + f.My, sum.alongY += f.N * c.at.y - f.Mx;
            }
        }
    findStarters();
}

Forces Standing::forces(const Column& c, const standards::BaseCombination& k) const {
    Forces f = combined(c.actions, k.factors);
    for (const auto& e : ends_)
        if (e.column == c.column->id) f.N -= e.lifts(k, in_.set.cases);
    if (!base_.pedestal.any()) return f;
    f.N += k.concrete * pedestal();
    f.My += f.Hx * base_.pedestal.height, f.Mx -= f.Hy * base_.pedestal.height;
    return f;
}
double Standing::pedestal() const {
    const auto& p = base_.pedestal;
    return p.any() ? in_.density * p.width * p.depth * p.height : 0;
}
double Standing::soilDisplaced(double h) const {
    const auto& p = base_.pedestal;
    if (!p.any()) return 0;
    const double high = std::min(p.height, std::max(0.0, in_.set.ground.depth - h));
    return in_.set.ground.soil * p.width * p.depth * high * double(columns_.size());
}
void Standing::findStarters() {
    const auto& catalog = *catalogs::barCatalog(in_.basis->barCatalog);
    const double yield = in_.standard->anchorage->designYield(in_.fy);
    for (const auto& c : columns_) {
        Starters s;
        s.at = {middle_.x + c.at.x, middle_.y + c.at.y};
        s.sides[0] = c.column->width, s.sides[1] = c.column->depth;
        for (const auto& e : ends_)
            if (e.column == c.column->id) s.strap = std::max(s.strap, e.lever);
        Asked press, pull;
        for (std::size_t i = 0; i < of(BaseState::Strength).size(); ++i) {
            const double N = combined(c.actions, of(BaseState::Strength)[i].factors).N;
            press.larger(N, int(i)), pull.larger(-N, int(i));
        }
        const double least = in_.rules.dowels(press.value, c.column->width * c.column->depth,
                                              in_.basis->column.strength, in_.fy);
        s.tension = pull.value, s.pulledIn = pull.combination;
        s.need = std::max(least, pull.value / yield);
        s.combination = s.need > least ? pull.combination : press.combination;
        for (int axis : {0, 1})
            s.along[axis] = std::max(
                2, int(std::ceil((s.sides[axis] - 2 * in_.columnCover - 40) / startersApart - 1e-9)) + 1);
        std::vector<std::string> names = in_.set.bars;
        if (!in_.set.starterBar.empty()) names = {in_.set.starterBar};
        std::vector<const catalogs::Bar*> bars;
        for (const auto& n : names)
            if (const auto* b = catalog.find(n); b && b->diameter >= 12 - 1e-9) bars.push_back(b);
        if (bars.empty() && !names.empty()) bars.push_back(catalog.find(names.back()));
        std::sort(bars.begin(), bars.end(), [](auto* a, auto* b) { return a->area < b->area; });
        for (const auto* b : bars) {
            s.bar = b;
            if (s.area() >= s.need) break;
        }
        // The thickest do not: more of them, as far as they stand clear.
        auto room = [&](int axis) {
            return (s.sides[axis] - 2 * in_.columnCover) / (s.along[axis]) >
                   s.bar->diameter + in_.standard->steel->clear(s.bar->diameter, in_.basis->aggregate);
        };
        while (s.bar && s.area() < s.need && (room(0) || room(1))) {
            const int axis = room(0) && (s.along[0] <= s.along[1] || !room(1)) ? 0 : 1;
            ++s.along[axis];
        }
        starters_.push_back(s);
    }
}
model::Amounts Standing::standingAmounts(const PadSize& s, double solid, double forms) const {
    const auto& stub = base_.pedestal;
    const double stubs = stub.any() ? double(columns_.size()) : 0;
    return amountsOf(in_.set, s, solid + stubs * stub.width * stub.depth * stub.height,
                     forms + 2 * stubs * (stub.width + stub.depth) * stub.height);
}
std::vector<Mat> Standing::sameBothWays(const PadSize& size, const std::array<Mat, 2>& mats,
                                        double most) const {
    if (pinnedBars() || std::abs(size.B - size.L) > 1 || !size.outline.empty()) return {};
    const Mat &x = mats[0], &y = mats[1];
    if (!x.bar || !y.bar || (x.bar == y.bar && x.spacing == y.spacing && x.hooked == y.hooked)) return {};
    std::vector<Mat> all;
    const double less = std::min(x.area(), y.area()), more = std::max(x.area(), y.area());
    if (more <= 1.25 * less) all.push_back(x.area() > y.area() ? x : y);
    const double thin = std::min(x.bar->diameter, y.bar->diameter);
    for (double area = less; area < 1.001 * more; area *= 1.06) {
        const Mat one = mat(in_, base_, size.B, area, most, thin);
        if (!one.bar || 2 * one.area() > 1.2 * (less + more)) break;
        if (all.empty() || one.bar != all.back().bar || one.spacing != all.back().spacing) all.push_back(one);
    }
    for (Mat& one : all) one.hooked = x.hooked || y.hooked;
    return all;
}
double Standing::price(model::Amounts built, const std::vector<schedule::Item>& bars) const {
    for (const auto& i : bars) built.steel += i.number * i.massEach, built.pieces += i.number;
    return built.price(in_.basis->rates);
}
std::pair<checks::Finding, int> Standing::pulledOut(const Starters& s, double h, double stands,
                                                    trace::Steps* t) const {
    standards::AnchorageInput bar;
    const auto& anchorage = *in_.standard->anchorage;
    bar.diameter = s.bar->diameter, bar.area = s.bar->area, bar.fc = in_.fc, bar.fy = in_.fy;
    bar.stress = std::min(s.tension / s.area(), anchorage.designYield(in_.fy));
    bar.cd = in_.cover, bar.spacing = startersApart, bar.hooked = true;
    checks::Finding f = finding(units::Kind::Length, 0, h - stands, anchorage.clause(true));
    f.prefix = "lbd";
    f.demand = anchorage.length(bar, t);
    return {checks::judged(f), s.pulledIn};
}
Reinforced Standing::reinforced(const PadSize& s, const std::array<Mat, 2>& bottom,
                                const std::array<Mat, 2>& top, double below) const {
    Reinforced r;
    r.centre = centre(s), r.B = s.B, r.L = s.L, r.h = s.h;
    r.bottom = bottom, r.top = top, r.below = below;
    r.pedestal = base_.pedestal.any() ? base_.pedestal.height : 0;
    r.starters = starters_;
    r.outline = s.outline;
    return r;
}
void Standing::commonChecks(Sink& sink) const {
    if (!sink.gathers()) return;
    for (const auto& name : base_.leftOut) {
        const bool known =
            std::any_of(in_.combinations.begin(), in_.combinations.end(), [&](const auto& all) {
                return std::any_of(all.begin(), all.end(),
                                   [&](const auto& c) { return c.name(in_.caseNames) == name; });
            });
        if (known)
            sink.add("left-out/" + name, "Combination " + name, checks::Topic::Omission,
                     checks::notChecked("combinations", "Excluded by the user for this base."));
    }
    const auto& p = base_.pedestal;
    if (!p.any()) return;
    double over = 0;
    for (const auto& c : columns_)
        over = std::max({over, (p.width - c.column->width) / 2, (p.depth - c.column->depth) / 2});
    const auto care = in_.rules.care();
    checks::Finding f = finding(units::Kind::Length, p.height, care.pedestalHeight * over, care.pedestal);
    f.sense = checks::Sense::AtLeast, f.prefix = "h";
    f.notes.push_back(
        "A pedestal is assumed to spread the column's load to its whole section where it is at least twice "
        "as high as its projection; its own bars are not designed.");
    sink.aside("pedestal", "Height of the pedestal", checks::Topic::Bearing, checks::judged(f));
}

Sink Standing::gathering(verify::CheckList& list, const model::PartRef& part, const PadSize& size,
                         bool working) const {
    checks::Place place;
    place.spot.part = part, place.name = model::baseName(in_.set, base_), place.at = centre(size);
    return {list, std::move(place), [this](Under u) { return combination(u.state, u.combination); }, working};
}

void Standing::starterChecks(Sink& sink, const PadSize& size, double below) const {
    const auto& all = starters_;
    for (std::size_t c = 0; c < all.size(); ++c) {
        const Starters& s = all[c];
        const auto tag = all.size() > 1 ? "-" + columns_[c].column->id : std::string();
        const auto of = all.size() > 1 ? " of " + columns_[c].column->name : std::string();
        if (sink.gathers()) {
            checks::Finding f = finding(units::Kind::Area, s.area(), s.need, in_.rules.dowelClause());
            f.sense = checks::Sense::AtLeast, f.prefix = "As";
            trace::Steps t;
            if (sink.working() && s.combination >= 0) {
                const double N = combined(columns_[c].actions,
                                          this->of(BaseState::Strength)[std::size_t(s.combination)].factors)
                                     .N;
                trace::step(&t, "N_Ed", "", {}, N / 1000, "kN", f.clause,
                            "at the top of the base, downwards");
                trace::step(&t, "A_s,min", "", {}, s.need, "mm²", f.clause,
                            "minimum reinforcement of the column, the force that bearing does not transfer, "
                            "or tension in the column");
            }
            f.notes.push_back(
                "Starter bars cover minimum column steel and net tension only; steel for column moments is "
                "part of the column design.");
            if (!s.bar) f.here.push_back("None of the permitted bar sizes fits within the column.");
            if (s.bar && s.area() < s.need)
                f.here.push_back(
                    "No more of them fit the column with clear distances: use a larger column, stronger "
                    "concrete or thicker bars.");
            // How many there is room for is a matter of the column.
            sink.aside("starters" + tag, "Starter bars" + of, checks::Topic::Steel, checks::judged(f),
                       std::move(t), Under{BaseState::Strength, s.combination});
        }
        if (s.bar && s.tension > 0) {
            trace::Steps a;
            const auto [out, in] = pulledOut(s, size.h, below, sink.steps(a));
            sink.add("starters-anchorage" + tag, "Anchorage of starter bars" + of, checks::Topic::Anchorage,
                     out, std::move(a), {BaseState::Strength, in});
        }
    }
}
bool Standing::placed(PadSize& s) const {
    s.onSite = true;
    if (in_.set.site.size() < 3) return true;
    if (!base_.offPinned) s.off = s.shift;
    const auto c = centre(s);
    const auto at = in_.within(c, s.B, s.L);
    s.onSite = at && !(base_.offPinned && std::hypot(at->x - c.x, at->y - c.y) > 1);
    if (s.onSite && !base_.offPinned) s.off = {at->x - middle_.x, at->y - middle_.y};
    return s.onSite;
}

BaseState Standing::crackState() const {
    return in_.standard->cracks->state() == actions::LimitState::QuasiPermanent ? BaseState::Sustained
                                                                                : BaseState::Service;
}
std::string Standing::combination(BaseState s, int i) const {
    return i < 0 ? std::string() : of(s)[std::size_t(i)].name(in_.caseNames);
}

ground::Resultant Standing::resultant(const Sum& sum, const PadSize& s, double weight) const {
    const auto heavy = s.heavy();
    return {sum.N + weight, sum.alongX + sum.Hx * s.h - sum.N * s.off.x + weight * heavy.x,
            sum.alongY + sum.Hy * s.h - sum.N * s.off.y + weight * heavy.y};
}

std::vector<std::size_t> Standing::worstLooking(const Column& c, double h, double d) const {
    std::vector<std::pair<double, std::size_t>> order;
    for (std::size_t i = 0; i < of(BaseState::Strength).size(); ++i) {
        const Forces f = forces(c, BaseState::Strength, i);
        const double more =
            std::abs(f.along(0, h)) / (c.side(0) + 2 * d) + std::abs(f.along(1, h)) / (c.side(1) + 2 * d);
        order.push_back({-(f.N + 1.5 * more), i});
    }
    std::sort(order.begin(), order.end());
    if (order.size() > 3) order.resize(3);
    std::vector<std::size_t> all;
    for (const auto& [key, i] : order) all.push_back(i);
    return all;
}

standards::FootingPunching Standing::pushing(geometry::Point at, double sideX, double sideY, const PadSize& s,
                                             const std::array<double, 2>& d,
                                             const std::array<Mat, 2>& bottom) const {
    standards::FootingPunching in;
    in.sides[0] = sideX, in.sides[1] = sideY;
    in.over[0] = s.B / 2 + at.x - sideX / 2, in.over[1] = s.B / 2 - at.x - sideX / 2;
    in.over[2] = s.L / 2 + at.y - sideY / 2, in.over[3] = s.L / 2 - at.y - sideY / 2;
    for (double& o : in.over) o = std::max(0.0, o);
    in.d = (d[0] + d[1]) / 2, in.fc = in_.fc;
    for (geometry::Point p : s.outline) in.outline.push_back({p.x - at.x, p.y - at.y});
    for (int axis : {0, 1})
        in.rho[axis] = bottom[std::size_t(axis)].area() / (s.side(1 - axis) * d[std::size_t(axis)]);
    return in;
}

}  // namespace talvik::bases

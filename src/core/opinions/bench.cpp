#include "opinions/bench.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "bars/bar_choices.h"
#include "standards/panel_coefficients.h"
#include "verify/section_checks.h"

namespace talvik::opinions {
namespace {

using checks::Finding;
using checks::Topic;
using trace::Steps;
using units::Kind;

class Bench {
  public:
    Bench(const BenchInput& in, const model::Basis& basis)
        : in_(in), basis_(basis), rules_(standards::makeStandard(basis.standard, basis.parameters)) {}

    BenchAnswer run() {
        out_.trouble = trouble();
        if (!out_.trouble.empty()) return out_;
        answer();
        out_.checks = list_.take();
        // For one page: bending at each place, the checks of the whole and whatever is over; the working of
        // bending where it is used most.
        bool told = false;
        for (const auto* c : checks::worstFirst(out_.checks)) {
            const bool bending = c->topic == Topic::Flexure;
            const bool whole = c->place.spot.in == model::Spot::In::Whole;
            if (!bending && !whole && c->outcome != checks::Outcome::Over) continue;
            out_.brief.push_back(*c);
            if (!bending || told) out_.brief.back().steps.clear(), out_.brief.back().notes.clear();
            told = told || bending;
        }
        return out_;
    }

  private:
    void answer() {
        loads();
        if (in_.kind == BenchInput::Kind::Section) {
            out_.source = "The moment given.";
            place("section", in_.moment < 0, true, std::abs(in_.moment) / in_.width);
        } else if (in_.kind == BenchInput::Kind::OneWay) {
            oneWay();
        } else {
            twoWay();
        }
    }

    const BenchInput& in_;
    const model::Basis& basis_;
    std::shared_ptr<const standards::Standard> rules_;
    BenchAnswer out_;
    verify::CheckList list_{"bench/"};
    Steps loadSteps_;
    double service_ = 1;  // service load of the crack rule over the ultimate one
    static constexpr double b_ = 1000;

    std::string trouble() const {
        if (!rules_) return "There is no such standard; choose one of the list.";
        if (!catalogs::imposedUse(in_.use)) return "There is no such imposed use; choose one of the list.";
        auto off = [](double v, double low, double high) { return !(v >= low && v <= high); };
        if (off(in_.thickness, 60, 2000)) return "The thickness lies outside 60 to 2000 mm; correct it.";
        double cover = std::max(basis_.coverTop, basis_.coverBottom);
        if (in_.thickness < cover + 40) return "The cover leaves no effective depth; make the slab thicker.";
        if (in_.kind == BenchInput::Kind::Section) {
            if (off(in_.width, 50, 20000)) return "The width lies outside 50 mm to 20 m; correct it.";
            if (off(std::abs(in_.moment), 1, 1e13)) return "Give a moment other than zero.";
            return {};
        }
        if (off(in_.permanent, 0, 0.1) || off(in_.imposed, 0, 0.1))
            return "A load lies outside 0 to 100 kN/m²; correct it.";
        if (in_.kind == BenchInput::Kind::OneWay) {
            if (off(in_.span, 500, 30000)) return "The span lies outside 0.5 to 30 m; correct it.";
            if (in_.spans < 1 || in_.spans > 20) return "Give between 1 and 20 spans.";
            if (off(in_.support, 0, 0.8 * in_.span))
                return "The supports are wider than the spans allow; correct their width.";
            return {};
        }
        if (off(in_.lx, 500, 30000) || off(in_.ly, 500, 30000))
            return "A span lies outside 0.5 to 30 m; correct it.";
        return {};
    }

    void loads() {
        out_.selfWeight =
            trace::step(&loadSteps_, "g_0", "h*gamma/1000",
                        {{"h", in_.thickness, "mm"}, {"gamma", basis_.concreteDensity * 1e6, "kN/m³"}},
                        in_.thickness * basis_.concreteDensity * 1000, "kN/m²", "statics", "self-weight") /
            1000;
        double g = out_.selfWeight + in_.permanent;
        double crack = 0;
        const actions::Combination* by = nullptr;
        auto all = rules_->actions->combinations(*catalogs::imposedUse(in_.use));
        for (const auto& c : all) {
            double w = c.factorG * g + c.factorQ * in_.imposed;
            if (c.state == actions::LimitState::Ultimate && w > out_.ultimate) out_.ultimate = w, by = &c;
            if (c.state == rules_->cracks->state()) crack = std::max(crack, w);
        }
        if (!by) return;
        trace::step(&loadSteps_, "w", "f_G*(g_0 + g_1) + f_Q*q",
                    {{"f_G", by->factorG},
                     {"g_0", out_.selfWeight * 1000, "kN/m²"},
                     {"g_1", in_.permanent * 1000, "kN/m²"},
                     {"f_Q", by->factorQ},
                     {"q", in_.imposed * 1000, "kN/m²"}},
                    out_.ultimate * 1000, "kN/m²", by->clause.empty() ? "combination" : by->clause, by->name);
        service_ = out_.ultimate > 0 ? crack / out_.ultimate : 1;
    }

    // At a place of its own, or of the whole.
    static checks::Place placed(const std::string& name) {
        const model::PartRef bench{"bench"};
        return name.empty() ? checks::Place{{bench, model::Spot::In::Whole, {}}, ""}
                            : checks::Place{{bench, model::Spot::In::Span, name}, name};
    }

    // Of bars that lie behind others of `outer` diameter; 0 for those next to the face.
    line::LineBasis lineBasis(double outer) const {
        return {basis_, *rules_, outer, outer, 0, in_.kind == BenchInput::Kind::TwoWay};
    }

    // Chooses bars for a moment and checks them; their diameter.
    double place(const std::string& name, bool top, bool alongX, double moment, const Steps& before = {},
                 double outer = 0) {
        const auto in = lineBasis(outer);
        const double service = moment * service_;
        const auto all = bars::barChoices(
            basis_.mainBars, rules_->steel->spacing(in.role(), true, in_.thickness), basis_, *rules_);
        auto best = std::find_if(all.begin(), all.end(), [&](const auto& c) {
            return bars::suffices(c, top, in_.thickness, moment, service, in).has_value();
        });
        if (best == all.end()) best = all.end() - 1;
        const double diameter = best->bar->diameter;
        const auto s = line::section(top, diameter, in_.thickness, in, b_);
        const auto need = rules_->flexure->required(s, moment * b_);
        out_.rows.push_back({name, top, alongX, moment, need.possible ? need.As / b_ : 0, best->bar->name,
                             best->spacing, best->area()});
        Steps steps = in_.kind == BenchInput::Kind::Section ? Steps{} : loadSteps_;
        steps.insert(steps.end(), before.begin(), before.end());
        const auto face = top ? model::Face::Top : model::Face::Bottom;
        const auto f = verify::bending(s, moment, best->area(), 0, *rules_, basis_.units, &steps);
        list_.add(
            {"flexure", top ? "Flexure top" : "Flexure bottom", Topic::Flexure, checks::judged(f), steps},
            placed(name), {}, face);
        for (auto& c : verify::sectionChecks(s, {best->area(), best->spacing, best->spacing, diameter},
                                             basis_, *rules_, in.crackLimit(top), in.twoWay, true))
            list_.add(std::move(c), placed(name), {}, face);
        if (in_.kind != BenchInput::Kind::Section) {
            steps.clear();
            auto width = rules_->cracks->check(
                line::crackInput(s, top, service * b_, best->area() * b_, diameter, best->spacing, in),
                &steps);
            list_.add({"crack", "Crack control", Topic::Cracks, std::move(width), steps}, placed(name), {},
                      face);
        }
        return diameter;
    }

    // The section of the bars at mid-span, or along the shorter way.
    standards::Section first() const {
        const auto* bar = catalogs::barCatalog(basis_.barCatalog)->find(out_.rows.front().bar);
        return line::section(false, bar->diameter, in_.thickness, lineBasis(0), b_);
    }

    void slenderness(standards::SpanSystem system, double length) {
        const auto& row = out_.rows.front();
        standards::SlendernessInput in{first(), system, length, row.required * b_, 0, row.provided * b_};
        Steps steps;
        auto f = rules_->slenderness->check(in, &steps);
        list_.add({"slenderness", "Span/depth ratio", Topic::Slenderness, std::move(f), steps}, placed(""));
    }

    void oneWay() {
        standards::ActionRules::Spans s;
        s.lengths.assign(std::size_t(in_.spans), in_.span);
        s.clear.assign(std::size_t(in_.spans), in_.span - in_.support);
        s.permanent = out_.selfWeight + in_.permanent;
        s.imposed = in_.imposed;
        s.area = 30e6;  // a bay of the usual size
        auto c = rules_->actions->coefficients(s);
        struct At {
            std::string name;
            bool top;
            double k;
        };
        std::vector<At> places;
        if (in_.spans == 1) {
            out_.source = "A single span, w l²/8: statics.";
            places = {{"span", false, 0.125}};
        } else if (!c.refusal.empty()) {
            out_.trouble =
                fmt::format("The coefficients of {} do not apply: {}. Lay the slab out as a strip instead.",
                            c.source, c.refusal);
            return;
        } else {
            out_.source = c.source + ".";
            if (!c.note.empty()) out_.notes.push_back(c.note);
            auto n = std::size_t(in_.spans);
            places.push_back({"end span", false, c.span[0]});
            places.push_back({"first inner support", true, -c.support[1]});
            if (n > 2) places.push_back({"inner span", false, c.span[1]});
            if (n > 3) places.push_back({"inner support", true, -c.support[2]});
        }
        double l = in_.spans > 1 && c.onClearSpan ? in_.span - in_.support : in_.span;
        for (const auto& p : places) {
            Steps steps;
            double m = trace::step(&steps, "m", "k*w*l^2",
                                   {{"k", p.k}, {"w", out_.ultimate * 1000, "kN/m²"}, {"l", l / 1000, "m"}},
                                   p.k * out_.ultimate * l * l / 1000, "kNm/m",
                                   in_.spans == 1 ? "statics" : c.source) *
                       1000;
            place(p.name, p.top, true, m, steps);
        }
        slenderness(in_.spans == 1 ? standards::SpanSystem::Simple : standards::SpanSystem::End, in_.span);
        shear(in_.spans == 1 ? 0.5 : 0.6, in_.span - in_.support);
    }

    // One-way shear beside a support, for a share of the load of a span.
    void shear(double share, double clear) {
        const auto s = first();
        Steps steps = loadSteps_;
        double v =
            trace::step(&steps, "v", "k_v*w*l_n - w*d/1000",
                        {{"k_v", share},
                         {"w", out_.ultimate * 1000, "kN/m²"},
                         {"l_n", clear / 1000, "m"},
                         {"d", s.d, "mm"}},
                        share * out_.ultimate * clear - out_.ultimate * s.d, "kN/m", "statics",
                        "an effective depth from the face; 0.6 of the load goes to the first inner support");
        Finding f;
        f.kind = Kind::ForcePerWidth, f.prefix = "v", f.clause = rules_->shear->clause();
        f.demand = std::max(0.0, v);
        f.limit = rules_->shear->oneWay(s, out_.rows.front().provided * b_, &steps) / b_;
        list_.add({"shear", "One-way shear", Topic::OneWayShear, checks::judged(f), steps}, placed(""));
    }

    void twoWay() {
        const bool xShort = in_.lx <= in_.ly;
        standards::PanelEdges e;  // the short span runs between the long edges
        if (xShort) {
            e.longContinuous = {in_.continuous[0], in_.continuous[1]};
            e.shortContinuous = {in_.continuous[2], in_.continuous[3]};
        } else {
            e.longContinuous = {in_.continuous[2], in_.continuous[3]};
            e.shortContinuous = {in_.continuous[0], in_.continuous[1]};
        }
        double s = std::min(in_.lx, in_.ly), l = std::max(in_.lx, in_.ly);
        auto c = standards::panelCoefficients(s, l, e);
        if (!c.refusal.empty()) {
            out_.trouble = c.refusal + " Take the one-way slab.";
            return;
        }
        out_.source = fmt::format("BS 8110-1:1997 3.5.3.4, equations (14) to (18), case {}: {}.",
                                  c.caseNumber, c.caseName);
        out_.notes.push_back("Corners held down; torsion steel at corners where two free edges meet.");
        auto moment = [&](double k, Steps& steps) {
            return trace::step(
                       &steps, "m", "beta*w*l_x^2",
                       {{"beta", std::abs(k)}, {"w", out_.ultimate * 1000, "kN/m²"}, {"l_x", s / 1000, "m"}},
                       std::abs(k) * out_.ultimate * s * s / 1000, "kNm/m", "BS 8110-1 3.5.3.4 (14), (15)") *
                   1000;
        };
        Steps a, b, p, q;
        // Bars of the shorter span lie outermost.
        double m[4] = {moment(c.spanShort, a), moment(c.spanLong, b), 0, 0};
        if (c.supportShort != 0) m[2] = moment(c.supportShort, p);
        if (c.supportLong != 0) m[3] = moment(c.supportLong, q);
        double outer = place("span, shorter way", false, xShort, m[0], a), outerTop = outer;
        place("span, longer way", false, !xShort, m[1], b, outer);
        if (m[2] > 0) outerTop = place("edges across the shorter way", true, xShort, m[2], p);
        if (m[3] > 0) place("edges across the longer way", true, !xShort, m[3], q, outerTop);
        int n = e.longContinuous[0] + e.longContinuous[1];
        slenderness(n == 2   ? standards::SpanSystem::Interior
                    : n == 1 ? standards::SpanSystem::End
                             : standards::SpanSystem::Simple,
                    s);
        // Where one of the long edges is continuous alone, the moment there draws load to it: by statics of a
        // strip that carries all of it the shorter way.
        shear(0.5 + (n == 1 ? std::abs(c.supportShort) : 0), s);
    }
};

}  // namespace

BenchAnswer bench(const BenchInput& input, const model::Basis& basis) {
    return Bench(input, basis).run();
}

}  // namespace talvik::opinions

#include "bases/faces.h"

#include <algorithm>

#include "bases/standing.h"

namespace talvik::bases {

using checks::Finding;
using checks::Topic;

std::optional<Finding> cracksOf(const Context& in, const Face& f, trace::Steps* t) {
    if (!f.mat.bar || !(f.service.value > 0)) return {};
    return in.standard->cracks->check(
        {f.section, f.service.value, f.mat.area(), f.mat.bar->diameter, f.mat.spacing, f.cover,
         in.basis->creep, f.way.top ? in.basis->crackLimitTop : in.basis->crackLimitBottom},
        t);
}

void checkFace(const Context& in, const Face& face, Sink& sink) {
    const auto& rules = *in.standard;
    const auto& mat = face.mat;
    const bool top = face.way.top;
    const auto clauses = sink.gathers() ? rules.steel->clauses(true) : standards::SteelRules::Clauses{};
    const Under strength{BaseState::Strength, face.moment.combination};
    if (!top ? face.flexure || !mat.bar : face.moment.value > 0) {
        trace::Steps t;
        Finding f =
            finding(units::Kind::Moment, face.moment.value, 0, sink.gathers() ? rules.flexure->clause() : "");
        f.prefix = "M";
        if (mat.bar) {
            f.limit = rules.flexure->resistance(face.section, mat.area(), 0, sink.steps(t)).M;
            for (const char* note : face.notes)
                if (note && sink.gathers()) f.notes.push_back(note);
        } else if (top) {
            f.limit = rules.flexure->plain(face.section, sink.steps(t));
            f.here.push_back(face.plain);
        } else {
            f.demand = std::max(f.demand, 1.0);
            f.here.push_back(face.none);
        }
        sink.add("flexure", "Flexure", face.way, Topic::Flexure, checks::judged(f), std::move(t), strength);
    }
    if (!mat.bar || sink.enough()) return;
    // What bars that someone fixed do not keep, no other size is sought for.
    if (face.leastSteel) {
        trace::Steps t;
        Finding f = finding(units::Kind::Area, mat.area(), 0, clauses.minimum);
        f.sense = checks::Sense::AtLeast, f.prefix = "As";
        f.limit = rules.steel->minimum(top ? face.section : face.gross, sink.steps(t));
        sink.addOrAside(face.pinned, "least", "Minimum reinforcement", face.way, Topic::Steel,
                        checks::judged(f), std::move(t));
    }
    sink.addOrAside(face.pinned, "spacing", "Spacing", face.way, Topic::Spacing,
                    checks::judged(finding(
                        units::Kind::BarSpacing, mat.spacing,
                        rules.steel->spacing(standards::SteelRules::Role::TwoWay, true, face.section.h),
                        clauses.spacing)));
    const auto& whole = top ? face.section : face.gross;
    if (const double most = rules.steel->maximum(whole); most > 0 && most < 1e9) {
        trace::Steps t;
        Finding f = finding(units::Kind::Area, mat.area(), most, clauses.maximum);
        f.prefix = "As";
        if (sink.working()) rules.steel->maximum(whole, &t);
        sink.add("most", "Maximum reinforcement", face.way, Topic::Steel, checks::judged(f), std::move(t));
    }
    {
        trace::Steps t;
        auto f = rules.flexure->ductility(whole, mat.area(), 0, sink.steps(t));
        sink.add("ductility", "Neutral axis depth", face.way, Topic::Flexure, std::move(f), std::move(t));
    }
    trace::Steps t;
    if (auto wide = cracksOf(in, face, sink.steps(t)))
        sink.addOrAside(face.pinned, "cracks", "Cracks", face.way, Topic::Cracks, std::move(*wide),
                        std::move(t), Under{face.serviceState, face.service.combination});
}

}  // namespace talvik::bases

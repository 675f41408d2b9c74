#include "design/slab_design.h"

#include <fmt/format.h>

#include <algorithm>

#include "bars/proposal.h"
#include "design/measure.h"
#include "design/slab_checks.h"

namespace talvik::design {
namespace {

line::LineBasis slabBasis(const model::Basis& basis, const standards::Standard& standard) {
    line::LineBasis in{basis, standard};
    in.edgesClosed = true;
    return in;
}

}  // namespace

std::shared_ptr<const SlabAnswer> designSlab(std::shared_ptr<const model::OneWaySlab> slab,
                                             std::shared_ptr<const model::Basis> basis,
                                             std::shared_ptr<const standards::Standard> standard,
                                             bool tracing) {
    auto d = std::make_shared<SlabDesign>();
    d->part = {slab->id, model::PartKind::OneWaySlab, {}};
    d->name = slab->name;
    d->slab = slab;
    d->analysis = analysis::analyse(*slab, *basis,
                                    standard->actions->combinations(*catalogs::imposedUse(slab->imposedUse)));
    d->error = d->analysis.error;
    const auto ultimate =
        std::count_if(d->analysis.combinations.begin(), d->analysis.combinations.end(),
                      [](const auto& c) { return c.state == actions::LimitState::Ultimate; });
    d->envelope = fmt::format("{} combinations × {} arrangements", ultimate, d->analysis.arrangements.size());
    auto answer = std::make_shared<SlabAnswer>();
    answer->element = slab->id;
    answer->name = slab->name;
    answer->basis = basis;
    answer->standard = standard;
    answer->error = d->error;
    measure(*slab, *answer);
    if (d->error.empty()) {
        d->line = line::lineOf(*slab, d->analysis, *standard);
        const auto in = slabBasis(*basis, *standard);
        d->bars = bars::proposeSlab(*slab, in, d->line);
        for (const auto& r : d->bars)
            if (model::isMain(r.role)) d->runs.push_back(r);
        verify::fillCurves(*d, d->view(), in);
        checkSlab(*slab, in, *d, tracing);
        d->secondOpinion = secondOpinion(*slab, *standard, *d);
        const schedule::Body body{slab->thickness, slab->width};
        d->items = schedule::items(d->bars, body, in);
        for (const auto& z : d->links)
            d->items.push_back(schedule::links(z.bar, z.from, z.to, z.along, z.across, body, in));
        for (const auto& item : d->items) answer->steel += item.number * item.massEach, answer->pieces += item.number;
    }
    answer->parts = {d};
    answer->design = std::move(d);
    answer->summarise();
    return answer;
}

std::vector<bars::Run> SlabDesign::crossing() const {
    std::vector<bars::Run> all;
    for (const auto& r : bars)
        if (!model::isMain(r.role)) all.push_back(r);
    return all;
}

std::string SlabDesign::detail(units::System system) const {
    return "one-way, the whole width of " + units::text(slab->width, units::Kind::Span, system);
}

std::vector<checks::Check> SlabAnswer::withWorking(const PartAnswer&) const {
    return designSlab(design->slab, basis, standard, true)->design->checks;
}

std::vector<Fact> SlabAnswer::facts(const std::optional<model::Spot>& spot, units::System system) const {
    std::vector<Fact> all;
    const auto& slab = *design->slab;
    if (!spot || !error.empty()) return all;
    auto text = [&](double v, units::Kind kind) { return units::text(v, kind, system); };
    using enum Fact::Kind;
    using In = model::Spot::In;
    for (std::size_t i = 0; i < slab.spans.size() && spot->in == In::Span; ++i)
        if (slab.spans[i].id == spot->id && design->sag[i].camber > 0)
            all.push_back({Pair, "Precamber proposed", text(design->sag[i].camber, units::Kind::Sag)});
    if (spot->in == In::Whole) {
        const auto& so = design->secondOpinion;
        all.push_back({Heading, "Cross-check", "analysis / coefficient"});
        all.push_back(
            {Note, so.source + (so.refusal.empty() ? "." : ": conditions not met, " + so.refusal + ".")});
        for (const auto& r : so.rows) all.push_back({Pair, r.what, opinions::beside(r, system)});
        if (!so.note.empty() && so.refusal.empty()) all.push_back({Note, so.note});
        for (auto& fact : linkFacts(*design, system)) all.push_back(std::move(fact));
        all.push_back({Heading, "Reactions, ultimate", "permanent · imposed · maximum"});
    }
    for (std::size_t i = 0; i < slab.supports.size(); ++i) {
        const auto& r = design->analysis.reactions[i];
        if (spot->in == In::Whole)
            all.push_back({Pair, model::supportLabel(slab, i),
                           units::number(r.permanent, units::Kind::ForcePerWidth, system) + " · " +
                               units::number(r.imposedMax, units::Kind::ForcePerWidth, system) + " · " +
                               text(r.ultimateMax.value, units::Kind::ForcePerWidth)});
        if (spot->in != In::Support || slab.supports[i].id != spot->id) continue;
        all.push_back({Heading, "Reaction", "per width"});
        all.push_back({Pair, "Permanent", text(r.permanent, units::Kind::ForcePerWidth)});
        all.push_back({Pair, "Imposed, maximum", text(r.imposedMax, units::Kind::ForcePerWidth)});
        all.push_back({Pair, "Ultimate, maximum", text(r.ultimateMax.value, units::Kind::ForcePerWidth)});
    }
    return all;
}

void SlabDesigner::design(const Request& request, std::stop_token stop, const std::function<void(double)>&,
                          const std::function<void(Answer)>& publish) {
    for (const auto& slab : request.project->slabs) {
        if (slab->id != request.element) continue;
        const auto& basis = request.project->basis;
        const bool sameBasis = last_ && *last_->basis == basis;
        if (!sameBasis || *last_->design->slab != *slab) {
            auto standard =
                sameBasis ? last_->standard : standards::makeStandard(basis.standard, basis.parameters);
            if (!standard) return;
            last_ = designSlab(slab, sameBasis ? last_->basis : std::make_shared<const model::Basis>(basis),
                               std::move(standard));
        }
        if (!stop.stop_requested()) publish(last_);
    }
}

}  // namespace talvik::design

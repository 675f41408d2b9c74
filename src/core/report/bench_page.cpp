#include "report/bench_page.h"

#include <fmt/format.h>

#include "drawing/bench_sketch.h"

namespace talvik::report {

using units::Kind;

Document benchPage(const opinions::BenchInput& in, const opinions::BenchAnswer& answer,
                   const model::Basis& basis, bool allWorking) {
    using I = opinions::BenchInput::Kind;
    Document doc;
    doc.system = basis.units;
    auto text = [&](double v, Kind k) { return units::text(v, k, basis.units); };
    doc.title = in.kind == I::Section  ? "Section by moment"
                : in.kind == I::OneWay ? "One-way slab by coefficients"
                                       : "Two-way panel by coefficients";
    doc.add(Block::Kind::Title, doc.title);
    if (!answer.trouble.empty()) {
        doc.add(Block::Kind::Paragraph, answer.trouble);
        return doc;
    }
    std::string what;
    if (in.kind == I::Section)
        what = fmt::format("{} wide, {} thick, moment {}.", text(in.width, Kind::Length),
                           text(in.thickness, Kind::Length), text(in.moment, Kind::Moment));
    else if (in.kind == I::OneWay)
        what = fmt::format("{} {} of {}, {} thick, supports {} wide.", in.spans,
                           in.spans == 1 ? "span" : "equal spans", text(in.span, Kind::Span),
                           text(in.thickness, Kind::Length), text(in.support, Kind::Length));
    else
        what = fmt::format("{} by {}, {} thick.", text(in.lx, Kind::Span), text(in.ly, Kind::Span),
                           text(in.thickness, Kind::Length));
    if (in.kind != I::Section)
        what += fmt::format(" Self-weight {}, other permanent {}, imposed {}; ultimate {}.",
                            text(answer.selfWeight, Kind::AreaLoad), text(in.permanent, Kind::AreaLoad),
                            text(in.imposed, Kind::AreaLoad), text(answer.ultimate, Kind::AreaLoad));
    what += fmt::format(" {}, {}, covers {} top and {} bottom. {}", basis.concrete, basis.steel,
                        text(basis.coverTop, Kind::Length), text(basis.coverBottom, Kind::Length),
                        standards::standardTitle(basis.standard));
    doc.add(Block::Kind::Paragraph, what + ".");
    doc.add(Block::Kind::Paragraph, "Moments: " + answer.source);
    for (const auto& n : answer.notes) doc.add(Block::Kind::Paragraph, n);
    doc.figure(drawing::benchSketch(in, answer, basis, 180), "");
    auto unit = [&](Kind k) { return std::string(units::unit(k, basis.units).symbol); };
    auto number = [&](double v, Kind k) { return units::number(v, k, basis.units); };
    std::vector<std::vector<std::string>> rows{{"Place", "Face", "Moment, " + unit(Kind::MomentPerWidth),
                                                "Required, " + unit(Kind::SteelPerWidth), "Bars",
                                                "Provided, " + unit(Kind::SteelPerWidth)}};
    for (const auto& r : answer.rows)
        rows.push_back({r.place, r.top ? "top" : "bottom", number(r.moment, Kind::MomentPerWidth),
                        number(r.required, Kind::SteelPerWidth),
                        fmt::format("{} @ {}", r.bar, number(r.spacing, Kind::BarSpacing)),
                        number(r.provided, Kind::SteelPerWidth)});
    doc.table(rows);
    for (const auto& c : allWorking ? answer.checks : answer.brief) doc.check(c);
    if (!allWorking && answer.checks.size() > answer.brief.size())
        doc.add(Block::Kind::Paragraph,
                fmt::format("Bending and the failing checks; {} more checks pass and are left out here.",
                            answer.checks.size() - answer.brief.size()));
    return doc;
}

}  // namespace talvik::report

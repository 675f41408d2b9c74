#include "report/quantities_page.h"

#include <fmt/format.h>

#include "design/measure.h"
#include "design/quantities.h"
#include "schedule/stock.h"

namespace talvik::report {
namespace {

using units::Kind;

std::string money(double v) {
    std::string digits = fmt::format("{:.0f}", v), out;
    for (std::size_t i = 0; i < digits.size(); ++i) {
        if (i > 0 && (digits.size() - i) % 3 == 0) out += " ";
        out += digits[i];
    }
    return out;
}
std::string share(double v) {
    return fmt::format("{:.1f} %", 100 * v);
}

}  // namespace

void addQuantities(Document& doc, const model::Project& project, const design::Design& design) {
    const auto system = project.basis.units;
    auto num = [&](double v, Kind k) { return units::number(v, k, system); };
    auto unit = [&](Kind k) { return std::string(units::unit(k, system).symbol); };
    constexpr double m3 = 1e9, m2 = 1e6;  // stored in mm
    const auto all = design::quantities(project, design);
    if (all.empty()) return doc.add(Block::Kind::Paragraph, "Nothing is designed yet.");
    auto rows = all;
    if (all.size() > 1) rows.push_back(design::sum(all));
    const auto total = design::sum(all);
    std::vector<std::vector<std::string>> table{
        {"Element", "Members", "Concrete " + unit(Kind::Volume), "Formwork " + unit(Kind::PlanArea),
         "Steel " + unit(Kind::Mass), "Steel " + unit(Kind::MassPerVolume),
         "Steel " + unit(Kind::MassPerArea), "Cost " + project.basis.rates.currency, "Carbon kg CO₂e"}};
    for (const auto& q : rows)
        table.push_back({q.name, std::to_string(q.members), num(q.concrete * m3, Kind::Volume),
                         num(q.formwork * m2, Kind::PlanArea), num(q.steel, Kind::Mass),
                         num(q.perVolume() / m3, Kind::MassPerVolume),
                         num(q.perArea() / m2, Kind::MassPerArea), money(q.cost), money(q.emissions)});
    doc.table(std::move(table));
    doc.add(Block::Kind::Subheading, "Steel by type and size, " + unit(Kind::Mass));
    std::vector<std::string> head{"Element"};
    for (const auto& [size, mass] : total.bySize) head.push_back(size.second);
    std::vector<std::vector<std::string>> sizes{std::move(head)};
    for (const auto& q : rows) {
        std::vector<std::string> row{q.name};
        for (const auto& [size, mass] : total.bySize) {
            const auto found = q.bySize.find(size);
            row.push_back(found == q.bySize.end() ? "–" : num(found->second, Kind::Mass));
        }
        sizes.push_back(std::move(row));
    }
    doc.table(std::move(sizes));
    const auto& r = project.basis.rates;
    auto rate = [&](const char* what, const model::Rates::Rate& x, const char* per) {
        return fmt::format("{} {} {} and {} kg CO₂e per {}", what, units::plain(x.price, 6), r.currency,
                           units::plain(x.carbon, 6), per);
    };
    std::string by = rate("concrete", r.concrete, "m³") + "; " + rate("steel", r.steel, "kg") + "; " +
                     rate("formwork", r.formwork, "m²");
    auto also = [&](double amount, Kind kind, const char* what, const model::Rates::Rate& x, const char* per,
                    double stored) {
        if (amount > 0)
            by += fmt::format("; {} ({} in all)", rate(what, x, per),
                              units::text(amount * stored, kind, system));
    };
    also(total.blinding, Kind::Volume, "blinding", r.blinding, "m³", m3);
    also(total.excavation, Kind::Volume, "excavation", r.excavation, "m³", m3);
    also(total.pileLength, Kind::Span, "piles", r.pile, "m", 1000);
    if (total.pieces > 0)
        by += fmt::format("; {} ({:.0f} in all)", rate("placing", r.piece, "bar"), total.pieces);
    doc.add(Block::Kind::Paragraph, "Cost and carbon by the rates of the basis: " + by + ".");
    doc.add(Block::Kind::Paragraph,
            "Concrete is net of openings. Formwork: soffit net of supports, plus edges, openings and steps. "
            "Steel is that of the bar schedule, without chairs, tying wire and waste. Beams below slabs, "
            "walls and columns are not included.");
    if (const auto sum = design.summary(); sum.over > 0)
        doc.add(Block::Kind::Paragraph,
                sum.over == 1 ? "1 check fails: the quantities will change."
                              : fmt::format("{} checks fail: the quantities will change.", sum.over));
}

Document quantitiesPage(const model::Project& project, const design::Design& design) {
    Document doc;
    doc.title = project.name + ": quantities";
    doc.system = project.basis.units;
    doc.add(Block::Kind::Title, doc.title);
    if (!project.sheet.revision.empty())
        doc.add(Block::Kind::Paragraph,
                fmt::format("Revision {}{}.", project.sheet.revision,
                            project.sheet.date.empty() ? "" : ", " + project.sheet.date));
    addQuantities(doc, project, design);
    return doc;
}

Document cuttingPage(const model::Project& project, const design::Design& design) {
    const auto system = project.basis.units;
    auto num = [&](double v, Kind k) { return units::number(v, k, system); };
    const std::string length(units::unit(Kind::Length, system).symbol);
    Document doc;
    doc.title = project.name + ": cutting list";
    doc.system = system;
    doc.add(Block::Kind::Title, doc.title);
    const auto plans = schedule::cuttingList(design.schedule(), project.basis.stockLength);
    if (plans.empty()) doc.add(Block::Kind::Paragraph, "There are no bars to cut yet.");
    std::vector<std::vector<std::string>> table{
        {"Type and size", "Stock bars", "Minimum", "Waste", "Minimum waste",
         "Bought, " + std::string(units::unit(Kind::Mass, system).symbol)}};
    for (const auto& p : plans)
        table.push_back({p.bar, std::to_string(p.plan.bars), std::to_string(p.plan.bound),
                         share(p.plan.waste()), share(p.plan.leastWaste()),
                         num(p.plan.bars * p.plan.stock / 1000 * p.massPerMetre, Kind::Mass)});
    if (!plans.empty()) {
        doc.add(Block::Kind::Paragraph,
                fmt::format("Bars are cut from stock of {}. Minimum: lower bound on the number of stock bars "
                            "(Martello and Toth). Offcuts count as waste.",
                            units::text(project.basis.stockLength, Kind::Length, system)));
        doc.table(std::move(table));
    }
    for (const auto& p : plans) {
        doc.add(Block::Kind::Heading, p.bar);
        for (const auto& piece : p.plan.tooLong)
            doc.add(Block::Kind::Paragraph,
                    fmt::format("Mark {:02}: {} pieces of {} are longer than the stock.", piece.mark,
                                piece.number, units::text(piece.length, Kind::Length, system)));
        std::vector<std::vector<std::string>> rows{
            {"Bars", "Pieces from each: number × length, " + length + " (mark)", "Left, " + length}};
        for (const auto& c : p.plan.cuts) {
            std::string pieces;
            for (const auto& piece : c.pieces)
                pieces += fmt::format("{}{} × {} ({:02})", pieces.empty() ? "" : " + ", piece.number,
                                      num(piece.length, Kind::Length), piece.mark);
            rows.push_back({std::to_string(c.bars), pieces, num(c.left, Kind::Length)});
        }
        doc.table(std::move(rows));
    }
    return doc;
}

}  // namespace talvik::report

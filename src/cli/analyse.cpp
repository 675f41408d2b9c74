// talvik analyse FILE: the plate analysis of a project's floors.
#include <fmt/format.h>

#include "cli/commands.h"
#include "design/floors.h"
#include "formats/fields.h"
#include "formats/file.h"
#include "formats/project_file.h"
#include "opinions/panel_opinions.h"

namespace talvik::cli {
namespace {

struct Options {
    Source source;
    std::string floor, field, format = "csv", combination, output;
    bool json = false, convergence = false;
};

std::string place(model::Point p) {
    return fmt::format("({:.2f}, {:.2f}) m", p.x / 1000, p.y / 1000);
}

void print(const model::Floor& floor, const analysis::FloorAnalysis& a,
           const formats::AnalysisExtras& extras) {
    using analysis::key, analysis::unit, analysis::factor;
    fmt::print("{}: {} triangles, {} unknowns, smallest angle {:.0f}°, sides {:.0f} to {:.0f} mm\n",
               floor.name, a.model->plate.triangles.size(), a.unknowns, a.model->mesh.smallestAngle,
               a.model->mesh.shortestSide, a.model->mesh.longestSide);
    fmt::print("\n  {:<24}{:>14}{:>14}{:>14}\n", "Load case", "loads kN", "reactions kN", "difference");
    for (const auto& c : a.cases)
        fmt::print("  {:<24}{:>14.2f}{:>14.2f}{:>14}\n", c.name, c.load / 1000, c.reaction / 1000,
                   c.imbalance < 1e-9 ? std::string("below 1e-9") : fmt::format("{:.0e}", c.imbalance));
    for (auto [state, name] :
         {std::pair(actions::LimitState::Ultimate, "Ultimate"),
          std::pair(actions::LimitState::QuasiPermanent, "Quasi-permanent or sustained")}) {
        auto all = a.extremes(state);
        if (all.empty()) continue;
        fmt::print("\n  {} extremes\n", name);
        for (const auto& e : all)
            for (const auto* x : {&e.most, &e.least})
                fmt::print("  {:<12}{:>10.2f} {:<7} at {:<20} {}\n", key(e.field), x->value / factor(e.field),
                           unit(e.field), place(x->at), a.combinations[x->combination].name);
    }
    fmt::print("\n  {:<24}{:>14}{:>14}  (all cases, unfactored; ultimate)\n", "Support", "sum kN",
               "largest kN");
    std::vector<double> sum(a.model->supports.size(), 0), most(sum);
    if (!a.nonlinear)
        for (const auto& c : a.supportForces)
            for (std::size_t s = 0; s < sum.size(); ++s) sum[s] += c[s].up;
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
        auto f = a.forces(k);
        for (std::size_t s = 0; s < most.size(); ++s) most[s] = std::max(most[s], f[s].up);
    }
    for (std::size_t s = 0; s < sum.size(); ++s)
        fmt::print("  {:<24}{:>14}{:>14.1f}\n", a.model->supports[s].name,
                   a.nonlinear ? "–" : fmt::format("{:.1f}", sum[s] / 1000), most[s] / 1000);
    if (!extras.panels.empty()) {
        fmt::print("\n  Cross-check, ultimate uniform load\n");
        for (const auto& p : extras.panels) {
            fmt::print("  {}: {}\n", p.name, p.source);
            for (const auto& r : p.rows) {
                const auto& unit = units::unit(r.kind, units::System::Metric);
                fmt::print("    {:<40} FE analysis {:>8.1f}, hand method {:>8.1f} {}, ratio {:.2f}\n", r.what,
                           r.engine / unit.factor, r.opinion / unit.factor, unit.symbol, r.ratio());
            }
        }
    }
    if (!extras.convergence.rows.empty()) {
        fmt::print("\n  On a mesh of half the size ({} triangles)\n", extras.convergence.trianglesFine);
        for (const auto& r : extras.convergence.rows)
            fmt::print("  {:<40}{:>10.2f} -> {:>10.2f} {}  ({:+.1f} %)\n", r.what, r.coarse, r.fine, r.unit,
                       -100 * r.change());
    }
    const auto& t = a.stages;
    fmt::print(
        "\n  Time in ms: mesh {:.1f}, model {:.1f}, order {:.1f}, symbolic {:.1f}, assembly {:.1f}, factor "
        "{:.1f}, solve {:.1f}, recover {:.1f}; sum {:.1f}\n",
        t.mesh * 1e3, t.model * 1e3, t.order * 1e3, t.symbolic * 1e3, t.assembly * 1e3, t.factor * 1e3,
        t.solve * 1e3, t.recover * 1e3, t.sum() * 1e3);
    if (!a.contactWord.empty()) fmt::print("\n  {}\n", a.contactWord);
    fmt::print("\n  Assumptions\n");
    for (const auto& s : a.assumptions) fmt::print("  - {}\n", s);
    if (!a.notes.empty()) fmt::print("\n  Warnings\n");
    for (const auto& n : a.notes) fmt::print("  - {}: {}\n", n.path, n.message);
}

int run(const Options& o) {
    auto project = o.source.open();
    if (!project) return BadInput;
    if (project->floors.empty())
        return fail("The project has no floor to analyse; one-way slabs are analysed by talvik check.",
                    BadInput);
    if (!o.field.empty() && o.format != "csv" && o.format != "vtu")
        return fail("The format \"" + o.format + "\" is not known; use csv or vtu.", BadInput);
    std::string json;
    bool found = false;
    for (std::size_t i = 0; i < project->floors.size(); ++i) {
        const auto& floor = *project->floors[i];
        if (!o.floor.empty() && floor.id != o.floor && floor.name != o.floor) continue;
        found = true;
        auto a = design::analyseFloor(*project, i);
        if (!a.good() || !a.trouble.empty()) return fail(formats::sentences(a.trouble), BadInput);
        if (!o.field.empty()) {
            auto text = formats::fieldText(a, o.field, o.combination, o.format);
            if (!text.error.empty()) return fail(text.error, BadInput);
            if (o.output.empty()) {
                fmt::print("{}", text.text);
            } else if (auto error = formats::writeFile(o.output, text.text); !error.empty()) {
                return fail(error, CannotWrite);
            }
            return Done;
        }
        formats::AnalysisExtras extras;
        extras.panels = opinions::panelOpinions(floor, a);
        if (o.convergence) {
            auto in = design::floorInput(*project, i);
            extras.convergence =
                analysis::FloorAnalyser().convergence(*in.floor, in.path, in.basis, in.combinations);
        }
        if (o.json)
            json += formats::analysisJson(floor, a, extras);
        else
            print(floor, a, extras);
    }
    if (!found) return fail("There is no floor \"" + o.floor + "\" in the project.", BadInput);
    if (o.json) fmt::print("{}", json);
    return Done;
}

}  // namespace

void addAnalyse(CLI::App& app, int& exitCode) {
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand(
        "analyse", "Analyse floors: totals, equilibrium, extremes with their places, mesh, time by stage");
    o->source.options(*command);
    command->add_option("--floor", o->floor, "Only this floor, by id or name");
    command->add_flag("--json", o->json, "Print everything as JSON");
    command->add_flag("--convergence", o->convergence, "Also on a mesh of half the size");
    command->add_option("--field", o->field,
                        "Write a field at its points: deflection, mx, my, mxy, qx, qy, pressure, or all");
    command->add_option("--combination", o->combination,
                        "Combination or load case of the field, by name; the first ultimate one otherwise");
    command->add_option("--format", o->format, "Of the field: csv or vtu");
    command->add_option("-o,--output", o->output, "File for the field; standard output otherwise");
    command->callback([o, &exitCode] { exitCode = run(*o); });
}

}  // namespace talvik::cli

// talvik sweep FILE --thickness 200:320:10: a floor designed in full at every thickness.
#include "design/sweep.h"

#include <fmt/format.h>

#include <cmath>

#include "cli/commands.h"
#include "formats/file.h"
#include "formats/tables.h"

namespace talvik::cli {
namespace {

// "200:320:10" or "220,250" in display units; empty where it cannot be read, with a sentence.
std::vector<double> thicknesses(const std::string& text, units::System system, std::string& why) {
    std::vector<double> all;
    auto read = [&](const std::string& word) {
        const auto v = units::parse(word, units::Kind::Length, system);
        if (!v.value && why.empty()) why = v.error;
        return v.value.value_or(0);
    };
    std::vector<std::string> words(1);
    const bool range = text.find(':') != std::string::npos;
    for (char c : text)
        if (c == (range ? ':' : ','))
            words.emplace_back();
        else
            words.back() += c;
    if (range) {
        if (words.size() != 3) {
            why = fmt::format("\"{}\" is no range: first, last and step, as 200:320:10.", text);
            return {};
        }
        const double from = read(words[0]), to = read(words[1]), step = read(words[2]);
        if (!why.empty()) return {};
        if (!(step > 0) || to < from || (to - from) / step > 200) {
            why = fmt::format("\"{}\" is no rising range of at most 200 steps.", text);
            return {};
        }
        for (int k = 0; from + k * step <= to + 1e-6 * step; ++k) all.push_back(from + k * step);
    } else {
        for (const auto& w : words) all.push_back(read(w));
    }
    for (double h : all)
        if (why.empty() && (h < 80 || h > 3000))
            why = fmt::format("A thickness of {} is not possible; give thicknesses from {} to {}.",
                              units::text(h, units::Kind::Length, system),
                              units::text(80, units::Kind::Length, system),
                              units::text(3000, units::Kind::Length, system));
    return why.empty() ? all : std::vector<double>();
}

}  // namespace

void addSweep(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::string thickness, csv, floor;
        std::vector<std::string> concretes;
        bool drops = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand(
        "sweep", "Design a floor in full at every thickness: cost and carbon, and which check governs");
    o->source.options(*command);
    command
        ->add_option("--thickness", o->thickness,
                     "First, last and step in display units, as 200:320:10, or a list")
        ->required();
    command->add_option("--concrete", o->concretes, "Classes of concrete, as C30/37,C35/45")->delimiter(',');
    command->add_flag("--drops", o->drops, "Each also with drop panels under the inner columns");
    command->add_option("--floor", o->floor, "Name or id, where the project has several");
    command->add_option("--csv", o->csv, "Table to write; without it it is printed");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        const model::Floor* floor = nullptr;
        for (const auto& f : project->floors)
            if (o->floor.empty() ? project->floors.size() == 1 : f->name == o->floor || f->id == o->floor)
                floor = f.get();
        if (!floor)
            return void(exitCode = fail(project->floors.empty() ? "The project has no floor to sweep."
                                        : o->floor.empty()
                                            ? "The project has several floors; say which with --floor."
                                            : fmt::format("There is no floor \"{}\".", o->floor),
                                        BadInput));
        design::SweepWish wish;
        std::string why;
        wish.thicknesses = thicknesses(o->thickness, project->basis.units, why);
        if (!why.empty()) return void(exitCode = fail(why, BadInput));
        const auto standard = standards::makeStandard(project->basis.standard, project->basis.parameters);
        for (const auto& name : o->concretes) {
            const auto& classes = catalogs::concreteClasses();
            if (std::none_of(classes.begin(), classes.end(), [&](const catalogs::ConcreteClass& c) {
                    return c.id == name && standard && c.family == standard->family;
                }))
                return void(exitCode = fail(
                                fmt::format("There is no class of concrete \"{}\" of this standard.", name),
                                BadInput));
            wish.concretes.push_back(name);
        }
        wish.drops = o->drops;
        std::size_t done = 0;
        const auto points =
            design::sweep(*project, floor->id, wish, {}, [&](const design::SweepPoint& p, std::size_t of) {
                fmt::print(stderr, "{}/{}: {}, {}{}: {}\n", ++done, of,
                           units::text(p.thickness, units::Kind::Length, project->basis.units), p.concrete,
                           p.drops ? " with drops" : "",
                           p.error.empty() ? fmt::format("{} failing, {} {:.0f}", p.over,
                                                         project->basis.rates.currency, p.price)
                                           : p.error);
            });
        const auto table = formats::sweepCsv(points, *project);
        if (o->csv.empty())
            fmt::print("{}", table);
        else if (auto failed = formats::writeFile(o->csv, table); !failed.empty())
            return void(exitCode = fail(failed, CannotWrite));
        else
            fmt::print("{}\n", o->csv);
        const bool some = std::any_of(points.begin(), points.end(),
                                      [](const auto& p) { return p.error.empty() && p.over == 0; });
        exitCode = some ? Done : SomethingOver;
    });
}

}  // namespace talvik::cli

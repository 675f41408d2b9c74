// talvik check FILE: every check of the bars in the project, worst first.
#include <fmt/format.h>

#include "cli/commands.h"
#include "design/floor_design.h"
#include "formats/tables.h"

namespace talvik::cli {

void addCheck(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        bool json = false, all = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("check", "Check a project and print the checks, worst first");
    o->source.options(*command);
    command->add_flag("--json", o->json, "Print everything, with the working, as JSON");
    command->add_flag("--all", o->all, "Print also what is not applicable");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        auto design = design::run(*project, {.trace = o->json});
        if (exitCode = refuse(design); exitCode != Done) return;
        auto sum = design.summary();
        std::vector<std::shared_ptr<const design::FloorDesign>> floors;
        for (std::size_t i = 0; i < project->floors.size(); ++i) {
            auto d = design::designFloor(*project, i);
            if (!d) {
                auto a = design::analyseFloor(*project, i);
                return void(exitCode = fail(
                                a.trouble.empty() ? "The floor has no answer." : a.trouble.front().message,
                                BadInput));
            }
            sum += d->summary;
            floors.push_back(std::move(d));
        }
        exitCode = sum.over ? SomethingOver : Done;
        if (o->json) return fmt::print("{}", formats::resultsJson(*project, design, floors));
        auto print = [&](const std::vector<const checks::Check*>& list) {
            for (const auto* c : list) {
                bool judged = c->outcome == checks::Outcome::Within || c->outcome == checks::Outcome::Over;
                if (c->outcome == checks::Outcome::NotApplicable && !o->all) continue;
                fmt::print("  {:>5}  {:<42} {}{}\n", judged ? fmt::format("{:.2f}", checks::ratio(*c)) : "–",
                           c->title,
                           judged ? checks::figures(*c, project->basis.units)
                                  : checks::name(c->outcome) + ": " + c->reason,
                           c->outcome == checks::Outcome::Over ? "  OVER" : "");
            }
        };
        for (const auto& slab : design.slabs) {
            const auto* row = model::findSlab(*project, slab.slab);
            fmt::print("{}, {} thick, {}\n", row->name,
                       units::text(row->thickness, units::Kind::Length, project->basis.units),
                       design.standard->edition);
            print(checks::worstFirst(slab.checks));
        }
        for (const auto& d : floors) {
            fmt::print("{}, {}\n", d->floor->name, d->standard->edition);
            print(checks::worstFirst(d->checks));
            for (const auto& s : d->strips) {
                fmt::print(" Strip {}\n", s->strip->name);
                print(checks::worstFirst(s->checks));
            }
        }
        fmt::print("{} over, {} within, {} not checked\n", sum.over, sum.within, sum.notChecked);
    });
}

}  // namespace talvik::cli

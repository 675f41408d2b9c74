// talvik check FILE: every check of the bars in the project, worst first.
#include <fmt/format.h>

#include "cli/commands.h"
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
        exitCode = sum.over ? SomethingOver : Done;
        if (o->json) return fmt::print("{}", formats::resultsJson(*project, design));
        for (const auto& slab : design.slabs) {
            const auto* row = model::findSlab(*project, slab.slab);
            fmt::print("{}, {} thick, {}\n", row->name,
                       units::text(row->thickness, units::Kind::Length, project->basis.units),
                       design.standard->edition);
            for (const auto* c : checks::worstFirst(slab.checks)) {
                bool judged = c->outcome == checks::Outcome::Within || c->outcome == checks::Outcome::Over;
                if (c->outcome == checks::Outcome::NotApplicable && !o->all) continue;
                fmt::print("  {:>5}  {:<42} {}{}\n", judged ? fmt::format("{:.2f}", checks::ratio(*c)) : "–",
                           c->title,
                           judged ? checks::figures(*c, project->basis.units)
                                  : checks::name(c->outcome) + ": " + c->reason,
                           c->outcome == checks::Outcome::Over ? "  OVER" : "");
            }
        }
        fmt::print("{} over, {} within, {} not checked\n", sum.over, sum.within, sum.notChecked);
    });
}

}  // namespace talvik::cli

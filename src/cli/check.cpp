// talvik check FILE: every check of the bars in the project, worst first.
#include <fmt/format.h>

#include <algorithm>

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
        auto design = design::run(*project, {.trace = false});
        if (exitCode = refuse(design); exitCode != Done) return;
        const auto sum = design.summary();
        // A floor of which no column is checked in punching has not passed.
        std::vector<std::string> open;
        for (const auto& e : design.elements) {
            int columns = 0, unchecked = 0;
            for (const auto& part : e->parts) {
                if (part->part.kind != model::PartKind::Connection) continue;
                ++columns;
                unchecked += std::all_of(part->checks.begin(), part->checks.end(), [](const auto& c) {
                    return c.outcome == checks::Outcome::NotChecked;
                });
            }
            if (columns > 0 && unchecked == columns) open.push_back(e->name);
        }
        exitCode = sum.over || !open.empty() ? SomethingOver : Done;
        if (o->json) return fmt::print("{}", formats::resultsJson(*project, design));
        auto print = [&](const std::vector<const checks::Check*>& list) {
            for (const auto* c : list) {
                const bool judged = checks::isJudged(*c);
                if (c->outcome == checks::Outcome::NotApplicable && !o->all) continue;
                fmt::print("  {:>5}  {:<42} {}{}\n", judged ? checks::ratioText(*c) : "–", c->title,
                           judged ? checks::figures(*c, project->basis.units)
                                  : checks::name(c->outcome) + ": " + c->reason,
                           c->outcome == checks::Outcome::Over ? "  FAILS" : "");
            }
        };
        for (const auto& e : design.elements) {
            fmt::print("{}, {}\n", e->name, design.standard->edition);
            print(checks::worstFirst(e->checks));
            for (const auto& part : e->parts) {
                if (e->parts.size() > 1) fmt::print(" {}\n", part->name);
                print(checks::worstFirst(part->checks));
            }
        }
        for (const auto& name : open) fmt::print("{}: punching is not checked at any column.\n", name);
        fmt::print("{} failing, {} passing, {} not checked\n", sum.over, sum.within, sum.notChecked);
    });
}

}  // namespace talvik::cli

// talvik issue FILE --out DIR: everything that leaves the office, in a folder.
#include <fmt/format.h>

#include "cli/commands.h"
#include "design/floors.h"
#include "design/revisions.h"
#include "formats/project_file.h"
#include "paper/issue_set.h"
#include "report/issue_page.h"

namespace talvik::cli {

void addIssue(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::string folder;
        bool fix = false, fast = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand(
        "issue", "Write the issue set into a folder: drawings, schedules, quantities, model, report");
    o->source.options(*command);
    command->add_option("--out", o->folder, "Folder, created if it does not exist")->required();
    command->add_flag("--fix", o->fix, "Keep what is issued in the project file, as its revision");
    command->add_flag("--no-convergence", o->fast, "Leave out the second analysis of floors on a finer mesh");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        auto design = design::run(*project, {.trace = false});
        if (exitCode = refuse(design); exitCode != Done) return;
        if (o->fix) {
            auto fixed = design::fixRevision(*project, design);
            if (!fixed.why.empty()) return void(exitCode = fail(fixed.why, BadInput));
            *project = std::move(fixed.project);
            design = design::joined(*project, design.standard, design.elements);
        }
        ensurePainting();
        report::Convergences convergences;
        for (std::size_t i = 0; i < project->floors.size() && !o->fast; ++i)
            convergences[project->floors[i]->id] = design::convergence(*project, i);
        const auto set = paper::writeIssueSet(o->folder, *project, design, convergences);
        if (!set.why.empty()) return void(exitCode = fail(set.why, CannotWrite));
        if (o->fix)
            if (const auto why = formats::saveProject(o->source.file, *project); !why.empty())
                return void(exitCode = fail(why, CannotWrite));
        for (const auto& path : set.written) fmt::print("{}\n", path);
        std::size_t over = 0, unchecked = 0, assumed = 0;
        for (const auto& l : report::beforeIssue(*project, design)) {
            over += l.kind == report::IssueLine::Kind::Over;
            unchecked += l.kind == report::IssueLine::Kind::NotChecked;
            assumed += l.kind == report::IssueLine::Kind::Assumed;
        }
        fmt::print("{} failing, {} not checked, {} assumed: see open.pdf\n", over, unchecked, assumed);
        exitCode = over > 0 ? SomethingOver : Done;
    });
}

}  // namespace talvik::cli

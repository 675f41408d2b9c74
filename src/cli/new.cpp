// talvik new -o FILE: a new project, or the demo.
#include <fmt/format.h>

#include "cli/commands.h"
#include "formats/project_file.h"
#include "model/edits.h"

namespace talvik::cli {

void addNew(CLI::App& app, int& exitCode) {
    struct Options {
        bool demo = false, floor = false;
        std::string out;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("new", "Write a new project of one slab, or the demo");
    command->add_flag("--demo", o->demo, "The visitors' gallery of the Sundvarg ferry landing");
    command->add_flag("--demo-floor", o->floor, "The deck of its fish hall, a floor on columns");
    command->add_option("-o,--output", o->out, "Project file to write; without, it is printed");
    command->callback([o, &exitCode] {
        auto project = o->demo    ? formats::demoProject()
                       : o->floor ? formats::demoFloorProject()
                                  : model::newProject();
        if (o->out.empty()) return fmt::print("{}", formats::projectText(project));
        if (auto why = formats::saveProject(o->out, project); !why.empty())
            return void(exitCode = fail(why, CannotWrite));
        fmt::print("{}\n", o->out);
    });
}

}  // namespace talvik::cli

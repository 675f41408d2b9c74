// talvik design FILE -o OUT: the least thickness where it is not pinned; bars follow from it.
#include <fmt/format.h>

#include "cli/commands.h"
#include "formats/project_file.h"

namespace talvik::cli {

void addDesign(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::string out;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand(
        "design", "Choose the least thickness where it is not pinned, with the bars that follow");
    o->source.options(*command);
    command->add_option("-o,--output", o->out, "Project file to write")->required();
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        if (exitCode = refuse(design::run(*project, {.trace = false})); exitCode != Done) return;
        auto designed = design::designAll(*project);
        auto sum = design::run(designed, {.trace = false}).summary();
        if (auto why = formats::saveProject(o->out, designed); !why.empty())
            return void(exitCode = fail(why, CannotWrite));
        for (const auto& slab : designed.slabs)
            fmt::print("{}: {} thick\n", slab->name,
                       units::text(slab->thickness, units::Kind::Length, designed.basis.units));
        fmt::print("{} over, {} within, {} not checked\n{}\n", sum.over, sum.within, sum.notChecked, o->out);
        exitCode = sum.over ? SomethingOver : Done;
    });
}

}  // namespace talvik::cli

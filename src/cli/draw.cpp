// talvik draw FILE -o OUT...: the reinforcement drawing as DXF, PDF or SVG.
#include <fmt/format.h>

#include "cli/commands.h"
#include "drawing/slab_sheet.h"
#include "formats/dxf.h"
#include "paper/paper.h"

namespace talvik::cli {

void addDraw(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::vector<std::string> out;
        std::string slab;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("draw", "Write the drawing of a slab");
    o->source.options(*command);
    command->add_option("-o,--output", o->out, "Files to write, ending in .dxf, .pdf or .svg")->required();
    command->add_option("--slab", o->slab, "Name or id of the slab; the first one without");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        auto design = design::run(*project, {.trace = false, .floors = false});
        if (exitCode = refuse(design); exitCode != Done) return;
        const design::SlabDesign* slab = nullptr;
        for (const auto& e : design.elements)
            if (const auto* s = dynamic_cast<const design::SlabAnswer*>(e.get()); s && !slab)
                if (o->slab.empty() || s->name == o->slab || s->element == o->slab) slab = s->design.get();
        if (!slab)
            return void(exitCode =
                            fail(o->slab.empty() ? "The project has no slab to draw."
                                                 : "There is no slab \"" + o->slab + "\" in the project.",
                                 BadInput));
        ensurePainting();
        auto sheet = drawing::slabSheet(*project, design, *slab);
        exitCode = writeFiles(o->out,
                              {{".dxf", [&](const auto& path) { return formats::writeDxf(path, sheet); }},
                               {".pdf", [&](const auto& path) { return paper::writePdf(path, sheet); }},
                               {".svg", [&](const auto& path) { return paper::writeSvg(path, sheet); }}},
                              "a drawing ends in .dxf, .pdf or .svg.");
    });
}

}  // namespace talvik::cli

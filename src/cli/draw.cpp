// talvik draw FILE -o OUT...: the reinforcement drawings of an element as DXF, PDF or SVG.
#include <fmt/format.h>

#include "cli/commands.h"
#include "drawing/sheets.h"
#include "formats/dxf.h"
#include "formats/file.h"
#include "paper/paper.h"

namespace talvik::cli {

void addDraw(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::vector<std::string> out;
        std::string element;
        std::size_t sheet = 0;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("draw", "Write the drawings of a slab or a floor");
    o->source.options(*command);
    command
        ->add_option(
            "-o,--output", o->out,
            "Files to write, ending in .dxf, .pdf or .svg; of several sheets a PDF has all as pages, "
            "the others are numbered")
        ->required();
    command->add_option("--element,--slab", o->element,
                        "Name or id of the slab or floor; the first one without");
    command->add_option("--sheet", o->sheet, "Number of the sheet; all without");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        auto design = design::run(*project, {.trace = false});
        if (exitCode = refuse(design); exitCode != Done) return;
        const auto* element = !o->element.empty()       ? elementNamed(design, o->element)
                              : design.elements.empty() ? nullptr
                                                        : design.elements.front().get();
        if (!element)
            return void(exitCode = fail(o->element.empty() ? "The project has no slab to draw."
                                                           : "There is no slab or floor \"" + o->element +
                                                                 "\" in the project.",
                                        BadInput));
        if (!element->error.empty()) return void(exitCode = fail(element->error, BadInput));
        ensurePainting();
        auto sheets = drawing::sheets(*project, design, *element);
        if (o->sheet > sheets.size())
            return void(exitCode = fail(fmt::format("\"{}\" has {} sheets; there is no sheet {}.",
                                                    element->name, sheets.size(), o->sheet),
                                        BadInput));
        if (o->sheet > 0) sheets = {sheets[o->sheet - 1]};
        auto each = [&](const std::string& path, auto write) {
            std::string why;
            for (std::size_t i = 0; i < sheets.size() && why.empty(); ++i)
                why = write(formats::numbered(path, i + 1, sheets.size()), sheets[i]);
            return why;
        };
        exitCode = writeFiles(o->out,
                              {{".dxf", [&](const auto& path) { return each(path, formats::writeDxf); }},
                               {".pdf", [&](const auto& path) { return paper::writePdf(path, sheets); }},
                               {".svg", [&](const auto& path) { return each(path, paper::writeSvg); }}},
                              "a drawing ends in .dxf, .pdf or .svg.");
    });
}

}  // namespace talvik::cli

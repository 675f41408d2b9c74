// talvik report FILE -o OUT...: the calculation report as HTML, PDF or ODT.
#include "report/report.h"

#include <fmt/format.h>
#include <malloc.h>

#include "cli/commands.h"
#include "design/floors.h"

namespace talvik::cli {

void addReport(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::vector<std::string> out;
        std::string element;
        bool brief = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("report", "Write the calculation report");
    o->source.options(*command);
    command->add_option("-o,--output", o->out, "Files to write, ending in .html, .pdf or .odt")->required();
    command->add_option("--element", o->element, "Name or id of one element; the whole project without");
    command->add_flag("--summary", o->brief, "Leave out the working of the checks");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        auto design = design::run(*project, {.trace = false});
        if (exitCode = refuse(design); exitCode != Done) return;
        const auto* only = elementNamed(design, o->element);
        if (!o->element.empty() && !only)
            return void(exitCode = fail("There is no slab or floor \"" + o->element + "\" in the project.",
                                        BadInput));
        report::Convergences convergences;
        for (std::size_t i = 0; i < project->floors.size() && !o->brief; ++i)
            convergences[project->floors[i]->id] = design::convergence(*project, i);
        const auto document =
            report::make(*project, design, o->brief ? report::Depth::Summary : report::Depth::Full,
                         convergences, only ? std::string_view(only->element) : std::string_view());
        // All that is needed of the design stands in the document: its memory is for the pages.
        design = {};
        malloc_trim(0);
        exitCode = writeDocument(o->out, document, "a report");
    });
}

}  // namespace talvik::cli

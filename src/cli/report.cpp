// talvik report FILE -o OUT...: the calculation report as HTML or PDF.
#include "report/report.h"

#include <fmt/format.h>

#include "cli/commands.h"
#include "design/floors.h"
#include "formats/file.h"
#include "paper/paper.h"

namespace talvik::cli {

void addReport(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::vector<std::string> out;
        bool brief = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("report", "Write the calculation report");
    o->source.options(*command);
    command->add_option("-o,--output", o->out, "Files to write, ending in .html or .pdf")->required();
    command->add_flag("--summary", o->brief, "Leave out the working of the checks");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        auto design = design::run(*project, {.trace = false});
        if (exitCode = refuse(design); exitCode != Done) return;
        ensurePainting();
        report::Convergences convergences;
        for (std::size_t i = 0; i < project->floors.size() && !o->brief; ++i)
            convergences[project->floors[i]->id] = design::convergence(*project, i);
        auto document = report::make(*project, design,
                                     o->brief ? report::Depth::Summary : report::Depth::Full, convergences);
        exitCode =
            writeFiles(o->out,
                       {{".html",
                         [&](const auto& path) {
                             return formats::writeFile(path, report::html(document, report::Target::Page));
                         }},
                        {".pdf", [&](const auto& path) { return paper::writeReportPdf(path, document); }}},
                       "a report ends in .html or .pdf.");
    });
}

}  // namespace talvik::cli

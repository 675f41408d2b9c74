// talvik schedule FILE: bar schedule as CSV on standard output, or to a CSV or XLSX file, or as data for
// bending.
#include <fmt/format.h>

#include "cli/commands.h"
#include "formats/bending_data.h"
#include "formats/file.h"
#include "formats/ifc.h"
#include "formats/tables.h"
#include "report/quantities_page.h"

namespace talvik::cli {

void addSchedule(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::vector<std::string> out;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("schedule", "Write the bar schedule");
    o->source.options(*command);
    command->add_option("-o,--output", o->out,
                        "Files to write, ending in .csv or .xlsx, or in .abs for bending machines; "
                        "in .ifc: the model with its bars; in .html: the quantities and the cutting list; "
                        "without, CSV is printed");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        auto design = design::run(*project, {.trace = false});
        if (exitCode = refuse(design); exitCode != Done) return;
        if (o->out.empty()) fmt::print("{}", formats::scheduleCsv(*project, design));
        exitCode = writeFiles(
            o->out,
            {{".csv",
              [&](const auto& path) {
                  return formats::writeFile(path, formats::scheduleCsv(*project, design));
              }},
             {".abs",
              [&](const auto& path) {
                  return formats::writeFile(path, formats::bendingData(*project, design));
              }},
             {".html",
              [&](const auto& path) {
                  auto page = report::quantitiesPage(*project, design);
                  const auto cutting = report::cuttingPage(*project, design);
                  page.blocks.insert(page.blocks.end(), cutting.blocks.begin(), cutting.blocks.end());
                  return formats::writeFile(path, report::html(page, report::Target::Page));
              }},
             {".ifc",
              [&](const auto& path) { return formats::writeFile(path, formats::ifcText(*project, design)); }},
             {".xlsx", [&](const auto& path) { return formats::writeScheduleXlsx(path, *project, design); }}},
            "a schedule file ends in .csv, .xlsx, .abs, .html or .ifc.");
    });
}

}  // namespace talvik::cli

// talvik compare BEFORE AFTER: what differs between two states of a project.
#include <fmt/format.h>

#include "cli/commands.h"
#include "formats/comparison.h"

namespace talvik::cli {

void addCompare(CLI::App& app, int& exitCode) {
    struct Options {
        Source before, after;
        bool json = false;
        std::vector<std::string> out;
    };
    auto o = std::make_shared<Options>();
    auto* command =
        app.add_subcommand("compare", "Compare two states of a project: inputs, checks, steel and cost");
    command->add_option("BEFORE", o->before.file, "Project file (.talvik)")->required();
    command->add_option("AFTER", o->after.file, "Project file (.talvik)")->required();
    command->add_flag("--json", o->json, "Print as JSON");
    command->add_option("-o,--output", o->out, "Files to write, ending in .html, .pdf or .odt");
    command->callback([o, &exitCode] {
        const auto before = o->before.open(), after = o->after.open();
        if (!before || !after) return void(exitCode = BadInput);
        const auto a = design::run(*before, {.trace = false}), b = design::run(*after, {.trace = false});
        for (const auto* d : {&a, &b})
            if (!d->trouble.empty()) return void(exitCode = refuse(*d));
        const auto found = formats::compare(*before, a, *after, b);
        exitCode = Done;
        const auto page = formats::comparisonPage(found, o->before.file, o->after.file, after->basis.units);
        if (o->json) fmt::print("{}", formats::comparisonJson(found));
        if (!o->json && o->out.empty())
            for (const auto& block : page.blocks) {
                if (!block.text.empty()) fmt::print("{}\n", block.text);
                for (std::size_t i = 1; i < block.rows.size(); ++i) {
                    const auto& row = block.rows[i];
                    std::string line = "  ";
                    for (std::size_t k = 0; k < row.size(); ++k)
                        line += row[k].empty() ? "" : (k == 0 ? "" : " | ") + row[k];
                    fmt::print("{}\n", line);
                }
            }
        if (!o->out.empty()) exitCode = writeDocument(o->out, page, "a comparison");
    });
}

}  // namespace talvik::cli

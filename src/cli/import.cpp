// talvik import PLAN.dxf --map MAP.json -o PROJECT: a floor from a drawing, without a window.
#include <fmt/format.h>

#include "cli/commands.h"
#include "formats/file.h"
#include "formats/import_map.h"
#include "model/edits.h"

namespace talvik::cli {

void addImport(CLI::App& app, int& exitCode) {
    struct Options {
        std::string drawing, map, into, out;
        bool layers = false, incomplete = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("import", "Make a floor of a DXF drawing");
    command->add_option("DRAWING", o->drawing, "DXF file, ASCII")->required();
    command->add_option("--map", o->map, "JSON file that says what the layers become");
    command->add_option("--into", o->into, "Project to add the floor to; without, a new one");
    command->add_option("-o,--output", o->out, "Project file to write; without, it is printed");
    command->add_flag("--incomplete", o->incomplete, "Read a drawing that is cut off, as far as it goes");
    command->add_flag("--layers", o->layers, "Only list the drawing's layers and what cannot be read");
    command->callback([o, &exitCode] {
        auto drawing = formats::openDxf(o->drawing);
        if (!drawing.error.empty()) return void(exitCode = fail(drawing.error, BadInput));
        if (!drawing.cut.empty() && !o->incomplete)
            return void(exitCode =
                            fail(fmt::format("{}: {} It is not the whole drawing: get it anew, or read "
                                             "what there is with --incomplete.",
                                             o->drawing, drawing.cut),
                                 BadInput));
        if (!drawing.cut.empty())
            fmt::print(stderr, "{}: {} What came after is missing.\n", o->drawing, drawing.cut);
        if (o->layers) {
            std::vector<int> count(drawing.work.layers.size(), 0);
            for (const auto& p : drawing.work.paths) ++count[std::size_t(p.layer)];
            for (std::size_t i = 0; i < count.size(); ++i)
                fmt::print("{:6} lines on {}{}\n", count[i], drawing.work.layers[i],
                           drawing.work.offInFile[i] ? " (off)" : "");
            for (const auto& [what, n] : drawing.work.unread) fmt::print("{:6} left out: {}\n", n, what);
            for (const auto& note : drawing.work.notes) fmt::print("{}\n", note);
            return;
        }
        if (o->map.empty())
            return void(exitCode =
                            fail("Say with --map what the layers become; --layers lists them.", BadInput));
        auto map = formats::readFile(o->map);
        if (!map.error.empty()) return void(exitCode = fail(map.error, BadInput));
        model::Project project = model::freshProject();
        if (!o->into.empty()) {
            auto read = formats::openProject(o->into);
            if (!read.trouble.empty())
                return void(exitCode = fail(formats::sentences(read.trouble), BadInput));
            project = std::move(read.project);
        }
        // The drawing is named as seen from the project, where it lies beside or below it.
        auto folder = [](const std::string& path) { return path.substr(0, path.find_last_of('/') + 1); };
        std::string name = o->drawing, base = folder(o->out);
        if (!base.empty() && name.starts_with(base)) name = name.substr(base.size());
        auto imported = formats::importFloor(std::move(project), drawing, name, map.text);
        if (!imported.trouble.empty())
            return void(exitCode =
                            fail(o->drawing + " by " + o->map + ":\n" + formats::sentences(imported.trouble),
                                 BadInput));
        if (o->out.empty()) return fmt::print("{}", formats::projectText(imported.project));
        if (auto why = formats::saveProject(o->out, imported.project); !why.empty())
            return void(exitCode = fail(why, CannotWrite));
        for (const auto& line : imported.made) fmt::print("{}\n", line);
        for (const auto& note : imported.notes) fmt::print("{}\n", note);
        fmt::print("{}\n", o->out);
    });
}

}  // namespace talvik::cli

// talvik bases LOADS.csv --ground GROUND.json --out DIR: pad footings or pile caps for a table of columns.
#include "design/bases.h"

#include <fmt/format.h>

#include "cli/commands.h"
#include "design/design.h"
#include "formats/column_loads.h"
#include "formats/file.h"
#include "formats/project_file.h"
#include "formats/tables.h"
#include "model/edits.h"
#include "model/sources.h"
#include "paper/issue_set.h"

namespace talvik::cli {
namespace {

struct Options {
    std::string loads, ground, columns, folder, pattern, units = "metric";
    int types = 0;
    bool all = false;
};

int run(const Options& o) {
    std::map<std::string, std::string> headers;
    auto text = [](const std::string& path, std::string& into) {
        auto file = formats::readTable(path);
        into = std::move(file.text);
        return file.error;
    };
    std::string csv, ground, map;
    for (auto [path, into] : {std::pair(&o.loads, &csv), {&o.ground, &ground}, {&o.columns, &map}})
        if (!path->empty())
            if (const auto why = text(*path, *into); !why.empty()) return fail(why, BadInput);
    if (!o.columns.empty())
        if (const auto why = formats::readColumnMap(map, headers); !why.empty()) return fail(why, BadInput);
    auto project = model::emptyProject();
    project.name = "Bases";
    auto read = formats::readColumnLoads(csv, headers, project);
    for (const auto& s : read.keptOut) fmt::print(stderr, "{}\n", s);
    for (const auto& s : read.notes) fmt::print(stderr, "{}\n", s);
    if (!read.error.empty()) return fail(read.error, BadInput);
    auto set = std::make_shared<model::BaseSet>(std::move(read.set));
    set->id = model::newId(project, 'f');
    std::string source;
    std::vector<std::string> notes;
    if (const auto why = formats::readGround(ground, project, *set, source, &notes); !why.empty())
        return fail(why, BadInput);
    for (const auto& s : notes) fmt::print(stderr, "{}\n", s);
    set->name = set->kind == model::BaseSet::Kind::Pads ? "Pad footings" : "Pile caps";
    set->mostTypes = o.types;
    // Of every value that the ground gives, where it is from.
    project.bases.push_back(set);
    if (!source.empty())
        for (const auto& v : model::governingValues(project))
            if (v.key.ends_with(" " + set->id)) project.sources[v.key].note = source;
    const auto design = design::run(project, {.trace = false});
    if (const int code = refuse(design); code != Done) return code;
    ensurePainting();
    std::vector<std::pair<std::string, std::string>> besides{
        {"register.csv", formats::baseRegisterCsv(design)}, {"bases.talvik", formats::projectText(project)}};
    const bool many = set->bases.size() > paper::mostInFull && !o.all;
    if (!many) besides.emplace_back("checks.json", formats::baseChecksJson(design));
    const auto written = paper::writeIssueSet(o.folder, project, design, {}, {}, besides, {many, many, many});
    if (!written.why.empty()) return fail(written.why, CannotWrite);
    for (const auto& path : written.written) fmt::print("{}\n", path);
    if (many)
        fmt::print(
            "Of so many bases the model, the results and checks as JSON and the report as HTML and ODT are "
            "left "
            "out; --all writes them.\n");
    for (const auto& e : design.elements)
        for (const auto& p : e->parts)
            if (const auto* base = dynamic_cast<const design::BasePart*>(p.get());
                base && !base->trouble().empty())
                fmt::print(stderr, "{}: {}\n", base->name, base->trouble());
    const auto sum = design.summary();
    fmt::print("{} bases: {} checks failing, {} passing\n", set->bases.size(), sum.over, sum.within);
    return sum.over > 0 || !read.keptOut.empty() ? SomethingOver : Done;
}

}  // namespace

void addBases(CLI::App& app, int& exitCode) {
    auto o = std::make_shared<Options>();
    auto* command =
        app.add_subcommand("bases", "Pad footings or pile caps for a table of columns with their loads");
    auto* loads = command->add_option("LOADS", o->loads,
                                      "Columns with their loads by case (.csv; docs/bases-format.md)");
    auto* ground = command->add_option("--ground", o->ground, "Ground and rules (.json)");
    command->add_option("--columns", o->columns, "Which column of the table is called what (.json)");
    auto* out = command->add_option("--out", o->folder, "Folder, created if it does not exist");
    command
        ->add_option("--template", o->pattern,
                     "Write a table of loads to fill in to this file, and nothing else (.csv)")
        ->excludes(loads, ground, out);
    command->add_option("--units", o->units, "Of the table to fill in: metric or us")
        ->check(CLI::IsMember({"metric", "us"}));
    command->add_option("--types", o->types, "Maximum number of different bases")
        ->check(CLI::Range(1, 100000));
    command->add_flag("--all", o->all,
                      fmt::format("Every file also for more than {} bases", paper::mostInFull));
    command->callback([o, &exitCode] {
        if (!o->pattern.empty()) {
            const auto why = formats::writeFile(
                o->pattern, formats::columnLoadsTemplate(o->units == "us" ? units::System::UsCustomary
                                                                          : units::System::Metric));
            exitCode = why.empty() ? Done : fail(why, CannotWrite);
            return;
        }
        for (const auto& [name, value] :
             {std::pair{"LOADS", &o->loads}, {"--ground", &o->ground}, {"--out", &o->folder}})
            if (value->empty()) {
                exitCode =
                    fail(fmt::format("{} is missing; run with --help for what is needed.", name), BadInput);
                return;
            }
        exitCode = run(*o);
    });
}

}  // namespace talvik::cli

#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.h"
#include "formats/file.h"
#include "formats/project_file.h"
#include "paper/paper.h"

namespace talvik::cli {

void Source::options(CLI::App& command) {
    command.add_option("FILE", file, "Project file (.talvik)")->required();
    command.add_option(
        "--standard", standard,
        fmt::format("Standard instead of the project's: {}", fmt::join(standards::standardIds(), ", ")));
}

std::optional<model::Project> Source::open() const {
    auto read = formats::openProject(file);
    if (!read.trouble.empty()) {
        fmt::print(stderr, "{} cannot be used.\n{}", file, formats::sentences(read.trouble));
        return {};
    }
    if (!standard.empty() && standard != read.project.basis.standard) {
        if (standards::standardTitle(standard).empty()) {
            fmt::print(stderr, "There is no standard \"{}\"; there are: {}.\n", standard,
                       fmt::join(standards::standardIds(), ", "));
            return {};
        }
        read.project.basis.standard = standard;
        read.project.basis.parameters.clear();
    }
    tell(fmt::format("{}: {} slabs, {}", file, read.project.slabs.size(),
                     standards::standardTitle(read.project.basis.standard)));
    return read.project;
}

bool& verbose() {
    static bool on = false;
    return on;
}

void tell(const std::string& sentence) {
    if (verbose()) fmt::print(stderr, "{}\n", sentence);
}

int fail(const std::string& sentence, Exit code) {
    fmt::print(stderr, "{}\n", sentence);
    return code;
}

int refuse(const design::Design& design) {
    if (!design.trouble.empty()) return fail(formats::sentences(design.trouble), BadInput);
    for (const auto& e : design.elements)
        if (!e->error.empty()) return fail(e->error, BadInput);
    return Done;
}

const design::ElementAnswer* elementNamed(const design::Design& design, const std::string& name) {
    for (const auto& e : design.elements)
        if (e->name == name || e->element == name) return e.get();
    return nullptr;
}

int writeDocument(const std::vector<std::string>& paths, const report::Document& document, const char* what) {
    ensurePainting();
    const auto otherwise = fmt::format("{} ends in .html, .pdf or .odt.", what);
    return writeFiles(paths,
                      {{".html",
                        [&](const auto& path) {
                            return formats::writeFile(path, report::html(document, report::Target::Page));
                        }},
                       {".odt", [&](const auto& path) { return paper::writeReportOdt(path, document); }},
                       {".pdf", [&](const auto& path) { return paper::writeReportPdf(path, document); }}},
                      otherwise.c_str());
}

int writeFiles(const std::vector<std::string>& paths, const Writers& writers, const char* otherwise) {
    auto writerOf = [&](const std::string& path) {
        return std::find_if(writers.begin(), writers.end(),
                            [&](const auto& w) { return path.ends_with(w.first); });
    };
    // All are looked at before the first is written.
    for (const auto& path : paths)
        if (writerOf(path) == writers.end()) return fail(path + ": " + otherwise, BadInput);
    for (const auto& path : paths)
        if (auto why = formats::whyNotWritable(path); !why.empty()) return fail(why, CannotWrite);
    for (const auto& path : paths) {
        if (auto why = writerOf(path)->second(path); !why.empty()) return fail(why, CannotWrite);
        fmt::print("{}\n", path);
    }
    return Done;
}

}  // namespace talvik::cli

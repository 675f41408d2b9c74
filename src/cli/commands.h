// One function per subcommand: adds it to the command line; its callback sets the exit code.
#pragma once

#include <CLI/CLI.hpp>
#include <functional>
#include <map>
#include <optional>
#include <string>

#include "report/report.h"

namespace talvik::cli {

// Exit codes, documented in --help and README.
enum Exit { Done = 0, SomethingOver = 1, BadInput = 2, CannotWrite = 3 };

void addAnalyse(CLI::App& app, int& exitCode);
void addBases(CLI::App& app, int& exitCode);
void addCalc(CLI::App& app, int& exitCode);
void addCheck(CLI::App& app, int& exitCode);
void addCompare(CLI::App& app, int& exitCode);
void addDesign(CLI::App& app, int& exitCode);
void addDraw(CLI::App& app, int& exitCode);
void addImport(CLI::App& app, int& exitCode);
void addIssue(CLI::App& app, int& exitCode);
void addNew(CLI::App& app, int& exitCode);
void addReport(CLI::App& app, int& exitCode);
void addSchedule(CLI::App& app, int& exitCode);
void addSweep(CLI::App& app, int& exitCode);

// What most subcommands take: a project file and, optionally, another standard.
struct Source {
    std::string file, standard;
    void options(CLI::App& command);
    // The project, or nothing after saying why on standard error.
    std::optional<model::Project> open() const;
};
// Prints the sentence on standard error and gives `code`.
int fail(const std::string& sentence, Exit code);
// Of -v: whether to say on standard error what is done, and a sentence said where it is so.
bool& verbose();
void tell(const std::string& sentence);
// Reports a project's trouble and gives BadInput; Done when there is none.
int refuse(const design::Design& design);
// The element of this name or id; null without.
const design::ElementAnswer* elementNamed(const design::Design& design, const std::string& name);
// Writes each file by what its name ends in and prints its name; the exit code. A writer gives a sentence
// where it failed; `otherwise` says which endings there are.
using Writers = std::map<std::string, std::function<std::string(const std::string& path)>>;
int writeFiles(const std::vector<std::string>& paths, const Writers& writers, const char* otherwise);
// A document as HTML, PDF or ODT; `what` it is begins the sentence: "a report".
int writeDocument(const std::vector<std::string>& paths, const report::Document& document, const char* what);
// Makes what Qt needs to paint PDF and SVG without a display; called once, before the first of them.
void ensurePainting();

}  // namespace talvik::cli

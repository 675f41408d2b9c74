#include <fmt/format.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <system_error>

#include "cli/commands.h"

int main(int argc, char** argv) {
    CLI::App app{"Talvik: design of reinforced concrete slabs and foundations", "talvik"};
    app.require_subcommand(1);
    app.footer(
        "Exit codes: 0 done; 1 done, but some check fails; 2 the input or the command line cannot be used; 3 "
        "a file cannot be written.");
    app.add_flag("-v,--verbose", talvik::cli::verbose(), "Report progress on standard error");
    int exitCode = talvik::cli::Done;
    for (auto add : {talvik::cli::addCheck, talvik::cli::addDesign, talvik::cli::addSchedule,
                     talvik::cli::addSweep, talvik::cli::addDraw, talvik::cli::addReport, talvik::cli::addNew,
                     talvik::cli::addImport, talvik::cli::addCalc, talvik::cli::addBases,
                     talvik::cli::addAnalyse, talvik::cli::addIssue, talvik::cli::addCompare})
        add(app, exitCode);
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        exitCode = app.exit(e) == 0 ? talvik::cli::Done : talvik::cli::BadInput;
    } catch (const std::system_error& e) {  // of what prints
        fmt::print(stderr, "Standard output cannot be written: {}.\n", e.code().message());
        return talvik::cli::CannotWrite;
    }
    if (std::fflush(stdout) != 0 || std::ferror(stdout)) {
        fmt::print(stderr, "Standard output cannot be written: {}.\n", std::strerror(errno));
        return talvik::cli::CannotWrite;
    }
    return exitCode;
}

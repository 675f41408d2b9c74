#include "paper/issue_set.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <set>

#include "drawing/sheets.h"
#include "formats/bending_data.h"
#include "formats/dxf.h"
#include "formats/file.h"
#include "formats/ifc.h"
#include "formats/tables.h"
#include "report/issue_page.h"
#include "report/quantities_page.h"

namespace talvik::paper {
namespace fs = std::filesystem;
namespace {

// A name as part of a file's: letters, digits and dashes.
std::string plain(const std::string& name) {
    std::string out;
    for (char c : name) {
        const bool letter = std::isalnum(static_cast<unsigned char>(c)) != 0;
        if (letter)
            out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
        else if (!out.empty() && out.back() != '-' && c != '\'')
            out += '-';
    }
    while (!out.empty() && out.back() == '-') out.pop_back();
    return out.empty() ? "element" : out;
}

}  // namespace

IssueSet writeIssueSet(const std::string& folder, const model::Project& project, const design::Design& design,
                       const report::Convergences& convergences, const Progress& progress,
                       const std::vector<std::pair<std::string, std::string>>& besides,
                       const LeftOut& without) {
    IssueSet set;
    const fs::path into = folder, temporary = into / ".talvik-issue.part";
    std::error_code trouble;
    fs::create_directories(into, trouble);
    fs::remove_all(temporary, trouble);
    if (!fs::create_directory(temporary, trouble) || trouble) {
        set.why = folder + " cannot be written to; is it a folder that is there and writable?";
        return set;
    }
    std::vector<std::string> names;
    double done = 0;
    auto step = [&](double share) {
        done = share;
        if (set.why.empty() && progress && !progress(share))
            set.why = "The issue was stopped; nothing was written.";
        return set.why.empty();
    };
    auto put = [&](const std::string& name, auto write) {
        if (!set.why.empty()) return;
        set.why = write((temporary / name).string());
        names.push_back(name);
    };
    auto page = [&](const std::string& name, const report::Document& document) {
        put(name + ".pdf", [&](const std::string& p) { return writeReportPdf(p, document); });
    };
    std::vector<drawing::Sheet> all;
    std::set<std::string> taken;
    for (const auto& e : design.elements) {
        const auto sheets = drawing::sheets(project, design, *e);
        std::string stem = plain(e->name);
        if (!taken.insert(stem).second) taken.insert(stem += "-" + e->element);
        for (std::size_t i = 0;
             i < sheets.size() && step(0.4 * double(taken.size() - 1) / double(design.elements.size()));
             ++i) {
            const std::string name = fmt::format("drawing-{}-{}", stem, i + 1);
            put(name + ".dxf", [&](const std::string& p) { return formats::writeDxf(p, sheets[i]); });
            put(name + ".svg", [&](const std::string& p) { return writeSvg(p, sheets[i]); });
        }
        all.insert(all.end(), sheets.begin(), sheets.end());
    }
    if (!all.empty()) put("drawings.pdf", [&](const std::string& p) { return writePdf(p, all); });
    if (step(0.4)) {
        put("schedule.csv", [&](const std::string& p) {
            return formats::writeFile(p, formats::scheduleCsv(project, design));
        });
        put("schedule.xlsx",
            [&](const std::string& p) { return formats::writeScheduleXlsx(p, project, design); });
        put("bending.abs", [&](const std::string& p) {
            return formats::writeFile(p, formats::bendingData(project, design));
        });
        if (!without.model)
            put("model.ifc", [&](const std::string& p) {
                return formats::writeFile(p, formats::ifcText(project, design));
            });
        // The piles of caps, and what they carry.
        if (const auto piles = formats::pileScheduleCsv(design);
            std::count(piles.begin(), piles.end(), '\n') > 1) {
            put("piles.csv", [&](const std::string& p) { return formats::writeFile(p, piles); });
            if (!without.results)
                put("pile_reactions.csv", [&](const std::string& p) {
                    return formats::writeFile(p, formats::pileReactionsCsv(design));
                });
        }
        if (!without.results)
            put("results.json", [&](const std::string& p) {
                return formats::writeFile(p, formats::resultsJson(project, design));
            });
        page("quantities", report::quantitiesPage(project, design));
        page("cutting", report::cuttingPage(project, design));
        page("open", report::issuePage(project, design));
    }
    for (const auto& [name, text] : besides)
        put(name, [&](const std::string& p) { return formats::writeFile(p, text); });
    std::size_t parts = 0;
    for (const auto& e : design.elements) parts += e->parts.size();
    if (step(0.5)) {
        const auto document = report::make(
            project, design, parts > mostInFull ? report::Depth::Summary : report::Depth::Full, convergences);
        if (!without.editable) {
            put("report.html", [&](const std::string& p) {
                return formats::writeFile(p, report::html(document, report::Target::Page));
            });
            put("report.odt", [&](const std::string& p) { return writeReportOdt(p, document); });
        }
        put("report.pdf", [&](const std::string& p) {
            return writeReportPdf(p, document, [&](double share) { return step(0.6 + 0.4 * share); });
        });
    }
    for (const auto& name : names)
        if (set.why.empty() && fs::is_directory(into / name))
            set.why = (into / name).string() + " is a folder; nothing was written.";
    for (const auto& name : names) {
        if (!set.why.empty()) break;
        fs::rename(temporary / name, into / name, trouble);
        if (trouble)
            set.why = (into / name).string() + " cannot be written; is it open elsewhere?";
        else
            set.written.push_back((into / name).string());
    }
    fs::remove_all(temporary, trouble);
    if (!set.why.empty()) set.written.clear();
    return set;
}

}  // namespace talvik::paper

// The program talvik as its users run it: exit codes, files, sentences.
#include <gtest/gtest.h>
#include <sys/wait.h>

#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>

#include "support/reference.h"

namespace fs = std::filesystem;
using talvik::test::readText;

namespace {

class CommandLine : public ::testing::Test {
  protected:
    fs::path dir = fs::temp_directory_path() / ("talvik-cli-" + std::to_string(::getpid()));
    void SetUp() override {
        fs::create_directories(dir);
        ASSERT_EQ(run("new --demo -o demo.talvik").code, 0);
    }
    void TearDown() override { fs::remove_all(dir); }

    struct Result {
        int code;
        std::string out, err;
    };
    Result run(const std::string& arguments, const std::string& in = "") {
        std::ofstream(dir / "in", std::ios::binary) << in;
        std::string command =
            "cd '" + dir.string() + "' && '" TALVIK_BINARY "' " + arguments + " < in > out 2> err";
        int status = std::system(command.c_str());
        return {WEXITSTATUS(status), readText((dir / "out").string()), readText((dir / "err").string())};
    }
    bool there(const char* name) const { return fs::exists(dir / name) && fs::file_size(dir / name) > 200; }
    void thin() {
        auto j = nlohmann::json::parse(readText((dir / "demo.talvik").string()));
        j["slabs"][0]["thickness_mm"] = 130;
        std::ofstream(dir / "thin.talvik") << j;
    }
};

}  // namespace

static const std::string fishHall = "'" TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik'";

TEST_F(CommandLine, CheckSaysWhatIsOver) {
    auto r = run("check demo.talvik");
    EXPECT_EQ(r.code, 0) << r.err;
    EXPECT_NE(r.out.find("0 failing"), std::string::npos);
    EXPECT_NE(r.out.find("Flexure bottom, span A–B"), std::string::npos);
    thin();
    r = run("check thin.talvik");
    EXPECT_EQ(r.code, 1);
    EXPECT_NE(r.out.find("FAILS"), std::string::npos);
}

TEST_F(CommandLine, SweepDesignsAFloorAtEveryThickness) {
    auto r = run("sweep " + fishHall + " --thickness 280:300:20 --concrete C30/37,C35/45 --csv sweep.csv");
    EXPECT_LE(r.code, 1) << r.err;
    const auto rows = talvik::test::rows(readText((dir / "sweep.csv").string()));
    ASSERT_EQ(rows.size(), 4u);
    EXPECT_EQ(rows[3].at("thickness"), "300");
    EXPECT_NE(r.err.find("4/4"), std::string::npos) << "progress is told";
    // What a full design of the same floor says.
    EXPECT_EQ(run("sweep " + fishHall + " --thickness 280,300").out.substr(0, 9), "thickness");
    for (const char* slip :
         {" --thickness 300:200:10", " --thickness 200:320", " --thickness wide", " --thickness 5",
          " --thickness 300 --concrete C9", " --thickness 300 --floor Attic"}) {
        r = run("sweep " + fishHall + slip);
        EXPECT_EQ(r.code, 2) << slip;
        EXPECT_FALSE(r.err.empty()) << slip;
    }
    EXPECT_EQ(run("sweep demo.talvik --thickness 200").code, 2) << "it has no floor";
}

TEST_F(CommandLine, CheckAsJsonInEveryStandard) {
    for (const char* id : {"en1992", "aci318-si", "aci318-us"}) {
        auto r = run(std::string("check demo.talvik --json --standard ") + id);
        EXPECT_LE(r.code, 1) << r.err;
        auto j = nlohmann::json::parse(r.out);
        EXPECT_GT(j["slabs"][0]["checks"].size(), 80u);
        for (const auto& c : j["slabs"][0]["checks"])
            if (c.contains("steps")) {
                for (const auto& s : c["steps"]) EXPECT_NE(s["clause"], "");
            }
    }
    EXPECT_EQ(run("check demo.talvik --standard none").code, 2);
}

TEST_F(CommandLine, CheckAsJsonHoldsTheStripsOfFloors) {
    const std::string hall = TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik";
    auto r = run("check " + hall + " --json");
    EXPECT_LE(r.code, 1) << r.err;
    auto j = nlohmann::json::parse(r.out);
    ASSERT_EQ(j["floors"].size(), 1u);
    const auto& floor = j["floors"][0];
    int over = 0, within = 0;
    auto count = [&](const nlohmann::json& checks) {
        for (const auto& c : checks) {
            over += c["outcome"] == "over", within += c["outcome"] == "within";
            EXPECT_NE(c[c.contains("ratio") ? "clause" : "reason"], "") << c["key"];
        }
    };
    count(floor["checks"]);
    EXPECT_GT(floor["strips"].size(), 10u);
    for (const auto& s : floor["strips"]) {
        count(s["checks"]);
        EXPECT_GT(s["bars"].size(), 0u) << s["name"];
        bool working = false;
        for (const auto& c : s["checks"]) working |= c.contains("steps");
        EXPECT_TRUE(working) << s["name"];
        for (const auto& b : s["bars"]) EXPECT_LT(b["from"], b["to"]);
    }
    EXPECT_GT(floor["connections"].size(), 10u);
    int reinforced = 0;
    for (const auto& c : floor["connections"]) {
        count(c["checks"]);
        EXPECT_TRUE(c.contains("not_checked") || c["perimeters"].size() > 0) << c["name"];
        for (const auto& p : c["perimeters"]) EXPECT_GT(p["length"], 0);
        reinforced += c.contains("shear_steel") && c["shear_steel"].contains("legs");
    }
    EXPECT_EQ(reinforced, 8);
    EXPECT_EQ(j["summary"]["over"], over);
    EXPECT_EQ(j["summary"]["within"], within);
    for (const char* d : {"X", "Y"}) EXPECT_EQ(floor["coverage"][d]["in_no_strip_m2"], 0.0);
    EXPECT_EQ(run("check " + hall + " --json").out, r.out);
    // The same as in words.
    auto words = run("check " + hall).out;
    EXPECT_NE(words.find(std::to_string(over) + " failing, " + std::to_string(within) + " passing"),
              std::string::npos);
}

TEST_F(CommandLine, DesignMendsAThinSlab) {
    thin();
    auto r = run("design thin.talvik -o designed.talvik");
    EXPECT_EQ(r.code, 0) << r.out << r.err;
    EXPECT_EQ(run("check designed.talvik").code, 0);
    EXPECT_EQ(run("design thin.talvik").code, 2) << "an output is needed";
    EXPECT_EQ(run("design thin.talvik -o /nonexistent/x.talvik").code, 3);
}

TEST_F(CommandLine, WritesWhatLeavesTheOffice) {
    EXPECT_EQ(run("draw demo.talvik -o a.dxf a.pdf a.svg").code, 0);
    EXPECT_EQ(run("schedule demo.talvik -o s.csv s.xlsx s.abs s.ifc s.html").code, 0);
    EXPECT_EQ(readText((dir / "s.abs").string()).substr(0, 7), "BF2D@Hj");
    EXPECT_EQ(run("report demo.talvik -o r.html r.pdf r.odt").code, 0);
    for (const char* name :
         {"a.dxf", "a.pdf", "a.svg", "s.csv", "s.xlsx", "s.ifc", "s.html", "r.html", "r.pdf", "r.odt"})
        EXPECT_TRUE(there(name)) << name;
    EXPECT_EQ(readText((dir / "a.pdf").string()).substr(0, 5), "%PDF-");
    EXPECT_NE(readText((dir / "a.svg").string()).find("<svg"), std::string::npos);
    EXPECT_EQ(run("schedule demo.talvik").out, readText((dir / "s.csv").string()));
    EXPECT_EQ(run("draw demo.talvik -o a.bmp").code, 2);
    EXPECT_EQ(run("draw demo.talvik -o /nonexistent/a.pdf").code, 3);
    EXPECT_EQ(run("draw demo.talvik --slab nobody -o a.pdf").code, 2);
    EXPECT_EQ(run("report demo.talvik -o r.doc").code, 2);
}

// The same PDF to the byte wherever the clock stands, and its table of objects leads to each of them.
TEST_F(CommandLine, PdfIsTheSameInEveryTimeZone) {
    std::string first;
    for (const char* zone : {"UTC", "Asia/Kolkata", "America/St_Johns", "Pacific/Kiritimati"}) {
        ::setenv("TZ", zone, 1);
        EXPECT_EQ(run("draw demo.talvik -o zone.pdf").code, 0);
        EXPECT_EQ(run("report demo.talvik -o report.pdf").code, 0);
        ::unsetenv("TZ");
        for (const char* name : {"zone.pdf", "report.pdf"}) {
            const auto pdf = readText((dir / name).string());
            const auto start = std::stoul(pdf.substr(pdf.rfind("startxref\n") + 10));
            ASSERT_EQ(pdf.substr(start, 5), "xref\n") << zone;
            const auto head = pdf.find('\n', start) + 1, entries = pdf.find('\n', head) + 1;
            const int n = std::stoi(pdf.substr(pdf.find(' ', head) + 1));
            ASSERT_GT(n, 5);
            for (int k = 1; k < n; ++k) {
                const auto at = std::stoul(pdf.substr(entries + 20 * std::size_t(k), 10));
                const auto word = std::to_string(k) + " 0 obj";
                EXPECT_EQ(pdf.substr(at, word.size()), word) << zone << " " << name;
            }
        }
        const auto both = readText((dir / "zone.pdf").string()) + readText((dir / "report.pdf").string());
        if (first.empty()) first = both;
        EXPECT_TRUE(both == first) << zone;
    }
}

// Whatever things are called, what leaves the office can be opened: tags closed and text without signs that
// no file of its kind may hold.
TEST_F(CommandLine, EveryNameLeavesWellFormed) {
    const std::string names[] = {"<b>&\"'>",
                                 "=HYPERLINK(\"x\")",
                                 "]]> --> <!--",
                                 "%s %n \\ {\\rtf",
                                 "+1 -2 @a",
                                 "\u00e9\u4e2d\u0416 \U0001F6A2",
                                 "\u202eabc\u200b",
                                 "  ",
                                 "';--",
                                 "&amp;&#0;"};
    for (const auto& name : names) {
        auto j = nlohmann::json::parse(readText((dir / "demo.talvik").string()));
        j["name"] = name;
        j["slabs"][0]["name"] = name;
        for (auto& support : j["slabs"][0]["supports"])
            if (support.contains("name")) support["name"] = name;
        std::ofstream(dir / "named.talvik") << j;
        ASSERT_LE(run("check named.talvik").code, 1) << name << run("check named.talvik").err;
        EXPECT_EQ(run("draw named.talvik -o n.svg n.dxf n.pdf").code, 0) << name;
        EXPECT_EQ(run("schedule named.talvik -o n.csv n.xlsx n.html n.ifc").code, 0) << name;
        EXPECT_EQ(run("report named.talvik -o r.html r.odt").code, 0) << name;
        // XML by a parser that is not ours; DXF by pairs of group code and value; cells that start no
        // formula.
        std::ofstream(dir / "look.py") << R"(
import csv, io, sys, xml.dom.minidom, zipfile
xml.dom.minidom.parse("n.svg")
for name in ("n.xlsx", "r.odt"):
    z = zipfile.ZipFile(name)
    assert z.testzip() is None
    for part in z.namelist():
        if part.endswith((".xml", ".rels")): xml.dom.minidom.parseString(z.read(part))
lines = open("n.dxf", encoding="utf-8").read().split("\n")
while lines and lines[-1] == "": lines.pop()
assert len(lines) % 2 == 0 and lines[-1].strip() == "EOF"
for code in lines[::2]: int(code)
for row in csv.reader(io.StringIO(open("n.csv", encoding="utf-8-sig").read())):
    for cell in row: assert not cell or cell[0] not in "=+@\t\r" and not (cell[0] == "-" and not cell[1:].replace(".", "").isdigit()), cell
import html.parser
class Look(html.parser.HTMLParser):
    def __init__(self): super().__init__(); self.open = []
    def handle_starttag(self, tag, attributes):
        if tag not in ("br", "img", "meta", "hr", "link", "input", "col", "path", "line", "circle", "rect", "polyline", "polygon"): self.open.append(tag)
        assert tag != "script"
    def handle_startendtag(self, tag, attributes): pass
    def handle_endtag(self, tag):
        if tag in ("path", "line", "circle", "rect", "polyline", "polygon"): return
        assert self.open and self.open.pop() == tag, tag
for name in ("r.html", "n.html"):
    text = open(name, encoding="utf-8").read()
    assert not any(ord(c) < 32 and c not in "\n\t\r" for c in text)
    look = Look(); look.feed(text); assert not look.open, look.open
)";
        const int status = std::system(("cd '" + dir.string() + "' && python3 look.py > said 2>&1").c_str());
        EXPECT_EQ(status, 0) << name << "\n" << readText((dir / "said").string());
    }
}

// Tables as spreadsheets of the West write them, and bytes that are no letters at all.
TEST_F(CommandLine, TablesInOtherEncodingsAreRead) {
    auto csv = readText(TALVIK_SOURCE_DIR "/demos/sundvarg_cap_loads.csv");
    const auto ground = std::string(TALVIK_SOURCE_DIR) + "/demos/sundvarg_cap_ground.json";
    const auto name = csv.find("Crane 1");
    ASSERT_NE(name, std::string::npos);
    for (std::size_t at = name; at != std::string::npos; at = csv.find("Crane 1", at))
        csv.replace(at, 7,
                    "Kr\xE4n\xFF"
                    "1");
    std::ofstream(dir / "latin.csv", std::ios::binary) << csv;
    const auto done = run("bases latin.csv --ground " + ground + " --out latin");
    EXPECT_LE(done.code, 1) << done.err;
    EXPECT_NE(readText((dir / "latin/register.csv").string()).find("Kr\u00e4n\u00ff1"), std::string::npos);
}

// The contents of a long report lead to the pages on which headings stand, and every page has its number.
TEST_F(CommandLine, ContentsLeadToTheirPages) {
    std::ofstream(dir / "many.py") << R"(
import copy, json
p = json.load(open("demo.talvik"))
first = p["slabs"][0]
for i in range(1, 12):
    slab = copy.deepcopy(first)
    own = lambda name: name[0] + str(1000 * i) + name[1:]
    slab["id"], slab["name"], slab["bars"] = own(slab["id"]), "Terrace %d" % i, []
    for part in ("spans", "supports", "finishes"):
        for x in slab[part]: x["id"] = own(x["id"])
    p["slabs"].append(slab)
p["next_id"] = 100000
json.dump(p, open("many.talvik", "w"))
)";
    std::ofstream(dir / "look.py") << R"(
import re, subprocess
text = subprocess.run(["pdftotext", "-layout", "many.pdf", "-"], check=True, capture_output=True).stdout.decode()
pages = text.split("")[:-1]
assert len(pages) > 100, len(pages)
for k, page in enumerate(pages, 1):
    foot = page.rstrip().splitlines()[-1].split()
    assert foot[-3:] == [str(k), "/", str(len(pages))], (k, foot)
assert pages[0].split()[0] == "Contents"
entries = re.findall(r"^ *(\S.*?) {3,}(\d+)$", pages[0] + pages[1], re.M)
assert len(entries) > 60, len(entries)
for words, page in entries:
    assert re.search("^ *" + re.escape(words), pages[int(page) - 1], re.M), (words, page)
)";
    ASSERT_EQ(std::system(("cd '" + dir.string() + "' && python3 many.py").c_str()), 0);
    EXPECT_EQ(run("report many.talvik -o many.pdf").code, 0);
    const int status = std::system(("cd '" + dir.string() + "' && python3 look.py > said 2>&1").c_str());
    EXPECT_EQ(status, 0) << readText((dir / "said").string());
}

// A floor has several sheets: a PDF holds them all, the others are numbered; one can be asked for.
TEST_F(CommandLine, DrawsAFloorSheetBySheet) {
    EXPECT_EQ(run("draw " + fishHall + " -o f.pdf f.dxf f.svg").code, 0);
    for (const char* name : {"f.pdf", "f-1.dxf", "f-5.dxf", "f-1.svg", "f-5.svg"})
        EXPECT_TRUE(there(name)) << name;
    EXPECT_FALSE(there("f-6.svg"));
    const auto pdf = readText((dir / "f.pdf").string());
    std::size_t pages = 0;
    for (std::size_t at = pdf.find("/Type /Page "); at != std::string::npos;
         at = pdf.find("/Type /Page ", at + 1))
        ++pages;
    EXPECT_EQ(pages, 5u);
    EXPECT_EQ(run("draw " + fishHall + " --sheet 2 -o g.svg").code, 0);
    EXPECT_EQ(readText((dir / "g.svg").string()), readText((dir / "f-2.svg").string()));
    const auto none = run("draw " + fishHall + " --sheet 9 -o h.svg");
    EXPECT_EQ(none.code, 2);
    EXPECT_NE(none.err.find("5 sheets"), std::string::npos) << none.err;
    const auto csv = run("schedule " + fishHall).out;
    EXPECT_NE(csv.find("Fish hall deck,01,H10"), std::string::npos);
    EXPECT_NE(csv.find("L10-235-145"), std::string::npos) << "rails, too";
}

// Written twice, a second apart, every file is the same to the byte.
TEST_F(CommandLine, OutputIsDeterministic) {
    const char* all[] = {"a.dxf", "a.pdf", "a.svg", "s.csv", "s.xlsx", "r.html", "r.pdf"};
    auto write = [&] {
        return run("draw demo.talvik -o a.dxf a.pdf a.svg").code +
               run("schedule demo.talvik -o s.csv s.xlsx").code +
               run("report demo.talvik -o r.html r.pdf").code;
    };
    ASSERT_EQ(write(), 0);
    std::map<std::string, std::string> first;
    for (const char* name : all) first[name] = readText((dir / name).string());
    ::usleep(1100000);
    ASSERT_EQ(write(), 0);
    for (const char* name : all) EXPECT_TRUE(first[name] == readText((dir / name).string())) << name;
}

TEST_F(CommandLine, CalcReadsAndWritesTables) {
    for (const char* topic : {"en_flexure", "bar_cut_length", "aci_flexure_us"}) {
        auto r = run(std::string("calc ") + topic, readText(talvik::test::referencePath(topic)));
        EXPECT_EQ(r.code, 0) << r.err;
        EXPECT_EQ(talvik::test::rows(r.out).size(),
                  talvik::test::rows(readText(talvik::test::referencePath(topic))).size());
    }
    EXPECT_NE(run("calc --list").out.find("minimum_steel"), std::string::npos);
    EXPECT_EQ(run("calc nothing").code, 2);
    EXPECT_EQ(run("calc").code, 2);
    std::ofstream(dir / "bad.csv")
        << "b[mm],d[mm],h[mm],fck[MPa],As[mm2]\n1000,200,250,30,800\n1000,200,250,30,much\n";
    auto r = run("calc shear_oneway -i bad.csv -o out.csv");
    EXPECT_EQ(r.code, 2);
    EXPECT_NE(r.err.find("Row 2"), std::string::npos);
    EXPECT_EQ(r.out, "");
    EXPECT_FALSE(fs::exists(dir / "out.csv")) << "no partial output";
}

// New work by options, in the units of its standard.
TEST_F(CommandLine, NewTakesKindStandardSpansAndLoads) {
    ASSERT_EQ(run("new --standard aci318-us --spans '15 16 15' --thickness 8 --load 60 -o us.talvik").code,
              0);
    const auto checked = run("check us.talvik");
    EXPECT_EQ(checked.code, 0) << checked.out;
    EXPECT_NE(checked.out.find("0 failing"), std::string::npos);
    const auto json = run("check us.talvik --json").out;
    EXPECT_NE(json.find("ACI 318-19"), std::string::npos);
    for (const char* kind : {"floor", "pads", "caps"})
        EXPECT_EQ(run(std::string("new --kind ") + kind + " -o k.talvik").code, 0) << kind;
    for (const char* wrong : {"new --kind floor --spans 3", "new --spans abc", "new --standard nope",
                              "new --kind pads --load 3", "new --thickness 1"}) {
        const auto r = run(std::string(wrong) + " -o wrong.talvik");
        EXPECT_EQ(r.code, 2) << wrong;
        EXPECT_NE(r.err, "") << wrong;
        EXPECT_FALSE(fs::exists(dir / "wrong.talvik"));
    }
}

TEST_F(CommandLine, BadInputIsASentence) {
    std::ofstream(dir / "cut.talvik") << readText((dir / "demo.talvik").string()).substr(0, 900);
    auto r = run("check cut.talvik");
    EXPECT_EQ(r.code, 2);
    EXPECT_NE(r.err.find("line"), std::string::npos);
    EXPECT_EQ(run("check none.talvik").code, 2);
    EXPECT_EQ(run("nonsense").code, 2);
    EXPECT_EQ(run("").code, 2);
    EXPECT_EQ(run("--help").code, 0);
    EXPECT_NE(run("--help").out.find("Exit codes"), std::string::npos);
    EXPECT_EQ(run("new -o /nonexistent/x.talvik").code, 3);
    EXPECT_EQ(run("new -o new.talvik").code, 0);
    EXPECT_LE(run("check new.talvik").code, 1);
}

TEST_F(CommandLine, AnalysePrintsTotalsExtremesAndBalance) {
    auto r = run("analyse " + fishHall + " --convergence");
    EXPECT_EQ(r.code, 0) << r.err;
    for (const char* part : {"unknowns", "smallest angle", "Self-weight", "below 1e-9", "Ultimate extremes",
                             "mx", "Ice store", "B3", "Cross-check", "total static moment",
                             "On a mesh of half the size", "Time in ms: mesh", "Assumptions"})
        EXPECT_NE(r.out.find(part), std::string::npos) << part << "\n" << r.out;
    EXPECT_EQ(r.out.find("Warnings"), std::string::npos) << "the demo has no slips";
}

TEST_F(CommandLine, AFloorWithAnUnknownStandardIsRefusedByEveryCommand) {
    auto j = nlohmann::json::parse(readText(TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik"));
    j["basis"]["standard"] = "none";
    std::ofstream(dir / "unknown.talvik") << j;
    for (const char* command : {"analyse", "check", "report -o r.html", "analyse --convergence"}) {
        std::string c = command;
        auto space = c.find(' ');
        auto r =
            run(c.substr(0, space) + " unknown.talvik" + (space == std::string::npos ? "" : c.substr(space)));
        EXPECT_EQ(r.code, 2) << command;
        EXPECT_NE(r.err.find("no standard \"none\""), std::string::npos) << command << ": " << r.err;
    }
}

TEST_F(CommandLine, AnalyseWritesJsonAndFields) {
    auto r = run("analyse " + fishHall + " --json");
    ASSERT_EQ(r.code, 0) << r.err;
    auto j = nlohmann::json::parse(r.out);
    EXPECT_GE(j["cases"].size(), 4u) << "and those of panels loaded in turn";
    for (const auto& c : j["cases"]) EXPECT_TRUE(c["in_balance_to_1e-9"]);
    EXPECT_GT(j["ultimate"].size(), 6u);
    EXPECT_TRUE(j["milliseconds"].contains("factor"));
    EXPECT_EQ(j["supports"].size(), 15u);
    // Twice the same, but for the time it took.
    auto again = nlohmann::json::parse(run("analyse " + fishHall + " --json").out);
    j.erase("milliseconds"), again.erase("milliseconds");
    EXPECT_EQ(j.dump(), again.dump());

    r = run("analyse " + fishHall + " --field deflection --combination Hall --format csv");
    ASSERT_EQ(r.code, 0) << r.err;
    EXPECT_GT(talvik::test::rows(r.out).size(), 1000u);
    EXPECT_EQ(r.out.substr(0, r.out.find('\n')), "x[m],y[m],deflection[mm]");
    r = run("analyse " + fishHall + " --field all --format vtu -o floor.vtu");
    EXPECT_EQ(r.code, 0) << r.err;
    EXPECT_TRUE(there("floor.vtu"));
    EXPECT_EQ(run("analyse " + fishHall + " --field all -o /nowhere/x.csv").code, 3);
}

TEST_F(CommandLine, ReportHoldsTheFloors) {
    auto r = run("report " + fishHall + " -o deck.html deck.pdf");
    ASSERT_EQ(r.code, 0) << r.err;
    std::string text = readText((dir / "deck.html").string());
    for (const char* part : {"Calculation of floors", "Fish hall deck", "Support forces", "half the size",
                             "Ice store", "total static moment"})
        EXPECT_NE(text.find(part), std::string::npos) << part;
    EXPECT_TRUE(there("deck.pdf"));
    run("report " + fishHall + " -o again.html");
    EXPECT_EQ(readText((dir / "again.html").string()), text) << "the same to the byte";
}

TEST_F(CommandLine, AnalyseNamesWhatIsWrong) {
    auto r = run("analyse demo.talvik");
    EXPECT_EQ(r.code, 2);
    EXPECT_NE(r.err.find("no floor to analyse"), std::string::npos);
    r = run("analyse " + fishHall + " --field colour");
    EXPECT_EQ(r.code, 2);
    EXPECT_NE(r.err.find("there are: deflection"), std::string::npos);
    r = run("analyse " + fishHall + " --floor Attic");
    EXPECT_EQ(r.code, 2);
    EXPECT_NE(r.err.find("There is no floor \"Attic\""), std::string::npos);
    r = run("analyse " + fishHall + " --field mx --format png");
    EXPECT_EQ(r.code, 2);
    auto j = nlohmann::json::parse(readText(TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik"));
    j["floors"][0]["columns"] = nlohmann::json::array();
    std::ofstream(dir / "bare.talvik") << j;
    r = run("analyse bare.talvik");
    EXPECT_EQ(r.code, 2);
    EXPECT_NE(r.err.find("Slab S1 has no support near"), std::string::npos) << r.err;
}

TEST_F(CommandLine, ImportMakesAFloorOfADrawing) {
    std::string plan = TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.dxf",
                map = TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.map.json";
    auto layers = run("import " + plan + " --layers");
    EXPECT_EQ(layers.code, 0) << layers.err;
    EXPECT_NE(layers.out.find("14 lines on COLUMN\n"), std::string::npos) << layers.out;
    EXPECT_NE(layers.out.find("7 left out: TEXT"), std::string::npos);
    auto r = run("import " + plan + " --map " + map + " -o hall.talvik");
    EXPECT_EQ(r.code, 0) << r.err;
    EXPECT_NE(r.out.find("14 × column from COLUMN"), std::string::npos) << r.out;
    auto totals = run("analyse hall.talvik --json");
    EXPECT_EQ(totals.code, 0) << totals.err;
    auto j = nlohmann::json::parse(readText((dir / "hall.talvik").string()));
    EXPECT_EQ(j["floors"][0]["columns"].size(), 15u);
    EXPECT_EQ(j["floors"][0]["underlays"].size(), 1u);
    // Added to what is there; refused as a whole where the map is wrong.
    EXPECT_EQ(run("import " + plan + " --map " + map + " --into demo.talvik -o both.talvik").code, 0);
    auto both = nlohmann::json::parse(readText((dir / "both.talvik").string()));
    EXPECT_EQ(both["slabs"].size(), 1u);
    EXPECT_EQ(both["floors"].size(), 1u);
    std::ofstream(dir / "bad.json")
        << R"({"talvik_import": 1, "make": [{"as": "slab", "layers": ["ROOF"]}]})";
    auto bad = run("import " + plan + " --map bad.json -o none.talvik");
    EXPECT_EQ(bad.code, 2);
    EXPECT_NE(bad.err.find("make[0].layers: The drawing has no layer \"ROOF\""), std::string::npos)
        << bad.err;
    EXPECT_FALSE(fs::exists(dir / "none.talvik"));
    EXPECT_EQ(run("import " + plan).code, 2);
    EXPECT_EQ(run("import nowhere.dxf --map bad.json").code, 2);
}

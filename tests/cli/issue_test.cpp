// The issue set as it leaves the program, opened by other programs: ezdxf, openpyxl, pdftotext and a reader
// of ZIP files (Debian's python3-ezdxf, python3-openpyxl, poppler-utils; scripts/packages.txt lists them).
#include <gtest/gtest.h>
#include <sys/wait.h>

#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>

#include "support/reference.h"

namespace fs = std::filesystem;
using talvik::test::readText;

namespace {

const char* openers = R"PY(
import sys, glob, zipfile, subprocess, re
import ezdxf, openpyxl
folder = sys.argv[1]
dimensions = 0
for path in sorted(glob.glob(folder + '/*.dxf')):
    doc = ezdxf.readfile(path)
    audit = doc.audit()
    for e in audit.errors + audit.fixes:
        print(path, e.code, e.message)
    assert not audit.errors and not audit.fixes, path
    layers = {layer.dxf.name for layer in doc.layers}
    for name in ('OUTLINE', 'BARS-X-BOTTOM', 'BARS-X-TOP', 'DIMENSION', 'GRID', 'TEXT'):
        assert name in layers, name
    assert doc.layers.get('BARS-X-TOP').dxf.linetype == 'BARS-X-TOP'
    assert 'HIDDEN' in doc.linetypes
    here = doc.modelspace().query('DIMENSION')
    dimensions += len(here)
    for d in here:
        content = list(d.virtual_entities())
        texts = [t for t in content if t.dxftype() in ('TEXT', 'MTEXT')]
        assert len(texts) == 1 and texts[0].dxf.text == d.dxf.text, path
        measured = d.get_measurement()
        assert abs(measured - float(d.dxf.text)) < 1 + 1e-3 * measured, (measured, d.dxf.text)
    assert len(doc.modelspace().query('TEXT')) > 10
print('dimensions', dimensions)
book = openpyxl.load_workbook(folder + '/schedule.xlsx')
assert book.sheetnames == ['Bars', 'Totals', 'Quantities', 'Cutting'], book.sheetnames
bars = book['Bars']
head = [c.value for c in bars[1]]
assert head[:6] == ['Member', 'Mark', 'Type and size', 'Members', 'In each', 'Total'], head
mass = sum(r[15].value for r in bars.iter_rows(min_row=2))
total = [r for r in book['Totals'].iter_rows(min_row=2)][-1]
assert abs(mass - total[3].value) < 0.02 * bars.max_row, (mass, total[3].value)
print('rows', bars.max_row - 1)
with zipfile.ZipFile(folder + '/report.odt') as odt:
    assert odt.testzip() is None
    words = re.sub('<[^>]*>', ' ', odt.read('content.xml').decode())
    assert 'Basis of design' in words and 'What governs' in words
    assert odt.read('mimetype') == b'application/vnd.oasis.opendocument.text'
def text(name):
    return subprocess.run(['pdftotext', '-layout', folder + '/' + name, '-'], check=True, capture_output=True).stdout.decode()
report = text('report.pdf')
pages = report.split('\f')
assert 'Contents' in pages[0], pages[0]
# Every heading of the contents stands on the page named.
checked = 0
for line in re.findall(r'^\s*(\S.*?)\s{2,}(\d+)\s*$', pages[0], re.M):
    if len(line[0]) > 8 and not line[0].endswith('…') and '/' not in line[0]:
        assert line[0].split('  ')[0][:30] in pages[int(line[1]) - 1], line
        checked += 1
assert checked > 3, checked
print('pages', len(pages) - 1)
assert 'kg/m³' in text('quantities.pdf')
assert 'Minimum waste' in text('cutting.pdf')
assert 'Assumed' in text('open.pdf')
drawings = text('drawings.pdf')
assert 'Bar schedule' in drawings and 'Notes' in drawings
)PY";

class Issue : public ::testing::Test {
  protected:
    fs::path dir = fs::temp_directory_path() / ("talvik-issue-" + std::to_string(::getpid()));
    void SetUp() override { fs::create_directories(dir); }
    void TearDown() override { fs::remove_all(dir); }
    int run(const std::string& arguments) {
        const std::string command =
            "cd '" + dir.string() + "' && '" TALVIK_BINARY "' " + arguments + " > out 2> err";
        return WEXITSTATUS(std::system(command.c_str()));
    }
    std::string word(const char* name) const { return readText((dir / name).string()); }
    void open(const char* folder) {
        std::ofstream(dir / "open.py") << openers;
        const std::string command = "/usr/bin/python3 '" + (dir / "open.py").string() + "' '" +
                                    (dir / folder).string() + "' > '" + (dir / "said").string() + "' 2>&1";
        EXPECT_EQ(std::system(command.c_str()), 0) << word("said");
    }
};

}  // namespace

TEST_F(Issue, SetOfAFloorOpensElsewhere) {
    ASSERT_LE(run("issue '" TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik' --out set --no-convergence"),
              1)
        << word("err");
    open("set");
    EXPECT_NE(word("said").find("dimensions 16"), std::string::npos) << word("said");
    EXPECT_FALSE(fs::exists(dir / "set" / ".talvik-issue.part"));
    // Once more: the same files to the byte.
    ASSERT_LE(
        run("issue '" TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik' --out again --no-convergence"), 1);
    int files = 0;
    for (const auto& file : fs::directory_iterator(dir / "set")) {
        ++files;
        EXPECT_EQ(readText(file.path().string()), readText((dir / "again" / file.path().filename()).string()))
            << file.path();
    }
    EXPECT_GT(files, 18);
}

TEST_F(Issue, SetOfSlabsIsFixedAsARevision) {
    ASSERT_EQ(run("new --demo -o demo.talvik"), 0);
    ASSERT_EQ(run("issue demo.talvik --out set --fix"), 0) << word("err");
    open("set");
    const auto j = nlohmann::json::parse(readText((dir / "demo.talvik").string()));
    ASSERT_EQ(j["revisions"].size(), 1u);
    EXPECT_FALSE(j["marks"].empty());
    EXPECT_NE(readText((dir / "set" / "schedule.csv").string()).find(",A,"), std::string::npos);
    EXPECT_EQ(run("issue demo.talvik --out set --fix"), 2) << "the same letter again";
    EXPECT_NE(word("err").find("frozen already"), std::string::npos);
}

TEST_F(Issue, NothingHalfWritten) {
    ASSERT_EQ(run("new --demo -o demo.talvik"), 0);
    std::ofstream(dir / "taken") << "a file";
    EXPECT_EQ(run("issue demo.talvik --out taken"), 3);
    EXPECT_NE(word("err").find("cannot be written to"), std::string::npos);
    EXPECT_EQ(word("taken"), "a file");
    EXPECT_EQ(run("issue nowhere.talvik --out set"), 2);
    EXPECT_FALSE(fs::exists(dir / "set"));
    // A folder in the place of one of the files: the others are not left behind.
    fs::create_directories(dir / "set" / "schedule.csv" / "kept");
    EXPECT_EQ(run("issue demo.talvik --out set"), 3);
    EXPECT_TRUE(fs::exists(dir / "set" / "schedule.csv" / "kept"));
    EXPECT_FALSE(fs::exists(dir / "set" / "report.pdf"));
}

TEST_F(Issue, ComparesTwoStates) {
    ASSERT_EQ(run("new --demo -o a.talvik"), 0);
    auto j = nlohmann::json::parse(readText((dir / "a.talvik").string()));
    j["slabs"][0]["thickness_mm"] = 130;
    std::ofstream(dir / "b.talvik") << j;
    ASSERT_EQ(run("compare a.talvik b.talvik"), 0) << word("err");
    EXPECT_NE(word("out").find("thickness mm"), std::string::npos);
    EXPECT_NE(word("out").find("now failing"), std::string::npos);
    ASSERT_EQ(run("compare a.talvik b.talvik --json"), 0);
    const auto out = nlohmann::json::parse(word("out"));
    EXPECT_EQ(out["inputs"].size(), 1u);
    EXPECT_EQ(out["inputs"][0]["after"], "130");
    ASSERT_EQ(run("compare a.talvik b.talvik -o c.html c.pdf c.odt"), 0);
    for (const char* name : {"c.html", "c.pdf", "c.odt"}) EXPECT_GT(fs::file_size(dir / name), 500u) << name;
    EXPECT_EQ(run("compare a.talvik nowhere.talvik"), 2);
}

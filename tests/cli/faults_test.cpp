// Every kind of output under every fault of the file system: a sentence, exit 3, the old file as it was, and
// nothing left beside it.
#include <gtest/gtest.h>
#include <sys/stat.h>
#include <sys/wait.h>

#include <cerrno>
#include <filesystem>
#include <fstream>

#include "support/reference.h"

namespace fs = std::filesystem;
using talvik::test::readText;

namespace {

class Faults : public ::testing::Test {
  protected:
    fs::path dir = fs::temp_directory_path() / ("talvik-faults-" + std::to_string(::getpid()));
    void SetUp() override {
        fs::create_directories(dir);
        ASSERT_EQ(run("new --demo -o demo.talvik"), 0);
    }
    void TearDown() override { fs::remove_all(dir); }
    int run(const std::string& arguments, const std::string& fault = "", const std::string& out = "out") {
        const std::string before =
            fault.empty() ? "" : "TALVIK_FAULT=" + fault + " LD_PRELOAD='" TALVIK_FAULTS "' ";
        const std::string command = "cd '" + dir.string() + "' && " + before + "'" TALVIK_BINARY "' " +
                                    arguments + " > " + out + " 2> err < /dev/null";
        return WEXITSTATUS(std::system(command.c_str()));
    }
    std::string said() const { return readText((dir / "err").string()); }
    int parts() const {
        int n = 0;
        for (const auto& e : fs::recursive_directory_iterator(dir)) n += e.path().extension() == ".part";
        return n;
    }
};

const std::string hall = "'" TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik'";

}  // namespace

TEST_F(Faults, LeaveTheOldFile) {
    const std::pair<std::string, std::string> kinds[] = {
        {"new --demo -o", "a.talvik"},
        {"design demo.talvik -o", "b.talvik"},
        {"schedule demo.talvik -o", "c.csv"},
        {"schedule demo.talvik -o", "d.xlsx"},
        {"schedule demo.talvik -o", "e.abs"},
        {"draw demo.talvik -o", "f.dxf"},
        {"draw demo.talvik -o", "g.svg"},
        {"draw demo.talvik -o", "h.pdf"},
        {"report demo.talvik -o", "i.html"},
        {"report demo.talvik -o", "j.odt"},
        {"report demo.talvik -o", "k.pdf"},
        {"sweep " + hall + " --thickness 300:300:10 --csv", "l.csv"},
        {"import '" TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.dxf' --map '" TALVIK_SOURCE_DIR
         "/demos/sundvarg_fish_hall.map.json' -o",
         "m.talvik"},
    };
    const std::string faults[] = {"create:1:" + std::to_string(EACCES), "write:1:" + std::to_string(ENOSPC),
                                  "write:2:" + std::to_string(EIO), "fsync:1:" + std::to_string(EIO),
                                  "rename:1:" + std::to_string(EACCES)};
    for (const auto& [command, name] : kinds) {
        const std::string arguments = command + " " + name, path = (dir / name).string();
        std::ofstream(path) << "as it was";
        for (const auto& fault : faults) {
            // A second piece is there only where the file is larger than the first.
            if (fault[0] == 'w' && fault[6] == '2' && name == "l.csv") continue;
            EXPECT_EQ(run(arguments, fault), 3) << arguments << " " << fault << "\n" << said();
            EXPECT_EQ(readText(path), "as it was") << arguments << " " << fault;
            EXPECT_NE(said().find(name + " cannot be written"), std::string::npos) << fault << said();
            EXPECT_EQ(parts(), 0) << arguments << " " << fault;
        }
        // Without a fault it is written.
        const int code = run(arguments);
        EXPECT_TRUE(code == 0 || code == 1) << arguments << said();
        EXPECT_NE(readText(path), "as it was") << arguments;
    }
}

TEST_F(Faults, OfAFolderOfFilesAreTold) {
    for (const std::string& fault :
         {std::string("write:3:") + std::to_string(ENOSPC), "rename:4:" + std::to_string(EACCES)}) {
        EXPECT_EQ(run("issue demo.talvik --out set", fault), 3) << said();
        EXPECT_NE(said().find("cannot be written"), std::string::npos);
        EXPECT_EQ(parts(), 0);
        fs::remove_all(dir / "set");
    }
}

TEST_F(Faults, OfStandardOutputAreTold) {
    for (const char* command : {"check demo.talvik", "check demo.talvik --json", "--help",
                                "new --demo -o x.talvik", "calc en_flexure --help"}) {
        EXPECT_EQ(run(command, "", "/dev/full"), 3) << command;
        EXPECT_NE(said().find("Standard output cannot be written"), std::string::npos) << command << said();
    }
}

// Of several outputs none is written where one cannot be.
TEST_F(Faults, AllAreLookedAtBeforeTheFirst) {
    EXPECT_EQ(run("schedule demo.talvik -o one.csv none/two.csv"), 3);
    EXPECT_FALSE(fs::exists(dir / "one.csv"));
    EXPECT_EQ(run("schedule demo.talvik -o one.csv two.word"), 2);
    EXPECT_FALSE(fs::exists(dir / "one.csv"));
}

TEST_F(Faults, LinksPermissionsAndDevicesStay) {
    std::ofstream(dir / "real.csv") << "old";
    fs::permissions(dir / "real.csv", fs::perms(0640));
    fs::create_symlink("real.csv", dir / "link.csv");
    ASSERT_EQ(run("schedule demo.talvik -o link.csv"), 0) << said();
    EXPECT_TRUE(fs::is_symlink(dir / "link.csv"));
    EXPECT_GT(fs::file_size(dir / "real.csv"), 200u);
    EXPECT_EQ(fs::status(dir / "real.csv").permissions(), fs::perms(0640));
    // A link to nothing yet makes what it names.
    fs::create_symlink("later.csv", dir / "dangling.csv");
    ASSERT_EQ(run("schedule demo.talvik -o dangling.csv"), 0);
    EXPECT_TRUE(fs::is_regular_file(dir / "later.csv") && fs::is_symlink(dir / "dangling.csv"));
    // Read-only is refused, also for those who may do everything.
    fs::permissions(dir / "real.csv", fs::perms(0440));
    const auto before = readText((dir / "real.csv").string());
    EXPECT_EQ(run("schedule demo.talvik -o real.csv"), 3);
    EXPECT_NE(said().find("read-only"), std::string::npos) << said();
    EXPECT_EQ(readText((dir / "real.csv").string()), before);
    // A pipe is written through and stays.
    ASSERT_EQ(mkfifo((dir / "pipe.csv").c_str(), 0600), 0);
    const std::string both = "cd '" + dir.string() +
                             "' && (cat pipe.csv > got & '" TALVIK_BINARY
                             "' schedule demo.talvik -o pipe.csv > out 2> err; wait)";
    ASSERT_EQ(std::system(both.c_str()), 0);
    EXPECT_TRUE(fs::is_fifo(dir / "pipe.csv"));
    EXPECT_EQ(readText((dir / "got").string()), before);
    // What a killed run left is gone after the next, of another file it stays; a planted link is not
    // followed.
    auto old = [&](const char* name) {
        std::ofstream(dir / name) << "half";
        fs::last_write_time(dir / name, fs::file_time_type::clock::now() - std::chrono::hours(2));
    };
    old(".later.csv.abcdef.part"), old(".other.csv.abcdef.part");
    std::ofstream(dir / ".later.csv.ghijkl.part") << "being written";
    std::ofstream(dir / "precious") << "precious";
    fs::create_symlink("precious", dir / ".later.csv.mnopqr.part");
    ASSERT_EQ(run("schedule demo.talvik -o later.csv"), 0);
    EXPECT_FALSE(fs::exists(dir / ".later.csv.abcdef.part"));
    EXPECT_TRUE(fs::exists(dir / ".other.csv.abcdef.part"));
    EXPECT_TRUE(fs::exists(dir / ".later.csv.ghijkl.part")) << "as young as that, someone may be at it";
    EXPECT_EQ(readText((dir / "precious").string()), "precious");
}

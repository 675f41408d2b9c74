#include "report/report.h"

#include <gtest/gtest.h>

#include <map>

#include "design/design.h"
#include "formats/project_file.h"
#include "trace/trace.h"

namespace talvik::report {
namespace {

std::string worked(const trace::Step& step) {
    return trace::formula(step, trace::Form::Html) + " " + trace::substituted(step, trace::Form::Html) +
           " <b>" + trace::result(step, trace::Form::Html) + "</b>";
}

// Every step of every check is worked out once under its heading, before the first that refers to it, and
// every note is said once; nothing is lost by what is left out.
TEST(Report, WorksEverythingOutOnceUnderItsHeading) {
    for (const auto& p : {formats::demoProject(), formats::demoFloorProject()}) {
        const auto d = design::run(p);
        const auto document = make(p, d, Depth::Full);
        std::size_t above = 0, heading = 0, all = 0;
        std::map<int, std::string> notes;
        for (std::size_t i = 0; i < document.blocks.size(); ++i) {
            const auto& b = document.blocks[i];
            if (b.kind == Block::Kind::Heading) heading = i, notes.clear();
            if (b.kind != Block::Kind::Check) continue;
            const auto& c = document.checks[std::size_t(b.index)];
            const auto& told = document.told[std::size_t(b.index)];
            ASSERT_EQ(told.steps.size(), c.steps.size());
            ASSERT_EQ(told.notes.size(), c.notes.size());
            const auto own = html(document, i, i + 1, Target::Page);
            const bool looked = i % 40 == 0;  // reading all above anew for every check takes long
            const auto before = looked ? html(document, heading, i, Target::Page) : std::string();
            for (std::size_t k = 0; k < c.steps.size(); ++k) {
                ++all, above += told.steps[k];
                EXPECT_EQ(own.find(worked(c.steps[k])) == std::string::npos, told.steps[k]) << c.title;
                if (looked && told.steps[k]) {
                    EXPECT_NE(before.find(worked(c.steps[k])), std::string::npos) << c.title;
                }
            }
            for (std::size_t k = 0; k < c.notes.size(); ++k) {
                const auto [at, first] = notes.emplace(told.notes[k].number, c.notes[k]);
                EXPECT_EQ(at->second, c.notes[k]) << "a number belongs to one note";
                EXPECT_EQ(first, !told.notes[k].above) << c.title;
            }
        }
        EXPECT_GT(above, all / 5);
        EXPECT_LT(above, all);
    }
}

}  // namespace
}  // namespace talvik::report

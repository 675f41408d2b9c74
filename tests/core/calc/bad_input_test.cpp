// The batch calculator's manners: columns in any order, sentences that name row and column, nothing
// half-written.
#include <gtest/gtest.h>

#include "calc/calc.h"
#include "support/reference.h"

using namespace talvik;

namespace {

const calc::Topic& bars() {
    return *calc::topic("bar_cut_length");
}
const calc::Topic& shear() {
    return *calc::topic("shear_oneway");
}
std::string error(const calc::Topic& t, const std::string& csv) {
    auto r = calc::run(t, csv);
    EXPECT_EQ(r.text, "");
    return r.error;
}
const std::string head = "b[mm],d[mm],h[mm],fck[MPa],As[mm2]\n";

}  // namespace

TEST(Calc, ColumnsComeInAnyOrderWithOutputsIgnored) {
    auto straight = calc::run(shear(), head + "1000,200,250,30,800\n");
    auto mixed = calc::run(
        shear(), "en[kN],As[mm2],fck[MPa],h[mm],d[mm],csa[kN],b[mm]\r\nx,800,30,250,200,,1000\r\n\r\n");
    ASSERT_EQ(straight.error, "");
    ASSERT_EQ(mixed.error, "");
    EXPECT_EQ(straight.text, mixed.text);
    EXPECT_EQ(straight.text.substr(0, head.size() - 1), head.substr(0, head.size() - 1));
}

TEST(Calc, BomAndQuotesAreTaken) {
    EXPECT_EQ(calc::run(shear(), "\xEF\xBB\xBF" + head + "\"1000\", 200 ,250,30,800\n").error, "");
}

TEST(Calc, TroubleNamesRowAndColumn) {
    EXPECT_NE(error(shear(), "").find("empty"), std::string::npos);
    EXPECT_NE(error(shear(), "b[mm],d[mm],h[mm],fck[MPa]\n").find("As[mm2] is missing"), std::string::npos);
    EXPECT_NE(error(shear(), "b[mm],d[mm],h[mm],fck[MPa],As[mm2],colour[-]\n").find("colour"),
              std::string::npos);
    EXPECT_NE(error(shear(), "b[m],d[mm],h[mm],fck[MPa],As[mm2]\n").find("b[mm]"), std::string::npos);
    EXPECT_NE(error(shear(), "b[mm],b[mm],d[mm],h[mm],fck[MPa],As[mm2]\n").find("twice"), std::string::npos);
    std::string text = error(shear(), head + "1000,200,250,30,800\n1000,two,250,30,800\n");
    EXPECT_NE(text.find("Row 2 (line 3), column d[mm]"), std::string::npos) << text;
    EXPECT_NE(error(shear(), head + "1000,-200,250,30,800\n").find("more than zero"), std::string::npos);
    for (const char* bad : {"nan", "inf", "1e999", "0x10", "1 000", "", "1,000"})
        EXPECT_NE(error(shear(), head + "1000,200,250,30," + bad + "\n"), "") << bad;
    EXPECT_NE(error(shear(), head + "1000,200\n").find("2 cells"), std::string::npos);
    EXPECT_NE(error(*calc::topic("en_span_depth"),
                    "system[-],fck[MPa],rho[%],rho2[%],fyk[MPa],as_ratio[-],leff[m]\nwavy,30,0.5,0,500,1,5\n")
                  .find("wavy"),
              std::string::npos);
}

TEST(Calc, RowsWithoutAnAnswerSaySo) {
    EXPECT_NE(error(bars(), "code[-],d[mm],A[mm],B_[mm],C[mm],D[mm],E[mm],R[mm]\ns99,12,1000,0,0,0,0,0\n")
                  .find("99"),
              std::string::npos);
    EXPECT_NE(error(*calc::topic("en_flexure"),
                    "M[kNm],b[mm],d[mm],d2[mm],fck[MPa],fyk[MPa],alpha_cc[-],xlim[-],zmax[-]\n9000,300,200,"
                    "150,20,500,1,0.45,0\n")
                  .find("Row 1"),
              std::string::npos);
    EXPECT_NE(
        error(*calc::topic("en_crack_width"),
              "M[kNm/"
              "m],h[mm],d[mm],phi[mm],s[mm],c[mm],fck[MPa],creep[-],kt[-]\n50,200,220,12,150,25,30,2,0.4\n")
            .find("less than h"),
        std::string::npos);
}

TEST(Calc, EveryTopicDescribesItself) {
    EXPECT_EQ(calc::topics().size(), 45u);
    for (const auto& t : calc::topics()) {
        std::string page = calc::describe(t);
        for (const auto& c : t.inputs) EXPECT_NE(page.find(c.heading()), std::string::npos);
        for (const auto& c : t.outputs) EXPECT_NE(page.find(c.meaning), std::string::npos);
    }
    EXPECT_EQ(calc::topic("none"), nullptr);
}

// Prints the tables of docs/verification.md and draws its convergence picture: the plate against series
// solutions, closed forms and statics, with the largest deviation met. scripts/verification.sh runs it.
#include <fmt/format.h>

#include <fstream>

#include "analysis/floor_analysis.h"
#include "design/strip_opinions.h"
#include "model/edits.h"
#include "support/plate_problem.h"
#include "support/random_floor.h"
#include "support/reference.h"
#include "support/regular_floor.h"

using namespace talvik;
using namespace talvik::test;

namespace {

struct Worst {
    std::string what;
    double deviation = 0, tolerance = 0;
};
class Table {
  public:
    void add(const std::string& what, double value, double expected, double tolerance, double scale = 0) {
        auto found = std::find_if(rows_.begin(), rows_.end(), [&](auto& r) { return r.what == what; });
        if (found == rows_.end()) found = rows_.insert(rows_.end(), {what, 0, tolerance});
        double d = (value - expected) / (scale != 0 ? scale : expected);
        if (std::abs(d) > std::abs(found->deviation)) found->deviation = d;
    }
    void print(const std::string& title) const {
        fmt::print("\n**{}**\n\n| quantity | largest deviation | tolerance |\n|---|---:|---:|\n", title);
        for (const auto& r : rows_)
            fmt::print("| {} | {:+.2f} % | {:.1f} % |\n", r.what, 100 * r.deviation, 100 * r.tolerance);
    }

  private:
    std::vector<Worst> rows_;
};
std::vector<TextRow> table(const char* name) {
    return rows(readText(referencePath(name)));
}

void rectangles() {
    Table ss, clamped, thick;
    for (const auto& row : table("plate_ss_rect")) {
        double b = num(row, "ratio");
        PlateProblem p;
        p.loadedRectangle(b, 1.0 / 20, {{0.5, b / 2}}, num(row, "nu"), Edge::Hard);
        p.solve();
        Point c{0.5, b / 2};
        ss.add("centre deflection", p.w(c), num(row, "w"), 0.01);
        ss.add("centre moment, short span", p.m(c, 0), num(row, "Ma"), 0.02);
        ss.add("centre moment, long span", p.m(c, 1), num(row, "Mb"), 0.02);
        ss.add("corner twisting moment", std::abs(p.m({0, 0}, 2)), num(row, "Mxy"), 0.05);
    }
    ss.print("Simply supported rectangles (hard), 15 cases, 20 elements on the short side");
    for (const auto& row : table("plate_clamped_rect")) {
        double b = num(row, "ratio");
        PlateProblem p;
        p.loadedRectangle(b, 1.0 / 30, {{0.5, b / 2}, {0, b / 2}, {0.5, 0}}, num(row, "nu"), Edge::Clamped);
        p.solve();
        clamped.add("centre deflection", p.w({0.5, b / 2}), num(row, "w"), 0.01);
        clamped.add("centre moment, short span", p.m({0.5, b / 2}, 0), num(row, "Ma"), 0.02);
        clamped.add("centre moment, long span", p.m({0.5, b / 2}, 1), num(row, "Mb"), 0.02);
        clamped.add("moment at the long edge", p.m({0, b / 2}, 0), num(row, "Mea"), 0.04);
        clamped.add("moment at the short edge", p.m({0.5, 0}, 1), num(row, "Meb"), 0.04);
    }
    clamped.print("Clamped rectangles, 12 cases, 30 elements on the short side");
    for (const auto& row : table("plate_mindlin_ss_square")) {
        double t = num(row, "t_over_L"), nu = num(row, "nu"), E = 12 * (1 - nu * nu) / (t * t * t);
        PlateProblem p;
        p.loadedRectangle(1, 1.0 / 24, {{0.5, 0.5}}, nu, Edge::Hard, 1 / (5.0 / 6 * E / (2 * (1 + nu)) * t));
        p.solve();
        thick.add("centre deflection", p.w({0.5, 0.5}), num(row, "w"), 0.01);
        thick.add("centre moment", p.m({0.5, 0.5}, 0), num(row, "M"), 0.02);
    }
    thick.print("Thick squares with shear deformation, t/L 0.05 to 0.2, 9 cases");
}

void circles() {
    Table t;
    for (const auto& row : table("plate_circular"))
        for (bool clamped : {false, true}) {
            double q = num(row, "q") * 1e-3, a = num(row, "a") * 1e3, h = num(row, "t") * 1e3,
                   nu = num(row, "nu");
            PlateProblem p;
            p.makeMesh(PlateProblem::circle(a, 120), a / 20, {{0, 0}});
            p.material(num(row, "E") * 1e3 * h * h * h / 12 / (1 - nu * nu), nu);
            for (int side = 0; side < 120; ++side) p.support(side, clamped ? Edge::Clamped : Edge::Soft);
            p.uniform(q);
            p.solve();
            std::string end = clamped ? "_cl" : "_ss", name = clamped ? ", clamped" : ", simply supported";
            t.add("centre deflection" + name, p.w({0, 0}), num(row, "w" + end), 0.01);
            t.add("centre moment" + name, p.m({0, 0}, 0) * 1e-3, num(row, "M" + end), 0.02);
            if (clamped) t.add("radial moment at the edge", p.m({a, 0}, 0) * 1e-3, num(row, "Mr_cl"), 0.04);
        }
    t.print("Circular plates, 12 cases");
}

void ground() {
    Table t, beam;
    for (const auto& row : table("winkler_ss_rect")) {
        double a = num(row, "a") * 1e3, b = num(row, "b") * 1e3, h = num(row, "t") * 1e3, nu = num(row, "nu");
        PlateProblem p;
        p.makeMesh(PlateProblem::rectangle(a, b), std::min(a, b) / 24, {{a / 2, b / 2}});
        p.material(num(row, "E") * 1e3 * h * h * h / 12 / (1 - nu * nu), nu);
        for (int side = 0; side < 4; ++side) p.support(side, Edge::Hard);
        p.bed(num(row, "k") * 1e-3);
        p.uniform(num(row, "q") * 1e-3);
        p.solve();
        t.add("centre deflection", p.w({a / 2, b / 2}), num(row, "wq"), 0.015);
        t.add("centre moment along x", p.m({a / 2, b / 2}, 0) * 1e-3, num(row, "Mx"), 0.03);
        t.add("centre moment along y", p.m({a / 2, b / 2}, 1) * 1e-3, num(row, "My"), 0.03);
    }
    t.print("Rectangles on elastic ground, 12 cases");
    for (const auto& row : table("winkler_beam")) {
        double L = num(row, "L") * 1e3, b = num(row, "b") * 1e3, h = num(row, "h") * 1e3;
        PlateProblem p;
        p.task.lines.push_back({{L / 2, 0}, {L / 2, b}, 100});
        p.makeMesh(PlateProblem::rectangle(L, b), std::min(L / 40, b / 4), {{L / 2, b / 2}, {0, b / 2}});
        p.material(num(row, "E") * 1e3 * h * h * h / 12, 0);
        p.bed(num(row, "k") * 1e-3);
        fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
        fem::addLine(finder, num(row, "P_") * 1e3 / b, {L / 2, 0}, {L / 2, b}, p.newCase());
        p.solve();
        beam.add("deflection under the load", p.w({L / 2, b / 2}), num(row, "y_mid"), 0.01);
        beam.add("deflection of the ends (of that under the load)", p.w({0, b / 2}), num(row, "y_end"), 0.01,
                 num(row, "y_mid"));
    }
    beam.print("Free beam on elastic ground as a plate strip, 16 cases");
}

void flatSlab() {
    Table t;
    for (const auto& row : table("flat_slab_panel")) {
        PlateProblem p;
        p.task.growth = 0.2;
        for (Point c : {Point{0, 0}, {1, 0}, {1, 1}, {0, 1}}) p.task.fine.push_back({c, 0.0, 0.006});
        p.makeMesh(PlateProblem::rectangle(1, 1), 1.0 / 40, {{0.5, 0.5}, {0.5, 0}});
        p.material(1, num(row, "nu"));
        for (int side = 0; side < 4; ++side) p.support(side, Edge::Symmetry);
        for (Point c : {Point{0, 0}, {1, 0}, {1, 1}, {0, 1}}) {
            fem::PlateModel::Restraint r{p.node(c)};
            r.w = true;
            p.model.restraints.push_back(r);
        }
        p.uniform(1);
        p.solve();
        double negative = 0;
        for (const auto& r : p.reactions[0])
            if (p.model.nodes[r.node].x < 1e-9) negative += r.force[1];
        t.add("deflection of the panel's centre", p.w({0.5, 0.5}), num(row, "wc"), 0.02);
        t.add("deflection between supports", p.w({0.5, 0}), num(row, "wm"), 0.02);
        t.add("moment at the panel's centre", p.m({0.5, 0.5}, 0), num(row, "Mc"), 0.03);
        t.add("moment between supports, along", p.m({0.5, 0}, 0), num(row, "Mmx"), 0.03);
        t.add("mean moment over the support line", negative, num(row, "Mneg"), 0.01);
    }
    t.print("Interior panel of a flat slab on points, 4 cases");
}

void convergence(const std::string& svg) {
    struct Series {
        const char* name;
        std::vector<double> error;
    };
    std::vector<int> sides{6, 8, 12, 16, 24, 32, 48, 64};
    Series w{"centre deflection", {}}, m{"centre moment", {}}, e{"edge moment", {}};
    for (int n : sides) {
        PlateProblem p;
        p.loadedRectangle(1, 1.0 / n, {{0.5, 0.5}, {0, 0.5}}, 0.3, Edge::Clamped);
        p.solve();
        w.error.push_back(std::abs(p.w({0.5, 0.5}) / 0.00126532 - 1));
        m.error.push_back(std::abs(p.m({0.5, 0.5}, 0) / 0.0229051 - 1));
        e.error.push_back(std::abs(p.m({0, 0.5}, 0) / -0.0513338 - 1));
    }
    fmt::print("\n**Convergence: clamped square, error against the series**\n\n| elements on a side |");
    for (int n : sides) fmt::print(" {} |", n);
    fmt::print("\n|---|");
    for (std::size_t i = 0; i < sides.size(); ++i) fmt::print("---:|");
    for (const Series* s : {&w, &m, &e}) {
        fmt::print("\n| {} |", s->name);
        for (double v : s->error) fmt::print(" {:.2f} % |", 100 * v);
    }
    fmt::print("\n");
    std::ofstream out(svg);
    auto x = [&](double n) { return 60 + 440 * std::log(n / 6) / std::log(64.0 / 6); };
    auto y = [&](double v) { return 20 + 260 * std::log10(0.5 / std::max(v, 5e-5)) / 4; };
    out << "<svg xmlns='http://www.w3.org/2000/svg' width='660' height='330' font-family='sans-serif' "
           "font-size='12'>\n<rect width='660' height='330' fill='#fcfbf8'/>\n";
    for (double v : {0.1, 0.01, 0.001, 0.0001})
        out << fmt::format(
            "<path d='M60 {0:.1f}H500' stroke='#ccc'/><text x='54' y='{1:.1f}' text-anchor='end'>{2} "
            "%</text>\n",
            y(v), y(v) + 4, v * 100);
    for (int n : sides)
        out << fmt::format("<text x='{:.1f}' y='300' text-anchor='middle'>{}</text>\n", x(n), n);
    out << "<text x='280' y='320' text-anchor='middle'>elements on a side</text>\n";
    out << fmt::format(
        "<path d='M{:.1f} {:.1f}L{:.1f} {:.1f}' stroke='#888' stroke-dasharray='2 4'/>"
        "<text x='{:.1f}' y='{:.1f}' fill='#666'>second order</text>\n",
        x(6), y(0.2), x(64), y(0.2 * 36 / 4096), x(64) + 6, y(0.2 * 36 / 4096));
    const char* dash[] = {"none", "7 3", "2 2"};
    int k = 0;
    for (const Series* s : {&w, &m, &e}) {
        std::string path;
        for (std::size_t i = 0; i < sides.size(); ++i)
            path += fmt::format("{}{:.1f} {:.1f}", i ? "L" : "M", x(sides[i]), y(s->error[i]));
        out << fmt::format(
            "<path d='{}' fill='none' stroke='#22303c' stroke-width='1.6' stroke-dasharray='{}'/>"
            "<text x='{:.1f}' y='{:.1f}'>{}</text>\n",
            path, dash[k++], x(64) + 6, y(s->error.back()) + 4, s->name);
    }
    out << "</svg>\n";
}

void balance() {
    double worst = 0, share = 0;
    std::size_t triangles = 0;
    for (unsigned seed = 1; seed <= 100; ++seed) {
        auto f = randomFloor(seed);
        analysis::FloorBasis basis{30000, 0.2, 25e-6, [](const analysis::FloorBasis::Flange& in) {
                                       return std::min(in.toNext / 2, 500.0);
                                   }};
        auto a = analysis::FloorAnalyser().analyse(f, "f", basis, {});
        for (const auto& c : a.cases) worst = std::max(worst, c.imbalance);
        triangles += a.model ? a.model->plate.triangles.size() : 0;
        share += a.good();
    }
    fmt::print(
        "\n**Balance of 100 random irregular floors**: {:.0f} answered, {} triangles in all, largest "
        "difference "
        "of forces and moments {}.\n",
        share, triangles, worst < 1e-9 ? "below 1e-9 of the loads" : fmt::format("{:.1e}", worst));
}

}  // namespace

// Regular flat slabs: how their strips share the total static moment.
void stripShares() {
    fmt::print(
        "\n**Strips of regular flat slabs, 6 by 6 columns of 400 mm, 250 mm thick: the middle span of the "
        "inner column "
        "strip and half of the middle strips beside it**\n\n| quantity | square 6.0 m | 7.5 by 6.0 m | "
        "published |\n|---|---:|---:|---|\n");
    struct Shares {
        double total, support, column, columnSpan;
    };
    std::vector<Shares> all;
    for (double l : {6000.0, 7500.0}) {
        // The coefficients are for all panels loaded.
        auto d = design::designFloor(
            model::editFloor(regularFloor(6, 6, l, 6000), "f1",
                             [](model::Floor& f, auto&) { f.actions.arrangement = model::Arrangement::All; }),
            0);
        const auto* column = d->find("1/c3/column");
        const design::StripDesign* beside[2] = {nullptr, nullptr};
        for (const auto& s : d->strips)
            if (s->strip->direction == 0 && s->strip->kind == strips::Strip::Kind::Middle) {
                if (s->strip->line == column->strip->line) beside[0] = s.get();
                if (s->strip->lineLeft == column->strip->line) beside[1] = s.get();
            }
        auto opinion = design::stripOpinions(*d, *column)[2];
        const auto& span = column->strip->spans[2];
        double mid = (span.from + span.to) / 2;
        auto value = [&](const design::StripDesign& x, double u, bool top) {
            std::size_t best = 0;
            for (std::size_t i = 0; i < x.stations().size(); ++i)
                if (std::abs(x.stations()[i].u - u) < std::abs(x.stations()[best].u - u)) best = i;
            return top ? -x.demand.least[best].value : x.demand.most[best].value;
        };
        double ce = value(*column, span.clearFrom, true), cs = value(*column, mid, false);
        double me = (value(*beside[0], span.clearFrom, true) + value(*beside[1], span.clearFrom, true)) / 2,
               ms = (value(*beside[0], mid, false) + value(*beside[1], mid, false)) / 2;
        all.push_back({opinion.ratio(), (ce + me) / (ce + me + cs + ms), ce / (ce + me), cs / (cs + ms)});
    }
    auto line = [&](const char* what, double Shares::*m, const char* published) {
        fmt::print("| {} | {:.2f} | {:.2f} | {} |\n", what, all[0].*m, all[1].*m, published);
    };
    line("sum of moments over w l2 ln²/8", &Shares::total, "1.00 (statics; Nichols 1914), within 0.06");
    line("share at the faces of supports", &Shares::support, "0.65 (direct design method), within 0.06");
    line("column strip's share of it", &Shares::column,
         "0.60 to 0.80 (EN 1992-1-1 Table I.1), up to 0.88 at faces");
    line("column strip's share in the span", &Shares::columnSpan, "0.50 to 0.70 (EN 1992-1-1 Table I.1)");
    fmt::print("\n");
}

// A column of 400 x 400 in a slab with d = 220 that moves from the inside over an edge along it into a
// corner: the largest stress over strength of a force without moments, by both standards.
void movingColumn(const std::string& svg) {
    auto ratio = [](const standards::PunchingRules& rules, double x, double y) {
        standards::PunchingPlace p;
        p.site.slabs = {{{0, 0}, {1e5, 0}, {1e5, 1e5}, {0, 1e5}}};
        p.site.loaded = geometry::rectangle({x, y}, 400, 400);
        p.middle = {x, y}, p.c1 = p.c2 = 400, p.h = 260, p.d = 220, p.fc = 30, p.fy = 500;
        for (double& a : p.steel) a = 1.5;
        double worst = 0;
        for (const auto& s : rules.sections(p))
            if (s.at == standards::ControlSection::At::Control)
                worst = std::max(worst, rules.stress(p, s, {5e5, 0, 0}) / rules.strength(p, s));
        return worst;
    };
    std::ofstream out(svg);
    out << "<svg xmlns='http://www.w3.org/2000/svg' width='660' height='330' font-family='sans-serif' "
           "font-size='12'>\n<rect width='660' height='330' fill='#fbfaf6'/>\n";
    constexpr double left = 60, top = 30, wide = 560, high = 240, most = 4;
    auto X = [&](double way) { return left + wide * way / 4400; };
    auto Y = [&](double v) { return top + high * (1 - v / most); };
    for (double v = 0; v <= most; v += 0.5)
        out << fmt::format(
            "<path d='M {:.1f} {:.1f} H {:.1f}' stroke='#c9cbc4'/><text x='{:.1f}' y='{:.1f}' "
            "text-anchor='end' fill='#5d6b74'>{:.1f}</text>\n",
            left, Y(v), left + wide, left - 6, Y(v) + 4, v);
    for (auto [way, word] :
         {std::pair(0.0, "2.4 m inside"), {2200.0, "face at the edge"}, {4400.0, "in the corner"}})
        out << fmt::format(
            "<path d='M {0:.1f} {1} V {2}' stroke='#c9cbc4'/><text x='{0:.1f}' y='{3}' "
            "text-anchor='{4}' fill='#5d6b74'>{5}</text>\n",
            X(way), top, top + high, top + high + 18,
            way == 0     ? "start"
            : way > 4000 ? "end"
                         : "middle",
            word);
    int row = 0;
    for (auto [id, colour] : {std::pair("en1992", "#34508f"), {"aci318-si", "#8c4a2f"}}) {
        const auto standard = standards::makeStandard(id);
        std::string path;
        for (double way = 0; way <= 4400; way += 10) {
            const double x = way <= 2200 ? 2400 - way : 200, y = way <= 2200 ? 2400 : 2400 - (way - 2200);
            path += fmt::format("{} {:.1f} {:.2f} ", path.empty() ? "M" : "L", X(way),
                                Y(ratio(*standard->punching, x, y)));
        }
        out << fmt::format(
            "<path d='{}' fill='none' stroke='{}' stroke-width='2'/>\n<text x='{}' y='{}' "
            "fill='{}'>{}</text>\n",
            path, colour, left + 14, top + 18 + 16 * row++, colour, standard->title);
    }
    out << fmt::format(
        "<text x='{}' y='{}' fill='#1f2a33'>stress over strength, force without moments</text>\n</svg>\n",
        left, top + high + 40);
}

int main(int argc, char** argv) {
    rectangles();
    circles();
    ground();
    flatSlab();
    stripShares();
    convergence(argc > 1 ? argv[1] : "convergence.svg");
    movingColumn(argc > 2 ? argv[2] : "moving_column.svg");
    balance();
}

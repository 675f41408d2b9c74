#include "model/project.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "model/floor_validation.h"

namespace talvik::model {

bool operator==(const Project& a, const Project& b) {
    auto same = [](const auto& x, const auto& y) {
        return std::equal(x.begin(), x.end(), y.begin(), y.end(),
                          [](const auto& i, const auto& j) { return i == j || *i == *j; });
    };
    return a.name == b.name && a.basis == b.basis && a.sheet == b.sheet && a.marks == b.marks &&
           a.sources == b.sources && same(a.slabs, b.slabs) && same(a.floors, b.floors) &&
           same(a.bases, b.bases) && same(a.revisions, b.revisions);
}

Id newId(Project& project, char prefix) {
    return prefix + std::to_string(project.nextId++);
}

const OneWaySlab* findSlab(const Project& project, std::string_view id) {
    for (const auto& slab : project.slabs)
        if (slab->id == id) return slab.get();
    return nullptr;
}

const Floor* findFloor(const Project& project, std::string_view id) {
    for (const auto& floor : project.floors)
        if (floor->id == id) return floor.get();
    return nullptr;
}

const BaseSet* findBases(const Project& project, std::string_view id) {
    for (const auto& set : project.bases)
        if (set->id == id) return set.get();
    return nullptr;
}

double spanStart(const OneWaySlab& slab, std::size_t span) {
    double x = 0;
    for (std::size_t i = 0; i < span; ++i) x += slab.spans[i].length;
    return x;
}
double length(const OneWaySlab& slab) {
    return spanStart(slab, slab.spans.size());
}
double axis(const OneWaySlab& slab, std::size_t support) {
    return spanStart(slab, support + slab.cantileverStart);
}
double concreteStart(const OneWaySlab& slab) {
    return slab.cantileverStart ? 0 : -slab.supports.front().width / 2;
}
double concreteEnd(const OneWaySlab& slab) {
    return length(slab) + (slab.cantileverEnd ? 0 : slab.supports.back().width / 2);
}
bool isCantilever(const OneWaySlab& slab, std::size_t span) {
    return (span == 0 && slab.cantileverStart) || (span + 1 == slab.spans.size() && slab.cantileverEnd);
}
int supportBefore(const OneWaySlab& slab, std::size_t span) {
    return static_cast<int>(span) - slab.cantileverStart;
}
int supportAfter(const OneWaySlab& slab, std::size_t span) {
    int s = supportBefore(slab, span) + 1;
    return s < static_cast<int>(slab.supports.size()) ? s : -1;
}
const std::vector<catalogs::StudRail>& studRails(const Basis& basis) {
    return basis.studRails.empty() ? catalogs::studRails() : basis.studRails;
}
std::string studTable(const Basis& basis) {
    return basis.studRails.empty() ? "Sundvarg stock" : basis.studTable;
}
const std::vector<Paper>& papers() {
    static const std::vector<Paper> all{
        {"A3", 420, 297}, {"A2", 594, 420}, {"A1", 841, 594}, {"A0", 1189, 841}};
    return all;
}
const Paper* paperSize(std::string_view name) {
    for (const auto& p : papers())
        if (p.name == name) return &p;
    return nullptr;
}
double largestBar(const Basis& basis) {
    double d = 0;
    for (const auto& name : basis.mainBars)
        d = std::max(d, catalogs::barCatalog(basis.barCatalog)->find(name)->diameter);
    return d;
}
double faceBefore(const OneWaySlab& slab, std::size_t span) {
    int s = supportBefore(slab, span);
    return spanStart(slab, span) + (s >= 0 ? slab.supports[s].width / 2 : 0);
}
double faceAfter(const OneWaySlab& slab, std::size_t span) {
    int s = supportAfter(slab, span);
    return spanStart(slab, span + 1) - (s >= 0 ? slab.supports[s].width / 2 : 0);
}
double clearSpan(const OneWaySlab& slab, std::size_t span) {
    return faceAfter(slab, span) - faceBefore(slab, span);
}

std::string supportLabel(const OneWaySlab&, std::size_t support) {
    std::string label(1, static_cast<char>('A' + support % 26));
    return support < 26 ? label : static_cast<char>('A' + support / 26 - 1) + label;
}
std::string spanLabel(const OneWaySlab& slab, std::size_t span) {
    int a = supportBefore(slab, span), b = supportAfter(slab, span);
    auto end = [&](int s) {
        return s < 0 ? std::string("end") : supportLabel(slab, static_cast<std::size_t>(s));
    };
    return end(a) + "–" + end(b);
}

namespace {

class Validator {
  public:
    std::vector<Diagnostic> found;

    void number(const std::string& path, double value, double low, double high, const char* what,
                const char* unit, double factor) {
        if (!std::isfinite(value) || value < low || value > high)
            add(path,
                fmt::format("{} must be between {} and {} {}; it is {}.", what, units::plain(low / factor),
                            units::plain(high / factor), unit, units::plain(value / factor)));
    }
    void add(const std::string& path, std::string message) { found.push_back({path, std::move(message)}); }
    void id(const std::string& path, const Id& value) {
        if (value.empty())
            add(path, "The id is missing; give each element an id of its own.");
        else if (!ids_.insert(value).second)
            add(path, fmt::format("The id \"{}\" is used twice; give each element an id of its own.", value));
    }

    void basis(const Basis& b) {
        number("basis.concreteStrength", b.concreteStrength, 12, 90, "The concrete strength", "MPa", 1);
        number("basis.concreteDensity", b.concreteDensity, 10e-6, 40e-6, "The concrete density", "kN/m³",
               1e-6);
        number("basis.steelYield", b.steelYield, 200, 700, "The yield strength", "MPa", 1);
        number("basis.aggregate", b.aggregate, 4, 64, "The aggregate size", "mm", 1);
        number("basis.creep", b.creep, 0, 6, "The creep coefficient", "", 1);
        number("basis.shrinkage", b.shrinkage, 0, 1.5e-3, "The shrinkage strain", "‰", 1e-3);
        number("basis.coverTop", b.coverTop, 5, 150, "The top cover", "mm", 1);
        number("basis.coverBottom", b.coverBottom, 5, 150, "The bottom cover", "mm", 1);
        number("basis.coverSide", b.coverSide, 5, 150, "The side cover", "mm", 1);
        number("basis.crackLimitTop", b.crackLimitTop, 0.05, 1, "The crack-width limit", "mm", 1);
        number("basis.crackLimitBottom", b.crackLimitBottom, 0.05, 1, "The crack-width limit", "mm", 1);
        number("basis.spacingStep", b.spacingStep, 1, 100, "The spacing step", "mm", 1);
        number("basis.spacingLeast", b.spacingLeast, 40, 500, "The minimum spacing", "mm", 1);
        number("basis.spacingMost", b.spacingMost, b.spacingLeast, 600, "The maximum spacing", "mm", 1);
        number("basis.stockLength", b.stockLength, 3000, 30000, "The stock length", "m", 1000);
        const auto* catalog = catalogs::barCatalog(b.barCatalog);
        if (!catalog) {
            add("basis.barCatalog",
                fmt::format("There is no bar catalogue \"{}\"; use metric or us.", b.barCatalog));
            return;
        }
        for (const auto& [kind, m] : {std::pair{"beam", &b.beam},
                                      {"column", &b.column},
                                      {"foundation", &b.foundation},
                                      {"pileCap", &b.pileCap}}) {
            std::string at = std::string("basis.") + kind;
            number(at + ".strength", m->strength, 12, 90, "The concrete strength", "MPa", 1);
            number(at + ".density", m->density, 10e-6, 40e-6, "The concrete density", "kN/m³", 1e-6);
            if (m->modulus != 0)
                number(at + ".modulus", m->modulus, 5000, 80000, "The modulus of elasticity", "MPa", 1);
            number(at + ".creep", m->creep, 0, 6, "The creep coefficient", "", 1);
            number(at + ".shrinkage", m->shrinkage, 0, 1.5e-3, "The shrinkage strain", "‰", 1e-3);
            number(at + ".yield", m->yield, 200, 700, "The yield strength", "MPa", 1);
        }
        number("basis.coverFoundation", b.coverFoundation, 5, 200, "The cover of foundations", "mm", 1);
        if (b.lengthStep != 0)
            number("basis.lengthStep", b.lengthStep, 5, 1000, "The step of bar lengths", "mm", 1);
        number("basis.sagLimit", b.sagLimit, 50, 2000, "The deflection limit, span over", "", 1);
        number("basis.sagLimitAfter", b.sagLimitAfter, 50, 2000,
               "The limit of deflection after partitions, span over", "", 1);
        for (const auto& [kind, r] : {std::pair{"concrete", &b.rates.concrete},
                                      {"steel", &b.rates.steel},
                                      {"formwork", &b.rates.formwork},
                                      {"blinding", &b.rates.blinding},
                                      {"excavation", &b.rates.excavation},
                                      {"pile", &b.rates.pile},
                                      {"mark", &b.rates.mark},
                                      {"stronger", &b.rates.stronger},
                                      {"piece", &b.rates.piece}}) {
            std::string at = std::string("basis.rates.") + kind;
            number(at, r->price, 0, 1e6, "The price", "", 1);
            number(at, r->carbon, 0, 1e6, "The embodied carbon", "kg", 1);
        }
        for (const auto& [path, list] : {std::pair{"basis.mainBars", &b.mainBars},
                                         {"basis.secondaryBars", &b.secondaryBars},
                                         {"basis.linkBars", &b.linkBars}}) {
            if (list->empty()) add(path, "At least one bar size must be allowed.");
            for (const auto& name : *list)
                if (!catalog->find(name))
                    add(path,
                        fmt::format("The bar \"{}\" is not in the catalogue \"{}\".", name, b.barCatalog));
        }
    }

    void members(const std::string& at, int n) {
        if (n < 1 || n > 1000)
            add(at + ".members", fmt::format("There are 1 to 1000 members of a kind; {} were given.", n));
    }
    void sheet(const IssueSheet& s) {
        if (s.scale != 0) number("sheet.scale", s.scale, 5, 5000, "The scale of drawings, 1 to", "", 1);
        number("sheet.north", s.north, -360, 360, "The direction of north", "degrees", 1);
        if (!s.paper.empty() && !paperSize(s.paper))
            add("sheet.paper", fmt::format("There is no paper \"{}\"; use A3, A2, A1 or A0.", s.paper));
    }

    void slab(const std::string& at, const OneWaySlab& s, const Basis& b) {
        id(at + ".id", s.id);
        members(at, s.members);
        number(at + ".width", s.width, 500, 200000, "The width", "m", 1000);
        number(at + ".thickness", s.thickness, 60, 1500, "The thickness", "mm", 1);
        number(at + ".otherDead", s.otherDead, 0, 0.1, "The other permanent load", "kN/m²", 1e-3);
        number(at + ".imposed", s.imposed, 0, 0.1, "The imposed load", "kN/m²", 1e-3);
        if (s.thickness - b.coverTop - b.coverBottom < 30)
            add(at + ".thickness",
                fmt::format("{} mm leave no room for bars between the covers; make slab {} thicker.",
                            units::plain(s.thickness), s.name));
        if (!catalogs::imposedUse(s.imposedUse))
            add(at + ".imposedUse", fmt::format("There is no imposed use \"{}\".", s.imposedUse));
        std::size_t cantilevers = s.cantileverStart + s.cantileverEnd;
        if (s.spans.size() < 1 + cantilevers || s.spans.size() > 50) {
            add(at + ".spans",
                fmt::format("A slab has 1 to 50 spans, at least one of them between supports; there are {}.",
                            s.spans.size()));
            return;
        }
        if (s.supports.size() != s.spans.size() - cantilevers + 1) {
            add(at + ".supports", fmt::format("{} spans need {} supports; there are {}.", s.spans.size(),
                                              s.spans.size() - cantilevers + 1, s.supports.size()));
            return;
        }
        for (std::size_t i = 0; i < s.spans.size(); ++i) {
            std::string path = fmt::format("{}.spans[{}]", at, i);
            id(path + ".id", s.spans[i].id);
            number(path + ".length", s.spans[i].length, 300, 30000, "The span", "m", 1000);
        }
        for (std::size_t i = 0; i < s.supports.size(); ++i) {
            std::string path = fmt::format("{}.supports[{}]", at, i);
            id(path + ".id", s.supports[i].id);
            number(path + ".width", s.supports[i].width, 50, 3000, "The support's width", "mm", 1);
        }
        if (found.empty())
            for (std::size_t i = 0; i < s.spans.size(); ++i)
                if (clearSpan(s, i) < 100)
                    add(fmt::format("{}.spans[{}].length", at, i),
                        fmt::format("Span {} leaves no clear span between its supports; make it longer or "
                                    "the supports narrower.",
                                    spanLabel(s, i)));
        for (std::size_t i = 0; i < s.finishes.size(); ++i) {
            std::string path = fmt::format("{}.finishes[{}]", at, i);
            id(path + ".id", s.finishes[i].id);
            number(path + ".thickness", s.finishes[i].thickness, 0, 1000, "The layer's thickness", "mm", 1);
            number(path + ".density", s.finishes[i].density, 0, 80e-6, "The layer's density", "kN/m³", 1e-6);
        }
        bars(at + ".bars", s.bars, b);
        for (std::size_t i = 0; i < s.bars.size() && found.empty(); ++i) {
            const BarRun& run = s.bars[i];
            id(fmt::format("{}.bars[{}].id", at, i), run.id);
            if (run.from < concreteStart(s) - 1 || run.to > concreteEnd(s) + 1)
                add(fmt::format("{}.bars[{}]", at, i),
                    fmt::format("The bars from {} to {} m leave the slab, which extends from {} to {} m.",
                                units::plain(run.from / 1000), units::plain(run.to / 1000),
                                units::plain(concreteStart(s) / 1000), units::plain(concreteEnd(s) / 1000)));
        }
    }

    void bars(const std::string& at, const std::vector<BarRun>& runs, const Basis& b) {
        if (runs.size() > 20000) add(at, "More than 20000 bar sets in one element.");
        const auto* catalog = catalogs::barCatalog(b.barCatalog);
        for (std::size_t i = 0; i < runs.size(); ++i) {
            const BarRun& run = runs[i];
            const std::string path = fmt::format("{}[{}]", at, i);
            if (catalog && !catalog->find(run.bar))
                add(path + ".bar",
                    fmt::format("The bar \"{}\" is not in the catalogue \"{}\"; choose one of its sizes{}.",
                                run.bar, b.barCatalog,
                                run.part.empty() ? "" : " for the bars of strip " + run.part));
            number(path + ".spacing", run.spacing, 20, 2000, "The spacing of bars", "mm", 1);
            number(path + ".from", run.from, -1e7, 1e7, "The start of bars", "m", 1000);
            number(path + ".to", run.to, -1e7, 1e7, "The end of bars", "m", 1000);
            if (!(run.to - run.from >= 50))
                add(path, "The end of a bar set must lie at least 50 mm beyond its start.");
        }
    }

    // What stands on paper, in tables and in messages: no control characters, and not without end.
    void name(const std::string& at, const std::string& text) {
        constexpr std::size_t longest = 300;
        if (std::any_of(text.begin(), text.end(), [](unsigned char c) { return c < 0x20 || c == 0x7f; }))
            add(at, "The name holds a control character, such as a line break; write it anew.");
        else if (text.size() > longest)
            add(at,
                fmt::format("The name has {} characters; at most {} are possible.", text.size(), longest));
    }

  private:
    std::set<Id> ids_;
};

}  // namespace

std::vector<Diagnostic> validate(const Project& project) {
    Validator v;
    v.basis(project.basis);
    v.sheet(project.sheet);
    v.name("name", project.name);
    for (std::size_t i = 0; i < project.slabs.size(); ++i)
        v.name(fmt::format("slabs[{}].name", i), project.slabs[i]->name);
    for (std::size_t i = 0; i < project.bases.size(); ++i) {
        const std::string at = fmt::format("bases[{}]", i);
        v.name(at + ".name", project.bases[i]->name);
        for (const auto& c : project.bases[i]->columns) v.name(at + ".columns", c.name);
        for (const auto& c : project.bases[i]->cases) v.name(at + ".cases", c.name);
    }
    for (std::size_t i = 0; i < project.floors.size(); ++i) {
        const std::string at = fmt::format("floors[{}]", i);
        v.name(at + ".name", project.floors[i]->name);
        eachMember(*project.floors[i], [&](const std::string& path, const auto& member) {
            if constexpr (requires { member.name; }) v.name(at + "." + path + ".name", member.name);
        });
    }
    if (project.slabs.size() > 200) v.add("slabs", "More than 200 slabs in one project.");
    for (std::size_t i = 0; i < project.slabs.size(); ++i)
        v.slab(fmt::format("slabs[{}]", i), *project.slabs[i], project.basis);
    if (project.bases.size() > 200) v.add("bases", "More than 200 sets of bases in one project.");
    for (std::size_t i = 0; i < project.bases.size(); ++i) {
        const std::string at = fmt::format("bases[{}]", i);
        v.id(at + ".id", project.bases[i]->id);
        for (const auto& row : project.bases[i]->columns) v.id(at + ".columns", row.id);
        for (const auto& row : project.bases[i]->bases) v.id(at + ".bases", row.id);
        for (const auto& row : project.bases[i]->cases) v.id(at + ".cases", row.id);
        validateBases(*project.bases[i], at, v.found);
        auto named = project.bases[i]->bars;
        for (const auto& bar : {project.bases[i]->starterBar, project.bases[i]->sideBar})
            if (!bar.empty()) named.push_back(bar);
        for (const auto& bar : named)
            if (!catalogs::barCatalog(project.basis.barCatalog) ||
                !catalogs::barCatalog(project.basis.barCatalog)->find(bar))
                v.add(at + ".bars", fmt::format("The bar \"{}\" is not in the catalogue.", bar));
    }
    if (project.floors.size() > 200) v.add("floors", "More than 200 floors in one project.");
    for (std::size_t i = 0; i < project.floors.size(); ++i) {
        std::string at = fmt::format("floors[{}]", i);
        v.id(at + ".id", project.floors[i]->id);
        v.members(at, project.floors[i]->members);
        eachMember(*project.floors[i],
                   [&](const std::string& path, const auto& member) { v.id(at + "." + path, member.id); });
        eachStripItem(*project.floors[i],
                      [&](const std::string& path, const auto& item) { v.id(at + "." + path, item.id); });
        auto more = wellFormed(*project.floors[i], at);
        v.found.insert(v.found.end(), more.begin(), more.end());
        v.bars(at + ".bars", project.floors[i]->strips.bars, project.basis);
    }
    return v.found;
}

}  // namespace talvik::model

// The model as IFC, read again by a reader of these tests: every reference resolves, every entity has the
// attributes of its kind, counts are those of the project, and bars lie where the schedule says.
#include "formats/ifc.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <regex>
#include <set>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_floor.h"

using namespace talvik;

namespace {

struct Entity {
    std::string kind;
    std::vector<std::string> attributes;  // as written
    std::vector<int> references() const {
        std::vector<int> all;
        for (const auto& a : attributes)
            for (std::size_t i = 0; i < a.size(); ++i) {
                if (a[i] == '\'') {
                    ++i;
                    while (i < a.size() && a[i] != '\'') ++i;
                } else if (a[i] == '#') {
                    all.push_back(std::stoi(a.substr(i + 1)));
                }
            }
        return all;
    }
    int ref(std::size_t k) const { return std::stoi(attributes.at(k).substr(1)); }
    double number(std::size_t k) const { return std::stod(attributes.at(k)); }
};
using Model = std::map<int, Entity>;

// ISO 10303-21: "#12=KIND(a,b,(c,d));" one after the other; strings in quotes, doubled within.
Model read(const std::string& text) {
    Model all;
    std::size_t at = text.find("DATA;\n") + 6;
    const std::size_t end = text.find("ENDSEC;", at);
    while (at < end) {
        EXPECT_EQ(text[at], '#');
        const std::size_t eq = text.find('=', at), open = text.find('(', eq);
        const int id = std::stoi(text.substr(at + 1, eq - at - 1));
        Entity e{text.substr(eq + 1, open - eq - 1), {}};
        int depth = 0;
        bool quoted = false;
        std::string attribute;
        std::size_t i = open;
        for (;; ++i) {
            const char c = text[i];
            if (c == '\'') quoted = !quoted;
            if (!quoted && c == '(' && ++depth == 1) continue;
            if (!quoted && c == ')' && --depth == 0) break;
            if (!quoted && c == ',' && depth == 1) {
                e.attributes.push_back(attribute);
                attribute.clear();
                continue;
            }
            attribute += c;
        }
        e.attributes.push_back(attribute);
        EXPECT_EQ(text.substr(i, 3), ");\n");
        EXPECT_TRUE(all.emplace(id, std::move(e)).second) << id;
        at = i + 3;
    }
    return all;
}

// Numbers of attributes by the schema (ISO 16739-1:2018).
const std::map<std::string, std::size_t>& attributes() {
    static const std::map<std::string, std::size_t> all{{"IFCSIUNIT", 4},
                                                        {"IFCUNITASSIGNMENT", 1},
                                                        {"IFCDIRECTION", 1},
                                                        {"IFCCARTESIANPOINT", 1},
                                                        {"IFCAXIS2PLACEMENT3D", 3},
                                                        {"IFCGEOMETRICREPRESENTATIONCONTEXT", 6},
                                                        {"IFCGEOMETRICREPRESENTATIONSUBCONTEXT", 10},
                                                        {"IFCPROJECT", 9},
                                                        {"IFCSITE", 14},
                                                        {"IFCBUILDING", 12},
                                                        {"IFCBUILDINGSTOREY", 10},
                                                        {"IFCLOCALPLACEMENT", 2},
                                                        {"IFCRELAGGREGATES", 6},
                                                        {"IFCRELCONTAINEDINSPATIALSTRUCTURE", 6},
                                                        {"IFCCARTESIANPOINTLIST2D", 1},
                                                        {"IFCCARTESIANPOINTLIST3D", 1},
                                                        {"IFCINDEXEDPOLYCURVE", 3},
                                                        {"IFCARBITRARYCLOSEDPROFILEDEF", 3},
                                                        {"IFCCIRCLEPROFILEDEF", 4},
                                                        {"IFCEXTRUDEDAREASOLID", 4},
                                                        {"IFCSHAPEREPRESENTATION", 4},
                                                        {"IFCPRODUCTDEFINITIONSHAPE", 3},
                                                        {"IFCSLAB", 9},
                                                        {"IFCCOLUMN", 9},
                                                        {"IFCWALL", 9},
                                                        {"IFCBEAM", 9},
                                                        {"IFCOPENINGELEMENT", 9},
                                                        {"IFCRELVOIDSELEMENT", 6},
                                                        {"IFCREINFORCINGBAR", 14},
                                                        {"IFCSWEPTDISKSOLID", 5},
                                                        {"IFCQUANTITYCOUNT", 5},
                                                        {"IFCQUANTITYLENGTH", 5},
                                                        {"IFCQUANTITYWEIGHT", 5},
                                                        {"IFCQUANTITYVOLUME", 5},
                                                        {"IFCELEMENTQUANTITY", 6},
                                                        {"IFCREPRESENTATIONMAP", 2},
                                                        {"IFCMAPPEDITEM", 2},
                                                        {"IFCCARTESIANTRANSFORMATIONOPERATOR3D", 5},
                                                        {"IFCPROPERTYSINGLEVALUE", 4},
                                                        {"IFCPROPERTYSET", 5},
                                                        {"IFCRELDEFINESBYPROPERTIES", 6},
                                                        {"IFCMATERIAL", 3},
                                                        {"IFCRELASSOCIATESMATERIAL", 6}};
    return all;
}
// How attributes that hold lists are written: ISO 10303-21 has one pair of parentheses for a list, and one
// more for each list within.
void written(const Entity& e) {
    const std::string n = "-?[0-9]+\\.[0-9]*", two = "\\(" + n + "," + n + "\\)",
                      three = "\\(" + n + "," + n + "," + n + "\\)",
                      segment =
                          "(IFCLINEINDEX\\(\\([0-9]+,[0-9]+\\)\\)|"
                          "IFCARCINDEX\\(\\([0-9]+,[0-9]+,[0-9]+\\)\\))";
    auto list = [](const std::string& of) { return "\\(" + of + "(," + of + ")*\\)"; };
    static const std::map<std::string, std::pair<std::size_t, std::regex>> forms{
        {"IFCCARTESIANPOINT", {0, std::regex(three)}},
        {"IFCDIRECTION", {0, std::regex(two + "|" + three)}},
        {"IFCCARTESIANPOINTLIST2D", {0, std::regex(list(two))}},
        {"IFCCARTESIANPOINTLIST3D", {0, std::regex(list(three))}},
        {"IFCUNITASSIGNMENT", {0, std::regex(list("#[0-9]+"))}},
        {"IFCRELASSOCIATESMATERIAL", {4, std::regex(list("#[0-9]+"))}},
        {"IFCRELCONTAINEDINSPATIALSTRUCTURE", {4, std::regex(list("#[0-9]+"))}},
        {"IFCRELAGGREGATES", {5, std::regex(list("#[0-9]+"))}},
        {"IFCELEMENTQUANTITY", {5, std::regex(list("#[0-9]+"))}},
        {"IFCPROPERTYSET", {4, std::regex(list("#[0-9]+"))}},
        {"IFCINDEXEDPOLYCURVE", {1, std::regex("\\$|" + list(segment))}}};
    if (const auto it = forms.find(e.kind); it != forms.end()) {
        EXPECT_TRUE(std::regex_match(e.attributes[it->second.first], it->second.second))
            << e.kind << " " << e.attributes[it->second.first].substr(0, 80);
    }
}
int count(const Model& m, const std::string& kind) {
    return int(std::count_if(m.begin(), m.end(), [&](const auto& e) { return e.second.kind == kind; }));
}
// What holds of every file.
void sound(const Model& m) {
    std::set<std::string> identities;
    std::set<int> contained, rooted;
    for (const auto& [id, e] : m) {
        const auto known = attributes().find(e.kind);
        ASSERT_NE(known, attributes().end()) << e.kind;
        EXPECT_EQ(e.attributes.size(), known->second) << e.kind << " #" << id;
        written(e);
        for (int r : e.references()) {
            EXPECT_TRUE(m.contains(r)) << "#" << id << " refers to #" << r;
            EXPECT_LT(r, id) << "written after what it refers to";
        }
        static const std::regex identity("'[0-3][0-9A-Za-z_$]{21}'");
        if (std::regex_match(e.attributes[0], identity)) {
            EXPECT_TRUE(identities.insert(e.attributes[0]).second) << e.kind << " #" << id;
        }
        if (e.kind == "IFCRELCONTAINEDINSPATIALSTRUCTURE")
            for (int r : e.references())
                if (m.at(r).kind != "IFCBUILDINGSTOREY") {
                    EXPECT_TRUE(contained.insert(r).second);
                }
    }
    // Every product of the building stands in a storey; openings hang on what they empty.
    for (const auto& [id, e] : m)
        if (e.kind == "IFCSLAB" || e.kind == "IFCCOLUMN" || e.kind == "IFCWALL" || e.kind == "IFCBEAM" ||
            e.kind == "IFCREINFORCINGBAR") {
            EXPECT_TRUE(contained.contains(id)) << e.kind;
        }
    EXPECT_EQ(count(m, "IFCRELVOIDSELEMENT"), count(m, "IFCOPENINGELEMENT"));
    EXPECT_EQ(count(m, "IFCPROJECT"), 1);
}
std::vector<double> numbers(const std::string& s) {
    std::vector<double> all;
    static const std::regex one("-?[0-9]+\\.[0-9]*(E-?[0-9]+)?");
    for (auto i = std::sregex_iterator(s.begin(), s.end(), one); i != std::sregex_iterator(); ++i)
        all.push_back(std::stod(i->str()));
    return all;
}
// Volume of an extruded solid, mm3.
double volume(const Model& m, int solid) {
    const auto& e = m.at(solid);
    const auto& profile = m.at(e.ref(0));
    if (profile.kind == "IFCCIRCLEPROFILEDEF")
        return std::numbers::pi * std::pow(profile.number(3), 2) * e.number(3);
    const auto p = numbers(m.at(m.at(profile.ref(2)).ref(0)).attributes[0]);
    double twice = 0;
    for (std::size_t i = 0; i + 3 < p.size(); i += 2) twice += p[i] * p[i + 3] - p[i + 2] * p[i + 1];
    EXPECT_GT(twice, 0) << "outlines turn anticlockwise";
    return twice / 2 * e.number(3);
}
// Length of a bar's middle line along its segments and arcs, mm.
double length(const Model& m, int disk) {
    const auto& curve = m.at(m.at(disk).ref(0));
    const auto p = numbers(m.at(curve.ref(0)).attributes[0]);
    auto at = [&](int k, int axis) { return p.at(std::size_t(3 * (k - 1) + axis)); };
    auto apart = [&](int a, int b) {
        return std::hypot(at(a, 0) - at(b, 0), at(a, 1) - at(b, 1), at(a, 2) - at(b, 2));
    };
    double sum = 0;
    static const std::regex one("IFC(LINE|ARC)INDEX\\(\\(([0-9]+),([0-9]+),?([0-9]*)\\)\\)");
    const std::string& text = curve.attributes[1];
    for (auto i = std::sregex_iterator(text.begin(), text.end(), one); i != std::sregex_iterator(); ++i) {
        const int a = std::stoi((*i)[2]), b = std::stoi((*i)[3]);
        if ((*i)[1] == "LINE") {
            sum += apart(a, b);
            continue;
        }
        const int c = std::stoi((*i)[4]);
        const double chord = apart(a, c), half = apart(a, b);  // by the middle point of the arc
        const double sine = chord / (2 * half), r = half / (2 * std::sqrt(1 - sine * sine));
        sum += 4 * std::asin(half / (2 * r)) * r;
    }
    return sum;
}
std::vector<int> solids(const Model& m, const Entity& product) {
    const auto& shape = m.at(product.ref(6));
    auto all = m.at(shape.references().at(0)).references();
    all.erase(all.begin());  // the context
    return all;
}

}  // namespace

TEST(Ifc, DemoFloorIsThereWithEveryBar) {
    const auto p = formats::demoFloorProject();
    const auto d = design::run(p, {.trace = false});
    const auto text = formats::ifcText(p, d);
    EXPECT_EQ(text, formats::ifcText(p, d)) << "equal to the byte";
    EXPECT_TRUE(text.starts_with("ISO-10303-21;\nHEADER;"));
    EXPECT_TRUE(text.ends_with("ENDSEC;\nEND-ISO-10303-21;\n"));
    EXPECT_NE(text.find("FILE_SCHEMA(('IFC4'))"), std::string::npos);
    for (char c : text) ASSERT_TRUE((c >= 32 && c < 127) || c == '\n');
    const auto m = read(text);
    sound(m);
    const auto& f = *p.floors[0];
    EXPECT_EQ(count(m, "IFCCOLUMN"), int(f.columns.size()));
    EXPECT_EQ(count(m, "IFCWALL"), int(f.walls.size()));
    EXPECT_EQ(count(m, "IFCBUILDINGSTOREY"), 1);
    EXPECT_GE(count(m, "IFCOPENINGELEMENT"), int(f.openings.size()));
    // Bars: as many shapes as the schedule has bars, each as long as it is cut.
    int bars = 0, drawn = 0;
    double mass = 0;
    for (const auto& part : d.elements[0]->parts)
        for (const auto& i : part->items) bars += i.number;
    for (const auto& [id, e] : m) {
        if (e.kind != "IFCREINFORCINGBAR") continue;
        const auto mapped = solids(m, e);
        int shapes = 0;
        for (int s : mapped) shapes += m.at(s).kind == "IFCMAPPEDITEM";
        drawn += shapes;
        const double diameter = e.number(9), area = e.number(10), length = e.number(11);
        EXPECT_NEAR(area, std::numbers::pi * diameter * diameter / 4e6, 1e-9);
        if (e.attributes[12] != ".STUD.") mass += shapes * length / 1000 * area * 7850;
        // Drawn as long as it is cut, which is rounded up; of a rail every stud is drawn.
        const auto& first = m.at(mapped.at(0));
        if (first.kind == "IFCMAPPEDITEM" && e.attributes[12] != ".STUD.") {
            const int disk = m.at(m.at(first.ref(0)).ref(1)).references().at(1);
            EXPECT_NEAR(::length(m, disk), length, 0.03 * length + 25) << e.attributes[2] << e.attributes[3];
        }
    }
    EXPECT_EQ(drawn, bars);
    double scheduled = 0;
    for (const auto& row : d.schedule().rows)
        if (row.shape != "99") scheduled += row.mass();
    EXPECT_NEAR(mass, scheduled, 0.005 * scheduled) << "by the nominal area and 7850 kg/m³";
}

TEST(Ifc, ConcreteIsThatOfTheQuantities) {
    int floors = 0;
    for (unsigned seed = 1; seed <= 15; ++seed) {
        auto p = model::emptyProject();
        p.floors.push_back(std::make_shared<const model::Floor>(test::randomFloor(seed)));
        const auto d = design::run(p, {.trace = false});
        if (d.elements.empty() || !d.elements[0]->error.empty()) continue;
        ++floors;
        const auto m = read(formats::ifcText(p, d));
        sound(m);
        double slabs = 0;
        for (const auto& [id, e] : m)
            if (e.kind == "IFCSLAB")
                for (int s : solids(m, e)) slabs += volume(m, s) / 1e9;
        // Openings are emptied from them: their area times the thickness where they are.
        double holes = 0;
        const model::Thickness thick(*p.floors[0]);
        for (const auto& o : p.floors[0]->openings) {
            const auto r = model::ring(o.outline);
            for (const auto& part : model::outlines(*p.floors[0]))
                for (const auto& in : geometry::intersection(r, part))
                    holes += std::abs(geometry::area(in)) * thick.at(geometry::inside(in)) / 1e9;
        }
        if (p.floors[0]->zones.empty() && p.floors[0]->slabs.size() == 1) {
            EXPECT_NEAR(slabs - holes, d.elements[0]->concrete, 1e-3) << seed;
        } else {
            EXPECT_GE(slabs, d.elements[0]->concrete - 1e-3) << seed;
        }
    }
    EXPECT_GT(floors, 10);
}

TEST(Ifc, OneWaySlabsLieBesideEachOtherWithTheirBarsInside) {
    const auto p = formats::demoProject();
    const auto d = design::run(p);
    const auto m = read(formats::ifcText(p, d));
    sound(m);
    const auto& slab = *p.slabs[0];
    int bars = 0, drawn = 0;
    for (const auto& e : d.elements)
        for (const auto& i : e->parts[0]->items) bars += i.number;
    for (const auto& [id, e] : m) {
        if (e.kind != "IFCREINFORCINGBAR") continue;
        for (int s : solids(m, e)) {
            const auto& item = m.at(s);
            if (item.kind != "IFCMAPPEDITEM") continue;
            ++drawn;
            const auto at = numbers(m.at(m.at(item.ref(1)).ref(2)).attributes[0]);
            ASSERT_EQ(at.size(), 3u);
            EXPECT_LT(at[2], -p.basis.coverTop);
            EXPECT_GT(at[2], -800 + p.basis.coverBottom);
            if (p.slabs.size() == 1) {
                EXPECT_GT(at[1], -2000 - slab.width + p.basis.coverSide - 1);
                EXPECT_LT(at[1], -2000 - p.basis.coverSide + 1);
            }
        }
    }
    EXPECT_EQ(drawn, bars);
}

TEST(Ifc, NamesOfAnyAlphabetAreWritten) {
    auto p = formats::demoProject();
    p.name = "Fähre O'Hara \\ 岸";
    const auto text = formats::ifcText(p, design::run(p));
    EXPECT_NE(text.find("'F\\X2\\00E4\\X0\\hre O''Hara \\\\ \\X2\\5CB8\\X0\\'"), std::string::npos);
}

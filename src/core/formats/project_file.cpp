#include "formats/project_file.h"

#include <algorithm>
#include <cassert>
#include <functional>
#include <set>

#include "catalogs/data.h"
#include "formats/file.h"
#include "formats/project_fields.h"

namespace talvik::formats {
namespace {

using model::Project;

// Bars that someone fixed. Up to version 5 those of one-way slabs and of floors were written differently, and
// slabs kept the bars that the program had chosen, too: these follow from the slab now.
void readBars(Reader& r, bool ofFloor, int version, std::vector<model::BarRun>& into,
              std::vector<Diagnostic>& trouble) {
    r.each(ofFloor && version < 6 ? "strip_bars" : "bars", 20000, [&](const json& v, const std::string& at) {
        Reader inner(v, at, trouble);
        Reading in{inner, version};
        model::BarRun b;
        runFields(in, b);
        bool fixed = true;
        if (version < 6 && ofFloor) {
            bool top = false, band = false;
            inner.read("strip", b.part);
            inner.read("top", top);
            inner.read("band", band);
            b.role = band ? model::Role::TopBand : top ? model::Role::TopMain : model::Role::BottomMain;
        } else if (version < 6) {
            inner.read("role", b.role, roles);
            inner.read("pinned", fixed);
        }
        if (fixed) into.push_back(std::move(b));
    });
}

void readSlab(const json& j, const std::string& path, int version, Project& project,
              std::vector<Diagnostic>& trouble) {
    auto slab = std::make_shared<model::OneWaySlab>();
    Reader r(j, path, trouble);
    Reading io{r, version};
    slabFields(io, *slab);
    r.each("spans", 50, [&](const json& v, const std::string& at) {
        Reader inner(v, at, trouble);
        model::Span s;
        inner.read("id", s.id);
        inner.read("length_mm", s.length);
        slab->spans.push_back(s);
    });
    r.each("supports", 51, [&](const json& v, const std::string& at) {
        Reader inner(v, at, trouble);
        Reading in{inner};
        model::Support s;
        supportFields(in, s);
        slab->supports.push_back(s);
    });
    r.each("finishes", 50, [&](const json& v, const std::string& at) {
        Reader inner(v, at, trouble);
        Reading in{inner};
        model::Finish f;
        finishFields(in, f);
        slab->finishes.push_back(f);
    });
    readBars(r, false, version, slab->bars, trouble);
    project.slabs.push_back(slab);
}

// The lists of a floor that are written alike, by their keys, as far as a version has them.
template <class Floor, class List>
void eachList(Floor& floor, int version, List list) {
    static const std::set<std::string_view> sinceThree{"grids", "underlays", "panels", "combinations"},
        sinceTwelve{"cambers", "sag_lines"};
    model::eachList(floor, [&](const char* key, auto& all) {
        if (sinceTwelve.contains(key) ? version >= 12 : version >= 3 || !sinceThree.contains(key))
            list(key, all);
    });
    if (version < 4) return;
    list("strip_areas", floor.strips.areas);
    list("strip_edges", floor.strips.edges);
    list("strips_drawn", floor.strips.drawn);
    list("span_ends", floor.strips.ends);
    if (version >= 7) list("connections", floor.punching.choices);
}

void readFloor(const json& j, const std::string& path, int version, Project& project,
               std::vector<Diagnostic>& trouble) {
    auto floor = std::make_shared<model::Floor>();
    Reader r(j, path, trouble);
    r.read("id", floor->id);
    r.read("name", floor->name);
    if (version >= 9) {
        Reading io{r, version};
        io.field("members", floor->members);
    }
    if (const json* choices = r.find("analysis", "the choices of the analysis")) {
        Reader c(*choices, r.at("analysis"), trouble);
        Reading io{c};
        choiceFields(io, floor->choices);
    }
    auto list = [&](const char* key, auto& into) {
        r.each(key, 20000, [&](const json& v, const std::string& at) {
            Reader inner(v, at, trouble);
            Reading io{inner, version};
            typename std::remove_reference_t<decltype(into)>::value_type member;
            memberFields(io, member);
            into.push_back(std::move(member));
        });
    };
    if (version >= 3) {
        // Up to version 4 all panels at once was what nobody had chosen: panels are loaded in turn since.
        if (version >= 5)
            r.read("imposed_arrangement", floor->actions.arrangement, arrangements);
        else
            r.find("imposed_arrangement", "which panels carry imposed loads");
    }
    if (version >= 4) {
        if (const json* rules = r.find("strip_rules", "how strips are laid")) {
            Reader c(*rules, r.at("strip_rules"), trouble);
            Reading io{c, version};
            stripRuleFields(io, floor->strips.rules);
        }
        readBars(r, true, version, floor->strips.bars, trouble);
    }
    if (version >= 7) r.read("fixed_eccentricity", floor->punching.fixedEccentricity);
    if (version >= 8) r.read("more_by_bending", floor->punching.moreByBending);
    if (version >= 13)
        if (const json* rules = r.find("vibration", "the vibration settings")) {
            Reader c(*rules, r.at("vibration"), trouble);
            Reading io{c, version};
            vibrationFields(io, floor->vibration);
        }
    eachList(*floor, version, list);
    project.floors.push_back(floor);
}

json baseSetJson(const model::BaseSet& set) {
    json j;
    auto one = [](const auto& row, auto fields) {
        json out;
        Writing io{out};
        fields(io, row);
        return out;
    };
    Writing io{j};
    baseSetFields(io, set);
    j["ground"] = one(set.ground, [](auto& o, const auto& v) { groundFields(o, v); });
    j["pile"] = one(set.pile, [](auto& o, const auto& v) { pileFields(o, v); });
    for (const char* list : {"cases", "columns", "bases"}) j[list] = json::array();
    for (const auto& c : set.cases)
        j["cases"].push_back(one(c, [](auto& o, const auto& v) { actionCaseFields(o, v); }));
    for (const auto& c : set.columns) {
        json column = one(c, [](auto& o, const auto& v) { baseColumnFields(o, v); });
        column["actions"] = json::array();
        for (const auto& a : c.actions)
            column["actions"].push_back(one(a, [](auto& o, const auto& v) { columnActionFields(o, v); }));
        j["columns"].push_back(std::move(column));
    }
    for (const auto& b : set.bases) {
        json base = one(b, [](auto& o, const auto& v) { baseFields(o, v); });
        base["piles_mm"] = json::array();
        for (auto p : b.pilesAt) base["piles_mm"].push_back({number(p.x), number(p.y)});
        j["bases"].push_back(std::move(base));
    }
    return j;
}

void readBaseSet(const json& j, const std::string& path, int version, Project& project,
                 std::vector<Diagnostic>& trouble) {
    auto set = std::make_shared<model::BaseSet>();
    Reader r(j, path, trouble);
    Reading io{r, version};
    baseSetFields(io, *set);
    auto inner = [&](const char* key, const char* what, auto fields) {
        if (const json* v = r.find(key, what)) {
            Reader one(*v, r.at(key), trouble);
            Reading in{one, version};
            fields(in);
        }
    };
    inner("ground", "the ground of the bases", [&](auto& in) { groundFields(in, set->ground); });
    inner("pile", "the piles of the caps", [&](auto& in) { pileFields(in, set->pile); });
    constexpr std::size_t most = 200000;
    r.each("cases", 200, [&](const json& v, const std::string& at) {
        Reader one(v, at, trouble);
        Reading in{one, version};
        actionCaseFields(in, set->cases.emplace_back());
    });
    r.each("columns", most, [&](const json& v, const std::string& at) {
        Reader one(v, at, trouble);
        Reading in{one, version};
        auto& c = set->columns.emplace_back();
        baseColumnFields(in, c);
        one.each("actions", 200, [&](const json& a, const std::string& where) {
            Reader action(a, where, trouble);
            Reading of{action, version};
            columnActionFields(of, c.actions.emplace_back());
        });
    });
    r.each("bases", most, [&](const json& v, const std::string& at) {
        Reader one(v, at, trouble);
        Reading in{one, version};
        auto& b = set->bases.emplace_back();
        baseFields(in, b);
        one.each("piles_mm", 64, [&](const json& p, const std::string& where) {
            if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number())
                trouble.push_back({where, "Expected the place of a pile, [x, y]."});
            else
                b.pilesAt.push_back({p[0].get<double>(), p[1].get<double>()});
        });
    });
    project.bases.push_back(set);
}

json barsJson(const std::vector<model::BarRun>& runs) {
    json all = json::array();
    for (const auto& run : runs) {
        json one;
        Writing out{one};
        runFields(out, run);
        all.push_back(std::move(one));
    }
    return all;
}

json floorJson(const model::Floor& floor) {
    json j;
    j["id"] = floor.id;
    j["name"] = floor.name;
    j["members"] = floor.members;
    Writing choices{j["analysis"]};
    choiceFields(choices, floor.choices);
    auto list = [&](const char* key, const auto& from) {
        j[key] = json::array();
        for (const auto& member : from) {
            json one;
            Writing io{one};
            memberFields(io, member);
            j[key].push_back(std::move(one));
        }
    };
    eachList(floor, projectFileVersion, list);
    j["imposed_arrangement"] = arrangements.of(floor.actions.arrangement);
    Writing rules{j["strip_rules"]};
    stripRuleFields(rules, floor.strips.rules);
    j["bars"] = barsJson(floor.strips.bars);
    j["fixed_eccentricity"] = floor.punching.fixedEccentricity;
    j["more_by_bending"] = floor.punching.moreByBending;
    Writing vibration{j["vibration"]};
    vibrationFields(vibration, floor.vibration);
    return j;
}

json basisJson(const model::Basis& basis) {
    json j;
    Writing io{j};
    basisFields(io, basis);
    j["units"] = systems.of(basis.units);
    json& parameters = j["parameters"] = json::object();
    for (const auto& [key, value] : basis.parameters) parameters[key] = number(value);
    eachMaterial(basis, [&](const char* key, const model::Material& m) {
        Writing out{j["materials"][key]};
        materialFields(out, m);
    });
    j["rates"]["currency"] = basis.rates.currency;
    eachRate(basis.rates, projectFileVersion, [&](const char* key, const model::Rates::Rate& r) {
        j["rates"][key] = {{"price", number(r.price)}, {"carbon_kg", number(r.carbon)}};
    });
    return j;
}

void readBasis(const json& j, int version, model::Basis& basis, std::vector<Diagnostic>& trouble) {
    Reader b(j, "basis", trouble);
    Reading io{b, version};
    basisFields(io, basis);
    b.read("units", basis.units, systems);
    b.members("parameters", [&](const std::string& key, const json& v, const std::string& at) {
        if (v.is_number() && std::isfinite(v.get<double>()))
            basis.parameters[key] = v.get<double>();
        else
            trouble.push_back({at, "Expected a number."});
    });
    if (version < 3) {  // one material for all, as it was
        model::Material same{basis.concrete, basis.concreteStrength, basis.concreteDensity, 0,
                             basis.creep,    basis.shrinkage,        basis.steel,           basis.steelYield};
        basis.beam = basis.column = basis.foundation = basis.pileCap = same;
        return;
    }
    if (const json* materials = b.find("materials", "the materials of beams, columns and foundations")) {
        Reader kinds(*materials, b.at("materials"), trouble);
        eachMaterial(basis, [&](const char* key, model::Material& m) {
            if (const json* v = kinds.find(key, "a material")) {
                Reader inner(*v, kinds.at(key), trouble);
                Reading in{inner, version};
                materialFields(in, m);
            }
        });
    }
    if (const json* rates = b.find("rates", "prices and embodied carbon")) {
        Reader all(*rates, b.at("rates"), trouble);
        all.read("currency", basis.rates.currency);
        eachRate(basis.rates, version, [&](const char* key, model::Rates::Rate& rate) {
            if (const json* v = all.find(key, "price and carbon")) {
                Reader inner(*v, all.at(key), trouble);
                inner.read("price", rate.price);
                inner.read("carbon_kg", rate.carbon);
            }
        });
    }
}

// The line and column of a byte offset, for syntax errors.
std::string lineAndColumn(std::string_view text, std::size_t byte) {
    std::size_t line = 1, column = 1;
    for (std::size_t i = 0; i + 1 < byte && i < text.size(); ++i) {
        ++column;
        if (text[i] == '\n') ++line, column = 1;
    }
    return fmt::format("line {}, column {}", line, column);
}

// The number in an id such as "b12"; 0 where there is none.
int idNumber(const std::string& id) {
    std::size_t digits = id.find_first_of("0123456789");
    if (digits == std::string::npos || id.size() - digits > 9) return 0;
    return std::atoi(id.c_str() + digits);
}

}  // namespace

std::string projectText(const Project& p) {
    json j;
    j["talvik"] = projectFileVersion;
    j["name"] = p.name;
    j["next_id"] = p.nextId;
    j["marks"] = p.marks;
    j["basis"] = basisJson(p.basis);
    j["sources"] = json::object();
    for (const auto& [key, source] : p.sources) {
        json& one = j["sources"][key];
        one["kind"] = sourceKinds.of(source.kind);
        one["note"] = source.note;
        one["history"] = json::array();
        for (const auto& c : source.history)
            one["history"].push_back(
                {{"from", number(c.from)}, {"to", number(c.to)}, {"after_failure", c.afterFailure}});
    }
    Writing sheet{j["sheet"]};
    sheetFields(sheet, p.sheet);
    j["revisions"] = json::array();
    for (const auto& r : p.revisions)
        j["revisions"].push_back({{"letter", r->letter},
                                  {"date", r->date},
                                  {"author", r->author},
                                  {"note", r->note},
                                  {"bars", r->bars},
                                  {"calls", r->calls}});
    j["slabs"] = json::array();
    for (const auto& slab : p.slabs) {
        json s;
        Writing io{s};
        slabFields(io, *slab);
        for (const char* list : {"spans", "supports", "finishes"}) s[list] = json::array();
        for (const auto& span : slab->spans)
            s["spans"].push_back({{"id", span.id}, {"length_mm", number(span.length)}});
        auto append = [&](const char* list, const auto& row, auto fields) {
            json one;
            Writing out{one};
            fields(out, row);
            s[list].push_back(one);
        };
        for (const auto& x : slab->supports)
            append("supports", x, [](auto& o, const auto& v) { supportFields(o, v); });
        for (const auto& x : slab->finishes)
            append("finishes", x, [](auto& o, const auto& v) { finishFields(o, v); });
        s["bars"] = barsJson(slab->bars);
        j["slabs"].push_back(s);
    }
    j["floors"] = json::array();
    for (const auto& floor : p.floors) j["floors"].push_back(floorJson(*floor));
    j["bases"] = json::array();
    for (const auto& set : p.bases) j["bases"].push_back(baseSetJson(*set));
    return j.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

ReadProject readProject(std::string_view text) {
    ReadProject result;
    json j;
    try {
        j = json::parse(text);
    } catch (const json::parse_error& e) {
        result.trouble.push_back({lineAndColumn(text, e.byte),
                                  "The file is not complete JSON from here on; it may be cut off or damaged. "
                                  "Open an earlier copy."});
        return result;
    } catch (const json::exception&) {
        result.trouble.push_back({"", "The file holds a number that is too large."});
        return result;
    }
    Project& p = result.project;
    auto& trouble = result.trouble;
    {
        if (!j.is_object() || !j.contains("talvik")) {
            trouble.push_back({"talvik", "This is not a Talvik project: the version is missing at its top."});
            return result;
        }
        int version = 0;
        Reader r(j, "", trouble);
        r.read("talvik", version);
        if (version > projectFileVersion) {
            trouble = {
                {"talvik",
                 fmt::format(
                     "The file has version {}, this program reads up to version {}; use a newer Talvik.",
                     version, projectFileVersion)}};
            for (const auto& [key, value] : j.items()) (void)r.find(key.c_str(), "");
            return result;
        }
        if (version < 1 && trouble.empty()) r.note("talvik", "Versions start at 1.");
        r.read("name", p.name);
        r.read("next_id", p.nextId);
        r.members("marks", [&](const std::string& key, const json& v, const std::string& at) {
            if (v.is_number_integer() && v.get<double>() >= 1 && v.get<double>() < 1e6)
                p.marks[key] = v.get<int>();
            else
                trouble.push_back({at, "Expected a mark, a whole number from 1."});
        });
        if (const json* basis = r.find("basis", "the basis of design")) {
            readBasis(*basis, version, p.basis, trouble);
        }
        if (version >= 3)
            r.members("sources", [&](const std::string& key, const json& v, const std::string& at) {
                Reader s(v, at, trouble);
                model::Source& source = p.sources[key];
                s.read("kind", source.kind, sourceKinds);
                s.read("note", source.note);
                s.each("history", 10000, [&](const json& h, const std::string& where) {
                    Reader c(h, where, trouble);
                    auto& change = source.history.emplace_back();
                    c.read("from", change.from);
                    c.read("to", change.to);
                    c.read("after_failure", change.afterFailure);
                });
            });
        if (const json* sheet = r.find("sheet", "the title block's texts")) {
            Reader s(*sheet, "sheet", trouble);
            Reading io{s, version};
            sheetFields(io, p.sheet);
        }
        if (version >= 9)
            r.each("revisions", 500, [&](const json& v, const std::string& at) {
                Reader one(v, at, trouble);
                auto revision = std::make_shared<model::Revision>();
                for (auto [key, words] : {std::pair{"letter", &revision->letter},
                                          {"date", &revision->date},
                                          {"author", &revision->author},
                                          {"note", &revision->note}})
                    one.read(key, *words);
                one.members("bars", [&](const std::string& key, const json& n, const std::string& where) {
                    if (n.is_number_integer() && n.get<double>() >= 0 && n.get<double>() < 1e8)
                        revision->bars[key] = n.get<int>();
                    else
                        trouble.push_back({where, "Expected a number of bars."});
                });
                one.members("calls", [&](const std::string& key, const json& c, const std::string& where) {
                    if (c.is_string())
                        revision->calls[key] = c.get<std::string>();
                    else
                        trouble.push_back({where, "Expected a call-out, text."});
                });
                p.revisions.push_back(std::move(revision));
            });
        r.each("slabs", 200,
               [&](const json& v, const std::string& at) { readSlab(v, at, version, p, trouble); });
        if (version >= 2)
            r.each("floors", 200,
                   [&](const json& v, const std::string& at) { readFloor(v, at, version, p, trouble); });
        if (version >= 10)
            r.each("bases", 200,
                   [&](const json& v, const std::string& at) { readBaseSet(v, at, version, p, trouble); });
    }
    if (trouble.empty()) trouble = model::validate(p);
    // Ids are never reused, whatever the file says.
    auto seen = [&](const std::string& id) { p.nextId = std::max(p.nextId, idNumber(id) + 1); };
    for (const auto& floor : p.floors) {
        seen(floor->id);
        model::eachMember(*floor, [&](const std::string&, const auto& member) { seen(member.id); });
        model::eachStripItem(*floor, [&](const std::string&, const auto& item) { seen(item.id); });
    }
    for (const auto& set : p.bases) {
        seen(set->id);
        for (const auto& x : set->cases) seen(x.id);
        for (const auto& x : set->columns) seen(x.id);
        for (const auto& x : set->bases) seen(x.id);
    }
    for (const auto& slab : p.slabs) {
        seen(slab->id);
        for (const auto& x : slab->spans) seen(x.id);
        for (const auto& x : slab->supports) seen(x.id);
        for (const auto& x : slab->finishes) seen(x.id);
        for (const auto& x : slab->bars) seen(x.id);
    }
    return result;
}

ReadProject openProject(const std::string& path) {
    FileText file = readFile(path);
    if (!file.error.empty()) return {{}, {{path, file.error}}};
    return readProject(file.text);
}

std::string saveProject(const std::string& path, const Project& project) {
    return writeFile(path, projectText(project));
}

// An office's template: the basis alone, under a key of its own so that neither is taken for the other.
std::string templateText(const model::Basis& basis) {
    json j;
    j["talvik_template"] = projectFileVersion;
    j["basis"] = basisJson(basis);
    return j.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

ReadBasis readTemplate(std::string_view text) {
    ReadBasis result;
    try {
        json j = json::parse(text);
        if (!j.is_object() || !j.contains("talvik_template") || !j["talvik_template"].is_number_integer()) {
            result.trouble.push_back({"talvik_template", "This is not a template of Talvik."});
            return result;
        }
        int version = j["talvik_template"].get<int>();
        if (version < 3 || version > projectFileVersion) {
            result.trouble.push_back(
                {"talvik_template", fmt::format("The template has version {}, this program reads 3 to {}.",
                                                version, projectFileVersion)});
            return result;
        }
        Reader r(j, "", result.trouble);
        (void)r.find("talvik_template", "");
        if (const json* basis = r.find("basis", "the basis of design"))
            readBasis(*basis, version, result.basis, result.trouble);
    } catch (const json::exception&) {
        result.trouble.push_back({"", "The file is not complete JSON; it may be cut off or damaged."});
        return result;
    }
    if (result.trouble.empty()) {
        Project p;
        p.basis = result.basis;
        result.trouble = model::validate(p);
    }
    return result;
}

ReadBasis openTemplate(const std::string& path) {
    FileText file = readFile(path);
    if (!file.error.empty()) return {{}, {{path, file.error}}};
    return readTemplate(file.text);
}
std::string saveTemplate(const std::string& path, const model::Basis& basis) {
    return writeFile(path, templateText(basis));
}

Project demoProject() {
    return readProject(data::file("sundvarg_gallery.talvik")).project;
}
Project demoFloorProject() {
    return readProject(data::file("sundvarg_fish_hall.talvik")).project;
}

std::string sentences(const std::vector<Diagnostic>& trouble) {
    std::string out;
    for (std::size_t i = 0; i < trouble.size() && i < 10; ++i)
        out += (trouble[i].path.empty() ? "" : trouble[i].path + ": ") + trouble[i].message + "\n";
    if (trouble.size() > 10) out += fmt::format("… and {} more.\n", trouble.size() - 10);
    return out;
}

namespace {

using Ids = std::map<model::Id, model::Id>;

void eachId(const json& j, const std::function<void(const model::Id&)>& f) {
    if (j.is_object() && j.contains("id")) f(j["id"].get<model::Id>());
    if (j.is_structured())
        for (const auto& inner : j) eachId(inner, f);
}
// Ids stand by themselves, or as words in the keys by which lines and strips are known.
std::string renamed(const std::string& text, const Ids& ids) {
    auto letter = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) != 0; };
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        std::size_t end = i;
        while (end < text.size() && letter(text[end])) ++end;
        const auto found = ids.find(text.substr(i, end - i));
        out += found == ids.end() ? text.substr(i, end - i) : found->second;
        while (end < text.size() && !letter(text[end])) out += text[end++];
        i = end;
    }
    return out;
}
json renamed(const json& j, const Ids& ids) {
    if (j.is_string()) return renamed(j.get<std::string>(), ids);
    if (!j.is_structured()) return j;
    json out = j.is_array() ? json::array() : json::object();
    if (j.is_array())
        for (const auto& inner : j) out.push_back(renamed(inner, ids));
    else
        for (const auto& [key, inner] : j.items())  // what people wrote stays
            out[renamed(key, ids)] = key == "name" || key == "file" ? inner : renamed(inner, ids);
    return out;
}

}  // namespace

Copied withCopy(const Project& project, const model::Id& element, const std::string& name) {
    Project only = project, next = project;
    std::erase_if(only.slabs, [&](const auto& s) { return s->id != element; });
    std::erase_if(only.floors, [&](const auto& f) { return f->id != element; });
    std::erase_if(only.bases, [&](const auto& b) { return b->id != element; });
    if (only.slabs.empty() && only.floors.empty() && only.bases.empty()) return {project, {}};
    json file = json::parse(projectText(only));
    json& one = file[!only.slabs.empty() ? "slabs" : !only.floors.empty() ? "floors" : "bases"][0];
    Ids ids;
    eachId(one, [&](const model::Id& id) {
        if (!ids.contains(id)) ids[id] = model::newId(next, id.front());
    });
    one = renamed(one, ids);
    one["name"] = name;
    const auto read = readProject(file.dump());
    assert(read.trouble.empty());
    auto put = [&](auto& all, const auto& copies) {
        for (const auto& copy : copies)
            all.insert(
                std::find_if(all.begin(), all.end(), [&](const auto& e) { return e->id == element; }) + 1,
                copy);
    };
    put(next.slabs, read.project.slabs);
    put(next.floors, read.project.floors);
    put(next.bases, read.project.bases);
    return {std::move(next), ids[element]};
}

}  // namespace talvik::formats

#include "formats/import_map.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>

#include "layout/properties.h"
#include "model/edits.h"

namespace talvik::formats {
namespace {

using nlohmann::json;

const std::map<std::string, layout::As> kinds{{"slab", layout::As::Slab},
                                              {"zone", layout::As::Zone},
                                              {"opening", layout::As::Opening},
                                              {"column", layout::As::Column},
                                              {"wall", layout::As::Wall},
                                              {"beam", layout::As::Beam},
                                              {"line support", layout::As::LineSupport},
                                              {"area load", layout::As::AreaLoad},
                                              {"line load", layout::As::LineLoad},
                                              {"grid", layout::As::Grid}};

class Importer {
  public:
    Importer(Imported& out, const ReadLinework& drawing) : out_(out), work_(drawing.work) {}

    void run(const std::string& file, const json& map) {
        if (!map.is_object() || !map.contains("talvik_import"))
            return trouble("talvik_import", "This is not an import map: the version is missing at its top.");
        known(map, "", {"talvik_import", "floor", "place", "cases", "make", "loads"});
        model::Project& p = out_.project;
        model::Id id = layout::addFloor(p, text(map, "floor", "", "Floor"));
        p = model::editFloor(p, id, [&](model::Floor& f, model::Project& project) {
            auto under = layout::placeAsDrawn(work_, file);
            if (map.contains("place")) place(map["place"], under);
            under.id = newId(project, 'u');
            if (map.contains("cases")) cases(map["cases"], project, f);
            if (map.contains("make") && map["make"].is_array())
                for (std::size_t i = 0; i < map["make"].size(); ++i)
                    make(map["make"][i], fmt::format("make[{}]", i), project, f, under);
            else
                trouble(
                    "make",
                    "Expected a list of what to make, such as {\"as\": \"slab\", \"layers\": [\"SLAB\"]}.");
            if (map.contains("loads")) loads(map["loads"], project, f);
            f.underlays.push_back(under);
        });
        for (const auto& [what, count] : work_.unread)
            out_.notes.push_back(fmt::format("{} × {} was left out of the drawing.", count, what));
        for (const auto& note : work_.notes) out_.notes.push_back(note);
        if (!work_.unitKnown)
            out_.notes.push_back("The drawing names no unit; its lengths were taken as millimetres.");
        if (out_.trouble.empty()) out_.trouble = model::validate(p);
    }

  private:
    Imported& out_;
    const layout::Linework& work_;

    void trouble(const std::string& path, std::string message) {
        out_.trouble.push_back({path, std::move(message)});
    }
    void known(const json& j, const std::string& path, std::initializer_list<const char*> keys) {
        for (const auto& item : j.items()) {
            const std::string key = item.key();
            if (std::none_of(keys.begin(), keys.end(), [&](const char* k) { return key == k; }))
                trouble(path.empty() ? key : path + "." + key, "This key is not known; check its spelling.");
        }
    }
    std::string text(const json& j, const char* key, const std::string& path, const std::string& otherwise) {
        if (!j.contains(key)) return otherwise;
        if (j[key].is_string()) return j[key].get<std::string>();
        trouble(path.empty() ? key : path + "." + key, "Expected text in quotes.");
        return otherwise;
    }
    static std::optional<model::Point> point(const json& j) {
        if (!j.is_array() || j.size() != 2 || !j[0].is_number() || !j[1].is_number()) return {};
        return model::Point{j[0].get<double>(), j[1].get<double>()};
    }
    void place(const json& j, model::Underlay& under) {
        std::vector<model::Point> from, to;
        for (auto [key, into] : {std::pair{"from", &from}, {"to_mm", &to}})
            if (j.is_object() && j.contains(key) && j[key].is_array())
                for (const auto& v : j[key])
                    if (auto q = point(v)) into->push_back(*q);
        if (from.size() != 2 || to.size() != 2 || geometry::length(from[0], from[1]) == 0)
            return trouble("place", "Expected \"from\" and \"to_mm\", two different points [x, y] each.");
        layout::placeByTwoPoints(under, layout::placed(under, from[0]), layout::placed(under, from[1]), to[0],
                                 to[1]);
    }
    void cases(const json& list, model::Project& project, model::Floor& f) {
        if (!list.is_array()) return trouble("cases", "Expected a list of load cases.");
        f.actions.cases.clear();
        for (std::size_t i = 0; i < list.size(); ++i) {
            std::string at = fmt::format("cases[{}]", i);
            if (!list[i].is_object()) {
                trouble(at, "Expected an object in braces.");
                continue;
            }
            known(list[i], at, {"name", "nature", "use"});
            model::LoadCase c;
            c.name = text(list[i], "name", at, "");
            std::string nature = text(list[i], "nature", at, "permanent");
            using Nature = model::LoadCase::Nature;
            if (nature == "self-weight")
                c.nature = Nature::SelfWeight;
            else if (nature == "permanent")
                c.nature = Nature::Permanent;
            else if (nature == "imposed")
                c.nature = Nature::Imposed;
            else if (nature == "wind")
                c.nature = Nature::Wind;
            else if (nature == "accidental")
                c.nature = Nature::Accidental;
            else
                trouble(
                    at + ".nature",
                    fmt::format("\"{}\" is not one of: self-weight, permanent, imposed, wind, accidental.",
                                nature));
            c.use = text(list[i], "use", at, "B");
            layout::add(project, f, c);
        }
    }
    model::Id caseNamed(const json& j, const std::string& at, const model::Floor& f) {
        std::string name = text(j, "case", at, "");
        for (const auto& c : f.actions.cases)
            if (c.name == name) return c.id;
        trouble(at + ".case", fmt::format("There is no load case \"{}\" in this floor.", name));
        return {};
    }
    void make(const json& j, const std::string& at, model::Project& project, model::Floor& f,
              const model::Underlay& under) {
        if (!j.is_object()) return trouble(at, "Expected an object in braces.");
        known(j, at, {"as", "layers", "set", "case"});
        auto kind = kinds.find(text(j, "as", at, ""));
        if (kind == kinds.end()) {
            std::string all;
            for (const auto& [name, as] : kinds) all += all.empty() ? name : ", " + name;
            return trouble(at + ".as", "Expected one of: " + all + ".");
        }
        bool load = kind->second == layout::As::AreaLoad || kind->second == layout::As::LineLoad;
        model::Id loadCase = load ? caseNamed(j, at, f) : model::Id();
        std::set<int> layers;
        std::string names;
        if (j.contains("layers") && j["layers"].is_array())
            for (const auto& l : j["layers"]) {
                std::string name = l.is_string() ? l.get<std::string>() : "";
                auto found = std::find(work_.layers.begin(), work_.layers.end(), name);
                if (found == work_.layers.end()) {
                    trouble(at + ".layers", fmt::format("The drawing has no layer \"{}\".", name));
                    continue;
                }
                layers.insert(int(found - work_.layers.begin()));
                names += names.empty() ? name : ", " + name;
            }
        else
            trouble(at + ".layers", "Expected a list of layers of the drawing.");
        std::vector<int> paths;
        for (std::size_t i = 0; i < work_.paths.size(); ++i)
            if (layers.contains(work_.paths[i].layer)) paths.push_back(int(i));
        auto made = layout::make(project, f, work_, under, paths, kind->second, loadCase, out_.notes);
        out_.made.push_back(fmt::format("{} × {} from {}", made.size(), kind->first, names));
        std::set<model::Id> ids(made.begin(), made.end());
        if (!j.contains("set") || ids.empty()) return;
        if (!j["set"].is_object()) return trouble(at + ".set", "Expected properties with their values.");
        // The section's shape before its sizes.
        for (const auto& [key, value] : j["set"].items()) set(f, ids, key, value, at + ".set." + key);
    }
    void set(model::Floor& f, const std::set<model::Id>& ids, const std::string& key, const json& value,
             const std::string& at) {
        for (const auto& p : layout::commonProperties(f, ids, nullptr)) {
            if (p.key != key) continue;
            if (std::holds_alternative<bool>(p.value)) {
                if (value.is_boolean()) return layout::setProperty(f, ids, key, value.get<bool>());
                return trouble(at, "Expected true or false.");
            }
            if (!value.is_string()) return trouble(at, "Expected text in quotes, such as \"250 mm\".");
            std::string typed = value.get<std::string>();
            // Choices as maps of version 1 named them at first.
            static const std::map<std::string, std::string> earlier{
                {"above the slab", "upstand"},  {"below the slab", "downstand"},
                {"simply", "simple"},           {"clamped", "fixed"},
                {"in all", "total deflection"}, {"as a line of symmetry", "line of symmetry"},
                {"as on springs", "elastic"}};
            if (const auto now = earlier.find(typed);
                now != earlier.end() && !p.options.empty() &&
                std::find(p.options.begin(), p.options.end(), typed) == p.options.end())
                typed = now->second;
            if (std::holds_alternative<std::string>(p.value)) {
                if (!p.options.empty() &&
                    std::find(p.options.begin(), p.options.end(), typed) == p.options.end())
                    return trouble(at, fmt::format("\"{}\" is not a choice there.", typed));
                return layout::setProperty(f, ids, key, typed);
            }
            auto parsed = units::parse(typed, p.kind, units::System::Metric);
            if (!parsed.value) return trouble(at, parsed.error);
            return layout::setProperty(f, ids, key, *parsed.value);
        }
        trouble(at, fmt::format("There is no property \"{}\" that all of these share.", key));
    }
    void loads(const json& list, model::Project& project, model::Floor& f) {
        if (!list.is_array()) return trouble("loads", "Expected a list of loads on the whole floor.");
        for (std::size_t i = 0; i < list.size(); ++i) {
            std::string at = fmt::format("loads[{}]", i);
            const json& j = list[i];
            if (!j.is_object()) {
                trouble(at, "Expected an object in braces.");
                continue;
            }
            known(j, at, {"case", "value", "layers", "point_m", "footprint_m"});
            model::FloorLoad l;
            l.loadCase = caseNamed(j, at, f);
            bool atPoint = j.contains("point_m");
            auto value =
                units::parse(text(j, "value", at, "0"), atPoint ? units::Kind::Force : units::Kind::AreaLoad,
                             units::System::Metric);
            if (value.value)
                l.value = *value.value;
            else
                trouble(at + ".value", value.error);
            if (atPoint) {
                l.kind = model::FloorLoad::Kind::Point;
                auto q = point(j["point_m"]);
                auto size = j.contains("footprint_m") ? point(j["footprint_m"]) : model::Point{0, 0};
                if (q && size)
                    l.a = {q->x * 1000, q->y * 1000}, l.width = size->x * 1000, l.depth = size->y * 1000;
                else
                    trouble(at, "Expected \"point_m\" and \"footprint_m\" as [x, y] in metres.");
            }
            if (j.contains("layers") && j["layers"].is_array())
                for (const auto& layer : j["layers"]) {
                    model::Finish finish;
                    finish.id = newId(project, 'y');
                    if (!layer.is_object() || !layer.contains("thickness_mm") ||
                        !layer["thickness_mm"].is_number() || !layer.contains("density_kN_m3") ||
                        !layer["density_kN_m3"].is_number()) {
                        trouble(at + ".layers",
                                "Expected material, thickness_mm and density_kN_m3 of each layer.");
                        continue;
                    }
                    finish.material = text(layer, "material", at, "");
                    finish.thickness = layer["thickness_mm"].get<double>();
                    finish.density = layer["density_kN_m3"].get<double>() * 1e-6;
                    l.layers.push_back(finish);
                }
            layout::add(project, f, l);
        }
    }
};

}  // namespace

Imported importFloor(model::Project project, const ReadLinework& drawing, const std::string& file,
                     std::string_view map) {
    Imported out;
    out.project = project;
    if (!drawing.error.empty()) {
        out.trouble.push_back({"", drawing.error});
        return out;
    }
    json j = json::parse(map, nullptr, false);
    if (j.is_discarded()) {
        out.trouble.push_back({"", "The map is not complete JSON; it may be cut off or damaged."});
        return out;
    }
    Importer(out, drawing).run(file, j);
    if (!out.trouble.empty()) out.project = std::move(project);
    return out;
}

}  // namespace talvik::formats

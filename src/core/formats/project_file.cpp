#include "formats/project_file.h"

#include <fmt/format.h>

#include <cmath>
#include <limits>
#include <nlohmann/json.hpp>
#include <set>

#include "catalogs/data.h"
#include "formats/file.h"

namespace talvik::formats {
namespace {

using model::Diagnostic;
using model::Project;
using nlohmann::json;

constexpr double kPa = 1e-3, perCubicMetre = 1e-6;

// Twelve significant digits: enough for any input, and stable when read and written again.
json number(double stored, double unit = 1) {
    return units::rounded(stored / unit, 12);
}

template <class E>
struct Names {
    std::vector<std::pair<E, const char*>> all;
    const char* of(E value) const {
        for (auto [v, name] : all)
            if (v == value) return name;
        return "";
    }
};
const Names<units::System> systems{{{units::System::Metric, "metric"}, {units::System::UsCustomary, "us"}}};
const Names<model::Support::Kind> supportKinds{
    {{model::Support::Kind::Beam, "beam"}, {model::Support::Kind::Wall, "wall"}}};
const Names<model::BarEnd> barEnds{{{model::BarEnd::Straight, "straight"}, {model::BarEnd::Hook, "hook"}}};
const Names<model::Role> roles{{{model::Role::BottomMain, "bottom"},
                                {model::Role::TopMain, "top"},
                                {model::Role::BottomSecondary, "bottom across"},
                                {model::Role::TopSecondary, "top across"},
                                {model::Role::EndU, "end U"},
                                {model::Role::SideU, "side U"}}};

// Reads members of one JSON object, noting what is missing, mistyped or unknown under its path.
class Reader {
  public:
    Reader(const json& object, std::string path, std::vector<Diagnostic>& trouble)
        : object_(object), path_(std::move(path)), trouble_(trouble) {
        if (!object.is_object())
            note("", fmt::format("Expected an object in braces, found {}.", type(object)));
    }
    ~Reader() {
        if (object_.is_object())
            for (const auto& [key, value] : object_.items())
                if (!asked_.contains(key)) note(key, "This key is not known; check its spelling.");
    }
    Reader(const Reader&) = delete;
    Reader& operator=(const Reader&) = delete;

    void read(const char* key, double& into, double unit = 1) {
        if (const json* v = find(key, "a number")) {
            if (!v->is_number()) return note(key, fmt::format("Expected a number, found {}.", type(*v)));
            double value = v->get<double>() * unit;
            if (!std::isfinite(value)) return note(key, "The number is too large.");
            into = value;
        }
    }
    void read(const char* key, int& into) {
        if (const json* v = find(key, "a whole number")) {
            if (!v->is_number_integer() || v->get<double>() < 0 || v->get<double>() > 1e9)
                return note(key, fmt::format("Expected a whole number from 0 to 1e9, found {}.", type(*v)));
            into = v->get<int>();
        }
    }
    void read(const char* key, bool& into) {
        if (const json* v = find(key, "true or false")) {
            if (!v->is_boolean())
                return note(key, fmt::format("Expected true or false, found {}.", type(*v)));
            into = v->get<bool>();
        }
    }
    void read(const char* key, std::string& into) {
        if (const json* v = find(key, "text")) {
            if (!v->is_string())
                return note(key, fmt::format("Expected text in quotes, found {}.", type(*v)));
            into = v->get<std::string>();
            if (into.size() > 10000) note(key, "The text is longer than 10 000 characters.");
        }
    }
    template <class E>
    void read(const char* key, E& into, const Names<E>& names) {
        std::string text;
        std::size_t before = trouble_.size();
        read(key, text);
        if (trouble_.size() != before || text.empty()) return;
        std::string known;
        for (auto [value, name] : names.all) {
            if (text == name) {
                into = value;
                return;
            }
            known += known.empty() ? name : std::string(", ") + name;
        }
        note(key, fmt::format("\"{}\" is not one of: {}.", text, known));
    }
    void read(const char* key, std::vector<std::string>& into) {
        into.clear();
        each(key, 100, [&](const json& v, const std::string& at) {
            if (v.is_string())
                into.push_back(v.get<std::string>());
            else
                trouble_.push_back({at, fmt::format("Expected text in quotes, found {}.", type(v))});
        });
    }
    // Calls f(value, path) for the elements of an array; more than `limit` are refused as a whole.
    template <class F>
    void each(const char* key, std::size_t limit, F f) {
        const json* v = find(key, "a list");
        if (!v) return;
        if (!v->is_array())
            return note(key, fmt::format("Expected a list in square brackets, found {}.", type(*v)));
        if (v->size() > limit)
            return note(key,
                        fmt::format("The list has {} entries; at most {} are possible.", v->size(), limit));
        for (std::size_t i = 0; i < v->size(); ++i) f((*v)[i], fmt::format("{}[{}]", at(key), i));
    }
    template <class F>
    void members(const char* key, F f) {
        const json* v = find(key, "an object");
        if (!v) return;
        if (!v->is_object())
            return note(key, fmt::format("Expected an object in braces, found {}.", type(*v)));
        for (const auto& [name, value] : v->items()) f(name, value, at(key) + "." + name);
    }
    const json* find(const char* key, const char* what) {
        asked_.insert(key);
        if (!object_.is_object()) return nullptr;
        auto it = object_.find(key);
        if (it == object_.end()) {
            note(key, fmt::format("This is missing; give {}.", what));
            return nullptr;
        }
        return &*it;
    }
    void note(const std::string& key, std::string message) {
        trouble_.push_back({key.empty() ? path_ : at(key), std::move(message)});
    }
    std::vector<Diagnostic>& trouble() { return trouble_; }
    std::string at(const std::string& key) const { return path_.empty() ? key : path_ + "." + key; }
    static std::string type(const json& v) {
        switch (v.type()) {
            case json::value_t::null:
                return "nothing (null)";
            case json::value_t::object:
                return "an object";
            case json::value_t::array:
                return "a list";
            case json::value_t::string:
                return "text";
            case json::value_t::boolean:
                return "true or false";
            default:
                return "a number";
        }
    }

  private:
    const json& object_;
    std::string path_;
    std::vector<Diagnostic>& trouble_;
    std::set<std::string> asked_;
};

// The same list of fields serves writing and reading: `F` is either.
template <class Io, class Basis>
void basisFields(Io& io, Basis& b) {
    io.field("standard", b.standard);
    io.field("concrete", b.concrete);
    io.field("concrete_strength_MPa", b.concreteStrength);
    io.field("concrete_density_kN_m3", b.concreteDensity, perCubicMetre);
    io.field("steel", b.steel);
    io.field("steel_yield_MPa", b.steelYield);
    io.field("aggregate_mm", b.aggregate);
    io.field("creep", b.creep);
    io.field("shrinkage_strain", b.shrinkage);
    io.field("cover_top_mm", b.coverTop);
    io.field("cover_bottom_mm", b.coverBottom);
    io.field("cover_side_mm", b.coverSide);
    io.field("crack_limit_top_mm", b.crackLimitTop);
    io.field("crack_limit_bottom_mm", b.crackLimitBottom);
    io.field("bar_catalog", b.barCatalog);
    io.field("main_bars", b.mainBars);
    io.field("secondary_bars", b.secondaryBars);
    io.field("spacing_least_mm", b.spacingLeast);
    io.field("spacing_most_mm", b.spacingMost);
    io.field("spacing_step_mm", b.spacingStep);
    io.field("stock_length_mm", b.stockLength);
    io.since(3, [&] {
        io.field("link_bars", b.linkBars);
        io.field("cover_foundation_mm", b.coverFoundation);
        io.field("sag_limit_span_over", b.sagLimit);
        io.field("sag_limit_after_partitions_span_over", b.sagLimitAfter);
        io.field("minimum_steel", b.minimumSteel);
    });
}
template <class Io, class Material>
void materialFields(Io& io, Material& m) {
    io.field("concrete", m.concrete);
    io.field("concrete_strength_MPa", m.strength);
    io.field("concrete_density_kN_m3", m.density, perCubicMetre);
    io.field("modulus_MPa", m.modulus);
    io.field("creep", m.creep);
    io.field("shrinkage_strain", m.shrinkage);
    io.field("steel", m.steel);
    io.field("steel_yield_MPa", m.yield);
}
// The kinds of member that have materials of their own, and the things that have rates, by their keys.
template <class Basis, class F>
void eachMaterial(Basis& b, F f) {
    f("beam", b.beam);
    f("column", b.column);
    f("foundation", b.foundation);
    f("pile_cap", b.pileCap);
}
template <class Rates, class F>
void eachRate(Rates& r, F f) {
    f("concrete_m3", r.concrete);
    f("steel_kg", r.steel);
    f("formwork_m2", r.formwork);
    f("blinding_m3", r.blinding);
    f("excavation_m3", r.excavation);
    f("pile_m", r.pile);
}
template <class Io, class Slab>
void slabFields(Io& io, Slab& s) {
    io.field("id", s.id);
    io.field("name", s.name);
    io.field("width_mm", s.width);
    io.field("thickness_mm", s.thickness);
    io.field("thickness_pinned", s.thicknessPinned);
    io.field("cantilever_start", s.cantileverStart);
    io.field("cantilever_end", s.cantileverEnd);
    io.field("other_dead_kN_m2", s.otherDead, kPa);
    io.field("imposed_use", s.imposedUse);
    io.field("imposed_kN_m2", s.imposed, kPa);
}
template <class Io, class Support>
void supportFields(Io& io, Support& s) {
    io.field("id", s.id);
    io.field("kind", s.kind, supportKinds);
    io.field("width_mm", s.width);
    io.field("monolithic", s.monolithic);
}
template <class Io, class Finish>
void finishFields(Io& io, Finish& f) {
    io.field("id", f.id);
    io.field("material", f.material);
    io.field("thickness_mm", f.thickness);
    io.field("density_kN_m3", f.density, perCubicMetre);
}
template <class Io, class Run>
void runFields(Io& io, Run& r) {
    io.field("id", r.id);
    io.field("role", r.role, roles);
    io.field("from_mm", r.from);
    io.field("to_mm", r.to);
    io.field("bar", r.bar);
    io.field("spacing_mm", r.spacing);
    io.field("start", r.start, barEnds);
    io.field("end", r.end, barEnds);
    io.field("pinned", r.pinned);
}
template <class Io, class Sheet>
void sheetFields(Io& io, Sheet& s) {
    io.field("number", s.number);
    io.field("revision", s.revision);
    io.field("date", s.date);
    io.field("author", s.author);
    io.field("note", s.note);
}

const Names<model::Source::Kind> sourceKinds{{{model::Source::Kind::Assumed, "assumed"},
                                              {model::Source::Kind::Investigation, "site investigation"},
                                              {model::Source::Kind::Client, "client"},
                                              {model::Source::Kind::Standard, "standard"}}};
const Names<model::PanelChoice::Span> panelSpans{
    {{model::PanelChoice::Span::OneWay, "one-way"}, {model::PanelChoice::Span::TwoWay, "two-way"}}};
const Names<model::Arrangement> arrangements{{{model::Arrangement::All, "all"},
                                              {model::Arrangement::Panels, "panels"},
                                              {model::Arrangement::Strips, "strips"}}};
const Names<actions::LimitState> limitStates{{{actions::LimitState::Ultimate, "ultimate"},
                                              {actions::LimitState::Characteristic, "characteristic"},
                                              {actions::LimitState::Frequent, "frequent"},
                                              {actions::LimitState::QuasiPermanent, "quasi-permanent"}}};
const Names<model::Zone::Level> levels{{{model::Zone::Level::Top, "top"},
                                        {model::Zone::Level::Bottom, "bottom"},
                                        {model::Zone::Level::Middle, "middle"}}};
const Names<model::Bearing> bearings{{{model::Bearing::Spring, "spring"},
                                      {model::Bearing::Pinned, "pinned"},
                                      {model::Bearing::Rigid, "rigid"}}};
const Names<model::LineSupport::Kind> lineKinds{{{model::LineSupport::Kind::Simple, "simple"},
                                                 {model::LineSupport::Kind::Clamped, "clamped"},
                                                 {model::LineSupport::Kind::Symmetry, "symmetry"}}};
const Names<model::LoadCase::Nature> natures{{{model::LoadCase::Nature::SelfWeight, "self-weight"},
                                              {model::LoadCase::Nature::Permanent, "permanent"},
                                              {model::LoadCase::Nature::Imposed, "imposed"}}};
const Names<model::FloorLoad::Kind> loadKinds{{{model::FloorLoad::Kind::Area, "area"},
                                               {model::FloorLoad::Kind::Line, "line"},
                                               {model::FloorLoad::Kind::Point, "point"},
                                               {model::FloorLoad::Kind::Moment, "moment"}}};

const Names<model::StripRules::Width> stripWidths{
    {{model::StripRules::Width::ColumnAndMiddle, "column and middle"},
     {model::StripRules::Width::Full, "full"}}};
const Names<model::StripRules::Twisting> twistings{
    {{model::StripRules::Twisting::WoodArmer, "Wood-Armer"}, {model::StripRules::Twisting::None, "none"}}};
const Names<model::EndCondition> endConditions{{{model::EndCondition::Free, "free"},
                                                {model::EndCondition::OnBeam, "on beam"},
                                                {model::EndCondition::Continuous, "continuous"},
                                                {model::EndCondition::Cantilever, "cantilever"}}};

template <class Io, class Rules>
void stripRuleFields(Io& io, Rules& r) {
    io.field("own_angles", r.ownAngles);
    io.field("angle_1_deg", r.angle[0]);
    io.field("angle_2_deg", r.angle[1]);
    io.field("automatic_1", r.automatic[0]);
    io.field("automatic_2", r.automatic[1]);
    io.field("width", r.width, stripWidths);
    io.field("twisting", r.twisting, twistings);
    io.field("face_of_support", r.faceOfSupport);
    io.field("peak_width_mm", r.peakWidth);
    io.field("outer_layer_top", r.outerTop);
    io.field("outer_layer_bottom", r.outerBottom);
    io.field("redistribution", r.redistribution);
}

template <class Io, class M>
void memberFields(Io& io, M& m) {
    using T = std::remove_const_t<M>;
    io.field("id", m.id);
    if constexpr (requires { m.name; }) io.field("name", m.name);
    if constexpr (std::is_same_v<T, model::Grid>) {
        io.field("origin_mm", m.origin);
        io.field("angle_deg", m.angle);
        io.field("between_deg", m.between);
        io.field("along_mm", m.along);
        io.field("across_mm", m.across);
        io.field("along_labels", m.alongLabels);
        io.field("across_labels", m.acrossLabels);
    } else if constexpr (std::is_same_v<T, model::Underlay>) {
        io.field("at_mm", m.at);
        io.field("angle_deg", m.angle);
        io.field("scale", m.scale);
        io.field("hidden_layers", m.hidden);
    } else if constexpr (std::is_same_v<T, model::PanelChoice>) {
        io.field("at_mm", m.at);
        io.field("span", m.span, panelSpans);
        io.field("angle_deg", m.angle);
    } else if constexpr (std::is_same_v<T, model::StripArea>) {
        io.field("outline_mm", m.outline);
        io.field("angle_1_deg", m.angle[0]);
        io.field("angle_2_deg", m.angle[1]);
    } else if constexpr (std::is_same_v<T, model::StripEdge>) {
        io.field("direction", m.direction);
        io.field("line", m.line);
        io.field("side", m.side);
        io.field("offset_mm", m.offset);
    } else if constexpr (std::is_same_v<T, model::DrawnStrip>) {
        io.field("direction", m.direction);
        io.field("angle_deg", m.angle);
        io.field("outline_mm", m.outline);
    } else if constexpr (std::is_same_v<T, model::SpanEnd>) {
        io.field("strip", m.strip);
        io.field("support", m.support);
        io.field("side", m.side);
        io.field("condition", m.condition, endConditions);
    } else if constexpr (std::is_same_v<T, model::StripBars>) {
        io.field("strip", m.strip);
        io.field("top", m.top);
        io.field("band", m.band);
        io.field("from_mm", m.from);
        io.field("to_mm", m.to);
        io.field("bar", m.bar);
        io.field("spacing_mm", m.spacing);
        io.field("start", m.start, barEnds);
        io.field("end", m.end, barEnds);
    } else if constexpr (std::is_same_v<T, model::CombinationRow>) {
        io.field("clause", m.clause);
        io.field("state", m.state, limitStates);
        io.field("factors", m.factors);
    } else if constexpr (std::is_same_v<T, model::SlabArea>) {
        io.field("outline_mm", m.outline);
        io.field("thickness_mm", m.thickness);
        io.since(3, [&] { io.field("level_mm", m.level); });
    } else if constexpr (std::is_same_v<T, model::Zone>) {
        io.field("outline_mm", m.outline);
        io.field("thickness_mm", m.thickness);
        io.field("level_face", m.level, levels);
    } else if constexpr (std::is_same_v<T, model::Opening>) {
        io.field("outline_mm", m.outline);
    } else if constexpr (std::is_same_v<T, model::Column>) {
        io.field("x_mm", m.x);
        io.field("y_mm", m.y);
        io.field("circular", m.circular);
        io.field("width_mm", m.width);
        io.field("depth_mm", m.depth);
        io.field("angle_deg", m.angle);
        io.field("below", m.below);
        io.field("above", m.above);
        io.field("height_below_mm", m.heightBelow);
        io.field("height_above_mm", m.heightAbove);
        io.field("far_ends_fixed", m.farEndsFixed);
        io.field("bearing", m.bearing, bearings);
    } else if constexpr (std::is_same_v<T, model::Wall>) {
        io.field("a_mm", m.a);
        io.field("b_mm", m.b);
        io.field("thickness_mm", m.thickness);
        io.field("height_mm", m.height);
        io.field("stiff", m.stiff);
    } else if constexpr (std::is_same_v<T, model::LineSupport>) {
        io.field("a_mm", m.a);
        io.field("b_mm", m.b);
        io.field("kind", m.kind, lineKinds);
    } else if constexpr (std::is_same_v<T, model::FloorBeam>) {
        io.field("a_mm", m.a);
        io.field("b_mm", m.b);
        io.field("width_mm", m.width);
        io.field("depth_mm", m.depth);
        io.field("upstand", m.upstand);
        io.field("torsion_share", m.torsion);
    } else if constexpr (std::is_same_v<T, model::Ground>) {
        io.field("outline_mm", m.outline);
        io.field("modulus_MN_m3", m.modulus, 1e-3);
    } else if constexpr (std::is_same_v<T, model::Pile>) {
        io.field("x_mm", m.x);
        io.field("y_mm", m.y);
        io.field("diameter_mm", m.diameter);
        io.field("stiffness_kN_mm", m.stiffness, 1e3);
    } else if constexpr (std::is_same_v<T, model::LoadCase>) {
        io.field("nature", m.nature, natures);
        io.field("use", m.use);
        io.since(3, [&] { io.field("reduction_area_m2", m.reductionArea, 1e6); });
    } else if constexpr (std::is_same_v<T, model::FloorLoad>) {
        io.field("case", m.loadCase);
        io.field("kind", m.kind, loadKinds);
        using K = model::FloorLoad::Kind;
        if (m.kind == K::Area) {
            io.field("value_kN_m2", m.value, kPa);
            io.field("outline_mm", m.outline);
            io.since(3, [&] { io.field("layers", m.layers); });
        } else if (m.kind == K::Line) {
            io.field("value_kN_m", m.value);
            io.field("a_mm", m.a);
            io.field("b_mm", m.b);
        } else if (m.kind == K::Point) {
            io.field("value_kN", m.value, 1e3);
            io.field("at_mm", m.a);
            io.field("width_mm", m.width);
            io.field("depth_mm", m.depth);
        } else {
            io.field("value_x_kNm", m.value, 1e6);
            io.field("value_y_kNm", m.valueY, 1e6);
            io.field("at_mm", m.a);
        }
    }
}
template <class Io, class Choices>
void choiceFields(Io& io, Choices& c) {
    io.field("mesh_size_mm", c.meshSize);
    io.field("shear_deformation", c.shearDeformation);
    io.field("ground_takes_tension", c.groundTakesTension);
    io.field("slab_stiffness", c.modifiers.slab);
    io.field("beam_stiffness", c.modifiers.beam);
    io.field("column_stiffness", c.modifiers.column);
    io.field("wall_stiffness", c.modifiers.wall);
}

struct Writing {
    json& j;
    void field(const char* key, const model::Point& p) { j[key] = {number(p.x), number(p.y)}; }
    void field(const char* key, const model::Outline& o) {
        j[key] = json::array();
        for (const auto& c : o) {
            json corner{number(c.x), number(c.y)};
            if (c.bulge != 0) corner.push_back(number(c.bulge));
            j[key].push_back(corner);
        }
    }
    void field(const char* key, double v, double unit = 1) { j[key] = number(v, unit); }
    void field(const char* key, const std::vector<double>& v) {
        j[key] = json::array();
        for (double x : v) j[key].push_back(number(x));
    }
    void field(const char* key, const std::map<std::string, double>& v) {
        j[key] = json::object();
        for (const auto& [name, x] : v) j[key][name] = number(x);
    }
    void field(const char* key, const std::vector<model::Finish>& v) {
        j[key] = json::array();
        for (const auto& layer : v) {
            json one;
            Writing io{one};
            finishFields(io, layer);
            j[key].push_back(std::move(one));
        }
    }
    template <class F>
    void since(int, F f) {
        f();
    }
    void field(const char* key, bool v) { j[key] = v; }
    void field(const char* key, int v) { j[key] = v; }
    void field(const char* key, const std::string& v) { j[key] = v; }
    void field(const char* key, const std::vector<std::string>& v) { j[key] = v; }
    template <class E>
    void field(const char* key, E v, const Names<E>& names) {
        j[key] = names.of(v);
    }
};
// Fields that a file older than the program does not have keep their defaults.
struct Reading {
    Reader& r;
    int version = projectFileVersion;
    template <class F>
    void since(int first, F f) {
        if (version >= first) f();
    }
    void field(const char* key, model::Point& p) {
        if (const json* v = r.find(key, "a place [x, y]")) {
            if (!numbers(*v, 2, 2)) return r.note(key, "Expected a place [x, y], two numbers in mm.");
            p = {(*v)[0].get<double>(), (*v)[1].get<double>()};
        }
    }
    void field(const char* key, model::Outline& o) {
        o.clear();
        r.each(key, 5000, [&](const json& v, const std::string&) {
            if (!numbers(v, 2, 3))
                return r.note(key, "Expected corners [x, y] or [x, y, bulge], numbers in mm.");
            o.push_back({v[0].get<double>(), v[1].get<double>(), v.size() > 2 ? v[2].get<double>() : 0});
        });
    }
    static bool numbers(const json& v, std::size_t least, std::size_t most) {
        if (!v.is_array() || v.size() < least || v.size() > most) return false;
        for (const auto& x : v)
            if (!x.is_number() || !std::isfinite(x.get<double>())) return false;
        return true;
    }
    void field(const char* key, std::vector<double>& into) {
        into.clear();
        r.each(key, 1000, [&](const json& v, const std::string&) {
            if (!v.is_number() || !std::isfinite(v.get<double>())) return r.note(key, "Expected numbers.");
            into.push_back(v.get<double>());
        });
    }
    void field(const char* key, std::map<std::string, double>& into) {
        into.clear();
        r.members(key, [&](const std::string& name, const json& v, const std::string&) {
            if (!v.is_number() || !std::isfinite(v.get<double>())) return r.note(key, "Expected numbers.");
            into[name] = v.get<double>();
        });
    }
    void field(const char* key, std::vector<model::Finish>& into) {
        into.clear();
        r.each(key, 50, [&](const json& v, const std::string& at) {
            Reader inner(v, at, r.trouble());
            Reading io{inner, version};
            finishFields(io, into.emplace_back());
        });
    }
    void field(const char* key, double& v, double unit = 1) { r.read(key, v, unit); }
    void field(const char* key, bool& v) { r.read(key, v); }
    void field(const char* key, int& v) {
        double number = v;
        r.read(key, number);
        if (number != std::round(number) || std::abs(number) > 1e6)
            return r.note(key, "Expected a whole number.");
        v = int(number);
    }
    void field(const char* key, std::string& v) { r.read(key, v); }
    void field(const char* key, std::vector<std::string>& v) { r.read(key, v); }
    template <class E>
    void field(const char* key, E& v, const Names<E>& names) {
        r.read(key, v, names);
    }
};

void readSlab(const json& j, const std::string& path, Project& project, std::vector<Diagnostic>& trouble) {
    auto slab = std::make_shared<model::OneWaySlab>();
    Reader r(j, path, trouble);
    Reading io{r};
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
    r.each("bars", 2000, [&](const json& v, const std::string& at) {
        Reader inner(v, at, trouble);
        Reading in{inner};
        model::BarRun b;
        runFields(in, b);
        slab->bars.push_back(b);
    });
    project.slabs.push_back(slab);
}

void readFloor(const json& j, const std::string& path, int version, Project& project,
               std::vector<Diagnostic>& trouble) {
    auto floor = std::make_shared<model::Floor>();
    Reader r(j, path, trouble);
    r.read("id", floor->id);
    r.read("name", floor->name);
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
        list("grids", floor->grids);
        list("underlays", floor->underlays);
        list("panels", floor->panels);
        list("combinations", floor->actions.combinations);
        r.read("imposed_arrangement", floor->actions.arrangement, arrangements);
    }
    if (version >= 4) {
        if (const json* rules = r.find("strip_rules", "how strips are laid")) {
            Reader c(*rules, r.at("strip_rules"), trouble);
            Reading io{c, version};
            stripRuleFields(io, floor->strips.rules);
        }
        list("strip_areas", floor->strips.areas);
        list("strip_edges", floor->strips.edges);
        list("strips_drawn", floor->strips.drawn);
        list("span_ends", floor->strips.ends);
        list("strip_bars", floor->strips.bars);
    }
    list("slabs", floor->slabs);
    list("zones", floor->zones);
    list("openings", floor->openings);
    list("columns", floor->columns);
    list("walls", floor->walls);
    list("edges", floor->edges);
    list("beams", floor->beams);
    list("grounds", floor->grounds);
    list("piles", floor->piles);
    list("cases", floor->actions.cases);
    list("loads", floor->actions.loads);
    project.floors.push_back(floor);
}

json floorJson(const model::Floor& floor) {
    json j;
    j["id"] = floor.id;
    j["name"] = floor.name;
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
    list("grids", floor.grids);
    list("underlays", floor.underlays);
    list("panels", floor.panels);
    list("combinations", floor.actions.combinations);
    j["imposed_arrangement"] = arrangements.of(floor.actions.arrangement);
    list("slabs", floor.slabs);
    list("zones", floor.zones);
    list("openings", floor.openings);
    list("columns", floor.columns);
    list("walls", floor.walls);
    list("edges", floor.edges);
    list("beams", floor.beams);
    list("grounds", floor.grounds);
    list("piles", floor.piles);
    list("cases", floor.actions.cases);
    list("loads", floor.actions.loads);
    Writing rules{j["strip_rules"]};
    stripRuleFields(rules, floor.strips.rules);
    list("strip_areas", floor.strips.areas);
    list("strip_edges", floor.strips.edges);
    list("strips_drawn", floor.strips.drawn);
    list("span_ends", floor.strips.ends);
    list("strip_bars", floor.strips.bars);
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
    eachRate(basis.rates, [&](const char* key, const model::Rates::Rate& r) {
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
        eachRate(basis.rates, [&](const char* key, model::Rates::Rate& rate) {
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
    j["slabs"] = json::array();
    for (const auto& slab : p.slabs) {
        json s;
        Writing io{s};
        slabFields(io, *slab);
        for (const char* list : {"spans", "supports", "finishes", "bars"}) s[list] = json::array();
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
        for (const auto& x : slab->bars) append("bars", x, [](auto& o, const auto& v) { runFields(o, v); });
        j["slabs"].push_back(s);
    }
    j["floors"] = json::array();
    for (const auto& floor : p.floors) j["floors"].push_back(floorJson(*floor));
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
            Reading io{s};
            sheetFields(io, p.sheet);
        }
        r.each("slabs", 200, [&](const json& v, const std::string& at) { readSlab(v, at, p, trouble); });
        if (version >= 2)
            r.each("floors", 200,
                   [&](const json& v, const std::string& at) { readFloor(v, at, version, p, trouble); });
    }
    if (trouble.empty()) trouble = model::validate(p);
    // Ids are never reused, whatever the file says.
    auto seen = [&](const std::string& id) { p.nextId = std::max(p.nextId, idNumber(id) + 1); };
    for (const auto& floor : p.floors) {
        seen(floor->id);
        model::eachMember(*floor, [&](const std::string&, const auto& member) { seen(member.id); });
        model::eachStripItem(*floor, [&](const std::string&, const auto& item) { seen(item.id); });
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

}  // namespace talvik::formats

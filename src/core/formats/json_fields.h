// How values of a project file are read and written. The lists of fields in project_fields.h serve both: each
// is a function of `io`, which is Writing or Reading.
#pragma once

#include <fmt/format.h>

#include <cmath>
#include <limits>
#include <nlohmann/json.hpp>
#include <set>

#include "formats/project_file.h"

namespace talvik::formats {

using model::Diagnostic;
using nlohmann::json;

// Twelve significant digits: enough for any input, and stable when read and written again.
inline json number(double stored, double unit = 1) {
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

template <class Io, class Finish>
void finishFields(Io& io, Finish& f);
template <class Io, class Rail>
void railFields(Io& io, Rail& r);

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
    template <class Row, class Fields>
    void rows(const char* key, const std::vector<Row>& v, Fields fields) {
        j[key] = json::array();
        for (const auto& row : v) {
            json one;
            Writing io{one};
            fields(io, row);
            j[key].push_back(std::move(one));
        }
    }
    template <class Row, class Fields>
    void rows(const char* key, int, const std::vector<Row>& v, Fields fields) {
        rows(key, v, fields);
    }
    void field(const char* key, const std::vector<model::Finish>& v) {
        rows(key, v, [](auto& io, const auto& row) { finishFields(io, row); });
    }
    void field(const char* key, const std::vector<catalogs::StudRail>& v) {
        rows(key, v, [](auto& io, const auto& row) { railFields(io, row); });
    }
    template <class F>
    void since(int, F f) {
        f();
    }
    template <class T>
    void before(int, T&, std::remove_const_t<T>) {}
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
    // What holds in files older than that, other than by default.
    template <class T>
    void before(int first, T& value, T old) {
        if (version < first) value = old;
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
    template <class Row, class Fields>
    void rows(const char* key, int most, std::vector<Row>& into, Fields fields) {
        into.clear();
        r.each(key, most, [&](const json& v, const std::string& at) {
            Reader inner(v, at, r.trouble());
            Reading io{inner, version};
            fields(io, into.emplace_back());
        });
    }
    void field(const char* key, std::vector<model::Finish>& into) {
        rows(key, 50, into, [](auto& io, auto& row) { finishFields(io, row); });
    }
    void field(const char* key, std::vector<catalogs::StudRail>& into) {
        rows(key, 5000, into, [](auto& io, auto& row) { railFields(io, row); });
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

}  // namespace talvik::formats

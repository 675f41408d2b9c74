#include "formats/comparison.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>

#include "formats/project_file.h"

namespace talvik::formats {
namespace {

using nlohmann::json;

// Not inputs: what the program counts and keeps.
const std::set<std::string>& kept() {
    static const std::set<std::string> all{"marks", "next_id", "revisions", "talvik"};
    return all;
}

class Inputs {
  public:
    std::vector<Comparison::Input> found;

    void walk(const json& a, const json& b, const std::string& at) {
        if (a == b) return;
        if (a.is_object() && b.is_object()) {
            std::set<std::string> keys;
            for (const auto* j : {&a, &b})
                for (const auto& [key, value] : j->items()) keys.insert(key);
            for (const auto& key : keys) {
                if (at.empty() && kept().contains(key)) continue;
                walk(a.contains(key) ? a[key] : json(), b.contains(key) ? b[key] : json(),
                     under(at, words(key)));
            }
            return;
        }
        if (named(a) && named(b)) {
            for (const auto& x : a) {
                const json* y = find(b, x["id"]);
                y ? walk(x, *y, under(at, name(*y))) : found.push_back({under(at, name(x)), brief(x), {}});
            }
            for (const auto& y : b)
                if (!find(a, y["id"])) found.push_back({under(at, name(y)), {}, brief(y)});
            return;
        }
        found.push_back({at, brief(a), brief(b)});
    }

  private:
    static std::string under(const std::string& at, const std::string& what) {
        return at.empty() ? what : at + " › " + what;
    }
    static std::string words(std::string key) {
        std::replace(key.begin(), key.end(), '_', ' ');
        return key;
    }
    // A list of members that have ids; an empty list may be one.
    static bool named(const json& j) {
        return j.is_array() && std::all_of(j.begin(), j.end(), [](const json& x) {
                   return x.is_object() && x.contains("id") && x["id"].is_string();
               });
    }
    static const json* find(const json& all, const json& id) {
        for (const auto& x : all)
            if (x["id"] == id) return &x;
        return nullptr;
    }
    static std::string name(const json& x) {
        const auto id = x["id"].get<std::string>();
        const auto own =
            x.contains("name") && x["name"].is_string() ? x["name"].get<std::string>() : std::string();
        return own.empty() ? id : own;
    }
    static std::string brief(const json& j) {
        if (j.is_null()) return {};
        if (j.is_string()) return j.get<std::string>();
        if (j.is_number()) return units::plain(j.get<double>(), 8);
        std::string s = j.dump(-1, ' ', false, json::error_handler_t::replace);
        if (j.is_object() && j.contains("id")) s = "there";
        if (s.size() <= 60) return s;
        std::size_t end = 57;
        while (end > 0 && (static_cast<unsigned char>(s[end]) & 0xC0) == 0x80) --end;
        return s.substr(0, end) + "…";
    }
};

std::string shown(const checks::Check& c) {
    return checks::ratioText(c);
}

void checksOf(const design::Design& before, const design::Design& after,
              std::vector<Comparison::Check>& out) {
    for (const auto& e : after.elements) {
        const auto* old = before.find(e->element);
        std::map<std::string, const checks::Check*> was;
        if (old)
            for (const auto* c : old->all()) was[c->key] = c;
        std::set<std::string> here;
        for (const auto* c : e->all()) {
            here.insert(c->key);
            const auto found = was.find(c->key);
            if (found == was.end()) {
                if (checks::isJudged(*c))
                    out.push_back({e->name,
                                   c->title,
                                   {},
                                   shown(*c),
                                   checks::ratio(*c),
                                   c->outcome == checks::Outcome::Over});
                continue;
            }
            const auto& o = *found->second;
            const bool judged = checks::isJudged(o) && checks::isJudged(*c);
            const double change = judged ? checks::ratio(*c) - checks::ratio(o) : 0;
            if (o.outcome == c->outcome && std::abs(change) < 0.005) continue;
            out.push_back({e->name, c->title, shown(o), shown(*c), change,
                           c->outcome == checks::Outcome::Over && o.outcome != checks::Outcome::Over});
        }
        for (const auto& [key, o] : was)
            if (!here.contains(key) && checks::isJudged(*o))
                out.push_back({e->name, o->title, shown(*o), {}, -checks::ratio(*o), false});
    }
    for (const auto& e : before.elements)
        if (!after.find(e->element))
            for (const auto* o : e->all())
                if (checks::isJudged(*o))
                    out.push_back({e->name, o->title, shown(*o), {}, -checks::ratio(*o), false});
    std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) {
        return std::tuple(!a.worse, -a.change) < std::tuple(!b.worse, -b.change);
    });
}

}  // namespace

Comparison compare(const model::Project& before, const design::Design& designBefore,
                   const model::Project& after, const design::Design& designAfter) {
    Comparison c;
    Inputs inputs;
    inputs.walk(json::parse(projectText(before)), json::parse(projectText(after)), {});
    c.inputs = std::move(inputs.found);
    for (const auto& [when, design] : {std::pair("before", &designBefore), std::pair("after", &designAfter)})
        for (const auto& e : design->elements)
            if (!e->error.empty())
                c.notes.push_back(fmt::format("{} has no design {}: {}", e->name, when, e->error));
    checksOf(designBefore, designAfter, c.checks);
    const auto a = design::quantities(before, designBefore), b = design::quantities(after, designAfter);
    const std::string& money = after.basis.rates.currency;
    auto both = [&](const std::string& of, const design::Quantities& p, const design::Quantities& q) {
        c.amounts.push_back({of + ": steel", "kg", p.steel, q.steel});
        c.amounts.push_back({of + ": concrete", "m³", p.concrete, q.concrete});
        c.amounts.push_back({of + ": cost", money, p.cost, q.cost});
        c.amounts.push_back({of + ": carbon", "kg CO₂e", p.emissions, q.emissions});
    };
    std::vector<std::string> names;
    for (const auto* all : {&a, &b})
        for (const auto& q : *all)
            if (std::find(names.begin(), names.end(), q.name) == names.end()) names.push_back(q.name);
    auto of = [](const std::vector<design::Quantities>& all, const std::string& name) {
        design::Quantities sum;
        for (const auto& q : all)
            if (q.name == name) sum += q;
        return sum;
    };
    for (const auto& name : names) both(name, of(a, name), of(b, name));
    auto p = design::sum(a), q = design::sum(b);
    if (names.size() > 1) both("All elements", p, q);
    for (const auto* sizes : {&p.bySize, &q.bySize})
        for (const auto& [size, mass] : *sizes) p.bySize[size] += 0, q.bySize[size] += 0;
    for (const auto& [size, mass] : p.bySize)
        c.amounts.push_back({"Steel " + size.second, "kg", mass, q.bySize[size]});
    return c;
}

report::Document comparisonPage(const Comparison& c, const std::string& before, const std::string& after,
                                units::System system) {
    using Kind = report::Block::Kind;
    report::Document doc;
    doc.title = "Comparison";
    doc.system = system;
    doc.add(Kind::Title, "Comparison");
    doc.add(Kind::Paragraph, "Before: " + before + ". After: " + after + ".");
    for (const auto& note : c.notes) doc.add(Kind::Paragraph, note);
    if (c.same()) doc.add(Kind::Paragraph, "No input and no check differs.");
    auto put = [&](const char* title, const char* nothing, std::vector<std::vector<std::string>> rows) {
        doc.add(Kind::Subheading, title);
        if (rows.size() == 1)
            doc.add(Kind::Paragraph, nothing);
        else
            doc.table(std::move(rows));
    };
    auto dash = [](const std::string& s) { return s.empty() ? std::string("–") : s; };
    std::vector<std::vector<std::string>> rows{{"Quantity", "Before", "After", "Difference", ""}};
    for (const auto& a : c.amounts) {
        const double d = a.after - a.before;
        rows.push_back({a.what + ", " + a.unit, fmt::format("{:.1f}", a.before),
                        fmt::format("{:.1f}", a.after), fmt::format("{:+.1f}", d == 0 ? 0 : d),
                        a.before > 0 ? fmt::format("{:+.1f} %", 100 * d / a.before) : ""});
    }
    put("Quantities", "Nothing is designed.", std::move(rows));
    rows = {{"Element", "Check", "Before", "After", ""}};
    for (const auto& k : c.checks)
        rows.push_back({k.element, k.title, dash(k.before), dash(k.after), k.worse ? "now failing" : ""});
    put("Checks that changed", "None changed by 0.005 or more.", std::move(rows));
    rows = {{"Input", "Before", "After"}};
    for (const auto& i : c.inputs) rows.push_back({i.what, dash(i.before), dash(i.after)});
    put("Inputs that changed", "None.", std::move(rows));
    return doc;
}

std::string comparisonJson(const Comparison& c) {
    json j;
    j["notes"] = c.notes;
    j["inputs"] = json::array(), j["checks"] = json::array(), j["quantities"] = json::array();
    auto word = [](const std::string& s) { return s.empty() ? json() : json(s); };
    for (const auto& i : c.inputs)
        j["inputs"].push_back({{"what", i.what}, {"before", word(i.before)}, {"after", word(i.after)}});
    for (const auto& k : c.checks)
        j["checks"].push_back({{"element", k.element},
                               {"check", k.title},
                               {"before", word(k.before)},
                               {"after", word(k.after)},
                               {"now_over", k.worse}});
    for (const auto& a : c.amounts)
        j["quantities"].push_back({{"what", a.what},
                                   {"unit", a.unit},
                                   {"before", units::rounded(a.before, 8)},
                                   {"after", units::rounded(a.after, 8)}});
    return j.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

}  // namespace talvik::formats

// The one list of standards. A new standard is a folder and a line here.
#include <array>

#include "standards/aci318/aci318.h"
#include "standards/en1992/en1992.h"
#include "standards/rules.h"

namespace talvik::standards {
namespace {

struct Entry {
    const char* id;
    const char* title;
    std::shared_ptr<const Standard> (*make)(const catalogs::ParameterValues&);
};

constexpr std::array entries{
    Entry{"en1992", "EN 1992-1-1", [](const auto& changes) { return en1992::make(changes); }},
    Entry{"aci318-si", "ACI 318-19 SI",
          [](const auto& changes) { return aci318::make(aci318::si(), changes); }},
    Entry{"aci318-us", "ACI 318-19 inch-pound",
          [](const auto& changes) { return aci318::make(aci318::inchPound(), changes); }},
};

}  // namespace

const std::vector<std::string>& standardIds() {
    static const auto ids = [] {
        std::vector<std::string> all;
        for (const auto& e : entries) all.push_back(e.id);
        return all;
    }();
    return ids;
}

std::string name(Position position) {
    constexpr const char* names[] = {"interior", "edge", "corner", "re-entrant corner", "between edges"};
    return names[int(position)];
}

std::string standardTitle(std::string_view id) {
    for (const auto& e : entries)
        if (id == e.id) return e.title;
    return {};
}

std::shared_ptr<const Standard> makeStandard(std::string_view id, const catalogs::ParameterValues& changes) {
    for (const auto& e : entries)
        if (id == e.id) return e.make(changes);
    return nullptr;
}

}  // namespace talvik::standards

#include "standards/coverage.h"

#include <nlohmann/json.hpp>

#include "catalogs/catalogs.h"

namespace talvik::standards {

std::vector<Omission> omissions(std::string_view file, const std::string& prefix) {
    std::vector<Omission> all;
    for (const auto& row : nlohmann::json::parse(catalogs::dataText(file))) {
        const std::string of = row.value("for", "none");
        if (of == "none") continue;
        const std::string clause = row.at("clause");
        Omission o{row.at("key"), row.at("name"), clause.starts_with("EN ") ? clause : prefix + clause, row.at("reason")};
        o.slabs = of == "slabs" || of == "both";
        o.floors = of == "floors" || of == "both";
        o.beams = of == "beams";
        o.bases = of == "bases";
        all.push_back(std::move(o));
    }
    return all;
}

}  // namespace talvik::standards

// Reads the reference tables of tests/reference.
#pragma once

#include <fstream>
#include <map>
#include <sstream>
#include <string>
#include <vector>

namespace talvik::test {

inline std::string readText(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    std::stringstream s;
    s << in.rdbuf();
    return s.str();
}
inline std::string referencePath(const std::string& name) {
    return std::string(TALVIK_SOURCE_DIR) + "/tests/reference/" + name + ".csv";
}

using TextRow = std::map<std::string, std::string>;  // by column name without its unit
inline std::vector<TextRow> rows(const std::string& csv) {
    std::vector<std::string> names;
    std::vector<TextRow> all;
    std::istringstream lines(csv);
    for (std::string line; std::getline(lines, line);) {
        std::vector<std::string> cells;
        std::istringstream in(line);
        for (std::string cell; std::getline(in, cell, ',');) cells.push_back(cell);
        if (names.empty()) {
            for (const auto& c : cells) names.push_back(c.substr(0, c.find('[')));
            continue;
        }
        TextRow row;
        for (std::size_t i = 0; i < names.size() && i < cells.size(); ++i) row[names[i]] = cells[i];
        all.push_back(row);
    }
    return all;
}
inline double num(const TextRow& row, const std::string& name) {
    return std::stod(row.at(name));
}

}  // namespace talvik::test

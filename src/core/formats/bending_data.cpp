#include "formats/bending_data.h"

#include <fmt/format.h>

#include <cmath>

namespace talvik::formats {
namespace {

// Text of a field: what would end it, and what is no plain character, becomes a dash.
std::string plain(const std::string& text) {
    std::string out;
    for (char c : text) out += c == '@' || c < 32 || c > 126 ? '-' : c;
    return out;
}

// Legs and the angles between them, in the plane; empty for shapes that have none.
std::string legs(const schedule::Row& row) {
    auto at = [&](char letter) { return std::lround(row.dimensions.at(letter)); };
    if (row.shape == "00") return fmt::format("Gl{}@w0@", at('A'));
    if (row.shape == "11") return fmt::format("Gl{}@w90@l{}@w0@", at('A'), at('B'));
    if (row.shape == "21") return fmt::format("Gl{}@w90@l{}@w90@l{}@w0@", at('A'), at('B'), at('C'));
    if (row.shape == "51")  // closed, with two tails
        return fmt::format("Gl{}@w90@l{}@w90@l{}@w90@l{}@w90@l{}@w90@l{}@w0@", at('C'), at('B'), at('A'),
                           at('B'), at('A'), at('C'));
    return {};
}

}  // namespace

int bendingChecksum(std::string_view upToC) {
    int sum = 0;
    for (char c : upToC) sum += static_cast<unsigned char>(c);
    return 96 - sum % 32;
}

std::string bendingData(const model::Project& project, const design::Design& design) {
    std::string all;
    const auto& sheet = project.sheet;
    for (const auto& row : design.schedule().rows) {
        const std::string shape = legs(row);
        if (shape.empty()) continue;
        const double mandrel = 2 * design.standard->anchorage->bendRadius(row.diameter);
        std::string line =
            fmt::format("BF2D@Hj{}@r{}@i{}@p{}@l{}@n{}@e{:.3f}@d{}@g{}@s{}@", plain(project.name),
                        plain(sheet.number), plain(sheet.revision), row.mark, std::lround(row.cutLength),
                        row.total(), row.massEach, units::plain(row.diameter), plain(project.basis.steel),
                        row.shape == "00" ? 0 : std::lround(mandrel));
        line += shape + "C";
        all += fmt::format("{}{}@\r\n", line, bendingChecksum(line));
    }
    return all;
}

}  // namespace talvik::formats

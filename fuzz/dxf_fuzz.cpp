// Anything as a DXF drawing: read, placed, joined and made into members; what is made must be well formed.
#include <cstdlib>

#include "formats/dxf_reading.h"
#include "layout/connectivity.h"
#include "layout/linework.h"
#include "model/floor_validation.h"

using namespace talvik;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    auto read = formats::readDxfText({reinterpret_cast<const char*>(data), size});
    if (!read.error.empty()) return 0;
    if (read.work.paths.size() > 100'000) return 0;  // too long for a fuzzer
    auto under = layout::placeAsDrawn(read.work, "fuzz.dxf");
    auto segments = layout::segments(read.work, under);
    if (segments.size() > 3000) return 0;  // too long for a fuzzer
    layout::pathAt(read.work, under, {0, 0}, 100);
    std::vector<int> all;
    for (std::size_t i = 0; i < read.work.paths.size() && i < 200; ++i) all.push_back(int(i));
    using layout::As;
    for (As as : {As::Slab, As::Column, As::Wall, As::Beam, As::LineLoad, As::Grid}) {
        model::Project project;
        model::Floor floor;
        std::vector<std::string> notes;
        layout::make(project, floor, read.work, under, all, as, "", notes);
        if (floor.slabs.size() < 40 && model::wellFormed(floor, "f").empty())
            for (const auto& e : layout::looseEnds(floor))
                if (e.message.empty()) std::abort();
    }
    return 0;
}

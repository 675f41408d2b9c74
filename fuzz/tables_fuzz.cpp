// Anything as a table of column loads, as the ground below bases, as a map of columns or of layers, as a list
// of studs. What is accepted has to be a valid project; of small sets the design has to give numbers.
#include <cmath>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "design/bases.h"
#include "formats/column_loads.h"
#include "formats/import_map.h"
#include "model/edits.h"

using namespace talvik;

namespace {

const char* const someLoads =
    "column,x[m],y[m],width[mm],depth[mm],case,nature,use,N[kN],Hx[kN],Hy[kN],Mx[kNm],My[kNm]\n"
    "A1,0,0,300,300,G,permanent,,500,0,0,0,0\nA1,0,0,300,300,Q,imposed,B,200,5,0,0,10\n"
    "B1,5,0,400,400,G,permanent,,800,0,0,0,0\n";
const char* const someDrawing =
    "0\nSECTION\n2\nENTITIES\n0\nLWPOLYLINE\n8\nSLAB\n90\n4\n70\n1\n10\n0\n20\n0\n10\n9000\n20\n0\n10\n9000\n"
    "20\n6000\n"
    "10\n0\n20\n6000\n0\nCIRCLE\n8\nCOLUMN\n10\n1000\n20\n1000\n40\n200\n0\nLINE\n8\nWALL\n10\n0\n20\n0\n11\n"
    "0\n21\n"
    "6000\n0\nENDSEC\n0\nEOF\n";
const char* const someGround =
    "{\"kind\": \"pads\", \"allowable_kPa\": 200, \"allowable_is\": \"gross\", \"founding_depth_m\": 1}";

void makeBases(std::string_view csv, std::string_view json) {
    auto project = model::emptyProject();
    auto read = formats::readColumnLoads(csv, {}, project);
    for (const auto& s : read.keptOut)
        if (s.empty()) std::abort();
    if (!read.error.empty() || read.set.columns.size() > 4) return;
    auto set = std::make_shared<model::BaseSet>(std::move(read.set));
    set->id = model::newId(project, 'f'), set->name = "Bases";
    std::string source;
    if (!formats::readGround(json, project, *set, source).empty()) return;
    project.bases.push_back(set);
    if (!model::validate(project).empty()) return;
    const auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (!standard) std::abort();
    const auto answer = design::designBases(set, project.basis, standard);
    for (const auto* c : answer->all())
        if (std::isnan(c->demand) || std::isnan(c->limit)) std::abort();
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 1) return 0;
    const std::string_view text(reinterpret_cast<const char*>(data + 1), size - 1);
    switch (data[0] % 5) {
        case 0:
            makeBases(text, someGround);
            break;
        case 1:
            makeBases(someLoads, text);
            break;
        case 2: {
            std::map<std::string, std::string> headers;
            formats::readColumnMap(text, headers);
            break;
        }
        case 3: {
            static const auto work = formats::readDxfText(someDrawing);
            const auto made = formats::importFloor(model::emptyProject(), work, "fuzz.dxf", text);
            for (const auto& t : made.trouble)
                if (t.message.empty()) std::abort();
            break;
        }
        default: {
            const auto read = catalogs::readStudRails(text);
            if (read.trouble.empty() && read.rails.empty()) std::abort();
        }
    }
    return 0;
}

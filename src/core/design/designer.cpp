#include "design/designer.h"

#include "design/bases.h"
#include "design/floor_design.h"
#include "design/slab_design.h"

namespace talvik::design {

std::unique_ptr<Designer> makeDesigner(const model::Project& project, const model::Id& element) {
    std::unique_ptr<Designer> kinds[] = {std::make_unique<SlabDesigner>(), std::make_unique<FloorDesigner>(),
                                         std::make_unique<BasesDesigner>()};
    for (auto& kind : kinds)
        if (kind->serves(project, element)) return std::move(kind);
    return nullptr;
}

Designer::Answer designNow(const model::Project& project, const model::Id& element, std::stop_token stop,
                           const std::function<bool(const ElementAnswer&)>& enough) {
    Designer::Answer last;
    const auto designer = makeDesigner(project, element);
    if (!designer) return last;
    std::stop_source own;
    std::stop_callback passOn(stop, [&] { own.request_stop(); });
    designer->design({std::make_shared<const model::Project>(project), element}, own.get_token(), {},
                     [&](Designer::Answer answer) {
                         last = std::move(answer);
                         if (enough && enough(*last)) own.request_stop();
                     });
    return stop.stop_requested() ? nullptr : last;
}

}  // namespace talvik::design

// Reading of DXF drawings (ASCII, R12 to 2018) as linework. Our own reader of the group codes, rather than
// dxflib's: it has to count what it leaves out, to bound what a damaged file can ask for, and to be stopped.
// Source of the format: the published DXF reference; group codes as there.
#pragma once

#include <functional>
#include <stop_token>

#include "layout/linework.h"

namespace talvik::formats {

// Lines, polylines with bulges, arcs, circles, ellipses, splines (both approximated), solids as outlines, and
// blocks nested in each other with their scales and turns. `error` says why there is nothing; texts,
// dimensions, hatches and anything not known are counted by name in `work.unread`.
struct ReadLinework {
    layout::Linework work;
    std::string error;
    // Why it is not the whole drawing, where it ends before its end; what stands before is in `work`.
    std::string cut{};
};
ReadLinework readDxfText(std::string_view text, const std::function<void(double)>& progress = {},
                         std::stop_token stop = {});
ReadLinework openDxf(const std::string& path, const std::function<void(double)>& progress = {},
                     std::stop_token stop = {});

}  // namespace talvik::formats

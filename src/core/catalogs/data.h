// The data files compiled into the program (data/*.json, demos/*.talvik) by name.
#pragma once

#include <string_view>

namespace talvik::data {

// Text of an embedded file; empty when there is none of that name.
std::string_view file(std::string_view name);

}  // namespace talvik::data

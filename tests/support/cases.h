// How many cases a property tries: all of them, or an eighth in a build with sanitizers, which is that much
// slower.
#pragma once

#include <algorithm>

namespace talvik::test {

constexpr int cases(int all) {
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
    return std::max(1, all / 8);
#else
    return all;
#endif
}

}  // namespace talvik::test

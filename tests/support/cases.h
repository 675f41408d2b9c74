// What a build with sanitizers, which is slower, does with less haste.
#pragma once

#include <algorithm>
#include <cstdlib>

namespace talvik::test {

#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
inline constexpr bool sanitized = true;
#else
inline constexpr bool sanitized = false;
#endif

// How many cases a property tries: all of them, or an eighth with sanitizers.
constexpr int cases(int all) {
    return sanitized ? std::max(1, all / 8) : all;
}
// How many cases of a large property every run tries: an eighth, all of them under ./test --thorough.
inline int share(int all) {
    return cases(std::getenv("TALVIK_THOROUGH") ? all : std::max(1, all / 8));
}
// How long a test waits at the most, in ms: four times as long with sanitizers.
constexpr int patience(int ms) {
    return sanitized ? 4 * ms : ms;
}

}  // namespace talvik::test

// Eight doubles handled at once; the compiler turns them into whatever vector units the machine has. A
// function that works on packs is compiled several times, and the best is chosen when the program starts.
#pragma once

namespace talvik::fem {

using Pack = double __attribute__((vector_size(64)));
inline constexpr int lanes = 8;

#if defined(__x86_64__) && !defined(__clang__) && !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__)
#define TALVIK_VECTORISED __attribute__((target_clones("arch=skylake-avx512", "arch=haswell", "default")))
#else
#define TALVIK_VECTORISED
#endif

}  // namespace talvik::fem

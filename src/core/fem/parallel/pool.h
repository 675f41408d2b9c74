// One persistent pool of worker threads for assembly, recovery and the large dense blocks of the solver. Work
// is handed out in small pieces, so that a core that is busy elsewhere costs at most one piece. Results never
// depend on which thread did what: pieces write to places of their own.
#pragma once

#include <cstddef>
#include <functional>

namespace talvik::fem {

// Threads that may work at once, the caller included; 1 switches the pool off. Never more than the machine
// has.
void setThreads(unsigned count);
unsigned threads();

// Calls piece(i) for i in [0, count), on the calling thread and on idle workers; returns when all are done.
// A piece must not call parallelFor; called from a second thread meanwhile, the pieces run on that thread
// alone. An exception of a piece is rethrown in the caller after the others have finished.
void parallelFor(std::size_t count, const std::function<void(std::size_t)>& piece);

}  // namespace talvik::fem

// Work that cannot be stopped in the middle, done on a thread of its own so that whoever waits for it can
// leave.
#pragma once

#include <functional>
#include <memory>
#include <stop_token>

namespace talvik::fem {

// Runs `work` aside and waits for it; false when a stop is asked for first: then the work ends by itself some
// time later. So it must own, or share the ownership of, everything it touches. `meanwhile` is called in the
// waiting thread every few milliseconds. Work left behind is waited for when the program ends.
bool doAside(std::function<void()> work, std::stop_token stop, const std::function<void()>& meanwhile = {});

// Frees something large without waiting for it.
void letGo(std::shared_ptr<void> what);

}  // namespace talvik::fem

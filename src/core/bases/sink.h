// Takes the checks of a base one by one: gathers them with their names, places and working, or, of a solver,
// only asks whether one is over. Both see the same checks: what is reported is what was solved for.
#pragma once

#include <functional>
#include <optional>
#include <string_view>

#include "standards/base_rules.h"
#include "verify/check_list.h"

namespace talvik::bases {

using standards::BaseState;

// The combination under which something governs; none: -1.
struct Under {
    BaseState state = BaseState::Strength;
    int combination = -1;
};
// A direction of bars and a face: ends keys ("x", "y-top") and titles ("along x", "along y, top").
struct Way {
    int axis = 0;
    bool top = false;
    char letter() const { return axis == 0 ? 'x' : 'y'; }
    model::Face face() const { return top ? model::Face::Top : model::Face::Bottom; }
};

class Sink {
  public:
    using Name = std::function<std::string(Under)>;
    Sink() = default;  // asks
    Sink(verify::CheckList& into, checks::Place place, Name combination, bool working)
        : into_(&into), place_(std::move(place)), combination_(std::move(combination)), working_(working) {}

    void add(std::string_view key, std::string_view title, checks::Topic topic, checks::Finding finding,
             trace::Steps steps = {}, Under under = {}, std::optional<model::Face> face = {});
    // Of a way: the key and title end with it.
    void add(const char* key, const char* title, Way way, checks::Topic topic, checks::Finding finding,
             trace::Steps steps = {}, Under under = {});
    // The same where nothing that a solver chooses changes it: a pin, the column, the ground beside. Only
    // gathered.
    template <class... Args>
    void aside(Args&&... args) {
        if (into_) add(std::forward<Args>(args)...);
    }
    // One or the other: aside where someone else has decided.
    template <class... Args>
    void addOrAside(bool decided, Args&&... args) {
        decided ? aside(std::forward<Args>(args)...) : add(std::forward<Args>(args)...);
    }
    // Where the working of a check goes; null where none is kept.
    trace::Steps* steps(trace::Steps& t) const { return working_ ? &t : nullptr; }
    bool working() const { return working_; }
    // Words and what is only told are for those that gather.
    bool gathers() const { return into_ != nullptr; }
    bool over() const { return over_; }
    // Of one that asks: what follows changes nothing.
    bool enough() const { return !into_ && over_; }

  private:
    verify::CheckList* into_ = nullptr;
    checks::Place place_;
    Name combination_;
    bool working_ = false, over_ = false;
};

}  // namespace talvik::bases

// Checks of a part as they are gathered: keys, titles and places given the same way whatever is checked.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "checks/checks.h"

namespace talvik::verify {

// What a rule found, with its name in keys ("shear"), its title ("One-way shear") and its working.
struct NamedFinding {
    std::string name, title;
    checks::Topic topic = checks::Topic::None;
    checks::Finding finding;
    trace::Steps steps;
    std::string of{};  // follows the title where the place has no name of its own: "A–B/1–2"
};

class CheckList {
  public:
    // `prefix` begins every key; `whole` stands in keys for the part as a whole, and may be empty.
    CheckList(std::string prefix, std::string whole = {})
        : prefix_(std::move(prefix)), whole_(std::move(whole)) {}
    void add(NamedFinding named, const checks::Place& place, std::string combination = {},
             std::optional<model::Face> face = {});
    std::vector<checks::Check> take() { return std::move(all_); }

  private:
    std::string prefix_, whole_;
    std::vector<checks::Check> all_;
};

}  // namespace talvik::verify

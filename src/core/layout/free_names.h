// Names that no member of a floor has yet, one after the other, also while many are added.
#pragma once

#include <map>
#include <string>
#include <type_traits>
#include <unordered_set>

#include "model/floor.h"

namespace talvik::layout {

class FreeNames {
  public:
    explicit FreeNames(const model::Floor& floor) {
        model::eachMember(floor, [&](const std::string&, const auto& m) {
            if constexpr (requires { m.name; }) taken_.insert(m.name);
        });
    }
    bool taken(const std::string& name) const { return taken_.contains(name); }
    void take(const std::string& name) { taken_.insert(name); }
    // The first of "C1", "C2", ... that is free; taken from then on.
    std::string next(const std::string& prefix) {
        for (int& i = last_[prefix];;)
            if (std::string name = prefix + std::to_string(++i); taken_.insert(name).second) return name;
    }

  private:
    std::unordered_set<std::string> taken_;
    std::map<std::string, int> last_;
};

// What names of a kind of member begin with.
template <class T>
const char* namePrefix() {
    if constexpr (std::is_same_v<T, model::SlabArea>) return "S";
    if constexpr (std::is_same_v<T, model::Zone>) return "D";
    if constexpr (std::is_same_v<T, model::Opening>) return "O";
    if constexpr (std::is_same_v<T, model::Column>) return "C";
    if constexpr (std::is_same_v<T, model::Wall>) return "W";
    if constexpr (std::is_same_v<T, model::LineSupport>) return "E";
    if constexpr (std::is_same_v<T, model::FloorBeam>) return "B";
    if constexpr (std::is_same_v<T, model::Ground>) return "G";
    if constexpr (std::is_same_v<T, model::Pile>) return "P";
    if constexpr (std::is_same_v<T, model::SagLine>) return "F";
    return "X";
}

}  // namespace talvik::layout

// What can be read and changed of a member, as data: one list for forms, for changing many at once and for
// tests.
#pragma once

#include <variant>

#include "layout/placing.h"

namespace talvik::layout {

using Value = std::variant<double, bool, std::string>;  // a string for texts and choices
struct Property {
    std::string key, label;
    units::Kind kind = units::Kind::None;  // of numbers
    std::vector<std::string> options;      // of choices
    Value value;
};
// Of a member, in the order of the form; empty for an unknown id.
std::vector<Property> properties(const Floor& floor, const Id& id);
// Those that all the members share, with the value of the first; `mixed` names the keys in which they differ.
std::vector<Property> commonProperties(const Floor& floor, const std::set<Id>& ids,
                                       std::set<std::string>* mixed);
// Gives every member that has the property the value.
void setProperty(Floor& floor, const std::set<Id>& ids, const std::string& key, const Value& value);

}  // namespace talvik::layout

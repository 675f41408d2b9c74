// What would make a failing element pass: one search over edits, each verified by running everything on it.
// The kinds of element supply the attempts.
#pragma once

#include <functional>
#include <stop_token>
#include <string>
#include <vector>

#include "design/answer.h"
#include "design/design.h"

namespace talvik::design {

// One edit after which no check of what it is for is over, nor any other that was within before; and its
// price: changes in kg, m3 and by the project's rates.
struct Remedy {
    std::string text;
    int elsewhere = 0;  // checks of other parts that were over before and still are
    double worst = 0;   // largest ratio after it
    double steel = 0, concrete = 0, price = 0;
    model::Project project;
};

// One edit that may help; and edits of one kind, from the smallest intervention on, of which the first that
// helps counts.
struct Attempt {
    std::string text;
    std::function<model::Project(const model::Project&)> edit;
};
using Ladder = std::vector<Attempt>;

// Bars follow by themselves: those fixed by someone given back to the program; all slab of the element
// thicker by up to 120 mm; stronger concrete, which is that of the whole project, and is tried only where it
// has one element.
std::vector<Ladder> ladders(const model::Project& project, std::string_view element);
// Of a connection: studs, links, more top steel, a drop sized and placed, a larger column, then as of its
// floor.
std::vector<Ladder> ladders(const model::Project& project, const ElementAnswer& now,
                            const model::PartRef& part);

// Remedies for an element in which some check is over, in the order of its ladders; empty where none is over,
// where none was found, or when stopped. Floors are verified with their proof by field.
std::vector<Remedy> remedies(const model::Project& project, std::string_view element,
                             std::stop_token stop = {});
// For one part of an element: the element itself where the part is Whole. `each` is told every one as it is
// found.
std::vector<Remedy> remedies(const model::Project& project, const model::PartRef& part, std::stop_token stop,
                             const std::function<void(const Remedy&)>& each = {});

}  // namespace talvik::design

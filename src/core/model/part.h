// What checks, bars and pictures belong to. Identities: they are compared and copied, and no meaning is read
// out of their text.
#pragma once

#include <string>

namespace talvik::model {

// Identities, written "s1", "c12" and never reused.
using Id = std::string;

enum class Face { Bottom, Top };

// The element as a whole; a one-way slab seen along its spans; a design strip of a floor; the connection of a
// slab with a column, the end of a wall, a pile or a load; the edges of a floor, or one of its drops or
// openings; one of a set of bases.
enum class PartKind { Whole, OneWaySlab, Strip, Connection, Edge, Base };

// A part of an element: what a project holds a list of, and a person switches between. `key` tells parts of
// one kind apart; it is empty where an element has one only.
struct PartRef {
    Id element;
    PartKind kind = PartKind::Whole;
    std::string key{};
    bool operator==(const PartRef&) const = default;
};
// A place in a part that has a name of its own; `id` is that of the span, support or run within the part.
struct Spot {
    enum class In { Whole, Span, Support, Run };
    PartRef part;
    In in = In::Whole;
    Id id{};
    bool operator==(const Spot&) const = default;
    Spot whole() const { return {part, In::Whole, {}}; }
};

}  // namespace talvik::model

// Steps of level: where slabs beside each other have their tops or their soffits at different heights. Of
// slabs over each other the last one holds, as in the analysis; thickenings are no steps, and in them no soffit ends.
#pragma once

#include "model/floor.h"

namespace talvik::model {

// Faces nearer to one height than this, mm, lie at one height.
constexpr double sameHeight = 5;
// So much concrete, mm, has to pass at a step for bars of one slab to go on into the other.
constexpr double leastPassing = 100;

// A face, top or soffit, at one height; lowest first, one alone where the floor has no steps in it.
struct FaceLevel {
    double height = 0;                    // mm above the floor's level
    std::vector<geometry::Ring> others;   // where the face lies at another height
    std::vector<geometry::Ring> missing;  // where no slab surrounds bars of this face at their height
};
std::vector<FaceLevel> faceLevels(const Floor& floor, bool top);

// A side of a slab, which lies on its left: a free edge, or one at which a face of it ends, since the slab
// beside it has a lower top or a higher soffit. Where slabs alike go on there is none.
struct SlabSide {
    geometry::Segment along;
    std::size_t slab = 0;
    int beside = -1;  // the other slab; -1 at a free edge
};
std::vector<SlabSide> slabSides(const Floor& floor);

// Height of concrete that two slabs share at a step, mm; negative where there is none.
double passing(const SlabArea& a, const SlabArea& b);

// Where slabs beside each other share less than `leastPassing` and no wall or beam runs along to join them: they are
// apart there.
std::vector<geometry::Segment> gaps(const Floor& floor);

// Heights in plan, mm above the floor's level. Refers to the floor.
class Levels {
  public:
    explicit Levels(const Floor& floor);
    double at(geometry::Point p) const;  // of the top; of the first slab where the place is in none
    // By how much the top (or soffit) to which a bar keeps its cover lies above that of the same slab at the
    // floor's level: bars pass below a higher top and above a lower soffit.
    double ofBar(geometry::Segment bar, bool top) const;

  private:
    const Floor& floor_;
    bool stepped_ = false;
    std::vector<geometry::Ring> slabs_;
    const SlabArea* slab(geometry::Point p) const;
};

}  // namespace talvik::model

// One face of a base in one direction: what bends it and the bars there, and every check that follows, in
// strength and in service. A pad hands over two directions with two faces each, a cap likewise.
#pragma once

#include "bases/context.h"
#include "bases/sink.h"
#include "standards/rules.h"

namespace talvik::bases {

// One demand with the combination (of its state) that asks for it.
struct Asked {
    double value = 0;
    int combination = -1;
    void larger(double other, int in) {
        if (other > value) value = other, combination = in;
    }
};

struct Face {
    Way way;
    const Mat& mat;              // without a bar where there are none
    standards::Section section;  // where the moment is largest, with the depth of these bars
    standards::Section gross;    // with the mean breadth: for least and most steel and the neutral axis
    Asked moment,
        service;  // on the whole breadth; of strength, and of the state in which cracks are looked at
    BaseState serviceState = BaseState::Service;
    double cover = 0;           // of these bars, by which cracks are judged
    bool leastSteel = true;     // whether the standard's least steel is asked of this face
    bool flexure = true;        // whether bending is checked (a truss may take its place)
    bool pinned = false;        // bars that someone fixed: least steel, spacing and cracks are theirs
    const char* notes[2] = {};  // with flexure
    const char* plain = "";     // said where concrete without bars carries what there is
    const char* none = "";      // said where no bars allowed carry it
};
// Flexure, least steel, spacing, most steel, neutral axis, cracks.
void checkFace(const Context& in, const Face& face, Sink& sink);
// Cracks alone; none where nothing pulls bars.
std::optional<checks::Finding> cracksOf(const Context& in, const Face& face, trace::Steps* t = nullptr);

}  // namespace talvik::bases

// Conversion between stored units and those of an edition: the one place where they meet.
#pragma once

#include <algorithm>

#include "standards/aci318/aci318.h"

namespace talvik::standards::aci318 {

inline double area(const Edition& e) {
    return e.length * e.length;
}
inline const char* areaUnit(const Edition& e) {
    return e.units == units::System::Metric ? "mm²" : "in²";
}
inline double force(const Edition& e) {
    return e.stress * area(e);
}
inline double nativeMoment(double stored, const Edition& e) {
    return stored / (force(e) * e.length);
}
inline double storedMoment(double native, const Edition& e) {
    return native * force(e) * e.length;
}
inline Section native(const Section& s, const Edition& e) {
    return {s.b / e.length,  s.h / e.length,  s.d / e.length,
            s.d2 / e.length, s.fc / e.stress, s.fy / e.stress};
}

// Table 22.2.2.4.3; fc in the edition's unit.
inline double beta1(const Edition& e, double fc) {
    return std::clamp(0.85 - e.beta1Slope * (fc - e.beta1Start), 0.65, 0.85);
}

}  // namespace talvik::standards::aci318

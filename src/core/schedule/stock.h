// Cutting bars from stock: how the pieces of a diameter come out of bars of the stock length.
//
// One-dimensional cutting stock. Three ways are gone and the best kept: first fit by decreasing length;
// filling bar after bar as full as can be, the longest piece left always among them (minimum bin slack with a
// lead piece; Fleszar and Hindi 2002), by dynamic programming over lengths; and the whole bars of the linear
// relaxation over patterns (column generation; Gilmore and Gomory 1961), with what is left cut in the second
// way. No cutting needs fewer bars than the bound: the larger of that of Martello and Toth (1990, L2) and the
// relaxation's, rounded up.
#pragma once

#include <string>
#include <vector>

#include "schedule/schedule.h"

namespace talvik::schedule {

struct Piece {
    double length = 0;  // mm
    int number = 0;
    int mark = 0;  // 0: unnamed
};
// So many stock bars cut alike, each into these pieces.
struct Cut {
    int bars = 0;
    std::vector<Piece> pieces;
    double left = 0;  // of each bar, mm
};
struct CuttingPlan {
    std::vector<Cut> cuts;
    std::vector<Piece> tooLong;  // longer than the stock
    double stock = 0, used = 0;  // length of one bar; of all pieces
    int bars = 0, bound = 0;     // stock bars used; least that any cutting needs
    double waste() const { return bars > 0 ? 1 - used / (bars * stock) : 0; }
    double leastWaste() const { return bound > 0 ? 1 - used / (bound * stock) : 0; }
};
// Quick leaves out the relaxation, as for a search that cuts often; so does Thorough where there are more
// than 150 lengths.
enum class Effort { Quick, Thorough };
CuttingPlan cutFromStock(const std::vector<Piece>& pieces, double stock, Effort effort = Effort::Thorough);
// First fit by decreasing length: the number of bars alone.
int firstFit(const std::vector<Piece>& pieces, double stock);

// One plan for every type and size of a schedule that is cut from bars (shape 99 is bought as it is).
struct SizePlan {
    std::string bar;
    double diameter = 0, massPerMetre = 0;
    CuttingPlan plan;
};
std::vector<SizePlan> cuttingList(const Schedule& schedule, double stock);

}  // namespace talvik::schedule

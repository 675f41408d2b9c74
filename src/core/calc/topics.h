// The topics of the calculator by subject; inside this room only.
#pragma once

#include "calc/calc.h"

namespace talvik::calc {

std::vector<Topic> punchingTopics();
std::vector<Topic> groundTopics();

}  // namespace talvik::calc

// The topics of the calculator by subject; inside this room only.
#pragma once

#include "actions/factor_sets.h"
#include "calc/calc.h"

namespace talvik::calc {

std::vector<Topic> punchingTopics();
std::vector<Topic> groundTopics();
std::vector<Topic> sagTopics();
// What the topic wind_combos counts: factors of cases written "G:190;QB:400;W:270" by a rule, falling.
std::vector<actions::FactorSet> combinationSets(const std::string& rule, const std::string& cases);

}  // namespace talvik::calc

#include "model/amounts.h"

namespace talvik::model {
namespace {

constexpr std::pair<double Amounts::*, Rates::Rate Rates::*> rated[] = {
    {&Amounts::concrete, &Rates::concrete},     {&Amounts::steel, &Rates::steel},
    {&Amounts::formwork, &Rates::formwork},     {&Amounts::blinding, &Rates::blinding},
    {&Amounts::excavation, &Rates::excavation}, {&Amounts::pileLength, &Rates::pile},
    {&Amounts::pieces, &Rates::piece}};

double sum(const Amounts& a, const Rates& rates, double Rates::Rate::*what) {
    double all = 0;
    for (const auto& [amount, rate] : rated) all += a.*amount * (rates.*rate).*what;
    return all;
}

}  // namespace

Amounts& Amounts::operator+=(const Amounts& other) {
    for (const auto& [amount, rate] : rated) this->*amount += other.*amount;
    return *this;
}
Amounts Amounts::times(double number) const {
    Amounts all = *this;
    for (const auto& [amount, rate] : rated) all.*amount *= number;
    return all;
}
double Amounts::price(const Rates& rates) const {
    return sum(*this, rates, &Rates::Rate::price);
}
double Amounts::carbon(const Rates& rates) const {
    return sum(*this, rates, &Rates::Rate::carbon);
}

}  // namespace talvik::model

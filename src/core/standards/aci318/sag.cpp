// Sag by effective inertia: 24.2.
#include <cmath>

#include "standards/aci318/native.h"
#include "standards/cracked_section.h"

namespace talvik::standards::aci318 {
namespace {

class Sag final : public SagRules {
  public:
    Sag(const Edition& e, const catalogs::ParameterValues& p)
        : e_(e),
          lambda_(p.find("lambda")->second),
          xi_(p.find("xi")->second),
          live_(p.find("live_limit")->second),
          after_(p.find("after_limit")->second),
          total_(p.find("total_limit")->second) {}

    std::string clause() const override { return "ACI 318-19 7.3.2.1"; }
    Curvatures curvatures(const SagInput& in, Steps* t) const override {
        Curvatures k;
        const SagStation* peak = nullptr;
        auto magnitude = [&](const SagStation& s) { return in.cantilever ? -s.mTotal : s.mTotal; };
        for (const SagStation& s : in.stations)
            if (!peak || magnitude(s) > magnitude(*peak)) peak = &s;
        if (!peak) return k;
        bool sagging = peak->mTotal >= 0;
        double As = sagging ? peak->asBottom : peak->asTop,
               d = sagging ? peak->dBottom : in.section.h - peak->dTop;
        double topSteel = sagging ? peak->asTop : peak->asBottom;
        double Ec = modulus(in.section), total = effectiveInertia(in.section, peak->mTotal, As, d, t);
        double permanent = effectiveInertia(in.section, peak->mPermanent, As, d, nullptr);
        double rho2 = topSteel / (in.section.b * d);
        double lambda = trace::step(t, "lambda_Delta", "xi/(1 + 50*rho')", {{"xi", xi_}, {"rho'", rho2}},
                                    xi_ / (1 + 50 * rho2), "-", "ACI 318-19 24.2.4.1.1");
        for (const SagStation& s : in.stations) {
            double both = s.mTotal / (Ec * total), dead = s.mPermanent / (Ec * permanent),
                   lasting = lambda * s.mSustained / (Ec * total);
            k.live.push_back(both - dead);
            k.after.push_back(both - dead + lasting);
            k.total.push_back(both + lasting);
        }
        k.notes.push_back(
            "One effective inertia per span, at its largest moment (24.2.3.7); the lasting part uses that of "
            "the total load.");
        k.notes.push_back(
            "After partitions: immediate deflection under the imposed load and the long-term part of the "
            "sustained load.");
        return k;
    }

    SagPlace place(const Section& s, const SagStation& at, double, double) const override {
        const double Ec = modulus(s);
        SagPlace p;
        p.gross = 12 / (Ec * s.b * std::pow(s.h, 3));
        const bool sagging = at.mTotal >= 0;
        const double As = sagging ? at.asBottom : at.asTop, d = sagging ? at.dBottom : s.h - at.dTop,
                     other = sagging ? at.asTop : at.asBottom;
        p.cracked = 1 / (Ec * effectiveInertia(s, at.mTotal, As, d, nullptr));
        p.before = 1 / (Ec * effectiveInertia(s, at.mPermanent, As, d, nullptr));
        p.lasting = xi_ / (1 + 50 * other / (s.b * d)) * p.cracked;
        return p;
    }
    bool lastingBesides() const override { return true; }
    std::string sparedBy(bool twoWay) const override {
        return std::string(twoWay ? "ACI 318-19 8.3.2.1" : "ACI 318-19 7.3.2.1") +
               ", where nothing is supported that large deflections damage";
    }

    std::vector<SagLimit> limits() const override {
        return {
            {SagLimit::Which::Live, live_, "ACI 318-19 Table 24.2.2", "Immediate deflection, imposed load"},
            {SagLimit::Which::After, after_, "ACI 318-19 Table 24.2.2", "Deflection after partitions"},
            {SagLimit::Which::Total, total_, "office practice", "Long-term deflection"}};
    }

  private:
    double modulus(const Section& s) const { return e_.modulus * std::sqrt(s.fc / e_.stress) * e_.stress; }

    // Table 24.2.3.5: Ig up to (2/3) Mcr. Stored units; the working in native ones.
    double effectiveInertia(const Section& s, double moment, double As, double d, Steps* t) const {
        double M = std::abs(moment), Ig = s.b * s.h * s.h * s.h / 12, fc = s.fc / e_.stress,
               ratio = e_.Es * e_.stress / modulus(s);
        double fr = e_.rupture * lambda_ * std::sqrt(fc) * e_.stress, Mcr = fr * Ig / (s.h / 2),
               Icr = cracked(s.b, d, As, ratio).I;
        double Ie =
            M <= Mcr * 2 / 3 || As <= 0 ? Ig : Icr / (1 - std::pow(Mcr * 2 / 3 / M, 2) * (1 - Icr / Ig));
        if (!t) return Ie;
        const char *L = e_.lengthUnit, *S = e_.stressUnit, *K = e_.momentUnit;
        double i4 = std::pow(e_.length, 4), mu = e_.momentFactor * force(e_) * e_.length,
               scale = e_.units == units::System::Metric ? 1e6 : 1;
        const char* I4 = e_.units == units::System::Metric ? "10⁶ mm⁴" : "in⁴";
        trace::step(t, "M_cr", "k_r*lambda*sqrt(f'_c)*b*h^2/6/k_M",
                    {{"k_r", e_.rupture},
                     {"lambda", lambda_},
                     {"f'_c", fc, S},
                     {"b", s.b / e_.length, L},
                     {"h", s.h / e_.length, L},
                     {"k_M", e_.momentFactor}},
                    Mcr / mu, K, "ACI 318-19 24.2.3.5, 19.2.3.1");
        if (Ie == Ig)
            trace::step(t, "I_e", "b*h^3/12/k_I",
                        {{"b", s.b / e_.length, L}, {"h", s.h / e_.length, L}, {"k_I", scale}},
                        Ie / i4 / scale, I4, "ACI 318-19 Table 24.2.3.5(a)",
                        "not over two thirds of the cracking moment");
        else
            trace::step(t, "I_e", "I_cr/(1 - (2/3*M_cr/M_a)^2*(1 - I_cr/I_g))",
                        {{"I_cr", Icr / i4 / scale, I4},
                         {"M_cr", Mcr / mu, K},
                         {"M_a", M / mu, K},
                         {"I_g", Ig / i4 / scale, I4}},
                        Ie / i4 / scale, I4, "ACI 318-19 Table 24.2.3.5(b)");
        return Ie;
    }

    const Edition& e_;
    double lambda_, xi_, live_, after_, total_;
};

}  // namespace

std::unique_ptr<SagRules> sagRules(const Edition& e, const catalogs::ParameterValues& p) {
    return std::make_unique<Sag>(e, p);
}

}  // namespace talvik::standards::aci318

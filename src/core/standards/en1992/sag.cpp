// Sag by curvatures: 7.4.3.
#include <algorithm>
#include <cmath>

#include "standards/cracked_section.h"
#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {
namespace {

// Curvature of 7.4.3(3) at one station: moment M (any sign) with the steel tensioned by it; magnitude
// returned with the sign of M. Shrinkage bends towards the steel: its curvature carries the sign given by the
// face.
struct StateCurvature {
    double E;     // of the concrete
    double beta;  // 0.5 sustained, 1.0 short
    double fctm;
    double shrinkage;
};

// `before`: the largest moment that has acted until then. By 7.4.3(3) a section counts as cracked where the
// tensile strength has been exceeded; the share zeta then follows from that moment, which opened the crack,
// as (7.19) does from the stress on first cracking and that at the time.
double curvature(const Section& s, const SagStation& st, double M, double before, const StateCurvature& c) {
    double ratio = Es / c.E;
    bool sagging = M >= 0;
    double As = sagging ? st.asBottom : st.asTop, d = sagging ? st.dBottom : s.h - st.dTop;
    // Only the steel tensioned by M is counted; steel of the other face would stiffen a little.
    TransformedSection plain = uncracked(s.b, s.h, d, As, ratio), broken = cracked(s.b, d, As, ratio);
    double Mcr = c.fctm * plain.I / (s.h - plain.x), m = std::abs(M);
    // Of the other sign it has not cracked this face.
    const double opened = std::max(m, before * M > 0 ? std::abs(before) : 0);
    double zeta = opened > Mcr ? 1 - c.beta * (Mcr / opened) * (Mcr / opened) : 0;
    auto blend = [&](double I, double II) { return zeta * II + (1 - zeta) * I; };
    double bending = As > 0 ? blend(m / (c.E * plain.I), m / (c.E * broken.I)) : m / (c.E * plain.I);
    double shrink = As > 0 ? blend(c.shrinkage * ratio * As * (d - plain.x) / plain.I,
                                   c.shrinkage * ratio * As * (d - broken.x) / broken.I)
                           : 0;
    return sagging ? bending + shrink : -bending - shrink;
}

class Sag final : public SagRules {
  public:
    explicit Sag(const Parameters& p) : p_(p) {}

    std::string clause() const override { return "EN 1992-1-1 7.4.1(6)"; }
    Curvatures curvatures(const SagInput& in, Steps* t) const override {
        Concrete c = concrete(in.section.fc);
        double Eceff =
            trace::step(t, "E_c,eff", "E_cm/(1 + phi)", {{"E_cm", c.Ecm, "MPa"}, {"phi", in.creep}},
                        c.Ecm / (1 + in.creep), "MPa", "EN 1992-1-1 (7.20)");
        StateCurvature sustained{Eceff, 0.5, c.fctm, in.shrinkage}, early{c.Ecm, 1.0, c.fctm, 0};
        Curvatures k;
        for (const SagStation& st : in.stations) {
            double total = curvature(in.section, st, st.mSustained, st.mTotal, sustained);
            k.total.push_back(total);
            k.after.push_back(total - curvature(in.section, st, st.mBefore, 0, early));
        }
        if (t) explain(in, Eceff, c, t);
        k.notes.push_back(
            "Curvatures under the quasi-permanent combination; whether and how far the section is cracked "
            "follows "
            "from the characteristic one, whose cracks remain (7.4.3(3)); beta = 0.5, creep by E_c,eff, "
            "shrinkage included; only the steel tensioned by the moment counts.");
        k.notes.push_back("After partitions: less the immediate deflection under self-weight.");
        return k;
    }

    SagPlace place(const Section& s, const SagStation& at, double creep, double shrinkage) const override {
        const Concrete c = concrete(s.fc);
        const double Eceff = c.Ecm / (1 + creep);
        SagPlace p;
        p.gross = 12 / (c.Ecm * s.b * std::pow(s.h, 3));
        // Next to no moment: the flexibility of the uncracked section, with the sign that tells the face.
        const double least = 1e-6 * c.fctm * s.b * s.h * s.h;
        auto sure = [&](double m) { return std::abs(m) < least ? (at.mTotal < 0 ? -least : least) : m; };
        const double m = sure(at.mSustained), early = sure(at.mBefore);
        p.cracked = curvature(s, at, m, at.mTotal, {c.Ecm, 0.5, c.fctm, 0}) / m;
        const double bare = curvature(s, at, m, at.mTotal, {Eceff, 0.5, c.fctm, 0});
        p.lasting = bare / m;
        p.shrinkage = curvature(s, at, m, at.mTotal, {Eceff, 0.5, c.fctm, shrinkage}) - bare;
        p.before = curvature(s, at, early, 0, {c.Ecm, 1.0, c.fctm, 0}) / early;
        return p;
    }
    bool lastingBesides() const override { return false; }

    std::vector<SagLimit> limits() const override {
        return {
            {SagLimit::Which::Total, p_.deflection_limit, "EN 1992-1-1 7.4.1(4)", "Long-term deflection"},
            {SagLimit::Which::After, p_.after_limit, "EN 1992-1-1 7.4.1(5)", "Deflection after partitions"}};
    }

    // Reading: of limits no stricter than those of 7.4.1(4) and (5), which the clause names.
    std::string sparedBy(bool) const override {
        return p_.deflection_limit <= 250 && p_.after_limit <= 500 ? "EN 1992-1-1 7.4.2(2)" : "";
    }

    std::pair<double, std::string> camber() const override { return {250, "EN 1992-1-1 7.4.1(4)"}; }

  private:
    // The working at the station of the largest long-term moment.
    void explain(const SagInput& in, double Eceff, const Concrete& c, Steps* t) const {
        using trace::step;
        const SagStation* st = nullptr;
        for (const SagStation& s : in.stations)
            if (!st || (in.cantilever ? -s.mSustained > -st->mSustained : s.mSustained > st->mSustained))
                st = &s;
        if (!st) return;
        const Section& s = in.section;
        double M = std::abs(st->mSustained), As = st->mSustained >= 0 ? st->asBottom : st->asTop;
        double d = st->mSustained >= 0 ? st->dBottom : s.h - st->dTop, ratio = Es / Eceff;
        if (As <= 0) return;
        TransformedSection I = uncracked(s.b, s.h, d, As, ratio), II = cracked(s.b, d, As, ratio);
        double Mcr = step(
            t, "M_cr", "f_ctm*I_u*1e6/(h - x_u)/1e6",
            {{"f_ctm", c.fctm, "MPa"}, {"I_u", I.I / 1e6, "10⁶ mm⁴"}, {"h", s.h, "mm"}, {"x_u", I.x, "mm"}},
            c.fctm * I.I / (s.h - I.x) / 1e6, "kNm", "EN 1992-1-1 7.4.3(4)");
        const double opened = std::max(M, st->mTotal * st->mSustained > 0 ? std::abs(st->mTotal) : 0);
        double zeta =
            opened > Mcr * 1e6
                ? step(t, "zeta", "1 - beta*(M_cr/M_max)^2",
                       {{"beta", 0.5}, {"M_cr", Mcr, "kNm"}, {"M_max", opened / 1e6, "kNm"}},
                       1 - 0.5 * std::pow(Mcr * 1e6 / opened, 2), "-", "EN 1992-1-1 7.4.3(3), (7.19)",
                       "by the largest moment that acts before, of the characteristic combination")
                : step(t, "zeta", "", {}, 0, "-", "EN 1992-1-1 (7.19)", "the section is not cracked");
        step(t, "kappa", "(zeta/I_c + (1 - zeta)/I_u)*M/E_c,eff*1e6",
             {{"zeta", zeta},
              {"I_c", II.I / 1e6, "10⁶ mm⁴"},
              {"I_u", I.I / 1e6, "10⁶ mm⁴"},
              {"M", M / 1e6, "kNm"},
              {"E_c,eff", Eceff, "MPa"}},
             (zeta / II.I + (1 - zeta) / I.I) * M / Eceff * 1e6, "10⁻⁶/mm", "EN 1992-1-1 (7.18)",
             "bending part, at the largest moment");
        step(t, "kappa_cs", "epsilon_cs*E_s/E_c,eff*A_s*(zeta*(d - x_c)/I_c + (1 - zeta)*(d - x_u)/I_u)/1e6",
             {{"epsilon_cs", in.shrinkage * 1e6, "10⁻⁶"},
              {"E_s", Es, "MPa"},
              {"E_c,eff", Eceff, "MPa"},
              {"A_s", As, "mm²"},
              {"zeta", zeta},
              {"d", d, "mm"},
              {"x_c", II.x, "mm"},
              {"I_c", II.I / 1e6, "10⁶ mm⁴"},
              {"x_u", I.x, "mm"},
              {"I_u", I.I / 1e6, "10⁶ mm⁴"}},
             in.shrinkage * 1e6 * ratio * As * (zeta * (d - II.x) / II.I + (1 - zeta) * (d - I.x) / I.I),
             "10⁻⁶/mm", "EN 1992-1-1 (7.21)");
    }

    Parameters p_;
};

}  // namespace

std::unique_ptr<SagRules> sagRules(const Parameters& p) {
    return std::make_unique<Sag>(p);
}

}  // namespace talvik::standards::en1992

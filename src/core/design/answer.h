// What is computed for an element at one state of the project. Whoever shows, lists, draws or writes results
// reads these, and need not ask which kind of element it has. Answers are never changed once they are given;
// parts are shared from one to the next while nothing they depend on changed.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "checks/checks.h"
#include "model/amounts.h"
#include "schedule/schedule.h"
#include "verify/line_checks.h"

namespace talvik::design {

// Sag of a span at its stations, mm, positive downwards. `live` is empty where the standard has no such
// limit.
struct SpanSag {
    std::vector<double> x, total, after, live;
    double largest = 0, at = 0;
    double limit = 0;   // of the total; 0 where it is not judged
    double camber = 0;  // proposed at mid-span or tip, 0 for none
};

struct PartAnswer {
    model::PartRef part;
    std::string name;  // "Strip 1 column", as it is called beside others of its element
    std::vector<checks::Check> checks;
    std::vector<schedule::Item> items;  // its bars as they are cut and bent; none where they are not yet
    virtual ~PartAnswer() = default;
    // What it is, in a few words with values in display units.
    virtual std::string detail(units::System) const { return {}; }
    double worst() const { return checks::worst(checks); }
};

// A part that is a line, with its bars and what they resist.
struct LineAnswer : PartAnswer, verify::LineDesign {
    std::vector<SpanSag> sag;              // per span; none where it is not computed
    double outerTop = 0, outerBottom = 0;  // diameters of bars that lie outside of those along the line
    int direction = 0;                     // of the two in which an element carries
    std::string envelope;                  // of what the demand is one: "12 combinations"
    virtual line::View view() const = 0;
    // Bars across the line, where they are laid out with it.
    virtual std::vector<bars::Run> crossing() const { return {}; }
};

// What a kind of element says besides its checks: a heading, something with its value, or a sentence.
struct Fact {
    enum class Kind { Heading, Pair, Note } kind = Kind::Pair;
    std::string text, value = {};
};

// Links of a line, stretch by stretch; empty without any.
std::vector<Fact> linkFacts(const verify::LineDesign& line, units::System system);

// Parts with the same bars: one of them stands for all.
struct Alike {
    std::string name;
    std::shared_ptr<const PartAnswer> part;
    int members = 1;
};

struct ElementAnswer : model::Amounts {  // of one member
    model::Id element;
    std::string name;
    std::shared_ptr<const standards::Standard> standard;
    std::shared_ptr<const model::Basis> basis;             // with what is special to the element
    std::vector<checks::Check> checks;                     // of the element as a whole
    std::vector<std::shared_ptr<const PartAnswer>> parts;  // in an order that stays
    std::vector<std::string> assumptions;                  // besides those of the checks
    std::string error;                                     // why there are no results; empty where there are
    bool complete = true;                                  // false: something that takes longer follows
    int members = 1;                                       // that are alike; the rest is of one of them
    double area = 0;                                       // m2 in plan
    checks::Summary summary;                               // see summarise
    virtual ~ElementAnswer() = default;

    const PartAnswer* find(const model::PartRef& part) const;
    // All checks: the element's, then part by part; and one of them by its key, null without.
    std::vector<const checks::Check*> all() const;
    const checks::Check* check(std::string_view key) const;
    double worst() const;  // largest ratio of all that are judged
    // The checks of a part with their working; kinds that keep it give those they have.
    virtual std::vector<checks::Check> withWorking(const PartAnswer& part) const { return part.checks; }
    // About a place in a part, or about the element where there is none; values in display units.
    virtual std::vector<Fact> facts(const std::optional<model::Spot>&, units::System) const { return {}; }
    // Where a schedule is by groups of parts that are alike; none: by the element as a whole.
    virtual std::vector<Alike> alike() const { return {}; }
    void summarise();
};
checks::Check withWorking(const ElementAnswer& answer, const checks::Check& check);
line::LineBasis lineBasis(const ElementAnswer& answer, const LineAnswer& line);

}  // namespace talvik::design

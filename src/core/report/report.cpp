#include "report/report.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "design/floor_design.h"
#include "design/pile_schedule.h"
#include "drawing/base_figures.h"
#include "drawing/connection_detail.h"
#include "drawing/long_section.h"
#include "drawing/plan_figure.h"
#include "model/sources.h"
#include "opinions/panel_opinions.h"
#include "report/assumed.h"
#include "report/quantities_page.h"

namespace talvik::report {
namespace {

using units::Kind;

class Maker {
  public:
    Maker(const model::Project& project, const design::Design& design, Depth depth)
        : project_(project), design_(design), depth_(depth), system_(project.basis.units) {}

    Document make(const Convergences& convergences, std::string_view only) {
        doc_.title = project_.name + ": calculation";
        doc_.system = system_;
        doc_.working = depth_ == Depth::Full;
        add(Block::Kind::Title, project_.name);
        paragraph(fmt::format("Calculation of {} to {}. Revision {}{}{}.", contents(),
                              design_.standard ? design_.standard->edition : project_.basis.standard,
                              project_.sheet.revision,
                              project_.sheet.date.empty() ? "" : ", " + project_.sheet.date,
                              project_.sheet.author.empty() ? "" : ", " + project_.sheet.author));
        for (const auto& t : design_.trouble) paragraph(t.path + ": " + t.message);
        if (!design_.trouble.empty()) return std::move(doc_);
        auto sum = design_.summary();
        paragraph(fmt::format("{} checks failing, {} passing, {} not checked, {} not applicable.", sum.over,
                              sum.within, sum.notChecked, sum.notApplicable));
        if (doc_.working)
            paragraph(
                "Clause numbers refer to the standard named in the check, or else to that of the project. "
                "Repeated steps are shown by result only.");
        governing(only);
        basis();
        for (const auto& e : design_.elements)
            if (only.empty() || e->element == only) element(*e, convergences);
        if (only.empty() && !design_.elements.empty()) {
            add(Block::Kind::Heading, "Quantities");
            addQuantities(doc_, project_, design_);
        }
        return std::move(doc_);
    }
    Document analysisPage(const design::FloorDesign& d, const analysis::Convergence& convergence) {
        doc_.system = system_;
        add(Block::Kind::Title, d.name);
        analysis(d, convergence, true);
        return std::move(doc_);
    }

  private:
    void add(Block::Kind kind, std::string text) { doc_.add(kind, std::move(text)); }
    void paragraph(std::string text) { add(Block::Kind::Paragraph, std::move(text)); }
    void table(std::vector<std::vector<std::string>> rows) { doc_.table(std::move(rows)); }
    std::string text(double v, Kind k) const { return units::text(v, k, system_); }
    std::string num(double v, Kind k) const { return units::number(v, k, system_); }
    std::string unit(Kind k) const { return std::string(units::unit(k, system_).symbol); }

    // What the project holds: "one-way slabs, floors and pile caps".
    std::string contents() const {
        std::vector<std::string> parts;
        if (!project_.slabs.empty()) parts.push_back("one-way slabs");
        if (!project_.floors.empty()) parts.push_back("floors");
        for (auto kind : {model::BaseSet::Kind::Pads, model::BaseSet::Kind::Caps})
            if (holds(kind))
                parts.push_back(kind == model::BaseSet::Kind::Pads ? "pad footings" : "pile caps");
        if (parts.empty()) return "an empty project";
        std::string all = parts[0];
        for (std::size_t i = 1; i < parts.size(); ++i)
            all += (i + 1 < parts.size() ? ", " : " and ") + parts[i];
        return all;
    }
    bool holds(model::BaseSet::Kind kind) const {
        return std::any_of(project_.bases.begin(), project_.bases.end(),
                           [&](const auto& s) { return s->kind == kind; });
    }
    // Materials and covers of every kind of member that the project has.
    void materials() {
        const auto& b = project_.basis;
        const auto of = [&](const model::Material& m, const std::string& cover) {
            return std::vector<std::string>{
                "",
                fmt::format("{}, {}, {}", m.concrete, text(m.strength, Kind::Stress),
                            text(m.density, Kind::Density)),
                fmt::format("{}, {} yield strength", m.steel, text(m.yield, Kind::Stress)),
                fmt::format("{}, {}", units::plain(m.creep, 3), text(m.shrinkage, Kind::Strain)), cover};
        };
        std::vector<std::vector<std::string>> rows{{"Members", "Concrete: class, strength, density",
                                                    "Reinforcement", "Creep coefficient, shrinkage",
                                                    "Cover"}};
        const auto add = [&](const std::string& members, std::vector<std::string> row) {
            row[0] = members;
            rows.push_back(std::move(row));
        };
        const auto foundation = text(b.coverFoundation, Kind::Length);
        if (!project_.slabs.empty() || !project_.floors.empty())
            add("Slabs", of({b.concrete, b.concreteStrength, b.concreteDensity, 0, b.creep, b.shrinkage,
                             b.steel, b.steelYield},
                            fmt::format("top {}, bottom {}, sides {}", text(b.coverTop, Kind::Length),
                                        text(b.coverBottom, Kind::Length), text(b.coverSide, Kind::Length))));
        const auto any = [&](auto member) {
            return std::any_of(project_.floors.begin(), project_.floors.end(),
                               [&](const auto& f) { return !((*f).*member).empty(); });
        };
        if (any(&model::Floor::beams)) add("Beams", of(b.beam, "not designed"));
        if (any(&model::Floor::columns) || !project_.bases.empty())
            add("Columns", of(b.column, "not designed"));
        if (holds(model::BaseSet::Kind::Pads)) add("Pad footings", of(b.foundation, foundation));
        if (holds(model::BaseSet::Kind::Caps)) add("Pile caps", of(b.pileCap, foundation));
        table(rows);
    }

    // The worst checks of every element, and how many are over, open or assumed.
    void governing(std::string_view only) {
        add(Block::Kind::Heading, "What governs");
        std::vector<std::vector<std::string>> rows{
            {"Element", "Failing", "Passing", "Not checked", "Worst check", "Ratio", "Clause"}};
        for (const auto& e : design_.elements) {
            if (!only.empty() && e->element != only) continue;
            if (!e->error.empty()) {
                rows.push_back({e->name, "–", "–", "–", e->error, "", ""});
                continue;
            }
            const checks::Check* worst = nullptr;
            for (const auto* c : e->all())
                if (checks::isJudged(*c) && (!worst || checks::ratio(*c) > checks::ratio(*worst))) worst = c;
            rows.push_back({e->name, std::to_string(e->summary.over), std::to_string(e->summary.within),
                            std::to_string(e->summary.notChecked), worst ? worst->title : "–",
                            worst ? checks::ratioText(*worst) : "–", worst ? worst->clause : ""});
        }
        table(rows);
        std::vector<std::string> said;  // once each
        for (auto& a : assumed(project_, design_, model::Id(only)))
            if (std::find(said.begin(), said.end(), a.text) == said.end()) said.push_back(std::move(a.text));
        if (!said.empty()) add(Block::Kind::Subheading, "Assumed");
        for (auto& s : said) paragraph(std::move(s));
    }

    void basis() {
        const auto& b = project_.basis;
        add(Block::Kind::Heading, "Basis of design");
        table({{"Item", "Value"},
               {"Standard", design_.standard->edition},
               {"Concrete strength", design_.standard->strengthBasis == standards::StrengthBasis::Cube
                                         ? "characteristic, of cubes"
                                         : "characteristic, of cylinders"},
               {"Crack-width limit", fmt::format("top {}, bottom {}", text(b.crackLimitTop, Kind::Crack),
                                                 text(b.crackLimitBottom, Kind::Crack))}});
        materials();
        if (!b.parameters.empty()) {
            std::vector<std::vector<std::string>> rows{{"Parameter", "Recommended", "Used", "Clause"}};
            for (const auto& p : catalogs::parameterSet(design_.standard->parameterFile).parameters)
                if (auto it = b.parameters.find(p.key); it != b.parameters.end())
                    rows.push_back({p.key + ", " + p.meaning, units::plain(p.value), units::plain(it->second),
                                    p.clause});
            if (rows.size() > 1) {
                paragraph("Parameters changed from the recommended values:");
                table(rows);
            }
        }
        sources();
    }

    // Where governing values come from, and what they were before.
    void sources() {
        static constexpr const char* kinds[] = {"assumed", "site investigation", "client", "standard"};
        std::vector<std::vector<std::string>> rows{{"Governing value", "Used", "From", "Changes"}};
        for (const auto& g : model::governingValues(project_)) {
            auto found = project_.sources.find(g.key);
            if (found == project_.sources.end()) continue;
            const auto& s = found->second;
            std::string history;
            for (const auto& c : s.history)
                history += (history.empty() ? num(c.from, g.kind) : "") + " → " + num(c.to, g.kind) +
                           (c.afterFailure ? " (after a check failed)" : "");
            rows.push_back({g.label, text(g.value, g.kind),
                            kinds[static_cast<int>(s.kind)] + (s.note.empty() ? "" : ", " + s.note),
                            history});
        }
        if (rows.size() == 1) return;
        paragraph(
            "Governing values with a source or a history; all others are assumed and listed at the "
            "beginning:");
        table(rows);
    }

    // Checks of a part with their working, worst first.
    void checksOf(const design::ElementAnswer& e, const design::PartAnswer& part) {
        const auto all = doc_.working ? e.withWorking(part) : part.checks;
        for (const auto* c : checks::worstFirst(all)) doc_.check(*c);
    }

    // What kinds of element show of their own, then what all have.
    void element(const design::ElementAnswer& e, const Convergences& convergences) {
        if (const auto* f = dynamic_cast<const design::FloorDesign*>(&e)) {
            const auto found = convergences.find(e.element);
            return floor(*f, found == convergences.end() ? analysis::Convergence{} : found->second);
        }
        const auto* slab = dynamic_cast<const design::SlabAnswer*>(&e);
        add(Block::Kind::Heading, (slab ? "Slab " : "") + e.name);
        if (!e.error.empty()) return paragraph(e.error);
        for (const auto& part : e.parts)
            if (const auto* line = dynamic_cast<const design::LineAnswer*>(part.get()))
                doc_.figure(drawing::lineFigure(drawing::longSection(*line, project_.basis, design_.marks),
                                                part->name, 180),
                            "Long section; design moments (full line: hogging up, sagging down), resistance "
                            "of the bars (dashed line)" +
                                std::string(line->sag.empty() ? "." : ", and long-term deflection."));
        const auto* set = dynamic_cast<const design::BasesAnswer*>(&e);
        if (set) baseRegister(*set), piles(*set), cages(*set);
        if (slab) {
            geometry(*slab->design->slab);
            loads(*slab->design->slab, *slab->design);
            reactions(*slab->design->slab, *slab->design);
            opinion(*slab->design);
        }
        add(Block::Kind::Subheading, "Checks, worst first");
        for (const auto* c : checks::worstFirst(e.checks)) doc_.check(*c);
        if (set && set->bases.size() > mostBasesInFull)
            governingBases(*set);
        else
            for (const auto& part : e.parts) checksOf(e, *part);
        bars(e);
    }

    // Of more bases those that govern their type are shown in full; all stand in the register.
    static constexpr std::size_t mostBasesInFull = 40;
    void baseRegister(const design::BasesAnswer& answer) {
        add(Block::Kind::Subheading, "Register");
        std::vector<std::vector<std::string>> rows{{"Base", "Type", "What it is", "Governs", "Ratio"}};
        for (const auto& b : answer.bases) {
            const auto* worst = b->governing();
            rows.push_back({b->name, b->type, b->detail(system_), worst ? worst->what : "–",
                            worst ? checks::ratioText(*worst) : "–"});
        }
        table(rows);
    }
    void governingBases(const design::BasesAnswer& answer) {
        std::vector<const design::BasePart*> shown;
        auto ratio = [](const design::BasePart& b) {
            return b.governing() ? checks::ratio(*b.governing()) : 0;
        };
        for (const auto& [type, number] : answer.types) {
            const design::BasePart* worst = nullptr;
            for (const auto& b : answer.bases)
                if (b->type == type && (!worst || ratio(*b) > ratio(*worst))) worst = b.get();
            if (worst) shown.push_back(worst);
        }
        paragraph(fmt::format(
            "Of {} bases those {} are shown in full that are used most in their type; the register "
            "lists all.",
            answer.bases.size(), shown.size()));
        for (const auto* b : shown) checksOf(answer, *b);
    }

    void geometry(const model::OneWaySlab& s) {
        add(Block::Kind::Subheading, "Layout");
        paragraph(fmt::format("Thickness {}, width {}.", text(s.thickness, Kind::Length),
                              text(s.width, Kind::Span)));
        std::vector<std::vector<std::string>> rows{
            {"Span", "Length " + unit(Kind::Span), "Clear " + unit(Kind::Span)}};
        for (std::size_t i = 0; i < s.spans.size(); ++i)
            rows.push_back({model::spanLabel(s, i), num(s.spans[i].length, Kind::Span),
                            num(model::clearSpan(s, i), Kind::Span)});
        table(rows);
    }

    void loads(const model::OneWaySlab& s, const design::SlabDesign& d) {
        add(Block::Kind::Subheading, "Actions");
        const auto& l = d.analysis.load;
        std::vector<std::vector<std::string>> rows{{"Action", unit(Kind::AreaLoad)},
                                                   {"Self-weight", num(l.self, Kind::AreaLoad)}};
        for (const auto& f : s.finishes)
            rows.push_back({fmt::format("{}, {}", f.material, text(f.thickness, Kind::Length)),
                            num(f.thickness * f.density, Kind::AreaLoad)});
        rows.push_back({"Other permanent", num(l.other, Kind::AreaLoad)});
        rows.push_back({fmt::format("Imposed, use {}", s.imposedUse), num(l.imposed, Kind::AreaLoad)});
        table(rows);
        std::vector<std::vector<std::string>> combos{{"Combination", "Clause"}};
        for (const auto& c : d.analysis.combinations) combos.push_back({c.name, c.clause});
        table(combos);
        paragraph(
            fmt::format("Imposed load is placed in {} arrangements of spans. Largest difference between "
                        "reactions and loads over all cases: {:.1e} of the load.",
                        d.analysis.arrangements.size(), d.analysis.imbalance));
    }

    void reactions(const model::OneWaySlab& s, const design::SlabDesign& d) {
        add(Block::Kind::Subheading, "Reactions on the supports, " + unit(Kind::ForcePerWidth));
        std::vector<std::vector<std::string>> rows{{"Support", "Permanent", "Imposed, maximum",
                                                    "Imposed, minimum", "Ultimate, maximum", "Governing"}};
        for (std::size_t i = 0; i < d.analysis.reactions.size(); ++i) {
            const auto& r = d.analysis.reactions[i];
            rows.push_back({model::supportLabel(s, i), num(r.permanent, Kind::ForcePerWidth),
                            num(r.imposedMax, Kind::ForcePerWidth), num(r.imposedMin, Kind::ForcePerWidth),
                            num(r.ultimateMax.value, Kind::ForcePerWidth),
                            d.analysis.name(r.ultimateMax.by)});
        }
        table(rows);
    }

    // Piles with their places and what they carry.
    void piles(const design::BasesAnswer& answer) {
        const auto all = design::pileSchedule(answer);
        if (all.empty()) return;
        add(Block::Kind::Subheading, "Pile schedule");
        constexpr std::size_t most = 400;
        std::vector<std::vector<std::string>> rows{
            {"Pile cap", "Pile", "x " + unit(Kind::Span), "y " + unit(Kind::Span),
             "Head below ground " + unit(Kind::Span), "Largest " + unit(Kind::Force), "under",
             "Least " + unit(Kind::Force), "under"}};
        for (const auto& p : all) {
            if (rows.size() > most) break;
            rows.push_back({model::baseName(*answer.set, answer.set->bases[p.base->number]),
                            std::to_string(p.number), num(p.at.x, Kind::Span), num(p.at.y, Kind::Span),
                            num(design::cutOff(*answer.set), Kind::Span), num(p.largest, Kind::Force),
                            p.largestIn, num(p.least, Kind::Force), p.leastIn});
        }
        table(rows);
        if (all.size() > most)
            paragraph(
                fmt::format("{} piles in all: the others are in the file of the pile schedule.", all.size()));
        paragraph(
            fmt::format("{} reactions of equal elastic piles under a rigid cap, with the weight of the "
                        "cap and the soil on it, piles as drawn.",
                        answer.set->pile.ultimate ? "Ultimate" : "Characteristic"));
    }

    // Of each type, as far as a reader turns pages: section and cage.
    void cages(const design::BasesAnswer& answer) {
        std::size_t shown = 0;
        for (const auto& group : answer.alike()) {
            const auto* base = dynamic_cast<const design::BasePart*>(group.part.get());
            if (!base || ++shown > 12) break;
            const double across = std::max(base->size().B, base->size().L);
            for (const auto& f : {drawing::baseSection(answer, *base, 0, across / 110, system_),
                                  drawing::baseCage(answer, *base, {}, across / 90)}) {
                drawing::Sheet sheet = f.sheet;
                sheet.width = f.width, sheet.height = f.height;
                doc_.figure(std::move(sheet),
                            fmt::format("{}: {}, {} no.", group.name, base->detail(system_), group.members));
            }
        }
    }

    void floor(const design::FloorDesign& d, const analysis::Convergence& convergence) {
        add(Block::Kind::Heading, d.name);
        doc_.figure(drawing::planFigure(*d.floor, 180, system_), "Plan of the floor with its supports.");
        analysis(d, convergence, false);
        if (d.layout) strips(d), connections(d);
    }

    // A line for every connection; checks that are near their limits or over follow with those of the strips.
    void connections(const design::FloorDesign& d) {
        if (d.connections.empty()) return;
        add(Block::Kind::Subheading, "Punching");
        std::vector<std::vector<std::string>> rows{
            {"Connection", "Position", "V " + unit(Kind::Force), "M " + unit(Kind::Moment),
             "u " + unit(Kind::Length), "Face", "Perimeter", "With steel", "Shear reinforcement"}};
        auto ratio = [](double r) { return r > 0 ? fmt::format("{:.2f}", r) : std::string("–"); };
        for (const auto& c : d.connections) {
            const auto* s = c->shown();
            const auto* g = c->shownDemand();
            if (!s || !g) {
                rows.push_back({c->name, "not checked", "", "", "", "", "", "", ""});
                continue;
            }
            rows.push_back(
                {c->name, c->position(), num(std::abs(g->forces.V), Kind::Force),
                 num(std::abs(g->forces.Mx), Kind::Moment) + ", " + num(std::abs(g->forces.My), Kind::Moment),
                 num(s->length, Kind::Length), ratio(c->faceRatio()), ratio(c->controlRatio()),
                 ratio(c->steelRatio()), c->steelText(system_)});
        }
        table(rows);
        for (const auto& c : d.connections) {
            if (c->steel || c->worst() > 1)
                doc_.figure(
                    drawing::connectionDetail(*c, project_.basis, 180),
                    "Perimeters and shear reinforcement in plan, and a section along one line of legs.");
            checksOf(d, *c);
        }
    }

    void analysis(const design::FloorDesign& d, const analysis::Convergence& convergence, bool brief) {
        const auto& a = *d.analysis;
        for (const auto& t : a.trouble) paragraph(t.message);
        if (!a.good()) return;
        paragraph(fmt::format(
            "Analysed as a plate of {} triangles with {} unknowns; smallest angle {:.0f} degrees.",
            a.model->plate.triangles.size(), a.unknowns, a.model->mesh.smallestAngle));
        add(Block::Kind::Subheading, "Loads and reactions, " + unit(Kind::Force));
        std::vector<std::vector<std::string>> rows{{"Load case", "Loads", "Reactions", "Difference"}};
        for (const auto& c : a.cases)
            if (!brief || !c.arranged)
                rows.push_back(
                    {c.name, num(c.load, Kind::Force), num(c.reaction, Kind::Force),
                     c.imbalance < 1e-9 ? "below 1e-9 of the loads" : fmt::format("{:.1e}", c.imbalance)});
        table(rows);
        if (!brief) {
            add(Block::Kind::Subheading, "Combinations");
            rows = {{"Combination", "Clause"}};
            for (const auto& k : a.combinations) rows.push_back({k.name, k.clause});
            table(rows);
        }
        for (auto [state, name] :
             {std::pair(actions::LimitState::Ultimate, "Ultimate extremes"),
              std::pair(actions::LimitState::QuasiPermanent, "Quasi-permanent extremes")}) {
            auto all = a.extremes(state);
            if (all.empty()) continue;
            add(Block::Kind::Subheading, name);
            rows = {{"Quantity", "Value", "Place", "Combination"}};
            for (const auto& e : all)
                for (const auto* x : {&e.most, &e.least})
                    rows.push_back({analysis::title(e.field), text(x->value, analysis::kind(e.field)),
                                    fmt::format("({}, {}) {}", num(x->at.x, Kind::Span),
                                                num(x->at.y, Kind::Span), unit(Kind::Span)),
                                    a.combinations[x->combination].name});
            table(rows);
        }
        add(Block::Kind::Subheading, "Support forces, " + unit(Kind::Force));
        std::vector<double> most(a.model->supports.size(), -1e300), least(most.size(), 1e300);
        for (std::size_t k = 0; k < a.combinations.size(); ++k) {
            if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
            auto forces = a.forces(k);
            for (std::size_t s = 0; s < most.size(); ++s)
                most[s] = std::max(most[s], forces[s].up), least[s] = std::min(least[s], forces[s].up);
        }
        rows = {{"Support", "Ultimate, maximum", "Ultimate, minimum"}};
        for (std::size_t s = 0; s < most.size(); ++s)
            rows.push_back(
                {a.model->supports[s].name, num(most[s], Kind::Force), num(least[s], Kind::Force)});
        table(rows);
        for (const auto& p : opinions::panelOpinions(*model::findFloor(project_, d.element), a)) {
            add(Block::Kind::Subheading, "Cross-check, " + p.name);
            paragraph(p.source + ".");
            rows = {{"Place", "Analysis", "Hand method", "Ratio"}};
            for (const auto& r : p.rows) {
                rows.push_back({r.what, text(r.engine, r.kind), text(r.opinion, r.kind),
                                r.opinion != 0 ? fmt::format("{:.2f}", r.ratio()) : "-"});
            }
            table(rows);
        }
        if (!convergence.rows.empty()) {
            add(Block::Kind::Subheading, "On a mesh of half the size");
            rows = {{"Quantity", "This mesh", "Half the size", "Change"}};
            for (const auto& r : convergence.rows)
                rows.push_back({r.what, fmt::format("{:.2f} {}", r.coarse, r.unit),
                                fmt::format("{:.2f} {}", r.fine, r.unit),
                                fmt::format("{:+.1f} %", -100 * r.change())});
            table(rows);
        }
        if (!a.contactWord.empty()) paragraph(a.contactWord);
        if (!a.notes.empty()) add(Block::Kind::Subheading, "Warnings");
        for (const auto& n : a.notes) paragraph(n.message);
        add(Block::Kind::Subheading, "Assumptions");
        for (const auto& line : a.assumptions) paragraph(line);
    }

    // Every strip in a line with its bars and what governs; then those checks with their working.
    void strips(const design::FloorDesign& d) {
        add(Block::Kind::Subheading, "Design strips");
        paragraph(fmt::format("{} checks failing, {} passing, {} not checked.", d.summary.over,
                              d.summary.within, d.summary.notChecked));
        for (std::size_t k : {0u, 1u}) {
            const auto& c = d.layout->coverage[k];
            paragraph(
                c.uncovered == 0 && c.overlapped == 0
                    ? fmt::format("Strips {}: complete coverage of the slab.", strips::directionName(int(k)))
                    : fmt::format("Strips {}: {:.2f} m² of slab in none, {:.2f} m² in two.",
                                  strips::directionName(int(k)), c.uncovered / 1e6, c.overlapped / 1e6));
        }
        if (d.proof) {
            paragraph(
                "Reinforcement by FE field: the moments of the mesh's own field against the bars provided, "
                "without the forces of the strips.");
            std::vector<std::vector<std::string>> found{
                {"By the FE field", "Checked m²", "Failing m²", "Worst", "At m"}};
            auto line = [&](const std::string& what, const design::ProofOf& o) {
                found.push_back({what, fmt::format("{:.1f}", o.judged / 1e6),
                                 fmt::format("{:.2f}", o.shortArea / 1e6), fmt::format("{:.2f}", o.worst),
                                 fmt::format("({:.2f}, {:.2f})", o.at.x / 1000, o.at.y / 1000)});
            };
            for (int k : {0, 1})
                for (bool top : {false, true})
                    line(fmt::format("Steel {} {}", top ? "top" : "bottom", strips::directionName(k)),
                         d.proof->steel[std::size_t(k)][top]);
            line("Shear", d.proof->shear);
            table(found);
        }
        std::vector<std::vector<std::string>> rows{{"Strip", "Bottom", "Top", "Governing check", "Ratio"}};
        for (const auto& s : d.strips) {
            std::string bars[2];
            for (const auto& r : s->runs) {
                std::string one = fmt::format("{}-{}{}", r.bar, num(r.spacing, Kind::BarSpacing),
                                              r.band() ? " in bands" : "");
                if (bars[r.top()].find(one) == std::string::npos)
                    bars[r.top()] += (bars[r.top()].empty() ? "" : ", ") + one;
            }
            auto worst = checks::worstFirst(s->checks);
            bool some = !worst.empty();
            rows.push_back({s->strip->name, bars[0], bars[1], some ? worst.front()->title : "-",
                            some ? checks::ratioText(*worst.front()) : "-"});
        }
        table(rows);
        for (const auto& c : d.checks) doc_.check(c);
        add(Block::Kind::Subheading, "What governs in the strips");
        // A section of the strip nearest to its limits in either direction, and of those over them.
        const design::StripDesign* nearest[2] = {nullptr, nullptr};
        for (const auto& s : d.strips) {
            auto& n = nearest[s->direction == 0 ? 0 : 1];
            if (!n || s->worst() > n->worst()) n = s.get();
        }
        for (const auto& s : d.strips) {
            const auto all = checks::worstFirst(s->checks);
            if (s.get() == nearest[0] || s.get() == nearest[1] || s->worst() > 1)
                doc_.figure(
                    drawing::lineFigure(drawing::longSection(*s, *d.basis, design_.marks), s->name, 180),
                    s->name + ": design moments and the resistance of the bars (dashed line).");
            for (std::size_t i = 0; i < all.size(); ++i) {
                if (i > 0 && all[i]->outcome != checks::Outcome::Over) break;
                auto c = design::withWorking(d, *all[i]);
                c.title = s->name + ": " + c.title;
                doc_.check(std::move(c));
            }
        }
    }

    void opinion(const design::SlabDesign& d) {
        add(Block::Kind::Subheading, "Cross-check: moment coefficients");
        const auto& so = d.secondOpinion;
        paragraph(so.source + (so.refusal.empty() ? "." : ": conditions not met, " + so.refusal + "."));
        if (!so.refusal.empty()) return;
        if (!so.note.empty()) paragraph(so.note);
        std::vector<std::vector<std::string>> rows{
            {"Place", "Analysis " + unit(Kind::MomentPerWidth), "Coefficients", "Ratio"}};
        for (const auto& r : so.rows)
            rows.push_back(
                {r.what, num(r.engine, r.kind), num(r.opinion, r.kind), fmt::format("{:.2f}", r.ratio())});
        table(rows);
    }

    void bars(const design::ElementAnswer& e) {
        const auto schedule = design_.scheduleOf(e);
        if (schedule.rows.empty()) return;
        add(Block::Kind::Subheading, "Bars");
        std::vector<std::vector<std::string>> rows{
            {"Call-out", "Shape", "Length " + unit(Kind::Length), "Mass " + unit(Kind::Mass)}};
        for (const auto& part : e.parts)
            for (const auto& item : part->items)
                rows.push_back({schedule::callout(item, design_.marks, system_), item.shape,
                                num(item.cutLength, Kind::Length),
                                num(item.number * item.massEach, Kind::Mass)});
        rows.push_back({"Total", "", "", num(schedule.mass, Kind::Mass)});
        table(rows);
    }

    const model::Project& project_;
    const design::Design& design_;
    Depth depth_;
    units::System system_;
    Document doc_;
};

std::string escaped(const std::string& s) {
    std::string out;
    for (char c : s) {
        if (c == '<')
            out += "&lt;";
        else if (c == '>')
            out += "&gt;";
        else if (c == '&')
            out += "&amp;";
        else if (c == '"')
            out += "&quot;";
        else
            out += c;
    }
    return out;
}

// The gauge of the interface: ink to the notch at the limit, hatched beyond it.
std::string gauge(const checks::Check& c) {
    constexpr double w = 150, notch = 115;
    if (c.outcome == checks::Outcome::NotApplicable)
        return "<svg width=\"150\" height=\"10\"><line x1=\"0\" y1=\"5\" x2=\"14\" y2=\"5\" "
               "stroke=\"#5d6b74\" stroke-width=\"1.5\"/></svg>";
    if (c.outcome == checks::Outcome::NotChecked)
        return "<svg width=\"150\" height=\"10\"><rect x=\"0.5\" y=\"1.5\" width=\"149\" height=\"7\" "
               "fill=\"none\" stroke=\"#5d6b74\" stroke-dasharray=\"4 3\"/></svg>";
    double r = std::min(checks::ratio(c), w / notch), fill = std::min(r, 1.0) * notch;
    std::string s = fmt::format(
        "<svg width=\"150\" height=\"10\"><rect x=\"0.5\" y=\"1.5\" width=\"149\" height=\"7\" fill=\"#fff\" "
        "stroke=\"#c9cbc4\"/><rect x=\"0\" y=\"1\" width=\"{:.1f}\" height=\"8\" fill=\"#1f2a33\"/>",
        fill);
    if (c.outcome == checks::Outcome::Over)
        s += fmt::format(
            "<rect x=\"{:.0f}\" y=\"1\" width=\"{:.1f}\" height=\"8\" fill=\"url(#over)\" stroke=\"#c8401f\" "
            "stroke-width=\"0.7\"/>",
            notch, std::max(4.0, r * notch - notch));
    return s + fmt::format(
                   "<line x1=\"{0:.0f}\" y1=\"0\" x2=\"{0:.0f}\" y2=\"10\" stroke=\"#1f2a33\" "
                   "stroke-width=\"1.6\"/></svg>",
                   notch);
}

// "EN 1992-1-1 " of "EN 1992-1-1 6.1": two words.
std::string_view standardOf(std::string_view clause) {
    const auto first = clause.find(' '), second = first == clause.npos ? first : clause.find(' ', first + 1);
    return second == clause.npos ? std::string_view() : clause.substr(0, second + 1);
}

// Less important words. Not by a style: Qt reads each anew, which takes long.
std::string grey(const std::string& words) {
    return "<font color=\"#5d6b74\">" + words + "</font>";
}

// The steps of a check, what is worked out above by its result alone, and its notes. Clauses of the standard
// that the check names stand without its name.
std::string workingHtml(const checks::Check& c, const Told& told) {
    constexpr auto html = trace::Form::Html;
    constexpr auto line = "<br>&nbsp;&nbsp;&nbsp;";
    std::string s, above;
    auto sayAbove = [&] {
        if (!above.empty()) s += line + above + " " + grey("as above");
        above.clear();
    };
    const auto standard = standardOf(c.clause);
    for (std::size_t k = 0; k < c.steps.size(); ++k) {
        const auto& step = c.steps[k];
        if (told.steps[k]) {
            above += (above.empty() ? "" : ", ") + trace::symbol(step.symbol, html) + " " +
                     trace::result(step, html);
            continue;
        }
        sayAbove();
        std::string_view clause = step.clause;
        if (!standard.empty() && clause.starts_with(standard)) clause.remove_prefix(standard.size());
        s += fmt::format(
            "{}{} {} <b>{}</b> {}", line, trace::formula(step, html), trace::substituted(step, html),
            trace::result(step, html),
            grey(escaped(std::string(clause)) + (step.note.empty() ? "" : ": " + escaped(step.note))));
    }
    // What says nothing new stays on the line of the check.
    if (s.empty() && c.here.empty() && c.notes.empty() && !above.empty())
        return " " + grey("calculated above");
    sayAbove();
    for (const auto& fact : c.here) s += line + ("<i>" + escaped(fact) + "</i>");
    std::string numbers;
    for (std::size_t k = 0; k < c.notes.size(); ++k) {
        const auto& note = told.notes[k];
        if (note.above)
            numbers += fmt::format("{}{}", numbers.empty() ? "" : ", ", note.number);
        else
            s += fmt::format("{}<i>Note {}: {}</i>", line, note.number, escaped(c.notes[k]));
    }
    if (!numbers.empty())
        s += fmt::format("{}<i>Note{} {} as above.</i>", line, numbers.find(',') == numbers.npos ? "" : "s",
                         numbers);
    return s;
}

std::string checkHtml(const Document& doc, int index, Target target) {
    const checks::Check& c = doc.checks[std::size_t(index)];
    bool judged = checks::isJudged(c);
    std::string ratio = checks::ratioText(c);
    if (c.outcome == checks::Outcome::Over) ratio = "<b style=\"color:#c8401f\">" + ratio + " fails";
    std::string picture = target == Target::Page
                              ? gauge(c)
                              : fmt::format("<img src=\"gauge:{:.4f}:{}\" width=\"110\" height=\"9\">",
                                            judged ? checks::ratio(c) : 0.0, checks::name(c.outcome));
    std::string s = target == Target::Page ? "<div class=\"check\">" : "<p style=\"margin:7px 0 0 0\">";
    s += fmt::format("<b>{}</b> &nbsp; {} &nbsp; {} &nbsp; {} {}", escaped(c.title), picture, ratio,
                     judged ? escaped(checks::figures(c, doc.system)) : escaped(c.reason),
                     grey(escaped(c.clause)));
    if (!c.combination.empty()) s += "<br>" + grey(escaped(c.combination));
    if (doc.working) s += workingHtml(c, doc.told[std::size_t(index)]);
    return s + (target == Target::Page ? "</div>\n" : "</p>\n");
}

}  // namespace

void Document::add(Block::Kind kind, std::string words) {
    if (kind == Block::Kind::Heading) above_.clear(), notes_ = 0;
    blocks.push_back({kind, std::move(words), {}});
}

void Document::check(checks::Check c) {
    Told all;
    for (const auto& step : c.steps) {
        std::string key = fmt::format("{} = {} = {} {}\n{}\n{}", step.symbol, step.expression, step.result,
                                      step.unit, step.clause, step.note);
        for (const auto& input : step.inputs) key += fmt::format("\n{} {}", input.symbol, input.value);
        all.steps.push_back(!above_.emplace(std::move(key), 0).second);
    }
    for (const auto& note : c.notes) {
        const auto [at, first] = above_.emplace("note " + note, notes_ + 1);
        if (first) ++notes_;
        all.notes.push_back({at->second, !first});
    }
    told.push_back(std::move(all));
    checks.push_back(std::move(c));
    blocks.push_back({Block::Kind::Check, "", {}, static_cast<int>(checks.size()) - 1});
}

Document make(const model::Project& project, const design::Design& design, Depth depth,
              const Convergences& convergences, std::string_view element) {
    return Maker(project, design, depth).make(convergences, element);
}

Document analysisPage(const model::Project& project, const design::Design& design,
                      const design::FloorDesign& floor, const analysis::Convergence& convergence) {
    return Maker(project, design, Depth::Summary).analysisPage(floor, convergence);
}

std::string svg(const drawing::Sheet& sheet) {
    std::string s = fmt::format(
        "<svg viewBox=\"0 0 {0:.2f} {1:.2f}\" width=\"100%\" xmlns=\"http://www.w3.org/2000/svg\" "
        "font-family=\"Inter, sans-serif\">",
        sheet.width, sheet.height);
    auto flip = [&](double y) { return sheet.height - y; };
    auto colour = [](drawing::Layer l) { return fmt::format("#{:06x}", drawing::style(l).colour); };
    for (const auto& item : sheet.items) {
        if (const auto* p = std::get_if<drawing::Polyline>(&item)) {
            s += p->closed ? "<polygon points=\"" : "<polyline points=\"";
            for (const auto& q : p->points) s += fmt::format("{:.2f},{:.2f} ", q.x, flip(q.y));
            std::string dash;
            for (double d : drawing::style(p->layer).dash) dash += fmt::format("{} ", d);
            s += fmt::format("\" fill=\"{}\" stroke=\"{}\" stroke-width=\"{}\"{}/>",
                             p->filled ? colour(p->layer) : "none", colour(p->layer),
                             drawing::style(p->layer).width,
                             dash.empty() ? "" : fmt::format(" stroke-dasharray=\"{}\"", dash));
        } else if (const auto* c = std::get_if<drawing::Circle>(&item)) {
            s += fmt::format(
                "<circle cx=\"{:.2f}\" cy=\"{:.2f}\" r=\"{:.2f}\" fill=\"{}\" stroke=\"{}\" "
                "stroke-width=\"{}\"/>",
                c->centre.x, flip(c->centre.y), c->radius, c->filled ? colour(c->layer) : "none",
                colour(c->layer), drawing::style(c->layer).width);
        } else if (const auto* t = std::get_if<drawing::Text>(&item)) {
            const char* anchor = t->align == drawing::Align::Left     ? "start"
                                 : t->align == drawing::Align::Centre ? "middle"
                                                                      : "end";
            s += fmt::format(
                "<text x=\"{:.2f}\" y=\"{:.2f}\" font-size=\"{:.2f}\" text-anchor=\"{}\"{} "
                "fill=\"{}\">{}</text>",
                t->at.x, flip(t->at.y), t->height * 1.38, anchor, t->bold ? " font-weight=\"600\"" : "",
                colour(t->layer), escaped(t->text));
        }
    }
    return s + "</svg>";
}

std::string html(const Document& doc, Target target) {
    std::string s = "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>" +
                    escaped(doc.title) + "</title>\n";
    if (target == Target::Page)
        s += "<style>body{font-family:Inter,sans-serif;font-size:13px;color:#1f2a33;background:#fbfaf6;max-"
             "width:1000px;margin:24px auto;padding:0 20px;font-variant-numeric:tabular-nums}"
             "table{border-collapse:collapse;margin:6px 0 14px}td,th{border-bottom:1px solid "
             "#c9cbc4;padding:3px 14px 3px 0;text-align:left}"
             ".check{border-top:1px solid #c9cbc4;padding:7px "
             "0;line-height:1.55}h1{font-size:22px}h2{font-size:17px;margin-top:28px}h3{font-size:14px}"
             ".sub{margin-left:18px}nav a{color:#34508f;text-decoration:none}"
             "figure{margin:10px 0}figcaption{color:#5d6b74}</style>\n"
             "</head><body>\n<svg width=\"0\" height=\"0\" style=\"position:absolute\"><defs><pattern "
             "id=\"over\" width=\"5\" height=\"5\" patternUnits=\"userSpaceOnUse\" "
             "patternTransform=\"rotate(45)\"><rect width=\"5\" height=\"5\" fill=\"#fff\"/>"
             "<rect width=\"2.5\" height=\"5\" fill=\"#c8401f\"/></pattern></defs></svg>\n";
    else
        s += "</head><body>\n";
    if (target == Target::Page && hasContents(doc)) {
        s += "<nav><h2>Contents</h2>\n";
        for (std::size_t i = 0; i < doc.blocks.size(); ++i) {
            const Block& b = doc.blocks[i];
            if (b.kind == Block::Kind::Heading || b.kind == Block::Kind::Subheading)
                s += fmt::format("<div{}><a href=\"#s{}\">{}</a></div>\n",
                                 b.kind == Block::Kind::Subheading ? " class=\"sub\"" : "", i,
                                 escaped(b.text));
        }
        s += "</nav>\n";
    }
    return s + html(doc, 0, doc.blocks.size(), target) + "</body></html>\n";
}

bool hasContents(const Document& doc) {
    const auto headings = std::count_if(doc.blocks.begin(), doc.blocks.end(),
                                        [](const Block& b) { return b.kind == Block::Kind::Heading; });
    return doc.blocks.size() > 40 && headings > 2;
}

std::vector<std::size_t> pieces(const Document& doc, std::size_t most) {
    std::vector<std::size_t> all{0};
    for (std::size_t i = 1; i < doc.blocks.size(); ++i) {
        const auto kind = doc.blocks[i].kind;
        // A heading right after the title stays with it.
        const bool early = i - all.back() < 8 && all.size() == 1;
        if ((kind == Block::Kind::Heading && !early) ||
            (kind == Block::Kind::Subheading && i - all.back() > most) || i - all.back() > 4 * most)
            all.push_back(i);
    }
    return all;
}

std::string html(const Document& doc, std::size_t from, std::size_t to, Target target) {
    std::string s;
    auto anchor = [&](std::size_t i) {
        return target == Target::Page ? fmt::format(" id=\"s{}\"", i) : std::string();
    };
    for (std::size_t i = from; i < to; ++i) {
        const Block& b = doc.blocks[i];
        switch (b.kind) {
            case Block::Kind::Title:
                s += "<h1>" + escaped(b.text) + "</h1>\n";
                break;
            case Block::Kind::Heading:
                s += "<h2" + anchor(i) + ">" + escaped(b.text) + "</h2>\n";
                break;
            case Block::Kind::Subheading:
                s += "<h3" + anchor(i) + ">" + escaped(b.text) + "</h3>\n";
                break;
            case Block::Kind::Paragraph:
                s += "<p>" + escaped(b.text) + "</p>\n";
                break;
            case Block::Kind::Check:
                s += checkHtml(doc, b.index, target);
                break;
            case Block::Kind::Figure:
                if (target == Target::Page)
                    s += "<figure>" + svg(doc.figures[b.index]) + "<figcaption>" + escaped(b.text) +
                         "</figcaption></figure>\n";
                else
                    s += fmt::format(
                        "<p><img src=\"figure:{}\" width=\"{:.0f}\" height=\"{:.0f}\"></p><p>{}</p>\n",
                        b.index, doc.figures[b.index].width * 3.6, doc.figures[b.index].height * 3.6,
                        escaped(b.text));
                break;
            case Block::Kind::Table: {
                s += target == Target::Page ? "<table>\n"
                                            : "<table cellpadding=\"3\" cellspacing=\"0\" border=\"0\">\n";
                for (std::size_t k = 0; k < b.rows.size(); ++k) {
                    s += "<tr>";
                    for (const auto& cell : b.rows[k])
                        s += (k ? "<td>" : "<th align=\"left\">") + escaped(cell) + (k ? "</td>" : "</th>");
                    s += "</tr>\n";
                }
                s += "</table>\n";
                break;
            }
        }
    }
    return s;
}

}  // namespace talvik::report

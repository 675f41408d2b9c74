// Places 2 and 3 of a set of bases: the ground, the piles, what is pinned of the base in hand; cases and
// rules.
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <map>

#include "design/bases.h"
#include "model/sources.h"
#include "tray/table.h"
#include "tray/tray.h"
#include "units/rows.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;
using By = model::GroundValues::By;
using SetKind = model::BaseSet::Kind;

class LayoutPage final : public TrayPage {
  public:
    explicit LayoutPage(Session& session) : TrayPage(session, tr("Bases")) {
        setObjectName(QStringLiteral("basesLayoutPage"));
        auto set = [this]() -> const model::BaseSet& { return *session_.bases(); };
        line(
            tr("Name"), "basesName", [=] { return qs(set().name); },
            [this](const QString& text) -> std::pair<model::Project, QString> {
                return {basesValue([](model::BaseSet& s, const QString& name) {
                            s.name = name.trimmed().toStdString();
                        })(text),
                        text.trimmed().isEmpty() ? tr("A set of bases needs a name.") : QString()};
            });
        static const QStringList kinds{tr("pad footings"), tr("pile caps")};
        choice(
            tr("Type of foundation"), "basesKind", [] { return kinds; },
            [=] { return kinds[int(set().kind)]; }, basesValue([](model::BaseSet& s, const QString& v) {
                s.kind = SetKind(std::max<int>(0, int(kinds.indexOf(v))));
            }));
        quantity(
            tr("Maximum number of types"), Kind::Count, "basesTypes", [=] { return double(set().mostTypes); },
            basesValue([](model::BaseSet& s, double v) { s.mostTypes = int(v); }),
            [this]() -> std::optional<double> {
                const auto* a = session_.basesAnswer();
                return a ? std::optional(double(a->types.size())) : std::nullopt;
            });
        sentence([] { return tr("The cost of any number of types is shown below the plan, under Types."); });
        heading(tr("The selected base"));
        sentence([this] {
            const auto* b = inHand();
            return b ? qs(model::baseName(*session_.bases(), *b)) +
                           tr(": a value typed here is fixed; an empty field is chosen by the program.")
                     : tr("Select a base on the plan: its size, depth, piles and bars can be fixed here.");
        });
        const std::function<bool()> pads = [=] { return set().kind == SetKind::Pads; },
                                    caps = [=] { return set().kind == SetKind::Caps; },
                                    selected = [this] { return inHand() != nullptr; };
        using Chosen = std::function<std::optional<double>()>;
        // What the program chose for the selected base.
        auto chosen = [this](auto read) {
            return Chosen([this, read]() -> std::optional<double> {
                const auto* b = session_.baseInHand();
                return b && b->trouble().empty() ? std::optional(double(read(*b))) : std::nullopt;
            });
        };
        shownWhile(selected);
        auto pin = [&](const QString& label, const char* name, Kind kind, auto member, Chosen found = {}) {
            quantity(
                label, kind, name, [this, member] { return inHand() ? double(inHand()->*member) : 0; },
                [this, member](double v) {
                    const auto* b = inHand();
                    if (!b) return session_.base();
                    return model::editBases(
                        session_.base(), session_.bases()->id,
                        [&, id = b->id](model::BaseSet& s, model::Project&) {
                            for (auto& base : s.bases)
                                if (base.id == id)
                                    base.*member = std::remove_reference_t<decltype(base.*member)>(v);
                        });
                },
                std::move(found));
        };
        pin(tr("Length B (x)"), "pinB", Kind::Length, &model::Base::B,
            chosen([](const design::BasePart& b) { return b.size().B; }));
        pin(tr("Width L (y)"), "pinL", Kind::Length, &model::Base::L,
            chosen([](const design::BasePart& b) { return b.size().L; }));
        shownWhile([=] { return selected() && pads(); });
        pin(tr("Ratio L/B"), "pinRatio", Kind::None, &model::Base::ratio,
            chosen([](const design::BasePart& b) { return b.size().L / b.size().B; }));
        shownWhile(selected);
        pin(tr("Depth"), "pinDepth", Kind::Length, &model::Base::h,
            chosen([](const design::BasePart& b) { return b.size().h; }));
        shownWhile([=] { return selected() && caps(); });
        pin(tr("Piles"), "pinPiles", Kind::Count, &model::Base::piles,
            chosen([](const design::BasePart& b) { return b.piles().size(); }));
        auto edit = [this](auto change) {
            const auto* b = inHand();
            if (!b) return session_.base();
            return model::editBases(session_.base(), session_.bases()->id,
                                    [&, id = b->id](model::BaseSet& s, model::Project&) {
                                        for (auto& base : s.bases)
                                            if (base.id == id) change(base);
                                    });
        };
        // Points in plan, typed as a list.
        auto points = [this](const QString& label, const char* name, auto now, auto changed,
                             const QString& hint) {
            static const std::vector<Kind> corner{Kind::Span, Kind::Span};
            line(
                label, name,
                [=, this] {
                    std::vector<std::vector<double>> rows;
                    for (auto p : now()) rows.push_back({p.x, p.y});
                    return qs(units::rowsText(rows, corner, session_.project().basis.units));
                },
                [=, this](const QString& text) -> std::pair<model::Project, QString> {
                    const auto rows =
                        units::parseRows(text.toStdString(), corner, session_.project().basis.units);
                    std::vector<geometry::Point> all;
                    for (const auto& r : rows.rows) all.push_back({r[0], r[1]});
                    return {changed(all), qs(rows.error)};
                },
                hint);
        };
        points(
            tr("Pile positions x y"), "pinPilesAt",
            [this] { return inHand() ? inHand()->pilesAt : std::vector<geometry::Point>(); },
            [edit](const std::vector<geometry::Point>& all) {
                return edit([&](model::Base& b) { b.pilesAt = all; });
            },
            tr("-0.75 -0.43; 0.78 -0.43; 0 0.87"));
        sentence([this] {
            return tr("Positions in %1 from the middle of the columns, as driven: each pile is numbered in "
                      "this order. Empty: the standard arrangement.")
                .arg(session_.unit(Kind::Span));
        });
        shownWhile(selected);
        pin(tr("Spacing of bars"), "pinSpacing", Kind::BarSpacing, &model::Base::spacing,
            Chosen([]() -> std::optional<double> { return {}; }));
        choice(
            tr("Bars"), "pinBar",
            [this] {
                QStringList all{tr("auto")};
                for (const auto& b : session_.bases()->bars) all << qs(b);
                return all;
            },
            [this] { return inHand() && !inHand()->bar.empty() ? qs(inHand()->bar) : tr("auto"); },
            [edit](const QString& v) {
                return edit(
                    [&](model::Base& b) { b.bar = v == tr("auto") ? std::string() : v.toStdString(); });
            });
        line(
            tr("Type, by name"), "baseType", [this] { return inHand() ? qs(inHand()->type) : QString(); },
            [edit](const QString& v) -> std::pair<model::Project, QString> {
                return {edit([&](model::Base& b) { b.type = v.trimmed().toStdString(); }), {}};
            });
        flag(
            tr("Fix position"), "pinOff", [this] { return inHand() && inHand()->offPinned; },
            [edit](bool on) { return edit([&](model::Base& b) { b.offPinned = on; }); });
        pin(tr("Eccentricity from columns, x"), "offX", Kind::Length, &model::Base::offX);
        pin(tr("Eccentricity from columns, y"), "offY", Kind::Length, &model::Base::offY);
        // A length that is part of what a base has: pedestal, top, strap.
        auto of = [&](const QString& label, const char* name, auto group, auto member) {
            quantity(
                label, Kind::Length, name,
                [this, group, member] { return inHand() ? inHand()->*group.*member : 0; },
                [edit, group, member](double v) {
                    return edit([&](model::Base& b) { b.*group.*member = v; });
                });
        };
        shownWhile([=] { return selected() && pads(); });
        of(tr("Pedestal, along x"), "pedestalX", &model::Base::pedestal, &model::Pedestal::width);
        of(tr("Pedestal, along y"), "pedestalY", &model::Base::pedestal, &model::Pedestal::depth);
        of(tr("Pedestal, height"), "pedestalHeight", &model::Base::pedestal, &model::Pedestal::height);
        static const QStringList tops{tr("level"), tr("sloped"), tr("stepped")};
        choice(
            tr("Top"), "baseTop", [] { return tops; },
            [this] { return tops[inHand() ? int(inHand()->top.kind) : 0]; },
            [edit](const QString& v) {
                return edit([&](model::Base& b) {
                    b.top.kind = model::BaseTop::Kind(std::max<int>(0, int(tops.indexOf(v))));
                });
            });
        of(tr("Edge thickness"), "topEdge", &model::Base::top, &model::BaseTop::edge);
        of(tr("Shoulder around column"), "topShoulder", &model::Base::top, &model::BaseTop::shoulder);
        choice(
            tr("Strap to column"), "strapTo",
            [this] {
                QStringList all{tr("none")};
                for (const auto* c : inLine()) all << qs(c->name);
                return all;
            },
            [this] {
                const auto* c = inHand() ? model::findColumn(*session_.bases(), inHand()->strap.to) : nullptr;
                return c ? qs(c->name) : tr("none");
            },
            [this, edit](const QString& v) {
                model::Id to;
                for (const auto* c : inLine())
                    if (qs(c->name) == v) to = c->id;
                return edit([&](model::Base& b) { b.strap.to = to; });
            });
        sentence([this] {
            return inHand() && inHand()->strap.any()
                       ? tr("The strap carries the moment of a column that is off the middle of its base; "
                            "its own bars are scheduled with the base.")
                       : tr("A strap is a beam to a column further in, along x or y, that balances a base "
                            "whose column is off its middle: near the edge of the site.");
        });
        of(tr("Strap, width"), "strapWidth", &model::Base::strap, &model::Strap::width);
        of(tr("Strap, depth"), "strapDepth", &model::Base::strap, &model::Strap::depth);
        shownWhile({});
        heading(tr("All bases"));
        auto bar = [&](const QString& label, const char* name, const QString& none,
                       std::string model::BaseSet::*member) {
            choice(
                label, name,
                [this, none] {
                    QStringList all{none};
                    if (const auto* catalog = catalogs::barCatalog(session_.project().basis.barCatalog))
                        for (const auto& b : catalog->bars) all << qs(b.name);
                    return all;
                },
                [=] { return (set().*member).empty() ? none : qs(set().*member); },
                basesValue([member, none](model::BaseSet& s, const QString& v) {
                    s.*member = v == none ? std::string() : v.toStdString();
                }));
        };
        bar(tr("Starter bars"), "starterBar", tr("auto"), &model::BaseSet::starterBar);
        shownWhile(caps);
        static const QStringList outlines{tr("rectangular"), tr("parallel to the piles"), tr("corners cut")};
        choice(
            tr("Outline of caps"), "capOutline", [] { return outlines; },
            [=] { return outlines[int(set().outline)]; }, basesValue([](model::BaseSet& s, const QString& v) {
                s.outline = model::CapOutline(std::max<int>(0, int(outlines.indexOf(v))));
            }));
        sentence([] {
            return tr(
                "Parallel to the piles, a cap on three piles is a triangle, on seven a hexagon; with "
                "its corners cut, one on three piles has six sides. Caps with fixed sizes or pile "
                "positions are rectangular.");
        });
        static const QStringList steels{tr("the greater of both"), tr("bending at the column"),
                                        tr("strut and tie")};
        choice(
            tr("Bottom bars by"), "capSteel", [] { return steels; },
            [=] { return steels[int(set().capSteel)]; }, basesValue([](model::BaseSet& s, const QString& v) {
                s.capSteel = model::CapSteel(std::max<int>(0, int(steels.indexOf(v))));
            }));
        flag(
            tr("Top bars in every cap"), "capTopBars", [=] { return set().topBars; },
            basesValue([](model::BaseSet& s, bool on) { s.topBars = on; }));
        bar(tr("Bars at the sides of caps"), "sideBar", tr("none"), &model::BaseSet::sideBar);
        quantity(
            tr("Side bar spacing, maximum"), Kind::BarSpacing, "sideSpacing",
            [=] { return set().sideSpacing; },
            basesValue([](model::BaseSet& s, double v) { s.sideSpacing = v; }));
        bar(tr("Links in caps"), "linkBar", tr("none"), &model::BaseSet::linkBar);
        quantity(
            tr("Link leg spacing"), Kind::BarSpacing, "linkSpacing", [=] { return set().linkSpacing; },
            basesValue([](model::BaseSet& s, double v) { s.linkSpacing = v; }));
        shownWhile({});
        points(
            tr("Site, corners x y"), "site", [=] { return set().site; },
            [this](const std::vector<geometry::Point>& all) {
                return basesValue([&](model::BaseSet& s, int) { s.site = all; })(0);
            },
            tr("0 0; 46 0; 46 19; 0 19"));
        sentence([this] {
            return tr("No base extends beyond the outline of the site: corners in %1, one after the other.")
                .arg(session_.unit(Kind::Span));
        });
        heading(tr("Ground"));
        static const QStringList rules{tr("allowable gross pressure"), tr("allowable net pressure"),
                                       tr("drained resistance"), tr("undrained resistance")};
        shownWhile(pads);
        choice(
            tr("Bearing check"), "groundBy", [] { return rules; },
            [=] { return rules[int(set().ground.by)]; }, basesValue([](model::BaseSet& s, const QString& v) {
                s.ground.by = By(std::max<int>(0, int(rules.indexOf(v))));
            }));
        auto ground = [&](const QString& label, const char* name, Kind kind,
                          double model::GroundValues::*member) {
            quantity(
                label, kind, name, [=] { return set().ground.*member; },
                basesValue([member](model::BaseSet& s, double v) { s.ground.*member = v; }));
        };
        auto by = [=](std::vector<By> which) {
            return [=] {
                return pads() && std::find(which.begin(), which.end(), set().ground.by) != which.end();
            };
        };
        shownWhile(by({By::Gross, By::Net}));
        ground(tr("Allowable pressure"), "allowable", Kind::AreaLoad, &model::GroundValues::allowable);
        shownWhile(by({By::Drained}));
        ground(tr("Friction angle of the ground"), "groundFriction", Kind::Angle,
               &model::GroundValues::friction);
        ground(tr("Cohesion"), "cohesion", Kind::AreaLoad, &model::GroundValues::cohesion);
        shownWhile(by({By::Undrained}));
        ground(tr("Undrained strength"), "undrained", Kind::AreaLoad, &model::GroundValues::undrained);
        shownWhile(by({By::Drained, By::Undrained}));
        ground(tr("Unit weight of founding soil"), "weightBelow", Kind::Density,
               &model::GroundValues::weightBelow);
        shownWhile({});
        ground(tr("Founding depth"), "foundingDepth", Kind::Length, &model::GroundValues::depth);
        ground(tr("Unit weight of backfill"), "soil", Kind::Density, &model::GroundValues::soil);
        ground(tr("Surcharge"), "surcharge", Kind::AreaLoad, &model::GroundValues::surcharge);
        flag(
            tr("Groundwater"), "water", [=] { return set().ground.water; },
            basesValue([](model::BaseSet& s, bool on) { s.ground.water = on; }));
        shownWhile([=] { return set().ground.water; });
        ground(tr("Depth to groundwater"), "waterDepth", Kind::Length, &model::GroundValues::waterDepth);
        shownWhile(pads);
        ground(tr("Friction angle at the base"), "baseFriction", Kind::Angle,
               &model::GroundValues::baseFriction);
        ground(tr("Adhesion at the base"), "adhesion", Kind::AreaLoad, &model::GroundValues::adhesion);
        ground(tr("Passive resistance, proportion used"), "passiveShare", Kind::Percent,
               &model::GroundValues::passiveShare);
        shownWhile({});
        ground(tr("Blinding"), "blinding", Kind::Length, &model::GroundValues::blinding);
        shownWhile(pads);
        static const std::vector<Kind> layer{Kind::Span, Kind::Stress, Kind::None};
        line(
            tr("Layers: thickness, modulus"), "layers",
            [=, this] {
                std::vector<std::vector<double>> rows;
                for (const auto& l : set().ground.layers) {
                    rows.push_back({l.thickness, l.modulus});
                    if (l.poisson != 0.3) rows.back().push_back(l.poisson);
                }
                return qs(units::rowsText(rows, layer, session_.project().basis.units));
            },
            [this](const QString& text) -> std::pair<model::Project, QString> {
                const auto rows =
                    units::parseRows(text.toStdString(), layer, session_.project().basis.units, 1);
                return {basesValue([&](model::BaseSet& s, int) {
                            s.ground.layers.clear();
                            for (const auto& r : rows.rows)
                                s.ground.layers.push_back({r[0], r[1], r.size() > 2 ? r[2] : 0.3});
                        })(0),
                        qs(rows.error)};
            },
            tr("3 30; 6 60"));
        sentence([this] {
            return tr("Below the underside, from above: thickness %1, modulus %2, and Poisson's ratio where "
                      "it is not 0.3. Without layers no settlement is calculated.")
                .arg(session_.unit(Kind::Span), session_.unit(Kind::Stress));
        });
        ground(tr("Allowable settlement"), "settlement", Kind::Length, &model::GroundValues::settlement);
        shownWhile(caps);
        heading(tr("Piles"));
        flag(
            tr("Circular"), "pileCircular", [=] { return set().pile.circular; },
            basesValue([](model::BaseSet& s, bool on) { s.pile.circular = on; }));
        auto pile = [&](const QString& label, const char* name, Kind kind,
                        double model::PileValues::*member) {
            quantity(
                label, kind, name, [=] { return set().pile.*member; },
                basesValue([member](model::BaseSet& s, double v) { s.pile.*member = v; }));
        };
        pile(tr("Diameter or side"), "pileSize", Kind::Length, &model::PileValues::diameter);
        pile(tr("Capacity, compression"), "pileCompression", Kind::Force, &model::PileValues::compression);
        pile(tr("Capacity, tension"), "pileTension", Kind::Force, &model::PileValues::tension);
        pile(tr("Capacity, horizontal"), "pileLateral", Kind::Force, &model::PileValues::lateral);
        flag(
            tr("Capacities are design values"), "pileUltimate", [=] { return set().pile.ultimate; },
            basesValue([](model::BaseSet& s, bool on) { s.pile.ultimate = on; }));
        pile(tr("Pile spacing (× diameter)"), "pileSpacing", Kind::None, &model::PileValues::spacingFactor);
        pile(tr("Edge distance"), "pileEdge", Kind::Length, &model::PileValues::edge);
        pile(tr("Embedment"), "pileEmbedment", Kind::Length, &model::PileValues::embedment);
        pile(tr("Pile position tolerance"), "pileTolerance", Kind::Length, &model::PileValues::tolerance);
        pile(tr("Length (for cost)"), "pileLength", Kind::Span, &model::PileValues::length);
        column_->addStretch();
    }
    void refresh() override { refreshFields(); }

  private:
    const model::Base* inHand() const {
        if (!session_.selection() || !session_.bases()) return nullptr;
        for (const auto& b : session_.bases()->bases)
            if (b.id == session_.selection()->part.key) return &b;
        return nullptr;
    }
    // Columns of other bases in one line with the column in hand, the nearest first.
    std::vector<const model::BaseColumn*> inLine() const {
        std::vector<const model::BaseColumn*> all;
        const auto* own = inHand() && inHand()->columns.size() == 1
                              ? model::findColumn(*session_.bases(), inHand()->columns.front())
                              : nullptr;
        if (!own) return all;
        for (const auto& b : session_.bases()->bases)
            if (b.id != inHand()->id && !b.strap.any())
                for (const auto& id : b.columns)
                    if (const auto* c = model::findColumn(*session_.bases(), id);
                        c && bases::strapLine(*own, *c).trouble.empty())
                        all.push_back(c);
        std::stable_sort(all.begin(), all.end(), [&](const auto* a, const auto* b) {
            return std::hypot(a->x - own->x, a->y - own->y) < std::hypot(b->x - own->x, b->y - own->y);
        });
        if (all.size() > 12) all.resize(12);
        if (const auto* now = model::findColumn(*session_.bases(), inHand()->strap.to);
            now && std::find(all.begin(), all.end(), now) == all.end())
            all.push_back(now);
        return all;
    }
};

class ActionsPage final : public TrayPage {
  public:
    ActionsPage(Session& session, Tray& tray) : TrayPage(session, tr("Actions")) {
        setObjectName(QStringLiteral("basesActionsPage"));
        column_->addWidget(button(tr("Columns with their loads, from a table…"),
                                  QStringLiteral("importLoads"), [&tray] { emit tray.loadsWanted(); }));
        column_->addWidget(button(tr("The same, pasted from a spreadsheet"), QStringLiteral("pasteLoads"),
                                  [&tray] { emit tray.loadsPasted(); }));
        column_->addWidget(button(tr("Save a table to fill in…"), QStringLiteral("saveLoadsTemplate"),
                                  [&tray] { emit tray.templateWanted(); }));
        sentence([] {
            return tr(
                "A row per column and case: column, x, y, width, depth, case, nature, use, N, Hx, Hy, Mx, "
                "My, with "
                "units in the heads. N downwards; My > 0 moves the resultant to +x, Mx > 0 to −y.");
        });
        heading(tr("From floors"));
        choice(
            tr("Link or unlink"), "linkFloor",
            [this] {
                QStringList all{tr("choose a floor")};
                for (const auto& f : session_.project().floors)
                    all << (links(f->id) ? tr("unlink %1") : tr("link %1")).arg(qs(f->name));
                return all;
            },
            [] { return tr("choose a floor"); },
            [this](const QString& chosen) {
                for (const auto& f : session_.project().floors) {
                    const QString name = qs(f->name);
                    if (chosen == tr("unlink %1").arg(name))
                        return design::unlinkFloor(session_.base(), session_.bases()->id, f->id);
                    if (chosen == tr("link %1").arg(name)) {
                        std::vector<std::string> left;
                        auto next = design::linkFloor(session_.base(), session_.bases()->id, *f, left);
                        if (!left.empty())
                            emit refused(qs(left.front()) + QLatin1Char(' ') +
                                         tr("%n support(s) left out.", nullptr, int(left.size())));
                        return next;
                    }
                }
                return session_.base();
            });
        sentence([this] {
            QStringList floors;
            for (const auto& f : session_.project().floors)
                if (links(f->id)) floors << qs(f->name);
            if (session_.project().floors.empty()) return tr("The project has no floor.");
            if (floors.isEmpty())
                return tr(
                    "A linked floor passes on its columns and walls with their loads. Link the lowest first: "
                    "it alone brings moments and horizontal forces.");
            const auto* a = session_.basesAnswer();
            return tr("Linked: %1. %2")
                .arg(floors.join(QStringLiteral(", ")),
                     !a || a->changed.empty()
                         ? tr("Loads up to date.")
                         : tr("%n load(s) changed since they were accepted; the margin lists them.", nullptr,
                              int(a->changed.size())));
        });
        column_->addWidget(note_ = button(tr("Accept current loads"), QStringLiteral("takeNote"), [this] {
                               const auto* a = session_.basesAnswer();
                               if (a && a->error.empty())
                                   session_.apply(
                                       tr("Accept loads"),
                                       design::takeNote(session_.base(), session_.bases()->id, *a->set));
                           }));
        shownWhile([this] { return !session_.bases()->columns.empty(); });
        heading(tr("Combinations"));
        const auto approached = [this] {
            const auto* a = session_.basesAnswer();
            return a && a->context && a->context->rules.hasApproaches();
        };
        shownWhile(approached);
        flag(
            tr("Combinations by (6.10a) and (6.10b)"), "twoFormulas",
            [this] { return session_.bases()->twoFormulas; },
            basesValue([](model::BaseSet& s, bool on) { s.twoFormulas = on; }));
        static const QStringList approaches{tr("1"), tr("2"), tr("3")};
        choice(
            tr("Design approach of EN 1997-1"), "approach", [] { return approaches; },
            [this] { return approaches[session_.bases()->approach - 1]; },
            basesValue([](model::BaseSet& s, const QString& v) { s.approach = v.toInt(); }));
        shownWhile({});
        combinations_ = new TrayTable({tr("Used"), tr("Combination"), tr("For")}, {66, 170, 0},
                                      {{0, {tr("yes"), tr("no"), tr("not here")}}});
        combinations_->setToolTip(
            tr("No = excluded for all bases; Not here = excluded for the selected base. Excluded "
               "combinations are listed as not checked."));
        combinations_->setObjectName(QStringLiteral("baseCombinations"));
        combinations_->setReadOnly({1, 2});
        connect(combinations_, &TrayTable::edited, this, &ActionsPage::chooseCombination);
        column_->addWidget(combinations_);
        heading(tr("Cases"));
        cases_ = new TrayTable({tr("Case"), tr("Nature"), tr("Use")}, {110, 90, 0}, {});
        cases_->setObjectName(QStringLiteral("baseCases"));
        cases_->setReadOnly({0, 1, 2});
        column_->addWidget(cases_);
        heading(tr("Actions of the selected columns"));
        actions_ = new TrayTable({tr("Case"), tr("N"), tr("Hx"), tr("Hy"), tr("Mx"), tr("My")},
                                 {84, 46, 42, 42, 46, 0}, {});
        actions_->setObjectName(QStringLiteral("baseActions"));
        actions_->setReadOnly({0});
        connect(actions_, &TrayTable::edited, this, &ActionsPage::setAction);
        column_->addWidget(actions_);
        column_->addStretch();
    }
    void refresh() override {
        refreshFields();
        const auto& set = *session_.bases();
        static const QStringList natures{tr("permanent"), tr("imposed"), tr("wind"), tr("accidental")};
        std::vector<QStringList> rows;
        for (const auto& c : set.cases)
            rows.push_back({qs(c.name), natures[int(c.kind.nature)], qs(c.kind.use)});
        cases_->show(rows);
        rows.clear();
        names_.clear();
        note_->setEnabled(session_.basesAnswer() && !session_.basesAnswer()->changed.empty());
        // Every combination once, with what it is for; those left out stay in the list.
        if (const auto* a = session_.basesAnswer(); a && a->context) {
            static const QStringList states{tr("service"), tr("strength"), tr("ground"), tr("stability"),
                                            tr("cracks")};
            std::map<std::string, QStringList> all;
            for (int k = 0; k < bases::states; ++k)
                for (const auto& c : a->context->combinations[std::size_t(k)]) {
                    const auto name = c.name(a->context->caseNames);
                    if (!all.contains(name)) names_.push_back(name);
                    if (!all[name].contains(states[k])) all[name] << states[k];
                }
            for (const auto& name : set.leftOut)
                if (!all.contains(name)) names_.push_back(name), all[name];
            for (const auto& name : names_)
                rows.push_back({all[name].isEmpty() ? tr("no")
                                : leftHere(name)    ? tr("not here")
                                                    : tr("yes"),
                                qs(name), all[name].join(QStringLiteral(", "))});
        }
        combinations_->show(rows);
        rows.clear();
        places_.clear();
        // What counts: of linked columns what the floors put on now.
        const auto* answer = session_.basesAnswer();
        const bool live = answer && answer->set && answer->error.empty() && answer->set->id == set.id;
        const auto& loaded = live ? *answer->set : set;
        const auto* base = inHand();
        for (std::size_t k = 0; base && k < base->columns.size(); ++k)
            if (const auto* column = model::findColumn(loaded, base->columns[k]))
                for (const auto& a : column->actions) {
                    QString name = qs(a.loadCase);
                    for (const auto& c : loaded.cases)
                        if (c.id == a.loadCase) name = qs(c.name);
                    if (base->columns.size() > 1) name = qs(column->name) + QStringLiteral(": ") + name;
                    rows.push_back({name, session_.number(a.N, Kind::Force),
                                    session_.number(a.Hx, Kind::Force), session_.number(a.Hy, Kind::Force),
                                    session_.number(a.Mx, Kind::Moment),
                                    session_.number(a.My, Kind::Moment)});
                    places_.push_back({column->id, a.loadCase});
                }
        const QString kn = session_.unit(Kind::Force), knm = session_.unit(Kind::Moment);
        actions_->setHeads({tr("Case"), QStringLiteral("N\n") + kn, QStringLiteral("Hx\n") + kn,
                            QStringLiteral("Hy\n") + kn, QStringLiteral("Mx\n") + knm,
                            QStringLiteral("My\n") + knm});
        actions_->show(rows);
    }

  private:
    const model::Base* inHand() const {
        if (!session_.selection()) return nullptr;
        for (const auto& b : session_.bases()->bases)
            if (b.id == session_.selection()->part.key) return &b;
        return nullptr;
    }
    void setAction(int row, int column, const QString& text) {
        if (row >= int(places_.size()) || column < 1) return;
        const auto value = units::parse(text.trimmed().toStdString(), column < 4 ? Kind::Force : Kind::Moment,
                                        session_.project().basis.units);
        if (!value.value) {
            emit refused(qs(value.error));
            return refresh();
        }
        const auto [id, of] = places_[std::size_t(row)];
        const auto* answer = session_.basesAnswer();
        const auto& cases = answer && answer->set ? answer->set->cases : session_.bases()->cases;
        if (std::any_of(cases.begin(), cases.end(),
                        [&](const model::ActionCase& c) { return c.id == of && c.fromFloors; })) {
            emit refused(tr("This load comes from a floor: change it there, or unlink the floor."));
            return refresh();
        }
        session_.apply(
            tr("Action of a column"),
            model::editBases(session_.base(), session_.bases()->id, [&](model::BaseSet& s, model::Project&) {
                for (auto& c : s.columns)
                    for (auto& a : c.actions)
                        if (c.id == id && a.loadCase == of) {
                            double* into[] = {&a.N, &a.Hx, &a.Hy, &a.Mx, &a.My};
                            *into[column - 1] = *value.value;
                        }
            }));
        refresh();
    }
    bool links(const model::Id& floor) const {
        const auto& columns = session_.bases()->columns;
        return std::any_of(columns.begin(), columns.end(), [&](const model::BaseColumn& c) {
            return std::any_of(c.from.begin(), c.from.end(),
                               [&](const model::FloorSupport& f) { return f.floor == floor; });
        });
    }
    bool leftHere(const std::string& name) const {
        const auto* b = inHand();
        return b && std::find(b->leftOut.begin(), b->leftOut.end(), name) != b->leftOut.end();
    }
    void chooseCombination(int row, int column, const QString& text) {
        if (column != 0 || row >= int(names_.size())) return;
        const auto name = names_[std::size_t(row)];
        const bool out = text == tr("no"), here = text == tr("not here");
        if (here && !inHand()) {
            emit refused(tr("Select a base first: the combination is excluded for that one."));
            return refresh();
        }
        const model::Id id = inHand() ? inHand()->id : model::Id();
        session_.apply(
            out ? tr("Exclude a combination") : tr("Include a combination"),
            model::editBases(session_.base(), session_.bases()->id, [&](model::BaseSet& s, model::Project&) {
                std::erase(s.leftOut, name);
                if (out) s.leftOut.push_back(name);
                for (auto& b : s.bases) {
                    if (b.id != id) continue;
                    std::erase(b.leftOut, name);
                    if (here) b.leftOut.push_back(name);
                }
            }));
        refresh();
    }
    TrayTable *cases_, *actions_, *combinations_;
    QPushButton* note_ = nullptr;
    std::vector<std::string> names_;
    std::vector<std::pair<model::Id, model::Id>> places_;
};

}  // namespace

TrayPage* basesLayoutPage(Session& session) {
    return new LayoutPage(session);
}
TrayPage* basesActionsPage(Session& session, Tray& tray) {
    return new ActionsPage(session, tray);
}

}  // namespace talvik::app

// Places 2 and 3 of a set of bases: the ground, the piles, what is pinned of the base in hand; cases and
// rules.
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "design/bases.h"
#include "model/sources.h"
#include "tray/table.h"
#include "tray/tray.h"
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
            tr("They are"), "basesKind", [] { return kinds; }, [=] { return kinds[int(set().kind)]; },
            basesValue([](model::BaseSet& s, const QString& v) {
                s.kind = SetKind(std::max<int>(0, int(kinds.indexOf(v))));
            }));
        quantity(
            tr("Most types"), Kind::Count, "basesTypes", [=] { return double(set().mostTypes); },
            basesValue([](model::BaseSet& s, double v) { s.mostTypes = int(v); }));
        sentence([this] {
            const auto* a = session_.basesAnswer();
            if (!a || a->costs.size() < 2) return tr("Most types: 0 leaves as many as there are.");
            QStringList words;
            for (std::size_t i = 0; i < a->costs.size() && i < 6; ++i)
                words << tr("%1: %2").arg(i + 1).arg(a->costs[i], 0, 'f', 0);
            return tr("Cost of all by most types, %1: %2. 0 leaves as many as there are.")
                .arg(qs(session_.project().basis.rates.currency), words.join(QStringLiteral(" · ")));
        });
        heading(tr("The base in hand"));
        sentence([this] {
            const auto* b = inHand();
            return b ? qs(model::baseName(*session_.bases(), *b)) +
                           tr(": what stands here stays; 0 is solved.")
                     : tr("Click a base on the plan: its size, depth, piles and bars can be pinned here.");
        });
        auto pin = [&](const QString& label, const char* name, Kind kind, auto member) {
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
                });
        };
        pin(tr("Along x"), "pinB", Kind::Length, &model::Base::B);
        pin(tr("Along y"), "pinL", Kind::Length, &model::Base::L);
        pin(tr("Depth"), "pinDepth", Kind::Length, &model::Base::h);
        pin(tr("Piles"), "pinPiles", Kind::Count, &model::Base::piles);
        pin(tr("Spacing of bars"), "pinSpacing", Kind::BarSpacing, &model::Base::spacing);
        auto edit = [this](auto change) {
            const auto* b = inHand();
            if (!b) return session_.base();
            return model::editBases(session_.base(), session_.bases()->id,
                                    [&, id = b->id](model::BaseSet& s, model::Project&) {
                                        for (auto& base : s.bases)
                                            if (base.id == id) change(base);
                                    });
        };
        choice(
            tr("Bars"), "pinBar",
            [this] {
                QStringList all{tr("solved")};
                for (const auto& b : session_.bases()->bars) all << qs(b);
                return all;
            },
            [this] { return inHand() && !inHand()->bar.empty() ? qs(inHand()->bar) : tr("solved"); },
            [edit](const QString& v) {
                return edit(
                    [&](model::Base& b) { b.bar = v == tr("solved") ? std::string() : v.toStdString(); });
            });
        line(
            tr("Type, by hand"), "baseType", [this] { return inHand() ? qs(inHand()->type) : QString(); },
            [edit](const QString& v) -> std::pair<model::Project, QString> {
                return {edit([&](model::Base& b) { b.type = v.trimmed().toStdString(); }), {}};
            });
        flag(
            tr("Its centre is pinned"), "pinOff", [this] { return inHand() && inHand()->offPinned; },
            [edit](bool on) { return edit([&](model::Base& b) { b.offPinned = on; }); });
        pin(tr("Centre off its columns, x"), "offX", Kind::Length, &model::Base::offX);
        pin(tr("Centre off its columns, y"), "offY", Kind::Length, &model::Base::offY);
        heading(tr("Ground"));
        static const QStringList rules{tr("gross pressure"), tr("net pressure"), tr("drained"),
                                       tr("undrained")};
        choice(
            tr("Bears by"), "groundBy", [] { return rules; }, [=] { return rules[int(set().ground.by)]; },
            basesValue([](model::BaseSet& s, const QString& v) {
                s.ground.by = By(std::max<int>(0, int(rules.indexOf(v))));
            }));
        sentence([] { return tr("Of the values below only those count that this rule reads."); });
        auto ground = [&](const QString& label, const char* name, Kind kind,
                          double model::GroundValues::*member) {
            quantity(
                label, kind, name, [=] { return set().ground.*member; },
                basesValue([member](model::BaseSet& s, double v) { s.ground.*member = v; }));
        };
        ground(tr("Allowable pressure"), "allowable", Kind::AreaLoad, &model::GroundValues::allowable);
        ground(tr("Friction angle of the ground"), "groundFriction", Kind::Angle,
               &model::GroundValues::friction);
        ground(tr("Cohesion"), "cohesion", Kind::AreaLoad, &model::GroundValues::cohesion);
        ground(tr("Undrained strength"), "undrained", Kind::AreaLoad, &model::GroundValues::undrained);
        ground(tr("Weight below the base"), "weightBelow", Kind::Density, &model::GroundValues::weightBelow);
        ground(tr("Underside below the ground"), "foundingDepth", Kind::Length, &model::GroundValues::depth);
        ground(tr("Weight of soil above"), "soil", Kind::Density, &model::GroundValues::soil);
        ground(tr("Surcharge"), "surcharge", Kind::AreaLoad, &model::GroundValues::surcharge);
        flag(
            tr("There is water"), "water", [=] { return set().ground.water; },
            basesValue([](model::BaseSet& s, bool on) { s.ground.water = on; }));
        ground(tr("Water below the ground"), "waterDepth", Kind::Length, &model::GroundValues::waterDepth);
        ground(tr("Friction angle at the base"), "baseFriction", Kind::Angle,
               &model::GroundValues::baseFriction);
        ground(tr("Blinding"), "blinding", Kind::Length, &model::GroundValues::blinding);
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
        flag(
            tr("Capacities are design values"), "pileUltimate", [=] { return set().pile.ultimate; },
            basesValue([](model::BaseSet& s, bool on) { s.pile.ultimate = on; }));
        pile(tr("Spacing, times the size"), "pileSpacing", Kind::None, &model::PileValues::spacingFactor);
        pile(tr("From pile to edge"), "pileEdge", Kind::Length, &model::PileValues::edge);
        pile(tr("Embedment"), "pileEmbedment", Kind::Length, &model::PileValues::embedment);
        pile(tr("Tolerance"), "pileTolerance", Kind::Length, &model::PileValues::tolerance);
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
};

class ActionsPage final : public TrayPage {
  public:
    ActionsPage(Session& session, Tray& tray) : TrayPage(session, tr("Actions")) {
        setObjectName(QStringLiteral("basesActionsPage"));
        column_->addWidget(button(tr("Columns with their loads, from a table…"),
                                  QStringLiteral("importLoads"), [&tray] { emit tray.loadsWanted(); }));
        sentence([] {
            return tr(
                "A row per column and case: column, x, y, width, depth, case, nature, use, N, Hx, Hy, Mx, "
                "My, with "
                "units in the heads. N downwards; My > 0 moves the resultant to +x, Mx > 0 to −y.");
        });
        flag(
            tr("Combinations by (6.10a) and (6.10b)"), "twoFormulas",
            [this] { return session_.bases()->twoFormulas; },
            basesValue([](model::BaseSet& s, bool on) { s.twoFormulas = on; }));
        static const QStringList approaches{tr("1"), tr("2"), tr("3")};
        choice(
            tr("Design approach of EN 1997-1"), "approach", [] { return approaches; },
            [this] { return approaches[session_.bases()->approach - 1]; },
            basesValue([](model::BaseSet& s, const QString& v) { s.approach = v.toInt(); }));
        heading(tr("Cases"));
        cases_ = new TrayTable({tr("Case"), tr("Nature"), tr("Use")}, {110, 90, 0}, {});
        cases_->setObjectName(QStringLiteral("baseCases"));
        cases_->setReadOnly({0, 1, 2});
        column_->addWidget(cases_);
        heading(tr("Actions of the columns in hand"));
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
        places_.clear();
        const auto* base = inHand();
        for (std::size_t k = 0; base && k < base->columns.size(); ++k)
            if (const auto* column = model::findColumn(set, base->columns[k]))
                for (const auto& a : column->actions) {
                    QString name = qs(a.loadCase);
                    for (const auto& c : set.cases)
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
    TrayTable *cases_, *actions_;
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

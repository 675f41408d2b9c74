// Place 5, Checks, of a floor: what is said of the connection in hand, and of punching on the whole floor.
#include <QFileDialog>
#include <QPushButton>
#include <QVBoxLayout>
#include <set>

#include "connections/connection_desk.h"
#include "model/edits.h"
#include "tray/tray.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;
using Steel = ConnectionDesk::Steel;
using Legs = model::ConnectionChoice::Legs;

class ConnectionsPage final : public TrayPage {
    ConnectionDesk& desk_;

    // Of the connection in hand, or as it is where there is none.
    model::Project asked(Steel steel, double diameter) const {
        const auto* c = desk_.inHand();
        return c ? model::setShearSteel(session_.base(), session_.floor()->id, {c->site->key}, steel,
                                        diameter)
                 : session_.base();
    }

    // A rule that counts where someone says so, with what the standard says of it.
    void ruleByChoice(const QString& label, const QString& name, bool model::FloorPunching::*member,
                      std::string (standards::PunchingRules::*rule)() const, const QString& none) {
        flag(
            label, name, [this, member] { return session_.floor()->punching.*member; },
            [this, member](bool on) {
                return model::editFloor(session_.base(), session_.floor()->id,
                                        [&](model::Floor& f, model::Project&) { f.punching.*member = on; });
            });
        sentence([this, rule, none] {
            const auto standard = session_.design().standard;
            const std::string text =
                standard && standard->punching ? (standard->punching.get()->*rule)() : std::string();
            return text.empty() ? none : qs(text);
        });
    }

  public:
    explicit ConnectionsPage(ConnectionDesk& desk) : TrayPage(desk.session(), tr("Punching")), desk_(desk) {
        setObjectName(QStringLiteral("connectionsPage"));
        sentence([this] {
            const auto* c = desk_.inHand();
            if (!c)
                return tr(
                    "Select a column, or press C for the most heavily loaded one. All are listed in the "
                    "table below.");
            return qs(c->name) + QStringLiteral(": ") + qs(c->detail(session_.project().basis.units));
        });
        const QStringList kinds{ConnectionDesk::name(Steel::None), ConnectionDesk::name(Steel::Studs),
                                ConnectionDesk::name(Steel::Links), ConnectionDesk::name(Steel::Solved)};
        choice(
            tr("Shear reinforcement"), QStringLiteral("shearSteel"), [kinds] { return kinds; },
            [this] {
                const auto* c = desk_.inHand();
                return ConnectionDesk::name(c ? c->choice.steel : Steel::Solved);
            },
            [this, kinds](const QString& text) {
                return asked(text == kinds[1]   ? Steel::Studs
                             : text == kinds[2] ? Steel::Links
                             : text == kinds[3] ? Steel::Solved
                                                : Steel::None,
                             0);
            });
        const QString own = tr("chosen by the program");
        choice(
            tr("Diameter"), QStringLiteral("shearDiameter"),
            [this, own] {
                QStringList all{own};
                const auto* c = desk_.inHand();
                if (!c || (c->choice.steel != Steel::Studs && c->choice.steel != Steel::Links)) return all;
                std::set<double> sizes;
                const auto& basis = session_.project().basis;
                if (c->choice.steel == Steel::Studs) {
                    for (const auto& r : model::studRails(basis)) sizes.insert(r.diameter);
                } else if (const auto* catalog = catalogs::barCatalog(basis.barCatalog)) {
                    for (const auto& name : basis.linkBars)
                        if (const auto* bar = catalog->find(name)) sizes.insert(bar->diameter);
                }
                for (double d : sizes) all << session_.text(d, Kind::Length);
                return all;
            },
            [this, own] {
                const auto* c = desk_.inHand();
                return c && c->choice.diameter > 0 ? session_.text(c->choice.diameter, Kind::Length) : own;
            },
            [this, own](const QString& text) {
                const auto* c = desk_.inHand();
                if (!c || (c->choice.steel != Steel::Studs && c->choice.steel != Steel::Links))
                    return session_.base();
                const auto v = units::parse(text.toStdString(), Kind::Length, session_.project().basis.units);
                return asked(c->choice.steel, text == own || !v.value ? 0 : *v.value);
            });
        const QStringList layouts{tr("radial"), tr("orthogonal (cruciform)")};
        choice(
            tr("Stud or link layout"), QStringLiteral("legLines"), [layouts] { return layouts; },
            [this, layouts] {
                const auto* c = desk_.inHand();
                return layouts[c && c->choice.legs == Legs::Grid];
            },
            [this, layouts](const QString& text) {
                const auto* c = desk_.inHand();
                if (!c) return session_.base();
                return model::editConnections(
                    session_.base(), session_.floor()->id, {c->site->key},
                    [&](auto& choice) { choice.legs = text == layouts[1] ? Legs::Grid : Legs::Fanned; });
            });
        flag(
            tr("Do not change column size"), QStringLiteral("pinned"),
            [this] {
                const auto* c = desk_.inHand();
                return c && c->choice.pinned;
            },
            [this](bool on) {
                const auto* c = desk_.inHand();
                if (!c || !desk_.hasSize(c->site->key)) return session_.base();
                return model::editConnections(session_.base(), session_.floor()->id, {c->site->key},
                                              [on](auto& choice) { choice.pinned = on; });
            });
        sentence([this] {
            const auto* c = desk_.inHand();
            if (!c || !c->wanted) return QString();
            const QString note = c->steel ? qs(c->steel->note) : QString();
            return qs(c->steelText(session_.project().basis.units)) +
                   (note.isEmpty() ? QString() : QStringLiteral(". ") + note);
        });
        heading(tr("On the whole floor"));
        ruleByChoice(tr("Approximate β (EN 1992-1-1 6.4.3(6))"), QStringLiteral("fixedEccentricity"),
                     &model::FloorPunching::fixedEccentricity, &standards::PunchingRules::fixedFactors,
                     tr("The selected standard has none; the moments are taken as they are."));
        ruleByChoice(tr("Modified γ_f (ACI 318-19 8.4.2.2.4)"), QStringLiteral("moreByBending"),
                     &model::FloorPunching::moreByBending, &standards::PunchingRules::bendingFactors,
                     tr("The selected standard has no such rule."));
        heading(tr("Studs on rails"));
        sentence([this] {
            const auto& basis = session_.project().basis;
            return tr("%1, %2 rails. The specified product is chosen in this list.")
                .arg(qs(model::studTable(basis)))
                .arg(model::studRails(basis).size());
        });
        auto* load = button(tr("Load a table…"), QStringLiteral("loadStuds"), [this] {
            const QString path = QFileDialog::getOpenFileName(this, tr("Table of studs"), {},
                                                              tr("Comma-separated values (*.csv)"));
            if (path.isEmpty()) return;
            if (const QString why = desk_.loadStuds(path); !why.isEmpty()) emit refused(why);
        });
        column_->addWidget(load, 0, Qt::AlignLeft);
        column_->addStretch();
    }
    void refresh() override { refreshFields(); }
};

}  // namespace

TrayPage* connectionsPage(ConnectionDesk& desk) {
    return new ConnectionsPage(desk);
}

}  // namespace talvik::app

#include "register/load_cases.h"

#include <QHBoxLayout>
#include <QPushButton>

#include "tray/table.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

const QStringList natures() {
    return {QObject::tr("self-weight"), QObject::tr("permanent"), QObject::tr("imposed"), QObject::tr("wind"),
            QObject::tr("accidental")};
}
QStringList uses() {
    QStringList all{QStringLiteral("–")};
    for (const auto& u : catalogs::imposedUses()) all << qs(u.id);
    return all;
}

}  // namespace

LoadCases::LoadCases(FloorDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      cases_(new TrayTable({tr("Case"), tr("Kind"), tr("Use"), tr("Everywhere"), tr("Area"), tr("Total")},
                           {0, 104, 56, 90, 80, 90}, {{1, natures()}, {2, uses()}})) {
    cases_->setObjectName(QStringLiteral("cases"));
    cases_->setReadOnly({5});
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(cases_);
    auto* row = new QHBoxLayout;
    auto button = [&](const QString& text, const QString& name, void (LoadCases::*call)()) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        connect(b, &QPushButton::clicked, this, call);
        row->addWidget(b);
    };
    button(tr("Add case"), QStringLiteral("addCase"), &LoadCases::add);
    button(tr("Remove case"), QStringLiteral("removeCase"), &LoadCases::remove);
    row->addStretch(1);
    column->addLayout(row);
    column->addStretch(1);
    connect(cases_, &TrayTable::edited, this, &LoadCases::edit);
    connect(cases_, &QTableWidget::currentCellChanged, this, [this](int r, int, int, int) {
        const auto* f = desk_.floor();
        if (f && r >= 0 && r < int(f->actions.cases.size()))
            desk_.setLoadCase(f->actions.cases[std::size_t(r)].id);
    });
}

QWidget& LoadCases::table() {
    return *cases_;
}

void LoadCases::refresh() {
    const auto* f = desk_.floor();
    if (!f) return;
    const auto& session = desk_.session();
    using Nature = model::LoadCase::Nature;
    const auto* a = session.floorAnalysis();
    std::vector<QStringList> rows;
    for (std::size_t i = 0; i < f->actions.cases.size(); ++i) {
        const auto& c = f->actions.cases[i];
        const auto* all = layout::loadEverywhere(*f, c.id);
        QString total = QStringLiteral("…");
        if (a && a->good())
            for (const auto& k : a->cases)
                if (k.id == c.id) total = session.number(k.load, units::Kind::Force);
        bool imposed = c.nature == Nature::Imposed;
        rows.push_back(
            {qs(c.name), natures()[int(c.nature)], imposed ? qs(c.use) : QStringLiteral("–"),
             all ? session.number(model::intensity(*all), units::Kind::AreaLoad) : QString(),
             c.reductionArea > 0 ? session.number(c.reductionArea, units::Kind::PlanArea) : QString(),
             total});
    }
    cases_->show(rows);
    cases_->setHeads({tr("Case"), tr("Kind"), tr("Use"), session.unit(units::Kind::AreaLoad),
                      tr("A, %1").arg(session.unit(units::Kind::PlanArea)),
                      tr("Total %1").arg(session.unit(units::Kind::Force))});
    cases_->horizontalHeaderItem(3)->setToolTip(tr("Load on every slab, with its layers"));
    cases_->horizontalHeaderItem(4)->setToolTip(
        tr("Tributary area of the member, for area reduction; empty for none"));
    Id current = desk_.loadCase();
    QSignalBlocker quiet(cases_);
    for (std::size_t i = 0; i < f->actions.cases.size(); ++i)
        if (f->actions.cases[i].id == current && cases_->currentRow() != int(i))
            cases_->setCurrentCell(int(i), std::max(0, cases_->currentColumn()));
}

void LoadCases::add() {
    Id made;
    desk_.edit(tr("Add load case"), [&](model::Floor& f, model::Project& p) {
        model::LoadCase c;
        c.nature = model::LoadCase::Nature::Imposed;
        made = layout::add(p, f, c);
    });
    desk_.setLoadCase(made);
}
// Says what went with it, as loads go silently otherwise.
void LoadCases::remove() {
    const auto* f = desk_.floor();
    const Id id = desk_.loadCase();
    QString name;
    for (const auto& c : f->actions.cases)
        if (c.id == id) name = qs(c.name);
    const auto loads = std::count_if(f->actions.loads.begin(), f->actions.loads.end(),
                                     [&](const auto& l) { return l.loadCase == id; });
    if (desk_.edit(tr("Remove load case"),
                   [&](model::Floor& g, model::Project&) { layout::remove(g, {id}); }) &&
        !name.isEmpty())
        emit desk_.removed(loads == 0   ? tr("%1 is removed.").arg(name)
                           : loads == 1 ? tr("%1 is removed with its load.").arg(name)
                                        : tr("%1 is removed with its %2 loads.").arg(name).arg(loads));
}

void LoadCases::edit(int row, int column, const QString& text) {
    const auto* f = desk_.floor();
    if (!f || row < 0 || row >= int(f->actions.cases.size())) return;
    Id id = f->actions.cases[std::size_t(row)].id;
    auto system = desk_.session().project().basis.units;
    auto change = [&](const QString& what, auto set) {
        desk_.edit(what, [&](model::Floor& g, model::Project& p) {
            for (auto& c : g.actions.cases)
                if (c.id == id) set(c, g, p);
        });
    };
    using Case = model::LoadCase;
    if (column == 0) {
        if (text.trimmed().isEmpty())
            emit desk_.said(tr("A load case needs a name."));
        else
            change(tr("Name"), [&](Case& c, auto&, auto&) { c.name = text.trimmed().toStdString(); });
    } else if (column == 1) {
        change(tr("Kind of case"), [&](Case& c, auto&, auto&) {
            c.nature = static_cast<Case::Nature>(std::max<qsizetype>(0, natures().indexOf(text)));
        });
    } else if (column == 2) {
        if (catalogs::imposedUse(text.toStdString()))
            change(tr("Use"), [&](Case& c, model::Floor& g, model::Project& p) {
                c.use = text.toStdString();
                c.nature = Case::Nature::Imposed;
                // The recommended load comes along where none was given.
                if (!layout::loadEverywhere(g, c.id))
                    layout::loadEverywhere(p, g, c.id).value = catalogs::imposedUse(c.use)->load;
            });
    } else if (column == 3) {
        if (text.trimmed().isEmpty()) {
            desk_.edit(tr("Load on every slab"), [&](model::Floor& g, model::Project&) {
                if (const auto* l = layout::loadEverywhere(g, id)) layout::remove(g, {Id(l->id)});
            });
        } else {
            auto v = units::parse(text.toStdString(), units::Kind::AreaLoad, system);
            if (!v.value)
                emit desk_.said(qs(v.error));
            else
                change(tr("Load on every slab"), [&](Case& c, model::Floor& g, model::Project& p) {
                    auto& l = layout::loadEverywhere(p, g, c.id);
                    l.value += *v.value - model::intensity(l);
                });
        }
    } else if (column == 4) {
        auto v =
            units::parse(text.trimmed().isEmpty() ? "0" : text.toStdString(), units::Kind::PlanArea, system);
        if (!v.value) {
            emit desk_.said(qs(v.error));
        } else {
            change(tr("Reduction by area"), [&](Case& c, auto&, auto&) { c.reductionArea = *v.value; });
            auto standard = standards::makeStandard(desk_.session().project().basis.standard,
                                                    desk_.session().project().basis.parameters);
            const auto* use = catalogs::imposedUse(desk_.floor()->actions.cases[std::size_t(row)].use);
            if (standard && use && *v.value > 0) {
                auto r = standard->actions->areaReduction(*use, *v.value);
                emit desk_.said(tr("Area reduction factor %1, %2. %3")
                                    .arg(r.factor, 0, 'f', 2)
                                    .arg(qs(r.clause), qs(r.note)));
            }
        }
    }
    refresh();
}

}  // namespace talvik::app

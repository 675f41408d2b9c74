#include "floor/actions_side.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "floor/property_form.h"
#include "tray/table.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

const QStringList natures() {
    return {QObject::tr("self-weight"), QObject::tr("permanent"), QObject::tr("imposed")};
}
QStringList uses() {
    QStringList all{QStringLiteral("–")};
    for (const auto& u : catalogs::imposedUses()) all << qs(u.id);
    return all;
}

}  // namespace

ActionsSide::ActionsSide(FloorDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      title_(new QLabel),
      note_(new QLabel),
      layersTitle_(new QLabel),
      cases_(new TrayTable({tr("Case"), tr("Kind"), tr("Use"), tr("Everywhere"), tr("Area"), tr("Total")},
                           {0, 98, 50, 54, 50, 62}, {{1, natures()}, {2, uses()}})),
      layers_(new TrayTable({tr("Layer"), tr("Thickness"), tr("Density")}, {0, 80, 80}, {})),
      form_(new PropertyForm),
      addCase_(new QPushButton(tr("Add case"))),
      removeCase_(new QPushButton(tr("Remove case"))),
      arrangement_(new QComboBox),
      moveTo_(new QComboBox) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 10, 12, 12);
    column->setSpacing(6);
    title_->setFont(uiFont(15, QFont::DemiBold));
    title_->setText(tr("Actions"));
    column->addWidget(title_);
    cases_->setObjectName(QStringLiteral("cases"));
    cases_->setReadOnly({5});
    column->addWidget(cases_);
    auto* row = new QHBoxLayout;
    addCase_->setObjectName(QStringLiteral("addCase"));
    removeCase_->setObjectName(QStringLiteral("removeCase"));
    row->addWidget(addCase_);
    row->addWidget(removeCase_);
    column->addLayout(row);
    auto* arrangementRow = new QHBoxLayout;
    arrangementRow->addWidget(new QLabel(tr("Imposed loads on")));
    arrangement_->setObjectName(QStringLiteral("arrangement"));
    arrangement_->addItems({tr("panels in turn, by the standard"), tr("all panels at once")});
    // As narrow as the side is: the whole word is in the list and under the pointer.
    arrangement_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    arrangement_->setMinimumContentsLength(12);
    connect(arrangement_, &QComboBox::currentTextChanged, arrangement_, &QComboBox::setToolTip);
    arrangementRow->addWidget(arrangement_, 1);
    column->addLayout(arrangementRow);
    layersTitle_->setFont(uiFont(12, QFont::DemiBold));
    column->addWidget(layersTitle_);
    layers_->setObjectName(QStringLiteral("caseLayers"));
    column->addWidget(layers_);
    note_->setWordWrap(true);
    note_->setFont(uiFont(12, QFont::DemiBold));
    column->addWidget(note_);
    column->addWidget(form_);
    moveTo_->setObjectName(QStringLiteral("loadCase"));
    column->addWidget(moveTo_);
    column->addStretch(1);

    connect(cases_, &TrayTable::edited, this, &ActionsSide::editCase);
    connect(layers_, &TrayTable::edited, this, &ActionsSide::editLayer);
    connect(cases_, &QTableWidget::currentCellChanged, this, [this](int r, int, int, int) {
        const auto* f = desk_.floor();
        if (f && r >= 0 && r < int(f->actions.cases.size()))
            desk_.setLoadCase(f->actions.cases[std::size_t(r)].id);
    });
    connect(addCase_, &QPushButton::clicked, this, [this] {
        Id made;
        desk_.edit(tr("Add load case"), [&](model::Floor& f, model::Project& p) {
            model::LoadCase c;
            c.nature = model::LoadCase::Nature::Imposed;
            made = layout::add(p, f, c);
        });
        desk_.setLoadCase(made);
    });
    connect(removeCase_, &QPushButton::clicked, this, [this] {
        Id id = desk_.loadCase();
        desk_.edit(tr("Remove load case"),
                   [&](model::Floor& f, model::Project&) { layout::remove(f, {id}); });
    });
    connect(arrangement_, &QComboBox::activated, this, [this](int i) {
        desk_.edit(tr("Arrangement of imposed loads"), [&](model::Floor& f, model::Project&) {
            f.actions.arrangement = static_cast<model::Arrangement>(i);
        });
    });
    connect(moveTo_, &QComboBox::activated, this, [this](int i) {
        const auto* f = desk_.floor();
        if (!f || i >= int(f->actions.cases.size())) return;
        Id to = f->actions.cases[std::size_t(i)].id;
        auto ids = desk_.selection();
        desk_.edit(tr("Load case"), [&](model::Floor& g, model::Project&) {
            for (auto& l : g.actions.loads)
                if (ids.contains(l.id)) l.loadCase = to;
        });
        desk_.setLoadCase(to);
    });
    connect(form_, &PropertyForm::changed, this, [this](const std::string& key, const layout::Value& value) {
        if (!desk_.nextId().empty()) return desk_.setNext(key, value);
        auto ids = desk_.selection();
        desk_.edit(tr("Load"),
                   [&](model::Floor& f, model::Project&) { layout::setProperty(f, ids, key, value); });
    });
    connect(form_, &PropertyForm::refused, &desk_, &FloorDesk::said);
    connect(&desk_, &FloorDesk::changed, this, &ActionsSide::refresh);
    connect(&desk_.session(), &Session::answered, this, &ActionsSide::refresh);
    refresh();
}

const model::FloorLoad* ActionsSide::everywhere(const model::Floor& f, const Id& id) {
    for (const auto& l : f.actions.loads)
        if (l.loadCase == id && l.kind == model::FloorLoad::Kind::Area && l.outline.empty()) return &l;
    return nullptr;
}
model::FloorLoad& ActionsSide::everywhere(model::Floor& f, model::Project& p, const Id& id) {
    for (auto& l : f.actions.loads)
        if (l.loadCase == id && l.kind == model::FloorLoad::Kind::Area && l.outline.empty()) return l;
    model::FloorLoad l;
    l.loadCase = id;
    layout::add(p, f, l);
    return f.actions.loads.back();
}

void ActionsSide::refresh() {
    const auto* f = desk_.floor();
    if (!f) return;
    const auto& session = desk_.session();
    auto system = session.project().basis.units;
    using Nature = model::LoadCase::Nature;
    const auto* a = session.floorAnalysis();
    std::vector<QStringList> rows;
    for (std::size_t i = 0; i < f->actions.cases.size(); ++i) {
        const auto& c = f->actions.cases[i];
        const auto* all = everywhere(*f, c.id);
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
        tr("Area that the member carries, for reduction by area; empty for none"));
    Id current = desk_.loadCase();
    QString name;
    {
        QSignalBlocker quiet(cases_);
        for (std::size_t i = 0; i < f->actions.cases.size(); ++i)
            if (f->actions.cases[i].id == current) {
                name = qs(f->actions.cases[i].name);
                if (cases_->currentRow() != int(i))
                    cases_->setCurrentCell(int(i), std::max(0, cases_->currentColumn()));
            }
    }
    arrangement_->setCurrentIndex(static_cast<int>(f->actions.arrangement));
    layersTitle_->setText(tr("Layers of %1 on every slab").arg(name));
    std::vector<QStringList> layers;
    if (const auto* all = everywhere(*f, current))
        for (const auto& y : all->layers)
            layers.push_back({qs(y.material), session.number(y.thickness, units::Kind::Length),
                              session.number(y.density, units::Kind::Density)});
    layers.push_back({QString(), QString(), QString()});  // a new one is typed here
    layers_->show(layers);
    layers_->setHeads({tr("Layer (type a name to add)"), session.unit(units::Kind::Length),
                       session.unit(units::Kind::Density)});
    bool permanent = false;
    for (const auto& c : f->actions.cases) permanent |= c.id == current && c.nature == Nature::Permanent;
    layers_->setVisible(permanent);
    layersTitle_->setVisible(permanent);

    bool next = !desk_.nextId().empty();
    std::set<Id> loads;
    for (const auto& l : f->actions.loads)
        if (desk_.selection().contains(l.id)) loads.insert(l.id);
    std::set<std::string> mixed;
    auto properties =
        next ? layout::properties(desk_.next(), desk_.nextId()) : layout::commonProperties(*f, loads, &mixed);
    if (next)
        std::erase_if(properties, [](const auto& p) {
            for (const char* k : {"x", "y", "ax", "ay", "bx", "by", "length"})
                if (p.key == k) return true;
            return false;
        });
    note_->setText(next            ? tr("Next: %1, in %2").arg(FloorDesk::name(desk_.tool()).toLower(), name)
                   : loads.empty() ? QString()
                   : loads.size() == 1
                       ? qs(layout::displayName(*f, *loads.begin()))
                       : tr("%1 loads; a value typed here is given to all").arg(loads.size()));
    form_->show(properties, mixed, system);
    form_->setVisible(!properties.empty());
    moveTo_->setVisible(!loads.empty() && !next);
    QStringList names;
    int at = 0;
    for (std::size_t i = 0; i < f->actions.cases.size(); ++i) {
        names << tr("in %1").arg(qs(f->actions.cases[i].name));
        for (const auto& l : f->actions.loads)
            if (loads.contains(l.id) && l.loadCase == f->actions.cases[i].id) at = int(i);
    }
    moveTo_->clear();
    moveTo_->addItems(names);
    moveTo_->setCurrentIndex(at);
}

void ActionsSide::editCase(int row, int column, const QString& text) {
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
                if (!everywhere(g, c.id)) everywhere(g, p, c.id).value = catalogs::imposedUse(c.use)->load;
            });
    } else if (column == 3) {
        if (text.trimmed().isEmpty()) {
            desk_.edit(tr("Load on every slab"), [&](model::Floor& g, model::Project&) {
                if (const auto* l = everywhere(g, id)) layout::remove(g, {Id(l->id)});
            });
        } else {
            auto v = units::parse(text.toStdString(), units::Kind::AreaLoad, system);
            if (!v.value)
                emit desk_.said(qs(v.error));
            else
                change(tr("Load on every slab"), [&](Case& c, model::Floor& g, model::Project& p) {
                    auto& l = everywhere(g, p, c.id);
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
                emit desk_.said(
                    tr("Factor by area %1, %2. %3").arg(r.factor, 0, 'f', 2).arg(qs(r.clause), qs(r.note)));
            }
        }
    }
    refresh();
}

void ActionsSide::editLayer(int row, int column, const QString& text) {
    const auto* f = desk_.floor();
    if (!f) return;
    Id id = desk_.loadCase();
    auto system = desk_.session().project().basis.units;
    auto kind = column == 1 ? units::Kind::Length : units::Kind::Density;
    units::Parsed v{0, ""};
    if (column > 0) v = units::parse(text.toStdString(), kind, system);
    const auto* all = everywhere(*f, id);
    bool fresh = !all || row >= int(all->layers.size());
    if (column > 0 && !v.value) {
        if (!text.trimmed().isEmpty()) emit desk_.said(qs(v.error));
    } else if (!(fresh && text.trimmed().isEmpty())) {
        desk_.edit(tr("Layers"), [&](model::Floor& g, model::Project& p) {
            auto& l = everywhere(g, p, id);
            if (fresh) {
                model::Finish y{newId(p, 'y'), "Layer", 50, 20e-6};
                for (const auto& known : catalogs::finishes())
                    if (qs(known.id) == text.trimmed()) y.density = known.density;
                l.layers.push_back(y);
            }
            auto& y = l.layers[std::min(std::size_t(row), l.layers.size() - 1)];
            if (column == 0) {
                y.material = text.trimmed().toStdString();
                for (const auto& known : catalogs::finishes())
                    if (known.id == y.material) y.density = known.density;
                if (y.material.empty()) std::erase_if(l.layers, [&](const auto& o) { return o.id == y.id; });
            } else {
                (column == 1 ? y.thickness : y.density) = *v.value;
            }
        });
    }
    refresh();
}

}  // namespace talvik::app

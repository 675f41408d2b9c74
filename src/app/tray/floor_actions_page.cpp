// Place 3, Actions, of a floor: the load selected or drawn next, layers of finishes, where imposed loads
// stand.
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "design/floor_design.h"
#include "tray/property_form.h"
#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

class FloorActionsPage final : public TrayPage {
  public:
    explicit FloorActionsPage(FloorDesk& desk)
        : TrayPage(desk.session(), tr("Actions")),
          desk_(desk),
          note_(new QLabel),
          layersTitle_(new QLabel),
          layers_(new TrayTable({tr("Layer"), tr("Thickness"), tr("Density")}, {0, 60, 60}, {})),
          form_(new PropertyForm(desk)),
          arrangement_(new QComboBox),
          moveTo_(new QComboBox) {
        setObjectName(QStringLiteral("floorActionsPage"));
        auto titled = [&](const QString& text, QComboBox* box, const QString& name) {
            auto* label = new QLabel(text);
            label->setBuddy(box);
            column_->addWidget(label);
            column_->addWidget(box);
            box->setObjectName(name);
            box->setAccessibleName(text);
            box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        };
        titled(tr("Selected load case"), moveTo_, QStringLiteral("loadCase"));
        note_->setWordWrap(true);
        note_->setFont(uiFont(12, QFont::DemiBold));
        column_->addWidget(note_);
        column_->addWidget(form_);
        form_->follow(moveTo_);
        layersTitle_->setFont(uiFont(12, QFont::DemiBold));
        layersTitle_->setWordWrap(true);
        column_->addWidget(layersTitle_);
        layers_->setObjectName(QStringLiteral("caseLayers"));
        column_->addWidget(layers_);
        titled(tr("Pattern loading"), arrangement_, QStringLiteral("arrangement"));
        arrangement_->addItems({tr("by the standard"), tr("none: all panels loaded")});
        heading(tr("Footfall vibration"));
        auto vibration = [this]() -> model::FloorVibration {
            return desk_.floor() ? desk_.floor()->vibration : model::FloorVibration{};
        };
        flag(
            tr("Check vibration"), "vibration", [=] { return vibration().on; },
            floorValue([](model::Floor& f, bool on) { f.vibration.on = on; }));
        quantity(
            tr("Response factor, maximum"), units::Kind::None, "vibrationLimit",
            [=] { return vibration().limit; },
            floorValue([](model::Floor& f, double v) { f.vibration.limit = v; }));
        quantity(
            tr("Damping"), units::Kind::Percent, "vibrationDamping", [=] { return vibration().damping; },
            floorValue([](model::Floor& f, double v) { f.vibration.damping = v; }));
        quantity(
            tr("Proportion of imposed loads as mass"), units::Kind::Percent, "vibrationMass",
            [=] { return vibration().imposed; },
            floorValue([](model::Floor& f, double v) { f.vibration.imposed = v; }));
        sentence([this] {
            const auto* d = dynamic_cast<const design::FloorDesign*>(session_.answer());
            if (!d || !d->vibration || d->vibration->modes.empty())
                return tr(
                    "The response of each panel to one person walking, by ISO 10137; 4 suits offices, 8 "
                    "workshops.");
            return tr("The lowest natural frequency is %1 Hz.")
                .arg(QString::number(d->vibration->modes.front().frequency, 'f', 1));
        });
        column_->addStretch(1);

        connect(layers_, &TrayTable::edited, this, &FloorActionsPage::editLayer);
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
    }

    void refresh() override {
        const auto* f = desk_.floor();
        if (!f) return;
        refreshFields();
        QString name;
        QStringList names;
        int at = 0;
        const Id current = desk_.loadCase();
        for (const auto& c : f->actions.cases) {
            if (c.id == current) name = qs(c.name), at = int(names.size());
            names << qs(c.name);
        }
        arrangement_->setCurrentIndex(static_cast<int>(f->actions.arrangement));
        layersTitle_->setText(tr("Layers of %1 on every slab; a name in the last row adds one").arg(name));
        std::vector<QStringList> layers;
        if (const auto* all = layout::loadEverywhere(*f, current))
            for (const auto& y : all->layers)
                layers.push_back({qs(y.material), session_.number(y.thickness, units::Kind::Length),
                                  session_.number(y.density, units::Kind::Density)});
        layers.push_back({QString(), QString(), QString()});  // a new one is typed here
        layers_->show(layers);
        layers_->setHeads(
            {tr("Layer"), session_.unit(units::Kind::Length), session_.unit(units::Kind::Density)});
        bool permanent = false;
        for (const auto& c : f->actions.cases)
            permanent |= c.id == current && c.nature == model::LoadCase::Nature::Permanent;
        layers_->setVisible(permanent);
        layersTitle_->setVisible(permanent);

        const bool next = !desk_.nextId().empty();
        std::set<Id> loads;
        for (const auto& l : f->actions.loads)
            if (desk_.selection().contains(l.id)) loads.insert(l.id);
        note_->setText(next ? tr("Next: %1, in %2").arg(FloorDesk::name(desk_.tool()).toLower(), name)
                       : loads.empty() ? QString()
                       : loads.size() == 1
                           ? qs(layout::displayName(*f, *loads.begin()))
                           : tr("%1 loads; a value typed here is given to all").arg(loads.size()));
        form_->showInHand(loads);
        for (const auto& l : f->actions.loads)
            if (loads.contains(l.id))
                for (std::size_t i = 0; i < f->actions.cases.size(); ++i)
                    if (f->actions.cases[i].id == l.loadCase) at = int(i);
        moveTo_->clear();
        moveTo_->addItems(names);
        moveTo_->setCurrentIndex(at);
    }

  private:
    FloorDesk& desk_;
    QLabel *note_, *layersTitle_;
    TrayTable* layers_;
    PropertyForm* form_;
    QComboBox *arrangement_, *moveTo_;

    void editLayer(int row, int column, const QString& text) {
        const auto* f = desk_.floor();
        if (!f) return;
        Id id = desk_.loadCase();
        auto system = desk_.session().project().basis.units;
        auto kind = column == 1 ? units::Kind::Length : units::Kind::Density;
        units::Parsed v{0, ""};
        if (column > 0) v = units::parse(text.toStdString(), kind, system);
        const auto* all = layout::loadEverywhere(*f, id);
        bool fresh = !all || row >= int(all->layers.size());
        if (column > 0 && !v.value) {
            if (!text.trimmed().isEmpty()) emit refused(qs(v.error));
        } else if (!(fresh && text.trimmed().isEmpty())) {
            desk_.edit(tr("Layers"), [&](model::Floor& g, model::Project& p) {
                auto& l = layout::loadEverywhere(p, g, id);
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
                    if (y.material.empty())
                        std::erase_if(l.layers, [&](const auto& o) { return o.id == y.id; });
                } else {
                    (column == 1 ? y.thickness : y.density) = *v.value;
                }
            });
        }
        refresh();
    }
};

}  // namespace

TrayPage* floorActionsPage(FloorDesk& desk) {
    return new FloorActionsPage(desk);
}

}  // namespace talvik::app

// Place 3, Actions: layered finishes, other permanent load, imposed load, combinations.
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;

class ActionsPage final : public TrayPage {
  public:
    explicit ActionsPage(Session& session) : TrayPage(session, tr("Actions")) {
        setObjectName(QStringLiteral("actionsPage"));
        auto slab = [this]() -> const model::OneWaySlab& { return *session_.slab(); };
        heading(tr("Imposed"));
        choice(
            tr("Use"), "imposedUse",
            [] {
                QStringList all;
                for (const auto& u : catalogs::imposedUses()) all << qs(u.id + ": " + u.title);
                return all;
            },
            [=] { return qs(slab().imposedUse + ": " + catalogs::imposedUse(slab().imposedUse)->title); },
            slabValue([](model::OneWaySlab& s, const QString& text) {
                s.imposedUse = text.section(QLatin1Char(':'), 0, 0).toStdString();
                s.imposed = catalogs::imposedUse(s.imposedUse)->load;
            }));
        quantity(
            tr("Imposed load"), Kind::AreaLoad, "imposed", [=] { return slab().imposed; },
            slabValue([](model::OneWaySlab& s, double v) { s.imposed = v; }));
        sentence([] {
            return tr(
                "Choosing a use sets its recommended load; change it where the client or the national annex "
                "says otherwise.");
        });
        heading(tr("Finishes"));
        QStringList materials;
        for (const auto& f : catalogs::finishes()) materials << qs(f.id);
        table_ = new TrayTable({tr("Layer"), tr("Depth"), tr("Density"), tr("Load")}, {0, 46, 54, 48},
                               {{0, materials}});
        table_->setObjectName(QStringLiteral("finishes"));
        table_->setReadOnly({3});
        connect(table_, &TrayTable::edited, this, &ActionsPage::setLayer);
        column_->addWidget(table_);
        auto* buttons = new QHBoxLayout;
        auto* add = new QPushButton(tr("Add layer"));
        add->setObjectName(QStringLiteral("addLayer"));
        auto* remove = new QPushButton(tr("Remove layer"));
        buttons->addWidget(add);
        buttons->addWidget(remove);
        buttons->addStretch();
        column_->addLayout(buttons);
        connect(add, &QPushButton::clicked, this, [this] {
            session_.apply(
                tr("Add layer"),
                model::editSlab(session_.base(), session_.slab()->id,
                                [](model::OneWaySlab& s, model::Project& next) {
                                    const auto& f = catalogs::finishes().front();
                                    s.finishes.push_back({model::newId(next, 'f'), f.id, 50, f.density});
                                }));
        });
        connect(remove, &QPushButton::clicked, this, [this] {
            auto count = session_.slab()->finishes.size();
            if (!count) return;
            auto row = table_->currentRow() < 0
                           ? count - 1
                           : std::min(count - 1, static_cast<std::size_t>(table_->currentRow()));
            session_.apply(tr("Remove layer"),
                           model::editSlab(session_.base(), session_.slab()->id,
                                           [&](model::OneWaySlab& s, model::Project&) {
                                               s.finishes.erase(s.finishes.begin() + static_cast<long>(row));
                                           }));
        });
        quantity(
            tr("Other permanent"), Kind::AreaLoad, "otherDead", [=] { return slab().otherDead; },
            slabValue([](model::OneWaySlab& s, double v) { s.otherDead = v; }));
        heading(tr("Totals, unfactored"));
        sentence([this] {
            const auto* d = session_.slabDesign();
            if (!d || !d->error.empty()) return QString();
            const auto& l = d->analysis.load;
            return tr("Self-weight %1, finishes %2, other %3: permanent %4. Imposed %5.")
                .arg(session_.text(l.self, Kind::AreaLoad), session_.text(l.finishes, Kind::AreaLoad),
                     session_.text(l.other, Kind::AreaLoad), session_.text(l.permanent(), Kind::AreaLoad),
                     session_.text(l.imposed, Kind::AreaLoad));
        });
        column_->addStretch();
    }

    void refresh() override {
        refreshFields();
        std::vector<QStringList> rows;
        for (const auto& f : session_.slab()->finishes)
            rows.push_back({qs(f.material), session_.number(f.thickness, Kind::Length),
                            session_.number(f.density, Kind::Density),
                            session_.number(f.thickness * f.density, Kind::AreaLoad)});
        table_->setHeads({tr("Layer"), head(tr("Depth"), Kind::Length), head(tr("Density"), Kind::Density),
                          head(tr("Load"), Kind::AreaLoad)});
        table_->show(rows);
    }

  private:
    void setLayer(int row, int column, const QString& text) {
        auto i = static_cast<std::size_t>(row);
        const auto system = session_.project().basis.units;
        units::Parsed parsed{0.0, {}};
        if (column > 0)
            parsed = units::parse(text.toStdString(), column == 1 ? Kind::Length : Kind::Density, system);
        if (!parsed.value) {
            emit refused(qs(parsed.error));
            return refresh();
        }
        bool good = session_.apply(
            tr("Layer"),
            model::editSlab(session_.base(), session_.slab()->id, [&](model::OneWaySlab& s, model::Project&) {
                auto& f = s.finishes[i];
                if (column == 0) {
                    f.material = text.toStdString();
                    for (const auto& known : catalogs::finishes())
                        if (known.id == f.material) f.density = known.density;
                }
                if (column == 1) f.thickness = *parsed.value;
                if (column == 2) f.density = *parsed.value;
            }));
        if (!good) refresh();
    }

    TrayTable* table_;
};

}  // namespace

TrayPage* slabActionsPage(Session& session) {
    return new ActionsPage(session);
}

}  // namespace talvik::app

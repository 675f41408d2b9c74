#include "tray/basis_tables.h"

#include <QFileDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "formats/project_file.h"
#include "model/sources.h"
#include "tray/table.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

constexpr std::pair<const char*, model::Material model::Basis::*> kinds[] = {
    {QT_TR_NOOP("beams"), &model::Basis::beam}, {QT_TR_NOOP("columns"), &model::Basis::column}};
struct RateRow {
    const char* name;
    model::Rates::Rate model::Rates::*rate;
};
constexpr RateRow rateRows[] = {{QT_TR_NOOP("concrete, m³"), &model::Rates::concrete},
                                {QT_TR_NOOP("steel, kg"), &model::Rates::steel},
                                {QT_TR_NOOP("formwork, m²"), &model::Rates::formwork},
                                {QT_TR_NOOP("blinding, m³"), &model::Rates::blinding},
                                {QT_TR_NOOP("bar mark"), &model::Rates::mark},
                                {QT_TR_NOOP("bar fixed (each)"), &model::Rates::piece},
                                {QT_TR_NOOP("m³, 1 MPa stronger"), &model::Rates::stronger}};
QStringList sourceKinds() {
    return {QObject::tr("assumed"), QObject::tr("investigation"), QObject::tr("client"),
            QObject::tr("standard")};
}
QStringList classes() {
    QStringList all;
    for (const auto& c : catalogs::concreteClasses()) all << qs(c.id);
    return all;
}

}  // namespace

BasisTables::BasisTables(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      materials_(
          new TrayTable({tr("For"), tr("Concrete"), tr("f"), tr("E")}, {0, 82, 46, 58}, {{1, classes()}})),
      rates_(new TrayTable({tr("Rate per"), tr("Price"), tr("CO₂e, kg")}, {0, 70, 70}, {})),
      sources_(
          new TrayTable({tr("Governing value"), tr("Now"), tr("From")}, {0, 56, 96}, {{2, sourceKinds()}})) {
    askTemplate = [this](bool save) {
        QString filter = tr("Templates (*.talvik-template)");
        return save ? QFileDialog::getSaveFileName(this, tr("Save template"),
                                                   QStringLiteral("office.talvik-template"), filter)
                    : QFileDialog::getOpenFileName(this, tr("Load template"), {}, filter);
    };
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto heading = [&](const QString& text) {
        auto* label = new QLabel(text);
        label->setFont(uiFont(12, QFont::DemiBold));
        label->setContentsMargins(0, 8, 0, 0);
        column->addWidget(label);
    };
    auto button = [&](const QString& text, const char* name, auto call) {
        auto* b = new QPushButton(text);
        b->setObjectName(QLatin1String(name));
        connect(b, &QPushButton::clicked, this, call);
        column->addWidget(b);
    };
    heading(tr("Materials of other members"));
    materials_->setObjectName(QStringLiteral("materials"));
    materials_->setReadOnly({0});
    column->addWidget(materials_);
    button(tr("Apply the slab's to all of them"), "materialToAll", [this] {
        model::Project next = session_.base();
        auto& b = next.basis;
        model::Material same{b.concrete, b.concreteStrength, b.concreteDensity, 0,
                             b.creep,    b.shrinkage,        b.steel,           b.steelYield};
        for (const auto& [name, member] : kinds) b.*member = same;
        session_.apply(tr("Materials"), std::move(next));
    });
    heading(tr("Rates, for comparing"));
    rates_->setObjectName(QStringLiteral("rates"));
    rates_->setReadOnly({0});
    column->addWidget(rates_);
    heading(tr("Where governing values come from"));
    sources_->setObjectName(QStringLiteral("sources"));
    sources_->setReadOnly({0, 1});
    column->addWidget(sources_);
    heading(tr("Office template"));
    button(tr("Save this basis as a template…"), "saveTemplate", [this] {
        QString path = askTemplate(true);
        if (path.isEmpty()) return;
        if (auto why = formats::saveTemplate(path.toStdString(), session_.project().basis); !why.empty())
            emit refused(qs(why));
    });
    button(tr("Load a template into this project…"), "loadTemplate", [this] {
        QString path = askTemplate(false);
        if (path.isEmpty()) return;
        auto read = formats::openTemplate(path.toStdString());
        if (!read.trouble.empty()) return void(emit refused(qs(formats::sentences(read.trouble))));
        model::Project next = session_.base();
        next.basis = read.basis;
        session_.apply(tr("Load template"), std::move(next));
    });
    connect(materials_, &TrayTable::edited, this, &BasisTables::editMaterial);
    connect(rates_, &TrayTable::edited, this, &BasisTables::editRate);
    connect(sources_, &TrayTable::edited, this, &BasisTables::editSource);
}

void BasisTables::refresh() {
    const auto& b = session_.project().basis;
    auto standard = session_.design().standard;
    std::vector<QStringList> rows;
    for (const auto& [name, member] : kinds) {
        const auto& m = b.*member;
        double E = m.modulus > 0 ? m.modulus : standard ? standard->stiffness->modulus(m.strength) : 0;
        rows.push_back({tr(name), qs(m.concrete), session_.number(m.strength, Kind::Stress),
                        session_.number(E, Kind::Stress)});
    }
    materials_->show(rows);
    materials_->setHeads({tr("For"), tr("Concrete"), tr("f, %1").arg(session_.unit(Kind::Stress)), tr("E")});
    rows.clear();
    for (const auto& r : rateRows) {
        const auto& rate = b.rates.*(r.rate);
        rows.push_back({tr(r.name), qs(units::plain(rate.price)), qs(units::plain(rate.carbon))});
    }
    rates_->show(rows);
    rates_->setHeads({tr("Rate per"), qs(b.rates.currency), tr("CO₂e, kg")});
    rows.clear();
    std::vector<QString> tips;
    for (const auto& g : model::governingValues(session_.project())) {
        auto found = session_.project().sources.find(g.key);
        model::Source source = found == session_.project().sources.end() ? model::Source{} : found->second;
        QString history;
        bool raised = false;
        for (const auto& c : source.history) {
            history += (history.isEmpty() ? session_.number(c.from, g.kind) : QString()) +
                       QStringLiteral(" → ") + session_.number(c.to, g.kind);
            raised |= c.afterFailure;
        }
        rows.push_back({qs(g.label) + (raised ? tr(" (changed after a check failed)") : QString()),
                        session_.number(g.value, g.kind), sourceKinds()[static_cast<int>(source.kind)]});
        tips.push_back(tr("%1 in %2. %3").arg(qs(g.label), session_.unit(g.kind), history));
        if (rows.size() >= 60) break;
    }
    sources_->show(rows);
    QSignalBlocker quiet(sources_);
    for (std::size_t i = 0; i < tips.size(); ++i)
        for (int c : {0, 1})
            if (auto* cell = sources_->item(int(i), c); cell->toolTip() != tips[i]) cell->setToolTip(tips[i]);
}

void BasisTables::editMaterial(int row, int column, const QString& text) {
    model::Project next = session_.base();
    auto& m = next.basis.*(kinds[row].second);
    if (column == 1) {
        for (const auto& c : catalogs::concreteClasses())
            if (qs(c.id) == text) m.concrete = c.id, m.strength = c.strength;
    } else {
        auto v = units::parse(text.toStdString(), Kind::Stress, session_.project().basis.units);
        if (!v.value) {
            emit refused(qs(v.error));
            return refresh();
        }
        if (column == 2) m.strength = *v.value, m.concrete = "own concrete";
        if (column == 3) m.modulus = *v.value;
    }
    session_.apply(tr("Materials"), std::move(next));
    refresh();
}
void BasisTables::editRate(int row, int column, const QString& text) {
    auto v = units::evaluate(text.toStdString());
    if (!v.value) {
        emit refused(qs(v.error));
        return refresh();
    }
    model::Project next = session_.base();
    auto& rate = next.basis.rates.*(rateRows[row].rate);
    (column == 1 ? rate.price : rate.carbon) = *v.value;
    session_.apply(tr("Rates"), std::move(next));
    refresh();
}
void BasisTables::editSource(int row, int, const QString& text) {
    auto all = model::governingValues(session_.project());
    if (row < 0 || row >= int(all.size())) return;
    model::Project next = session_.base();
    next.sources[all[std::size_t(row)].key].kind =
        static_cast<model::Source::Kind>(std::max<qsizetype>(0, sourceKinds().indexOf(text)));
    session_.apply(tr("Source of a value"), std::move(next));
}

}  // namespace talvik::app

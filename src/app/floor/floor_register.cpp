#include "floor/floor_register.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QTableWidget>
#include <QVBoxLayout>

#include "design/floors.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

const char* stateNames[] = {QT_TR_NOOP("ultimate"), QT_TR_NOOP("characteristic"), QT_TR_NOOP("frequent"),
                            QT_TR_NOOP("quasi-permanent")};

}  // namespace

FloorRegister::FloorRegister(FloorDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      title_(new QLabel),
      note_(new QLabel),
      which_(new QComboBox),
      own_(new QPushButton),
      add_(new QPushButton(tr("Add row"))),
      remove_(new QPushButton(tr("Remove row"))),
      adopt_(new QPushButton),
      table_(new QTableWidget) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 6, 12, 6);
    column->setSpacing(4);
    auto* top = new QHBoxLayout;
    title_->setFont(uiFont(13, QFont::DemiBold));
    top->addWidget(title_);
    which_->addItems({tr("Combinations"), tr("Loads on supports")});
    which_->setObjectName(QStringLiteral("registerOf"));
    top->addWidget(which_);
    QPalette faint = note_->palette();
    faint.setColor(QPalette::WindowText, theme().secondary);
    note_->setPalette(faint);
    note_->setMinimumWidth(0);
    note_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    top->addWidget(note_, 1);
    own_->setObjectName(QStringLiteral("ownCombinations"));
    adopt_->setObjectName(QStringLiteral("adoptThickness"));
    for (QPushButton* b : {add_, remove_, own_, adopt_}) top->addWidget(b);
    column->addLayout(top);
    table_->setObjectName(QStringLiteral("register"));
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->horizontalHeader()->setFont(uiFont(11));
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setTabKeyNavigation(false);
    column->addWidget(table_, 1);
    connect(table_, &QTableWidget::cellChanged, this, [this](int r, int c) {
        if (!filling_) edited(r, c, table_->item(r, c)->text());
    });
    connect(table_, &QTableWidget::cellClicked, this, [this](int r, int) {
        if (desk_.session().place() == Place::Layout && r < int(desk_.panels().size()))
            emit showWanted(desk_.panels()[std::size_t(r)].centre.x, desk_.panels()[std::size_t(r)].centre.y);
    });
    auto* copy = new QShortcut(QKeySequence::Copy, table_);
    copy->setContext(Qt::WidgetShortcut);
    connect(copy, &QShortcut::activated, this, [this] {
        QStringList lines;
        for (int r = -1; r < table_->rowCount(); ++r) {
            QStringList cells;
            for (int c = 0; c < table_->columnCount(); ++c)
                cells << (r < 0 ? table_->horizontalHeaderItem(c)->text() : table_->item(r, c)->text());
            lines << cells.join(QLatin1Char('\t'));
        }
        QApplication::clipboard()->setText(lines.join(QLatin1Char('\n')));
    });
    connect(which_, &QComboBox::activated, this, &FloorRegister::refresh);
    connect(own_, &QPushButton::clicked, this, [this] {
        desk_.edit(tr("Combinations"), [&](model::Floor& f, model::Project& p) {
            auto standard = standards::makeStandard(p.basis.standard, p.basis.parameters);
            if (!f.actions.combinations.empty())
                f.actions.combinations.clear();
            else if (standard)
                f.actions.combinations = design::combinationRows(p, f, *standard);
        });
    });
    connect(add_, &QPushButton::clicked, this, [this] {
        desk_.edit(tr("Combinations"), [&](model::Floor& f, model::Project& p) {
            model::CombinationRow row =
                f.actions.combinations.empty() ? model::CombinationRow{} : f.actions.combinations.back();
            row.id = newId(p, 'r');
            row.name = layout::freeName(f, "Combination ");
            row.clause = "own";
            f.actions.combinations.push_back(row);
        });
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        int r = table_->currentRow();
        desk_.edit(tr("Combinations"), [&](model::Floor& f, model::Project&) {
            if (r >= 0 && r < int(f.actions.combinations.size()) && f.actions.combinations.size() > 1)
                f.actions.combinations.erase(f.actions.combinations.begin() + r);
        });
    });
    connect(adopt_, &QPushButton::clicked, this, [this] {
        const auto& d = desk_.depths();
        std::size_t worst = design::governing(d);
        if (worst >= d.size()) return;
        desk_.edit(tr("First thickness"), [&](model::Floor& f, model::Project&) {
            for (auto& s : f.slabs) s.thickness = d[worst].thickness;
        });
    });
    connect(&desk_, &FloorDesk::changed, this, &FloorRegister::refresh);
    connect(&desk_.session(), &Session::answered, this, &FloorRegister::refresh);
    connect(&desk_.session(), &Session::placeChanged, this, &FloorRegister::refresh);
    refresh();
}

void FloorRegister::fill(const QStringList& heads, const std::vector<QStringList>& rows,
                         const std::set<int>& editable) {
    filling_ = true;
    QString shape = heads.join(QLatin1Char('|'));
    if (shape != shape_) {
        shape_ = shape;
        table_->clear();
        table_->setColumnCount(int(heads.size()));
        table_->setHorizontalHeaderLabels(heads);
    }
    table_->setRowCount(int(rows.size()));
    for (int r = 0; r < int(rows.size()); ++r)
        for (int c = 0; c < heads.size(); ++c) {
            auto* cell = table_->item(r, c);
            if (!cell) table_->setItem(r, c, cell = new QTableWidgetItem);
            const QString& text = rows[std::size_t(r)][c];
            if (cell->text() != text) cell->setText(text);
            bool can = editable.contains(c);
            auto flags =
                Qt::ItemIsEnabled | Qt::ItemIsSelectable | (can ? Qt::ItemIsEditable : Qt::NoItemFlags);
            if (cell->flags() != flags) cell->setFlags(flags);
            if (cell->toolTip() != text) cell->setToolTip(text);
            if (QBrush ink(can ? theme().ink : theme().secondary); cell->foreground() != ink)
                cell->setForeground(ink);
        }
    filling_ = false;
}

void FloorRegister::refresh() {
    const auto* f = desk_.floor();
    auto place = desk_.session().place();
    bool layout = place == Place::Layout, actions = place == Place::Actions;
    if (!f || desk_.dragging() || (!layout && !actions)) return;
    which_->setVisible(actions);
    title_->setVisible(layout);
    bool table = actions && which_->currentIndex() == 0;
    own_->setVisible(table);
    bool mine = !f->actions.combinations.empty();
    own_->setText(mine ? tr("Back to the standard's") : tr("Edit this table"));
    add_->setVisible(table && mine);
    remove_->setVisible(table && mine);
    if (!layout) adopt_->hide();
    if (layout)
        fillPanels();
    else if (table)
        fillCombinations();
    else
        fillTakeOff();
}

void FloorRegister::fillPanels() {
    const auto& panels = desk_.panels();
    const auto& depths = desk_.depths();
    const auto& s = desk_.session();
    std::size_t worst = design::governing(depths);
    title_->setText(tr("Panels"));
    bool known = worst < depths.size() && depths[worst].thickness > 0;
    adopt_->setVisible(known);
    if (known) {
        note_->setText((panels.size() > 200 ? tr("The first 200 of %1. ").arg(panels.size()) : QString()) +
                       tr("First thickness %1: panel %2 governs, %3. Carries: type one-way, two-way or –.")
                           .arg(s.text(depths[worst].thickness, units::Kind::Length), qs(panels[worst].name),
                                qs(depths[worst].steps.empty() ? "" : depths[worst].steps.back().clause)));
        adopt_->setText(tr("Give all slabs %1").arg(s.text(depths[worst].thickness, units::Kind::Length)));
    } else {
        note_->setText(tr("Panels are found between columns, walls and beams under a slab."));
    }
    std::vector<QStringList> rows;
    for (std::size_t i = 0; i < panels.size() && i < 200; ++i) {
        const auto& p = panels[i];
        rows.push_back(
            {qs(p.name), s.number(p.spans[0].clear, units::Kind::Span),
             s.number(p.spans[1].clear, units::Kind::Span), p.oneWay ? tr("one-way") : tr("two-way"),
             p.oneWay ? QString::number(p.direction, 'g', 4) : QStringLiteral("–"), qs(depths[i].system),
             s.number(depths[i].thickness, units::Kind::Length), qs(p.reason)});
    }
    fill({tr("Panel"), tr("Clear 1, %1").arg(s.unit(units::Kind::Span)),
          tr("Clear 2, %1").arg(s.unit(units::Kind::Span)), tr("Carries"), tr("Direction, °"),
          tr("End condition"), tr("First h, %1").arg(s.unit(units::Kind::Length)), tr("Why")},
         rows, {3, 4});
    table_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    const int widths[] = {76, 68, 68, 66, 80, 172, 82};
    for (int c = 0; c < 7; ++c) table_->setColumnWidth(c, widths[c]);
    table_->horizontalHeader()->setStretchLastSection(true);
}

void FloorRegister::fillCombinations() {
    const auto& session = desk_.session();
    const auto* f = desk_.floor();
    auto standard =
        standards::makeStandard(session.project().basis.standard, session.project().basis.parameters);
    bool mine = !f->actions.combinations.empty();
    auto all =
        standard ? design::floorCombinations(*f, *standard) : std::vector<analysis::FloorCombination>{};
    QStringList heads{tr("Combination"), tr("Limit state"), tr("By")};
    for (const auto& c : f->actions.cases) heads << qs(c.name);
    std::vector<QStringList> rows;
    for (const auto& c : all) {
        QStringList row{qs(c.name), tr(stateNames[static_cast<int>(c.state)]), qs(c.clause)};
        for (std::size_t i = 0; i < f->actions.cases.size(); ++i)
            row << (c.factors[i] == 0 ? QStringLiteral("–") : QString::number(c.factors[i], 'g', 4));
        rows.push_back(row);
    }
    std::set<int> editable;
    if (mine)
        for (int c = 0; c < heads.size(); ++c) editable.insert(c);
    fill(heads, rows, editable);
    int more = 0;
    if (standard && f->actions.arrangement != model::Arrangement::All)
        for (const auto& row : session.project().floors)
            if (row.get() == f)
                more = int(design::floorCombinations(
                               *design::arranged(row, session.project().basis, *standard).floor, *standard)
                               .size() -
                           all.size());
    note_->setText(
        (mine ? tr("Your own table: the standard's is not applied.")
              : tr("Generated by %1.").arg(qs(standards::standardTitle(session.project().basis.standard)))) +
        (more ? QLatin1Char(' ') + tr("%1 more with panels loaded in turn.").arg(more) : QString()));
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setColumnWidth(0, 250);
    table_->setColumnWidth(1, 110);
    table_->setColumnWidth(2, 150);
    for (int c = 3; c < heads.size(); ++c) table_->setColumnWidth(c, 84);
    table_->horizontalHeader()->setStretchLastSection(false);
}

void FloorRegister::fillTakeOff() {
    const auto& session = desk_.session();
    const auto* a = session.floorAnalysis();
    auto t = a ? design::takeOff(*desk_.floor(), *a) : design::TakeOff{};
    QString unit = session.unit(units::Kind::Force);
    QStringList heads{tr("Support")};
    for (const auto& c : t.cases) heads << qs(c);
    heads << tr("Service") << tr("Ultimate");
    auto force = [&](double v) { return session.number(v, units::Kind::Force); };
    std::vector<QStringList> rows;
    QStringList sum{tr("all")}, loads{tr("loads put on")};
    for (std::size_t c = 0; c < t.cases.size(); ++c) {
        double total = 0;
        for (const auto& r : t.rows) total += r.perCase[c];
        sum << force(total);
        loads << force(t.load[c]);
    }
    for (const auto& r : t.rows) {
        QStringList row{qs(r.name)};
        for (double v : r.perCase) row << force(v);
        rows.push_back(row << force(r.service) << force(r.ultimate));
    }
    if (!t.rows.empty())
        rows.push_back(sum << QString() << QString()), rows.push_back(loads << QString() << QString());
    fill(heads, rows, {});
    note_->setText(t.rows.empty()
                       ? tr("Not analysed yet.")
                       : tr("Upward forces of columns, walls and other supports by the analysis, %1.%2")
                             .arg(unit, session.stale() ? tr(" Older than the drawing.") : QString()));
    for (int c = 0; c < heads.size(); ++c) table_->setColumnWidth(c, 92);
    table_->horizontalHeader()->setStretchLastSection(false);
}

void FloorRegister::edited(int row, int column, const QString& text) {
    const auto* f = desk_.floor();
    if (!f) return;
    if (desk_.session().place() == Place::Layout) {
        const auto panels = desk_.panels();
        std::vector<std::size_t> which{std::size_t(row)};
        // A row of several selected: all of them.
        std::set<int> chosen;
        for (const auto& i : table_->selectionModel()->selectedRows()) chosen.insert(i.row());
        if (chosen.contains(row)) which.assign(chosen.begin(), chosen.end());
        if (std::size_t(row) >= panels.size()) return;
        std::optional<model::PanelChoice> choice;
        QString word = text.trimmed().toLower();
        double angle = panels[std::size_t(row)].oneWay ? panels[std::size_t(row)].direction : 0;
        bool good = true;
        if (column == 4) {
            angle = word.toDouble(&good);
            if (good) choice = model::PanelChoice{"", {}, model::PanelChoice::Span::OneWay, angle};
        } else if (word == tr("one-way")) {
            choice = model::PanelChoice{"", {}, model::PanelChoice::Span::OneWay, angle};
        } else if (word == tr("two-way")) {
            choice = model::PanelChoice{"", {}, model::PanelChoice::Span::TwoWay, 0};
        } else {
            good = word.isEmpty() || word == QStringLiteral("–") || word == QStringLiteral("-");
        }
        if (!good)
            emit desk_.said(
                tr("Type one-way, two-way, or – for what the sides say; a direction in degrees."));
        else
            desk_.edit(tr("How panels carry"), [&](model::Floor& g, model::Project& p) {
                layout::choosePanels(p, g, panels, which, choice);
            });
        return refresh();
    }
    if (which_->currentIndex() != 0 || row >= int(f->actions.combinations.size())) return refresh();
    desk_.edit(tr("Combinations"), [&](model::Floor& g, model::Project&) {
        auto& r = g.actions.combinations[std::size_t(row)];
        if (column == 0) r.name = text.trimmed().toStdString();
        if (column == 2) r.clause = text.trimmed().toStdString();
        if (column == 1) {
            bool known = false;
            for (int k = 0; k < 4; ++k)
                if (text.trimmed() == tr(stateNames[k]))
                    r.state = static_cast<actions::LimitState>(k), known = true;
            if (!known)
                emit desk_.said(
                    tr("The limit state is one of: ultimate, characteristic, frequent, quasi-permanent."));
        }
        if (column > 2) {
            Id id = g.actions.cases[std::size_t(column - 3)].id;
            QString word = text.trimmed();
            bool none = word.isEmpty() || word == QStringLiteral("–") || word == QStringLiteral("-");
            auto v = none ? units::Parsed{0, ""}
                          : units::parse(word.toStdString(), units::Kind::None, units::System::Metric);
            if (!v.value)
                emit desk_.said(qs(v.error));
            else if (*v.value == 0)
                r.factors.erase(id);
            else
                r.factors[id] = *v.value;
        }
    });
    refresh();
}

}  // namespace talvik::app

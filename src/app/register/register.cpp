#include "register/register.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QSplitter>
#include <QStackedWidget>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include "bases/base_pane.h"
#include "bases/base_table.h"
#include "connections/connection_table.h"
#include "connections/connection_view.h"
#include "design/floors.h"
#include "register/analysis_text.h"
#include "register/load_cases.h"
#include "section/line_section.h"
#include "widgets/elided_label.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

const char* stateNames[] = {QT_TR_NOOP("ultimate"), QT_TR_NOOP("characteristic"), QT_TR_NOOP("frequent"),
                            QT_TR_NOOP("quasi-permanent")};

}  // namespace

Register::Register(FloorDesk& desk, LineSection& section, ConnectionDesk& connections, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      session_(desk.session()),
      note_(new ElidedLabel),
      tabs_(new QWidget),
      actions_(new QWidget),
      own_(new QPushButton),
      add_(new QPushButton(tr("Add row"))),
      remove_(new QPushButton(tr("Remove row"))),
      adopt_(new QPushButton),
      pages_(new QStackedWidget),
      section_(&section),
      table_(new QTableWidget),
      cases_(new LoadCases(desk)),
      analysis_(new AnalysisText(desk.session())),
      connections_(connections),
      connectionTable_(new ConnectionTable(connections)),
      connectionView_(new ConnectionView(connections)),
      bases_(new BaseTable(desk.session())) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 4, 0, 0);
    column->setSpacing(2);
    auto* tabs = new QHBoxLayout(tabs_);
    tabs->setContentsMargins(0, 0, 0, 0);
    tabs->setSpacing(1);
    const std::pair<Page, QString> names[] = {{Page::Panels, tr("Panels")},
                                              {Page::Cases, tr("Cases")},
                                              {Page::Combinations, tr("Combinations")},
                                              {Page::Supports, tr("Supports")},
                                              {Page::Analysis, tr("Analysis")},
                                              {Page::Connections, tr("Connections")},
                                              {Page::Bases, tr("Bases")},
                                              {Page::Section, tr("Long section")}};
    for (const auto& [page, text] : names) {
        auto* b = buttons_[page] = new QToolButton;
        b->setText(text);
        b->setObjectName(QStringLiteral("register_%1").arg(int(page)));
        b->setCheckable(true);
        b->setAutoRaise(true);
        connect(b, &QToolButton::clicked, this, [this, page = page] { show(page); });
        tabs->addWidget(b);
    }
    tabs->addStretch(1);
    setStyleSheet(QStringLiteral("QToolButton{border:0;padding:3px 6px;border-radius:3px}"
                                 "QToolButton:checked{background:%1;font-weight:600}"
                                 "QToolButton:focus{border:1px solid %2}")
                      .arg(theme().chromeDark.name(), theme().selection.name()));
    auto* actions = new QHBoxLayout(actions_);
    actions->setContentsMargins(0, 0, 0, 0);
    note_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    actions->addWidget(note_, 1);
    own_->setObjectName(QStringLiteral("ownCombinations"));
    adopt_->setObjectName(QStringLiteral("adoptThickness"));
    for (QPushButton* b : {add_, remove_, own_, adopt_}) actions->addWidget(b);
    top_ = new QBoxLayout(QBoxLayout::LeftToRight);
    top_->setContentsMargins(6, 0, 8, 0);
    top_->setSpacing(4);
    top_->addWidget(tabs_);
    top_->addWidget(actions_, 1);
    column->addLayout(top_);
    table_->setObjectName(QStringLiteral("register"));
    table_->setAccessibleName(tr("Register"));
    table_->setFrameShape(QFrame::NoFrame);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->horizontalHeader()->setFont(uiFont(11));
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setTabKeyNavigation(false);
    auto* cases = new QScrollArea;
    cases->setFrameShape(QFrame::NoFrame);
    cases->setWidgetResizable(true);
    cases->setWidget(cases_);
    // The base in hand beside the register of all.
    auto* bases = new QSplitter(Qt::Horizontal);
    basePane_ = new BasePane(session_);
    bases->addWidget(basePane_);
    bases->addWidget(bases_);
    bases->setChildrenCollapsible(false);
    bases->setStretchFactor(1, 1);
    bases->setSizes({400, 420});
    for (QWidget* page : {section_, static_cast<QWidget*>(table_), static_cast<QWidget*>(cases),
                          static_cast<QWidget*>(analysis_), static_cast<QWidget*>(connectionView_),
                          static_cast<QWidget*>(connectionTable_), static_cast<QWidget*>(bases)})
        pages_->addWidget(page);
    column->addWidget(pages_, 1);
    setMinimumSize(300, 120);
    connect(table_, &QTableWidget::cellChanged, this, [this](int r, int c) {
        if (!filling_) edited(r, c, table_->item(r, c)->text());
    });
    connect(table_, &QTableWidget::cellClicked, this, [this](int r, int) {
        if (page() == Page::Panels && r < int(desk_.panels().size()))
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
    buildActions();
    connect(&desk_, &FloorDesk::changed, this, &Register::refresh);
    for (auto signal :
         {&Session::changed, &Session::answered, &Session::placeChanged, &Session::selectionChanged})
        connect(&session_, signal, this, &Register::refresh);
    refresh();
}

void Register::buildActions() {
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
}

// What acts on a table stands beside the tabs, or below them where there is no room.
void Register::resizeEvent(QResizeEvent* event) {
    if (event) QWidget::resizeEvent(event);
    const int wanted = tabs_->sizeHint().width() + (actions_->isVisibleTo(this) ? 260 : 0);
    top_->setDirection(width() < wanted ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight);
}

bool Register::has(Page page) const {
    if (session_.bases() || page == Page::Bases) return session_.bases() && page == Page::Bases;
    if (session_.floor()) return true;
    return page == Page::Section || page == Page::Combinations || page == Page::Supports;
}
Register::Page Register::usual() const {
    const bool floor = session_.floor() != nullptr;
    if (session_.bases()) return Page::Bases;
    if (session_.place() <= Place::Layout && floor) return Page::Panels;
    if (session_.place() == Place::Actions) return floor ? Page::Cases : Page::Combinations;
    return Page::Section;
}
Register::Page Register::page() const {
    const auto found = chosen_.find({session_.place(), session_.floor() != nullptr});
    return found != chosen_.end() && has(found->second) ? found->second : usual();
}
QWidget& Register::part() {
    switch (page()) {
        case Page::Section:
            return connections_.inHand() ? static_cast<QWidget&>(*connectionView_) : *section_;
        case Page::Connections:
            return connectionTable_->table();
        case Page::Bases:
            return bases_->table();
        case Page::Cases:
            return cases_->table();
        case Page::Analysis:
            return analysis_->textWidget();
        default:
            return *table_;
    }
}
void Register::show(Page page) {
    chosen_[{session_.place(), session_.floor() != nullptr}] = page;
    refresh();
}
void Register::change() {
    const Page table = usual() != Page::Section                    ? usual()
                       : connections_.inHand() && session_.floor() ? Page::Connections
                                                                   : Page::Supports;
    show(page() == Page::Section ? table : Page::Section);
}

void Register::fill(const QStringList& heads, const std::vector<QStringList>& rows,
                    const std::set<int>& editable, const std::vector<int>& widths) {
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
    for (int c = 0; c < heads.size(); ++c)
        table_->setColumnWidth(c, widths[std::min(std::size_t(c), widths.size() - 1)]);
}

void Register::refresh() {
    const auto* f = session_.floor();
    if (desk_.dragging()) return;
    const Page now = page();
    for (auto& [page, button] : buttons_) button->setVisible(has(page)), button->setChecked(page == now);
    const bool table = now == Page::Combinations && f, mine = f && !f->actions.combinations.empty();
    own_->setVisible(table);
    own_->setText(mine ? tr("Reset to the standard's") : tr("Edit this table"));
    add_->setVisible(table && mine);
    remove_->setVisible(table && mine);
    adopt_->hide();
    note_->setText(QString());
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->horizontalHeader()->setStretchLastSection(now == Page::Panels);
    actions_->setVisible(now == Page::Panels || now == Page::Combinations || now == Page::Supports);
    resizeEvent(nullptr);
    // What is in hand stands in the place of the long section: a connection has a picture of its own.
    const bool connection = connections_.inHand() != nullptr;
    buttons_[Page::Section]->setText(connection ? tr("Detail") : tr("Long section"));
    pages_->setCurrentIndex(now == Page::Section       ? (connection ? 4 : 0)
                            : now == Page::Cases       ? 2
                            : now == Page::Analysis    ? 3
                            : now == Page::Connections ? 5
                            : now == Page::Bases       ? 6
                                                       : 1);
    if (now == Page::Connections) connectionTable_->refresh();
    if (now == Page::Cases) cases_->refresh();
    if (now == Page::Analysis) analysis_->refresh();
    if (now == Page::Panels) fillPanels();
    if (now == Page::Combinations) fillCombinations();
    if (now == Page::Supports) fillSupports();
}

void Register::fillPanels() {
    const auto& panels = desk_.panels();
    const auto& depths = desk_.depths();
    const auto& s = desk_.session();
    std::size_t worst = design::governing(depths);
    bool known = worst < depths.size() && depths[worst].thickness > 0;
    adopt_->setVisible(known);
    if (known) {
        note_->setText((panels.size() > 200 ? tr("The first 200 of %1. ").arg(panels.size()) : QString()) +
                       tr("First thickness %1: panel %2 governs, %3. Spans: type one-way, two-way or –.")
                           .arg(s.text(depths[worst].thickness, units::Kind::Length), qs(panels[worst].name),
                                qs(depths[worst].steps.empty() ? "" : depths[worst].steps.back().clause)));
        adopt_->setText(tr("Give all slabs %1").arg(s.text(depths[worst].thickness, units::Kind::Length)));
    } else {
        note_->setText(tr("Panels are found between columns, walls and beams under a slab."));
    }
    auto raised = [&](const layout::Panel& p) {
        const double rise = layout::camberOf(*desk_.floor(), p);
        return rise > 0 ? s.number(rise, units::Kind::Sag) : QStringLiteral("–");
    };
    std::vector<QStringList> rows;
    for (std::size_t i = 0; i < panels.size() && i < 200; ++i) {
        const auto& p = panels[i];
        rows.push_back(
            {qs(p.name), s.number(p.spans[0].clear, units::Kind::Span),
             s.number(p.spans[1].clear, units::Kind::Span), p.oneWay ? tr("one-way") : tr("two-way"),
             p.oneWay ? QString::number(p.direction, 'g', 4) : QStringLiteral("–"), qs(depths[i].system),
             s.number(depths[i].thickness, units::Kind::Length), raised(p), qs(p.reason)});
    }
    fill({tr("Panel"), tr("Clear span 1, %1").arg(s.unit(units::Kind::Span)),
          tr("Clear span 2, %1").arg(s.unit(units::Kind::Span)), tr("Spans"), tr("Direction, °"),
          tr("End condition"), tr("Initial h, %1").arg(s.unit(units::Kind::Length)),
          tr("Precamber, %1").arg(s.unit(units::Kind::Sag)), tr("Why")},
         rows, {3, 4, 7}, {66, 88, 88, 70, 70, 150, 74, 92, 60});
    table_->setSelectionMode(QAbstractItemView::ExtendedSelection);
}

void Register::fillCombinations() {
    const auto& session = session_;
    const auto* f = desk_.floor();
    if (!f) return fillSlabCombinations();
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
    fill(heads, rows, editable, {230, 124, 156, 84});
    int more = 0;
    if (standard && f->actions.arrangement != model::Arrangement::All)
        for (const auto& row : session.project().floors)
            if (row.get() == f)
                more = int(design::floorCombinations(
                               *design::arranged(row, session.project().basis, *standard).floor, *standard)
                               .size() -
                           all.size());
    note_->setText(
        (mine ? tr("Own table: the standard's combinations are not applied.")
              : tr("Generated by %1.").arg(qs(standards::standardTitle(session.project().basis.standard)))) +
        (more ? QLatin1Char(' ') + tr("%1 more with pattern loading.").arg(more) : QString()));
}

// Of a one-way slab: factors on permanent and imposed load.
void Register::fillSlabCombinations() {
    std::vector<QStringList> rows;
    const auto* d = session_.slabDesign();
    if (d && d->error.empty())
        for (const auto& c : d->analysis.combinations)
            rows.push_back({qs(c.name), tr(stateNames[static_cast<int>(c.state)]), qs(c.clause),
                            QString::number(c.factorG, 'g', 4), QString::number(c.factorQ, 'g', 4)});
    fill({tr("Combination"), tr("Limit state"), tr("By"), tr("Permanent"), tr("Imposed")}, rows, {},
         {230, 124, 156, 84});
    if (d && d->error.empty())
        note_->setText(tr("Imposed load in %1 arrangements of spans: all, alternate, each two neighbours. "
                          "The factors are parameters of the basis.")
                           .arg(d->analysis.arrangements.size()));
}

void Register::fillSlabSupports() {
    std::vector<QStringList> rows;
    const auto* d = session_.slabDesign();
    auto force = [&](double v) { return session_.number(v, units::Kind::ForcePerWidth); };
    if (d && d->error.empty())
        for (std::size_t i = 0; i < d->analysis.reactions.size(); ++i) {
            const auto& r = d->analysis.reactions[i];
            rows.push_back({qs(model::supportLabel(*session_.slab(), i)), force(r.permanent),
                            force(r.imposedMax), force(r.ultimateMax.value)});
        }
    fill({tr("Support"), tr("Permanent"), tr("Imposed"), tr("Ultimate")}, rows, {}, {92});
    note_->setText(tr("Largest reactions, %1 upwards.").arg(session_.unit(units::Kind::ForcePerWidth)));
}

void Register::fillSupports() {
    const auto& session = session_;
    if (!desk_.floor()) return fillSlabSupports();
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
    fill(heads, rows, {}, {92});
    note_->setText(t.rows.empty()
                       ? tr("Not analysed yet.")
                       : tr("Upward reactions of columns, walls and other supports by the analysis, %1.%2")
                             .arg(unit, session.stale() ? tr(" Older than the drawing.") : QString()));
}

void Register::edited(int row, int column, const QString& text) {
    if (!desk_.floor()) return;
    if (page() == Page::Panels) editPanel(row, column, text);
    if (page() == Page::Combinations) editCombination(row, column, text);
    refresh();
}

void Register::editPanel(int row, int column, const QString& text) {
    const auto panels = desk_.panels();
    std::vector<std::size_t> which{std::size_t(row)};
    // A row of several selected: all of them.
    std::set<int> chosen;
    for (const auto& i : table_->selectionModel()->selectedRows()) chosen.insert(i.row());
    if (chosen.contains(row)) which.assign(chosen.begin(), chosen.end());
    if (std::size_t(row) >= panels.size()) return;
    if (column == 7) {
        const QString typed = text.trimmed();
        const bool none = typed.isEmpty() || typed == QStringLiteral("–") || typed == QStringLiteral("-");
        const auto rise = units::parse(none ? "0" : typed.toStdString(), units::Kind::Sag,
                                       desk_.session().project().basis.units);
        if (!rise.value)
            emit desk_.said(qs(rise.error));
        else if (*rise.value < 0)
            emit desk_.said(tr("Precamber raises the formwork: give it as a positive number."));
        else
            desk_.edit(tr("Precamber"), [&](model::Floor& g, model::Project& p) {
                layout::setCamber(p, g, panels, which, *rise.value);
            });
        return;
    }
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
        emit desk_.said(tr("Type one-way, two-way, or – for the automatic choice; a direction in degrees."));
    else
        desk_.edit(tr("How panels span"), [&](model::Floor& g, model::Project& p) {
            layout::choosePanels(p, g, panels, which, choice);
        });
}

void Register::editCombination(int row, int column, const QString& text) {
    if (row >= int(desk_.floor()->actions.combinations.size())) return;
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
}

}  // namespace talvik::app

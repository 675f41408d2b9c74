#include "connections/connection_table.h"

#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPainter>
#include <QPushButton>
#include <QShortcut>
#include <QStyledItemDelegate>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "widgets/elided_label.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

enum Column { Name, Where, Force, Moments, Length, Face, Control, WithSteel, Steel, Columns };
constexpr int ratioRole = Qt::UserRole, keyRole = Qt::UserRole + 1, sortRole = Qt::UserRole + 2;

// A gauge with its ratio beside it; a dashed one where nothing was checked.
class GaugeDelegate final : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        QStyleOptionViewItem plain = option;
        initStyleOption(&plain, index);
        plain.text.clear();
        plain.widget->style()->drawControl(QStyle::CE_ItemViewItem, &plain, p, plain.widget);
        const QVariant ratio = index.data(ratioRole);
        if (!ratio.isValid()) return;
        const QRectF r(option.rect);
        p->save();
        p->setRenderHint(QPainter::Antialiasing);
        const double v = ratio.toDouble();
        paintGauge(*p, QRectF(r.left() + 6, r.center().y() - 3, r.width() - 46, 7), v,
                   v < 0    ? GaugeState::NotChecked
                   : v == 0 ? GaugeState::NotApplicable
                            : GaugeState::Judged);
        p->setPen(v > 1 ? theme().over : theme().ink);
        p->setFont(uiFont(11, v > 1 ? QFont::DemiBold : QFont::Normal));
        if (v > 0)
            p->drawText(QRectF(r.right() - 38, r.top(), 34, r.height()), Qt::AlignRight | Qt::AlignVCenter,
                        QString::number(v, 'f', 2));
        p->restore();
    }
};

// Sorts by what stands behind the text.
class Cell final : public QTableWidgetItem {
  public:
    bool operator<(const QTableWidgetItem& other) const override {
        const QVariant a = data(sortRole), b = other.data(sortRole);
        if (a.isValid() && b.isValid() && a.toDouble() != b.toDouble()) return a.toDouble() < b.toDouble();
        return a.isValid() == b.isValid() ? text() < other.text() : a.isValid();
    }
};

}  // namespace

ConnectionTable::ConnectionTable(ConnectionDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      table_(new QTableWidget(0, Columns)),
      over_(new QCheckBox(tr("Failing only"))),
      note_(new ElidedLabel) {
    over_->setObjectName(QStringLiteral("connectionsOver"));
    table_->setObjectName(QStringLiteral("connections"));
    table_->setAccessibleName(tr("Connections"));
    table_->setFrameShape(QFrame::NoFrame);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->horizontalHeader()->setFont(uiFont(11));
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setTabKeyNavigation(false);
    table_->setStyleSheet(QStringLiteral("QTableWidget::item:selected{background:%1;color:%2}")
                              .arg(theme().chromeDark.name(), theme().ink.name()));
    // Those over first, until another order is asked for.
    connect(table_->horizontalHeader(), &QHeaderView::sectionClicked, this, [this] {
        if (sorted_) return;
        sorted_ = true;
        table_->setSortingEnabled(true);
    });
    table_->horizontalHeader()->setSectionsClickable(true);
    auto* gauges = new GaugeDelegate(table_);
    for (int c : {Face, Control, WithSteel}) table_->setItemDelegateForColumn(c, gauges);
    const int widths[] = {84, 96, 56, 90, 50, 80, 80, 80};
    for (int c = 0; c < Steel; ++c) table_->setColumnWidth(c, widths[c]);
    auto* top = new QHBoxLayout;
    top->setContentsMargins(8, 2, 8, 2);
    top->addWidget(over_);
    note_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    top->addWidget(note_, 1);
    const std::pair<ConnectionDesk::Steel, QString> kinds[] = {{ConnectionDesk::Steel::Studs, tr("Studs")},
                                                               {ConnectionDesk::Steel::Links, tr("Links")},
                                                               {ConnectionDesk::Steel::None, tr("No steel")}};
    for (const auto& [steel, text] : kinds) {
        auto* b = new QPushButton(text);
        b->setObjectName(QStringLiteral("connectionSteel_%1").arg(int(steel)));
        b->setToolTip(tr("For the selected rows"));
        connect(b, &QPushButton::clicked, this, [this, steel = steel] { desk_.setSteel(chosen(), steel); });
        top->addSpacing(4);
        top->addWidget(b);
    }
    auto* pin = new QPushButton(tr("Fix size"));
    pin->setObjectName(QStringLiteral("connectionPin"));
    pin->setToolTip(tr("Of the selected rows: no suggested change enlarges their columns. Again: it may."));
    connect(pin, &QPushButton::clicked, this, [this] {
        auto keys = chosen();
        std::erase_if(keys, [&](const auto& key) { return !desk_.hasSize(key); });
        if (keys.empty()) return;
        const auto& all = desk_.all();
        const bool every = std::all_of(keys.begin(), keys.end(), [&](const auto& key) {
            return std::any_of(all.begin(), all.end(),
                               [&](const auto& c) { return c->site->key == key && c->choice.pinned; });
        });
        desk_.setPinned(keys, !every);
    });
    top->addSpacing(12);
    top->addWidget(pin);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(top);
    column->addWidget(table_, 1);
    connect(over_, &QCheckBox::toggled, this, &ConnectionTable::refresh);
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (filling_ || row < 0 || !table_->item(row, Name)) return;
        desk_.select(table_->item(row, Name)->data(keyRole).toString().toStdString());
    });
    connect(&desk_.session(), &Session::selectionChanged, this, &ConnectionTable::follow);
    auto* copy = new QShortcut(QKeySequence::Copy, table_);
    copy->setContext(Qt::WidgetShortcut);
    connect(copy, &QShortcut::activated, this, [this] { QApplication::clipboard()->setText(copied()); });
}

std::vector<std::string> ConnectionTable::chosen() const {
    std::vector<std::string> keys;
    for (const auto& index : table_->selectionModel()->selectedRows())
        keys.push_back(table_->item(index.row(), Name)->data(keyRole).toString().toStdString());
    if (keys.empty())
        if (const auto* c = desk_.inHand()) keys.push_back(c->site->key);
    return keys;
}

QString ConnectionTable::copied() const {
    QStringList lines;
    for (int r = -1; r < table_->rowCount(); ++r) {
        QStringList cells;
        for (int c = 0; c < Columns; ++c) {
            const auto* item = r < 0 ? table_->horizontalHeaderItem(c) : table_->item(r, c);
            const QVariant ratio = r < 0 ? QVariant() : item->data(ratioRole);
            cells << (ratio.isValid()
                          ? ratio.toDouble() > 0 ? QString::number(ratio.toDouble(), 'f', 3) : QString()
                          : item->text());
        }
        lines << cells.join(QLatin1Char('\t'));
    }
    return lines.join(QLatin1Char('\n'));
}

void ConnectionTable::refresh() {
    auto& s = desk_.session();
    const auto keys = chosen();
    filling_ = true;
    table_->setSortingEnabled(false);
    table_->setHorizontalHeaderLabels({tr("At"), tr("Position"), tr("V, %1").arg(s.unit(Kind::Force)),
                                       tr("M, %1").arg(s.unit(Kind::Moment)),
                                       tr("u, %1").arg(s.unit(Kind::Length)), tr("Face"), tr("Concrete"),
                                       tr("With steel"), tr("Shear reinforcement")});
    std::vector<const design::ConnectionDesign*> rows;
    int over = 0;
    for (const auto& c : desk_.all()) {
        const bool exceeded = c->worst() > 1;
        over += exceeded;
        if (!over_->isChecked() || exceeded) rows.push_back(c.get());
    }
    std::stable_sort(rows.begin(), rows.end(), [](const auto* a, const auto* b) {
        const bool overA = a->worst() > 1, overB = b->worst() > 1;
        return overA != overB ? overA : a->controlRatio() > b->controlRatio();
    });
    table_->setRowCount(int(rows.size()));
    for (int r = 0; r < int(rows.size()); ++r) {
        const auto& c = *rows[std::size_t(r)];
        const auto* section = c.shown();
        const auto* d = c.shownDemand();
        const double M = d ? std::max(std::abs(d->forces.Mx), std::abs(d->forces.My)) : 0;
        auto put = [&](int column, const QString& text, QVariant sort = {}, QVariant ratio = {}) {
            auto* cell = table_->item(r, column);
            if (!cell) table_->setItem(r, column, cell = new Cell);
            cell->setText(text);
            cell->setToolTip(text);
            cell->setData(sortRole, sort);
            cell->setData(ratioRole, ratio);
        };
        put(Name, c.choice.pinned ? tr("%1, fixed").arg(qs(c.site->label)) : qs(c.site->label));
        table_->item(r, Name)->setToolTip(
            c.choice.pinned ? tr("%1: no suggested change enlarges it").arg(qs(c.name)) : qs(c.name));
        table_->item(r, Name)->setData(keyRole, qs(c.site->key));
        put(Where, section ? qs(c.position()) : tr("not checked"));
        if (!section) table_->item(r, Where)->setToolTip(qs(c.without));
        put(Force, d ? s.number(std::abs(d->forces.V), Kind::Force) : QString(),
            d ? std::abs(d->forces.V) : -1);
        put(Moments,
            d ? QStringLiteral("%1 / %2").arg(s.number(std::abs(d->forces.Mx), Kind::Moment),
                                              s.number(std::abs(d->forces.My), Kind::Moment))
              : QString(),
            d ? M : -1);
        put(Length, section ? s.number(section->length, Kind::Length) : QString(),
            section ? section->length : -1);
        const double ratios[] = {c.faceRatio(), c.controlRatio(), c.steelRatio()};
        for (int k = 0; k < 3; ++k) {
            const double ratio = section ? ratios[k] : -1;
            put(Face + k, QString(), ratio, ratio);
        }
        put(Steel, !section                            ? QString()
                   : c.controlRatio() > 1 && !c.wanted ? tr("none yet")
                   : !c.wanted                         ? tr("none needed")
                                                       : qs(c.steelText(s.project().basis.units)));
        table_->item(r, Steel)->setForeground(c.controlRatio() > 1 && !c.steel ? theme().over : theme().ink);
    }
    table_->setSortingEnabled(sorted_);
    filling_ = false;
    note_->setText(tr("%1 failing of %2").arg(over).arg(desk_.all().size()));
    // Rows that were chosen stay so, wherever they stand now.
    filling_ = true;
    table_->clearSelection();
    for (int r = 0; r < table_->rowCount(); ++r) {
        const auto key = table_->item(r, Name)->data(keyRole).toString().toStdString();
        if (std::find(keys.begin(), keys.end(), key) != keys.end())
            table_->selectionModel()->select(table_->model()->index(r, 0),
                                             QItemSelectionModel::Select | QItemSelectionModel::Rows);
    }
    filling_ = false;
    follow();
}

void ConnectionTable::follow() {
    const auto* c = desk_.inHand();
    if (!c || filling_) return;
    for (int r = 0; r < table_->rowCount(); ++r)
        if (table_->item(r, Name)->data(keyRole).toString().toStdString() == c->site->key) {
            if (table_->currentRow() == r) return;
            filling_ = true;
            // Rows that were chosen together with it stay so.
            const bool chosen = table_->selectionModel()->isRowSelected(r, {});
            table_->setCurrentCell(r, Name,
                                   chosen ? QItemSelectionModel::NoUpdate
                                          : QItemSelectionModel::ClearAndSelect | QItemSelectionModel::Rows);
            filling_ = false;
            return;
        }
}

}  // namespace talvik::app

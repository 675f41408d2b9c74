#include "bases/base_table.h"

#include <QAbstractItemDelegate>
#include <QAbstractTableModel>
#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLineEdit>
#include <QPushButton>
#include <QShortcut>
#include <QTableView>
#include <QVBoxLayout>
#include <algorithm>
#include <map>
#include <set>

#include "formats/file.h"
#include "formats/tables.h"
#include "model/base_edits.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

enum Column { Name, Type, AlongX, AlongY, Depth, Piles, Ratio, Governs, BarsX, BarsY, Steel, Cost, Columns };

}  // namespace

// Rows in the order and with the filter asked for; sizes are written as pins.
class BaseTable::Rows final : public QAbstractTableModel {
  public:
    Rows(Session& session, BaseTable& owner)
        : QAbstractTableModel(&owner), session_(session), owner_(owner) {}

    int rowCount(const QModelIndex& parent = {}) const override {
        return parent.isValid() ? 0 : int(shown_.size());
    }
    int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : Columns; }
    const design::BasePart* part(int row) const {
        const auto* a = session_.basesAnswer();
        return a && row >= 0 && row < int(shown_.size()) && shown_[std::size_t(row)] < a->bases.size()
                   ? a->bases[shown_[std::size_t(row)]].get()
                   : nullptr;
    }
    int rowOf(const model::PartRef& part) const {
        const auto* a = session_.basesAnswer();
        for (std::size_t r = 0; a && r < shown_.size(); ++r)
            if (shown_[r] < a->bases.size() && a->bases[shown_[r]]->part == part) return int(r);
        return -1;
    }

    QVariant data(const QModelIndex& index, int role) const override {
        const auto* b = part(index.row());
        if (!b) return {};
        const auto* worst = b->governing();
        const bool over = worst && worst->outcome == checks::Outcome::Over;
        const auto& row = session_.bases()->bases[b->number];
        if (role == Qt::ForegroundRole) {
            if (index.column() == Ratio && over) return theme().over;
            const bool pinned =
                (index.column() == AlongX && row.B > 0) || (index.column() == AlongY && row.L > 0) ||
                (index.column() == Depth && row.h > 0) || (index.column() == Piles && row.piles > 0);
            return pinned ? theme().selection : theme().ink;
        }
        if (role == Qt::TextAlignmentRole)
            return int(Qt::AlignVCenter) |
                   int(index.column() == Name || index.column() == Type || index.column() == Governs ||
                               index.column() == BarsX || index.column() == BarsY
                           ? Qt::AlignLeft
                           : Qt::AlignRight);
        if (role != Qt::DisplayRole && role != Qt::EditRole && role != Qt::ToolTipRole) return {};
        switch (index.column()) {
            case Name:
                return qs(model::baseName(*session_.bases(), row));
            case Type:
                return qs(b->type);
            case AlongX:
                return session_.number(b->size().B, Kind::Length);
            case AlongY:
                return session_.number(b->size().L, Kind::Length);
            case Depth:
                return session_.number(b->size().h, Kind::Length);
            case Piles:
                return b->piles().empty() ? QString() : QString::number(b->piles().size());
            case BarsX:
                return qs(b->bottom()[0].text());
            case BarsY:
                return qs(b->bottom()[1].text());
            case Governs:
                return worst ? qs(worst->title) : qs(b->trouble());
            case Ratio:
                return worst ? QString::number(std::min(checks::ratio(*worst), 99.0), 'f', 2) : QString();
            case Steel:
                return session_.number(b->steel, Kind::Mass);
            case Cost:
                return QString::number(b->cost, 'f', 0);
            default:
                return {};
        }
    }
    // What a cell shows of a base.
    QString shown(const design::BasePart& b, int column) const {
        const auto* a = session_.basesAnswer();
        for (std::size_t r = 0; a && r < shown_.size(); ++r)
            if (shown_[r] < a->bases.size() && a->bases[shown_[r]].get() == &b)
                return data(index(int(r), column), Qt::DisplayRole).toString();
        return {};
    }
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override {
        if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
        const QString mm = session_.unit(Kind::Length);
        switch (section) {
            case Name:
                return tr("Base");
            case Type:
                return tr("Type");
            case AlongX:
                return tr("x %1").arg(mm);
            case AlongY:
                return tr("y %1").arg(mm);
            case Depth:
                return tr("Depth %1").arg(mm);
            case Piles:
                return tr("Piles");
            case BarsX:
                return tr("Bars x");
            case BarsY:
                return tr("Bars y");
            case Governs:
                return tr("Governs");
            case Ratio:
                return tr("Ratio");
            case Steel:
                return tr("Steel %1").arg(session_.unit(Kind::Mass));
            case Cost:
                return tr("Cost %1").arg(qs(session_.project().basis.rates.currency));
            default:
                return {};
        }
    }
    Qt::ItemFlags flags(const QModelIndex& index) const override {
        auto f = QAbstractTableModel::flags(index);
        if (editable(index.column())) f |= Qt::ItemIsEditable;
        return f;
    }
    // Of one base: a figure pins, an empty cell or a dash frees; a sentence where it cannot be read.
    QString write(model::Base& b, int column, const QString& typed) const {
        const QString text = typed.trimmed();
        const bool free = text.isEmpty() || text == QStringLiteral("-") || text == QStringLiteral("–");
        if (column == Type) {
            b.type = text.toStdString();
            return {};
        }
        double v = 0;
        if (!free) {
            const auto parsed = units::parse(text.toStdString(), column == Piles ? Kind::Count : Kind::Length,
                                             session_.project().basis.units);
            if (!parsed.value) return qs(parsed.error);
            v = *parsed.value;
        }
        if (column == AlongX) b.B = v;
        if (column == AlongY) b.L = v;
        if (column == Depth) b.h = v;
        if (column == Piles) b.piles = int(v);
        return {};
    }
    // Of several rows selected, all of them.
    bool setData(const QModelIndex& index, const QVariant& value, int role) override {
        if (role != Qt::EditRole || !part(index.row())) return false;
        const QString text = value.toString().trimmed();
        std::set<std::size_t> rows{part(index.row())->number};
        if (owner_.table().selectionModel()->isRowSelected(index.row(), {}))
            for (const auto& i : owner_.table().selectionModel()->selectedRows())
                if (const auto* b = part(i.row())) rows.insert(b->number);
        QString why;
        auto next = model::editBases(session_.base(), session_.bases()->id,
                                     [&](model::BaseSet& set, model::Project&) {
                                         for (std::size_t r : rows)
                                             if (why.isEmpty())
                                                 why = write(set.bases[r], index.column(), text);
                                     });
        if (!why.isEmpty()) {
            emit owner_.said(why);
            return false;
        }
        const QString head = headerData(index.column(), Qt::Horizontal, Qt::DisplayRole).toString();
        return session_.apply(text.isEmpty() ? tr("Free %1").arg(head) : tr("Fix %1").arg(head),
                              std::move(next));
    }
    bool editable(int column) const {
        return column == Type || column == AlongX || column == AlongY || column == Depth ||
               (column == Piles && session_.bases() && session_.bases()->kind == model::BaseSet::Kind::Caps);
    }
    void sort(int column, Qt::SortOrder order) override {
        column_ = column, order_ = order;
        refresh(filter_, over_);
    }
    void refresh(const QString& filter, bool over) {
        beginResetModel();
        filter_ = filter, over_ = over;
        shown_.clear();
        if (const auto* a = session_.basesAnswer())
            for (std::size_t i = 0; i < a->bases.size(); ++i) {
                const auto& b = *a->bases[i];
                const auto* worst = b.governing();
                if (over && (!worst || worst->outcome != checks::Outcome::Over)) continue;
                const QString all =
                    qs(model::baseName(*session_.bases(), session_.bases()->bases[b.number])) +
                    QLatin1Char(' ') + qs(b.type) + QLatin1Char(' ') + (worst ? qs(worst->title) : QString());
                if (!filter.isEmpty() && !all.contains(filter, Qt::CaseInsensitive)) continue;
                shown_.push_back(i);
            }
        if (column_ >= 0) {
            const auto* a = session_.basesAnswer();
            auto value = [&](std::size_t i) -> std::pair<double, QString> {
                const auto& b = *a->bases[i];
                const auto* worst = b.governing();
                switch (column_) {
                    case AlongX:
                        return {b.size().B, {}};
                    case AlongY:
                        return {b.size().L, {}};
                    case Depth:
                        return {b.size().h, {}};
                    case Piles:
                        return {double(b.piles().size()), {}};
                    case BarsX:
                        return {b.bottom()[0].area(), {}};
                    case BarsY:
                        return {b.bottom()[1].area(), {}};
                    case Ratio:
                        return {worst ? checks::ratio(*worst) : 99, {}};
                    case Steel:
                        return {b.steel, {}};
                    case Cost:
                        return {b.cost, {}};
                    case Type:
                        return {0, qs(b.type)};
                    case Governs:
                        return {0, worst ? qs(worst->title) : QString()};
                    default:
                        return {0, qs(model::baseName(*session_.bases(), session_.bases()->bases[b.number]))};
                }
            };
            std::stable_sort(shown_.begin(), shown_.end(), [&](std::size_t x, std::size_t y) {
                return order_ == Qt::AscendingOrder ? value(x) < value(y) : value(y) < value(x);
            });
        }
        endResetModel();
    }

  private:
    Session& session_;
    BaseTable& owner_;
    std::vector<std::size_t> shown_;
    QString filter_;
    bool over_ = false;
    int column_ = -1;
    Qt::SortOrder order_ = Qt::AscendingOrder;
};

BaseTable::BaseTable(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      table_(new QTableView),
      filter_(new QLineEdit),
      over_(new QCheckBox(tr("Failing only"))),
      rows_(new Rows(session, *this)) {
    table_->setObjectName(QStringLiteral("bases"));
    table_->setAccessibleName(tr("Bases"));
    table_->setModel(rows_);
    table_->setFrameShape(QFrame::NoFrame);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    table_->setTabKeyNavigation(false);
    table_->horizontalHeader()->setFont(uiFont(11));
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->setSortingEnabled(true);
    table_->horizontalHeader()->setSortIndicator(-1, Qt::AscendingOrder);
    table_->setStyleSheet(QStringLiteral("QTableView::item:selected{background:%1;color:%2}")
                              .arg(theme().chromeDark.name(), theme().ink.name()));
    const int widths[] = {74, 44, 56, 56, 70, 44, 48, 150, 86, 86, 64, 64};
    for (int c = 0; c < Columns; ++c) table_->setColumnWidth(c, widths[c]);
    filter_->setObjectName(QStringLiteral("basesFilter"));
    filter_->setAccessibleName(tr("Filter of bases"));
    filter_->setPlaceholderText(tr("Name, type or check"));
    filter_->setMaximumWidth(200);
    over_->setObjectName(QStringLiteral("basesOver"));
    auto* top = new QHBoxLayout;
    top->setContentsMargins(8, 2, 8, 2);
    top->addWidget(filter_);
    top->addWidget(over_);
    top->addStretch();
    auto action = [&](const QString& text, const char* name, const QString& tip, auto edit) {
        auto* b = new QPushButton(text);
        b->setObjectName(QLatin1String(name));
        b->setToolTip(tip);
        connect(b, &QPushButton::clicked, this, [this, text, edit] {
            std::vector<model::Id> ids;
            for (const auto& i : table_->selectionModel()->selectedRows())
                if (const auto* base = rows_->part(i.row())) ids.push_back(base->part.key);
            session_.apply(text, edit(session_.base(), session_.bases()->id, ids));
        });
        top->addWidget(b);
    };
    action(tr("Combine"), "joinBases", tr("The columns of the selected rows share one base"),
           model::joinBases);
    action(tr("Separate"), "partBases", tr("Each column of the selected rows has a base of its own"),
           model::partBases);
    auto* out = new QPushButton(tr("Save…"));
    out->setObjectName(QStringLiteral("saveBases"));
    out->setToolTip(tr("The register of all bases as a table: CSV or XLSX"));
    connect(out, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(
            this, tr("Save the register"), QStringLiteral("register.csv"), tr("Tables (*.csv *.xlsx)"));
        if (path.isEmpty()) return;
        if (const QString why = save(path); !why.isEmpty()) emit said(why);
    });
    top->addWidget(out);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(top);
    column->addWidget(table_, 1);
    connect(filter_, &QLineEdit::textChanged, this, &BaseTable::refresh);
    connect(over_, &QCheckBox::toggled, this, &BaseTable::refresh);
    for (auto signal : {&Session::answered, &Session::changed})
        connect(&session, signal, this, &BaseTable::refresh);
    connect(table_->itemDelegate(), &QAbstractItemDelegate::closeEditor, this, &BaseTable::refresh,
            Qt::QueuedConnection);
    auto follow = [this] {
        if (following_ || !session_.bases()) return;
        following_ = true;
        const int row = session_.selection() ? rows_->rowOf(session_.selection()->part) : -1;
        if (row < 0)
            table_->clearSelection();
        else if (!table_->selectionModel()->isRowSelected(row, {}))
            table_->setCurrentIndex(rows_->index(row, std::max(0, table_->currentIndex().column())));
        if (row >= 0) table_->scrollTo(rows_->index(row, 0));
        following_ = false;
    };
    connect(&session, &Session::selectionChanged, this, follow);
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this](const QModelIndex& now) {
                if (following_ || !now.isValid()) return;
                following_ = true;
                if (const auto* b = rows_->part(now.row()))
                    session_.select(Spot{b->part, Spot::In::Whole, {}});
                following_ = false;
            });
    auto* keys = new QShortcut(QKeySequence::Copy, table_);
    keys->setContext(Qt::WidgetShortcut);
    connect(keys, &QShortcut::activated, this, &BaseTable::copy);
    auto* in = new QShortcut(QKeySequence::Paste, table_);
    in->setContext(Qt::WidgetShortcut);
    connect(in, &QShortcut::activated, this, [this] { paste(QApplication::clipboard()->text()); });
}

QString BaseTable::save(const QString& path) const {
    const std::string to = path.toStdString();
    // Of the set in hand alone.
    design::Design one = session_.design();
    std::erase_if(one.elements, [&](const auto& e) { return e->element != session_.bases()->id; });
    if (path.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive))
        return qs(formats::writeFile(to, formats::baseRegisterCsv(one)));
    if (path.endsWith(QLatin1String(".xlsx"), Qt::CaseInsensitive))
        return qs(formats::writeBaseRegisterXlsx(to, one));
    return tr("The register can be saved as .csv or .xlsx; \"%1\" ends otherwise.").arg(path);
}

void BaseTable::paste(const QString& text) {
    std::vector<QStringList> lines;
    for (const QString& line : text.split(QLatin1Char('\n'))) {
        QString row = line;
        if (row.endsWith(QLatin1Char('\r'))) row.chop(1);
        if (!row.isEmpty()) lines.push_back(row.split(QLatin1Char('\t')));
    }
    const auto* set = session_.bases();
    if (lines.empty() || !set) return;
    // What each column of the paste is, and the base of each row.
    std::vector<int> columns;
    const bool headed = lines.front().front().trimmed() ==
                        rows_->headerData(Name, Qt::Horizontal, Qt::DisplayRole).toString();
    if (headed) {
        for (const QString& head : lines.front()) {
            int found = -1;
            for (int c = 0; c < Columns; ++c)
                if (head.trimmed() == rows_->headerData(c, Qt::Horizontal, Qt::DisplayRole).toString())
                    found = c;
            columns.push_back(found);
        }
        lines.erase(lines.begin());
    }
    const QModelIndex from = table_->currentIndex();
    if (!headed && !from.isValid())
        return void(emit said(tr("Choose the cell at which the pasted rows begin first.")));
    QString why;
    int written = 0;
    auto next = model::editBases(session_.base(), set->id, [&](model::BaseSet& s, model::Project&) {
        std::map<std::string, std::size_t> byName;
        for (std::size_t i = 0; i < s.bases.size(); ++i) byName.emplace(model::baseName(s, s.bases[i]), i);
        for (std::size_t k = 0; k < lines.size() && why.isEmpty(); ++k) {
            const QStringList& cells = lines[k];
            std::size_t row = 0;
            if (headed) {
                const auto found = byName.find(cells.front().trimmed().toStdString());
                if (found == byName.end()) {
                    why = tr("Row %1 names \"%2\", which is no base of this set.")
                              .arg(k + 1)
                              .arg(cells.front());
                    break;
                }
                row = found->second;
            } else {
                const auto* b = rows_->part(from.row() + int(k));
                if (!b) {
                    why = tr("There are more rows than bases below the chosen cell.");
                    break;
                }
                row = b->number;
            }
            for (int c = 0; c < cells.size() && why.isEmpty(); ++c) {
                const int column =
                    headed ? (c < int(columns.size()) ? columns[std::size_t(c)] : -1) : from.column() + c;
                if (column <= Name || !rows_->editable(column)) continue;
                // A copied register writes what it shows: what is as it is solved stays solved.
                const auto* b = session_.basesAnswer() && row < session_.basesAnswer()->bases.size()
                                    ? session_.basesAnswer()->bases[row].get()
                                    : nullptr;
                if (headed && b && b->number == row && rows_->shown(*b, column) == cells[c].trimmed())
                    continue;
                why = rows_->write(s.bases[row], column, cells[c]);
                if (!why.isEmpty()) why = tr("Row %1: %2").arg(k + 1).arg(why);
                ++written;
            }
        }
    });
    if (!why.isEmpty()) return void(emit said(why + tr(" Nothing was pasted.")));
    if (written == 0)
        return void(emit said(tr("Nothing in it can be fixed, or all values are there already.")));
    session_.apply(tr("Paste into the register"), std::move(next));
}

void BaseTable::refresh() {
    if (!session_.bases()) return;
    // What is typed into a cell stays there while an answer comes: the rows follow when the cell is left.
    for (const auto* field : table_->viewport()->findChildren<QLineEdit*>(Qt::FindDirectChildrenOnly))
        if (field->isVisibleTo(table_->viewport())) return table_->viewport()->update();
    table_->setColumnHidden(Piles, session_.bases()->kind == model::BaseSet::Kind::Pads);
    following_ = true;
    std::set<std::size_t> chosen;
    for (const auto& i : table_->selectionModel()->selectedRows())
        if (const auto* b = rows_->part(i.row())) chosen.insert(b->number);
    rows_->refresh(filter_->text().trimmed(), over_->isChecked());
    for (int r = 0; r < rows_->rowCount(); ++r)
        if (const auto* b = rows_->part(r); b && chosen.contains(b->number))
            table_->selectionModel()->select(rows_->index(r, 0),
                                             QItemSelectionModel::Select | QItemSelectionModel::Rows);
    following_ = false;
}

// With heads, for a spreadsheet.
void BaseTable::copy() const {
    QStringList lines, heads;
    for (int c = 0; c < Columns; ++c)
        heads << rows_->headerData(c, Qt::Horizontal, Qt::DisplayRole).toString();
    lines << heads.join(QLatin1Char('\t'));
    std::set<int> rows;
    for (const auto& i : table_->selectionModel()->selectedRows()) rows.insert(i.row());
    for (int r : rows) {
        QStringList cells;
        for (int c = 0; c < Columns; ++c)
            cells << rows_->data(rows_->index(r, c), Qt::DisplayRole).toString();
        lines << cells.join(QLatin1Char('\t'));
    }
    QApplication::clipboard()->setText(lines.join(QLatin1Char('\n')) + QLatin1Char('\n'));
}

}  // namespace talvik::app

#include "tray/table.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QHeaderView>
#include <QKeyEvent>
#include <set>

#include "widgets/theme.h"

namespace talvik::app {

TrayTable::TrayTable(const QStringList& heads, const std::vector<int>& widths,
                     const std::map<int, QStringList>& choices, QWidget* parent)
    : QTableWidget(0, static_cast<int>(heads.size()), parent), choices_(choices) {
    setHorizontalHeaderLabels(heads);
    setAccessibleName(tr("Table: %1").arg(heads.join(QStringLiteral(", "))));
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(26);
    for (int c = 0; c < columnCount(); ++c) {
        int w = widths[static_cast<std::size_t>(c)];
        horizontalHeader()->setSectionResizeMode(c, w ? QHeaderView::Fixed : QHeaderView::Stretch);
        if (w) setColumnWidth(c, w);
    }
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    horizontalHeader()->setFont(uiFont(11));
    horizontalHeader()->setHighlightSections(false);  // bold heads do not fit
    setSelectionBehavior(QAbstractItemView::SelectRows);
    setSelectionMode(QAbstractItemView::SingleSelection);
    setTabKeyNavigation(false);
    connect(this, &QTableWidget::cellChanged, this, [this](int row, int column) {
        if (auto* cell = item(row, column)) emit edited(row, column, cell->text());
    });
}

void TrayTable::show(const std::vector<QStringList>& rows) {
    QSignalBlocker quiet(this);
    if (static_cast<int>(rows.size()) != rowCount()) {
        shown_.clear();
        setRowCount(static_cast<int>(rows.size()));
    }
    for (int r = 0; r < rowCount(); ++r)
        for (int c = 0; c < columnCount(); ++c) {
            const QString& text = rows[static_cast<std::size_t>(r)][c];
            if (auto options = choices_.find(c); options != choices_.end()) {
                auto* box = qobject_cast<QComboBox*>(cellWidget(r, c));
                if (!box) {
                    box = new QComboBox;
                    box->addItems(options->second);
                    box->setFrame(false);
                    box->setFont(uiFont(12));
                    box->installEventFilter(this);
                    box->setAccessibleName(horizontalHeaderItem(c)->text());
                    connect(box, &QComboBox::textActivated, this, [this, box, c](const QString& chosen) {
                        for (int row = 0; row < rowCount(); ++row)
                            if (cellWidget(row, c) == box) emit edited(row, c, chosen);
                    });
                    setCellWidget(r, c, box);
                }
                if (box->findText(text) < 0) box->addItem(text);
                box->setCurrentText(text);
                continue;
            }
            auto* cell = item(r, c);
            if (!cell) setItem(r, c, cell = new QTableWidgetItem);
            if (cell->text() != text) cell->setText(text);
            // Only where it changes: each setting would put an open editor's text back.
            auto flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                         (readOnly_.contains(c) ? Qt::NoItemFlags : Qt::ItemIsEditable);
            if (cell->flags() != flags) cell->setFlags(flags);
        }
    shown_ = rows;
    int height = horizontalHeader()->sizeHint().height() + 26 * std::clamp(rowCount(), 1, 24) + 10;
    setFixedHeight(height);
}

bool TrayTable::eventFilter(QObject* object, QEvent* event) {
    if (event->type() == QEvent::KeyPress) {
        auto* key = static_cast<QKeyEvent*>(event);
        const bool arrow = key->key() >= Qt::Key_Left && key->key() <= Qt::Key_Down;
        if (arrow && key->modifiers() == Qt::NoModifier) {
            for (int r = 0; r < rowCount(); ++r)
                for (const auto& [c, options] : choices_)
                    if (cellWidget(r, c) == object) setCurrentCell(r, c);
            setFocus();
            keyPressEvent(key);
            return true;
        }
    }
    return QTableWidget::eventFilter(object, event);
}

void TrayTable::keyPressEvent(QKeyEvent* event) {
    if (event->matches(QKeySequence::Copy)) {
        QStringList lines;
        QStringList heads;
        for (int c = 0; c < columnCount(); ++c) heads << horizontalHeaderItem(c)->text();
        lines << heads.join(QLatin1Char('\t'));
        for (const auto& row : shown_) lines << row.join(QLatin1Char('\t'));
        QApplication::clipboard()->setText(lines.join(QLatin1Char('\n')));
        return;
    }
    if (event->matches(QKeySequence::Paste)) {
        int row = std::max(0, currentRow()), column = std::max(0, currentColumn());
        const QStringList lines =
            QApplication::clipboard()->text().split(QLatin1Char('\n'), Qt::SkipEmptyParts);
        for (qsizetype r = 0; r < lines.size() && row + r < rowCount(); ++r) {
            const QStringList cells = lines[r].split(QLatin1Char('\t'));
            for (qsizetype c = 0; c < cells.size() && column + c < columnCount(); ++c)
                if (!readOnly_.contains(column + static_cast<int>(c)))
                    emit edited(row + static_cast<int>(r), column + static_cast<int>(c), cells[c].trimmed());
        }
        return;
    }
    QTableWidget::keyPressEvent(event);
}

}  // namespace talvik::app

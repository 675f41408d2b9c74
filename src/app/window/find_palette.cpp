#include "window/find_palette.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace talvik::app {

FindPalette::FindPalette(std::vector<Entry> entries, QWidget* parent)
    : QDialog(parent, Qt::Popup), entries_(std::move(entries)), edit_(new QLineEdit), list_(new QListWidget) {
    setObjectName(QStringLiteral("findPalette"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(8, 8, 8, 8);
    layout->addWidget(edit_);
    layout->addWidget(list_);
    edit_->setObjectName(QStringLiteral("findEdit"));
    edit_->setPlaceholderText(tr("A mark, a support such as C, a span such as C–D, a check, a command"));
    edit_->installEventFilter(this);
    list_->setFocusPolicy(Qt::NoFocus);
    connect(edit_, &QLineEdit::textChanged, this, &FindPalette::filter);
    connect(list_, &QListWidget::itemClicked, this, &FindPalette::go);
    resize(460, 320);
    filter({});
    edit_->setFocus();
}

void FindPalette::filter(const QString& text) {
    list_->clear();
    shown_.clear();
    const QStringList words = text.simplified()
                                  .replace(QLatin1Char('-'), QStringLiteral("–"))
                                  .split(QLatin1Char(' '), Qt::SkipEmptyParts);
    auto plain = [](const QString& s) { return QString(s).replace(QLatin1Char('-'), QStringLiteral("–")); };
    // What is named exactly so, then what begins so, then what holds the words; each in the order given.
    const QString whole = words.join(QLatin1Char(' '));
    std::vector<std::pair<int, std::size_t>> found;
    for (std::size_t i = 0; i < entries_.size(); ++i) {
        const QString name = plain(entries_[i].text), all = name + QLatin1Char(' ') + plain(entries_[i].kind);
        if (!std::all_of(words.begin(), words.end(),
                         [&](const QString& w) { return all.contains(w, Qt::CaseInsensitive); }))
            continue;
        const QString last = name.section(QLatin1Char(' '), -1);  // "Column B2" is called B2
        const bool exact =
            !whole.compare(name, Qt::CaseInsensitive) || !whole.compare(last, Qt::CaseInsensitive);
        const int rank = exact ? 0 : name.startsWith(whole, Qt::CaseInsensitive) ? 1 : 2;
        found.emplace_back(rank + 3 * entries_[i].last, i);
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    for (const auto& [rank, i] : found) {
        if (shown_.size() == 60) break;
        shown_.push_back(i);
        list_->addItem(QStringLiteral("%1    %2").arg(entries_[i].text, entries_[i].kind));
    }
    if (list_->count()) list_->setCurrentRow(0);
}

void FindPalette::go() {
    int row = list_->currentRow();
    if (row < 0) return;
    auto action = entries_[shown_[static_cast<std::size_t>(row)]].go;
    close();
    action();
}

bool FindPalette::eventFilter(QObject* object, QEvent* event) {
    if (object == edit_ && event->type() == QEvent::KeyPress) {
        switch (static_cast<QKeyEvent*>(event)->key()) {
            case Qt::Key_Down:
                list_->setCurrentRow(std::min(list_->count() - 1, list_->currentRow() + 1));
                return true;
            case Qt::Key_Up:
                list_->setCurrentRow(std::max(0, list_->currentRow() - 1));
                return true;
            case Qt::Key_Return:
            case Qt::Key_Enter:
                go();
                return true;
            default:
                break;
        }
    }
    return QDialog::eventFilter(object, event);
}

}  // namespace talvik::app

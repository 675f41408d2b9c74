#include "help/help_window.h"

#include <QFile>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>
#include <QVBoxLayout>
#include <algorithm>

#include "widgets/theme.h"

// Resources of a static library are linked when someone asks for them.
static void loadGuide() {
    Q_INIT_RESOURCE(guide);
}

namespace talvik::app {

QStringList HelpWindow::pages() {
    return {QStringLiteral("index"),    QStringLiteral("basis"),       QStringLiteral("layout"),
            QStringLiteral("actions"),  QStringLiteral("strips"),      QStringLiteral("checks"),
            QStringLiteral("punching"), QStringLiteral("deflection"),  QStringLiteral("bars"),
            QStringLiteral("issue"),    QStringLiteral("foundations"), QStringLiteral("bench"),
            QStringLiteral("files"),    QStringLiteral("limits")};
}

HelpWindow::HelpWindow(QWidget* parent)
    : QDialog(parent), search_(new QLineEdit), list_(new QListWidget), text_(new QTextBrowser) {
    loadGuide();
    setWindowTitle(tr("Help – Talvik"));
    setObjectName(QStringLiteral("help"));
    for (const auto& name : pages()) {
        QFile file(QStringLiteral(":/guide/%1.md").arg(name));
        if (!file.open(QIODevice::ReadOnly)) continue;
        const QString text = QString::fromUtf8(file.readAll());
        all_.push_back({name, text.section(QLatin1Char('\n'), 0, 0).mid(2), text});
    }
    search_->setPlaceholderText(tr("Search the help"));
    search_->setAccessibleName(tr("Search the help"));
    search_->setClearButtonEnabled(true);
    list_->setAccessibleName(tr("Pages of the help"));
    list_->setFixedWidth(190);
    text_->setAccessibleName(tr("Page of the help"));
    text_->setOpenLinks(false);
    text_->document()->setDocumentMargin(18);
    auto* left = new QVBoxLayout;
    left->addWidget(search_);
    left->addWidget(list_, 1);
    auto* row = new QHBoxLayout(this);
    row->addLayout(left);
    row->addWidget(text_, 1);
    resize(880, 640);
    connect(search_, &QLineEdit::textChanged, this, &HelpWindow::filter);
    connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        if (item) open(item->data(Qt::UserRole).toString());
    });
    connect(text_, &QTextBrowser::anchorClicked, this,
            [this](const QUrl& url) { open(url.path().section(QLatin1Char('.'), 0, 0)); });
    filter();
    open(QStringLiteral("index"));
}

void HelpWindow::filter() {
    const QStringList words = search_->text().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const auto& p : all_) {
        if (!std::all_of(words.begin(), words.end(),
                         [&](const QString& w) { return p.text.contains(w, Qt::CaseInsensitive); }))
            continue;
        auto* item = new QListWidgetItem(p.title, list_);
        item->setData(Qt::UserRole, p.name);
        if (p.name == page_) list_->setCurrentItem(item);
    }
    if (list_->currentRow() < 0 && list_->count() > 0 && !words.empty())
        open(list_->item(0)->data(Qt::UserRole).toString());
    else if (!words.empty())
        open(page_);
}

void HelpWindow::open(const QString& page) {
    const auto it = std::find_if(all_.begin(), all_.end(), [&](const auto& p) { return p.name == page; });
    if (it == all_.end()) return;
    if (page_ != page) text_->setMarkdown(it->text);
    page_ = page;
    for (int i = 0; i < list_->count(); ++i)
        if (list_->item(i)->data(Qt::UserRole).toString() == page) {
            const QSignalBlocker quiet(list_);
            list_->setCurrentRow(i);
        }
    // The first place at which what is sought stands.
    text_->moveCursor(QTextCursor::Start);
    const QString word = search_->text().section(QLatin1Char(' '), 0, 0, QString::SectionSkipEmpty);
    if (!word.isEmpty()) text_->find(word);
}

}  // namespace talvik::app

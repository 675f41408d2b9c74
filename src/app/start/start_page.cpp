#include "start/start_page.h"

#include <QComboBox>
#include <QDir>
#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include "document/session.h"
#include "standards/rules.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

QLabel* words(const QString& text, int pixels, int weight, const QColor& colour) {
    auto* label = new QLabel(text);
    label->setFont(uiFont(pixels, weight));
    label->setWordWrap(true);
    QPalette p = label->palette();
    p.setColor(QPalette::WindowText, colour);
    label->setPalette(p);
    return label;
}

}  // namespace

StartPage::StartPage(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), standard_(new QComboBox), recent_(new QVBoxLayout) {
    setObjectName(QStringLiteral("startPage"));
    setAutoFillBackground(true);
    QPalette paper = palette();
    paper.setColor(QPalette::Window, theme().paper);
    setPalette(paper);
    auto* left = new QVBoxLayout;
    left->setSpacing(7);
    left->addWidget(words(tr("What do you want to design?"), 19, QFont::DemiBold, theme().ink));
    auto* row = new QHBoxLayout;
    auto* label = words(tr("Standard and units"), 13, QFont::Normal, theme().ink);
    label->setBuddy(standard_);
    label->setWordWrap(false);
    for (const auto& id : standards::standardIds())
        standard_->addItem(qs(standards::standardTitle(id)), qs(id));
    standard_->setObjectName(QStringLiteral("startStandard"));
    standard_->setAccessibleName(tr("Standard and units"));
    standard_->setToolTip(
        tr("Materials, bars, covers and first values of what is begun are those that are usual with the "
           "standard."));
    connect(standard_, &QComboBox::activated, this,
            [this] { emit standardWanted(standard_->currentData().toString()); });
    row->addWidget(label);
    row->addWidget(standard_, 1);
    left->addSpacing(6);
    left->addLayout(row);
    left->addSpacing(6);
    struct Entry {
        Begin what;
        const char* name;
        QString title, says;
    };
    const auto add = [&](const Entry& e) {
        auto* button = new QPushButton(e.title);
        button->setObjectName(QLatin1String(e.name));
        button->setFont(uiFont(14, QFont::Medium));
        button->setStyleSheet(QStringLiteral("text-align:left;padding:7px 12px"));
        button->setToolTip(e.says);
        button->setAccessibleDescription(e.says);
        connect(button, &QPushButton::clicked, this, [this, what = e.what] { emit wanted(what); });
        left->addWidget(button);
        auto* says = words(e.says, 12, QFont::Normal, theme().secondary);
        says->setContentsMargins(13, 0, 0, 5);
        left->addWidget(says);
    };
    add({Begin::Floor, "startFloor", tr("Floor"),
         tr("A slab of any outline on columns, walls, beams or ground: flat, two-way or one-way.")});
    add({Begin::Slab, "startSlab", tr("One-way slab"),
         tr("Spans over parallel beams or walls, with cantilevers.")});
    add({Begin::Pads, "startPads", tr("Pad footings"),
         tr("A base for each column of a table, or of a floor above.")});
    add({Begin::Caps, "startCaps", tr("Pile caps"), tr("The same on piles.")});
    add({Begin::Bench, "startBench", tr("A single section or panel"),
         tr("By moment or by coefficients, without a model.")});
    left->addStretch();
    auto* right = new QVBoxLayout;
    right->setSpacing(7);
    right->addWidget(words(tr("Open"), 15, QFont::DemiBold, theme().ink));
    auto* open = new QPushButton(tr("Open a project…"));
    open->setObjectName(QStringLiteral("startOpen"));
    connect(open, &QPushButton::clicked, this, [this] { emit wanted(Begin::Open); });
    right->addWidget(open);
    right->addSpacing(8);
    right->addWidget(words(tr("Recent"), 13, QFont::DemiBold, theme().ink));
    right->addLayout(recent_);
    right->addSpacing(8);
    right->addWidget(words(tr("Examples"), 13, QFont::DemiBold, theme().ink));
    for (auto [what, name, text] :
         {std::tuple{Begin::Demo, "startDemo", tr("Visitors' gallery, a one-way slab")},
          {Begin::DemoFloor, "startDemoFloor", tr("Deck of the fish hall, a floor on columns")}}) {
        auto* button = new QPushButton(text);
        button->setObjectName(QLatin1String(name));
        button->setStyleSheet(QStringLiteral("text-align:left;padding:5px 10px"));
        connect(button, &QPushButton::clicked, this, [this, what = what] { emit wanted(what); });
        right->addWidget(button);
    }
    right->addStretch();
    auto* both = new QHBoxLayout(this);
    both->setContentsMargins(36, 28, 36, 20);
    both->setSpacing(40);
    both->addLayout(left, 5);
    both->addLayout(right, 4);
    refresh();
}

void StartPage::refresh() {
    const int at = standard_->findData(qs(session_.project().basis.standard));
    if (at >= 0) standard_->setCurrentIndex(at);
    while (auto* item = recent_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    const QStringList files = QSettings().value(QStringLiteral("recent")).toStringList();
    for (const QString& path : files.mid(0, 5)) {
        auto* button = new QPushButton(
            tr("%1  –  in %2").arg(QFileInfo(path).completeBaseName(), QFileInfo(path).dir().dirName()));
        button->setToolTip(QDir::toNativeSeparators(path));
        button->setStyleSheet(QStringLiteral("text-align:left;padding:5px 10px"));
        button->setEnabled(QFileInfo::exists(path));
        connect(button, &QPushButton::clicked, this, [this, path] { emit fileWanted(path); });
        recent_->addWidget(button);
    }
    if (files.isEmpty())
        recent_->addWidget(words(tr("No file was opened yet."), 12, QFont::Normal, theme().secondary));
}

}  // namespace talvik::app

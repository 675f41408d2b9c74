#include "window/element_list.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QToolButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "formats/project_file.h"
#include "model/edits.h"
#include "widgets/flow_layout.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

ElementList::ElementList(Session& session, QWidget* parent)
    : QDialog(parent, Qt::Popup), session_(session), edit_(new QLineEdit), list_(new QTreeWidget) {
    setObjectName(QStringLiteral("elementList"));
    setAttribute(Qt::WA_DeleteOnClose);
    edit_->setObjectName(QStringLiteral("elementEdit"));
    edit_->setPlaceholderText(tr("Find an element"));
    edit_->setAccessibleName(tr("Find an element"));
    edit_->installEventFilter(this);
    list_->setObjectName(QStringLiteral("elements"));
    list_->setAccessibleName(tr("Elements"));
    list_->setHeaderLabels({tr("Element"), tr("Kind"), tr("Worst"), tr("Failing")});
    list_->setRootIsDecorated(false);
    list_->setUniformRowHeights(true);
    list_->header()->setFont(uiFont(11));
    list_->header()->setSectionResizeMode(0, QHeaderView::Stretch);
    list_->header()->setStretchLastSection(false);
    for (int c = 1; c < 4; ++c) list_->setColumnWidth(c, c == 1 ? 110 : 56);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(8, 8, 8, 8);
    column->addWidget(edit_);
    column->addWidget(list_, 1);
    auto* flow = new FlowLayout(4);
    auto button = [&](const QString& text, const QString& name, auto call) {
        auto* b = new QToolButton;
        b->setText(text);
        b->setObjectName(name);
        connect(b, &QToolButton::clicked, this, call);
        flow->addWidget(b);
    };
    button(tr("New slab"), QStringLiteral("newSlab"), [this] { close(), emit slabWanted(); });
    button(tr("New floor"), QStringLiteral("newFloor"), [this] { close(), emit floorWanted(); });
    button(tr("Rename  F2"), QStringLiteral("renameElement"), [this] {
        if (auto* item = list_->currentItem()) list_->editItem(item, 0);
    });
    button(tr("Copy"), QStringLiteral("copyElement"), [this] { copy(); });
    button(tr("Remove"), QStringLiteral("removeElement"), [this] { remove(); });
    button(tr("Up"), QStringLiteral("elementUp"), [this] { shift(-1); });
    button(tr("Down"), QStringLiteral("elementDown"), [this] { shift(1); });
    column->addLayout(flow);
    list_->setEditTriggers(QAbstractItemView::EditKeyPressed);
    connect(edit_, &QLineEdit::textChanged, this, &ElementList::refresh);
    connect(list_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item) { rename(item->text(0)); });
    connect(list_, &QTreeWidget::itemActivated, this, &ElementList::choose);
    connect(list_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem*, int c) {
        if (c == 0) choose();
    });
    for (auto signal : {&Session::changed, &Session::answered})
        connect(&session, signal, this, &ElementList::refresh);
    resize(490, 300);
    refresh();
    edit_->setFocus();
}

void ElementList::refresh() {
    const QSignalBlocker quiet(list_);
    const model::Id kept = current().empty() ? session_.element() : current();
    list_->clear();
    auto add = [&](const auto& element, const QString& kind) {
        if (!qs(element.name).contains(edit_->text().trimmed(), Qt::CaseInsensitive)) return;
        const auto* a = session_.design().find(element.id);
        auto* item = new QTreeWidgetItem(
            {qs(element.name), kind, a && a->error.empty() ? QString::number(a->worst(), 'f', 2) : tr("–"),
             a ? QString::number(a->summary.over) : QString()});
        item->setData(0, Qt::UserRole, qs(element.id));
        item->setFlags(item->flags() | Qt::ItemIsEditable);
        for (int c : {2, 3}) item->setTextAlignment(c, Qt::AlignRight | Qt::AlignVCenter);
        if (a && a->summary.over > 0)
            for (int c : {2, 3}) item->setForeground(c, theme().over);
        list_->addTopLevelItem(item);
        if (element.id == kept) list_->setCurrentItem(item);
    };
    for (const auto& s : session_.project().slabs) add(*s, tr("one-way slab"));
    for (const auto& f : session_.project().floors) add(*f, tr("floor"));
    for (const auto& b : session_.project().bases)
        add(*b, b->kind == model::BaseSet::Kind::Pads ? tr("pad footings") : tr("pile caps"));
    if (!list_->currentItem() && list_->topLevelItemCount()) list_->setCurrentItem(list_->topLevelItem(0));
}

model::Id ElementList::current() const {
    const auto* item = list_->currentItem();
    return item ? item->data(0, Qt::UserRole).toString().toStdString() : model::Id();
}
void ElementList::choose() {
    const auto id = current();
    if (id.empty()) return;
    close();
    emit chosen(id);
}
void ElementList::rename(const QString& name) {
    if (name.trimmed().isEmpty()) return refresh();
    session_.apply(tr("Rename"),
                   model::renameElement(session_.base(), current(), name.trimmed().toStdString()));
}
void ElementList::copy() {
    const auto* item = list_->currentItem();
    if (!item) return;
    auto made =
        formats::withCopy(session_.base(), current(), tr("%1, copy").arg(item->text(0)).toStdString());
    if (!session_.apply(tr("Copy %1").arg(item->text(0)), std::move(made.project))) return;
    session_.setElement(made.copy);
    close();
}
void ElementList::remove() {
    const auto* item = list_->currentItem();
    if (!item) return;
    const QString name = item->text(0);
    if (session_.apply(tr("Remove %1").arg(name), model::removeElement(session_.base(), current())))
        emit removed(tr("%1 is removed with everything in it.").arg(name));
}
void ElementList::shift(int by) {
    session_.apply(tr("Order of elements"), model::moveElement(session_.base(), current(), by));
}

bool ElementList::eventFilter(QObject* object, QEvent* event) {
    if (object == edit_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key(),
                  at = list_->indexOfTopLevelItem(list_->currentItem());
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            if (auto* to = list_->topLevelItem(at + (key == Qt::Key_Down ? 1 : -1)))
                list_->setCurrentItem(to);
            return true;
        }
        if (key == Qt::Key_F2 && list_->currentItem()) return list_->editItem(list_->currentItem(), 0), true;
        if (key == Qt::Key_Return || key == Qt::Key_Enter) return choose(), true;
    }
    return QDialog::eventFilter(object, event);
}

}  // namespace talvik::app

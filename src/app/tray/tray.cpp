#include "tray/tray.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

#include "widgets/quantity_edit.h"
#include "widgets/theme.h"

namespace talvik::app {

TrayPage::TrayPage(Session& session, const QString& title, QWidget* parent)
    : QWidget(parent), session_(session), column_(new QVBoxLayout(this)) {
    column_->setContentsMargins(14, 12, 12, 12);
    column_->setSpacing(7);
    auto* label = new QLabel(title);
    label->setFont(uiFont(15, QFont::DemiBold));
    column_->addWidget(label);
    setAutoFillBackground(true);
}

QFormLayout* TrayPage::form() {
    if (!form_) {
        form_ = new QFormLayout;
        form_->setContentsMargins(0, 0, 0, 0);
        form_->setHorizontalSpacing(10);
        form_->setVerticalSpacing(5);
        form_->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
        column_->addLayout(form_);
    }
    return form_;
}

void TrayPage::heading(const QString& text) {
    auto* label = new QLabel(text);
    label->setFont(uiFont(12, QFont::DemiBold));
    label->setContentsMargins(0, 8, 0, 0);
    column_->addWidget(label);
    form_ = nullptr;
}

void TrayPage::sentence(std::function<QString()> text) {
    auto* label = new QLabel;
    label->setWordWrap(true);
    label->setFont(uiFont(12));
    QPalette p = label->palette();
    p.setColor(QPalette::WindowText, theme().secondary);
    label->setPalette(p);
    column_->addWidget(label);
    form_ = nullptr;
    refreshers_.push_back([label, text] { label->setText(text()); });
}

void TrayPage::quantity(const QString& label, units::Kind kind, const QString& name,
                        std::function<double()> get, std::function<model::Project(double)> set) {
    auto* edit = new QuantityEdit(kind);
    edit->setObjectName(name);
    auto* title = new QLabel;
    title->setBuddy(edit);
    form()->addRow(title, edit);
    connect(edit, &QuantityEdit::refused, this, &TrayPage::refused);
    connect(edit, &QuantityEdit::entered, this,
            [this, set, label](double value) { session_.apply(label, set(value)); });
    refreshers_.push_back([this, edit, title, get, kind, label] {
        const auto system = session_.project().basis.units;
        edit->setSystem(system);
        edit->setStored(get());
        auto symbol = units::unit(kind, system).symbol;
        title->setText(symbol.empty() ? label
                                      : QStringLiteral("%1, %2").arg(
                                            label, QString::fromUtf8(symbol.data(),
                                                                     static_cast<qsizetype>(symbol.size()))));
    });
}

void TrayPage::choice(const QString& label, const QString& name, std::function<QStringList()> options,
                      std::function<QString()> get, std::function<model::Project(const QString&)> set) {
    auto* box = new QComboBox;
    box->setObjectName(name);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    form()->addRow(label, box);
    connect(box, &QComboBox::textActivated, this,
            [this, set, label](const QString& text) { session_.apply(label, set(text)); });
    refreshers_.push_back([box, options, get] {
        QStringList all = options();
        QString now = get();
        if (!all.contains(now)) all.prepend(now);
        QStringList shown;
        for (int i = 0; i < box->count(); ++i) shown << box->itemText(i);
        if (shown != all) {
            box->clear();
            box->addItems(all);
        }
        box->setCurrentText(now);
    });
}

void TrayPage::line(const QString& label, const QString& name, std::function<QString()> get,
                    std::function<std::pair<model::Project, QString>(const QString&)> set) {
    auto* edit = new QLineEdit;
    edit->setObjectName(name);
    form()->addRow(label, edit);
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, get, set, label] {
        if (!edit->isModified()) return;
        edit->setModified(false);
        auto [project, why] = set(edit->text());
        if (why.isEmpty())
            session_.apply(label, std::move(project));
        else
            emit refused(why);
        edit->setText(get());
    });
    refreshers_.push_back([edit, get] {
        if (!(edit->hasFocus() && edit->isModified())) edit->setText(get());
    });
}

void TrayPage::flag(const QString& label, const QString& name, std::function<bool()> get,
                    std::function<model::Project(bool)> set) {
    auto* box = new QCheckBox(label);
    box->setObjectName(name);
    form()->addRow(box);
    connect(box, &QCheckBox::clicked, this, [this, set, label](bool on) { session_.apply(label, set(on)); });
    refreshers_.push_back([box, get] { box->setChecked(get()); });
}

void TrayPage::refreshFields() {
    for (auto& f : refreshers_) f();
}

Tray::Tray(Session& session, BarDesk& bars, QWidget* parent) : QStackedWidget(parent), session_(session) {
    setObjectName(QStringLiteral("tray"));
    add(Place::Basis, basisPage(session));
    add(Place::Layout, layoutPage(session));
    add(Place::Actions, actionsPage(session));
    add(Place::Strips, stripsPage(session));
    add(Place::Bars, barsPage(session, bars));
    add(Place::Issue, issuePage(session, *this));
}

void Tray::add(Place place, TrayPage* page) {
    auto* scroll = new QScrollArea;
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(page);
    pages_[place] = addWidget(scroll);
    connect(page, &TrayPage::refused, this, &Tray::refused);
    auto refresh = [this, page] {
        bool common = page->objectName() == QLatin1String("basisPage");  // needs no slab in hand
        page->setEnabled(session_.slab() || common);
        if (session_.slab() || common) page->refresh();
    };
    connect(&session_, &Session::changed, page, refresh);
    connect(&session_, &Session::answered, page, refresh);
    connect(&session_, &Session::selectionChanged, page, refresh);
    refresh();
}

bool Tray::hasPage(Place place) const {
    return pages_.contains(place);
}
void Tray::show(Place place) {
    setVisible(hasPage(place));
    if (hasPage(place)) setCurrentIndex(pages_[place]);
}

}  // namespace talvik::app

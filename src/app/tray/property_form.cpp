#include "tray/property_form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QScrollArea>

#include "widgets/quantity_edit.h"
#include "widgets/text.h"

namespace talvik::app {

PropertyForm::PropertyForm(FloorDesk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), form_(new QFormLayout(this)) {
    form_->setContentsMargins(0, 0, 0, 0);
    form_->setHorizontalSpacing(10);
    form_->setVerticalSpacing(4);
    form_->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
}

void PropertyForm::showInHand(const std::set<Id>& members) {
    const auto& f = *desk_.floor();
    const Id next = desk_.nextId();
    std::set<std::string> mixed;
    auto properties =
        next.empty() ? layout::commonProperties(f, members, &mixed) : layout::properties(desk_.next(), next);
    if (!next.empty())  // where it stands is said by drawing it
        std::erase_if(properties, [](const auto& p) {
            static const std::set<std::string> drawn{"name", "x", "y", "ax", "ay", "bx", "by", "length"};
            return drawn.contains(p.key);
        });
    show(properties, mixed, desk_.session().project().basis.units);
    setVisible(!properties.empty());
}

void PropertyForm::changed(const std::string& key, const layout::Value& value) {
    if (!desk_.nextId().empty()) return desk_.setNext(key, value);
    const auto ids = desk_.selection();
    desk_.edit(tr("Change"),
               [&](model::Floor& f, model::Project&) { layout::setProperty(f, ids, key, value); });
}

void PropertyForm::show(const std::vector<layout::Property>& properties, const std::set<std::string>& mixed,
                        units::System system) {
    std::string shape = system == units::System::Metric ? "m" : "u";
    for (const auto& p : properties) shape += p.key + p.label + std::to_string(p.value.index()) + ";";
    if (shape != shape_) {
        shape_ = shape;
        fields_.clear();
        while (form_->rowCount() > 0) {
            auto row = form_->takeRow(0);
            for (auto* item : {row.labelItem, row.fieldItem})
                if (item) {
                    if (auto* w = item->widget()) w->setObjectName({}), w->hide(), w->deleteLater();
                    delete item;
                }
        }
        for (const auto& p : properties) {
            QWidget* field = nullptr;
            std::string key = p.key;
            QString label = qs(p.label);
            if (std::holds_alternative<bool>(p.value)) {
                auto* box = new QCheckBox(label);
                connect(box, &QCheckBox::clicked, this, [this, key](bool on) { changed(key, on); });
                field = box;
                form_->addRow(box);
            } else if (!p.options.empty()) {
                auto* box = new QComboBox;
                for (const auto& o : p.options) box->addItem(qs(o));
                connect(box, &QComboBox::textActivated, this,
                        [this, key](const QString& text) { changed(key, text.toStdString()); });
                field = box;
                form_->addRow(label, box);
            } else if (std::holds_alternative<std::string>(p.value)) {
                auto* edit = new QLineEdit;
                connect(edit, &QLineEdit::editingFinished, this, [this, key, edit] {
                    if (!edit->isModified()) return;
                    edit->setModified(false);
                    changed(key, edit->text().trimmed().toStdString());
                });
                field = edit;
                form_->addRow(label, edit);
            } else {
                auto* edit = new QuantityEdit(p.kind);
                edit->setSystem(system);
                connect(edit, &QuantityEdit::refused, &desk_, &FloorDesk::said);
                connect(edit, &QuantityEdit::entered, this, [this, key](double v) { changed(key, v); });
                auto symbol = units::unit(p.kind, system).symbol;
                field = edit;
                form_->addRow(
                    symbol.empty() ? label : QStringLiteral("%1, %2").arg(label, qs(std::string(symbol))),
                    edit);
            }
            field->setObjectName(QStringLiteral("prop_") + qs(key));
            field->setAccessibleName(label);
            fields_[key] = field;
        }
        // New fields would come last of all in the window.
        QWidget* last = before_;
        for (auto* p = parentWidget(); p && !last; p = p->parentWidget())
            last = qobject_cast<QScrollArea*>(p);
        for (const auto& p : properties) {
            if (last) QWidget::setTabOrder(last, fields_[p.key]);
            last = fields_[p.key];
        }
    }
    for (const auto& p : properties) {
        QWidget* field = fields_[p.key];
        bool differ = mixed.contains(p.key);
        if (auto* box = qobject_cast<QCheckBox*>(field)) {
            box->setTristate(differ);
            box->setCheckState(differ                    ? Qt::PartiallyChecked
                               : std::get<bool>(p.value) ? Qt::Checked
                                                         : Qt::Unchecked);
        } else if (auto* choice = qobject_cast<QComboBox*>(field)) {
            choice->setCurrentIndex(differ ? -1 : choice->findText(qs(std::get<std::string>(p.value))));
        } else if (auto* quantity = qobject_cast<QuantityEdit*>(field)) {
            quantity->setPlaceholderText(differ ? tr("several values") : QString());
            if (differ)
                showText(*quantity, {});
            else
                quantity->setStored(std::get<double>(p.value));
        } else if (auto* edit = qobject_cast<QLineEdit*>(field)) {
            edit->setPlaceholderText(differ ? tr("several values") : QString());
            showText(*edit, differ ? QString() : qs(std::get<std::string>(p.value)));
        }
    }
}

}  // namespace talvik::app

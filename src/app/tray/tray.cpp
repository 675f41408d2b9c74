#include "tray/tray.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QToolButton>
#include <QVBoxLayout>

#include "widgets/flow_layout.h"
#include "widgets/quantity_edit.h"
#include "widgets/theme.h"

namespace talvik::app {

namespace {

// What is typed belongs to the element it was typed for: an undo, or another project, may have put another
// one in hand when the field is left.
void remembersElement(QLineEdit& edit, const Session& session) {
    QObject::connect(&edit, &QLineEdit::textEdited, &edit, [&edit, &session] {
        edit.setProperty("of", QString::fromStdString(session.element()));
    });
}
bool ofElementInHand(const QLineEdit& edit, const Session& session) {
    return edit.property("of").toString() == QString::fromStdString(session.element());
}

}  // namespace

TrayPage::TrayPage(Session& session, const QString& title, QWidget* parent)
    : QWidget(parent), session_(session), column_(new QVBoxLayout(this)), title_(new QLabel(title)) {
    column_->setContentsMargins(14, 12, 12, 12);
    column_->setSpacing(7);
    title_->setFont(uiFont(15, QFont::DemiBold));
    title_->setVisible(!title.isEmpty());
    column_->addWidget(title_);
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
    follow({label});
    form_ = nullptr;
}

void TrayPage::follow(std::vector<QWidget*> widgets) {
    if (!condition_) return;
    refreshers_.push_back([widgets = std::move(widgets), condition = condition_] {
        const bool on = condition();
        for (auto* w : widgets) w->setVisible(on);
    });
}

void TrayPage::row(QWidget* label, QWidget* field) {
    auto* to = form();
    if (label)
        to->addRow(label, field);
    else
        to->addRow(field);
    if (condition_)
        refreshers_.push_back([to, field, condition = condition_] {
            if (to->isRowVisible(field) != condition()) to->setRowVisible(field, condition());
        });
}

void TrayPage::sentence(std::function<QString()> text) {
    auto* label = new QLabel;
    label->setWordWrap(true);
    label->setFont(uiFont(12));
    QPalette p = label->palette();
    p.setColor(QPalette::WindowText, theme().secondary);
    label->setPalette(p);
    column_->addWidget(label);
    follow({label});
    form_ = nullptr;
    refreshers_.push_back([label, text] { label->setText(text()); });
}

void TrayPage::quantity(const QString& label, units::Kind kind, const QString& name,
                        std::function<double()> get, std::function<model::Project(double)> set,
                        std::function<std::optional<double>()> chosen) {
    auto* edit = new QuantityEdit(kind);
    edit->setObjectName(name);
    edit->setAccessibleName(label);
    auto* title = new QLabel;
    title->setBuddy(edit);
    row(title, edit);
    connect(edit, &QuantityEdit::refused, this, &TrayPage::refused);
    remembersElement(*edit, session_);
    connect(edit, &QuantityEdit::entered, this, [this, edit, set, label](double value) {
        if (ofElementInHand(*edit, session_)) session_.apply(label, set(value));
    });
    refreshers_.push_back([this, edit, title, get, kind, label, chosen] {
        const auto system = session_.project().basis.units;
        edit->setSystem(system);
        if (chosen) edit->setAutomatic(chosen());
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
    box->setAccessibleName(label);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    auto* title = new QLabel(label);
    title->setBuddy(box);
    row(title, box);
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
        box->setToolTip(now);
    });
}

void TrayPage::line(const QString& label, const QString& name, std::function<QString()> get,
                    std::function<std::pair<model::Project, QString>(const QString&)> set,
                    const QString& hint) {
    auto* edit = new QLineEdit;
    edit->setObjectName(name);
    edit->setAccessibleName(label);
    edit->setPlaceholderText(hint);
    auto* title = new QLabel(label);
    title->setBuddy(edit);
    row(title, edit);
    remembersElement(*edit, session_);
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, get, set, label] {
        if (!edit->isModified()) return;
        edit->setModified(false);
        if (!ofElementInHand(*edit, session_)) return;
        auto [project, why] = set(edit->text());
        if (why.isEmpty())
            session_.apply(label, std::move(project));
        else
            emit refused(why);
        edit->setText(get());
    });
    refreshers_.push_back([edit, get] { showText(*edit, get()); });
}

void TrayPage::flag(const QString& label, const QString& name, std::function<bool()> get,
                    std::function<model::Project(bool)> set) {
    auto* box = new QCheckBox(label);
    box->setObjectName(name);
    row(nullptr, box);
    connect(box, &QCheckBox::clicked, this, [this, set, label](bool on) { session_.apply(label, set(on)); });
    refreshers_.push_back([box, get] { box->setChecked(get()); });
}

QPushButton* TrayPage::button(const QString& text, const QString& name, std::function<void()> call) {
    auto* b = new QPushButton(text);
    b->setObjectName(name);
    connect(b, &QPushButton::clicked, this, std::move(call));
    return b;
}

void TrayPage::refreshFields() {
    for (auto& f : refreshers_) f();
}

Tray::Tray(const Desks& desks, QWidget* parent)
    : QWidget(parent),
      d_(desks),
      pages_(new QStackedWidget),
      tools_(new QWidget),
      lines_(new QWidget),
      prompt_(new QLabel),
      fields_(new QComboBox),
      combinations_(new QComboBox) {
    setObjectName(QStringLiteral("tray"));
    setAutoFillBackground(true);
    setMinimumWidth(338);
    tools_->setLayout(new FlowLayout(4));
    tools_->layout()->setContentsMargins(12, 10, 12, 2);
    tools_->setStyleSheet(
        QStringLiteral("QToolButton{border:1px solid %2;border-radius:3px;padding:3px 6px;background:%3}"
                       "QToolButton:hover,QToolButton:focus{border-color:%1}"
                       "QToolButton:checked{border:2px solid %1;color:%1;padding:2px 5px}")
            .arg(theme().selection.name(), theme().hairline.name(), theme().field.name()));
    buildLines();
    prompt_->setObjectName(QStringLiteral("prompt"));
    prompt_->setWordWrap(true);
    prompt_->setAlignment(Qt::AlignTop);
    prompt_->setContentsMargins(12, 6, 12, 6);
    // As high as it ever gets, so that no word moves what stands above it.
    prompt_->setFixedHeight(4 * QFontMetrics(prompt_->font()).lineSpacing() + 12);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(tools_);
    column->addWidget(lines_);
    column->addWidget(pages_, 1);
    column->addWidget(prompt_);

    Session& session = d_.session;
    add(Place::Basis, Of::Any, basisPage(session));
    add(Place::Layout, Of::Slab, slabLayoutPage(session));
    add(Place::Layout, Of::Floor, floorLayoutPage(d_.floor));
    add(Place::Layout, Of::Bases, basesLayoutPage(session));
    add(Place::Actions, Of::Bases, basesActionsPage(session, *this));
    add(Place::Actions, Of::Slab, slabActionsPage(session));
    add(Place::Actions, Of::Floor, floorActionsPage(d_.floor));
    add(Place::Strips, Of::Slab, slabStripPage(session));
    add(Place::Strips, Of::Floor, floorStripsPage(d_));
    add(Place::Checks, Of::Floor, connectionsPage(d_.connections));
    add(Place::Bars, Of::Any, barsPage(session, d_.bars, *this));
    add(Place::Issue, Of::Any, issuePage(session, *this));
    pages_->addWidget(new QWidget);  // of places without one

    connect(&d_.floor, &FloorDesk::changed, this, &Tray::refreshTools);
    connect(&d_.strips, &StripDesk::changed, this, &Tray::refreshTools);
    connect(&session, &Session::answered, this, [this] {
        if (d_.session.floor() && !d_.session.stale()) fillCombinations(), showLines();
    });
}

void Tray::add(Place place, Of kind, TrayPage* page) {
    auto* scroll = new QScrollArea;
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(page);
    numbers_[{place, kind}] = pages_->addWidget(scroll);
    connect(page, &TrayPage::refused, this, &Tray::refused);
    auto refresh = [this, page, kind, place] {
        const Session& s = d_.session;
        if (kind == Of::Slab && !s.slab()) return;
        if (kind == Of::Floor && !s.floor()) return;
        if (kind == Of::Bases && !s.bases()) return;
        if (place == Place::Bars && s.bases()) return;
        if (s.place() == place) page->refresh();
    };
    for (auto signal :
         {&Session::changed, &Session::answered, &Session::selectionChanged, &Session::placeChanged})
        connect(&d_.session, signal, page, refresh);
    if (kind == Of::Floor) connect(&d_.floor, &FloorDesk::changed, page, refresh);
    refresh();
}

int Tray::pageOf(Place place) const {
    // Bars of bases are pinned in the layout and the register.
    if (d_.session.bases() && place == Place::Bars) return -1;
    const Of kinds[] = {Of::Any, d_.session.floor() ? Of::Floor : d_.session.bases() ? Of::Bases : Of::Slab};
    for (Of kind : kinds)
        if (const auto found = numbers_.find({place, kind}); found != numbers_.end())
            if (place == Place::Basis || d_.session.slab() || d_.session.floor() || d_.session.bases())
                return found->second;
    return -1;
}
bool Tray::hasPage(Place place) const {
    return pageOf(place) >= 0;
}

void Tray::show(Place place) {
    pages_->setCurrentIndex(hasPage(place) && pageOf(place) >= 0 ? pageOf(place) : pages_->count() - 1);
    fillTools();
    const bool results = d_.session.floor() && place >= Place::Strips && place <= Place::Bars;
    lines_->setVisible(results);
    prompt_->setVisible(d_.session.floor() && place >= Place::Layout && place <= Place::Strips);
    if (!results) return;
    const int shown = shownIn_.contains(place) ? shownIn_[place]
                      : place == Place::Checks ? int(analysis::Field::Mx)
                                               : -1;
    const QSignalBlocker quiet(fields_);
    fields_->setCurrentIndex(fields_->findData(shown));
    fillCombinations();
    showLines();
}

QString Tray::prompt() const {
    return d_.session.place() == Place::Strips ? d_.strips.prompt() : d_.floor.prompt();
}

void Tray::tool(const QString& text, const QString& name, std::function<bool()> on,
                std::function<void()> take) {
    auto* b = new QToolButton;
    b->setText(text);
    b->setObjectName(name);
    b->setCheckable(on != nullptr);
    connect(b, &QToolButton::clicked, this, [this, take] {
        take();
        refreshTools();
        d_.canvas.setFocus();
    });
    tools_->layout()->addWidget(b);
    if (on) on_.emplace_back(b, std::move(on));
}

// The tools of the place, each with the key that takes it in hand.
void Tray::fillTools() {
    while (auto* item = tools_->layout()->takeAt(0)) {
        item->widget()->setObjectName({});
        item->widget()->hide();
        item->widget()->deleteLater();
        delete item;
    }
    on_.clear();
    const Place place = d_.session.place();
    const bool floor = d_.session.floor() != nullptr;
    tools_->setVisible(floor && place >= Place::Layout && place <= Place::Bars);
    if (!tools_->isVisibleTo(this)) return;
    if (place <= Place::Actions) {
        for (auto t : FloorDesk::tools(place))
            tool(
                QStringLiteral("%1  %2").arg(FloorDesk::name(t), FloorDesk::key(t)),
                QStringLiteral("tool_%1").arg(int(t)), [this, t] { return d_.floor.tool() == t; },
                [this, t] { d_.floor.setTool(t); });
    } else {
        for (int d : {0, 1})
            tool(
                tr("Strips %1").arg(QString::fromUtf8(strips::directionName(d))),
                QStringLiteral("strips_%1").arg(d), [this, d] { return d_.strips.direction() == d; },
                [this, d] { d_.strips.setDirection(d); });
    }
    if (place == Place::Strips) {
        for (auto [t, text] :
             {std::pair(StripTool::Select, tr("Select  Esc")), std::pair(StripTool::Split, tr("Split  S")),
              std::pair(StripTool::Draw, tr("Draw  D")), std::pair(StripTool::Merge, tr("Merge  M")),
              std::pair(StripTool::Area, tr("Area  A"))})
            tool(
                text, QStringLiteral("stripTool_%1").arg(int(t)),
                [this, t = t] { return d_.strips.tool() == t; }, [this, t = t] { d_.strips.setTool(t); });
        tool(tr("Turn  T"), {}, {}, [this] { d_.canvas.askAngle(); });
        tool(tr("Reset  R"), {}, {}, [this] { d_.strips.release(); });
    }
    tool(tr("Fit  F"), {}, {}, [this] { d_.canvas.fit(); });
    refreshTools();
}

void Tray::refreshTools() {
    for (auto& [b, on] : on_) b->setChecked(on());
    prompt_->setText(prompt());
}

// What lines of equal value stand on the plan.
void Tray::buildLines() {
    for (int f = 0; f < analysis::fieldCount; ++f)
        fields_->addItem(QString::fromUtf8(analysis::title(analysis::Field(f))), f);
    const std::pair<QString, int> more[] = {{tr("Required steel %1, %2"), 100},
                                            {tr("Steel utilisation required/provided %1, %2"), 200}};
    for (const auto& [text, first] : more)
        for (int d : {0, 1})
            for (bool top : {false, true})
                fields_->addItem(
                    text.arg(QString::fromUtf8(strips::directionName(d)), top ? tr("top") : tr("bottom")),
                    first + 2 * d + top);
    fields_->addItem(tr("Shear utilisation (FE)"), 204);
    fields_->addItem(tr("Shear stress"), 300);
    fields_->addItem(tr("Long-term deflection (cracked)"), 400);
    fields_->addItem(tr("Deflection after partitions"), 401);
    fields_->addItem(tr("No lines"), -1);
    fields_->setAccessibleName(tr("Lines on the plan"));
    combinations_->setAccessibleName(tr("Combination"));
    auto* mesh = new QCheckBox(tr("Mesh"));
    auto* form = new QFormLayout(lines_);
    form->setContentsMargins(12, 8, 12, 6);
    form->setVerticalSpacing(5);
    form->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
    for (auto* box : {fields_, combinations_}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(10);
    }
    form->addRow(tr("Lines"), fields_);
    form->addRow(tr("Of"), combinations_);
    form->addRow(QString(), mesh);
    connect(fields_, &QComboBox::currentIndexChanged, this, [this] {
        shownIn_[d_.session.place()] = fields_->currentData().toInt();
        fillCombinations();
        showLines();
    });
    connect(combinations_, &QComboBox::activated, this, &Tray::showLines);
    connect(mesh, &QCheckBox::toggled, &d_.canvas, &FloorCanvas::showMesh);
}

void Tray::fillCombinations() {
    const QVariant before = combinations_->currentData();
    const bool deflection = analysis::Field(fields_->currentData().toInt()) == analysis::Field::Deflection;
    combinations_->clear();
    combinations_->addItem(deflection ? tr("Largest, quasi-permanent") : tr("Largest, ultimate"),
                           FloorCanvas::Most);
    combinations_->addItem(deflection ? tr("Smallest, quasi-permanent") : tr("Smallest, ultimate"),
                           FloorCanvas::Least);
    if (const auto* a = d_.session.floorAnalysis())
        for (std::size_t k = 0; k < a->combinations.size(); ++k)
            combinations_->addItem(QString::fromStdString(a->combinations[k].name), int(k));
    combinations_->setCurrentIndex(std::max(0, combinations_->findData(before)));
}

void Tray::showLines() {
    const int shown = fields_->currentData().toInt();
    combinations_->setEnabled(shown >= 0 && shown < 100);
    if (shown < 0)
        d_.canvas.showNothing();
    else if (shown >= 400)
        d_.canvas.showSag(shown > 400);
    else if (shown >= 300)
        d_.canvas.showShear();
    else if (shown >= 200)
        d_.canvas.showProof((shown - 200) / 2, (shown - 200) % 2);
    else if (shown >= 100)
        d_.canvas.showSteel((shown - 100) / 2, (shown - 100) % 2);
    else
        d_.canvas.showField(analysis::Field(shown), combinations_->currentData().toInt());
}

}  // namespace talvik::app

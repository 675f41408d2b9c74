#include "floor/floor_page.h"

#include <fmt/format.h>

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QStackedWidget>
#include <QTextBrowser>
#include <QToolButton>
#include <QVBoxLayout>

#include "design/floors.h"
#include "floor/actions_side.h"
#include "floor/floor_register.h"
#include "floor/layout_side.h"
#include "report/report.h"
#include "section/line_section.h"
#include "widgets/inline_edit.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
FloorPage::FloorPage(Session& session, BarDesk& bars, QWidget* parent)
    : QWidget(parent),
      session_(session),
      desk_(new FloorDesk(session, this)),
      strips_(new StripDesk(session, bars, this)),
      canvas_(new FloorCanvas(session, *desk_, *strips_)),
      section_(new LineSection(session, bars, [this] { return sharedScale(); })),
      layout_(new LayoutSide(*desk_)),
      actions_(new ActionsSide(*desk_)),
      register_(new FloorRegister(*desk_)),
      side_(new QStackedWidget),
      toolBar_(new QWidget),
      fieldBar_(new QWidget),
      prompt_(new QLabel),
      fields_(new QComboBox),
      combinations_(new QComboBox),
      mesh_(new QToolButton),
      stop_(new QToolButton),
      progress_(new QProgressBar),
      convergence_(new QPushButton(tr("How far from converged?"))),
      text_(new QTextBrowser) {
    for (int f = 0; f < analysis::fieldCount; ++f)
        fields_->addItem(QString::fromUtf8(analysis::title(analysis::Field(f))), f);
    for (int d : {0, 1})
        for (bool top : {false, true})
            fields_->addItem(
                tr("Required steel %1, %2")
                    .arg(QString::fromUtf8(strips::directionName(d)), top ? tr("top") : tr("bottom")),
                100 + 2 * d + top);
    for (int d : {0, 1})
        for (bool top : {false, true})
            fields_->addItem(
                tr("Required over provided %1, %2")
                    .arg(QString::fromUtf8(strips::directionName(d)), top ? tr("top") : tr("bottom")),
                200 + 2 * d + top);
    fields_->addItem(tr("Shear over resistance"), 204);
    fields_->addItem(tr("No lines"), -1);
    fields_->setCurrentIndex(1);
    shownIn_ = {{int(Place::Strips), -1}, {int(Place::Bars), -1}};
    for (int d : {0, 1}) {
        directions_[d] = new QToolButton;
        directions_[d]->setText(tr("Strips %1").arg(QString::fromUtf8(strips::directionName(d))));
        directions_[d]->setObjectName(QStringLiteral("strips_%1").arg(d));
        directions_[d]->setCheckable(true);
        connect(directions_[d], &QToolButton::clicked, this, [this, d] {
            strips_->setDirection(d);
            directions_[d]->setChecked(true);
            canvas_->setFocus();
        });
    }
    analysis_ = new QToolButton;
    analysis_->setText(tr("Analysis"));
    analysis_->setToolTip(tr("Loads and reactions, extremes, second opinions on panels, convergence"));
    analysis_->setCheckable(true);
    fields_->setAccessibleName(tr("Field"));
    combinations_->setAccessibleName(tr("Combination"));
    combinations_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    combinations_->setMinimumContentsLength(26);
    mesh_->setText(tr("Mesh"));
    mesh_->setCheckable(true);
    stop_->setText(tr("Stop"));
    progress_->setRange(0, 1000);
    progress_->setTextVisible(false);
    progress_->setFixedWidth(120);
    progress_->setMaximumHeight(8);
    auto* bar = new QHBoxLayout(fieldBar_);
    bar->setContentsMargins(10, 6, 10, 6);
    auto* tools = new QHBoxLayout(toolBar_);
    tools->setContentsMargins(10, 5, 10, 5);
    tools->setSpacing(3);
    toolBar_->setStyleSheet(
        QStringLiteral("QToolButton:checked{border:2px solid %1;border-radius:3px;color:%1;padding:2px 5px}")
            .arg(theme().selection.name()));
    prompt_->setObjectName(QStringLiteral("prompt"));
    prompt_->setFont(uiFont(12));
    prompt_->setContentsMargins(12, 3, 12, 3);
    prompt_->setAutoFillBackground(true);
    prompt_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    auto scrolled = [](QWidget* page) {
        auto* scroll = new QScrollArea;
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setWidgetResizable(true);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        scroll->setWidget(page);
        return scroll;
    };
    for (auto* b : directions_) bar->addWidget(b);
    bar->addSpacing(8);
    bar->addWidget(fields_);
    bar->addWidget(combinations_);
    bar->addWidget(mesh_);
    bar->addStretch(1);
    bar->addWidget(progress_);
    bar->addWidget(stop_);
    bar->addWidget(analysis_);
    fieldBar_->setStyleSheet(
        QStringLiteral("QToolButton:checked{border:2px solid %1;border-radius:3px;color:%1;padding:2px 5px}")
            .arg(theme().selection.name()));
    auto* side = new QWidget;
    auto* sideColumn = new QVBoxLayout(side);
    sideColumn->setContentsMargins(0, 0, 0, 8);
    text_->setFrameShape(QFrame::NoFrame);
    text_->setFont(uiFont(12));
    sideColumn->addWidget(text_, 1);
    auto* buttonRow = new QHBoxLayout;
    buttonRow->setContentsMargins(10, 0, 10, 0);
    buttonRow->addWidget(convergence_);
    sideColumn->addLayout(buttonRow);
    side_->addWidget(side);
    side_->addWidget(scrolled(layout_));
    side_->addWidget(scrolled(actions_));
    auto* plan = new QWidget;
    auto* planColumn = new QVBoxLayout(plan);
    planColumn->setContentsMargins(0, 0, 0, 0);
    planColumn->setSpacing(0);
    planColumn->addWidget(canvas_, 1);
    planColumn->addWidget(prompt_);
    register_->setMinimumWidth(300);
    toolBar_->setMinimumWidth(300);
    fieldBar_->setMinimumWidth(300);
    side_->setMinimumWidth(300);
    auto* above = new QSplitter(Qt::Vertical);
    above->addWidget(plan);
    above->addWidget(register_);
    above->addWidget(section_);
    above->setStretchFactor(0, 1);
    above->setSizes({370, 190, 360});
    above->setChildrenCollapsible(false);
    auto* split = new QSplitter(Qt::Horizontal);
    split->addWidget(above);
    split->addWidget(side_);
    split->setStretchFactor(0, 1);
    split->setSizes({850, 430});
    split->setChildrenCollapsible(false);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(toolBar_);
    column->addWidget(fieldBar_);
    column->addWidget(split, 1);

    connect(fields_, &QComboBox::currentIndexChanged, this, [this] {
        shownIn_[int(session_.place())] = fields_->currentData().toInt();
        fillCombinations();
        showContours();
    });
    connect(combinations_, &QComboBox::activated, this, &FloorPage::showContours);
    connect(analysis_, &QToolButton::toggled, this, [this](bool on) { side_->setVisible(on); });
    // Without a strip in hand the plan has the room of the long section.
    connect(&session_, &Session::selectionChanged, this, &FloorPage::showSection);
    connect(strips_, &StripDesk::said, this, &FloorPage::said);
    connect(strips_, &StripDesk::changed, this, [this] {
        for (int d : {0, 1}) directions_[d]->setChecked(strips_->direction() == d);
        if (session_.place() == Place::Strips) {
            prompt_->setText(strips_->prompt());
            for (auto* b : tools_) b->setChecked(b->property("tool").toInt() == int(strips_->tool()));
        }
    });
    connect(canvas_, &FloorCanvas::activated, this, &FloorPage::marginWanted);
    section_->setEmptyText(
        tr("No strip in hand. Click one on the plan, or press the up arrow; X and Y choose the direction.\n"
           "Here stands its long section then: bars, moments with the resistance of the bars, steel required "
           "and provided, shear, cracks."));
    connect(section_, &LineSection::activated, this, &FloorPage::marginWanted);
    connect(section_, &LineSection::endWanted, this, &FloorPage::chooseEnd);
    connect(canvas_, &FloorCanvas::moved, section_, qOverload<>(&QWidget::update));
    connect(mesh_, &QToolButton::toggled, canvas_, &FloorCanvas::showMesh);
    connect(stop_, &QToolButton::clicked, &session_, &Session::stopAnswers);
    connect(convergence_, &QPushButton::clicked, this, &FloorPage::seekConvergence);
    connect(&session_, &Session::answered, this, &FloorPage::refresh);
    connect(&session_, &Session::changed, this, [this] {
        ++convergenceSerial_;
        found_ = {};
        refresh();
    });
    connect(&session_, &Session::placeChanged, this, &FloorPage::showPlace);
    connect(desk_, &FloorDesk::said, this, &FloorPage::said);
    connect(desk_, &FloorDesk::changed, this, [this] {
        prompt_->setText(desk_->prompt());
        for (auto* b : tools_) b->setChecked(b->property("tool").toInt() == int(desk_->tool()));
    });
    auto show = [this](double x, double y) { canvas_->centreOn({x, y}); };
    connect(layout_, &LayoutSide::showWanted, this, show);
    connect(register_, &FloorRegister::showWanted, this, show);
    showPlace();
    refresh();
}

// The tools of the place, each with the key that takes it in hand.
void FloorPage::fillTools() {
    auto* row = static_cast<QHBoxLayout*>(toolBar_->layout());
    while (auto* item = row->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    tools_.clear();
    for (Tool t : FloorDesk::tools(session_.place())) {
        auto* b = new QToolButton;
        b->setText(QStringLiteral("%1  %2").arg(FloorDesk::name(t), FloorDesk::key(t)));
        b->setObjectName(QStringLiteral("tool_%1").arg(int(t)));
        b->setCheckable(true);
        b->setChecked(desk_->tool() == t);
        b->setProperty("tool", int(t));
        connect(b, &QToolButton::clicked, this, [this, t] {
            desk_->setTool(t);
            canvas_->setFocus();
        });
        row->addWidget(b);
        tools_.push_back(b);
    }
    row->addStretch(1);
    auto* fit = new QToolButton;
    fit->setText(tr("Fit  F"));
    connect(fit, &QToolButton::clicked, canvas_, &FloorCanvas::fit);
    row->addWidget(fit);
}

void FloorPage::showPlace() {
    auto place = session_.place();
    bool drawing = place == Place::Layout || place == Place::Actions, strips = withMargin(place);
    toolBar_->setVisible(drawing || place == Place::Strips);
    fieldBar_->setVisible(!drawing && place != Place::Basis && place != Place::Strips);
    prompt_->setVisible(drawing || place == Place::Strips);
    register_->setVisible(drawing);
    showSection();
    analysis_->setVisible(strips);
    for (auto* b : directions_) b->setVisible(strips);
    side_->setVisible(place != Place::Basis && (!strips || analysis_->isChecked()));
    side_->setCurrentIndex(place == Place::Layout ? 1 : place == Place::Actions ? 2 : 0);
    if (drawing) fillTools();
    if (place == Place::Strips) fillStripTools();
    for (int d : {0, 1}) directions_[d]->setChecked(strips_->direction() == d);
    prompt_->setText(place == Place::Strips ? strips_->prompt() : desk_->prompt());
    int shown = shownIn_.contains(int(place)) ? shownIn_[int(place)] : int(analysis::Field::Mx);
    if (fields_->currentData().toInt() != shown) fields_->setCurrentIndex(fields_->findData(shown));
}

void FloorPage::showSection() {
    section_->setVisible(withMargin(session_.place()) && strips_->strip());
}

void FloorPage::showContours() {
    int shown = fields_->currentData().toInt();
    combinations_->setVisible(shown >= 0 && shown < 100);
    if (shown < 0)
        canvas_->showNothing();
    else if (shown >= 200)
        canvas_->showProof((shown - 200) / 2, (shown - 200) % 2);
    else if (shown >= 100)
        canvas_->showSteel((shown - 100) / 2, (shown - 100) % 2);
    else
        canvas_->showField(analysis::Field(shown), combinations_->currentData().toInt());
}

// The tools of the place of strips, and the rules by which strips are laid and designed.
void FloorPage::fillStripTools() {
    auto* row = static_cast<QHBoxLayout*>(toolBar_->layout());
    while (auto* item = row->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    tools_.clear();
    for (int d : {0, 1}) {
        auto* b = new QToolButton;
        b->setText(tr("Strips %1").arg(QString::fromUtf8(strips::directionName(d))));
        b->setCheckable(true);
        b->setChecked(strips_->direction() == d);
        connect(b, &QToolButton::clicked, this, [this, d] {
            strips_->setDirection(d);
            canvas_->setFocus();
        });
        connect(strips_, &StripDesk::changed, b, [this, b, d] { b->setChecked(strips_->direction() == d); });
        row->addWidget(b);
    }
    row->addSpacing(10);
    for (auto [tool, text] : {std::pair(StripTool::Select, tr("Select  Esc")),
                              {StripTool::Split, tr("Split  S")},
                              {StripTool::Draw, tr("Draw  D")},
                              {StripTool::Merge, tr("Merge  M")},
                              {StripTool::Area, tr("Area  A")}}) {
        auto* b = new QToolButton;
        b->setText(text);
        b->setObjectName(QStringLiteral("stripTool_%1").arg(int(tool)));
        b->setCheckable(true);
        b->setChecked(strips_->tool() == tool);
        b->setProperty("tool", int(tool));
        connect(b, &QToolButton::clicked, this, [this, t = tool] {
            strips_->setTool(t);
            canvas_->setFocus();
        });
        row->addWidget(b);
        tools_.push_back(b);
    }
    auto action = [&](const QString& text, auto f) {
        auto* b = new QToolButton;
        b->setText(text);
        connect(b, &QToolButton::clicked, this, f);
        row->addWidget(b);
    };
    action(tr("Turn  T"), [this] { canvas_->askAngle(); });
    action(tr("Give back  R"), [this] { strips_->release(); });
    auto* rules = new QToolButton;
    rules->setText(tr("Rules of the strips"));
    rules->setObjectName(QStringLiteral("stripRules"));
    rules->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(rules);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] { fillRules(menu); });
    rules->setMenu(menu);
    row->addWidget(rules);
    row->addStretch(1);
    auto* fit = new QToolButton;
    fit->setText(tr("Fit  F"));
    connect(fit, &QToolButton::clicked, canvas_, &FloorCanvas::fit);
    row->addWidget(fit);
}

void FloorPage::fillRules(QMenu* menu) {
    menu->clear();
    const auto* floor = session_.floor();
    if (!floor) return;
    const auto now = floor->strips.rules;
    using R = model::StripChoices;
    auto choice = [&](const QString& text, bool on, std::function<void(R&)> change) {
        auto* a = menu->addAction(text, this, [this, text, change] { strips_->setRules(text, change); });
        a->setCheckable(true);
        a->setChecked(on);
    };
    menu->addSection(tr("Widths"));
    choice(tr("Column and middle strips"), now.width == R::Width::ColumnAndMiddle,
           [](R& r) { r.width = R::Width::ColumnAndMiddle; });
    choice(tr("Full width, half-way to the neighbours"), now.width == R::Width::Full,
           [](R& r) { r.width = R::Width::Full; });
    menu->addSection(tr("Found by the program"));
    for (int d : {0, 1})
        choice(tr("Strips %1").arg(QString::fromUtf8(strips::directionName(d))), now.automatic[d],
               [d](R& r) { r.automatic[d] = !r.automatic[d]; });
    menu->addSection(tr("Forces"));
    choice(tr("Twisting by Wood and Armer"), now.twisting == R::Twisting::WoodArmer, [](R& r) {
        r.twisting = r.twisting == R::Twisting::WoodArmer ? R::Twisting::None : R::Twisting::WoodArmer;
    });
    choice(tr("Moments at the face of supports"), now.faceOfSupport,
           [](R& r) { r.faceOfSupport = !r.faceOfSupport; });
    menu->addSection(tr("Bars next to the face"));
    for (int d : {0, 1})
        choice(tr("Top: %1").arg(QString::fromUtf8(strips::directionName(d))), now.outerTop == d,
               [d](R& r) { r.outerTop = d; });
    for (int d : {0, 1})
        choice(tr("Bottom: %1").arg(QString::fromUtf8(strips::directionName(d))), now.outerBottom == d,
               [d](R& r) { r.outerBottom = d; });
    menu->addSeparator();
    auto typed = [&](const QString& text, const QString& value,
                     std::function<QString(R&, const QString&)> take) {
        menu->addAction(QStringLiteral("%1: %2…").arg(text, value), this, [this, text, value, take] {
            auto* edit = InlineEdit::open(canvas_, QRectF(16, 40, 180, 26), value,
                                          [this, text, take](const QString& typedText) -> QString {
                                              R trial;
                                              QString why = take(trial, typedText);
                                              if (!why.isEmpty()) return why;
                                              strips_->setRules(text, [&](R& r) { take(r, typedText); });
                                              return {};
                                          });
            edit->setToolTip(text);
        });
    };
    auto angles = strips_->layout() ? strips_->layout()->angle : std::array<double, 2>{0, 90};
    typed(tr("Angles of the strips, degrees"), QStringLiteral("%1 %2").arg(angles[0]).arg(angles[1]),
          [](R& r, const QString& t) -> QString {
              auto words = t.simplified().split(QLatin1Char(' '));
              bool a = false, b = false;
              double x = words.value(0).toDouble(&a), y = words.value(1).toDouble(&b);
              if (!a || !b) return tr("Write two angles, such as 0 90.");
              r.ownAngles = true;
              r.angle[0] = x, r.angle[1] = y;
              return {};
          });
    if (now.ownAngles) choice(tr("Angles of the grid again"), false, [](R& r) { r.ownAngles = false; });
    typed(tr("Redistribution, per cent"), QString::number(100 * now.redistribution),
          [](R& r, const QString& t) -> QString {
              bool good = false;
              double v = QString(t).remove(QLatin1Char('%')).trimmed().toDouble(&good);
              if (!good || v < 0 || v > 30)
                  return tr("Write a share from 0 to 30 per cent; the checks judge it.");
              r.redistribution = v / 100;
              return {};
          });
    auto system = session_.project().basis.units;
    typed(tr("Width of peaks over columns"),
          now.peakWidth > 0 ? session_.text(now.peakWidth, units::Kind::Span) : tr("by the standard"),
          [system](R& r, const QString& t) -> QString {
              if (t.trimmed().isEmpty() || t.trimmed() == tr("by the standard")) {
                  r.peakWidth = 0;
                  return {};
              }
              auto v = units::parse(t.toStdString(), units::Kind::Span, system);
              if (!v.value) return QString::fromStdString(v.error);
              r.peakWidth = *v.value;
              return {};
          });
}

FloorPage::~FloorPage() = default;

void FloorPage::fillCombinations() {
    QVariant before = combinations_->currentData();
    bool deflection = analysis::Field(fields_->currentData().toInt()) == analysis::Field::Deflection;
    combinations_->clear();
    combinations_->addItem(deflection ? tr("Largest, quasi-permanent") : tr("Largest, ultimate"),
                           FloorCanvas::Most);
    combinations_->addItem(deflection ? tr("Smallest, quasi-permanent") : tr("Smallest, ultimate"),
                           FloorCanvas::Least);
    if (const auto* a = session_.floorAnalysis())
        for (std::size_t k = 0; k < a->combinations.size(); ++k)
            combinations_->addItem(QString::fromStdString(a->combinations[k].name), int(k));
    combinations_->setCurrentIndex(std::max(0, combinations_->findData(before)));
}

void FloorPage::refresh() {
    if (!session_.floor()) return;
    bool busy = session_.stale();
    progress_->setVisible(busy);
    stop_->setVisible(busy);
    progress_->setValue(static_cast<int>(1000 * session_.progress()));
    convergence_->setEnabled(!busy && session_.floorAnalysis() && session_.floorAnalysis()->good());
    if (busy && session_.progress() > 0 && session_.progress() < 1) return;  // only progress
    fillCombinations();
    showContours();
    refreshText();
}

void FloorPage::refreshText() {
    using Kind = report::Block::Kind;
    report::Document page;
    const auto* answer = dynamic_cast<const design::FloorDesign*>(session_.answer());
    if (!answer) {
        page.add(Kind::Title, session_.floor()->name);
        page.add(Kind::Paragraph, "Not answered yet.");
    } else {
        page = report::analysisPage(session_.project(), session_.design(), *answer, found_);
        const auto& a = *answer->analysis;
        if (session_.stale()) page.add(Kind::Paragraph, "This answer is older than the drawing.");
        page.add(Kind::Paragraph, a.reusedAll ? "The answer was kept."
                                              : fmt::format("Answered in {:.0f} ms{}.", a.stages.sum() * 1000,
                                                            a.reusedFactor ? ", the stiffness kept" : ""));
        if (!found_.error.empty()) page.add(Kind::Paragraph, found_.error);
        page.add(Kind::Subheading, "Not there yet");
        page.add(Kind::Paragraph,
                 "Punching, computed deflection, drawings and schedules of floors are not there yet. Strips, "
                 "their bars and checks are places 4 to 6.");
    }
    text_->setHtml(qs(report::html(page, report::Target::Flow)));
}

QString FloorPage::summary() const {
    return text_->toPlainText();
}

void FloorPage::seekConvergence() {
    const auto* floor = session_.floor();
    if (!floor) return;
    convergence_->setEnabled(false);
    convergence_->setText(tr("Analysing on half the size…"));
    convergenceRun_ =
        std::jthread([this, project = std::make_shared<const model::Project>(session_.project()),
                      id = floor->id, serial = convergenceSerial_](std::stop_token stop) {
            std::size_t index = 0;
            while (project->floors[index]->id != id) ++index;
            auto c = design::convergence(*project, index, stop);
            if (stop.stop_requested()) return;
            QMetaObject::invokeMethod(
                this,
                [this, serial, c = std::move(c)] {
                    convergence_->setText(tr("How far from converged?"));
                    convergence_->setEnabled(true);
                    if (serial != convergenceSerial_) return;
                    found_ = c;
                    refreshText();
                },
                Qt::QueuedConnection);
        });
}

// Of the plan, for a strip along its horizontal while it is in view there.
std::optional<LineSection::Scale> FloorPage::sharedScale() const {
    const auto* s = strips_->strip();
    if (!s || s->axes.angle != 0) return {};
    const double a = canvas_->pixelX(s->from), b = canvas_->pixelX(s->to);
    if (a <= 0 || b >= section_->width() || b - a <= 0.45 * section_->width()) return {};
    const double perMm = (b - a) / (s->to - s->from);
    return LineSection::Scale{a - s->from * perMm, perMm};
}

void FloorPage::chooseEnd(std::size_t span, int side, QPoint at) {
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName(QStringLiteral("endMenu"));
    // In the desk's terms: the span lies after (+1) the support at its start.
    const int deskSide = side < 0 ? 1 : -1;
    menu->addAction(tr("As the layout says"), this,
                    [=, this] { strips_->setEnd(span, deskSide, std::nullopt); });
    menu->addSeparator();
    for (auto c : {model::EndCondition::Free, model::EndCondition::OnBeam, model::EndCondition::Continuous,
                   model::EndCondition::Cantilever})
        menu->addAction(QString::fromUtf8(strips::name(c)), this,
                        [=, this] { strips_->setEnd(span, deskSide, c); });
    menu->popup(at);
}

}  // namespace talvik::app

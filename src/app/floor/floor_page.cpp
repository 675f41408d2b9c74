#include "floor/floor_page.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QStackedWidget>
#include <QTextBrowser>
#include <QToolButton>
#include <QVBoxLayout>

#include "design/floors.h"
#include "design/panels.h"
#include "floor/actions_side.h"
#include "floor/floor_register.h"
#include "floor/layout_side.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

QString qs(const std::string& s) {
    return QString::fromStdString(s).toHtmlEscaped();
}
QString row(std::initializer_list<QString> cells) {
    QString out = QStringLiteral("<tr>");
    bool first = true;
    for (const auto& c : cells) {
        out += QStringLiteral("<td style='padding-right:10px' align='%1'>%2</td>")
                   .arg(first ? "left" : "right", c);
        first = false;
    }
    return out + QStringLiteral("</tr>");
}

}  // namespace

FloorPage::FloorPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      desk_(new FloorDesk(session, this)),
      canvas_(new FloorCanvas(session, *desk_)),
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
    fields_->setCurrentIndex(1);
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
    bar->addWidget(fields_);
    bar->addWidget(combinations_);
    bar->addWidget(mesh_);
    bar->addStretch(1);
    bar->addWidget(progress_);
    bar->addWidget(stop_);
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
    side_->setMinimumWidth(300);
    auto* above = new QSplitter(Qt::Vertical);
    above->addWidget(plan);
    above->addWidget(register_);
    above->setStretchFactor(0, 1);
    above->setSizes({520, 190});
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

    auto choose = [this] {
        canvas_->showField(analysis::Field(fields_->currentData().toInt()),
                           combinations_->currentData().toInt());
    };
    connect(fields_, &QComboBox::currentIndexChanged, this, [this, choose] {
        fillCombinations();
        choose();
    });
    connect(combinations_, &QComboBox::activated, this, choose);
    connect(mesh_, &QToolButton::toggled, canvas_, &FloorCanvas::showMesh);
    connect(stop_, &QToolButton::clicked, &session_, &Session::stopFloors);
    connect(convergence_, &QPushButton::clicked, this, &FloorPage::seekConvergence);
    connect(&session_, &Session::floorChanged, this, &FloorPage::refresh);
    connect(&session_, &Session::changed, this, [this] {
        ++convergenceSerial_;
        convergenceText_.clear();
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
    bool drawing = place == Place::Layout || place == Place::Actions;
    toolBar_->setVisible(drawing);
    fieldBar_->setVisible(!drawing && place != Place::Basis);
    prompt_->setVisible(drawing);
    register_->setVisible(drawing);
    side_->setVisible(place != Place::Basis);
    side_->setCurrentIndex(place == Place::Layout ? 1 : place == Place::Actions ? 2 : 0);
    if (drawing) fillTools();
    prompt_->setText(desk_->prompt());
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
    bool busy = session_.floorStale();
    progress_->setVisible(busy);
    stop_->setVisible(busy);
    progress_->setValue(static_cast<int>(1000 * session_.floorProgress()));
    convergence_->setEnabled(!busy && session_.floorAnalysis() && session_.floorAnalysis()->good());
    if (busy && session_.floorProgress() > 0 && session_.floorProgress() < 1) return;  // only progress
    fillCombinations();
    canvas_->showField(analysis::Field(fields_->currentData().toInt()), combinations_->currentData().toInt());
    refreshText();
}

void FloorPage::refreshText() {
    const auto* floor = session_.floor();
    const auto* a = session_.floorAnalysis();
    QString html = QStringLiteral("<div style='margin:10px'><b>%1</b><br>").arg(qs(floor->name));
    if (!a) return text_->setHtml(html + tr("Not answered yet.") + QStringLiteral("</div>"));
    QString ink = session_.floorStale() ? theme().secondary.name() : theme().ink.name();
    html = QStringLiteral("<div style='margin:10px;color:%1'><b>%2</b><br>").arg(ink, qs(floor->name));
    if (session_.floorStale()) html += tr("The answer below is older than the drawing.<br>");
    if (!a->trouble.empty()) {
        for (const auto& t : a->trouble)
            html += QStringLiteral("<p style='color:%1'>%2</p>").arg(theme().over.name(), qs(t.message));
        return text_->setHtml(html + QStringLiteral("</div>"));
    }
    html += tr("%1 triangles, %2 unknowns, smallest angle %3°, ")
                .arg(a->model->plate.triangles.size())
                .arg(a->unknowns)
                .arg(a->model->mesh.smallestAngle, 0, 'f', 0);
    html += a->reusedAll ? tr("answer kept") : tr("answered in %1 ms").arg(a->stages.sum() * 1000, 0, 'f', 0);
    if (a->reusedFactor && !a->reusedAll) html += tr(", stiffness kept");
    auto place = [&](model::Point p) {
        return QStringLiteral("(%1, %2) %3")
            .arg(session_.number(p.x, units::Kind::Span), session_.number(p.y, units::Kind::Span),
                 session_.unit(units::Kind::Span));
    };
    auto force = [&](double v) { return session_.number(v, units::Kind::Force); };
    QString forceUnit = session_.unit(units::Kind::Force);
    html += QStringLiteral("<p><b>%1</b></p><table>").arg(tr("Loads and reactions, %1").arg(forceUnit));
    for (const auto& c : a->cases)
        if (!design::isArrangement(c.id))
            html += row({qs(c.name), force(c.load), force(c.reaction),
                         c.imbalance < 1e-9 ? tr("equal")
                                            : QStringLiteral("%1 %").arg(100 * c.imbalance, 0, 'g', 2)});
    html += QStringLiteral("</table><p><b>%1</b></p><table>").arg(tr("Ultimate, largest and smallest"));
    for (const auto& e : a->extremes(actions::LimitState::Ultimate)) {
        if (e.field == analysis::Field::Deflection) continue;
        for (const auto* x : {&e.most, &e.least})
            html += row({QString::fromUtf8(analysis::key(e.field)),
                         session_.number(x->value, analysis::kind(e.field)),
                         session_.unit(analysis::kind(e.field)), place(x->at)});
    }
    for (const auto& e : a->extremes(actions::LimitState::QuasiPermanent))
        if (e.field == analysis::Field::Deflection)
            html += row({tr("deflection, quasi-permanent, uncracked"),
                         session_.number(e.most.value, units::Kind::Sag), session_.unit(units::Kind::Sag),
                         place(e.most.at)});
    html += QStringLiteral("</table><p><b>%1</b></p><table>")
                .arg(tr("Largest ultimate support force, %1").arg(forceUnit));
    std::vector<double> most(a->model->supports.size(), 0);
    for (std::size_t k = 0; k < a->combinations.size(); ++k)
        if (a->combinations[k].state == actions::LimitState::Ultimate) {
            auto f = a->forces(k);
            for (std::size_t s = 0; s < most.size(); ++s) most[s] = std::max(most[s], f[s].up);
        }
    for (std::size_t s = 0; s < most.size() && s < 300; s += 3) {
        html += QStringLiteral("<tr>");
        for (std::size_t k = s; k < std::min(s + 3, most.size()); ++k)
            html += QStringLiteral(
                        "<td style='padding-right:8px'>%1</td><td align='right' "
                        "style='padding-right:22px'>%2</td>")
                        .arg(qs(a->model->supports[k].name), force(most[k]));
        html += QStringLiteral("</tr>");
    }
    html += QStringLiteral("</table>");
    auto panels = design::panelOpinions(*floor, *a);
    if (!panels.empty()) {
        html += QStringLiteral("<p><b>%1</b></p>").arg(tr("Second opinion on panels"));
        for (const auto& p : panels) {
            html += QStringLiteral("<p>%1: %2</p><table>").arg(qs(p.name), qs(p.source));
            html += row({QString(), tr("analysis"), tr("opinion"), QString(), tr("ratio")});
            for (const auto& r : p.rows) {
                auto k = r.factor == 1e6 ? units::Kind::Moment : units::Kind::MomentPerWidth;
                html += row({qs(r.what), session_.number(r.engine, k), session_.number(r.opinion, k),
                             session_.unit(k),
                             r.opinion != 0 ? QString::number(r.engine / r.opinion, 'f', 2) : QString()});
            }
            html += QStringLiteral("</table>");
        }
    }
    html += convergenceText_;
    if (!a->contactWord.empty()) html += QStringLiteral("<p>%1</p>").arg(qs(a->contactWord));
    if (!a->notes.empty()) {
        html += QStringLiteral("<p><b>%1</b></p>").arg(tr("To look at"));
        for (const auto& n : a->notes) html += QStringLiteral("<p>%1</p>").arg(qs(n.message));
    }
    html += QStringLiteral("<p><b>%1</b></p>").arg(tr("Taken for granted"));
    for (const auto& s : a->assumptions) html += QStringLiteral("<p>%1</p>").arg(qs(s));
    html += QStringLiteral("<p><b>%1</b></p><p>%2</p>")
                .arg(tr("Not there yet"), tr("Design strips, checks, bars and drawings of floors are not "
                                             "there yet. Floors are laid out and "
                                             "loaded in places 2 and 3 and analysed here."));
    text_->setHtml(html + QStringLiteral("</div>"));
}

QString FloorPage::summary() const {
    return text_->toPlainText();
}

void FloorPage::seekConvergence() {
    const auto* floor = session_.floor();
    if (!floor) return;
    std::size_t index = 0;
    const auto& floors = session_.project().floors;
    while (index < floors.size() && floors[index].get() != floor) ++index;
    convergence_->setEnabled(false);
    convergence_->setText(tr("Analysing on half the size…"));
    convergenceRun_ = std::jthread([this, job = session_.floorJob(index),
                                    serial = convergenceSerial_](std::stop_token stop) {
        auto c =
            analysis::FloorAnalyser().convergence(*job.floor, job.path, job.basis, job.combinations, stop);
        if (stop.stop_requested()) return;
        QMetaObject::invokeMethod(
            this,
            [this, serial, c = std::move(c)] {
                convergence_->setText(tr("How far from converged?"));
                convergence_->setEnabled(true);
                if (serial != convergenceSerial_) return;
                convergenceText_ = QStringLiteral("<p><b>%1</b></p>").arg(tr("On a mesh of half the size"));
                if (!c.error.empty()) convergenceText_ += qs(c.error);
                convergenceText_ += QStringLiteral("<table>");
                for (const auto& r : c.rows)
                    convergenceText_ +=
                        row({qs(r.what), QString::number(r.coarse, 'f', 2), QString::number(r.fine, 'f', 2),
                             qs(r.unit), QStringLiteral("%1 %").arg(-100 * r.change(), 0, 'f', 1)});
                convergenceText_ += QStringLiteral("</table>");
                refreshText();
            },
            Qt::QueuedConnection);
    });
}

}  // namespace talvik::app

#include "window/main_window.h"

#include <QAbstractButton>
#include <QAbstractItemDelegate>
#include <QAbstractItemView>
#include <QApplication>
#include <QClipboard>
#include <QCloseEvent>
#include <QComboBox>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenu>
#include <QMessageBox>
#include <QProgressBar>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QStatusBar>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "bases/base_pane.h"
#include "bases/base_table.h"
#include "bases/bases_view.h"
#include "bench/bench_window.h"
#include "board/floor_canvas.h"
#include "connections/connection_desk.h"
#include "document/keeper.h"
#include "formats/column_loads.h"
#include "formats/file.h"
#include "formats/project_file.h"
#include "issue/sheet_preview.h"
#include "margin/margin_view.h"
#include "model/edits.h"
#include "plan/plan_view.h"
#include "register/register.h"
#include "section/line_section.h"
#include "start/start_page.h"
#include "sweep/sweep_window.h"
#include "tray/tray.h"
#include "widgets/elided_label.h"
#include "widgets/message.h"
#include "widgets/text.h"
#include "widgets/theme.h"
#include "window/place_bar.h"

namespace talvik::app {

// The table in a cell of which a field stands, if it does.
static QAbstractItemView* tableOf(const QLineEdit* field) {
    const auto* inside = field ? field->parentWidget() : nullptr;
    return inside && field->isVisibleTo(inside) ? qobject_cast<QAbstractItemView*>(inside->parentWidget())
                                                : nullptr;
}
// What stands in the field in hand comes in as if it were left. Also where a dialog has the focus just now.
static void finishTyping(const QWidget& window) {
    auto* field = qobject_cast<QLineEdit*>(window.focusWidget());
    if (auto* table = tableOf(field)) {
        if (field->isModified()) emit table->itemDelegate()->commitData(field);
        emit table->itemDelegate()->closeEditor(field);
    } else if (field && field->isModified()) {
        emit field->editingFinished();
    }
}
// The cell in hand is as it was: after a step of history its row may be another's.
static void dropCell(const QWidget& window) {
    auto* field = qobject_cast<QLineEdit*>(window.focusWidget());
    if (auto* table = tableOf(field)) emit table->itemDelegate()->closeEditor(field);
}

MainWindow::MainWindow()
    : desk_(new FloorDesk(session_, this)),
      strips_(new StripDesk(session_, bars_, this)),
      connections_(new ConnectionDesk(session_, this)),
      places_(new PlaceBar(session_)),
      plan_(new PlanView(session_, bars_, scale_)),
      canvas_(new FloorCanvas(session_, *desk_, *strips_, *connections_)),
      basesPlan_(new BasesView(session_)),
      section_(new LineSection(session_, bars_,
                               [this]() -> std::optional<LineSection::Scale> {
                                   if (session_.slab())
                                       return LineSection::Scale{scale_.toPixel(0), scale_.perMm()};
                                   // Of the plan, for a strip along its horizontal while it is in view there.
                                   const auto* s = strips_->strip();
                                   if (!s || s->axes.angle != 0) return {};
                                   const double a = canvas_->pixelX(s->from), b = canvas_->pixelX(s->to),
                                                room = section_->width();
                                   if (a < 104 || b >= room || b - a <= 0.45 * room) return {};
                                   const double perMm = (b - a) / (s->to - s->from);
                                   return LineSection::Scale{a - s->from * perMm, perMm};
                               })),
      margin_(new MarginView(session_)),
      tray_(new Tray({session_, bars_, *desk_, *strips_, *connections_, *canvas_})),
      sheet_(new SheetPreview(session_)),
      below_(new Register(*desk_, *section_, *connections_)),
      pictures_(new QStackedWidget),
      across_(new QSplitter(Qt::Horizontal)),
      middle_(new QSplitter(Qt::Vertical)),
      message_(new Message(pictures_)),
      hint_(new QLabel(pictures_)),
      status_(new ElidedLabel),
      removed_(new QLabel),
      coordinates_(new QLabel),
      progress_(new QProgressBar),
      stop_(new QToolButton) {
    setObjectName(QStringLiteral("mainWindow"));
    setMinimumSize(900, 520);
    resize(1280, 800);
    for (QWidget* picture :
         {static_cast<QWidget*>(plan_), static_cast<QWidget*>(canvas_), static_cast<QWidget*>(basesPlan_),
          static_cast<QWidget*>(sheet_), static_cast<QWidget*>(start_ = new StartPage(session_))})
        pictures_->addWidget(picture);
    middle_->addWidget(pictures_);
    middle_->addWidget(below_);
    middle_->setStretchFactor(0, 11);
    middle_->setStretchFactor(1, 10);
    middle_->setSizes({325, 370});
    across_->addWidget(tray_);
    across_->addWidget(middle_);
    across_->addWidget(margin_);
    across_->setStretchFactor(1, 1);
    across_->setSizes({338, 642, 300});
    for (auto* splitter : {across_, middle_}) {
        splitter->setChildrenCollapsible(false);
        splitter->setHandleWidth(splitter == across_ ? 1 : 3);
        splitter->restoreState(
            QSettings()
                .value(splitter == across_ ? QStringLiteral("across") : QStringLiteral("middle"))
                .toByteArray());
        connect(splitter, &QSplitter::splitterMoved, this, &MainWindow::rememberWidths);
    }
    for (const QVariant& side : QSettings().value(QStringLiteral("folded")).toList())
        folded_.insert(static_cast<Side>(side.toInt()));

    auto* body = new QWidget;
    auto* column = new QVBoxLayout(body);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(places_);
    column->addWidget(across_, 1);
    setCentralWidget(body);

    hint_->setObjectName(QStringLiteral("hint"));
    hint_->setFont(uiFont(12));
    hint_->setStyleSheet(
        QStringLiteral(
            "QLabel{background:%1;border:1px solid %2;border-radius:4px;padding:8px 12px;color:%3}")
            .arg(theme().field.name(), theme().hairline.name(), theme().ink.name()));
    hint_->hide();
    buildStatus();

    keeper_ = new Keeper(session_, this);
    connect(keeper_, &Keeper::alsoOpened, this, [this] {
        say(tr("%1 is open in another window already: saving here and there overwrites each other. Save "
               "under another name to work on both.")
                .arg(session_.path()));
    });
    connect(keeper_, &Keeper::failed, this,
            [this](const QString& why) { say(tr("Auto-save is not working: %1").arg(why)); });
    askUnsaved = [this] {
        QMessageBox box(QMessageBox::NoIcon, tr("Unsaved changes"),
                        tr("%1 has changes that are not saved.").arg(qs(session_.project().name)),
                        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
        switch (box.exec()) {
            case QMessageBox::Save:
                return Unsaved::Save;
            case QMessageBox::Discard:
                return Unsaved::Discard;
            default:
                return Unsaved::Cancel;
        }
    };
    askRecover = [this](const QString& sentence) {
        QMessageBox box(QMessageBox::NoIcon, tr("Kept changes"), sentence, QMessageBox::NoButton, this);
        QAbstractButton* take = box.addButton(tr("&Restore"), QMessageBox::AcceptRole);
        QAbstractButton* away = box.addButton(tr("&Discard"), QMessageBox::DestructiveRole);
        QAbstractButton* later = box.addButton(tr("&Later"), QMessageBox::RejectRole);
        box.setEscapeButton(later);
        box.exec();
        return box.clickedButton() == take   ? Recover::Take
               : box.clickedButton() == away ? Recover::ThrowAway
                                             : Recover::Later;
    };
    askConflict = [this](const QString& sentence) {
        QMessageBox box(QMessageBox::NoIcon, tr("The file has changed"), sentence, QMessageBox::Cancel, this);
        QAbstractButton* mine = box.addButton(tr("&Overwrite"), QMessageBox::DestructiveRole);
        QAbstractButton* theirs = box.addButton(tr("&Reload from disk"), QMessageBox::DestructiveRole);
        QAbstractButton* beside = box.addButton(tr("Save a &copy"), QMessageBox::AcceptRole);
        box.setEscapeButton(QMessageBox::Cancel);
        box.exec();
        const QAbstractButton* clicked = box.clickedButton();
        return clicked == mine     ? Conflict::Mine
               : clicked == theirs ? Conflict::Theirs
               : clicked == beside ? Conflict::Beside
                                   : Conflict::Cancel;
    };
    askFolder = [this](const QString& title) { return QFileDialog::getExistingDirectory(this, title); };
    askOpenPath = [this](const QString& title, const QString& filter) {
        return QFileDialog::getOpenFileName(this, title, {}, filter);
    };
    askSavePath = [this](const QString& title, const QString& suggestion, const QString& filter) {
        return QFileDialog::getSaveFileName(this, title, suggestion, filter);
    };

    buildMenus();
    connectParts();
    showPlace();
    refreshStatus();
    refreshTitle();
    setTabOrder(plan_, canvas_);
    setTabOrder(canvas_, section_);
    setTabOrder(section_, margin_);
    setTabOrder(margin_, tray_);
    plan_->setFocus();
    for (QWidget* part : {static_cast<QWidget*>(plan_), static_cast<QWidget*>(canvas_),
                          static_cast<QWidget*>(section_), static_cast<QWidget*>(margin_)})
        part->installEventFilter(this);
}

MainWindow::~MainWindow() {
    disconnect(qApp, nullptr, this, nullptr);  // focus goes on changing while the parts go
    // What shows the session and works on it goes before it: a table asks for its heads even while it is
    // hidden, and the history tells when it is cleared.
    hide();
    for (QObject* from : {static_cast<QObject*>(&session_), static_cast<QObject*>(&session_.undoStack()),
                          static_cast<QObject*>(&bars_)})
        disconnect(from, nullptr, this, nullptr);
    qDeleteAll(findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly));
    for (QObject* part : std::initializer_list<QObject*>{keeper_, connections_, strips_, desk_}) delete part;
}

void MainWindow::buildStatus() {
    progress_->setRange(0, 1000);
    progress_->setTextVisible(false);
    progress_->setFixedSize(90, 8);
    stop_->setText(tr("Stop"));
    stop_->setFont(uiFont(11));
    // Their room is kept: nothing in the line moves when they come and go.
    for (QWidget* w : {static_cast<QWidget*>(progress_), static_cast<QWidget*>(stop_)}) {
        auto policy = w->sizePolicy();
        policy.setRetainSizeWhenHidden(true);
        w->setSizePolicy(policy);
        w->hide();
    }
    coordinates_->setMinimumWidth(150);
    coordinates_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    removed_->setObjectName(QStringLiteral("removed"));
    removed_->hide();
    statusBar()->addWidget(removed_);
    statusBar()->addWidget(status_, 1);
    for (QWidget* w : {static_cast<QWidget*>(progress_), static_cast<QWidget*>(stop_),
                       static_cast<QWidget*>(coordinates_)})
        statusBar()->addPermanentWidget(w);
    statusBar()->setSizeGripEnabled(false);
    statusBar()->setStyleSheet(
        QStringLiteral("QStatusBar{background:%1}QStatusBar::item{border:0}QLabel{padding:2px 10px}")
            .arg(theme().chromeDark.name()));
    statusBar()->setFixedHeight(26);
    for (QLabel* label : {static_cast<QLabel*>(status_), removed_, coordinates_}) label->setFont(uiFont(11));
    status_->setObjectName(QStringLiteral("status"));
    coordinates_->setObjectName(QStringLiteral("coordinates"));
    connect(stop_, &QToolButton::clicked, &session_, &Session::stopAnswers);
    connect(removed_, &QLabel::linkActivated, this, [this] { session_.undoStack().undo(); });
}

void MainWindow::connectParts() {
    for (auto signal : {&Session::changed, &Session::answered})
        connect(&session_, signal, this, &MainWindow::refreshStatus);
    for (auto signal : {&Session::changed, &Session::placeChanged})
        connect(&session_, signal, this, &MainWindow::showPlace);
    for (auto signal : {&Session::changed, &Session::fileChanged})
        connect(&session_, signal, this, &MainWindow::refreshTitle);
    connect(&session_, &Session::refused, this, &MainWindow::say);
    connect(&session_, &Session::leaving, this, [this] { finishTyping(*this); });
    connect(&session_, &Session::stepping, this, [this] { dropCell(*this); });
    connect(tray_, &Tray::refused, this, &MainWindow::say);
    connect(&bars_, &BarDesk::said, this, &MainWindow::say);
    connect(desk_, &FloorDesk::said, this, &MainWindow::say);
    connect(strips_, &StripDesk::said, this, &MainWindow::say);
    connect(desk_, &FloorDesk::removed, this, &MainWindow::sayRemoved);
    connect(&session_.undoStack(), &QUndoStack::indexChanged, this, [this] {
        message_->hide();
        removed_->hide();
    });
    auto coordinates = [this](double x, double y, const QString& value = {}) {
        coordinates_->setText(tr("x %1  y %2 %3")
                                  .arg(session_.number(x, units::Kind::Span),
                                       session_.number(y, units::Kind::Span),
                                       session_.unit(units::Kind::Span)) +
                              (value.isEmpty() ? QString() : QStringLiteral("   ") + value));
    };
    connect(canvas_, &FloorCanvas::pointerMoved, this, coordinates);
    connect(plan_, &PlanView::pointerMoved, this, [coordinates](double x, double y) { coordinates(x, y); });
    connect(&scale_, &StripScale::changed, section_, &LineSection::update);
    connect(canvas_, &FloorCanvas::moved, section_, &LineSection::update);
    connect(section_, &LineSection::zoomed, this, [this](double factor, double at) {
        if (session_.slab()) scale_.zoom(factor, at);
    });
    connect(section_, &LineSection::activated, this, &MainWindow::openMargin);
    connect(section_, &LineSection::endWanted, this, &MainWindow::chooseEnd);
    connect(plan_, &PlanView::activated, this, &MainWindow::openMargin);
    connect(basesPlan_, &BasesView::activated, this, &MainWindow::openMargin);
    connect(basesPlan_, &BasesView::pointerMoved, this,
            [coordinates](double x, double y) { coordinates(x, y); });
    connect(&below_->bases(), &BaseTable::said, this, &MainWindow::say);
    connect(&below_->basePane(), &BasePane::said, this, &MainWindow::say);
    connect(tray_, &Tray::loadsWanted, this, &MainWindow::addBases);
    connect(start_, &StartPage::wanted, this, [this](StartPage::Begin what) { beginFrom(int(what)); });
    connect(start_, &StartPage::standardWanted, this, [this](const QString& id) {
        QSettings().setValue(QStringLiteral("standard"), id);
        startEmpty();
    });
    connect(start_, &StartPage::fileWanted, this, [this](const QString& path) {
        if (mayLeave()) openFile(path);
    });
    connect(tray_, &Tray::templateWanted, this, [this] {
        const QString path =
            askSavePath(tr("Table of loads to fill in"), tr("column loads.csv"), tr("Tables (*.csv)"));
        if (path.isEmpty()) return;
        const auto text = formats::columnLoadsTemplate(session_.project().basis.units);
        if (const auto why = formats::writeFile(path.toStdString(), text); !why.empty()) say(qs(why));
    });
    connect(tray_, &Tray::loadsPasted, this, [this] { pasteBases(QApplication::clipboard()->text()); });
    connect(canvas_, &FloorCanvas::activated, this, &MainWindow::openMargin);
    connect(tray_, &Tray::exportWanted, this, &MainWindow::exportAsked);
    connect(tray_, &Tray::economyWanted, this, &MainWindow::economicalBars);
    connect(tray_, &Tray::checkWanted, this, &MainWindow::go);
    connect(places_, &PlaceBar::standardWanted, this, &MainWindow::chooseStandard);
    connect(places_, &PlaceBar::elementWanted, this, &MainWindow::chooseElement);
    connect(below_, &Register::showWanted, this, [this](double x, double y) { canvas_->centreOn({x, y}); });
    connect(margin_, &MarginView::previewed, this,
            [this](const std::shared_ptr<const model::Project>& project) {
                std::shared_ptr<const model::Floor> floor;
                for (const auto& f : project ? project->floors : decltype(project->floors){})
                    if (f->id == session_.element()) floor = f;
                canvas_->setPreview(std::move(floor));
            });
    connect(margin_, &MarginView::matterWanted, this, [this](std::size_t number, bool mend) {
        if (number >= session_.matters().size()) return;
        const auto m = session_.matters()[number];
        if (mend) return desk_->mend(m);
        if (m.kind == report::Matter::Kind::Unloaded) {
            session_.setPlace(Place::Actions);
            if (!m.ids.empty()) desk_->setLoadCase(m.ids.front());
            return;
        }
        session_.setPlace(Place::Layout);
        if (m.ids.empty()) return;
        canvas_->centreOn(m.at);
        desk_->select({m.ids.front()});
    });
}

void MainWindow::openMargin() {
    if (!isShown(Side::Margin)) fold(Side::Margin);
    auto keys = margin_->listed();
    if (!keys.empty() && !margin_->isOpen(keys.front())) margin_->open(keys.front());
    margin_->setFocus();
}

bool MainWindow::isEmpty() const {
    return !session_.slab() && !session_.floor() && !session_.bases();
}

void MainWindow::startEmpty() {
    // By the standard that was last chosen on the start page.
    const auto id =
        QSettings().value(QStringLiteral("standard"), QStringLiteral("en1992")).toString().toStdString();
    const auto all = standards::standardIds();
    const bool known = std::find(all.begin(), all.end(), id) != all.end();
    session_.start(model::freshProject(known ? id : std::string("en1992")), {});
    session_.setPlace(Place::Layout);
    showPlace();
    if (auto* first = start_->findChild<QPushButton*>(QStringLiteral("startFloor"))) first->setFocus();
}

void MainWindow::beginFrom(int what) {
    using Begin = StartPage::Begin;
    switch (static_cast<Begin>(what)) {
        case Begin::Floor:
            return addFloor();
        case Begin::Slab:
            return addSlab();
        case Begin::Pads:
            return addEmptyBases(model::BaseSet::Kind::Pads);
        case Begin::Caps:
            return addEmptyBases(model::BaseSet::Kind::Caps);
        case Begin::Bench:
            return showBench();
        case Begin::Open:
            return openAsked();
        case Begin::Demo:
            return openDemo(true);
        case Begin::DemoFloor:
            return openFloorDemo();
    }
}

QWidget& MainWindow::picture() {
    return *pictures_->currentWidget();
}
void MainWindow::fit() {
    session_.floor() ? canvas_->fit() : session_.bases() ? basesPlan_->fit() : plan_->fit();
}

void MainWindow::showPlace() {
    const bool floor = session_.floor() != nullptr && session_.place() != Place::Issue,
               wasFloor = pictures_->currentWidget() == canvas_;
    tray_->show(session_.place());
    section_->setEmptyText(
        floor ? tr("No strip is selected. Click one on the plan, or press the up arrow; X and Y choose the "
                   "direction.\nThis shows its long section: bars, moments with the resistance of the bars, "
                   "steel required and provided, shear, cracks.")
              : QString());
    if (isEmpty()) start_->refresh();
    pictures_->setCurrentWidget(isEmpty()                          ? static_cast<QWidget*>(start_)
                                : floor                            ? static_cast<QWidget*>(canvas_)
                                : session_.place() == Place::Issue ? static_cast<QWidget*>(sheet_)
                                : session_.bases()                 ? static_cast<QWidget*>(basesPlan_)
                                                                   : plan_);
    byHand_.clear();
    arrange();
    if (floor != wasFloor && floor) canvas_->fit(), canvas_->setFocus();
    if (pictures_->currentWidget() == sheet_) sheet_->setFocus();
}

void MainWindow::arrange() {
    const Place place = session_.place();
    const bool starts = pictures_->currentWidget() == start_;
    bool tray = tray_->hasPage(place) && !folded_.contains(Side::Tray) && (!starts || place == Place::Basis),
         margin = !folded_.contains(Side::Margin) && !starts;
    // Where there is room for one of both, the one that the place is about.
    if (width() < 1100 && tray && margin) {
        const bool answers = place == Place::Checks || place == Place::Bars;
        if (!byHand_.contains(answers ? Side::Tray : Side::Margin)) (answers ? tray : margin) = false;
    }
    tray_->setVisible(tray);
    margin_->setVisible(margin);
    below_->setVisible(!folded_.contains(Side::Below) && pictures_->currentWidget() != sheet_ && !starts);
}

bool MainWindow::isShown(Side side) const {
    const QWidget* widgets[] = {tray_, below_, margin_};
    return !widgets[static_cast<int>(side)]->isHidden();
}
void MainWindow::fold(Side side) {
    if (isShown(side))
        folded_.insert(side), byHand_.erase(side);
    else
        folded_.erase(side), byHand_.insert(side);
    arrange();
    rememberWidths();
}

void MainWindow::rememberWidths() {
    QSettings settings;
    settings.setValue(QStringLiteral("across"), across_->saveState());
    settings.setValue(QStringLiteral("middle"), middle_->saveState());
    QVariantList folded;
    for (Side side : folded_) folded << static_cast<int>(side);
    settings.setValue(QStringLiteral("folded"), folded);
}

void MainWindow::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    arrange();
    message_->standAt({pictures_->width() - 10, pictures_->height() - 10});
}

void MainWindow::refreshStatus() {
    status_->setText(state());
    const bool busy = session_.stale() && session_.answer() && (session_.floor() || session_.bases());
    progress_->setVisible(busy);
    stop_->setVisible(busy);
    progress_->setValue(static_cast<int>(1000 * session_.progress()));
}

QString MainWindow::state() const {
    const auto& design = session_.design();
    if (!design.trouble.empty()) return (qs(design.trouble.front().message));
    if (session_.floor()) {
        const auto* a = session_.floorAnalysis();
        if (session_.stale()) return (tr("Analysing, %1 %").arg(100 * session_.progress(), 0, 'f', 0));
        if (!a) return (tr("Not analysed"));
        if (!a->trouble.empty()) return (qs(a->trouble.front().message));
        if (!session_.answer()->error.empty()) return qs(session_.answer()->error);
        double worst = 0;
        for (const auto& c : a->cases) worst = std::max(worst, c.imbalance);
        auto d = session_.floorDesign();
        QString checked = tr("not designed");
        if (d) {
            double off = 0;
            for (const auto& c : d->layout->coverage) off += c.uncovered + c.overlapped;
            checked = tr("%1 failing, %2 passing, %3 not checked · %4")
                          .arg(d->summary.over)
                          .arg(d->summary.within)
                          .arg(d->summary.notChecked)
                          .arg(off < 1e3 ? tr("strips cover the whole slab")
                                         : tr("%1 m² in no strip or in two").arg(off / 1e6, 0, 'f', 2));
        }
        return (tr("%1 · %2 · %3 combinations · equilibrium error %4 · %5 warnings")
                    .arg(a->reusedAll || a->stages.sum() == 0
                             ? tr("Results kept")
                             : tr("Designed (%1 ms)").arg(a->stages.sum() * 1000, 0, 'f', 0))
                    .arg(checked)
                    .arg(a->combinations.size())
                    .arg(worst < 1e-9 ? QStringLiteral("1e-9") : QString::number(worst, 'g', 1))
                    .arg(a->notes.size()));
    }
    if (session_.bases()) {
        const auto* b = session_.basesAnswer();
        if (session_.stale() || !b)
            return tr("Designing bases, %1 %").arg(100 * session_.progress(), 0, 'f', 0);
        if (!b->error.empty()) return qs(b->error);
        return tr("%1 bases designed (%2 ms) · %3 checks failing, %4 passing, %5 not checked")
            .arg(b->bases.size())
            .arg(session_.answerMilliseconds(), 0, 'f', 0)
            .arg(b->summary.over)
            .arg(b->summary.within)
            .arg(b->summary.notChecked);
    }
    if (!session_.slab()) return (tr("Nothing is begun yet"));
    const auto* d = session_.slabDesign();
    if (!d) return (tr("Designing…"));
    auto sum = design.summary();
    return (tr("Designed (%1 ms) · %2 failing, %3 passing, %4 not checked · equilibrium error %5 %")
                .arg(session_.answerMilliseconds(), 0, 'f', 1)
                .arg(sum.over)
                .arg(sum.within)
                .arg(sum.notChecked)
                .arg(d->analysis.imbalance * 100, 0, 'f', 2));
}

void MainWindow::refreshTitle() {
    QString name =
        session_.path().isEmpty() ? qs(session_.project().name) : QFileInfo(session_.path()).fileName();
    setWindowTitle(tr("%1[*] – Talvik").arg(name));
    setWindowModified(session_.modified());
}

void MainWindow::say(const QString& sentence) {
    message_->standAt({pictures_->width() - 10, pictures_->height() - 10});
    message_->say(sentence.trimmed());
}

void MainWindow::sayRemoved(const QString& what) {
    removed_->setText(tr("%1 <a href=\"undo\" style=\"color:%2\">Undo</a>")
                          .arg(what.toHtmlEscaped(), theme().selection.name()));
    removed_->show();
}

bool MainWindow::openFile(const QString& path, bool ask) {
    QString why = session_.open(path);
    if (!why.isEmpty()) {
        say(tr("%1 was not opened.\n%2").arg(path, why));
        return false;
    }
    message_->hide();
    hint_->hide();
    remember(path);
    fit();
    if (!ask) return true;
    if (const auto kept = keeper_->left(); kept && offer(*kept)) fit();
    return true;
}

// True where it was taken.
bool MainWindow::offer(const formats::Kept& kept) {
    QString sentence =
        kept.of.empty()
            ? tr("A project without a name, \"%1\", was open at %2 when Talvik did not close normally.")
                  .arg(qs(kept.project.name), qs(kept.at))
            : tr("%1 had changes at %2 that were not saved when Talvik did not close normally.")
                  .arg(qs(kept.of), qs(kept.at));
    if (!kept.of.empty()) {
        QStringList lines;
        for (const auto& line : formats::whatDiffers(session_.project(), kept.project, 6)) lines << qs(line);
        if (lines.empty()) {  // it was saved after all
            keeper_->forget(kept);
            return false;
        }
        sentence += tr("\n\nCompared with the file it has:\n%1").arg(lines.join(QLatin1Char('\n')));
    }
    switch (askRecover(sentence)) {
        case Recover::Take:
            session_.startUnsaved(kept.project, kept.of.empty() ? QString() : session_.path());
            if (kept.path != keeper_->where()) keeper_->forget(kept);
            keeper_->flush();
            return true;
        case Recover::ThrowAway:
            keeper_->forget(kept);
            return false;
        case Recover::Later:
            break;
    }
    return false;
}

void MainWindow::offerKept() {
    for (const auto& kept : formats::keptWithoutName()) {
        if (kept.of.empty() ? offer(kept) : openFile(qs(kept.of)) && session_.modified()) {
            fit();
            return;
        }
    }
}

void MainWindow::openDemo(bool withHint) {
    session_.start(formats::demoProject(), {});
    session_.setPlace(Place::Checks);
    fit();
    if (!withHint) return;
    hint_->setText(
        tr("This is the visitors' gallery of a ferry landing. Try:\n1  PageDown twice: the slab grows "
           "thinner and every check follows\n2  drag a bar end in the long section, or double-click a "
           "call-out\n3  click a span or a support, then a check, to read its working\n4  Ctrl+1 to Ctrl+7 "
           "change the place; Ctrl+Z undoes anything\nEsc closes this note."));
    hint_->adjustSize();
    hint_->move(14, plan_->height() > 300 ? plan_->height() - hint_->height() - 40 : 8);
    hint_->show();
    hint_->raise();
}

void MainWindow::openFloorDemo() {
    session_.start(formats::demoFloorProject(), {});
    hint_->hide();
    fit();
}

bool MainWindow::save() {
    if (!session_.path().isEmpty()) return saveAs(session_.path());
    QString path =
        askSavePath(tr("Save"), qs(session_.project().name) + QStringLiteral(".talvik"), fileFilter());
    return !path.isEmpty() && saveAs(path);
}

bool MainWindow::saveAs(const QString& chosen) {
    QString path = QFileInfo(chosen).suffix().isEmpty() ? chosen + QStringLiteral(".talvik") : chosen;
    if (QFileInfo(path).absoluteFilePath() == QFileInfo(session_.path()).absoluteFilePath() &&
        session_.changedOutside()) {
        switch (askConflict(tr("%1 was changed on disk since it was opened here. Overwrite keeps the version "
                               "on screen; reload from disk opens the other and drops what is not saved "
                               "here; save a copy writes a second file.")
                                .arg(path))) {
            case Conflict::Mine:
                break;
            case Conflict::Theirs:
                return openFile(session_.path());
            case Conflict::Beside: {
                const QFileInfo file(path);
                for (int i = 2; QFileInfo::exists(path); ++i)
                    path = file.dir().filePath(
                        QStringLiteral("%1-%2.%3").arg(file.completeBaseName()).arg(i).arg(file.suffix()));
                break;
            }
            case Conflict::Cancel:
                return false;
        }
    }
    QString why = session_.save(path);
    if (!why.isEmpty()) {
        say(why);
        return false;
    }
    remember(path);
    return true;
}

bool MainWindow::mayLeave() {
    finishTyping(*this);
    if (!session_.modified()) return true;
    switch (askUnsaved()) {
        case Unsaved::Save:
            return save();
        case Unsaved::Discard:
            return true;
        case Unsaved::Cancel:
            return false;
    }
    return false;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!mayLeave()) return event->ignore();
    keeper_->end();
    event->accept();
}

void MainWindow::remember(const QString& path) {
    QSettings settings;
    QStringList files = settings.value(QStringLiteral("recent")).toStringList();
    QString whole = QFileInfo(path).absoluteFilePath();
    files.removeAll(whole);
    files.prepend(whole);
    settings.setValue(QStringLiteral("recent"), files.mid(0, 8));
}

void MainWindow::fillRecent() {
    recent_->clear();
    const QStringList files = QSettings().value(QStringLiteral("recent")).toStringList();
    for (const QString& path : files)
        recent_->addAction(path, this, [this, path] {
            if (mayLeave()) openFile(path);
        });
    if (files.isEmpty()) recent_->addAction(tr("No file was opened yet"))->setEnabled(false);
}

bool MainWindow::eventFilter(QObject* object, QEvent* event) {
    if (event->type() == QEvent::KeyPress && hint_->isVisible() &&
        static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        hint_->hide();
        return true;
    }
    return QMainWindow::eventFilter(object, event);
}

void MainWindow::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) {
        hint_->hide();
        message_->hide();
        return;
    }
    QMainWindow::keyPressEvent(event);
}

}  // namespace talvik::app

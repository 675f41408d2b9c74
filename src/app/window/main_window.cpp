#include "window/main_window.h"

#include <QApplication>
#include <QCloseEvent>
#include <QComboBox>
#include <QDesktopServices>
#include <QDialog>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMenuBar>
#include <QMessageBox>
#include <QProgressDialog>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QStatusBar>
#include <QTextBrowser>
#include <QToolButton>
#include <QVBoxLayout>
#include <atomic>
#include <cmath>
#include <future>

#include "bench/bench_window.h"
#include "floor/floor_page.h"
#include "formats/project_file.h"
#include "issue/sheet_preview.h"
#include "layout/placing.h"
#include "margin/margin_view.h"
#include "model/edits.h"
#include "plan/plan_view.h"
#include "report/index.h"
#include "section/line_section.h"
#include "tray/tray.h"
#include "widgets/text.h"
#include "widgets/theme.h"
#include "window/find_palette.h"
#include "window/help.h"
#include "window/place_bar.h"

namespace talvik::app {
MainWindow::MainWindow()
    : places_(new PlaceBar(session_)),
      plan_(new PlanView(session_, bars_, scale_)),
      section_(new LineSection(session_, bars_,
                               [this]() -> std::optional<LineSection::Scale> {
                                   return LineSection::Scale{scale_.toPixel(0), scale_.perMm()};
                               })),
      margin_(new MarginView(session_)),
      tray_(new Tray(session_, bars_)),
      sheet_(new SheetPreview(session_)),
      floor_(new FloorPage(session_, bars_)),
      centre_(new QStackedWidget),
      across_(new QSplitter(Qt::Horizontal)),
      notice_(new QWidget),
      noticeText_(new QLabel),
      hint_(new QLabel(plan_)),
      status_(new QLabel),
      coordinates_(new QLabel) {
    setObjectName(QStringLiteral("mainWindow"));
    resize(1280, 800);

    auto* pictures = new QSplitter(Qt::Vertical);
    pictures->addWidget(plan_);
    pictures->addWidget(section_);
    pictures->setStretchFactor(0, 11);
    pictures->setStretchFactor(1, 9);
    pictures->setSizes({325, 370});
    pictures->setChildrenCollapsible(false);
    pictures->setHandleWidth(3);
    centre_->addWidget(pictures);
    centre_->addWidget(sheet_);
    centre_->addWidget(floor_);

    noticeText_->setWordWrap(true);
    noticeText_->setObjectName(QStringLiteral("notice"));
    auto* dismiss = new QToolButton;
    dismiss->setText(tr("Dismiss"));
    connect(dismiss, &QToolButton::clicked, notice_, &QWidget::hide);
    auto* noticeRow = new QHBoxLayout(notice_);
    noticeRow->setContentsMargins(16, 6, 10, 6);
    noticeRow->addWidget(noticeText_, 1);
    noticeRow->addWidget(dismiss);
    notice_->setAutoFillBackground(true);
    notice_->setStyleSheet(QStringLiteral("QWidget{color:%1;background:%2}")
                               .arg(theme().attention.name(), theme().field.name()));
    notice_->hide();

    across_->addWidget(tray_);
    across_->addWidget(centre_);
    across_->addWidget(margin_);
    across_->setStretchFactor(1, 1);
    across_->setSizes({310, 670, 300});
    across_->setChildrenCollapsible(false);
    across_->setHandleWidth(1);
    tray_->setMinimumWidth(290);

    auto* body = new QWidget;
    auto* column = new QVBoxLayout(body);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(places_);
    column->addWidget(notice_);
    column->addWidget(across_, 1);
    setCentralWidget(body);

    hint_->setObjectName(QStringLiteral("hint"));
    hint_->setFont(uiFont(12));
    hint_->setStyleSheet(
        QStringLiteral(
            "QLabel{background:%1;border:1px solid %2;border-radius:4px;padding:8px 12px;color:%3}")
            .arg(theme().field.name(), theme().hairline.name(), theme().ink.name()));
    hint_->hide();

    statusBar()->addWidget(status_, 1);
    statusBar()->addPermanentWidget(coordinates_);
    statusBar()->setSizeGripEnabled(false);
    statusBar()->setStyleSheet(
        QStringLiteral("QStatusBar{background:%1}QStatusBar::item{border:0}QLabel{padding:2px 10px}")
            .arg(theme().chromeDark.name()));
    status_->setFont(uiFont(11));
    coordinates_->setFont(uiFont(11));
    coordinates_->setObjectName(QStringLiteral("coordinates"));

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
    askSavePath = [this](const QString& title, const QString& suggestion, const QString& filter) {
        return QFileDialog::getSaveFileName(this, title, suggestion, filter);
    };

    buildMenus();
    connectParts();
    showPlace();
    refreshStatus();
    refreshTitle();
    setTabOrder(plan_, section_);
    setTabOrder(section_, margin_);
    setTabOrder(margin_, tray_);
    plan_->setFocus();
    for (QWidget* part :
         {static_cast<QWidget*>(plan_), static_cast<QWidget*>(section_), static_cast<QWidget*>(margin_)})
        part->installEventFilter(this);
}

MainWindow::~MainWindow() = default;

void MainWindow::connectParts() {
    connect(&session_, &Session::changed, this, &MainWindow::refreshStatus);
    connect(&session_, &Session::changed, this, &MainWindow::showPlace);
    connect(&session_, &Session::answered, this, &MainWindow::refreshStatus);
    connect(&floor_->canvas(), &FloorCanvas::pointerMoved, this,
            [this](double x, double y, const QString& value) {
                QString text =
                    tr("x %1  y %2 %3")
                        .arg(session_.number(x, units::Kind::Span), session_.number(y, units::Kind::Span),
                             session_.unit(units::Kind::Span));
                if (!value.isEmpty()) text += QStringLiteral("   ") + value;
                coordinates_->setText(text);
            });
    connect(floor_, &FloorPage::said, this, &MainWindow::say);
    connect(floor_, &FloorPage::marginWanted, this, [this] {
        auto keys = margin_->listed();
        if (!keys.empty() && !margin_->isOpen(keys.front())) margin_->open(keys.front());
        margin_->setFocus();
    });
    connect(&session_, &Session::fileChanged, this, &MainWindow::refreshTitle);
    connect(&session_, &Session::changed, this, &MainWindow::refreshTitle);
    connect(&session_, &Session::placeChanged, this, &MainWindow::showPlace);
    connect(&session_, &Session::refused, this, &MainWindow::say);
    connect(tray_, &Tray::refused, this, &MainWindow::say);
    connect(&bars_, &BarDesk::said, this, &MainWindow::say);
    connect(&scale_, &StripScale::changed, section_, qOverload<>(&QWidget::update));
    connect(section_, &LineSection::zoomed, this,
            [this](double factor, double at) { scale_.zoom(factor, at); });
    connect(section_, &LineSection::activated, plan_, &PlanView::activated);
    connect(tray_, &Tray::exportWanted, this, &MainWindow::exportAsked);
    connect(places_, &PlaceBar::standardWanted, this, &MainWindow::chooseStandard);
    connect(places_, &PlaceBar::slabWanted, this, &MainWindow::chooseSlab);
    connect(plan_, &PlanView::activated, this, [this] {
        auto keys = margin_->listed();
        if (!keys.empty() && !margin_->isOpen(keys.front())) margin_->open(keys.front());
        margin_->setFocus();
    });
    connect(plan_, &PlanView::pointerMoved, this, [this](double x, double y) {
        coordinates_->setText(tr("x %1  y %2 %3")
                                  .arg(session_.number(x, units::Kind::Span),
                                       session_.number(y, units::Kind::Span),
                                       session_.unit(units::Kind::Span)));
    });
    connect(&session_.undoStack(), &QUndoStack::indexChanged, this, [this] { notice_->hide(); });
}

void MainWindow::showPlace() {
    tray_->show(session_.place());
    // A floor has a page of its own; the basis of design is common to all.
    bool floor = session_.floor() != nullptr;
    margin_->setVisible(!floor || FloorPage::withMargin(session_.place()));
    if (floor && session_.place() != Place::Basis) tray_->hide();
    bool wasFloor = centre_->currentWidget() == floor_;
    centre_->setCurrentIndex(floor ? 2 : session_.place() == Place::Issue ? 1 : 0);
    if (floor && !wasFloor) floor_->canvas().fit(), floor_->canvas().setFocus();
}

void MainWindow::refreshStatus() {
    const auto& design = session_.design();
    if (!design.trouble.empty()) return status_->setText(qs(design.trouble.front().message));
    if (session_.floor()) {
        const auto* a = session_.floorAnalysis();
        if (session_.stale())
            return status_->setText(tr("Analysing, %1 %").arg(100 * session_.progress(), 0, 'f', 0));
        if (!a) return status_->setText(tr("Not analysed"));
        if (!a->trouble.empty()) return status_->setText(qs(a->trouble.front().message));
        double worst = 0;
        for (const auto& c : a->cases) worst = std::max(worst, c.imbalance);
        auto d = session_.floorDesign();
        QString checked = tr("not designed");
        if (d) {
            double off = 0;
            for (const auto& c : d->layout->coverage) off += c.uncovered + c.overlapped;
            checked = tr("%1 over, %2 within, %3 not checked · %4")
                          .arg(d->summary.over)
                          .arg(d->summary.within)
                          .arg(d->summary.notChecked)
                          .arg(off < 1e3 ? tr("every point in one strip each way")
                                         : tr("%1 m² in no strip or in two").arg(off / 1e6, 0, 'f', 2));
        }
        return status_->setText(
            tr("%1 · %2 · %3 combinations · reactions = loads to %4 · %5 to look at")
                .arg(a->reusedAll || a->stages.sum() == 0
                         ? tr("Answer kept")
                         : tr("Answered in %1 ms").arg(a->stages.sum() * 1000, 0, 'f', 0))
                .arg(checked)
                .arg(a->combinations.size())
                .arg(worst < 1e-9 ? QStringLiteral("1e-9") : QString::number(worst, 'g', 1))
                .arg(a->notes.size()));
    }
    if (!session_.slab()) return status_->setText(tr("No slab yet"));
    const auto* d = session_.slabDesign();
    if (!d) return status_->setText(tr("Answering…"));
    auto sum = design.summary();
    status_->setText(tr("Answered in %1 ms · %2 over, %3 within, %4 not checked · reactions = loads to %5 %")
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
    noticeText_->setText(sentence.trimmed());
    notice_->show();
}

bool MainWindow::openFile(const QString& path) {
    QString why = session_.open(path);
    if (!why.isEmpty()) {
        say(tr("%1 was not opened.\n%2").arg(path, why));
        return false;
    }
    notice_->hide();
    hint_->hide();
    remember(path);
    plan_->fit();
    return true;
}

void MainWindow::openDemo(bool withHint) {
    session_.start(formats::demoProject(), {});
    session_.setPlace(Place::Checks);
    plan_->fit();
    if (!withHint) return;
    hint_->setText(
        tr("This is the visitors' gallery of a ferry landing. Try:\n"
           "1  PageDown twice: the slab grows thinner and every check answers\n"
           "2  drag a bar end in the long section, or double-click a call-out\n"
           "3  click a span or a support, then a check, to read its working\n"
           "4  keys 1 to 7 are the places of work; Ctrl+Z takes anything back\n"
           "Esc puts this note away."));
    hint_->adjustSize();
    hint_->move(14, plan_->height() > 300 ? plan_->height() - hint_->height() - 40 : 8);
    hint_->show();
    hint_->raise();
}

void MainWindow::openFloorDemo() {
    session_.start(formats::demoFloorProject(), {});
    hint_->hide();
    floor_->canvas().fit();
}

bool MainWindow::save() {
    if (!session_.path().isEmpty()) return saveAs(session_.path());
    QString path =
        askSavePath(tr("Save"), qs(session_.project().name) + QStringLiteral(".talvik"), fileFilter());
    return !path.isEmpty() && saveAs(path);
}

bool MainWindow::saveAs(const QString& chosen) {
    QString path = QFileInfo(chosen).suffix().isEmpty() ? chosen + QStringLiteral(".talvik") : chosen;
    QString why = session_.save(path);
    if (!why.isEmpty()) {
        say(why);
        return false;
    }
    remember(path);
    return true;
}

bool MainWindow::mayLeave() {
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
    mayLeave() ? event->accept() : event->ignore();
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

void MainWindow::designThickness() {
    if (!session_.slab()) return;
    QProgressDialog progress(tr("Looking for the least thickness…"), tr("Stop"), 0, 1000, this);
    progress.setWindowModality(Qt::WindowModal);
    progress.setMinimumDuration(500);
    std::atomic<int> done{0};
    std::atomic<bool> stopped{false};
    const model::Project from = session_.base();
    auto found = std::async(std::launch::async, [&] {
        return design::designAll(from, [&](double share) {
            done = static_cast<int>(999 * share);
            return !stopped;
        });
    });
    while (found.wait_for(std::chrono::milliseconds(5)) != std::future_status::ready) {
        progress.setValue(done);
        QCoreApplication::processEvents();
        stopped = progress.wasCanceled();
    }
    progress.reset();
    session_.apply(tr("Find thickness and bars"), found.get());
}

void MainWindow::changeThickness(int steps) {
    const auto* slab = session_.slab();
    double step = session_.project().basis.units == units::System::Metric ? 10 : 12.7;
    if (session_.floor()) {  // the slabs selected, or all
        auto chosen = floor_->desk().selection();
        bool some = false;
        for (const auto& s : session_.floor()->slabs) some |= chosen.contains(s.id);
        floor_->desk().edit(
            tr("Thickness"),
            [&](model::Floor& f, model::Project&) {
                for (auto& s : f.slabs)
                    if (!some || chosen.contains(s.id))
                        s.thickness = (steps > 0 ? units::roundDown(s.thickness, step)
                                                 : units::roundUp(s.thickness, step)) +
                                      steps * step;
            },
            QStringLiteral("thickness"));
        return;
    }
    if (!slab) return;
    double h = (steps > 0 ? units::roundDown(slab->thickness, step) : units::roundUp(slab->thickness, step)) +
               steps * step;
    session_.apply(tr("Thickness"),
                   model::editSlab(session_.base(), slab->id,
                                   [&](model::OneWaySlab& s, model::Project&) { s.thickness = h; }),
                   QStringLiteral("thickness"));
}

void MainWindow::addSlab() {
    model::Project next =
        model::addSlab(session_.base(), "Slab " + std::to_string(session_.project().slabs.size() + 1));
    model::Id id = next.slabs.back()->id;
    if (session_.apply(tr("Add slab"), std::move(next))) {
        session_.setElement(id);
        session_.select(Spot::In::Whole);
        session_.setPlace(Place::Layout);
        plan_->fit();
    }
}

void MainWindow::addFloor() {
    model::Project next = session_.base();
    model::Id id = layout::addFloor(next, "Floor " + std::to_string(next.floors.size() + 1));
    if (session_.apply(tr("Add floor"), std::move(next))) {
        session_.setElement(id);
        session_.setPlace(Place::Layout);
        floor_->canvas().fit();
        floor_->canvas().setFocus();
    }
}

void MainWindow::chooseStandard(QPoint at) {
    QMenu menu(this);
    for (const auto& id : standards::standardIds()) {
        QAction* action = menu.addAction(qs(standards::standardTitle(id)), this, [this, id] {
            model::Project next = session_.base();
            if (next.basis.standard == id) return;
            next.basis.standard = id;
            next.basis.parameters.clear();
            session_.apply(tr("Standard"), std::move(next));
        });
        action->setCheckable(true);
        action->setChecked(session_.project().basis.standard == id);
    }
    menu.addSeparator();
    for (auto system : {units::System::Metric, units::System::UsCustomary}) {
        QAction* action = menu.addAction(
            system == units::System::Metric ? tr("Show metric units") : tr("Show US customary units"), this,
            [this, system] {
                model::Project next = session_.base();
                next.basis.units = system;
                session_.apply(tr("Units"), std::move(next));
            });
        action->setCheckable(true);
        action->setChecked(session_.project().basis.units == system);
    }
    menu.exec(at);
}

void MainWindow::chooseSlab(QPoint at) {
    QMenu menu(this);
    for (const auto& slab : session_.project().slabs) {
        model::Id id = slab->id;
        menu.addAction(qs(slab->name), this, [this, id] {
            session_.setElement(id);
            session_.select(Spot::In::Whole);
            plan_->fit();
        });
    }
    for (const auto& floor : session_.project().floors) {
        model::Id id = floor->id;
        menu.addAction(qs(floor->name), this, [this, id] {
            session_.setElement(id);
            floor_->canvas().fit();
        });
    }
    menu.addSeparator();
    menu.addAction(tr("Add slab"), this, &MainWindow::addSlab);
    menu.addAction(tr("Add floor"), this, &MainWindow::addFloor);
    if (const auto* f = session_.floor();
        f && session_.project().floors.size() + session_.project().slabs.size() > 1)
        menu.addAction(tr("Remove %1").arg(qs(f->name)), this, [this, id = f->id] {
            model::Project next = session_.base();
            std::erase_if(next.floors, [&](const auto& row) { return row->id == id; });
            session_.apply(tr("Remove floor"), std::move(next));
        });
    if (session_.slab() && session_.project().slabs.size() > 1)
        menu.addAction(tr("Remove %1").arg(qs(session_.slab()->name)), this, [this] {
            session_.apply(tr("Remove slab"), model::removeSlab(session_.base(), session_.slab()->id));
        });
    menu.exec(at);
}

// To a place in a part or an element, and to a check there.
void MainWindow::go(const model::Spot& spot, const std::string& check) {
    if (spot.part.element != session_.element()) session_.setElement(spot.part.element);
    if (session_.floor() && !FloorPage::withMargin(session_.place()))
        session_.setPlace(check.empty() ? Place::Strips : Place::Checks);
    if (spot.part.kind == model::PartKind::Whole)
        session_.select(std::nullopt);
    else
        session_.select(check.empty() ? spot : spot.whole());
    if (!check.empty()) {
        margin_->open(check);
        margin_->setFocus();
    } else {
        session_.floor() ? floor_->canvas().setFocus() : plan_->setFocus();
    }
}

void MainWindow::find() {
    std::vector<FindPalette::Entry> entries;
    for (auto& e : report::index(session_.design(), session_.element(), session_.project().basis.units))
        entries.push_back(
            {qs(e.text), qs(e.detail), [this, spot = e.spot, check = e.check] { go(spot, check); }});
    if (const auto* floor = session_.floor()) {
        auto place = [this](Place p, const model::Id& id) {
            session_.setPlace(p);
            floor_->desk().select({id});
            auto at = layout::handles(*session_.floor(), id);
            if (!at.empty()) floor_->canvas().centreOn(at.front());
            floor_->canvas().setFocus();
        };
        for (const auto& c : layout::crossings(*floor))
            entries.push_back({qs(layout::reference(*floor, c.at)), tr("grid crossing"), [this, c] {
                                   floor_->canvas().centreOn(c.at);
                                   floor_->canvas().setFocus();
                               }});
        model::eachMember(*floor, [&](const std::string&, const auto& m) {
            using T = std::decay_t<decltype(m)>;
            if constexpr (std::is_same_v<T, model::Grid> || std::is_same_v<T, model::Underlay> ||
                          std::is_same_v<T, model::PanelChoice> || std::is_same_v<T, model::CombinationRow> ||
                          std::is_same_v<T, model::LoadCase>)
                return;
            Place where = std::is_same_v<T, model::FloorLoad> ? Place::Actions : Place::Layout;
            entries.push_back(
                {qs(layout::displayName(*floor, m.id)), tr("on plan"), [=, id = m.id] { place(where, id); }});
        });
    }
    for (const auto& remedy : session_.remedies())
        entries.push_back({qs(remedy.text), tr("would make it pass"),
                           [this, remedy] { session_.apply(qs(remedy.text), remedy.project); }});
    const auto actions = menuBar()->findChildren<QAction*>();
    for (QAction* action : actions)
        if (!action->text().isEmpty() && !action->menu() && action->isEnabled())
            entries.push_back({QString(action->text()).remove(QLatin1Char('&')),
                               tr("command %1").arg(action->shortcut().toString()),
                               [action] { action->trigger(); }});
    auto* palette = new FindPalette(std::move(entries), this);
    palette->move(mapToGlobal(QPoint(width() / 2 - 230, 60)));
    palette->show();
}

void MainWindow::showHelp() {
    auto* dialog = new QDialog(this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(tr("How to work with Talvik"));
    auto* layout = new QVBoxLayout(dialog);
    auto* text = new QTextBrowser;
    text->setHtml(helpText());
    layout->addWidget(text);
    dialog->resize(640, 620);
    dialog->show();
}

void MainWindow::showBench() {
    if (!bench_) bench_ = new BenchWindow(session_, this);
    bench_->show();
    bench_->raise();
    bench_->activateWindow();
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
    if (event->key() >= Qt::Key_1 && event->key() <= Qt::Key_7 && event->modifiers() == Qt::NoModifier)
        return session_.setPlace(static_cast<Place>(event->key() - Qt::Key_0));
    if (event->key() == Qt::Key_Escape) {
        hint_->hide();
        notice_->hide();
        return;
    }
    QMainWindow::keyPressEvent(event);
}

}  // namespace talvik::app

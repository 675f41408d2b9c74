// What the window does by itself: elements, thickness, finding, standard.
#include <QCoreApplication>
#include <QDialog>
#include <QFileDialog>
#include <QMenu>
#include <QMenuBar>
#include <QProgressDialog>
#include <QTextBrowser>
#include <QVBoxLayout>
#include <atomic>
#include <future>

#include "bases/bases_view.h"
#include "bench/bench_window.h"
#include "board/floor_canvas.h"
#include "design/economy.h"
#include "formats/column_loads.h"
#include "formats/file.h"
#include "help/help_window.h"
#include "layout/placing.h"
#include "margin/margin_view.h"
#include "model/edits.h"
#include "plan/plan_view.h"
#include "report/index.h"
#include "strips/strip_desk.h"
#include "strips/strip_edits.h"
#include "sweep/sweep_window.h"
#include "widgets/text.h"
#include "window/element_list.h"
#include "window/find_palette.h"
#include "window/main_window.h"

namespace talvik::app {

void MainWindow::designThickness() {
    if (!session_.slab()) return;
    QProgressDialog progress(tr("Looking for the minimum thickness…"), tr("Stop"), 0, 1000, this);
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

void MainWindow::economicalBars() {
    if (!session_.answer() || !session_.answer()->error.empty() || session_.stale())
        return say(tr("There are no bars to choose among yet."));
    QProgressDialog progress(tr("Looking for cheaper bars…"), tr("Stop"), 0, 1000, this);
    progress.setWindowModality(Qt::WindowModal);
    progress.setMinimumDuration(500);
    std::atomic<int> done{0};
    std::stop_source stop;
    const model::Project from = session_.base();
    const model::Id element = session_.element();
    auto search = std::async(std::launch::async, [&] {
        return design::economicalLayout(from, element, stop.get_token(),
                                        [&](double share) { done = static_cast<int>(999 * share); });
    });
    while (search.wait_for(std::chrono::milliseconds(5)) != std::future_status::ready) {
        progress.setValue(done);
        QCoreApplication::processEvents();
        if (progress.wasCanceled()) stop.request_stop();
    }
    progress.reset();
    auto found = search.get();
    if (found.stopped) return say(tr("Stopped: the bars are unchanged."));
    if (found.changed == 0)
        return say(tr("%1 layouts were tried; none costs less than the present bars.").arg(found.tried));
    const auto &a = found.before, &b = found.after;
    const QString money = qs(session_.project().basis.rates.currency);
    session_.apply(tr("Optimise reinforcement"), std::move(found.project));
    say(tr("%1 bar sets changed and fixed: steel %2 → %3, offcuts %4 → %5, bar marks %6 → %7, number of bars "
           "%8 → %9; %10 %11 less. %12 layouts were tried.")
            .arg(found.changed)
            .arg(session_.text(a.steel, units::Kind::Mass), session_.text(b.steel, units::Kind::Mass),
                 session_.text(a.waste, units::Kind::Mass), session_.text(b.waste, units::Kind::Mass))
            .arg(a.marks)
            .arg(b.marks)
            .arg(a.pieces)
            .arg(b.pieces)
            .arg(qs(units::plain(std::round(a.price - b.price), 6)), money)
            .arg(found.tried));
}

void MainWindow::changeThickness(int steps) {
    const auto* slab = session_.slab();
    double step = session_.project().basis.units == units::System::Metric ? 10 : 12.7;
    auto stepped = [&](double h) {
        return (steps > 0 ? units::roundDown(h, step) : units::roundUp(h, step)) + steps * step;
    };
    if (session_.floor()) {  // the slabs selected, or all
        auto chosen = desk_->selection();
        bool some = false;
        for (const auto& s : session_.floor()->slabs) some |= chosen.contains(s.id);
        desk_->edit(
            tr("Thickness"),
            [&](model::Floor& f, model::Project&) {
                for (auto& s : f.slabs)
                    if (!some || chosen.contains(s.id)) s.thickness = stepped(s.thickness);
            },
            QStringLiteral("thickness"));
        return;
    }
    if (!slab) return;
    session_.apply(
        tr("Thickness"),
        model::editSlab(session_.base(), slab->id,
                        [&](model::OneWaySlab& s, model::Project&) { s.thickness = stepped(s.thickness); }),
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
        fit();
    }
}

void MainWindow::addFloor() {
    model::Project next = session_.base();
    model::Id id = layout::addFloor(next, "Floor " + std::to_string(next.floors.size() + 1));
    if (session_.apply(tr("Add floor"), std::move(next))) {
        session_.setElement(id);
        session_.setPlace(Place::Layout);
        fit();
        picture().setFocus();
    }
}

void MainWindow::addBases() {
    const QString path = askOpenPath(tr("Columns with their loads"), tr("Tables (*.csv *.txt)"));
    if (path.isEmpty()) return;
    importBases(path);
}

QString MainWindow::importBases(const QString& path) {
    const auto file = formats::readTable(path.toStdString());
    if (!file.error.empty()) {
        say(qs(file.error));
        return qs(file.error);
    }
    return importLoads(file.text);
}

// Cells of a spreadsheet, with tabs between them.
QString MainWindow::pasteBases(const QString& cells) {
    return importLoads(cells.toStdString());
}

QString MainWindow::importLoads(const std::string& csv) {
    model::Project next = session_.base();
    auto read = formats::readColumnLoads(csv, {}, next);
    if (!read.error.empty()) {
        say(qs(read.error));
        return qs(read.error);
    }
    QString said;
    // Into the set in hand where that has no columns yet, else into one of its own.
    model::Id id;
    if (const auto* set = session_.bases(); set && set->columns.empty()) {
        id = set->id;
        next = model::editBases(next, id, [&](model::BaseSet& s, model::Project&) {
            s.cases = read.set.cases, s.columns = read.set.columns, s.bases = read.set.bases;
        });
    } else {
        auto made = std::make_shared<model::BaseSet>(std::move(read.set));
        id = made->id = model::newId(next, 'f');
        made->name = tr("Bases %1").arg(next.bases.size() + 1).toStdString();
        const auto fresh = model::newBaseSet(next, made->name, made->kind);
        made->bars = fresh->bars;
        made->planStep = fresh->planStep, made->depthStep = fresh->depthStep,
        made->leastDepth = fresh->leastDepth;
        made->ground = fresh->ground, made->pile = fresh->pile, made->outline = fresh->outline;
        next.bases.push_back(std::move(made));
    }
    if (!session_.apply(tr("Columns with their loads"), std::move(next))) return tr("refused");
    session_.setElement(id);
    session_.setPlace(Place::Checks);
    fit();
    for (std::size_t i = 0; i < read.keptOut.size() && i < 6; ++i)
        said += qs(read.keptOut[i]) + QLatin1Char('\n');
    if (read.keptOut.size() > 6) said += tr("and %1 more\n").arg(read.keptOut.size() - 6);
    for (const auto& n : read.notes) said += qs(n) + QLatin1Char('\n');
    if (!said.isEmpty()) say(tr("Rows not imported:\n%1").arg(said));
    return {};
}

void MainWindow::openAsked() {
    if (!mayLeave()) return;
    if (QString path = QFileDialog::getOpenFileName(this, tr("Open"), {}, fileFilter()); !path.isEmpty())
        openFile(path);
}

void MainWindow::addEmptyBases(model::BaseSet::Kind kind) {
    model::Project next = session_.base();
    const QString name = kind == model::BaseSet::Kind::Caps ? tr("Pile caps %1") : tr("Bases %1");
    auto set = model::newBaseSet(next, name.arg(next.bases.size() + 1).toStdString(), kind);
    set->id = model::newId(next, 'f');
    const model::Id id = set->id;
    next.bases.push_back(std::move(set));
    if (session_.apply(tr("Add bases"), std::move(next))) {
        session_.setElement(id);
        session_.setPlace(Place::Layout);
        fit();
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

void MainWindow::chooseElement(QPoint at) {
    auto* list = new ElementList(session_, this);
    connect(list, &ElementList::chosen, this, &MainWindow::showElement);
    connect(list, &ElementList::slabWanted, this, &MainWindow::addSlab);
    connect(list, &ElementList::floorWanted, this, &MainWindow::addFloor);
    connect(list, &ElementList::removed, this, &MainWindow::sayRemoved);
    list->move(at);
    list->show();
}

void MainWindow::showElement(const model::Id& id) {
    session_.setElement(id);
    if (session_.slab()) session_.select(Spot::In::Whole);
    fit();
}

void MainWindow::walkElements(int by) {
    std::vector<model::Id> all;
    for (const auto& s : session_.project().slabs) all.push_back(s->id);
    for (const auto& f : session_.project().floors) all.push_back(f->id);
    for (const auto& b : session_.project().bases) all.push_back(b->id);
    const auto at = std::find(all.begin(), all.end(), session_.element()) - all.begin();
    const auto count = std::ptrdiff_t(all.size());
    if (count > 1) showElement(all[std::size_t((at + by + count) % count)]);
}

// To a place in a part or an element, and to a check there.
void MainWindow::go(const model::Spot& spot, const std::string& check) {
    if (spot.part.element != session_.element()) session_.setElement(spot.part.element);
    const bool connection = spot.part.kind == model::PartKind::Connection;
    if (session_.place() < Place::Strips || session_.place() > Place::Bars ||
        (connection && session_.place() == Place::Strips))
        session_.setPlace(check.empty() && !connection ? Place::Strips : Place::Checks);
    if (spot.part.kind == model::PartKind::Whole)
        session_.select(std::nullopt);
    else
        session_.select(check.empty() ? spot : spot.whole());
    if (!check.empty()) {
        margin_->open(check);
        margin_->setFocus();
    } else {
        picture().setFocus();
    }
}

void MainWindow::goToMember(const model::Id& id) {
    const auto& loads = session_.floor()->actions.loads;
    const bool load = std::any_of(loads.begin(), loads.end(), [&](const auto& l) { return l.id == id; });
    session_.setPlace(load ? Place::Actions : Place::Layout);
    desk_->select({id});
    auto at = layout::handles(*session_.floor(), id);
    if (!at.empty()) canvas_->centreOn(at.front());
    canvas_->setFocus();
}

// Members, marks and places first, then commands, then checks; what is named exactly so comes before all.
void MainWindow::find() {
    std::vector<FindPalette::Entry> entries;
    const auto index = report::index(session_.design(), session_.element(), session_.project().basis.units);
    auto indexed = [&](bool checks) {
        for (const auto& e : index)
            if (e.check.empty() != checks)
                entries.push_back({qs(e.text), qs(e.detail),
                                   [this, spot = e.spot, check = e.check] { go(spot, check); }, checks});
    };
    if (const auto* floor = session_.floor()) {
        const auto names = layout::displayNames(*floor);
        model::eachMember(*floor, [&](const std::string&, const auto& m) {
            using T = std::decay_t<decltype(m)>;
            if constexpr (!std::is_same_v<T, model::Grid> && !std::is_same_v<T, model::Underlay> &&
                          !std::is_same_v<T, model::PanelChoice> && !std::is_same_v<T, model::Camber> &&
                          !std::is_same_v<T, model::CombinationRow> && !std::is_same_v<T, model::LoadCase>)
                entries.push_back({qs(names.at(m.id)), tr("on plan"), [this, id = m.id] { goToMember(id); }});
        });
        for (const auto& c : layout::crossings(*floor))
            entries.push_back({qs(layout::reference(*floor, c.at)), tr("grid crossing"), [this, c] {
                                   canvas_->centreOn(c.at);
                                   canvas_->setFocus();
                               }});
    }
    indexed(false);
    for (const auto& remedy : session_.remedies())
        entries.push_back({qs(remedy.text), tr("suggested change"),
                           [this, remedy] { session_.apply(qs(remedy.text), remedy.project); }});
    const auto actions = menuBar()->findChildren<QAction*>();
    for (QAction* action : actions)
        if (!action->text().isEmpty() && !action->menu() && action->isEnabled())
            entries.push_back({QString(action->text()).remove(QLatin1Char('&')),
                               tr("command %1").arg(action->shortcut().toString()),
                               [action] { action->trigger(); }});
    indexed(true);
    auto* palette = new FindPalette(std::move(entries), this);
    palette->move(mapToGlobal(QPoint(width() / 2 - 230, 60)));
    palette->show();
}

// The guide at the page of what is in hand.
void MainWindow::showHelp() {
    if (!help_) help_ = new HelpWindow(this);
    const Place place = session_.place();
    static constexpr const char* pages[] = {"basis",  "layout", "actions", "strips",
                                            "checks", "bars",   "issue"};
    QString page = QLatin1String(pages[int(place) - 1]);
    if (session_.bases() && (place == Place::Layout || place == Place::Actions))
        page = QStringLiteral("foundations");
    if (place == Place::Checks && connections_->inHand()) page = QStringLiteral("punching");
    help_->open(page);
    help_->show();
    help_->raise();
    help_->activateWindow();
}

void MainWindow::showBench() {
    if (!bench_) bench_ = new BenchWindow(session_, this);
    bench_->show();
    bench_->raise();
    bench_->activateWindow();
}

void MainWindow::showSweep() {
    if (!session_.floor()) return say(tr("Thicknesses are compared for a floor; none is selected."));
    if (!sweep_) sweep_ = new SweepWindow(session_, this);
    sweep_->show();
    sweep_->raise();
    sweep_->activateWindow();
}

void MainWindow::chooseEnd(std::size_t span, int side, QPoint at) {
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

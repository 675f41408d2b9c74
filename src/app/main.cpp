// The desktop application. --picture FILE paints the window to a PNG and ends; it needs no display with
// QT_QPA_PLATFORM=offscreen.
#include <sys/socket.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <QApplication>
#include <QComboBox>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QSettings>
#include <QSocketNotifier>
#include <clocale>
#include <csignal>
#include <cstdio>

#include "bases/base_pane.h"
#include "bench/bench_window.h"
#include "board/floor_canvas.h"
#include "document/keeper.h"
#include "margin/margin_view.h"
#include "register/register.h"
#include "sweep/sweep_window.h"
#include "tray/tray.h"
#include "widgets/theme.h"
#include "window/main_window.h"

namespace {

int told[2];

// A signal to end, or the end of the desktop's session: what is not saved is kept first. The window is not
// closed, which would take that away again.
void ends(talvik::app::MainWindow& window) {
    QObject::connect(
        qApp, &QGuiApplication::commitDataRequest, &window, [&window] { window.keeper().flush(); },
        Qt::DirectConnection);
    if (socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, told) != 0) return;
    auto* notifier = new QSocketNotifier(told[1], QSocketNotifier::Read, &window);
    QObject::connect(notifier, &QSocketNotifier::activated, &window, [&window] {
        window.keeper().flush();
        QCoreApplication::exit(0);
    });
    struct sigaction action {};
    action.sa_handler = [](int) {
        const char one = 1;
        [[maybe_unused]] const auto n = write(told[0], &one, 1);
    };
    action.sa_flags = SA_RESTART;
    for (int signal : {SIGTERM, SIGINT, SIGHUP}) sigaction(signal, &action, nullptr);
}

}  // namespace

int main(int argc, char** argv) {
    CLI::App options{"Talvik: design of reinforced concrete slabs and foundations", "talvik-desktop"};
    std::string file, picture, size = "1280x800", select, openCheck, shade = "desktop";
    int bench = 0, place = 0, field = -1, page = -1, near = 0;
    bool demo = false, timing = false, sweep = false, start = false;
    options.add_option("FILE", file, "Project to open");
    options.add_flag("--demo", demo, "Open the demo");
    options.add_flag("--start", start, "Picture of the start page instead");
    options.add_option("--picture", picture, "Paint the window to this PNG file and end");
    options.add_option("--size", size, "Size of the picture, such as 1280x800");
    options.add_option("--place", place, "Place of work to show, 1 to 7")->check(CLI::Range(1, 7));
    options.add_option("--select", select,
                       "strip, or the id of a span, support, run or member of a floor, or a strip of one");
    options.add_option("--bench", bench,
                       "Picture of the panel bench instead: 1 section, 2 one-way, 3 two-way");
    options.add_flag("--sweep", sweep, "Picture of the economical slab of the floor instead");
    options.add_option("--open", openCheck, "Open the working of the first check whose key holds this");
    options
        .add_option("--field", field,
                    "Of a floor: 0 deflection, 1 mx, 2 my, 3 mxy, 4 qx, 5 qy, 6 pressure, 7 to 10 required "
                    "steel, 11 to 14 required/provided, 15 shear utilisation, 16 shear stress, 17 long-term "
                    "deflection, 18 deflection after partitions, 19 none")
        ->check(CLI::Range(0, 19));
    options
        .add_option("--register", page,
                    "What is shown below the plan: 0 long section or detail, 1 panels, 2 cases, 3 "
                    "combinations, 4 supports, 5 analysis, 6 connections; of bases 0, 1 sections along x and "
                    "y, 2 cage, 3 sizes, 4 types")
        ->check(CLI::Range(0, 6));
    options.add_option("--near", near,
                       "Of a floor: millimetres of plan across the picture, about what is selected");
    options.add_option("--shade", shade, "light, dark, or desktop to follow it")
        ->check(CLI::IsMember({"light", "dark", "desktop"}));
    options.add_flag("--time-to-plan", timing,
                     "Print the milliseconds from start to the first painted plan and end");
    QElapsedTimer clock;
    clock.start();
    QApplication application(argc, argv);
    std::setlocale(LC_NUMERIC, "C");  // Qt takes the desktop's; files and fields keep the decimal point
    QCoreApplication::setOrganizationName(QStringLiteral("Talvik"));
    QCoreApplication::setApplicationName(QStringLiteral("Talvik"));
    CLI11_PARSE(options, argc, argv);
    using namespace talvik::app;
    applyTheme(application, shade == "dark"    ? Lightness::Dark
                            : shade == "light" ? Lightness::Light
                                               : Lightness::Desktop);

    MainWindow window;
    int w = 1280, h = 800;
    std::sscanf(size.c_str(), "%dx%d", &w, &h);
    window.resize(w, h);
    window.show();
    if (!file.empty()) {
        if (!window.openFile(QString::fromStdString(file), picture.empty()) && !picture.empty()) return 2;
    } else if (demo || (!picture.empty() && !start) || timing) {
        window.openDemo(picture.empty());
    } else {
        window.startEmpty();
    }
    if (place) window.session().setPlace(static_cast<Place>(place));
    // Answers come from the background.
    auto waitWhile = [](auto condition, int milliseconds) {
        QElapsedTimer patience;
        patience.start();
        while (condition() && patience.elapsed() < milliseconds)
            QApplication::processEvents(QEventLoop::AllEvents, 20);
    };
    auto& session = window.session();
    auto unfinished = [&] { return session.stale() || (session.answer() && !session.answer()->complete); };
    if (!picture.empty() || timing) waitWhile([&] { return session.slab() ? session.stale() : false; }, 5000);
    if (!select.empty() && session.slab()) {
        if (select == "none") session.select(std::nullopt);
        if (const auto* line = session.line()) {
            for (const auto& s : line->view().line.spans)
                if (s.id == select) session.select(Spot::In::Span, select);
            for (const auto& s : line->view().line.supports)
                if (s.id == select) session.select(Spot::In::Support, select);
            if (window.bars().find(select)) session.select(Spot::In::Run, select);
        }
    }
    if (!select.empty() && session.bases()) {  // a base, by the name of its columns
        waitWhile([&] { return session.stale(); }, 20000);
        for (const auto& b : session.bases()->bases)
            if (talvik::model::baseName(*session.bases(), b) == select)
                session.select(
                    Spot{{session.element(), talvik::model::PartKind::Base, b.id}, Spot::In::Whole, {}});
    }
    if (session.bases() && page >= 0) {
        auto& pane = window.below().basePane();
        pane.show(static_cast<BasePane::Shows>(std::min(page, 4)));
        waitWhile([&] { return pane.seeking(); }, 10000);
    }
    if (!select.empty() && window.session().floor()) window.desk().select({select});
    for (const auto& key : window.margin().listed())
        if (!openCheck.empty() && key.find(openCheck) != std::string::npos) {
            window.margin().open(key);
            break;
        }
    QApplication::processEvents();
    // What would make it pass is sought a moment after.
    auto unsought = [&] {
        return session.answer() && session.answer()->summary.over > 0 && !session.sought();
    };
    if (!picture.empty()) waitWhile(unfinished, 20000), waitWhile(unsought, 20000);
    if (!picture.empty() && session.floor()) {
        waitWhile([&] { return window.desk().reading(); }, 10000);
        window.canvas().fit();
        auto& strips = window.strips();
        if (const auto* l = strips.layout(); l && session.place() >= Place::Strips)
            for (const auto& s : l->strips)
                if (s.name == select || s.key == select) strips.select(s.key);
        if (const auto d = session.floorDesign(); d && session.place() >= Place::Checks)
            if (const auto* c = d->connection(select)) {
                session.select(Spot{c->part, Spot::In::Whole, {}});
                if (near > 0) window.canvas().show(c->place.middle, near);
                waitWhile([&] { return c->worst() > 1 && !session.sought(); }, 60000);
            }
        if (page >= 0) window.below().show(static_cast<Register::Page>(page));
        for (const auto& key : window.margin().listed())
            if (!openCheck.empty() && key.find(openCheck) != std::string::npos) {
                window.margin().open(key);
                break;
            }
        if (field >= 0) window.tray().fields().setCurrentIndex(field);
        QApplication::processEvents();
    }
    if (timing) {
        window.grab();
        std::printf("%.1f\n", static_cast<double>(clock.nsecsElapsed()) / 1e6);
        return 0;
    }
    if (!picture.empty() && bench > 0) {
        window.showBench();
        auto input = window.bench()->input();
        input.kind = static_cast<talvik::opinions::BenchInput::Kind>(std::clamp(bench, 1, 3) - 1);
        window.bench()->setInput(input);
        QApplication::processEvents();
        return window.bench()->grab().save(QString::fromStdString(picture)) ? 0 : 3;
    }
    if (!picture.empty() && sweep) {
        window.showSweep();
        if (!window.sweep()) return 2;
        window.sweep()->start();
        waitWhile([&] { return window.sweep()->running(); }, 120000);
        window.sweep()->resize(w, h);
        window.sweep()->pointAtLeast();
        QApplication::processEvents();
        return window.sweep()->grab().save(QString::fromStdString(picture)) ? 0 : 3;
    }
    if (!picture.empty()) {
        waitWhile([] { return true; }, 60);  // until all has its place
        if (!window.grab().save(QString::fromStdString(picture))) {
            std::fprintf(stderr, "%s cannot be written; is its folder there and writable?\n",
                         picture.c_str());
            return 3;
        }
        return 0;
    }
    // Of a run that did not end as usual; and that this one may be told to end at any time.
    if (file.empty()) window.offerKept();
    ends(window);
    return QApplication::exec();
}

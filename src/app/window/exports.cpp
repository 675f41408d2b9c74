// What leaves the window: files and prints.
#include <QBuffer>
#include <QCoreApplication>
#include <QDialog>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>
#include <QProgressDialog>
#include <QSvgGenerator>
#include <QTextBrowser>
#include <QVBoxLayout>
#include <atomic>
#include <future>

#include "drawing/sheets.h"
#include "formats/bending_data.h"
#include "formats/comparison.h"
#include "formats/dxf.h"
#include "formats/file.h"
#include "formats/ifc.h"
#include "formats/project_file.h"
#include "formats/tables.h"
#include "paper/issue_set.h"
#include "report/quantities_page.h"
#include "widgets/text.h"
#include "window/main_window.h"

namespace talvik::app {

QStringList MainWindow::exportFiles(const QString& what, const QString& stem) {
    const bool issue = what == QLatin1String("issue");
    std::optional<report::Convergences> further;
    if (issue || what == QLatin1String("report")) {
        further = convergences();  // and what is still being worked out
        if (!further) return {};
    }
    const auto* element = session_.answer();
    if (!element || !element->error.empty() || session_.stale()) {
        say(element && session_.stale() ? tr("It is still being calculated; try again when it is finished.")
                                        : tr("There is nothing designed to write out yet."));
        return {};
    }
    session_.issueMarks();
    element = session_.answer();
    if (issue) return issueInto(stem, *further);
    QStringList written;
    bool good = true;
    auto put = [&](const QString& suffix, auto write) {
        if (!good) return;
        std::string path = (stem + suffix).toStdString();
        std::string why = write(path);
        good = why.empty();
        good ? written << qs(path) : (say(qs(why)), written);
    };
    if (what == QLatin1String("drawing")) {
        const auto sheets = drawing::sheets(session_.project(), session_.design(), *element);
        auto number = [&](std::size_t i) {
            return sheets.size() > 1 ? QStringLiteral("-%1").arg(i + 1) : QString();
        };
        put(".pdf", [&](const std::string& p) { return paper::writePdf(p, sheets); });
        for (std::size_t i = 0; i < sheets.size(); ++i) {
            put(number(i) + ".dxf", [&](const std::string& p) { return formats::writeDxf(p, sheets[i]); });
            put(number(i) + ".svg", [&](const std::string& p) { return paper::writeSvg(p, sheets[i]); });
        }
    }
    if (what == QLatin1String("schedule")) {
        put("-schedule.csv", [&](const std::string& p) {
            return formats::writeFile(p, formats::scheduleCsv(session_.project(), session_.design()));
        });
        put("-bending.abs", [&](const std::string& p) {
            return formats::writeFile(p, formats::bendingData(session_.project(), session_.design()));
        });
        put("-model.ifc", [&](const std::string& p) {
            return formats::writeFile(p, formats::ifcText(session_.project(), session_.design()));
        });
        for (const auto& [suffix, page] :
             {std::pair("-quantities.pdf", report::quantitiesPage(session_.project(), session_.design())),
              {"-cutting.pdf", report::cuttingPage(session_.project(), session_.design())}})
            put(suffix, [&](const std::string& p) { return paper::writeReportPdf(p, page); });
        put("-schedule.xlsx", [&](const std::string& p) {
            return formats::writeScheduleXlsx(p, session_.project(), session_.design());
        });
    }
    if (further) {
        auto document = report::make(session_.project(), session_.design(), report::Depth::Full, *further);
        put("-report.html", [&](const std::string& p) {
            return formats::writeFile(p, report::html(document, report::Target::Page));
        });
        put("-report.odt", [&](const std::string& p) { return paper::writeReportOdt(p, document); });
        QProgressDialog progress(tr("Writing the report…"), tr("Stop"), 0, 100, this);
        progress.setWindowModality(Qt::WindowModal);
        progress.setMinimumDuration(500);
        put("-report.pdf", [&](const std::string& p) {
            return paper::writeReportPdf(p, document, [&](double share) { return shown(progress, share); });
        });
    }
    return good ? written : QStringList();
}

bool MainWindow::shown(QProgressDialog& progress, double share) {
    progress.setValue(int(100 * share));
    QCoreApplication::processEvents();
    return !progress.wasCanceled();
}

QStringList MainWindow::issueInto(const QString& folder, const report::Convergences& further) {
    QProgressDialog progress(tr("Writing the issue set…"), tr("Stop"), 0, 100, this);
    progress.setWindowModality(Qt::WindowModal);
    progress.setMinimumDuration(500);
    const auto project = session_.project();
    const auto design = session_.sharedDesign();
    const auto set = paper::writeIssueSet(folder.toStdString(), project, *design, further,
                                          [&](double share) { return shown(progress, share); });
    progress.reset();
    if (!set.why.empty()) say(qs(set.why));
    QStringList written;
    for (const auto& path : set.written) written << qs(path);
    return written;
}

// What differs between a file and the project in hand, to read.
QString MainWindow::compareWith(const QString& path) {
    const auto read = formats::openProject(path.toStdString());
    if (!read.trouble.empty()) return qs(formats::sentences(read.trouble));
    if (session_.stale()) return tr("It is still being calculated; try again when it is finished.");
    QProgressDialog progress(tr("Designing the other project…"), QString(), 0, 0, this);
    progress.setWindowModality(Qt::WindowModal);
    progress.setMinimumDuration(500);
    auto run = std::async(std::launch::async, [&] { return design::run(read.project, {.trace = false}); });
    while (run.wait_for(std::chrono::milliseconds(10)) != std::future_status::ready) {
        progress.setValue(0);
        QCoreApplication::processEvents();
    }
    const auto before = run.get();
    progress.reset();
    const auto page = formats::comparisonPage(
        formats::compare(read.project, before, session_.project(), session_.design()), path.toStdString(),
        session_.path().isEmpty() ? tr("the open project").toStdString() : session_.path().toStdString(),
        session_.project().basis.units);
    auto* dialog = new QDialog(this);
    dialog->setObjectName(QStringLiteral("comparison"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(tr("Comparison"));
    auto* text = new QTextBrowser;
    text->setHtml(qs(report::html(page, report::Target::Flow)));
    auto* column = new QVBoxLayout(dialog);
    column->addWidget(text);
    dialog->resize(860, 640);
    dialog->show();
    return {};
}

// Floors on half the size and what is still being worked out, in the background behind a bar that can be
// stopped.
std::optional<report::Convergences> MainWindow::convergences() {
    const auto& project = session_.project();
    const int count = static_cast<int>(project.floors.size());
    report::Convergences all;
    if (count == 0) return all;
    session_.resumeAnswers();  // what was stopped would be waited for without end
    QProgressDialog progress(tr("Analysing floors for the report…"), tr("Stop"), 0, count + 1, this);
    progress.setWindowModality(Qt::WindowModal);
    progress.setMinimumDuration(500);
    std::atomic<int> done{0};
    std::stop_source stop;
    auto run = std::async(std::launch::async, [&, project] {
        for (std::size_t i = 0; i < project.floors.size() && !stop.stop_requested(); ++i, ++done)
            all[project.floors[i]->id] = design::convergence(project, i, stop.get_token());
    });
    auto unfinished = [&] {
        const auto& elements = session_.design().elements;
        return session_.stale() ||
               elements.size() != project.floors.size() + project.slabs.size() + project.bases.size() ||
               std::any_of(elements.begin(), elements.end(), [](const auto& e) { return !e->complete; });
    };
    while (run.wait_for(std::chrono::milliseconds(10)) != std::future_status::ready || unfinished()) {
        progress.setValue(done);
        QCoreApplication::processEvents();
        if (progress.wasCanceled()) stop.request_stop();
        if (stop.stop_requested()) break;
    }
    run.get();
    progress.reset();
    return stop.stop_requested() ? std::nullopt : std::optional(std::move(all));
}

void MainWindow::exportAsked(const QString& what) {
    if (what == QLatin1String("print")) return print();
    QString suggestion = qs(session_.slab() ? session_.slab()->name : session_.project().name)
                             .toLower()
                             .remove(QLatin1Char('\''))
                             .replace(QLatin1Char(' '), QLatin1Char('-'));
    const bool issue = what == QLatin1String("issue");
    QString path = issue ? askFolder(tr("Folder for the issue set"))
                         : askSavePath(tr("Name of the files, without ending"), suggestion, {});
    if (path.isEmpty()) return;
    QStringList written = exportFiles(what, path);
    if (written.isEmpty()) return;
    say(issue ? tr("%1 files are written into %2.").arg(written.size()).arg(path)
              : tr("Written: %1").arg(written.join(QStringLiteral(", "))));
}

bool MainWindow::savePicture(QWidget& part, const QString& path) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    if (path.endsWith(QLatin1String(".svg"), Qt::CaseInsensitive)) {
        QSvgGenerator svg;
        svg.setOutputDevice(&buffer);
        svg.setSize(part.size());
        svg.setViewBox(part.rect());
        part.render(&svg);
    } else if (path.endsWith(QLatin1String(".png"), Qt::CaseInsensitive)) {
        part.grab().save(&buffer, "PNG");
    } else {
        say(tr("%1: a picture ends in .svg or .png.").arg(path));
        return false;
    }
    std::string why =
        formats::writeFile(path.toStdString(), {bytes.constData(), static_cast<std::size_t>(bytes.size())});
    if (!why.empty()) say(qs(why));
    return why.empty();
}

void MainWindow::print() {
    if (!session_.answer() || !session_.answer()->error.empty())
        return say(tr("There is nothing designed to print yet."));
    session_.issueMarks();
    const auto sheets = drawing::sheets(session_.project(), session_.design(), *session_.answer());
    QPrinter printer(QPrinter::HighResolution);
    printer.setPageOrientation(QPageLayout::Landscape);
    printer.setPageSize(QPageSize(QPageSize::A2));
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() != QDialog::Accepted) return;
    QPainter p(&printer);
    QRectF page = printer.pageRect(QPrinter::DevicePixel);
    for (std::size_t i = 0; i < sheets.size(); ++i) {
        if (i > 0) printer.newPage();
        const double scale = std::min(page.width() / sheets[i].width, page.height() / sheets[i].height);
        p.resetTransform();
        p.scale(scale, scale);
        paper::paint(p, sheets[i]);
    }
}

}  // namespace talvik::app

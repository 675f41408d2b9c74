// A window that is killed at any moment during editing: at most two seconds of work are lost, and no file is
// ever broken. TALVIK_KILLS says how many times; TALVIK_SEED where the random numbers begin.
#include <signal.h>

#include <QDateTime>
#include <QElapsedTimer>
#include <QFile>
#include <QProcess>
#include <QUndoStack>
#include <map>
#include <random>

#include "document/keeper.h"
#include "open_window.h"

namespace talvik::app {

namespace {

qint64 now() {
    return QDateTime::currentMSecsSinceEpoch();
}

}  // namespace

// What is killed: edits without end, each written to a log with its time once it is made; now and then saved,
// undone or given up by opening the file again.
class KillVictim : public OpenWindow {};
TEST_F(KillVictim, DISABLED_EditsWithoutEnd) {
    const QString file = qEnvironmentVariable("TALVIK_VICTIM"), log = file + QStringLiteral(".log");
    std::mt19937 random(qEnvironmentVariable("TALVIK_SEED").toUInt());
    window.askRecover = [](const QString&) { return MainWindow::Recover::Take; };
    ASSERT_TRUE(window.openFile(file));
    QFile out(log);
    ASSERT_TRUE(out.open(QIODevice::WriteOnly | QIODevice::Append | QIODevice::Unbuffered));
    auto note = [&] {
        out.write(QByteArray::number(now()) + " " + QByteArray::number(session().slab()->thickness) + "\n");
    };
    note();
    QElapsedTimer life;
    life.start();
    while (life.elapsed() < 60000) {
        const auto what = random() % 20;
        if (what == 0) {
            window.save();
        } else if (what == 1) {
            session().undoStack().undo();
            note();
        } else {
            const double h = 150 + double(random() % 400);
            session().apply(QStringLiteral("thickness"),
                            model::editSlab(session().base(), session().slab()->id,
                                            [&](auto& s, auto&) { s.thickness = h; }));
            note();
        }
        QTest::qWait(int(random() % 120));
    }
}

class Kills : public ::testing::Test {};
TEST_F(Kills, LoseAtMostTwoSecondsAndBreakNothing) {
    const int kills = std::max(4, qEnvironmentVariable("TALVIK_KILLS").toInt());
    unsigned seed = qEnvironmentVariable("TALVIK_SEED").toUInt();
    if (seed == 0) seed = 1;
    std::mt19937 random(seed);
    QTemporaryDir folder;
    const QString file = folder.filePath(QStringLiteral("work.talvik"));
    ASSERT_EQ(formats::saveProject(file.toStdString(), formats::demoProject()), "");
    const std::string kept = folder.filePath(QStringLiteral(".work.talvik.talvik-kept")).toStdString();
    qint64 worst = 0;
    for (int k = 0; k < kills; ++k) {
        QFile::remove(file + QStringLiteral(".log"));
        QProcess victim;
        auto environment = QProcessEnvironment::systemEnvironment();
        environment.insert(QStringLiteral("TALVIK_VICTIM"), file);
        environment.insert(QStringLiteral("TALVIK_SEED"), QString::number(random()));
        victim.setProcessEnvironment(environment);
        victim.setStandardOutputFile(QProcess::nullDevice());
        victim.setStandardErrorFile(QProcess::nullDevice());
        victim.start(QCoreApplication::applicationFilePath(),
                     {QStringLiteral("--gtest_also_run_disabled_tests"),
                      QStringLiteral("--gtest_filter=KillVictim.*")});
        ASSERT_TRUE(victim.waitForStarted(10000));
        QFile log(file + QStringLiteral(".log"));
        ASSERT_TRUE(QTest::qWaitFor([&] { return log.exists() && log.size() > 0; }, 20000))
            << seed << " " << k;
        QTest::qWait(int(random() % 2600));
        const qint64 end = now();
        kill(pid_t(victim.processId()), SIGKILL);
        victim.waitForFinished(10000);
        // States by the log, the newest time of each.
        std::map<double, qint64> made;
        qint64 last = 0, slowest = 0;  // between two edits: what the machine did not give it time for
        ASSERT_TRUE(log.open(QIODevice::ReadOnly));
        for (const QByteArray& line : log.readAll().split('\n')) {
            const auto words = line.split(' ');
            if (words.size() != 2) continue;
            const qint64 at = words[0].toLongLong();
            if (last > 0) slowest = std::max(slowest, at - last);
            made[words[1].toDouble()] = last = at;
        }
        // The file is whole; what is kept as well, where there is something.
        const auto saved = formats::openProject(file.toStdString());
        ASSERT_TRUE(saved.trouble.empty()) << seed << " " << k << formats::sentences(saved.trouble);
        formats::Kept left;
        const bool there = QFile::exists(QString::fromStdString(kept));
        if (there) {
            ASSERT_TRUE(formats::readKept(kept, left)) << seed << " " << k;
        }
        const double state = there ? left.project.slabs[0]->thickness : saved.project.slabs[0]->thickness;
        // The next state made after the one that is there is what was lost, from that moment on.
        ASSERT_TRUE(made.contains(state)) << seed << " " << k << " " << state;
        qint64 next = end;
        for (const auto& [thickness, at] : made)
            if (at > made[state]) next = std::min(next, at);
        const qint64 lost = last > made[state] ? end - next : 0;
        worst = std::max(worst, lost);
        EXPECT_LE(lost, 2000 + slowest) << seed << " " << k;
    }
    std::printf("%d kills: at most %lld ms lost\n", kills, static_cast<long long>(worst));
}

}  // namespace talvik::app

// What is not saved stays: kept beside the file, offered at the next start, told when someone else writes.
#include <QFile>
#include <QFileInfo>
#include <QUndoStack>

#include "document/keeper.h"
#include "formats/file.h"
#include "open_window.h"

namespace talvik::app {

class RecoveryWindow : public OpenWindow {
  protected:
    QString file;
    void SetUp() override {
        OpenWindow::SetUp();
        window.openDemo(false);
        file = folder.filePath(QStringLiteral("gallery.talvik"));
        ASSERT_TRUE(window.saveAs(file));
    }
    void thicker() {
        session().apply(QStringLiteral("thicker"),
                        model::editSlab(session().base(), session().slab()->id,
                                        [](auto& s, auto&) { s.thickness += 10; }));
    }
    QString kept() const { return folder.filePath(QStringLiteral(".gallery.talvik.talvik-kept")); }
    // Another window, as after a crash of the first: its lock is gone with the process.
    QString copyAsLeft() {
        const QString other = folder.filePath(QStringLiteral("other.talvik"));
        EXPECT_TRUE(QFile::copy(file, other));
        EXPECT_TRUE(QFile::copy(kept(), folder.filePath(QStringLiteral(".other.talvik.talvik-kept"))));
        return other;
    }
};

TEST_F(RecoveryWindow, KeptWithinTwoSecondsAndGoneOnceSaved) {
    EXPECT_FALSE(QFile::exists(kept()));
    thicker();
    ASSERT_TRUE(QTest::qWaitFor([&] { return QFile::exists(kept()); }, 2000));
    formats::Kept read;
    ASSERT_TRUE(formats::readKept(kept().toStdString(), read));
    EXPECT_TRUE(read.project == session().project());
    EXPECT_EQ(read.of, file.toStdString());
    // The newest counts, also when edits go on without a pause.
    for (int i = 0; i < 20; ++i) {
        thicker();
        QTest::qWait(40);
    }
    const double then = session().slab()->thickness;
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
            return formats::readKept(kept().toStdString(), read) && read.project.slabs[0]->thickness == then;
        },
        2000));
    ASSERT_TRUE(window.save());
    EXPECT_FALSE(QFile::exists(kept()));
    // Undone to what is saved: nothing is left either.
    thicker();
    ASSERT_TRUE(QTest::qWaitFor([&] { return QFile::exists(kept()); }, 2000));
    session().undoStack().undo();
    EXPECT_TRUE(QTest::qWaitFor([&] { return !QFile::exists(kept()); }, 2000));
    // A clean end, with the changes given up.
    thicker();
    window.keeper().flush();
    EXPECT_TRUE(QFile::exists(kept()));
    window.close();
    EXPECT_FALSE(QFile::exists(kept()));
    EXPECT_FALSE(QFile::exists(folder.filePath(QStringLiteral(".gallery.talvik.talvik-lock"))));
}

TEST_F(RecoveryWindow, OfferedAtTheNextStart) {
    thicker();
    window.keeper().flush();
    const auto lost = session().project();
    QString said;
    for (auto answer : {MainWindow::Recover::Later, MainWindow::Recover::Take}) {
        const QString other = copyAsLeft();
        MainWindow next;
        next.askUnsaved = [] { return MainWindow::Unsaved::Discard; };
        next.askRecover = [&](const QString& sentence) {
            said = sentence;
            return answer;
        };
        ASSERT_TRUE(next.openFile(other));
        EXPECT_TRUE(said.contains(QStringLiteral("thickness"))) << said.toStdString();
        if (answer == MainWindow::Recover::Take) {
            EXPECT_TRUE(next.session().project() == lost);
            EXPECT_TRUE(next.session().modified());
            EXPECT_EQ(next.session().path(), other);
            ASSERT_TRUE(next.save());
            EXPECT_FALSE(QFile::exists(folder.filePath(QStringLiteral(".other.talvik.talvik-kept"))));
        } else {
            EXPECT_FALSE(next.session().modified());
            EXPECT_TRUE(QFile::exists(folder.filePath(QStringLiteral(".other.talvik.talvik-kept"))))
                << "later means later";
        }
        next.close();
        QFile::remove(other);
        QFile::remove(folder.filePath(QStringLiteral(".other.talvik.talvik-kept")));
    }
}

TEST_F(RecoveryWindow, WithoutANameInTheStateFolder) {
    // Windows of other tests may have left theirs.
    for (const auto& kept : formats::keptWithoutName()) QFile::remove(QString::fromStdString(kept.path));
    {  // As a process leaves it that is killed: locks go with it, files stay.
        const auto place = formats::keepingPlace({}, "test");
        const formats::Lock lock(place.lock);
        auto p = model::emptyProject();
        p.name = "Lost and found";
        ASSERT_EQ(formats::keep(place, {}, formats::projectText(p)), "");
    }
    MainWindow next;
    next.askUnsaved = [] { return MainWindow::Unsaved::Discard; };
    int asked = 0;
    next.askRecover = [&](const QString& sentence) {
        asked += sentence.contains(QStringLiteral("Lost and found"));
        return MainWindow::Recover::Take;
    };
    next.offerKept();
    EXPECT_EQ(asked, 1);
    EXPECT_EQ(next.session().project().name, "Lost and found");
    EXPECT_TRUE(next.session().modified());
    next.close();
    MainWindow third;
    third.askRecover = next.askRecover;
    third.offerKept();
    EXPECT_EQ(asked, 1) << "taken once";
}

TEST_F(RecoveryWindow, TwoWindowsAreToldAndKeepApart) {
    MainWindow second;
    second.askUnsaved = [] { return MainWindow::Unsaved::Discard; };
    ASSERT_TRUE(second.openFile(file));
    EXPECT_TRUE(second.keeper().alsoOpen());
    thicker();
    window.keeper().flush();
    second.session().apply(QStringLiteral("thinner"),
                           model::editSlab(second.session().base(), second.session().slab()->id,
                                           [](auto& s, auto&) { s.thickness -= 10; }));
    second.keeper().flush();
    formats::Kept one, two;
    ASSERT_TRUE(formats::readKept(kept().toStdString(), one));
    ASSERT_TRUE(formats::readKept(second.keeper().where(), two));
    EXPECT_TRUE(one.project == session().project());
    EXPECT_TRUE(two.project == second.session().project());
    second.close();
    EXPECT_TRUE(QFile::exists(kept())) << "of the first";
}

TEST_F(RecoveryWindow, AFileChangedByOthersIsNoticed) {
    auto other = session().project();
    other.name = "Theirs";
    ASSERT_EQ(formats::saveProject(file.toStdString(), other), "");
    thicker();
    int asked = 0;
    auto answer = MainWindow::Conflict::Cancel;
    window.askConflict = [&](const QString&) {
        ++asked;
        return answer;
    };
    EXPECT_FALSE(window.save());
    EXPECT_EQ(formats::openProject(file.toStdString()).project.name, "Theirs");
    answer = MainWindow::Conflict::Beside;
    ASSERT_TRUE(window.save());
    EXPECT_EQ(session().path(), folder.filePath(QStringLiteral("gallery-2.talvik")));
    EXPECT_EQ(formats::openProject(file.toStdString()).project.name, "Theirs");
    ASSERT_TRUE(window.save());
    EXPECT_EQ(asked, 2) << "the new file is ours";
    // Mine, and theirs.
    other.name = "Theirs again";
    ASSERT_EQ(formats::saveProject(session().path().toStdString(), other), "");
    thicker();
    answer = MainWindow::Conflict::Theirs;
    ASSERT_TRUE(window.save());
    EXPECT_EQ(session().project().name, "Theirs again");
    EXPECT_FALSE(session().modified());
    other.name = "Theirs for the last time";
    ASSERT_EQ(formats::saveProject(session().path().toStdString(), other), "");
    thicker();
    answer = MainWindow::Conflict::Mine;
    ASSERT_TRUE(window.save());
    EXPECT_EQ(formats::openProject(session().path().toStdString()).project.name, "Theirs again");
    EXPECT_EQ(asked, 4);
}

}  // namespace talvik::app

#include <gtest/gtest.h>

#include <QApplication>
#include <QStandardPaths>
#include <QTemporaryDir>

#include "widgets/theme.h"

int main(int argc, char** argv) {
    QStandardPaths::setTestModeEnabled(true);
    QTemporaryDir state;  // for what is kept of unsaved projects
    qputenv("XDG_STATE_HOME", state.path().toUtf8());
    QApplication application(argc, argv);
    // Of each platform its own: the two runs of these tests may go side by side, and settings are one file.
    QCoreApplication::setOrganizationName(QStringLiteral("TalvikTest-") +
                                          qEnvironmentVariable("QT_QPA_PLATFORM"));
    QCoreApplication::setApplicationName(QStringLiteral("TalvikTest"));
    talvik::app::applyTheme(application);
    ::testing::InitGoogleTest(&argc, argv);
    return RUN_ALL_TESTS();
}

#include <gtest/gtest.h>

#include <QApplication>
#include <QStandardPaths>

#include "widgets/theme.h"

int main(int argc, char** argv) {
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    // Of each platform its own: the two runs of these tests may go side by side, and settings are one file.
    QCoreApplication::setOrganizationName(QStringLiteral("TalvikTest-") +
                                          qEnvironmentVariable("QT_QPA_PLATFORM"));
    QCoreApplication::setApplicationName(QStringLiteral("TalvikTest"));
    talvik::app::applyTheme(application);
    ::testing::InitGoogleTest(&argc, argv);
    return RUN_ALL_TESTS();
}

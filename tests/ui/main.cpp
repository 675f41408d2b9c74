#include <gtest/gtest.h>

#include <QApplication>
#include <QStandardPaths>

#include "widgets/theme.h"

int main(int argc, char** argv) {
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    QCoreApplication::setOrganizationName(QStringLiteral("TalvikTest"));
    QCoreApplication::setApplicationName(QStringLiteral("TalvikTest"));
    talvik::app::applyTheme(application);
    ::testing::InitGoogleTest(&argc, argv);
    return RUN_ALL_TESTS();
}

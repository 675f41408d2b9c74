#include <QGuiApplication>
#include <clocale>

#include "cli/commands.h"

namespace talvik::cli {

void ensurePainting() {
    static int count = 1;
    static char name[] = "talvik";
    static char* arguments[] = {name, nullptr};
    if (QGuiApplication::instance()) return;
    qInstallMessageHandler(
        [](QtMsgType, const QMessageLogContext&, const QString& text) { tell(text.toStdString()); });
    qputenv("QT_QPA_PLATFORM", "offscreen");
    static QGuiApplication application(count, arguments);
    std::setlocale(LC_NUMERIC, "C");  // Qt takes the user's; files keep the decimal point
}

}  // namespace talvik::cli

// The columns of the canopy with their loads, for tests that open them as a set of bases.
#pragma once

#include "open_window.h"

namespace talvik::app {

// The window asks for a file and gets that of the canopy.
inline void askForCanopy(MainWindow& window) {
    window.askOpenPath = [](const QString&, const QString&) {
        return QStringLiteral(TALVIK_SOURCE_DIR "/demos/sundvarg_canopy_loads.csv");
    };
}
inline void openCanopy(MainWindow& window) {
    askForCanopy(window);
    QApplication::setActiveWindow(&window);  // shortcuts need it, and there may be no window manager
    QTest::keyClick(&window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
}

}  // namespace talvik::app

// Colours and type of the interface. The dark variant follows the desktop.
#pragma once

#include <QColor>
#include <QFont>

class QApplication;
class QPainter;
class QRectF;
class QWidget;

namespace talvik::app {

struct Theme {
    QColor paper, chrome, chromeDark, ink, secondary, hairline, concrete, structure, selection, over,
        attention, barsX, barsY, field;
};
const Theme& theme();

// Font of the interface in pixels; never under 10.
QFont uiFont(int pixels, int weight = QFont::Normal);

// Sets font, palette and style sheet of the application: light, dark, or as the desktop is.
enum class Lightness { Desktop, Light, Dark };
void applyTheme(QApplication& application, Lightness lightness = Lightness::Desktop);

// The one gauge: ink up to the notch at the limit, a hatched overshoot past it. `stale` fades it.
enum class GaugeState { Judged, NotApplicable, NotChecked };
void paintGauge(QPainter& painter, const QRectF& rect, double ratio, GaugeState state);
// A thin frame inside a picture that has the keyboard.
void paintFocus(QPainter& painter, const QWidget& picture);
// Diagonal hatch in a colour.
QBrush hatch(const QColor& colour);

}  // namespace talvik::app

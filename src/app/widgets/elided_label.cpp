#include "widgets/elided_label.h"

#include <QPainter>

namespace talvik::app {

void ElidedLabel::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setPen(palette().color(foregroundRole()));
    const QString line = QString(text()).replace(QLatin1Char('\n'), QLatin1Char(' '));
    p.drawText(contentsRect(), int(alignment()) | Qt::TextSingleLine,
               fontMetrics().elidedText(line, Qt::ElideRight, contentsRect().width()));
    setToolTip(fits() ? QString() : text());
}

}  // namespace talvik::app

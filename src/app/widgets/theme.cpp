#include "widgets/theme.h"

#include <QApplication>
#include <QPainter>
#include <QPalette>
#include <QPixmap>
#include <QStyleFactory>
#include <QWidget>

#include "paper/paper.h"

namespace talvik::app {
namespace {

bool dark = false;

const Theme light{QColor(0xfbfaf6), QColor(0xf5f4ef), QColor(0xecebe4), QColor(0x1f2a33), QColor(0x5d6b74),
                  QColor(0xc9cbc4), QColor(0xe3e1d8), QColor(0x39454d), QColor(0x1c5d99), QColor(0xc8401f),
                  QColor(0xa8760f), QColor(0x34508f), QColor(0x8c4a2f), QColor(0xffffff)};
const Theme night{QColor(0x1d2226), QColor(0x23292e), QColor(0x2b3238), QColor(0xe4e6e3), QColor(0x9aa6ad),
                  QColor(0x454d53), QColor(0x353b3e), QColor(0xaab4b9), QColor(0x6aaee6), QColor(0xf0704e),
                  QColor(0xd9a441), QColor(0x8aa6e8), QColor(0xd9916f), QColor(0x181c1f)};

}  // namespace

const Theme& theme() {
    return dark ? night : light;
}

QFont uiFont(int pixels, int weight) {
    QFont font(QString::fromLatin1(paper::fontFamily()));
    font.setPixelSize(std::max(10, pixels));
    font.setWeight(static_cast<QFont::Weight>(weight));
    return font;
}

void applyTheme(QApplication& application, Lightness lightness) {
    dark = lightness == Lightness::Dark || (lightness == Lightness::Desktop &&
                                            application.palette().color(QPalette::Window).lightness() < 100);
    application.setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    application.setFont(uiFont(13));
    const Theme& t = theme();
    QPalette p;
    p.setColor(QPalette::Window, t.chrome);
    p.setColor(QPalette::WindowText, t.ink);
    p.setColor(QPalette::Base, t.field);
    p.setColor(QPalette::AlternateBase, t.chrome);
    p.setColor(QPalette::Text, t.ink);
    p.setColor(QPalette::Button, t.chromeDark);
    p.setColor(QPalette::ButtonText, t.ink);
    p.setColor(QPalette::Highlight, t.selection);
    p.setColor(QPalette::HighlightedText, dark ? t.paper : QColor(Qt::white));
    p.setColor(QPalette::ToolTipBase, t.field);
    p.setColor(QPalette::ToolTipText, t.ink);
    p.setColor(QPalette::PlaceholderText, t.secondary);
    p.setColor(QPalette::Mid, t.hairline);
    p.setColor(QPalette::Link, t.selection);
    for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, t.secondary);
    application.setPalette(p);
    application.setStyleSheet(
        QStringLiteral(
            "QLineEdit,QTableWidget,QListWidget{border:1px solid "
            "%1;border-radius:3px;background:%2;padding:2px 4px}"
            "QLineEdit:focus,QTableWidget:focus,QListWidget:focus{border-color:%3}"
            "QPushButton{border:1px solid %1;border-radius:3px;background:%2;padding:4px "
            "10px}QPushButton:hover{border-color:%3}QPushButton:focus{border-color:%3}"
            "QHeaderView::section{background:%4;border:0;border-bottom:1px solid %1;padding:3px 4px;color:%5}"
            "QTableWidget{gridline-color:%1}QToolTip{border:1px solid %1;padding:3px}"
            "QScrollBar:vertical{background:transparent;width:9px}QScrollBar::handle:vertical{background:%1;"
            "border-radius:4px;min-height:30px}"
            "QScrollBar:horizontal{background:transparent;height:9px}QScrollBar::handle:horizontal{"
            "background:%1;border-radius:4px;min-width:30px}"
            "QScrollBar::add-line,QScrollBar::sub-line{width:0;height:0}")
            .arg(t.hairline.name(), t.field.name(), t.selection.name(), t.chrome.name(), t.secondary.name()));
}

void paintFocus(QPainter& p, const QWidget& picture) {
    if (!picture.hasFocus()) return;
    p.setPen(QPen(theme().selection, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(picture.rect()).adjusted(0.75, 0.75, -0.75, -0.75));
}

QBrush hatch(const QColor& colour) {
    QPixmap tile(6, 6);
    tile.fill(Qt::transparent);
    QPainter p(&tile);
    p.setPen(QPen(colour, 2));
    for (int x : {-6, 0, 6}) p.drawLine(x, 6, x + 6, 0);
    return QBrush(tile);
}

void paintGauge(QPainter& p, const QRectF& r, double ratio, GaugeState state) {
    const Theme& t = theme();
    double notch = r.left() + r.width() * 0.77;
    p.save();
    p.setRenderHint(QPainter::Antialiasing, false);
    if (state == GaugeState::NotApplicable) {
        p.fillRect(QRectF(r.left(), r.center().y() - 1, 16, 2), t.secondary);
    } else if (state == GaugeState::NotChecked) {
        p.setPen(QPen(t.secondary, 1, Qt::DashLine));
        p.drawRect(r.adjusted(0, 0, -1, -1));
    } else {
        p.setPen(QPen(t.hairline, 1));
        p.setBrush(t.field);
        p.drawRect(r.adjusted(0, 0, -1, -1));
        p.fillRect(QRectF(r.left(), r.top(), (notch - r.left()) * std::min(ratio, 1.0), r.height()), t.ink);
        if (ratio > 1 + 1e-9) {
            QRectF past(notch, r.top(),
                        std::min(r.right() - notch, std::max(5.0, (notch - r.left()) * (ratio - 1))),
                        r.height());
            p.fillRect(past, hatch(t.over));
            p.setPen(t.over);
            p.setBrush(Qt::NoBrush);
            p.drawRect(past.adjusted(0, 0, -1, -1));
        }
        p.fillRect(QRectF(notch - 1, r.top() - 3, 2, r.height() + 6), t.ink);
    }
    p.restore();
}

}  // namespace talvik::app

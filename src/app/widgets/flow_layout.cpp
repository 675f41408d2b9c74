#include "widgets/flow_layout.h"

#include <QWidget>

namespace talvik::app {

FlowLayout::FlowLayout(int spacing, QWidget* parent) : QLayout(parent) {
    setSpacing(spacing);
}

FlowLayout::~FlowLayout() {
    qDeleteAll(items_);
}

QSize FlowLayout::minimumSize() const {
    QSize least;
    for (auto* item : items_) least = least.expandedTo(item->minimumSize());
    return least.grownBy(contentsMargins());
}

void FlowLayout::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    place(rect, true);
}

int FlowLayout::place(const QRect& rect, bool move) const {
    const QMargins around = contentsMargins();
    const QRect room = rect.marginsRemoved(around);
    int x = room.x(), y = room.y(), row = 0;
    for (auto* item : items_) {
        if (item->isEmpty()) continue;
        const QSize size = item->sizeHint().boundedTo({room.width(), QWIDGETSIZE_MAX});
        if (x > room.x() && x + size.width() > room.x() + room.width())
            x = room.x(), y += row + spacing(), row = 0;
        if (move) item->setGeometry({QPoint(x, y), size});
        x += size.width() + spacing();
        row = std::max(row, size.height());
    }
    return y + row - rect.y() + around.bottom();
}

}  // namespace talvik::app

#include "connections/connection_view.h"

#include <QPainter>

#include "drawing/connection_detail.h"
#include "paper/paper.h"
#include "widgets/theme.h"

namespace talvik::app {

ConnectionView::ConnectionView(ConnectionDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setObjectName(QStringLiteral("connectionView"));
    setAccessibleName(tr("Connection"));
    setMinimumSize(260, 120);
    for (auto signal : {&Session::changed, &Session::selectionChanged, &Session::answered})
        connect(&desk.session(), signal, this, &ConnectionView::gather);
    gather();
}

void ConnectionView::gather() {
    const auto* c = desk_.inHand();
    sheet_ = c ? drawing::connectionDetail(*c, desk_.session().project().basis) : drawing::Sheet{};
    update();
}

void ConnectionView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().paper);
    if (sheet_.items.empty()) return;
    p.setRenderHint(QPainter::Antialiasing);
    p.setOpacity(desk_.session().stale() ? 0.5 : 1);
    const double scale = std::min((width() - 8.0) / sheet_.width, (height() - 6.0) / sheet_.height);
    p.translate((width() - sheet_.width * scale) / 2, (height() - sheet_.height * scale) / 2);
    p.scale(scale, scale);
    paper::paint(p, sheet_);
}

}  // namespace talvik::app

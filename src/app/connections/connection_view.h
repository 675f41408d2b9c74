// The connection in hand as a picture: perimeters and shear steel in plan, a section beside it.
#pragma once

#include <QWidget>

#include "connections/connection_desk.h"
#include "drawing/drawing.h"

namespace talvik::app {

class ConnectionView : public QWidget {
    Q_OBJECT
  public:
    explicit ConnectionView(ConnectionDesk& desk, QWidget* parent = nullptr);
    const drawing::Sheet& sheet() const { return sheet_; }

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    ConnectionDesk& desk_;
    drawing::Sheet sheet_;
    void gather();
};

}  // namespace talvik::app

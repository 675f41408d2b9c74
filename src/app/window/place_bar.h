// The top of the window: project and slab, the seven places of work with what is open there, standard and
// units.
#pragma once

#include <QWidget>

#include "document/session.h"

namespace talvik::app {

class PlaceBar : public QWidget {
    Q_OBJECT
  public:
    explicit PlaceBar(Session& session, QWidget* parent = nullptr);
    static QString name(Place place);
    // What is still open at a place: failing checks, missing bars, slab in no strip, missing loads.
    static int open(const Session& session, Place place);
    QRectF placeRect(Place place) const;
    // Where the element in hand and the standard are chosen; menus open below.
    QRectF elementRect() const;
    QRectF standardRect() const;

  signals:
    void standardWanted(QPoint global);
    void elementWanted(QPoint global);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;

  private:
    double placeWidth(Place place) const;
    double placesStart() const;
    QString standard() const;
    QString elementText() const;
    Session& session_;
    int hover_ = 0;
};

}  // namespace talvik::app

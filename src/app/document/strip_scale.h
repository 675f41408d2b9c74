// The horizontal scale that plan and long section share, so that a support in one stands under the same
// support in the other. Pixels from the views' common left edge.
#pragma once

#include <QObject>
#include <algorithm>

namespace talvik::app {

class StripScale : public QObject {
    Q_OBJECT
  public:
    using QObject::QObject;
    double toPixel(double mm) const { return origin_ + mm * perMm_; }
    double toMm(double pixel) const { return (pixel - origin_) / perMm_; }
    double perMm() const { return perMm_; }
    void set(double origin, double perMm) {
        origin_ = origin;
        perMm_ = std::clamp(perMm, 1e-4, 5.0);
        emit changed();
    }
    void zoom(double factor, double atPixel) {
        double mm = toMm(atPixel), next = std::clamp(perMm_ * factor, 1e-4, 5.0);
        set(atPixel - mm * next, next);
    }
    void pan(double pixels) { set(origin_ + pixels, perMm_); }

  signals:
    void changed();

  private:
    double origin_ = 0, perMm_ = 0.03;
};

}  // namespace talvik::app

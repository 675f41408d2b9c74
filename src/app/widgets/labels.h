// Places of labels on a picture, so that none lies on another. Made anew for each painting: what is put first
// stands where it wants to, what comes later gives way.
#pragma once

#include <QRectF>
#include <optional>
#include <vector>

namespace talvik::app {

class Labels {
  public:
    void clear() { taken_.clear(); }
    void reserve(const QRectF& box) { taken_.push_back(box); }
    bool free(const QRectF& box) const;
    // The free place nearest to the wanted one, which is taken from then on; none where all around is full.
    std::optional<QRectF> place(const QRectF& wanted);

  private:
    std::vector<QRectF> taken_;
};

}  // namespace talvik::app

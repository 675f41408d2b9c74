// The base in hand, beside the register of all: its sections with the pressure below it, its bars as a cage
// that turns, the sizes that would do as dots, and what any number of types costs. One of these at a time.
#pragma once

#include <QWidget>
#include <thread>

#include "design/bases.h"
#include "document/session.h"
#include "drawing/base_figures.h"

class QButtonGroup;
class QComboBox;
class QPushButton;

namespace talvik::app {

class BasePane : public QWidget {
    Q_OBJECT
  public:
    explicit BasePane(Session& session, QWidget* parent = nullptr);
    ~BasePane() override;
    enum class Shows { AlongX, AlongY, Cage, Sizes, Types };
    void show(Shows what);
    Shows shows() const { return shows_; }
    const drawing::CageView& view() const { return view_; }
    // What stands there as a drawing, by the ending of the path (svg, pdf, dxf); a sentence where it fails.
    QString savePicture(const QString& path) const;
    // Dots of sizes or types, in the order they are walked; for tests.
    int dots() const { return int(points_.size()); }
    QPointF dot(int i) const { return points_[std::size_t(i)]; }
    bool seeking() const { return seeking_; }

  signals:
    void said(const QString& sentence);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    void refresh();
    void seekSizes();
    void paintSection(QPainter& p, const design::BasePart& base, int axis);
    void paintCage(QPainter& p, const design::BasePart& base);
    void paintSizes(QPainter& p);
    void paintTypes(QPainter& p);
    void strokes(QPainter& p, const std::vector<drawing::BarStroke>& all, double perMm,
                 const std::function<QPointF(geometry::Point)>& at) const;
    QRectF axes(QPainter& p, const QString& across, const QString& up, double most, double least) const;
    int near(QPointF at) const;  // the dot there; -1 for none
    void adopt(int dot);
    double worth(const design::Alternative& a) const;

    Session& session_;
    QButtonGroup* modes_;
    QComboBox* measure_;
    QPushButton* save_;
    Shows shows_ = Shows::AlongX;
    drawing::CageView view_;
    QPointF last_;
    int hover_ = -1;
    std::vector<QPointF> points_;
    // Of the base in hand, as far as they are found.
    std::vector<design::Alternative> sizes_;
    std::shared_ptr<const design::BasePart> sizesOf_;
    bool seeking_ = false;
    // Bars of the base that is shown.
    mutable std::shared_ptr<const design::BasePart> barsOf_;
    mutable std::vector<bases::Laid> bars_;
    const std::vector<bases::Laid>& bars(const design::BasePart& base) const;
    std::shared_ptr<const design::BasePart> held() const;
    // Last: stopped and joined before anything else goes.
    Inbox inbox_;
    std::jthread seek_;
};

}  // namespace talvik::app

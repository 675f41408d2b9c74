// The economical slab: the floor in hand designed in full at every thickness of a range, with and without
// drops, of chosen classes; cost or carbon over thickness as a picture beside a table. Hover or walk to see a
// point, click or Enter to take it.
#pragma once

#include <QWidget>
#include <thread>

#include "design/sweep.h"
#include "document/inbox.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QTableWidget;

namespace talvik::app {

class Session;
class SweepPicture;

class SweepWindow : public QWidget {
    Q_OBJECT
  public:
    explicit SweepWindow(Session& session, QWidget* parent = nullptr);
    ~SweepWindow() override;
    // A sentence where the wish cannot be tried.
    QString start();
    void stop();
    bool running() const { return running_; }
    const std::vector<design::SweepPoint>& points() const { return points_; }
    // Makes the floor in hand as the point has it, as one step of history.
    void adopt(std::size_t point);
    SweepPicture& picture() { return *picture_; }
    void pointAtLeast();  // of those with nothing over; the last without

  private:
    friend class SweepPicture;
    Session& session_;
    QLineEdit *from_, *to_, *step_;
    QListWidget* classes_;
    QCheckBox* drops_;
    QComboBox* measure_;
    QPushButton *go_, *take_;
    QLabel *says_, *about_;
    SweepPicture* picture_;
    QTableWidget* table_;
    std::vector<design::SweepPoint> points_;
    std::shared_ptr<const model::Project> of_;  // what was swept
    model::Id floor_;
    bool running_ = false;
    int serial_ = 0;
    // Last: stopped and joined before anything else goes.
    Inbox inbox_;
    std::jthread thread_;

    void refresh();
    void fillTable();
    void point(int number);
    double worth(const design::SweepPoint& p) const;
    int least() const;     // with nothing over; -1 for none
    bool current() const;  // the points are of the project as it is
};

class SweepPicture : public QWidget {
    Q_OBJECT
  public:
    explicit SweepPicture(SweepWindow& window);
    int dots() const { return int(dots_.size()); }
    QPointF dot(int i) const { return dots_[std::size_t(i)]; }
    int shown() const { return shown_; }
    void mark(int point);

  signals:
    void hovered(int point);
    void taken(int point);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    SweepWindow& window_;
    std::vector<QPointF> dots_;
    int shown_ = -1;
    int near(QPointF at) const;
};

}  // namespace talvik::app

// What stands in place of the plan while a project has no element: what to begin, with which standard, what
// was open before, and the demos. Nothing is added that was not asked for.
#pragma once

#include <QWidget>

class QComboBox;
class QVBoxLayout;

namespace talvik::app {

class Session;

class StartPage : public QWidget {
    Q_OBJECT
  public:
    explicit StartPage(Session& session, QWidget* parent = nullptr);
    enum class Begin { Floor, Slab, Pads, Caps, Bench, Open, Demo, DemoFloor };
    void refresh();

  signals:
    void wanted(Begin what);
    void standardWanted(const QString& id);
    void fileWanted(const QString& path);

  private:
    Session& session_;
    QComboBox* standard_;
    QVBoxLayout* recent_;
};

}  // namespace talvik::app

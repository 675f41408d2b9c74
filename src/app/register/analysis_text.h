// The analysis of the floor in hand in words: loads and reactions, extremes, second opinions on panels, and
// on demand how far the mesh is from converged.
#pragma once

#include <QWidget>
#include <thread>

#include "document/session.h"

class QPushButton;
class QTextBrowser;

namespace talvik::app {

class AnalysisText : public QWidget {
    Q_OBJECT
  public:
    explicit AnalysisText(Session& session, QWidget* parent = nullptr);
    void refresh();
    QString text() const;
    QWidget& textWidget();

  private:
    Session& session_;
    QTextBrowser* text_;
    QPushButton* convergence_;
    analysis::Convergence found_;  // once that was asked
    int serial_ = 0;
    Inbox inbox_;
    std::jthread run_;

    void seekConvergence();
};

}  // namespace talvik::app

// The panel bench: one section or one panel in a minute, without a model. Values on the left, the page with
// sketch, bars and working on the right; it answers as values are typed.
#pragma once

#include <QWidget>
#include <memory>

#include "report/bench_page.h"

class QCheckBox;
class QComboBox;
class QFormLayout;
class QLabel;
class QTextBrowser;
class QTextDocument;

namespace talvik::app {

class Session;

class BenchWindow : public QWidget {
    Q_OBJECT
  public:
    // Standard, materials, covers and bars are those of the session's project.
    explicit BenchWindow(Session& session, QWidget* parent = nullptr);
    ~BenchWindow() override;
    const opinions::BenchInput& input() const { return input_; }
    const opinions::BenchAnswer& answer() const { return answer_; }
    void setInput(const opinions::BenchInput& input);
    QString save(const QString& path);  // .pdf or .html; empty, or why not

  private:
    Session& session_;
    opinions::BenchInput input_;
    opinions::BenchAnswer answer_;
    report::Document report_;
    std::unique_ptr<QTextDocument> text_;
    QComboBox *kind_, *use_;
    QWidget* values_;
    QTextBrowser* page_;
    QLabel* says_;
    QCheckBox* all_;
    void fillForm();
    void refresh();
};

}  // namespace talvik::app

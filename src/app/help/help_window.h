// The guide of docs/guide, shown in the program: pages on the left, found by their words, the page on the
// right.
#pragma once

#include <QDialog>
#include <vector>

class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace talvik::app {

class HelpWindow : public QDialog {
    Q_OBJECT
  public:
    explicit HelpWindow(QWidget* parent = nullptr);
    // Shows a page by the name of its file, such as "strips"; nothing where there is none.
    void open(const QString& page);
    QString page() const { return page_; }
    static QStringList pages();  // names of files, in the order of the list

  private:
    struct Page {
        QString name, title, text;
    };
    void filter();
    std::vector<Page> all_;
    QString page_;
    QLineEdit* search_;
    QListWidget* list_;
    QTextBrowser* text_;
};

}  // namespace talvik::app

// Ctrl+F: finds a mark, a support or span, a check or a command, and goes there.
#pragma once

#include <QDialog>
#include <functional>
#include <vector>

class QLineEdit;
class QListWidget;

namespace talvik::app {

class FindPalette : public QDialog {
    Q_OBJECT
  public:
    struct Entry {
        QString text, kind;
        std::function<void()> go;
        bool last = false;  // after all others
    };
    FindPalette(std::vector<Entry> entries, QWidget* parent);

  protected:
    bool eventFilter(QObject* object, QEvent* event) override;

  private:
    void filter(const QString& text);
    void go();
    std::vector<Entry> entries_;
    std::vector<std::size_t> shown_;
    QLineEdit* edit_;
    QListWidget* list_;
};

}  // namespace talvik::app

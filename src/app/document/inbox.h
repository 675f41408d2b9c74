// What threads of the background hand over to the window's thread: called there, each in the order it came,
// for as long as the inbox lives. Its owner has it before the threads that fill it, so that they end first.
#pragma once

#include <QObject>
#include <deque>
#include <functional>
#include <mutex>

namespace talvik::app {

class Inbox : public QObject {
  public:
    void hand(std::function<void()> what);  // from any thread

  protected:
    bool event(QEvent* event) override;

  private:
    std::mutex mutex_;
    std::deque<std::function<void()>> waiting_;
};

}  // namespace talvik::app

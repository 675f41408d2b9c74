#include "document/inbox.h"

#include <QCoreApplication>
#include <QEvent>

namespace talvik::app {

void Inbox::hand(std::function<void()> what) {
    const std::lock_guard hold(mutex_);
    waiting_.push_back(std::move(what));
    QCoreApplication::postEvent(this, new QEvent(QEvent::User));
}

// One for each event: what is called may itself wait for events.
bool Inbox::event(QEvent* event) {
    if (event->type() != QEvent::User) return QObject::event(event);
    std::unique_lock hold(mutex_);
    const auto what = std::move(waiting_.front());
    waiting_.pop_front();
    hold.unlock();
    what();
    return true;
}

}  // namespace talvik::app

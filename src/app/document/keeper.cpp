#include "document/keeper.h"

#include <unistd.h>

#include <QFileInfo>

#include "document/session.h"
#include "formats/project_file.h"

namespace talvik::app {

namespace {

constexpr int patience = 400;  // ms from a change to its writing

std::string ownName() {
    static int number = 0;
    return std::to_string(getpid()) + "-" + std::to_string(++number);
}

}  // namespace

Keeper::Keeper(Session& session, QObject* parent) : QObject(parent), session_(session) {
    timer_.setSingleShot(true);
    timer_.setInterval(patience);
    connect(&timer_, &QTimer::timeout, this, &Keeper::want);
    connect(&session_, &Session::changed, this, [this] {
        if (!timer_.isActive()) timer_.start();
    });
    connect(&session_, &Session::fileChanged, this, [this] {
        follow();
        if (!session_.modified()) takeAway();
    });
    thread_ = std::jthread([this](std::stop_token stop) { work(stop); });
    follow();
}
Keeper::~Keeper() {
    thread_.request_stop();
    wake_.notify_all();
    if (thread_.joinable()) thread_.join();
    // With nothing kept the lock has nothing to tell.
    if (taken_) lock_.remove();
}

void Keeper::follow() {
    const QString of = session_.path().isEmpty() ? QString() : QFileInfo(session_.path()).absoluteFilePath();
    if (begun_ && of == of_) return;
    if (begun_) takeAway();
    lock_.remove();
    begun_ = true, of_ = of;
    taken_ = true;  // nothing of this session is there yet
    place_ = formats::keepingPlace(of.toStdString(), ownName());
    lock_ = formats::Lock(place_.lock);
    const bool also = !lock_.held() && access(place_.lock.c_str(), F_OK) == 0;
    // Kept apart from what the other window keeps.
    if (also) {
        place_ = formats::keepingPlace({}, ownName());
        lock_ = formats::Lock(place_.lock);
    }
    also_ = also;
    if (also) emit alsoOpened();
}

std::optional<formats::Kept> Keeper::left() const {
    formats::Kept kept;
    if (of_.isEmpty() || also_ || !formats::readKept(place_.kept, kept)) return {};
    return kept;
}
void Keeper::forget(const formats::Kept& kept) {
    unlink(kept.path.c_str());
}

void Keeper::want() {
    if (!session_.modified()) return takeAway();
    const std::lock_guard hold(mutex_);
    wanted_ = std::make_shared<const model::Project>(session_.project());
    wantedPlace_ = place_, wantedOf_ = of_.toStdString();
    taken_ = false;
    wake_.notify_all();
}

// Not before what is being written is there.
void Keeper::takeAway() {
    timer_.stop();
    std::unique_lock hold(mutex_);
    wanted_ = nullptr;
    idle_.wait(hold, [this] { return !busy_; });
    if (!taken_ && lock_.held()) unlink(place_.kept.c_str());
    taken_ = true;
}

void Keeper::flush() {
    timer_.stop();
    want();
    std::unique_lock hold(mutex_);
    idle_.wait(hold, [this] { return !busy_ && !wanted_; });
}
void Keeper::end() {
    takeAway();
    lock_.remove();
}

void Keeper::work(std::stop_token stop) {
    std::unique_lock hold(mutex_);
    while (wake_.wait(hold, stop, [this] { return wanted_ != nullptr; })) {
        const auto project = std::exchange(wanted_, nullptr);
        const auto place = wantedPlace_;
        const auto of = wantedOf_;
        busy_ = true;
        hold.unlock();
        const std::string why = formats::keep(place, of, formats::projectText(*project));
        hold.lock();
        busy_ = false;
        idle_.notify_all();
        if (!why.empty()) inbox_.hand([this, why] { emit failed(QString::fromStdString(why)); });
    }
}

}  // namespace talvik::app

// Keeps what is not saved, at most two seconds behind, off the window's thread; takes it away once it is
// saved or given up. Tells of another window on the same file.
#pragma once

#include <QObject>
#include <QTimer>
#include <condition_variable>
#include <mutex>
#include <optional>
#include <thread>

#include "document/inbox.h"
#include "formats/kept.h"

namespace talvik::app {

class Session;

class Keeper : public QObject {
    Q_OBJECT
  public:
    explicit Keeper(Session& session, QObject* parent = nullptr);
    ~Keeper() override;
    // What a run that did not end left of the file just opened; nothing where another window is at it.
    std::optional<formats::Kept> left() const;
    void forget(const formats::Kept& kept);  // it is taken, or not wanted
    bool alsoOpen() const { return also_; }  // another window has the file
    void flush();                            // what is not kept yet, at once
    void end();                              // a clean end: nothing stays
    const std::string& where() const { return place_.kept; }

  signals:
    void alsoOpened();
    void failed(const QString& sentence);

  private:
    Session& session_;
    QTimer timer_;
    formats::KeepingPlace place_;
    formats::Lock lock_;
    QString of_;
    bool also_ = false, begun_ = false;
    std::shared_ptr<const model::Project> wanted_;  // to be written by the thread; with its place
    formats::KeepingPlace wantedPlace_;
    std::string wantedOf_;
    bool busy_ = false, taken_ = false;
    std::mutex mutex_;
    std::condition_variable_any wake_, idle_;
    Inbox inbox_;
    std::jthread thread_;

    void follow();  // the session's path
    void want();
    void takeAway();
    void work(std::stop_token stop);
};

}  // namespace talvik::app

// Work on connections: which is in hand, walking from one to the next, and the edits that mouse and keys make
// of them. Plan, register and form work through it.
#pragma once

#include <QObject>

#include "document/session.h"

namespace talvik::app {

class ConnectionDesk : public QObject {
    Q_OBJECT
  public:
    using Steel = model::ConnectionChoice::Steel;
    explicit ConnectionDesk(Session& session, QObject* parent = nullptr)
        : QObject(parent), session_(session) {}

    Session& session() { return session_; }
    // Of the answer that is shown; empty without one.
    const std::vector<std::shared_ptr<const design::ConnectionDesign>>& all() const;
    const design::ConnectionDesign* inHand() const;
    void select(const std::string& key);
    std::string at(model::Point p, double reach) const;  // in plan; empty for none
    void walk(double dx, double dy);                     // to the nearest in a direction of the plan
    void next(int by);                                   // to the next by ratio, the worst first
    // Edits; each is one step of history.
    void setSteel(const std::vector<std::string>& keys, Steel steel);
    void setDiameter(const std::vector<std::string>& keys, double diameter);
    void setPinned(const std::vector<std::string>& keys, bool pinned);
    bool hasSize(const std::string& key) const;  // is that of a column, which might be made larger
    void turnSteel();                            // of the one in hand: none, studs, links
    QString loadStuds(const QString& path);      // the sentences that say why not
    static QString name(Steel steel);

  private:
    Session& session_;
};

}  // namespace talvik::app

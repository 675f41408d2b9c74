// The tools of each place of work: fields and tables beside the plan. One page per place; Checks has none.
#pragma once

#include <QStackedWidget>
#include <functional>

#include "model/edits.h"
#include "section/bar_desk.h"

class QFormLayout;
class QVBoxLayout;

namespace talvik::app {

// A page refreshes itself from the session without disturbing what the user types.
class TrayPage : public QWidget {
    Q_OBJECT
  public:
    TrayPage(Session& session, const QString& title, QWidget* parent = nullptr);
    virtual void refresh() = 0;

  signals:
    void refused(const QString& sentence);

  protected:
    // A labelled field for a quantity: `get` reads it, `set` makes the next project.
    void quantity(const QString& label, units::Kind kind, const QString& name, std::function<double()> get,
                  std::function<model::Project(double)> set);
    void choice(const QString& label, const QString& name, std::function<QStringList()> options,
                std::function<QString()> get, std::function<model::Project(const QString&)> set);
    void line(const QString& label, const QString& name, std::function<QString()> get,
              std::function<std::pair<model::Project, QString>(const QString&)> set);
    void flag(const QString& label, const QString& name, std::function<bool()> get,
              std::function<model::Project(bool)> set);
    void heading(const QString& text);
    void sentence(std::function<QString()> text);
    void refreshFields();
    // Edits of the slab in hand and of the basis, as functions of the change.
    template <class F>
    auto slabValue(F change) {
        return [this, change](const auto& value) {
            return model::editSlab(session_.base(), session_.slab()->id,
                                   [&](model::OneWaySlab& slab, model::Project&) { change(slab, value); });
        };
    }
    template <class F>
    auto basisValue(F change) {
        return [this, change](const auto& value) {
            model::Project next = session_.base();
            change(next.basis, value);
            return next;
        };
    }

    Session& session_;
    QVBoxLayout* column_;
    QFormLayout* form_ = nullptr;
    std::vector<std::function<void()>> refreshers_;

  private:
    QFormLayout* form();
};

class Tray : public QStackedWidget {
    Q_OBJECT
  public:
    Tray(Session& session, BarDesk& bars, QWidget* parent = nullptr);
    bool hasPage(Place place) const;
    void show(Place place);

  signals:
    void refused(const QString& sentence);
    void exportWanted(const QString& what);  // "all", "drawing", "schedule", "report"

  private:
    void add(Place place, TrayPage* page);
    Session& session_;
    std::map<Place, int> pages_;
};

TrayPage* basisPage(Session& session);
TrayPage* layoutPage(Session& session);
TrayPage* actionsPage(Session& session);
TrayPage* stripsPage(Session& session);
TrayPage* barsPage(Session& session, BarDesk& desk);
TrayPage* issuePage(Session& session, Tray& tray);

}  // namespace talvik::app

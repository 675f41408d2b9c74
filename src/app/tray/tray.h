// The tray: what you say. The tools of the place, and below them fields and tables of what is selected or
// drawn next; one page per place and kind of element. A place without a page has none.
#pragma once

#include <QStackedWidget>
#include <functional>

#include "board/floor_canvas.h"
#include "model/edits.h"
#include "section/bar_desk.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QPushButton;
class QToolButton;
class QVBoxLayout;

namespace talvik::app {

// What pages and tools work with.
struct Desks {
    Session& session;
    BarDesk& bars;
    FloorDesk& floor;
    StripDesk& strips;
    ConnectionDesk& connections;
    FloorCanvas& canvas;
};

// A page refreshes itself from the session without disturbing what the user types.
class TrayPage : public QWidget {
    Q_OBJECT
  public:
    TrayPage(Session& session, const QString& title, QWidget* parent = nullptr);
    virtual void refresh() = 0;

  signals:
    void refused(const QString& sentence);

  protected:
    // What is added from now on is shown where this holds alone; nothing: always.
    void shownWhile(std::function<bool()> condition) { condition_ = std::move(condition); }
    // A labelled field for a quantity: `get` reads it, `set` makes the next project. With `chosen` 0 means
    // that the program chooses, and the field is empty then with what it chose in grey.
    void quantity(const QString& label, units::Kind kind, const QString& name, std::function<double()> get,
                  std::function<model::Project(double)> set,
                  std::function<std::optional<double>()> chosen = {});
    void choice(const QString& label, const QString& name, std::function<QStringList()> options,
                std::function<QString()> get, std::function<model::Project(const QString&)> set);
    void line(const QString& label, const QString& name, std::function<QString()> get,
              std::function<std::pair<model::Project, QString>(const QString&)> set,
              const QString& hint = {});
    void flag(const QString& label, const QString& name, std::function<bool()> get,
              std::function<model::Project(bool)> set);
    void heading(const QString& text);
    void sentence(std::function<QString()> text);
    QPushButton* button(const QString& text, const QString& name, std::function<void()> call);
    // Head of a column of values: its name above the unit.
    QString head(const QString& name, units::Kind kind) const {
        return name + QLatin1Char('\n') + session_.unit(kind);
    }
    void refreshFields();
    // Edits of the slab or floor in hand and of the basis, as functions of the change.
    template <class F>
    auto slabValue(F change) {
        return [this, change](const auto& value) {
            return model::editSlab(session_.base(), session_.slab()->id,
                                   [&](model::OneWaySlab& slab, model::Project&) { change(slab, value); });
        };
    }
    template <class F>
    auto floorValue(F change) {
        return [this, change](const auto& value) {
            return model::editFloor(session_.base(), session_.floor()->id,
                                    [&](model::Floor& floor, model::Project&) { change(floor, value); });
        };
    }
    template <class F>
    auto basesValue(F change) {
        return [this, change](const auto& value) {
            return model::editBases(session_.base(), session_.bases()->id,
                                    [&](model::BaseSet& set, model::Project&) { change(set, value); });
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
    QLabel* title_;
    QFormLayout* form_ = nullptr;
    std::vector<std::function<void()>> refreshers_;

  private:
    QFormLayout* form();
    void row(QWidget* label, QWidget* field);
    // Shows and hides by the condition that holds for what is added now.
    void follow(std::vector<QWidget*> widgets);
    std::function<bool()> condition_;
};

class Tray : public QWidget {
    Q_OBJECT
  public:
    explicit Tray(const Desks& desks, QWidget* parent = nullptr);
    // Whether there is anything to say in a place for the element in hand.
    bool hasPage(Place place) const;
    void show(Place place);
    QWidget* page() const { return pages_->currentWidget(); }
    QString prompt() const;  // what the tool in hand waits for
    // What lines of equal value stand on the plan of a floor: a number of analysis::Field, 100 on for
    // required steel, 200 on for what the proof found, -1 for none.
    QComboBox& fields() { return *fields_; }
    QComboBox& combinations() { return *combinations_; }

  signals:
    void refused(const QString& sentence);
    void exportWanted(const QString& what);  // "issue", "drawing", "schedule", "report", "print"
    void economyWanted();
    void loadsWanted();  // columns with their loads from a table
    void templateWanted();  // a table of loads to fill in
    void loadsPasted();  // the same from the clipboard
    void checkWanted(const model::Spot& spot, const std::string& check);

  private:
    enum class Of { Any, Slab, Floor, Bases };
    void add(Place place, Of kind, TrayPage* page);
    int pageOf(Place place) const;
    void fillTools();
    void tool(const QString& text, const QString& name, std::function<bool()> on, std::function<void()> take);
    void refreshTools();
    void buildLines();
    void fillCombinations();
    void showLines();

    Desks d_;
    QStackedWidget* pages_;
    QWidget *tools_, *lines_;
    QLabel* prompt_;
    QComboBox *fields_, *combinations_;
    std::vector<std::pair<QToolButton*, std::function<bool()>>> on_;
    std::map<std::pair<Place, Of>, int> numbers_;
    std::map<Place, int> shownIn_;  // what lines were chosen in a place
};

TrayPage* basisPage(Session& session);
TrayPage* slabLayoutPage(Session& session);
TrayPage* basesLayoutPage(Session& session);
TrayPage* basesActionsPage(Session& session, Tray& tray);
TrayPage* slabActionsPage(Session& session);
TrayPage* slabStripPage(Session& session);
TrayPage* floorLayoutPage(FloorDesk& desk);
TrayPage* floorActionsPage(FloorDesk& desk);
TrayPage* floorStripsPage(const Desks& desks);
TrayPage* connectionsPage(ConnectionDesk& desk);
TrayPage* barsPage(Session& session, BarDesk& desk, Tray& tray);
TrayPage* issuePage(Session& session, Tray& tray);

}  // namespace talvik::app

// Work on design strips: what is shown and selected, and the edits that mouse and keys make of it. The plan
// and the long section draw from here.
#pragma once

#include <QObject>
#include <optional>

#include "section/bar_desk.h"
#include "strips/strip_edits.h"

namespace talvik::app {

enum class StripTool { Select, Split, Draw, Merge, Area };

class StripDesk : public QObject {
    Q_OBJECT
  public:
    StripDesk(Session& session, BarDesk& bars, QObject* parent = nullptr);

    // The strips of the floor as it is drawn now; those of the design may be an edit behind.
    const strips::StripLayout* layout() const;
    std::shared_ptr<const design::FloorDesign> design() const { return session_.floorDesign(); }

    int direction() const { return direction_; }
    void setDirection(int direction);
    StripTool tool() const { return tool_; }
    void setTool(StripTool tool);
    QString prompt() const;

    // The strip in hand: selected itself, or the one whose span, support or bars are. Null without.
    const strips::Strip* strip() const;
    const design::StripDesign* stripDesign() const;
    void select(const std::string& key);
    Spot spot(const std::string& strip, Spot::In in, const model::Id& part) const;  // of the floor in hand
    std::string stripAt(model::Point p) const;  // of the direction shown; empty for none
    void walk(int strips, int parts);           // to the next strip, to the next span or support within it
    void stepBack();

    // Edits; each is one step of history.
    void click(model::Point p, bool along);
    strips::EdgeOf edgeAt(model::Point p, double within) const;
    void dragEdge(const strips::EdgeOf& edge, model::Point to);
    void endDrag() { session_.endMerge(); }
    void typeOffset(const strips::EdgeOf& edge, double offset);
    const std::vector<model::Point>& points() const { return points_; }
    void finish();  // the outline under way
    void cancel();
    // Directions of strips and bars of the area in which the strip in hand lies; false where it lies in none.
    bool turnArea(double first, double second);
    void turn(double angle);
    void release();
    void setEnd(std::size_t span, int side, std::optional<model::EndCondition> condition);
    void setRules(const QString& text, const std::function<void(model::StripChoices&)>& change);

  signals:
    void anglesWanted();  // an area was drawn: which directions?
    void changed();       // tool, direction, points
    void said(const QString& sentence);

  private:
    bool edit(const QString& text, const std::function<std::string(model::Floor&, model::Project&)>& change,
              const QString& merge = {});
    Session& session_;
    BarDesk& bars_;
    int direction_ = 0;
    StripTool tool_ = StripTool::Select;
    std::vector<model::Point> points_;
    mutable strips::StripLayout layout_;
    mutable std::optional<model::Floor> layoutOf_;
    mutable const model::Floor* seen_ = nullptr;
    mutable std::string standard_;
};

}  // namespace talvik::app

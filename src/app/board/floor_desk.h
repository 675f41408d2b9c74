// The drawing board of a floor: the tool in hand, points drawn so far, what is selected, what the pointer
// catches, drawings below. Knows no widgets; the canvas sends it points in plan, mm, and paints what it says.
#pragma once

#include <QObject>
#include <thread>

#include "design/panel_depth.h"
#include "document/session.h"
#include "formats/dxf_reading.h"
#include "layout/connectivity.h"
#include "layout/properties.h"
#include "layout/snapping.h"

namespace talvik::app {

using layout::Ids;
using layout::Point;
using model::Id;

enum class Tool {
    Select,
    Column,
    Wall,
    Beam,
    Slab,
    Zone,
    Opening,
    LineSupport,
    Pile,
    SagLine,  // members
    AreaLoad,
    LineLoad,
    PointLoad,
    MomentLoad,  // actions
    Mirror,
    PlaceDrawing,
    PickLines  // with what is there
};

class FloorDesk : public QObject {
    Q_OBJECT
  public:
    explicit FloorDesk(Session& session, QObject* parent = nullptr);

    Session& session() { return session_; }
    const model::Floor* floor() const { return session_.floor(); }
    // Changes the floor in hand as one step of history; false when refused.
    bool edit(const QString& text, const std::function<void(model::Floor&, model::Project&)>& change,
              const QString& merge = {});

    Tool tool() const { return tool_; }
    void setTool(Tool tool);
    static QString name(Tool tool);
    static QString key(Tool tool);  // the letter that takes it in hand
    static std::optional<Tool> toolOf(const QString& key, Place place);
    static std::vector<Tool> tools(Place place);
    QString prompt() const;  // what to do next, in a sentence

    // The pointer, in plan. `radius`: reach of catching; `straight`: the straight-line key is down.
    void move(Point p, double radius, bool straight);
    void click(Point p, double radius, bool straight, bool add);
    void doubleClick(Point p, double radius);
    // A box drawn with a tool: selects, places members on the grid, or draws a rectangle.
    void box(Point a, Point b, double radius, bool add);
    bool
    onWholeGrid();  // columns, slabs or beams on all of it; false where there is none, or with another tool
    void finish();  // the outline under way
    void cancel();  // points, then the tool, then the selection
    void back();    // the last point
    // Figures typed while drawing.
    const QString& typed() const { return typed_; }
    void type(const QString& text);
    void enterTyped();

    const std::vector<Point>& points() const { return points_; }
    Point pointer() const { return pointer_; }  // caught
    const std::optional<layout::Snap>& caught() const { return caught_; }
    QString hovered() const { return hovered_; }

    const std::set<Id>& selection() const { return selection_; }
    void select(std::set<Id> ids);
    int side() const { return side_; }  // of the one selected outline, -1 for none
    void setSide(int side);
    void removeSelection();
    void nudge(double dx, double dy);
    void drag(const Id& id, int handle, Point to, double radius,
              bool straight);  // handle -1: the whole selection
    void endDrag();
    bool dragging() const { return dragIndex_.has_value(); }  // what follows from the floor waits for the end
    void copySelection(Point by, int times);
    void repeatSelection(bool along, bool across);
    void splitSelection();
    void offset(double distance);  // the side, or all sides, of the selected outline outwards
    void arc(double rise);         // the side becomes an arc that rises outwards by so much; 0: straight

    // Members to be drawn next: one of each kind, with these ids.
    const model::Floor& next() const { return next_; }
    Id nextId() const;  // of the tool in hand; empty for none
    void setNext(const std::string& key, const layout::Value& value);
    Id loadCase() const;  // of loads to be drawn
    void setLoadCase(const Id& id);

    // What follows from the floor, worked out once per change.
    const std::vector<layout::Panel>& panels();
    const std::vector<design::PanelDepth>& depths();
    void mend(const layout::LooseEnd& end);

    // Drawings below the plan.
    void openDrawing(const QString& path);
    bool reading() const { return reading_; }
    double readingShare() const { return readingShare_; }
    void stopReading() { reader_.request_stop(); }
    const layout::Linework* linework(const Id& underlay) const;
    const std::vector<layout::Segment>& below();  // of shown layers, in plan
    const std::vector<int>& picked() const { return picked_; }
    void makeOf(const std::vector<int>& paths, layout::As as);
    std::vector<int> pathsOn(const std::set<std::string>& layers) const;

  signals:
    void changed();
    void pointed();  // only the pointer moved, and what it catches
    void said(const QString& sentence);
    void removed(const QString& what);  // with what it carried

  private:
    Session& session_;
    Tool tool_ = Tool::Select;
    std::vector<Point> points_;
    Point raw_, pointer_;
    bool straight_ = false;
    std::optional<layout::Snap> caught_;
    QString typed_, hovered_;
    std::set<Id> selection_;
    int side_ = -1, dragSerial_ = 0;
    model::Floor next_;
    std::string begunFor_;  // the standard whose starting values it has
    void begin();
    Id loadCase_;
    const model::Floor* seen_ = nullptr;
    std::shared_ptr<const model::Floor> kept_;
    std::optional<layout::SnapIndex> index_, dragIndex_;  // the second without the member being dragged
    std::optional<std::vector<layout::Panel>> panels_;
    std::optional<std::vector<design::PanelDepth>> depths_;
    std::map<std::string, std::shared_ptr<const layout::Linework>> linework_;  // by file name
    std::optional<std::vector<layout::Segment>> below_;
    std::vector<int> picked_;
    bool reading_ = false;
    double readingShare_ = 0;
    std::set<std::string> failed_;
    Inbox inbox_;
    std::jthread reader_;

    void refresh();
    layout::SnapIndex& index();
    Point take(Point p, double radius, bool straight);
    void addPoint(Point p);
    bool outlineTool() const;
    bool lineTool() const;
    void putOutline(model::Outline outline);
    void putLine(Point a, Point b);
    void putPoint(Point p);
    void readDrawing(const std::string& name, const QString& path, bool place);
    QString resolved(const std::string& name) const;
};

}  // namespace talvik::app

#include "board/floor_desk.h"

#include <QDir>
#include <QFileInfo>
#include <cmath>

#include "catalogs/catalogs.h"
#include "model/edits.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

struct ToolFacts {
    Tool tool;
    const char *name, *key;
    bool actions;
};
constexpr ToolFacts facts[] = {{Tool::Select, QT_TR_NOOP("Select"), "S", false},
                               {Tool::Slab, QT_TR_NOOP("Slab"), "A", false},
                               {Tool::Opening, QT_TR_NOOP("Opening"), "O", false},
                               {Tool::Zone, QT_TR_NOOP("Thickness zone"), "Z", false},
                               {Tool::Column, QT_TR_NOOP("Column"), "C", false},
                               {Tool::Wall, QT_TR_NOOP("Wall"), "W", false},
                               {Tool::Beam, QT_TR_NOOP("Beam"), "B", false},
                               {Tool::LineSupport, QT_TR_NOOP("Line support"), "E", false},
                               {Tool::Pile, QT_TR_NOOP("Pile"), "I", false},
                               {Tool::SagLine, QT_TR_NOOP("Deflection limit"), "L", false},
                               {Tool::AreaLoad, QT_TR_NOOP("Area load"), "A", true},
                               {Tool::LineLoad, QT_TR_NOOP("Line load"), "L", true},
                               {Tool::PointLoad, QT_TR_NOOP("Point load"), "P", true},
                               {Tool::MomentLoad, QT_TR_NOOP("Moment"), "M", true},
                               {Tool::Mirror, QT_TR_NOOP("Mirror"), "", false},
                               {Tool::PlaceDrawing, QT_TR_NOOP("Place the drawing"), "", false},
                               {Tool::PickLines, QT_TR_NOOP("Pick lines"), "", false}};
const ToolFacts& factsOf(Tool tool) {
    for (const auto& f : facts)
        if (f.tool == tool) return f;
    return facts[0];
}

}  // namespace

FloorDesk::FloorDesk(Session& session, QObject* parent) : QObject(parent), session_(session) {
    begin();
    connect(&session_, &Session::changed, this, &FloorDesk::refresh);
    connect(&session_, &Session::placeChanged, this, [this] { setTool(Tool::Select); });
    // Another project begins anew, by its own standard.
    connect(&session_, &Session::fileChanged, this, [this] {
        if (session_.project().basis.standard != begunFor_) begin();
    });
    refresh();
}

// What is drawn next has what its standard begins with.
void FloorDesk::begin() {
    begunFor_ = session_.project().basis.standard;
    const auto& v = catalogs::startingValues(begunFor_);
    next_ = {};
    auto one = [](auto& list, const char* id) {
        list.resize(1);
        list[0].id = id;
    };
    one(next_.columns, "column");
    one(next_.walls, "wall");
    one(next_.beams, "beam");
    one(next_.slabs, "slab");
    one(next_.zones, "zone");
    one(next_.openings, "opening");
    one(next_.edges, "edge");
    one(next_.piles, "pile");
    one(next_.sagLines, "sag");
    using K = model::FloorLoad::Kind;
    for (auto [id, kind, value] : {std::tuple{"area", K::Area, v.areaLoad},
                                   {"line", K::Line, v.lineLoad},
                                   {"point", K::Point, v.pointLoad},
                                   {"moment", K::Moment, 10e6}}) {
        model::FloorLoad l;
        l.id = id, l.kind = kind, l.value = value;
        if (kind == K::Point) l.width = l.depth = v.footprint;
        next_.actions.loads.push_back(l);
    }
    auto& c = next_.columns[0];
    c.width = c.depth = v.column, c.heightBelow = c.heightAbove = v.storey;
    next_.walls[0].thickness = v.wall, next_.walls[0].height = v.storey;
    next_.beams[0].width = v.beamWidth, next_.beams[0].depth = v.beamDepth;
    next_.slabs[0].thickness = v.floorSlab, next_.zones[0].thickness = v.zone;
}

bool FloorDesk::edit(const QString& text, const std::function<void(model::Floor&, model::Project&)>& change,
                     const QString& merge) {
    const auto* f = floor();
    if (!f) return false;
    auto next = model::editFloor(session_.base(), f->id, [&](model::Floor& floor, model::Project& project) {
        change(floor, project);
        layout::roundPlaces(floor);
    });
    return session_.apply(text, std::move(next), merge);
}

void FloorDesk::refresh() {
    const auto* f = floor();
    if (f == seen_) return;
    bool same = f && kept_ && kept_->id == f->id;
    seen_ = f;
    kept_ = nullptr;
    for (const auto& row : session_.project().floors)
        if (row.get() == f) kept_ = row;
    index_.reset();
    panels_.reset();
    depths_.reset();
    below_.reset();
    if (!same) {
        points_.clear();
        selection_.clear();
        tool_ = Tool::Select;
        loadCase_.clear();
    }
    if (f) {
        // What was undone away is no longer selected.
        std::set<Id> there;
        model::eachMember(*f, [&](const std::string&, const auto& m) { there.insert(m.id); });
        std::erase_if(selection_, [&](const Id& id) { return !there.contains(id); });
        if (selection_.size() != 1) side_ = -1;
        for (const auto& u : f->underlays)
            if (!linework_.contains(u.name) && !failed_.contains(u.name) && !reading_)
                readDrawing(u.name, resolved(u.name), false);
    }
    emit changed();
}

QString FloorDesk::name(Tool tool) {
    return tr(factsOf(tool).name);
}
QString FloorDesk::key(Tool tool) {
    return QString::fromLatin1(factsOf(tool).key);
}
std::vector<Tool> FloorDesk::tools(Place place) {
    std::vector<Tool> all{Tool::Select};
    if (place == Place::Layout || place == Place::Actions)
        for (const auto& f : facts)
            if (f.tool != Tool::Select && *f.key && f.actions == (place == Place::Actions))
                all.push_back(f.tool);
    return all;
}
std::optional<Tool> FloorDesk::toolOf(const QString& key, Place place) {
    for (Tool t : tools(place))
        if (FloorDesk::key(t) == key.toUpper()) return t;
    return {};
}

void FloorDesk::setTool(Tool tool) {
    tool_ = tool;
    points_.clear();
    typed_.clear();
    picked_.clear();
    caught_.reset();
    if (tool != Tool::Select && tool != Tool::Mirror) selection_.clear();
    side_ = -1;
    emit changed();
}

bool FloorDesk::outlineTool() const {
    return tool_ == Tool::Slab || tool_ == Tool::Zone || tool_ == Tool::Opening || tool_ == Tool::AreaLoad;
}
bool FloorDesk::lineTool() const {
    return tool_ == Tool::Wall || tool_ == Tool::Beam || tool_ == Tool::LineSupport ||
           tool_ == Tool::SagLine || tool_ == Tool::LineLoad || tool_ == Tool::Mirror;
}

QString FloorDesk::prompt() const {
    if (!floor()) return {};
    bool gridded = !floor()->grids.empty();
    switch (tool_) {
        case Tool::Select:
            if (floor()->slabs.empty() && !floor()->underlays.empty())
                return tr(
                    "Place the drawing by two points, assign its layers in the table, then make members.");
            if (floor()->slabs.empty() && floor()->grids.empty() && floor()->columns.empty())
                return tr(
                    "An empty floor. Type spacings for a grid above, open a drawing below it, or press "
                    "A and "
                    "draw the slab's outline.");
            return selection_.empty() ? tr("Click to select, drag a box for many, Shift adds. Wheel zooms, "
                                           "middle button pans.")
                                      : tr("Drag or arrow keys move, Delete removes, Esc deselects.");
        case Tool::Column:
        case Tool::Pile:
            return gridded && tool_ == Tool::Column
                       ? tr("Click for one column, or drag a box: a column on every grid crossing in it; G "
                            "on all.")
                       : tr("Click where it stands, or type coordinates such as 3.2, 4.5.");
        case Tool::Slab:
        case Tool::Zone:
        case Tool::Opening:
        case Tool::AreaLoad:
            if (points_.empty())
                return tool_ == Tool::Slab && gridded ? tr("Click the first corner, or drag a box over grid "
                                                           "bays: a slab on each; G on all.")
                       : tool_ == Tool::AreaLoad      ? tr("Click the first corner, drag a rectangle, or "
                                                                "double-click a panel to load all of it.")
                                                      : tr("Click the first corner, or drag a rectangle.");
            return points_.size() < 3 ? tr("Next corner: click, or type a length, 6.5<90, or coordinates. "
                                           "Shift keeps straight.")
                                      : tr("Next corner; Enter or a click on the first closes.");
        case Tool::Beam:
            if (points_.empty() && gridded)
                return tr(
                    "Click the start, or drag a box over grid bays: beams along their sides; G on all.");
            [[fallthrough]];
        case Tool::Wall:
        case Tool::LineSupport:
        case Tool::SagLine:
        case Tool::LineLoad:
            return points_.empty()
                       ? tr("Click the start, or type coordinates.")
                       : tr("Click the end, or type a length, 6.5<90, or coordinates. Shift keeps straight.");
        case Tool::PointLoad:
        case Tool::MomentLoad:
            return tr("Click where it acts, or type coordinates.");
        case Tool::Mirror:
            return points_.empty() ? tr("Click one point of the line to mirror in.")
                                   : tr("Click its other point.");
        case Tool::PlaceDrawing: {
            const QString steps[] = {
                tr("Click a point of the drawing."), tr("Click or type where that point lies in plan."),
                tr("Click a second point of the drawing."), tr("Click or type where that lies.")};
            return steps[std::min<std::size_t>(points_.size(), 3)];
        }
        case Tool::PickLines:
            return tr("Click lines of the drawing, then choose on the left what they become. %1 picked.")
                .arg(picked_.size());
    }
    return {};
}

layout::SnapIndex& FloorDesk::index() {
    if (!index_) index_.emplace(*floor(), below());
    return *index_;
}

Point FloorDesk::take(Point p, double radius, bool straight) {
    raw_ = p;
    straight_ = straight;
    caught_.reset();
    std::optional<Point> from;
    if (!points_.empty()) from = points_.back();
    if (from && tool_ == Tool::PlaceDrawing) from.reset();
    if (tool_ == Tool::Select || tool_ == Tool::PickLines) return pointer_ = p;
    index().setPending(points_);
    caught_ = index().snap(p, radius, from);
    if (straight && from) {
        // On the straight line; what is caught gives the distance along it.
        Point q = layout::straight(*floor(), *from, caught_ ? caught_->at : p);
        if (caught_ && geometry::length(q, caught_->at) > 0.5) caught_.reset();
        return pointer_ = q;
    }
    return pointer_ = caught_ ? caught_->at : p;
}

void FloorDesk::move(Point p, double radius, bool straight) {
    if (!floor()) return;
    take(p, radius, straight);
    hovered_.clear();
    if (tool_ == Tool::Select) {
        Id id = layout::hit(*floor(), p, radius / 2);
        if (!id.empty()) hovered_ = qs(layout::displayName(*floor(), id));
    }
    emit pointed();
}

void FloorDesk::click(Point p, double radius, bool straight, bool add) {
    const auto* f = floor();
    if (!f) return;
    if (tool_ == Tool::Select) {
        auto under = layout::hits(*f, p, radius / 2);
        // Loads are picked where they are drawn.
        if (session_.place() != Place::Actions)
            std::erase_if(under, [&](const Id& id) {
                for (const auto& l : f->actions.loads)
                    if (l.id == id) return true;
                return false;
            });
        Id id = under.empty() ? Id() : under.front();
        // A second click on the one selected takes what lies below it.
        if (!add && selection_.size() == 1 && under.size() > 1 && under.front() == *selection_.begin() &&
            side_ < 0 && !layout::outlineOf(*f, under.front()))
            id = under[1];
        if (!id.empty() && !add && selection_ == std::set{id}) {
            // On an edge of the selected outline: that side.
            side_ = -1;
            if (const auto* o = layout::outlineOf(*f, id))
                for (std::size_t i = 0; i < o->size(); ++i) {
                    Point a{(*o)[i].x, (*o)[i].y},
                        b{(*o)[(i + 1) % o->size()].x, (*o)[(i + 1) % o->size()].y};
                    if (geometry::distance(p, a, b) < radius) side_ = int(i);
                }
            emit changed();
            return;
        }
        side_ = -1;
        if (add && !id.empty()) {
            if (!selection_.erase(id)) selection_.insert(id);
        } else if (!add) {
            selection_ = id.empty() ? std::set<Id>{} : std::set{id};
        }
        emit changed();
        return;
    }
    if (tool_ == Tool::PickLines) {
        if (f->underlays.empty()) return;
        const auto& u = f->underlays.front();
        const auto* work = linework(u.id);
        int path = work ? layout::pathAt(*work, u, p, radius) : -1;
        if (path >= 0) {
            if (auto found = std::find(picked_.begin(), picked_.end(), path); found != picked_.end())
                picked_.erase(found);
            else
                picked_.push_back(path);
        }
        emit changed();
        return;
    }
    addPoint(take(p, radius, straight));
}

void FloorDesk::doubleClick(Point p, double) {
    if (tool_ == Tool::AreaLoad && points_.size() <= 1)
        for (const auto& panel : panels())
            if (geometry::contains(panel.outline, p)) {
                points_.clear();
                model::Outline o;
                for (Point q : panel.outline) o.push_back({q.x, q.y});
                putOutline(std::move(o));
                return;
            }
    if (outlineTool() && points_.size() > 2) finish();
}

void FloorDesk::addPoint(Point p) {
    typed_.clear();
    if (tool_ == Tool::Column || tool_ == Tool::Pile || tool_ == Tool::PointLoad || tool_ == Tool::MomentLoad)
        return putPoint(p);
    if (outlineTool() && points_.size() > 2 && geometry::length(points_.front(), p) < 1) return finish();
    if (!points_.empty() && tool_ != Tool::PlaceDrawing && geometry::length(points_.back(), p) < 1) return;
    points_.push_back(p);
    if (lineTool() && points_.size() == 2) {
        Point a = points_[0], b = points_[1];
        if (tool_ == Tool::Mirror) {
            auto ids = selection_;
            edit(tr("Mirror"), [&](model::Floor& f, model::Project& project) {
                auto made = layout::mirror(project, f, ids, a, b);
                selection_ = {made.begin(), made.end()};
            });
            tool_ = Tool::Select;
            points_.clear();
        } else {
            points_.clear();
            putLine(a, b);
        }
    }
    if (tool_ == Tool::PlaceDrawing && points_.size() == 4) {
        auto pts = points_;
        edit(tr("Place the drawing"), [&](model::Floor& f, model::Project&) {
            if (!f.underlays.empty())
                layout::placeByTwoPoints(f.underlays.front(), pts[0], pts[2], pts[1], pts[3]);
        });
        setTool(Tool::Select);
    }
    emit changed();
}

void FloorDesk::finish() {
    if (!outlineTool() || points_.size() < 3) return;
    model::Outline o;
    for (Point p : points_) o.push_back({p.x, p.y});
    points_.clear();
    putOutline(std::move(o));
    emit changed();
}

Id FloorDesk::loadCase() const {
    const auto* f = floor();
    if (!f) return {};
    for (const auto& c : f->actions.cases)
        if (c.id == loadCase_) return c.id;
    for (const auto& c : f->actions.cases)
        if (c.nature != model::LoadCase::Nature::SelfWeight) return c.id;
    return {};
}
void FloorDesk::setLoadCase(const Id& id) {
    loadCase_ = id;
    emit changed();
}

Id FloorDesk::nextId() const {
    switch (tool_) {
        case Tool::Column:
            return "column";
        case Tool::Wall:
            return "wall";
        case Tool::Beam:
            return "beam";
        case Tool::Slab:
            return "slab";
        case Tool::Zone:
            return "zone";
        case Tool::Opening:
            return "opening";
        case Tool::LineSupport:
            return "edge";
        case Tool::Pile:
            return "pile";
        case Tool::SagLine:
            return "sag";
        case Tool::AreaLoad:
            return "area";
        case Tool::LineLoad:
            return "line";
        case Tool::PointLoad:
            return "point";
        case Tool::MomentLoad:
            return "moment";
        default:
            return {};
    }
}
void FloorDesk::setNext(const std::string& key, const layout::Value& value) {
    layout::setProperty(next_, {nextId()}, key, value);
    emit changed();
}

void FloorDesk::putOutline(model::Outline o) {
    edit(name(tool_), [&](model::Floor& f, model::Project& project) {
        if (tool_ == Tool::Slab) {
            auto m = next_.slabs[0];
            m.outline = o;
            layout::add(project, f, m);
        } else if (tool_ == Tool::Zone) {
            auto m = next_.zones[0];
            m.outline = o;
            layout::add(project, f, m);
        } else if (tool_ == Tool::Opening) {
            auto m = next_.openings[0];
            m.outline = o;
            layout::add(project, f, m);
        } else {
            auto m = next_.actions.loads[0];
            m.outline = o;
            m.loadCase = loadCase();
            layout::add(project, f, m);
        }
    });
}
void FloorDesk::putLine(Point a, Point b) {
    edit(name(tool_), [&](model::Floor& f, model::Project& project) {
        auto put = [&](auto m) {
            m.a = a, m.b = b;
            layout::add(project, f, m);
        };
        if (tool_ == Tool::Wall) put(next_.walls[0]);
        if (tool_ == Tool::Beam) put(next_.beams[0]);
        if (tool_ == Tool::LineSupport) put(next_.edges[0]);
        if (tool_ == Tool::SagLine) put(next_.sagLines[0]);
        if (tool_ == Tool::LineLoad) {
            auto m = next_.actions.loads[1];
            m.loadCase = loadCase();
            put(m);
        }
    });
}
void FloorDesk::putPoint(Point p) {
    edit(name(tool_), [&](model::Floor& f, model::Project& project) {
        if (tool_ == Tool::Column) {
            auto m = next_.columns[0];
            m.x = p.x, m.y = p.y;
            layout::add(project, f, m);
        } else if (tool_ == Tool::Pile) {
            auto m = next_.piles[0];
            m.x = p.x, m.y = p.y;
            layout::add(project, f, m);
        } else {
            auto m = next_.actions.loads[tool_ == Tool::PointLoad ? 2 : 3];
            m.a = p;
            m.loadCase = loadCase();
            layout::add(project, f, m);
        }
    });
}

void FloorDesk::box(Point a, Point b, double radius, bool add) {
    const auto* f = floor();
    if (!f) return;
    layout::Box area{a, b};
    Ids made;
    switch (tool_) {
        case Tool::Select: {
            // From left to right what lies inside, from right to left also what it crosses.
            auto found = layout::inside(*f, area, b.x < a.x);
            std::erase_if(found, [&](const Id& id) {
                bool load = false;
                for (const auto& l : f->actions.loads) load |= l.id == id;
                return load != (session_.place() == Place::Actions);
            });
            if (add) found.insert(selection_.begin(), selection_.end());
            side_ = -1;
            selection_ = std::move(found);
            break;
        }
        case Tool::Column:
            edit(tr("Columns on the grid"), [&](model::Floor& g, model::Project& p) {
                made = layout::placeColumns(p, g, area, next_.columns[0]);
            });
            emit said(made.empty() ? tr("No free grid crossing lies in the box.")
                                   : tr("%1 columns placed.").arg(made.size()));
            break;
        case Tool::Beam:
            edit(tr("Beams on bays"), [&](model::Floor& g, model::Project& p) {
                made = layout::placeBeams(p, g, area, next_.beams[0]);
            });
            emit said(made.empty() ? tr("The middle of no grid bay lies in the box.")
                                   : tr("%1 beams placed.").arg(made.size()));
            break;
        case Tool::Slab:
            edit(tr("Slabs on bays"), [&](model::Floor& g, model::Project& p) {
                made = layout::placePanels(p, g, area, next_.slabs[0]);
            });
            if (!made.empty()) {
                emit said(tr("%1 slabs placed.").arg(made.size()));
                break;
            }
            [[fallthrough]];
        case Tool::Zone:
        case Tool::Opening:
        case Tool::AreaLoad: {
            points_.clear();
            Point p = take(a, radius, false), q = take(b, radius, false);
            if (std::abs(p.x - q.x) > 50 && std::abs(p.y - q.y) > 50) putOutline(layout::rectangle(p, q));
            break;
        }
        default: {
            // Pressed, drawn and let go: a line.
            Point p = take(a, radius, straight_);
            if (points_.empty()) addPoint(p);
            addPoint(take(b, radius, straight_));
        }
    }
    emit changed();
}

bool FloorDesk::onWholeGrid() {
    if (!floor() || floor()->grids.empty() || !points_.empty()) return false;
    if (tool_ != Tool::Column && tool_ != Tool::Slab && tool_ != Tool::Beam) return false;
    // A metre more than the grid, for lines that end at its crossings.
    layout::Box all{{1e300, 1e300}, {-1e300, -1e300}};
    for (const auto& c : layout::crossings(*floor())) {
        all.a = {std::min(all.a.x, c.at.x - 1000), std::min(all.a.y, c.at.y - 1000)};
        all.b = {std::max(all.b.x, c.at.x + 1000), std::max(all.b.y, c.at.y + 1000)};
    }
    box(all.a, all.b, 1, false);
    return true;
}

void FloorDesk::cancel() {
    if (!typed_.isEmpty())
        typed_.clear();
    else if (!points_.empty())
        points_.clear();
    else if (tool_ != Tool::Select)
        return setTool(Tool::Select);
    else if (side_ >= 0)
        side_ = -1;
    else
        selection_.clear();
    emit changed();
}
void FloorDesk::back() {
    if (!typed_.isEmpty())
        typed_.chop(1);
    else if (!points_.empty())
        points_.pop_back();
    emit changed();
}
void FloorDesk::type(const QString& text) {
    typed_ += text;
    emit changed();
}
void FloorDesk::enterTyped() {
    if (typed_.isEmpty()) return finish();
    std::optional<Point> from;
    if (!points_.empty()) from = points_.back();
    auto typed = layout::typedPoint(typed_.toStdString(), from, pointer_, session_.project().basis.units);
    if (!typed.at) return emit said(qs(typed.error));
    addPoint(*typed.at);
    emit changed();
}

void FloorDesk::select(std::set<Id> ids) {
    selection_ = std::move(ids);
    side_ = -1;
    if (tool_ != Tool::Select) tool_ = Tool::Select, points_.clear();
    emit changed();
}
void FloorDesk::setSide(int side) {
    side_ = side;
    emit changed();
}
void FloorDesk::removeSelection() {
    if (selection_.empty()) return;
    const auto ids = selection_;
    if (edit(tr("Remove"), [&](model::Floor& f, model::Project&) { layout::remove(f, ids); }))
        emit removed(ids.size() == 1 ? tr("One member is removed.")
                                     : tr("%1 members are removed.").arg(ids.size()));
}
void FloorDesk::nudge(double dx, double dy) {
    auto ids = selection_;
    edit(
        tr("Move"),
        [&](model::Floor& f, model::Project&) {
            layout::move(f, ids, {dx, dy});
        },
        QStringLiteral("nudge"));
}
void FloorDesk::drag(const Id& id, int handle, Point to, double radius, bool straight) {
    if (!floor()) return;
    Point target = to;
    if (!dragIndex_) {
        session_.holdMatters(true);
        dragIndex_.emplace(*floor(), below(), id);
    }
    caught_ = dragIndex_->snap(to, radius);
    if (caught_) target = caught_->at;
    auto corners = layout::handles(*floor(), id);
    if (corners.empty()) return;
    Point from = corners[std::size_t(std::max(handle, 0))];
    if (straight && !caught_) target = layout::straight(*floor(), from, to);
    pointer_ = target;
    QString merge = QStringLiteral("drag%1").arg(dragSerial_);
    auto ids = selection_;
    ids.insert(id);
    edit(
        tr("Move"),
        [&](model::Floor& f, model::Project&) {
            if (handle >= 0)
                layout::setHandle(f, id, std::size_t(handle), target);
            else
                layout::move(f, ids, {target.x - from.x, target.y - from.y});
        },
        merge);
}
void FloorDesk::endDrag() {
    ++dragSerial_;
    dragIndex_.reset();
    session_.holdMatters(false);
    caught_.reset();
    session_.endMerge();
    emit changed();
}
void FloorDesk::copySelection(Point by, int times) {
    auto ids = selection_;
    Ids made;
    if (edit(tr("Copy"),
             [&](model::Floor& f, model::Project& p) { made = layout::copy(p, f, ids, by, times); }))
        select({made.begin(), made.end()});
}
void FloorDesk::repeatSelection(bool along, bool across) {
    auto ids = selection_;
    Ids made;
    edit(tr("Repeat along the grid"), [&](model::Floor& f, model::Project& p) {
        made = layout::repeatAlongGrid(p, f, ids, along, across);
    });
    emit said(tr("%1 members made.").arg(made.size()));
}
void FloorDesk::splitSelection() {
    auto ids = selection_;
    std::size_t pieces = 0;
    edit(tr("Split at supports"), [&](model::Floor& f, model::Project& p) {
        for (const Id& id : ids) pieces += layout::splitBeam(p, f, id).size();
    });
    emit said(pieces ? tr("Split into %1 pieces.").arg(pieces)
                     : tr("Nothing crosses it: there is nothing to split at."));
}
void FloorDesk::offset(double distance) {
    if (selection_.size() != 1 || !floor()) return;
    Id id = *selection_.begin();
    const auto* o = layout::outlineOf(*floor(), id);
    if (!o) return;
    auto moved = layout::offsetSide(*o, side_, distance);
    if (moved.empty())
        return emit said(tr("That is not possible: a side would be reversed, or it is an arc."));
    edit(tr("Offset"), [&](model::Floor& f, model::Project&) { *layout::outlineOf(f, id) = moved; });
}

void FloorDesk::arc(double rise) {
    if (selection_.size() != 1 || side_ < 0 || !floor())
        return emit said(tr("Click a side of the outline first."));
    Id id = *selection_.begin();
    edit(tr("Arc"), [&](model::Floor& f, model::Project&) {
        auto& o = *layout::outlineOf(f, id);
        auto &a = o[std::size_t(side_)], &b = o[(std::size_t(side_) + 1) % o.size()];
        double chord = std::hypot(b.x - a.x, b.y - a.y);
        geometry::Ring plain;
        for (const auto& c : o) plain.push_back({c.x, c.y});
        // The tangent of a quarter of the angle is twice the rise over the chord; outwards lies to the right
        // of a side that runs anticlockwise, which is the side an anticlockwise turn bulges to.
        if (chord > 0) a.bulge = (geometry::area(plain) >= 0 ? 1 : -1) * 2 * rise / chord;
    });
}

const std::vector<layout::Panel>& FloorDesk::panels() {
    if (!panels_) panels_ = floor() ? layout::findPanels(*floor()) : std::vector<layout::Panel>{};
    return *panels_;
}
const std::vector<design::PanelDepth>& FloorDesk::depths() {
    if (!depths_) {
        depths_.emplace();
        auto standard =
            standards::makeStandard(session_.project().basis.standard, session_.project().basis.parameters);
        if (floor() && standard)
            depths_ = design::panelDepths(session_.project(), *floor(), panels(), *standard);
        else
            depths_->resize(panels().size());
    }
    return *depths_;
}
void FloorDesk::mend(const layout::LooseEnd& end) {
    if (!end.apply) return;
    const auto e = end;  // the edit makes what stands open anew
    edit(qs(e.mend), [&](model::Floor& f, model::Project& p) { e.apply(p, f); });
}

QString FloorDesk::resolved(const std::string& name) const {
    QFileInfo file(qs(name));
    if (file.isAbsolute() || session_.path().isEmpty()) return file.filePath();
    return QFileInfo(session_.path()).dir().filePath(qs(name));
}
void FloorDesk::openDrawing(const QString& path) {
    if (!floor()) return;
    std::string name = path.toStdString();
    if (!session_.path().isEmpty()) {
        QString relative = QFileInfo(session_.path()).dir().relativeFilePath(path);
        if (!relative.startsWith(QLatin1String(".."))) name = relative.toStdString();
    }
    failed_.erase(name);
    readDrawing(name, path, true);
}
void FloorDesk::readDrawing(const std::string& name, const QString& path, bool place) {
    reading_ = true;
    readingShare_ = 0;
    reader_ = std::jthread([this, name, path, place](std::stop_token stop) {
        auto progress = [this](double share) {
            inbox_.hand([this, share] { readingShare_ = share, emit changed(); });
        };
        auto read =
            std::make_shared<formats::ReadLinework>(formats::openDxf(path.toStdString(), progress, stop));
        inbox_.hand([this, name, place, read] {
            reading_ = false;
            if (!read->error.empty()) {
                failed_.insert(name);
                emit said(qs(read->error));
                return emit changed();
            }
            auto work = std::make_shared<const layout::Linework>(std::move(read->work));
            linework_[name] = work;
            index_.reset();
            below_.reset();
            if (place)
                edit(tr("Drawing below"), [&](model::Floor& f, model::Project& p) {
                    auto u = layout::placeAsDrawn(*work, name);
                    u.id = newId(p, 'u');
                    f.underlays = {u};
                });
            QString text = tr("%1 lines on %2 layers read").arg(work->paths.size()).arg(work->layers.size());
            int out = 0;
            QStringList what;
            for (const auto& [kind, n] : work->unread) {
                out += n;
                if (what.size() < 6) what << QStringLiteral("%1 × %2").arg(n).arg(qs(kind));
            }
            if (out) text += tr("; left out: %1").arg(what.join(QLatin1String(", ")));
            if (!work->unitKnown)
                text += tr("; the drawing names no unit, lengths were taken as millimetres");
            for (const auto& n : work->notes) text += QStringLiteral("; ") + qs(n);
            if (place || out || !read->cut.empty()) emit said(text + QLatin1Char('.'));
            emit changed();
        });
    });
}
const layout::Linework* FloorDesk::linework(const Id& underlay) const {
    if (const auto* f = floor())
        for (const auto& u : f->underlays)
            if (u.id == underlay)
                if (auto found = linework_.find(u.name); found != linework_.end()) return found->second.get();
    return nullptr;
}
const std::vector<layout::Segment>& FloorDesk::below() {
    if (!below_) {
        below_.emplace();
        if (const auto* f = floor())
            for (const auto& u : f->underlays)
                if (const auto* work = linework(u.id)) {
                    auto more = layout::segments(*work, u);
                    below_->insert(below_->end(), more.begin(), more.end());
                }
    }
    return *below_;
}
std::vector<int> FloorDesk::pathsOn(const std::set<std::string>& layers) const {
    std::vector<int> all;
    const auto* f = floor();
    const auto* work = f && !f->underlays.empty() ? linework(f->underlays.front().id) : nullptr;
    if (work)
        for (std::size_t i = 0; i < work->paths.size(); ++i)
            if (layers.contains(work->layers[std::size_t(work->paths[i].layer)])) all.push_back(int(i));
    return all;
}
void FloorDesk::makeOf(const std::vector<int>& paths, layout::As as) {
    const auto* f = floor();
    const auto* work = f && !f->underlays.empty() ? linework(f->underlays.front().id) : nullptr;
    if (!work) return;
    std::vector<std::string> notes;
    Ids made;
    bool good = edit(tr("Make members of the drawing"), [&](model::Floor& floor, model::Project& project) {
        made = layout::make(project, floor, *work, floor.underlays.front(), paths, as, loadCase(), notes);
        // They take the properties set for the tool, all but where they lie and what the drawing shows.
        auto like = [&](const char* id, std::initializer_list<const char*> keys) {
            for (const auto& p : layout::properties(next_, id))
                for (const char* k : keys)
                    if (p.key == k) layout::setProperty(floor, {made.begin(), made.end()}, k, p.value);
        };
        if (as == layout::As::Slab) like("slab", {"thickness"});
        if (as == layout::As::Zone) like("zone", {"thickness", "level"});
        if (as == layout::As::Column)
            like("column", {"below", "above", "heightBelow", "heightAbove", "farEndsFixed", "bearing"});
        if (as == layout::As::Wall) like("wall", {"height", "stiff"});
        if (as == layout::As::Beam) like("beam", {"depth", "upstand", "torsion"});
        if (as == layout::As::AreaLoad) like("area", {"value"});
        if (as == layout::As::LineLoad) like("line", {"value"});
    });
    QString text = tr("%1 made.").arg(made.size());
    for (std::size_t i = 0; i < notes.size() && i < 4; ++i) text += QLatin1Char(' ') + qs(notes[i]);
    emit said(text);
    picked_.clear();
    if (good) select({made.begin(), made.end()});
}

}  // namespace talvik::app

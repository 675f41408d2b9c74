#include "floor/layout_side.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "floor/property_form.h"
#include "tray/table.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

QLabel* heading(const QString& text) {
    auto* label = new QLabel(text);
    label->setFont(uiFont(12, QFont::DemiBold));
    label->setContentsMargins(0, 6, 0, 0);
    return label;
}
const std::vector<std::pair<const char*, layout::As>> kinds{
    {QT_TRANSLATE_NOOP("LayoutSide", "slab"), layout::As::Slab},
    {QT_TRANSLATE_NOOP("LayoutSide", "opening"), layout::As::Opening},
    {QT_TRANSLATE_NOOP("LayoutSide", "thickness zone"), layout::As::Zone},
    {QT_TRANSLATE_NOOP("LayoutSide", "column"), layout::As::Column},
    {QT_TRANSLATE_NOOP("LayoutSide", "wall"), layout::As::Wall},
    {QT_TRANSLATE_NOOP("LayoutSide", "beam"), layout::As::Beam},
    {QT_TRANSLATE_NOOP("LayoutSide", "line support"), layout::As::LineSupport},
    {QT_TRANSLATE_NOOP("LayoutSide", "area load"), layout::As::AreaLoad},
    {QT_TRANSLATE_NOOP("LayoutSide", "line load"), layout::As::LineLoad},
    {QT_TRANSLATE_NOOP("LayoutSide", "grid"), layout::As::Grid}};

}  // namespace

LayoutSide::LayoutSide(FloorDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      title_(new QLabel),
      note_(new QLabel),
      form_(new PropertyForm),
      selectionTools_(new QWidget),
      floorPart_(new QWidget),
      offsetRow_(new QWidget),
      arcRow_(new QWidget),
      loose_(new QTextBrowser),
      drawingPart_(new QWidget),
      openDrawing_(new QPushButton(tr("Open a DXF drawing below…"))),
      place_(new QPushButton(tr("Place by two points"))),
      pick_(new QPushButton(tr("Pick lines"))),
      make_(new QPushButton(tr("Make members"))),
      makeAs_(new QComboBox),
      layers_(new TrayTable({tr("Layer"), tr("Lines"), tr("Shown"), tr("Becomes")}, {0, 44, 54, 112},
                            {{2, {tr("yes"), tr("no")}},
                             {3,
                              [] {
                                  QStringList all{QStringLiteral("–")};
                                  for (const auto& [name, as] : kinds) all << QString::fromLatin1(name);
                                  return all;
                              }()}})),
      progress_(new QProgressBar),
      stop_(new QPushButton(tr("Stop"))) {
    askDrawing = [this] {
        return QFileDialog::getOpenFileName(this, tr("Drawing below the plan"), {},
                                            tr("Drawings (*.dxf *.DXF)"));
    };
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 10, 12, 12);
    column->setSpacing(6);
    title_->setFont(uiFont(15, QFont::DemiBold));
    column->addWidget(title_);
    note_->setWordWrap(true);
    QPalette faint = note_->palette();
    faint.setColor(QPalette::WindowText, theme().secondary);
    note_->setPalette(faint);
    column->addWidget(note_);
    column->addWidget(form_);

    // What can be done with a selection.
    auto* tools = new QVBoxLayout(selectionTools_);
    tools->setContentsMargins(0, 0, 0, 0);
    tools->setSpacing(4);
    auto field = [&](const QString& name, const QString& hint) {
        auto* edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(hint);
        edit->setAccessibleName(hint);
        return edit;
    };
    auto button = [&](const QString& text, const QString& name, auto call) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        connect(b, &QPushButton::clicked, this, call);
        return b;
    };
    tools->addWidget(heading(tr("Copy, mirror, repeat")));
    copyBy_ = field(QStringLiteral("copyBy"), tr("by x, y or x, y, times"));
    auto* copyRow = new QHBoxLayout;
    copyRow->addWidget(copyBy_, 1);
    copyRow->addWidget(button(tr("Copy"), QStringLiteral("copy"), [this] {
        QStringList parts = copyBy_->text().split(QLatin1Char(','));
        auto system = desk_.session().project().basis.units;
        auto value = [&](int i) {
            return units::parse(parts.value(i).trimmed().toStdString(), units::Kind::Span, system).value;
        };
        bool good = parts.size() == 2 || parts.size() == 3;
        int times = parts.size() == 3 ? parts[2].trimmed().toInt(&good) : 1;
        if (!good || !value(0) || !value(1) || times < 1 || times > 1000)
            return void(emit desk_.said(
                tr("Give the distance as x, y and, if more than one, how often: 3.0, 0, 2.")));
        desk_.copySelection({*value(0), *value(1)}, times);
    }));
    tools->addLayout(copyRow);
    auto* row = new QHBoxLayout;
    row->addWidget(button(tr("Mirror"), QStringLiteral("mirror"), [this] {
        desk_.setTool(Tool::Mirror);
        setFocus();
    }));
    row->addWidget(button(tr("Repeat along row"), QStringLiteral("repeatRow"),
                          [this] { desk_.repeatSelection(true, false); }));
    row->addWidget(button(tr("On all crossings"), QStringLiteral("repeatAll"),
                          [this] { desk_.repeatSelection(true, true); }));
    tools->addLayout(row);
    tools->addWidget(
        button(tr("Split beams at supports"), QStringLiteral("split"), [this] { desk_.splitSelection(); }));
    auto* offsetLine = new QHBoxLayout(offsetRow_);
    offsetLine->setContentsMargins(0, 0, 0, 0);
    offsetBy_ = field(QStringLiteral("offsetBy"), tr("outwards by"));
    offsetLine->addWidget(offsetBy_, 1);
    offsetLine->addWidget(button(tr("Move side or all sides"), QStringLiteral("offset"), [this] {
        auto v = units::parse(offsetBy_->text().toStdString(), units::Kind::Span,
                              desk_.session().project().basis.units);
        if (!v.value) return void(emit desk_.said(qs(v.error)));
        desk_.offset(*v.value);
    }));
    tools->addWidget(offsetRow_);
    auto* arcLine = new QHBoxLayout(arcRow_);
    arcLine->setContentsMargins(0, 0, 0, 0);
    arcBy_ = field(QStringLiteral("arcBy"), tr("rise outwards, 0 for straight"));
    arcLine->addWidget(arcBy_, 1);
    arcLine->addWidget(button(tr("Make the side an arc"), QStringLiteral("arc"), [this] {
        auto v = units::parse(arcBy_->text().toStdString(), units::Kind::Span,
                              desk_.session().project().basis.units);
        if (!v.value) return void(emit desk_.said(qs(v.error)));
        desk_.arc(*v.value);
    }));
    tools->addWidget(arcRow_);
    column->addWidget(selectionTools_);

    // The floor, with nothing selected.
    auto* floorColumn = new QVBoxLayout(floorPart_);
    floorColumn->setContentsMargins(0, 0, 0, 0);
    floorColumn->setSpacing(4);
    auto* grid = new QFormLayout;
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setVerticalSpacing(4);
    auto line = [&](QLineEdit*& edit, const QString& name, const QString& label, const QString& hint,
                    std::function<void(const QString&)> take) {
        edit = field(name, hint);
        edit->setAccessibleName(label);
        connect(edit, &QLineEdit::editingFinished, this, [edit, take] {
            if (!edit->isModified()) return;
            edit->setModified(false);
            take(edit->text().trimmed());
        });
        grid->addRow(label, edit);
    };
    line(name_, QStringLiteral("floorName"), tr("Floor"), tr("name"), [this](const QString& text) {
        if (text.isEmpty()) return void(emit desk_.said(tr("A floor needs a name.")));
        desk_.edit(tr("Name"), [&](model::Floor& f, model::Project&) { f.name = text.toStdString(); });
    });
    auto spacing = [this](bool along) {
        return [this, along](const QString& text) {
            setGrid(tr("Grid"), [&](model::Grid& g) -> QString {
                auto list = units::parseSpacingList(text.toStdString(), units::Kind::Span,
                                                    desk_.session().project().basis.units, 200);
                if (!list.error.empty()) return qs(list.error);
                (along ? g.along : g.across) = list.values;
                return {};
            });
        };
    };
    line(along_, QStringLiteral("gridAlong"), tr("Grid 1, 2, 3 …"), tr("spacings, such as 5@6.0 4.5"),
         spacing(true));
    line(across_, QStringLiteral("gridAcross"), tr("Grid A, B, C …"), tr("spacings, such as 2@6.2"),
         spacing(false));
    auto number = [this](units::Kind kind, double model::Grid::*member) {
        return [this, kind, member](const QString& text) {
            setGrid(tr("Grid"), [&](model::Grid& g) -> QString {
                auto v = units::parse(text.toStdString(), kind, desk_.session().project().basis.units);
                if (!v.value) return qs(v.error);
                g.*member = *v.value;
                return {};
            });
        };
    };
    auto origin = [this](bool x) {
        return [this, x](const QString& text) {
            setGrid(tr("Grid"), [&](model::Grid& g) -> QString {
                auto v = units::parse(text.toStdString(), units::Kind::Span,
                                      desk_.session().project().basis.units);
                if (!v.value) return qs(v.error);
                (x ? g.origin.x : g.origin.y) = *v.value;
                return {};
            });
        };
    };
    line(originX_, QStringLiteral("gridX"), tr("Crossing A1 at x"), QStringLiteral("0"), origin(true));
    line(originY_, QStringLiteral("gridY"), tr("and y"), QStringLiteral("0"), origin(false));
    line(angle_, QStringLiteral("gridAngle"), tr("Turned by, °"), QStringLiteral("0"),
         number(units::Kind::Angle, &model::Grid::angle));
    line(between_, QStringLiteral("gridBetween"), tr("Angle between, °"), QStringLiteral("90"),
         number(units::Kind::Angle, &model::Grid::between));
    floorColumn->addLayout(grid);
    floorColumn->addWidget(heading(tr("Not joined, not held")));
    loose_->setFrameShape(QFrame::NoFrame);
    loose_->setOpenLinks(false);
    loose_->setObjectName(QStringLiteral("looseEnds"));
    loose_->setFont(uiFont(12));
    loose_->setMinimumHeight(90);
    loose_->setStyleSheet(QStringLiteral("background:transparent"));
    connect(loose_, &QTextBrowser::anchorClicked, this, [this](const QUrl& url) {
        std::size_t i = url.path().toULongLong();
        if (url.scheme() == QLatin1String("mend")) return desk_.mend(i);
        if (i < desk_.looseEnds().size()) {
            auto e = desk_.looseEnds()[i];
            emit showWanted(e.at.x, e.at.y);
            desk_.select(
                {e.ids.begin(), e.ids.begin() + std::min<std::ptrdiff_t>(1, std::ptrdiff_t(e.ids.size()))});
        }
    });
    floorColumn->addWidget(loose_, 1);
    column->addWidget(floorPart_, 1);

    auto* drawing = new QVBoxLayout(drawingPart_);
    drawing->setContentsMargins(0, 0, 0, 0);
    drawing->setSpacing(4);
    drawing->addWidget(heading(tr("Drawing below")));
    openDrawing_->setObjectName(QStringLiteral("openDrawing"));
    drawing->addWidget(openDrawing_);
    auto* reading = new QHBoxLayout;
    progress_->setRange(0, 1000);
    progress_->setTextVisible(false);
    progress_->setMaximumHeight(8);
    reading->addWidget(progress_, 1);
    reading->addWidget(stop_);
    drawing->addLayout(reading);
    layers_->setReadOnly({0, 1});
    layers_->setObjectName(QStringLiteral("layers"));
    drawing->addWidget(layers_);
    auto* drawingRow = new QHBoxLayout;
    place_->setObjectName(QStringLiteral("placeDrawing"));
    pick_->setObjectName(QStringLiteral("pickLines"));
    make_->setObjectName(QStringLiteral("makeMembers"));
    makeAs_->setObjectName(QStringLiteral("makeAs"));
    for (const auto& [name, as] : kinds) makeAs_->addItem(QString::fromLatin1(name), int(as));
    drawingRow->addWidget(place_);
    drawingRow->addWidget(pick_);
    drawing->addLayout(drawingRow);
    auto* makeRow = new QHBoxLayout;
    makeRow->addWidget(makeAs_, 1);
    makeRow->addWidget(make_);
    drawing->addLayout(makeRow);
    column->addWidget(drawingPart_);
    column->addStretch(0);

    connect(openDrawing_, &QPushButton::clicked, this, [this] {
        if (QString path = askDrawing(); !path.isEmpty()) desk_.openDrawing(path);
    });
    connect(stop_, &QPushButton::clicked, this, [this] { desk_.stopReading(); });
    connect(place_, &QPushButton::clicked, this, [this] { desk_.setTool(Tool::PlaceDrawing); });
    connect(pick_, &QPushButton::clicked, this, [this] { desk_.setTool(Tool::PickLines); });
    connect(make_, &QPushButton::clicked, this, &LayoutSide::makeFromLayers);
    connect(layers_, &TrayTable::edited, this, [this](int r, int c, const QString& text) {
        const auto* f = desk_.floor();
        if (!f || f->underlays.empty() || r < 0) return;
        const auto* work = desk_.linework(f->underlays.front().id);
        if (!work || r >= int(work->layers.size())) return;
        if (c == 3) {
            becomes_.resize(work->layers.size());
            becomes_[std::size_t(r)] = text == QStringLiteral("–") ? QString() : text;
            return refreshDrawing();
        }
        std::string layer = work->layers[std::size_t(r)];
        desk_.edit(tr("Layers shown"), [&](model::Floor& floor, model::Project&) {
            auto& hidden = floor.underlays.front().hidden;
            std::erase(hidden, layer);
            if (text == tr("no")) hidden.push_back(layer);
        });
    });
    connect(form_, &PropertyForm::changed, this, [this](const std::string& key, const layout::Value& value) {
        if (!desk_.nextId().empty()) return desk_.setNext(key, value);
        auto ids = desk_.selection();
        desk_.edit(tr("Change"),
                   [&](model::Floor& f, model::Project&) { layout::setProperty(f, ids, key, value); });
    });
    connect(form_, &PropertyForm::refused, &desk_, &FloorDesk::said);
    connect(&desk_, &FloorDesk::changed, this, &LayoutSide::refresh);
    refresh();
}

void LayoutSide::setGrid(const QString& what, const std::function<QString(model::Grid&)>& change) {
    const auto* f = desk_.floor();
    if (!f) return;
    model::Grid g = f->grids.empty() ? model::Grid{} : f->grids.front();
    QString why = change(g);
    if (!why.isEmpty()) {
        emit desk_.said(why);
        return refreshFloor();
    }
    desk_.edit(what, [&](model::Floor& floor, model::Project& project) {
        if (floor.grids.empty())
            layout::add(project, floor, g);
        else
            floor.grids.front() = g;
    });
}

void LayoutSide::makeFromLayers() {
    if (desk_.tool() == Tool::PickLines) {
        if (desk_.picked().empty()) return void(emit desk_.said(tr("Pick lines of the drawing first.")));
        return desk_.makeOf(desk_.picked(), layout::As(makeAs_->currentData().toInt()));
    }
    const auto* f = desk_.floor();
    const auto* work = f && !f->underlays.empty() ? desk_.linework(f->underlays.front().id) : nullptr;
    if (!work) return;
    bool any = false;
    // The grid first, so that columns are named after it.
    auto order = kinds;
    std::rotate(order.begin(), order.end() - 1, order.end());
    for (const auto& [name, as] : order) {
        std::set<std::string> layers;
        for (std::size_t i = 0; i < becomes_.size() && i < work->layers.size(); ++i)
            if (becomes_[i] == QLatin1String(name)) layers.insert(work->layers[i]);
        if (layers.empty()) continue;
        any = true;
        desk_.makeOf(desk_.pathsOn(layers), as);
        if (!desk_.floor()) return;
        f = desk_.floor();
        work = f->underlays.empty() ? nullptr : desk_.linework(f->underlays.front().id);
        if (!work) return;
    }
    if (!any) return void(emit desk_.said(tr("Say in the table above what the layers become.")));
    becomes_.assign(becomes_.size(), QString());
    desk_.select({});
}

void LayoutSide::refresh() {
    const auto* f = desk_.floor();
    if (!f || desk_.dragging()) return;
    auto system = desk_.session().project().basis.units;
    bool drawingNext = !desk_.nextId().empty();
    const auto& chosen = desk_.selection();
    std::set<std::string> mixed;
    std::vector<layout::Property> properties;
    if (drawingNext) {
        title_->setText(tr("Next: %1").arg(FloorDesk::name(desk_.tool()).toLower()));
        note_->setText(tr("What is drawn next has these."));
        properties = layout::properties(desk_.next(), desk_.nextId());
        std::erase_if(properties, [](const auto& p) {
            for (const char* k : {"name", "x", "y", "ax", "ay", "bx", "by", "length"})
                if (p.key == k) return true;
            return false;
        });
    } else if (!chosen.empty()) {
        title_->setText(chosen.size() == 1 ? qs(layout::displayName(*f, *chosen.begin()))
                                           : tr("%1 members").arg(chosen.size()));
        properties = layout::commonProperties(*f, chosen, &mixed);
        QString note;
        if (chosen.size() == 1) {
            if (const auto* o = layout::outlineOf(*f, *chosen.begin())) {
                note = tr("%1, %2 corners. Click a side, then move it; double-click a length to type it.")
                           .arg(desk_.session().text(std::abs(geometry::area(model::ring(*o))),
                                                     units::Kind::PlanArea))
                           .arg(o->size());
            }
        } else {
            note = tr("What they share; a value typed here is given to all.");
        }
        note_->setText(note);
    } else {
        title_->setText(tr("Layout"));
        note_->setText(QString());
    }
    note_->setVisible(!note_->text().isEmpty());
    form_->show(properties, mixed, system);
    form_->setVisible(!properties.empty());
    selectionTools_->setVisible(!chosen.empty() && !drawingNext);
    offsetRow_->setVisible(chosen.size() == 1 && layout::outlineOf(*f, *chosen.begin()));
    arcRow_->setVisible(desk_.side() >= 0);
    bool nothing = chosen.empty() && !drawingNext;
    floorPart_->setVisible(nothing);
    drawingPart_->setVisible(nothing);
    if (nothing) {
        refreshFloor();
        refreshDrawing();
    }
}

void LayoutSide::refreshFloor() {
    const auto& session = desk_.session();
    const auto* f = desk_.floor();
    auto system = session.project().basis.units;
    auto put = [](QLineEdit* edit, const QString& text) {
        if (!(edit->hasFocus() && edit->isModified())) edit->setText(text);
    };
    put(name_, qs(f->name));
    const model::Grid g = f->grids.empty() ? model::Grid{} : f->grids.front();
    put(along_, qs(units::spacingList(g.along, units::Kind::Span, system)));
    put(across_, qs(units::spacingList(g.across, units::Kind::Span, system)));
    put(originX_, session.number(g.origin.x, units::Kind::Span));
    put(originY_, session.number(g.origin.y, units::Kind::Span));
    put(angle_, QString::number(g.angle));
    put(between_, QString::number(g.between));
    const auto& ends = desk_.looseEnds();
    QString html;
    for (std::size_t i = 0; i < ends.size() && i < 40; ++i) {
        const auto& e = ends[i];
        html += QStringLiteral(
                    "<p style='margin:2px 0 6px 0'><span style='color:%1'>%2</span> <a href='show:%3'>%4</a>")
                    .arg((e.prevents ? theme().over : theme().ink).name(), qs(e.message).toHtmlEscaped())
                    .arg(i)
                    .arg(tr("show"));
        if (e.apply)
            html += QStringLiteral(" · <a href='mend:%1'>%2</a>").arg(i).arg(qs(e.mend).toHtmlEscaped());
        html += QStringLiteral("</p>");
    }
    if (ends.size() > 40) html += tr("<p>… and %1 more.</p>").arg(ends.size() - 40);
    if (ends.empty())
        html = f->slabs.empty() ? tr("No slab yet.") : tr("Everything drawn is joined and held.");
    if (html != looseShown_) looseShown_ = html, loose_->setHtml(html);
}

void LayoutSide::refreshDrawing() {
    const auto* f = desk_.floor();
    progress_->setVisible(desk_.reading());
    stop_->setVisible(desk_.reading());
    progress_->setValue(int(1000 * desk_.readingShare()));
    const auto* work = f && !f->underlays.empty() ? desk_.linework(f->underlays.front().id) : nullptr;
    for (QWidget* w :
         {static_cast<QWidget*>(layers_), static_cast<QWidget*>(place_), static_cast<QWidget*>(pick_),
          static_cast<QWidget*>(make_), static_cast<QWidget*>(makeAs_)})
        w->setVisible(work);
    makeAs_->setVisible(work && desk_.tool() == Tool::PickLines);
    openDrawing_->setText(work ? tr("Another DXF drawing below…") : tr("Open a DXF drawing below…"));
    if (!work) return;
    becomes_.resize(work->layers.size());
    std::vector<int> count(work->layers.size(), 0);
    for (const auto& p : work->paths) ++count[std::size_t(p.layer)];
    std::vector<QStringList> rows;
    const auto& hidden = f->underlays.front().hidden;
    for (std::size_t i = 0; i < work->layers.size(); ++i)
        rows.push_back(
            {qs(work->layers[i]), QString::number(count[i]),
             std::find(hidden.begin(), hidden.end(), work->layers[i]) == hidden.end() ? tr("yes") : tr("no"),
             becomes_[i].isEmpty() ? QStringLiteral("–") : becomes_[i]});
    layers_->show(rows);
}

}  // namespace talvik::app

#include "tray/drawing_below.h"

#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QProgressBar>
#include <QPushButton>

#include "tray/table.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

const std::vector<std::pair<const char*, layout::As>> kinds{
    {QT_TRANSLATE_NOOP("DrawingBelow", "slab"), layout::As::Slab},
    {QT_TRANSLATE_NOOP("DrawingBelow", "opening"), layout::As::Opening},
    {QT_TRANSLATE_NOOP("DrawingBelow", "thickness zone"), layout::As::Zone},
    {QT_TRANSLATE_NOOP("DrawingBelow", "column"), layout::As::Column},
    {QT_TRANSLATE_NOOP("DrawingBelow", "wall"), layout::As::Wall},
    {QT_TRANSLATE_NOOP("DrawingBelow", "beam"), layout::As::Beam},
    {QT_TRANSLATE_NOOP("DrawingBelow", "line support"), layout::As::LineSupport},
    {QT_TRANSLATE_NOOP("DrawingBelow", "area load"), layout::As::AreaLoad},
    {QT_TRANSLATE_NOOP("DrawingBelow", "line load"), layout::As::LineLoad},
    {QT_TRANSLATE_NOOP("DrawingBelow", "grid"), layout::As::Grid}};

QStringList kindNames() {
    QStringList all{QStringLiteral("–")};
    for (const auto& [name, as] : kinds) all << QString::fromLatin1(name);
    return all;
}

}  // namespace

DrawingBelow::DrawingBelow(FloorDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      openDrawing_(new QPushButton),
      place_(new QPushButton(tr("Place by two points"))),
      pick_(new QPushButton(tr("Pick lines"))),
      make_(new QPushButton(tr("Make members"))),
      stop_(new QPushButton(tr("Stop"))),
      makeAs_(new QComboBox),
      layers_(new TrayTable({tr("Layer"), tr("Lines"), tr("Shown"), tr("Becomes")}, {0, 42, 52, 100},
                            {{2, {tr("yes"), tr("no")}}, {3, kindNames()}})),
      progress_(new QProgressBar) {
    setObjectName(QStringLiteral("drawingBelow"));
    askDrawing = [this] {
        return QFileDialog::getOpenFileName(this, tr("Drawing below the plan"), {},
                                            tr("Drawings (*.dxf *.DXF)"));
    };
    openDrawing_->setObjectName(QStringLiteral("openDrawing"));
    place_->setObjectName(QStringLiteral("placeDrawing"));
    pick_->setObjectName(QStringLiteral("pickLines"));
    make_->setObjectName(QStringLiteral("makeMembers"));
    makeAs_->setObjectName(QStringLiteral("makeAs"));
    makeAs_->setAccessibleName(tr("Picked lines become"));
    layers_->setObjectName(QStringLiteral("layers"));
    layers_->setReadOnly({0, 1});
    for (const auto& [name, as] : kinds) makeAs_->addItem(QString::fromLatin1(name), int(as));
    progress_->setRange(0, 1000);
    progress_->setTextVisible(false);
    progress_->setMaximumHeight(8);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    auto row = [&](std::initializer_list<QWidget*> widgets) {
        auto* line = new QHBoxLayout;
        for (auto* w : widgets) line->addWidget(w, 1);
        column->addLayout(line);
    };
    column->addWidget(openDrawing_);
    row({progress_, stop_});
    column->addWidget(layers_);
    row({place_, pick_});
    row({makeAs_, make_});

    connect(openDrawing_, &QPushButton::clicked, this, [this] {
        if (QString path = askDrawing(); !path.isEmpty()) desk_.openDrawing(path);
    });
    connect(stop_, &QPushButton::clicked, this, [this] { desk_.stopReading(); });
    connect(place_, &QPushButton::clicked, this, [this] { desk_.setTool(Tool::PlaceDrawing); });
    connect(pick_, &QPushButton::clicked, this, [this] { desk_.setTool(Tool::PickLines); });
    connect(make_, &QPushButton::clicked, this, &DrawingBelow::makeFromLayers);
    connect(layers_, &TrayTable::edited, this, [this](int r, int c, const QString& text) {
        const auto* f = desk_.floor();
        if (!f || f->underlays.empty() || r < 0) return;
        const auto* work = desk_.linework(f->underlays.front().id);
        if (!work || r >= int(work->layers.size())) return;
        if (c == 3) {
            becomes_.resize(work->layers.size());
            becomes_[std::size_t(r)] = text == QStringLiteral("–") ? QString() : text;
            return refresh();
        }
        std::string layer = work->layers[std::size_t(r)];
        desk_.edit(tr("Layers shown"), [&](model::Floor& floor, model::Project&) {
            auto& hidden = floor.underlays.front().hidden;
            std::erase(hidden, layer);
            if (text == tr("no")) hidden.push_back(layer);
        });
    });
}

void DrawingBelow::makeFromLayers() {
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
    if (!any) return void(emit desk_.said(tr("Choose in the table above what the layers become.")));
    becomes_.assign(becomes_.size(), QString());
    desk_.select({});
}

void DrawingBelow::refresh() {
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

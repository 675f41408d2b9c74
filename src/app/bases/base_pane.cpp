#include "bases/base_pane.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "formats/dxf.h"
#include "model/edits.h"
#include "paper/paper.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using design::Alternative;
using design::BasePart;
using geometry::Point;
using units::Kind;

constexpr int headHeight = 30;

QColor colourOf(const drawing::BarStroke& s) {
    using enum drawing::BarStroke::Kind;
    return s.kind == AlongX                         ? theme().barsX
           : s.kind == AlongY || s.kind == Slanting ? theme().barsY
                                                    : theme().structure;
}

}  // namespace

BasePane::BasePane(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      modes_(new QButtonGroup(this)),
      measure_(new QComboBox),
      save_(new QPushButton(tr("Save…"))) {
    setObjectName(QStringLiteral("basePane"));
    setAccessibleName(tr("The selected base"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumSize(240, 120);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(8, 3, 8, 0);
    head->setSpacing(2);
    const QString names[] = {tr("x"), tr("y"), tr("Cage"), tr("Sizes"), tr("Types")};
    const QString tips[] = {
        tr("Section along x, with the pressure below"), tr("Section along y, with the pressure below"),
        tr("All bars in three dimensions; drag to turn"), tr("Adequate sizes by cost; click one to fix it"),
        tr("Total cost against number of types; click to select a number")};
    for (int k = 0; k < 5; ++k) {
        auto* b = new QToolButton;
        b->setText(names[k]);
        b->setToolTip(tips[k]);
        b->setCheckable(true);
        b->setAutoRaise(true);
        b->setAccessibleName(tips[k]);
        b->setObjectName(QStringLiteral("baseShows%1").arg(k));
        modes_->addButton(b, k);
        head->addWidget(b);
    }
    modes_->button(0)->setChecked(true);
    head->addStretch();
    measure_->addItems({tr("cost"), tr("carbon")});
    measure_->setObjectName(QStringLiteral("baseMeasure"));
    measure_->setAccessibleName(tr("Measured by"));
    save_->setObjectName(QStringLiteral("saveBasePicture"));
    save_->setToolTip(tr("This picture as a drawing: SVG, PDF or DXF"));
    auto* foot = new QHBoxLayout;
    foot->setContentsMargins(8, 0, 8, 4);
    foot->addStretch();
    foot->addWidget(measure_);
    foot->addWidget(save_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addLayout(head);
    column->addStretch();
    column->addLayout(foot);
    connect(modes_, &QButtonGroup::idClicked, this, [this](int id) { show(Shows(id)); });
    connect(measure_, &QComboBox::currentIndexChanged, this, qOverload<>(&QWidget::update));
    connect(save_, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(
            this, tr("Save the picture"), QStringLiteral("base.svg"), tr("Drawings (*.svg *.pdf *.dxf)"));
        if (path.isEmpty()) return;
        if (const QString why = savePicture(path); !why.isEmpty()) emit said(why);
    });
    for (auto signal : {&Session::answered, &Session::selectionChanged, &Session::changed})
        connect(&session, signal, this, &BasePane::refresh);
    refresh();
}

BasePane::~BasePane() = default;

void BasePane::show(Shows what) {
    shows_ = what;
    modes_->button(int(what))->setChecked(true);
    hover_ = -1;
    refresh();
}

std::shared_ptr<const BasePart> BasePane::held() const {
    const auto answer = session_.basesDesign();
    const auto* own = session_.baseInHand();
    if (answer && own)
        for (const auto& b : answer->bases)
            if (b.get() == own) return b;
    return nullptr;
}

void BasePane::refresh() {
    const bool drawn = shows_ == Shows::AlongX || shows_ == Shows::AlongY || shows_ == Shows::Cage;
    save_->setVisible(drawn && session_.baseInHand());
    measure_->setVisible(shows_ == Shows::Sizes);
    if (shows_ == Shows::Sizes && isVisible()) seekSizes();
    update();
}

const std::vector<bases::Laid>& BasePane::bars(const BasePart& base) const {
    const auto now = held();
    if (!barsOf_ || barsOf_ != now) {
        barsOf_ = now;
        bars_ = session_.basesAnswer()->laid(base);
    }
    return bars_;
}

// Found aside; dots of another state are dropped when they come.
void BasePane::seekSizes() {
    const auto base = held();
    if (!base || base == sizesOf_) return;
    sizesOf_ = base;
    sizes_.clear();
    hover_ = -1;
    seeking_ = true;
    seek_ = std::jthread([this, base, answer = session_.basesDesign()](std::stop_token stop) {
        auto found = design::alternatives(*answer, *base, stop);
        if (stop.stop_requested()) return;
        inbox_.hand([this, base, found = std::move(found)]() mutable {
            if (base != sizesOf_) return;
            sizes_ = std::move(found);
            seeking_ = false;
            update();
        });
    });
}

double BasePane::worth(const Alternative& a) const {
    return measure_->currentIndex() == 0 ? a.cost : a.carbon;
}

QString BasePane::savePicture(const QString& path) const {
    const auto* base = session_.baseInHand();
    const auto* answer = session_.basesAnswer();
    if (!base || !answer) return tr("No base is selected; click one on the plan.");
    const double across = std::max(base->size().B, base->size().L);
    drawing::BaseFigure f = shows_ == Shows::Cage
                                ? drawing::baseCage(*answer, *base, view_, across / 120)
                                : drawing::baseSection(*answer, *base, shows_ == Shows::AlongY ? 1 : 0,
                                                       across / 120, session_.project().basis.units);
    f.sheet.width = f.width, f.sheet.height = f.height;
    const std::string to = path.toStdString();
    const QString ending = path.section(QLatin1Char('.'), -1).toLower();
    if (ending == QLatin1String("svg")) return qs(paper::writeSvg(to, f.sheet));
    if (ending == QLatin1String("pdf")) return qs(paper::writePdf(to, {f.sheet}));
    if (ending == QLatin1String("dxf")) return qs(formats::writeDxf(to, f.sheet));
    return tr("The picture can be saved as .svg, .pdf or .dxf; \"%1\" ends otherwise.").arg(path);
}

void BasePane::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().paper);
    p.setRenderHint(QPainter::Antialiasing);
    points_.clear();
    if (!session_.bases()) return;
    if (shows_ == Shows::Types) return paintTypes(p);
    const auto* base = session_.baseInHand();
    p.setFont(uiFont(12));
    p.setPen(theme().secondary);
    if (!base) {
        p.drawText(rect().adjusted(16, headHeight, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("No base is selected. Click one on the plan, or use the arrow keys.\nThis shows its "
                      "section, reinforcement and bearing pressure; its cage; its adequate sizes."));
        return;
    }
    p.setPen(theme().selection);
    p.setFont(uiFont(13, QFont::DemiBold));
    p.drawText(QPointF(14, headHeight + 16), tr("%1 · type %2").arg(qs(base->name), qs(base->type)));
    if (shows_ == Shows::Cage)
        paintCage(p, *base);
    else if (shows_ == Shows::Sizes)
        paintSizes(p);
    else
        paintSection(p, *base, shows_ == Shows::AlongY ? 1 : 0);
    if (hasFocus()) paintFocus(p, *this);
}

void BasePane::strokes(QPainter& p, const std::vector<drawing::BarStroke>& all, double perMm,
                       const std::function<QPointF(Point)>& at) const {
    for (const auto& s : all) {
        if (s.dot) {
            const double r = std::max(1.8, s.diameter / 2 * perMm);
            p.setPen(Qt::NoPen);
            p.setBrush(colourOf(s));
            p.drawEllipse(at(s.line.front()), r, r);
            continue;
        }
        p.setPen(QPen(colourOf(s), std::max(1.2, s.diameter * perMm)));
        p.setBrush(Qt::NoBrush);
        QPolygonF line;
        for (Point q : s.line) line << at(q);
        p.drawPolyline(line);
    }
}

void BasePane::paintSection(QPainter& p, const BasePart& base, int axis) {
    const auto* answer = session_.basesAnswer();
    const auto& set = *answer->set;
    const auto& s = base.size();
    const auto& row = set.bases[base.number];
    const auto outline = drawing::sectionOutline(base, axis);
    const double wide = s.side(axis), stubs = row.pedestal.any() ? row.pedestal.height
                                              : outline.strap    ? std::max(0.0, (*outline.strap)[3] - s.h)
                                                                 : 0;
    const double low = outline.strap ? std::min(-wide / 2, (*outline.strap)[0]) : -wide / 2,
                 high = outline.strap ? std::max(wide / 2, (*outline.strap)[1]) : wide / 2;
    const double top = headHeight + 26, bottom = 102, side = 70;
    const double ground = std::max(set.ground.depth, s.h + stubs + 400),
                 stub = std::max(400.0, ground - s.h - stubs + 300);
    const double perMm =
        std::min((width() - 2 * side) / (high - low), (height() - top - bottom) / (s.h + stubs + stub));
    if (!(perMm > 0)) return;
    const double cx = width() / 2.0 - (low + high) / 2 * perMm, floor = height() - bottom;
    auto at = [&](double x, double z) { return QPointF(cx + x * perMm, floor - z * perMm); };
    // The ground and the soil's edge.
    if (set.ground.depth > s.h) {
        p.setPen(QPen(theme().secondary, 1));
        const double y = at(0, set.ground.depth).y();
        p.drawLine(QPointF(20, y), QPointF(width() - 20.0, y));
        for (double x = 30; x < width() - 20; x += 26) p.drawLine(QPointF(x, y), QPointF(x - 6, y + 6));
    }
    const double blind = set.ground.blinding;
    if (blind > 0) {
        p.setPen(QPen(theme().hairline, 1));
        p.setBrush(theme().chromeDark);
        p.drawRect(QRectF(at(-wide / 2 - 100, 0), at(wide / 2 + 100, -blind)));
    }
    p.setPen(QPen(theme().ink, 1.4));
    p.setBrush(theme().concrete);
    for (Point q : base.piles()) {
        const double half = set.pile.diameter / 2, u = axis == 0 ? q.x : q.y;
        p.drawRect(QRectF(at(u - half, set.pile.embedment), at(u + half, -900)));
    }
    QPolygonF around;
    for (Point q : outline.base) around << at(q.x, q.y);
    p.drawPolygon(around);
    if (const auto& t = outline.strap) p.drawRect(QRectF(at((*t)[0], (*t)[3]), at((*t)[1], (*t)[2])));
    for (const auto& id : row.columns)
        if (const auto* c = answer->context->column(id)) {
            const double u = axis == 0 ? c->x - base.centre.x : c->y - base.centre.y,
                         half = (axis == 0 ? c->width : c->depth) / 2;
            if (row.pedestal.any()) {
                const double broad = (axis == 0 ? row.pedestal.width : row.pedestal.depth) / 2;
                p.drawRect(QRectF(at(u - broad, s.h + stubs), at(u + broad, s.h)));
            }
            p.drawRect(QRectF(at(u - half, s.h + stubs + stub - 100), at(u + half, s.h + stubs)));
        }
    p.save();
    p.setClipRect(QRectF(0, at(0, s.h + stubs + stub - 100).y(), width(), height()));
    strokes(p, drawing::sectionStrokes(bars(base), base.centre, axis), perMm,
            [&](Point q) { return at(q.x, q.y); });
    p.restore();
    p.setFont(uiFont(11));
    p.setPen(theme().ink);
    // Beside the pad, on the side where no strap leaves it.
    const bool right = !outline.strap || (*outline.strap)[1] <= wide / 2 + 1;
    p.drawText(QRectF(right ? at(wide / 2, 0).x() + 8 : at(-wide / 2, 0).x() - 70,
                      (at(0, s.h).y() + at(0, 0).y()) / 2 - 9, 62, 18),
               (right ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter, session_.text(s.h, Kind::Length));
    if (const auto& t = outline.strap) {
        // Of the strap at its far end.
        const double y = (at(0, (*t)[2]).y() + at(0, (*t)[3]).y()) / 2 - 9;
        const QString deep = session_.text((*t)[3], Kind::Length);
        if ((*t)[0] < -wide / 2)
            p.drawText(QRectF(at((*t)[0], 0).x() - 68, y, 62, 18), Qt::AlignRight | Qt::AlignVCenter, deep);
        else if ((*t)[1] > wide / 2)
            p.drawText(QRectF(at((*t)[1], 0).x() + 6, y, 62, 18), Qt::AlignLeft | Qt::AlignVCenter, deep);
    }
    // Pressure along the section, the larger of both edges, below.
    const double y0 = at(0, -std::max(blind, base.piles().empty() ? 0.0 : 900.0)).y() + 4;
    if (base.pressure) {
        const auto* c = base.pressure->corners;
        const double a = axis == 0 ? std::max(c[0], c[3]) : std::max(c[0], c[1]),
                     b = axis == 0 ? std::max(c[1], c[2]) : std::max(c[2], c[3]),
                     most = std::max({a, b, 1e-9});
        const double scale = 26 / most;
        const QPolygonF shape{QPointF(at(-wide / 2, 0).x(), y0), QPointF(at(wide / 2, 0).x(), y0),
                              QPointF(at(wide / 2, 0).x(), y0 + b * scale),
                              QPointF(at(-wide / 2, 0).x(), y0 + a * scale)};
        p.setBrush(theme().concrete);
        p.setPen(QPen(theme().ink, 1));
        p.drawPolygon(shape);
        p.drawText(QRectF(at(-wide / 2, 0).x() - 68, y0 + a * scale - 9, 62, 18),
                   Qt::AlignRight | Qt::AlignVCenter, session_.number(a, Kind::AreaLoad));
        p.drawText(QRectF(at(wide / 2, 0).x() + 6, y0 + b * scale - 9, 66, 18),
                   Qt::AlignLeft | Qt::AlignVCenter, session_.number(b, Kind::AreaLoad));
        p.setPen(theme().secondary);
        const QString words = tr("%1 at the worse edge · %2")
                                  .arg(session_.unit(Kind::AreaLoad), qs(base.pressure->combination));
        p.drawText(QRectF(14, height() - 37.0, width() - 92.0, 16), Qt::AlignLeft,
                   p.fontMetrics().elidedText(words, Qt::ElideRight, width() - 92));
    }
    p.setPen(theme().ink);
    const double yd = y0 + (base.pressure ? 46 : 18);
    p.drawLine(QPointF(at(-wide / 2, 0).x(), yd), QPointF(at(wide / 2, 0).x(), yd));
    p.drawText(QRectF(at(-wide / 2, 0).x(), yd - 16, wide * perMm, 15), Qt::AlignCenter,
               session_.text(wide, Kind::Length));
    p.setPen(theme().barsX);
    QStringList names;
    for (const auto& i : base.items)
        names << qs(
            schedule::callout(base.items, i.run, session_.design().marks, session_.project().basis.units));
    names.removeDuplicates();
    p.drawText(QRectF(14, height() - 20.0, width() - 92.0, 16), Qt::AlignLeft,
               p.fontMetrics().elidedText(names.join(QStringLiteral(" · ")), Qt::ElideRight, width() - 92));
}

void BasePane::paintCage(QPainter& p, const BasePart& base) {
    const auto edges = drawing::cageEdges(*session_.basesAnswer(), base, view_);
    const auto all = drawing::cageStrokes(bars(base), base.centre, view_);
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    auto reach = [&](Point q) {
        x0 = std::min(x0, q.x), x1 = std::max(x1, q.x), y0 = std::min(y0, q.y), y1 = std::max(y1, q.y);
    };
    for (const auto& e : edges) reach(e[0]), reach(e[1]);
    for (const auto& b : all)
        for (Point q : b.line) reach(q);
    const QRectF room = QRectF(rect()).adjusted(16, headHeight + 26, -16, -26);
    const double perMm =
        std::min(room.width() / std::max(1.0, x1 - x0), room.height() / std::max(1.0, y1 - y0));
    if (!(perMm > 0)) return;
    auto at = [&](Point q) {
        return QPointF(room.center().x() + (q.x - (x0 + x1) / 2) * perMm,
                       room.center().y() - (q.y - (y0 + y1) / 2) * perMm);
    };
    p.setPen(QPen(theme().secondary, 1, Qt::DashLine));
    for (const auto& e : edges) p.drawLine(at(e[0]), at(e[1]));
    strokes(p, all, perMm, at);
    p.setPen(theme().secondary);
    p.setFont(uiFont(11));
    p.drawText(QRectF(14, height() - 20.0, width() - 28, 16), Qt::AlignLeft,
               tr("Drag, or arrow keys, to turn it"));
}

// Frame of a chart; `up` names what rises. Labels of the least and the most stand at its side.
QRectF BasePane::axes(QPainter& p, const QString& across, const QString& up, double most,
                      double least) const {
    const QRectF r = QRectF(rect()).adjusted(62, headHeight + 52, -18, -58);
    p.setPen(QPen(theme().hairline, 1));
    p.drawLine(r.bottomLeft(), r.bottomRight());
    p.drawLine(r.bottomLeft(), r.topLeft());
    p.setFont(uiFont(11));
    p.setPen(theme().secondary);
    p.drawText(QRectF(r.left(), r.bottom() + 18, r.width(), 16), Qt::AlignLeft, across);
    if (width() > 360) p.drawText(QRectF(14, r.top() - 22, r.width(), 16), Qt::AlignLeft, up);
    auto label = [&](double v, double y) {
        p.drawText(QRectF(0, y - 8, r.left() - 6, 16), Qt::AlignRight | Qt::AlignVCenter,
                   QString::number(v, 'f', v < 100 ? 1 : 0));
    };
    label(most, r.top() + 6);
    if (most > least) label(least, r.bottom() - 10);
    return r;
}

void BasePane::paintSizes(QPainter& p) {
    if (sizes_.empty()) {
        p.setFont(uiFont(12));
        p.setPen(theme().secondary);
        p.drawText(
            rect().adjusted(16, headHeight + 20, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
            seeking_ ? tr("Sizes are being tried…")
                     : tr("No size near the smallest one is adequate for this base with the bars allowed."));
        return;
    }
    double least = 1e300, most = 0, h0 = 1e300, h1 = 0;
    for (const auto& a : sizes_) {
        least = std::min(least, worth(a)), most = std::max(most, worth(a));
        h0 = std::min(h0, a.size.h), h1 = std::max(h1, a.size.h);
    }
    const bool cost = measure_->currentIndex() == 0;
    const auto& rates = session_.project().basis.rates;
    const QRectF r =
        axes(p, tr("depth %1").arg(session_.unit(Kind::Length)),
             cost ? tr("cost of one, %1").arg(qs(rates.currency)) : tr("carbon of one, kg"), most, least);
    const auto* base = session_.baseInHand();
    for (const auto& a : sizes_)
        points_.push_back(
            {r.left() + 16 + (h1 > h0 ? (a.size.h - h0) / (h1 - h0) : 0.5) * (r.width() - 40),
             r.bottom() - 10 -
                 (most > least ? (worth(a) - least) / (most - least) : 0.5) * (r.height() - 16)});
    for (double h : {h0, h1})
        p.drawText(QRectF(r.left() + 16 + (h1 > h0 ? (h - h0) / (h1 - h0) : 0.5) * (r.width() - 40) - 30,
                          r.bottom() + 3, 60, 14),
                   Qt::AlignHCenter, session_.number(h, Kind::Length));
    for (std::size_t i = 0; i < sizes_.size(); ++i) {
        const auto& a = sizes_[i];
        const bool now = base && a.size.B == base->size().B && a.size.L == base->size().L &&
                         a.size.h == base->size().h && a.piles == int(base->piles().size());
        p.setPen(QPen(now ? theme().selection : theme().ink, int(i) == hover_ ? 2.4 : 1.2));
        p.setBrush(now ? theme().selection : theme().paper);
        p.drawEllipse(points_[i], now ? 5 : 4, now ? 5 : 4);
    }
    p.setFont(uiFont(11, QFont::DemiBold));
    p.setPen(theme().selection);
    QString words = tr("%1 adequate sizes; click one to fix it").arg(sizes_.size());
    if (hover_ >= 0 && hover_ < int(sizes_.size())) {
        const auto& a = sizes_[std::size_t(hover_)];
        auto length = [&](double v) { return session_.number(v, Kind::Length); };
        words = tr("%1 × %2 × %3%4 · %5 %6 · at %7")
                    .arg(length(a.size.B), length(a.size.L), length(a.size.h),
                         a.piles ? tr(", %1 piles").arg(a.piles) : QString(),
                         cost ? qs(rates.currency) : tr("kg"), QString::number(worth(a), 'f', 0),
                         QString::number(a.worst, 'f', 2));
    }
    p.drawText(QRectF(14, r.top() - 22, width() - 28.0, 16), Qt::AlignRight,
               p.fontMetrics().elidedText(words, Qt::ElideRight, width() - 28));
}

void BasePane::paintTypes(QPainter& p) {
    const auto* answer = session_.basesAnswer();
    p.setFont(uiFont(13, QFont::DemiBold));
    p.setPen(theme().selection);
    p.drawText(QPointF(14, headHeight + 16), tr("How many types?"));
    if (!answer || answer->costs.size() < 2) {
        p.setFont(uiFont(12));
        p.setPen(theme().secondary);
        p.drawText(
            rect().adjusted(16, headHeight + 20, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
            session_.bases()->kind == model::BaseSet::Kind::Caps
                ? tr("Caps of one design share a type, or those that the register gives one type by name.")
                : tr("All bases are of one type already, or none is designed."));
        return;
    }
    const auto& costs = answer->costs;
    const double most = costs.front(), least = costs.back();
    const QRectF r =
        axes(p,
             answer->costsExact ? tr("maximum number of types; cheapest of all groupings")
                                : tr("maximum number of types; cheapest grouping in order of size"),
             tr("cost of all, %1").arg(qs(session_.project().basis.rates.currency)), most, least);
    const std::size_t n = costs.size();
    for (std::size_t i = 0; i < n; ++i)
        points_.push_back(
            {r.left() + 14 + (n > 1 ? double(i) / double(n - 1) : 0.5) * (r.width() - 34),
             r.bottom() - 10 - (most > least ? (costs[i] - least) / (most - least) : 0) * (r.height() - 18)});
    p.setPen(QPen(theme().secondary, 1));
    for (std::size_t i = 1; i < n; ++i) p.drawLine(points_[i - 1], points_[i]);
    const int asked = session_.bases()->mostTypes;
    for (std::size_t i = 0; i < n; ++i) {
        const bool now = asked == int(i) + 1;
        p.setPen(QPen(now ? theme().selection : theme().ink, int(i) == hover_ ? 2.4 : 1.2));
        p.setBrush(now ? theme().selection : theme().paper);
        p.drawEllipse(points_[i], now ? 6 : 4, now ? 6 : 4);
        p.setPen(theme().secondary);
        p.setFont(uiFont(11));
        if (n <= 16 || i % 4 == 3 || i == 0)
            p.drawText(QRectF(points_[i].x() - 14, r.bottom() + 3, 28, 14), Qt::AlignHCenter,
                       QString::number(i + 1));
    }
    const int shown = hover_ >= 0 ? hover_ : asked - 1;
    QString words = tr("no limit: %1 types").arg(answer->types.size());
    if (shown >= 0 && shown < int(n))
        words = tr("%1 types · %2 %3 (%4 %)")
                    .arg(shown + 1)
                    .arg(qs(session_.project().basis.rates.currency))
                    .arg(costs[std::size_t(shown)], 0, 'f', 0)
                    .arg(QStringLiteral("+%1").arg(100 * (costs[std::size_t(shown)] / least - 1), 0, 'f', 1));
    p.setFont(uiFont(11, QFont::DemiBold));
    p.setPen(theme().selection);
    p.drawText(QRectF(14, r.top() - 22, width() - 28.0, 16), Qt::AlignRight,
               p.fontMetrics().elidedText(words, Qt::ElideRight, width() - 28));
}

int BasePane::near(QPointF at) const {
    int best = -1;
    double closest = 12;
    for (std::size_t i = 0; i < points_.size(); ++i)
        if (const double d = std::hypot(points_[i].x() - at.x(), points_[i].y() - at.y()); d < closest)
            closest = d, best = int(i);
    return best;
}

void BasePane::adopt(int i) {
    if (i < 0) return;
    if (shows_ == Shows::Types) {
        // The one that is asked for already is given back.
        const int now = session_.bases()->mostTypes, to = now == i + 1 ? 0 : i + 1;
        session_.apply(to ? tr("At most %1 types").arg(to) : tr("No limit of types"),
                       model::editBases(session_.base(), session_.bases()->id,
                                        [to](model::BaseSet& s, model::Project&) { s.mostTypes = to; }));
        return;
    }
    const auto* base = session_.baseInHand();
    if (shows_ != Shows::Sizes || !base || i >= int(sizes_.size())) return;
    const Alternative a = sizes_[std::size_t(i)];
    const auto id = session_.bases()->bases[base->number].id;
    session_.apply(tr("Fix a size"), model::editBases(session_.base(), session_.bases()->id,
                                                      [&](model::BaseSet& s, model::Project&) {
                                                          for (auto& b : s.bases) {
                                                              if (b.id != id) continue;
                                                              // Fixed sizes are those of rectangles:
                                                              // outlines cut to their piles follow these.
                                                              if (a.size.outline.empty())
                                                                  b.B = a.size.B, b.L = a.size.L;
                                                              b.h = a.size.h;
                                                              if (b.pilesAt.empty()) b.piles = a.piles;
                                                          }
                                                      }));
}

void BasePane::mousePressEvent(QMouseEvent* event) {
    setFocus();
    last_ = event->position();
    if (event->button() == Qt::LeftButton && (shows_ == Shows::Sizes || shows_ == Shows::Types))
        adopt(near(last_));
}
void BasePane::mouseMoveEvent(QMouseEvent* event) {
    if (shows_ == Shows::Cage && event->buttons() & Qt::LeftButton) {
        view_.turn = std::remainder(view_.turn + (event->position().x() - last_.x()) * 0.5, 360);
        view_.tilt = std::clamp(view_.tilt + (event->position().y() - last_.y()) * 0.4, 0.0, 90.0);
        last_ = event->position();
        update();
    }
    if (const int now = near(event->position()); now != hover_) hover_ = now, update();
}
void BasePane::leaveEvent(QEvent*) {
    if (hover_ >= 0) hover_ = -1, update();
}
void BasePane::keyPressEvent(QKeyEvent* event) {
    const int key = event->key();
    if (shows_ == Shows::Cage) {
        if (key == Qt::Key_Left || key == Qt::Key_Right)
            view_.turn = std::remainder(view_.turn + (key == Qt::Key_Left ? -10 : 10), 360);
        else if (key == Qt::Key_Up || key == Qt::Key_Down)
            view_.tilt = std::clamp(view_.tilt + (key == Qt::Key_Up ? 5 : -5), 0.0, 90.0);
        else
            return QWidget::keyPressEvent(event);
        return update();
    }
    if (!points_.empty() && (key == Qt::Key_Left || key == Qt::Key_Right)) {
        hover_ = std::clamp(hover_ + (key == Qt::Key_Left ? -1 : 1), 0, int(points_.size()) - 1);
        return update();
    }
    if ((key == Qt::Key_Return || key == Qt::Key_Enter) && hover_ >= 0) return adopt(hover_);
    QWidget::keyPressEvent(event);
}

}  // namespace talvik::app

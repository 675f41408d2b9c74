#include "sweep/sweep_window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "document/session.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

using units::Kind;

namespace {

constexpr std::size_t mostPoints = 200;

}  // namespace

SweepWindow::SweepWindow(Session& session, QWidget* parent)
    : QWidget(parent, Qt::Window),
      session_(session),
      from_(new QLineEdit),
      to_(new QLineEdit),
      step_(new QLineEdit),
      classes_(new QListWidget),
      drops_(new QCheckBox(tr("Also with drop panels"))),
      measure_(new QComboBox),
      go_(new QPushButton),
      take_(new QPushButton(tr("Use this design"))),
      says_(new QLabel),
      about_(new QLabel),
      picture_(new SweepPicture(*this)),
      table_(new QTableWidget) {
    setWindowTitle(tr("Compare slab thicknesses – Talvik"));
    setObjectName(QStringLiteral("sweep"));
    resize(1100, 700);
    from_->setObjectName(QStringLiteral("sweepFrom"));
    to_->setObjectName(QStringLiteral("sweepTo"));
    step_->setObjectName(QStringLiteral("sweepStep"));
    classes_->setObjectName(QStringLiteral("sweepClasses"));
    drops_->setObjectName(QStringLiteral("sweepDrops"));
    go_->setObjectName(QStringLiteral("sweepGo"));
    take_->setObjectName(QStringLiteral("sweepTake"));
    table_->setObjectName(QStringLiteral("sweepTable"));

    auto* side = new QWidget;
    side->setFixedWidth(270);
    auto* column = new QVBoxLayout(side);
    auto* form = new QFormLayout;
    const QString unit = session_.unit(Kind::Length);
    form->addRow(tr("Thickness from, %1").arg(unit), from_);
    form->addRow(tr("to, %1").arg(unit), to_);
    form->addRow(tr("in steps of, %1").arg(unit), step_);
    column->addLayout(form);
    column->addWidget(new QLabel(tr("Concrete")));
    classes_->setMaximumHeight(150);
    column->addWidget(classes_);
    column->addWidget(drops_);
    drops_->setToolTip(
        tr("Half as deep again as the slab, a third of the way to the next column, under every "
           "column with slab all round it"));
    column->addWidget(go_);
    says_->setWordWrap(true);
    column->addWidget(says_);
    column->addStretch(1);
    auto* word =
        new QLabel(tr("Each point is the floor designed in full with all its checks; bars fixed by hand are "
                      "kept. Costs are by the rates in Basis (1)."));
    word->setWordWrap(true);
    word->setStyleSheet(QStringLiteral("color:%1").arg(theme().secondary.name()));
    column->addWidget(word);

    measure_->addItems({tr("Cost"), tr("Carbon")});
    measure_->setObjectName(QStringLiteral("sweepMeasure"));
    auto* head = new QHBoxLayout;
    head->addWidget(measure_);
    about_->setMinimumHeight(36);
    about_->setWordWrap(true);
    head->addWidget(about_, 1);
    head->addWidget(take_);
    auto* main = new QVBoxLayout;
    main->addLayout(head);
    main->addWidget(picture_, 3);
    main->addWidget(table_, 2);
    auto* all = new QHBoxLayout(this);
    all->addWidget(side);
    all->addLayout(main, 1);

    table_->setColumnCount(8);
    table_->verticalHeader()->hide();
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row >= 0) point(row);
    });
    connect(table_, &QTableWidget::cellDoubleClicked, this, [this](int row) { adopt(std::size_t(row)); });
    connect(picture_, &SweepPicture::hovered, this, [this](int i) { point(i); });
    connect(picture_, &SweepPicture::taken, this, [this](int i) { adopt(std::size_t(i)); });
    connect(take_, &QPushButton::clicked, this, [this] {
        if (picture_->shown() >= 0) adopt(std::size_t(picture_->shown()));
    });
    connect(measure_, &QComboBox::currentIndexChanged, picture_, qOverload<>(&QWidget::update));
    connect(go_, &QPushButton::clicked, this, [this] {
        if (running_) return stop();
        if (const QString why = start(); !why.isEmpty()) says_->setText(why);
    });
    connect(&session_, &Session::changed, this, &SweepWindow::refresh);

    const auto* f = session_.floor();
    const double step = session_.project().basis.units == units::System::Metric ? 10 : 12.7;
    const double now = f && !f->slabs.empty() ? f->slabs.front().thickness : 250;
    from_->setText(
        session_.number(std::max(10 * step, units::roundDown(now, step) - 4 * step), Kind::Length));
    to_->setText(session_.number(units::roundDown(now, step) + 8 * step, Kind::Length));
    step_->setText(session_.number(step, Kind::Length));
    const auto standard =
        standards::makeStandard(session_.project().basis.standard, session_.project().basis.parameters);
    for (const auto& c : catalogs::concreteClasses()) {
        if (!standard || c.family != standard->family) continue;
        auto* item = new QListWidgetItem(qs(c.id), classes_);
        item->setFlags(Qt::ItemIsUserCheckable | Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        item->setCheckState(c.id == session_.project().basis.concrete ? Qt::Checked : Qt::Unchecked);
    }
    refresh();
}
SweepWindow::~SweepWindow() = default;

bool SweepWindow::current() const {
    return of_ && session_.floor() && session_.element() == floor_ && session_.base() == *of_;
}

QString SweepWindow::start() {
    if (!session_.floor()) return tr("No floor is selected; select one in the list of elements.");
    if (session_.floor()->slabs.empty()) return tr("The floor has no slab yet: draw its outline first.");
    const auto system = session_.project().basis.units;
    double value[3];
    QLineEdit* fields[3] = {from_, to_, step_};
    for (int i = 0; i < 3; ++i) {
        const auto v = units::parse(fields[i]->text().toStdString(), Kind::Length, system);
        if (!v.value) return qs(v.error);
        value[i] = *v.value;
    }
    if (!(value[2] > 0) || value[1] < value[0] || value[0] < 50)
        return tr("Thicknesses range from a smaller to a larger one, in steps above zero.");
    design::SweepWish wish;
    wish.drops = drops_->isChecked();
    for (int k = 0; value[0] + k * value[2] <= value[1] + 1e-6 && k < 1000; ++k)
        wish.thicknesses.push_back(value[0] + k * value[2]);
    for (int i = 0; i < classes_->count(); ++i)
        if (classes_->item(i)->checkState() == Qt::Checked)
            wish.concretes.push_back(classes_->item(i)->text().toStdString());
    if (wish.concretes.empty()) return tr("Mark at least one class of concrete.");
    const std::size_t number = wish.thicknesses.size() * wish.concretes.size() * (wish.drops ? 2 : 1);
    if (number > mostPoints)
        return tr("These are %1 designs; the maximum is %2. Use larger steps or fewer classes.")
            .arg(number)
            .arg(mostPoints);
    stop();
    points_.clear();
    of_ = std::make_shared<const model::Project>(session_.base());
    floor_ = session_.element();
    running_ = true;
    picture_->mark(-1);
    refresh();
    says_->setText(tr("0 of %1 designed").arg(number));
    thread_ =
        std::jthread([this, project = of_, floor = floor_, wish, serial = ++serial_](std::stop_token stop) {
            auto tell = [this, serial](auto what) {
                inbox_.hand([this, serial, what] {
                    if (serial == serial_) what();
                });
            };
            design::sweep(*project, floor, wish, stop, [&](const design::SweepPoint& p, std::size_t of) {
                tell([this, p, of] {
                    points_.push_back(p);
                    says_->setText(tr("%1 of %2 designed").arg(points_.size()).arg(of));
                    refresh();
                });
            });
            tell([this, stopped = stop.stop_requested()] {
                running_ = false;
                if (stopped)
                    says_->setText(tr("Stopped: %1 designed.").arg(points_.size()));
                else
                    says_->setText(
                        tr("%1 designed. Click a dot, or a row twice, to use it.").arg(points_.size()));
                refresh();
            });
        });
    return {};
}
void SweepWindow::stop() {
    thread_.request_stop();
    if (running_) says_->setText(tr("Stopping after the design under way…"));
}

void SweepWindow::adopt(std::size_t i) {
    if (i >= points_.size()) return;
    const auto& p = points_[i];
    if (!session_.floor() || session_.element() != floor_)
        return says_->setText(
            tr("The floor that was tried is not selected; select it in the list of elements."));
    const bool same = current();
    session_.apply(
        tr("Slab %1").arg(session_.text(p.thickness, Kind::Length)),
        same ? p.project : design::asPoint(session_.base(), floor_, p.thickness, p.concrete, p.drops));
    says_->setText(
        same ? tr("Used: %1.").arg(session_.text(p.thickness, Kind::Length))
             : tr("Used: %1, with later changes kept.").arg(session_.text(p.thickness, Kind::Length)));
}

double SweepWindow::worth(const design::SweepPoint& p) const {
    return measure_->currentIndex() == 0 ? p.price : p.carbon;
}

int SweepWindow::least() const {
    int best = -1;
    for (std::size_t i = 0; i < points_.size(); ++i)
        if (points_[i].error.empty() && points_[i].over == 0 &&
            (best < 0 || worth(points_[i]) < worth(points_[std::size_t(best)])))
            best = int(i);
    return best;
}
void SweepWindow::pointAtLeast() {
    const int best = least();
    point(best >= 0 ? best : int(points_.size()) - 1);
}

void SweepWindow::point(int i) {
    picture_->mark(i);
    take_->setEnabled(i >= 0);
    if (i < 0 || std::size_t(i) >= points_.size()) return about_->setText({});
    const auto& p = points_[std::size_t(i)];
    const QSignalBlocker quiet(table_);
    table_->setCurrentCell(i, std::max(0, table_->currentColumn()));
    QString text = QStringLiteral("<b>%1, %2%3</b> · ")
                       .arg(session_.text(p.thickness, Kind::Length), qs(p.concrete).toHtmlEscaped(),
                            p.drops ? tr(", drops") : QString());
    if (!p.error.empty())
        text += qs(p.error).toHtmlEscaped();
    else
        text += tr("%1 governs at %2%3<br>%4 m³, %5, %6 m² formwork")
                    .arg(qs(p.governs).toHtmlEscaped(), QString::number(p.worst, 'f', 2),
                         p.over ? tr(", %1 failing").arg(p.over) : QString(),
                         QString::number(p.concreteVolume, 'f', 1), session_.text(p.steel, Kind::Mass),
                         QString::number(p.formwork, 'f', 0));
    about_->setText(text);
}

void SweepWindow::refresh() {
    go_->setText(running_ ? tr("Stop") : tr("Design them all"));
    take_->setEnabled(picture_->shown() >= 0);
    if (!running_ && !points_.empty() && !current())
        says_->setText(tr("The project has changed since; these are of the state before."));
    fillTable();
    picture_->update();
}

void SweepWindow::fillTable() {
    const QSignalBlocker quiet(table_);
    const QString money = qs(session_.project().basis.rates.currency);
    table_->setHorizontalHeaderLabels({tr("h, %1").arg(session_.unit(Kind::Length)), tr("Concrete"),
                                       tr("Drops"), tr("Cost, %1").arg(money), tr("Carbon, kg"),
                                       tr("Failing"), tr("Ratio"), tr("Governs")});
    table_->setRowCount(int(points_.size()));
    for (std::size_t i = 0; i < points_.size(); ++i) {
        const auto& p = points_[i];
        const bool good = p.error.empty();
        const QString cells[] = {session_.number(p.thickness, Kind::Length),
                                 qs(p.concrete),
                                 p.drops ? tr("yes") : tr("no"),
                                 good ? QString::number(p.price, 'f', 0) : QStringLiteral("–"),
                                 good ? QString::number(p.carbon, 'f', 0) : QStringLiteral("–"),
                                 good ? QString::number(p.over) : QStringLiteral("–"),
                                 good ? QString::number(p.worst, 'f', 2) : QStringLiteral("–"),
                                 good ? qs(p.governs) : qs(p.error)};
        for (int k = 0; k < 8; ++k) {
            auto* item = new QTableWidgetItem(cells[k]);
            if (k != 1 && k != 2 && k != 7) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            if (p.over > 0 && (k == 5 || k == 6)) item->setForeground(theme().over);
            table_->setItem(int(i), k, item);
        }
    }
    const int widths[] = {60, 80, 56, 84, 84, 50, 56};
    for (int k = 0; k < 7; ++k) table_->setColumnWidth(k, widths[k]);
    table_->horizontalHeader()->setStretchLastSection(true);
}

SweepPicture::SweepPicture(SweepWindow& window) : window_(window) {
    setObjectName(QStringLiteral("sweepPicture"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(240);
}
void SweepPicture::mark(int point) {
    shown_ = point;
    update();
}

void SweepPicture::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().paper);
    p.setRenderHint(QPainter::Antialiasing);
    dots_.clear();
    const auto& points = window_.points_;
    p.setFont(uiFont(12));
    p.setPen(theme().secondary);
    if (points.empty()) {
        p.drawText(rect().adjusted(20, 20, -20, -20), Qt::AlignCenter | Qt::TextWordWrap,
                   window_.running_
                       ? tr("The first is being designed…")
                       : tr("Cost or carbon against thickness is shown here, a dot for every design."));
        return;
    }
    double least = 1e300, most = -1e300, h0 = 1e300, h1 = -1e300;
    for (const auto& q : points) {
        h0 = std::min(h0, q.thickness), h1 = std::max(h1, q.thickness);
        if (!q.error.empty()) continue;
        least = std::min(least, window_.worth(q)), most = std::max(most, window_.worth(q));
    }
    const bool cost = window_.measure_->currentIndex() == 0;
    const QRectF r = QRectF(rect()).adjusted(78, 34, -150, -44);
    p.setPen(QPen(theme().hairline, 1));
    p.drawLine(r.bottomLeft(), r.bottomRight());
    p.drawLine(r.bottomLeft(), r.topLeft());
    p.setPen(theme().secondary);
    p.setFont(uiFont(11));
    p.drawText(
        QRectF(8, 8, 320, 16), Qt::AlignLeft,
        cost ? tr("cost, %1").arg(qs(window_.session_.project().basis.rates.currency)) : tr("carbon, kg"));
    p.drawText(QRectF(r.left(), r.bottom() + 24, r.width(), 16), Qt::AlignHCenter,
               tr("thickness, %1").arg(window_.session_.unit(Kind::Length)));
    p.drawText(QRectF(r.right() - 420, 8, 420 + 140, 16), Qt::AlignRight,
               tr("filled: all checks pass · open: some fail"));
    auto x = [&](double h) {
        return r.left() + 14 + (h1 > h0 ? (h - h0) / (h1 - h0) : 0.5) * (r.width() - 28);
    };
    auto y = [&](double v) {
        return r.bottom() - 12 - (most > least ? (v - least) / (most - least) : 0.5) * (r.height() - 24);
    };
    if (most >= least)
        for (double v : {least, most})
            p.drawText(QRectF(0, y(v) - 8, r.left() - 6, 16), Qt::AlignRight | Qt::AlignVCenter,
                       QString::number(v, 'f', 0));
    std::set<double> thicknesses;
    for (const auto& q : points) thicknesses.insert(q.thickness);
    double lastAt = -1e9;
    for (double h : thicknesses)
        if (x(h) - lastAt > 44) {
            lastAt = x(h);
            p.drawText(QRectF(x(h) - 30, r.bottom() + 5, 60, 14), Qt::AlignHCenter,
                       window_.session_.number(h, Kind::Length));
        }
    // A line for each class, without and with drops, named at its end where there is room.
    struct Line {
        QString name;
        QPolygonF at;
    };
    std::map<std::pair<std::string, bool>, Line> lines;
    for (const auto& q : points) {
        dots_.emplace_back(x(q.thickness), q.error.empty() ? y(window_.worth(q)) : r.bottom() - 4);
        if (!q.error.empty()) continue;
        auto& line = lines[{q.concrete, q.drops}];
        line.name = qs(q.concrete) + (q.drops ? tr(", drops") : QString());
        line.at << dots_.back();
    }
    std::vector<double> taken;
    for (const auto& [key, line] : lines) {
        p.setPen(QPen(theme().secondary, 1.2, key.second ? Qt::DashLine : Qt::SolidLine));
        p.drawPolyline(line.at);
        double at = line.at.back().y();
        for (bool moved = true; moved;) {
            moved = false;
            for (double t : taken)
                if (std::abs(t - at) < 15) at = t + 15, moved = true;
        }
        taken.push_back(at);
        p.drawText(QRectF(r.right() + 10, at - 8, 138, 16), Qt::AlignLeft | Qt::AlignVCenter, line.name);
    }
    const int best = window_.least();
    for (std::size_t i = 0; i < points.size(); ++i) {
        const auto& q = points[i];
        const bool shown = int(i) == shown_;
        p.setPen(QPen(shown ? theme().selection : theme().ink, shown ? 2.4 : 1.2));
        p.setBrush(q.error.empty() && q.over == 0 ? QBrush(shown ? theme().selection : theme().ink)
                                                  : QBrush(theme().paper));
        p.drawEllipse(dots_[i], shown ? 5.5 : 4, shown ? 5.5 : 4);
    }
    p.setFont(uiFont(11, QFont::DemiBold));
    p.setPen(theme().ink);
    if (best >= 0)
        p.drawText(QRectF(dots_[std::size_t(best)] + QPointF(-60, 8), QSizeF(120, 16)), Qt::AlignHCenter,
                   tr("least"));
    if (shown_ >= 0 && std::size_t(shown_) < points.size() && points[std::size_t(shown_)].error.empty()) {
        const auto& q = points[std::size_t(shown_)];
        const QString words = tr("%1 %2").arg(qs(q.governs), QString::number(q.worst, 'f', 2));
        QRectF box(dots_[std::size_t(shown_)] + QPointF(-150, -26), QSizeF(300, 16));
        if (box.left() < 4) box.moveLeft(4);
        if (box.right() > width() - 4) box.moveRight(width() - 4);
        p.setPen(theme().selection);
        p.drawText(box, Qt::AlignHCenter,
                   p.fontMetrics().elidedText(words, Qt::ElideRight, int(box.width())));
    }
    if (hasFocus()) paintFocus(p, *this);
}

int SweepPicture::near(QPointF at) const {
    int best = -1;
    double closest = 14;
    for (std::size_t i = 0; i < dots_.size(); ++i)
        if (const double d = std::hypot(dots_[i].x() - at.x(), dots_[i].y() - at.y()); d < closest)
            closest = d, best = int(i);
    return best;
}
void SweepPicture::mouseMoveEvent(QMouseEvent* event) {
    if (const int i = near(event->position()); i >= 0 && i != shown_) emit hovered(i);
}
void SweepPicture::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (const int i = near(event->position()); i >= 0 && event->button() == Qt::LeftButton) emit taken(i);
}
void SweepPicture::keyPressEvent(QKeyEvent* event) {
    const int key = event->key();
    if (!dots_.empty() && (key == Qt::Key_Left || key == Qt::Key_Right))
        return emit hovered(std::clamp(shown_ + (key == Qt::Key_Left ? -1 : 1), 0, int(dots_.size()) - 1));
    if ((key == Qt::Key_Return || key == Qt::Key_Enter) && shown_ >= 0) return emit taken(shown_);
    QWidget::keyPressEvent(event);
}

}  // namespace talvik::app

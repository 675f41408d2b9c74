#include "margin/margin_view.h"

#include <QAbstractTextDocumentLayout>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QTextDocument>

#include "trace/trace.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

constexpr int pad = 16, checkHeight = 42, remedyHeight = 62;
constexpr std::size_t roomForRemedies = 2;

}  // namespace

MarginView::MarginView(Session& session, QWidget* parent) : QAbstractScrollArea(parent), session_(session) {
    setObjectName(QStringLiteral("margin"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumWidth(260);
    setAccessibleName(tr("Calculation margin"));
    connect(&session, &Session::changed, this, &MarginView::rebuild);
    connect(&session, &Session::placeChanged, this, &MarginView::rebuild);
    connect(&session, &Session::remediesChanged, this, [this] {
        followRemedies();
        rebuild();
    });
    connect(&session, &Session::answered, this, [this] {
        if (session_.sharedDesign() != shown_) rebuild();
    });
    connect(&session, &Session::selectionChanged, this, [this] {
        verticalScrollBar()->setValue(0);
        allRemedies_ = false;
        rebuild();
    });
    rebuild();
}

MarginView::~MarginView() = default;

void MarginView::rebuild() {
    if (session_.remedies().empty()) followRemedies();
    items_.clear();
    shown_ = session_.sharedDesign();
    const bool drawing = session_.place() == Place::Layout || session_.place() == Place::Actions;
    for (auto& line : report::margin(
             session_.project(), *shown_,
             {session_.element(), session_.selection(),
              drawing && (session_.floor() || !session_.selection() || session_.selected(Spot::In::Whole))
                  ? &session_.matters()
                  : nullptr,
              unfolded_}))
        if (line.kind == Item::Kind::Remedies)
            addRemedies();
        else
            items_.push_back({line.kind, qs(line.text), qs(line.right), line.check, line.matter});
    if (!session_.answer() && session_.stale()) items_.push_back({Item::Kind::Note, tr("Designing…"), ""});
    layOut();
}

void MarginView::followRemedies() {
    const auto& all = session_.remedies();
    const auto there = [&](const std::string& text) {
        return std::any_of(all.begin(), all.end(), [&](const auto& r) { return r.text == text; });
    };
    const bool elsewhere = !underMouse();
    if (session_.sought() && elsewhere) listed_.clear();
    std::erase_if(listed_, [&](const auto& text) { return !there(text); });
    for (const auto& r : all)
        if (std::find(listed_.begin(), listed_.end(), r.text) == listed_.end()) listed_.push_back(r.text);
    if (!chosen_.empty() && !there(chosen_)) {
        chosen_.clear();
        emit previewed(nullptr);
    }
}
const design::Remedy* MarginView::remedy(std::size_t listed) const {
    for (const auto& r : session_.remedies())
        if (listed < listed_.size() && r.text == listed_[listed]) return &r;
    return nullptr;
}
void MarginView::leaveEvent(QEvent*) {
    if (!session_.sought() || session_.remedies().empty()) return;
    followRemedies();
    rebuild();
}

// The lines of "what would make it pass", each computed and verified; listed above the checks of an element
// in trouble, in a room of their own: the checks below stay where they are while more are found.
void MarginView::addRemedies() {
    items_.push_back({Item::Kind::Heading, tr("What would make it pass"),
                      session_.seeking()  ? tr("looking…")
                      : session_.sought() ? tr("verified")
                                          : QString()});
    for (std::size_t i = 0; i < listed_.size() && (allRemedies_ || i < roomForRemedies); ++i) {
        const auto* known = remedy(i);
        if (!known) continue;
        const auto& r = *known;
        QString price = tr("%1%2").arg(r.steel >= 0 ? QStringLiteral("+") : QString(),
                                       session_.text(r.steel, units::Kind::Mass));
        if (r.concrete > 1e-6) price += tr(" · +%1 m³").arg(r.concrete, 0, 'f', 1);
        if (!r.left.empty())
            price += r.left.size() == 1 ? tr(" · %1 still failing").arg(qs(r.left.front()))
                                        : tr(" · %1 still failing").arg(r.left.size());
        price += tr(" · %1%2 %3")
                     .arg(r.price >= 0 ? QStringLiteral("+") : QString())
                     .arg(r.price, 0, 'f', 0)
                     .arg(qs(session_.project().basis.rates.currency));
        items_.push_back({Item::Kind::Remedies, qs(r.text),
                          QStringLiteral("%1|%2|%3").arg(r.worst, 0, 'f', 2).arg(price, qs(r.beside)),
                          nullptr, i});
    }
    Item last{Item::Kind::Note, {}, {}};
    last.reserved = 34 + int(roomForRemedies) * remedyHeight + 28;
    if (listed_.size() > roomForRemedies) {
        last.text =
            allRemedies_ ? tr("Fewer of them  ▾") : tr("%1 more  ▸").arg(listed_.size() - roomForRemedies);
        last.more = true;
    }
    QStringList kinds;
    for (const auto& kind : session_.inVain()) kinds << qs(kind.text());
    if (session_.sought() && !kinds.empty()) {
        const QString vain = (listed_.empty() ? tr("Nothing that was tried makes it pass: %1.")
                                              : tr("Tried without success: %1."))
                                 .arg(kinds.join(tr(", ")));
        if (listed_.empty())
            last.text = vain;
        else if (allRemedies_ || !last.more)
            items_.push_back({Item::Kind::Note, vain, {}});
    } else if (listed_.empty()) {
        last.text = session_.seeking() ? tr("Looking for what would make it pass…") : QString();
    }
    items_.push_back(std::move(last));
}

QRect MarginView::remedyRect(std::size_t index) const {
    for (const Item& item : items_)
        if (item.kind == Item::Kind::Remedies && item.number == index)
            return QRect(pad, item.y - verticalScrollBar()->value(), viewport()->width() - 2 * pad,
                         item.height - 6);
    return {};
}
QRect MarginView::adoptRect(std::size_t index) const {
    const QRect card = remedyRect(index);
    if (!card.isValid() || index >= listed_.size() || listed_[index] != chosen_) return {};
    return QRect(card.right() - 72, card.bottom() - 24, 66, 20);
}
QRect MarginView::checkRect(const std::string& key) const {
    for (const Item& item : items_)
        if (item.check && item.key() == key)
            return QRect(pad, item.y - verticalScrollBar()->value(), viewport()->width() - 2 * pad,
                         item.height);
    return {};
}
QRect MarginView::mendButton(std::size_t matter) const {
    for (const Item& item : items_)
        if (item.kind == Item::Kind::Matter && item.number == matter && !item.right.isEmpty())
            return mendRect(item).translated(0, -verticalScrollBar()->value()).toRect();
    return {};
}
QRectF MarginView::mendRect(const Item& item) const {
    return QRectF(pad + 14, item.y + item.height - 30, viewport()->width() - 2 * pad - 14, 24);
}

void MarginView::choose(std::size_t listed) {
    const auto* r = remedy(listed);
    if (!r) return;
    chosen_ = r->text;
    emit previewed(std::make_shared<const model::Project>(r->project));
    viewport()->update();
}
void MarginView::adopt(std::size_t listed) {
    const auto* r = remedy(listed);
    if (!r) return;
    design::Remedy taken = *r;
    session_.apply(qs(taken.text), std::move(taken.project));
}

std::unique_ptr<QTextDocument> MarginView::working(const checks::Check& listed, int width) const {
    // Worked out with its steps when it is opened.
    const auto* answer = shown_->find(listed.place.spot.part.element);
    const checks::Check c = answer ? design::withWorking(*answer, listed) : listed;
    auto document = std::make_unique<QTextDocument>();
    document->setDefaultFont(uiFont(12));
    document->setDocumentMargin(0);
    const QString grey = theme().secondary.name();
    QString html = QStringLiteral("<body style=\"color:%1\">").arg(theme().ink.name());
    if (!c.combination.empty())
        html += QStringLiteral("<p style=\"margin:0 0 6px 0;color:%1\">%2</p>")
                    .arg(grey, qs(c.combination).toHtmlEscaped());
    if (!c.reason.empty())
        html += QStringLiteral("<p style=\"margin:0 0 6px 0\">%1</p>").arg(qs(c.reason).toHtmlEscaped());
    for (const auto& step : c.steps) {
        html +=
            QStringLiteral(
                "<p style=\"margin:0 0 7px 0\">%1 &nbsp;<span style=\"color:%2;font-size:10px\">%3</span>")
                .arg(qs(trace::formula(step, trace::Form::Html)), grey, qs(step.clause).toHtmlEscaped());
        if (auto numbers = trace::substituted(step, trace::Form::Html); !numbers.empty())
            html += QStringLiteral("<br>") + qs(numbers);
        html += QStringLiteral("<br><b>%1</b>").arg(qs(trace::result(step, trace::Form::Html)));
        if (!step.note.empty())
            html += QStringLiteral("<br><span style=\"color:%1\">%2</span>")
                        .arg(grey, qs(step.note).toHtmlEscaped());
        html += QStringLiteral("</p>");
    }
    for (const auto& note : checks::said(c))
        html += QStringLiteral("<p style=\"margin:0 0 5px 0;color:%1\">%2</p>")
                    .arg(grey, qs(note).toHtmlEscaped());
    if (!c.clause.empty())
        html += QStringLiteral("<p style=\"margin:0;color:%1\">%2</p>")
                    .arg(theme().selection.name(), qs(c.clause).toHtmlEscaped());
    document->setHtml(html);
    document->setTextWidth(width);
    return document;
}

void MarginView::layOut() {
    int y = 12, w = viewport()->width() - 2 * pad, remediesFrom = 0;
    QFontMetrics note(uiFont(12));
    for (Item& item : items_) {
        item.y = y;
        if (item.kind == Item::Kind::Heading) remediesFrom = y;
        switch (item.kind) {
            case Item::Kind::Title:
                item.height = 24;
                break;
            case Item::Kind::Subtitle:
                item.height = 24;
                break;
            case Item::Kind::Heading:
                item.height = 34;
                break;
            case Item::Kind::Pair:
                item.height = 22;
                break;
            case Item::Kind::Remedies:
                item.height = remedyHeight;
                break;
            case Item::Kind::Note:
                item.height = note.boundingRect(0, 0, w, 10000, Qt::TextWordWrap, item.text).height() + 8;
                if (item.reserved > 0) item.height = std::max(item.height, remediesFrom + item.reserved - y);
                break;
            case Item::Kind::Like:
                item.height = checkHeight;
                break;
            case Item::Kind::Matter:
                item.height = note.boundingRect(0, 0, w - 14, 10000, Qt::TextWordWrap, item.text).height() +
                              (item.right.isEmpty() ? 10 : 36);
                break;
            case Item::Kind::Check:
                item.height = checkHeight;
                if (open_.contains(item.check->key)) {
                    item.working = working(*item.check, w - 20);
                    item.height += static_cast<int>(item.working->size().height()) + 24;
                } else if (!checks::isJudged(*item.check)) {
                    item.height = 40;
                }
                break;
        }
        y += item.height;
    }
    height_ = y + 12;
    verticalScrollBar()->setRange(0, std::max(0, height_ - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(24);
    viewport()->update();
}

void MarginView::resizeEvent(QResizeEvent*) {
    layOut();
}
void MarginView::scrollContentsBy(int, int) {
    viewport()->update();
}

void MarginView::paintEvent(QPaintEvent*) {
    QPainter p(viewport());
    const Theme& t = theme();
    p.fillRect(viewport()->rect(), t.chrome);
    p.setRenderHint(QPainter::Antialiasing);
    int scroll = verticalScrollBar()->value(), w = viewport()->width() - 2 * pad;
    for (const Item& item : items_) {
        int y = item.y - scroll;
        if (y + item.height < 0 || y > viewport()->height()) continue;
        QRect r(pad, y, w, item.height);
        switch (item.kind) {
            case Item::Kind::Title:
                p.setFont(uiFont(15, QFont::DemiBold));
                p.setPen(t.ink);
                p.drawText(r, Qt::AlignLeft | Qt::AlignVCenter,
                           p.fontMetrics().elidedText(item.text, Qt::ElideRight, w));
                break;
            case Item::Kind::Subtitle:
                p.setFont(uiFont(12));
                p.setPen(t.secondary);
                p.drawText(r, Qt::AlignLeft | Qt::AlignTop,
                           p.fontMetrics().elidedText(item.text, Qt::ElideRight, w));
                break;
            case Item::Kind::Heading:
                p.setPen(QPen(t.hairline, 1));
                p.drawLine(pad, y + 8, pad + w, y + 8);
                p.setFont(uiFont(12, QFont::DemiBold));
                p.setPen(t.ink);
                p.drawText(r.adjusted(0, 12, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, item.text);
                p.setFont(uiFont(11));
                p.setPen(t.secondary);
                p.drawText(r.adjusted(0, 12, 0, 0), Qt::AlignRight | Qt::AlignVCenter, item.right);
                break;
            case Item::Kind::Pair:
                p.setFont(uiFont(12));
                p.setPen(t.secondary);
                p.drawText(r, Qt::AlignLeft | Qt::AlignVCenter, item.text);
                p.setPen(t.ink);
                p.drawText(r, Qt::AlignRight | Qt::AlignVCenter, item.right);
                break;
            case Item::Kind::Remedies: {
                QRectF box = QRectF(r).adjusted(0.5, 0.5, -0.5, -6.5);
                const QRect button = adoptRect(item.number);
                p.setPen(button.isValid() ? QPen(t.selection, 1.6) : QPen(t.hairline, 1));
                p.setBrush(t.field);
                p.drawRoundedRect(box, 3, 3);
                p.setFont(uiFont(12, QFont::Medium));
                p.setPen(t.ink);
                QRectF inner = box.adjusted(9, 3, -9, -3);
                // What is to be done: one measure, or the first and below it what goes with it.
                const QString with =
                    item.text.section(QStringLiteral("; "), 1).replace(QStringLiteral("; "), tr(", "));
                QStringList lines{item.text.section(QStringLiteral("; "), 0, 0)};
                if (!with.isEmpty()) lines << tr("and ") + with;
                for (int k = 0; k < lines.size(); ++k)
                    p.drawText(
                        inner.adjusted(0, 16 * k, 0, 0), Qt::AlignLeft | Qt::AlignTop,
                        p.fontMetrics().elidedText(lines[k], Qt::ElideRight,
                                                   static_cast<int>(inner.width()) - (k > 0 ? 0 : 44)));
                inner.adjust(0, 16 * static_cast<int>(lines.size() - 1), 0, 0);
                p.setFont(uiFont(12, QFont::DemiBold));
                p.drawText(box.adjusted(9, 3, -9, -3), Qt::AlignRight | Qt::AlignTop,
                           item.right.section(QLatin1Char('|'), 0, 0));
                p.setFont(uiFont(11));
                p.setPen(t.secondary);
                // The price, and where there is room what comes closest to its limit by it.
                const int row = p.fontMetrics().height();
                for (int line = 1; line <= 3 - static_cast<int>(lines.size()); ++line)
                    p.drawText(inner.adjusted(0, 19 + (line - 1) * row, 0, 0), Qt::AlignLeft | Qt::AlignTop,
                               p.fontMetrics().elidedText(
                                   item.right.section(QLatin1Char('|'), line, line), Qt::ElideRight,
                                   static_cast<int>(inner.width()) - (button.isValid() ? 72 : 0)));
                if (!button.isValid()) break;
                p.setPen(QPen(t.selection, 1));
                p.setBrush(t.selection);
                p.drawRoundedRect(QRectF(button).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
                p.setPen(t.field);
                p.setFont(uiFont(12, QFont::DemiBold));
                p.drawText(button, Qt::AlignCenter, tr("Adopt"));
                break;
            }
            case Item::Kind::Note:
                p.setFont(uiFont(12));
                p.setPen(item.more ? t.selection : t.secondary);
                p.drawText(r, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, item.text);
                break;
            case Item::Kind::Matter: {
                const auto& m = session_.matters();
                const bool prevents = item.number < m.size() && m[item.number].prevents;
                p.setPen(QPen(prevents ? t.over : t.attention, 1.6));
                p.setBrush(Qt::NoBrush);
                p.drawEllipse(QPointF(pad + 4, y + 11), 3.5, 3.5);
                p.setFont(uiFont(12));
                p.setPen(t.ink);
                p.drawText(r.adjusted(14, 2, 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                           item.text);
                if (item.right.isEmpty()) break;
                const QRectF box = mendRect(item).translated(0, -scroll);
                p.setPen(QPen(t.hairline, 1));
                p.setBrush(t.field);
                p.drawRoundedRect(box, 3, 3);
                p.setPen(t.selection);
                p.drawText(box.adjusted(8, 0, -8, 0), Qt::AlignLeft | Qt::AlignVCenter,
                           p.fontMetrics().elidedText(item.right, Qt::ElideRight, int(box.width()) - 16));
                break;
            }
            case Item::Kind::Like:
            case Item::Kind::Check:
                paintCheck(p, item, y, hasFocus() && item.key() == current_);
                break;
        }
    }
}

void MarginView::paintCheck(QPainter& p, const Item& item, double y, bool current) {
    const Theme& t = theme();
    const auto& c = *item.check;
    double w = viewport()->width() - 2 * pad;
    bool over = c.outcome == checks::Outcome::Over, opened = item.working != nullptr,
         like = item.kind == Item::Kind::Like;
    if (current) {
        p.setPen(QPen(t.selection, 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(pad - 6, y + 1, w + 12, item.height - 4), 3, 3);
    }
    p.setFont(uiFont(12, QFont::Medium));
    p.setPen(t.ink);
    double right = checks::isJudged(c) ? 46 : 0;
    p.drawText(
        QRectF(pad, y + 4, w - right, 16), Qt::AlignLeft | Qt::AlignVCenter,
        p.fontMetrics().elidedText(
            like ? item.text + (unfolded_.contains(c.what) ? QStringLiteral("  ▾") : QStringLiteral("  ▸"))
                 : qs(c.title),
            Qt::ElideMiddle, static_cast<int>(w - right)));
    if (checks::isJudged(c)) {
        p.setFont(uiFont(13, QFont::DemiBold));
        p.setPen(over ? t.over : t.ink);
        p.drawText(QRectF(pad, y + 4, w, 16), Qt::AlignRight | Qt::AlignVCenter, qs(checks::ratioText(c)));
    }
    double gauge = w * 0.4;
    GaugeState state = c.outcome == checks::Outcome::NotChecked      ? GaugeState::NotChecked
                       : c.outcome == checks::Outcome::NotApplicable ? GaugeState::NotApplicable
                                                                     : GaugeState::Judged;
    paintGauge(p, QRectF(pad, y + 25, gauge, 8), checks::ratio(c), state);
    p.setFont(uiFont(11));
    p.setPen(t.secondary);
    QRectF figures(pad + gauge + 8, y + 21, w - gauge - 8, 16);
    p.drawText(
        figures, Qt::AlignLeft | Qt::AlignVCenter,
        p.fontMetrics().elidedText(like ? item.right : qs(checks::figures(c, session_.project().basis.units)),
                                   Qt::ElideMiddle, static_cast<int>(figures.width())));
    if (!opened) return;
    QRectF box(pad, y + checkHeight, w, item.height - checkHeight - 8);
    p.setPen(QPen(t.hairline, 1));
    p.setBrush(t.field);
    p.drawRoundedRect(box, 3, 3);
    p.save();
    p.translate(box.topLeft() + QPointF(10, 8));
    item.working->drawContents(&p);
    p.restore();
}

void MarginView::toggle(int index) {
    const Item& item = items_[static_cast<std::size_t>(index)];
    const auto& c = *item.check;
    current_ = item.key();
    if (item.kind == Item::Kind::Like) {
        if (!unfolded_.erase(c.what)) unfolded_.insert(c.what);
        return rebuild();
    }
    if (!open_.erase(c.key)) open_.insert(c.key);
    const model::Spot spot = c.place.spot;
    double x = c.place.x;
    if (!session_.selection() && spot.part.kind != model::PartKind::Whole) {
        // From the state of the project to the part that it is about.
        const std::string key = c.key;
        if (spot.part.element != session_.element()) session_.setElement(spot.part.element);
        session_.select(spot.whole());
        open(key);
    } else {
        rebuild();
    }
    session_.setStation(x);
}

void MarginView::open(const std::string& key) {
    open_.insert(key);
    current_ = key;
    for (const auto& e : shown_->elements)
        if (const auto* c = e->check(key)) unfolded_.insert(c->what);
    rebuild();
    for (const Item& item : items_)
        if (item.key() == key) verticalScrollBar()->setValue(item.y - 20);
}

std::vector<std::string> MarginView::listed() const {
    std::vector<std::string> keys;
    for (const Item& item : items_)
        if (item.kind == Item::Kind::Check) keys.push_back(item.key());
    return keys;
}

void MarginView::mousePressEvent(QMouseEvent* event) {
    int y = static_cast<int>(event->position().y()) + verticalScrollBar()->value();
    for (std::size_t i = 0; i < listed_.size(); ++i) {
        if (adoptRect(i).contains(event->position().toPoint())) return adopt(i);
        if (remedyRect(i).contains(event->position().toPoint())) return choose(i);
    }
    for (const Item& item : items_)
        if (item.more && y >= item.y && y < item.y + 24) {
            allRemedies_ = !allRemedies_;
            return rebuild();
        }
    for (std::size_t i = 0; i < items_.size(); ++i) {
        const Item& item = items_[i];
        if (y < item.y || y >= item.y + (item.working ? checkHeight : item.height)) continue;
        if (item.check) return toggle(static_cast<int>(i));
        if (item.kind == Item::Kind::Matter)
            return emit matterWanted(
                item.number, !item.right.isEmpty() && mendRect(item).contains(event->position().x(), y));
    }
}

void MarginView::moveCurrent(int direction) {
    std::vector<int> order;
    int at = -1;
    for (std::size_t i = 0; i < items_.size(); ++i)
        if (items_[i].check) {
            if (items_[i].key() == current_) at = static_cast<int>(order.size());
            order.push_back(static_cast<int>(i));
        }
    if (order.empty()) return;
    at = std::clamp(at < 0 ? 0 : at + direction, 0, static_cast<int>(order.size()) - 1);
    const Item& item = items_[static_cast<std::size_t>(order[static_cast<std::size_t>(at)])];
    current_ = item.key();
    session_.setStation(item.check->place.x);
    int scroll = verticalScrollBar()->value();
    if (item.y < scroll) verticalScrollBar()->setValue(item.y - 8);
    if (item.y + item.height > scroll + viewport()->height())
        verticalScrollBar()->setValue(item.y + item.height - viewport()->height() + 8);
    viewport()->update();
}

void MarginView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Up:
            return moveCurrent(-1);
        case Qt::Key_Down:
            return moveCurrent(1);
        case Qt::Key_Return:
        case Qt::Key_Enter:
        case Qt::Key_Space:
            for (std::size_t i = 0; i < items_.size(); ++i)
                if (items_[i].check && items_[i].key() == current_) return toggle(static_cast<int>(i));
            return moveCurrent(0);
        case Qt::Key_Escape:
            if (!open_.empty()) {
                open_.clear();
                return rebuild();
            }
            if (!session_.selection() && session_.slab()) return session_.select(Spot::In::Whole);
            return session_.stepBack();
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

}  // namespace talvik::app

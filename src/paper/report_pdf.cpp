// The calculation report on A4 pages.
#include <QAbstractTextDocumentLayout>
#include <QFontMetricsF>
#include <QPainter>
#include <QPdfWriter>
#include <QTextBlock>
#include <QTextDocument>
#include <QTextObjectInterface>
#include <QThreadPool>
#include <algorithm>
#include <atomic>
#include <chrono>
#include <condition_variable>
#include <exception>
#include <functional>
#include <mutex>

#include "formats/file.h"
#include "paper/paper.h"
#include "paper/parts.h"

namespace talvik::paper {
namespace {

// The same in the places where they stand in text: instead of pixels, which Qt writes into PDF one by one.
class Vectors final : public QObject, public QTextObjectInterface {
  public:
    explicit Vectors(const report::Document& document) : document_(document) {}
    // What moc would write: Qt asks for the interface by its name.
    void* qt_metacast(const char* name) override {
        if (std::string_view(name) == qobject_interface_iid<QTextObjectInterface*>())
            return static_cast<QTextObjectInterface*>(this);
        return QObject::qt_metacast(name);
    }
    QSizeF intrinsicSize(QTextDocument*, int, const QTextFormat& format) override {
        const auto image = format.toImageFormat();
        return {image.width(), image.height()};
    }
    void drawObject(QPainter* p, const QRectF& at, QTextDocument*, int, const QTextFormat& format) override {
        const QString name = format.toImageFormat().name();
        const double rim = name.startsWith(QLatin1String("gauge:")) ? 1 : 0;
        paintNamed(*p, document_, name, at.adjusted(rim, rim, -rim, -rim));
    }

  private:
    const report::Document& document_;
};

// A page: points at 96 dpi, and what stays free about the text. What rises above a line or hangs below it, as
// indices do, reaches into the rim.
constexpr double dots = 300, unit = dots / 96, marginX = 60, marginY = 52, rim = 4;

class Pages {
  public:
    explicit Pages(QIODevice* device) : pdf_(device) {
        pdf_.setResolution(int(dots));
        pdf_.setPageSize(QPageSize(QPageSize::A4));
        pdf_.setPageMargins(QMarginsF(0, 0, 0, 0), QPageLayout::Millimeter);
        size_ = QSizeF(pdf_.width() / unit, pdf_.height() / unit);
        font_ = QFont(QString::fromLatin1(fontFamily()));
        font_.setPointSizeF(8.5);
        // Half of the time of a long report went into kerning; scripts that need their letters put together
        // have it all the same.
        font_.setStyleStrategy(QFont::PreferNoShaping);
        painter_.begin(&pdf_);
        painter_.scale(unit, unit);
    }
    ~Pages() { painter_.end(); }
    QPainter& next() {
        if (number_++ > 0) pdf_.newPage();
        return painter_;
    }
    QSizeF size() const { return size_; }
    QSizeF body() const { return {size_.width() - 2 * marginX, size_.height() - 2 * marginY}; }
    const QFont& font() const { return font_; }
    QFont font(int pixels) const {
        QFont f(font_);
        f.setPixelSize(pixels);
        return f;
    }
    int number() const { return number_; }

  private:
    QPdfWriter pdf_;
    QPainter painter_;
    QSizeF size_;
    QFont font_;
    int number_ = 0;
};

// A run of blocks: its pages, and those of them on which its headings stand.
struct Part {
    QByteArray pdf;
    int pages = 0;
    std::vector<int> headings;
};

// `starts`: of its pieces, and where the last of them ends.
Part paintPart(const report::Document& document, const std::vector<std::size_t>& starts) {
    Part part;
    part.pdf = written([&](QIODevice* device) {
        Vectors vectors(document);
        Pages pages(device);
        const QSizeF whole(pages.body().width() + 2 * rim, pages.body().height() + 2 * rim);
        for (std::size_t k = 0; k + 1 < starts.size(); ++k) {
            QTextDocument text;
            text.setDefaultFont(pages.font());
            text.setDocumentMargin(rim);
            text.documentLayout()->registerHandler(QTextFormat::ImageObject, &vectors);
            // Laid out once, on pages of their size, and as laid out painted: not shaped a second time.
            text.setPageSize(whole);
            text.setLayoutEnabled(false);
            text.setHtml(QString::fromStdString(
                report::html(document, starts[k], starts[k + 1], report::Target::Flow)));
            for (auto b = text.begin(); b.isValid(); b = b.next()) b.layout()->setCacheEnabled(true);
            text.setLayoutEnabled(true);
            for (int i = 0; i < text.pageCount(); ++i) {
                auto& painter = pages.next();
                painter.save();
                painter.translate(marginX - rim, marginY - rim - i * whole.height());
                text.drawContents(&painter, QRectF(QPointF(0, i * whole.height()), whole));
                painter.restore();
            }
            const int first = pages.number() - text.pageCount();
            for (auto b = text.begin(); b.isValid(); b = b.next()) {
                const int level = b.blockFormat().headingLevel();
                if (level == 2 || level == 3)
                    // Its foot: a line that does not fit on a page is moved to the next one, its block is
                    // not.
                    part.headings.push_back(
                        first +
                        int((text.documentLayout()->blockBoundingRect(b).bottom() - 1) / whole.height()));
            }
        }
        part.pages = pages.number();
    });
    part.pdf.squeeze();
    return part;
}

// Runs of pieces that are painted at once, the same on every machine: the starts of the pieces of each, and
// its end.
std::vector<std::vector<std::size_t>> runs(const report::Document& document) {
    constexpr std::size_t blocks = 800;
    std::vector<std::vector<std::size_t>> all{{}};
    for (std::size_t at : report::pieces(document)) {
        if (!all.back().empty() && at - all.back().front() >= blocks) {
            all.back().push_back(at);
            all.emplace_back();
        }
        all.back().push_back(at);
    }
    all.back().push_back(document.blocks.size());
    return all;
}

// All parts, on every core; none where `on` wants no more. Throws what painting them throws.
std::vector<Part> paintParts(const report::Document& document, const std::function<bool(double)>& on) {
    const auto starts = runs(document);
    std::vector<Part> parts(starts.size());
    std::mutex guard;
    std::condition_variable changed;
    std::size_t done = 0;
    std::exception_ptr why;
    std::atomic<bool> stop = false;
    QThreadPool pool;
    for (std::size_t k = 0; k < parts.size(); ++k)
        pool.start([&, k] {
            std::exception_ptr caught;
            try {
                if (!stop) parts[k] = paintPart(document, starts[k]);
            } catch (...) {
                caught = std::current_exception();
                stop = true;
            }
            const std::lock_guard lock(guard);
            if (caught) why = caught;
            ++done;
            changed.notify_all();
        });
    std::unique_lock lock(guard);
    while (done < parts.size()) {
        const std::size_t seen = done;
        lock.unlock();
        if (!on(double(seen) / double(parts.size()))) stop = true;
        lock.lock();
        changed.wait_for(lock, std::chrono::milliseconds(100), [&] { return done > seen; });
    }
    lock.unlock();
    pool.waitForDone();
    if (why) std::rethrow_exception(why);
    if (stop) parts.clear();
    return parts;
}

struct Entry {
    QString text;
    bool sub = false;
    int page = 0;
};

// The table of contents, which comes before what it lists: pages of its entries are counted behind its own.
Part paintContents(const std::vector<Entry>& entries) {
    constexpr double step = 16;
    constexpr std::size_t head = 2;  // rows of the heading
    Part part;
    part.pdf = written([&](QIODevice* device) {
        Pages pages(device);
        const double width = pages.body().width();
        const auto rows = std::size_t(pages.body().height() / step);
        const int own = int((head + entries.size() + rows - 1) / rows);
        QPainter* painter = nullptr;
        for (std::size_t row = head; const auto& entry : entries) {
            if (!painter || row % rows == 0) {
                painter = &pages.next();
                painter->setPen(ink);
            }
            if (row == head) {
                painter->setFont(pages.font(18));
                painter->drawText(QRectF(marginX, marginY, width, 24), Qt::AlignLeft,
                                  QStringLiteral("Contents"));
            }
            const double y = marginY + double(row++ % rows) * step;
            auto font = pages.font(11);
            font.setWeight(entry.sub ? QFont::Normal : QFont::DemiBold);
            painter->setFont(font);
            const double x = marginX + (entry.sub ? 16 : 0), wide = width - (x - marginX) - 40;
            painter->drawText(QRectF(x, y, wide, step), Qt::AlignLeft,
                              QFontMetricsF(font).elidedText(entry.text, Qt::ElideRight, wide));
            painter->drawText(QRectF(marginX, y, width, step), Qt::AlignRight,
                              QString::number(own + entry.page));
        }
        part.pages = pages.number();
    });
    return part;
}

Feet paintFeet(const QString& title, int count) {
    constexpr double points = 72 / 96.0;
    Feet feet;
    feet.pdf = written([&](QIODevice* device) {
        Pages pages(device);
        const auto font = pages.font(10);
        const QRectF foot(marginX, pages.size().height() - 40, pages.body().width(), 14);
        auto draw = [&](Qt::AlignmentFlag side, const QString& text, QPainter& painter) {
            painter.setFont(font);
            painter.setPen(grey);
            painter.drawText(foot, side, text);
        };
        auto& words = pages.next();
        const QString of = QStringLiteral(" / %1").arg(count);
        draw(Qt::AlignLeft, title, words);
        draw(Qt::AlignRight, of, words);
        const QFontMetricsF metrics(font, words.device());
        feet.begin = foot.left() * points;
        feet.end = (foot.right() - metrics.horizontalAdvance(of)) * points;
        for (int d = 0; d < 10; ++d) {
            const QString digit = QString::number(d);
            feet.width[std::size_t(d)] = metrics.horizontalAdvance(digit) * points;
            draw(Qt::AlignLeft, digit, pages.next());
        }
    });
    return feet;
}

}  // namespace

std::string writeReportPdf(const std::string& path, const report::Document& document,
                           const Progress& progress) {
    const char* stopped = "The report was stopped; nothing was written.";
    auto on = [&](double share) { return !progress || progress(share); };
    auto parts = paintParts(document, [&](double share) { return on(0.9 * share); });
    if (parts.empty()) return stopped;
    int count = 0;
    std::vector<int> headings;  // numbers of pages, from 0
    for (const auto& part : parts) {
        for (int h : part.headings) headings.push_back(count + h);
        count += part.pages;
    }
    std::vector<QByteArray> pdfs;
    if (report::hasContents(document)) {
        std::vector<Entry> entries;
        for (const auto& b : document.blocks)
            if (b.kind == report::Block::Kind::Heading || b.kind == report::Block::Kind::Subheading)
                entries.push_back(
                    {QString::fromStdString(b.text), b.kind == report::Block::Kind::Subheading});
        for (std::size_t k = 0; k < std::min(entries.size(), headings.size()); ++k)
            entries[k].page = headings[k] + 1;
        auto contents = paintContents(entries);
        count += contents.pages;
        pdfs.push_back(std::move(contents.pdf));
    }
    for (auto& part : parts) pdfs.push_back(std::move(part.pdf));
    if (!on(0.92)) return stopped;
    const auto feet = paintFeet(QString::fromStdString(document.title), count);
    const auto bytes = joinPdf(std::move(pdfs), document.title, &feet);
    if (!on(1)) return stopped;
    return formats::writeFile(path, bytes);
}

}  // namespace talvik::paper

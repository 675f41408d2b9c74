#include "paper/paper.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QFontDatabase>
#include <QHashSeed>
#include <QImage>
#include <QPageLayout>
#include <QPageSize>
#include <QPainter>
#include <QPainterPath>
#include <QPdfWriter>
#include <QSvgGenerator>
#include <QTextBlock>
#include <QTextDocument>
#include <QTextDocumentWriter>
#include <QTextLayout>
#include <QUrl>
#include <algorithm>
#include <cmath>

#include "formats/file.h"

namespace talvik::paper {
namespace {

QColor colour(drawing::Layer layer) {
    return QColor::fromRgb(drawing::style(layer).colour | 0xff000000u);
}

QPen pen(drawing::Layer layer) {
    const auto& s = drawing::style(layer);
    QPen p(colour(layer), s.width);
    p.setJoinStyle(Qt::MiterJoin);
    p.setCapStyle(Qt::FlatCap);
    if (!s.dash.empty()) {
        QList<qreal> pattern;
        for (double d : s.dash) pattern << d / s.width;
        p.setDashPattern(pattern);
    }
    return p;
}

// Qt writes the time of day and its zone into PDF: a fixed time stands there instead.
QByteArray withoutTime(QByteArray pdf) {
    static const QByteArray key = "/CreationDate (D:", fixed = "20000101000000Z";
    const qsizetype at = pdf.indexOf(key) + key.size(), end = at < key.size() ? -1 : pdf.indexOf(')', at);
    if (end < 0) return pdf;
    // The zone is as long as the place is far from Greenwich: what stands behind moves, and the table of
    // where objects stand (ISO 32000-1 7.5.4) with it.
    const qsizetype moved = fixed.size() - (end - at);
    pdf.replace(at, end - at, fixed);
    if (moved == 0) return pdf;
    static const QByteArray start = "startxref\n";
    const qsizetype last = pdf.lastIndexOf(start) + start.size();
    if (last < start.size()) return pdf;
    qsizetype stop = last;
    while (stop < pdf.size() && pdf[stop] >= '0' && pdf[stop] <= '9') ++stop;
    const qsizetype table = pdf.mid(last, stop - last).toLongLong() + moved;
    pdf.replace(last, stop - last, QByteArray::number(table));
    if (table < 0 || pdf.mid(table, 4) != "xref") return pdf;
    const qsizetype head = pdf.indexOf('\n', table) + 1, first = pdf.indexOf('\n', head) + 1;
    const auto counts = pdf.mid(head, first - head).split(' ');
    const qsizetype n = counts.value(1).trimmed().toLongLong();
    for (qsizetype k = 0; k < n && first + 20 * (k + 1) <= pdf.size(); ++k) {
        const qsizetype entry = first + 20 * k, place = pdf.mid(entry, 10).toLongLong();
        if (place > at) pdf.replace(entry, 10, QByteArray::number(place + moved).rightJustified(10, '0'));
    }
    return pdf;
}

// Likewise the times at which a ZIP file says its entries were written: of each entry where it stands, and in
// the directory at the end (PKWARE APPNOTE 4.3.7, 4.3.12).
QByteArray withoutZipTimes(QByteArray zip) {
    auto number = [&](qsizetype at, int bytes) {
        qsizetype n = 0;
        for (int k = bytes - 1; k >= 0; --k) n = n << 8 | static_cast<unsigned char>(zip[at + k]);
        return n;
    };
    const qsizetype end = zip.lastIndexOf(QByteArray("PK\5\6", 4));
    if (end < 0 || end + 22 > zip.size()) return zip;
    static const QByteArray fixed("\0\0\x21\x28", 4);  // 1 January 2000
    qsizetype at = number(end + 16, 4);
    for (qsizetype k = number(end + 10, 2); k > 0 && at + 46 <= zip.size(); --k) {
        zip.replace(at + 12, 4, fixed);
        zip.replace(number(at + 42, 4) + 10, 4, fixed);
        at += 46 + number(at + 28, 2) + number(at + 30, 2) + number(at + 32, 2);
    }
    return zip;
}

// Fonts are embedded in the order of a hash; without a random seed that order is always the same.
void fixOrder() {
    QHashSeed::setDeterministicGlobalSeed();
}

std::string write(const std::string& path, const QByteArray& bytes) {
    return formats::writeFile(path, {bytes.constData(), static_cast<std::size_t>(bytes.size())});
}

// What `fill` writes to the device it is given; the device is finished with when it returns.
template <class F>
QByteArray written(F fill) {
    fixOrder();
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    fill(&buffer);
    return bytes;
}

void paintGauge(QPainter& p, const QRectF& r, double ratio, const QString& outcome) {
    const QColor ink(0x1f, 0x2a, 0x33), over(0xc8, 0x40, 0x1f), grey(0x5d, 0x6b, 0x74);
    double notch = r.left() + r.width() * 0.77, h = r.height();
    if (outcome == QLatin1String("not applicable")) {
        p.fillRect(QRectF(r.left(), r.center().y() - h * 0.1, r.width() * 0.1, h * 0.2), grey);
        return;
    }
    if (outcome == QLatin1String("not checked")) {
        p.setPen(QPen(grey, h * 0.12, Qt::DashLine));
        p.drawRect(r.adjusted(h * 0.1, h * 0.1, -h * 0.1, -h * 0.1));
        return;
    }
    p.setPen(QPen(QColor(0xc9, 0xcb, 0xc4), h * 0.1));
    p.drawRect(r.adjusted(0, h * 0.1, 0, -h * 0.1));
    p.fillRect(QRectF(r.left(), r.top() + h * 0.1, (notch - r.left()) * std::min(ratio, 1.0), h * 0.8), ink);
    if (ratio > 1 + 1e-9)
        p.fillRect(
            QRectF(notch, r.top() + h * 0.1,
                   std::min(r.right() - notch, std::max(h * 0.4, (notch - r.left()) * (ratio - 1))), h * 0.8),
            QBrush(over, Qt::BDiagPattern));
    p.fillRect(QRectF(notch - h * 0.07, r.top() - h * 0.05, h * 0.14, h * 1.1), ink);
}

// Resolves the images of a flow document: figures and gauges. As pixels, or left blank for whoever paints
// them as vectors in the places that `images` gives.
class ReportText final : public QTextDocument {
  public:
    // `dots`: of figures, per mm of the sheet; 0: blank.
    explicit ReportText(const report::Document& document, double dots) : document_(document), dots_(dots) {}
    struct Image {
        QString name;
        QRectF at;  // in the document
    };
    std::vector<Image> images() const {
        std::vector<Image> all;
        for (auto block = begin(); block.isValid(); block = block.next()) {
            const QPointF origin = documentLayout()->blockBoundingRect(block).topLeft();
            for (auto i = block.begin(); !i.atEnd(); ++i) {
                const auto format = i.fragment().charFormat().toImageFormat();
                if (!i.fragment().charFormat().isImageFormat()) continue;
                for (int k = 0; k < i.fragment().length(); ++k) {
                    const int at = i.fragment().position() + k - block.position();
                    const QTextLine line = block.layout()->lineForTextPosition(at);
                    if (!line.isValid()) continue;
                    all.push_back({format.name(),
                                   {origin.x() + line.cursorToX(at),
                                    origin.y() + line.y() + line.ascent() - format.height(), format.width(),
                                    format.height()}});
                }
            }
        }
        return all;
    }
    void paintImage(QPainter& p, const Image& image) const {
        p.save();
        if (image.name.startsWith(QLatin1String("figure:"))) {
            const auto& sheet = document_.figures[static_cast<std::size_t>(image.name.mid(7).toInt())];
            p.translate(image.at.topLeft());
            p.scale(image.at.width() / sheet.width, image.at.height() / sheet.height);
            paint(p, sheet);
        } else if (image.name.startsWith(QLatin1String("gauge:"))) {
            const QStringList parts = QUrl::fromPercentEncoding(image.name.toUtf8()).split(QLatin1Char(':'));
            paintGauge(p, image.at.adjusted(1, 1, -1, -1), parts.value(1).toDouble(), parts.value(2));
        }
        p.restore();
    }

  protected:
    QVariant loadResource(int type, const QUrl& name) override {
        const QString text = name.toString();
        const double dots = dots_;
        if (dots == 0) {
            QImage blank(1, 1, QImage::Format_ARGB32);
            blank.fill(Qt::transparent);
            return blank;
        }
        if (text.startsWith(QLatin1String("figure:"))) {
            const auto& sheet = document_.figures[static_cast<std::size_t>(text.mid(7).toInt())];
            QImage image(static_cast<int>(sheet.width * dots), static_cast<int>(sheet.height * dots),
                         QImage::Format_RGB32);
            image.fill(Qt::white);
            QPainter p(&image);
            p.setRenderHint(QPainter::Antialiasing);
            p.scale(dots, dots);
            paint(p, sheet);
            return image;
        }
        if (text.startsWith(QLatin1String("gauge:"))) {
            QStringList parts = QUrl::fromPercentEncoding(text.toUtf8()).split(QLatin1Char(':'));
            QImage image(440, 36, QImage::Format_RGB32);
            image.fill(Qt::white);
            QPainter p(&image);
            p.setRenderHint(QPainter::Antialiasing);
            paintGauge(p, QRectF(4, 4, 430, 28), parts.value(1).toDouble(), parts.value(2));
            return image;
        }
        return QTextDocument::loadResource(type, name);
    }

  private:
    const report::Document& document_;
    double dots_;
};

}  // namespace

const char* fontFamily() {
    static const bool inter = QFontDatabase::families().contains(QStringLiteral("Inter"));
    return inter ? "Inter" : "Sans Serif";
}

void paint(QPainter& painter, const drawing::Sheet& sheet) {
    auto at = [&](drawing::Point p) { return QPointF(p.x, sheet.height - p.y); };
    for (const auto& item : sheet.items) {
        if (const auto* line = std::get_if<drawing::Polyline>(&item)) {
            QPolygonF polygon;
            for (const auto& p : line->points) polygon << at(p);
            painter.setPen(pen(line->layer));
            painter.setBrush(line->filled ? QBrush(colour(line->layer)) : QBrush(Qt::NoBrush));
            line->closed ? painter.drawPolygon(polygon) : painter.drawPolyline(polygon);
        } else if (const auto* c = std::get_if<drawing::Circle>(&item)) {
            painter.setPen(pen(c->layer));
            painter.setBrush(c->filled ? QBrush(colour(c->layer)) : QBrush(Qt::white));
            painter.drawEllipse(at(c->centre), c->radius, c->radius);
        } else if (const auto* t = std::get_if<drawing::Text>(&item)) {
            // Text is laid out large and scaled down: fonts have no fractions of a mm.
            constexpr double fine = 20;
            QFont font(QString::fromLatin1(fontFamily()));
            font.setPixelSize(std::max(1, static_cast<int>(std::lround(t->height * 1.38 * fine))));
            if (t->bold) font.setWeight(QFont::DemiBold);
            painter.save();
            painter.translate(at(t->at));
            painter.rotate(-t->angle);
            painter.scale(1 / fine, 1 / fine);
            painter.setFont(font);
            painter.setPen(colour(t->layer));
            QString text = QString::fromStdString(t->text);
            double width = QFontMetricsF(font, painter.device()).horizontalAdvance(text);
            double shift = t->align == drawing::Align::Left     ? 0
                           : t->align == drawing::Align::Centre ? -width / 2
                                                                : -width;
            painter.drawText(QPointF(shift, 0), text);
            painter.restore();
        }
    }
}

std::string writePdf(const std::string& path, const std::vector<drawing::Sheet>& sheets) {
    if (sheets.empty()) return path + ": there is nothing to draw.";
    QByteArray bytes = written([&](QIODevice* device) {
        QPdfWriter pdf(device);
        pdf.setCreator(QStringLiteral("Talvik"));
        pdf.setTitle(QString::fromStdString(sheets.front().title));
        pdf.setResolution(600);
        auto size = [&](const drawing::Sheet& sheet) {
            pdf.setPageSize(QPageSize(QSizeF(sheet.width, sheet.height), QPageSize::Millimeter, {},
                                      QPageSize::ExactMatch));
            pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
        };
        size(sheets.front());
        QPainter p(&pdf);
        for (std::size_t i = 0; i < sheets.size(); ++i) {
            if (i > 0) {
                size(sheets[i]);
                pdf.newPage();
            }
            p.resetTransform();
            p.scale(600 / 25.4, 600 / 25.4);
            paint(p, sheets[i]);
        }
    });
    return write(path, withoutTime(bytes));
}

std::string writeSvg(const std::string& path, const drawing::Sheet& sheet) {
    QByteArray bytes = written([&](QIODevice* device) {
        constexpr double dots = 10;
        QSvgGenerator svg;
        svg.setOutputDevice(device);
        svg.setResolution(254);
        svg.setTitle(QString::fromStdString(sheet.title).toHtmlEscaped());  // which Qt does not do
        svg.setSize(QSize(static_cast<int>(sheet.width * dots), static_cast<int>(sheet.height * dots)));
        svg.setViewBox(QRectF(0, 0, sheet.width * dots, sheet.height * dots));
        QPainter p(&svg);
        p.scale(dots, dots);
        paint(p, sheet);
    });
    return write(path, bytes);
}

std::unique_ptr<QTextDocument> flow(const report::Document& document) {
    auto text = std::make_unique<ReportText>(document, 3.6);
    text->setHtml(QString::fromStdString(report::html(document, report::Target::Flow)));
    return text;
}

namespace {

// A4 pages of a report: points at 96 dpi, margins, and what stands in the foot of each.
class Pages {
  public:
    Pages(QIODevice* device, const report::Document& document) : document_(document), pdf_(device) {
        pdf_.setCreator(QStringLiteral("Talvik"));
        pdf_.setTitle(QString::fromStdString(document.title));
        pdf_.setResolution(300);
        pdf_.setPageSize(QPageSize(QPageSize::A4));
        pdf_.setPageMargins(QMarginsF(0, 0, 0, 0), QPageLayout::Millimeter);
        page_ = QSizeF(pdf_.width() / unit, pdf_.height() / unit);
        font_ = QFont(QString::fromLatin1(fontFamily()));
        font_.setPointSizeF(8.5);
    }
    QSizeF body() const { return {page_.width() - 2 * marginX, page_.height() - 2 * marginY}; }
    // A piece of the document, laid out.
    std::unique_ptr<ReportText> piece(std::size_t from, std::size_t to) const {
        auto text = std::make_unique<ReportText>(document_, 0);
        text->setDefaultFont(font_);
        text->setDocumentMargin(0);
        text->setHtml(QString::fromStdString(report::html(document_, from, to, report::Target::Flow)));
        text->setPageSize(body());
        return text;
    }
    void begin(int pages) {
        pages_ = pages;
        painter_.begin(&pdf_);
        painter_.scale(unit, unit);
    }
    void paint(ReportText& text) {
        const int pages = text.pageCount();
        const auto images = text.images();
        std::size_t image = 0;
        for (int i = 0; i < pages; ++i) {
            next();
            painter_.save();
            painter_.translate(marginX, marginY - i * body().height());
            text.drawContents(&painter_, QRectF(0, i * body().height(), body().width(), body().height()));
            for (; image < images.size() && images[image].at.center().y() < (i + 1) * body().height();
                 ++image)
                text.paintImage(painter_, images[image]);
            painter_.restore();
        }
    }
    struct Line {
        QString text;
        bool sub = false;
        int page = 0;
    };
    static constexpr double step = 16;
    int contentsPages(std::size_t lines) const { return int((lines + 2) / perPage()) + 1; }
    void contents(const std::vector<Line>& lines) {
        std::size_t at = 0;
        for (int p = 0; p < contentsPages(lines.size()); ++p) {
            next();
            double y = marginY;
            QFont font(font_);
            font.setPixelSize(18);
            if (p == 0) {
                painter_.setFont(font);
                painter_.setPen(QColor(0x1f, 0x2a, 0x33));
                painter_.drawText(QRectF(marginX, y, body().width(), 24), Qt::AlignLeft,
                                  QStringLiteral("Contents"));
                y += 2 * step;
            }
            font.setPixelSize(11);
            for (const std::size_t last = std::min(lines.size(), at + perPage() - (p == 0 ? 2 : 0));
                 at < last; ++at) {
                const auto& l = lines[at];
                font.setWeight(l.sub ? QFont::Normal : QFont::DemiBold);
                painter_.setFont(font);
                const double x = marginX + (l.sub ? 16 : 0), wide = body().width() - (x - marginX) - 40;
                painter_.drawText(QRectF(x, y, wide, step), Qt::AlignLeft,
                                  QFontMetricsF(font).elidedText(l.text, Qt::ElideRight, wide));
                painter_.drawText(QRectF(marginX, y, body().width(), step), Qt::AlignRight,
                                  QString::number(l.page));
                y += step;
            }
        }
    }
    void end() { painter_.end(); }

  private:
    static constexpr double unit = 300 / 96.0, marginX = 60, marginY = 52;
    const report::Document& document_;
    QPdfWriter pdf_;
    QPainter painter_;
    QSizeF page_;
    QFont font_;
    int pages_ = 0, number_ = 0;

    std::size_t perPage() const { return std::size_t(body().height() / step); }
    void next() {
        if (number_ > 0) pdf_.newPage();
        ++number_;
        QFont small(font_);
        small.setPixelSize(10);
        painter_.setFont(small);
        painter_.setPen(QColor(0x5d, 0x6b, 0x74));
        const QRectF foot(marginX, page_.height() - 40, body().width(), 14);
        painter_.drawText(foot, Qt::AlignLeft, QString::fromStdString(document_.title));
        painter_.drawText(foot, Qt::AlignRight, QStringLiteral("%1 / %2").arg(number_).arg(pages_));
    }
};

}  // namespace

std::string writeReportPdf(const std::string& path, const report::Document& document,
                           const Progress& progress) {
    bool stopped = false;
    auto on = [&](double share) {
        stopped = stopped || (progress && !progress(share));
        return !stopped;
    };
    const QByteArray bytes = written([&](QIODevice* device) {
        Pages pages(device, document);
        auto starts = report::pieces(document);
        const std::size_t n = starts.size();
        starts.push_back(document.blocks.size());
        std::vector<Pages::Line> lines;
        const bool contents = report::hasContents(document);
        for (const auto& b : document.blocks)
            if (contents &&
                (b.kind == report::Block::Kind::Heading || b.kind == report::Block::Kind::Subheading))
                lines.push_back({QString::fromStdString(b.text), b.kind == report::Block::Kind::Subheading});
        // First how many pages each piece has and on which its headings stand. What is laid out is kept for
        // writing, up to a number of pieces, and let go beyond: memory is bounded.
        constexpr std::size_t mostKept = 250;
        int page = contents ? pages.contentsPages(lines.size()) : 0;
        std::size_t line = 0;
        std::vector<std::unique_ptr<ReportText>> kept(n);
        for (std::size_t k = 0; k < n && on(0.5 * double(k) / double(n)); ++k) {
            auto text = pages.piece(starts[k], starts[k + 1]);
            if (contents)
                for (auto b = text->begin(); b.isValid(); b = b.next()) {
                    const int level = b.blockFormat().headingLevel();
                    if (level != 2 && level != 3) continue;
                    const double y = text->documentLayout()->blockBoundingRect(b).top();
                    if (line < lines.size()) lines[line++].page = page + 1 + int(y / pages.body().height());
                }
            page += text->pageCount();
            if (k < mostKept) kept[k] = std::move(text);
        }
        pages.begin(page);
        if (contents && !stopped) pages.contents(lines);
        for (std::size_t k = 0; k < n && on(0.5 + 0.5 * double(k) / double(n)); ++k) {
            pages.paint(kept[k] ? *kept[k] : *pages.piece(starts[k], starts[k + 1]));
            kept[k].reset();
        }
        pages.end();
    });
    if (stopped) return "The report was stopped; nothing was written.";
    return write(path, withoutTime(bytes));
}

std::string writeReportOdt(const std::string& path, const report::Document& document) {
    QByteArray bytes = written([&](QIODevice* device) {
        ReportText text(document, 150 / 25.4);
        QFont font(QString::fromLatin1(fontFamily()));
        font.setPointSizeF(9);
        text.setDefaultFont(font);
        text.setHtml(QString::fromStdString(report::html(document, report::Target::Flow)));
        text.setMetaInformation(QTextDocument::DocumentTitle, QString::fromStdString(document.title));
        QTextDocumentWriter writer(device, "ODF");
        writer.write(&text);
    });
    return write(path, withoutZipTimes(bytes));
}

}  // namespace talvik::paper

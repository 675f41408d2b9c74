#include "paper/paper.h"

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
#include <QTextDocument>
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

// Qt writes the time of day into PDF; a fixed time of the same length keeps all offsets inside the file
// right.
QByteArray withoutTime(QByteArray pdf) {
    static const QByteArray key = "/CreationDate (D:";
    if (qsizetype at = pdf.indexOf(key); at >= 0) pdf.replace(at + key.size(), 14, "20000101000000");
    return pdf;
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

// Resolves the images of a flow document: figures and gauges, drawn at 300 dpi.
class ReportText final : public QTextDocument {
  public:
    // `dots`: of figures, per mm of the sheet.
    explicit ReportText(const report::Document& document, double dots = 300 / 25.4)
        : document_(document), dots_(dots) {}

  protected:
    QVariant loadResource(int type, const QUrl& name) override {
        const QString text = name.toString();
        const double dots = dots_;
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
        svg.setTitle(QString::fromStdString(sheet.title));
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

std::string writeReportPdf(const std::string& path, const report::Document& document) {
    QByteArray bytes = written([&](QIODevice* device) {
        QPdfWriter pdf(device);
        pdf.setCreator(QStringLiteral("Talvik"));
        pdf.setTitle(QString::fromStdString(document.title));
        pdf.setResolution(300);
        pdf.setPageSize(QPageSize(QPageSize::A4));
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0), QPageLayout::Millimeter);
        ReportText text(document);
        QFont font(QString::fromLatin1(fontFamily()));
        font.setPointSizeF(8.5);
        text.setDefaultFont(font);
        text.setHtml(QString::fromStdString(report::html(document, report::Target::Flow)));
        // Laid out in points at 96 dpi units, painted page by page with margins and a footer.
        constexpr double unit = 300 / 96.0, marginX = 60, marginY = 52;
        QSizeF page(pdf.width() / unit, pdf.height() / unit),
            body(page.width() - 2 * marginX, page.height() - 2 * marginY);
        text.setDocumentMargin(0);
        text.setPageSize(body);
        int pages = text.pageCount();
        QPainter p(&pdf);
        p.scale(unit, unit);
        for (int i = 0; i < pages; ++i) {
            if (i) pdf.newPage();
            p.save();
            p.translate(marginX, marginY - i * body.height());
            text.drawContents(&p, QRectF(0, i * body.height(), body.width(), body.height()));
            p.restore();
            QFont small(font);
            small.setPixelSize(10);
            p.setFont(small);
            p.setPen(QColor(0x5d, 0x6b, 0x74));
            p.drawText(QRectF(marginX, page.height() - 40, body.width(), 14), Qt::AlignLeft,
                       QString::fromStdString(document.title));
            p.drawText(QRectF(marginX, page.height() - 40, body.width(), 14), Qt::AlignRight,
                       QStringLiteral("%1 / %2").arg(i + 1).arg(pages));
        }
    });
    return write(path, withoutTime(bytes));
}

}  // namespace talvik::paper

#include "paper/paper.h"

#include <QFontDatabase>
#include <QImage>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgGenerator>
#include <QTextDocument>
#include <QTextDocumentWriter>
#include <QUrl>
#include <algorithm>
#include <cmath>

#include "formats/file.h"
#include "paper/parts.h"

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

// Without the times at which a ZIP file says its entries were written: of each entry where it stands, and in
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

void paintGauge(QPainter& p, const QRectF& r, double ratio, const QString& outcome) {
    const QColor over(0xc8, 0x40, 0x1f);
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

// A flow document whose figures and gauges are pixels.
class ReportText final : public QTextDocument {
  public:
    // `dots`: of figures, per mm of the sheet.
    ReportText(const report::Document& document, double dots) : document_(document), dots_(dots) {}

  protected:
    QVariant loadResource(int type, const QUrl& name) override {
        const QString text = name.toString();
        QSizeF size(440, 36);  // of a gauge
        QRectF at(4, 4, 430, 28);
        if (text.startsWith(QLatin1String("figure:"))) {
            const auto& sheet = document_.figures[static_cast<std::size_t>(text.mid(7).toInt())];
            size = QSizeF(sheet.width, sheet.height) * dots_;
            at = QRectF({}, size);
        } else if (!text.startsWith(QLatin1String("gauge:"))) {
            return QTextDocument::loadResource(type, name);
        }
        QImage image(int(size.width()), int(size.height()), QImage::Format_RGB32);
        image.fill(Qt::white);
        QPainter p(&image);
        p.setRenderHint(QPainter::Antialiasing);
        paintNamed(p, document_, text, at);
        return image;
    }

  private:
    const report::Document& document_;
    double dots_;
};

}  // namespace

void paintNamed(QPainter& p, const report::Document& document, const QString& name, const QRectF& at) {
    p.save();
    if (name.startsWith(QLatin1String("figure:"))) {
        const auto& sheet = document.figures[static_cast<std::size_t>(name.mid(7).toInt())];
        p.translate(at.topLeft());
        p.scale(at.width() / sheet.width, at.height() / sheet.height);
        paint(p, sheet);
    } else if (name.startsWith(QLatin1String("gauge:"))) {
        const QStringList parts = QUrl::fromPercentEncoding(name.toUtf8()).split(QLatin1Char(':'));
        paintGauge(p, at, parts.value(1).toDouble(), parts.value(2));
    }
    p.restore();
}

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
    const QByteArray bytes = written([&](QIODevice* device) {
        QPdfWriter pdf(device);
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
    return formats::writeFile(path, joinPdf({bytes}, sheets.front().title));
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
    return formats::writeFile(path, {bytes.constData(), std::size_t(bytes.size())});
}

std::unique_ptr<QTextDocument> flow(const report::Document& document) {
    auto text = std::make_unique<ReportText>(document, 3.6);
    text->setHtml(QString::fromStdString(report::html(document, report::Target::Flow)));
    return text;
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
    const auto zip = withoutZipTimes(bytes);
    return formats::writeFile(path, {zip.constData(), std::size_t(zip.size())});
}

}  // namespace talvik::paper

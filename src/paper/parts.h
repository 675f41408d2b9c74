// What drawings and reports share on their way to files.
#pragma once

#include <QBuffer>
#include <QByteArray>
#include <QColor>
#include <QHashSeed>
#include <QRectF>
#include <QString>
#include <array>
#include <string>
#include <string_view>
#include <vector>

#include "report/report.h"

class QPainter;

namespace talvik::paper {

inline const QColor ink(0x1f, 0x2a, 0x33), grey(0x5d, 0x6b, 0x74);

// What `fill` writes to the device it is given; the device is finished with when it returns.
template <class F>
QByteArray written(F fill) {
    // Fonts are embedded in the order of a hash; without a random seed that order is always the same.
    QHashSeed::setDeterministicGlobalSeed();
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    fill(&buffer);
    return bytes;
}

// The figures and gauges that a flow document names, drawn as vectors.
void paintNamed(QPainter& painter, const report::Document& document, const QString& name, const QRectF& at);

// What stands in the foot of pages: words, and before `end` along the page the number of the page. In points.
struct Feet {
    QByteArray pdf;                  // a page of the words, then ten with a digit each, from `begin` on
    double begin = 0, end = 0;       // along the page
    std::array<double, 10> width{};  // of digits
};

// The pages of PDF documents one after the other as one document, without the time of day that Qt writes
// into each. Parts are let go of on the way: a long report is held once.
std::string joinPdf(std::vector<QByteArray> parts, const std::string& title, const Feet* feet = nullptr);

}  // namespace talvik::paper

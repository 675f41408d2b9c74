// Drawings and reports to PDF and SVG through Qt. Files are written whole or not at all, and equal input
// gives equal bytes. A QGuiApplication must exist. All functions give an empty string or a sentence.
#pragma once

#include <functional>
#include <memory>
#include <string>

#include "drawing/drawing.h"
#include "report/report.h"

class QPainter;
class QTextDocument;

namespace talvik::paper {

// The interface font, or the system's where Inter is not installed.
const char* fontFamily();

// Paints a sheet; the painter's unit is a mm of paper, y downwards.
void paint(QPainter& painter, const drawing::Sheet& sheet);

// One page for each sheet, of its size.
std::string writePdf(const std::string& path, const std::vector<drawing::Sheet>& sheets);
std::string writeSvg(const std::string& path, const drawing::Sheet& sheet);
// A report as text to show in a window, its figures and gauges with it, at the size shown. The report must
// outlive it.
std::unique_ptr<QTextDocument> flow(const report::Document& document);
// With page numbers and, where there is enough in it, a table of contents. Laid out and written piece by
// piece, so that memory does not grow with it; `progress` is told the share done and answers whether to go
// on.
using Progress = std::function<bool(double)>;
std::string writeReportPdf(const std::string& path, const report::Document& document,
                           const Progress& progress = {});
// As an OpenDocument text, to be edited.
std::string writeReportOdt(const std::string& path, const report::Document& document);

}  // namespace talvik::paper

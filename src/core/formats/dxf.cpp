#include "formats/dxf.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <fmt/format.h>

#include <cmath>
#include <cstdlib>
#include <fstream>
#include <map>
#include <memory>
#include <sstream>
#include <vector>

#include "formats/encoding.h"
#include "formats/file.h"

namespace talvik::formats {
namespace {

// DXF text is written as ASCII with \U+XXXX for everything else, which every reader since R2000 understands.
// There are four digits, so a character beyond U+FFFF is the two of UTF-16.
std::string encoded(const std::string& utf8) {
    std::string out;
    for (std::size_t i = 0; i < utf8.size();) {
        const unsigned code = takeUtf8(utf8, i);
        if (code < 0x80) {
            out += static_cast<char>(code < 32 ? ' ' : code);
        } else {
            for (const char16_t unit : utf16(code)) out += fmt::format("\\U+{:04X}", unsigned(unit));
        }
    }
    return out;
}

class Exporter {
  public:
    Exporter(DL_Dxf& dxf, DL_WriterA& out, const drawing::Sheet& sheet)
        : dxf_(dxf), out_(out), sheet_(sheet) {}

    void run() {
        dxf_.writeHeader(out_);
        out_.dxfString(9, "$INSUNITS");
        out_.dxfInt(70, 4);  // millimetres
        out_.sectionEnd();
        out_.sectionTables();
        dxf_.writeVPort(out_);
        int dashed = 0;
        for (auto layer : drawing::layers()) dashed += !drawing::style(layer).dash.empty();
        out_.tableLinetypes(3 + dashed);
        dxf_.writeLinetype(out_, DL_LinetypeData("BYBLOCK", "", 0, 0, 0));
        dxf_.writeLinetype(out_, DL_LinetypeData("BYLAYER", "", 0, 0, 0));
        dxf_.writeLinetype(out_, DL_LinetypeData("CONTINUOUS", "Continuous", 0, 0, 0));
        for (auto layer : drawing::layers()) {
            const auto& s = drawing::style(layer);
            if (s.dash.empty()) continue;
            // Strokes positive, gaps negative, at the scale of the drawing.
            std::vector<double> pattern;
            double whole = 0;
            for (std::size_t i = 0; i < s.dash.size(); ++i) {
                pattern.push_back((i % 2 ? -1 : 1) * full(s.dash[i]));
                whole += full(s.dash[i]);
            }
            dxf_.writeLinetype(out_, DL_LinetypeData(s.name, s.name, 0, static_cast<int>(pattern.size()),
                                                     whole, pattern.data()));
        }
        out_.tableEnd();
        out_.tableLayers(static_cast<int>(drawing::layers().size()) + 1);
        dxf_.writeLayer(out_, DL_LayerData("0", 0), DL_Attributes("", 7, 25, "CONTINUOUS", 1.0));
        for (auto layer : drawing::layers()) {
            const auto& s = drawing::style(layer);
            dxf_.writeLayer(out_, DL_LayerData(s.name, 0),
                            DL_Attributes("", s.dxfColour, static_cast<int>(std::lround(s.width * 100)),
                                          s.dash.empty() ? "CONTINUOUS" : s.name, 1.0));
        }
        out_.tableEnd();
        out_.tableStyle(1);
        dxf_.writeStyle(out_, DL_StyleData("Standard", 0, 0.0, 1.0, 0.0, 0, 2.5, "txt", ""));
        out_.tableEnd();
        dxf_.writeView(out_);
        dxf_.writeUcs(out_);
        out_.tableAppid(1);
        dxf_.writeAppid(out_, "ACAD");  // the name the format itself prescribes
        out_.tableEnd();
        dxf_.writeDimStyle(out_, full(1.4), full(1), full(1), full(0.8), full(2));
        dxf_.writeBlockRecord(out_);
        for (std::size_t i = 0; i < sheet_.dimensions.size(); ++i) dxf_.writeBlockRecord(out_, block(i));
        out_.tableEnd();
        out_.sectionEnd();
        out_.sectionBlocks();
        for (const char* name : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
            dxf_.writeBlock(out_, DL_BlockData(name, 0, 0, 0, 0));
            dxf_.writeEndBlock(out_, name);
        }
        // What a dimension is drawn with lies in a block of its own.
        std::vector<bool> inBlock(sheet_.items.size(), false);
        for (std::size_t i = 0; i < sheet_.dimensions.size(); ++i) {
            const auto& d = sheet_.dimensions[i];
            dxf_.writeBlock(out_, DL_BlockData(block(i), 1, 0, 0, 0));
            for (std::size_t k = d.first; k < d.first + d.count; ++k) {
                inBlock[k] = true;
                std::visit([this](const auto& item) { write(item); }, sheet_.items[k]);
            }
            dxf_.writeEndBlock(out_, block(i));
        }
        out_.sectionEnd();
        out_.sectionEntities();
        for (std::size_t i = 0; i < sheet_.items.size(); ++i)
            if (!inBlock[i]) std::visit([this](const auto& item) { write(item); }, sheet_.items[i]);
        for (std::size_t i = 0; i < sheet_.dimensions.size(); ++i) write(sheet_.dimensions[i], i);
        out_.sectionEnd();
        dxf_.writeObjects(out_);
        dxf_.writeObjectsEnd(out_);
        out_.dxfEOF();
    }

  private:
    double full(double paper) const { return paper * sheet_.scale; }
    DL_Attributes attributes(drawing::Layer layer) const {
        return DL_Attributes(drawing::style(layer).name, 256, -1, "BYLAYER", 1.0);
    }

    static std::string block(std::size_t dimension) { return "*D" + std::to_string(dimension + 1); }

    void write(const drawing::Polyline& p) {
        const std::size_t count = p.points.size();
        if (p.filled && (count == 3 || count == 4)) {
            auto corner = [&](std::size_t i) { return p.points[std::min(i, count - 1)]; };
            auto a = corner(0), b = corner(1), c = corner(2), d = corner(3);
            dxf_.writeSolid(out_,
                            DL_SolidData(full(a.x), full(a.y), 0, full(b.x), full(b.y), 0, full(d.x),
                                         full(d.y), 0, full(c.x), full(c.y), 0, 0),
                            attributes(p.layer));
        }
        const int flags = (p.closed ? 1 : 0) | (drawing::style(p.layer).dash.empty() ? 0 : 128);
        dxf_.writePolyline(out_, DL_PolylineData(static_cast<int>(count), 0, 0, flags), attributes(p.layer));
        for (const auto& q : p.points) dxf_.writeVertex(out_, DL_VertexData(full(q.x), full(q.y), 0, 0));
        dxf_.writePolylineEnd(out_);
    }
    void point(int code, drawing::Point p) {
        out_.dxfReal(code, full(p.x));
        out_.dxfReal(code + 10, full(p.y));
        out_.dxfReal(code + 20, 0);
    }
    void write(const drawing::Dimension& d, std::size_t number) {
        out_.entity("DIMENSION");
        out_.dxfString(100, "AcDbEntity");
        out_.entityAttributes(attributes(drawing::Layer::Dimension));
        out_.dxfString(100, "AcDbDimension");
        out_.dxfString(2, block(number));
        const double t = d.angle * M_PI / 180;
        const double along = (d.b.x - d.a.x) * std::cos(t) + (d.b.y - d.a.y) * std::sin(t);
        point(10, {d.at.x + along * std::cos(t), d.at.y + along * std::sin(t)});
        point(11, d.middle);
        out_.dxfInt(70, 32);  // measured along an angle, with a block of its own
        out_.dxfString(1, encoded(d.text));
        out_.dxfString(3, "Standard");
        out_.dxfString(100, "AcDbAlignedDimension");
        point(13, d.a);
        point(14, d.b);
        out_.dxfReal(50, d.angle);
        out_.dxfString(100, "AcDbRotatedDimension");
    }
    void write(const drawing::Circle& c) {
        dxf_.writeCircle(out_, DL_CircleData(full(c.centre.x), full(c.centre.y), 0, full(c.radius)),
                         attributes(c.layer));
    }
    void write(const drawing::Text& t) {
        int align = t.align == drawing::Align::Left ? 0 : t.align == drawing::Align::Centre ? 1 : 2;
        double x = full(t.at.x), y = full(t.at.y);
        dxf_.writeText(out_,
                       DL_TextData(x, y, 0, x, y, 0, full(t.height), 1.0, 0, align, 0, encoded(t.text),
                                   "Standard", t.angle * M_PI / 180),
                       attributes(t.layer));
    }

    DL_Dxf& dxf_;
    DL_WriterA& out_;
    const drawing::Sheet& sheet_;
};

// dxflib leaves out who owns the objects at the end of the file; the format asks for it: each is owned by the
// dictionary that names it, the first by none.
std::string withOwners(const std::string& text) {
    std::vector<std::string> lines;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);) {
        if (!line.empty() && line.back() == '\r') line.pop_back();
        lines.push_back(std::move(line));
    }
    auto code = [&](std::size_t i) { return std::atoi(lines[i].c_str()); };
    std::size_t first = lines.size();
    for (std::size_t i = 0; i + 1 < lines.size(); i += 2)
        if (code(i) == 2 && lines[i + 1] == "OBJECTS") first = i;
    std::map<std::string, std::string> owner;
    std::string handle;
    for (std::size_t i = first; i + 1 < lines.size(); i += 2) {
        if (code(i) == 5) handle = lines[i + 1];
        if (code(i) == 350) owner.emplace(lines[i + 1], handle);
    }
    std::string out;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        out += lines[i] + "\n";
        if (i <= first || i % 2 == 0 || code(i - 1) != 5) continue;
        const auto found = owner.find(lines[i]);
        out += "330\n" + (found == owner.end() ? "0" : found->second) + "\n";
    }
    return out;
}

}  // namespace

std::string writeDxf(const std::string& path, const drawing::Sheet& sheet) {
    MemoryFile memory;
    {
        DL_Dxf dxf;
        std::unique_ptr<DL_WriterA> out(memory.good() ? dxf.out(memory.path().c_str(), DL_Codes::AC1015)
                                                      : nullptr);
        if (!out || out->openFailed()) return path + " cannot be written: there is no memory for it.";
        Exporter(dxf, *out, sheet).run();
        out->close();
    }
    const auto text = memory.content();
    if (!text.error.empty()) return text.error;
    return writeFile(path, withOwners(text.text));
}

}  // namespace talvik::formats

#include "formats/dxf.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <cmath>
#include <cstdio>
#include <memory>

namespace talvik::formats {
namespace {

// DXF text is written as ASCII with \U+XXXX for everything else, which every reader since R2000 understands.
std::string encoded(const std::string& utf8) {
    std::string out;
    for (std::size_t i = 0; i < utf8.size();) {
        auto c = static_cast<unsigned char>(utf8[i]);
        int extra = c < 0x80 ? 0 : c < 0xE0 ? 1 : c < 0xF0 ? 2 : 3;
        unsigned code = extra == 0 ? c : c & (0x3F >> extra);
        for (int k = 1; k <= extra && i + k < utf8.size(); ++k)
            code = (code << 6) | (static_cast<unsigned char>(utf8[i + k]) & 0x3F);
        i += extra + 1;
        if (code < 0x80) {
            out += static_cast<char>(code < 32 ? ' ' : code);
        } else {
            char buffer[16];
            std::snprintf(buffer, sizeof buffer, "\\U+%04X", code);
            out += buffer;
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
        out_.tableLinetypes(3);
        dxf_.writeLinetype(out_, DL_LinetypeData("BYBLOCK", "", 0, 0, 0));
        dxf_.writeLinetype(out_, DL_LinetypeData("BYLAYER", "", 0, 0, 0));
        dxf_.writeLinetype(out_, DL_LinetypeData("CONTINUOUS", "Continuous", 0, 0, 0));
        out_.tableEnd();
        out_.tableLayers(static_cast<int>(drawing::layers().size()) + 1);
        dxf_.writeLayer(out_, DL_LayerData("0", 0), DL_Attributes("", 7, 25, "CONTINUOUS", 1.0));
        for (auto layer : drawing::layers()) {
            const auto& s = drawing::style(layer);
            dxf_.writeLayer(out_, DL_LayerData(s.name, 0),
                            DL_Attributes("", s.dxfColour, static_cast<int>(std::lround(s.width * 100)),
                                          "CONTINUOUS", 1.0));
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
        dxf_.writeDimStyle(out_, 1, 1, 1, 1, 1);
        dxf_.writeBlockRecord(out_);
        out_.tableEnd();
        out_.sectionEnd();
        out_.sectionBlocks();
        for (const char* name : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
            dxf_.writeBlock(out_, DL_BlockData(name, 0, 0, 0, 0));
            dxf_.writeEndBlock(out_, name);
        }
        out_.sectionEnd();
        out_.sectionEntities();
        for (const auto& item : sheet_.items) std::visit([this](const auto& i) { write(i); }, item);
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

    // Dashes are drawn as pieces: line types would need a definition that readers scale differently.
    void write(const drawing::Polyline& p) {
        const auto& dash = drawing::style(p.layer).dash;
        std::size_t count = p.points.size(), segments = p.closed ? count : count - 1;
        if (p.filled && (count == 3 || count == 4)) {
            auto corner = [&](std::size_t i) { return p.points[std::min(i, count - 1)]; };
            auto a = corner(0), b = corner(1), c = corner(2), d = corner(3);
            dxf_.writeSolid(out_,
                            DL_SolidData(full(a.x), full(a.y), 0, full(b.x), full(b.y), 0, full(d.x),
                                         full(d.y), 0, full(c.x), full(c.y), 0, 0),
                            attributes(p.layer));
        }
        if (!dash.empty()) {
            for (std::size_t i = 0; i < segments; ++i)
                dashed(p.points[i], p.points[(i + 1) % count], dash, p.layer);
            return;
        }
        dxf_.writePolyline(out_, DL_PolylineData(static_cast<int>(count), 0, 0, p.closed ? 1 : 0),
                           attributes(p.layer));
        for (const auto& q : p.points) dxf_.writeVertex(out_, DL_VertexData(full(q.x), full(q.y), 0, 0));
        dxf_.writePolylineEnd(out_);
    }
    void dashed(drawing::Point a, drawing::Point b, const std::vector<double>& dash, drawing::Layer layer) {
        double length = std::hypot(b.x - a.x, b.y - a.y);
        if (length <= 0) return;
        double at = 0;
        for (std::size_t i = 0; at < length; ++i) {
            double next = std::min(length, at + dash[i % dash.size()]);
            if (i % 2 == 0) {
                double t0 = at / length, t1 = next / length;
                dxf_.writeLine(out_,
                               DL_LineData(full(a.x + (b.x - a.x) * t0), full(a.y + (b.y - a.y) * t0), 0,
                                           full(a.x + (b.x - a.x) * t1), full(a.y + (b.y - a.y) * t1), 0),
                               attributes(layer));
            }
            at = next;
        }
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

}  // namespace

std::string writeDxf(const std::string& path, const drawing::Sheet& sheet) {
    std::string temporary = path + ".part";
    {
        DL_Dxf dxf;
        std::unique_ptr<DL_WriterA> out(dxf.out(temporary.c_str(), DL_Codes::AC1015));
        if (!out || out->openFailed()) return path + " cannot be written; is its folder there and writable?";
        Exporter(dxf, *out, sheet).run();
        out->close();
    }
    if (std::rename(temporary.c_str(), path.c_str()) != 0) {
        std::remove(temporary.c_str());
        return path + " cannot be written; is its folder there and writable?";
    }
    return {};
}

}  // namespace talvik::formats

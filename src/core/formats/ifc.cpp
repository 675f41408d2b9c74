#include "formats/ifc.h"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <cstdint>
#include <map>
#include <numbers>

#include "design/bases.h"
#include "design/floor_design.h"
#include "design/slab_design.h"
#include "formats/encoding.h"
#include "geometry/band.h"
#include "model/steps.h"

namespace talvik::formats {
namespace {

using geometry::Point;
using geometry::Ring;
using schedule::Item;

struct Point3 {
    double x = 0, y = 0, z = 0;
};

// A real as ISO 10303-21 writes it: with a point, in tenths of micrometres at the most.
std::string real(double v) {
    v = std::round(v * 1e4) / 1e4;
    if (v == 0) v = 0;  // no negative zero
    std::string s = fmt::format("{:.4f}", v);
    s.erase(s.find_last_not_of('0') + 1);
    return s;
}
std::string list(const std::vector<int>& ids) {
    std::string s;
    for (int id : ids) s += fmt::format("{}#{}", s.empty() ? "" : ",", id);
    return "(" + s + ")";
}
// Text of the file's alphabet: what is not ASCII as UTF-16 between \X2\ and \X0\.
std::string text(const std::string& utf8) {
    std::string out = "'";
    bool wide = false;
    auto leave = [&] {
        if (wide) out += "\\X0\\";
        wide = false;
    };
    for (std::size_t i = 0; i < utf8.size();) {
        unsigned code = takeUtf8(utf8, i);
        if (code >= 32 && code < 127) {
            leave();
            if (code == '\'' || code == '\\') out += static_cast<char>(code);
            out += static_cast<char>(code);
            continue;
        }
        if (code < 32) code = ' ';
        if (!wide) out += "\\X2\\";
        wide = true;
        for (const char16_t unit : utf16(code)) out += fmt::format("{:04X}", unsigned(unit));
    }
    leave();
    return out + "'";
}
// An identity of 22 characters that follows from what it names.
std::string identityOf(const std::string& of) {
    std::array<std::uint64_t, 2> hash{14695981039346656037ull, 1099511628211ull * 31};
    for (auto& h : hash)
        for (char c : of) h = (h ^ static_cast<unsigned char>(c)) * 1099511628211ull, h ^= h >> 29;
    static constexpr char digits[] = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$";
    // 128 bits, six at a time from the right; the first character holds the two left over.
    std::string s(22, '0');
    auto high = hash[0], low = hash[1];
    for (int k = 21; k >= 0; --k) {
        s[std::size_t(k)] = digits[low & 63];
        low = (low >> 6) | (high << 58);
        high >>= 6;
    }
    return "'" + s + "'";
}

class Writer {
  public:
    Writer(const model::Project& project, const design::Design& design)
        : project_(project), design_(design) {}

    std::string run() {
        frame();
        double below = 0;
        for (const auto& e : design_.elements) {
            if (!e->error.empty()) continue;
            contents_.clear();
            const int place = add("IFCLOCALPLACEMENT", "$,{}", axes({0, 0, 0}));
            const int storey =
                add("IFCBUILDINGSTOREY", "{},$,{},{},$,#{},$,{},.ELEMENT.,0.",
                    identity("storey/" + e->element), text(e->name),
                    text(e->members > 1 ? fmt::format("{} members alike", e->members) : std::string()), place,
                    text(e->name));
            storeys_.push_back(storey);
            storeyPlace_ = place;
            element_ = e.get();
            if (const auto* f = dynamic_cast<const design::FloorDesign*>(e.get())) floor(*f);
            if (const auto* s = dynamic_cast<const design::SlabAnswer*>(e.get())) slab(*s, below);
            if (const auto* b = dynamic_cast<const design::BasesAnswer*>(e.get())) bases(*b);
            if (!contents_.empty())
                add("IFCRELCONTAINEDINSPATIALSTRUCTURE", "{},$,$,$,{},#{}", identity("in/" + e->element),
                    list(contents_), storey);
        }
        if (!storeys_.empty())
            add("IFCRELAGGREGATES", "{},$,$,$,#{},{}", identity("storeys"), building_, list(storeys_));
        for (const auto& [name, of] : concreteOf_) material(of, name, "concrete");
        for (const auto& [name, of] : steelOf_) material(of, name, "steel");
        const auto& sheet = project_.sheet;
        return "ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION(('ViewDefinition [ReferenceView_V1.2]'),'2;1');\n" +
               fmt::format(
                   "FILE_NAME({},'2000-01-01T00:00:00',({}),(''),'Talvik','Talvik','');\n",
                   text(project_.name + (sheet.revision.empty() ? "" : ", revision " + sheet.revision)),
                   text(sheet.author)) +
               "FILE_SCHEMA(('IFC4'));\nENDSEC;\nDATA;\n" + data_ + "ENDSEC;\nEND-ISO-10303-21;\n";
    }

  private:
    const model::Project& project_;
    const design::Design& design_;
    const design::ElementAnswer* element_ = nullptr;
    std::string data_;
    int last_ = 0, model_ = 0, body_ = 0, building_ = 0, storeyPlace_ = 0, up_ = 0;
    std::vector<int> storeys_, contents_;
    std::map<int, double> volumes_;                                 // of solids, mm3
    std::map<std::string, std::vector<int>> concreteOf_, steelOf_;  // by material

    // Of something in this project: another project, by its name or drawing number, shares none.
    std::string identity(const std::string& of) const {
        return identityOf(project_.name + "/" + project_.sheet.number + "/" + of);
    }
    template <class... Args>
    int add(const char* entity, fmt::format_string<Args...> attributes, Args&&... args) {
        data_ += fmt::format("#{}={}(", ++last_, entity) +
                 fmt::format(attributes, std::forward<Args>(args)...) + ");\n";
        return last_;
    }
    int point(Point3 p) { return add("IFCCARTESIANPOINT", "({},{},{})", real(p.x), real(p.y), real(p.z)); }
    int direction(Point3 p) { return add("IFCDIRECTION", "({},{},{})", real(p.x), real(p.y), real(p.z)); }
    // A placement at a point, its x axis turned about z.
    std::string axes(Point3 at, double degrees = 0) {
        const int p = point(at);
        if (degrees == 0) return fmt::format("#{}", add("IFCAXIS2PLACEMENT3D", "#{},$,$", p));
        const double t = degrees * std::numbers::pi / 180;
        // Directions need more digits than lengths do.
        const int x = add("IFCDIRECTION", "({:.9f},{:.9f},0.)", std::cos(t), std::sin(t));
        return fmt::format("#{}", add("IFCAXIS2PLACEMENT3D", "#{},#{},#{}", p, up_, x));
    }

    void frame() {
        const int length = add("IFCSIUNIT", "*,.LENGTHUNIT.,.MILLI.,.METRE.");
        const int area = add("IFCSIUNIT", "*,.AREAUNIT.,$,.SQUARE_METRE.");
        const int volume = add("IFCSIUNIT", "*,.VOLUMEUNIT.,$,.CUBIC_METRE.");
        const int mass = add("IFCSIUNIT", "*,.MASSUNIT.,.KILO.,.GRAM.");
        const int angle = add("IFCSIUNIT", "*,.PLANEANGLEUNIT.,$,.RADIAN.");
        const int units = add("IFCUNITASSIGNMENT", "{}", list({length, area, volume, mass, angle}));
        up_ = direction({0, 0, 1});
        const double t = project_.sheet.north * std::numbers::pi / 180;
        const int north = add("IFCDIRECTION", "({:.9f},{:.9f})", std::cos(t), std::sin(t));
        const std::string origin = axes({0, 0, 0});
        model_ = add("IFCGEOMETRICREPRESENTATIONCONTEXT", "$,'Model',3,1.E-05,{},#{}", origin, north);
        body_ = add("IFCGEOMETRICREPRESENTATIONSUBCONTEXT", "'Body','Model',*,*,*,*,#{},$,.MODEL_VIEW.,$",
                    model_);
        const int project = add("IFCPROJECT", "{},$,{},$,$,$,$,(#{}),#{}", identity("project"),
                                text(project_.name), model_, units);
        const int sitePlace = add("IFCLOCALPLACEMENT", "$,{}", axes({0, 0, 0}));
        const int site = add("IFCSITE", "{},$,{},$,$,#{},$,$,.ELEMENT.,$,$,$,$,$", identity("site"),
                             text(project_.name), sitePlace);
        building_ = add("IFCBUILDING", "{},$,{},$,$,#{},$,$,.ELEMENT.,$,$,$", identity("building"),
                        text(project_.name), sitePlace);
        add("IFCRELAGGREGATES", "{},$,$,$,#{},(#{})", identity("sites"), project, site);
        add("IFCRELAGGREGATES", "{},$,$,$,#{},(#{})", identity("buildings"), site, building_);
    }
    void material(const std::vector<int>& of, const std::string& name, const char* category) {
        const int m = add("IFCMATERIAL", "{},$,'{}'", text(name), category);
        add("IFCRELASSOCIATESMATERIAL", "{},$,$,$,{},#{}",
            identity(std::string("material/") + category +
                     (name == project_.basis.concrete || name == project_.basis.steel ? "" : "/" + name)),
            list(of), m);
    }

    // Base quantities of a product, by the names of the standard.
    void quantities(int of, const std::string& name, const std::string& key, const std::vector<int>& values) {
        const int set =
            add("IFCELEMENTQUANTITY", "{},$,'{}',$,$,{}", identity("quantities/" + key), name, list(values));
        add("IFCRELDEFINESBYPROPERTIES", "{},$,$,$,(#{}),#{}", identity("of/quantities/" + key), of, set);
    }

    // An outline in plan drawn upwards from z.
    int prism(const Ring& ring, double z, double height) {
        std::string points;
        for (Point p : ring)
            points += fmt::format("{}({},{})", points.empty() ? "" : ",", real(p.x), real(p.y));
        points += fmt::format(",({},{})", real(ring.front().x), real(ring.front().y));
        const int all = add("IFCCARTESIANPOINTLIST2D", "({})", points);
        const int curve = add("IFCINDEXEDPOLYCURVE", "#{},$,.F.", all);
        const int profile = add("IFCARBITRARYCLOSEDPROFILEDEF", ".AREA.,$,#{}", curve);
        return extruded(profile, {0, 0, z}, height, std::abs(geometry::area(ring)));
    }
    int extruded(int profile, Point3 at, double height, double area) {
        const int id = add("IFCEXTRUDEDAREASOLID", "#{},{},#{},{}", profile, axes(at), up_, real(height));
        volumes_[id] = area * height;
        return id;
    }
    // Of a pile or column of a diameter that stands at a point.
    int cylinder(Point3 at, double diameter, double height) {
        const int profile = add("IFCCIRCLEPROFILEDEF", ".AREA.,$,$,{}", real(diameter / 2));
        return extruded(profile, at, height, std::numbers::pi * diameter * diameter / 4);
    }
    int shape(const std::vector<int>& solids, const char* type = "SweptSolid") {
        const int body = add("IFCSHAPEREPRESENTATION", "#{},'Body','{}',{}", body_, type, list(solids));
        return add("IFCPRODUCTDEFINITIONSHAPE", "$,$,(#{})", body);
    }
    int placed() { return add("IFCLOCALPLACEMENT", "#{},{}", storeyPlace_, axes({0, 0, 0})); }
    // An element of concrete with its solids.
    int concrete(const char* entity, const std::string& key, const std::string& name,
                 const std::vector<int>& solids, const char* kind, const std::string& grade) {
        const int s = shape(solids), at = placed();
        double volume = 0;
        for (int solid : solids) volume += volumes_.at(solid);
        const int id = add(entity, "{},$,{},$,$,#{},#{},{},.{}.", identity(element_->element + "/" + key),
                           text(name), at, s, text(key), kind);
        contents_.push_back(id), concreteOf_[grade].push_back(id);
        quantities(id,
                   std::string("Qto_") +
                       (std::string(entity) == "IFCSLAB"     ? "Slab"
                        : std::string(entity) == "IFCCOLUMN" ? "Column"
                        : std::string(entity) == "IFCWALL"   ? "Wall"
                        : std::string(entity) == "IFCBEAM"   ? "Beam"
                                                             : "Footing") +
                       "BaseQuantities",
                   element_->element + "/" + key,
                   {add("IFCQUANTITYVOLUME", "'GrossVolume',$,$,{:.6f},$", volume / 1e9)});
        return id;
    }

    void floor(const design::FloorDesign& f) {
        const auto& floor = *f.floor;
        const bool ground = !floor.grounds.empty();
        const auto& basis = project_.basis;
        const std::string& grade = basis.concrete;
        std::vector<Ring> zones;
        for (const auto& z : floor.zones) zones.push_back(model::ring(z.outline));
        // An opening empties each slab and thickening that it touches.
        auto openings = [&](int of, const std::string& key, const std::vector<Ring>& parts, double z,
                            double h) {
            for (const auto& o : floor.openings) {
                const Ring ring = model::ring(o.outline);
                bool touches = false;
                for (const Ring& p : parts) touches |= geometry::shared(p, ring).area > 100;
                if (!touches) continue;
                const int s = shape({prism(ring, z - 1, h + 2)}), at = placed();
                const int hole = add("IFCOPENINGELEMENT", "{},$,{},$,$,#{},#{},{},.OPENING.",
                                     identity(element_->element + "/" + o.id + "/" + key),
                                     text(o.name.empty() ? o.id : o.name), at, s, text(o.id));
                add("IFCRELVOIDSELEMENT", "{},$,$,$,#{},#{}",
                    identity(element_->element + "/" + o.id + "/in/" + key), of, hole);
            }
        };
        model::Floor plain = floor;  // as if it had no thickenings
        plain.zones.clear();
        const model::Thickness slabs(plain);
        const char* kind = ground ? "BASESLAB" : "FLOOR";
        for (const auto& s : floor.slabs) {
            const auto parts = geometry::difference(model::ring(s.outline), zones);
            std::vector<int> solids;
            for (const Ring& p : parts) solids.push_back(prism(p, s.level - s.thickness, s.thickness));
            if (solids.empty()) continue;
            openings(concrete("IFCSLAB", s.id, s.name.empty() ? s.id : s.name, solids, kind, grade), s.id,
                     parts, s.level - s.thickness, s.thickness);
        }
        for (std::size_t k = 0; k < zones.size(); ++k) {
            const auto& z = floor.zones[k];
            const std::vector<Ring> later(zones.begin() + std::ptrdiff_t(k) + 1, zones.end());
            const Point inner = geometry::inside(zones[k]);
            const double over = z.thickness - slabs.at(inner), level = model::Levels(floor).at(inner);
            const double top = level + (z.level == model::Zone::Level::Top      ? 0
                                        : z.level == model::Zone::Level::Bottom ? over
                                                                                : over / 2);
            std::vector<int> solids;
            std::vector<Ring> parts;
            for (const Ring& o : model::outlines(floor))
                for (const Ring& in : geometry::intersection(zones[k], o))
                    for (Ring& p : geometry::difference(in, later)) parts.push_back(std::move(p));
            for (const Ring& p : parts) solids.push_back(prism(p, top - z.thickness, z.thickness));
            if (solids.empty()) continue;
            openings(concrete("IFCSLAB", z.id, z.name.empty() ? z.id : z.name, solids, kind, grade), z.id,
                     parts, top - z.thickness, z.thickness);
        }
        const model::Thickness thick(floor);
        const model::Levels levels(floor);
        for (const auto& c : floor.columns) {
            const Ring section = model::footprint(c);
            const double level = levels.at({c.x, c.y}), h = thick.at({c.x, c.y});
            std::vector<int> solids;
            if (c.below) solids.push_back(column(c, section, level - h - c.heightBelow, c.heightBelow));
            if (c.above) solids.push_back(column(c, section, level, c.heightAbove));
            if (!solids.empty())
                concrete("IFCCOLUMN", c.id, c.name.empty() ? c.id : c.name, solids, "COLUMN",
                         basis.column.concrete);
        }
        for (const auto& w : floor.walls) {
            const Point middle{(w.a.x + w.b.x) / 2, (w.a.y + w.b.y) / 2};
            const double h = thick.at(middle) - levels.at(middle);
            concrete("IFCWALL", w.id, w.name.empty() ? w.id : w.name,
                     {prism(geometry::band(w.a, w.b, w.thickness), -h - w.height, w.height)}, "SOLIDWALL",
                     basis.column.concrete);
        }
        for (const auto& b : floor.beams) {
            const Point middle{(b.a.x + b.b.x) / 2, (b.a.y + b.b.y) / 2};
            const double level = levels.at(middle), web = b.depth - thick.at(middle);
            if (web < 1) continue;
            concrete("IFCBEAM", b.id, b.name.empty() ? b.id : b.name,
                     {prism(geometry::band(b.a, b.b, b.width), level - (b.upstand ? 0 : b.depth), web)},
                     "BEAM", basis.beam.concrete);
        }
        for (const auto& p : f.parts) {
            double outer[2] = {0, 0};
            if (const auto* line = dynamic_cast<const design::LineAnswer*>(p.get()))
                outer[0] = line->outerBottom, outer[1] = line->outerTop;
            for (const auto& i : p->items)
                bars(
                    *p, i, i.lie, outer, [&](Point at) { return thick.at(at); }, &levels);
        }
    }
    int column(const model::Column& c, const Ring& section, double z, double height) {
        if (!c.circular) return prism(section, z, height);
        return cylinder({c.x, c.y, z}, c.width, height);
    }

    void slab(const design::SlabAnswer& answer, double& below) {
        const auto& s = *answer.design->slab;
        below -= s.width + 2000;
        const double y0 = below, x0 = model::concreteStart(s), x1 = model::concreteEnd(s), h = s.thickness;
        concrete("IFCSLAB", "slab", s.name,
                 {prism({{x0, y0}, {x1, y0}, {x1, y0 + s.width}, {x0, y0 + s.width}}, -h, h)}, "FLOOR",
                 project_.basis.concrete);
        for (std::size_t i = 0; i < s.supports.size(); ++i) {
            const auto& p = s.supports[i];
            if (p.kind != model::Support::Kind::Wall) continue;
            const double x = model::axis(s, i);
            concrete("IFCWALL", p.id, model::supportLabel(s, i),
                     {prism(geometry::band({x, y0}, {x, y0 + s.width}, p.width), -h - 3000, 3000)},
                     "SOLIDWALL", project_.basis.column.concrete);
        }
        const double cover = project_.basis.coverSide;
        const double outer[2] = {answer.design->outerBottom, answer.design->outerTop};
        for (const auto& i : answer.design->items) {
            std::vector<geometry::Segment> lie;
            auto spread = [&](double a, double b, int n, auto put) {
                for (int k = 0; k < n; ++k) put(n > 1 ? a + k * (b - a) / (n - 1) : (a + b) / 2);
            };
            const double low = y0 + cover, high = y0 + s.width - cover;
            if (i.layer == "U" && i.to - i.from > 2 * i.dimensions.at('A') + 1) {
                for (bool far : {false, true})
                    spread(i.from, i.to, i.number / 2, [&](double x) {
                        const double y = far ? high : low;
                        lie.push_back({{x, y}, {x, y + (far ? -1 : 1) * i.dimensions.at('A')}});
                    });
            } else if (i.layer == "U") {
                const bool start = std::abs(i.from - x0) < std::abs(i.to - x1);
                const double tip = start ? i.from : i.to,
                             inner = tip + (start ? 1 : -1) * i.dimensions.at('A');
                spread(low, high, i.number, [&](double y) { lie.push_back({{tip, y}, {inner, y}}); });
            } else if (i.layer == "S") {
                const auto rows = schedule::linkRows(i.from, i.to, i.spacing);
                const int each = i.number / int(rows.size());
                const double step = (high - low) / each, half = i.dimensions.at('B') / 2;
                for (double x : rows)
                    for (int k = 0; k < each; ++k) {
                        const double y = low + (k + 0.5) * step;
                        lie.push_back({{x, y - half}, {x, y + half}});
                    }
            } else if (i.layer.ends_with('2')) {
                spread(i.from, i.to, i.number, [&](double x) { lie.push_back({{x, low}, {x, high}}); });
            } else {
                spread(low, high, i.number, [&](double y) { lie.push_back({{i.from, y}, {i.to, y}}); });
            }
            bars(*answer.design, i, lie, outer, [&](Point) { return h; });
        }
    }

    // A bar along its middle line, with an arc at every corner.
    int swept(const std::vector<Point3>& line, double d) {
        const double radius = element_->standard->anchorage->bendRadius(d) + d / 2;
        std::string points, segments;
        int number = 0;
        auto put = [&](const Point3& p) {
            points += fmt::format("{}({},{},{})", points.empty() ? "" : ",", real(p.x), real(p.y), real(p.z));
            return ++number;
        };
        auto segment = [&](const std::string& what) { segments += (segments.empty() ? "" : ",") + what; };
        auto toward = [](const Point3& a, const Point3& b, double by) {
            const double l = distance(a, b);
            return Point3{a.x + (b.x - a.x) / l * by, a.y + (b.y - a.y) / l * by, a.z + (b.z - a.z) / l * by};
        };
        int last = put(line.front());
        for (std::size_t k = 1; k < line.size(); ++k) {
            const Point3 &before = line[k - 1], &at = line[k];
            if (k + 1 == line.size()) {
                const int end = put(at);
                segment(fmt::format("IFCLINEINDEX(({},{}))", last, end));
                break;
            }
            const Point3& after = line[k + 1];
            const double in = distance(before, at), out = distance(at, after);
            const Point3 u = toward(at, before, 1), w = toward(at, after, 1);
            const double cosine =
                (u.x - at.x) * (w.x - at.x) + (u.y - at.y) * (w.y - at.y) + (u.z - at.z) * (w.z - at.z);
            const double half = std::acos(std::clamp(cosine, -1.0, 1.0)) / 2;
            // A bend takes no more of a leg than there is: half of one that another bend takes as well.
            const double room =
                std::min(in * (k == 1 ? 1.0 : 0.5), out * (k + 2 == line.size() ? 1.0 : 0.5)) - 0.5;
            const double tangent = std::min(radius / std::tan(half), room);
            if (half > std::numbers::pi / 2 - 1e-3 || tangent < 0.1) {
                const int corner = put(at);
                segment(fmt::format("IFCLINEINDEX(({},{}))", last, corner));
                last = corner;
                continue;
            }
            const double r = tangent * std::tan(half);
            const Point3 from = toward(at, before, tangent), to = toward(at, after, tangent);
            const Point3 between{(from.x + to.x) / 2, (from.y + to.y) / 2, (from.z + to.z) / 2};
            const int start = put(from), middle = put(toward(at, between, r / std::sin(half) - r)),
                      end = put(to);
            segment(fmt::format("IFCLINEINDEX(({},{}))", last, start));
            segment(fmt::format("IFCARCINDEX(({},{},{}))", start, middle, end));
            last = end;
        }
        const int all = add("IFCCARTESIANPOINTLIST3D", "({})", points);
        const int curve = add("IFCINDEXEDPOLYCURVE", "#{},({}),.F.", all, segments);
        return add("IFCSWEPTDISKSOLID", "#{},{},$,$,$", curve, real(d / 2));
    }
    static double distance(const Point3& a, const Point3& b) {
        return std::hypot(b.x - a.x, b.y - a.y, b.z - a.z);
    }

    // Bases with their undersides at the founding depth, stubs of columns, heads of piles, and their bars.
    void bases(const design::BasesAnswer& answer) {
        const auto& set = *answer.set;
        const bool pads = set.kind == model::BaseSet::Kind::Pads;
        const std::string& grade = element_->basis->concrete;
        for (const auto& b : answer.bases) {
            const auto& size = b->size();
            const auto& row = set.bases[b->number];
            const double z = -set.ground.depth;
            const auto outer = b->solid();
            std::vector<int> solids{prism(b->outline(), z, outer.edge())};
            if (!outer.level()) {
                // Slopes as ten steps, each as wide as the slope is in its middle.
                const auto& u = outer.upper();
                const int steps = outer.stepped() ? 1 : 10;
                const double rise = (size.h - outer.edge()) / steps;
                for (int k = 0; k < steps; ++k) {
                    const double t = outer.stepped() ? 1 : (k + 0.5) / steps;
                    auto between = [&](double out, double in) { return out + t * (in - out); };
                    const double x0 = between(-size.B / 2, u[0]), x1 = between(size.B / 2, u[1]),
                                 y0 = between(-size.L / 2, u[2]), y1 = between(size.L / 2, u[3]);
                    solids.push_back(
                        prism(geometry::rectangle({b->centre.x + (x0 + x1) / 2, b->centre.y + (y0 + y1) / 2},
                                                  x1 - x0, y1 - y0),
                              z + outer.edge() + k * rise, rise));
                }
            }
            if (const auto& t = b->strap)
                concrete("IFCBEAM", row.id + "/strap", "Strap of " + b->name,
                         {prism(geometry::rectangle({((*t)[0] + (*t)[1]) / 2, ((*t)[2] + (*t)[3]) / 2},
                                                    (*t)[1] - (*t)[0], (*t)[3] - (*t)[2]),
                                z, std::get<bases::PadDesign>(b->design).strap.depth)},
                         "BEAM", grade);
            for (const auto& id : row.columns) {
                const auto* c = answer.context->column(id);
                if (!c) continue;
                double top = z + size.h;
                if (const auto& p = row.pedestal; p.any()) {
                    solids.push_back(
                        prism(geometry::rectangle({c->x, c->y}, p.width, p.depth), top, p.height));
                    top += p.height;
                }
                concrete("IFCCOLUMN", row.id + "/" + c->id, c->name,
                         {prism(geometry::rectangle({c->x, c->y}, c->width, c->depth), top, 1000)}, "COLUMN",
                         project_.basis.column.concrete);
            }
            concrete("IFCFOOTING", row.id, b->name, solids, pads ? "PAD_FOOTING" : "PILE_CAP", grade);
            int n = 0;
            for (Point p : b->piles()) {
                const Point at{b->centre.x + p.x, b->centre.y + p.y};
                const double d = set.pile.diameter, low = z + set.pile.embedment - 1000;
                const int solid = set.pile.circular ? cylinder({at.x, at.y, low}, d, 1000)
                                                    : prism(geometry::rectangle(at, d, d), low, 1000);
                const int s = shape({solid}), place = placed();
                const std::string key = fmt::format("{}/pile {}", row.id, ++n);
                contents_.push_back(add("IFCPILE", "{},$,{},$,$,#{},#{},{},.NOTDEFINED.,$",
                                        identity(element_->element + "/" + key),
                                        text(fmt::format("Pile {} of {}", n, b->name)), place, s, text(key)));
            }
            for (const auto& l : answer.laid(*b)) {
                std::vector<int> each;
                for (const auto& line : l.lines) {
                    std::vector<Point3> points;
                    for (const auto& p : line) points.push_back({p.x, p.y, p.z + z});
                    each.push_back(swept(points, l.item.diameter));
                }
                reinforcing(*b, l.item, shape(each, "AdvancedSweptSolid"));
            }
        }
    }

    // A link about its middle line, closed by hooks of 135 degrees with tails of ten diameters, as far as the
    // core has room, which lie side by side in one corner.
    std::vector<Point3> link(double a, double b, double d) const {
        const double r = element_->standard->anchorage->bendRadius(d) + d / 2;
        const double tail =
            std::min(r / std::tan(std::numbers::pi / 8) + 10 * d, 0.9 * std::min(a, b)) / std::numbers::sqrt2;
        return {{tail, 0, tail}, {0, 0, 0}, {b, 0, 0}, {b, 0, a}, {0, d, a}, {0, d, 0}, {tail, d, tail}};
    }

    // Bars of one item: their shape once, and where each of them lies.
    template <class Depth>
    void bars(const design::PartAnswer& part, const Item& i, const std::vector<geometry::Segment>& lie,
              const double outer[2], Depth depth, const model::Levels* levels = nullptr) {
        if (lie.empty()) return;
        const auto& basis = *element_->basis;
        const bool top = i.layer.starts_with('T');
        const double d = i.diameter;
        auto length = [&](char letter) {
            const auto found = i.dimensions.find(letter);
            return found == i.dimensions.end() ? 0 : found->second;
        };
        const double up = top ? -1 : 1;
        std::vector<int> solids;
        auto swept = [&](const std::vector<Point3>& line) { solids.push_back(this->swept(line, d)); };
        const double whole = std::max(depth(lie.front().a), 1.0) - basis.coverTop - basis.coverBottom - d;
        if (i.shape == "99") {
            const double spacing = i.spacing > 0 ? i.spacing : i.cutLength;
            for (double x = 0; x < i.cutLength - spacing / 2; x += spacing) swept({{x, 0, 0}, {x, 0, whole}});
        } else if (i.shape == "51") {
            swept(link(length('A') - d, length('B') - d, d));
        } else if (i.shape == "21" && i.layer == "U") {
            const double a = length('A'), b = length('B') - d;
            swept({{a, 0, b}, {0, 0, b}, {0, 0, 0}, {a, 0, 0}});
        } else if (i.shape == "21") {
            const double a = length('A') - d / 2, b = length('B');
            swept({{0, 0, up * a}, {0, 0, 0}, {b, 0, 0}, {b, 0, up * a}});
        } else if (i.shape == "11" && i.hookStart) {
            swept({{0, 0, up * (length('B') - d / 2)}, {0, 0, 0}, {length('A'), 0, 0}});
        } else if (i.shape == "11") {
            swept({{0, 0, 0}, {length('A'), 0, 0}, {length('A'), 0, up * (length('B') - d / 2)}});
        } else {
            swept({{0, 0, 0}, {length('A'), 0, 0}});
        }
        const std::string origin = axes({0, 0, 0});
        const int drawn =
            add("IFCSHAPEREPRESENTATION", "#{},'Body','AdvancedSweptSolid',{}", body_, list(solids));
        const int map = add("IFCREPRESENTATIONMAP", "{},#{}", origin, drawn);
        std::vector<int> placed;
        for (std::size_t k = 0; k < lie.size(); ++k) {
            const auto& l = lie[k];
            const double reach = std::max(geometry::length(l.a, l.b), 1e-9);
            const Point way{(l.b.x - l.a.x) / reach, (l.b.y - l.a.y) / reach};
            const double h = depth({(l.a.x + l.b.x) / 2, (l.a.y + l.b.y) / 2});
            const double lowest = (levels ? levels->ofBar(l, false) : 0) - h + basis.coverBottom,
                         highest = (levels ? levels->ofBar(l, true) : 0) - basis.coverTop;
            double z = lowest + d / 2;
            if (top) z = highest - d / 2 - outer[1];
            if (i.layer.starts_with('B')) z += outer[0];
            // Bars in the corners of U-bars come in pairs, below and above.
            if (i.layer == "U" && i.shape == "00") z = k % 2 == 0 ? lowest + 1.5 * d : highest - 1.5 * d;
            const int at = point({l.a.x, l.a.y, z});
            const int x = add("IFCDIRECTION", "({:.9f},{:.9f},0.)", way.x, way.y);
            const int y = add("IFCDIRECTION", "({:.9f},{:.9f},0.)", -way.y, way.x);
            const int op = add("IFCCARTESIANTRANSFORMATIONOPERATOR3D", "#{},#{},#{},$,#{}", x, y, at, up_);
            placed.push_back(add("IFCMAPPEDITEM", "#{},#{}", map, op));
        }
        reinforcing(part, i, shape(placed, "MappedRepresentation"));
    }

    // The bars of one item with what the schedule says of them.
    void reinforcing(const design::PartAnswer& part, const Item& i, int s) {
        const double d = i.diameter;
        const int at = this->placed();
        const std::string signature = schedule::signature(i),
                          key = fmt::format("{}/{}/{}/{}/{}/{}", element_->element, part.part.key, i.run,
                                            signature, units::plain(i.from), i.hookStart);
        const int mark = design_.marks.contains(signature) ? design_.marks.at(signature) : 0;
        const char* kind = i.layer == "S"       ? (i.shape == "99" ? "STUD" : "SHEAR")
                           : i.layer == "U"     ? "EDGE"
                           : i.layer == "links" ? "LIGATURE"
                                                : "MAIN";
        const int id = add("IFCREINFORCINGBAR", "{},$,{},{},$,#{},#{},'{:02}',{},{},{},{},.{}.,$",
                           identity(key + fmt::format("/{}", ++serial_[key])),
                           text(fmt::format("{}-{:02}", i.bar, mark)), text(part.name + ", layer " + i.layer),
                           at, s, mark, text(element_->basis->steel), real(d),
                           fmt::format("{:.9f}", std::numbers::pi * d * d / 4e6), real(i.cutLength), kind);
        contents_.push_back(id), steelOf_[element_->basis->steel].push_back(id);
        const int properties[] = {
            add("IFCPROPERTYSINGLEVALUE", "'Mark',$,IFCLABEL('{:02}'),$", mark),
            add("IFCPROPERTYSINGLEVALUE", "'Shape',$,IFCLABEL({}),$", text(i.shape)),
            add("IFCPROPERTYSINGLEVALUE", "'Number',$,IFCINTEGER({}),$", i.number),
            add("IFCPROPERTYSINGLEVALUE", "'CutLength',$,IFCLENGTHMEASURE({}),$", real(i.cutLength)),
            add("IFCPROPERTYSINGLEVALUE", "'MassEach',$,IFCMASSMEASURE({}),$", real(i.massEach))};
        const int set = add("IFCPROPERTYSET", "{},$,'Bar schedule',$,{}",
                            identity("set/" + key + fmt::format("/{}", serial_[key])),
                            list({properties, properties + 5}));
        add("IFCRELDEFINESBYPROPERTIES", "{},$,$,$,(#{}),#{}",
            identity("has/" + key + fmt::format("/{}", serial_[key])), id, set);
        quantities(id, "Qto_ReinforcingElementBaseQuantities", key + fmt::format("/{}", serial_[key]),
                   {add("IFCQUANTITYCOUNT", "'Count',$,$,{},$", i.number),
                    add("IFCQUANTITYLENGTH", "'Length',$,$,{},$", real(i.cutLength)),
                    add("IFCQUANTITYWEIGHT", "'Weight',$,$,{:.6f},$", i.massEach * i.number)});
    }
    std::map<std::string, int> serial_;  // of items that differ in nothing that names them
};

}  // namespace

std::string ifcText(const model::Project& project, const design::Design& design) {
    return Writer(project, design).run();
}

}  // namespace talvik::formats

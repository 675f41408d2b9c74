#include "layout/properties.h"

#include <algorithm>
#include <cmath>

namespace talvik::layout {
namespace {

using units::Kind;

// One visitor serves reading and writing: `v` gets (key, label, field, ...) of each property in turn.
template <class V>
struct Fields {
    V& v;
    void number(const char* key, const char* label, Kind kind, double& field) {
        v.number(key, label, kind, field);
    }
    template <class E>
    void choice(const char* key, const char* label, E& field, std::vector<std::string> options) {
        std::string text = options[std::size_t(static_cast<int>(field))];
        v.choice(key, label, text, options);
        for (std::size_t i = 0; i < options.size(); ++i)
            if (options[i] == text) field = static_cast<E>(i);
    }
    void line(Point& a, Point& b) {
        double length = geometry::length(a, b), before = length;
        number("length", "Length", Kind::Span, length);
        if (length != before && length > 0 && before > 0)
            b = {a.x + (b.x - a.x) * length / before, a.y + (b.y - a.y) * length / before};
        number("ax", "Start x", Kind::Span, a.x);
        number("ay", "Start y", Kind::Span, a.y);
        number("bx", "End x", Kind::Span, b.x);
        number("by", "End y", Kind::Span, b.y);
    }

    void operator()(model::SlabArea& m) {
        v.text("name", "Name", m.name);
        number("thickness", "Thickness", Kind::Length, m.thickness);
        number("level", "Top above floor level", Kind::Length, m.level);
    }
    void operator()(model::Zone& m) {
        v.text("name", "Name", m.name);
        number("thickness", "Thickness", Kind::Length, m.thickness);
        choice("level", "Flush at", m.level, {"top", "bottom", "middle"});
    }
    void operator()(model::Opening& m) { v.text("name", "Name", m.name); }
    void operator()(model::Column& m) {
        v.text("name", "Name", m.name);
        std::string shape = m.circular ? "circular" : "rectangular";
        v.choice("shape", "Section", shape, {"rectangular", "circular"});
        m.circular = shape == "circular";
        number("width", m.circular ? "Diameter" : "Width", Kind::Length, m.width);
        if (m.circular)
            m.depth = m.width;
        else
            number("depth", "Depth", Kind::Length, m.depth);
        number("angle", "Rotation", Kind::Angle, m.angle);
        number("x", "x", Kind::Span, m.x);
        number("y", "y", Kind::Span, m.y);
        v.flag("below", "Column below", m.below);
        v.flag("above", "Column above", m.above);
        number("heightBelow", "Height below", Kind::Span, m.heightBelow);
        number("heightAbove", "Height above", Kind::Span, m.heightAbove);
        v.flag("farEndsFixed", "Far ends fixed", m.farEndsFixed);
        choice("bearing", "Slab–column connection", m.bearing, {"elastic", "pinned", "rigid"});
    }
    void operator()(model::Wall& m) {
        v.text("name", "Name", m.name);
        number("thickness", "Thickness", Kind::Length, m.thickness);
        number("height", "Height", Kind::Span, m.height);
        v.flag("stiff", "Monolithic with slab (moment connection)", m.stiff);
        line(m.a, m.b);
    }
    void operator()(model::LineSupport& m) {
        v.text("name", "Name", m.name);
        choice("kind", "Restraint", m.kind, {"simple", "fixed", "line of symmetry"});
        line(m.a, m.b);
    }
    void operator()(model::SagLine& m) {
        v.text("name", "Name", m.name);
        choice("of", "Deflection limit for", m.of, {"after partitions", "total deflection"});
        number("limit", "Maximum", Kind::Sag, m.limit);
        line(m.a, m.b);
    }
    void operator()(model::FloorBeam& m) {
        v.text("name", "Name", m.name);
        number("width", "Width", Kind::Length, m.width);
        number("depth", "Overall depth", Kind::Length, m.depth);
        std::string side = m.upstand ? "upstand" : "downstand";
        v.choice("upstand", "Position", side, {"downstand", "upstand"});
        m.upstand = side == "upstand";
        number("torsion", "Torsional stiffness factor", Kind::None, m.torsion);
        line(m.a, m.b);
    }
    void operator()(model::Ground& m) {
        v.text("name", "Name", m.name);
        number("modulus", "Subgrade modulus", Kind::Subgrade, m.modulus);
    }
    void operator()(model::Pile& m) {
        v.text("name", "Name", m.name);
        number("diameter", "Diameter", Kind::Length, m.diameter);
        number("stiffness", "Stiffness", Kind::Stiffness, m.stiffness);
        number("x", "x", Kind::Span, m.x);
        number("y", "y", Kind::Span, m.y);
    }
    void operator()(model::FloorLoad& m) {
        using K = model::FloorLoad::Kind;
        if (m.kind == K::Area) {
            number("value", m.layers.empty() ? "Load" : "Load in addition to layers", Kind::AreaLoad,
                   m.value);
        } else if (m.kind == K::Line) {
            number("value", "Load", Kind::ForcePerWidth, m.value);
            line(m.a, m.b);
        } else {
            if (m.kind == K::Point) {
                number("value", "Load", Kind::Force, m.value);
                number("width", "Footprint along x", Kind::Length, m.width);
                number("depth", "Footprint along y", Kind::Length, m.depth);
            } else {
                number("value", "Moment, sagging along x", Kind::Moment, m.value);
                number("valueY", "Moment, sagging along y", Kind::Moment, m.valueY);
            }
            number("x", "x", Kind::Span, m.a.x);
            number("y", "y", Kind::Span, m.a.y);
        }
    }
    void operator()(model::Grid& m) {
        v.text("name", "Name", m.name);
        number("x", "Origin x", Kind::Span, m.origin.x);
        number("y", "Origin y", Kind::Span, m.origin.y);
        number("angle", "Rotation", Kind::Angle, m.angle);
        number("between", "Angle between directions", Kind::Angle, m.between);
    }
    void operator()(model::Underlay& m) {
        number("x", "Placed at x", Kind::Span, m.at.x);
        number("y", "Placed at y", Kind::Span, m.at.y);
        number("angle", "Rotation", Kind::Angle, m.angle);
        number("scale", "mm per unit of the file", Kind::None, m.scale);
    }
    template <class M>
    void operator()(M&) {}
};

struct Reading {
    std::vector<Property> all;
    void number(const char* key, const char* label, Kind kind, double& field) {
        all.push_back({key, label, kind, {}, field});
    }
    void flag(const char* key, const char* label, bool& field) { all.push_back({key, label, {}, {}, field}); }
    void text(const char* key, const char* label, std::string& field) {
        all.push_back({key, label, {}, {}, field});
    }
    void choice(const char* key, const char* label, std::string& field, std::vector<std::string> options) {
        all.push_back({key, label, {}, std::move(options), field});
    }
};
struct Writing {
    const std::string& key;
    const Value& value;
    template <class T>
    void set(const char* k, T& field) {
        if (key == k)
            if (const T* v = std::get_if<T>(&value)) field = *v;
    }
    void number(const char* k, const char*, Kind, double& field) { set(k, field); }
    void flag(const char* k, const char*, bool& field) { set(k, field); }
    void text(const char* k, const char*, std::string& field) { set(k, field); }
    void choice(const char* k, const char*, std::string& field, const std::vector<std::string>&) {
        set(k, field);
    }
};

}  // namespace

std::vector<Property> properties(const Floor& floor, const Id& id) {
    Reading reading;
    Fields<Reading> fields{reading};
    model::eachMember(floor, [&](const std::string&, const auto& m) {
        if (m.id != id) return;
        auto copy = m;
        fields(copy);
    });
    return std::move(reading.all);
}

std::vector<Property> commonProperties(const Floor& floor, const std::set<Id>& ids,
                                       std::set<std::string>* mixed) {
    std::vector<Property> common;
    bool first = true;
    for (const Id& id : ids) {
        auto own = properties(floor, id);
        if (first) {
            common = own;
            first = false;
            continue;
        }
        std::erase_if(common, [&](const Property& p) {
            return std::none_of(own.begin(), own.end(), [&](const Property& o) {
                return o.key == p.key && o.kind == p.kind && o.options == p.options &&
                       o.value.index() == p.value.index();
            });
        });
        for (const auto& p : common)
            for (const auto& o : own)
                if (mixed && o.key == p.key && o.value != p.value) mixed->insert(p.key);
    }
    return common;
}

void setProperty(Floor& floor, const std::set<Id>& ids, const std::string& key, const Value& value) {
    Writing writing{key, value};
    Fields<Writing> fields{writing};
    model::eachMember(floor, [&](const std::string&, auto& m) {
        if (ids.contains(m.id)) fields(m);
    });
}

}  // namespace talvik::layout

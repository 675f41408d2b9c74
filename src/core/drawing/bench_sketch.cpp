#include "drawing/bench_sketch.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace talvik::drawing {
namespace {

using units::Kind;

std::string callout(const opinions::BenchAnswer::Row& r, units::System system) {
    return fmt::format("{}-{} {}", r.bar, units::number(r.spacing, Kind::BarSpacing, system),
                       r.top ? "T" : "B");
}

void twoWay(Sheet& s, const opinions::BenchInput& in, const opinions::BenchAnswer& a, units::System system) {
    // The panel to scale in a box 70 mm high, with its edges: double where the slab goes on.
    double k = std::min(90 / in.lx, 62 / in.ly), w = in.lx * k, h = in.ly * k;
    Point o{24, 14};
    s.rectangle(o, {o.x + w, o.y + h}, Layer::Outline);
    const geometry::Segment sides[4] = {{o, {o.x, o.y + h}},
                                        {{o.x + w, o.y}, {o.x + w, o.y + h}},
                                        {o, {o.x + w, o.y}},
                                        {{o.x, o.y + h}, {o.x + w, o.y + h}}};
    for (int i = 0; i < 4; ++i) {
        if (!in.continuous[i]) continue;
        double dx = i == 0 ? -2 : i == 1 ? 2 : 0, dy = i == 2 ? -2 : i == 3 ? 2 : 0;
        s.line({sides[i].a.x + dx, sides[i].a.y + dy}, {sides[i].b.x + dx, sides[i].b.y + dy},
               Layer::Structure);
    }
    s.text({o.x + w / 2, o.y - 9}, 2.5, units::text(in.lx, Kind::Span, system), Align::Centre);
    s.text({o.x - 8, o.y + h / 2}, 2.5, units::text(in.ly, Kind::Span, system), Align::Centre, false, 90);

    for (const auto& r : a.rows) {
        if (r.top) continue;
        Layer layer = r.alongX ? Layer::BarsX : Layer::BarsY;
        if (r.alongX) {
            double y = o.y + 0.38 * h;
            s.line({o.x + 2, y}, {o.x + w - 2, y}, layer);
            s.text({o.x + 0.62 * w, y + 1.5}, 2.5, callout(r, system), Align::Centre, true);
        } else {
            double x = o.x + 0.3 * w;
            s.line({x, o.y + 2}, {x, o.y + h - 2}, layer);
            s.text({x - 1.5, o.y + 0.66 * h}, 2.5, callout(r, system), Align::Centre, true, 90);
        }
    }
    for (const auto& r : a.rows) {
        if (!r.top) continue;
        for (int side : {0, 1}) {
            int edge = r.alongX ? side : 2 + side;
            if (!in.continuous[edge]) continue;
            Layer layer = r.alongX ? Layer::BarsXTop : Layer::BarsYTop;
            if (r.alongX) {
                double y = o.y + 0.8 * h, x = side == 0 ? o.x : o.x + w;
                s.line({x - 0.06 * w, y}, {x + (side == 0 ? 0.25 : -0.25) * w, y}, layer);
                if (side == 0 || !in.continuous[0])
                    s.text({x + (side == 0 ? 0.14 : -0.14) * w, y + 1.5}, 2.2, callout(r, system),
                           Align::Centre);
            } else {
                double x = o.x + 0.85 * w, y = side == 0 ? o.y : o.y + h;
                s.line({x, y - 0.06 * h}, {x, y + (side == 0 ? 0.25 : -0.25) * h}, layer);
                if (side == 0 || !in.continuous[2])
                    s.text({x - 1.5, y + (side == 0 ? 0.14 : -0.14) * h}, 2.2, callout(r, system),
                           Align::Centre, false, 90);
            }
        }
    }
    s.text({o.x + w + 14, o.y + h - 4}, 2.5, "Double lines: continuous edges.");
    s.text({o.x + w + 14, o.y + h - 9}, 2.5, "Bottom bars full, top bars dashed.");
    double y = o.y + h - 18;
    for (const auto& r : a.rows) {
        s.text({o.x + w + 14, y}, 2.5, fmt::format("{}: {}", r.place, callout(r, system)));
        y -= 5;
    }
}

void section(Sheet& s, const opinions::BenchInput& in, const opinions::BenchAnswer& a,
             const model::Basis& basis) {
    if (a.rows.empty()) return;
    const auto& r = a.rows.front();
    double k = std::min(50 / in.thickness, 120 / in.width), w = in.width * k, h = in.thickness * k;
    Point o{20, 16};
    s.height = o.y + h + 8;
    s.rectangle(o, {o.x + w, o.y + h}, Layer::Outline);
    const auto* bar = catalogs::barCatalog(basis.barCatalog)->find(r.bar);
    double radius = std::max(0.5, bar->diameter * k / 2),
           cover = (r.top ? basis.coverTop : basis.coverBottom) * k;
    double y = r.top ? o.y + h - cover - radius : o.y + cover + radius;
    const long n = std::max(1L, std::lround(in.width / r.spacing));
    for (long i = 0; i < n; ++i) {
        double x = in.width / 2 + (double(i) - double(n - 1) / 2) * r.spacing;
        const Circle dot{{o.x + x * k, y}, radius, true, Layer::BarsX};
        s.items.emplace_back(std::in_place_type<Circle>, dot);
    }
    s.text({o.x + w / 2, o.y - 8}, 2.5, units::text(in.width, Kind::Length, basis.units), Align::Centre);
    s.text({o.x - 6, o.y + h / 2}, 2.5, units::text(in.thickness, Kind::Length, basis.units), Align::Centre,
           false, 90);
    s.text({o.x + w + 6, y - 1}, 2.8, callout(r, basis.units), Align::Left, true);
    s.text({o.x + w + 6, o.y + h / 2}, 2.5,
           fmt::format("m = {}", units::text(r.moment, Kind::MomentPerWidth, basis.units)));
}

void oneWay(Sheet& s, const opinions::BenchInput& in, const opinions::BenchAnswer& a, units::System system) {
    int n = std::min(in.spans, 4);
    double each = 140.0 / n, depth = 7;
    Point o{18, 26};
    s.rectangle(o, {o.x + each * n, o.y + depth}, Layer::Outline);
    for (int i = 0; i <= n; ++i) {
        double x = o.x + each * i;
        s.rectangle({x - 1.5, o.y - 7}, {x + 1.5, o.y}, Layer::Structure, true);
        if (i < n)
            s.text({x + each / 2, o.y - 12}, 2.2, units::text(in.span, Kind::Span, system), Align::Centre);
    }
    if (n < in.spans) s.text({o.x + each * n + 4, o.y + 2}, 2.5, fmt::format("… {} spans", in.spans));
    s.line({o.x + 1, o.y + 1.5}, {o.x + each * n - 1, o.y + 1.5}, Layer::BarsX);
    for (const auto& r : a.rows) {
        if (r.top) {
            int support = r.place.starts_with("first") ? 1 : 2;
            double x = o.x + each * support;
            s.line({x - 0.28 * each, o.y + depth - 1.5}, {x + 0.28 * each, o.y + depth - 1.5},
                   Layer::BarsXTop);
            s.text({x, o.y + depth + 2}, 2.4, callout(r, system), Align::Centre, true);
        } else {
            int span = r.place.starts_with("inner") ? 1 : 0;
            s.text({o.x + each * (span + 0.5), o.y - 5}, 2.4, callout(r, system), Align::Centre, true);
        }
    }
}

}  // namespace

Sheet benchSketch(const opinions::BenchInput& input, const opinions::BenchAnswer& answer,
                  const model::Basis& basis, double width) {
    Sheet s;
    s.width = width;
    s.title = "Sketch";
    s.height = 84;
    switch (input.kind) {
        case opinions::BenchInput::Kind::Section:
            section(s, input, answer, basis);
            break;
        case opinions::BenchInput::Kind::OneWay:
            s.height = 48;
            oneWay(s, input, answer, basis.units);
            break;
        case opinions::BenchInput::Kind::TwoWay:
            twoWay(s, input, answer, basis.units);
            break;
    }
    return s;
}

}  // namespace talvik::drawing

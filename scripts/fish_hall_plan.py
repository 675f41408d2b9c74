#!/usr/bin/env python3
"""Writes demos/sundvarg_fish_hall.dxf, the architect's plan of the made-up fish hall: metres, drawn away from
the origin, with furniture, texts and a nested block, as such plans come. Plain DXF text, no library."""
import math
import sys

X0, Y0 = 112.0, 48.0
out = []


def tag(code, value):
    out.append(f"{code}\n{value}\n")


def number(v):
    return f"{v:.6f}".rstrip("0").rstrip(".") or "0"


def at(x, y, first=10):
    tag(first, number(x))
    tag(first + 10, number(y))


def polyline(layer, points, closed=True, move=True, bulges=None):
    tag(0, "LWPOLYLINE"), tag(100, "AcDbEntity"), tag(8, layer), tag(100, "AcDbPolyline")
    tag(90, len(points)), tag(70, 1 if closed else 0)
    for i, (x, y) in enumerate(points):
        at(x + (X0 if move else 0), y + (Y0 if move else 0))
        if bulges and bulges[i]:
            tag(42, number(bulges[i]))


def line(layer, a, b):
    tag(0, "LINE"), tag(100, "AcDbEntity"), tag(8, layer), tag(100, "AcDbLine")
    at(a[0] + X0, a[1] + Y0), at(b[0] + X0, b[1] + Y0, 11)


def text(layer, x, y, height, words):
    tag(0, "TEXT"), tag(100, "AcDbEntity"), tag(8, layer), tag(100, "AcDbText")
    at(x + X0, y + Y0), tag(40, height), tag(1, words)


def insert(layer, block, x, y, angle=0, move=True):
    tag(0, "INSERT"), tag(100, "AcDbEntity"), tag(8, layer), tag(100, "AcDbBlockReference"), tag(2, block)
    at(x + (X0 if move else 0), y + (Y0 if move else 0)), tag(50, angle)


def box(x0, y0, x1, y1):
    return [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]


tag(0, "SECTION"), tag(2, "HEADER"), tag(9, "$ACADVER"), tag(1, "AC1015")
tag(9, "$INSUNITS"), tag(70, 6), tag(0, "ENDSEC")
layers = ["0", "GRID", "SLAB EDGE", "VOID", "COLUMN", "COLUMN ABOVE", "EDGE BEAM", "DROP", "PARTITION", "ICE STORE",
          "FITTINGS", "TEXT"]
tag(0, "SECTION"), tag(2, "TABLES"), tag(0, "TABLE"), tag(2, "LAYER"), tag(70, len(layers))
for name in layers:
    tag(0, "LAYER"), tag(2, name), tag(70, 0), tag(62, 7), tag(6, "CONTINUOUS")
tag(0, "ENDTAB"), tag(0, "ENDSEC")
tag(0, "SECTION"), tag(2, "BLOCKS")


def block(name, draw):
    tag(0, "BLOCK"), tag(8, "0"), tag(2, name), tag(70, 0), at(0, 0)
    draw()
    tag(0, "ENDBLK"), tag(8, "0")


def round_column():
    tag(0, "CIRCLE"), tag(8, "0"), at(0, 0), tag(40, 0.275)


block("SQUARE450", lambda: polyline("0", box(-0.225, -0.225, 0.225, 0.225), move=False))
block("ROUND550", round_column)
block("CRATE", lambda: polyline("0", box(0, 0, 1.2, 0.8), move=False))
block("STACK", lambda: (insert("0", "CRATE", 0, 0, move=False), insert("0", "CRATE", 1.4, 0, 15, move=False)))
tag(0, "ENDSEC")

tag(0, "SECTION"), tag(2, "ENTITIES")
xs, ys = [0.3, 7.5, 14.7, 21.9, 28.9], [0.3, 6.5, 12.7]
for x in xs:
    line("GRID", (x, -2), (x, 15))
for y in ys:
    line("GRID", (-2, y), (31, y))
polyline("SLAB EDGE", [(0, 0), (29.2, 0), (29.2, 9.4), (25.6, 13), (0, 13)])
polyline("VOID", box(10.2, 8.0, 12.6, 11.2))
for j, y in enumerate(ys):
    for i, x in enumerate(xs):
        if j == 2 and i == 4:
            insert("COLUMN", "SQUARE450", 27.15, 11.05, 45)
        elif j == 1 and i == 1:
            insert("COLUMN ABOVE", "ROUND550", x, y)
        elif j == 1 and i in (2, 3):
            insert("COLUMN", "ROUND550", x, y)
        else:
            insert("COLUMN", "SQUARE450", x, y)
polyline("EDGE BEAM", box(0.3, 0.15, 28.9, 0.45))
polyline("DROP", box(13.5, 5.3, 15.9, 7.7))
line("PARTITION", (3, 3.4), (19, 3.4))
polyline("ICE STORE", box(15.5, 8.2, 21.0, 12.4))
for k in range(5):
    insert("FITTINGS", "STACK", 2 + 3.1 * k, 4.4)
    line("FITTINGS", (2 + 3 * k, 1.2), (4 + 3 * k, 1.2 + 0.4 * math.sin(k)))
text("TEXT", 2, 9.5, 0.5, "FISH HALL")
text("TEXT", 16, 9.8, 0.4, "ICE STORE")
for i, x in enumerate(xs):
    text("TEXT", x - 0.1, 15.2, 0.4, str(i + 1))
tag(0, "ENDSEC"), tag(0, "EOF")
path = sys.argv[1] if len(sys.argv) > 1 else "demos/sundvarg_fish_hall.dxf"
with open(path, "w", newline="\n") as file:
    file.write("".join(out))

#!/usr/bin/env python3
"""Draws the memory of the window over time: scripts/memory_picture.py FILE.csv PICTURE.svg

The file is what TALVIK_MEMORY names for the test Monkey.LeavesAllAsItWas: seconds, events, MB.
"""
import sys

rows = [tuple(map(float, line.split(","))) for line in open(sys.argv[1])]
wide, high, left, top = 760, 260, 60, 20
longest = rows[-1][0] / 60
most = 100 * (int(max(r[2] for r in rows) / 100) + 1)
x = lambda minutes: left + (wide - left - 20) * minutes / longest
y = lambda mb: high - 40 - (high - 40 - top) * mb / most
out = ['<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d" font-family="Inter, sans-serif" font-size="12">' % (wide, high)]
out.append('<title>Memory of the window in use by random hands</title><rect width="%d" height="%d" fill="#fbfaf6"/>' % (wide, high))
for mb in range(0, most + 1, 100):
    out.append('<line x1="%d" x2="%d" y1="%.1f" y2="%.1f" stroke="#c9cbc4"/>' % (left, wide - 20, y(mb), y(mb)))
    out.append('<text x="%d" y="%.1f" text-anchor="end" fill="#5d6b74">%d</text>' % (left - 6, y(mb) + 4, mb))
step = next(s for s in (1, 5, 10, 30, 60, 120) if longest / s <= 10 or s == 120)
for minute in range(0, int(longest) + 1, step):
    out.append('<text x="%.1f" y="%d" text-anchor="middle" fill="#5d6b74">%d</text>' % (x(minute), high - 22, minute))
out.append('<text x="%d" y="%d" text-anchor="end" fill="#5d6b74">minutes; %s events</text>' % (wide - 20, high - 6, format(int(rows[-1][1]), ",")))
out.append('<text x="8" y="14" fill="#5d6b74">MB</text>')
path = " ".join("%s%.1f %.1f" % ("L" if k else "M", x(s / 60), y(mb)) for k, (s, _, mb) in enumerate(rows))
out.append('<path d="%s" fill="none" stroke="#1f2a33" stroke-width="1.5"/></svg>' % path)
open(sys.argv[2], "w").write("\n".join(out) + "\n")

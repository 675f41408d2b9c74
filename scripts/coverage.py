#!/usr/bin/env python3
"""Writes docs/coverage.md from data/coverage_*.json, from which the program takes what it says is not checked."""
import json
import pathlib

root = pathlib.Path(__file__).resolve().parent.parent
out = ["# What is checked, clause by clause", "",
       "Made by `scripts/coverage.py` from `data/coverage_*.json`. The program reads the same lists: what a row gives a",
       "name and a reason shows as *not checked* in margin, report and JSON, of one-way slabs, of floors, of both, or of bases.", ""]
for file, title in (("en1992", "EN 1992-1-1"), ("aci318", "ACI 318-19")):
    out += [f"## {title}", "", "| clause | what it is about | what the program does | where | not checked |",
            "|---|---|---|---|---|"]
    for row in json.loads((root / f"data/coverage_{file}.json").read_text()):
        of = {"both": "", "slabs": " (one-way slabs)", "floors": " (floors)", "beams": " (floors with beams)", "bases": " (bases)",
              "none": ""}
        why = row.get("reason", "")
        if why:
            why += of[row.get("for", "none")]
        out.append(f"| {row['clause']} | {row['title']} | {row.get('does', '')} | {row.get('where', '')} | {why} |")
    out.append("")
(root / "docs/coverage.md").write_text("\n".join(out))

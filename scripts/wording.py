#!/usr/bin/env python3
"""Finds words that users must not meet in strings of the program, in the guide, the README and the coverage tables:
each has a word of the trade. Prints what it finds and ends with 1, silent and 0 otherwise.

    scripts/wording.py [folder]
"""
import json
import os
import re
import sys

# pattern -> what to write instead
WORDS = {
    r"\bsags?\b": "deflection",
    r"\bin hand\b": "selected",
    r"\bnought\b": "zero",
    r"\b(is|are|was|were|be|been) told\b|\btold apart\b": "reported, distinguished",
    r"\bby your (word|choice)\b|someone's word|decided by you": "as specified by the user",
    r"\bworked out\b": "calculated",
    r"\blooked at\b|\bnot looked at\b": "checked, considered",
    r"\bbroken (line|above|below)|\b(bars|top|provided|resistance) broken\b": "dashed",
    r"\b(what|nothing) hogs\b": "hogging moment",
    r"\basks? for\b|\basked for\b": "requires",
    r"\b(does|do) not do\b": "is not sufficient",
    r"\bplace [1-7]\b": "the name with its digit: Actions (3)",
    r"\btaken? for granted\b": "assumptions",
    r"\btake note\b|\btaken note\b": "accept",
    r"\bgiv(e|en|es) back\b|\bgive all back\b": "reset to automatic",
    r"\bpin(s|ned)? (off|a|the|is|size|what)\b": "fixed",
    r"\blets go of\b|\blets go\b": "lifts off",
    r"\b(least|most) (steel|links|spacing|types)\b": "minimum, maximum",
    r"\bproof by (the )?field\b": "FE field check",
    r"\bsecond opinions?\b": "cross-check",
    r"\bover alone\b": "failing only",
    r"\bknife edges?\b": "rigid line supports",
    r"\bshadow of openings\b": "ineffective because of openings",
    r"\bconcrete alone does not (carry|do)\b": "the concrete alone is not sufficient",
    r"\bput(s)? their columns on one base\b": "combine",
    r"\bstands? askew\b|\bis askew\b": "is rotated in plan",
    r"\bfor want of a design\b": "no design",
    r"\bsteel everywhere\b|\bshear everywhere\b": "by FE field",
    r"\bcast with\b": "monolithic",
    r"\banswered in\b": "designed",
}
# Strings of files that users write or read by key, and of the calculator's tables.
KEYS = {"least studs", "most studs", '\\"least studs\\"', '\\"most studs\\"'}


def strings(path):
    text = open(path, encoding="utf-8").read()
    token = re.compile(
        r'//[^\n]*|/\*.*?\*/|R"(\w*)\((?P<raw>.*?)\)\1"|\'(?:[^\'\\\n]|\\.)+\'|"(?P<s>(?:[^"\\\n]|\\.)*)"|\s+|[^\s"\'/]+|/|\'',
        re.S)
    joined, start = "", 0
    for m in token.finditer(text):
        if m.group("s") is not None or m.group("raw") is not None:
            if not joined:
                start = text.count("\n", 0, m.start()) + 1
            joined += m.group("s") or m.group("raw") or ""
        elif not m.group(0).isspace():
            if joined:
                yield start, joined
            joined = ""
    if joined:
        yield start, joined


def lines(path):
    if path.endswith((".cpp", ".h")):
        yield from ((n, s) for n, s in strings(path) if " " in s and s not in KEYS)
    elif path.endswith(".json"):
        for n, row in enumerate(json.load(open(path, encoding="utf-8")), 1):
            yield from ((n, v) for k, v in row.items() if k in ("title", "does", "name", "reason"))
    else:
        yield from enumerate(open(path, encoding="utf-8"), 1)


def main():
    root = sys.argv[1] if len(sys.argv) > 1 else os.path.join(os.path.dirname(__file__), "..")
    paths = [os.path.join(root, "README.md")]
    for folder, ends in (("src", (".cpp", ".h")), ("docs/guide", (".md",)), ("data", ())):
        for at, _, names in os.walk(os.path.join(root, folder)):
            paths += [os.path.join(at, n) for n in names if n.endswith(ends) or n.startswith("coverage")]
    found = 0
    for path in sorted(paths):
        for n, text in lines(path):
            for word, better in WORDS.items():
                m = re.search(word, text, re.I)
                if m:
                    found += 1
                    print(f"{os.path.relpath(path, root)}:{n}: \"{m.group(0)}\" → {better}: {text.strip()[:90]}")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())

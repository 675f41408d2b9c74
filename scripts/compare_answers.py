#!/usr/bin/env python3
"""Compares two files written by talvik_answers: checks that came, went or changed, gathered by the last word of their key.

    compare_answers.py BEFORE AFTER [--show CHECK]
"""
import argparse
import collections

FIELDS = ["title", "outcome", "demand", "limit", "clause", "x", "combination", "notes"]


def read(path):
    found = collections.OrderedDict()
    for line in open(path, encoding="utf-8"):
        of, key, *rest = line.rstrip("\n").split("\t")
        found.setdefault((of, key), []).append(rest)
    return found


def close(a, b):
    try:
        a, b = float(a), float(b)
    except ValueError:
        return a == b
    return abs(a - b) <= 1e-6 * max(1.0, abs(a), abs(b))


def main():
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("before")
    options.add_argument("after")
    options.add_argument("--show", default="", help="print every difference of checks whose key ends so")
    options.add_argument("--skip", default="", help="fields not compared, separated by commas")
    chosen = options.parse_args()
    before, after = read(chosen.before), read(chosen.after)
    skipped = set(chosen.skip.split(","))
    counts = collections.Counter()
    for key in list(before) + [k for k in after if k not in before]:
        name = key[0].split()[0] + " " + key[1].split("/")[-1]
        old, new = before.get(key), after.get(key)
        if old is None or new is None:
            what = ["came"] if old is None else ["went"]
        else:
            what = [f for f, a, b in zip(FIELDS, old[0], new[0]) if f not in skipped and not close(a, b)]
            if len(old) != len(new):
                what.append("number")
        for w in what:
            counts[name, w] += 1
        if what and chosen.show and key[1].endswith(chosen.show):
            print(*key, what, "\n  -", old and old[0], "\n  +", new and new[0])
    for (name, what), number in sorted(counts.items()):
        print(f"{name:40} {what:12} {number}")
    print(len(before), "checks before,", len(after), "after")


main()

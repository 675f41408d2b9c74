#!/usr/bin/env python3
"""Whether every file below a folder is whole for its kind: scripts/look_at.py DIR [LEAST NUMBER OF FILES]."""
import csv
import io
import json
import os
import sys
import xml.dom.minidom
import zipfile

def wrong(path):
    data = open(path, "rb").read()
    kind = path.rsplit(".", 1)[-1].lower()
    if not data:
        return "it is empty"
    if kind == "pdf":
        return None if data.startswith(b"%PDF") and data.rstrip().endswith(b"%%EOF") else "no whole PDF"
    if kind == "png":
        return None if data.startswith(b"\x89PNG") and b"IEND" in data[-16:] else "no whole PNG"
    if kind in ("svg", "vtu"):
        xml.dom.minidom.parseString(data)
    if kind == "dxf":
        return None if data.rstrip().endswith(b"EOF") else "it does not end with EOF"
    if kind in ("json", "talvik"):
        json.loads(data)
    if kind in ("xlsx", "odt"):
        bad = zipfile.ZipFile(io.BytesIO(data)).testzip()
        return f"{bad} in it is damaged" if bad else None
    if kind == "csv":
        for row in csv.reader(io.StringIO(data.decode())):
            for cell in row:
                number = cell.replace(".", "").lstrip("+-").isdigit()
                if cell[:1] in "=+-@\t\r" and cell and not number and cell != "-":
                    return f"the cell {cell!r} begins like a formula"
    if kind == "ifc":
        return None if data.startswith(b"ISO-10303-21") and data.rstrip().endswith(b"END-ISO-10303-21;") else "no whole IFC"
    if kind == "html":
        return None if b"</html>" in data else "it has no end"
    return None

def main():
    folder, least = sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 1
    files = sorted(os.path.join(at, name) for at, _, names in os.walk(folder) for name in names)
    bad = 0
    for path in files:
        try:
            why = wrong(path)
        except Exception as trouble:  # whatever a reader throws is the reason
            why = str(trouble)
        if why:
            bad += 1
            print(f"{path}: {why}")
        if path.endswith(".part"):
            bad += 1
            print(f"{path}: left over")
    print(f"{len(files)} files looked at, {bad} wrong")
    if bad or len(files) < least:
        sys.exit(1)

if __name__ == "__main__":
    main()

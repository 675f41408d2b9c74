#!/usr/bin/env bash
# Makes the pictures of docs/screenshots from the demo data. Needs a build (./demo --headless or ./test).
set -euo pipefail
. "$(dirname "$0")/setup.sh"
bin="$(dirname "$root")/$(basename "$root")-build/release/bin"
out="$root/docs/screenshots"
mkdir -p "$out"
export QT_QPA_PLATFORM=offscreen XDG_RUNTIME_DIR="${XDG_RUNTIME_DIR:-/tmp}"
XDG_CONFIG_HOME=$(mktemp -d)  # no one's recent files
export XDG_CONFIG_HOME
shot() { "$bin/talvik-desktop" --picture "$out/$1.png" "${@:2}" 2>/dev/null; say "$out/$1.png"; }
shot basis --place 1
shot start --start
shot checks --place 5 --open flexure-bottom --select p3
shot bars --place 6 --select top/u4
shot issue --place 7
floor() { "$bin/talvik-desktop" "$1" --picture "$out/$2.png" "${@:3}" 2>/dev/null; say "$out/$2.png"; }
floor "$root/demos/sundvarg_fish_hall.talvik" floor-layout --place 2 --select c110
floor "$root/demos/sundvarg_fish_hall.talvik" floor-actions --place 3
printf '{"talvik_import": 1, "floor": "Fish hall deck", "make": []}' > "$root/demos/below.json"
"$bin/talvik" import "$root/demos/sundvarg_fish_hall.dxf" --map "$root/demos/below.json" -o "$root/demos/below.talvik" > /dev/null
floor "$root/demos/below.talvik" floor-drawing --place 2
rm "$root"/demos/below.*
floor "$root/demos/sundvarg_fish_hall.talvik" floor-strips --place 4 --select XB
floor "$root/demos/sundvarg_fish_hall.talvik" floor --place 5 --select Y4 --open flexure-top
floor "$root/demos/sundvarg_fish_hall.talvik" floor-connection --place 5 --select c112 --near 9000 --field 19
floor "$root/demos/sundvarg_fish_hall.talvik" floor-deflection --place 5 --select XC --field 18 --open "sag-after/line Glazed"
floor "$root/demos/sundvarg_fish_hall.talvik" sweep --sweep
floor "$root/demos/sundvarg_fish_hall.talvik" floor-bars --place 6 --select Y3
floor "$root/demos/sundvarg_fish_hall.talvik" floor-sheet --place 7
floor "$root/demos/sundvarg_fish_hall.talvik" bench --bench 3
work=$(mktemp -d)
bases() { "$bin/talvik" bases "$root/demos/sundvarg_$1_loads.csv" --ground "$root/demos/sundvarg_$1_ground.json" --out "$work/$1" > /dev/null; }
bases canopy; bases cap
floor "$work/canopy/bases.talvik" bases --place 5 --select G3 --register 2
floor "$work/cap/bases.talvik" caps --place 2 --select "Bollard 1" --register 2
"$bin/talvik" new --demo -o "$work/thin.talvik" > /dev/null
sed -i 's/"thickness_mm": 200.0/"thickness_mm": 140.0/' "$work/thin.talvik"
"$bin/talvik-desktop" "$work/thin.talvik" --place 5 --picture "$out/over.png" 2>/dev/null
say "$out/over.png"
rm -r "$work"

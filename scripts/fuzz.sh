#!/usr/bin/env bash
# Feeds broken project files and floors, then broken DXF drawings, then broken tables, grounds, maps and lists of
# studs, to the program for a while (60 s each, or as many as given), with libFuzzer and the address and
# undefined-behaviour sanitizers. Needs the packages clang and libclang-rt-14-dev.
set -euo pipefail
root="$(cd "$(dirname "$0")/.." && pwd)"
seconds=${1:-60}
build="$(dirname "$root")/$(basename "$root")-build/fuzz"
command -v clang++ > /dev/null || { echo "Install clang and libclang-rt-14-dev first."; exit 2; }
cmake -S "$root" -B "$build" -G Ninja -DCMAKE_BUILD_TYPE=RelWithDebInfo -DCMAKE_CXX_COMPILER=clang++ \
    -DTALVIK_FUZZ=ON > /dev/null
cmake --build "$build" --target floor_fuzz dxf_fuzz tables_fuzz
mkdir -p "$build/corpus" "$build/dxf_corpus" "$build/dxf_seeds"
cp "$root"/demos/*.dxf "$build/dxf_seeds"
seeds="$build/seeds"
mkdir -p "$seeds"
for f in "$root"/demos/*.talvik; do { printf '\000'; cat "$f"; } > "$seeds/$(basename "$f")"; done
export ASAN_OPTIONS=detect_leaks=0
"$build/bin/floor_fuzz" -max_total_time="$seconds" -timeout=20 -rss_limit_mb=4000 -max_len=60000 -len_control=10 \
    -artifact_prefix="$build/" "$build/corpus" "$seeds" 2>&1 | tail -15
"$build/bin/dxf_fuzz" -max_total_time="$seconds" -timeout=20 -rss_limit_mb=4000 -max_len=40000 -len_control=10 \
    -artifact_prefix="$build/" "$build/dxf_corpus" "$build/dxf_seeds" 2>&1 | tail -5
tables="$build/tables_seeds"
mkdir -p "$tables" "$build/tables_corpus"
# The first byte says what it is.
seed() { { printf "$1"; cat "$2"; } > "$tables/$(basename "$2")"; }
for f in "$root"/demos/*_loads.csv; do seed '\000' "$f"; done
for f in "$root"/demos/*_ground.json; do seed '\001' "$f"; done
for f in "$root"/demos/*.map.json; do seed '\003' "$f"; done
seed '\004' "$root/data/stud_rails.csv"
"$build/bin/tables_fuzz" -max_total_time="$seconds" -timeout=20 -rss_limit_mb=4000 -max_len=20000 -len_control=10 \
    -artifact_prefix="$build/" "$build/tables_corpus" "$tables" 2>&1 | tail -5

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
cmake --build "$build" --parallel "$(nproc)" --target floor_fuzz dxf_fuzz tables_fuzz
export ASAN_OPTIONS=detect_leaks=0
# The seeds of each target, as fuzz/seeds.txt names them.
while read -r target first path; do
    [[ $target == \#* ]] && continue
    mkdir -p "$build/$target.seeds" "$build/$target.corpus"
    { [[ $first == - ]] || printf "\\$(printf %03o "$first")"; cat "$root/$path"; } > "$build/$target.seeds/$(basename "$path")"
done < "$root/fuzz/seeds.txt"
wrong=0
for target in floor_fuzz:60000 dxf_fuzz:40000 tables_fuzz:20000; do
    name=${target%:*}
    "$build/bin/$name" -max_total_time="$seconds" -timeout=60 -rss_limit_mb=4000 -max_len="${target#*:}" \
        -len_control=10 -print_final_stats=1 -artifact_prefix="$build/" "$build/$name.corpus" "$build/$name.seeds" \
        > "$build/$name.log" 2>&1 || wrong=1
    echo "$name: $build/$name.log"
    grep -E 'ERROR|SUMMARY|Test unit written|number_of_executed|peak_rss' "$build/$name.log" || true
done
exit $wrong

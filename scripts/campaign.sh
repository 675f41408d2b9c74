#!/usr/bin/env bash
# Hostile runs against a build: scripts/campaign.sh [MINUTES]. A third of the time each for windows that are
# killed while someone edits, for random keys, clicks and drags, and for damaged files given to every command.
# Prints what was tried, what crashed, what took 5 s more than undamaged, and the largest memory; ends with 1
# where anything went wrong. Needs a build (./test) and xvfb-run for the window.
set -euo pipefail
. "$(dirname "$0")/setup.sh"
minutes=${1:-3}
bin="$(dirname "$root")/$(basename "$root")-build/release/bin"
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
third=$((minutes * 20))
wrong=0
window() { QT_QPA_PLATFORM=xcb xvfb-run -a -s "-screen 0 1400x1000x24" "$bin/talvik_ui_tests" "$@"; }

say "windows killed: $((third / 3))"
TALVIK_KILLS=$((third / 3)) TALVIK_SEED=$((RANDOM + 1)) window --gtest_filter='Kills.*' > "$work/kills" 2>&1 || wrong=1
grep -E "kills:|Failure|FAILED" "$work/kills" || true

end=$((SECONDS + third))
plays=0
while [ $SECONDS -lt $end ]; do
    seed=$((RANDOM * 32768 + RANDOM + 1))
    if ! TALVIK_SEED=$seed TALVIK_EVENTS=120 window --gtest_filter='Monkey.*' > "$work/monkey" 2>&1; then
        wrong=1
        echo "random hands went wrong with TALVIK_SEED=$seed"
        tail -5 "$work/monkey"
    fi
    plays=$((plays + 1))
    grep -E "MB" "$work/monkey" || true
done
say "random hands: $plays plays of 2520 events"

python3 - "$bin/talvik" "$root" "$third" <<'EOF' || wrong=1
# Damaged projects, drawings, maps and tables, given to every command that reads them.
import os, random, resource, subprocess, sys, tempfile, time
binary, root, seconds = sys.argv[1], sys.argv[2], float(sys.argv[3])
demos = os.path.join(root, "demos")
seeds = {n: open(os.path.join(demos, n), "rb").read() for n in os.listdir(demos)}
tables = os.path.join(root, "tests/reference")
listed = subprocess.run([binary, "calc", "--list"], capture_output=True, text=True, check=True).stdout
topics = {line for line in listed.splitlines() if not line.startswith(" ")}
for n in os.listdir(tables):
    if n.endswith(".csv") and n[:-4] in topics:
        seeds["calc-" + n] = open(os.path.join(tables, n), "rb").read()
rng = random.Random(time.time_ns())
runs = crashes = slow = 0
most = 0.0
def damaged(data):
    data = bytearray(data)
    readable = rng.random() < 0.5  # only figures change, so that more than the reader is tried
    for _ in range(rng.randint(1, 6)):
        if not data: break
        at = rng.randrange(len(data))
        what = 5 if readable else rng.randrange(6)
        if what == 0: data[at] = rng.randrange(256)
        elif what == 1: del data[at:at + rng.randint(1, 200)]
        elif what == 2: data[at:at] = data[at:at + rng.randint(1, 400)]
        elif what == 3: del data[at:]
        elif what == 4: data[at:at] = rng.choice([b"1e308", b"-1", b"0", b"NaN", b"null", b"[]", b"{}", b'"' + b"x" * 5000 + b'"', b"\x00", b"\xff\xfe", b"=1+1"])
        else:
            digits = [i for i, c in enumerate(data) if 48 <= c <= 57]
            if digits: data[rng.choice(digits)] = 48 + rng.randrange(10)
    return bytes(data)
usual = {}  # seconds of the undamaged files
# Its exit code, None where it hangs for a minute, and the seconds of the processor, which do not count what else
# the machine does.
def run(arguments):
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    try:
        code = subprocess.run([binary] + arguments, stdout=subprocess.DEVNULL, stderr=subprocess.PIPE, timeout=60,
            preexec_fn=lambda: resource.setrlimit(resource.RLIMIT_AS, (6 << 30, 6 << 30))).returncode
    except subprocess.TimeoutExpired:
        code = None
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    return code, after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime
end = time.time() + seconds
with tempfile.TemporaryDirectory() as folder:
    while time.time() < end:
        name = rng.choice(sorted(seeds) if rng.random() < 0.2 else sorted(os.listdir(demos)))
        path = os.path.join(folder, name)
        open(path, "wb").write(damaged(seeds[name]))
        if name.endswith(".talvik"):
            arguments = rng.choice([
                ["check", path], ["check", path, "--json"], ["analyse", path], ["analyse", path, "--json"],
                ["schedule", path, "-o", folder + "/a.xlsx"], ["draw", path, "-o", folder + "/a.dxf"],
                ["design", path, "-o", folder + "/b.talvik"], ["report", path, "-o", folder + "/a.html"],
                ["report", path, "-o", folder + "/a.pdf", "--summary"],
                ["issue", path, "--out", folder + "/issue", "--no-convergence"],
                ["sweep", path, "--thickness", "200"], ["compare", os.path.join(demos, name), path]])
        elif name.startswith("calc-"):
            arguments = ["calc", name[5:-4], "-i", path]
        elif name.endswith(".dxf"):
            arguments = ["import", path, "--map", os.path.join(demos, "sundvarg_fish_hall.map.json"), "-o", folder + "/c.talvik"]
        elif name.endswith(".map.json"):
            arguments = ["import", os.path.join(demos, "sundvarg_fish_hall.dxf"), "--map", path, "-o", folder + "/c.talvik"]
        elif name.endswith(".csv"):
            arguments = ["bases", path, "--ground", path.replace("loads.csv", "ground.json"), "--out", folder + "/set"]
            other = name.replace("loads.csv", "ground.json")
            open(os.path.join(folder, other), "wb").write(seeds[other])
        else:
            other = name.replace("ground.json", "loads.csv")
            open(os.path.join(folder, other), "wb").write(seeds[other])
            arguments = ["bases", os.path.join(folder, other), "--ground", path, "--out", folder + "/set"]
        whole = [os.path.join(demos, name) if a == path else a for a in arguments]
        key = " ".join(whole)
        if key not in usual: usual[key] = run(whole)[1] if name in os.listdir(demos) else 0
        code, took = run(arguments)
        runs += 1
        wrong = code is None or code < 0 or code > 3
        crashes += wrong
        slow += took > usual[key] + 5
        if wrong or took > usual[key] + 5:
            keep = os.path.join(tempfile.gettempdir(), "talvik-campaign-%d-%s" % (runs, name))
            open(keep, "wb").write(open(path, "rb").read())
            print("ended with", code, "in %.1f s, undamaged %.1f:" % (took, usual[key]), " ".join(arguments), "kept as", keep, flush=True)
    most = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1e3
print("%d damaged files: %d crashed or hung, %d over 5 s more than undamaged, at most %.0f MB" % (runs, crashes, slow, most))
sys.exit(1 if crashes or slow else 0)
EOF
exit $wrong

#!/usr/bin/env bash
# Writes the tables and pictures of docs/verification.md anew. Needs a build (./test).
set -euo pipefail
. "$(dirname "$0")/setup.sh"
bin="$(dirname "$root")/$(basename "$root")-build/release/bin"
page="$root/docs/verification.md" out="$root/docs/verification"
tables=$(mktemp)
"$bin/talvik_verification" "$out/convergence.svg" "$out/moving_column.svg" > "$tables"
sed -i -e '/^<!-- tables -->$/,/^<!-- end of tables -->$/{/^<!-- /!d}' -e "/^<!-- tables -->\$/r $tables" "$page"
rm "$tables"
export QT_QPA_PLATFORM=offscreen XDG_RUNTIME_DIR="${XDG_RUNTIME_DIR:-/tmp}"
for shot in skew:1 flat_slab:1 raft:6; do
    "$bin/talvik-desktop" "$out/${shot%:*}.talvik" --shade light --place 7 --size 1000x620 --field "${shot#*:}" \
        --picture "$out/${shot%:*}.png" 2> /dev/null
    say "$out/${shot%:*}.png"
done

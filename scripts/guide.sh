#!/usr/bin/env bash
# Writes the guide of docs/guide as static HTML: scripts/guide.sh [FOLDER]. Needs pandoc (Debian).
set -euo pipefail
. "$(dirname "$0")/setup.sh"
out="${1:-$(dirname "$root")/$(basename "$root")-build/guide}"
command -v pandoc > /dev/null || { say "pandoc is missing: sudo apt-get install pandoc"; exit 2; }
mkdir -p "$out"
for page in "$root"/docs/guide/*.md; do
  name=$(basename "$page" .md)
  sed -E 's/\]\(([a-z]+)\.md\)/](\1.html)/g' "$page" |
    pandoc -f gfm -t html5 -s --metadata title="$(head -1 "$page" | cut -c3-)" -V title= -o "$out/$name.html"
done
say "$out/index.html"

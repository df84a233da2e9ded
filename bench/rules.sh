#!/usr/bin/env bash
# `./edgemap bench rules`: the matcher of robots.txt against a slow reference (FILES random files, a million), its speed with
# 500 rules, and what a keystroke on the robots bench takes.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
node "$here/build/rules.js"

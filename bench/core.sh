#!/usr/bin/env bash
# `./edgemap bench core`: the graph core on a generated site of PAGES (1,000,000) pages with LINKS (20) links each,
# against python3-igraph on the same graph in one run; then pages.csv of two sets of documentation against a script of its own.
set -euo pipefail
python=/usr/bin/python3
"$python" -c 'import igraph, numpy' 2>/dev/null ||
  { echo "bench core needs python3-igraph and python3-numpy; install them from Debian." >&2; exit 1; }
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
node --max-old-space-size=4096 "$here/build/core.js" "$here" "${PAGES:-1000000}" "${LINKS:-20}"
"$python" bench/core.py "$here"

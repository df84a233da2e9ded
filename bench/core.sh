#!/usr/bin/env bash
# `./edgemap bench core`: the graph core on a generated site of PAGES (1,000,000) pages with LINKS (20) links each,
# against python3-igraph on the same graph in one run; then pages.csv of two sets of documentation against a script of its own.
set -euo pipefail
python=/usr/bin/python3
. bench/docs.sh
"$python" -c 'import igraph, numpy' 2>/dev/null ||
  { echo "bench core needs python3-igraph and python3-numpy; install them from Debian." >&2; exit 1; }
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'stop_docs; rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
# The pool of threads is found where it is installed.
ln -s "$PWD/node_modules" "$here/node_modules"
# The memory of the program is given a bound, so that garbage does not count as need.
node --max-old-space-size=1000 "$here/build/core.js" "$here" "${PAGES:-1000000}" "${LINKS:-20}"
"$python" bench/core.py "$here"

echo "figures of pages.csv, worked out anew"
sets=(sqlite3-doc nodejs-doc)
serve_docs "${sets[@]}"
for i in "${!sets[@]}"; do
  start=http://127.0.0.1:${ports[i]}/
  node build-node/main.cjs crawl "$start" --share-model plain --out "$here/out$i" 2>/dev/null
  echo "  ${sets[i]}"
  "$python" bench/figures.py "$here/out$i" "$start"
done

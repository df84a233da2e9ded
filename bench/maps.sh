#!/usr/bin/env bash
# `./edgemap bench maps`: what the worker of the browser works out for each picture of a generated site of PAGES (100,000)
# pages with LINKS (120) links each, and how the picture of links lies against d3-force as it begins by itself.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
ln -s "$PWD/node_modules" "$here/node_modules"
node --max-old-space-size=4000 "$here/build/maps.js" "${PAGES:-100000}" "${LINKS:-120}"

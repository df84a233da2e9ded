#!/usr/bin/env bash
# `./edgemap bench draft`: edits of a draft, and plans, on generated sites of 10,000 pages with 120 links each, and of 100,000.
# SIZES="PAGES:LINKS …" for others.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
for size in ${SIZES:-10000:120 100000:120}; do
  node "$here/build/change.js" make "$here/site" "${size%:*}" "${size#*:}" 0
  node "$here/build/draft.js" "$here/site"
  rm -rf "$here/site"
done

#!/usr/bin/env bash
# `./edgemap bench texts`: an index of texts and the places in it, on a generated site of 10,000 pages of 800 words.
# SIZES="PAGES:WORDS …" for others.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
for size in ${SIZES:-10000:800}; do node "$here/build/texts.js" "${size%:*}" "${size#*:}"; done

#!/usr/bin/env bash
# `./edgemap bench change`: two states of a generated site compared: 100,000 pages with 120 links each, then a million with 20.
# SIZES="PAGES:LINKS …" for others.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
for size in ${SIZES:-100000:120 1000000:20}; do
  for state in 0 1; do node "$here/build/change.js" make "$here/$state" "${size%:*}" "${size#*:}" "$state"; done
  # The memory of the program is given a bound, so that garbage does not count as need.
  node --max-old-space-size=900 "$here/build/change.js" compare "$here/0" "$here/1"
  rm -rf "$here/0" "$here/1"
done

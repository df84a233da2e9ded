#!/usr/bin/env bash
# `./edgemap bench fuzz [--minutes N | --inputs N] [--only NAME] [--seed N]`: mutated inputs for the readers of HTML, robots.txt,
# sitemaps, addresses, selections and settings. One minute in all when nothing is said; --inputs is for each of them.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
node "$here/build/fuzz.js" "${TMPDIR:-/tmp}/edgemap-fuzz" "$@"

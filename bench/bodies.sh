#!/usr/bin/env bash
# `./edgemap bench bodies [--minutes N] [--only answers|uploads] [--seed N]`: answers and uploads composed of kinds, lengths,
# codings and breaks, for a minute each. What is said of one that broke names its seed.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
node "$here/build/bodies.js" "$@"

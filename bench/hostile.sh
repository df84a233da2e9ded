#!/usr/bin/env bash
# `./edgemap bench hostile [PART OF A NAME]`: crawls of sites that each send one thing that no site should, in its large form,
# with the time and the peak memory of each. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
node build-node/main.cjs migrate
exec node bench/hostile.mjs "$@"

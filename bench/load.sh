#!/usr/bin/env bash
# `./edgemap bench load`: fifty readers at once, for MINUTES (5), on a crawl of a generated site of PAGES (10,000) pages: how
# long answers take, how many fail, and whether the memory of the application levels off. Run by ./edgemap, which has set
# DATABASE_URL.
set -euo pipefail
pages=${PAGES:-10000}
. bench/generatedSite.sh

node build-node/main.cjs migrate
crawl=$(newest_crawl 2)
if [ -z "$crawl" ]; then
  crawl_twice
  crawl=$(newest_crawl 2)
fi
start_app
node bench/load.mjs "$address$crawl" "$app" "${MINUTES:-5}"

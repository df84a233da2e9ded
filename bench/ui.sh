#!/usr/bin/env bash
# `./edgemap bench ui`: the workspace in Chromium on two crawls of a generated site of PAGES (100,000) pages, with lists and
# logs of ten times as many addresses. They are made first, which takes a quarter of an hour, unless this database has a site
# of that size. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
pages=${PAGES:-100000}
. bench/generatedSite.sh

crawl=$(newest_crawl 2 || true)
if [ -z "$crawl" ]; then
  crawl_twice
  python3 bench/sources.py "$here" "$start" "$pages"
  for source in list:clicks list:backlinks log:may log:june; do
    node build-node/main.cjs import "$start" "$here/${source#*:}" --as "${source%:*}" --name "${source#*:}" 2>/dev/null
  done
  crawl=$(newest_crawl 2)
fi
start_app
node bench/ui.mjs "$address$crawl"

#!/usr/bin/env bash
# `./edgemap bench ui`: the workspace in Chromium on two crawls of a generated site of PAGES (100,000) pages, with lists and
# logs of ten times as many addresses. They are made first, which takes a quarter of an hour, unless this database has a site
# of that size. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
pages=${PAGES:-100000}
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
jobs=()
trap 'kill "${jobs[@]}" 2>/dev/null; rm -rf "$here"' EXIT
. bench/generatedSite.sh

crawl=$(newest_crawl 2 || true)
if [ -z "$crawl" ]; then
  start_site
  echo "Crawling a site of $pages pages twice first …" >&2
  crawl_site
  kill -USR2 "$site"
  crawl_site
  python3 bench/sources.py "$here" "$start" "$pages"
  for source in list:clicks list:backlinks log:may log:june; do
    node build-node/main.cjs import "$start" "$here/${source#*:}" --as "${source%:*}" --name "${source#*:}" 2>/dev/null
  done
  crawl=$(newest_crawl 2)
fi
start_app
node bench/ui.mjs "$address$crawl"

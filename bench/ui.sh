#!/usr/bin/env bash
# `./edgemap bench ui`: the workspace in Chromium on a crawl of a generated site of PAGES (100,000) pages. The crawl is made
# first, which takes some minutes, unless this database has one of that size. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
pages=${PAGES:-100000}
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
jobs=()
trap 'kill "${jobs[@]}" 2>/dev/null; rm -rf "$here"' EXIT

newest_crawl() {
  node -e "import('mysql2/promise').then(async (m) => { const c = await m.createConnection(process.env.DATABASE_URL); const [[row]] = await c.query('select id, site_id from crawl where state = \"done\" and known > ? order by id desc limit 1', [Number(process.argv[1])]); if (row) console.log('sites/' + row.site_id + '/crawls/' + row.id); await c.end(); })" "$pages"
}
# wait_for FILE PATTERN: the first match in what a program says.
wait_for() {
  for _ in $(seq 300); do
    grep -oE "$2" "$1" | head -n 1 && return 0
    sleep 0.1
  done
  echo "Nothing came up in 30 s: $(tail -n 1 "$1")" >&2
  return 1
}

crawl=$(newest_crawl || true)
if [ -z "$crawl" ]; then
  node bench/site.mjs "$pages" >"$here/site" &
  jobs+=($!)
  port=$(wait_for "$here/site" '^[0-9]+$')
  echo "Crawling a site of $pages pages first …" >&2
  node build-node/main.cjs crawl "http://127.0.0.1:$port/" --limit $((pages * 2)) 2>/dev/null
  crawl=$(newest_crawl)
fi
PORT=0 node build-node/main.cjs serve 2>"$here/serve" &
jobs+=($!)
address=$(wait_for "$here/serve" 'http://127\.0\.0\.1:[0-9]+/')
node bench/ui.mjs "$address$crawl"

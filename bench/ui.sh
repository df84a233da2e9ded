#!/usr/bin/env bash
# `./edgemap bench ui`: the workspace in Chromium on two crawls of a generated site of PAGES (100,000) pages, with lists and
# logs of ten times as many addresses. They are made first, which takes a quarter of an hour, unless this database has a site
# of that size. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
pages=${PAGES:-100000}
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
jobs=()
trap 'kill "${jobs[@]}" 2>/dev/null; rm -rf "$here"' EXIT

# The newest crawl of a site that has two of that size.
newest_crawl() {
  node -e "import('mysql2/promise').then(async (m) => { const c = await m.createConnection(process.env.DATABASE_URL); const [[row]] = await c.query('select max(id) id, site_id from crawl where state = \"done\" and known > ? group by site_id having count(*) > 1 order by id desc limit 1', [Number(process.argv[1])]); if (row) console.log('sites/' + row.site_id + '/crawls/' + row.id); await c.end(); })" "$pages"
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
  server=$!
  jobs+=("$server")
  port=$(wait_for "$here/site" '^[0-9]+$')
  start=http://127.0.0.1:$port/
  echo "Crawling a site of $pages pages twice first …" >&2
  node build-node/main.cjs crawl "$start" --limit $((pages * 2)) 2>/dev/null
  kill -USR2 "$server"
  node build-node/main.cjs crawl "$start" --limit $((pages * 2)) 2>/dev/null
  python3 bench/sources.py "$here" "$start" "$pages"
  for source in list:clicks list:backlinks log:may log:june; do
    node build-node/main.cjs import "$start" "$here/${source#*:}" --as "${source%:*}" --name "${source#*:}" 2>/dev/null
  done
  crawl=$(newest_crawl)
fi
PORT=0 node build-node/main.cjs serve 2>"$here/serve" &
jobs+=($!)
address=$(wait_for "$here/serve" 'http://127\.0\.0\.1:[0-9]+/')
node bench/ui.mjs "$address$crawl"

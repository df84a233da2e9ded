# What benches of the web application have in common: a crawl of a generated site of $pages pages, kept in the database for
# the next time, and the application on it. Sourced; $here is a folder of the bench's own, $jobs are ended with it.
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
jobs=()
trap 'kill "${jobs[@]}" 2>/dev/null; rm -rf "$here"' EXIT

# newest_crawl CRAWLS: the path of the newest crawl of a site of that size that has as many crawls.
newest_crawl() {
  node -e "import('mysql2/promise').then(async (m) => { const c = await m.createConnection(process.env.DATABASE_URL); const [[row]] = await c.query('select max(id) id, site_id from crawl where state = \"done\" and known between ? and ? group by site_id having count(*) >= ? order by id desc limit 1', process.argv.slice(1).map(Number)); if (row) console.log('sites/' + row.site_id + '/crawls/' + row.id); await c.end(); })" "$pages" $((pages * 2)) "$1"
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

# start_site: starts the generated site; sets $site and $start.
start_site() {
  node bench/site.mjs "$pages" >"$here/site" &
  site=$!
  jobs+=("$site")
  start=http://127.0.0.1:$(wait_for "$here/site" '^[0-9]+$')/
}

crawl_site() { node build-node/main.cjs crawl "$start" --limit $((pages * 2)) 2>/dev/null; }

# crawl_twice: crawls the generated site in both of its states.
crawl_twice() {
  start_site
  echo "Crawling a site of $pages pages twice first …" >&2
  crawl_site
  kill -USR2 "$site"
  crawl_site
}

# start_app: starts the application; sets $app and $address.
start_app() {
  PORT=0 node build-node/main.cjs serve 2>"$here/serve" &
  app=$!
  jobs+=("$app")
  address=$(wait_for "$here/serve" 'http://127\.0\.0\.1:[0-9]+/')
}

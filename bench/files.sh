#!/usr/bin/env bash
# Compares what two builds of Edge Map write, byte by byte: every file of export, compare, sources, robots and sitemap, for the
# demo website and for the sets of documentation named by SITES.
#
#   ./edgemap bench files crawl FOLDER [CHECKOUT]   crawls everything with a checkout (this one without it), and writes its files
#   ./edgemap bench files again FOLDER [CHECKOUT]   writes the files of the same crawls, with this checkout or another
#   ./edgemap bench files same FOLDER FOLDER        compares two such folders but for times and ports,
#
# Crawls stay in the database, so that `again` also shows that crawls of an earlier version can be read.
set -euo pipefail
command=${1:-}
folder=$(mkdir -p "${2:?a folder is needed}" && cd "$2" && pwd)
read -ra packages <<<"${SITES:-sqlite3-doc libstdc++-12-doc}"

# Files of a crawl hold when each page was fetched, how long that took, and the number of the crawl.
without_times() {
  python3 - "$1" <<'PY'
import csv, json, re, sys
text = lambda: re.sub(r'127\.0\.0\.1:\d+', '127.0.0.1', open(path, errors='replace', newline='').read())
path = sys.argv[1]
if path.endswith('.csv'):
    rows = list(csv.reader(text().splitlines(keepends=True)))
    keep = [i for i, name in enumerate(rows[0]) if name not in ('fetched_at', 'response_ms')] if rows else []
    for row in rows: print([row[i] for i in keep if i < len(row)])
elif path.endswith('summary.json'):
    summary = json.loads(text())
    for name in ('crawl', 'startedAt', 'endedAt', 'settings', 'start'): summary.pop(name, None)
    print(json.dumps(summary, indent=1))
else:
    print(re.sub(r'[Cc]rawls?[ -/]\d+', 'crawl', text()))
PY
}

if [ "$command" = same ]; then
  other=$3 code=0
  while read -r file; do
    cmp -s "$folder/$file" "$other/$file" && continue
    diff <(without_times "$folder/$file") <(without_times "$other/$file") >/tmp/edgemap-differs 2>&1 && continue
    echo "differs: $file ($(grep -c '^[<>]' /tmp/edgemap-differs) lines)"
    code=1
  done < <({ (cd "$folder" && find . -type f ! -name crawls ! -name said) && (cd "$other" && find . -type f ! -name crawls ! -name said); } | sort -u)
  [ $code = 0 ] && echo "All files are the same."
  exit $code
fi

program=${3:-$PWD}/build-node/main.cjs
run() { node "$program" "$@" 2>>"$folder/said"; }
: >"$folder/said"
if [ "$command" = crawl ]; then
  . bench/docs.sh
  here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
  trap 'stop_docs; kill "${demo:-}" 2>/dev/null; rm -rf "$here"' EXIT
  : >"$folder/crawls"
  # crawled NAME ARGUMENTS…: crawls and notes the number.
  crawled() {
    local name=$1
    shift
    node "$program" crawl "$@" 2>&1 | grep -o 'Crawl [0-9]*' | head -1 | sed "s/Crawl/$name/" >>"$folder/crawls"
  }
  node "$program" migrate
  openssl req -x509 -newkey rsa:2048 -nodes -days 1 -subj /CN=www.larkfield.example -keyout "$here/key.pem" -out "$here/cert.pem" 2>/dev/null
  node "${program%main.cjs}demo.cjs" "0" "$here/key.pem" "$here/cert.pem" "$here/later" >"$here/listening" &
  demo=$!
  for _ in $(seq 50); do [ -s "$here/listening" ] && break; sleep 0.1; done
  overrides=()
  for host in www.larkfield.example larkfield.example staging.larkfield.example; do
    overrides+=(--override "$host=127.0.0.1:$(cat "$here/listening")")
  done
  crawled demo https://www.larkfield.example/ --insecure --depth 8 "${overrides[@]}"
  touch "$here/later"
  crawled later https://www.larkfield.example/ --insecure --depth 8 "${overrides[@]}"
  printf 'address,clicks\nhttps://www.larkfield.example/,9\nhttps://www.larkfield.example/gone-for-good,4\n' >"$here/list.csv"
  for path in / /shop/ /visit/ /nowhere; do
    echo "192.0.2.1 - - [02/Nov/2026:10:00:00 +0000] \"GET $path HTTP/1.1\" 200 99 \"-\" \"searchbot/1.0\""
  done >"$here/may.log"
  run import https://www.larkfield.example/ "$here/list.csv" --as list --name Campaigns
  run import https://www.larkfield.example/ "$here/may.log" --as log --name May
  serve_docs "${packages[@]}"
  for i in "${!packages[@]}"; do crawled "${packages[i]}" "http://127.0.0.1:${ports[i]}/"; done
else
  cp "${CRAWLS:?the file of crawls, from a folder that crawl has filled}" "$folder/crawls"
fi

while read -r name number; do
  out=$folder/$name
  mkdir -p "$out"
  run export "$number" --out "$out/export" --tables
  run export "$number" --out "$out/plain" --share-model plain --sort share:desc
  run export "$number" --out "$out/selected" --select 'indexable and depth > 1' --sort word_count
  for select in 'orphan or reach = island' 'linked from (depth = 0)' 'within 2 of (noindex)' 'only through (depth = 1)' 'title has "a" and share > 1'; do
    run select "$number" "$select" >>"$out/select.txt" || true
  done
  run sources "$number" --out "$out/sources" || true
  printf 'User-agent: *\nDisallow: /*.html$\nAllow: /index\nDisallow: /shop\n' >"$out/robots.txt"
  run robots compare "$number" "$out/robots.txt" --agent searchbot --json >"$out/robots.json" || true
  run sitemap write "$number" --out "$out/sitemaps" --hreflang >"$out/sitemap.txt" || true
done <"$folder/crawls"
numbers=$(awk '$1 == "demo" || $1 == "later" { print $2 }' "$folder/crawls")
# shellcheck disable=SC2086
run compare $numbers --out "$folder/compared" >"$folder/compared.txt" || true
cat "$folder/said" >&2

#!/usr/bin/env bash
# `./edgemap bench crawl`: a whole crawl (fetch, parse, store, analyse, write) against `wget -r` of the same nginx on
# loopback, in one run, and a comparison of what the two found; then a generated site of PAGES (100,000) pages, to see
# rate and memory as it grows. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
packages=(sqlite3-doc git-doc nodejs-doc libstdc++-12-doc)
. bench/docs.sh
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'stop_docs; rm -rf "$here"' EXIT
command -v wget >/dev/null || { echo "bench crawl needs wget; install it from Debian." >&2; exit 1; }
serve_docs "${packages[@]}"

# Tables are made before the first crawl, as by any start of the program.
node build-node/cli.js migrate

now() { date +%s.%N; }
printf '%-16s %8s %10s %10s %8s\n' site pages wget "edge map" ratio
for i in "${!packages[@]}"; do
  start=http://127.0.0.1:${ports[i]}/
  mkdir "$here/mirror$i"
  t0=$(now)
  (cd "$here/mirror$i" && wget -q -r -l inf -e robots=off "$start") || true
  t1=$(now)
  node build-node/cli.js crawl "$start" --out "$here/out$i" 2>/dev/null
  t2=$(now)
  pages=$(find "$here/mirror$i" -name '*.html' | wc -l)
  awk -v n="${packages[i]}" -v p="$pages" -v a="$t0" -v b="$t1" -v c="$t2" \
    'BEGIN { printf "%-16s %8d %9.2fs %9.2fs %7.2fx\n", n, p, b - a, c - b, (c - b) / (b - a) }'
  python3 bench/compare.py "$here/out$i/pages.csv" "$here/mirror$i" "$start" | sed 's/^/    /'
done

[ "${PAGES:-100000}" = 0 ] || python3 bench/grow.py "${PAGES:-100000}"

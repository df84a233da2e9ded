#!/usr/bin/env bash
# `./edgemap bench crawl`: a whole crawl (start of the program, fetch, parse, store, analyse) against `wget -r` of the
# same nginx on loopback: ROUNDS (3) rounds in turn, of which the middle one counts, and a comparison of what the two
# found; then a generated site of PAGES (100,000) pages, to see rate and memory as it grows. SITES names the sets of
# documentation: two that are large enough to tell something. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
read -ra packages <<<"${SITES:-nodejs-doc libstdc++-12-doc}"
. bench/docs.sh
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'stop_docs; rm -rf "$here"' EXIT
command -v wget >/dev/null || { echo "bench crawl needs wget; install it from Debian." >&2; exit 1; }
serve_docs "${packages[@]}"

# Tables are made before the first crawl, and the program has been started before, as on any machine where it is used.
node build-node/main.cjs migrate
node build-node/main.cjs crawl "http://127.0.0.1:${ports[0]}/" --limit 200 2>/dev/null

# seconds COMMAND …: how long it takes.
seconds() {
  local began
  began=$(date +%s.%N)
  "$@" >/dev/null 2>>"$here/said" || true
  awk -v a="$began" -v b="$(date +%s.%N)" 'BEGIN { printf "%.3f\n", b - a }'
}
# median FILE: the middle one of its numbers.
median() { sort -n "$1" | awk '{ n[NR] = $1 } END { print n[int((NR + 1) / 2)] }'; }
mirror() { rm -rf "$here/mirror" && mkdir "$here/mirror" && (cd "$here/mirror" && wget -q -r -l inf -e robots=off "$1"); }

printf '%-17s %6s %9s %9s %8s   %s\n' site pages wget "edge map" ratio "ratios of the rounds"
for i in "${!packages[@]}"; do
  start=http://127.0.0.1:${ports[i]}/
  : >"$here/theirs" && : >"$here/ours"
  for _ in $(seq "${ROUNDS:-3}"); do
    seconds mirror "$start" >>"$here/theirs"
    seconds node build-node/main.cjs crawl "$start" >>"$here/ours"
  done
  crawl=$(sed -n 's/^Crawl \([0-9]*\):.*/\1/p' "$here/said" | tail -n 1)
  node build-node/main.cjs export "$crawl" --out "$here/out" 2>/dev/null
  awk -v n="${packages[i]}" -v p="$(find "$here/mirror" -name '*.html' | wc -l)" -v a="$(median "$here/theirs")" -v b="$(median "$here/ours")" \
    -v all="$(paste "$here/ours" "$here/theirs" | awk '{ printf "%.2f ", $1 / $2 }')" \
    'BEGIN { printf "%-17s %6d %8.2fs %8.2fs %7.2fx   %s\n", n, p, a, b, b / a, all }'
  python3 bench/compare.py "$here/out/pages.csv" "$here/mirror" "$start" | sed 's/^/    /'
done

[ "${PAGES:-100000}" = 0 ] || python3 bench/grow.py "${PAGES:-100000}"

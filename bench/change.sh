#!/usr/bin/env bash
# `./edgemap bench change`: two states of a generated site compared: 100,000 pages with 120 links each, then a million with 20.
# SIZES="PAGES:LINKS …" for others.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
for size in ${SIZES:-100000:120 1000000:20}; do
  for state in 0 1; do node "$here/build/change.js" make "$here/$state" "${size%:*}" "${size#*:}" "$state"; done
  # The memory of the program is given a bound, so that garbage does not count as need.
  node --max-old-space-size=900 "$here/build/change.js" compare "$here/0" "$here/1"
  rm -rf "$here/0" "$here/1"
done

echo "what the terminal writes, worked out anew"
. bench/docs.sh
trap 'stop_docs; kill "${demo:-}" 2>/dev/null; rm -rf "$here"' EXIT
# compare_twice NAME START CHANGE OPTIONS…: crawls, runs the change, crawls again, and compares.
compare_twice() {
  local name=$1 start=$2 change=$3 state number
  shift 3
  local crawls=()
  for state in old new; do
    [ $state = old ] || eval "$change"
    number=$(node build-node/main.cjs crawl "$start" "$@" --out "$here/$name-$state" 2>&1 | grep -o 'Crawl [0-9]*' | head -1 | tr -dc 0-9)
    crawls+=("$number")
  done
  node build-node/main.cjs compare "${crawls[@]}" --out "$here/$name-compared" 2>/dev/null
  echo "  $name"
  python3 bench/changes.py "$here/$name-old" "$here/$name-new" "$here/$name-compared"
}
serve_docs sqlite3-doc
compare_twice sqlite3-doc "http://127.0.0.1:${ports[0]}/" 'python3 bench/edit_docs.py "$here/root/${docs_folder[sqlite3-doc]}"'
openssl req -x509 -newkey rsa:2048 -nodes -days 1 -subj /CN=www.larkfield.example -keyout "$here/key.pem" -out "$here/cert.pem" 2>/dev/null
node build-node/demo.cjs 0 "$here/key.pem" "$here/cert.pem" "$here/later" >"$here/listening" &
demo=$!
for _ in $(seq 50); do [ -s "$here/listening" ] && break; sleep 0.1; done
overrides=()
for host in www.larkfield.example larkfield.example; do overrides+=(--override "$host=127.0.0.1:$(cat "$here/listening")"); done
compare_twice demo https://www.larkfield.example/ 'touch "$here/later"' --insecure --depth 8 "${overrides[@]}"

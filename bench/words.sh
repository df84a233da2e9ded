#!/usr/bin/env bash
# `./edgemap bench words`: links taken out of sets of documentation and looked for again, beside plain BM25.
# PACKAGES="…" for some of them.
set -euo pipefail
. bench/docs.sh
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'stop_docs; rm -rf "$here"' EXIT
packages=(${PACKAGES:-sqlite3-doc nodejs-doc libstdc++-12-doc})
serve_docs "${packages[@]}"
crawl_to() {
  mkdir -p "$2"
  node build-node/main.cjs crawl "$1" --sitemap "$1sitemap.xml" --out "$2" 2>&1 | grep -o 'Crawl [0-9]*' | head -1 | tr -dc 0-9
}
for i in "${!packages[@]}"; do
  package=${packages[$i]} base=http://127.0.0.1:${ports[$i]}/ folder=$here/root/${docs_folder[${packages[$i]}]}
  echo "$package"
  whole=$(crawl_to "$base" "$here/$package-whole")
  node build-node/main.cjs select "$whole" 'indexable and pages_linking_text >= 4' >"$here/$package-whole/linked.txt"
  python3 bench/words.py unwrap "$folder" "$base" "$here/$package-whole" "$here/$package.json"
  crawl=$(crawl_to "$base" "$here/$package")
  selection=$(python3 bench/words.py selection "$here/$package.json")
  # These name things in code.
  node build-node/main.cjs suggest "$crawl" --all "$selection" --code --out "$here/$package/found.csv" 2>/dev/null
  python3 bench/words.py judge "$folder" "$base" "$here/$package.json" "$here/$package/found.csv"
done

#!/usr/bin/env bash
# `./edgemap bench findings [--only SITE] [--accept] [--draw N]`: how many of the judged findings (bench/judged) are right, on the
# generated sites, the demo and, where Debian's packages can be had, sets of documentation. `--draw N` prints what to judge.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'stop_docs; rm -rf "$here"' EXIT
. bench/docs.sh
npx vite build --config bench/vite.config.ts --outDir "$here/build" --emptyOutDir >/dev/null 2>&1 ||
  { echo "The measurement could not be built: npx vite build --config bench/vite.config.ts says why." >&2; exit 1; }
openssl req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=bench.example -keyout "$here/key.pem" -out "$here/cert.pem" 2>/dev/null
packages=(sqlite3-doc git-doc nodejs-doc libstdc++-12-doc)
docs=()
if (serve_docs_check "${packages[@]}") 2>/dev/null; then
  serve_docs "${packages[@]}"
  for i in "${!packages[@]}"; do docs+=(--docs "${packages[i]}=http://127.0.0.1:${ports[i]}/"); done
else
  echo "Debian's documentation packages cannot be had here; only the generated sites and the demo are compared." >&2
fi
# A database of its own, which nobody else sees.
DATABASE_URL=${DATABASE_URL%/*}/edgemap_bench_findings
export DATABASE_URL
node build-node/main.cjs migrate
node "$here/build/findings.js" "$here/key.pem" "$here/cert.pem" "${docs[@]}" "$@"

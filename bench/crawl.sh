#!/usr/bin/env bash
# `./edgemap bench crawl`: a whole crawl (fetch, parse, store, analyse, write) against `wget -r` of the same nginx on
# loopback, in one run, and a comparison of what the two found; then a generated site of PAGES (100,000) pages, to see
# rate and memory as it grows. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
packages=(sqlite3-doc git-doc nodejs-doc libstdc++-12-doc)
declare -A folder=([sqlite3-doc]=usr/share/doc/sqlite3 [git-doc]=usr/share/doc/git-doc [nodejs-doc]=usr/share/doc/nodejs/api
  [libstdc++-12-doc]=usr/share/doc/gcc-12-base/libstdc++)
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
chmod 755 "$here"
trap '[ ! -s "$here/nginx.pid" ] || kill "$(cat "$here/nginx.pid")"; rm -rf "$here"' EXIT

for tool in nginx wget python3 dpkg-deb; do
  command -v "$tool" >/dev/null || { echo "bench crawl needs $tool; install it from Debian." >&2; exit 1; }
done
mkdir "$here/root" "$here/packages"
chmod 777 "$here/packages"
# Unpacked, not installed: nodejs-doc conflicts with a Node.js that does not come from Debian.
(cd "$here/packages" && apt-get download "${packages[@]}" >/dev/null 2>&1) ||
  { echo "The packages ${packages[*]} could not be downloaded; run apt-get update first." >&2; exit 1; }
for package in "$here"/packages/*.deb; do dpkg-deb -x "$package" "$here/root"; done

ports=()
servers=""
for package in "${packages[@]}"; do
  port=$(node -e 'const s = require("net").createServer().listen(0, "127.0.0.1", () => { console.log(s.address().port); s.close(); })')
  ports+=("$port")
  servers+="server { listen 127.0.0.1:$port; root $here/root/${folder[$package]}; }"$'\n'
done
cat >"$here/nginx.conf" <<END
worker_processes 1; pid $here/nginx.pid; error_log $here/error.log;
events { worker_connections 512; }
http { include /etc/nginx/mime.types; access_log off; keepalive_requests 1000000; $servers }
END
nginx -c "$here/nginx.conf"

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

# Sets of HTML documentation from Debian, served by one nginx on loopback; sourced by the measurements that crawl them.
# `serve_docs PACKAGE …` fills `ports`, a port a package. Everything is below the folder `here`, which the caller removes.
declare -A docs_folder=([sqlite3-doc]=usr/share/doc/sqlite3 [git-doc]=usr/share/doc/git-doc [nodejs-doc]=usr/share/doc/nodejs/api
  [libstdc++-12-doc]=usr/share/doc/gcc-12-base/libstdc++)

stop_docs() { [ ! -s "$here/nginx.pid" ] || kill "$(cat "$here/nginx.pid")"; }

# Whether the tools are there and the packages can be downloaded.
serve_docs_check() {
  local tool
  for tool in nginx python3 dpkg-deb; do command -v "$tool" >/dev/null || return 1; done
  apt-get download --print-uris "$@" >/dev/null
}

serve_docs() {
  local tool package port servers=""
  for tool in nginx python3 dpkg-deb; do
    command -v "$tool" >/dev/null || { echo "This needs $tool; install it from Debian." >&2; exit 1; }
  done
  chmod 755 "$here"
  mkdir "$here/root" "$here/packages"
  chmod 777 "$here/packages"
  # Unpacked, not installed: nodejs-doc conflicts with a Node.js that does not come from Debian.
  (cd "$here/packages" && apt-get download "$@" >/dev/null 2>&1) ||
    { echo "The packages $* could not be downloaded; run apt-get update first." >&2; exit 1; }
  for package in "$here"/packages/*.deb; do dpkg-deb -x "$package" "$here/root"; done
  ports=()
  for package in "$@"; do
    port=$(node -e 'const s = require("net").createServer().listen(0, "127.0.0.1", () => { console.log(s.address().port); s.close(); })')
    ports+=("$port")
    servers+="server { listen 127.0.0.1:$port; root $here/root/${docs_folder[$package]}; }"$'\n'
  done
  cat >"$here/nginx.conf" <<END
worker_processes 1; pid $here/nginx.pid; error_log $here/error.log;
events { worker_connections 512; }
http { include /etc/nginx/mime.types; access_log off; keepalive_requests 1000000; $servers }
END
  nginx -c "$here/nginx.conf"
}

#!/usr/bin/env bash
# `./edgemap bench imports`: a log of 2 million lines against `zcat | awk | sort | uniq -c` of the same file, a list of a
# million addresses, and sitemaps of a million entries in 20 files against `xmllint --stream`; each with the memory that it
# took. Run by ./edgemap, which has set DATABASE_URL.
set -euo pipefail
here=$(mktemp -d /tmp/edgemap-bench.XXXXXX)
trap 'rm -rf "$here"' EXIT
command -v xmllint >/dev/null || { echo "bench imports needs xmllint; install libxml2-utils from Debian." >&2; exit 1; }
python3 bench/imports.py "$here"
start=https://www.larkfield.example/
node build-node/main.cjs migrate

# measured COMMAND …: seconds, and MiB of the largest process at its largest.
measured() {
  python3 - "$@" <<'PY'
import resource, subprocess, sys, time
began = time.monotonic()
subprocess.run(sys.argv[1:], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
print(f"{time.monotonic() - began:.2f} {resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss >> 10}")
PY
}
# against NAME OURS THEIRS: a line with the ratio.
against() {
  read -r ours memory < <(echo "$2")
  read -r theirs _ < <(echo "$3")
  awk -v n="$1" -v a="$ours" -v m="$memory" -v b="$theirs" 'BEGIN { printf "%-34s %7.2f s %6d MiB %9.2f s %7.2f×\n", n, a, m, b, a / b }'
}
printf '%-34s %9s %10s %11s %8s\n' '' 'edge map' memory 'peer' ratio
for _ in 1 2 3; do
  theirs=$(measured sh -c "zcat $here/access.log.gz | awk '{print \$7}' | sort | uniq -c")
  ours=$(measured node build-node/main.cjs import $start "$here/access.log.gz" --as log --name "Round $RANDOM")
  against 'log, 2,000,000 lines' "$ours" "$theirs"
done
ours=$(measured node build-node/main.cjs import $start "$here/list.csv" --as list --name Million)
read -r seconds memory <<<"$ours"
printf '%-34s %7.2f s %6d MiB\n' 'list, 1,000,000 addresses' "$seconds" "$memory"
for _ in 1 2 3; do
  theirs=$(measured sh -c "xmllint --stream --noout $here/sitemap-*.xml")
  ours=$(measured node build-node/main.cjs sitemap check "$here/sitemap.xml")
  against 'sitemaps, 1,000,000 entries' "$ours" "$theirs"
done

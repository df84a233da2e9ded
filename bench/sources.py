"""Writes two lists and two access logs of a generated site (site.mjs) for `./edgemap bench ui`: all its pages, and nine times as many addresses that only these sources know."""
import sys

folder, start, pages = sys.argv[1], sys.argv[2].rstrip("/"), int(sys.argv[3])
only = 9 * pages


def paths(kept, of_pages, of_others):
    """Every page and every other address whose number leaves one of these remainders."""
    parts, remainders = kept
    yield from (f"/page/{n}" for n in range(of_pages) if n % parts in remainders)
    yield from (f"/old/{n}" for n in range(of_others) if n % parts in remainders)


for name, kept in {"clicks": (3, {0, 1}), "backlinks": (4, {0, 2})}.items():
    with open(f"{folder}/{name}", "w") as out:
        out.write(f"Page,{name.title()}\n")
        out.writelines(f"{start}{path},{n % 400}\n" for n, path in enumerate(paths(kept, pages, only)))
for name, month, kept in [("may", "May", (2, {1})), ("june", "Jun", (5, {0, 2, 4}))]:
    with open(f"{folder}/{name}", "w") as out:
        for n, path in enumerate(paths(kept, pages, only)):
            when = f"{1 + n % 28:02d}/{month}/2026:10:00:00 +0000"
            status = 404 if path.startswith("/old") and n % 3 else 200
            out.write(f'203.0.113.9 - - [{when}] "GET {path} HTTP/1.1" {status} 512 "-" "Mozilla/5.0 (X11) Reader/140.0"\n')

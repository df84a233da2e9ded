"""Writes the files that `./edgemap bench imports` imports and checks, all made up: a log, a list and sitemaps."""
import gzip
import random
import sys

ORIGIN = "https://www.larkfield.example"


def path(i: int) -> str:
    return f"/section-{i % 97}/page-{i}" + (f"?view={i % 7}" if i % 5 == 0 else "")


def log(file: str, lines: int, addresses: int) -> None:
    random.seed(1)
    agents = ["Mozilla/5.0 (X11; Linux x86_64) Reader/140.0", "Mozilla/5.0 (compatible; searchbot/2.1)"]
    with gzip.open(file, "wt", compresslevel=6) as out:
        for n in range(lines):
            # Every address comes once; after that a few come most.
            i = n if n < addresses else int(addresses * random.random() ** 3)
            day, second = 1 + n * 28 // lines, n % 86400
            when = f"{day:02d}/Nov/2026:{second // 3600:02d}:{second % 3600 // 60:02d}:{second % 60:02d} +0000"
            client = f"203.0.113.{n % 254 + 1}"
            agent = agents[n % 9 == 0]
            status = 404 if n % 23 == 0 else 200
            out.write(f'{client} - - [{when}] "GET {path(i)} HTTP/1.1" {status} {n % 20000} "{ORIGIN}/" "{agent}"\n')


def listed(file: str, addresses: int) -> None:
    with open(file, "w") as out:
        out.write("Page,Clicks,Impressions\n")
        for i in range(addresses):
            out.write(f"{ORIGIN}{path(i)},{i % 400},{i % 9000}\n")


def sitemaps(folder: str, files: int, entries: int) -> None:
    for f in range(files):
        with open(f"{folder}/sitemap-{f}.xml", "w") as out:
            out.write('<?xml version="1.0" encoding="UTF-8"?>\n')
            out.write('<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n')
            for i in range(f * entries, (f + 1) * entries):
                loc = (ORIGIN + path(i)).replace("&", "&amp;")
                out.write(f"  <url>\n    <loc>{loc}</loc>\n    <lastmod>2026-10-02</lastmod>\n  </url>\n")
            out.write("</urlset>\n")
    with open(f"{folder}/sitemap.xml", "w") as out:
        out.write('<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n')
        for f in range(files):
            out.write(f"<sitemap><loc>{ORIGIN}/sitemap-{f}.xml</loc></sitemap>\n")
        out.write("</sitemapindex>\n")


if __name__ == "__main__":
    folder = sys.argv[1]
    log(f"{folder}/access.log.gz", 2_000_000, 200_000)
    listed(f"{folder}/list.csv", 1_000_000)
    sitemaps(folder, 20, 50_000)

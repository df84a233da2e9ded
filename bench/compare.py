#!/usr/bin/env python3
"""Compares pages.csv of a crawl with a mirror that wget made of the same static site, and with depths worked out anew.

usage: compare.py PAGES_CSV MIRROR_DIR START

The reference shares no code with Edge Map: Python's own HTML and URL parsers, and a breadth-first search.
"""
import csv
import os
import sys
from collections import deque
from html.parser import HTMLParser
from urllib.parse import quote, unquote, urldefrag, urljoin, urlsplit

csv.field_size_limit(sys.maxsize)
pages_csv, mirror, start = sys.argv[1:4]
host = urlsplit(start).netloc


def identity(url):
    return quote(unquote(urldefrag(url)[0]), safe="/:?=&;,+@!$'()*~-._")


class Links(HTMLParser):
    def __init__(self):
        super().__init__(convert_charrefs=True)
        self.hrefs, self.base = [], None

    def handle_starttag(self, tag, attrs):
        attrs = dict(attrs)
        if tag in ("a", "area") and attrs.get("href") is not None:
            self.hrefs.append(attrs["href"].strip())
        if tag == "base" and self.base is None:
            self.base = attrs.get("href")


def file_of(url):
    path = unquote(urlsplit(url).path)
    return os.path.join(mirror, host, path.lstrip("/") + ("index.html" if path.endswith("/") else ""))


depth, queue, html = {identity(start): 0}, deque([start]), set()
while queue:
    url = queue.popleft()
    file = file_of(url)
    if not os.path.isfile(file) or not file.endswith((".html", ".htm")):
        continue
    html.add(identity(url))
    parser = Links()
    parser.feed(open(file, encoding="utf-8", errors="replace").read())
    for href in parser.hrefs:
        try:
            target = urljoin(urljoin(url, parser.base or ""), href)
        except ValueError:
            continue
        if urlsplit(target).netloc != host or urlsplit(target).scheme not in ("http", "https"):
            continue
        key = identity(target)
        if key not in depth:
            depth[key] = depth[identity(url)] + 1
            queue.append(urldefrag(target)[0])

rows = {identity(row["url"]): row for row in csv.DictReader(open(pages_csv, newline="", encoding="utf-8"))}
ours = {url for url, row in rows.items() if row["status"] == "200" and row["content_type"] == "text/html"}
wrong = [(url, depth[url], rows[url]["depth"]) for url in depth if url in rows and rows[url]["depth"] != str(depth[url])]
mirrored = sum(1 for _, _, files in os.walk(mirror) for name in files if name.endswith((".html", ".htm")))
print(f"HTML pages: {len(ours)} in pages.csv, {len(html)} reached in the mirror, {mirrored} files in the mirror")
print("only in pages.csv:", sorted(ours - html) or "none")
print("only in the mirror:", sorted(html - ours) or "none")
print("known to one only:", sorted(set(depth) ^ set(rows))[:10] or "none")
print("other depth:", wrong[:10] or "none")
print("listed twice:", sum(1 for _ in csv.DictReader(open(pages_csv, newline="", encoding="utf-8"))) - len(rows))

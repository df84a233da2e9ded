#!/usr/bin/env python3
"""Makes 50 changes to a folder of HTML documentation: titles, pages that go, that move, that come, links and noindex.

usage: edit_docs.py FOLDER
"""
import glob
import os
import re
import sys

folder = sys.argv[1]
pages = sorted(
    page for page in glob.glob(os.path.join(folder, "*.html")) if "</head>" in open(page, encoding="utf-8", errors="replace").read()
)
pages = [page for page in pages if os.path.basename(page) != "index.html"]
step = max(1, len(pages) // 50)
chosen = pages[::step][:50]


def edit(page, change):
    text = open(page, encoding="utf-8", errors="surrogateescape").read()
    open(page, "w", encoding="utf-8", errors="surrogateescape").write(change(text))


for number, page in enumerate(chosen):
    kind = number % 5
    if kind == 0:
        edit(page, lambda text: re.sub(r"<title>", "<title>Anew: ", text, count=1, flags=re.I))
    elif kind == 1:
        os.remove(page)
    elif kind == 2:
        os.rename(page, page.replace(".html", "-moved.html"))
    elif kind == 3:
        edit(page, lambda text: re.sub(r"</head>", '<meta name="robots" content="noindex"></head>', text, count=1, flags=re.I))
    else:
        # Many pages have no end tag of their body: what comes last is in it all the same.
        note = f'<p><a href="index.html">Note {number}</a></p>'
        edit(page, lambda text: re.sub(r"(?=</body>)|\Z", note, text, count=1, flags=re.I))
print(f"  {len(chosen)} changes")

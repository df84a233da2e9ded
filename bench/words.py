#!/usr/bin/env python3
"""Whether places for links are found again after the links were taken away.

usage: words.py unwrap FOLDER BASE OUT TRUTH    takes links to some pages out of a folder of HTML, keeping their words;
                                                OUT holds pages.csv and links.csv of the folder at the address BASE, and
                                                linked.txt, the pages that several others link to from running text
       words.py selection TRUTH                 prints the selection of those pages
       words.py judge FOLDER BASE TRUTH FOUND   compares what `./edgemap suggest` wrote to the links that were taken
"""
import csv
import hashlib
import html
import json
import math
import os
import re
import sys
from collections import Counter, defaultdict
from urllib.parse import unquote, urlsplit

TARGETS = 60
TOPS = (1, 5, 20)
csv.field_size_limit(10**9)


def rows(path):
    with open(path, encoding="utf-8-sig", newline="") as file:
        yield from csv.DictReader(file)


def file_of(folder, base, address):
    path = unquote(urlsplit(address).path)
    path = path[len(urlsplit(base).path):] if path.startswith(urlsplit(base).path) else path
    found = os.path.join(folder, path.lstrip("/"))
    return os.path.join(found, "index.html") if os.path.isdir(found) else found


def read(path):
    with open(path, "rb") as file:
        return file.read()


def line_starts(data):
    return [0] + [match.end() for match in re.finditer(rb"\r\n|\r|\n", data)]


def words(text):
    return re.findall(r"\w+", text.lower())


def unwrap(folder, base, out, truth):
    pages = {row["url"]: row for row in rows(os.path.join(out, "pages.csv"))}
    with open(os.path.join(out, "linked.txt"), encoding="utf-8") as file:
        eligible = file.read().split()
    # The same ones each time, and no order of names in them.
    eligible.sort(key=lambda url: hashlib.sha256(url.encode()).digest())
    targets = set(eligible[:TARGETS])
    by_source = defaultdict(list)
    for link in rows(os.path.join(out, "links.csv")):
        if link["element"] == "a" and link["target"] in targets and link["source"] != link["target"]:
            if link["placement"] in ("main", ""):
                by_source[link["source"]].append(link)
    # What stands on every page is no sentence that somebody wrote.
    times = Counter((link["target"], link["anchor"]) for links in by_source.values() for link in links)
    menus = {key for key, count in times.items() if count > max(20, 0.2 * len(pages))}
    taken = defaultdict(dict)
    for source, links in by_source.items():
        path = file_of(folder, base, source)
        data = read(path)
        starts = line_starts(data)
        cuts = []
        for link in links:
            begin = starts[int(link["line"]) - 1] + int(link["column"]) - 1
            tag = re.compile(rb"<a\b(?:\"[^\"]*\"|'[^']*'|[^>\"'])*>", re.I).match(data, begin)
            end = re.compile(rb"</a\s*>", re.I).search(data, begin)
            if not tag or not end:
                continue
            cuts += [(begin, tag.end()), (end.start(), end.end())]
            if (link["target"], link["anchor"]) not in menus:
                taken[link["target"]].setdefault(source, []).append([link["anchor"], tag.end(), end.start()])
        made, at = [], 0
        cuts.sort()
        for begin, end in cuts:
            made.append(data[at:begin])
            at = max(at, end)
        made.append(data[at:])
        # Where the words stand once the tags are gone.
        def moved(place):
            return place - sum(end - begin for begin, end in cuts if end <= place)
        for links in (found[source] for found in taken.values() if source in found):
            for link in links:
                link[1:] = [moved(link[1]), moved(link[2])]
        with open(path, "wb") as file:
            file.write(b"".join(made))
    # What nothing links to any more is found by a sitemap.
    with open(os.path.join(folder, "sitemap.xml"), "w", encoding="utf-8") as file:
        file.write('<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">')
        file.write("".join(f"<url><loc>{html.escape(url)}</loc></url>" for url in sorted(pages)) + "</urlset>")
    said = {
        target: {"names": [pages[target]["title"], pages[target]["h1"]], "links": taken[target]} for target in targets if taken[target]
    }
    with open(truth, "w", encoding="utf-8") as file:
        json.dump(said, file)
    print(f"  {len(said)} pages, {sum(len(one['links']) for one in said.values())} pages that linked to them")


BLOCK = re.compile(r"</?(?:p|div|li|td|th|tr|table|ul|ol|dl|dt|dd|h[1-6]|pre|br|hr|body|blockquote|section)\b[^>]*>", re.I)


def sentences(data):
    text = re.sub(r"<(script|style|title)\b.*?</\1>", " ", data.decode("utf-8", "replace"), flags=re.I | re.S)
    for block in BLOCK.split(text):
        plain = html.unescape(re.sub(r"<[^>]*>", "", block))
        for sentence in re.split(r"(?<=[.!?])\s+", plain):
            found = words(sentence)
            if len(found) > 3:
                yield found


def headings(data):
    text = data.decode("utf-8", "replace")
    return [
        html.unescape(re.sub(r"<[^>]*>", "", found)).strip() for _, found in re.findall(r"<(h[1-6])\b[^>]*>(.*?)</\1>", text, re.I | re.S)
    ]


def plain_bm25(folder, base, truth, sources):
    """The pages of the best sentences for the title of each target (Robertson & Zaragoza, 2009: k1 1.2, b 0.75)."""
    documents, of, frequency = [], [], Counter()
    for source in sources:
        for sentence in sentences(read(file_of(folder, base, source))):
            documents.append(Counter(sentence))
            of.append(source)
            frequency.update(set(sentence))
    lengths = [sum(document.values()) for document in documents]
    mean = sum(lengths) / max(1, len(lengths))
    holding = defaultdict(list)
    for number, document in enumerate(documents):
        for word in document:
            holding[word].append(number)
    found = {}
    for target, one in truth.items():
        scores = defaultdict(float)
        for word in set(words(" ".join(one["names"]))):
            idf = math.log(1 + (len(documents) - frequency[word] + 0.5) / (frequency[word] + 0.5))
            for number in holding[word]:
                times = documents[number][word]
                scores[number] += idf * times * 2.2 / (times + 1.2 * (0.25 + 0.75 * lengths[number] / mean))
        best = []
        for number in sorted(scores, key=lambda number: -scores[number]):
            if of[number] != target and of[number] not in best:
                best.append(of[number])
                if len(best) == max(TOPS):
                    break
        found[target] = best
    return found


def shown(name, values):
    print(f"    {name:28}" + "".join(f"{sum(value) / max(1, len(value)):8.2f}" for value in values))


def judge(folder, base, truth_file, found_file):
    with open(truth_file, encoding="utf-8") as file:
        truth = json.load(file)
    found, wrong = defaultdict(list), 0
    for row in rows(found_file):
        data = read(file_of(folder, base, row["source"]))
        begin = line_starts(data)[int(row["line"]) - 1] + int(row["column"]) - 1
        # As far as the words reach: references and folded spaces make them longer in the source.
        source = data[begin:begin + 400].decode("utf-8", "replace")
        is_there = words(html.unescape(source))[: len(words(row["anchor"]))] == words(row["anchor"])
        wrong += not is_there
        found[row["target"]].append((row["source"], begin, begin + len(row["anchor"].encode()), row["anchor"]))
    sources = sorted({row["source"] for row in rows(os.path.join(os.path.dirname(found_file), "links.csv"))})
    baseline = plain_bm25(folder, base, truth, sources)
    right, exact, other, plain = ([[] for _ in TOPS] for _ in range(4))
    for target, one in truth.items():
        links = one["links"]
        names = {" ".join(words(name)) for name in one["names"] + headings(read(file_of(folder, base, target)))}
        others = {
            source for source, there in links.items() if all(" ".join(words(anchor)) not in names for anchor, _, _ in there)
        }
        for number, top in enumerate(TOPS):
            some = found[target][:top]
            most = min(top, len(links))
            hits = {source for source, *_ in some if source in links}
            exactly = {
                source
                for source, begin, end, _ in some
                if any(begin < last and first < end for _, first, last in links.get(source, []))
            }
            right[number].append(len(hits) / most)
            exact[number].append(len(exactly) / most)
            if others:
                other[number].append(len(exactly & others) / min(top, len(others)))
            plain[number].append(len(set(baseline[target][:top]) & set(links)) / most)
    print("    of the links taken away      at 1    at 5   at 20")
    shown("found again (page)", right)
    shown("with words in common", exact)
    shown("neither title nor heading", other)
    shown("plain BM25 (page)", plain)
    print(f"    {sum(map(len, found.values()))} suggestions, {wrong} not in the source at their line and column")


if sys.argv[1] == "unwrap":
    unwrap(*sys.argv[2:])
elif sys.argv[1] == "selection":
    with open(sys.argv[2], encoding="utf-8") as file:
        print("url in (" + ", ".join(f'"{url}"' for url in json.load(file)) + ")")
else:
    judge(*sys.argv[2:])

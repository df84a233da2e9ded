#!/usr/bin/env python3
"""Works out anew what `edgemap compare` has written of two crawls, from what `edgemap export` has written of each.

usage: changes.py OLD_FOLDER NEW_FOLDER COMPARED_FOLDER

Shares no code with Edge Map. Of pages that have moved to another address without a redirect it is checked that both had the
same title and as many words, and that nothing else claims either; whether a text is alike is not worked out anew.
"""
import csv
import json
import os
import sys
from collections import Counter, defaultdict

csv.field_size_limit(sys.maxsize)
before, after, compared = sys.argv[1:4]


def rows(folder, name):
    return list(csv.DictReader(open(os.path.join(folder, name), newline="", encoding="utf-8")))


old = {row["url"]: row for row in rows(before, "pages.csv")}
new = {row["url"]: row for row in rows(after, "pages.csv")}
said = defaultdict(list)
for row in rows(compared, "changes.csv"):
    said[row["url"]].append(row)
faults = []


def expect(what, got, wanted):
    if got != wanted:
        faults.append(f"{what}: {got!r}, expected {wanted!r}")


FACTS = ["status", "verdict", "canonical", "title", "h1", "depth", "reach", "share", "links_in", "links_out", "word_count"]


def differs(fact, a, b):
    if fact != "share":
        return a != b
    if a == "" or b == "":
        return (a == "") != (b == "")
    low, high = sorted((float(a), float(b)))
    return high - low >= 0.1 and high >= 1.5 * low


def answer(row):
    if row["verdict"] == "redirect":
        return "redirect"
    if row["status"][:1] == "2":
        return "here"
    return "missing" if row["status"] in ("404", "410") else "other"


# Where pages have gone without a redirect, as the comparison tells it.
moved = {}
for url, own in said.items():
    if own[0]["change"] == "moved" and url in old and url not in new:
        target = next(row["after"] for row in own if row["fact"] == "url")
        moved[url] = target
        if target not in new or target in old:
            faults.append(f"{url} cannot have moved to {target}")
        else:
            for fact in ("title", "word_count"):
                expect(f"{url} → {target} {fact}", new[target][fact], old[url][fact])
expect("addresses that several pages have moved to", len(set(moved.values())), len(moved))

classes = Counter()
for url in old.keys() | new.keys():
    if url in moved.values():
        continue
    a = old.get(url)
    b = new.get(moved.get(url, url))
    own = said.get(url, [])
    told = {row["change"] for row in own}
    if a is None or b is None:
        wanted = "added" if a is None else "removed"
        classes[wanted] += 1
        expect(url, told, {wanted})
        continue
    facts = {fact for fact in FACTS if differs(fact, a[fact], b[fact])}
    told_facts = {row["fact"] for row in own} - {"url", "content"}
    expect(f"facts of {url}", told_facts, facts)
    for row in own:
        if row["fact"] in FACTS and row["fact"] != "share":
            expect(f"{row['fact']} of {url}", (row["before"], row["after"]), (a[row["fact"]], b[row["fact"]]))
    then, now = answer(a), answer(b)
    isOther = bool(facts) or any(row["fact"] == "content" for row in own)
    wanted = (
        "moved" if url in moved
        else "gone" if then == "here" and now == "missing"
        else "moved" if then == "here" and now == "redirect"
        else "returned" if now == "here" and then in ("missing", "redirect")
        else "changed" if isOther
        else "same"
    )
    classes[wanted] += 1
    expect(f"class of {url}", told, set() if wanted == "same" else {wanted})
summary = json.load(open(os.path.join(compared, "summary.json")))
expect("classes", {name: n for name, n in summary["pages"].items() if n}, dict(classes))

# Links of pages that both crawls have read.
KEY = ("target", "anchor", "placement")


def links(folder):
    found = defaultdict(Counter)
    for row in rows(folder, "links.csv"):
        found[row["source"]][tuple(row[name] for name in KEY)] += 1
    return found


was, now = links(before), links(after)


def isRead(row):
    return row["content_type"] == "text/html" and row["links_out"] != ""


wanted = Counter()
for url, a in old.items():
    target = moved.get(url, url)
    if target not in new or not isRead(a) or not isRead(new[target]):
        continue
    for key, n in (was[url] - now[target]).items():
        wanted[("removed", url, *key)] += n
    for key, n in (now[target] - was[url]).items():
        wanted[("added", target, *key)] += n
got = Counter((row["change"], row["source"], *(row[name] for name in KEY)) for row in rows(compared, "link_changes.csv"))
expect("links that differ", sum(((wanted - got) + (got - wanted)).values()), 0)
for key, n in list((wanted - got).items())[:5] + list((got - wanted).items())[:5]:
    faults.append(f"  {key} {n}")
edits = defaultdict(set)
for row in rows(compared, "link_changes.csv"):
    edits[row["edit"]].add((row["change"], row["target"], row["anchor"], row["placement"]))
expect("edits of several targets, words or places", sum(len(keys) > 1 for keys in edits.values()), 0)

# Findings: the two ways of adding up agree.
for row in rows(compared, "finding_changes.csv"):
    if min(int(row[name]) for name in ("new", "solved", "remaining", "gone")) < 0:
        faults.append(f"{row['finding']} counts below zero")
print(f"  {len(old):,} and {len(new):,} addresses, {dict(classes)}, {sum(got.values()):,} links by {len(edits):,} edits: {len(faults)} differences")
for fault in faults[:20]:
    print("   ", fault)
sys.exit(1 if faults else 0)

"""Works the figures of pages.csv out anew, from addresses, statuses, redirects and links.csv, with python3-igraph.

It shares no code with Edge Map. Share is that of the model `plain`.
"""
import csv
import sys
from collections import Counter, defaultdict

import igraph

folder, start = sys.argv[1:3]
with open(f"{folder}/pages.csv", newline="", encoding="utf-8") as file:
    pages = list(csv.DictReader(file))
with open(f"{folder}/links.csv", newline="", encoding="utf-8") as file:
    links = [(row["source"], row["target"]) for row in csv.DictReader(file)]

number = {page["url"]: i for i, page in enumerate(pages)}
count = len(pages)
clicks = [(number[a], number.get(b, -1)) for a, b in links if a != b]
inside = [(a, b) for a, b in clicks if b >= 0]
pairs = sorted(set(inside))
hops = [(i, number[page["redirect_to"]]) for i, page in enumerate(pages) if page["redirect_to"] in number]
first = number[start]

walk = igraph.Graph(n=count, edges=pairs + hops, directed=True)
depth = walk.distances(source=first, weights=[1] * len(pairs) + [0] * len(hops))[0]
reached = [d != float("inf") for d in depth]

dominator = walk.dominator(first)
below = defaultdict(list)
for page, above in enumerate(dominator):
    if reached[page] and page != first:
        below[int(above)].append(page)
gate = [0] * count
order = [first]
for page in order:
    order.extend(below[page])
for page in reversed(order):
    for child in below[page]:
        gate[page] += gate[child] + 1

links_in, links_out = Counter(b for _, b in inside), Counter(a for a, _ in clicks)
linking, linked = Counter(b for _, b in pairs), Counter(a for a, _ in pairs)

lost = [page for page in range(count) if not reached[page]]
place = {page: i for i, page in enumerate(lost)}
groups = igraph.Graph(n=len(lost), edges=[(place[a], place[b]) for a, b in pairs if a in place and b in place])
islands = sorted((sorted(lost[i] for i in group) for group in groups.connected_components("weak") if len(group) > 1), key=lambda group: (-len(group), group[0]))  # fmt: skip
island = {page: i + 1 for i, group in enumerate(islands) for page in group}

html = [page["links_out"] != "" for page in pages]
nodes = [i for i, page in enumerate(pages) if page["status"] == "200" and html[i]]
node = {page: i for i, page in enumerate(nodes)}
plain = igraph.Graph(n=len(nodes), edges=[(node[a], node[b]) for a, b in pairs if a in node and b in node], directed=True)
rank = plain.pagerank(damping=0.85)
share = {page: f"{value * len(nodes):.6f}" for page, value in zip(nodes, rank)}

differ, shown = Counter(), 0
for i, page in enumerate(pages):
    known = {
        "depth": str(int(depth[i])) if reached[i] else "",
        "reach": "reached" if reached[i] else "island" if linking[i] else "orphan",
        "pages_linking": str(linking[i]),
        "links_in": str(links_in[i]),
        "pages_linked": str(linked[i]) if html[i] else "",
        "links_out": str(links_out[i]) if html[i] else "",
        "gate_for": str(gate[i]) if reached[i] else "",
        "island": str(island.get(i, "")),
        "share": share.get(i, ""),
    }
    for name, wanted in known.items():
        if page[name] != wanted:
            differ[name] += 1
            shown += 1
            if shown <= 5:
                print(f"    {page['url']}: {name} is {page[name]!r}, and {wanted!r} here")
print(f"  {count} addresses, {len(pairs)} pairs: " + (", ".join(f"{n} differ in {name}" for name, n in differ.items()) or "depth, reach, links, gates, islands and share agree to the digit"))

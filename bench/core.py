"""Measures python3-igraph on the graph that bench/core.ts has written, and compares what the two found."""
import json
import sys
import time

import igraph
import numpy as np

folder = sys.argv[1]
about = json.load(open(f"{folder}/results.json"))
ours = about["results"]
count, start = about["count"], about["start"]
load = lambda name, kind: np.fromfile(f"{folder}/{name}", dtype=kind)
offsets, targets = load("offsets", np.uint32), load("targets", np.uint32)
sources = np.repeat(np.arange(count, dtype=np.int64), np.diff(offsets).astype(np.int64))
edges = np.column_stack((sources, targets.astype(np.int64)))
graph = igraph.Graph(n=count, edges=edges, directed=True)


def timed(run):
    best, value = None, None
    for _ in range(3):
        before = time.perf_counter()
        value = run()
        spent = 1000 * (time.perf_counter() - before)
        best = spent if best is None else min(best, spent)
    return best, value


bfs, (order, levels, parents) = timed(lambda: graph.bfs(start))
depth = np.full(count, -1, dtype=np.int32)
for level in range(len(levels) - 1):
    depth[np.asarray(order[levels[level] : levels[level + 1]])] = level
before = time.perf_counter()
# -1 for the root, and nothing for what has no route.
dominator = np.nan_to_num(np.asarray(graph.dominator(start), dtype=float), nan=-1).astype(np.int64)
dominator_ms = 1000 * (time.perf_counter() - before)

before = time.perf_counter()
rank = np.asarray(graph.pagerank())
rank_ms = 1000 * (time.perf_counter() - before)

before = time.perf_counter()
graph.connected_components(mode="strong")
components_ms = 1000 * (time.perf_counter() - before)

print(
    f"{count:,} pages, {about['links']:,} links, {about['pairs']:,} pairs; "
    f"most memory until all facts were derived {about['most'] / 2**20:,.0f} MiB"
)
for name in (
    "read pages",
    "order pages",
    "lay out links",
    "finish base",
    "encode base",
    "all derived facts",
    "all derived facts, in one thread",
):
    print(f"  {name:<32} {ours[name] / 1000:8.2f} s")
for name, ms in about["steps"].items():
    print(f"    {name:<20} {ms / 1000:8.2f} s")
four = rank_ms + bfs + components_ms + dominator_ms
rows = [
    ("all derived facts", ours["all derived facts"], "the four below", four),
    ("the same, one thread", ours["all derived facts, in one thread"], "the four below", four),
    ("share", ours["share"], "pagerank()", rank_ms),
    ("reach", ours["reach"], "bfs()", bfs),
    ("islands", ours["islands"], "our reach", ours["reach"]),
    ("gates", ours["gates"], "our reach", ours["reach"]),
    ("dominators", ours["dominators"], "dominator()", dominator_ms),
]
print("ratios")
for name, own, peer, theirs in rows:
    print(f"  {name:<22} {own / 1000:8.2f} s   {peer:<24} {theirs / 1000:8.2f} s   {own / theirs:6.2f}x")
print(f"  {'':<22} {'':>8}     {'connected_components()':<24} {components_ms / 1000:8.2f} s")
print(f"near-duplicates among 100,000 near-equal pages: {ours['near-equal pages'] / 1000:.2f} s")
print("first window of a list, ms, as a screen asks for it the first time (best of three)")
for name, ms in about["windows"].items():
    print(f"  {ms:7.0f}  {name}")

print("agreement")
print(f"  two threads and one: {', '.join(about['differing']) or 'no part'} differs")
print(f"  share: largest difference {np.abs(load('share', np.float64) - rank).max():.1e}")
print(f"  depth: {int((depth != load('depth', np.int32)).sum())} pages differ")
print(f"  dominators: {int((dominator != load('dominator', np.int32)).sum())} pages differ")

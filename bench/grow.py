#!/usr/bin/env python3
"""Watches a crawl of a generated site: its rate and its memory as it grows.

usage: grow.py PAGES

Starts the site and a crawl of it, reads the crawl's own progress and the memory of its process once a second, and prints
the rate between 5,000 and 15,000 pages and over the last 10,000, the memory (resident) at 10,000 and the most after it,
and the size of the database per page.
"""
import os
import re
import subprocess
import sys
import threading
import time

pages = int(sys.argv[1])
here = os.path.dirname(os.path.abspath(__file__))
site = subprocess.Popen(["node", f"{here}/site.mjs", str(pages)], stdout=subprocess.PIPE, text=True)
port = site.stdout.readline().strip()


def database_size():
    sql = "select sum(data_length + index_length) from information_schema.tables where table_schema = database()"
    program = "import('mysql2/promise').then(async (m) => { const c = await m.createConnection(process.env.DATABASE_URL); await c.query('analyze table page, url, phrase, frontier, source, snapshot_chunk'); const [[r]] = await c.query(process.argv[1]); console.log(Object.values(r)[0]); await c.end(); })"
    return int(subprocess.run(["node", "-e", program, sql], capture_output=True, text=True).stdout.strip() or 0)


start = f"http://127.0.0.1:{port}/"
size_before = database_size()
crawl = subprocess.Popen(["node", "build-node/main.cjs", "crawl", start, "--limit", str(pages * 2)], stderr=subprocess.PIPE, text=True)

samples = []  # seconds, pages done, MiB resident
done = 0
said = []


def read_progress():
    global done
    for line in crawl.stderr:
        said.append(line.strip())
        found = re.match(r"([\d,]+) done of", line)
        if found:
            done = int(found[1].replace(",", ""))
            samples.append((time.monotonic(), done, resident()))


def resident():
    try:
        with open(f"/proc/{crawl.pid}/status") as status:
            return int(re.search(r"VmRSS:\s+(\d+)", status.read())[1]) / 1024
    except (OSError, TypeError):
        return 0


reader = threading.Thread(target=read_progress)
reader.start()
began = time.monotonic()
peak = 0
while crawl.poll() is None:
    peak = max(peak, resident())
    time.sleep(1)
reader.join()
site.terminate()
took = time.monotonic() - began


def rate(low, high):
    within = [(at, n) for at, n, _ in samples if low <= n <= high]
    if len(within) < 2:
        return None
    (t0, n0), (t1, n1) = within[0], within[-1]
    return (n1 - n0) / (t1 - t0)


early, late = rate(5_000, 15_000), rate(pages - 10_000, pages)
first = next((mib for _, n, mib in samples if n >= 10_000), 0)
most = max((mib for _, n, mib in samples if n >= 10_000), default=0)
print(f"{said[-1] if said else ''}")
print(f"{pages} pages in {took:.0f} s, {pages / took:.0f} a second")
if early and late:
    print(f"rate: {early:.0f} a second around 10,000, {late:.0f} at the end, {late / early:.2f}x")
print(f"memory: {first:.0f} MiB at 10,000, at most {most:.0f} MiB while fetching, {peak:.0f} MiB with the analysis")
size = database_size() - size_before
print(f"database: {size / pages / 1024:.1f} KiB a page")

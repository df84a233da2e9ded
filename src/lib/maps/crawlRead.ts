/** What a map reads of a crawl, part by part, as it is asked for. */
import type { ColumnName } from '$core/facts';
import { waysOf } from '$core/maps';
import { loadedOnce } from '$core/promises';
import { clickDepths, crawlerStarts, incomingPages, pageGraph } from '$core/reach';
import type { Depths, Incoming, LinkGraph, PageGraph, Reader } from '$core/reach';
import type { Bits } from '$core/selection/bits';
import { decodeSnapshot, readPartStream } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';
import { viewOf } from '$core/view';
import type { View } from '$core/view';

/** What every picture reads. */
const facts = [
  ...['url', 'host', 'path', 'query', 'section', 'verdict', 'share', 'depth', 'crawler_depth', 'parent'],
  ...['gate_for', 'paging', 'only_paging', 'breadcrumb_parent', 'pages_linking'],
] as ColumnName[];

/** Selections whose pages are kept. */
const MOST_MARKS = 8;

/** A site as a reader walks it. */
export interface Walked {
  links: LinkGraph;
  graph: PageGraph;
  incoming: Incoming;
  depths: Depths;
}

/** Reads a crawl for its maps. @param base where its screens are */
export function crawlReader(base: string) {
  const parts: SnapshotParts = new Map();
  const known = new Set<ColumnName>();

  /** @throws Error with what the server said */
  async function read(query: Record<string, string>): Promise<SnapshotParts> {
    const response = await fetch(`${base}/map?${new URLSearchParams(query)}`);
    if (!response.ok) {
      const told = (await response.json().catch(() => null)) as { message?: string } | null;
      throw new Error(told?.message ?? String(response.status));
    }
    return readPartStream(new Uint8Array(await response.arrayBuffer()));
  }

  async function readFacts(names: readonly ColumnName[]): Promise<SnapshotParts | null> {
    const missing = names.filter((name) => !known.has(name));
    if (missing.length === 0) return null;
    const got = await read({ facts: missing.join(',') });
    for (const [name, bytes] of got) parts.set(name, bytes);
    missing.forEach((name) => known.add(name));
    return got;
  }

  const opened = loadedOnce(async (): Promise<View> => {
    const got = (await readFacts(facts))!;
    const stored = JSON.parse(new TextDecoder().decode(got.get('stored'))) as string[];
    return viewOf(decodeSnapshot(parts, stored));
  });

  const walk = (reader: Reader) =>
    loadedOnce(async (): Promise<Walked> => {
      const view = await opened();
      const links = waysOf(await read({ ways: reader }), view.count);
      const graph = pageGraph(links);
      const starts = reader === 'visitor' ? view.starts : crawlerStarts(view);
      return { links, graph, incoming: incomingPages(graph), depths: clickDepths(graph, starts) };
    });
  const walks = { visitor: walk('visitor'), crawler: walk('crawler') };

  const marks = new Map<string, Promise<Bits>>();
  function marked(select: string): Promise<Bits> {
    let bits = marks.get(select);
    if (!bits) {
      bits = Promise.all([opened(), read({ mark: select })]).then(([{ count }, got]) => {
        const bytes = Uint8Array.from(got.get('marked')!);
        return { size: count, words: new Uint32Array(bytes.buffer) };
      });
      bits.catch(() => marks.delete(select));
      marks.set(select, bits);
      if (marks.size > MOST_MARKS) marks.delete(marks.keys().next().value!);
    }
    return bits;
  }

  return {
    opened,
    readFacts,
    /** The site as a reader walks it. */
    walked: (reader: Reader) => walks[reader](),
    /** The pages of a selection. */
    marked,
  };
}
export type CrawlReader = ReturnType<typeof crawlReader>;

/** What a map shows in a few numbers, for the sentence over it. */
import { mapSections } from './folders';
import { addressAt, pagesNamed, textAt } from '../snapshot';
import type { View } from '../view';

export interface Said {
  pages: number;
  sections: number;
  /** The depth at which most pages are, and how many; null when none has a route. */
  usual: { depth: number; pages: number } | null;
  deepest: number;
  /** Pages without a route, and the section that has most of them. */
  lost: number;
  lostMost: { section: string | null; pages: number } | null;
  /** The page on which most others hang. */
  gate: { address: string; pages: number } | null;
  /** Pages that can be reached only through the parts of a list, and those parts. */
  paged: { pages: number; parts: number };
  /** Of the pages whose breadcrumb names a page above: those in another section than it, and the most frequent pair. */
  filed: { pages: number; most: { section: string | null; says: string | null; pages: number } | null };
}

/** The largest of some counts. */
const most = <K>(counts: ReadonlyMap<K, number>): [K, number] | null =>
  [...counts].reduce<[K, number] | null>((best, one) => (best && best[1] >= one[1] ? best : one), null);

const count = <K>(counts: Map<K, number>, key: K) => counts.set(key, (counts.get(key) ?? 0) + 1);

/** Reads the numbers of some pages. */
export function saidOf(view: View, pages: Uint32Array): Said {
  const [depth, gates] = [view.column('depth'), view.column('gate_for')];
  const [paging, onlyPaging] = [view.column('paging'), view.column('only_paging')];
  const { codes, values } = view.column('section');
  const sectionAt = (code: number) => (code === 0 ? null : values[code]);
  const { nameOf } = mapSections(view);
  const above = pagesNamed(view, 'breadcrumb_parent');
  const [depths, lost, sections] = [
    new Map<number, number>(),
    new Map<string | null, number>(),
    new Set<string | null>(),
  ];
  const filed = new Map<string, number>();
  let gate = -1;
  let [paged, parts, deepest] = [0, 0, 0];
  for (const page of pages) {
    sections.add(nameOf(page));
    if (depth[page] < 0) count(lost, nameOf(page));
    else count(depths, depth[page]);
    deepest = Math.max(deepest, depth[page]);
    // All hangs on the start, which says nothing.
    if (depth[page] > 0 && gates[page] > 0 && (gate < 0 || gates[page] > gates[gate])) gate = page;
    paged += Number(onlyPaging[page] === 1);
    parts += Number(paging[page] === 1);
    // The start belongs to no section, and is above all.
    if (above[page] >= 0 && depth[above[page]] !== 0 && codes[above[page]] !== codes[page])
      count(filed, `${codes[page]} ${codes[above[page]]}`);
  }
  const [usual, lostMost, pair] = [most(depths), most(lost), most(filed)];
  const sum = (counts: ReadonlyMap<unknown, number>) => [...counts.values()].reduce((all, one) => all + one, 0);
  const [section, says] = (pair?.[0] ?? '0 0').split(' ').map((code) => sectionAt(Number(code)));
  return {
    pages: pages.length,
    sections: sections.size,
    usual: usual && { depth: usual[0], pages: usual[1] },
    deepest,
    lost: sum(lost),
    lostMost: lostMost && { section: lostMost[0], pages: lostMost[1] },
    gate: gate < 0 ? null : { address: textAt(view, 'path', gate) ?? addressAt(view, gate), pages: gates[gate] },
    paged: { pages: paged, parts },
    filed: { pages: sum(filed), most: pair && { section, says, pages: pair[1] } },
  };
}

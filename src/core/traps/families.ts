import { verdicts } from '../facts';
import type { Snapshot } from '../snapshot';
import { familyOf } from './family';

/** A family of addresses as a finished crawl knows it. */
export interface KnownFamily {
  pattern: string;
  known: number;
  fetched: number;
  /** How many of them lie at each depth, from 0 to the deepest; a family without end grows with it. */
  byDepth: number[];
  /** The first by address. */
  example: string;
}

/** The families of a snapshot with at least so many members, the largest first. */
export function familiesOf({ count, column }: Snapshot, least: number): KnownFamily[] {
  const url = column('url');
  const verdict = column('verdict');
  const depth = column('depth');
  const unvisited = verdicts.indexOf('unvisited');
  const families = new Map<string, KnownFamily>();
  for (let page = 0; page < count; page++) {
    const address = url.values[url.codes[page]];
    const pattern = familyOf(address)?.pattern;
    if (!pattern) continue;
    let family = families.get(pattern);
    if (!family) families.set(pattern, (family = { pattern, known: 0, fetched: 0, byDepth: [], example: address }));
    family.known++;
    if (verdict[page] !== unvisited) family.fetched++;
    for (let at = family.byDepth.length; at <= depth[page]; at++) family.byDepth.push(0);
    if (depth[page] >= 0) family.byDepth[depth[page]]++;
  }
  return [...families.values()]
    .filter(({ known }) => known >= least)
    .sort((a, b) => b.known - a.known || (a.pattern < b.pattern ? -1 : 1));
}

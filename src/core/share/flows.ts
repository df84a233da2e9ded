/** How share moves between sections. */
import { linkKinds } from '../links';
import type { Snapshot } from '../snapshot';
import type { TextColumn } from '../snapshot';
import type { Share } from './models';
import { evenWeights, pairsOf } from './pairs';
import type { PlacementWeights } from './pairs';

/** Share of all pages of each section, as multiples of an even split. */
export function shareBySection({ columns }: Snapshot): Map<string, number> {
  const { codes, values } = columns.section as TextColumn;
  const share = columns.share as Float64Array;
  const sums = new Float64Array(values.length);
  codes.forEach((code, page) => {
    if (share[page] > 0) sums[code] += share[page];
  });
  return new Map(values.map((section, code) => [section, sums[code]]));
}

export interface SectionFlow {
  /** Names of the sections, most pages first. */
  sections: string[];
  pages: number[];
  /** Share of all pages of a section, as multiples of an even split. */
  share: number[];
  /** Click links from section (row) to section (column), self-links apart. */
  links: number[][];
  /** Share that they carry. */
  carried: number[][];
}

const CLICK_KIND = linkKinds.indexOf('click');

/** Sections beyond so many are taken together, under the name `…`. */
const MAX_SECTIONS = 60;

/** The matrix of sections. Pages of unknown section do not occur: the section of the root is ''. */
export function sectionFlow(
  snapshot: Snapshot,
  { share, perPair, settled }: Share,
  weights: PlacementWeights = evenWeights,
): SectionFlow {
  const { count, columns, links } = snapshot;
  const { codes, values } = columns.section as TextColumn;
  const sizes = new Map<number, number>();
  for (const code of codes) sizes.set(code, (sizes.get(code) ?? 0) + 1);
  const byCode = [...sizes].sort((a, b) => b[1] - a[1] || (values[a[0]] < values[b[0]] ? -1 : 1));
  const rest = byCode.length > MAX_SECTIONS ? MAX_SECTIONS - 1 : byCode.length;
  const place = new Map(byCode.map(([code], i) => [code, Math.min(i, rest)]));
  const size = Math.min(byCode.length, MAX_SECTIONS);
  const square = () => Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const flow: SectionFlow = {
    sections: byCode.slice(0, rest).map(([code]) => values[code]),
    pages: new Array<number>(size).fill(0),
    share: new Array<number>(size).fill(0),
    links: square(),
    carried: square(),
  };
  if (byCode.length > MAX_SECTIONS) flow.sections.push('…');
  const sectionOf = Uint32Array.from(codes, (code) => place.get(code)!);
  const pairs = pairsOf(snapshot, weights);
  for (let page = 0; page < count; page++) {
    const from = sectionOf[page];
    flow.pages[from]++;
    if (share[page] > 0) flow.share[from] += share[page];
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const target = links.target[link];
      if (links.kind[link] !== CLICK_KIND || target >= count || target === page) continue;
      flow.links[from][sectionOf[target]]++;
    }
    if (perPair[page] > 0)
      pairs.each(page, (target, weight, followed) => {
        const end = settled[target] >= 0 ? settled[target] : target;
        if (followed && end !== page) flow.carried[from][sectionOf[end]] += perPair[page] * weight;
      });
  }
  return flow;
}

export interface Carried {
  /** The page that is linked to, and where what flows there ends. */
  target: number;
  end: number;
  /** Multiples of an even split; 0 when no link of the pair is followed. */
  share: number;
}

/** What the links of a page carry, most first: one entry a pair. */
export function carriedFrom(
  snapshot: Snapshot,
  { perPair, settled }: Share,
  page: number,
  weights: PlacementWeights = evenWeights,
): Carried[] {
  const carried: Carried[] = [];
  pairsOf(snapshot, weights).each(page, (target, weight, followed) => {
    const end = settled[target] >= 0 ? settled[target] : target;
    if (end !== page) carried.push({ target, end, share: followed ? perPair[page] * weight : 0 });
  });
  return carried.sort((a, b) => b.share - a.share || a.target - b.target);
}

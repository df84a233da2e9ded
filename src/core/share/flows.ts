/** How share moves between sections. */
import { verdicts } from '../facts';
import { CLICK_KIND } from '../links';
import type { Snapshot } from '../snapshot';
import type { Incoming } from '../reach';
import type { Share } from './models';
import { DAMPING } from './pagerank';
import { evenWeights, pairsOf } from './pairs';
import type { PlacementWeights } from './pairs';

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

/** Sections beyond so many are taken together, under the name `…`. */
const MAX_SECTIONS = 60;

/** The matrix of sections. Pages of unknown section do not occur: the section of the root is ''. */
export function sectionFlow(
  snapshot: Snapshot,
  { share, perPair, finalTargets }: Share,
  weights: PlacementWeights = evenWeights,
): SectionFlow {
  const { count, column, links } = snapshot;
  const { codes, values } = column('section');
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
    const found = perPair[page] > 0 ? pairs.lookAt(page) : 0;
    for (let i = 0; i < found; i++) {
      const target = pairs.targets[i];
      const end = finalTargets[target] >= 0 ? finalTargets[target] : target;
      if (pairs.followed[i] && end !== page) flow.carried[from][sectionOf[end]] += perPair[page] * pairs.weights[i];
    }
  }
  return flow;
}

/** What flows between a page and another. */
export interface Carried {
  page: number;
  /** The address that is linked to, when a redirect or canonical leads from there to where the share ends. */
  by: number | null;
  /** Multiples of an even split; 0 when no link of the pair is followed. */
  share: number;
}

export interface ShareAround {
  /** What comes from other pages, most first, and how many do so. */
  from: Carried[];
  fromPages: number;
  /** What goes to other pages, most first. */
  to: Carried[];
  toPages: number;
  /** What all pages get alike: teleport, and share that has nowhere to go. */
  rest: number;
}

/** Of more linking pages than this, those that can give most are looked at. */
const MOST_SOURCES = 1000;

/**
 * Where the share of one page comes from and goes to, by the model `site`; the column `share` must be of that model.
 * @param most how many pages are named for each direction
 */
export function shareAround(
  snapshot: Snapshot,
  page: number,
  incoming: Incoming,
  finalTargets: Int32Array,
  weights: PlacementWeights = evenWeights,
  most = 8,
): ShareAround {
  const share = snapshot.column('share');
  const linksOut = snapshot.column('links_out');
  const verdict = snapshot.column('verdict');
  const pairs = pairsOf(snapshot, weights);
  const endOf = (target: number) => (finalTargets[target] >= 0 ? finalTargets[target] : target);
  const given = (source: number): Carried[] => {
    if (share[source] <= 0 || verdicts[verdict[source]] !== 'indexable') return [];
    const found: Carried[] = [];
    let total = 0;
    const count = pairs.lookAt(source);
    for (let i = 0; i < count; i++) {
      const target = pairs.targets[i];
      const end = endOf(target);
      if (end === source) continue;
      total += pairs.weights[i];
      found.push({ page: end, by: end === target ? null : target, share: pairs.followed[i] ? pairs.weights[i] : 0 });
    }
    const unit = total > 0 ? (DAMPING * share[source]) / total : 0;
    return found.map((one) => ({ ...one, share: one.share * unit }));
  };
  // Those that link to an address which leads here give to this page too.
  const sources = new Set<number>();
  for (let target = 0; target < finalTargets.length; target++)
    if (endOf(target) === page)
      for (let i = incoming.offsets[target]; i < incoming.offsets[target + 1]; i++) sources.add(incoming.sources[i]);
  sources.delete(page);
  const likely = [...sources].sort((a, b) => share[b] / (linksOut[b] || 1) - share[a] / (linksOut[a] || 1));
  const from = likely.slice(0, MOST_SOURCES).flatMap((source) => {
    const here = given(source).filter((one) => one.page === page);
    const sum = here.reduce((all, one) => all + one.share, 0);
    return sum > 0 ? [{ page: source, by: here[0].by, share: sum }] : [];
  });
  const richest = (list: Carried[]) => list.sort((a, b) => b.share - a.share || a.page - b.page).slice(0, most);
  const to = given(page).filter(({ share }) => share > 0);
  const got = from.reduce((sum, one) => sum + one.share, 0);
  return {
    fromPages: from.length,
    toPages: to.length,
    rest: Math.max(0, share[page] - got),
    from: richest(from),
    to: richest(to),
  };
}

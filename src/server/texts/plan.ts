/** Plans of links that have a sentence to stand in. */
import { targetBatches } from '$core/places';
import type { FoundPlace, ShownPlace } from '$core/places';
import { planFor, shortPages } from '$core/plan';
import type { PlanCall, Proposals } from '$core/plan';
import type { CrawlSettings } from '$core/settings';
import type { View } from '$core/view';
import type { Crawl } from '../crawls';
import type { Database } from '../database';
import { inSlices } from '../slices';
import { openPlaces, placeReader } from './places';

/** Words that are looked at for a plan, as a person waits. */
const MOST_WORDS = 20_000_000;
/** How often a plan is made anew without places whose words cannot be linked in the source. */
const ROUNDS = 5;

const keyOf = ({ source, target }: { source: number; target: number }) => `${source} ${target}`;

/** By target the sources of places. */
function sourcesOf(places: ReadonlyMap<string, FoundPlace>): Map<number, Set<number>> {
  const sources = new Map<number, Set<number>>();
  for (const { source, target } of places.values())
    sources.set(target, (sources.get(target) ?? new Set<number>()).add(source));
  return sources;
}

/**
 * Plans links that each have a sentence in which they can stand, which the edit then names; null when the texts are not
 * indexed. On a large site only the first pages are looked at that fall short.
 */
export async function planWithPlaces(
  db: Database,
  row: Pick<Crawl, 'id' | 'siteId' | 'analysedAt'>,
  view: View,
  call: PlanCall,
  settings: CrawlSettings,
  signal?: AbortSignal,
): Promise<Proposals | null> {
  const places = await openPlaces(db, row, view);
  if (!places) return null;
  const asked = { inCode: settings.linksInCode };
  const left = new Map<string, FoundPlace>();
  for (const batch of targetBatches(places, shortPages(view, call), MOST_WORDS))
    for (const found of (await inSlices(places.to(batch, asked), signal)).values())
      for (const one of found) left.set(keyOf(one), one);
  const show = placeReader(db, row, places);
  const shown = new Map<string, ShownPlace>();
  for (let round = 1; ; round++) {
    const plan = planFor(view, { ...call, linkable: sourcesOf(left) }, settings);
    const misses: string[] = [];
    for (const { link } of plan.proposals) {
      const key = link && keyOf(link);
      if (!key || shown.has(key)) continue;
      const place = await show(left.get(key)!);
      if (place) shown.set(key, place);
      else misses.push(key);
    }
    misses.forEach((key) => left.delete(key));
    if (misses.length > 0 && round < ROUNDS) continue;
    return {
      ...plan,
      proposals: plan.proposals.flatMap((proposal) => {
        const at = proposal.link && shown.get(keyOf(proposal.link))?.at;
        if (!at) return [];
        const { before, anchor, after } = at;
        return [{ ...proposal, edit: { ...proposal.edit, anchor, value: (before + anchor + after).trim() } }];
      }),
    };
  }
}

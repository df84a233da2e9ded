import { landmarks, linkKinds, relSaysNofollow } from '../links';
import type { Landmark } from '../links';
import type { Snapshot } from '../snapshot';

/** What a link weighs by where it stands; in `main`, and in no landmark, it weighs 1. */
export type PlacementWeights = Record<Exclude<Landmark, '' | 'main'>, number>;
export const evenWeights: PlacementWeights = { header: 1, nav: 1, aside: 1, footer: 1 };

const CLICK_KIND = linkKinds.indexOf('click');

export interface Pairs {
  /** Gives each target of a page once: its weight, that of its heaviest link, and whether any of its links is followed. */
  each: (page: number, visit: (target: number, weight: number, followed: boolean) => void) => void;
}

/** Goes through the distinct pairs of click links between inside pages, self-links apart. */
export function pairsOf({ count, links, phrases, columns }: Snapshot, weights: PlacementWeights): Pairs {
  const nofollowRel = Uint8Array.from(phrases, (text) => Number(relSaysNofollow(text)));
  const pageNofollow = columns.page_nofollow as Int32Array;
  const weightOf = landmarks.map((name) => (name === '' || name === 'main' ? 1 : weights[name]));
  const last = new Int32Array(count).fill(-1);
  const place = new Uint32Array(count);
  const targets: number[] = [];
  const weight: number[] = [];
  const followed: boolean[] = [];
  return {
    each(page, visit) {
      let found = 0;
      for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
        const target = links.target[link];
        if (links.kind[link] !== CLICK_KIND || target >= count || target === page) continue;
        if (last[target] !== page) {
          last[target] = page;
          place[target] = found;
          targets[found] = target;
          weight[found] = 0;
          followed[found++] = false;
        }
        const at = place[target];
        weight[at] = Math.max(weight[at], weightOf[links.landmark[link]]);
        if (pageNofollow[page] !== 1 && nofollowRel[links.rel[link]] === 0) followed[at] = true;
      }
      // A page may be asked for again.
      for (let i = 0; i < found; i++) last[targets[i]] = -1;
      for (let i = 0; i < found; i++) visit(targets[i], weight[i], followed[i]);
    },
  };
}

import { verdicts } from '../facts';
import { memoOf, pagesNamed } from '../snapshot';
import type { Base, ColumnReader } from '../snapshot';

export interface TargetBase extends Pick<Base, 'count'> {
  column: ColumnReader<'url' | 'verdict' | 'redirect_to' | 'canonical'>;
}

const REDIRECT = verdicts.indexOf('redirect');
const CANONICALISED = verdicts.indexOf('canonicalised');
const UNKNOWN = -2;
/** On the way that is being followed: to meet it again is a loop. */
const ON_WAY = -3;

/**
 * The final target of every address when redirects and canonicals are followed: the page itself when it is neither
 * redirected nor canonicalised, another page, or −1 when the way leads off the site or round in a loop.
 */
export function findFinalTargets(base: TargetBase): Int32Array {
  const verdict = base.column('verdict');
  const redirects = pagesNamed(base, 'redirect_to');
  const canonicals = pagesNamed(base, 'canonical');
  const leadsOn = (page: number) => verdict[page] === REDIRECT || verdict[page] === CANONICALISED;
  const next = (page: number) => {
    const to = verdict[page] === REDIRECT ? redirects[page] : canonicals[page];
    return to === page ? -1 : to;
  };
  const finals = new Int32Array(base.count).fill(UNKNOWN);
  for (let page = 0; page < base.count; page++) {
    const way: number[] = [];
    let at = page;
    let end = -1;
    for (;;) {
      if (finals[at] !== UNKNOWN) {
        end = finals[at] === ON_WAY ? -1 : finals[at];
        break;
      }
      if (!leadsOn(at)) {
        finals[at] = end = at;
        break;
      }
      finals[at] = ON_WAY;
      way.push(at);
      const to = next(at);
      if (to < 0) break;
      at = to;
    }
    for (const one of way) finals[one] = end;
  }
  return finals;
}

/** The final targets of a snapshot's addresses, kept as long as the snapshot is. */
export const finalTargetsOf = memoOf(['url', 'verdict', 'redirect_to', 'canonical'], findFinalTargets);

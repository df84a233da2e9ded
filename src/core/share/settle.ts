import { addressAt, pageOf, textAt } from '../snapshot/snapshot';
import type { Snapshot } from '../snapshot';
import { verdicts } from '../verdict';

/**
 * Where what an address has ends, when redirects and canonicals are followed: the page itself when it is neither
 * redirected nor canonicalised, another page, or −1 when the way leads outside or round in a loop.
 */
export function settle(snapshot: Snapshot): Int32Array {
  const verdict = snapshot.columns.verdict as Int32Array;
  const next = (page: number): number | null => {
    const name = verdicts[verdict[page]];
    if (name !== 'redirect' && name !== 'canonicalised') return null;
    const to = textAt(snapshot, name === 'redirect' ? 'redirect_to' : 'canonical', page);
    return to === null || to === addressAt(snapshot, page) ? -1 : pageOf(snapshot, to);
  };
  const settled = new Int32Array(snapshot.count).fill(-2);
  for (let page = 0; page < snapshot.count; page++) {
    const way: number[] = [];
    let at = page;
    let end = -1;
    // −3 marks what is on this way: to meet it again is a loop.
    for (;;) {
      if (settled[at] !== -2) {
        end = settled[at] === -3 ? -1 : settled[at];
        break;
      }
      const to = next(at);
      if (to === null) {
        settled[at] = end = at;
        break;
      }
      settled[at] = -3;
      way.push(at);
      if (to < 0) break;
      at = to;
    }
    for (const one of way) settled[one] = end;
  }
  return settled;
}

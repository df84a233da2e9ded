/** Where redirects lead when they are followed to their end. */
import { redirectStates } from '../facts';
import type { RedirectState } from '../facts';
import { pagesNamed, textColumn } from '../snapshot';
import type { Base, ColumnReader, TextColumn } from '../snapshot';
import { isRedirectStatus } from './verdict';

export interface RedirectEnd {
  /** Index of the page where the chain ends, which does not redirect to a known page; −1 when it runs in a circle. */
  final: number;
  hops: number;
  loop: boolean;
}

/**
 * Follows a chain of redirects.
 * @param next index of the page that a page redirects to; −1 when it does not redirect or leads off the site
 */
export function followRedirects(from: number, next: (index: number) => number): RedirectEnd {
  const seen = new Set([from]);
  let at = from;
  for (;;) {
    const to = next(at);
    if (to < 0) return { final: at, hops: seen.size - 1, loop: false };
    if (seen.has(to)) return { final: -1, hops: seen.size, loop: true };
    seen.add(to);
    at = to;
  }
}

export interface RedirectBase extends Pick<Base, 'count'> {
  column: ColumnReader<'url' | 'redirect_to' | 'status'>;
}

export interface Redirects {
  redirect_hops: Int32Array;
  redirect_state: Int32Array;
  redirect_end: TextColumn;
}

/** Follows the redirects of every page. */
export function redirectColumns(base: RedirectBase): Redirects {
  const url = base.column('url');
  const target = base.column('redirect_to');
  const status = base.column('status');
  const pages = pagesNamed(base, 'redirect_to');
  const next = (page: number) => pages[page];
  const hops = new Int32Array(base.count).fill(-1);
  const state = new Int32Array(base.count).fill(-1);
  const ends: (string | null)[] = new Array<null>(base.count).fill(null);
  const code = (name: RedirectState) => redirectStates.indexOf(name);
  for (let page = 0; page < base.count; page++) {
    if (target.codes[page] === 0) {
      if (isRedirectStatus(status[page])) state[page] = code('nowhere');
      continue;
    }
    const end = followRedirects(page, next);
    if (end.loop) {
      hops[page] = end.hops;
      state[page] = code('loop');
      continue;
    }
    // A chain that leaves the known pages has one hop more, to the address outside.
    const beyond = target.codes[end.final];
    hops[page] = end.hops + (beyond === 0 ? 0 : 1);
    state[page] = code(beyond > 0 ? 'outside' : hops[page] > 1 ? 'chain' : 'single');
    ends[page] = beyond > 0 ? target.values[beyond] : url.values[url.codes[end.final]];
  }
  return { redirect_hops: hops, redirect_state: state, redirect_end: textColumn(ends) };
}

/** How facts are spelt out for people. */
import type { Reach, Verdict } from '$core/facts';

export const verdictLabel: Record<Verdict, string> = {
  indexable: 'Indexable',
  canonicalised: 'Canonical elsewhere',
  noindex: 'Noindex',
  not_html: 'Not HTML',
  redirect: 'Redirect',
  broken: 'Broken',
  failing: 'Failing',
  unanswered: 'Unanswered',
  blocked: 'Blocked',
  unvisited: 'Unvisited',
};
export const reachLabel: Record<Reach, string> = { reached: 'Reached', orphan: 'Orphan', island: 'Island' };
export const stateLabel = {
  waiting: 'Waiting',
  running: 'Running',
  paused: 'Paused',
  done: 'Finished',
  stopped: 'Stopped',
  failed: 'Failed',
} as const;

/** Thousands separated; unknown is an em dash. */
export const number = (value: unknown): string => (typeof value === 'number' ? value.toLocaleString('en') : '—');

/** A number with its sign: `+3`, `−0.64×`, `0`. @param isShare whether it is a multiple of an even split */
export function differenceText(value: number, isShare: boolean): string {
  const size = isShare ? Math.abs(value).toFixed(2) : number(Math.abs(value));
  const sign = Number(size.replaceAll(',', '')) === 0 ? '' : value > 0 ? '+' : '−';
  return `${sign}${size}${isShare ? '×' : ''}`;
}

/** `1 page`, `2,040 pages`. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${number(n)} ${n === 1 ? one : many}`;

/** What tells an address from others of its site: path and query, with the host when it is another. */
export function shortAddress(address: string, start: string): string {
  const origin = new URL(start).origin;
  return address.startsWith(`${origin}/`) ? address.slice(origin.length) : address;
}

export function bytes(n: unknown): string {
  if (typeof n !== 'number') return '—';
  if (n < 1000) return `${n} B`;
  const [value, unit] = n < 1e6 ? [n / 1e3, 'kB'] : n < 1e9 ? [n / 1e6, 'MB'] : [n / 1e9, 'GB'];
  return `${value < 10 ? value.toFixed(1) : Math.round(value)} ${unit}`;
}

/** `2 h 5 min`, `3 min 20 s`, `12 s`. */
export function duration(ms: number): string {
  const s = Math.round(ms / 1000);
  if (s < 60) return `${s} s`;
  if (s < 3600) return `${Math.floor(s / 60)} min ${s % 60} s`;
  return `${Math.floor(s / 3600)} h ${Math.floor((s % 3600) / 60)} min`;
}

const day = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});
/** `23 Nov, 09:14`, in the time of whoever reads it once the page has reached a browser. */
export const moment = (at: Date | null) => (at ? day.format(at) : '—');

const second = new Intl.DateTimeFormat('en-GB', { timeStyle: 'medium' });
/** `09:14:02`. */
export const clock = (at: Date): string => second.format(at);

const whole = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'long' });
/** `Monday 23 November 2026 at 09:14:02 CET`. */
export const zoned = (at: Date): string => whole.format(at);

/** What is said where the server gave no answer. @param what could not be done, as a sentence */
export const unanswered = (what: string) => `${what} Is Edge Map still running?`;

/** Families of addresses: what addresses have in common when numbers, tokens and queries are left out of sight. */
import { addressParts, originOf } from '../url';

/** A part that no person chose: long, and of letters and digits mixed. */
const token = /^(?=.*\d)(?=.*[a-z])[a-z0-9_-]{16,}$/i;
/** How often a run of segments must stand in a row to count as repeated. */
const REPEATS = 3;
const MAX_RUN = 4;

/** Folds runs of up to four segments that stand three times or more in a row: `/a/b/a/b/a/b` to `/a/b/…`. */
function foldRepeats(segments: readonly string[]): { segments: string[]; repeated: boolean } {
  const folded: string[] = [];
  let repeated = false;
  for (let at = 0; at < segments.length;) {
    let step = 1;
    let isRun = false;
    for (let run = 1; run <= MAX_RUN && !isRun; run++) {
      let times = 1;
      while (segments.slice(at, at + run).every((one, i) => one !== '' && segments[at + times * run + i] === one))
        times++;
      if (times < REPEATS) continue;
      folded.push(...segments.slice(at, at + run), '…');
      step = run * times;
      isRun = repeated = true;
    }
    if (!isRun) folded.push(segments[at]);
    at += step;
  }
  return { segments: folded, repeated };
}

export interface Family {
  /** The address with its changing parts as `*`, repeated parts as `…`. */
  pattern: string;
  /** Whether parts of the path repeat themselves, which addresses of real pages hardly do. */
  repeated: boolean;
}

/**
 * The family an address belongs to: digits and tokens in its path, and the whole of its query, are left out of sight.
 * @returns null when nothing of the address changes, so that the family is the address itself
 */
export function familyOf(address: string): Family | null {
  const { path, query } = addressParts(address);
  if (query === '' && !/\d/.test(path) && path.split('/').length <= REPEATS) return null;
  const parts = path.split('/').map((part) => (token.test(part) ? '*' : part.replace(/\d+/g, '*')));
  const { segments, repeated } = foldRepeats(parts);
  const pattern = segments.join('/') + (query ? '?*' : '');
  return pattern === path ? null : { pattern: originOf(address) + pattern, repeated };
}

/**
 * A page by its fingerprint; a file that is not a page and stands for itself; or nothing of its own (a redirect, an
 * error).
 */
export type Sampled = [number, number] | 'file' | null;

/** What is known of a family when it is judged. */
export interface FamilyEvidence {
  family: Family;
  /** A sample of what was fetched of it. */
  sample: readonly Sampled[];
}

import { fingerprintDistance } from '../words';
import type { Message } from '../messages';
import type { FamilyEvidence } from './family';

/** Pages that differ in at most so many of 64 bits are alike. */
const ALIKE_BITS = 10;
/** The part of a sample that must be alike. */
const ALIKE_PART = 0.7;
/** Fewer pages prove nothing. */
const ENOUGH = 20;

export type FamilyJudgement = { trap: true; reason: Message } | { trap: false } | { trap: null };

/**
 * Judges whether a large family grows without end: its addresses repeat themselves, or its pages are alike (a
 * calendar's empty months, one list in many orders).
 * @param limit of fetched members, beyond which it is judged
 * @returns `trap: null` while too few of its pages were fetched to tell
 */
export function judgeFamily({ family, sample }: FamilyEvidence, limit: number): FamilyJudgement {
  if (family.repeated) return { trap: true, reason: { code: 'repeated_segments' } };
  if (sample.length < Math.min(ENOUGH, limit)) return { trap: null };
  const pages = sample.filter((one) => typeof one === 'object' && one !== null) as [number, number][];
  const alike = pages.filter((one) =>
    pages.some((other) => other !== one && fingerprintDistance(one, other) <= ALIKE_BITS),
  );
  const part = (alike.length + sample.filter((one) => one === null).length) / sample.length;
  if (part < ALIKE_PART) return { trap: false };
  return { trap: true, reason: { code: 'pages_alike', percent: Math.round(100 * part) } };
}

/** How many members of a family may be fetched, given how many were. */
export const familyAllowance = (judgement: FamilyJudgement, fetched: number, limit: number) =>
  judgement.trap === false ? Math.max(limit, 2 * fetched) : limit;

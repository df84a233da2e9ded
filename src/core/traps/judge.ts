import { fingerprintDistance } from '../html';
import type { FamilyEvidence } from './family';

/** Pages that differ in at most so many of 64 bits are alike. */
const ALIKE_BITS = 10;
/** The part of a sample that must be alike. */
const ALIKE_PART = 0.7;
/** Fewer pages prove nothing. */
const ENOUGH = 20;

export type FamilyJudgement = { trap: true; reason: string } | { trap: false } | { trap: null };

/**
 * Judges whether a large family grows without end: its addresses repeat themselves, or its pages are alike (a calendar's
 * empty months, one list in many orders).
 * @returns `trap: null` while too few of its pages were fetched to tell
 */
export function judgeFamily({ family, fingerprints }: FamilyEvidence): FamilyJudgement {
  if (family.repeated) return { trap: true, reason: 'parts of its addresses repeat themselves' };
  if (fingerprints.length < ENOUGH) return { trap: null };
  const alike = fingerprints.filter(
    (one, i) =>
      one === null ||
      fingerprints.some((other, j) => j !== i && other !== null && fingerprintDistance(one, other) <= ALIKE_BITS),
  ).length;
  const part = alike / fingerprints.length;
  if (part < ALIKE_PART) return { trap: false };
  return { trap: true, reason: `${Math.round(100 * part)} % of its pages are alike or no pages of their own` };
}

/** How many members of a family may be fetched, given how many were. */
export const familyAllowance = (judgement: FamilyJudgement, fetched: number, limit: number) =>
  judgement.trap === false ? Math.max(limit, 2 * fetched) : limit;

/** A selection as it was read: what it asks, checked against the facts. */
import { isChangeFact, isLinkChangeFact } from '../facts';
import type { ComparedFact } from '../facts';
import type { ImportKind } from '../imports/source';

export const orderings = ['=', '!=', '<', '<=', '>', '>='] as const;
export const textTests = ['has', 'starts', 'ends', 'matches'] as const;
export type Operator = (typeof orderings)[number] | (typeof textTests)[number];

/** Steps along the links of a visitor. `from` and `to` are about links: the pages they stand on and lead to. */
export type Step = 'linked from' | 'links to' | 'only through' | 'from' | 'to';

/** A comparison of a number that an import gives. */
export interface ImportedNumber {
  column: string;
  comparison: (typeof orderings)[number];
  value: number;
}

/** A selection, parsed and checked against the facts. */
export type Selection =
  | { op: 'all' }
  | { op: 'and' | 'or'; left: Selection; right: Selection }
  | { op: 'not'; of: Selection }
  | { op: 'flag'; fact: string }
  | { op: 'compare'; fact: string; comparison: Operator; value: string | number }
  | { op: 'in'; fact: string; values: (string | number)[] }
  | { op: 'unknown'; fact: string }
  | { op: 'seen'; source: string }
  /** What an imported source knows, or a number that it gives. */
  | { op: 'imported'; kind: ImportKind; name: string; at: number; length: number; number: ImportedNumber | null }
  /** Words, as they are looked for, that stand one after the other in the main content. */
  | { op: 'text'; words: readonly string[]; at: number; length: number }
  /** What the earlier crawl told of the page. */
  | { op: 'was'; of: Selection }
  /** A fact that is another than in the earlier crawl. */
  | { op: 'differs'; differing: ComparedFact }
  | { op: 'step'; step: Step; of: Selection }
  | { op: 'within'; clicks: number; of: Selection };

/** Whether a part of a selection, or of what it is made of, passes a test. */
function anyPart(selection: Selection, test: (part: Selection) => boolean): boolean {
  if (test(selection)) return true;
  if ('left' in selection) return anyPart(selection.left, test) || anyPart(selection.right, test);
  return 'of' in selection && anyPart(selection.of, test);
}

/** Whether a selection of pages asks about links, and not only about facts. */
export const asksForLinks = (selection: Selection): boolean =>
  anyPart(selection, ({ op }) => op === 'step' || op === 'within');

/** Whether a selection asks what stands in the texts of pages. */
export const asksForTexts = (selection: Selection): boolean => anyPart(selection, ({ op }) => op === 'text');

/** Whether a part of a selection can only be answered beside an earlier crawl. */
export const isAcross = (part: Selection): boolean =>
  part.op === 'was' ||
  part.op === 'differs' ||
  ('fact' in part && (isChangeFact(part.fact) || isLinkChangeFact(part.fact)));

/** Whether a selection asks what an earlier crawl told. */
export const asksForEarlier = (selection: Selection): boolean => anyPart(selection, isAcross);

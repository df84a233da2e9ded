/** What can be wrong with a site, as data: each finding is a named selection with its rule, a reason and a fix. */
import type { Finding } from './finding';
import { flowFindings } from './flow';
import { reachFindings } from './reach';
import { rollCallFindings } from './rollCall';
import { rulesFindings } from './rules';
import { wordsFindings } from './words';

export type { Finding, FindingTexts, Question, Thresholds } from './finding';

export const findings: readonly Finding[] = [
  ...reachFindings,
  ...flowFindings,
  ...wordsFindings,
  ...rulesFindings,
  ...rollCallFindings,
];

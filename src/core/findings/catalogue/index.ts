/** What can be wrong with a site, as data: each finding is a named selection with its rule, a reason and a fix. */
import type { Finding, FindingRow, Question } from './finding';
import { flowFindings } from './flow';
import { reachFindings } from './reach';
import { rollCallFindings } from './rollCall';
import { rulesFindings } from './rules';
import { wordsFindings } from './words';

export type { Finding, FindingTexts, Question, Thresholds } from './finding';

const about = (question: Question, rows: readonly FindingRow[]): Finding[] =>
  rows.map((row) => ({ ...row, question }) as Finding);

export const findings: readonly Finding[] = [
  ...about('Reach', reachFindings),
  ...about('Flow', flowFindings),
  ...about('Words', wordsFindings),
  ...about('Rules', rulesFindings),
  ...about('Roll call', rollCallFindings),
];

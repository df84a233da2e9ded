/** Which parts of a snapshot judging and its effects read, for whoever hands them to a worker of the browser. */
import type { ColumnName } from '../facts';
import { partsOfColumn, partsOfLinks } from '../snapshot';

const judged = ['url', 'verdict', 'share', 'section', 'seen_in', 'robots_rule'] as const satisfies ColumnName[];
const analysed = [
  'status',
  'error',
  'unvisited_reason',
  'redirect_to',
  'html',
  'noindex',
  'canonical',
  'page_nofollow',
  'depth',
  'crawler_depth',
] satisfies ColumnName[];

/** What judging needs: addresses, verdicts, share and sections. */
export const judgingParts: readonly string[] = ['head', 'files', ...judged.flatMap(partsOfColumn)];

/** What the effect needs besides. */
export const effectParts: readonly string[] = [
  ...analysed.flatMap(partsOfColumn),
  ...partsOfLinks,
  'phrases',
  'outside',
];

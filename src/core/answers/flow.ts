/** What the screen Flow says: who holds the share of a site, and where it goes lost. */
import { INDEXABLE } from '../facts';
import { thousands } from '../numbers';
import type { Report } from '../report';
import { calm, lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';
import type { View } from '../view';

/** How share is spread: pages from the richest to the poorest. */
export interface ShareCurve {
  /** Indexable pages that have a share. */
  pages: number;
  /** Pages that hold half of what they hold together. */
  half: number;
  /** Up to 120 points: a rank from 1, the share there, and the part of all share held up to it. */
  points: { rank: number; share: number; part: number }[];
}

const POINTS = 120;

/** The curve of share over indexable pages. */
export function shareCurve({ column }: View): ShareCurve {
  const verdict = column('verdict');
  const sorted = column('share')
    .filter((own, page) => own >= 0 && verdict[page] === INDEXABLE)
    .sort()
    .reverse();
  const whole = sorted.reduce((sum, own) => sum + own, 0);
  const points: ShareCurve['points'] = [];
  // Ranks are spread evenly on the scale of the picture, whose steps are powers.
  const marks = new Set(Array.from({ length: POINTS }, (_, i) => Math.round(sorted.length ** (i / (POINTS - 1)))));
  let held = 0;
  let half = 0;
  sorted.forEach((own, i) => {
    held += own;
    if (half === 0 && held * 2 >= whole) half = i + 1;
    if (marks.has(i + 1)) points.push({ rank: i + 1, share: own, part: whole ? held / whole : 0 });
  });
  return { pages: sorted.length, half, points };
}

/** The selection of the indexable pages with at least so much share; rounded down, so that none is lost by it. */
export const richAs = (share: number) => `indexable and share >= ${(Math.floor(share * 1e6) / 1e6).toFixed(6)}`;

const percent = (part: number) =>
  `${(100 * part).toLocaleString('en', { maximumFractionDigits: part < 0.1 ? 1 : 0 })}%`;

/** "Half of the share is held by N of M indexable pages. X% of it leaks. K pages get far less than their peers." */
export function flowAnswer(
  snapshot: View,
  { findings, leaks }: Pick<Report, 'findings' | 'leaks'>,
  curve = shareCurve(snapshot),
): AnswerPiece[] {
  if (curve.pages === 0) return say`No indexable page has links to it or from it, so there is no share to follow.`;
  const edge = curve.points.findLast(({ rank }) => rank <= curve.half)!.share;
  const leaking = leaks.reduce((sum, { part }) => sum + part, 0);
  const starving = findings.find(({ id }) => id === 'starving');
  const holders = calm(`${thousands(curve.half)} of ${thousands(curve.pages)}`, richAs(edge));
  const leak = leaks.length
    ? say`${lost(percent(leaking), 'not indexable and share > 0')} of all share ends where nothing can be indexed`
    : say`None of it leaks`;
  const few = starving
    ? say`${leaks.length ? ', and ' : ', but '}${lost(starving.pages, starving.select)} indexable ${plural(starving.pages, 'page gets', 'pages get')} far less than ${plural(starving.pages, 'its', 'their')} peers.`
    : say`.`;
  return say`Half of the share is held by ${holders} indexable ${plural(curve.pages, 'page', 'pages')}. ${leak}${few}`;
}

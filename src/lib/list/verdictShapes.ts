/** The shapes by which verdicts are told, in a square of 12: what is filled, and what is drawn as a line. */
import type { Verdict } from '$core/facts';

interface VerdictShape {
  filled?: string;
  line?: string;
  /** Of the line. */
  width?: number;
  dashes?: string;
}

const circle = (radius: number) =>
  `M${6 - radius} 6a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0z`;

/** `lost` is the dashed ring of a page without a route. */
export const verdictShapes: Record<Verdict | 'lost', VerdictShape> = {
  indexable: { filled: circle(4.6) },
  noindex: { filled: 'M6 1.7a4.3 4.3 0 0 1 0 8.6z', line: circle(4.3), width: 1.3 },
  canonicalised: { line: 'M6 1 11 6 6 11 1 6z', width: 1.6 },
  blocked: { line: 'M2 2h8v8H2zM2 10 10 2', width: 1.5 },
  redirect: { filled: 'M2.5 1.5 10 6 2.5 10.5 4.5 6z' },
  broken: { line: 'M2 2l8 8M10 2l-8 8', width: 2 },
  failing: { line: 'M6 1.5v5.5M6 9v1.8', width: 2.2 },
  unanswered: { line: 'M1.5 6h2M5 6h2M8.5 6h2', width: 2 },
  not_html: { line: 'M3 1.5h4l2.5 2.5v6.5H3z', width: 1.3 },
  unvisited: { line: circle(1.8), width: 1.4 },
  lost: { line: circle(4.4), width: 1.6, dashes: '2.6 1.9' },
};

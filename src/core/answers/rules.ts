/** What the screen Rules says: what may be indexed, and what speaks against it. */
import { verdicts } from '../facts';
import type { Verdict } from '../facts';
import { thousands } from '../numbers';
import { parseRobots, robotsMatcher } from '../robots';
import { quote } from '../selection';
import { countPages, factAt, memoOf } from '../snapshot';
import { calm, lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';
import type { View } from '../view';

/** One kind of evidence for a verdict, such as a rule of robots.txt, and the pages that it decides. */
export interface Evidence {
  /** As the facts have it: a rule, a status, a directive; '' where nothing more is known. */
  text: string;
  /** The line of robots.txt. */
  line: number | null;
  pages: number;
  select: string;
}

export interface VerdictEvidence {
  verdict: Verdict;
  pages: number;
  /** The most frequent first. */
  evidence: Evidence[];
  /** Kinds of evidence that are not shown. */
  more: number;
}

/** The fact that tells most of a verdict. */
const tellingFact = {
  blocked: 'robots_rule',
  noindex: 'robots',
  redirect: 'redirect_state',
  broken: 'status',
  failing: 'status',
  unanswered: 'error',
  unvisited: 'unvisited_reason',
  not_html: 'content_type',
  canonicalised: 'canonical_state',
  indexable: null,
} as const satisfies Record<Verdict, string | null>;

const evidenceReads = [
  'verdict',
  'robots_line',
  ...Object.values(tellingFact).filter((fact) => fact !== null),
] as const;

const isText = new Set(['robots_rule', 'robots', 'content_type']);
const MOST = 4;

/** For each verdict that occurs its pages, and what decides them. */
export const verdictEvidence = memoOf(evidenceReads, (snapshot): VerdictEvidence[] => {
  const verdict = snapshot.column('verdict');
  const line = snapshot.column('robots_line');
  const found = new Map<Verdict, { pages: number; evidence: Map<string, Evidence> }>();
  for (let page = 0; page < snapshot.count; page++) {
    const name = verdicts[verdict[page]];
    const entry = found.get(name) ?? { pages: 0, evidence: new Map<string, Evidence>() };
    found.set(name, entry);
    entry.pages++;
    const fact = tellingFact[name];
    if (fact === null) continue;
    const value = factAt(snapshot, fact, page) as string | number | null;
    const text = value === null ? '' : String(value);
    const atLine = name === 'blocked' && line[page] > 0 ? line[page] : null;
    const key = `${atLine ?? ''} ${text}`;
    const test = value === null ? `${fact} is unknown` : `${fact} = ${isText.has(fact) ? quote(text) : text}`;
    const select = `verdict = ${name} and ${test}${atLine === null ? '' : ` and robots_line = ${atLine}`}`;
    const one = entry.evidence.get(key) ?? { text, line: atLine, pages: 0, select };
    entry.evidence.set(key, one);
    one.pages++;
  }
  return [...verdicts].reverse().flatMap((name) => {
    const entry = found.get(name);
    if (!entry) return [];
    const evidence = [...entry.evidence.values()].sort((a, b) => b.pages - a.pages);
    return [
      {
        verdict: name,
        pages: entry.pages,
        evidence: evidence.slice(0, MOST),
        more: Math.max(0, evidence.length - MOST),
      },
    ];
  });
});

/** Noindex on so large a part of the pages that were read is that of a whole site. */
const SITE_WIDE = 0.9;

/** What closes the whole site, which is said before everything else. */
function siteWide(snapshot: View, token: string): AnswerPiece[] {
  const status = snapshot.column('status');
  const html = snapshot.column('html');
  const noindex = snapshot.column('noindex');
  for (const { origin, body } of snapshot.files.robots) {
    const matcher = robotsMatcher(parseRobots(body), token);
    const { allowed, rule } = matcher(`${origin}/any-page-at-all`);
    if (!allowed && rule && !matcher(`${origin}/`).allowed)
      return say`${lost('robots.txt closes the whole site', 'verdict = blocked')}: line ${String(rule.line)}, Disallow: ${rule.path}. `;
  }
  const read = countPages(snapshot, (page) => html[page] === 1 && status[page] === 200);
  const hidden = countPages(snapshot, (page) => html[page] === 1 && status[page] === 200 && noindex[page] === 1);
  return read > 1 && hidden >= SITE_WIDE * read
    ? say`Noindex is on ${lost(`${thousands(hidden)} of ${thousands(read)}`, 'noindex')} pages: search engines drop the site. `
    : [];
}

/** "K of N addresses may be indexed. robots.txt closes A, noindex B, and C name another page as canonical." */
export function rulesAnswer(snapshot: View, token: string): AnswerPiece[] {
  const counts = new Map(verdictEvidence(snapshot).map(({ verdict, pages }) => [verdict, pages]));
  const of = (verdict: Verdict) => counts.get(verdict) ?? 0;
  const reasons: [Verdict, one: string, many: string][] = [
    ['blocked', 'is closed by robots.txt', 'are closed by robots.txt'],
    ['noindex', 'says noindex', 'say noindex'],
    ['canonicalised', 'names another page as canonical', 'name another page as canonical'],
  ];
  const said = reasons.filter(([verdict]) => of(verdict) > 0);
  const middle = said.flatMap(([verdict, one, many], i) => {
    const join = i === 0 ? ' ' : i === said.length - 1 ? ' and ' : ', ';
    return say`${join}${lost(of(verdict), `verdict = ${verdict}`)} ${plural(of(verdict), one, many)}`;
  });
  const open = calm(of('indexable'), 'indexable');
  return say`${siteWide(snapshot, token)}${open} of ${snapshot.count} known addresses may be indexed.${middle}${middle.length ? '.' : ''}`;
}

/** Why a finding holds for one page or one link: what its rule met there. */
import { plainWords } from '../anchors';
import { isColumnName } from '../facts';
import type { ColumnName } from '../facts';
import type { Message } from '../messages';
import { parseSelection } from '../selection';
import type { Selection } from '../selection';
import { addressAt, factAt, sourcesOf, textAt } from '../snapshot';
import type { FactValue } from '../snapshot';
import { verdictReason } from '../verdict';
import type { View } from '../view';

/** The facts that a selection compares, of the page itself. */
function comparedFacts(selection: Selection, found = new Set<ColumnName>()): Set<ColumnName> {
  if (selection.op === 'and' || selection.op === 'or') {
    comparedFacts(selection.left, found);
    comparedFacts(selection.right, found);
  } else if (selection.op === 'not') comparedFacts(selection.of, found);
  else if (selection.op === 'seen') found.add('seen_in');
  else if ('fact' in selection && isColumnName(selection.fact)) found.add(selection.fact);
  return found;
}

/** The values of the facts that the selection of a finding compares, for one page. */
export function pageEvidence(snapshot: View, select: string, page: number): { name: ColumnName; value: FactValue }[] {
  const parsed = parseSelection(select);
  if (!parsed.ok) return [];
  return [...comparedFacts(parsed.selection)].map((name) => ({ name, value: factAt(snapshot, name, page) }));
}

const MOST_OTHERS = 3;

/** The other pages that links with the same words lead to, those with most links first. */
function otherTargets(snapshot: View, link: number): { address: string; links: number }[] {
  const { links, phrases, count } = snapshot;
  const words = plainWords(phrases[links.anchor[link]]);
  const alike = Uint8Array.from(phrases, (text) => Number(plainWords(text) === words));
  const targets = new Map<number, number>();
  const source = sourcesOf(snapshot);
  for (let other = 0; other < links.target.length; other++) {
    const target = links.target[other];
    if (!alike[links.anchor[other]] || target >= count || target === links.target[link] || target === source[other])
      continue;
    targets.set(target, (targets.get(target) ?? 0) + 1);
  }
  return [...targets]
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST_OTHERS)
    .map(([target, n]) => ({ address: addressAt(snapshot, target), links: n }));
}

/** The words that most links to a page have. */
function usualWords({ links, phrases }: View, target: number): string {
  const times = new Map<number, number>();
  for (let link = 0; link < links.target.length; link++)
    if (links.target[link] === target && links.anchor[link])
      times.set(links.anchor[link], (times.get(links.anchor[link]) ?? 0) + 1);
  let usual = 0;
  for (const [anchor, n] of times) if (n > (times.get(usual) ?? 0)) usual = anchor;
  return phrases[usual];
}

type Reason = (snapshot: View, link: number) => Message;
const wordsAt = ({ links, phrases }: View, link: number) => phrases[links.anchor[link]];
const ofTarget: Reason = (snapshot, link) => ({
  code: 'why_target',
  verdict: factAt(snapshot, 'verdict', snapshot.links.target[link]) as string,
  reason: verdictReason(snapshot, snapshot.links.target[link]),
});

const reasons: Record<string, Reason> = {
  anchor_generic: (snapshot, link) => ({ code: 'why_generic', words: wordsAt(snapshot, link) }),
  anchor_off_topic: (snapshot, link) => {
    const target = snapshot.links.target[link];
    const title = target < snapshot.count ? textAt(snapshot, 'title', target) : null;
    return { code: 'why_off_topic', words: wordsAt(snapshot, link), title: title ?? '' };
  },
  anchor_conflict: (snapshot, link) => ({
    code: 'why_conflict',
    words: wordsAt(snapshot, link),
    others: otherTargets(snapshot, link),
  }),
  anchor_split: (snapshot, link) => ({ code: 'why_split', usual: usualWords(snapshot, snapshot.links.target[link]) }),
  anchor_overlong: (snapshot, link) => ({ code: 'why_overlong', characters: [...wordsAt(snapshot, link)].length }),
  links_to_broken: ofTarget,
  links_to_redirects: ofTarget,
  links_to_canonicalised: ofTarget,
  links_to_noindex: ofTarget,
  links_to_blocked: ofTarget,
};

/** Why a finding holds for one link; null where its rule says it all. */
export const linkReason = (snapshot: View, id: string, link: number): Message | null =>
  Object.hasOwn(reasons, id) ? reasons[id](snapshot, link) : null;

/** The link at a place in the source of a page; −1 when there is none. */
export function linkAt({ links }: View, page: number, line: number, column: number): number {
  for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
    if (links.line[link] === line && links.column[link] === column) return link;
  return -1;
}

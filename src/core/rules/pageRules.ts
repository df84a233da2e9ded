/** Rules for crawlers that pages give themselves: meta robots and X-Robots-Tag, value by value. */
import { readDirectives } from '../html';
import { memoOf, textAt } from '../snapshot';
import type { Reading, TextColumn } from '../snapshot';

/** How far a value reaches: nearly every page of the site has it, of its templates, of its sections, or some pages. */
export type RuleScope = 'site' | 'template' | 'section' | 'page';

export interface PageRule {
  page: number;
  /** Product token in lower case; '' for every crawler. */
  agent: string;
  /** In lower case, such as `noindex` or `max-snippet: 50`. */
  value: string;
  source: 'meta' | 'header';
  /** Null for a header. */
  line: number | null;
  /** Whether a more restrictive value of the page outweighs it. */
  isOutweighed: boolean;
}

const restrictive: Record<string, string[]> = {
  index: ['noindex', 'none'],
  all: ['noindex', 'nofollow', 'none'],
  follow: ['nofollow', 'none'],
};

function rulesOfPage(page: number, text: string): PageRule[] {
  const rules = readDirectives(text).flatMap(({ agent, content, line }) =>
    content
      .toLowerCase()
      .split(',')
      .map((value) => value.trim())
      .filter(Boolean)
      .map((value) => ({ page, agent, value, source: line === null ? ('header' as const) : ('meta' as const), line })),
  );
  // What is said to every crawler is said to the one that is named too.
  const holdsFor = (rule: { agent: string }, agent: string) => rule.agent === '' || rule.agent === agent;
  return rules.map((rule) => ({
    ...rule,
    isOutweighed: (restrictive[rule.value] ?? []).some((stronger) =>
      rules.some((other) => other.value === stronger && holdsFor(other, rule.agent)),
    ),
  }));
}

/** All rules that pages give themselves, in the order of the pages. */
export const pageRulesOf = memoOf(['page_rules'], (snapshot): PageRule[] => {
  const { codes } = snapshot.column('page_rules');
  const rules: PageRule[] = [];
  for (let page = 0; page < snapshot.count; page++)
    if (codes[page] > 0) for (const rule of rulesOfPage(page, textAt(snapshot, 'page_rules', page)!)) rules.push(rule);
  return rules;
});

/** A value that pages give, taken together. */
export interface PageRuleGroup extends Pick<PageRule, 'agent' | 'value' | 'source'> {
  pages: number;
  /** On how many of them something outweighs it. */
  outweighed: number;
  scope: RuleScope;
  /** The template or section, when nearly every page of just that one has it. */
  only: string | null;
}

/** A site, template or section is to blame where so large a part of its pages have something. */
export const NEARLY_ALL = 0.9;
const MIN_PAGES = 5;

function countBy(pages: Iterable<number>, { codes }: TextColumn): Map<number, number> {
  const counts = new Map<number, number>();
  for (const page of pages) counts.set(codes[page], (counts.get(codes[page]) ?? 0) + 1);
  return counts;
}

/** How far the pages that have a value reach, among all that were read. */
function scopeOf({ column }: Reading<'template' | 'section'>, pages: ReadonlySet<number>, all: readonly number[]) {
  if (pages.size >= MIN_PAGES && pages.size >= NEARLY_ALL * all.length) return { scope: 'site' as const, only: null };
  for (const scope of ['template', 'section'] as const) {
    const names = column(scope);
    const sizes = countBy(all, names);
    const whole = [...countBy(pages, names)].filter(
      ([code, count]) => count >= MIN_PAGES && count >= NEARLY_ALL * sizes.get(code)!,
    );
    if (whole.length && whole.reduce((sum, [, count]) => sum + count, 0) >= NEARLY_ALL * pages.size)
      return { scope, only: whole.length === 1 ? (names.values[whole[0][0]] ?? '') : null };
  }
  return { scope: 'page' as const, only: null };
}

/** The values that pages give, by agent and place, the most frequent first. */
export const pageRuleGroupsOf = memoOf(['page_rules', 'html', 'template', 'section'], (snapshot): PageRuleGroup[] => {
  const all: number[] = [];
  snapshot.column('html').forEach((html, page) => html === 1 && all.push(page));
  const groups = new Map<string, { rule: PageRule; pages: Set<number>; outweighed: number }>();
  for (const rule of pageRulesOf(snapshot)) {
    const key = `${rule.agent}\n${rule.value}\n${rule.source}`;
    const group = groups.get(key) ?? { rule, pages: new Set(), outweighed: 0 };
    groups.set(key, group);
    group.pages.add(rule.page);
    if (rule.isOutweighed) group.outweighed++;
  }
  return [...groups.values()]
    .map(({ rule: { agent, value, source }, pages, outweighed }) => ({
      agent,
      value,
      source,
      pages: pages.size,
      outweighed,
      ...scopeOf(snapshot, pages, all),
    }))
    .sort((a, b) => b.pages - a.pages);
});

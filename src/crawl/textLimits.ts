import { limitOf } from '$core/facts';
import type { TextFact } from '$core/facts';
import type { FoundFacts } from '$core/snapshot';

/** The texts that a crawl finds, with the facts whose limits hold for them. */
const limited = {
  contentType: 'content_type',
  redirectTo: 'redirect_to',
  title: 'title',
  description: 'description',
  h1: 'h1',
  language: 'language',
  robots: 'robots',
  canonical: 'canonical',
  pageRules: 'page_rules',
} as const satisfies Partial<Record<keyof FoundFacts, TextFact>>;

/** A text cut to so many characters, never within one that takes two units. */
function clipped(text: string, most: number): string {
  const cut = text.slice(0, most);
  return /[\ud800-\udbff]$/.test(cut) ? cut.slice(0, -1) : cut;
}

/** Cuts texts at the limits of the table of facts, and says so: no website can outgrow what is stored of a page. */
export function withinLimits<T extends Partial<FoundFacts> & Pick<FoundFacts, 'truncated'>>(facts: T): T {
  const cut: Partial<FoundFacts> = {};
  for (const [name, fact] of Object.entries(limited) as [keyof typeof limited, TextFact][]) {
    const text = facts[name];
    if (text && text.length > limitOf(fact)) cut[name] = clipped(text, limitOf(fact));
  }
  const { breadcrumb } = facts;
  const longest = limitOf('breadcrumb');
  if (breadcrumb && breadcrumb.reduce((sum, { name }) => sum + name.length, 0) > longest) {
    const each = Math.floor(longest / breadcrumb.length);
    cut.breadcrumb = breadcrumb.map(({ name, address }) => ({ name: clipped(name, each), address }));
  }
  return Object.keys(cut).length ? { ...facts, ...cut, truncated: true } : facts;
}

/** Faults of robots.txt files and sitemaps, with the line of each. */
import { isResource, linkKinds } from '../links';
import type { Message } from '../messages';
import { looksLikeHtml, parseRobots, robotsMatcher } from '../robots';
import { addressAt } from '../snapshot';
import { originOf } from '../url';
import type { View } from '../view';

export interface FileFault {
  /** The id of its finding. */
  fault: string;
  /** Address of the file. */
  file: string;
  line: number | null;
  /** What stands there, or what happened. */
  evidence: Message;
}

/** What one file may list (sitemaps.org, protocol 0.9). */
const MAX_ENTRIES = 50_000;

const faultOf = { early: 'robots_early', unknown: 'robots_unknown', empty: 'robots_empty' } as const;

/** That no sitemap was found, told of the place where one is looked for first. */
export const noSitemap = (snapshot: View): FileFault => ({
  fault: 'no_sitemap',
  file: `${originOf(addressAt(snapshot, 0))}/robots.txt`,
  line: null,
  evidence: { code: 'no_sitemap_found' },
});

/**
 * Finds the faults of the files of a site.
 * @param token product token whose rules are read
 */
export function fileFaults(snapshot: View, token: string): FileFault[] {
  const { files, links, outside, count } = snapshot;
  const faults: FileFault[] = [];
  const resources = new Set<number>();
  links.kind.forEach((kind, link) => {
    if (isResource(linkKinds[kind]) && links.target[link] >= count) resources.add(links.target[link] - count);
  });
  const byOrigin = new Map<string, string[]>();
  for (const number of resources) {
    const origin = originOf(outside[number]);
    byOrigin.set(origin, [...(byOrigin.get(origin) ?? []), outside[number]]);
  }
  const sitemaps = new Map(files.sitemaps.map((sitemap) => [sitemap.address, sitemap]));
  for (const { origin, status, fault, body } of files.robots) {
    const file = `${origin}/robots.txt`;
    const add = (fault: string, line: number | null, evidence: Message) => faults.push({ fault, file, line, evidence });
    if (fault) add('robots_unreadable', null, fault);
    if (status === null || status >= 300) continue;
    if (looksLikeHtml.test(body)) {
      add('robots_html', 1, { code: 'line', text: body.trim().slice(0, 60) });
      continue;
    }
    const rules = parseRobots(body);
    for (const { kind, line, text } of rules.faults) add(faultOf[kind], line, { code: 'line', text });
    const matcher = robotsMatcher(rules, token);
    const whole = matcher(`${origin}/`);
    const anything = matcher(`${origin}/any-page-at-all`);
    if (!whole.allowed && !anything.allowed && anything.rule)
      add('robots_all_closed', anything.rule.line, { code: 'rule', rule: anything.rule });
    else
      for (const resource of byOrigin.get(origin) ?? []) {
        const { allowed, rule } = matcher(resource);
        if (!allowed && rule) add('resources_closed', rule.line, { code: 'closed_resource', address: resource, rule });
      }
    for (const { address, line } of rules.sitemaps) {
      const sitemap = sitemaps.get(address);
      if (sitemap?.fault && sitemap.fault.code !== 'sitemap_not_read' && sitemap.entries === 0)
        add('robots_sitemap', line, { code: 'failing_sitemap', address, fault: sitemap.fault });
    }
  }
  for (const { address: file, fault, faultLine, skipped, entries } of files.sitemaps) {
    const add = (fault: string, evidence: Message, line: number | null = null) =>
      faults.push({ fault, file, line, evidence });
    if (entries > MAX_ENTRIES) add('sitemap_large', { code: 'entries', entries });
    if (fault && fault.code !== 'sitemap_not_read') add('sitemap_fault', fault, faultLine);
    if (skipped) add('sitemap_foreign', { code: 'entries', entries: skipped });
  }
  const listed = new Set<number>();
  for (const { page, sitemap: file, line } of snapshot.listings) {
    const evidence: Message = { code: 'address', address: addressAt(snapshot, page) };
    if (listed.has(page)) faults.push({ fault: 'sitemap_twice', file, line, evidence });
    listed.add(page);
  }
  return faults;
}

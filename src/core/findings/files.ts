/** Faults of robots.txt files and sitemaps, with the line of each. */
import { thousands } from '../numbers';
import { isResource, linkKinds } from '../links';
import { describeRule, parseRobots, robotsMatcher } from '../robots';
import { addressAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { originOf } from '../url';

export interface FileFault {
  /** The id of its finding. */
  fault: string;
  /** Address of the file. */
  file: string;
  line: number | null;
  /** What stands there, or what happened. */
  evidence: string;
}

/** What one file may list (sitemaps.org, protocol 0.9). */
const MAX_ENTRIES = 50_000;

const looksLikeHtml = /^\s*(<!doctype html|<html|<head|<body)/i;
const faultOf = { early: 'robots_early', unknown: 'robots_unknown', empty: 'robots_empty' } as const;

/**
 * Finds the faults of the files of a site.
 * @param token product token whose rules are read
 */
export function fileFaults(snapshot: Snapshot, token: string): FileFault[] {
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
    const add = (fault: string, line: number | null, evidence: string) => faults.push({ fault, file, line, evidence });
    if (fault) add('robots_unreadable', null, fault);
    if (status === null || status >= 300) continue;
    if (looksLikeHtml.test(body)) {
      add('robots_html', 1, body.trim().slice(0, 60));
      continue;
    }
    const rules = parseRobots(body);
    for (const { kind, line, text } of rules.faults) add(faultOf[kind], line, text);
    const matcher = robotsMatcher(rules, token);
    const whole = matcher(`${origin}/`);
    const anything = matcher(`${origin}/any-page-at-all`);
    if (!whole.allowed && !anything.allowed && anything.rule)
      add('robots_all_closed', anything.rule.line, describeRule(anything.rule));
    else
      for (const resource of byOrigin.get(origin) ?? []) {
        const { allowed, rule } = matcher(resource);
        if (!allowed && rule) add('resources_closed', rule.line, `${resource}: ${describeRule(rule)}`);
      }
    for (const { address, line } of rules.sitemaps) {
      const sitemap = sitemaps.get(address);
      if (sitemap?.fault && sitemap.entries === 0) add('robots_sitemap', line, `${address}: ${sitemap.fault}`);
    }
  }
  for (const { address, fault, faultLine, passedOver, entries } of files.sitemaps) {
    if (entries > MAX_ENTRIES)
      faults.push({
        fault: 'sitemap_large',
        file: address,
        line: null,
        evidence: `${thousands(entries)} entries`,
      });
    if (fault) faults.push({ fault: 'sitemap_fault', file: address, line: faultLine, evidence: fault });
    if (passedOver)
      faults.push({
        fault: 'sitemap_foreign',
        file: address,
        line: null,
        evidence: `${thousands(passedOver)} ${passedOver === 1 ? 'entry' : 'entries'}`,
      });
  }
  const listed = new Set<number>();
  for (const { page, sitemap, line } of snapshot.listings) {
    if (listed.has(page))
      faults.push({ fault: 'sitemap_twice', file: sitemap, line, evidence: addressAt(snapshot, page) });
    listed.add(page);
  }
  return faults;
}

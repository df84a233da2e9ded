/** What is wrong with a robots.txt, line by line. */
import type { Message } from '../messages';
import { MAX_ROBOTS_BYTES, parseRobots } from './parse';
import type { RobotsFile } from './parse';
import { robotsMatcher } from './match';
import { uselessRules } from './useless';

export const robotsFaults = [
  'closes_everything',
  'rule_before_group',
  'unknown_line',
  'empty_group',
  'bad_sitemap',
  'closes_resources',
  'is_html',
  'too_large',
  'not_utf8',
  'duplicate_group',
  'useless_rule',
] as const;
export type RobotsFaultId = (typeof robotsFaults)[number];

export interface RobotsFileFault {
  /** 1-based. */
  line: number;
  id: RobotsFaultId;
  message: Message;
}

/** A robots.txt as bytes made text, and what was wrong with the bytes. */
export interface RobotsText {
  text: string;
  bytes: number;
  /** The first line that is not UTF-8; null when all are. */
  notUtf8Line: number | null;
}

const lineBreak = /\r\n|\r|\n/;
const linesOf = (text: string) => text.split(lineBreak).length;

/** Decodes a robots.txt, as much of it as crawlers have to read. */
export function decodeRobots(bytes: Uint8Array): RobotsText {
  const read = bytes.subarray(0, MAX_ROBOTS_BYTES);
  const text = new TextDecoder().decode(read);
  const strict = new TextDecoder('utf-8', { fatal: true });
  let notUtf8Line: number | null = null;
  try {
    // A character that the limit cuts is no fault.
    strict.decode(read, { stream: bytes.length > read.length });
  } catch {
    const at = text.indexOf('\ufffd');
    notUtf8Line = at < 0 ? 1 : linesOf(text.slice(0, at));
  }
  return { text, bytes: bytes.length, notUtf8Line };
}

/** How files begin that are no robots.txt, but a page. */
export const looksLikeHtml = /^\ufeff?\s*(<!doctype html|<html|<head|<body|<\?xml|<!--)/i;
/** Folders that hold what pages need to be shown. */
const resourceFolder = /\/(css|js|scripts?|styles?|stylesheets?|javascripts?|assets|static|fonts)(\/|\*|\$|$)/i;
const resourceEnding = /\.(css|js|mjs)(\W|$)/i;
const resourceKinds = ['css', 'js'];

const closesAll = /^\/?\**\$?$/;

/** The line of the rule that closes a whole site to every crawler, where no rule opens a part of it. */
function lineThatClosesAll(file: RobotsFile): number | null {
  const rules = file.groups.filter(({ agents }) => agents.includes('*')).flatMap((group) => group.rules);
  if (rules.some(({ directive, path }) => directive === 'allow' && path !== '')) return null;
  const found = rules.find(
    ({ directive, path }) =>
      directive === 'disallow' && path !== '' && path !== '$' && path !== '/$' && closesAll.test(path),
  );
  return found?.line ?? null;
}

/** Rules that close style sheets or scripts, as far as their patterns tell. */
function closedResources(file: RobotsFile): RobotsFileFault[] {
  return file.groups.flatMap(({ agents, rules }) => {
    const matcher = robotsMatcher(file, agents[0]);
    const isClosed = (path: string) => !matcher(`https://host.example${path}`).allowed;
    return rules.flatMap(({ directive, path, line }) => {
      if (directive !== 'disallow') return [];
      const given = path
        .replace(/^(?!\/)/, '/')
        .replaceAll('*', 'x')
        .replace(/\$$/, '');
      const samples = resourceEnding.test(path)
        ? [given]
        : resourceFolder.test(path)
          ? resourceKinds.map((kind) => `${given.replace(/\/?$/, '/')}main.${kind}`)
          : [];
      const closed = samples.find(isClosed);
      const message: Message = { code: 'robots_closes_resource', path, example: closed ?? '' };
      return closed === undefined ? [] : [{ line, id: 'closes_resources' as const, message }];
    });
  });
}

function repeatedAgents(file: RobotsFile): RobotsFileFault[] {
  const first = new Map<string, number>();
  return file.groups.flatMap(({ agents, agentLines }) =>
    agents.flatMap((agent, i) => {
      const before = first.get(agent);
      if (before === undefined) first.set(agent, agentLines[i]);
      const message: Message = { code: 'robots_agent_twice', agent, line: before ?? 0 };
      return before === undefined ? [] : [{ line: agentLines[i], id: 'duplicate_group' as const, message }];
    }),
  );
}

const idOf = { early: 'rule_before_group', unknown: 'unknown_line', empty: 'empty_group' } as const;
const codeOf = { early: 'robots_early', unknown: 'robots_unknown', empty: 'robots_empty' } as const;
const isAddress = (text: string) => /^https?:\/\/[^\s/]/i.test(text) && URL.canParse(text);

/** Finds what is wrong with a robots.txt (RFC 9309), in the order of its lines. */
export function checkRobots({ text, bytes, notUtf8Line }: RobotsText): RobotsFileFault[] {
  const faults: RobotsFileFault[] = [];
  const add = (line: number, id: RobotsFaultId, message: Message) => faults.push({ line, id, message });
  if (notUtf8Line !== null) add(notUtf8Line, 'not_utf8', { code: 'robots_not_utf8' });
  if (bytes > MAX_ROBOTS_BYTES)
    add(linesOf(text), 'too_large', { code: 'robots_too_large', kibibytes: MAX_ROBOTS_BYTES >> 10 });
  if (looksLikeHtml.test(text)) {
    add(1, 'is_html', { code: 'robots_is_html' });
    return faults;
  }
  const file = parseRobots(text);
  for (const { kind, line, text: written } of file.faults) add(line, idOf[kind], { code: codeOf[kind], text: written });
  for (const { address, line } of file.sitemaps)
    if (!isAddress(address)) add(line, 'bad_sitemap', { code: 'robots_bad_sitemap', text: address });
  const closing = lineThatClosesAll(file);
  if (closing !== null) add(closing, 'closes_everything', { code: 'robots_closes_all' });
  faults.push(...closedResources(file), ...repeatedAgents(file));
  for (const { line, message } of uselessRules(file)) add(line, 'useless_rule', message);
  return faults.sort((a, b) => a.line - b.line);
}

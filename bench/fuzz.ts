/**
 * `./edgemap bench fuzz`: mutated inputs for everything that reads what a website or a person sends. Nothing may throw,
 * no input may take longer than a second, and what must always hold must hold. What broke is written to a folder.
 *
 *     node fuzz.js FOLDER [--minutes N | --inputs N] [--only NAME] [--seed N]
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { corpus as documents } from '../src/core/html/testing/corpus';
import { limitOf } from '../src/core/facts';
import { readHtml } from '../src/core/html';
import { chance } from '../src/core/numbers';
import { crawlDelayFor, parseRobots, robotsMatcher } from '../src/core/robots';
import { completeSelection, evaluate, evaluateLinks, parseLinkSelection, parseSelection } from '../src/core/selection';
import { pageCatalogue } from '../src/core/selection/language';
import { readSettingsFile, settingsFile, settingsSchema } from '../src/core/settings';
import { sitemapReader } from '../src/core/sitemap';
import { tinySite } from '../src/core/testing/tinySite';
import { identify, readStartAddress } from '../src/core/url';
import { isError } from '../src/core/errors';

const MAX_MS = 1000;
const HERE = 'https://museum.example/trams/';

type Next = ReturnType<typeof chance>;

/** What is read, from what inputs are made, and what must hold of any. */
interface Target {
  seeds: readonly string[];
  pieces: readonly string[];
  /** @throws Error when something does not hold */
  check: (input: string, next: Next) => void;
}

function holds(condition: boolean, what: string): void {
  if (!condition) throw new Error(`Does not hold: ${what}`);
}

function isIdentity(address: string): void {
  holds(identify(address)?.address === address, `${JSON.stringify(address)} is its own identity`);
}

const encoder = new TextEncoder();
const snapshot = tinySite({
  '/': { title: 'Home', links: ['/a', '/b', 'https://else.example/'] },
  '/a': { title: 'A tram', worded: [['/b', 'to b', 'nav']] },
  '/b': { status: 404, links: ['/'] },
  '/c': { title: null },
});

const entries = (text: string, sizes: () => number) => {
  const events: unknown[] = [];
  const reader = sitemapReader({
    onUrl: (entry) => events.push(entry),
    onSitemap: (entry) => events.push(entry),
    onFault: (fault, line) => events.push([fault, line]),
  });
  for (let at = 0; at < text.length;) {
    const size = sizes();
    reader.write(text.slice(at, at + size));
    at += size;
  }
  reader.end();
  return JSON.stringify(events);
};

const targets: Record<string, Target> = {
  html: {
    seeds: documents.map(([, html]) => html),
    pieces: [
      ...[
        '<a href=/x>',
        '</a>',
        '<a href="',
        '<p',
        '</p>',
        '<table>',
        '<td>',
        '<svg>',
        '<math>',
        '</svg>',
        '<!--',
        '-->',
        '<![CDATA[',
      ],
      ...[
        '<script>',
        '</script>',
        '<script type="application/ld+json">{"@type":"BreadcrumbList","itemListElement":[{"position":',
        '}]}',
      ],
      ...[
        '<template>',
        '<title>',
        '<textarea>',
        '<plaintext>',
        '<base href=//x>',
        '<meta http-equiv=refresh content="0;',
        '<meta name=robots content=',
      ],
      ...['\0', '\ufeff', '\xff\xfe', '\r', '&amp', '&#x', '&#99999999;', '%6%65', '"', "'", '<', '>', '=', '/', '  '],
    ],
    check: (input) => {
      const facts = readHtml(encoder.encode(input), HERE);
      const size = input.length;
      for (const { target, malformed, line, column } of facts.links) {
        if (!malformed) isIdentity(target);
        holds(line >= 1 && column >= 1 && line <= size + 1, 'a link has a line');
      }
      holds(facts.wordCount <= size, 'no more words than characters');
      holds((facts.title?.length ?? 0) <= limitOf('title') + 1, 'the title is bounded');
      holds((facts.breadcrumb?.length ?? 0) <= 30, 'the breadcrumb is bounded');
    },
  },
  robots: {
    seeds: [
      'User-agent: *\nDisallow: /shop\nAllow: /shop/mugs$\nCrawl-delay: 5\n\nUser-agent: edgemap\nUser-agent: other\nDisallow: /*?sort=\nSitemap: https://museum.example/s.xml\n',
      '\ufeffUser-agent: *\r\nDisallow: /caf%c3%a9*\r\nDisallow: /*.pdf$ # no\r\n',
    ],
    pieces: [
      'User-agent: ',
      'Disallow: ',
      'Allow: ',
      'Crawl-delay: ',
      'Sitemap: ',
      '\n',
      '\r',
      '\r\n',
      '*',
      '$',
      '#',
      ':',
      '/',
      '%',
      '%2',
      '%2F',
      '\0',
      '1e999',
      '-1',
      'é',
      '\ud800',
    ],
    check: (input) => {
      const file = parseRobots(input);
      const lines = input.split(/\r\n|\r|\n/).length;
      for (const { line } of [...file.sitemaps, ...file.faults, ...file.groups.flatMap(({ rules }) => rules)])
        holds(line >= 1 && line <= lines, 'lines are those of the file');
      const delay = crawlDelayFor(file, 'edgemap');
      holds(delay === null || (delay >= 0 && Number.isFinite(delay)), 'a delay is a number');
      const matcher = robotsMatcher(file, 'edgemap');
      for (const path of ['/', '/shop/mugs', '/caf%C3%A9', '/a.pdf?sort=1', '/robots.txt']) {
        const { allowed, rule } = matcher(`https://museum.example${path}`);
        holds(allowed || rule?.directive === 'disallow', 'what is closed is closed by a rule');
      }
    },
  },
  sitemap: {
    seeds: [
      '<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n<url><loc>https://museum.example/?a=1&amp;b=2</loc><lastmod>2026-10-02</lastmod></url>\n<url><loc><![CDATA[https://museum.example/x]]></loc></url>\n</urlset>',
      '<sitemapindex><sitemap><loc>https://museum.example/s.xml</loc></sitemap></sitemapindex>',
      'https://museum.example/a\r\nhttps://museum.example/b\n',
    ],
    pieces: [
      '<url>',
      '</url>',
      '<loc>',
      '</loc>',
      '<x>',
      '<x:y z="',
      '<![CDATA[',
      ']]>',
      '<!--',
      '-->',
      '<?',
      '?>',
      '<!DOCTYPE a [',
      '<!ENTITY a "b">',
      '&a;',
      '&#0;',
      '&',
      '\0',
      '\ufeff',
      '\r',
      '\n',
      '"',
      '\ud800',
    ],
    check: (input, next) => {
      const whole = entries(input, () => input.length);
      holds(whole === entries(input, () => 1 + next(40)), 'the same however it is cut');
    },
  },
  url: {
    seeds: [
      'https://museum.example/trams/a%7eb%2fc?b=2&a=1#top',
      'HTTP://user:pw@Museum.Example:80/../a/./b/%6%65x',
      '//straßenbahn.example/ü?q=%',
      '../up?x=[1]',
      'http://[::1]:8080/',
    ],
    pieces: [
      '%',
      '%6',
      '%65',
      '%41',
      '%%',
      '%zz',
      '/',
      '//',
      '/../',
      '/./',
      '?',
      '#',
      ':',
      '@',
      '\\',
      '\t',
      '\n',
      ' ',
      'http:',
      'javascript:',
      '[',
      ']',
      'é',
      'ß',
      '\ud800',
      '\u200b',
      '.',
      '。',
      '１２７',
    ],
    check: (input) => {
      const found = identify(input, HERE);
      if (found) isIdentity(found.address);
      const start = readStartAddress(input);
      if (start.ok) isIdentity(start.address);
    },
  },
  selection: {
    seeds: [
      'indexable and depth > 3',
      'url has "sort=" or not (title matches "tram[s]?$" and words_in < 4)',
      'linked from (url starts "https://museum.example/") and verdict in (indexable, noindex)',
      'within 2 clicks of (section = "visit") and seen in sitemap',
      'anchor = "more" and placement = nav and target_status >= 400',
      'depth is unknown and only through (url has "x")',
    ],
    pieces: [
      'and ',
      'or ',
      'not ',
      '(',
      ')',
      '"',
      '\\',
      '"\\"',
      ' matches "',
      '(a.{120}b|b.{121}a)x',
      'a{500}',
      '[a-',
      '[^',
      '^*',
      '|',
      '<',
      '>=',
      '!=',
      ' in (',
      ' is unknown',
      'seen in ',
      'depth',
      'url',
      '1e9',
      '\0',
      'é',
      'within 99999 clicks of (',
    ],
    check: (input) => {
      for (const [parse, answer] of [
        [parseSelection, evaluate],
        [parseLinkSelection, evaluateLinks],
      ] as const) {
        const parsed = parse(input);
        if (!parsed.ok) {
          const { at, length } = parsed.fault;
          holds(at >= 0 && length >= 0 && at + length <= input.length + 1, 'a fault points into the text');
          continue;
        }
        try {
          answer(snapshot, parsed.selection);
        } catch (error) {
          if (!isError(error, 'selection')) throw error;
        }
      }
      completeSelection(input, input.length >> 1, () => [], pageCatalogue);
    },
  },
  settings: {
    seeds: [
      settingsFile(settingsSchema.parse({ start: 'https://museum.example/' })),
      settingsFile(
        settingsSchema.parse({
          start: 'https://museum.example/',
          hosts: ['press.museum.example'],
          include: ['/visit/*'],
          rate: 3,
          overrides: [{ host: 'a.example', toHost: '127.0.0.1', toPort: 80 }],
        }),
      ),
    ],
    pieces: [
      'null',
      'true',
      '-1',
      '1e999',
      '[]',
      '{}',
      '""',
      '"__proto__":',
      '"start":',
      ',',
      '[[[[',
      '}',
      '\\u0000',
      '99999999999999999999',
      '"javascript:x"',
    ],
    check: (input) => {
      const read = readSettingsFile(input);
      if (!read.ok) return holds(read.message.length > 0, 'what is wrong is said');
      const again = readSettingsFile(settingsFile(read.settings));
      holds(
        again.ok && JSON.stringify(again.settings) === JSON.stringify(read.settings),
        'the same when written and read',
      );
    },
  },
};

/** A seed with up to eight pieces cut, doubled, put in or changed. */
function mutate({ seeds, pieces }: Target, next: Next): string {
  let text = seeds[next(seeds.length)];
  const from = next(Math.max(1, text.length - 2000));
  text = text.slice(from, from + 2000);
  for (let times = 1 + next(8); times > 0; times--) {
    const at = next(text.length + 1);
    const length = next(24);
    const kind = next(6);
    if (kind === 0) text = text.slice(0, at) + text.slice(at + length);
    else if (kind === 1) text = text.slice(0, at) + text.slice(at, at + length).repeat(1 + next(4)) + text.slice(at);
    else if (kind === 2)
      text = text.slice(0, at) + String.fromCharCode(next(next(8) ? 128 : 65536)) + text.slice(at + 1);
    else if (kind === 3)
      text = text.slice(0, at) + pieces[next(pieces.length)].repeat(1 + next(next(20) ? 3 : 400)) + text.slice(at);
    else text = text.slice(0, at) + pieces[next(pieces.length)] + text.slice(at);
  }
  return text;
}

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    minutes: { type: 'string' },
    inputs: { type: 'string' },
    only: { type: 'string' },
    seed: { type: 'string', default: '1' },
  },
});
const folder = positionals[0];
const names = values.only ? [values.only] : Object.keys(targets);
const unknown = names.find((name) => !targets[name]);
if (unknown) {
  console.error(`There is no reader “${unknown}”; there are ${Object.keys(targets).join(', ')}.`);
  process.exit(2);
}
const most = values.inputs ? Number(values.inputs) : Infinity;
const until = Number(values.minutes ?? (values.inputs ? Infinity : 1)) * 60_000;
let broken = 0;

for (const name of names) {
  const target = targets[name];
  const began = performance.now();
  let [inputs, slowest] = [0, 0];
  for (let seed = Number(values.seed); inputs < most && performance.now() - began < until / names.length; seed++) {
    const input = mutate(target, chance(seed));
    // The time of the processor: other programs may run beside.
    const start = process.cpuUsage();
    let fault: string | null = null;
    try {
      target.check(input, chance(seed ^ 0x5bd1e995));
    } catch (error) {
      fault = String((error as Error).stack);
    }
    const { user, system } = process.cpuUsage(start);
    const took = (user + system) / 1000;
    if (took > MAX_MS) fault ??= `It took ${Math.round(took)} ms.`;
    slowest = Math.max(slowest, took);
    inputs++;
    if (!fault || ++broken > 20) continue;
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, `${name}-${seed}.txt`), input);
    console.log(`  ${name}, seed ${seed}: ${fault.split('\n').slice(0, 3).join(' ')}`);
  }
  const seconds = (performance.now() - began) / 1000;
  console.log(
    `${name.padEnd(10)} ${String(inputs).padStart(9)} inputs in ${seconds.toFixed(0)} s, slowest ${slowest.toFixed(0)} ms`,
  );
}
console.log(broken ? `${broken} inputs broke something; they are in ${folder}.` : 'Nothing broke.');
process.exitCode = broken ? 1 : 0;

import { describe, expect, it } from 'vitest';
import { parseLinkSelection, parseSelection } from '../selection';
import { settingsSchema } from '../settings';
import type { Message } from '../messages';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { familiesOf } from '../traps';
import { fileFaults, findings, findingsOf } from '.';

const settings = settingsSchema.parse({ start: 'https://tiny.example/' });

describe('the catalogue', () => {
  it.each(findings.map((finding) => [finding.id, finding] as const))('%s can be read', (_, finding) => {
    if (finding.over === 'files') return;
    const parsed = (finding.over === 'pages' ? parseSelection : parseLinkSelection)(
      finding.select(settings.thresholds),
    );
    expect(parsed).toMatchObject({ ok: true });
  });
  it('names each finding once', () => expect(new Set(findings.map(({ id }) => id)).size).toBe(findings.length));
});

/** Ten stories with one menu, in which one link is broken. */
const stories = Object.fromEntries(
  Array.from({ length: 10 }, (_, i): [string, TinyPage] => [
    `/stories/${i}`,
    {
      worded: [
        ['/gone', 'Timetable'],
        ['/', 'Home'],
      ],
    },
  ]),
);
const site = tinySite(
  {
    '/': { links: Object.keys(stories) },
    ...stories,
    '/gone': { status: 404, html: false },
    '/lost': { title: null },
  },
  ['/lost', '/gone'],
);

it('counts pages, occurrences and edits, and puts first what costs most', () => {
  const found = findingsOf(site, settings);
  const by = Object.fromEntries(found.map((one) => [one.id, one]));
  expect(by.links_to_broken).toMatchObject({ pages: 10, occurrences: 10, edits: 1 });
  expect(by.indexable_orphan).toMatchObject({ pages: 1, occurrences: 1, select: 'indexable and orphan' });
  expect(by.no_title).toMatchObject({ pages: 1 });
  expect(by.listed_not_indexable).toMatchObject({ pages: 1 });
  expect(by.links_to_redirects).toBeUndefined();
  expect(found[0].id).toBe('links_to_broken');
  // What is only worth a look comes after what is certain.
  const faults = found.filter(({ id }) => !findings.find((one) => one.id === id)!.worthALook);
  expect(found.slice(0, faults.length)).toEqual(faults);
  expect(faults.map(({ cost }) => cost)).toEqual(faults.map(({ cost }) => cost).sort((a, b) => b - a));
});

it('finds families of addresses, and how they grow', () =>
  expect(familiesOf(site, 5)).toEqual([
    { pattern: tiny('/stories/*'), known: 10, fetched: 10, byDepth: [0, 10], example: tiny('/stories/0') },
  ]));

describe('faults of files', () => {
  const origin = 'https://tiny.example';
  const robots = (body: string, status: number | null = 200, fault: Message | null = null) =>
    fileFaults(
      tinySite({ '/': { declared: [['script', 'https://tiny.example/js/app.js']] } }, [], {
        files: {
          robots: [{ origin, status, fault, body }],
          sitemaps: [
            {
              address: `${origin}/map.xml`,
              entries: 0,
              skipped: 2,
              fault: { code: 'status', status: 404, tries: 1 },
              faultLine: null,
            },
          ],
        },
      }),
      settings.token,
    ).filter(({ file }) => file.endsWith('robots.txt'));
  it.each([
    ['User-agent: *\nDisallow: /', 'robots_all_closed', 2],
    ['Disallow: /x\nUser-agent: *\nDisallow: /y', 'robots_early', 1],
    ['User-agent: *\nDisallow: /x\nNoindex: /y', 'robots_unknown', 3],
    ['User-agent: *\nDisallow: /x\n\nUser-agent: other', 'robots_empty', 4],
    ['<!doctype html><title>Not found</title>', 'robots_html', 1],
    ['User-agent: *\nDisallow: /js/', 'resources_closed', 2],
    ['Sitemap: https://tiny.example/map.xml', 'robots_sitemap', 1],
  ])('%j', (body, fault, line) => expect(robots(body)).toMatchObject([{ fault, line }]));
  it('tells a file that cannot be read, and passes over one that is not there', () => {
    expect(robots('', 503, { code: 'status', status: 503, tries: 1 })).toMatchObject([{ fault: 'robots_unreadable' }]);
    expect(robots('', 404)).toEqual([]);
  });
});

/** The door to drafts: what is added to a view by a layer is read like all else. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { comparePages, factsOf } from '../compare';
import { findingsOf } from '../findings';
import { pagesCsv } from '../formats';
import { orderRows, pageList } from '../lists';
import { evaluate, numbersOf, parseSelection } from '../selection';
import { settingsSchema } from '../settings';
import { addressAt, factAt, pageOf } from '../snapshot';
import { analyse } from '../analysis';
import { tiny, tinyBase, tinySettings, tinySite, TINY_START } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { viewOf, withComparison } from '../view';
import type { View } from '../view';
import { withEdits } from '.';
import type { Edits } from '.';

const html = { status: 200, html: true, content_type: 'text/html', noindex: false, word_count: 120 } as const;
const select = (view: View, text: string) => {
  const parsed = parseSelection(text);
  if (!parsed.ok) throw new Error(parsed.fault.message);
  return evaluate(view, parsed.selection);
};
const paths = (view: View, pages: Iterable<number>) =>
  Array.from(pages, (page) => new URL(addressAt(view, page)).pathname);

describe('a page and a link that are added to a view', () => {
  const site = tinySite({ '/': { links: ['/trams'] }, '/trams': { links: ['/zoo'] }, '/zoo': {}, '/lost': {} });
  const draft = withEdits(
    site,
    {
      pages: [{ address: tiny('/hub'), facts: { ...html, title: 'All collections' } }],
      links: [
        { source: tiny('/'), target: tiny('/hub'), anchor: 'Collections' },
        { source: tiny('/hub'), target: tiny('/lost'), anchor: 'Lost property' },
      ],
    },
    tinySettings,
  );
  it('are read as depth, list, selection, finding, comparison and file', () => {
    const at = (path: string) => factAt(draft, 'depth', pageOf(draft, tiny(path)));
    expect(['/', '/hub', '/lost', '/zoo'].map(at)).toEqual([0, 1, 2, 2]);
    expect(paths(draft, pageList(draft, select(draft, '')).rows)).toEqual(['/', '/hub', '/lost', '/trams', '/zoo']);
    expect(paths(draft, numbersOf(select(draft, 'linked from (title = "All collections")')))).toEqual(['/lost']);
    expect(paths(site, numbersOf(select(site, 'orphan')))).toEqual(['/lost']);
    const settings = settingsSchema.parse({ start: TINY_START });
    const ids = (view: View) => findingsOf(view, settings).map(({ id }) => id);
    expect(ids(site).filter((id) => !ids(draft).includes(id))).toEqual(['indexable_orphan']);
    const compared = withComparison(draft, comparePages(site, draft));
    expect(paths(draft, numbersOf(select(compared, 'added')))).toEqual(['/hub']);
    expect(factsOf(compared.comparison, 'depth', pageOf(draft, tiny('/lost')))).toEqual({ before: null, after: 2 });
    expect([...pagesCsv(draft)].join('')).toContain('https://tiny.example/hub,');
  });
  it('leave the numbers of other pages, and the view below, as they were', () => {
    for (let page = 0; page < site.count; page++) expect(addressAt(draft, page)).toBe(addressAt(site, page));
    expect([site.count, draft.count, site.links.target.length]).toEqual([4, 5, 2]);
  });
  it('are sorted by address wherever they are numbered', () =>
    expect(paths(draft, orderRows(pageList(draft, select(draft, '')), 'url', true))).toEqual(
      ['/', '/hub', '/lost', '/trams', '/zoo'].reverse(),
    ));
  it('take in what led off the site, when that is added', () => {
    const leading = tinySite({ '/': { links: ['https://tiny.example/new', 'https://other.example/'] } });
    const taken = withEdits(leading, { pages: [{ address: tiny('/new'), facts: html }] }, tinySettings);
    expect(factAt(taken, 'depth', pageOf(taken, tiny('/new')))).toBe(1);
    expect(factAt(taken, 'external_links', 0)).toBe(1);
    expect(addressAt(taken, taken.links.target[1])).toBe('https://other.example/');
  });
});

it('works out of an edited view what it would of a site that is so', () => {
  const path = fc.constantFrom('/', '/a', '/b', '/c', '/m');
  const links = fc.array(fc.tuple(path, path), { maxLength: 8 });
  const siteOf = (pages: string[], pairs: [string, string][]) => {
    const made: Record<string, TinyPage> = Object.fromEntries(pages.map((one) => [one, {}]));
    for (const [from, to] of pairs) if (made[from]) made[from].links = [...(made[from].links ?? []), to];
    return viewOf(analyse(tinyBase(made), tinySettings));
  };
  const all = ['/', '/a', '/b', '/c', '/m'];
  fc.assert(
    fc.property(links, links, (before, added) => {
      const whole = siteOf(all, [...before, ...added]);
      const old = siteOf(['/', '/a', '/b', '/c'], before);
      const edits: Edits = {
        pages: [{ address: tiny('/m'), facts: { ...html, word_count: null, title: '/m' } }],
        links: [...before.filter(([from]) => from === '/m'), ...added].map(([from, to]) => ({
          source: tiny(from),
          target: tiny(to),
        })),
      };
      const draft = withEdits(old, edits, tinySettings);
      for (const one of all)
        for (const fact of [
          'depth',
          'reach',
          'links_in',
          'pages_linking',
          'links_out',
          'verdict',
          'seen_in',
          'gate_for',
        ] as const)
          expect([one, fact, factAt(draft, fact, pageOf(draft, tiny(one)))]).toEqual([
            one,
            fact,
            factAt(whole, fact, pageOf(whole, tiny(one))),
          ]);
      const shares = (view: View) => all.map((one) => factAt(view, 'share', pageOf(view, tiny(one))) as number);
      shares(draft).forEach((share, i) => expect(share).toBeCloseTo(shares(whole)[i], 8));
    }),
  );
});

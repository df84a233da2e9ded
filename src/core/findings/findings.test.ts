import { describe, expect, it } from 'vitest';
import { sentence } from '../messages';
import { settingsSchema } from '../settings';
import { pageOf } from '../snapshot';
import { TINY_START, tiny, tinySite } from '../testing/tinySite';
import { describeFindings, findingsOf, linkAt, linkReason, pageEvidence, withoutIgnored, faultOfIgnored } from '.';

const settings = settingsSchema.parse({ start: TINY_START });
const site = tinySite({
  '/': {
    worded: [
      ['/trams', 'Drawing'],
      ['/trams', 'Drawing'],
      ['/buses', 'Drawing'],
      ['/gone', 'The flood'],
      ['/trams', 'Zeppelins'],
      ['/archive/a', 'Archive A'],
    ],
  },
  '/trams': { title: 'Trams', links: ['/gone'] },
  '/buses': { title: 'Buses', links: ['/'] },
  '/archive/a': { title: 'Archive A', links: ['/gone', '/'] },
  '/gone': { status: 404, html: false, title: null },
});
const results = findingsOf(site, settings);
const never = () => Promise.reject(new Error('not asked for'));

describe('what a site ignores', () => {
  const counts = async (ignored: { finding: string; within: string }[], snapshot = () => Promise.resolve(site)) =>
    (await withoutIgnored(describeFindings(results), ignored, snapshot))
      .filter(({ id }) => id === 'links_to_broken')
      .map(({ pages, occurrences, edits, select }) => ({ pages, occurrences, edits, select }));

  it('is left out, everywhere', async () => {
    expect(await counts([], never)).toMatchObject([{ pages: 3, occurrences: 3 }]);
    expect(await counts([{ finding: 'links_to_broken', within: '' }], never)).toEqual([]);
  });
  it('is left out within a selection, and the rest is measured again', async () => {
    const within = 'from (path starts "/archive/")';
    const [left] = await counts([{ finding: 'links_to_broken', within }]);
    expect(left).toMatchObject({ pages: 2, occurrences: 2 });
    expect(left.select).toBe(`(kind = click and to (verdict in (broken, failing, unanswered))) and not (${within})`);
    const all = [within, 'from (path = "/" or path = "/trams")'].map((within) => ({
      finding: 'links_to_broken',
      within,
    }));
    expect(await counts(all)).toEqual([]);
  });
  it.each(['from (list("Gone"))', 'from (log("Gone"))', 'from (was (indexable))', 'from (changed(title))'])(
    'is reported all the same where the crawl cannot answer “%s”',
    async (within) => {
      const ignored = { finding: 'links_to_broken', within };
      expect(faultOfIgnored(site, ignored)).toMatch(/No (list|log) “Gone”|earlier crawl/);
      expect(await counts([ignored])).toMatchObject([{ pages: 3, occurrences: 3 }]);
    },
  );
});

describe('the evidence for a finding', () => {
  const reason = (id: string, line: number) =>
    sentence(linkReason(site, id, linkAt(site, pageOf(site, TINY_START), line, 1))!);

  it('on a page is what its rule compares there', () =>
    expect(
      pageEvidence(
        site,
        'indexable and reached and share < 0.3 or not seen in sitemap',
        pageOf(site, tiny('/gone')),
      ).map(({ name }) => name),
    ).toEqual(['verdict', 'reach', 'share', 'seen_in']));
  it('of a link names what speaks against it', () => {
    expect(reason('anchor_conflict', 3)).toBe('“Drawing” also leads to https://tiny.example/trams (2 links).');
    expect(reason('links_to_broken', 4)).toBe('The target is broken: The server answered 404.');
    expect(reason('anchor_off_topic', 5)).toContain('No word of “Zeppelins” is in the title “Trams”');
  });
  it('is none where there is no link, or the rule says it all', () => {
    expect(linkAt(site, 0, 99, 1)).toBe(-1);
    expect(linkReason(site, 'anchor_empty', 0)).toBeNull();
  });
});

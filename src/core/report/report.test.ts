import { expect, it } from 'vitest';
import { settingsSchema } from '../settings';
import { siteShare } from '../share';
import { pageOf } from '../snapshot';
import { tiny, TINY_START, tinySite } from '../testing/tinySite';
import { findingsAt, reportOf } from '.';

const snapshot = tinySite(
  {
    '/': { links: ['/a', '/gone', '/b'] },
    '/a': { links: ['/', '/gone'], worded: [['/b', 'click here']] },
    '/b': { links: ['/'], noindex: true },
    '/gone': { status: 404, html: false, title: null },
    '/lost': {},
  },
  ['/lost'],
);
const settings = settingsSchema.parse({ start: TINY_START });
const { report, pages } = reportOf(snapshot, settings);

it('counts what a trend over crawls shows', () =>
  expect(report.counts).toMatchObject({ known: 5, indexable: 3, noRoute: 1, findings: report.findings.length }));

it('knows of each page the findings that are about it', () => {
  const at = (path: string) => findingsAt(pages, pageOf(snapshot, tiny(path)), report.ids);
  expect(at('/lost')).toEqual(expect.arrayContaining(['indexable_orphan', 'listed_no_route']));
  expect(at('/a')).toEqual(expect.arrayContaining(['links_to_broken', 'anchor_generic', 'links_to_noindex']));
  expect(at('/gone')).toEqual([]);
  for (const { id, pages: touched, over } of report.findings)
    if (over !== 'files') {
      const named = Array.from({ length: snapshot.count }, (_, page) => page).filter((page) =>
        findingsAt(pages, page, report.ids).includes(id),
      );
      expect([id, named.length]).toEqual([id, touched]);
    }
});

it('follows share as it was worked out', () => {
  const { share, nodes } = siteShare(snapshot);
  const part = share[pageOf(snapshot, tiny('/gone'))] / nodes;
  expect(report.leaks.find(({ cause }) => cause === 'broken')?.part).toBeCloseTo(part, 12);
});

it('names findings by their ids, whatever is in the catalogue later', () => {
  const ids = ['gone_since', ...report.ids!.slice(0, 8), 'new_at_the_end'];
  const bits = Uint8Array.of(0b0000_0001, 0b10, 0, 0b10);
  expect(findingsAt(bits, 0, ids)).toEqual(['gone_since', 'new_at_the_end']);
  expect(findingsAt(bits, 1, ids)).toEqual(['new_at_the_end']);
});

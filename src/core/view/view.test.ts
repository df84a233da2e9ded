import { expect, it } from 'vitest';
import { comparePages } from '../compare';
import { draftOf, editOf } from '../draft';
import { settingsSchema } from '../settings';
import { walkOf } from '../reach';
import { factAt, memoOf } from '../snapshot';
import { tiny, TINY_START, tinySite } from '../testing/tinySite';
import { overView, viewOf, withComparison, withPlainShare } from '.';

const site = tinySite({ '/': { links: ['/a', '/b'] }, '/a': { links: ['/b'] }, '/b': {} });
const log = {
  id: 1,
  kind: 'list' as const,
  name: 'Ads',
  addresses: [tiny('/b')],
  columns: { rows: Float64Array.of(1) },
};

it('what is made of a view is shared by all that agree in what it reads, and by no others', () => {
  let made = 0;
  const verdictsOf = memoOf(['verdict'], ({ column }) => [++made, column('verdict').length]);
  const words = { ...site.links, anchor: new Uint8Array(site.links.anchor.length) };
  const alike = [
    site,
    viewOf(site, [log]),
    withPlainShare(site).view,
    withComparison(site, comparePages(site, site)),
    overView(site, { links: () => words, changedLinks: ['words'] }),
  ];
  for (const view of alike) {
    expect(walkOf(view).graph).toBe(walkOf(site).graph);
    expect(verdictsOf(view)).toBe(verdictsOf(site));
  }
  const settings = settingsSchema.parse({ start: TINY_START });
  const edited = draftOf(site, [editOf('add_link', tiny('/b'), { target: tiny('/') })], settings).view;
  expect(walkOf(edited).graph).not.toBe(walkOf(site).graph);
  expect(verdictsOf(edited)).toBe(verdictsOf(site));
  const judged = overView(site, { columns: { verdict: () => site.column('verdict').map(() => 0) } });
  expect(verdictsOf(judged)).not.toBe(verdictsOf(site));
  expect(made).toBe(2);
});

it('a comparison of a view with imports answers for that view', () => {
  const compared = withComparison(viewOf(site, [log]), comparePages(site, site));
  expect(factAt(compared, 'list_hits', 2)).toBe(1);
  expect(factAt(site, 'list_hits', 2)).toBeNull();
});

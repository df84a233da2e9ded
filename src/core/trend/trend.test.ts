import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { verdicts } from '../facts';
import { tinySite } from '../testing/tinySite';
import { spikes, trendCounts } from '.';

describe('the numbers of a timeline', () => {
  it('are those of its crawl', () => {
    const snapshot = tinySite({
      '/': { links: ['/a', '/gone', '/gone'] },
      '/a': { noindex: true },
      '/gone': { status: 404, html: false },
      '/lost': {},
    });
    const counts = trendCounts(snapshot);
    expect(counts).toMatchObject({ orphans: 1, brokenLinks: 2, medianDepth: 1, topTen: 1 });
    expect(counts.verdicts[verdicts.indexOf('indexable')]).toBe(2);
    expect(counts.verdicts.reduce((sum, n) => sum + n, 0)).toBe(snapshot.count);
  });
});

describe('spikes', () => {
  it('stand out from the other steps', () => {
    expect(spikes([10, 11, 10, 60, 61], 3)).toEqual([{ at: 3, before: 10, after: 60 }]);
    expect(spikes([10, 20, 30, 40, 50], 3)).toEqual([]);
    expect(spikes([100, 102], 1)).toEqual([]);
    expect(spikes([100, null, 160], 3)).toEqual([{ at: 2, before: 100, after: 160 }]);
  });
  it('are steps of the series, never more than there are', () =>
    fc.assert(
      fc.property(fc.array(fc.option(fc.nat(1000))), (series) => {
        const found = spikes(series, 1);
        expect(found.length).toBeLessThan(Math.max(1, series.length));
        for (const { at, after } of found) expect(series[at]).toBe(after);
      }),
    ));
});

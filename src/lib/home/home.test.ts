import { describe, expect, it } from 'vitest';
import { changesBetween } from './changes';
import { planOf } from './plan';

const defaults = { limit: 100_000, connections: 8 };

describe('the plan of a crawl', () => {
  it('says where it starts, what it follows and how long it may take', () => {
    const plan = planOf('example.org', [], defaults)!;
    expect(plan).toContain('Starts at https://example.org/ and follows links on example.org and www.example.org');
    expect(plan).toContain('up to 100,000 pages with 8 requests at once');
    expect(plan).toMatch(/usually take 35 s to 5 minutes\.$/);
  });
  it('says how it went before, for a site that is known', () => {
    const newest = { at: new Date('2027-03-01T09:30:00Z'), done: 463, known: 470, ranMs: 12_000 };
    expect(planOf('https://example.org', [{ start: 'https://example.org/', newest }], defaults)).toMatch(
      /^You have crawled https:\/\/example\.org\/ before: 463 URLs in 12 s on /,
    );
  });
  it('is none while no address is there', () => {
    expect(['', 'exam', 'ftp://example.org', 'a b'].map((typed) => planOf(typed, [], defaults))).toEqual(
      Array(4).fill(null),
    );
  });
});

describe('what has changed between two crawls', () => {
  const counts = { known: 10, indexable: 8, noRoute: 2, findings: 5 };
  it('is said with its sign, and what is equal is left out', () => {
    expect(changesBetween({ ...counts, known: 1210, findings: 4 }, counts)).toBe('+1,200 URLs, −1 finding');
    expect(changesBetween(counts, counts)).toBe('no change');
    expect(changesBetween(counts, null)).toBeNull();
  });
});

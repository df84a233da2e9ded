/** The findings that a person has judged (bench/judged), on the sites that are small enough to be crawled here. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { generatedSites } from '../bench/findings/crawl';
import { compareJudged, readJudged, reportedTest } from '../bench/findings/judged';
import { findings } from '../src/core/findings';
import { certificate } from './support/certificate';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

const names = ['shop', 'newspaper', 'university', 'brochure', 'demo'];
const judged = readJudged();

describe('judged findings', () => {
  it.each(names)('of the site “%s” are answered as they were', async (name) => {
    const { snapshot, start, settings } = await generatedSites(test.db, certificate()).get(name)!();
    const { changed } = compareJudged(judged.get(name)!, reportedTest(snapshot, start, settings));
    expect(changed).toEqual([]);
  });
  it('are of findings that there are, and right where a fault is claimed', () => {
    const certain = new Set(findings.filter(({ worthALook }) => !worthALook).map(({ id }) => id));
    const known = new Set(findings.map(({ id }) => id));
    const reported = [...judged.values()].flat().filter((one) => one.reported === 'yes');
    expect(reported.filter((one) => !known.has(one.finding))).toEqual([]);
    for (const id of certain) {
      const own = reported.filter((one) => one.finding === id);
      const right = own.filter((one) => one.verdict === 'right').length;
      expect([id, right >= 0.9 * own.length]).toEqual([id, true]);
    }
  });
});

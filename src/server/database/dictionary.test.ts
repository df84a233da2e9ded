import { afterAll, beforeAll, expect, it } from 'vitest';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { retryOutage } from '.';
import { dictionary } from './dictionary';
import { url } from './schema';

let test: TestDatabase;
beforeAll(async () => void (test = await testDatabase()));
afterAll(() => test.drop());

it('numbers the same addresses the same for all who add them at once, whatever stands in whose way', async () => {
  const addresses = Array.from({ length: 4000 }, (_, i) => `https://www.larkfield.example/stop/${i}`);
  const all = await Promise.all(
    Array.from({ length: 8 }, async (_, who) => {
      const { numbersOf } = dictionary(test.db, url, 1);
      const numbers = new Map<string, number>();
      for (let from = 0; from < addresses.length; from += 400) {
        const part = addresses.slice(from, from + 400);
        const texts = new Set(who % 2 ? part.reverse() : part);
        for (const [text, number] of await retryOutage(() => numbersOf(texts))) numbers.set(text, number);
      }
      return numbers;
    }),
  );
  for (const numbers of all) expect([...numbers].sort()).toEqual([...all[0]].sort());
  expect(new Set(all[0].values()).size).toBe(addresses.length);
});

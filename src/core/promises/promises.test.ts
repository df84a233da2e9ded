import { expect, it } from 'vitest';
import { loadedOnce } from '.';

it('loads once, and again only after it failed', async () => {
  let asked = 0;
  const load = loadedOnce(() =>
    ++asked === 1 ? Promise.reject(new Error('The server was away.')) : Promise.resolve(asked),
  );
  await expect(load()).rejects.toThrow('away');
  expect([await load(), await load(), asked]).toEqual([2, 2, 2]);
});

import { expect, it } from 'vitest';
import { atOnce } from '$core/promises';
import { inSlices } from './slices';

function* counting(): Generator<void, number> {
  for (let i = 0; i < 3; i++) yield;
  return 3;
}

it('work is done at once, or in slices with room for others, which a signal ends', async () => {
  expect(atOnce(counting())).toBe(3);
  const order: string[] = [];
  setImmediate(() => order.push('others'));
  order.push(`done ${await inSlices(counting())}`);
  expect(order).toEqual(['others', 'done 3']);
  const ended = new AbortController();
  const working = inSlices(counting(), ended.signal);
  ended.abort(new Error('No longer wanted.'));
  await expect(working).rejects.toThrow('No longer wanted.');
});

import { describe, expect, it } from 'vitest';
import { diskTrouble, isDiskFull, retryOutage } from '.';

describe('the disk of the database', () => {
  const free = (megabytes: number) => () => Promise.resolve(megabytes * 1e6);
  it('is told to be full before it is', async () => {
    expect(await diskTrouble('/data', free(5000))).toBeNull();
    expect(await diskTrouble('/data', free(120))).toEqual({ code: 'disk_full', megabytes: 120, needed: 200 });
  });
  it('is not judged where it cannot be known', async () => {
    expect(await diskTrouble('', free(1))).toBeNull();
    expect(await diskTrouble('/data', () => Promise.reject(new Error('no such folder')))).toBeNull();
    expect(await diskTrouble('.')).toBeNull();
  });
  it('when it is full is waited for, and nothing is lost', async () => {
    const full = [
      Object.assign(new Error('The table is full'), { code: 'ER_RECORD_FILE_FULL' }),
      new Error('Error writing file (Errcode: 28 "No space left on device")'),
    ];
    expect(full.map(isDiskFull)).toEqual([true, true]);
    expect(isDiskFull(new Error('Duplicate entry'))).toBe(false);
    expect(await retryOutage(() => (full.length ? Promise.reject(full.pop()!) : Promise.resolve('stored')))).toBe(
      'stored',
    );
  });
});

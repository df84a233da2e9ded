import { describe, expect, it } from 'vitest';
import { progressWriter } from './progress';

const state = {
  known: 1200,
  done: 34,
  unanswered: 0,
  bytes: 9,
  current: 'https://museum.example/a-rather-long-address',
  trouble: null,
};
function writer(terminal: { isTTY: boolean; columns?: number }) {
  const written: string[] = [];
  const out = { ...terminal, write: (text: string) => written.push(text) } as unknown as NodeJS.WriteStream;
  return { written, progress: progressWriter(out) };
}

describe('progress at the terminal', () => {
  it('is one line that is written over and never wraps', () => {
    const { written, progress } = writer({ isTTY: true, columns: 40 });
    progress.show(state);
    progress.show({ ...state, done: 35 });
    progress.end();
    expect(written).toHaveLength(3);
    // eslint-disable-next-line no-control-regex -- the escape that clears the line
    const lines = written.map((text) => text.replace(/^\r\x1b\[K/, ''));
    expect(lines[0]).toMatch(/^34 done of 1,200 known/);
    expect(lines.every((line) => line.length < 40 && !line.includes('\n'))).toBe(true);
    expect(lines[2]).toBe('');
  });
  it('is the reason, while nothing can be fetched', () => {
    const { written, progress } = writer({ isTTY: false });
    progress.show({ ...state, trouble: { code: 'disk_full', megabytes: 12, needed: 200 } });
    expect(written[0]).toMatch(/^Only 12 MB are free .* until 200 MB are/);
  });
  it('is a plain line now and then where nothing can be written over', () => {
    const { written, progress } = writer({ isTTY: false });
    for (let i = 0; i < 100; i++) progress.show(state);
    progress.end();
    expect(written).toHaveLength(1);
    expect(written[0]).toMatch(/^34 done of 1,200 known, .* https:\/\/museum\.example\/a-rather-long-address\n$/);
  });
});

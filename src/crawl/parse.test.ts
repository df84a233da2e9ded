import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { documentParser } from './parse';

setFlagsFromString('--expose-gc');
const collectGarbage = runInNewContext('gc') as () => void;
const heapMegabytes = () => {
  collectGarbage();
  return process.memoryUsage().heapUsed / 2 ** 20;
};

const start = 'https://www.larkfield.example/';
const head = { charset: undefined, directives: [], links: [], truncated: false };
const queued = { id: 1, address: start, rank: 0, hops: 0, isCheckOnly: false } as never;

it('keeps nothing of a document that it has parsed, whatever it remembers of its links', () => {
  const parse = documentParser({ settings: settingsSchema.parse({ start }), selectionOnly: false });
  const filler = `<!--${'tram '.repeat(40_000)}-->`;
  const before = heapMegabytes();
  for (let i = 0; i < 300; i++) {
    const name = `exhibits/tram-number-${i}`;
    const links = `<a href="${start}${name}"></a><a href="/${name}/history"></a><a href="/${name}/plan#depot"></a>`;
    const { discoveries } = parse({
      queued,
      body: Buffer.from(`<p id="${name}" class="${name}">${links}${filler}`),
      ...head,
    });
    expect(discoveries).toHaveLength(3);
  }
  // Their text alone is 57 MiB.
  expect(heapMegabytes() - before).toBeLessThan(10);
});

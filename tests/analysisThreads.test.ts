/** The thread that analyses larger crawls, as it is built, beside an analysis in place. */
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { encodeBase } from '$core/snapshot';
import { TINY_START, tinyBase } from '$core/testing/tinySite';
import { analyseInThread } from '../src/crawl/analysis';
import { analyseParts } from '../src/crawl/analysisParts';
import type { AnalysisStep } from '../src/crawl/analysisParts';

const built = join(process.cwd(), 'build-node', 'analysisThread.cjs');
const settings = settingsSchema.parse({ start: TINY_START });
const base = () =>
  tinyBase({ '/': { links: ['/trams', '/old'] }, '/trams': { links: ['/'] }, '/old': { status: 404 } });

describe('the thread of an analysis', () => {
  it('finds what is found in place, and tells its steps in the same order', async () => {
    const [there, here]: AnalysisStep[][] = [[], []];
    const parts = await analyseInThread(
      { parts: encodeBase(base()), settings },
      (step) => there.push(step),
      undefined,
      built,
    );
    const inPlace = analyseParts({
      parts: encodeBase(base()),
      settings,
      port: { postMessage: (step: AnalysisStep) => here.push(step) },
    });
    expect(parts).toEqual(inPlace);
    // Steps come by a way of their own: the last ones may not have arrived before the answer.
    expect(there).toEqual(here.slice(0, there.length));
  });
  it('ends when it is told to', async () => {
    const stop = new AbortController();
    const analysing = analyseInThread({ parts: encodeBase(base()), settings }, () => {}, stop.signal, built);
    stop.abort();
    await expect(analysing).rejects.toThrow();
  });
});

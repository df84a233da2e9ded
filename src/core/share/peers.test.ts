import { describe, expect, it } from 'vitest';
import { factAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';

const numbered = (path: string, n: number) => Array.from({ length: n }, (_, i) => `${path}${i}`);
const all = (paths: string[], page: TinyPage = {}) => Object.fromEntries(paths.map((path) => [path, page]));

describe('the share of a page against its peers', () => {
  const trams = numbered('/trams/', 6);
  const site = tinySite({
    '/': { links: [...trams, '/about', '/bus/0', '/deep'] },
    ...all(trams, { links: trams.slice(0, 5) }),
    '/about': { links: ['/trams/0'] },
    '/bus/0': {},
    '/deep': { links: ['/deep/down'] },
    '/deep/down': {},
    '/lost': { links: ['/'] },
  });
  const peers = (path: string) => factAt(site, 'peer_share', pageOf(site, tiny(path))) as number | null;

  it('is that of pages of its section at its depth', () => {
    expect(peers('/trams/1')).toBeCloseTo(1, 5);
    expect(peers('/trams/5')).toBeLessThan(0.5);
  });
  it('is that of all pages at its depth where its section has too few', () => {
    const share = (path: string) => factAt(site, 'share', pageOf(site, tiny(path))) as number;
    expect(peers('/about')! / peers('/bus/0')!).toBeCloseTo(share('/about') / share('/bus/0'), 9);
  });
  it('is unknown where there are no peers, and where the page cannot be reached', () => {
    expect(peers('/deep/down')).toBeNull();
    expect(peers('/lost')).toBeNull();
    expect(peers('/')).toBeNull();
  });
});

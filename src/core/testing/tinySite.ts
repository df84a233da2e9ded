/** Small sites for tests, written as a map from paths to what stands there. */
import { packLinks } from '../links';
import type { Landmark, LinkKind } from '../links';
import { nothingFound, snapshotBuilder } from '../snapshot';
import type { PageRecord, Snapshot, SnapshotRest } from '../snapshot';
import { evenWeights } from '../share';

export interface TinyPage extends Partial<Omit<PageRecord, 'number' | 'address' | 'linkCount'>> {
  /** Paths, or outside addresses, that the page links to by a click. */
  links?: string[];
  /** Paths with the words of the link, and where it stands. */
  worded?: [to: string, words: string, landmark?: Landmark][];
  /** Paths by another kind of link. */
  declared?: [LinkKind, string][];
}

export const TINY_START = 'https://tiny.example/';
export const tiny = (path: string) => new URL(path, TINY_START).href;

/** Builds the snapshot of a site whose start page is `/`; pages answer 200 with HTML unless they say otherwise. */
export function tinySite(
  pages: Record<string, TinyPage>,
  listed: string[] = [],
  rest: Partial<Pick<SnapshotRest, 'reading' | 'files'>> = {},
): Snapshot {
  const addresses = Object.keys(pages).map(tiny);
  const outside = new Map<number, string>();
  const phrases = new Map<number, string>();
  const numberOf = (path: string) => {
    const address = tiny(path);
    const inside = addresses.indexOf(address);
    if (inside >= 0) return inside + 1;
    const known = [...outside].find(([, text]) => text === address)?.[0];
    const number = known ?? 1000 + outside.size;
    outside.set(number, address);
    return number;
  };
  const phraseOf = (text: string) => {
    if (!text) return 0;
    const known = [...phrases].find(([, phrase]) => phrase === text)?.[0];
    const number = known ?? phrases.size + 1;
    phrases.set(number, text);
    return number;
  };
  const packed = new Map<number, Uint8Array>();
  const records = Object.entries(pages).map(
    ([path, { links = [], worded = [], declared = [], ...given }], i): PageRecord => {
      const redirect: [LinkKind, string][] = given.redirectTo ? [['redirect', given.redirectTo]] : [];
      type Made = [LinkKind, string, string, Landmark?];
      const all: Made[] = [
        ...links.map((to): Made => ['click', to, '']),
        ...worded.map(([to, words, landmark]): Made => ['click', to, words, landmark]),
        ...[...declared, ...redirect].map(([kind, to]): Made => [kind, to, '']),
      ];
      packed.set(
        i + 1,
        packLinks(
          all.map(([kind, to, words, landmark = 'main'], at) => ({
            kind,
            element: 'a' as const,
            landmark,
            target: to,
            anchor: words,
            rel: '',
            path: '',
            fragment: '',
            line: at + 1,
            column: 1,
          })),
          numberOf,
          phraseOf,
        ),
      );
      return {
        ...nothingFound,
        number: i + 1,
        address: tiny(path),
        unvisited: null,
        status: 200,
        contentType: 'text/html',
        html: true,
        title: path,
        noindex: false,
        ...given,
        redirectTo: given.redirectTo ? tiny(given.redirectTo) : null,
        canonical: given.canonical ? tiny(given.canonical) : null,
        linkCount: all.length,
      };
    },
  );
  const builder = snapshotBuilder(records);
  for (const [number, links] of packed) builder.addLinks(number, links);
  return builder.finish({
    starts: [TINY_START],
    listed: [],
    checks: new Map(),
    outside,
    phrases,
    listings: listed.map((path, i) => ({
      number: numberOf(path),
      sitemap: tiny('/sitemap.xml'),
      line: i + 3,
      lastmod: null,
    })),
    files: { robots: [], sitemaps: [] },
    reading: { sections: [], nearTolerance: 3, weights: evenWeights },
    ...rest,
  });
}

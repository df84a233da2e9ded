/** Small sites for tests, written as a map from paths to what is there. */
import { analyse } from '../analysis';
import type { AnalysisSettings } from '../analysis';
import type { UnvisitedReason } from '../facts';
import { packLinks } from '../links';
import type { LinkKind, Placement } from '../links';
import { evenWeights } from '../share';
import { baseBuilder, nothingFound } from '../snapshot';
import type { Base, BaseRest, FoundFacts } from '../snapshot';
import { viewOf } from '../view';
import type { View } from '../view';
import { wordFilter } from '../words';

export interface TinyPage extends Partial<FoundFacts> {
  unvisitedReason?: UnvisitedReason;
  /** The words of its content. */
  text?: string;
  /** Paths, or outside addresses, that the page links to by a click. */
  links?: string[];
  /** Paths with the words of the link, and where it is. */
  worded?: [to: string, words: string, placement?: Placement][];
  /** Paths with the elements above the link, as `body>main`. */
  placed?: [to: string, above: string][];
  /** Paths that sentences of the page link to, with the words of the link. */
  inText?: [to: string, words: string][];
  /** Likewise, as a draft adds them: in no element that is known. */
  drafted?: [to: string, words: string][];
  /** Paths of links with rel=nofollow. */
  nofollow?: string[];
  /** Paths with the words of the link and the fragment that it leads to. */
  fragments?: [to: string, words: string, fragment: string][];
  /** Paths by another kind of link. */
  declared?: [LinkKind, string][];
  /** As `declared`, in the head of the answer: no line says where. */
  headed?: [LinkKind, string][];
}

/** Stands for no path, of a link that has words beside it. */
const DRAFTED = 'drafted';
const TEXT_PATH = 'body>main>p>em';
export const TINY_START = 'https://tiny.example/';
export const tiny = (path: string) => new URL(path, TINY_START).href;
export const tinySettings: AnalysisSettings = { sections: [], nearTolerance: 3, weights: evenWeights };

/** Builds the base of a site whose start page is `/`; pages answer 200 with HTML unless they say otherwise. */
export function tinyBase(
  pages: Record<string, TinyPage>,
  listed: string[] = [],
  rest: Partial<Pick<BaseRest, 'files'>> = {},
): Base {
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
  const builder = baseBuilder();
  Object.entries(pages).forEach(
    (
      [
        path,
        {
          links = [],
          worded = [],
          placed = [],
          inText = [],
          drafted = [],
          fragments = [],
          nofollow = [],
          declared = [],
          headed = [],
          unvisitedReason,
          text = '',
          ...given
        },
      ],
      i,
    ) => {
      const redirect: [LinkKind, string][] = given.redirectTo ? [['redirect', given.redirectTo]] : [];
      type Made = [LinkKind, string, string, Placement?, string?, string?, string?];
      const all: Made[] = [
        ...links.map((to): Made => ['click', to, '']),
        ...worded.map(([to, words, placement]): Made => ['click', to, words, placement]),
        ...placed.map(([to, above]): Made => ['click', to, '', 'main', '', '', above]),
        ...inText.map(([to, words]): Made => ['click', to, words, 'main', '', '', TEXT_PATH]),
        ...drafted.map(([to, words]): Made => ['click', to, words, 'main', '', '', DRAFTED]),
        ...nofollow.map((to): Made => ['click', to, '', 'main', '', 'nofollow']),
        ...fragments.map(([to, words, fragment]): Made => ['click', to, words, 'main', fragment]),
        ...[...declared, ...redirect, ...headed].map(([kind, to]): Made => [kind, to, '']),
      ];
      const isHeaded = (at: number) => at >= all.length - headed.length;
      packed.set(
        i + 1,
        packLinks(
          all.map(([kind, to, words, placement = 'main', fragment = '', rel = '', above = ''], at) => ({
            kind,
            element: isHeaded(at) ? ('http' as const) : ('a' as const),
            placement,
            target: to,
            anchor: words,
            rel,
            above: above === DRAFTED ? '' : above,
            beside: above === TEXT_PATH || above === DRAFTED,
            fragment,
            line: isHeaded(at) ? 0 : at + 1,
            column: 1,
          })),
          numberOf,
          phraseOf,
        ),
      );
      builder.addPage({
        number: i + 1,
        address: tiny(path),
        unvisitedReason: unvisitedReason ?? null,
        linkCount: all.length,
        found: {
          ...nothingFound,
          status: 200,
          contentType: 'text/html',
          html: true,
          title: path,
          noindex: false,
          wordFilter: wordFilter(text),
          ...given,
          redirectTo: given.redirectTo ? tiny(given.redirectTo) : null,
          canonical: given.canonical ? tiny(given.canonical) : null,
        },
      });
    },
  );
  const layout = builder.layOut();
  for (const [number, links] of packed) layout.addLinks(number, links);
  return layout.finish({
    starts: [TINY_START],
    listed: new Set(),
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
    ...rest,
  });
}

/** As {@link tinyBase}, analysed. */
export const tinySite = (
  pages: Record<string, TinyPage>,
  listed: string[] = [],
  { settings, ...rest }: Partial<Pick<BaseRest, 'files'>> & { settings?: Partial<AnalysisSettings> } = {},
): View => viewOf(analyse(tinyBase(pages, listed, rest), { ...tinySettings, ...settings }));

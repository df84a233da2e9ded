import type { LinkElement, LinkKind } from '../links';

type Named = { kind: LinkKind; element: LinkElement; attributes: readonly string[] };
const of = (kind: LinkKind, element: LinkElement, ...attributes: string[]): Named => ({ kind, element, attributes });

/** The elements that fetch something, and the attributes that name it. */
export const embeddings: Readonly<Record<string, Named>> = {
  iframe: of('iframe', 'iframe', 'src'),
  frame: of('iframe', 'iframe', 'src'),
  img: of('image', 'img', 'src'),
  script: of('script', 'script', 'src'),
  source: of('other', 'source', 'src'),
  video: of('other', 'video', 'src', 'poster'),
  audio: of('other', 'audio', 'src'),
  track: of('other', 'track', 'src'),
  embed: of('other', 'embed', 'src'),
  object: of('other', 'object', 'data'),
  input: of('image', 'input', 'src'),
};

/** The kind of link that a `<link>` element or a Link header field makes; null when it is none that is kept. */
export function relationOf(rel: readonly string[], hasHreflang: boolean): LinkKind | null {
  if (rel.includes('canonical')) return 'canonical';
  if (rel.includes('stylesheet')) return 'style';
  if (rel.includes('alternate')) return hasHreflang ? 'hreflang' : 'alternate';
  if (rel.includes('next')) return 'next';
  if (rel.includes('prev') || rel.includes('previous')) return 'prev';
  if (rel.includes('amphtml')) return 'amphtml';
  return rel.some((one) => one === 'icon' || one === 'manifest' || one === 'preload' || one === 'modulepreload')
    ? 'other'
    : null;
}

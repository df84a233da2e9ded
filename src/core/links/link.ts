/**
 * One occurrence of a link (docs/MEANINGS.md, "Links"), whose texts are texts as they were found, or the numbers of
 * dictionary entries by which they are stored.
 */
export interface LinkOf<Text> {
  kind: LinkKind;
  element: LinkElement;
  /** Target address in normal form, inside or outside; as written when it is malformed. */
  target: Text;
  anchor: Text;
  /** Lower-cased rel tokens, joined by one space. */
  rel: Text;
  placement: Placement;
  /** Element names and classes above the link, outermost first: `body>main>ul.menu>li`. */
  above: Text;
  /** Fragment as written, without `#`. */
  fragment: Text;
  /** 1-based; 0 when the link stands in no document (a redirect, a Link header). */
  line: number;
  /** 1-based, counted in bytes as received. */
  column: number;
  /** True when it holds an image without a text instead, and no words. */
  bareImage?: boolean;
  /** True for a click link whose block (paragraph, list item, row of a table) has words besides its own. */
  beside?: boolean;
  /** True for a canonical that is written without its scheme and host. */
  relative?: boolean;
}

/** A link as it was found on a page. */
export interface Link extends LinkOf<string> {
  /** True when the target cannot be parsed as a URL, so that nothing can be asked for. */
  malformed?: boolean;
}
/** A link as it is stored; the empty text has the number 0. */
export type NumberedLink = LinkOf<number>;

// Stored as indexes: what is added goes to the end.
// Several words a line, to be read as a whole:
// prettier-ignore
export const linkKinds = [
  'click', 'redirect', 'refresh', 'canonical', 'hreflang', 'next', 'prev', 'amphtml', 'alternate', 'iframe', 'image',
  'script', 'style', 'other',
] as const;
export type LinkKind = (typeof linkKinds)[number];
/** The kind of links that a person can click. */
export const CLICK_KIND = linkKinds.indexOf('click');

// Several words a line, to be read as a whole:
// prettier-ignore
export const linkElements = [
  'a', 'area', 'link', 'meta', 'http', 'iframe', 'img', 'script', 'source', 'video', 'audio', 'track', 'embed',
  'object', 'input',
] as const;
export type LinkElement = (typeof linkElements)[number];

/** The landmark around a link; `none` for a link in no landmark. */
export const placements = ['none', 'header', 'nav', 'main', 'aside', 'footer'] as const;
export type Placement = (typeof placements)[number];

/** True for the links that carry a reader on without a click. */
export const costsNoClick = (kind: LinkKind) => kind === 'redirect' || kind === 'refresh';

/** True for what a page needs in order to be shown, and that is not a page itself. */
export const isResource = (kind: LinkKind): kind is 'image' | 'script' | 'style' | 'other' =>
  kind === 'image' || kind === 'script' || kind === 'style' || kind === 'other';

/** Whether a rel says that the link is not to be followed; `sponsored` and `ugc` say so too. */
export const relSaysNofollow = (rel: string) => rel !== '' && /(^| )(nofollow|sponsored|ugc)( |$)/.test(rel);

/**
 * Further pages of lists that are split up, and what is reached only through them: as new entries come, old ones slide
 * down such lists, and away from the start.
 */
import { CLICK_KIND, linkKinds } from '../links';
import { pageOf } from '../snapshot';
import type { Base, ColumnReader } from '../snapshot';
import { stems } from '../words';

export interface PagingBase extends Pick<Base, 'count' | 'links' | 'phrases'> {
  column: ColumnReader<'url' | 'title'>;
}

const NEXT_KIND = linkKinds.indexOf('next');
const PREV_KIND = linkKinds.indexOf('prev');
const numeral = /^[1-9]\d{0,5}$/;
const relOfSeries = /(^| )(next|prev)( |$)/;

/** So many numbers of an address, the last ones, may be that of a page. */
const MOST_NUMBERS = 3;

/** The last numbers in the path and the query of an address that are no years, with where they stand. */
const numbersIn = (address: string) =>
  [...address.slice(address.indexOf('/', 8)).matchAll(/\d{1,6}/g)]
    .map(({ 0: text, index }) => ({
      text,
      from: index + address.indexOf('/', 8),
    }))
    .filter(({ text }) => !/^(19|20)\d\d$/.test(text))
    .slice(-MOST_NUMBERS);

/** How many characters two addresses begin with alike. */
function commonStart(a: string, b: string): number {
  let at = 0;
  while (at < a.length && a[at] === b[at]) at++;
  return at;
}

/** What a title says besides numbers. */
const topicOf = (title: string | undefined) => stems((title ?? '').replace(/\d+/g, ' '));

/**
 * The further pages of lists, 1 for each. Such a page has a number of two or more in its address, and the list itself
 * or another page of it, whose title says the same apart from numbers, links to it: by that number (of an offset in a
 * query by any), by rel next or prev, or as the one that comes after it.
 */
export function pagingPages(base: PagingBase): Int32Array {
  const { count, links, phrases, column } = base;
  const [url, title] = [column('url'), column('title')];
  const { offsets, kind, target: targets, anchor, rel } = links;
  const addressOf = (page: number) => url.values[url.codes[page]];
  const topics = new Map<number, Set<string>>();
  const topic = (page: number) => {
    let own = topics.get(page);
    if (!own) topics.set(page, (own = topicOf(title.values[title.codes[page]])));
    return own;
  };
  /** Whether a page is of the same list as a further page of it, which may say more in its title: “page 2 of 7”. */
  const isSameList = (page: number, further: number) =>
    topic(page).size > 0 && [...topic(page)].every((word) => topic(further).has(word));
  const paging = new Int32Array(count);

  const isNumeral = phrases.map((text) => numeral.test(text));
  const isOfSeries = phrases.map((text) => relOfSeries.test(text));
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (target >= count || target === page || paging[target] === 1) continue;
      const isDeclared = kind[link] === NEXT_KIND || kind[link] === PREV_KIND || isOfSeries[rel[link]];
      if (!isDeclared && !(kind[link] === CLICK_KIND && isNumeral[anchor[link]])) continue;
      const address = addressOf(target);
      const query = address.indexOf('?');
      const common = commonStart(addressOf(page), address);
      const isNumbered = numbersIn(address).some(
        ({ text, from }) =>
          Number(text) >= 2 &&
          from + text.length > common &&
          (isDeclared || text === phrases[anchor[link]] || (query >= 0 && from > query)),
      );
      if (isNumbered && isSameList(page, target)) paging[target] = 1;
    }

  /** Whether a page links to another by words without a number, such as “older”. */
  const linksTo = (page: number, target: number) => {
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (targets[link] === target && kind[link] === CLICK_KIND && /^\D+$/.test(phrases[anchor[link]])) return true;
    return false;
  };
  /** The addresses of the page before: with the number before, or, for the second page, with none. */
  const before = (address: string) =>
    numbersIn(address).flatMap(({ text, from }) => {
      const number = Number(text);
      if (number < 2 || String(number) !== text) return [];
      const [head, tail] = [address.slice(0, from), address.slice(from + text.length)];
      const last = `${head}${number - 1}${tail}`;
      const above = head.slice(0, head.lastIndexOf('/') + 1);
      const higher = above.slice(0, above.lastIndexOf('/', above.length - 2) + 1);
      const withoutQuery = address.split('?')[0];
      const plain = /[-_.]$/.test(head) ? head.slice(0, -1) + tail : last;
      return number > 2 ? [last] : [last, plain, withoutQuery, above, higher, above.slice(0, -1), higher.slice(0, -1)];
    });
  for (let page = 0; page < count; page++) {
    if (paging[page] === 1) continue;
    paging[page] = Number(
      before(addressOf(page)).some((address) => {
        const known = pageOf(base, address);
        return known >= 0 && known !== page && isSameList(known, page) && linksTo(known, page);
      }),
    );
  }
  return paging;
}

/** What edits change of a view, gathered one edit after the other. */
import type { BaseFact } from '../facts';
import { CLICK_KIND, linkKinds, placements } from '../links';
import type { Link, LinkKind } from '../links';
import { addressAt, factAt, observedOf, pageOf } from '../snapshot';
import type { FactValue, FoundFacts } from '../snapshot';
import type { View } from '../view';

export type Facts = Partial<Record<BaseFact, FactValue>>;

/** A link that is put on a page. */
export interface PutLink {
  /** Number of the page that it is on. */
  source: number;
  /** Number of the page that it leads to, or an address off the site. */
  target: number | string;
  /** The link of the view that it is in all that `fields` do not say; null for a new one. */
  like: number | null;
  fields: Partial<Omit<Link, 'target'>>;
}

/** By which links are told from each other; '' is any. */
export interface LinkTest {
  target: string;
  anchor: string;
  placement: string;
}

/** A view as edits change it. Pages that are added are numbered after those of the view. */
export function changesOf(view: View) {
  const facts = new Map<number, Facts>();
  const added: string[] = [];
  const newPages = new Map<string, number>();
  const likePages = new Map<number, number | null>();
  const robots = new Map<string, string>();
  const dropped = new Set<number>();
  let put: PutLink[] = [];
  const { links } = view;

  const pageAt = (address: string) => newPages.get(address) ?? pageOf(view, address);
  const addressOf = (page: number) => (page < view.count ? addressAt(view, page) : added[page - view.count]);
  const valueOf = (page: number, name: BaseFact): FactValue => {
    const own = facts.get(page)?.[name];
    return own !== undefined ? own : page < view.count ? factAt(view, name, page) : null;
  };
  /** The address that a link of the view leads to, as a number of the view; −1 where no link leads there. */
  const viewTarget = (address: string) => {
    const page = pageOf(view, address);
    const outside = page < 0 ? view.outside.indexOf(address) : -1;
    return page >= 0 ? page : outside < 0 ? -1 : view.count + outside;
  };
  const isOnto = ({ target }: PutLink, address: string) =>
    typeof target === 'string' ? target === address : target === pageAt(address);
  const anchorOf = ({ like, fields }: PutLink) =>
    fields.anchor ?? (like === null ? '' : view.phrases[links.anchor[like]]);
  const placementOf = ({ like, fields }: PutLink) =>
    fields.placement ?? (like === null ? 'main' : placements[links.placement[like]]);
  const kindOf = ({ like, fields }: PutLink): LinkKind =>
    fields.kind ?? (like === null ? 'click' : linkKinds[links.kind[like]]);

  /** The links of the view that stand on a page still. */
  function* linksOn(page: number): Generator<number> {
    if (page >= view.count) return;
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) if (!dropped.has(link)) yield link;
  }

  return {
    facts: facts as ReadonlyMap<number, Facts>,
    added: added as readonly string[],
    /** Pages that have the words of another one; null where they are not known. */
    likePages: likePages as ReadonlyMap<number, number | null>,
    /** The text of each robots.txt that is exchanged, by the origin that it is for. */
    robots,
    dropped: dropped as ReadonlySet<number>,
    links: (): readonly PutLink[] => put,
    count: () => view.count + added.length,
    pageAt,
    addressOf,
    valueOf,
    /** Whether a page is HTML that was read, so that what is on it can be edited. */
    isRead: (page: number) => valueOf(page, 'html') === true && valueOf(page, 'status') === 200,
    change: (page: number, changed: Facts) => void facts.set(page, { ...facts.get(page), ...changed }),
    /** Has an address answer in another way: whatever was found there is forgotten, links included. */
    answer(page: number, found: Partial<FoundFacts>) {
      facts.set(page, { ...observedOf(addressOf(page), found), unvisited_reason: null });
      for (const link of linksOn(page)) dropped.add(link);
      put = put.filter(({ source }) => source !== page);
      if (found.html) likePages.set(page, null);
    },
    addPage(address: string): number {
      const page = view.count + added.push(address) - 1;
      newPages.set(address, page);
      return page;
    },
    /** Lets a page have the facts and links of another. */
    copyPage(from: number, to: number, names: readonly BaseFact[]) {
      facts.set(to, Object.fromEntries(names.map((name) => [name, valueOf(from, name)])));
      const like = likePages.get(from);
      likePages.set(to, like === undefined ? from : like);
      const own = put.filter(({ source }) => source === from).map((link) => ({ ...link, source: to }));
      for (const like of linksOn(from)) own.push({ source: to, target: targetOf(like), like, fields: {} });
      put.push(...own);
    },
    putLink: (source: number, target: number | string, fields: PutLink['fields']) =>
      void put.push({ source, target, like: null, fields }),
    /**
     * Takes click links that pass a test off a page, or has others in their place.
     * @returns how many there were
     */
    replaceLinks(page: number, test: LinkTest, replacement: Partial<Pick<PutLink, 'target' | 'fields'>> | null) {
      const target = viewTarget(test.target);
      let found = 0;
      const others: PutLink[] = [];
      for (const link of linksOn(page)) {
        if (links.kind[link] !== CLICK_KIND || links.target[link] !== target) continue;
        if (test.anchor && view.phrases[links.anchor[link]] !== test.anchor) continue;
        if (test.placement && placements[links.placement[link]] !== test.placement) continue;
        found++;
        dropped.add(link);
        if (replacement) others.push({ source: page, target: targetOf(link), like: link, fields: {}, ...replacement });
      }
      const kept = put.filter((link) => {
        const passes =
          link.source === page &&
          kindOf(link) === 'click' &&
          isOnto(link, test.target) &&
          (!test.anchor || anchorOf(link) === test.anchor) &&
          (!test.placement || placementOf(link) === test.placement);
        if (!passes) return true;
        found++;
        if (replacement) others.push({ ...link, ...replacement, fields: { ...link.fields, ...replacement.fields } });
        return false;
      });
      put = [...kept, ...others];
      return found;
    },
    /** Lets all click links to some pages lead to others, by number. */
    retarget(targets: ReadonlyMap<number, number>) {
      const others: PutLink[] = [];
      for (let page = 0; page < view.count; page++)
        for (const link of linksOn(page)) {
          const target = links.kind[link] === CLICK_KIND ? targets.get(links.target[link]) : undefined;
          if (target === undefined) continue;
          dropped.add(link);
          others.push({ source: page, target, like: link, fields: {} });
        }
      put = put.map((link) => {
        const to = typeof link.target === 'string' ? pageAt(link.target) : link.target;
        const target = kindOf(link) === 'click' ? targets.get(to) : undefined;
        return target === undefined ? link : { ...link, target };
      });
      put.push(...others);
    },
    /** Takes the links of one kind off a page. */
    dropKind(page: number, kind: LinkKind) {
      for (const link of linksOn(page)) if (linkKinds[links.kind[link]] === kind) dropped.add(link);
      put = put.filter((link) => link.source !== page || kindOf(link) !== kind);
    },
  };

  function targetOf(link: number): number | string {
    const target = links.target[link];
    if (target < view.count) return target;
    const address = addressAt(view, target);
    return newPages.get(address) ?? address;
  }
}
export type Changes = ReturnType<typeof changesOf>;

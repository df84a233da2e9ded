/** Whether edits have been made on the website, as a later crawl or a check of their pages has found it. */
import { CLICK_KIND, placements } from '../links';
import type { Message } from '../messages';
import { patternTest, scopeOf } from '../scope';
import type { CrawlSettings } from '../settings';
import { addressAt, factAt, once, pageOf } from '../snapshot';
import { originOf } from '../url';
import type { View } from '../view';
import type { Edit } from './edit';
import { movedAddress } from './move';

/** A page as it was found. */
export interface SeenPage {
  /** Null when no answer came. */
  status: number | null;
  html: boolean;
  redirectTo: string | null;
  canonical: string | null;
  noindex: boolean;
  nofollow: boolean;
  /** Its click links to an address. */
  linksTo: (address: string) => { anchor: string; placement: string }[];
}

/** A website as it was found, or a part of it. */
export interface SeenSite {
  /** Null for an address that nobody asked for. */
  pageAt: (address: string) => SeenPage | null;
  /** The addresses of all that is known. */
  addresses: () => Iterable<string>;
  /** The robots.txt of an origin; null when nobody asked for it. */
  robots: (origin: string) => string | null;
}

/**
 * What has become of an edit: made, not made, something else is there instead, or nobody looked. `found` tells what is
 * there.
 */
export interface Outcome {
  state: 'live' | 'not_yet' | 'otherwise' | 'unknown';
  found: Message | null;
}

const live: Outcome = { state: 'live', found: null };
const notYet: Outcome = { state: 'not_yet', found: null };
const unknown: Outcome = { state: 'unknown', found: null };
const otherwise = (found: Message): Outcome => ({ state: 'otherwise', found });
const liveIf = (is: boolean): Outcome => (is ? live : notYet);

/** What an address answers that is not the page that was expected. */
const answerOf = ({ status, redirectTo }: SeenPage): Outcome =>
  otherwise(redirectTo ? { code: 'found_redirect', address: redirectTo } : { code: 'found_status', status });

function redirectOutcome(page: SeenPage, target: string): Outcome {
  if (page.redirectTo === target) return live;
  return page.status === 200 && !page.redirectTo ? notYet : answerOf(page);
}

function removedOutcome(page: SeenPage, status: number): Outcome {
  if (page.status === status) return live;
  return page.status === 200 && !page.redirectTo ? notYet : answerOf(page);
}

function robotsOutcome(body: string, wanted: string): Outcome {
  if (body.trim() === wanted.trim()) return live;
  const [is, should] = [body, wanted].map((text) => text.trim().split(/\r\n|\r|\n/));
  const line = is.findIndex((text, i) => text.trim() !== should[i]?.trim());
  const at = line < 0 ? is.length : line;
  return { state: 'not_yet', found: { code: 'found_robots', line: at + 1, text: is[at] ?? '' } };
}

/** What edits of links find on a page that was read. */
function linkOutcome(page: SeenPage, edit: Edit, address: (text: string) => string): Outcome {
  const fits = (link: { anchor: string; placement: string }, anchor: string) =>
    (!anchor || link.anchor === anchor) && (!edit.placement || link.placement === edit.placement);
  const links = page.linksTo(address(edit.target));
  const still = links.some((link) => fits(link, edit.anchor));
  switch (edit.op) {
    case 'add_link': {
      // People put a link where they like; but one elsewhere that has other words was there before.
      if (links.some(({ anchor }) => !edit.anchor || anchor === edit.anchor)) return live;
      const isMain = (placement: string) => placement === 'main' || placement === 'none' || placement === '';
      const there = links.find(
        ({ placement }) => placement === edit.placement || (isMain(placement) && isMain(edit.placement)),
      );
      return there ? otherwise({ code: 'found_words', words: there.anchor }) : notYet;
    }
    case 'remove_link':
      return liveIf(!still);
    case 'reword_link':
      if (links.some((link) => fits(link, edit.value)) && (!still || edit.anchor === edit.value)) return live;
      if (still) return notYet;
      return otherwise(links.length ? { code: 'found_words', words: links[0].anchor } : { code: 'found_no_link' });
    default:
      if (still) return notYet;
      return page.linksTo(address(edit.value)).length ? live : otherwise({ code: 'found_no_link' });
  }
}

/** Edits of what an address answers, and not of the page there. */
const answers: ReadonlySet<Edit['op']> = new Set(['redirect', 'move_page', 'remove_page', 'add_page']);

/** Edits of links that pages have already. */
const changesLinks: ReadonlySet<Edit['op']> = new Set(['reword_link', 'retarget_link']);

/** Tells what has become of edits on a website as it was found. */
export function outcomeTest(site: SeenSite, settings: CrawlSettings): (edit: Edit) => Outcome {
  const scope = scopeOf(settings);
  const addressOf = (text: string, base?: string) => scope.identify(text, base)?.address ?? text;

  function onPage(edit: Edit, source: string): Outcome {
    const page = site.pageAt(source);
    if (!page) return unknown;
    const address = (text: string) => addressOf(text, source);
    switch (edit.op) {
      case 'redirect':
        return redirectOutcome(page, address(edit.target));
      case 'move_page': {
        const target = address(movedAddress(edit, source) ?? edit.target);
        const moved = site.pageAt(target);
        // Before it moves nothing is there; afterwards it must be the page.
        const isThere = !moved || moved.status === 200 || page.redirectTo !== target;
        return isThere ? redirectOutcome(page, target) : answerOf(moved);
      }
      case 'remove_page':
        return /^\d*$/.test(edit.value)
          ? removedOutcome(page, Number(edit.value || 404))
          : redirectOutcome(page, address(edit.value));
      case 'add_page':
        if (page.status === 200 && !page.redirectTo) return live;
        return page.status === 404 || page.status === 410 ? notYet : answerOf(page);
    }
    if (!page.html || page.redirectTo) return answerOf(page);
    switch (edit.op) {
      case 'canonical': {
        const wanted = edit.target ? address(edit.target) : null;
        if (page.canonical === wanted) return live;
        // A page that names itself, or nothing, has not got it yet.
        const isPlain = page.canonical === null || page.canonical === source;
        return isPlain && wanted ? notYet : otherwise({ code: 'found_canonical', address: page.canonical });
      }
      case 'noindex':
      case 'index':
        return liveIf(page.noindex === (edit.op === 'noindex'));
      case 'nofollow':
      case 'follow':
        return liveIf(page.nofollow === (edit.op === 'nofollow'));
      default:
        return linkOutcome(page, edit, address);
    }
  }

  function onPattern(edit: Edit): Outcome {
    const matches = patternTest(edit.source);
    let [done, looked] = [0, 0];
    let first = '';
    let none = unknown;
    for (const address of site.addresses()) {
      const page = matches(address) ? site.pageAt(address) : null;
      if (!page || (!page.html && !answers.has(edit.op))) continue;
      const outcome = onPage(edit, address);
      const { state } = outcome;
      // Some addresses that match answered otherwise before, and nobody meant them.
      if (state === 'otherwise' && answers.has(edit.op)) continue;
      // Nor does a link that a page has neither as it was nor as it is to be.
      if (state === 'otherwise' && changesLinks.has(edit.op)) {
        none = outcome;
        continue;
      }
      looked++;
      if (state === 'live') done++;
      else first ||= address;
    }
    if (looked === 0) return none;
    if (done === looked) return live;
    return done ? otherwise({ code: 'found_partly', done, looked, first }) : notYet;
  }

  return (edit) => {
    if (edit.op === 'robots') {
      const body = site.robots(originOf(addressOf(edit.source)));
      return body === null ? unknown : robotsOutcome(body, edit.value);
    }
    const source = addressOf(edit.source);
    return edit.source.includes('*') && !site.pageAt(source) ? onPattern(edit) : onPage(edit, source);
  };
}

/** A website as a crawl has found it. */
export function crawledSite(view: View): SeenSite {
  const { links, phrases } = view;
  const bodies = new Map(view.files.robots.map(({ origin, body }) => [origin, body]));
  const outside = once(() => new Map(view.outside.map((address, i) => [address, view.count + i])));
  const numberOf = (address: string) => {
    const page = pageOf(view, address);
    return page >= 0 ? page : (outside().get(address) ?? -1);
  };
  const seenAt = (page: number): SeenPage => ({
    status: factAt(view, 'status', page) as number | null,
    html: factAt(view, 'html', page) === true,
    redirectTo: factAt(view, 'redirect_to', page) as string | null,
    canonical: factAt(view, 'canonical', page) as string | null,
    noindex: factAt(view, 'noindex', page) === true,
    nofollow: factAt(view, 'page_nofollow', page) === true,
    linksTo: (address) => {
      const target = numberOf(address);
      const found: { anchor: string; placement: string }[] = [];
      for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
        if (links.kind[link] === CLICK_KIND && links.target[link] === target)
          found.push({ anchor: phrases[links.anchor[link]], placement: placements[links.placement[link]] });
      return found;
    },
  });
  return {
    pageAt: (address) => {
      const page = pageOf(view, address);
      return page < 0 ? null : seenAt(page);
    },
    addresses: function* () {
      for (let page = 0; page < view.count; page++) yield addressAt(view, page);
    },
    robots: (origin) => bodies.get(origin) ?? null,
  };
}

/** How many pages of a pattern are looked at: enough to tell whether a template has been changed. */
const MOST_OF_PATTERN = 40;

/** The addresses to be asked for when edits are checked: their pages, and of patterns some, evenly spread. */
export function addressesOf(edits: readonly Edit[], view: View, settings: CrawlSettings): string[] {
  const scope = scopeOf(settings);
  const site = crawledSite(view);
  const asked = new Set<string>();
  const add = (text: string, base?: string) => {
    const address = scope.identify(text, base)?.address;
    if (address && scope.inside(address)) asked.add(address);
  };
  for (const edit of edits) {
    const { op, source } = edit;
    if (op === 'robots') continue;
    const addWithTarget = (address: string) => {
      add(address);
      const moved = op === 'move_page' ? movedAddress(edit, address) : null;
      if (moved) add(moved);
    };
    if (!source.includes('*')) {
      addWithTarget(source);
      continue;
    }
    const matches = patternTest(source);
    const target = changesLinks.has(op) || op === 'remove_link' ? (scope.identify(edit.target)?.address ?? '') : null;
    const pages: string[] = [];
    for (let page = 0; page < view.count; page++) {
      const address = addressAt(view, page);
      const isMeant = factAt(view, 'html', page) === true && matches(address);
      if (isMeant && (target === null || site.pageAt(address)?.linksTo(target).length)) pages.push(address);
    }
    const step = Math.max(1, pages.length / MOST_OF_PATTERN);
    for (let at = 0; at < pages.length; at += step) addWithTarget(pages[Math.floor(at)]);
  }
  return [...asked];
}

/** Edits, applied one after the other: each finds what those before it have left. */
import { baseFacts } from '../facts';
import type { RobotsRule } from '../facts';
import { isContentPlacement, placements } from '../links';
import { parseRobots, robotsMatcher } from '../robots';
import type { RobotsMatcher } from '../robots';
import { patternTest, scopeOf } from '../scope';
import type { Scope } from '../scope';
import type { CrawlSettings } from '../settings';
import { robotsRuleText } from '../snapshot';
import { originOf } from '../url';
import type { View } from '../view';
import { changesOf } from './changes';
import type { Changes, Facts } from './changes';
import type { Edit, EditOp, Refusal } from './edit';
import { movedAddress } from './move';

interface Site {
  changes: Changes;
  scope: Scope;
  /** The rule of robots.txt that closes an address, if any, once edits have exchanged the file. */
  closedBy: (address: string) => RobotsRule | null;
}

/** Where an edit points: a page, or an address off the site. */
type Target = { refusal: NonNullable<Refusal> } | { refusal: null; target: number | string; fragment: string };

function targetOf({ changes, scope }: Site, target: string, base?: string): Target {
  const found = target === '' ? null : scope.identify(target, base);
  if (!found)
    return { refusal: target === '' ? { code: 'edit_needs_target' } : { code: 'edit_address', text: target } };
  const page = changes.pageAt(found.address);
  if (page >= 0) return { refusal: null, target: page, fragment: found.fragment };
  // What such an address would answer is not known.
  if (scope.inside(found.address)) return { refusal: { code: 'edit_unknown_target', address: found.address } };
  return { refusal: null, target: found.address, fragment: found.fragment };
}

const isPattern = (text: string) => text.includes('*');

/** The page that an edit names, or those that its pattern matches and that can be edited. */
function pagesOf({ changes, scope }: Site, { source }: Edit): { refusal: Refusal; pages: number[] } {
  const address = scope.identify(source)?.address;
  const page = address === undefined ? -1 : changes.pageAt(address);
  if (page >= 0) return { refusal: null, pages: [page] };
  if (!isPattern(source))
    return {
      refusal: address === undefined ? { code: 'edit_address', text: source } : { code: 'edit_unknown_page', address },
      pages: [],
    };
  const test = patternTest(source);
  const pages: number[] = [];
  for (let at = 0; at < changes.count(); at++) if (changes.isRead(at) && test(changes.addressOf(at))) pages.push(at);
  return { refusal: pages.length ? null : { code: 'edit_no_match', pattern: source }, pages };
}

/** Does something to each page of an edit, all of which have been read; the first refusal counts. */
function onPages(site: Site, edit: Edit, apply: (page: number) => Refusal): Refusal {
  const { refusal, pages } = pagesOf(site, edit);
  if (refusal) return refusal;
  const { changes } = site;
  const unread = pages.find((page) => !changes.isRead(page));
  if (unread !== undefined) return { code: 'edit_not_read', address: changes.addressOf(unread) };
  for (const page of pages) {
    const refused = apply(page);
    if (refused) return refused;
  }
  return null;
}

/** Where a page leads on to; −1 where it does not, or off the site. */
function nextOf({ changes }: Site, page: number): number {
  const to = changes.valueOf(page, 'redirect_to');
  return typeof to === 'string' ? changes.pageAt(to) : -1;
}

/** A new link in the content is taken for one in a sentence: that is where people are asked to put it. */
const inSentence = { beside: true };

/** Why a page cannot redirect somewhere. */
function redirectRefusal(site: Site, page: number, target: number | string): Refusal {
  const address = site.changes.addressOf(page);
  if (target === page) return { code: 'edit_itself', address };
  const seen = new Set<number>();
  for (let at = typeof target === 'string' ? -1 : target; at >= 0 && !seen.has(at); at = nextOf(site, at)) {
    if (at === page) return { code: 'edit_circle', address };
    seen.add(at);
  }
  return null;
}

function redirect({ changes }: Site, page: number, target: number | string): void {
  changes.answer(page, {
    status: 301,
    redirectTo: typeof target === 'string' ? target : changes.addressOf(target),
  });
  changes.putLink(page, target, { kind: 'redirect', element: 'http', placement: 'none' });
}

/** Judges addresses by the robots.txt of their host, as edits have left it. */
function judge(view: View, changes: Changes, token: string): Site['closedBy'] {
  const fetched = new Map(view.files.robots.map(({ origin, body }) => [origin, body]));
  const matchers = new Map<string, RobotsMatcher>();
  return (address) => {
    const origin = originOf(address);
    const text = changes.robots.get(origin) ?? fetched.get(origin) ?? '';
    const match = matchers.get(text) ?? robotsMatcher(parseRobots(text), token);
    matchers.set(text, match);
    const { allowed, rule } = match(address);
    return allowed ? null : (rule ?? null);
  };
}

/** What robots.txt says of a page, as facts. */
function robotsFacts({ changes, closedBy }: Site, page: number) {
  const rule = closedBy(changes.addressOf(page));
  return {
    robots_rule: rule && robotsRuleText(rule),
    robots_line: rule?.line ?? null,
    robots_group: rule?.group ?? null,
  };
}

/** Why no page can come to an address: it must be one of the site, at which no page answers yet. */
function freeRefusal({ changes, scope }: Site, text: string): Refusal {
  const address = scope.identify(text)?.address;
  if (address === undefined) return { code: 'edit_address', text };
  if (!scope.inside(address)) return { code: 'edit_outside', address };
  const known = changes.pageAt(address);
  return known >= 0 && changes.isRead(known) ? { code: 'edit_page_exists', address } : null;
}

/** The page at an address that is free; a new one where it is not known. */
function freePage({ changes, scope }: Site, text: string): number {
  const { address } = scope.identify(text)!;
  const known = changes.pageAt(address);
  return known >= 0 ? known : changes.addPage(address);
}

/** Has a page answer at another address, with all that it has, and redirect there. */
function movePage(site: Site, from: number, to: number): void {
  const { changes } = site;
  const isOwn = changes.valueOf(from, 'canonical') === changes.addressOf(from);
  changes.answer(to, {});
  changes.copyPage(
    from,
    to,
    baseFacts.filter((name) => name !== 'url' && name !== 'sitemap_lastmod'),
  );
  changes.change(to, { ...robotsFacts(site, to), ...(isOwn ? { canonical: changes.addressOf(to) } : {}) });
  redirect(site, from, to);
}

const linkIs = (edit: Edit, site: Site, page: number) => ({
  target: site.scope.identify(edit.target, site.changes.addressOf(page))?.address ?? edit.target,
  anchor: edit.anchor,
  placement: edit.placement,
});

/** Changes links on the pages of an edit, of which at least one must have such a link. */
function onLinks(site: Site, edit: Edit, replacement: Parameters<Changes['replaceLinks']>[2]): Refusal {
  let found = 0;
  const refusal = onPages(site, edit, (page) => {
    found += site.changes.replaceLinks(page, linkIs(edit, site, page), replacement);
    return null;
  });
  if (refusal || found) return refusal;
  return { code: 'edit_no_link', source: edit.source, target: edit.target, anchor: edit.anchor };
}

const withRule = (robots: unknown, rule: string) =>
  [...(typeof robots === 'string' ? robots.split(/\s*,\s*/) : []), rule].join(', ');
const withoutRule = (robots: unknown, ...rules: string[]) =>
  typeof robots === 'string'
    ? robots
        .split(/\s*,\s*/)
        .filter((one) => !rules.includes(one.toLowerCase()))
        .join(', ') || null
    : null;

/** Sets what the meta robots of pages says. */
const ruling =
  (rule: (robots: unknown) => Facts) =>
  (site: Site, edit: Edit): Refusal =>
    onPages(site, edit, (page) => {
      site.changes.change(page, rule(site.changes.valueOf(page, 'robots')));
      return null;
    });

const appliers: Record<EditOp, (site: Site, edit: Edit) => Refusal> = {
  add_link: (site, edit) =>
    onPages(site, edit, (page) => {
      const found = targetOf(site, edit.target, site.changes.addressOf(page));
      if (found.refusal) return found.refusal;
      const placement = placements.find((name) => name === edit.placement) ?? 'main';
      const fields = { anchor: edit.anchor, placement, fragment: found.fragment };
      site.changes.putLink(
        page,
        found.target,
        isContentPlacement[placements.indexOf(placement)] ? { ...fields, ...inSentence } : fields,
      );
      return null;
    }),
  remove_link: (site, edit) => (edit.target ? onLinks(site, edit, null) : { code: 'edit_needs_target' }),
  reword_link: (site, edit) =>
    edit.target ? onLinks(site, edit, { fields: { anchor: edit.value } }) : { code: 'edit_needs_target' },
  retarget_link: (site, edit) => {
    const found = targetOf(site, edit.value, isPattern(edit.source) ? undefined : edit.source);
    if (found.refusal) return found.refusal;
    const { target, fragment } = found;
    return edit.target ? onLinks(site, edit, { target, fields: { fragment } }) : { code: 'edit_needs_target' };
  },
  add_page: (site, edit) => {
    const refusal = freeRefusal(site, edit.source);
    if (refusal) return refusal;
    const page = freePage(site, edit.source);
    const title = edit.value || null;
    const found = { status: 200, contentType: 'text/html', html: true, title, noindex: false, pageNofollow: false };
    site.changes.answer(page, found);
    site.changes.change(page, robotsFacts(site, page));
    return null;
  },
  remove_page: (site, edit) => {
    const { refusal, pages } = pagesOf(site, edit);
    if (refusal) return refusal;
    const status = edit.value === '' ? 404 : Number(edit.value);
    if (status !== 404 && status !== 410) return appliers.redirect(site, { ...edit, target: edit.value });
    for (const page of pages) {
      if (Number(site.changes.valueOf(page, 'status')) >= 400)
        return { code: 'edit_not_there', address: site.changes.addressOf(page) };
      site.changes.answer(page, { status });
    }
    return null;
  },
  move_page: (site, edit) => {
    const { refusal, pages } = pagesOf(site, edit);
    if (refusal) return refusal;
    const { changes } = site;
    const unread = pages.find((page) => !changes.isRead(page));
    if (unread !== undefined) return { code: 'edit_not_read', address: changes.addressOf(unread) };
    const moved = pages.map((page) => movedAddress(edit, changes.addressOf(page)));
    // Several pages cannot stand at one address.
    if (moved.includes(null)) return { code: 'edit_move', source: edit.source, target: edit.target };
    for (const address of moved) {
      const refused = freeRefusal(site, address!);
      if (refused) return refused;
    }
    const targets = new Map(pages.map((page, i) => [page, freePage(site, moved[i]!)]));
    for (const [from, to] of targets) movePage(site, from, to);
    if (edit.value === 'links') changes.retarget(targets);
    return null;
  },
  redirect: (site, edit) => {
    const { refusal, pages } = pagesOf(site, edit);
    if (refusal) return refusal;
    const found = pages.map((page) => targetOf(site, edit.target, site.changes.addressOf(page)));
    // A pattern may match the page that all others redirect to.
    const isEnd = (i: number) => !found[i].refusal && found[i].target === pages[i] && pages.length > 1;
    for (const [i, one] of found.entries()) {
      const refused = one.refusal ?? (isEnd(i) ? null : redirectRefusal(site, pages[i], one.target));
      if (refused) return refused;
    }
    found.forEach((one, i) => one.refusal === null && !isEnd(i) && redirect(site, pages[i], one.target));
    return null;
  },
  canonical: (site, edit) =>
    onPages(site, edit, (page) => {
      const { changes } = site;
      const found = edit.target === '' ? null : targetOf(site, edit.target, changes.addressOf(page));
      if (found?.refusal) return found.refusal;
      changes.dropKind(page, 'canonical');
      changes.change(page, { canonical: null });
      if (!found) return null;
      const { target } = found;
      changes.change(page, { canonical: typeof target === 'string' ? target : changes.addressOf(target) });
      changes.putLink(page, target, { kind: 'canonical', element: 'link', placement: 'none' });
      return null;
    }),
  noindex: ruling((robots) => ({ noindex: true, robots: withRule(robots, 'noindex') })),
  index: ruling((robots) => ({ noindex: false, robots: withoutRule(robots, 'noindex', 'none') })),
  nofollow: ruling((robots) => ({ page_nofollow: true, robots: withRule(robots, 'nofollow') })),
  follow: ruling((robots) => ({ page_nofollow: false, robots: withoutRule(robots, 'nofollow', 'none') })),
  robots: (site, edit) => {
    const { changes, scope } = site;
    const address = scope.identify(edit.source)?.address;
    if (address === undefined) return { code: 'edit_address', text: edit.source };
    if (!scope.inside(address)) return { code: 'edit_outside', address };
    const origin = originOf(address);
    changes.robots.set(origin, edit.value);
    for (let page = 0; page < changes.count(); page++) {
      if (originOf(changes.addressOf(page)) !== origin) continue;
      const facts = robotsFacts(site, page);
      const asked = changes.valueOf(page, 'status') !== null || changes.valueOf(page, 'error') !== null;
      const isOpened = facts.robots_rule === null && changes.valueOf(page, 'robots_rule') !== null && !asked;
      // What was closed when the site was crawled is opened: nobody knows what it would answer.
      changes.change(page, { ...facts, ...(isOpened ? { unvisited_reason: 'robots' } : {}) });
    }
    return null;
  },
};

/** Whether an edit can be read at all. */
const malformed = ({ placement }: Edit): Refusal =>
  placement === '' || placements.some((name) => name === placement)
    ? null
    : { code: 'edit_placement', text: placement };

/**
 * Applies edits to a view, each to what those before it have left. One that cannot be applied changes nothing.
 * @returns what changes, and for each edit why it was not applied
 */
export function applyEdits(view: View, edits: readonly Edit[], settings: CrawlSettings) {
  const changes = changesOf(view);
  const site: Site = { changes, scope: scopeOf(settings), closedBy: judge(view, changes, settings.token) };
  const refusals = edits.map((edit) => malformed(edit) ?? appliers[edit.op](site, edit));
  return { changes, refusals };
}

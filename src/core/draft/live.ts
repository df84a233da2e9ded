/** Whether an edit has been made on the website, as a later crawl has found it. */
import { CLICK_KIND, placements } from '../links';
import { patternTest, scopeOf } from '../scope';
import type { CrawlSettings } from '../settings';
import { addressAt, factAt, pageOf } from '../snapshot';
import type { View } from '../view';
import type { Edit } from './edit';

/** Tests whether what edits ask for is so in a view already. */
export function liveTest(view: View, settings: CrawlSettings): (edit: Edit) => boolean {
  const scope = scopeOf(settings);
  const { links, phrases } = view;
  const addressOf = (text: string, base?: string) => scope.identify(text, base)?.address ?? text;
  const pageAt = (text: string) => pageOf(view, addressOf(text));
  const targetOf = (page: number, target: string) => {
    const address = addressOf(target, addressAt(view, page));
    const known = pageOf(view, address);
    const outside = known < 0 ? view.outside.indexOf(address) : -1;
    return known >= 0 ? known : outside < 0 ? -1 : view.count + outside;
  };
  const hasLink = (page: number, { target, placement }: Edit, anchor: string) => {
    const to = targetOf(page, target);
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
      if (
        links.kind[link] === CLICK_KIND &&
        links.target[link] === to &&
        (!anchor || phrases[links.anchor[link]] === anchor) &&
        (!placement || placements[links.placement[link]] === placement)
      )
        return true;
    return false;
  };
  const is = (page: number, fact: Parameters<typeof factAt>[1], value: unknown) => factAt(view, fact, page) === value;
  const onPages = (edit: Edit, test: (page: number) => boolean): boolean => {
    const page = pageAt(edit.source);
    if (page >= 0) return test(page);
    if (!edit.source.includes('*')) return false;
    const matches = patternTest(edit.source);
    for (let at = 0; at < view.count; at++)
      if (is(at, 'html', true) && matches(addressAt(view, at)) && !test(at)) return false;
    return true;
  };
  const tests: Record<Edit['op'], (edit: Edit) => boolean> = {
    add_link: (edit) => onPages(edit, (page) => hasLink(page, { ...edit, placement: '' }, edit.anchor)),
    remove_link: (edit) => onPages(edit, (page) => !hasLink(page, edit, edit.anchor)),
    reword_link: (edit) =>
      onPages(edit, (page) => !hasLink(page, edit, edit.anchor) && hasLink(page, edit, edit.value)),
    retarget_link: (edit) => onPages(edit, (page) => !hasLink(page, edit, edit.anchor)),
    add_page: ({ source }) => is(pageAt(source), 'status', 200),
    remove_page: (edit) =>
      onPages(edit, (page) =>
        /^\d*$/.test(edit.value)
          ? is(page, 'status', Number(edit.value || 404))
          : is(page, 'redirect_to', addressOf(edit.value)),
      ),
    move_page: (edit) => onPages(edit, (page) => is(page, 'redirect_to', addressOf(edit.target, edit.source))),
    redirect: (edit) => onPages(edit, (page) => is(page, 'redirect_to', addressOf(edit.target, edit.source))),
    canonical: (edit) =>
      onPages(edit, (page) => is(page, 'canonical', edit.target ? addressOf(edit.target, edit.source) : null)),
    noindex: (edit) => onPages(edit, (page) => is(page, 'noindex', true)),
    index: (edit) => onPages(edit, (page) => !is(page, 'noindex', true)),
    nofollow: (edit) => onPages(edit, (page) => is(page, 'page_nofollow', true)),
    follow: (edit) => onPages(edit, (page) => !is(page, 'page_nofollow', true)),
    robots: ({ source, value }) =>
      view.files.robots.some(({ origin, body }) => source.startsWith(origin) && body.trim() === value.trim()),
  };
  return (edit) => tests[edit.op](edit);
}

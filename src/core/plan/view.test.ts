import { describe, expect, it } from 'vitest';
import { draftOf } from '../draft';
import { evaluate, parseSelection } from '../selection';
import { settingsSchema } from '../settings';
import { pageOf } from '../snapshot';
import { tiny, tinySite, TINY_START } from '../testing/tinySite';
import type { View } from '../view';
import { planFor } from '.';
import type { PlanCall } from '.';

const settings = settingsSchema.parse({ start: TINY_START });
const pagesOf = (view: View, select: string) => {
  const parsed = parseSelection(select);
  if (!parsed.ok) throw new Error(select);
  return evaluate(view, parsed.selection);
};
const planned = (view: View, select: string, call: Omit<PlanCall, 'wanted'>) =>
  planFor(view, { ...call, wanted: pagesOf(view, select) }, settings);
/** The proposals as paths. */
const pathsOf = ({ proposals }: ReturnType<typeof planFor>) =>
  proposals.map(({ edit }) => `${new URL(edit.source, TINY_START).pathname} → ${new URL(edit.target).pathname}`);
const after = (view: View, { proposals }: ReturnType<typeof planFor>) =>
  draftOf(
    view,
    proposals.map(({ edit }) => edit),
    settings,
  ).view;

const museum = tinySite({
  '/': { title: 'Museum', links: ['/trams', '/buses', '/shop'], text: 'Welcome to all that rolled along our coast.' },
  '/trams': { title: 'Trams', links: ['/'], text: 'The trams slept in the depot behind the harbour.' },
  '/buses': { title: 'Buses', links: ['/'], text: 'The buses had blue lamps and a garage by the sea.' },
  '/shop': { title: 'Shop', links: ['/'], text: 'Posters and models of every car.' },
  '/depot': { title: 'The depot', text: 'Nine tracks under one roof.' },
});

describe('a plan for links from running text', () => {
  it('lets the pages link that speak of the target, each once', () => {
    const plan = planned(museum, 'title = "The depot"', { goal: 'text', amount: 2 });
    expect(pathsOf(plan)[0]).toBe('/trams → /depot');
    expect(plan).toMatchObject({ short: 1, missed: 0, fewest: 2 });
    expect(after(museum, plan).column('pages_linking_text')[pageOf(museum, tiny('/depot'))]).toBe(2);
  });
  it('leaves out pages that are not alike where that is asked for, and those that are named', () => {
    const call = { goal: 'text', amount: 3, alike: true } as const;
    expect(planned(museum, 'title = "The depot"', call)).toMatchObject({ missed: 1, fewest: 0 });
    expect(pathsOf(planned(museum, 'title = "The depot"', call))).toEqual(['/trams → /depot']);
    const without = pagesOf(museum, 'title = "Trams"');
    expect(pathsOf(planned(museum, 'title = "The depot"', { ...call, without }))).toEqual([]);
  });
  it('keeps to so many new links on a page, and edits in all', () => {
    const many = { goal: 'text', amount: 1, newLinks: 1 } as const;
    const sources = pathsOf(planned(museum, 'indexable', many)).map((path) => path.split(' ')[0]);
    expect(new Set(sources).size).toBe(sources.length);
    expect(planned(museum, 'indexable', { ...many, budget: 2 }).proposals).toHaveLength(2);
  });
});

describe('a plan for share', () => {
  it('adds links until the pages have it, as it is worked out with them', () => {
    const depot = pageOf(museum, tiny('/depot'));
    expect(museum.column('share')[depot]).toBeLessThan(0.6);
    const plan = planned(museum, 'title = "The depot"', { goal: 'share', amount: 0.6 });
    expect(plan).toMatchObject({ short: 1, missed: 0 });
    expect(after(museum, plan).column('share')[depot]).toBeGreaterThanOrEqual(0.6);
    expect(plan.proposals.length).toBeLessThan(4);
  });
});

it('a plan for share, too, lets only pages link that are alike where that is asked for', () => {
  const plan = planned(museum, 'title = "The depot"', { goal: 'share', amount: 0.6, alike: true });
  expect(pathsOf(plan)).toEqual(['/trams → /depot']);
  expect(plan.missed).toBe(1);
});

describe('a plan for fewer links on a page', () => {
  const footer = (paths: string[]) => paths.map((path): [string, string, 'footer'] => [path, path, 'footer']);
  const everywhere = footer(['/gone', '/shop', '/trams', '/press']);
  const site = tinySite({
    '/': { worded: [['/trams', 'Trams'], ['/shop', 'Shop'], ...everywhere] },
    '/trams': { worded: everywhere },
    '/shop': { worded: everywhere },
    '/press': { worded: everywhere },
    '/gone': { status: 301, html: false, redirectTo: '/' },
  });
  it('removes from the template what no page needs there', () => {
    const plan = planned(site, 'indexable', { goal: 'links', amount: 4 });
    expect(plan.proposals.map(({ edit }) => [edit.op, edit.source, edit.placement])).toEqual([
      ['remove_link', '*', 'footer'],
      ['remove_link', '*', 'footer'],
    ]);
    expect(pathsOf(plan).every((path) => !path.endsWith('/press'))).toBe(true);
    const view = after(site, plan);
    expect(Math.max(...view.column('links_out'))).toBe(4);
    expect(view.column('depth')[pageOf(site, tiny('/press'))]).toBe(1);
  });
  it('says how many pages stay crowded', () =>
    expect(planned(site, 'indexable', { goal: 'links', amount: 1 })).toMatchObject({ short: 4, missed: 1 }));
});

it('a plan for clicks lets only pages link that are alike, where that is asked for', () => {
  const plan = (alike: boolean) => planned(museum, 'indexable', { goal: 'within', amount: 2, alike });
  expect(pathsOf(plan(true))).toEqual(['/trams → /depot']);
  expect(plan(false)).toMatchObject({ short: 1, missed: 0, fewest: 1 });
});

/** Drafts: a view with edits is read like any other, and its facts are those of a site that is so. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { analyse } from '../analysis';
import { comparePages, factsOf } from '../compare';
import { derivedFacts } from '../facts';
import { findingsOf } from '../findings';
import { pagesCsv } from '../formats';
import { orderRows, pageList } from '../lists';
import { evaluate, numbersOf, parseSelection } from '../selection';
import { settingsSchema } from '../settings';
import { addressAt, factAt, nothingFound, pageOf } from '../snapshot';
import { tiny, tinyBase, tinySite, TINY_START } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { viewOf, withComparison } from '../view';
import type { View } from '../view';
import { draftOf, editOf } from '.';
import type { Edit } from '.';

const settings = settingsSchema.parse({ start: TINY_START });
const select = (view: View, text: string) => {
  const parsed = parseSelection(text);
  if (!parsed.ok) throw new Error(parsed.fault.message);
  return evaluate(view, parsed.selection);
};
const paths = (view: View, pages: Iterable<number>) =>
  Array.from(pages, (page) => new URL(addressAt(view, page)).pathname);
const at = (view: View, path: string, name: Parameters<typeof factAt>[1]) =>
  factAt(view, name, pageOf(view, tiny(path)));
const link = (from: string, to: string, anchor = '', placement = '') =>
  editOf('add_link', tiny(from), { target: tiny(to), anchor, placement });
const unlink = (from: string, to: string, anchor = '', placement = '') => ({
  ...link(from, to, anchor, placement),
  op: 'remove_link' as const,
});
const redirect = (from: string, to: string) => editOf('redirect', tiny(from), { target: tiny(to) });

describe('a page and a link that are added to a view', () => {
  const site = tinySite({ '/': { links: ['/trams'] }, '/trams': { links: ['/zoo'] }, '/zoo': {}, '/lost': {} });
  const { view: draft } = draftOf(
    site,
    [
      editOf('add_page', tiny('/hub'), { value: 'All collections' }),
      link('/', '/hub', 'Collections'),
      link('/hub', '/lost', 'Lost property'),
    ],
    settings,
  );
  it('are read as depth, list, selection, finding, comparison and file', () => {
    expect(['/', '/hub', '/lost', '/zoo'].map((path) => at(draft, path, 'depth'))).toEqual([0, 1, 2, 2]);
    expect(paths(draft, pageList(draft, select(draft, '')).rows)).toEqual(['/', '/hub', '/lost', '/trams', '/zoo']);
    expect(paths(draft, numbersOf(select(draft, 'linked from (title = "All collections")')))).toEqual(['/lost']);
    expect(paths(site, numbersOf(select(site, 'orphan')))).toEqual(['/lost']);
    const ids = (view: View) => findingsOf(view, settings).map(({ id }) => id);
    expect(ids(site).filter((id) => !ids(draft).includes(id))).toEqual(['indexable_orphan']);
    const compared = withComparison(draft, comparePages(site, draft));
    expect(paths(draft, numbersOf(select(compared, 'added')))).toEqual(['/hub']);
    expect(factsOf(compared.comparison, 'depth', pageOf(draft, tiny('/lost')))).toEqual({ before: null, after: 2 });
    expect([...pagesCsv(draft)].join('')).toContain('https://tiny.example/hub,');
  });
  it('leave the numbers of other pages, and the view below, as they were', () => {
    for (let page = 0; page < site.count; page++) expect(addressAt(draft, page)).toBe(addressAt(site, page));
    expect([site.count, draft.count, site.links.target.length]).toEqual([4, 5, 2]);
  });
  it('are sorted by address wherever they are numbered', () =>
    expect(paths(draft, orderRows(pageList(draft, select(draft, '')), 'url', true))).toEqual(
      ['/', '/hub', '/lost', '/trams', '/zoo'].reverse(),
    ));
  it('take in what led off the site, when that is added', () => {
    const leading = tinySite({ '/': { links: ['https://tiny.example/new', 'https://other.example/'] } });
    const { view: taken } = draftOf(leading, [editOf('add_page', tiny('/new'))], settings);
    expect(at(taken, '/new', 'depth')).toBe(1);
    expect(factAt(taken, 'external_links', 0)).toBe(1);
    expect(addressAt(taken, taken.links.target[1])).toBe('https://other.example/');
  });
});

describe('an edit', () => {
  const site = tinySite({
    '/': {
      worded: [
        ['/a', 'Trams', 'main'],
        ['/a', 'Home', 'footer'],
        ['/b', 'Buses', 'footer'],
      ],
    },
    '/a': {
      worded: [
        ['/b', 'Buses', 'footer'],
        ['/', 'Home', 'nav'],
      ],
      noindex: true,
      robots: 'noindex, noarchive',
    },
    '/b': { canonical: '/b', links: ['/gone'] },
    '/gone': { status: 404, html: false },
    '/old': { status: 301, html: false, redirectTo: '/a' },
  });
  const drafted = (...edits: Edit[]) => draftOf(site, edits, settings);
  const anchorsOf = (view: View, path: string) => {
    const page = pageOf(view, tiny(path));
    const { offsets, anchor, target } = view.links;
    return Array.from({ length: offsets[page + 1] - offsets[page] }, (_, i) => {
      const one = offsets[page] + i;
      return `${view.phrases[anchor[one]]} → ${new URL(addressAt(view, target[one])).pathname}`;
    });
  };
  it('takes links away by target, words and placement', () => {
    expect(anchorsOf(drafted(unlink('/', '/a')).view, '/')).toEqual(['Buses → /b']);
    expect(anchorsOf(drafted(unlink('/', '/a', 'Trams')).view, '/')).toEqual(['Home → /a', 'Buses → /b']);
    expect(anchorsOf(drafted(unlink('/', '/a', '', 'main')).view, '/')).toEqual(['Home → /a', 'Buses → /b']);
  });
  it('holds for all pages that its pattern matches', () => {
    const { view } = drafted(editOf('remove_link', '*', { target: tiny('/b'), placement: 'footer' }));
    expect(at(view, '/b', 'pages_linking')).toBe(0);
    expect(at(site, '/b', 'pages_linking')).toBe(2);
  });
  it('rewords a link and leaves the rest of it as it is', () => {
    const { view } = drafted({ ...unlink('/', '/a', 'Home'), op: 'reword_link', value: 'Tram depot' });
    expect(anchorsOf(view, '/').sort()).toEqual(['Buses → /b', 'Trams → /a', 'Tram depot → /a'].sort());
    expect(at(view, '/a', 'links_in')).toBe(2);
  });
  it('lets links lead somewhere else', () => {
    const { view } = drafted(editOf('retarget_link', '*', { target: tiny('/b'), value: tiny('/a') }));
    expect([at(view, '/a', 'links_in'), at(view, '/b', 'links_in')]).toEqual([3, 0]);
  });
  it('sets what may be indexed', () => {
    const { view } = drafted(
      editOf('index', tiny('/a')),
      editOf('noindex', tiny('/b')),
      editOf('canonical', tiny('/'), { target: tiny('/a') }),
    );
    expect(['/', '/a', '/b'].map((path) => at(view, path, 'verdict'))).toEqual([
      'canonicalised',
      'indexable',
      'noindex',
    ]);
    expect(at(view, '/a', 'robots')).toBe('noarchive');
  });
  it('moves a page with its links, and leaves a redirect behind', () => {
    const move = editOf('move_page', tiny('/b'), { target: '/buses' });
    const { view } = drafted(move);
    expect(anchorsOf(view, '/buses')).toEqual([' → /gone']);
    expect([at(view, '/b', 'redirect_end'), at(view, '/buses', 'canonical')]).toEqual([tiny('/buses'), tiny('/buses')]);
    expect([at(view, '/buses', 'pages_linking'), at(view, '/b', 'pages_linking')]).toEqual([0, 2]);
    const corrected = drafted({ ...move, value: 'links' }).view;
    expect([at(corrected, '/buses', 'pages_linking'), at(corrected, '/b', 'pages_linking')]).toEqual([2, 0]);
  });
  it('moves a folder, page by page, and corrects the links', () => {
    const folder = viewOf(
      analyse(
        tinyBase({
          '/': { links: ['/learn/a', '/learn/b'] },
          '/learn/a': { links: ['/learn/b'] },
          '/learn/b': { links: ['/'] },
          '/discover/old': {},
        }),
        settings,
      ),
    );
    const move = editOf('move_page', tiny('/learn/*'), { target: '/discover/*', value: 'links' });
    const { view, refusals } = draftOf(folder, [move], settings);
    expect(refusals).toEqual([null]);
    expect(at(view, '/learn/a', 'redirect_to')).toBe(tiny('/discover/a'));
    expect([at(view, '/discover/b', 'pages_linking'), at(view, '/learn/b', 'pages_linking')]).toEqual([2, 0]);
    expect(at(view, '/discover/b', 'depth')).toBe(1);
    const taken = [editOf('add_page', tiny('/discover/b')), move];
    expect(draftOf(folder, taken, settings).refusals[1]).toEqual({
      code: 'edit_page_exists',
      address: tiny('/discover/b'),
    });
    const toOne = editOf('move_page', tiny('/learn/*'), { target: '/discover' });
    expect(draftOf(folder, [toOne], settings).refusals[0]?.code).toBe('edit_move');
  });
  it('closes pages by another robots.txt', () => {
    const { view } = drafted(editOf('robots', TINY_START, { value: 'User-agent: *\nDisallow: /b' }));
    expect([at(view, '/b', 'verdict'), at(view, '/b', 'robots_line')]).toEqual(['blocked', 2]);
    const added = drafted(
      editOf('robots', TINY_START, { value: 'User-agent: *\nDisallow: /c' }),
      editOf('add_page', tiny('/c')),
    );
    expect(at(added.view, '/c', 'verdict')).toBe('blocked');
  });
  it.each<[string, Edit[], string]>([
    ['a link from a page that is removed', [editOf('remove_page', tiny('/b')), link('/b', '/a')], 'edit_not_read'],
    ['a redirect to itself', [redirect('/a', '/a')], 'edit_itself'],
    ['redirects in a circle', [redirect('/b', '/old'), redirect('/a', '/b')], 'edit_circle'],
    ['a link that is not there', [unlink('/', '/a', 'Ships')], 'edit_no_link'],
    ['a link to a page that is not known', [link('/', '/new')], 'edit_unknown_target'],
    ['a page that is not known', [editOf('noindex', tiny('/new'))], 'edit_unknown_page'],
    ['a page that is there already', [editOf('add_page', tiny('/b'))], 'edit_page_exists'],
    ['a page of another site', [editOf('add_page', 'https://other.example/')], 'edit_outside'],
    ['what is not an address', [editOf('noindex', 'http://')], 'edit_address'],
    ['a pattern without pages', [editOf('noindex', '/shop/*')], 'edit_no_match'],
    ['a page that is gone', [editOf('remove_page', tiny('/gone'))], 'edit_not_there'],
    ['a landmark that is none', [link('/', '/b', '', 'sidebar')], 'edit_placement'],
  ])('is refused: %s', (_, edits, code) => {
    const { refusals } = drafted(...edits);
    expect(refusals.map((refusal) => refusal?.code ?? null)).toEqual([...edits.slice(1).map(() => null), code]);
  });
  it('changes nothing where it is refused', () => {
    const { view } = drafted(editOf('canonical', tiny('/b'), { target: tiny('/new') }));
    expect(at(view, '/b', 'canonical')).toBe(tiny('/b'));
    // The second of the pages that match would redirect in a circle.
    const circle = drafted(editOf('redirect', '*', { target: tiny('/old') }));
    expect([circle.refusals[0]?.code, at(circle.view, '/b', 'verdict')]).toEqual(['edit_circle', 'indexable']);
    expect(at(circle.view, '/', 'verdict')).toBe('indexable');
  });
});

describe('a draft', () => {
  const names = ['/', '/a', '/b', '/c', '/d', '/e', '/f'];
  const name = fc.constantFrom(...names);
  const words = fc.constantFrom('', 'Trams', 'read more');
  const made: fc.Arbitrary<Edit> = fc.oneof(
    { weight: 4, arbitrary: fc.tuple(name, name, words).map(([from, to, anchor]) => link(from, to, anchor)) },
    { weight: 3, arbitrary: fc.tuple(name, name).map(([from, to]) => unlink(from, to)) },
    fc.tuple(name, name).map(([from, to]) => redirect(from, to)),
    fc
      .tuple(name, fc.constantFrom('404', '410', ''))
      .map(([page, value]) => editOf('remove_page', tiny(page), { value })),
    name.map((page) => editOf('add_page', tiny(page), { value: page })),
    name.map((page) => editOf('noindex', tiny(page))),
    name.map((page) => editOf('index', tiny(page))),
    fc.tuple(name, name).map(([page, to]) => editOf('canonical', tiny(page), { target: tiny(to) })),
  );
  /** The same edits, done to the site itself. */
  function edited(pages: Record<string, TinyPage>, edits: readonly Edit[]): Record<string, TinyPage> {
    const after = structuredClone(pages);
    for (const { op, source, target, anchor, value } of edits) {
      const path = new URL(source).pathname;
      const to = target && new URL(target).pathname;
      const page = after[path];
      if (op === 'add_link') page.drafted = [...(page.drafted ?? []), [to, anchor]];
      if (op === 'remove_link')
        for (const kind of ['worded', 'drafted'] as const)
          page[kind] = page[kind]?.filter(([other]) => other !== to) as [];
      if (op === 'noindex' || op === 'index') page.noindex = op === 'noindex';
      if (op === 'canonical') Object.assign(page, { canonical: to, declared: [['canonical', to]] });
      if (op === 'redirect')
        after[path] = { ...nothingFound, contentType: null, title: null, status: 301, redirectTo: to };
      if (op === 'remove_page') after[path] = { ...nothingFound, status: value === '410' ? 410 : 404 };
      if (op === 'add_page') after[path] = { title: value, pageNofollow: false, wordFilter: null };
    }
    return after;
  }
  it('has the facts that a whole analysis finds of a site that is so', () => {
    const links = fc.array(fc.tuple(name, name, words), { maxLength: 12 });
    fc.assert(
      fc.property(links, fc.array(made, { maxLength: 12 }), (pairs, asked) => {
        const pages: Record<string, TinyPage> = Object.fromEntries(
          names.slice(0, 6).map((path) => [path, { worded: [] } as TinyPage]),
        );
        for (const [from, to, anchor] of pairs) if (to !== '/f') pages[from]?.worded!.push([to, anchor]);
        const site = viewOf(analyse(tinyBase(pages), settings));
        const { refusals } = draftOf(site, asked, settings);
        const edits = asked.filter((_, i) => refusals[i] === null);
        const draft = draftOf(site, edits, settings);
        expect(draft.refusals.every((refusal) => refusal === null)).toBe(true);
        const whole = viewOf(analyse(tinyBase(edited(pages, edits)), settings));
        expect(new Set(Array.from({ length: draft.view.count }, (_, page) => addressAt(draft.view, page)))).toEqual(
          new Set(Array.from({ length: whole.count }, (_, page) => addressAt(whole, page))),
        );
        for (const fact of derivedFacts)
          for (let page = 0; page < whole.count; page++) {
            const address = addressAt(whole, page);
            const [is, should] = [factAt(draft.view, fact, pageOf(draft.view, address)), factAt(whole, fact, page)];
            if (typeof should === 'number' && typeof is === 'number') expect(is).toBeCloseTo(should, 9);
            else expect([address, fact, is]).toEqual([address, fact, should]);
          }
      }),
      { numRuns: 150 },
    );
  });
});

import { describe, expect, it } from 'vitest';
import { withState } from './shell/address';
import { depthsOf, pickDepth, selectionOf } from './selection/depthSelection';
import { settingsSchema } from '$core/settings';
import { readSecrets } from './settings/secretFields';
import { dossierFacts } from './dossier/dossierFacts';
import { allFields, readSettingsForm, typedOf } from './settings/settingsFields';
import { bytes, number, shortAddress } from './shell/words';

describe('bars and selections', () => {
  it.each([
    [[3], 'depth = 3'],
    [[5, 3], 'depth in (3, 5)'],
    [[null], 'not reached'],
    [[3, null], 'depth = 3 or not reached'],
    [[], ''],
  ])('%o is written as “%s” and read back', (depths, text) => {
    expect(selectionOf(depths)).toBe(text);
    expect(new Set(depthsOf(text))).toEqual(new Set(depths));
  });
  it('does not claim a selection that it could not have written', () =>
    expect(depthsOf('depth = 3 and indexable')).toEqual([]));
  it('picks one, picks it off again, and adds with a key held', () => {
    expect(pickDepth('', 2, false)).toBe('depth = 2');
    expect(pickDepth('depth = 2', 2, false)).toBe('');
    expect(pickDepth('depth = 2', 4, false)).toBe('depth = 4');
    expect(pickDepth('depth = 2', null, true)).toBe('depth = 2 or not reached');
    expect(pickDepth('depth in (2, 4)', 4, true)).toBe('depth = 2');
  });
});

it('keeps the state of a screen in the address, and nothing that is empty', () => {
  const url = new URL('http://127.0.0.1/sites/1/crawls/2/reach?select=depth+%3D+3&sort=title');
  expect(withState(url, { page: 'https://a.example/' })).toBe(
    '/sites/1/crawls/2/reach?select=depth+%3D+3&sort=title&page=https%3A%2F%2Fa.example%2F',
  );
  expect(withState(url, { select: '', sort: '' })).toBe('/sites/1/crawls/2/reach');
});

it('writes numbers with separators, and unknown as a dash', () => {
  expect(number(1234567)).toBe('1,234,567');
  expect(number(null)).toBe('—');
  expect(bytes(2_340)).toBe('2.3 kB');
});
it('shortens addresses of the site only', () => {
  expect(shortAddress('https://a.example/x?y', 'https://a.example/start')).toBe('/x?y');
  expect(shortAddress('http://a.example/x', 'https://a.example/')).toBe('http://a.example/x');
});

describe('the form of settings', () => {
  const form = (fields: Record<string, string>) => {
    const data = new FormData();
    for (const [name, value] of Object.entries(fields)) data.set(name, value);
    return data;
  };
  const read = (fields: Record<string, string>) =>
    readSettingsForm(form(fields), (given) => settingsSchema.safeParse(given));

  it('has a field for every setting', () => {
    const named = new Set(['start', ...allFields.map(({ name }) => name.split('.')[0])]);
    expect(Object.keys(settingsSchema.parse({ start: 'x' })).filter((name) => !named.has(name))).toEqual([]);
  });
  it('reads what was typed', () =>
    expect(
      read({
        start: 'museum.example/fr/start',
        folder: 'fr',
        limit: '10,000',
        depth: '',
        rate: '0.5',
        robots: 'look-past',
        overrides: 'museum.example=127.0.0.1:81\n',
        acceptCertificates: 'on',
        hosts: 'https://Shop.museum.example/',
        'check.image': 'on',
      }),
    ).toMatchObject({
      ok: true,
      settings: {
        start: 'https://museum.example/fr/start',
        folder: '/fr/',
        limit: 10_000,
        depth: null,
        rate: 0.5,
        robots: 'look-past',
        acceptCertificates: true,
        overrides: [{ toPort: 81 }],
        hosts: ['shop.museum.example'],
        check: { image: true, script: false },
        follow: { canonical: false },
      },
    }));
  it('says what is wrong field by field and keeps what was typed', () => {
    const wrong = read({
      start: 'no url',
      limit: 'many',
      connections: '0',
      sitemaps: 'map',
      overrides: 'x',
      token: '1',
      hosts: 'a b',
    });
    expect(wrong.ok).toBe(false);
    if (wrong.ok) return;
    expect(Object.keys(wrong.faults).sort()).toEqual([
      'connections',
      'hosts',
      'limit',
      'overrides',
      'sitemaps',
      'start',
    ]);
    expect(wrong.typed.limit).toBe('many');
    const later = read({ start: 'museum.example', token: '1', folder: '/fr/' });
    expect(later.ok ? {} : later.faults).toEqual({ folder: 'The start address is not under /fr/.' });
    const last = read({ start: 'museum.example', token: '1' });
    expect(last.ok ? {} : last.faults).toEqual({ token: 'It is made of letters, - and _.' });
  });
  it('shows settings as they were read', () => {
    const settings = settingsSchema.parse({
      start: 'https://museum.example/',
      exclude: ['/a*', 'b$'],
      depth: 4,
      overrides: [{ host: 'museum.example', toHost: '::1', toPort: 81 }],
    });
    const again = read(typedOf(settings));
    expect(again.ok ? again.settings : again.faults).toEqual(settings);
  });
  it('reads how a crawl is to be understood', () => {
    const given = {
      start: 'museum.example',
      sections: '/shop/* = Shop\n/fr/$ = En français',
      nearTolerance: '5',
      'weights.nav': '0.5',
      'thresholds.starvingShare': '0.2',
    };
    expect(read(given)).toMatchObject({
      ok: true,
      settings: {
        sections: [
          { pattern: '/shop/*', name: 'Shop' },
          { pattern: '/fr/$', name: 'En français' },
        ],
        nearTolerance: 5,
        weights: { header: 1, nav: 0.5 },
        thresholds: { starvingShare: 0.2, deepClicks: 3 },
      },
    });
    const wrong = read({ start: 'museum.example', sections: '/shop', nearTolerance: '7' });
    expect(wrong.ok ? {} : wrong.faults).toEqual({
      sections: '“/shop” is not of the form pattern = name.',
      nearTolerance: 'Give a whole number from 0 to 6.',
    });
  });
  it('keeps secrets until others are typed', () => {
    const stored = { headers: [{ name: 'X', value: '1' }], cookie: 'a=1', basic: null };
    expect(readSecrets(form({}), stored, {})).toBeUndefined();
    expect(readSecrets(form({ user: 'u', password: 'p' }), stored, {})).toEqual({
      ...stored,
      basic: { user: 'u', password: 'p' },
    });
    expect(readSecrets(form({ forget: 'on' }), stored, {})).toEqual({ headers: [], cookie: '', basic: null });
    const faults = {};
    readSecrets(form({ headers: 'no colon' }), stored, faults);
    readSecrets(form({ cookie: 'ünïcode☃' }), stored, faults);
    expect(Object.keys(faults)).toEqual(['headers', 'cookie']);
  });
});

it('says the facts of a dossier in words, and unknown as a dash', () => {
  const facts = {
    share: 1.3249,
    crawler_depth: null,
    held_back: 'robots',
    gate_for: 1,
    anchor_faults: ['off_topic', 'split'],
    canonical: 'https://museum.example/a',
    duplicates: 0,
    h1: '',
  };
  const said = Object.fromEntries(dossierFacts(facts, 'https://museum.example/'));
  expect(said).toMatchObject({
    Share: '1.32×',
    'As crawler': 'kept back by robots.txt',
    'Gate for': '1 page',
    'Their faults': 'off topic, split',
    Canonical: '/a',
    Duplicates: '0',
    Heading: '—',
    Variants: '—',
  });
});

import { describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { readSecrets } from './secretFields';
import { allFields } from './settingsFields';
import { readSettingsForm, typedOf } from './settingsForm';

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

import { describe, expect, it } from 'vitest';
import { agents, formatOverride, parseOverride, presetOf, readSettingsFile, settingsFile, settingsSchema } from '.';

it.each([
  ['www.museum.example=127.0.0.1:8080', { host: 'www.museum.example', toHost: '127.0.0.1', toPort: 8080 }],
  [
    ' WWW.Museum.example:443 = staging.example:8443 ',
    { host: 'www.museum.example', port: 443, toHost: 'staging.example', toPort: 8443 },
  ],
  ['museum.example=[::1]:80', { host: 'museum.example', toHost: '::1', toPort: 80 }],
])('reads the override %s', (text, expected) => {
  const override = parseOverride(text)!;
  expect(override).toEqual(expected);
  expect(parseOverride(formatOverride(override))).toEqual(override);
});
it.each(['', 'museum.example', 'museum.example=127.0.0.1', 'museum.example=:80', '=1.2.3.4:80', 'a=b:99999'])(
  'refuses the override “%s”',
  (text) => expect(parseOverride(text)).toBeNull(),
);
it('gives defaults that harm nobody', () =>
  expect(settingsSchema.parse({ start: 'https://museum.example/' })).toMatchObject({
    connections: 8,
    robots: 'obey',
    acceptCertificates: false,
  }));

describe('settings as a file', () => {
  const settings = settingsSchema.parse({ start: 'https://museum.example/', exclude: ['/a*'], depth: 4 });
  it('are read as they were written, and what is missing gets its default', () => {
    expect(readSettingsFile(settingsFile(settings))).toEqual({ ok: true, settings, lists: [] });
    expect(readSettingsFile('{"edgemapSettings": {"start": "https://museum.example/"}}')).toMatchObject({
      ok: true,
      settings: { retries: 2 },
    });
  });
  it.each([
    ['no json', /not JSON/],
    ['[]', /no settings of Edge Map/],
    ['null', /no settings of Edge Map/],
    ['{"edgemapSettings": {"start": "x", "depth": -1}}', /depth/],
    ['{"edgemapSettings": {"start": "x", "userAgent": "a\\nb"}}', /userAgent: holds characters/],
  ])('%s is refused', (text, message) => {
    const read = readSettingsFile(text);
    expect(read.ok ? '' : read.message).toMatch(message);
  });
});
it('knows the preset that an agent came from', () => {
  expect(presetOf(agents.mobile.userAgent, agents.mobile.token)).toBe('mobile');
  expect(presetOf('Tram/1', 'tram')).toBeNull();
});

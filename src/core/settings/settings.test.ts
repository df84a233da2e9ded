import { expect, it } from 'vitest';
import { formatOverride, parseOverride, settingsSchema } from '.';

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

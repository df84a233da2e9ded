import { secretsSchema } from '$core/settings';
import type { Secrets } from '$core/settings';
import type { Faults } from './settingsForm';

/** The fields of what is stored encrypted and never shown again. */
type SecretName = 'headers' | 'cookie' | 'user' | 'password' | 'forget';

/**
 * Reads what was typed of the secrets. Empty fields keep what is stored, unless it is to be forgotten.
 * @returns the secrets from now on; undefined to keep those that are stored
 */
export function readSecrets(form: FormData, stored: Secrets, faults: Faults): Secrets | undefined {
  const text = (name: SecretName) => String(form.get(name) ?? '').trim();
  const headers = text('headers')
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .flatMap((line) => {
      const colon = line.indexOf(':');
      if (colon > 0) return [{ name: line.slice(0, colon).trim(), value: line.slice(colon + 1).trim() }];
      faults.headers = 'A header has the form Name: value.';
      return [];
    });
  const basic = text('user') || text('password') ? { user: text('user'), password: text('password') } : null;
  const forget = text('forget') === 'on';
  if (!headers.length && !text('cookie') && !basic && !forget) return undefined;
  const before = forget ? { headers: [], cookie: '', basic: null } : stored;
  const given = {
    headers: headers.length ? headers : before.headers,
    cookie: text('cookie') || before.cookie,
    basic: basic ?? before.basic,
  };
  const read = secretsSchema.safeParse(given);
  if (read.success) return read.data;
  for (const { path, message } of read.error.issues)
    faults[path[0] === 'basic' ? 'user' : String(path[0])] = `It ${message}.`;
  return undefined;
}

/** What may be told of stored secrets. */
export const secretsStored = ({ headers, cookie, basic }: Secrets) => ({
  headers: headers.map(({ name }) => name),
  cookie: cookie !== '',
  basic: basic !== null,
});

/** Sealing of what must not lie readable in the database: headers, cookies and passwords of a site. */
import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { failure } from '$core/errors';

const NONCE_BYTES = 12;
const TAG_BYTES = 16;
const KEY_BYTES = 32;

let key: Buffer | null = null;

/**
 * The key: EDGEMAP_SECRET (64 hexadecimal digits), else a file beside the data, made when there is none. Workers on
 * other machines need the same one.
 */
function secretKey(): Buffer {
  if (key) return key;
  const given = process.env.EDGEMAP_SECRET;
  if (given !== undefined) {
    if (!/^[0-9a-f]{64}$/i.test(given)) throw failure('operator', 'EDGEMAP_SECRET must be 64 hexadecimal digits.');
    return (key = Buffer.from(given, 'hex'));
  }
  const file = join(process.env.EDGEMAP_DATA ?? '.data', 'secret.key');
  try {
    // Whoever comes first makes it; all read what was written first.
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, randomBytes(KEY_BYTES), { flag: 'wx', mode: 0o600 });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST')
      throw failure('operator', `The key for secrets cannot be kept in ${file}: ${(error as Error).message}`);
  }
  key = readFileSync(file);
  if (key.length !== KEY_BYTES)
    throw failure('operator', `${file} is not a key. Remove it; secrets must be given again.`);
  return key;
}

/** Encrypts with AES-256-GCM: nonce, tag, text. */
export function seal(value: unknown): Buffer {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv('aes-256-gcm', secretKey(), nonce);
  const text = Buffer.concat([cipher.update(JSON.stringify(value), 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), text]);
}

/**
 * The reverse of {@link seal}.
 * @throws operator when it was sealed with another key
 */
export function unseal(sealed: Buffer): unknown {
  const decipher = createDecipheriv('aes-256-gcm', secretKey(), sealed.subarray(0, NONCE_BYTES));
  decipher.setAuthTag(sealed.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
  try {
    const text = Buffer.concat([decipher.update(sealed.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()]);
    return JSON.parse(text.toString('utf8'));
  } catch {
    throw failure(
      'operator',
      'The stored secrets were sealed with another key. Give headers, cookies and password again.',
    );
  }
}

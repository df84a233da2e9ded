import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { brotliCompressSync, deflateRawSync, deflateSync, gzipSync } from 'node:zlib';
import { afterEach, describe, expect, it } from 'vitest';
import { standIn } from '../../tests/support/standIn';
import type { StandIn, StandInPage } from '../../tests/support/standIn';
import { classifyError } from './errors';
import { fetchAddress, headerOf } from './fetch';
import { clientOf } from '../../tests/support/client';
import type { ClientSettings } from '../../tests/support/client';

let site: StandIn | null = null;
afterEach(() => site?.close());

const plain: ClientSettings = { bodyMegabytes: 1 };
const MAX_BODY_BYTES = 1 << 20;
async function ask(address: string, settings = plain, wanted = true) {
  const client = clientOf({ start: address, ...settings });
  try {
    return await fetchAddress(address, client, new AbortController().signal, { wanted: () => wanted });
  } finally {
    await client.agent.destroy();
  }
}
async function body(page: StandInPage): Promise<string> {
  site = await standIn({ '/': page });
  const fetched = await ask(`${site.origin}/`);
  return fetched.ok ? new TextDecoder().decode(fetched.answer.body) : fetched.error;
}
const coded = (coding: string, bytes: Buffer) => ({ headers: { 'content-encoding': coding }, body: bytes });

describe('a body', () => {
  it.each([
    ['gzip', gzipSync('tram')],
    ['x-gzip', gzipSync('tram')],
    ['GZIP', gzipSync('tram')],
    ['deflate', deflateSync('tram')],
    ['deflate', deflateRawSync('tram')],
    ['br', brotliCompressSync('tram')],
    // A frame of one raw block (RFC 8878 §3.1.1).
    ['zstd', Buffer.from('28b52ffd20042100007472616d', 'hex')],
    ['gzip, zstd', Buffer.concat([Buffer.from('28b52ffd2018c10000', 'hex'), gzipSync('tram')])],
  ])('in %s is decoded', async (coding, bytes) => expect(await body(coded(coding, bytes))).toBe('tram'));
  it('in a coding that nobody knows is left as it is', async () =>
    expect(await body(coded('rot13', Buffer.from('genz')))).toBe('genz'));
  it('that ends early in its coding is read as far as it goes', async () => {
    const whole = gzipSync('tram '.repeat(5000));
    expect(await body(coded('gzip', whole.subarray(0, whole.length - 9)))).toMatch(/^tram tram/);
  });
  it('without end is cut', async () => {
    const text = await body((_, response) => {
      const more = () => {
        while (!response.destroyed && response.write('x'.repeat(1 << 20)));
      };
      response.writeHead(200).on('drain', more);
      more();
    });
    expect(text.length).toBe(MAX_BODY_BYTES);
  });
  it('that is not wanted is not read, and its size is told', async () => {
    site = await standIn({ '/': { headers: { 'content-length': '4' }, body: 'tram' } });
    const fetched = await ask(`${site.origin}/`, plain, false);
    expect(fetched).toMatchObject({ ok: true, answer: { status: 200, bytes: 4, body: new Uint8Array() } });
  });
});

describe('what keeps an answer from coming', () => {
  it('is a host without a name, and a port where nobody listens', async () => {
    expect(await ask('http://nowhere.invalid/')).toEqual({ ok: false, error: 'dns' });
    expect(await ask('http://127.0.0.1:9/')).toEqual({ ok: false, error: 'refused' });
  });
  it('is something else than HTTP', async () => {
    const server = createServer((socket) => socket.end('SSH-2.0-tram\r\n')).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    expect(await ask(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`)).toEqual({
      ok: false,
      error: 'malformed',
    });
    server.close();
  });
  it.each([
    [{ code: 'ENOTFOUND' }, 'dns'],
    [{ code: 'EAI_AGAIN' }, 'dns'],
    [{ code: 'EHOSTUNREACH' }, 'unreachable'],
    [{ code: 'UND_ERR_CONNECT_TIMEOUT' }, 'timeout'],
    [{ code: 'UND_ERR_HEADERS_TIMEOUT' }, 'timeout'],
    [{ code: 'CERT_HAS_EXPIRED' }, 'tls'],
    [{ code: 'DEPTH_ZERO_SELF_SIGNED_CERT' }, 'tls'],
    [{ code: 'ERR_TLS_CERT_ALTNAME_INVALID' }, 'tls'],
    [{ code: 'ECONNRESET' }, 'reset'],
    [{ code: 'UND_ERR_SOCKET' }, 'reset'],
    [{ code: 'HPE_INVALID_CONSTANT' }, 'malformed'],
    [{ code: 'Z_DATA_ERROR' }, 'malformed'],
    [{ code: 'ESOMETHING' }, 'network'],
  ])('%o is %s', (fields, expected) => {
    const error = Object.assign(new Error('x'), fields);
    expect(classifyError(error)).toBe(expected);
    expect(classifyError(new Error('wrapped', { cause: error }))).toBe(expected);
    expect(classifyError(new AggregateError([error]))).toBe(expected);
  });
  it('may be no error at all', () => expect(classifyError('what?')).toBe('network'));
});

it('prefers the override of the port', async () => {
  site = await standIn({ '/': 'here' });
  const port = Number(new URL(site.origin).port);
  const override = (toPort: number, at?: number) => ({
    host: 'www.museum.example',
    port: at,
    toHost: '127.0.0.1',
    toPort,
  });
  const settings = { ...plain, overrides: [override(9), override(port, 8080)] };
  expect(await ask('http://www.museum.example:8080/', settings)).toMatchObject({ ok: true });
  expect(await ask('http://www.museum.example/', settings)).toEqual({ ok: false, error: 'refused' });
});

it('joins fields of one name', () => {
  expect(headerOf({ link: ['</a>', '</b>'] }, 'link')).toBe('</a>, </b>');
  expect(headerOf({}, 'link')).toBeNull();
});

/** Who may be asked, when, and how often. */
import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import type { FetchError } from '$core/facts';
import { clientOf, unlimited } from '../../tests/support/client';
import { isPrivateAddress } from './addresses';
import { fetchAddress } from './fetch';
import { hostLimiter } from './hostLimiter';
import { allowsPrivate } from './operator';
import { retryAfter, withRetries } from './retry';

describe('private addresses', () => {
  it.each([
    '127.0.0.1',
    '10.1.2.3',
    '172.31.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '100.64.0.1',
    '0.0.0.0',
    '255.255.255.255',
    '::1',
    '::',
    'fe80::1',
    'fd00::1',
    '::ffff:127.0.0.1',
    '::ffff:a00:1',
    '64:ff9b::7f00:1',
    'fe80::1%eth0',
    '2002:7f00:1::',
    '64:ff9b:1::1',
    '::127.0.0.1',
    '::ffff:0:127.0.0.1',
    '64:ff9b::808:808',
    '2001:0:7f00:1::',
    'nowhere',
  ])('%s is one', (address) => expect(isPrivateAddress(address)).toBe(true));
  it.each(['8.8.8.8', '172.32.0.1', '192.169.0.1', '2606:4700::1', '::ffff:8.8.8.8'])('%s is none', (address) =>
    expect(isPrivateAddress(address)).toBe(false),
  );
  it('are refused by number, by name and behind an override', async () => {
    const overrides = [{ host: 'www.museum.example', toHost: '127.0.0.1', toPort: 80 }];
    const client = clientOf({ overrides }, { allowPrivate: false });
    for (const host of ['127.0.0.1', '[::1]', 'localhost', 'www.museum.example', '2130706433'])
      expect(
        await fetchAddress(`http://${host}/`, client, new AbortController().signal, { wanted: () => true }),
      ).toEqual({ ok: false, error: 'private' });
    await client.agent.destroy();
  });
  it('are asked, where they may be, only when the settings name them: a site cannot aim a crawl at them', async () => {
    const overrides = [{ host: 'www.museum.example', toHost: '127.0.0.1', toPort: 9 }];
    const client = clientOf({ start: 'http://127.0.0.1:9/', hosts: ['localhost:9'], overrides });
    const errorAt = async (address: string) => {
      const fetched = await fetchAddress(address, client, new AbortController().signal, { wanted: () => true });
      return fetched.ok ? null : fetched.error;
    };
    for (const named of ['http://127.0.0.1:9/', 'http://localhost:9/', 'http://www.museum.example/'])
      expect([named, await errorAt(named)]).toEqual([named, 'refused']);
    for (const other of [
      'http://127.0.0.1:10/',
      'http://127.0.0.1/',
      'http://localhost/',
      'http://[::1]:9/',
      'http://169.254.169.254/',
    ])
      expect([other, await errorAt(other)]).toEqual([other, 'private']);
    await client.agent.destroy();
  });
  it('are allowed while the app listens on loopback, or when the operator says so', () => {
    expect(allowsPrivate({})).toBe(true);
    expect(allowsPrivate({ HOST: '0.0.0.0' })).toBe(false);
    expect(allowsPrivate({ HOST: '0.0.0.0', EDGEMAP_PRIVATE: 'allow' })).toBe(true);
    expect(allowsPrivate({ EDGEMAP_PRIVATE: 'refuse' })).toBe(false);
    expect(() => allowsPrivate({ EDGEMAP_PRIVATE: 'maybe' })).toThrow(/“allow” or “refuse”/);
  });
});

describe('Retry-After', () => {
  const now = Date.parse('2026-11-23T12:00:00Z');
  it.each([
    ['120', 120_000],
    [' 0 ', 0],
    ['Mon, 23 Nov 2026 12:00:30 GMT', 30_000],
    ['Mon, 23 Nov 2026 11:00:00 GMT', 0],
    ['soon', null],
    [null, null],
  ])('%s is %s ms', (value, expected) => expect(retryAfter(value, now)).toBe(expected));
});

describe('asking again', () => {
  const status = (code: number, after?: string) => ({
    ok: true as const,
    answer: { status: code, headers: { 'retry-after': after } },
  });
  const failure = (error: FetchError) => ({ ok: false as const, error });
  type Outcome = ReturnType<typeof status> | ReturnType<typeof failure>;
  /** Asks a host that gives these outcomes one after the other, and the last of them from then on. */
  async function ask(retries: number, ...outcomes: Outcome[]) {
    const held: number[] = [];
    const limiter = { ...unlimited, backOff: async (_: string, ms: number) => void held.push(ms) };
    let n = 0;
    const once = async () => outcomes[Math.min(n++, outcomes.length - 1)];
    const last = await withRetries('a.example', once, { limiter, retries, signal: new AbortController().signal });
    return { told: last.ok ? last.answer.status : last.error, tries: last.tries, held };
  }
  it.each<[string, number, Outcome[], number | FetchError, number]>([
    ['a whole answer', 2, [status(200)], 200, 1],
    ['a page that is not there', 2, [status(404)], 404, 1],
    ['a server that fails for the moment', 2, [status(502), status(200)], 200, 2],
    ['a server that fails', 1, [status(500)], 500, 2],
    ['a connection that breaks once', 1, [failure('reset'), status(200)], 200, 2],
    ['a connection that takes too long', 0, [failure('timeout')], 'timeout', 1],
    ['a host that does not exist', 2, [failure('dns')], 'dns', 1],
    ['a certificate that is wrong', 2, [failure('tls')], 'tls', 1],
  ])('%s, with %i repetitions', async (_, retries, outcomes, told, tries) =>
    expect(await ask(retries, ...outcomes)).toEqual({ told, tries, held: [] }),
  );
  it('waits as long as it is told, also without repetitions for failures', async () => {
    expect(await ask(0, status(429, '3'), status(503, '2'), status(200))).toEqual({
      told: 200,
      tries: 3,
      held: [3000, 2000],
    });
    expect(await ask(0, status(429), status(429), status(200))).toEqual({ told: 200, tries: 3, held: [2000, 4000] });
  });
  it('does not wait a day, and leaves the host alone for a moment all the same', async () => {
    expect(await ask(2, status(503, '86400'), status(200))).toEqual({ told: 503, tries: 1, held: [2000] });
  });
  it('ends, whatever a host that asks to wait goes on to say', () =>
    fc.assert(
      fc.asyncProperty(fc.nat(9), fc.array(fc.nat(600), { minLength: 1, maxLength: 20 }), async (retries, waits) => {
        const { tries } = await ask(retries, ...waits.map((seconds) => status(429, String(seconds))));
        expect(tries).toBe(Math.max(retries, 5) + 1);
      }),
    ));
});

describe('the rate limiter of a host', () => {
  const shared = (waits: (n: number) => number[], delay = 200) => {
    const reserved: [string, number, number][] = [];
    const backedOff: [string, number, number][] = [];
    return {
      reserved,
      backedOff,
      reserve: async (host: string, every: number, n: number) => (reserved.push([host, every, n]), waits(n)),
      backOff: async (host: string, hold: number, every: number) => (backedOff.push([host, hold, every]), delay),
    };
  };
  const atOnce = (n: number) => Array.from({ length: n }, () => 0);
  const { signal } = new AbortController();
  const reason = { code: 'asked_to_wait', status: 429 } as const;
  it('costs nothing when nobody asks for a rate', async () => {
    const none = shared(atOnce);
    await hostLimiter(null, none).wait('a.example', signal);
    expect(none.reserved).toEqual([]);
  });
  it('reserves requests ahead, at the slower of setting and robots.txt', async () => {
    const all = shared(atOnce);
    const limiter = hostLimiter(10, all);
    await Promise.all([limiter.wait('a.example', signal), limiter.wait('a.example', signal)]);
    expect(all.reserved).toEqual([['a.example', 100, 5]]);
    limiter.setCrawlDelay('b.example', 3);
    await limiter.wait('b.example', signal);
    expect(all.reserved[1]).toEqual(['b.example', 3000, 1]);
  });
  it('is left when it asks to wait three times in a row, five minutes in all, and never answers', async () => {
    const held: boolean[] = [];
    const limiter = hostLimiter(null, shared(atOnce));
    const complain = async (ms: number) => {
      await limiter.backOff('a.example', ms, reason);
      // Those that were under way at the same time.
      await limiter.backOff('a.example', ms, reason);
      held.push(limiter.isLeft('a.example'));
      vi.setSystemTime(Date.now() + ms + 1);
    };
    vi.useFakeTimers({ toFake: ['Date'] });
    try {
      for (const ms of [200_000, 200_000]) await complain(ms);
      limiter.answered('a.example');
      for (const ms of [200_000, 200_000, 200_000, 200_000]) await complain(ms);
      expect(held).toEqual([false, false, false, false, true, true]);
      limiter.answered('a.example');
      for (const ms of [1000, 1000, 1000, 1000]) await complain(ms);
      expect(held.slice(6)).toEqual([false, false, false, false]);
      expect(limiter.isLeft('b.example')).toBe(false);
    } finally {
      vi.useRealTimers();
    }
  });
  it('holds a host that complains, asks it more slowly afterwards, and learns what other workers know', async () => {
    const all = shared(atOnce);
    const limiter = hostLimiter(null, all);
    await limiter.backOff('a.example', 30, reason);
    expect(limiter.isHeld('a.example')).toBe(true);
    expect(limiter.isHeld('b.example')).toBe(false);
    await limiter.wait('a.example', signal);
    expect(limiter.isHeld('a.example')).toBe(false);
    const [host, every] = all.reserved[0];
    expect(host).toBe('a.example');
    // It recovers from the moment on.
    expect(every).toBeGreaterThan(150);
    expect(every).toBeLessThanOrEqual(200);
    limiter.learn([
      { host: 'b.example', wait: 60_000, reason, delay: 0 },
      { host: 'c.example', wait: 0, reason: null, delay: 400 },
    ]);
    expect(limiter.isHeld('b.example')).toBe(true);
    await limiter.wait('c.example', signal);
    expect(all.reserved[1][1]).toBeGreaterThan(300);
  });
});

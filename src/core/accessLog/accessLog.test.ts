import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countCells, hitCounter, logReader, saysCrawler } from '.';
import type { Hits, LogHit } from '.';

const read = (...lines: string[]) => {
  const reader = logReader();
  return lines.map((line) => reader(line));
};
const hit = (line: string, ...before: string[]): LogHit => {
  const last = read(...before, line).at(-1)!;
  if (!last?.ok) throw new Error(`No hit: ${line}`);
  return last.hit;
};
const reasonOf = (line: string) => {
  const [found] = read(line);
  return found && !found.ok ? found.reason.code : found;
};

const combined =
  '203.0.113.9 - - [10/Oct/2026:13:55:36 +0200] "GET /shop?size=2 HTTP/1.1" 200 2326 "https://www.larkfield.example/" "Mozilla/5.0 (compatible; searchbot/2.1)"';

describe('lines of access logs', () => {
  it('reads the Combined Log Format', () =>
    expect(hit(combined)).toEqual({
      target: '/shop?size=2',
      host: null,
      status: 200,
      time: Date.UTC(2026, 9, 10, 11, 55, 36) / 1000,
      agent: 'Mozilla/5.0 (compatible; searchbot/2.1)',
      client: '203.0.113.9',
    }));
  it('reads the Common Log Format, which has no agent', () =>
    expect(hit('::1 - ada [10/Oct/2026:13:55:36 -0700] "HEAD / HTTP/1.0" 304 -')).toMatchObject({
      target: '/',
      status: 304,
      time: Date.UTC(2026, 9, 10, 20, 55, 36) / 1000,
      agent: '',
      client: '::1',
    }));
  it('reads a virtual host before the client', () =>
    expect(
      hit('www.larkfield.example:443 2001:db8::7 - - [10/Oct/2026:13:55:36 +0000] "GET /a HTTP/2.0" 200 1'),
    ).toMatchObject({ host: 'www.larkfield.example:443', client: '2001:db8::7', target: '/a' }));
  it('reads quoted quotes, escapes and more fields than the format has', () =>
    expect(
      hit(
        String.raw`1.2.3.4 - - [10/Oct/2026:13:55:36 +0000] "GET /caf\xc3\xa9?q=\"tram\" HTTP/1.1" 404 9 "-" "say \"hi\"" 0.120`,
      ),
    ).toMatchObject({ target: '/caf%c3%a9?q="tram"', agent: 'say "hi"', status: 404 }));
  it('reads absolute targets, spaces in paths and NUL bytes', () => {
    const line = (target: string) => `1.2.3.4 - - [10/Oct/2026:13:55:36 +0000] "GET ${target} HTTP/1.1" 200 1`;
    expect(hit(line('http://www.larkfield.example/a')).target).toBe('http://www.larkfield.example/a');
    expect(hit(line('/two words')).target).toBe('/two words');
    expect(hit(line('/a\0b')).target).toBe('/a\0b');
  });
  it('reads the W3C extended format by its fields', () =>
    expect(
      hit(
        '2026-10-10 11:55:36 GET /shop size=2 203.0.113.9 200 Mozilla/5.0+(compatible;+searchbot)',
        '#Version: 1.0',
        '#Fields: date time cs-method cs-uri-stem cs-uri-query c-ip sc-status cs(User-Agent)',
      ),
    ).toMatchObject({
      target: '/shop?size=2',
      status: 200,
      time: Date.UTC(2026, 9, 10, 11, 55, 36) / 1000,
      agent: 'Mozilla/5.0 (compatible; searchbot)',
    }));
  it.each([
    ['{"time":"2026-10-10T11:55:36Z","request":"GET /a?b HTTP/1.1","status":200,"http_user_agent":"x"}', '/a?b'],
    ['{"ts":1791633336.5,"request":{"method":"GET","uri":"/a?b","headers":{"User-Agent":["x"]}},"status":200}', '/a?b'],
    ['{"timestamp":1791633336000,"url":"https://www.larkfield.example/a","status":"200","user_agent":"x"}', /a$/],
  ])('reads JSON lines: %s', (line, target) => {
    const found = hit(line);
    expect(found).toMatchObject({ status: 200, time: Date.UTC(2026, 9, 10, 11, 55, 36) / 1000, agent: 'x' });
    expect(found.target).toMatch(target);
  });
  it('takes the machine that answered for no host of the site', () => {
    const line = (host: string) => `{"host":"${host}","url":"/a","status":200}`;
    expect(['web-01', '10.0.0.7', 'www.larkfield.example'].map((host) => hit(line(host)).host)).toEqual([
      null,
      null,
      'www.larkfield.example',
    ]);
  });
  it.each([
    ['no log at all', 'not_a_log_line'],
    ['1.2.3.4 - - [10/Oct/2026:13:55:36 +0000] "GET /a', 'not_a_log_line'],
    ['1.2.3.4 - - [10/Oct/2026:13:55:36 +0000] "-" 408 -', 'no_request'],
    [String.raw`1.2.3.4 - - [10/Oct/2026:13:55:36 +0000] "\x16\x03\x01" 400 1`, 'no_request'],
    ['1.2.3.4 - - [10/Oct/2026:13:55:36 +0000] "OPTIONS * HTTP/1.1" 200 -', 'no_address_asked'],
    ['1.2.3.4 - - [10/Oct/2026:13:55:36 +0000] "CONNECT mail.example:25 HTTP/1.1" 405 -', 'no_address_asked'],
    ['{"message":"started"}', 'not_a_log_line'],
    ['{"request":', 'not_a_log_line'],
  ])('says why it rejects %s', (line, code) => expect(reasonOf(line)).toBe(code));
  it('passes over empty lines and directives', () =>
    expect(read('', '  ', '#Software: x')).toEqual([null, null, null]));
  it('never fails, whatever the line', () => {
    const pieces = fc.array(
      fc.constantFrom('"', '\\', '[', '] "', ' ', 'GET /', 'HTTP/1.1', '200', '{', '}', '\0', ':'),
    );
    fc.assert(fc.property(pieces, (parts) => void read(parts.join(''))));
    fc.assert(fc.property(fc.string(), (line) => void read(line, `#Fields: ${line}`, line)));
  });
});

describe('hits', () => {
  const at = (time: number | null, status: number | null): LogHit => ({ ...hit(combined), time, status });
  const cellsOf = ({ cells, ends }: Pick<Hits, 'cells' | 'ends'>, i: number) =>
    cells.subarray(i === 0 ? 0 : ends[i - 1], ends[i]);

  it('are counted by address, day and status, and by who asks', () => {
    const counter = hitCounter();
    const day = 20_000;
    counter.add(1, at(null, null), false);
    counter.add(0, at(day * 86_400 + 5, 200), true);
    counter.add(0, at((day + 1) * 86_400, 404), false);
    counter.add(0, at(day * 86_400 + 9, 200), false);
    const counted = counter.counted(Uint32Array.of(1, 0));
    expect(counted).toMatchObject({
      hits: Float64Array.of(1, 3),
      crawlerHits: Float64Array.of(0, 1),
      answered: Float64Array.of(1, 2),
      lastHit: Float64Array.of(NaN, (day + 1) * 86_400),
    });
    expect(countCells(cellsOf(counted, 1))).toEqual({
      byStatus: [
        { status: 200, hits: 2 },
        { status: 404, hits: 1 },
      ],
      byDay: [
        { day: '2024-10-04', hits: 2 },
        { day: '2024-10-05', hits: 1 },
      ],
    });
    expect(countCells(cellsOf(counted, 0))).toEqual({ byStatus: [{ status: 0, hits: 1 }], byDay: [] });
  });
  it.each([
    [
      'a status that is none',
      at(86_400, 99_999),
      { byStatus: [{ status: 0, hits: 1 }], byDay: [{ day: '1970-01-02', hits: 1 }] },
    ],
    ['a day before 1970', at(-86_400, 200), { byStatus: [{ status: 200, hits: 1 }], byDay: [] }],
    ['a day in the year 9999', at(253_370_764_800, 200), { byStatus: [{ status: 200, hits: 1 }], byDay: [] }],
  ])('with %s are counted by the rest', (_, odd, counts) => {
    const counter = hitCounter();
    counter.add(0, odd, false);
    expect(countCells(counter.counted(Uint32Array.of(0)).cells)).toEqual(counts);
  });
  it('sum up to their number, in whatever order they come, and however often they are counted', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(9), fc.nat(30_000_000), fc.constantFrom(200, 301, 404))),
        fc.integer({ min: 1, max: 20 }),
        (asked, noted) => {
          const counter = hitCounter(noted);
          for (const [address, time, status] of asked) counter.add(address, at(86_400 + time, status), false);
          const addresses = Uint32Array.from({ length: 10 }, (_, i) => i);
          const counted = counter.counted(addresses);
          for (const address of addresses) {
            const own = asked.filter(([one]) => one === address);
            const { byStatus, byDay } = countCells(cellsOf(counted, address));
            const sum = (rows: { hits: number }[]) => rows.reduce((n, row) => n + row.hits, 0);
            expect([counted.hits[address], sum(byStatus), sum(byDay)]).toEqual([own.length, own.length, own.length]);
            expect(counted.answered[address]).toBe(own.filter(([, , status]) => status < 400).length);
            for (const { status, hits } of byStatus)
              expect(hits).toBe(own.filter(([, , one]) => one === status).length);
          }
        },
      ),
    ));
  it('of search crawlers are told by the agent', () => {
    expect(saysCrawler(hit(combined).agent)).toBe(true);
    expect(saysCrawler('Mozilla/5.0 (X11; Linux x86_64)')).toBe(false);
  });
});

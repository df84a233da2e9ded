import { describe, expect, it } from 'vitest';
import { cookieJar } from './cookies';

const home = 'https://museum.example/';
const names = (header: string) => header.split('; ').map((part) => part.split('=')[0]);

describe('cookies of a crawl', () => {
  it('are sent back, the newest value of each', () => {
    const jar = cookieJar();
    jar.keep('seen=1; Path=/', home);
    jar.keep('seen=2; Path=/', home);
    jar.keep('lang=fr; Path=/fr', home);
    expect(jar.headerFor(home)).toBe('seen=2');
    expect(names(jar.headerFor(`${home}fr/`)).sort()).toEqual(['lang', 'seen']);
    expect(jar.headerFor('https://other.example/')).toBe('');
  });
  it('are fifty of a domain, the newest, of four kilobytes each, in a field that servers take', () => {
    const jar = cookieJar();
    for (let i = 0; i < 500; i++) jar.keep(`c${i}=${i}`, home);
    expect(
      names(jar.headerFor(home))
        .map((name) => Number(name.slice(1)))
        .sort((a, b) => a - b),
    ).toEqual(Array.from({ length: 50 }, (_, i) => 450 + i));
    jar.keep(`large=${'x'.repeat(5000)}`, home);
    expect(jar.headerFor(home)).not.toContain('large');
    for (let i = 0; i < 50; i++) jar.keep(`d${i}=${'x'.repeat(4000)}`, home);
    expect(jar.headerFor(home).length).toBeLessThan(8200);
  });
  it('of subdomains without number are bounded, too', () => {
    const jar = cookieJar();
    for (let i = 0; i < 4000; i++) jar.keep('a=1', `https://s${i}.museum.example/`);
    expect((jar.changed() as { cookies: unknown[] }).cookies).toHaveLength(3000);
    expect(jar.headerFor('https://s3999.museum.example/')).toBe('a=1');
  });
  it('go on in another run, and tell when there is something new', () => {
    const jar = cookieJar();
    expect(jar.changed()).toBeNull();
    for (let i = 0; i < 60; i++) jar.keep(`c${i}=${i}`, home);
    const next = cookieJar(jar.changed());
    expect(jar.changed()).toBeNull();
    next.keep('new=1', home);
    expect(names(next.headerFor(home))).toHaveLength(50);
    expect(next.headerFor(home)).toContain('new=1');
  });
  it('that are none are passed over', () => {
    const jar = cookieJar();
    for (const text of ['', ';;', '\u0000=1', 'a=1; Domain=other.example']) jar.keep(text, home);
    expect(jar.changed()).toBeNull();
  });
});

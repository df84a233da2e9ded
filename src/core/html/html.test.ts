import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { describeDirectives, fragmentName, pageRules, parseLinkHeader, readHtml, readRobotsHeader } from '.';
import { fingerprintDistance } from '../words';
import { linesAndColumns } from './bytes';
import { MAX_LINKS } from './page';
import { readRefresh } from './refresh';

const HERE = 'https://museum.example/trams/list';
const bytes = (text: string) => new TextEncoder().encode(text);
const latin1 = (text: string) => Uint8Array.from(text, (char) => char.charCodeAt(0));
const read = (html: string | Uint8Array, charset?: string) =>
  readHtml(typeof html === 'string' ? bytes(html) : html, HERE, { charset });
const anchors = (html: string) => read(html).links.map(({ anchor }) => anchor);

describe('facts of a page', () => {
  it('reads title, heading, description and language, white space folded', () => {
    const { title, h1, description, language } = read(`<!doctype html><html lang="en-GB"><head>
      <title> Trams
        &amp; buses</title><meta name=description content=" Two  halls "></head>
      <body><svg><title>Not this</title></svg><h1>The <em>fleet</em></h1><h1>Second</h1>`);
    expect({ title, h1, description, language }).toEqual({
      title: 'Trams & buses',
      h1: ['The fleet', 'Second'],
      description: 'Two halls',
      language: 'en-GB',
    });
  });
  it('tells a missing title from an empty one', () => {
    expect(read('<p>Nothing</p>').title).toBeNull();
    expect(read('<title></title>').title).toBe('');
  });
  it('keeps the beginning of a text without end, and no half of a character', () => {
    const tram = String.fromCodePoint(0x1f68b);
    const { title, links } = read(`<title>${tram.repeat(1500)}</title><a href="/">x${tram.repeat(900)}</a>`);
    expect(title).toBe(tram.repeat(1000));
    expect(links[0].anchor).toBe(`x${tram.repeat(499)}`);
  });
  it('knows names of elements and attributes however they are written, and as many as there are', () => {
    const odd = Array.from({ length: 6000 }, (_, i) => `<x-${i} Data-${i}=1></X-${i}>`).join('');
    const long = 'y'.repeat(1000);
    const { links, ids } = read(`${odd}<${long} ID=tram><MAIN><A HREF="/a">A</a><a hReF='/b'>B</A></MAIN>`);
    expect(links.map(({ target, placement }) => [target, placement])).toEqual([
      ['https://museum.example/a', 'main'],
      ['https://museum.example/b', 'main'],
    ]);
    expect(ids).toEqual(['tram']);
  });
  it('finds canonicals and where a meta refresh leads', () => {
    const facts = read('<link rel="canonical" href="/trams"><meta http-equiv=refresh content="5; URL=\'../new\'">');
    expect(facts.canonicals).toEqual(['https://museum.example/trams']);
    expect(facts.refresh).toBe('https://museum.example/new');
  });
  it('does not take a page that reloads itself for a redirect', () => {
    expect(read('<meta http-equiv="refresh" content="30">').refresh).toBeNull();
    expect(read('<meta http-equiv="refresh" content="0;url=list">').refresh).toBeNull();
  });
  it('reads robots metas for everyone and for this crawler only', () => {
    const { directives } = read(
      '<meta name=robots content=nofollow><meta name=EdgeMap content=noindex><meta name=otherbot content=none>',
    );
    expect(pageRules(directives, 'edgemap')).toEqual({ robots: 'nofollow, noindex', noindex: true, nofollow: true });
  });
});

describe('links', () => {
  it('resolves against the base element, even when it stands below', () => {
    const { links } = read('<a href="a">x</a><base href="/buses/"><base href="/not-this/"><a href="?p=2#top">y</a>');
    expect(links.map(({ target }) => target)).toEqual([
      'https://museum.example/buses/a',
      'https://museum.example/buses/?p=2',
    ]);
  });
  it('takes the words from text, else image, else label, else title', () =>
    expect(
      anchors(`<a href=1> Night <b>bus</b>\n140 </a><a href=2><img alt="Open-top tram"></a><a href=3 aria-label="Map"></a>
        <a href=4 title="Depot"> </a><a href=5><img></a><a href=6>Horse<img alt="car"></a>`),
    ).toEqual(['Night bus 140', 'Open-top tram', 'Map', 'Depot', '', 'Horse']));
  it('reads areas, and ends a link where the next begins', () =>
    expect(anchors('<map><area href=1 alt="North hall"></map><a href=2>one <a href=3>two</a>')).toEqual([
      'North hall',
      'one',
      'two',
    ]));
  it('passes over what no reader follows', () =>
    expect(
      read(
        '<a name=x>x</a><!-- <a href=1>no</a> --><template><a href=2>no</a></template><script>"<a href=3>no</a>"</script><a href="mailto:a@b.example">no</a>',
      ).links,
    ).toEqual([]));
  it.each([
    ['<main><article><header><a href=1>x</a></header></article></main>', 'main'],
    ['<article><header><a href=1>x</a></header></article>', 'none'],
    ['<section><footer><a href=1>x</a></footer></section>', 'none'],
    ['<aside><footer><a href=1>x</a></footer></aside>', 'aside'],
    ['<nav><header><a href=1>x</a></header></nav>', 'nav'],
    ['<div role=region><footer><a href=1>x</a></footer></div>', 'none'],
    ['<article><div role=banner><a href=1>x</a></div></article>', 'header'],
    ['<div><header><a href=1>x</a></header></div>', 'header'],
    ['<article></article><footer><a href=1>x</a></footer>', 'footer'],
  ])('takes header and footer of a section for no landmark: %s', (html, placement) =>
    expect(read(html).links.map((link) => link.placement)).toEqual([placement]),
  );
  it('takes the words of a header in an article for content', () =>
    expect(read('<article><header><h1>Horse trams of Larkfield</h1></header></article>').wordCount).toBe(4));
  it('knows the placement and the path above', () => {
    const { links } =
      read(`<html><body class="home page"><header><nav class=top><ul><li><a href=1>a</a></ul></nav></header>
      <div role=main><a href=2>b</a></div><a href=3>c</a><footer><a rel="NoFollow  ugc" href=4>d</a></footer>`);
    expect(links.map(({ placement, above, rel }) => [placement, above, rel])).toEqual([
      ['nav', 'body.home.page>header>nav.top>ul>li', ''],
      ['main', 'body.home.page>div', ''],
      ['none', 'body.home.page', ''],
      ['footer', 'body.home.page>footer', 'nofollow ugc'],
    ]);
  });
  it('says line and column in bytes as received, whatever ends the lines', () => {
    const html = '<p>é</p>\r\n<p>ü <a href=1>x</a>\r<a href=2>y</a>\n\n  <a href=3>z</a>';
    const at = (source: string | Uint8Array) => read(source).links.map(({ line, column }) => [line, column]);
    expect(at(html)).toEqual([
      [2, 7],
      [3, 1],
      [5, 3],
    ]);
    // In a single-byte encoding the ü is one byte.
    expect(at(latin1(html))).toEqual([
      [2, 6],
      [3, 1],
      [5, 3],
    ]);
  });
  it('keeps hreflang links apart from clicks', () => {
    const { links } = read('<link rel=alternate hreflang=fr href=/fr/><link rel=shortlink href=x><a href=/>home</a>');
    expect(links.map(({ kind, anchor }) => [kind, anchor])).toEqual([
      ['hreflang', 'fr'],
      ['click', 'home'],
    ]);
  });
  it('survives markup nested without end', () => {
    const { links } = read(`${'<div class=deep>'.repeat(20_000)}<a href=1>bottom</a>`);
    expect(links[0].anchor).toBe('bottom');
    expect(links[0].above.length).toBeLessThan(400);
  });
});

describe('what else a page says', () => {
  it('names resources, declared relations and frames', () => {
    const { links } = read(
      `<link rel=stylesheet href=s.css><link rel=next href="?page=2"><link rel=prev href="?page=0"><link rel=amphtml href=/amp><link rel=alternate type=application/rss+xml href=/feed><link rel=icon href=i.ico><script src=a.js></script><img src=t.png alt="A tram"><img src=""><iframe src=/map></iframe><video src=v.mp4 poster=p.png></video><object data=o.svg></object><input src=no.png><input type=image src=b.png>`,
    );
    expect(links.map(({ kind, element, anchor }) => [kind, element, anchor].filter(Boolean).join(' '))).toEqual([
      'style link',
      'next link',
      'prev link',
      'amphtml link',
      'alternate link',
      'other link',
      'script script',
      'image img A tram',
      'iframe iframe',
      'other video',
      'other video',
      'other object',
      'image input',
    ]);
  });
  it('has ids, and links have fragments', () => {
    const { ids, links } = read('<h2 id="a b">x</h2><a name=old href="#a%20b">y</a>');
    expect(ids).toEqual(['a b', 'old']);
    expect(links[0].fragment).toBe('a%20b');
    expect(fragmentName('a%20b')).toBe('a b');
    expect(fragmentName('100%')).toBe('100%');
  });
  it('keeps a link that is meant for the web and is no URL, as written', () => {
    const { links } = read('<a href=" http://[bad\n">x</a><a href="sip:a@b">y</a><a href="http://a:99999/">z</a>');
    expect(links.map(({ target, malformed }) => [target, malformed])).toEqual([
      ['http://[bad', true],
      ['http://a:99999/', true],
    ]);
  });
  it('counts the words of its main content only', () => {
    const page =
      '<header>Museum of trams</header><main><p>Night<b>bus</b> 140 don’t stop</p><p>here</p><script>no</script></main><footer>x</footer>';
    expect(read(page).wordCount).toBe(5);
    expect(read('<nav>Home</nav><p>One two</p><p>three</p>').wordCount).toBe(3);
    expect(read('<p>夜間バス</p>').wordCount).toBe(4);
    expect(read('').fingerprint).toBeNull();
  });
  it('is like pages that differ in numbers, and unlike others', () => {
    const month = (days: number, name: string) =>
      read(
        `<main>${Array.from({ length: days }, (_, i) => `<p>${i + 1} no event on this day ${name}</p>`).join('')}</main>`,
      ).fingerprint!;
    const story = read(
      `<main>${Array.from({ length: 90 }, (_, i) => ['tram', 'bus', 'wire', 'hill', 'bell'][(i * i + 3) % 5]).join(' ')}</main>`,
    ).fingerprint!;
    expect(fingerprintDistance(month(30, 'May'), month(31, 'May'))).toBeLessThan(6);
    expect(fingerprintDistance(month(30, 'May'), story)).toBeGreaterThan(12);
  });
  it('has a breadcrumb trail, as JSON-LD or marked', () => {
    const item = (position: number, name: string, item?: unknown) => ({ '@type': 'ListItem', position, name, item });
    const json = {
      '@graph': [
        {
          '@type': 'BreadcrumbList',
          itemListElement: [item(2, 'Prices', { '@id': '/visit/prices' }), item(1, 'Visit', '/visit')],
        },
      ],
    };
    const trail = [
      { name: 'Visit', address: 'https://museum.example/visit' },
      { name: 'Prices', address: 'https://museum.example/visit/prices' },
    ];
    expect(read(`<script type="application/ld+json">${JSON.stringify(json)}</script>`).breadcrumb).toEqual(trail);
    const marked =
      '<nav aria-label="Breadcrumb"><a href=/visit>Visit</a> <a href=/visit/prices>Prices</a></nav><a href=/x>no</a>';
    expect(read(marked).breadcrumb).toEqual(trail);
    expect(read('<script type="application/ld+json">{ broken</script>').breadcrumb).toBeNull();
  });
  it('has rules for other crawlers, with their lines', () => {
    const { directives } = read(
      '<meta name=robots content=index>\n<meta name=OtherBot content="noindex, nofollow"><meta name=author content=none-of-us>',
    );
    expect(describeDirectives(directives)).toBe(
      'meta robots: index (line 1); meta otherbot: noindex, nofollow (line 2)',
    );
    expect(pageRules(directives, 'otherbot').noindex).toBe(true);
  });
});

describe('encodings', () => {
  const title = (source: Uint8Array, charset?: string) => read(source, charset).title;
  it('believes the header', () => expect(title(latin1('<title>caf\xe9</title>'), 'iso-8859-1')).toBe('café'));
  it('believes the meta', () =>
    expect(title(latin1('<meta charset="windows-1251"><title>\xd2\xf0\xe0\xec</title>'))).toBe('Трам'));
  it('takes valid UTF-8 for UTF-8, else windows-1252', () => {
    expect(title(bytes('<title>café</title>'))).toBe('café');
    expect(title(latin1('<title>\x93caf\xe9\x94</title>'))).toBe('“café”');
  });
  it('reads UTF-16 by its byte order mark', () =>
    expect(title(latin1('\xff\xfe' + [...'<title>Tram</title>'].map((c) => `${c}\0`).join('')))).toBe('Tram'));
  it('does not fail on a charset that is unknown', () =>
    expect(title(bytes('<title>Tram</title>'), 'utf-ate')).toBe('Tram'));
});

it('counts lines and columns as a slow reference does', () =>
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom('a', '\n', '\r', 'é'), maxLength: 60 }), (text) => {
      const all = Array.from(text, (_, i) => i);
      const slow = all.map((i) => {
        const lines = text.slice(0, i).split(/\r\n|\n|\r/);
        // Between CR and LF no line has begun yet.
        const torn = text[i - 1] === '\r' && text[i] === '\n';
        const before = torn ? text.slice(0, i - 1).split(/\r\n|\n|\r/) : lines;
        return { line: before.length, column: before[before.length - 1].length + 1 + (torn ? 1 : 0) };
      });
      const { lines, columns } = linesAndColumns(text, all);
      expect(all.map((_, i) => ({ line: lines[i], column: columns[i] }))).toEqual(slow);
    }),
  ));

it('never fails on any bytes', () =>
  fc.assert(fc.property(fc.uint8Array({ maxLength: 400 }), (noise) => void read(noise))));

describe('X-Robots-Tag', () => {
  const rules = (...values: string[]) => pageRules(values.map(readRobotsHeader), 'edgemap');
  it('holds for everyone, or for the crawler it names', () => {
    expect(rules('noindex').noindex).toBe(true);
    expect(rules('edgemap: noindex').noindex).toBe(true);
    expect(rules('otherbot: noindex').noindex).toBe(false);
  });
  it('does not take a directive with a value for the name of a crawler', () =>
    expect(rules('unavailable_after: 25 Jun 2027 15:00:00 GMT').robots).toMatch(/^unavailable_after/));
  it('lets the most restrictive win', () =>
    expect(rules('index, follow', 'none')).toMatchObject({ noindex: true, nofollow: true }));
});

describe('Link header', () => {
  it('reads targets, relations and quoted parameters', () => {
    const [one, two] = parseLinkHeader(
      '<https://a.example/x,y>; rel="canonical shortlink"; title="a, \\"b\\"", </fr>;rel=alternate;hreflang=fr',
    );
    expect(one).toMatchObject({
      href: 'https://a.example/x,y',
      rel: ['canonical', 'shortlink'],
      params: { title: 'a, "b"' },
    });
    expect(two).toMatchObject({ href: '/fr', rel: ['alternate'], params: { hreflang: 'fr' } });
  });
  it('ends in time on anything', () =>
    fc.assert(fc.property(fc.string(), (value) => Array.isArray(parseLinkHeader(value)))));
});

it.each([
  ['0; url=/next', '/next'],
  ['5;URL="/a b"', '/a b'],
  ['3, /plain', '/plain'],
  ['.5 url=x', 'x'],
  ['10', null],
  ['soon; url=/x', null],
  ['5;  url = "/a', '/a'],
  ['5url=/x', null],
])('meta refresh “%s” leads to %s', (content, expected) => expect(readRefresh(content)).toBe(expected));

describe('what a document may hold', () => {
  it('a meta refresh of many digits and spaces', () => {
    const many = 200_000;
    expect(readRefresh('9'.repeat(many))).toBeNull();
    expect(readRefresh(`${'9'.repeat(many)}x`)).toBeNull();
    expect(readRefresh(`1;${' '.repeat(many)}/x`)).toBe('/x');
  });
  it('positions of a breadcrumb that are no numbers do no harm', () => {
    const steps =
      '[{"position":{"valueOf":1,"toString":1},"name":"b"},{"position":1,"name":"c"},{"position":null,"name":"a"}]';
    const list = `{"@type":"BreadcrumbList","itemListElement":${steps}}`;
    const { breadcrumb } = read(`<script type="application/ld+json">${list}</script>`);
    expect(breadcrumb?.map(({ name }) => name)).toEqual(['b', 'a', 'c']);
  });
  it('a breadcrumb of more steps than anyone reads is cut', () => {
    const steps = JSON.stringify(Array.from({ length: 10_000 }, (_, i) => ({ position: i + 1, name: `${i}` })));
    const script = `{"@type":"BreadcrumbList","itemListElement":${steps}}`;
    expect(read(`<script type="application/ld+json">${script}</script>`).breadcrumb).toHaveLength(30);
  });
  it('hundreds of thousands of attributes on one tag, of which the first of each name counts', () => {
    const many = Array.from({ length: 200_000 }, (_, i) => `a${i}=1`).join(' ');
    const { links } = read(`<a ${many} href="/a" a7=2 HREF="/b">x</a><a href="/c" x>y</a>`);
    expect(links.map(({ target }) => target)).toEqual(['https://museum.example/a', 'https://museum.example/c']);
  });
  it('more links than are kept: the first ones are, and the page says so', () => {
    const { links, truncated } = read('<a href=/a>a</a>'.repeat(MAX_LINKS + 5));
    expect([links.length, truncated]).toEqual([MAX_LINKS, true]);
    expect(read('<a href=/a>a</a>').truncated).toBe(false);
  });
  it('long beginnings that many links share take bounded memory', () => {
    const deep = Array.from({ length: 36 }, (_, i) => `<div class="${'d'.repeat(90)}${i}">`).join('');
    const { links, truncated } = read(
      `${deep}${Array.from({ length: 5000 }, (_, i) => `<p class=p${i}><a href=${i}>x</a></p>`).join('')}`,
    );
    expect(links).toHaveLength(5000);
    expect(new Set(links.map(({ above }) => above)).size).toBeLessThan(2000);
    expect(truncated).toBe(true);
    const base = read(
      `<base href="/${'x'.repeat(8000)}/">${Array.from({ length: 5000 }, (_, i) => `<a href=${i}>x</a>`).join('')}`,
    );
    expect(base.links.length).toBeLessThan(5000);
    expect(base.truncated).toBe(true);
  });
});

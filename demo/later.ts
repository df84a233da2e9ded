/**
 * The museum's website some weeks later: a section has moved, a template has lost a link, titles are others, some
 * faults are mended and some are new. What it was is answered first, and then edited.
 */
import type { DemoAnswer } from './site';
import { link, list, ORIGIN, paragraphs, render } from './template';

/** Pages that are there now and were not, or answered with an error. */
const come: Record<string, { title: string; text: string }> = {
  '/stories/the-blue-lamps': {
    title: 'The blue lamps',
    text: 'The night buses had blue lamps, so that the last passengers of the coast could tell them from the trams.',
  },
  '/collections/liveries/cream': {
    title: 'The cream period',
    text: 'For twelve years every car was painted cream, and every winter somebody regretted it.',
  },
  '/visit/cafe/booking': {
    title: 'Book a table',
    text: 'Write to the kitchen before noon, and a table by the tram shed window is yours.',
  },
};
const gone = ['/events/night-of-the-bells', '/promo/summer'];
const redirects: Record<string, string> = { '/promo/spring': '/events/' };

const MOVED_FROM = '/learn/';
const MOVED_TO = '/discover/';

interface Edit {
  /** Which pages it is made on. */
  on: (path: string) => boolean;
  make: (body: string) => string;
}

const edits: Edit[] = [
  // One edit of the template: the footer no longer links to the press pages.
  { on: () => true, make: (body) => body.replace(/\n +<li><a href="\/press\/">Press<\/a><\/li>/, '') },
  {
    on: (path) => path.startsWith('/collections/stops/') && path !== '/collections/stops/',
    make: (body) => body.replaceAll(/Stop: ([^<–]+?)(?= –|<)/g, '$1 tram stop'),
  },
  {
    on: (path) => path === '/visit/prices',
    make: (body) => body.replace('<meta charset="utf-8">', '$&\n  <meta name="robots" content="noindex">'),
  },
  { on: (path) => path === '/', make: (body) => body.replace('>click here<', '>Spring at the museum<') },
  {
    on: (path) => path === '/stories/',
    make: (body) =>
      body.replace(
        '<ul class="list">',
        `$&\n      <li>${link('/stories/the-blue-lamps', come['/stories/the-blue-lamps'].title)}</li>\n      <li>${link('/stories/night-buses-of-the-coast', 'Night buses of the coast')}</li>`,
      ),
  },
  {
    on: (path) => path === '/visit/opening-hours',
    make: (body) =>
      body.replace(
        '</h1>',
        '$&\n    <p>From November to March the halls close at four, and the lighthouse tram runs on Sundays only.</p>',
      ),
  },
  {
    on: (path) => path === '/robots.txt',
    make: (body) => body.replace('Disallow: /search\n', '$&Disallow: /campaigns/\n'),
  },
];

/**
 * Answers as the website does later.
 * @param path path and query on the museum's main host
 * @param then gives what it answered before
 */
export function laterAnswer(path: string, then: (path: string) => DemoAnswer): DemoAnswer {
  const fresh = come[path];
  const moved = (location: string): DemoAnswer => ({
    status: 301,
    headers: { location, 'content-type': 'text/html; charset=utf-8' },
    body: `<p>Moved to ${link(location, location)}</p>`,
  });
  if (redirects[path]) return moved(redirects[path]);
  if (path.startsWith(MOVED_FROM)) return moved(MOVED_TO + path.slice(MOVED_FROM.length));
  const answer = gone.includes(path) ? then('/no-longer-here') : then(path.replace(MOVED_TO, MOVED_FROM));
  const { body } = answer;
  if (typeof body !== 'string') return answer;
  const written = fresh
    ? render({
        path,
        title: fresh.title,
        canonical: ORIGIN + path,
        main: `${paragraphs(fresh.text)}\n    ${list([link('/stories/', 'All stories'), link('/visit/', 'Visit')])}`,
      })
    : path.startsWith(MOVED_TO)
      ? // Its own links, and its canonical, are those of the new place; the navigation of all pages is not.
        body
          .replaceAll(MOVED_FROM, MOVED_TO)
          .replace(`<li><a href="${MOVED_TO}">Learn`, `<li><a href="${MOVED_FROM}">Learn`)
      : body;
  return {
    ...(fresh ? { status: 200, headers: { 'content-type': 'text/html; charset=utf-8' } } : answer),
    body: edits.filter(({ on }) => on(path)).reduce((text, { make }) => make(text), written),
  };
}

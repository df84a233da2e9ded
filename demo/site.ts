/**
 * The Larkfield Transit Museum, a fictional website with every ordinary fault: orphans, an island, chains and loops of
 * redirects, closed, noindexed, canonicalised and broken pages, a sitemap that disagrees, a calendar without end.
 */
import { gzipSync } from 'node:zlib';
import { archive, campaigns, events, french, learn, press, shop, stories, vehicles, visit } from './content';
import { calendarPage } from './calendar';
import { laterAnswer } from './later';
import { shopPage } from './shop';
import { escapeHtml, link, list, ORIGIN, paragraphs, render } from './template';
import type { Sheet } from './template';
import { workshopMoved, workshopPages } from './workshop';

export interface DemoAnswer {
  status: number;
  headers: Record<string, string>;
  body: string | Buffer;
}

const html = (body: string, status = 200, headers: Record<string, string> = {}): DemoAnswer => ({
  status,
  headers: { 'content-type': 'text/html; charset=utf-8', ...headers },
  body,
});
const redirect = (location: string, status = 301): DemoAnswer => ({
  status,
  headers: { location, 'content-type': 'text/html; charset=utf-8' },
  body: `<p>Moved to ${link(location, location)}</p>`,
});
const file = (type: string, body: string | Buffer): DemoAnswer => ({
  status: 200,
  headers: { 'content-type': type },
  body,
});

const kinds = { trams: 'Trams', buses: 'Buses', trolleybuses: 'Trolleybuses', works: 'Works cars' } as const;
const PHOTO_PAGES = 9;
const PHOTOS_A_PAGE = 9;
/** This story is told in the sitemap only: nothing on the site links to it. */
const FORGOTTEN = 'night-buses-of-the-coast';
const told = stories.filter(({ slug }) => slug !== FORGOTTEN);
const neighbours = <T>(items: T[], i: number) => [items[(i + 1) % items.length], items[(i + 2) % items.length]];
const vehiclePath = (v: (typeof vehicles)[number]) => `/collections/${v.kind}/${v.slug}`;

function sheets(): Sheet[] {
  const all: Sheet[] = [];
  const page = (sheet: Sheet) => all.push({ canonical: ORIGIN + sheet.path, ...sheet });

  page({
    path: '/',
    title: 'Trams, buses and trolleybuses by the sea',
    description: 'A museum of public transport in the harbour town of Larkfield.',
    head: [`<link rel="alternate" hreflang="fr" href="${ORIGIN}/fr/">`],
    main: [
      paragraphs('Five halls, one shed and, on Sundays, a tram to the lighthouse.'),
      list([
        link('/collections/trams/1908-open-top', 'Open-top tram, 1908'),
        link('/stories/the-last-conductor', 'The last conductor'),
        link('/events/night-of-the-bells', 'Night of the bells'),
        link('/visit/prices', 'Tickets and prices'),
        link('/collections/rail', 'Rail vehicles'),
        link('/promo/spring', 'click here'),
      ]),
    ].join('\n'),
  });

  const index = (path: string, title: string, lead: string, items: string[], more = '') =>
    page({ path, title, description: lead, main: `${paragraphs(escapeHtml(lead))}\n    ${list(items)}${more}` });

  const visits = visit.slice(0, 9).map(({ slug, title }) => link(`/visit/${slug}`, title));
  const more = [link('/visit/guided-tours', 'Guided tours'), link('/assets/map.pdf', 'Map of the museum (PDF)')];
  const help = `\n    <p>${link('/visit/lend-a-hand', 'Lend a hand', 'rel="nofollow"')}</p>`;
  index('/visit/', 'Visit', 'Everything for a day at the museum.', [...visits, ...more], help);
  // A visitor finds it; a search crawler has no link to follow.
  const lead = 'Volunteers polish brass on Mondays and conduct on Sundays.';
  page({
    path: '/visit/lend-a-hand',
    title: 'Lend a hand',
    description: lead,
    trail: [['/visit/', 'Visit']],
    main: paragraphs(lead),
  });
  visit.forEach(({ slug, title, lead }, i) =>
    page({
      path: `/visit/${slug}`,
      title,
      description: lead,
      trail: [['/visit/', 'Visit']],
      main: paragraphs(
        escapeHtml(lead),
        `On the way out, look at the ${link(vehiclePath(vehicles[i % vehicles.length]), vehicles[i % vehicles.length].name)}.`,
        slug === 'cafe'
          ? `For a table write to ${link('/visit/cafe/booking', 'the kitchen')}.`
          : 'Dogs are welcome, see the page about dogs.',
      ),
      aside: list(neighbours(visit, i).map((v) => link(`/visit/${v.slug}`, v.title))),
    }),
  );

  index('/collections/', 'Collections', 'Forty vehicles, two thousand photographs.', [
    ...Object.entries(kinds).map(([kind, name]) => link(`/collections/${kind}/`, name)),
    link('/collections/photographs/', 'Photographs'),
    link('/collections/stops/', 'Stops and signs'),
  ]);
  for (const [kind, name] of Object.entries(kinds)) {
    const own = vehicles.filter((vehicle) => vehicle.kind === kind);
    index(
      `/collections/${kind}/`,
      name,
      `${name} of Larkfield, oldest first.`,
      own.map((v) => link(vehiclePath(v), v.name)),
    );
    own.forEach((vehicle, i) => {
      const [one, two] = neighbours(own, i);
      const story = told[(Number(vehicle.year) + i) % told.length];
      page({
        path: vehiclePath(vehicle),
        title: vehicle.name,
        description: vehicle.sentence,
        trail: [
          ['/collections/', 'Collections'],
          [`/collections/${kind}/`, name],
        ],
        main: paragraphs(
          `Built in ${vehicle.year}, kept at ${escapeHtml(vehicle.depot)}, seen on: ${escapeHtml(vehicle.line)}.`,
          escapeHtml(vehicle.sentence),
          `It stood beside the ${link(vehiclePath(one), one.name)} until the north hall was reopened, and the ${escapeHtml(two.name)} came after it.`,
          i % 3 === 0
            ? `Its story is told in ${link(`/stories/${story.slug}`, 'read more')}.`
            : `Crews tell of it in “${escapeHtml(story.title)}”.`,
          i % 5 === 2
            ? `A drawing is in the ${link('http://www.larkfield.example/learn/research-room', 'research room')}.`
            : '',
          i % 7 === 3 ? `The livery is that of ${link('/collections/liveries/cream', 'the cream period')}.` : '',
        ),
        aside: list([
          link(vehiclePath(two), two.name),
          link(`/collections/photographs/?page=${2 + (i % 2)}`, 'Photographs'),
        ]),
      });
    });
  }

  const stops = [
    'Quay',
    'Market',
    'Infirmary',
    'Mill Hill',
    'Station',
    'Lighthouse',
    'Larkfield Green',
    'Harbour',
    'Moor Gate',
    'Cooper Row',
    'Shore Road',
    'Lantern Lane',
    'Pavilion',
    'Works',
    'Drill Ground',
    'Quay Street',
  ];
  const stopPath = (stop: string) => `/collections/stops/${stop.toLowerCase().replaceAll(' ', '-')}`;
  index(
    '/collections/stops/',
    'Stops and signs',
    'Enamel, glass and cast iron.',
    stops.map((stop) => link(stopPath(stop), stop)),
  );
  stops.forEach((stop, i) =>
    page({
      path: stopPath(stop),
      title: `Stop: ${stop}`,
      trail: [
        ['/collections/', 'Collections'],
        ['/collections/stops/', 'Stops and signs'],
      ],
      main: paragraphs(
        `The sign of ${escapeHtml(stop)} was taken down in ${1950 + i} and cleaned by volunteers.`,
        `Cars of the line “${escapeHtml(vehicles[i * 2].line)}” stopped here, the ${escapeHtml(vehicles[i * 2].name)} among them.`,
        `Next stop: ${link(stopPath(stops[(i + 1) % stops.length]), stops[(i + 1) % stops.length])}.`,
      ),
    }),
  );

  for (let n = 1; n <= PHOTO_PAGES; n++) {
    const path = n === 1 ? '/collections/photographs/' : `/collections/photographs/?page=${n}`;
    const photos = Array.from({ length: PHOTOS_A_PAGE }, (_, i) => (n - 1) * PHOTOS_A_PAGE + i + 1);
    page({
      path,
      title: n === 1 ? 'Photographs' : `Photographs, page ${n}`,
      main: [
        list(
          photos.map((i) => link(`/collections/photographs/${i}`, `Photograph ${i}`)),
          'grid',
        ),
        `    <p class="pager">${n > 1 ? link(n === 2 ? '/collections/photographs/' : `?page=${n - 1}`, 'previous') : ''} ${n < PHOTO_PAGES ? link(`/collections/photographs/?page=${n + 1}`, 'next') : ''}</p>`,
      ].join('\n'),
    });
    for (const i of photos) {
      const vehicle = vehicles[(i * 7) % vehicles.length];
      page({
        path: `/collections/photographs/${i}`,
        title: `Photograph ${i}: ${vehicle.name}`,
        main: paragraphs(
          `Glass plate, about ${Number(vehicle.year) + 4}. In the background the stop ${escapeHtml(stops[i % stops.length])}.`,
          `Shown is the ${link(vehiclePath(vehicle), vehicle.name)}.`,
        ),
      });
    }
  }

  index(
    '/stories/',
    'Stories',
    'Told by crews, passengers and one cat.',
    told.slice(0, 18).map(({ slug, title }) => link(`/stories/${slug}`, title)),
    `\n    <p>${link('/stories/?page=2', 'Older stories')}</p>`,
  );
  index(
    '/stories/?page=2',
    'Stories, page 2',
    'Older stories.',
    told.slice(18).map(({ slug, title }) => link(`/stories/${slug}`, title)),
  );
  stories.forEach((story, i) => {
    const [one, two] = neighbours(told, told.indexOf(story) < 0 ? 0 : told.indexOf(story));
    const vehicle = vehicles[(i * 3) % vehicles.length];
    const letters = i % 6 === 5 ? `The letters are in ${link('/archive/letters-1931', 'the archive')}.` : '';
    // A link that leads to the wrong story.
    const astray = `Then came ${link('/stories/the-fare-box', 'the snow of 1947')}.`;
    const more = story.slug === 'the-third-horse' ? astray : letters;
    const body = paragraphs(
      escapeHtml(story.lead),
      `It begins with the ${link(vehiclePath(vehicle), vehicle.name)}, which ran on: ${escapeHtml(vehicle.line)}.`,
      i % 4 === 1
        ? 'When the night buses of the coast still ran out to the lighthouse, the lamps were blue.'
        : 'The rest was told to us by a driver who does not want to be named.',
      more,
    );
    page({
      path: `/stories/${story.slug}`,
      title: story.title,
      description: story.lead,
      trail: [['/stories/', 'Stories']],
      main: `${body}\n    <p>${link(`/stories/${story.slug}/print`, 'Print')}</p>`,
      aside: list([link(`/stories/${one.slug}`, one.title), link(`/stories/${two.slug}`, two.title)]),
    });
    page({
      path: `/stories/${story.slug}/print`,
      title: story.title,
      canonical: `${ORIGIN}/stories/${story.slug}`,
      main: body,
    });
  });

  index('/learn/', 'Learn', 'How it worked, and still works.', [
    ...learn.slice(0, 15).map(({ slug, title }) => link(`/learn/${slug}`, title)),
    link('/learn/workshop/', 'Workshop notes'),
  ]);
  learn.forEach(({ slug, title, lead }, i) =>
    page({
      path: `/learn/${slug}`,
      title,
      description: lead,
      trail: [['/learn/', 'Learn']],
      main: paragraphs(
        escapeHtml(lead),
        `See also ${neighbours(learn, i)
          .map((l) => link(`/learn/${l.slug}`, l.title))
          .join(' and ')}.`,
        i % 4 === 0 ? `${link('/learn/worksheets', '')}${link(`/assets/worksheet-${i}.pdf`, 'Worksheet')}` : '',
      ),
      head: slug === 'worksheets' ? ['<meta name="robots" content="noindex, follow">'] : [],
    }),
  );

  index(
    '/events/',
    'What’s on',
    'This month and next.',
    [...events.map(({ slug, title }) => link(`/events/${slug}`, title)), link('/events/2026/11/', 'Calendar')],
    `\n    <p>${link('/events/print?month=2026-11', 'Print the programme', 'rel="nofollow"')}</p>`,
  );
  events.forEach(({ slug, title, lead }, i) =>
    page({
      path: `/events/${slug}`,
      title,
      description: lead,
      trail: [['/events/', 'What’s on']],
      main: paragraphs(
        escapeHtml(lead),
        `Tickets at ${link('/visit/tickets', 'the ticket page')}; the ${escapeHtml(vehicles[i].name)} will be running.`,
        i % 3 === 0 ? `Afterwards: ${link('/events/2019-review', 'what happened last time')}.` : '',
      ),
    }),
  );

  index('/press/', 'Press', 'For editors.', [
    ...press.map(({ year, slug, title }) => link(`/press/${year}/${slug}`, title)),
    link('/press/embargo', 'Under embargo'),
  ]);
  press.forEach(({ year, slug, title, lead }, i) =>
    page({
      path: `/press/${year}/${slug}`,
      title,
      description: lead,
      // Older releases name the address they had before the site moved to https.
      canonical: `${Number(year) < 2012 ? 'http://www.larkfield.example' : ORIGIN}/press/${year}/${slug}`,
      trail: [['/press/', 'Press']],
      main: paragraphs(
        escapeHtml(lead),
        `Earlier: ${link(`/press/${press[Math.max(0, i - 1)].year}/${press[Math.max(0, i - 1)].slug}`, 'read more')}.`,
        i % 5 === 4
          ? `Pictures for the press are on ${link('https://staging.larkfield.example/press/kit', 'the press server')}.`
          : '',
      ),
    }),
  );

  french.forEach(({ slug, title, lead, english }, i) =>
    page({
      path: `/fr/${slug}`,
      title,
      lang: 'fr',
      description: lead,
      head: english ? [`<link rel="alternate" hreflang="en" href="${ORIGIN}${english}">`] : [],
      main: paragraphs(
        escapeHtml(lead),
        `Suite : ${link(`/fr/${french[(i + 1) % french.length].slug}`, 'lire la suite')}.`,
      ),
    }),
  );

  campaigns.forEach(({ slug, title, lead }, i) =>
    page({
      path: `/campaigns/${slug}`,
      title,
      description: lead,
      // Two campaigns link to each other, and nothing else links to either.
      main: paragraphs(
        escapeHtml(lead),
        i < 2
          ? link(`/campaigns/${campaigns[1 - i].slug}`, campaigns[1 - i].title)
          : `Back to ${link('/', 'the museum')}.`,
      ),
    }),
  );
  return all;
}

/** The old microsite: its own markup, and no way in. */
function oldSite(slug: string): string {
  const i = archive.findIndex((entry) => entry.slug === slug);
  const menu = archive.map((entry) => `<a href="/archive-2009/${entry.slug}.html">${escapeHtml(entry.title)}</a>`);
  const links = slug === 'index' ? menu : [menu[0], menu[(i + 1) % menu.length], menu[(i + 5) % menu.length]];
  return `<html><head><title>${escapeHtml(archive[i].title)}</title></head>
<body bgcolor="#eeeeee"><table><tr><td>${links.join('<br>')}</td>
<td><h1>${escapeHtml(archive[i].title)}</h1>Best seen at 800 by 600.</td></tr></table></body></html>`;
}

const robotsTxt = `# Larkfield Transit Museum
User-agent: *
Disallow: /search
Disallow: /shop/basket
Disallow: /events/print
Disallow: /visit/guided-tours
Allow: /search/help

Sitemap: ${ORIGIN}/sitemap.xml
`;

/** The sitemap names other editions of one page than the page does. */
const listedEditions: Record<string, string> = { '/fr/visite/horaires': '/visit/prices' };

function sitemapXml(entries: string[], lastmod?: string): string {
  const rows = entries.map((path) => {
    const english = listedEditions[path];
    const edition = english
      ? `\n    <xhtml:link rel="alternate" hreflang="en" href="${escapeHtml(ORIGIN + english)}"/>`
      : '';
    const dated = lastmod ? `\n    <lastmod>${lastmod}</lastmod>` : '';
    return `  <url>\n    <loc>${escapeHtml(ORIGIN + path)}</loc>${dated}${edition}\n  </url>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9" xmlns:xhtml="http://www.w3.org/1999/xhtml">\n${rows.join('\n')}\n</urlset>\n`;
}

function sitemaps(pages: Sheet[]): [string, DemoAnswer][] {
  const under = (prefix: string) =>
    pages
      .map(({ path }) => path)
      .filter((path) => path.startsWith(prefix) && !path.includes('?') && !path.endsWith('/print'));
  const index = ['sitemap-pages.xml', 'sitemap-stories.xml.gz', 'sitemap-old.xml', 'sitemap-videos.xml'];
  const xml = (body: string) => file('application/xml', body);
  return [
    [
      '/sitemap.xml',
      xml(
        `<?xml version="1.0" encoding="UTF-8"?>\n<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${index.map((name) => `  <sitemap><loc>${ORIGIN}/${name}</loc></sitemap>`).join('\n')}\n</sitemapindex>\n`,
      ),
    ],
    [
      '/sitemap-pages.xml',
      xml(
        sitemapXml(
          [
            ...under('/visit'),
            ...under('/collections'),
            ...under('/learn'),
            ...under('/events'),
            ...under('/fr'),
            '/visit/guided-tours',
          ],
          '2026-10-02',
        ),
      ),
    ],
    ['/sitemap-stories.xml.gz', file('application/gzip', gzipSync(sitemapXml(under('/stories'), '2026-09-14')))],
    [
      '/sitemap-old.xml',
      xml(
        sitemapXml(
          [
            ...under('/campaigns'),
            '/archive-2009/index.html',
            '/archive-2009/timetables.html',
            '/tickets',
            '/archive/letters-1931',
            '/learn/worksheets',
            '/press/2014/reopening-the-north-hall',
            '/visit/room-hire',
          ],
          '2014-05-01',
        ),
      ),
    ],
  ];
}

/** Everything with a fixed address on the museum's main host, by path and query. */
function fixedAnswers(): Map<string, DemoAnswer> {
  const pages = sheets();
  return new Map<string, DemoAnswer>([
    ...pages.map((sheet): [string, DemoAnswer] => [sheet.path, html(render(sheet))]),
    ...archive.map(({ slug }): [string, DemoAnswer] => [`/archive-2009/${slug}.html`, html(oldSite(slug))]),
    ...[...workshopPages()].map(([path, body]): [string, DemoAnswer] => [path, html(body)]),
    ...workshopMoved.map(([from, to]): [string, DemoAnswer] => [from, redirect(to)]),
    ...sitemaps(pages),
    ['/robots.txt', file('text/plain; charset=utf-8', robotsTxt)],
    ['/tickets', redirect('/visit/tickets', 302)],
    ['/visit/tickets', redirect('/visit/tickets/')],
    ['/visit/tickets/', redirect('/visit/prices')],
    ['/promo/spring', redirect('/promo/summer')],
    ['/promo/summer', redirect('/promo/spring')],
    [
      '/collections/rail',
      html('<meta http-equiv="refresh" content="0; url=/collections/trams/"><title>Rail vehicles</title>'),
    ],
    [
      '/press/embargo',
      html(render({ path: '/press/embargo', title: 'Under embargo', main: paragraphs('Come back later.') }), 200, {
        'x-robots-tag': 'noindex, nofollow',
      }),
    ],
    ['/collections/liveries/cream', html('<title>Gone</title><h1>This page is gone</h1>', 410)],
    ['/visit/cafe/booking', html('<title>Fault</title><h1>The booking system rests</h1>', 503)],
    ['/assets/map.pdf', file('application/pdf', '%PDF-1.4\n%%EOF\n')],
    ['/assets/museum.css', file('text/css', 'body{font-family:serif}')],
    ['/assets/logo.svg', file('image/svg+xml', '<svg xmlns="http://www.w3.org/2000/svg"/>')],
    ['/assets/photos.svg', file('image/svg+xml', '<svg xmlns="http://www.w3.org/2000/svg"/>')],
    ...learn.flatMap((_, i): [string, DemoAnswer][] =>
      i % 4 === 0 ? [[`/assets/worksheet-${i}.pdf`, file('application/pdf', '%PDF-1.4\n%%EOF\n')]] : [],
    ),
  ]);
}

let fixed: Map<string, DemoAnswer> | null = null;

/**
 * Answers a request to one of the museum's hosts.
 * @param host host name without port
 * @param target path and query
 * @param isLater whether as the website is some weeks later
 */
export function demoAnswer(host: string, secure: boolean, target: string, isLater = false): DemoAnswer {
  if (host === 'staging.larkfield.example')
    return html(render({ path: target, title: 'Press kit (test)', main: paragraphs('Nobody should see this.') }));
  if (host === 'larkfield.example' || !secure) return redirect(ORIGIN + target);
  return isLater ? laterAnswer(target, museumAnswer) : museumAnswer(target);
}

function museumAnswer(target: string): DemoAnswer {
  fixed ??= fixedAnswers();
  const url = new URL(target, ORIGIN);
  const answer = fixed.get(url.pathname + url.search);
  if (answer) return answer;
  const sheet = calendarPage(url) ?? shopPage(url, shop);
  if (sheet) return html(render(sheet));
  return html(
    render({ path: '', title: 'This page is not here', main: paragraphs(link('/', 'Back to the start')) }),
    404,
  );
}

/** How many fixed pages there are, for the tests. */
export const fixedPageCount = () =>
  [...(fixed ??= fixedAnswers())].filter(([, { headers }]) => headers['content-type'].startsWith('text/html')).length;

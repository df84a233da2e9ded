/** A newspaper: dated articles, teasers, authors, subjects, an archive in pages, addresses of an older system. */
import { chance } from '../../src/core/numbers';
import { a, gone, html, list, moved, pick, plain, slug, writer } from './site';
import type { GeneratedSite } from './site';

const HOST = 'www.harbour-courier.example';
const START = `https://${HOST}/`;
const sections = ['Town', 'Port', 'Culture', 'Sport', 'Opinion'];
const authors = ['Ida Fenn', 'Marek Olin', 'Ruth Abara', 'Tomas Weld', 'Lena Quist'];
const subjects = ['Ferries', 'Schools', 'Fish market', 'Storms', 'Housing', 'Music', 'Rowing', 'Council'];
const openings = [
  'Council votes on',
  'New plans for',
  'What remains of',
  'Residents ask about',
  'A year after',
  'Long nights at',
  'The quiet end of',
  'Who pays for',
];
const things = [
  'the old quay',
  'the night ferry',
  'the fish hall',
  'the rowing club',
  'the music school',
  'the sea wall',
  'the tram depot',
  'the lighthouse',
  'the covered market',
  'the north beach',
];

const write = writer(
  23,
  [
    'On {day} the council heard {who} speak about {thing}.',
    'The {thing2} was closed for {time} after the storm.',
    '“We had hoped for {hope},” said {who}.',
    'In {year} the town spent {money} on {thing}.',
    'People who live near {thing} want {hope} before winter.',
    'A decision is expected on {day}, the mayor said.',
    'The {thing2} opened in {year} and has been repaired {times}.',
    'Fishermen, pupils and shopkeepers came to look at {thing}.',
  ],
  {
    day: ['Monday', 'Tuesday', 'Thursday', 'the last day of the month'],
    who: [
      'the harbour master',
      'a teacher of the school',
      'two engineers',
      'the head of the rowing club',
      'a neighbour',
    ],
    thing: things,
    thing2: ['pier', 'hall', 'bridge', 'school', 'workshop'],
    time: ['a week', 'eleven days', 'most of the autumn'],
    hope: ['a new roof', 'lower fares', 'an honest answer', 'more trains', 'a second gate'],
    year: ['1931', '1958', '1974', '1996', '2008'],
    money: ['two million', 'half of its reserve', 'as much as on all its parks'],
    times: ['twice', 'three times', 'every ten years'],
  },
);

const shell = (title: string, body: string, extra = '') =>
  html(`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title} | Harbour Courier</title>${extra}</head><body>
<div class="top"><a href="/"><img src="/masthead.png" alt="Harbour Courier"></a>
<nav>${list(sections.map((name) => a(`/${slug(name)}/`, name)))}</nav></div>
<main>${body}</main>
<footer><a href="/imprint/">Imprint</a> <a href="/archive/">Archive</a> <a href="https://social.example/courier"><img src="/social.svg"></a></footer></body></html>`);

export function newspaper(): GeneratedSite {
  const answers: GeneratedSite['answers'] = new Map();
  const put = (path: string, answer: ReturnType<typeof html>) => answers.set(HOST + path, answer);
  const next = chance(9);
  const titles = new Set<string>();
  while (titles.size < 78) titles.add(`${pick(next, openings)} ${pick(next, things)}`);
  const articles = [...titles].map((title, i) => {
    const section = sections[i % sections.length];
    const date = `2026/${String(1 + (i % 10)).padStart(2, '0')}/${String(1 + ((i * 7) % 28)).padStart(2, '0')}`;
    return {
      title,
      section,
      author: authors[(i * 3) % authors.length],
      subject: subjects[(i * 5) % subjects.length],
      path: `/${slug(section)}/${date}/${slug(title)}`,
      i,
    };
  });
  type Article = (typeof articles)[number];
  const teaser = ({ title, path, subject, i }: Article) => {
    const lead = `The story of ${title.toLowerCase()} has kept the town busy for months, and now there is a first answer to the question of money.`;
    return i % 9 === 4
      ? `<article><a href="${path}"><h3>${title}</h3><p>${lead}</p></a></article>`
      : `<article><h3>${a(path, title)}</h3><p>${lead} ${a(path, i % 2 ? 'Read more' : 'More')}</p>${a(`/subject/${slug(subject)}/`, subject)} ${a(`${path}#comments`, `${2 + (i % 30)} comments`)}</article>`;
  };
  put(
    '/',
    shell(
      'News from the harbour',
      `<h1>News from the harbour</h1>${articles.slice(0, 16).map(teaser).join('\n')}<p>${a('/archive/', 'All articles')}</p>`,
    ),
  );
  for (const section of sections) {
    const own = articles.filter((one) => one.section === section);
    put(
      `/${slug(section)}/`,
      shell(
        section,
        `<h1>${section}</h1>${write(2)}${own.slice(0, 10).map(teaser).join('\n')}<p>${a(`/archive/?section=${slug(section)}`, 'Older articles')}</p>`,
      ),
    );
    put(
      `/archive/?section=${slug(section)}`,
      shell(`Archive: ${section}`, `<h1>Archive: ${section}</h1>${list(own.map(({ title, path }) => a(path, title)))}`),
    );
  }
  articles.forEach((article, i) => {
    const { title, section, author, subject, path } = article;
    const thing = things.find((one) => title.includes(one))!;
    const others = [articles[(i + 11) % articles.length], articles[(i + 29) % articles.length]];
    const body = `<h1>${title}</h1><p>By ${a(`/authors/${slug(author)}/`, author)} in ${a(`/${slug(section)}/`, section)}</p>
${write(6, { thing })}${write(5, { thing })}<p>Earlier we wrote about ${a(others[0].path, others[0].title)}${i % 6 === 0 ? `, and ${a(others[1].path, 'here')} about what it costs` : ''}.</p>
${i % 10 === 3 ? `<p>The report is at ${a('https://records.harbour-town.example/minutes/2026-03.pdf', 'https://records.harbour-town.example/minutes/2026-03.pdf')}.</p>` : ''}
${i % 13 === 5 ? `<p>More on ${a('/culture/2019/03/12/lost-story', 'the story of 2019')}.</p>` : ''}
${i % 15 === 6 ? `<p>Watch ${a('/subject/rowing/', 'our cooking course')}.</p>` : ''}
<p>Subject: ${a(`/subject/${slug(subject)}/`, subject)}. ${a(`${path}?print=1`, 'Print')}</p><section id="${i % 8 === 2 ? 'talk' : 'comments'}"><h2>Comments</h2><p>Nothing yet.</p></section>`;
    put(path, shell(title, body, `<link rel="canonical" href="${START.slice(0, -1)}${path}">`));
    put(
      `${path}?print=1`,
      shell(
        title,
        body,
        `<link rel="canonical" href="${START.slice(0, -1)}${path}"><meta name="robots" content="noindex">`,
      ),
    );
    if (i % 7 === 0) put(`/article.php?id=${1000 + i}`, moved(path));
  });
  for (const subject of subjects) {
    const own = articles.filter((one) => one.subject === subject);
    put(
      `/subject/${slug(subject)}/`,
      shell(subject, `<h1>${subject}</h1>${list(own.map(({ title, path }) => a(path, title)))}`),
    );
  }
  for (const author of authors) {
    const own = articles.filter((one) => one.author === author);
    put(
      `/authors/${slug(author)}/`,
      shell(author, `<h1>${author}</h1>${write(3)}${list(own.slice(0, 12).map(({ title, path }) => a(path, title)))}`),
    );
  }
  const size = 10;
  const pages = Math.ceil(articles.length / size);
  for (let n = 1; n <= pages; n++) {
    const older = n < pages ? a(`/archive/?page=${n + 1}`, 'Older') : '';
    const newer = n > 1 ? a(n === 2 ? '/archive/' : `/archive/?page=${n - 1}`, 'Newer') : '';
    const old =
      n === 1
        ? list(articles.filter((_, i) => i % 7 === 0).map(({ title, i }) => a(`/article.php?id=${1000 + i}`, title)))
        : '';
    put(
      n === 1 ? '/archive/' : `/archive/?page=${n}`,
      shell(
        n === 1 ? 'Archive' : `Archive, page ${n}`,
        `<h1>Archive</h1>${list(articles.slice((n - 1) * size, n * size).map(({ title, path }) => a(path, title)))}<p>${newer} ${older}</p>${old}`,
      ),
    );
  }
  put('/culture/2019/03/12/lost-story', gone(410));
  put('/imprint/', shell('Imprint', `<h1>Imprint</h1>${write(5)}`));
  put('/special/election-2024/', shell('Election 2024', `<h1>Election 2024</h1>${write(6)}${a('/town/', 'Town')}`));
  put('/robots.txt', plain(`User-agent: *\nDisallow: /intern/\n\nSitemap: ${START}news.xml\n`));
  put(
    '/news.xml',
    plain(
      `<?xml version="1.0"?><rss version="2.0"><channel>${[...articles.slice(0, 40).map(({ path }) => path), '/special/election-2024/'].map((path) => `<item><link>${START.slice(0, -1)}${path}</link></item>`).join('\n')}</channel></rss>`,
      'application/rss+xml',
    ),
  );
  return { name: 'newspaper', start: START, hosts: [HOST], answers };
}

/** A university: a main site, and departments on hosts of their own with templates of their own. */
import { a, gone, html, list, moved, plain, slug, writer } from './site';
import type { GeneratedSite } from './site';

const MAIN = 'www.northlea-university.example';
const START = `https://${MAIN}/`;
const departments = {
  physics: ['Mechanics', 'Optics', 'Waves and fields', 'Quantum physics', 'Laboratory course', 'Thermodynamics'],
  history: [
    'The medieval port',
    'Reading old hands',
    'Trade and empire',
    'Towns after the war',
    'Writing history',
    'Archives',
  ],
  music: [
    'Counterpoint',
    'Ear training',
    'Choral conducting',
    'Instruments of the north',
    'Music and machines',
    'Notation',
  ],
};
type Department = keyof typeof departments;
const people = [
  'Prof. Anna Brandt',
  'Dr. Yusuf Adeyemi',
  'Dr. Clara Lindqvist',
  'Prof. Piet Hoek',
  'Dr. Mei Tanaka',
  'Dr. Owen Pryce',
];
const hostOf = (department: Department) => `${department}.northlea-university.example`;
const codeOf = (department: Department, i: number) => `${department.slice(0, 3).toUpperCase()} ${101 + i * 10}`;

const write = writer(
  37,
  [
    'Students of {subject} meet twice a week in {place}.',
    'The course begins with {topic} and ends with an examination in {month}.',
    'You should have attended {before} first.',
    'Readings are kept in {place}; the first is due in {month}.',
    'In {month} we visit {visit}.',
    'The seminar on {topic} is taught in English.',
    'Marks are given for {work} and for a talk on {topic}.',
    'Office hours are by appointment in {place}.',
  ],
  {
    subject: ['the first year', 'the second year', 'all departments'],
    place: ['the tower', 'lecture hall two', 'the old refectory', 'the reading room', 'the workshop'],
    topic: ['measurement', 'sources', 'resonance', 'guilds', 'light', 'rhythm', 'letters', 'heat'],
    month: ['October', 'January', 'March', 'June'],
    before: ['an introduction', 'the laboratory course', 'a course on method'],
    visit: ['the observatory', 'the town archive', 'an organ builder', 'the harbour museum'],
    work: ['weekly exercises', 'one essay', 'a recording', 'a notebook'],
  },
);

export function university(): GeneratedSite {
  const answers: GeneratedSite['answers'] = new Map();
  const put = (host: string, path: string, answer: ReturnType<typeof html>) => answers.set(host + path, answer);
  const mainNav = list([
    a('/study/', 'Study'),
    a('/research/', 'Research'),
    a('/departments/', 'Departments'),
    a('/library/', 'Library'),
    a('/contact/', 'Contact'),
  ]);
  const main = (title: string, body: string, extra = '') =>
    html(
      `<!doctype html><html lang="en"><head><title>${title} - University of Northlea</title>${extra}</head><body><header><a href="/">University of Northlea</a><nav>${mainNav}</nav></header><main><h1>${title}</h1>${body}</main><footer>${a('/privacy/', 'Privacy')}</footer></body></html>`,
    );
  const names = Object.keys(departments) as Department[];
  put(
    MAIN,
    '/',
    main(
      'University of Northlea',
      `${write(4)}${list(names.map((name) => a(`https://${hostOf(name)}/`, `Department of ${name}`)))}<p>${a('/study/apply.html', 'Apply now')}. ${a('/open-day/', 'Learn more')}</p>`,
    ),
  );
  put(
    MAIN,
    '/study/',
    main(
      'Study',
      `${write(5)}${list(names.flatMap((name) => departments[name].slice(0, 2).map((course, i) => a(`https://${hostOf(name)}/courses/${slug(course)}/`, codeOf(name, i)))))}<p>${a('/study/fees/', 'Fees')} ${a('/study/apply.html', 'How to apply')}</p>`,
    ),
  );
  put(MAIN, '/study/fees/', main('Fees', `${write(5)}<p>${a('/files/fees-2026.pdf', 'Fees 2026 (PDF)')}</p>`));
  put(MAIN, '/study/apply.html', main('How to apply', `${write(6)}`));
  put(
    MAIN,
    '/research/',
    main(
      'Research',
      `${write(5)}${list(people.map((person, i) => a(`https://${hostOf(names[i % 3])}/people/${slug(person)}/`, person)))}`,
    ),
  );
  put(
    MAIN,
    '/departments/',
    main(
      'Departments',
      `${write(3)}${list(names.map((name) => a(`https://${hostOf(name)}/`, `Department of ${name}`)))}`,
    ),
  );
  put(
    MAIN,
    '/library/',
    main(
      'Library',
      `${write(5)}<p>${a('/library/opening-hours/', 'Opening hours')} ${a('/library/catalogue?new', 'New books')}</p>`,
    ),
  );
  put(MAIN, '/library/opening-hours/', main('Opening hours', write(6)));
  put(
    MAIN,
    '/library/catalogue?new',
    html(
      '<!doctype html><html lang="en"><title>Catalogue</title><meta name="robots" content="noindex"><h1>Catalogue</h1><p>Search for books.</p>',
    ),
  );
  put(MAIN, '/contact/', main('Contact', write(4)));
  put(MAIN, '/privacy/', main('Privacy', write(6)));
  put(MAIN, '/open-day/', main('Open day', write(5)));
  put(MAIN, '/files/fees-2026.pdf', plain('%PDF-1.4 fees', 'application/pdf'));
  put(MAIN, '/jubilee/', main('One hundred years', `${write(6)}${a('/jubilee/programme/', 'Programme')}`));
  put(MAIN, '/jubilee/programme/', main('Programme', `${write(6)}${a('/jubilee/', 'Jubilee')}`));
  put(MAIN, '/robots.txt', plain(`User-agent: *\nDisallow: /library/catalogue\nSitemap: ${START}sitemap.xml\n`));
  put(
    MAIN,
    '/sitemap.xml',
    plain(
      `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${['', 'study/', 'research/', 'departments/', 'library/', 'contact/', 'jubilee/', 'old-news/'].map((path) => `<url><loc>${START}${path}</loc></url>`).join('')}</urlset>`,
      'application/xml',
    ),
  );

  for (const department of names) {
    const host = hostOf(department);
    const title = department[0].toUpperCase() + department.slice(1);
    const shell = (name: string, body: string) =>
      html(
        `<html lang="en"><head><title>${name}</title></head><body><div id="nav">${[a('/', 'Home'), a('/courses/', 'Courses'), a('/people/', 'People'), a('/news/', 'News'), a('/contact.html', 'Contact'), a(START, 'University')].join(' | ')}</div><div id="content"><h2>${name}</h2>${body}</div><div id="foot">${a(`${START}privacy`, 'Privacy')}</div></body></html>`,
      );
    const courses = departments[department];
    const own = people.filter((_, i) => names[i % 3] === department);
    put(
      host,
      '/',
      shell(
        `Department of ${title}`,
        `${write(4)}<p>${a('/courses/', 'Our courses')} and ${a('/people/', 'who teaches them')}. ${a('/news/', 'Click here')} for news.</p>`,
      ),
    );
    put(
      host,
      '/courses/',
      shell(
        `${title}: courses`,
        `<table>${courses.map((course, i) => `<tr><td>${a(`/courses/${slug(course)}/`, codeOf(department, i))}</td><td>${course}</td><td>${a(`/courses/${slug(course)}/syllabus.html`, 'Syllabus')}</td></tr>`).join('\n')}</table>`,
      ),
    );
    courses.forEach((course, i) => {
      const teacher = own[i % own.length];
      const previous = courses[i - 1];
      put(
        host,
        `/courses/${slug(course)}/`,
        shell(
          `${codeOf(department, i)} ${course}`,
          `${write(5)}<p>Taught by ${a(`/people/${slug(teacher)}/`, teacher)}.</p><p>${a(`/courses/${slug(course)}/syllabus.html`, 'Syllabus')}${previous ? `. Attend ${a(`/courses/${slug(previous)}/`, previous)} first.` : ''}</p>${i === 2 ? `<p>${a('/rooms/tower.html', 'How to find the tower')}</p>` : ''}`,
        ),
      );
      put(
        host,
        `/courses/${slug(course)}/syllabus.html`,
        shell(
          `Syllabus of ${course}`,
          `<ol>${[1, 2, 3, 4, 5].map((week) => `<li id="week${week}">${write(1)}</li>`).join('')}</ol><p>${a(`/courses/${slug(course)}/`, 'Back to the course')}</p>`,
        ),
      );
    });
    put(
      host,
      '/people/',
      shell(
        `${title}: people`,
        list(
          own.map((person) => `${a(`/people/${slug(person)}/`, person)} ${a(`/people/${slug(person)}/cv.html`, 'CV')}`),
        ),
      ),
    );
    for (const person of own) {
      put(
        host,
        `/people/${slug(person)}/`,
        shell(
          person,
          `${write(4)}<p>${a(`/people/${slug(person)}/cv.html`, 'CV')}. ${a(`https://www.${slug(person)}.example/`, `www.${slug(person)}.example`)}</p>`,
        ),
      );
      put(host, `/people/${slug(person)}/cv.html`, shell(`${person}: CV`, write(2)));
    }
    put(
      host,
      '/news/',
      shell(
        `${title}: news`,
        `${list([1, 2, 3, 4].map((n) => a(`/news/item.html?id=${n}`, 'more …')))}${a('/news/2019.html', 'News of 2019')}`,
      ),
    );
    for (const n of [1, 2, 3, 4]) put(host, `/news/item.html?id=${n}`, shell(`${title} news ${n}`, write(4)));
    put(host, '/news/2019.html', gone());
    put(host, '/rooms/tower.html', moved(`${START}contact/`));
    put(host, '/contact.html', shell(`${title}: contact`, write(4)));
    put(host, '/robots.txt', gone());
  }
  put(MAIN, '/privacy', moved('/privacy/'));
  return { name: 'university', start: START, hosts: [MAIN, ...names.map(hostOf)], answers };
}

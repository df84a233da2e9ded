/** A shop with facets: categories, filters and sort orders, product cards, pages of lists. */
import { chance } from '../../src/core/numbers';
import { a, gone, html, list, moved, plain, sitemap, slug, writer } from './site';
import type { GeneratedSite } from './site';

const HOST = 'www.saltmarsh-outfitters.example';
const START = `https://${HOST}/`;
const categories = {
  Tents: ['Ridge tent', 'Dome tent', 'Tunnel tent', 'Family tent', 'Trekking tent', 'Tarp'],
  'Sleeping bags': ['Down bag', 'Summer bag', 'Winter bag', 'Liner', 'Quilt', 'Bag for children'],
  Stoves: ['Gas stove', 'Spirit burner', 'Wood stove', 'Windshield', 'Pot set', 'Kettle'],
  Boots: ['Hiking boot', 'Trail shoe', 'Winter boot', 'Gaiter', 'Camp shoe', 'Wading shoe'],
  Packs: ['Day pack', 'Trekking pack', 'Hip bag', 'Dry bag', 'Rain cover', 'Pack for children'],
};
const names = ['Curlew', 'Lapwing', 'Avocet', 'Dunlin', 'Plover', 'Heron', 'Tern', 'Wigeon'];
const colours = ['green', 'blue', 'red'];

const write = writer(
  11,
  [
    'The {thing} is made of {material} and weighs {weight}.',
    'It was tried on {place} for {time}.',
    'We repair every {thing} in our workshop at {place}.',
    'Its seams are {seam}, so rain stays outside even after {time}.',
    'Customers use it on {place}, in wind and in {weather}.',
    'Packed, it is no larger than {size}.',
    'The cloth of the {thing} comes from a mill near {place}.',
  ],
  {
    thing: ['piece'],
    material: ['ripstop nylon', 'waxed cotton', 'recycled polyester', 'aluminium', 'beech wood', 'grained leather'],
    weight: ['410 grams', '780 grams', '1.2 kilograms', '2.4 kilograms', '95 grams'],
    place: ['the salt marsh', 'the coast path', 'Harrow Fell', 'the north dunes', 'the river Ebble'],
    time: ['three weeks', 'a whole winter', 'two seasons', 'forty nights'],
    seam: ['taped twice', 'sewn and sealed', 'welded'],
    weather: ['sleet', 'spring tides', 'late frost', 'drizzle'],
    size: ['a loaf of bread', 'a rolled newspaper', 'two fists', 'a shoe'],
  },
);

const head = (title: string, extra = '') =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title} – Saltmarsh Outfitters</title>${extra}</head><body>
<header><a href="/"><img src="/logo.svg" alt="Saltmarsh Outfitters, home"></a>
<nav>${list([...Object.keys(categories).map((name) => a(`/${slug(name)}/`, name)), a('/guides/', 'Guides'), a('/sale/', 'Sale')])}</nav>
<a href="/basket" rel="nofollow"><i class="icon-basket"></i></a></header><main>`;
const foot = `</main><footer>${list([
  a('/delivery', 'Delivery'),
  a('/returns/', 'Returns'),
  a('/about/', 'About us'),
  a('http://www.saltmarsh-outfitters.example/contact/', 'Contact'),
])}<p>See also ${a('https://www.marsh-walks.example/', 'www.marsh-walks.example')}</p></footer></body></html>`;
const page = (title: string, body: string, extra = '') => html(`${head(title, extra)}<h1>${title}</h1>${body}${foot}`);
const canonical = (path: string) => `<link rel="canonical" href="${START.slice(0, -1)}${path}">`;

interface Product {
  name: string;
  category: string;
  path: string;
  thing: string;
}

export function shop(): GeneratedSite {
  const answers: GeneratedSite['answers'] = new Map();
  const put = (path: string, answer: ReturnType<typeof html>) => answers.set(HOST + path, answer);
  const next = chance(5);
  const products: Product[] = Object.entries(categories).flatMap(([category, things]) =>
    things.flatMap((thing) =>
      names.slice(0, 4 + next(4)).map((name) => ({
        name: `${thing} ${name}`,
        category,
        path: `/${slug(category)}/${slug(`${thing} ${name}`)}`,
        thing: thing.toLowerCase(),
      })),
    ),
  );
  const card = ({ name, path }: Product) =>
    `<article class="card"><a href="${path}"><img src="/img${path}.jpg" alt="${name}"></a><h3>${a(path, name)}</h3><p>From the new collection. ${a(path, 'Details')}</p>${a(`/basket?add=${slug(name)}`, 'Add to basket', 'rel="nofollow"')}</article>`;

  put(
    '/',
    page(
      'Everything for nights outside',
      `${write(4, { thing: 'tent' })}<h2>New this month</h2>${products
        .filter((_, i) => i % 13 === 0)
        .map(card)
        .join('\n')}`,
    ),
  );
  for (const category of Object.keys(categories)) {
    const own = products.filter((product) => product.category === category);
    const base = `/${slug(category)}/`;
    const facets = list([
      ...colours.map((colour) => a(`${base}?colour=${colour}`, colour[0].toUpperCase() + colour.slice(1))),
      a(`${base}?sort=price`, 'Price'),
      a(`${base}?sort=name`, 'Name'),
      ...colours.map((colour) => a(`${base}?colour=${colour}&sort=price`, `${colour}, by price`)),
    ]);
    const size = 12;
    const pages = Math.ceil(own.length / size);
    const sizes = `<p>${a(`/guides/${slug(category)}-sizes/`, 'Size guide')}</p>`;
    for (let n = 1; n <= pages; n++) {
      const paging = list(
        Array.from({ length: pages }, (_, i) => a(i ? `${base}?page=${i + 1}` : base, String(i + 1))),
      );
      const body = `${n === 1 ? write(4, { thing: category.toLowerCase() }) : ''}<aside>${facets}</aside>${sizes}${own
        .slice((n - 1) * size, n * size)
        .map(card)
        .join('\n')}${paging}`;
      const path = n === 1 ? base : `${base}?page=${n}`;
      put(path, page(n === 1 ? category : `${category}, page ${n}`, body, canonical(path)));
      if (n > 1) continue;
      for (const query of [
        ...colours.map((colour) => `?colour=${colour}`),
        ...colours.map((colour) => `?colour=${colour}&sort=price`),
        '?sort=price',
        '?sort=name',
      ])
        put(base + query, page(category, body, canonical(base)));
    }
    put(
      `/guides/${slug(category)}-sizes/`,
      page(
        `Sizes of ${category.toLowerCase()}`,
        `${write(7, { thing: category.toLowerCase() })}<p>Back to ${a(base, category)}</p>`,
      ),
    );
  }
  products.forEach((product, i) => {
    const { name, path, category, thing } = product;
    const others = products.filter((one) => one.category === category && one !== product);
    const related = list(
      Array.from({ length: 3 }, (_, n) => others[(i * 7 + n * 5) % others.length]).map((one) => a(one.path, one.name)),
    );
    const body = `<nav aria-label="Breadcrumb">${a('/', 'Home')} › ${a(`/${slug(category)}/`, category)} › ${name}</nav>
${write(5, { thing })}${write(3, { thing })}<p>Sizes and care: ${a(`/guides/${slug(category)}-sizes/`, 'see here')}.</p><h2>Goes well with</h2>${related}`;
    // Some products are sold out, and the lists still show them.
    put(path, i % 41 === 7 ? gone() : i % 23 === 3 ? page(name, `<p>${name}.</p>`) : page(name, body, canonical(path)));
  });
  put(
    '/guides/',
    page(
      'Guides',
      `${write(3)}${list(Object.keys(categories).map((name) => a(`/guides/${slug(name)}-sizes/`, `Sizes of ${name.toLowerCase()}`)))}`,
    ),
  );
  put(
    '/sale/',
    page(
      'Sale',
      `${write(3)}${products
        .filter((_, i) => i % 17 === 2)
        .map(card)
        .join('\n')}<p>${a('/sale/2025/', 'Last year’s sale')}</p>`,
    ),
  );
  put('/delivery', moved('/delivery/'));
  for (const [path, title] of [
    ['/delivery/', 'Delivery'],
    ['/returns/', 'Returns'],
    ['/about/', 'About us'],
    ['/contact/', 'Contact'],
  ])
    put(
      path,
      page(
        title,
        `${write(4)}${write(3)}<p>${path === '/about/' ? `Our friends at ${a('https://www.marsh-walks.example/routes/', 'https://www.marsh-walks.example/routes/')} lead walks.` : ''}</p>`,
      ),
    );
  put(
    '/basket',
    html(
      '<!doctype html><html lang="en"><title>Basket</title><meta name="robots" content="noindex"><h1>Basket</h1><p>Nothing in it yet.</p>',
    ),
  );
  put('/campaign/early-spring/', page('Early spring', `${write(5)}${a('/tents/', 'Tents')}`));
  put('/robots.txt', plain(`User-agent: *\nDisallow: /basket\nDisallow: /internal/\n\nSitemap: ${START}sitemap.xml\n`));
  put(
    '/sitemap.xml',
    sitemap([
      START,
      ...Object.keys(categories).map((name) => `${START}${slug(name)}/`),
      ...products.map(({ path }) => START.slice(0, -1) + path),
      `${START}campaign/early-spring/`,
      `${START}delivery`,
      ...['guides/', 'sale/', 'returns/', 'about/', 'contact/'].map((path) => START + path),
    ]),
  );
  return { name: 'shop', start: START, hosts: [HOST], answers };
}

/** Notes from the workshop: pages that each have one fault which the rest of the demo does not have. */
import { link, ORIGIN, paragraphs, render } from './template';
import type { Sheet } from './template';

const trail: [string, string][] = [
  ['/learn/', 'Learn'],
  ['/learn/workshop/', 'Workshop notes'],
];
const at = (slug: string) => `/learn/workshop/${slug}`;

type Note = Pick<Sheet, 'title' | 'canonical' | 'head'> & { slug: string; texts: string[] };

const drawings = (slug: string) => [link(at(slug), 'Drawing')];
const paintShop = (words: string) => [`Ask in ${link(at('paint-shop'), words)}.`];

const notes: Note[] = [
  {
    slug: 'bogie',
    title: 'The bogie',
    texts: [
      'A bogie carries two axles, four wheels and a motor, and is overhauled every ten years.',
      `Parts are ordered at ${link(`${ORIGIN}/shop/`, `${ORIGIN}/shop/`)}.`,
      ...drawings('pantograph'),
    ],
  },
  {
    slug: 'pantograph',
    title: 'The pantograph',
    texts: [
      'Springs press the pantograph against the wire with the weight of a full bucket.',
      link(
        '/stories/wires-come-down',
        'In the winter of 1963 the last wires of the coast line came down between the harbour and the mill, and four crews watched from the bridge',
      ),
      ...drawings('bogie'),
      ...paintShop('the paint shop'),
    ],
  },
  {
    slug: 'paint-shop',
    title: 'Paint shop',
    texts: ['Cream and green are brushed on by hand, in seven coats, and rubbed down after each.'],
  },
  {
    slug: 'lathe',
    title: 'The wheel lathe',
    texts: [
      'The lathe turns both wheels of an axle at once.',
      ...drawings('bogie'),
      ...paintShop('the paint shop'),
      ...paintShop('rooms full of ladders'),
      `Groups pay less, see the ${link('/visit/prices#groups', 'prices for groups')}.`,
    ],
    canonical: at('lathe'),
  },
  {
    slug: 'traverser',
    title: 'The traverser',
    texts: [
      'The traverser moves a whole tram sideways, from one track of the hall to another.',
      ...drawings('pantograph'),
      ...paintShop('the paint shop'),
      ...paintShop('rooms full of ladders'),
      `Compare ${link(at('bogie'), 'the bogie', 'rel="nofollow"')}.`,
    ],
    head: [
      `<link rel="canonical" href="${ORIGIN}${at('traverser')}">`,
      `<link rel="canonical" href="${ORIGIN}/learn/">`,
    ],
  },
  {
    slug: 'wheel-sets',
    title: 'Wheel sets',
    texts: ['Wheel sets wait on the siding behind the hall.', ...paintShop('rooms full of ladders')],
    canonical: `${ORIGIN}${at('axles')}`,
  },
  {
    slug: 'axles',
    title: 'Axles',
    texts: [
      'Axles are tested with sound before they are used again.',
      `Once it was called ${link(at('pit'), 'the pit')}.`,
    ],
    canonical: `${ORIGIN}${at('bogie')}`,
  },
  {
    slug: 'forge',
    title: 'The forge',
    texts: ['The forge has been cold since 1971.'],
    canonical: `${ORIGIN}/visit/room-hire`,
  },
  {
    slug: 'timber',
    title: 'Timber store',
    texts: ['Ash for the frames and oak for the floors dry here for five years.'],
    canonical: 'https://harbour-trust.example/timber',
  },
  {
    slug: 'upholstery',
    title: 'Upholstery',
    texts: [
      `Horsehair is still the best filling for a tram seat.<link rel="canonical" href="${ORIGIN}${at('upholstery')}">`,
    ],
  },
  {
    slug: 'varnish',
    title: 'Varnish',
    texts: ['Two recipes are kept under lock.'],
    canonical: `${ORIGIN}${at('paint-shop')}`,
    head: ['<meta name="robots" content="noindex">'],
  },
  {
    slug: 'bells',
    title: 'Bells',
    texts: ['Each bell is tuned to its line, the coast line to a low F.'],
    head: [
      `<link rel="alternate" hreflang="en-UK" href="${ORIGIN}${at('bells')}">`,
      `<link rel="alternate" hreflang="fr" href="${ORIGIN}/fr/apprendre/cloches">`,
    ],
  },
];

/** Pages of the workshop, by path, as documents. */
export function workshopPages(): Map<string, string> {
  const listed = [...notes.map(({ slug }) => slug), 'label', 'oil', 'oil-old', 'grease', 'Grease', 'pit'];
  const title = (slug: string) =>
    notes.find((note) => note.slug === slug)?.title ?? slug[0].toUpperCase() + slug.slice(1);
  const oil = render({
    path: at('oil'),
    title: 'Oil',
    main: paragraphs(
      'Summer oil and winter oil stand in different corners of the store, so that nobody takes the wrong can.',
    ),
    trail,
  });
  const grease = render({
    path: at('grease'),
    title: 'Grease',
    main: paragraphs('Grease keeps water out of the axle boxes, and the cat away from them.'),
    trail,
  });
  return new Map([
    [
      at(''),
      render({
        path: at(''),
        title: 'Workshop notes',
        description: 'What the workshop has written down for those who come after.',
        main: `${paragraphs('What the workshop has written down for those who come after.')}\n    <ul class="list">${listed
          .map((slug) => `<li>${link(at(slug), title(slug))}</li>`)
          .join('\n')}</ul>`,
        trail: trail.slice(0, 1),
      }),
    ],
    ...notes.map(({ slug, texts, ...sheet }): [string, string] => [
      at(slug),
      render({ ...sheet, path: at(slug), main: paragraphs(...texts), trail }),
    ]),
    [at('label'), '<!doctype html><html lang="en"><meta charset="utf-8"><p>Do not lean the ladder here.</p></html>'],
    [at('oil'), oil],
    [at('oil-old'), oil],
    [at('grease'), grease],
    [at('Grease'), grease],
    [
      at('inspection-pit'),
      render({
        path: at('inspection-pit'),
        title: 'The inspection pit',
        main: paragraphs('It is deep, and lit from both sides.'),
        trail,
      }),
    ],
  ]);
}

/** Addresses of the workshop that have moved. */
export const workshopMoved: [from: string, to: string][] = [[at('pit'), at('inspection-pit')]];

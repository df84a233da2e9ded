import type { shop } from './content';
import { escapeHtml, link, list, ORIGIN, paragraphs } from './template';
import type { Sheet } from './template';

type Product = (typeof shop)[number];
const PER_PAGE = 8;
const sorts = ['price', 'name'];

const productPath = ({ slug }: Product) => `/shop/${slug}`;

/** A product, or the list with its facets and sort parameters in any combination; null for other addresses. */
export function shopPage({ pathname, searchParams }: URL, products: Product[]): Sheet | null {
  const product = products.find((p) => productPath(p) === pathname);
  if (product) return productSheet(product, products);
  if (pathname !== '/shop/') return null;
  const group = searchParams.get('group');
  const colour = searchParams.get('colour');
  const sort = searchParams.get('sort');
  const page = Number(searchParams.get('page') ?? 1) || 1;
  const found = products
    .filter((p) => (!group || p.group === group) && (!colour || p.colour === colour))
    .sort((a, b) =>
      sort === 'name' ? (a.name < b.name ? -1 : 1) : sort === 'price' ? Number(a.price) - Number(b.price) : 0,
    );
  const address = (changes: Record<string, string | null>) => {
    const query = new URLSearchParams();
    for (const [key, value] of Object.entries({ group, colour, sort, page: null, ...changes }))
      if (value) query.set(key, value);
    return query.size ? `/shop/?${query}` : '/shop/';
  };
  const choices = (name: 'group' | 'colour') =>
    [...new Set(products.map((p) => p[name]))].map((value) => link(address({ [name]: value }), value));
  return {
    path: '/shop/',
    title: group ? `Shop: ${group}` : 'Shop',
    // Sorted, coloured and paged lists give the group as the page to index.
    canonical: ORIGIN + (group ? `/shop/?group=${group}` : '/shop/'),
    main: [
      list(
        found.slice((page - 1) * PER_PAGE, page * PER_PAGE).map((p) => link(productPath(p), p.name)),
        'goods',
      ),
      `    <nav class="facets">${list([...choices('group'), ...choices('colour'), ...sorts.map((s) => link(address({ sort: s }), `by ${s}`))])}</nav>`,
      page * PER_PAGE < found.length ? `    <p>${link(address({ page: String(page + 1) }), 'More')}</p>` : '',
      `    <p>${link('/shop/basket', 'Basket')}</p>`,
    ].join('\n'),
  };
}

function productSheet(product: Product, products: Product[]): Sheet {
  const alike = products.filter((p) => p.group === product.group && p !== product).slice(0, 3);
  return {
    path: productPath(product),
    title: product.name,
    description: product.copy,
    canonical: ORIGIN + productPath(product),
    trail: [
      ['/shop/', 'Shop'],
      [`/shop/?group=${product.group}`, product.group],
    ],
    main: paragraphs(
      escapeHtml(product.copy),
      `£${product.price}, ${product.colour}.`,
      `<a href="/shop/basket?add=${product.slug}" rel="nofollow">Put into the basket</a>`,
    ),
    aside: list(alike.map((p) => link(productPath(p), p.name))),
  };
}

export interface Sheet {
  title: string;
  /** Inner HTML of `<main>`. */
  main: string;
  path: string;
  description?: string;
  lang?: 'en' | 'fr';
  /** Address named as canonical; none when absent. */
  canonical?: string;
  /** Further lines of the head. */
  head?: string[];
  aside?: string;
  /** The way here, from the second step on: address and words. */
  trail?: [string, string][];
}

export const ORIGIN = 'https://www.larkfield.example';

export const escapeHtml = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

export const link = (href: string, words: string, attributes = '') =>
  `<a href="${escapeHtml(href)}"${attributes ? ` ${attributes}` : ''}>${escapeHtml(words)}</a>`;

export const list = (items: string[], className = 'list') =>
  `<ul class="${className}">\n${items.map((item) => `      <li>${item}</li>`).join('\n')}\n    </ul>`;

export const paragraphs = (...texts: string[]) => texts.map((text) => `    <p>${text}</p>`).join('\n');

const sections = {
  en: [
    ['/visit/', 'Visit'],
    ['/collections/', 'Collections'],
    ['/stories/', 'Stories'],
    ['/learn/', 'Learn'],
    ['/events/', 'What’s on'],
    ['/shop/', 'Shop'],
  ],
  fr: [
    ['/fr/', 'Accueil'],
    ['/fr/visite/horaires', 'Horaires'],
    ['/fr/collections/tramways', 'Tramways'],
    ['/fr/recits/la-derniere-receveuse', 'Récits'],
  ],
} as const;

/** The page around a sheet: header, navigation, trail, main, aside, footer. */
export function render({
  title,
  main,
  path,
  description,
  lang = 'en',
  canonical,
  head = [],
  aside,
  trail,
}: Sheet): string {
  const nav = sections[lang].map(([href, words]) => `      <li>${link(href, words)}</li>`).join('\n');
  const lines = [
    '<meta charset="utf-8">',
    `<title>${escapeHtml(title)} – Larkfield Transit Museum</title>`,
    ...(description ? [`<meta name="description" content="${escapeHtml(description)}">`] : []),
    ...(canonical ? [`<link rel="canonical" href="${escapeHtml(canonical)}">`] : []),
    '<link rel="stylesheet" href="/assets/museum.css">',
    ...head,
  ];
  return `<!doctype html>
<html lang="${lang}">
<head>
${lines.map((line) => `  ${line}`).join('\n')}
</head>
<body>
<header class="masthead">
  <a href="${lang === 'fr' ? '/fr/' : '/'}" class="logo"><img src="/assets/logo.svg" alt="Larkfield Transit Museum"></a>
  <nav class="sections" aria-label="Sections">
    <ul>
${nav}
    </ul>
  </nav>
</header>
${trail ? `<nav class="trail" aria-label="Breadcrumb">\n  ${[link('/', 'Home'), ...trail.map(([href, words]) => link(href, words))].join(' › ')}\n</nav>\n` : ''}<main>
  <article class="sheet">
    <h1>${escapeHtml(title)}</h1>
${main}
  </article>
</main>
${aside ? `<aside class="related">\n  <h2>${lang === 'fr' ? 'À lire aussi' : 'Read on'}</h2>\n  ${aside}\n</aside>\n` : ''}<footer>
  <ul>
    <li>${link('/visit/opening-hours', lang === 'fr' ? 'Horaires (en anglais)' : 'Opening hours')}</li>
    <li>${link('/press/', lang === 'fr' ? 'Presse' : 'Press')}</li>
    <li>${link(lang === 'fr' ? '/' : '/fr/', lang === 'fr' ? 'English' : 'Français')}</li>
    <li>${link('/tickets', 'Tickets')}</li>
    <li>${link('https://harbour-trust.example/', 'Larkfield Harbour Trust', 'rel="nofollow sponsored"')}</li>
    <li><a href="https://photos.example/larkfield"><img src="/assets/photos.svg"></a></li>
  </ul>
  <p>Page ${escapeHtml(path)}</p>
</footer>
</body>
</html>
`;
}

/**
 * What the documentation says of each finding besides its rule, reason and fix: an example, and when it is no problem.
 */

export interface Guidance {
  /** When the finding can be ignored. */
  ignore: string;
  /** What stands on the site (HTML, robots.txt, a sitemap, or an answer of the server) before and after the fix. */
  before: string;
  after: string;
}

const nextTo = (line: string) => `<li><a href="/collections/trams/">Trams</a></li>\n${line}`;

export const guidance: Readonly<Record<string, Guidance>> = {
  indexable_orphan: {
    ignore:
      'The page is a landing page that only advertisements or mails lead to. Set noindex on it if it should not be found otherwise.',
    before: nextTo('<!-- nothing links to /collections/horse-trams/ -->'),
    after: nextTo('<li><a href="/collections/horse-trams/">Horse trams</a></li>'),
  },
  indexable_island: {
    ignore:
      'The group is a site of its own that shares the host on purpose, such as an archive that is announced elsewhere.',
    before:
      '<!-- /archive-2009/ links to its pages, and no page outside links to it -->\n<a href="/about/">About the museum</a>',
    after: '<a href="/about/">About the museum</a>\n<a href="/archive-2009/">Our website of 2009</a>',
  },
  deep_pages: {
    ignore: 'The pages are an archive that visitors search rather than browse.',
    before: '<a href="/events/?page=2">Older events</a>',
    after: '<a href="/events/2024/">2024</a>\n<a href="/events/2023/">2023</a>\n<a href="/events/2022/">2022</a>',
  },
  only_paging: {
    ignore: 'Nobody needs to find the older entries, as in a list of notices that have passed.',
    before: '<a href="/stories/?page=2">Older stories</a>',
    after: '<a href="/stories/trams/">All stories about trams</a>\n<a href="/stories/2024/">Stories of 2024</a>',
  },
  kept_from_crawlers: {
    ignore: 'The pages should not be found. Then set noindex on them, which says so.',
    before: '<a href="/learn/schools/" rel="nofollow">For schools</a>',
    after: '<a href="/learn/schools/">For schools</a>',
  },
  by_redirect_only: {
    ignore: 'The links were written by others and cannot be changed, as in a feed that the page shows.',
    before: '<a href="/tickets">Tickets</a> <!-- redirects to /visit/tickets/ -->',
    after: '<a href="/visit/tickets/">Tickets</a>',
  },
  gates: {
    ignore: 'The page is the index of its section and its pages belong nowhere else.',
    before: '<!-- only /stories/ links to the stories -->\n<a href="/stories/">Stories</a>',
    after:
      '<a href="/stories/">Stories</a>\n<!-- on the page of a vehicle -->\n<a href="/stories/the-night-tram/">The night tram</a>',
  },
  dead_ends: {
    ignore: 'The page is meant to be printed or shown in a frame.',
    before: '<main><h1>Plan of the depot</h1><img src="/plan.png" alt="Plan of the depot"></main>',
    after: '<nav><a href="/">Museum</a> <a href="/visit/">Visit</a></nav>\n<main><h1>Plan of the depot</h1> …</main>',
  },
  traps: {
    ignore: 'The family is large but has an end, and all its pages should be found. Raise the limit in the settings.',
    before: '<a href="/events/calendar?month=2031-04">Next month</a>',
    after: '<!-- no link after the last month with events, or in robots.txt: -->\nDisallow: /events/calendar?month=',
  },
  crumbs_astray: {
    ignore: 'The trail shows steps that are no pages, such as the name of a category without a page.',
    before: '<nav class="breadcrumb">Museum › Collections › Trams</nav>',
    after: '<nav class="breadcrumb"><a href="/">Museum</a> › <a href="/collections/">Collections</a> › Trams</nav>',
  },
  starving: {
    ignore: 'The pages matter little, such as terms and conditions or old notices.',
    before: '<!-- only page 14 of the list links to it -->\n<a href="/collections/trams/car-42/">Car 42</a>',
    after: '<p>The body was built beside that of <a href="/collections/trams/car-42/">car 42</a> in 1911.</p>',
  },
  one_way_in: {
    ignore: 'The page is a step of a process, such as a form or a confirmation.',
    before: '<a href="/stories/night-tram/">The night tram</a>',
    after:
      '<a href="/stories/night-tram/">The night tram</a>\n<!-- and on the page of the vehicle -->\n<p>Read <a href="/stories/night-tram/">how it ran by night</a>.</p>',
  },
  crowded: {
    ignore: 'The page is an index that visitors search with their browser, such as an alphabetical list or a site map.',
    before: '<ul> <!-- 600 vehicles on one page --> </ul>',
    after: '<h2><a href="/collections/trams/">Trams</a></h2>\n<h2><a href="/collections/buses/">Buses</a></h2>',
  },
  links_to_broken: {
    ignore: 'The page is only gone for a while and comes back.',
    before: '<a href="/press/2019/opening.html">The opening</a> <!-- 404 -->',
    after: '<a href="/press/opening/">The opening</a>',
  },
  links_to_redirects: {
    ignore: 'The redirect leads to another address each time, such as “latest issue” or a login.',
    before: '<a href="http://www.larkfield.example/visit">Visit</a>',
    after: '<a href="https://www.larkfield.example/visit/">Visit</a>',
  },
  links_to_canonicalised: {
    ignore: 'The links sort or filter a list for visitors, and the list without parameters is linked as well.',
    before: '<a href="/shop/?sort=price">Shop</a> <!-- canonical: /shop/ -->',
    after: '<a href="/shop/">Shop</a>',
  },
  links_to_noindex: {
    ignore: 'The page serves visitors only: a basket, a login, results of a search.',
    before: '<a href="/collections/print/">All vehicles</a> <!-- noindex -->',
    after: '<a href="/collections/">All vehicles</a>',
  },
  links_to_blocked: {
    ignore: 'The page is closed on purpose and visitors need the link: a basket, a login, results of a search.',
    before: 'Disallow: /learn\n\n<a href="/learn/schools/">For schools</a>',
    after: 'Disallow: /learn/internal/\n\n<a href="/learn/schools/">For schools</a>',
  },
  nofollow_inside: {
    ignore: 'The links lead to addresses that no crawler should fetch, such as “add to basket”.',
    before: '<a href="/press/" rel="nofollow">Press</a>',
    after: '<a href="/press/">Press</a>',
  },
  outside_broken: {
    ignore: 'The other site answers visitors and refuses programs. Open the link to see.',
    before: '<a href="https://tramways.example/history.html">Its history</a> <!-- 404 -->',
    after: '<a href="https://tramways.example/about/history/">Its history</a>',
  },
  insecure_links: {
    ignore: 'The other site answers by http only.',
    before: '<a href="http://www.larkfield.example/visit/">Visit</a>',
    after: '<a href="https://www.larkfield.example/visit/">Visit</a>',
  },
  lost_fragments: {
    ignore: 'A script makes the section after the page was loaded.',
    before: '<a href="/visit/#prices">Prices</a>\n<!-- /visit/ has --> <h2 id="tickets">Tickets</h2>',
    after: '<a href="/visit/#tickets">Tickets</a>',
  },
  anchor_empty: {
    ignore: 'The link is hidden from everybody, such as a place that a script fills.',
    before: '<a href="/visit/"><span class="icon-map"></span></a>',
    after: '<a href="/visit/" aria-label="How to get here"><span class="icon-map"></span></a>',
  },
  image_no_alt: {
    ignore:
      'A link with text beside it leads to the same page, and the image is hidden from screen readers (aria-hidden).',
    before: '<a href="/"><img src="/logo.svg"></a>',
    after: '<a href="/"><img src="/logo.svg" alt="Larkfield Transit Museum, home"></a>',
  },
  anchor_generic: {
    ignore: 'The words are part of a card whose heading is a link to the same page.',
    before: '<p>Night buses ran until 1964. <a href="/stories/night-buses/">Read more</a></p>',
    after: '<p>Night buses ran until 1964. <a href="/stories/night-buses/">Read more about night buses</a></p>',
  },
  anchor_address: {
    ignore: 'The address itself is what the reader needs, as on a page about addresses or to copy it.',
    before: '<a href="https://www.larkfield.example/shop/">https://www.larkfield.example/shop/</a>',
    after: '<a href="https://www.larkfield.example/shop/">the museum shop</a>',
  },
  anchor_overlong: {
    ignore: 'The link is a teaser that holds a heading and a text on purpose, and its heading names the target.',
    before: '<a href="/stories/flood/"><p>In the autumn of 1953 the river rose for three days, and …</p></a>',
    after: '<p>In the autumn of 1953 <a href="/stories/flood/">the river rose</a> for three days, and …</p>',
  },
  anchor_off_topic: {
    ignore: 'The words are a nickname, an older name or a translation that readers of the page know.',
    before: '<a href="/visit/prices/">Meet the conductors</a>',
    after: '<a href="/visit/prices/">Ticket prices</a>',
  },
  anchor_conflict: {
    ignore: 'The words stand in a list or table whose row or heading tells the links apart.',
    before: '<a href="/collections/trams/car-42/">Drawing</a> … <a href="/collections/buses/b-7/">Drawing</a>',
    after:
      '<a href="/collections/trams/car-42/">Drawing of car 42</a> … <a href="/collections/buses/b-7/">Drawing of bus B 7</a>',
  },
  anchor_split: {
    ignore: 'Each name is right where it stands, as in texts for different readers.',
    before: '<a href="/depot/">The depot</a> … <a href="/depot/">Where they sleep</a>',
    after: '<a href="/depot/">The depot</a> … <a href="/depot/">The depot at Lantern Lane</a>',
  },
  nofollow_mix: {
    ignore: 'The links with nofollow were written by visitors, as in comments.',
    before: '<a href="/press/" rel="nofollow">Press</a> … <a href="/press/">Press</a>',
    after: '<a href="/press/">Press</a> … <a href="/press/">Press</a>',
  },
  blocked_noindexed: {
    ignore: 'The page has never been in search results and nobody links to it.',
    before: 'Disallow: /staff/\n\n<meta name="robots" content="noindex">',
    after: '# no rule for /staff/\n\n<meta name="robots" content="noindex">',
  },
  canonical_not_indexable: {
    ignore: 'The named page will be indexable soon, as during a relaunch.',
    before: '<link rel="canonical" href="https://www.larkfield.example/old-shop/"> <!-- 404 -->',
    after: '<link rel="canonical" href="https://www.larkfield.example/shop/">',
  },
  canonical_chain: {
    ignore: 'Never on purpose; change it together with the next change of the template.',
    before: '<!-- /a --> <link rel="canonical" href="/b">\n<!-- /b --> <link rel="canonical" href="/c">',
    after: '<!-- /a and /b --> <link rel="canonical" href="https://www.larkfield.example/c">',
  },
  canonical_loop: {
    ignore: 'Never.',
    before: '<!-- /a --> <link rel="canonical" href="/b">\n<!-- /b --> <link rel="canonical" href="/a">',
    after: '<!-- /a and /b --> <link rel="canonical" href="https://www.larkfield.example/a">',
  },
  several_canonicals: {
    ignore: 'All of them name the same address.',
    before:
      '<link rel="canonical" href="https://www.larkfield.example/shop/">\n<link rel="canonical" href="https://www.larkfield.example/shop/?ref=top">',
    after: '<link rel="canonical" href="https://www.larkfield.example/shop/">',
  },
  canonical_outside: {
    ignore: 'The text was first published there, and you agreed to name it.',
    before: '<link rel="canonical" href="https://staging.example/visit/">',
    after: '<link rel="canonical" href="https://www.larkfield.example/visit/">',
  },
  canonical_relative: {
    ignore: 'The site has one host and no copies. It works, as long as that stays so.',
    before: '<link rel="canonical" href="/visit/">',
    after: '<link rel="canonical" href="https://www.larkfield.example/visit/">',
  },
  canonical_in_body: {
    ignore: 'The same canonical stands in the head as well.',
    before: '<head><div>…</div>\n<link rel="canonical" href="https://www.larkfield.example/visit/"></head>',
    after: '<head><link rel="canonical" href="https://www.larkfield.example/visit/"></head>',
  },
  noindex_canonical: {
    ignore: 'Never on purpose: the two contradict each other.',
    before: '<meta name="robots" content="noindex">\n<link rel="canonical" href="https://www.larkfield.example/shop/">',
    after: '<link rel="canonical" href="https://www.larkfield.example/shop/">',
  },
  redirect_chain: {
    ignore: 'The first redirect only adds https, and each of the two rules is needed by itself.',
    before: '/tickets → /visit/tickets → /visit/tickets/',
    after: '/tickets → /visit/tickets/\n/visit/tickets → /visit/tickets/',
  },
  redirect_loop: {
    ignore: 'The address needs a cookie that the crawl did not send. Turn cookies on in the settings and crawl again.',
    before: '/summer → /events/summer/ → /summer',
    after: '/summer → /events/summer/ (answers 200)',
  },
  hreflang_no_return: {
    ignore: 'The other edition belongs to somebody else, who will not name yours.',
    before:
      '<!-- /visit/ --> <link rel="alternate" hreflang="fr" href="https://www.larkfield.example/fr/visite/">\n<!-- /fr/visite/ has none -->',
    after:
      '<!-- both pages -->\n<link rel="alternate" hreflang="en" href="https://www.larkfield.example/visit/">\n<link rel="alternate" hreflang="fr" href="https://www.larkfield.example/fr/visite/">',
  },
  hreflang_not_indexable: {
    ignore: 'The edition is being translated and will be open soon.',
    before: '<link rel="alternate" hreflang="fr" href="https://www.larkfield.example/fr/ancien/"> <!-- 404 -->',
    after: '<link rel="alternate" hreflang="fr" href="https://www.larkfield.example/fr/visite/">',
  },
  hreflang_bad_code: {
    ignore: 'Never: the line has no effect as it is.',
    before: '<link rel="alternate" hreflang="en-UK" href="…">',
    after: '<link rel="alternate" hreflang="en-GB" href="…">',
  },
  variants_unsettled: {
    ignore: 'The addresses show different pages that are equal by chance.',
    before: 'https://www.larkfield.example/shop and https://www.larkfield.example/shop/ both answer 200',
    after: 'https://www.larkfield.example/shop → 301 https://www.larkfield.example/shop/',
  },
  duplicates: {
    ignore: 'The pages are empty for now and get their own texts later.',
    before: '/visit/ and /visit/index.html answer with the same document',
    after: '/visit/index.html → 301 /visit/',
  },
  near_duplicates: {
    ignore: 'The few words that differ are what visitors look for, as with places or sizes.',
    before: '<h1>Model tram, red</h1> <p>Made of tin. …</p>\n<h1>Model tram, green</h1> <p>Made of tin. …</p>',
    after: '<h1>Model tram</h1> <p>In red or green. Made of tin. …</p>',
  },
  no_title: {
    ignore: 'The page is only shown in a frame.',
    before: '<head><meta charset="utf-8"></head>',
    after: '<head><meta charset="utf-8"><title>Visit – Larkfield Transit Museum</title></head>',
  },
  no_h1: {
    ignore: 'The main heading is an h2 and nothing stands above it. Browsers and search engines cope.',
    before: '<div class="title">Visit</div>',
    after: '<h1>Visit</h1>',
  },
  thin: {
    ignore: 'Pictures, a map or a form are what the page is for.',
    before: '<main><h1>Car 42</h1><p>Tram of 1911.</p></main>',
    after: '<main><h1>Car 42</h1><p>Built in 1911 for the coast line, it ran until 1954 and …</p></main>',
  },
  failing: {
    ignore: 'The server was being worked on while the crawl ran. Fetch the pages again to see.',
    before: 'GET /shop/basket → 500',
    after: 'GET /shop/basket → 200',
  },
  robots_all_closed: {
    ignore: 'The site is a test server that nobody should find.',
    before: 'User-agent: *\nDisallow: /',
    after: 'User-agent: *\nDisallow: /basket/',
  },
  robots_unreadable: {
    ignore: 'The server was being worked on while the crawl ran.',
    before: 'GET /robots.txt → 503',
    after: 'GET /robots.txt → 200, or 404 when there are no rules',
  },
  robots_html: {
    ignore: 'No rules are wanted. An answer of 404 says so more clearly.',
    before: '<!doctype html><title>Page not found</title>',
    after: 'User-agent: *\nDisallow: /basket/',
  },
  robots_early: {
    ignore: 'Never: the rule has no effect as it is.',
    before: 'Disallow: /basket/\nUser-agent: *',
    after: 'User-agent: *\nDisallow: /basket/',
  },
  robots_unknown: {
    ignore: 'One crawler is known to read the line, such as Clean-param or Host.',
    before: 'Dissalow: /basket/',
    after: 'Disallow: /basket/',
  },
  robots_empty: {
    ignore: 'The crawler that is named should be allowed to fetch everything.',
    before: 'User-agent: *\nDisallow: /basket/\n\nUser-agent: NewsBot',
    after: 'User-agent: *\nUser-agent: NewsBot\nDisallow: /basket/',
  },
  resources_closed: {
    ignore: 'The file does not change what a page shows, such as a script that counts visits.',
    before: 'Disallow: /assets/',
    after: 'Disallow: /assets/\nAllow: /assets/*.css\nAllow: /assets/*.js',
  },
  no_sitemap: {
    ignore: 'The site has few pages, and all of them are linked.',
    before: 'User-agent: *\nDisallow: /basket/',
    after: 'User-agent: *\nDisallow: /basket/\n\nSitemap: https://www.larkfield.example/sitemap.xml',
  },
  listed_not_indexable: {
    ignore:
      'The page was taken down on purpose, and the sitemap names it so that search engines notice soon. Remove it then.',
    before: '<url><loc>https://www.larkfield.example/old-shop/</loc></url> <!-- 404 -->',
    after: '<url><loc>https://www.larkfield.example/shop/</loc></url>',
  },
  listed_blocked: {
    ignore: 'Never: one of the two is wrong.',
    before: 'Disallow: /learn/\n\n<url><loc>https://www.larkfield.example/learn/schools/</loc></url>',
    after: '# no rule for /learn/\n\n<url><loc>https://www.larkfield.example/learn/schools/</loc></url>',
  },
  indexable_not_listed: {
    ignore: 'The sitemap holds only what changes often, on purpose.',
    before: '<urlset> <!-- without /stories/the-flood/ --> </urlset>',
    after: '<url><loc>https://www.larkfield.example/stories/the-flood/</loc></url>',
  },
  listed_no_route: {
    ignore: 'The page is a landing page that only advertisements or mails lead to.',
    before: '<url><loc>https://www.larkfield.example/campaigns/winter/</loc></url> <!-- no page links to it -->',
    after: '<a href="/campaigns/winter/">Winter at the museum</a>',
  },
  lastmod_malformed: {
    ignore: 'Never: search engines ignore the date as it is.',
    before: '<lastmod>01.03.2027</lastmod>',
    after: '<lastmod>2027-03-01</lastmod>',
  },
  sitemap_fault: {
    ignore: 'The file is no longer used. Then remove its line from robots.txt.',
    before: '<loc>https://www.larkfield.example/shop/?a=1&b=2</loc>',
    after: '<loc>https://www.larkfield.example/shop/?a=1&amp;b=2</loc>',
  },
  sitemap_foreign: {
    ignore: 'The other host belongs to the site as well. Name it in the settings.',
    before: '<loc>https://staging.larkfield.example/visit/</loc>',
    after: '<loc>https://www.larkfield.example/visit/</loc>',
  },
  sitemap_large: {
    ignore: 'Never: entries after the first 50,000 may be ignored.',
    before: '<urlset> <!-- 62,000 entries --> </urlset>',
    after:
      '<sitemapindex>\n<sitemap><loc>https://www.larkfield.example/sitemap-1.xml</loc></sitemap>\n<sitemap><loc>https://www.larkfield.example/sitemap-2.xml</loc></sitemap>\n</sitemapindex>',
  },
  sitemap_twice: {
    ignore: 'The dates of the entries agree.',
    before:
      '<url><loc>https://www.larkfield.example/visit/</loc><lastmod>2027-03-01</lastmod></url>\n<url><loc>https://www.larkfield.example/visit/</loc><lastmod>2026-11-20</lastmod></url>',
    after: '<url><loc>https://www.larkfield.example/visit/</loc><lastmod>2027-03-01</lastmod></url>',
  },
  robots_sitemap: {
    ignore: 'The file will be published soon.',
    before: 'Sitemap: https://www.larkfield.example/sitemaps.xml\n# answers 404',
    after: 'Sitemap: https://www.larkfield.example/sitemap.xml',
  },
};

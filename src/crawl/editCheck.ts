/** Looks at the pages of edits as they are now, apart from a crawl, and tells what has become of each edit. */
import pLimit from 'p-limit';
import { outcomeTest } from '$core/draft';
import type { SeenPage } from '$core/draft';
import { CLICK_KIND, eachPackedLink, placements } from '$core/links';
import type { LinkBundle } from '$core/links';
import type { EditCheck, LiveEdits } from '$core/liveChecks';
import { parseRobots } from '$core/robots';
import { scopeOf } from '$core/scope';
import type { CrawlSettings } from '$core/settings';
import { originOf } from '$core/url';
import type { PageResult } from '$server/index';
import { fetchPage } from './page';
import { startParsers } from './parserPool';
import type { Fetch } from './retry';
import { fetchRobots } from './robots';

/** The click links of a page by their targets. */
function clicksOf({ packed, addresses, phrases }: LinkBundle) {
  const clicks = new Map<string, { anchor: string; placement: string }[]>();
  eachPackedLink(packed, (link) => {
    if (link.kind !== CLICK_KIND) return;
    const target = addresses[link.target];
    const click = { anchor: phrases[link.anchor], placement: placements[link.placement] };
    const others = clicks.get(target);
    if (others) others.push(click);
    else clicks.set(target, [click]);
  });
  return clicks;
}

function seenPage(page: PageResult): SeenPage {
  const { status, html, redirectTo, canonical, noindex, pageNofollow, links } = page;
  const clicks = clicksOf(links);
  return {
    status,
    html,
    redirectTo,
    canonical,
    noindex: noindex === true,
    nofollow: pageNofollow === true,
    linksTo: (address) => clicks.get(address) ?? [],
  };
}

/** What has become of edits; each page is asked for once, and nothing that it links to. */
export async function checkEdits(
  { edits, addresses }: EditCheck,
  { settings, fetch, signal }: { settings: CrawlSettings; fetch: Fetch; signal: AbortSignal },
): Promise<LiveEdits> {
  const { identify } = scopeOf(settings);
  const parsers = startParsers({ settings, selectionOnly: true }, signal);
  const options = { fetch, settings, identify, parse: parsers.parse, discoveriesOf: () => [] };
  const limit = pLimit(settings.connections);
  const robotsOf = new Set(edits.filter(({ op }) => op === 'robots').map(({ source }) => originOf(source)));
  const pages = new Map<string, SeenPage>();
  const bodies = new Map<string, string>();
  const parse = (text: string) => Promise.resolve({ ok: true as const, parsed: parseRobots(text) });
  try {
    await Promise.all([
      ...addresses.map((address) =>
        limit(async () => {
          const queued = { urlId: 0, address, rank: 0, hops: 0 };
          pages.set(address, seenPage(await fetchPage(queued, null, options)));
        }),
      ),
      ...[...robotsOf].map((origin) =>
        limit(async () => {
          const { body } = await fetchRobots(origin, { fetch, parse, token: settings.token });
          bodies.set(origin, body);
        }),
      ),
    ]);
  } finally {
    await parsers.close();
  }
  const outcomeOf = outcomeTest(
    {
      pageAt: (address) => pages.get(address) ?? null,
      addresses: () => pages.keys(),
      robots: (origin) => bodies.get(origin) ?? null,
    },
    settings,
  );
  return {
    pages: pages.size + bodies.size,
    outcomes: Object.fromEntries(edits.map((edit) => [edit.id, outcomeOf(edit)])),
  };
}

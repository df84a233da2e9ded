import { rulesAnswer, verdictEvidence } from '$core/answers';
import { parseRobots } from '$core/robots';
import {
  answerSheetOf,
  canonicalClustersOf,
  canonicalGroupsOf,
  hostVariantsOf,
  hreflangSetsOf,
  isFaulty,
  pageRuleGroupsOf,
  richestPages,
  variantGroupsOf,
  variantRows,
} from '$core/rules';
import type { CanonicalCluster, HreflangSet } from '$core/rules';
import { addressAt, factAt, textAt } from '$core/snapshot';
import type { Snapshot } from '$core/snapshot';
import { originOf } from '$core/url';
import { getCrawl, likenessTo, liveChecksOf, openSnapshot, robotsDrafts } from '$server/index';
import type { Crawl, Database } from '$server/index';
import { reportFor } from '../../../../../crawl';
import { listScreen } from '../../../../../screen';
import type { PageServerLoad } from './$types';

/** What the list shows while nobody has chosen its columns. */
const COLUMNS = 'url:300p,verdict:176,verdict_reason:300,canonical_state:140,share:84,depth:64';

const MOST_CLUSTERS = 200;
const MOST_MEMBERS = 100;
const MOST_GROUPS = 200;
const MOST_SETS = 200;
const MOST_SET_PAGES = 200;

/** The members of a cluster side by side, so that a wrong merge shows. */
async function clusterShown(db: Database, crawl: Crawl, snapshot: Snapshot, cluster: CanonicalCluster) {
  const shown = cluster.members.slice(0, MOST_MEMBERS);
  const addresses = shown.map(({ page }) => addressAt(snapshot, page));
  const alike = await likenessTo(db, crawl, cluster.end, addresses);
  const facts = (page: number) => ({
    title: textAt(snapshot, 'title', page),
    h1: textAt(snapshot, 'h1', page),
    words: factAt(snapshot, 'word_count', page) as number | null,
  });
  return {
    end: cluster.end,
    own: cluster.page < 0 ? null : facts(cluster.page),
    size: cluster.members.length,
    members: shown.map(({ page, canonical, outcome, flags }, i) => ({
      address: addresses[i],
      canonical,
      outcome,
      flags,
      likeness: alike.get(addresses[i]) ?? null,
      ...facts(page),
    })),
  };
}

function setShown(snapshot: Snapshot, { pages, languages, links, pageFaults }: HreflangSet) {
  return {
    languages,
    size: pages.length,
    rows: pages.slice(0, MOST_SET_PAGES).map((page) => ({
      address: addressAt(snapshot, page),
      faults: pageFaults.get(page) ?? [],
      cells: languages.map((language) =>
        links
          .filter((link) => link.page === page && link.language === language)
          .map(({ target, faults, source }) => ({ target, faults, source })),
      ),
    })),
  };
}

export const load: PageServerLoad = async (event) => {
  const { db, crawl, snapshot, state, list } = await listScreen(event, COLUMNS);
  const { picture, item } = state;
  const row = (await getCrawl(db, crawl.id))!;
  const { settings } = row;
  const { start, token } = settings;
  const isOf = (...pictures: string[]) => pictures.includes(picture);
  // What is about links needs them.
  if (isOf('canonicals', 'hreflang', 'answers')) await openSnapshot(db, crawl, 'links');
  const report = isOf('') ? (await reportFor(event.locals))! : null;
  const clusters = isOf('canonicals') ? canonicalClustersOf(snapshot) : [];
  const cluster = clusters.find(({ end }) => end === item) ?? clusters[0];
  const sets = isOf('hreflang')
    ? [...hreflangSetsOf(snapshot)].sort((a, b) => Number(isFaulty(b)) - Number(isFaulty(a)))
    : [];
  return {
    list,
    answer: rulesAnswer(snapshot, token),
    verdicts: isOf('')
      ? {
          rows: verdictEvidence(snapshot),
          findings: report!.findings.filter(({ question }) => question === 'Rules'),
          ignored: report!.ignored,
        }
      : null,
    pageRules: isOf('page-rules') ? pageRuleGroupsOf(snapshot) : null,
    canonicals: isOf('canonicals')
      ? {
          groups: canonicalGroupsOf(snapshot)
            .slice(0, MOST_GROUPS)
            .map(({ pages, ...group }) => ({ ...group, pages: pages.length, example: addressAt(snapshot, pages[0]) })),
          total: clusters.length,
          clusters: clusters
            .slice(0, MOST_CLUSTERS)
            .map(({ end, members, odd }) => ({ end, size: members.length, odd })),
          shown: cluster ? await clusterShown(db, row, snapshot, cluster) : null,
        }
      : null,
    variants: isOf('variants') ? await variantsShown(db, row, snapshot) : null,
    hreflang: isOf('hreflang')
      ? {
          total: sets.length,
          faulty: sets.filter(isFaulty).length,
          sets: sets.slice(0, MOST_SETS).map((set) => ({
            first: addressAt(snapshot, set.pages[0]),
            size: set.pages.length,
            isFaulty: isFaulty(set),
          })),
          shown: sets.length ? setShown(snapshot, sets[Math.min(sets.length - 1, Number(item) || 0)]) : null,
        }
      : null,
    robots: isOf('robots') ? await robotsShown(db, row, snapshot) : null,
    sheet: isOf('answers') ? answerSheetOf(snapshot, start) : null,
  };
};

/** The files of robots.txt as they were fetched, that of the start first, and what the bench needs besides. */
async function robotsShown(db: Database, { settings, siteId, startedAt, createdAt }: Crawl, snapshot: Snapshot) {
  const { start, token, sections, nearTolerance, weights } = settings;
  const own = originOf(start);
  const known = snapshot.files.robots.length
    ? snapshot.files.robots
    : [{ origin: own, status: null, fault: null, body: '', answer: null }];
  const files = [...known].sort((a, b) => Number(b.origin === own) - Number(a.origin === own));
  const addresses = files.map(({ origin }) => `${origin}/robots.txt`);
  const checks = await liveChecksOf(db, siteId, 'robots', addresses);
  const named = files.flatMap(({ body }) => parseRobots(body).groups.flatMap(({ agents }) => agents));
  return {
    files: files.map((file, i) => ({ ...file, check: checks.get(addresses[i]) ?? null })),
    tokens: [...new Set([token, ...named.filter((agent) => agent !== '*')])],
    settings: { sections, nearTolerance, weights },
    drafts: await robotsDrafts(db, siteId),
    fetchedAt: startedAt ?? createdAt,
  };
}

/** Pages of which other variants are asked for at once. */
const SAMPLE = 20;

/** The variants that the crawl has met, and what live checks have found of others. */
async function variantsShown(db: Database, { siteId, settings: { start } }: Crawl, snapshot: Snapshot) {
  const groups = variantGroupsOf(snapshot);
  const sample = [...new Set([start, ...richestPages(snapshot, SAMPLE - 1)])];
  return {
    hosts: hostVariantsOf(snapshot, start),
    total: groups.length,
    groups: groups.slice(0, MOST_GROUPS).map((group) => ({
      kinds: group.kinds,
      settles: group.settles,
      rows: variantRows(snapshot, group).map(({ page, ...rest }) => ({ address: addressAt(snapshot, page), ...rest })),
    })),
    sample,
    checks: Object.fromEntries(await liveChecksOf(db, siteId, 'variants', sample)),
  };
}

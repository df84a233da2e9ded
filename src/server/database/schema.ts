/** The tables (docs/ARCHITECTURE.md, "Storage"). After a change: `npm run migration`. */
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
  datetime,
  index,
  int,
  mysqlTable,
  primaryKey,
  smallint,
  tinyint,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { MySqlColumnBuilderBase } from 'drizzle-orm/mysql-core';
import type { Step } from '$core/draft';
import { limitOf } from '$core/facts';
import type { FetchError, RobotsRule, UnreadableReason } from '$core/facts';

import type { Crumb } from '$core/html';
import { importKinds } from '$core/imports';
import { liveCheckKinds } from '$core/liveChecks';
import type { LiveCheckKind, LiveQuestions, LiveResults } from '$core/liveChecks';
import { isMessage } from '$core/messages';
import type { Message } from '$core/messages';
import type { ReportCounts } from '$core/report';
import { everyNames } from '$core/schedule';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import type { FileAnswer, FoundFacts } from '$core/snapshot';
import type { Alternate } from '$core/sitemap';
import { MAX_FILTER_BYTES } from '$core/words';
import type { SourceCoding } from '../crawls/sources';

/** Texts compare byte by byte: addresses that differ in case are different addresses. */
const exactText = customType<{ data: string }>({
  dataType: () => 'mediumtext character set utf8mb4 collate utf8mb4_bin',
});
/** MariaDB keeps JSON as text, which the driver hands over as it is. */
const json = <T>(read: (value: unknown) => T = (value) => value as T) =>
  customType<{ data: T; driverData: string }>({
    dataType: () => 'longtext character set utf8mb4 collate utf8mb4_bin',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => read(JSON.parse(text)),
  });
/** A code with parameters. Earlier versions stored sentences, which are kept as they are. */
const message = customType<{ data: Message; driverData: string }>({
  dataType: () => 'mediumtext character set utf8mb4 collate utf8mb4_bin',
  toDriver: (value) => JSON.stringify(value),
  fromDriver: (text) => readMessage(text),
});
function readMessage(text: string): Message {
  try {
    const value: unknown = text.startsWith('{') ? JSON.parse(text) : null;
    if (isMessage(value)) return value;
  } catch {
    // A sentence that begins with a brace.
  }
  return { code: 'text', text };
}
/** Settings as they were stored, with the defaults of what was added since. */
const settings = json<CrawlSettings>((value) => settingsSchema.parse(value));
const bytes = (sqlType: string) => customType<{ data: Buffer }>({ dataType: () => sqlType });
const hash = bytes('binary(16)');
/** A hash as text: a buffer that is kept would keep all that came over the wire with it. */
const hexHash = customType<{ data: string; driverData: Buffer }>({
  dataType: () => 'binary(16)',
  toDriver: (hex) => Buffer.from(hex, 'hex'),
  fromDriver: (bytes) => bytes.toString('hex'),
});
const blob = bytes('mediumblob');
const fingerprint = bytes('binary(8)');

const id = () => bigint({ mode: 'number', unsigned: true });
const moment = () => datetime({ mode: 'date', fsp: 3 });
const now = sql`current_timestamp(3)`;

export const site = mysqlTable(
  'site',
  {
    id: id().autoincrement().primaryKey(),
    /** Normal form of the start address; a site is known by it. */
    start: exactText().notNull(),
    startHash: hash('start_hash').notNull(),
    /** What a person calls it; null when it is called by its address. */
    name: varchar({ length: 80 }),
    settings: settings().notNull(),
    /** What must not be seen again, sealed (src/server/sites/secrets.ts). */
    secrets: blob(),
    createdAt: moment().notNull().default(now),
    /** How many ended crawls are kept, besides those that are pinned; null for all. */
    keepCrawls: int(),
    /** When a person deleted it; a worker removes it a little later (src/server/removal). */
    deletedAt: moment(),
  },
  (table) => [uniqueIndex('site_start').on(table.startHash)],
);

const crawlStates = ['waiting', 'running', 'paused', 'done', 'stopped', 'failed'] as const;

export const crawl = mysqlTable(
  'crawl',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    settings: settings().notNull(),
    state: varchar({ length: 10, enum: crawlStates }).notNull().default('waiting'),
    /** Why it failed, or ended before everything was fetched. */
    reason: message(),
    /** True when it ended because `settings.limit` was reached. */
    limited: boolean().notNull().default(false),
    /** What a person asked for and its workers have not yet done. */
    request: varchar({ length: 10, enum: ['stop', 'pause'] }),
    secrets: blob(),
    /** Cookies of the site, sealed, when they are kept. */
    cookies: blob(),
    /** The crawl from which what was not asked for again was carried over. */
    baseId: id(),
    /** The rank at which its workers work. */
    rank: int().notNull().default(0),
    /** Pages asked for or about to be: what `settings.limit` is compared with. */
    asked: int().notNull().default(0),
    /** Milliseconds for which it has run. */
    ranMs: bigint({ mode: 'number' }).notNull().default(0),
    /** Addresses known, done (fetched or closed by robots.txt) and unanswered; bytes received. */
    known: int().notNull().default(0),
    done: int().notNull().default(0),
    unanswered: int().notNull().default(0),
    bytes: bigint({ mode: 'number' }).notNull().default(0),
    /** The address being fetched now. */
    current: exactText(),
    createdAt: moment().notNull().default(now),
    startedAt: moment(),
    endedAt: moment(),
    /** When its snapshot was stored; of a crawl that has not ended it holds what had been found by then. */
    analysedAt: moment(),
    /** The counts of its report. */
    counts: json<ReportCounts>()(),
    /** Bytes that its rows and sources take, roughly. */
    space: bigint({ mode: 'number' }),
    /** Whether it fetched nothing, as its site does not exist yet: drafts tell what is to be there. */
    planned: boolean().notNull().default(false),
    /** Kept, however many newer ones there are. */
    pinned: boolean().notNull().default(false),
    deletedAt: moment(),
  },
  (table) => [index('crawl_site').on(table.siteId, table.id)],
);

/** When a site is crawled by itself. */
export const schedule = mysqlTable('schedule', {
  siteId: id().primaryKey(),
  every: varchar({ length: 5, enum: everyNames }).notNull(),
  at: varchar({ length: 5 }).notNull(),
  day: tinyint().notNull(),
  zone: varchar({ length: 64 }).notNull(),
  paused: boolean().notNull().default(false),
  /** When it is due; a worker puts the next moment in its place when it adds the crawl. */
  nextAt: moment().notNull(),
});

/** What people have noted on a date of a site. */
export const dateNote = mysqlTable(
  'date_note',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    /** `2026-11-28`. */
    day: varchar({ length: 10 }).notNull(),
    text: varchar({ length: 300 }).notNull(),
  },
  (table) => [index('date_note_site').on(table.siteId, table.day)],
);

/** What a site wants to hold after every crawl. */
export const bound = mysqlTable(
  'bound',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    name: varchar({ length: 120 }).notNull(),
    over: varchar({ length: 7, enum: ['pages', 'links', 'finding'] }).notNull(),
    text: exactText().notNull(),
    /** Null when it must not rise. */
    atMost: int(),
  },
  (table) => [index('bound_site').on(table.siteId)],
);

/** What a crawl counted of a bound, as it was analysed then. */
export const boundCount = mysqlTable(
  'bound_count',
  {
    boundId: id().notNull(),
    crawlId: id().notNull(),
    analysedAt: moment().notNull(),
    count: int(),
    fault: varchar({ length: 500 }),
  },
  (table) => [primaryKey({ columns: [table.boundId, table.crawlId] })],
);

/** Selections that are saved under a name. */
export const savedSelection = mysqlTable(
  'saved_selection',
  {
    siteId: id().notNull(),
    name: varchar({ length: 80 }).notNull(),
    over: varchar({ length: 5, enum: ['pages', 'links'] }).notNull(),
    text: exactText().notNull(),
  },
  (table) => [primaryKey({ columns: [table.siteId, table.name] })],
);

/** Pages that a person has marked as those that matter most to a site, over all its crawls. */
export const keyPage = mysqlTable(
  'key_page',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    address: exactText().notNull(),
    addressHash: hash().notNull(),
  },
  (table) => [uniqueIndex('key_page_address').on(table.siteId, table.addressHash)],
);

/**
 * What a person has looked at and does not want to be proposed again, over all crawls of a site: a place for a link to
 * a target, by the address of its page; or that a link is wrong, by its words.
 */
export const dismissal = mysqlTable(
  'dismissal',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    kind: varchar({ length: 10, enum: ['place', 'wording'] }).notNull(),
    what: exactText().notNull(),
    target: exactText().notNull(),
    keyHash: hash().notNull(),
  },
  (table) => [uniqueIndex('dismissal_key').on(table.siteId, table.keyHash)],
);

/** The structure that a site is meant to have, as a person has written it: one a site. */
export const meantStructure = mysqlTable('meant_structure', {
  siteId: id().primaryKey(),
  text: exactText().notNull(),
});

/** Findings that a site has decided to ignore, wholly or within a selection. */
export const ignoredFinding = mysqlTable(
  'ignored_finding',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    finding: varchar({ length: 40 }).notNull(),
    /** Selection of the pages, or of the links, where it is ignored; '' for everywhere. */
    within: exactText().notNull(),
    reason: exactText().notNull(),
    createdAt: moment().notNull().default(now),
  },
  (table) => [index('ignored_finding_site').on(table.siteId)],
);

/** Versions of a robots.txt that a person has drafted, for everybody who works on a site. */
export const robotsDraft = mysqlTable(
  'robots_draft',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    /** Scheme and host that it is for. */
    origin: exactText().notNull(),
    name: varchar({ length: 80 }).notNull(),
    note: exactText().notNull(),
    body: exactText().notNull(),
    savedAt: moment().notNull().default(now),
  },
  (table) => [index('robots_draft_site').on(table.siteId)],
);

/** Drafts of changes to a site, for everybody who works on it. The one that was used last is the current one. */
export const draft = mysqlTable(
  'draft',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    /** '' until a person gives it one. */
    name: varchar({ length: 80 }).notNull().default(''),
    /** Counts what was done to it: whoever has seen an earlier one is told. */
    version: int().notNull().default(0),
    createdAt: moment().notNull().default(now),
    usedAt: moment().notNull().default(now),
  },
  (table) => [index('draft_site').on(table.siteId)],
);

/** What was done to a draft (src/core/draft/history.ts), in the order of the numbers. */
export const draftStep = mysqlTable(
  'draft_step',
  {
    id: id().autoincrement().primaryKey(),
    draftId: id().notNull(),
    siteId: id().notNull(),
    at: moment().notNull().default(now),
    step: json<Step>()().notNull(),
    undone: boolean().notNull().default(false),
  },
  (table) => [index('draft_step_draft').on(table.draftId), index('draft_step_site').on(table.siteId)],
);

/** Work to be leased by a worker; a lease that is not renewed in time is open to others again. */
export const job = mysqlTable(
  'job',
  {
    crawlId: id().notNull(),
    /**
     * A whole crawl, or only the analysis of one that has ended (for a newer version of the program), which take each
     * other's place; besides, the index of its texts.
     */
    kind: varchar({ length: 10, enum: ['crawl', 'analysis', 'texts'] })
      .notNull()
      .default('crawl'),
    state: varchar({ length: 10, enum: ['waiting', 'leased', 'paused', 'done'] })
      .notNull()
      .default('waiting'),
    owner: varchar({ length: 80 }),
    /** Counts how often the job was leased: what an earlier holder of the lease still writes is told by it. */
    lease: int().notNull().default(0),
    leaseUntil: moment(),
    /**
     * How many workers in a row have died with it without storing a page, and how many pages were done when it was
     * leased.
     */
    losses: int().notNull().default(0),
    doneAtLease: int().notNull().default(0),
    /** What is being analysed, and how many of how many steps are done. */
    step: varchar({ length: 60 }),
    stepsDone: int().notNull().default(0),
    steps: int().notNull().default(0),
  },
  (table) => [
    primaryKey({ columns: [table.crawlId, table.kind] }),
    index('job_open').on(table.state, table.leaseUntil),
  ],
);

/** What a person asks a worker to find out at once (src/core/liveChecks); one a subject is kept, the newest. */
export const liveCheck = mysqlTable(
  'live_check',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    kind: varchar({ length: 10, enum: liveCheckKinds }).notNull(),
    addressHash: hash('address_hash').notNull(),
    address: exactText().notNull(),
    /** What else the worker needs to know. */
    asked: json<LiveQuestions[LiveCheckKind]>()(),
    state: varchar({ length: 10, enum: ['waiting', 'running', 'done', 'failed'] })
      .notNull()
      .default('waiting'),
    leaseUntil: moment(),
    result: json<LiveResults[LiveCheckKind]>()(),
    fault: message(),
    endedAt: moment(),
  },
  (table) => [
    uniqueIndex('live_check_subject').on(table.siteId, table.kind, table.addressHash),
    index('live_check_open').on(table.state, table.leaseUntil),
  ],
);

/** The workers of a running crawl; one whose lease has run out is gone, and what it held is free again. */
export const crawlWorker = mysqlTable(
  'crawl_worker',
  {
    id: id().autoincrement().primaryKey(),
    crawlId: id().notNull(),
    owner: varchar({ length: 80 }).notNull(),
    leaseUntil: moment().notNull(),
  },
  (table) => [index('crawl_worker_crawl').on(table.crawlId)],
);

/** The workers that wait for jobs or run them. */
export const worker = mysqlTable('worker', {
  owner: varchar({ length: 80 }).primaryKey(),
  startedAt: moment().notNull(),
  /** A worker says every two seconds that it is alive. */
  seenAt: moment().notNull(),
  /** How often it was started again because it had ended by itself. */
  restarts: int().notNull().default(0),
});

/** When each host may be asked next: shared by all workers, and by all crawls. */
export const hostLimit = mysqlTable('host_limit', {
  hash: hash().primaryKey(),
  host: exactText().notNull(),
  nextAt: moment().notNull(),
  /** Why it gets no requests until then; null when that is only its rate. */
  reason: message(),
  /** Milliseconds between requests that the host has made necessary by answering 429 or 503; 0 for none. */
  delayMs: int().notNull().default(0),
  /** When that delay was last changed. */
  delayAt: moment(),
});

/**
 * A source of addresses that a person has imported, a list or an access log; crawls know which of them count for them.
 */
export const urlImport = mysqlTable(
  'url_import',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    kind: varchar({ length: 10, enum: importKinds }).notNull(),
    name: varchar({ length: 80 }).notNull(),
    /** The file that it comes from, and the beginning of the SHA-256 of its bytes, by which it is known again. */
    file: varchar({ length: 255 }),
    digest: hexHash(),
    /** Lines that could hold an address, and how many of them were left out. */
    lines: int().notNull().default(0),
    rejected: int().notNull().default(0),
    /** The first lines that were left out, with the reasons (JSON, deflated). */
    rejects: blob(),
    /** How many addresses it holds. */
    urls: int().notNull(),
    createdAt: moment().notNull().default(now),
    /** When another took its place; it stays as long as crawls have used it. */
    replacedAt: moment(),
  },
  (table) => [index('url_import_site').on(table.siteId)],
);

/** The addresses of an import and what is known of each, as columns, deflated, in pieces. */
export const importPart = mysqlTable(
  'import_part',
  {
    importId: id().notNull(),
    part: varchar({ length: 100 }).notNull(),
    seq: int().notNull(),
    data: blob().notNull(),
  },
  (table) => [primaryKey({ columns: [table.importId, table.part, table.seq] })],
);

/**
 * The addresses of imports of earlier versions, by their numbers; moved to {@link importPart} when the database is
 * prepared.
 */
export const importChunk = mysqlTable(
  'import_chunk',
  {
    importId: id().notNull(),
    seq: int().notNull(),
    data: blob().notNull(),
  },
  (table) => [primaryKey({ columns: [table.importId, table.seq] })],
);

/** The imports that count for a crawl. */
export const crawlImport = mysqlTable(
  'crawl_import',
  {
    crawlId: id().notNull(),
    importId: id().notNull(),
  },
  (table) => [primaryKey({ columns: [table.crawlId, table.importId] })],
);

/** One row per address of a site, inside and outside, found by hash. */
export const url = mysqlTable(
  'url',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    hash: hash().notNull(),
    text: exactText().notNull(),
  },
  (table) => [uniqueIndex('url_hash').on(table.siteId, table.hash)],
);

/** The dictionary of anchors, rels, fragments and elements above links. */
export const phrase = mysqlTable(
  'phrase',
  {
    id: id().autoincrement().primaryKey(),
    siteId: id().notNull(),
    hash: hash().notNull(),
    text: exactText().notNull(),
  },
  (table) => [uniqueIndex('phrase_hash').on(table.siteId, table.hash)],
);

/** Every known inside address of a crawl, and whether its turn has come. */
export const frontier = mysqlTable(
  'frontier',
  {
    crawlId: id().notNull(),
    urlId: id().notNull(),
    /** Clicks from where the route begins, plus a large number for routes that begin elsewhere than at the start. */
    rank: int().notNull(),
    /** Redirects in a row that led here. */
    hops: tinyint().notNull().default(0),
    done: boolean().notNull().default(false),
    /** The worker that has taken it. */
    heldBy: id(),
    /** Family of addresses that it belongs to (src/core/traps). */
    family: fingerprint(),
    /** Cut off: its family grows without end. */
    cut: boolean().notNull().default(false),
    /** Left until the crawl is resumed: its host asks to wait, again and again. */
    hostLeft: boolean().notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.crawlId, table.urlId] }),
    index('frontier_next').on(table.crawlId, table.done, table.rank, table.urlId),
    index('frontier_family').on(table.crawlId, table.family),
  ],
);

/** The columns of what a crawl finds at an address, one for each fact; unknown is null. */
const foundColumns = {
  robotsRule: json<RobotsRule>()(),
  status: smallint(),
  error: varchar({ length: 20 }).$type<FetchError>(),
  unreadableReason: varchar({ length: 10 }).$type<UnreadableReason>(),
  contentType: varchar({ length: limitOf('content_type') }),
  html: boolean().notNull(),
  bytes: int(),
  responseMs: int(),
  fetchedAt: moment(),
  redirectTo: exactText(),
  title: exactText(),
  description: exactText(),
  h1: exactText(),
  language: varchar({ length: limitOf('language') }),
  robots: exactText(),
  noindex: boolean(),
  pageNofollow: boolean(),
  canonical: exactText(),
  /** All page-level rules, with the agents they name. */
  pageRules: exactText(),
  breadcrumb: json<Crumb[]>()(),
  wordCount: int(),
  contentHash: hexHash(),
  fingerprint: fingerprint(),
  /** Which words its main content has (src/core/words/filter.ts). */
  wordFilter: bytes(`varbinary(${MAX_FILTER_BYTES})`)(),
  /** What fragments can name, a line each; null when they are not checked. */
  ids: exactText(),
  /** Requests made until it answered for good. */
  tries: tinyint().notNull().default(1),
  /** Whether the body, or one of its texts, was longer than what is read. */
  truncated: boolean().notNull().default(false),
  /** Whether it was taken over from an earlier crawl. */
  carried: boolean().notNull().default(false),
} satisfies Record<keyof FoundFacts, MySqlColumnBuilderBase>;

/** What a crawl found at an address. */
export const page = mysqlTable(
  'page',
  {
    crawlId: id().notNull(),
    urlId: id().notNull(),
    /** The head of the answer, a line a field. */
    headers: exactText(),
    /** When the page says that it was changed last, a W3C date. */
    modified: varchar({ length: 40 }),
    ...foundColumns,
    /** Packed links (src/core/links/pack.ts). */
    links: blob().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crawlId, table.urlId] }),
    index('page_newest').on(table.crawlId, table.fetchedAt),
    /** Tells whether a source is still used. */
    index('page_source').on(table.contentHash),
  ],
);

/** How many addresses of a crawl came out how, counted as they are stored. */
export const tally = mysqlTable(
  'tally',
  {
    crawlId: id().notNull(),
    kind: varchar({ length: 30 }).notNull(),
    n: int().notNull(),
  },
  (table) => [primaryKey({ columns: [table.crawlId, table.kind] })],
);

/**
 * HTML as it was received, compressed (src/server/crawls/sources.ts); kept once whatever crawl and address it came
 * from.
 */
export const source = mysqlTable('source', {
  hash: hash().primaryKey(),
  size: int().notNull(),
  coding: varchar({ length: 10 }).$type<SourceCoding>().notNull().default('deflate'),
  data: bytes('longblob')().notNull(),
});

/** Families that grew without end and were cut. */
export const trap = mysqlTable(
  'trap',
  {
    crawlId: id().notNull(),
    family: fingerprint().notNull(),
    /** The address with its changing parts as `*`. */
    pattern: exactText().notNull(),
    /** Why it was taken for a trap. */
    reason: message().notNull(),
    fetched: int().notNull(),
    cut: int().notNull(),
    examples: json<string[]>()().notNull(),
  },
  (table) => [primaryKey({ columns: [table.crawlId, table.family] })],
);

export const robotsFile = mysqlTable(
  'robots_file',
  {
    crawlId: id().notNull(),
    originHash: hash('origin_hash').notNull(),
    origin: exactText().notNull(),
    status: smallint(),
    fault: message(),
    body: exactText().notNull(),
    answer: json<FileAnswer>()(),
  },
  (table) => [primaryKey({ columns: [table.crawlId, table.originHash] })],
);

export const sitemapFile = mysqlTable(
  'sitemap_file',
  {
    crawlId: id().notNull(),
    urlId: id().notNull(),
    entries: int().notNull().default(0),
    /** Entries that lead off the site, or are no addresses. */
    skipped: int().notNull().default(0),
    /** RSS or Atom, which lists only what is new. */
    isFeed: boolean().notNull().default(false),
    fault: message(),
    faultLine: int(),
    /** The index that named it first. */
    indexId: id(),
    answer: json<FileAnswer>()(),
    /** Known, and not read yet. */
    waiting: boolean().notNull().default(false),
    /** How many indexes lead to it. */
    nesting: tinyint().notNull().default(0),
  },
  (table) => [
    primaryKey({ columns: [table.crawlId, table.urlId] }),
    index('sitemap_file_next').on(table.crawlId, table.waiting, table.nesting, table.urlId),
  ],
);

export const sitemapEntry = mysqlTable(
  'sitemap_entry',
  {
    crawlId: id().notNull(),
    sitemapId: id().notNull(),
    line: int().notNull(),
    urlId: id().notNull(),
    lastmod: varchar({ length: 64 }),
    /** The editions that it names; null for none. */
    alternates: json<Alternate[]>()(),
  },
  (table) => [primaryKey({ columns: [table.crawlId, table.sitemapId, table.line, table.urlId] })],
);

/** The binary form of a finished crawl's snapshot, by part and in pieces. */
export const snapshotChunk = mysqlTable(
  'snapshot_chunk',
  {
    crawlId: id().notNull(),
    part: varchar({ length: 60 }).notNull(),
    seq: int().notNull(),
    data: blob().notNull(),
  },
  (table) => [primaryKey({ columns: [table.crawlId, table.part, table.seq] })],
);

/** The index of a crawl's texts (src/core/textIndex), by part and in pieces, compressed. */
export const textChunk = mysqlTable(
  'text_chunk',
  {
    crawlId: id().notNull(),
    part: varchar({ length: 60 }).notNull(),
    seq: int().notNull(),
    data: blob().notNull(),
  },
  (table) => [primaryKey({ columns: [table.crawlId, table.part, table.seq] })],
);

export { nothingFound, pageRecord, snapshotBuilder } from './build';
export type { Check, FoundFacts, PageRecord, Reading, SnapshotBuilder, SnapshotRest } from './build';
export { comparator, isText, joinedTexts, textColumn } from './column';
export type { Column, JoinedTexts, NumberColumn, TextColumn } from './column';
export {
  decodeSnapshot,
  encodeSnapshot,
  FINDINGS_PART,
  groupOfPart,
  REPORT_PART,
  SNAPSHOT_VERSION,
  SnapshotVersionError,
} from './encode';
export type { PartGroup, SnapshotParts } from './encode';
export { factNames, factOf, facts, isFactName, sources } from './facts';
export type { FactName, FactType, FactValue, Source } from './facts';
export {
  addressAt,
  crawlerGraph,
  crawlerStarts,
  factAt,
  incomingLinks,
  numberAt,
  pageOf,
  textAt,
  visitorGraph,
} from './snapshot';
export type { IncomingLinks, LinkColumns, RobotsFile, SiteFiles, SitemapFile, Snapshot } from './snapshot';
export { incomingOf, walkOf } from './walk';
export type { Walk } from './walk';

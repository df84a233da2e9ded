export { baseBuilder, nothingFound } from './build';
export type { BaseRest, FoundFacts, LinkLayout, PageRecord } from './build';
export { codeOf, isText, joinedTexts, textColumn, unknownColumn } from './column';
export type { Column, FactValue, JoinedTexts, NumberColumn, TextColumn } from './column';
export {
  decodeBase,
  decodeSnapshot,
  encodeBase,
  encodeDerived,
  encodeSnapshot,
  FINDINGS_PART,
  groupOfPart,
  REPORT_PART,
  SNAPSHOT_VERSION,
  SnapshotVersionError,
} from './encode';
export type { PartGroup, SnapshotParts } from './encode';
export { incomingOf, MADE_OF, memoBytes, memoOf, sourcesOf } from './memo';
export {
  addressAt,
  countPages,
  derivedOf,
  factAt,
  incomingLinks,
  numberAt,
  pageOf,
  pagesOfCodes,
  textAt,
} from './snapshot';
export type {
  Base,
  BaseLinks,
  Check,
  Columns,
  Derived,
  IncomingLinks,
  LinkColumns,
  RobotsFile,
  SiteFiles,
  FileAnswer,
  SitemapFile,
  Snapshot,
} from './snapshot';
export { readPartStream, writePart } from './stream';
export { partsOfColumn } from './encode';
export { robotsRuleText } from './build';
export type { WholeNumbers } from './wholeNumbers';

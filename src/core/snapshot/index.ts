export { baseBuilder } from './build';
export type { BaseRest } from './build';
export {
  codeOf,
  codesOf,
  isText,
  joinedTexts,
  pagesByCode,
  textColumn,
  textsAt,
  unknownColumn,
  withValues,
} from './column';
export type { Column, ColumnReader, Columns, FactValue, JoinedTexts, TextColumn } from './column';
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
} from './encode';
export type { PartGroup, SnapshotParts } from './encode';
export { analysedBase, columnReader, once, withLayer } from './layers';
export type { Layer } from './layers';
export { keptBytes, keptOf, layerBytes, memoOf, sourcesOf } from './memo';
export type { Reading } from './memo';
export {
  addressAt,
  countPages,
  derivedOf,
  factAt,
  inAddressOrder,
  numberAt,
  pageOf,
  pagesOfAddresses,
  pagesNamed,
  partNames,
  textAt,
} from './snapshot';
export type { Base, Check, Read, FetchedRobots, SiteFiles, FileAnswer, FetchedSitemap, Snapshot } from './snapshot';
export { readPartStream, writePart } from './stream';
export { encodeSome, partsOfColumn, partsOfLinks, partsOfSnapshot } from './encode';
export { linkFieldColumns } from './linkColumns';
export { spliced } from './wholeNumbers';
export type { Splice } from './wholeNumbers';
export { nothingFound, observedOf, robotsRuleText } from './observed';
export type { FoundFacts, ObservedFacts } from './observed';
export type { WholeNumbers } from './wholeNumbers';

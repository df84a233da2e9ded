export {
  changeFacts,
  comparedColumns,
  comparedFacts,
  isChangeFact,
  isComparedFact,
  isLinkChangeFact,
  linkChangeFacts,
} from './changes';
export type { ChangeFact, ChangeFactName, ComparedColumn, ComparedFact, LinkChangeFactName } from './changes';
export { linkFacts } from './links';
export type { LinkFact, LinkFactName } from './links';
export {
  baseFacts,
  columnNames,
  csvFacts,
  derivedFacts,
  factNames,
  factOf,
  isColumnName,
  limitOf,
  pageFacts,
} from './pages';
export type { BaseFact, ColumnName, DerivedFact, Fact, FactName, IntegerFact, RatioFact, TextFact } from './pages';
export {
  canonicalStates,
  fetchErrors,
  heldBack,
  INDEXABLE,
  pageClasses,
  reaches,
  redirectStates,
  sources,
  unreadableReasons,
  unvisitedReasons,
  verdicts,
} from './values';
export type {
  CanonicalState,
  FetchError,
  HeldBack,
  PageClass,
  Reach,
  RedirectState,
  RobotsRule,
  Source,
  UnreadableReason,
  UnvisitedReason,
  Verdict,
} from './values';

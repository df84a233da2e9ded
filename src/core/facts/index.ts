export {
  changeFacts,
  comparedColumns,
  comparedFacts,
  isChangeFact,
  isComparedFact,
  isLinkChangeFact,
  linkChangeFacts,
} from './changes';
export type { ChangeFactName, ComparedColumn, ComparedFact, LinkChangeFactName } from './changes';
export { keepsText } from './fact';
export type { Fact } from './fact';
export { linkFacts } from './links';
export type { LinkFactName } from './links';
export { baseFacts, columnNames, derivedFacts, factNames, factOf, isColumnName, limitOf, pageFacts } from './pages';
export type { BaseFact, ColumnName, DerivedFact, FactName, IntegerFact, PageFact, RatioFact, TextFact } from './pages';
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

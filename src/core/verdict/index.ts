export { canonicalState, canonicalStates } from './canonical';
export type { CanonicalState } from './canonical';
export {
  fetchErrors,
  fetchErrorText,
  followRedirects,
  isRedirectStatus,
  judge,
  unvisitedReasons,
  verdicts,
} from './verdict';
export type { FetchError, Judgement, RedirectEnd, UnvisitedReason, Verdict, VerdictInput } from './verdict';

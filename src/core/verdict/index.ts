export { canonicalColumns } from './canonical';
export { verdictReason } from './reason';
export { followRedirects, redirectColumns } from './redirects';
export { isRedirectStatus, verdictColumn, verdictOf } from './verdict';
export type { VerdictFacts } from './verdict';

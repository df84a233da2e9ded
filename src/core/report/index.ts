export { findingsAt, reportOf } from './report';
export type { PageFindings, Report } from './report';

export { findingsAt, reportOf } from './report';
export type { PageFindings, Report, ReportSettings } from './report';

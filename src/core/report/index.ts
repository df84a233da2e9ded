export { findingsAt, reportOf } from './report';
export type { PageFindings, Report, ReportCounts } from './report';

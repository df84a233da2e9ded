export { findingsAt, reportSteps } from './report';
export type { PageFindings, Report } from './report';

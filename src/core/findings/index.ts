export { findings } from './catalogue';
export type { Finding, Question, Thresholds } from './catalogue';
export { fileFaults } from './files';
export type { FileFault } from './files';
export { findingsOf, findingSteps } from './findings';
export type { Found, FindingOptions } from './findings';

export { findings } from './catalogue';
export type { Finding, FindingTexts, Question, Thresholds } from './catalogue';
export { fileFaults } from './files';
export type { FileFault } from './files';
export { describeFindings, findingsOf } from './findings';
export { sampleOf } from './sample';
export type { Occurrence, Sample } from './sample';
export type { FindingOptions, FindingResult, Found } from './findings';

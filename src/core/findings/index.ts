export { findings } from './catalogue';
export type { Finding, FindingTexts, Question, Thresholds } from './catalogue';
export { changeSelects, compareFindings } from './changes';
export type { FindingChange } from './changes';
export { fileFaults } from './files';
export type { FileFault } from './files';
export { linkAt, linkReason, pageEvidence } from './evidence';
export {
  applies,
  describeFindings,
  faultsOfFiles,
  findingsOf,
  selected,
  faultOfIgnored,
  withoutIgnored,
} from './findings';
export { guidance } from './guidance';
export type { Guidance } from './guidance';
export { sampleOf } from './sample';
export type { Occurrence, Sample } from './sample';
export type { FindingOptions, FindingResult, Found, IgnoredFinding } from './findings';

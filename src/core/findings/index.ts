export { findings } from './catalogue';
export type { Finding, Thresholds } from './catalogue';
export { changeSelects, compareFindings } from './changes';
export type { FindingChange } from './changes';
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
export { sampleOf } from './sample';
export type { Occurrence } from './sample';
export type { FindingOptions, FindingResult, Found, IgnoredFinding } from './findings';

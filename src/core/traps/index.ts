export { familyOf } from './family';
export type { Family, FamilyEvidence } from './family';
export { familyAllowance, judgeFamily } from './judge';
export type { FamilyJudgement } from './judge';

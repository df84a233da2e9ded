export { familiesOf } from './families';
export type { KnownFamily } from './families';
export { familyOf } from './family';
export type { Sampled } from './family';
export { familyAllowance, judgeFamily } from './judge';
export type { FamilyJudgement } from './judge';

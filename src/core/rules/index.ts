export { answerSheetOf } from './answerSheet';
export type { SheetAnswer, SheetRow } from './answerSheet';
export {
  canonicalClustersOf,
  canonicalFlags,
  canonicalGroupsOf,
  canonicalOutcomes,
  canonicalsOf,
  isFine,
} from './canonicals';
export type { CanonicalCluster, CanonicalFlag, CanonicalGroup, CanonicalOutcome, PageCanonical } from './canonicals';
export { hreflangFaults, hreflangSetsOf, isFaulty } from './hreflang';
export type { HreflangFault, HreflangLink, HreflangSet } from './hreflang';
export { pageRuleGroupsOf, pageRulesOf } from './pageRules';
export type { PageRule, PageRuleGroup, RuleScope } from './pageRules';
export { hostVariantsOf, otherWritings, richestPages, variantGroupsOf, variantKinds, variantRows } from './variants';
export type { HostVariant, VariantGroup, VariantKind, VariantRow } from './variants';

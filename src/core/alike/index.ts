export { countEqual, nearDuplicates } from './duplicates';
export type { NearDuplicates } from './duplicates';
export { findVariants, variantKey } from './variants';
export type { VariantInput, Variants } from './variants';
export { MAX_TOLERANCE } from './tolerance';

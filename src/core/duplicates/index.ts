export { countEqual, nearDuplicates } from './duplicates';
export { MAX_TOLERANCE } from './tolerance';
export { variantColumns, variantKey } from './variants';

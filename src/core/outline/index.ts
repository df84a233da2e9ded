export { compareStructure, meantStates } from './compare';
export type { MeantPage, MeantState, StructureComparison } from './compare';
export { editsOfOutline } from './edits';
export { readOutline } from './outline';
export type { Outline, OutlinePage } from './outline';

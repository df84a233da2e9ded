/** By what the pages of two crawls are told apart; a finding is named by its id. */
export const flowCategories = ['verdict', 'reach', 'depth', 'section', 'finding'] as const;
export type FlowCategory = (typeof flowCategories)[number];

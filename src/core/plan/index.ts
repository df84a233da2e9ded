export { planLinks } from './plan';
export type { Plan, PlanGoal, PlanLimits, PlannedLink, PlanSite } from './plan';
export { editOfLink, planFor } from './view';
export type { PlanCall } from './view';

export { planLinks } from './plan';
export type { Plan, PlanGoal, PlanLimits, PlannedLink, PlanSite } from './plan';
export { shortPages } from './short';
export { planFor, planGoals } from './view';
export type { PlanCall, PlanGoalName, Proposal, Proposals } from './view';

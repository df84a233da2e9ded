export { bareHost } from './inside';
export { MAX_PATTERN_LENGTH, patternTest } from './pattern';
export { applyParameterRules, scopeOf } from './scope';
export type { Scope, ScopeSettings } from './scope';

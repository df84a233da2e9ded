export { fragmentName, readHtml } from './page';
export type { HtmlFacts, ReadOptions } from './page';
export type { Crumb } from './breadcrumb';
export { fingerprintDistance } from './content';
export { describeDirectives, pageRules, readRobotsHeader } from './directives';
export type { Directive, PageRules } from './directives';
export { parseLinkHeader } from './linkHeader';
export { relationOf } from './resources';

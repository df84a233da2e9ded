export { readHtml } from './page';
export type { HtmlFacts } from './page';
export { pageRules, readRobotsHeader } from './directives';
export type { Directive, PageRules } from './directives';
export { parseLinkHeader } from './linkHeader';

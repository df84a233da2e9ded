export { brochure } from './brochure';
export { newspaper } from './newspaper';
export { shop } from './shop';
export type { Answer, GeneratedSite } from './site';
export { university } from './university';

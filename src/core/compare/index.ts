export { compareFindings } from './findings';
export type { FindingChange } from './findings';
export { compareLinks } from './links';
export type { LinkChange } from './links';
export { comparedFacts, comparePages, pageClasses } from './pages';
export type { AddressMap, ComparedFact, FactChange, PageChange, PageClass } from './pages';
export { compareSettings } from './settings';
export type { SettingChange } from './settings';

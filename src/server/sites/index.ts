export { ignoredFindings, ignoreFinding, reportAgain } from './ignored';
export type { Ignored } from './ignored';
export { deleteSelection, savedSelections, saveSelection } from './selections';
export type { SavedSelection } from './selections';
export { getSite, renameSite, saveSite, secretsOf, siteByStart, siteName, siteNames } from './sites';
export type { Site, SiteName } from './sites';

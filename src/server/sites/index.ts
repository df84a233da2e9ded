export { dateNotes, deleteDateNote, saveDateNote } from './dateNotes';
export { ignoredFindings, ignoreFinding, reportAgain } from './ignored';
export type { Ignored } from './ignored';
export { deleteRobotsDraft, robotsDraftBody, robotsDrafts, saveRobotsDraft } from './robotsDrafts';
export { deleteSelection, savedSelections, saveSelection } from './selections';
export { getSite, renameSite, saveSite, secretsOf, siteByStart, siteName, siteNames } from './sites';
export type { Site, SiteName } from './sites';
export { meantStructureOf, saveMeantStructure } from './meantStructure';
export { keyPagesOf, markKeyPages, MOST_KEY_PAGES } from './keyPages';

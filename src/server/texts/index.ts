export { firstShown, openPlaces, placeReader } from './places';
export type { ShownPlace } from './places';
export { openTexts, storedPages, storeTexts } from './texts';
export type { StoredPage } from './texts';
export { openWordings } from './wordings';

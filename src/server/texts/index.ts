export { planWithPlaces } from './plan';
export { blockReader, firstShown, openPlaces, placeReader, shownIn } from './places';
export { hitsOn } from './hits';
export { FIRST_SEEN_PART, openTexts, readFirstSeen, storedPages, storeTexts } from './texts';
export type { StoredPage } from './texts';
export { openWordings } from './wordings';

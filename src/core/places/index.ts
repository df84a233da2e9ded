export { GOOD_SCORE, LEAST_SCORE, placesOf } from './places';
export type { PlaceOptions } from './mentions';
export type { FoundPlace, Places } from './places';
export { LINKS_WANTED, pagesInNeed } from './need';
export { phraseSources } from './phrases';
export type { PhraseSource } from './phrases';
export { showPlace } from './show';
export type { Place } from './show';

export { placesOf } from './places';
export type { FoundPlace, PlaceOptions, Places } from './places';
export { phraseSources } from './phrases';
export type { PhraseSource } from './phrases';
export { showPlace } from './show';
export type { Place } from './show';

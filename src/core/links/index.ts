export { costsNoClick, landmarks, linkElements, linkKinds } from './link';
export type { Landmark, Link, LinkElement, LinkKind } from './link';
export { countPackedLinks, packLinks, unpackLinks } from './pack';
export type { NumberedLink } from './pack';

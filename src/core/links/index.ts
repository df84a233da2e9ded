export { costsNoClick, landmarks, linkElements, linkKinds } from './link';
export type { Landmark, Link, LinkElement, LinkKind, LinkOf, NumberedLink } from './link';
export { countPackedLinks, packLinks, unpackLinks } from './pack';

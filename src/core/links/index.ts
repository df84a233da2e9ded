export { costsNoClick, isResource, landmarks, linkElements, linkKinds, relSaysNofollow } from './link';
export type { Landmark, Link, LinkElement, LinkKind, LinkOf, NumberedLink } from './link';
export { countPackedLinks, eachPackedLink, packLinks, unpackLinks } from './pack';

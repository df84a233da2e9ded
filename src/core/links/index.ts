export { anchorFaults, faultBit, linkFaults } from './fault';
export type { LinkFault } from './fault';
export { costsNoClick, isResource, landmarks, linkElements, linkKinds, relSaysNofollow } from './link';
export type { Landmark, Link, LinkElement, LinkKind, LinkOf, NumberedLink } from './link';
export { BARE_IMAGE, countPackedLinks, eachPackedLink, packLinks, RELATIVE, unpackLinks } from './pack';

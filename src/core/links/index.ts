export { anchorFaults, faultBit, linkFaults } from './fault';
export type { LinkFault } from './fault';
export { costsNoClick, isResource, landmarks, linkElements, linkKinds, relSaysNofollow } from './link';
export type { Landmark, Link, LinkElement, LinkKind, LinkOf, NumberedLink } from './link';
export { bundleLinks } from './bundle';
export type { LinkBundle } from './bundle';
export { numbering } from './numbering';
export { BARE_IMAGE, countPackedLinks, eachPackedLink, packLinks, RELATIVE, renumberLinks, unpackLinks } from './pack';

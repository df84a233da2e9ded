export { anchorFaults, faultBit, linkFaults } from './fault';
export { CLICK_KIND, costsNoClick, isResource, placements, linkElements, linkKinds, relSaysNofollow } from './link';
export type { Placement, Link, LinkElement, LinkKind, NumberedLink } from './link';
export { isAroundContent, isContentPlacement, isRunningText, templatePages } from './navigation';
export { bundleLinks } from './bundle';
export type { LinkBundle } from './bundle';
export {
  BARE_IMAGE,
  BESIDE,
  countPackedLinks,
  eachPackedLink,
  MISSING_FRAGMENT,
  packLinks,
  numbersOf,
  RELATIVE,
  renumberLinks,
} from './pack';
export { linkFieldNames, linkFields, linkInputs, phraseFields } from './fields';
export type { LinkFieldName, LinkInput, LinkNumbers } from './fields';
export type { LinkFault } from './fault';

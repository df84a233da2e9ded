export { addressParts, identify, MAX_ADDRESS_LENGTH, normalizeEscapes, originOf } from './identity';
export type { AddressParts, Identified } from './identity';
export { insideTest } from './inside';
export { readStartAddress } from './start';

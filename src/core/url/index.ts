export { addressesIn } from './addressesIn';
export { addressParts, identify, isPlainAddress, MAX_ADDRESS_LENGTH, normalizeEscapes, originOf } from './identity';
export type { Identified } from './identity';
export { readStartAddress } from './start';

export { addressParts, identify, MAX_ADDRESS_LENGTH, normalizeEscapes, originOf } from './identity';
export type { AddressParts, Identified } from './identity';
export { readStartAddress } from './start';

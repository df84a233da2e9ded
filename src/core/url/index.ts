export { addressParts, identify, isPlainAddress, MAX_ADDRESS_LENGTH, normalizeEscapes, originOf } from './identity';
export type { Identified } from './identity';
export { remembering } from './remember';
export { readStartAddress } from './start';

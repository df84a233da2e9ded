/** Bits in which the fingerprints of near-duplicates may differ at the most, whatever the settings say. */
export const MAX_TOLERANCE = 6;

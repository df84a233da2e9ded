/** What can be wrong with a link (docs/MEANINGS.md, "Anchors" and "Verdict"); `src/core/anchors` finds it. */

// Stored as bits: what is added goes to the end.
// Several words a line, to be read as a whole:
// prettier-ignore
export const linkFaults = [
  'empty', 'image_no_alt', 'generic', 'address', 'overlong', 'off_topic', 'conflict', 'split', 'nofollow_mix',
  'fragment', 'no_return', 'bad_code', 'insecure',
] as const;
export type LinkFault = (typeof linkFaults)[number];

/** The first of them are faults of the words, or of how links agree with each other: those of `anchor_faults`. */
export const anchorFaults = linkFaults.slice(0, 9) as readonly LinkFault[];

export const faultBit = (fault: LinkFault) => 1 << linkFaults.indexOf(fault);

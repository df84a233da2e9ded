/**
 * Ranks order the frontier. From 0 on they are clicks from a start page; from {@link UNLINKED_RANK} on, clicks from an
 * address that only another source than links knows. What is only asked whether it answers comes last.
 */
export const UNLINKED_RANK = 1_000_000;
/** Resources, and outside addresses: asked whether they answer, never read. */
export const RESOURCE_RANK = 2_000_000;
export const EXTERNAL_RANK = 2_000_001;
/** Known, never asked for: the settings leave it out. */
export const ASIDE_RANK = 3_000_000;

/** Redirects in a row that are followed. */
export const MAX_HOPS = 10;

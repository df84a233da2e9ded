/** A generator of whole numbers below a bound, the same for the same seed (xorshift, Marsaglia 2003). */
export function chance(seed: number): (below: number) => number {
  let state = Math.imul(seed + 1, 2654435761) | 1;
  return (below) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) % below;
  };
}

/** Rows that a person has picked in a list, by their numbers. */
export interface Picks {
  /** The place of the row that was picked last: a range begins there. */
  readonly anchor: number;
  has: (id: number) => boolean;
  /** How many are picked of a list with so many rows. */
  size: (total: number) => number;
  toggle: (id: number, at: number) => void;
  /** Picks all rows between two places. */
  range: (from: number, to: number, idsOf: (from: number, to: number) => Promise<number[]>) => Promise<void>;
  all: () => void;
  clear: () => void;
  /** The numbers that are picked; null when all rows are. */
  ids: () => number[] | null;
}

export function makePicks(): Picks {
  let picked = $state.raw(new Set<number>());
  let everything = $state(false);
  let anchor = $state(0);
  return {
    get anchor() {
      return anchor;
    },
    has: (id) => everything || picked.has(id),
    size: (total) => (everything ? total : picked.size),
    toggle(id, at) {
      const next = new Set(everything ? [] : picked);
      if (!next.delete(id)) next.add(id);
      picked = next;
      everything = false;
      anchor = at;
    },
    async range(from, to, idsOf) {
      const ids = await idsOf(Math.min(from, to), Math.max(from, to));
      picked = new Set([...picked, ...ids]);
      everything = false;
    },
    all() {
      picked = new Set();
      everything = true;
    },
    clear() {
      picked = new Set();
      everything = false;
    },
    ids: () => (everything ? null : [...picked]),
  };
}

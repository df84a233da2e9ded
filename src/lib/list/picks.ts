/** Rows that a person has picked in a list, by their numbers: plain values, which a component holds. */
export interface Picks {
  /** Numbers that are picked; those that are not, where all others are. */
  named: ReadonlySet<number>;
  allBut: boolean;
  /** The place of the row that was picked last: a range begins there. */
  anchor: number;
}

export const noPicks: Picks = { named: new Set(), allBut: false, anchor: 0 };
export const allPicked: Picks = { named: new Set(), allBut: true, anchor: 0 };

export const isPicked = ({ named, allBut }: Picks, id: number): boolean => allBut !== named.has(id);

/** How many are picked of a list with so many rows. */
export const pickedOf = ({ named, allBut }: Picks, total: number): number => (allBut ? total - named.size : named.size);

/** Picks a row, or no longer. @param at its place in the list */
export function toggled(picks: Picks, id: number, at: number): Picks {
  const named = new Set(picks.named);
  if (!named.delete(id)) named.add(id);
  return { ...picks, named, anchor: at };
}

/** Picks rows besides those that are. */
export function withPicked(picks: Picks, ids: Iterable<number>): Picks {
  const named = new Set(picks.named);
  for (const id of ids)
    if (picks.allBut) named.delete(id);
    else named.add(id);
  return { ...picks, named };
}

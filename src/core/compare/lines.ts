/** Two texts line by line, side by side. */
import { diffArrays } from 'diff';

/** A line of a comparison: what stood there and what stands there now, each null where the other alone has it. */
export interface ComparedLine {
  then: { number: number; text: string } | null;
  now: { number: number; text: string } | null;
}

/** Equal lines that are left out, where a comparison is folded. */
export interface Fold {
  left: number;
}

/** Beyond so many edits two texts have next to nothing in common, and a comparison would take too long. */
const MOST_EDITS = 4000;

/**
 * Compares two texts by lines (Myers 1986). Lines that come in place of others stand beside them.
 * @returns null when they are too different
 */
export function compareLines(then: readonly string[], now: readonly string[]): ComparedLine[] | null {
  const parts = diffArrays([...then], [...now], { maxEditLength: MOST_EDITS });
  if (!parts) return null;
  const lines: ComparedLine[] = [];
  let [was, is] = [0, 0];
  for (let i = 0; i < parts.length; i++) {
    const { added, removed, value } = parts[i];
    if (!added && !removed) {
      for (const text of value) lines.push({ then: { number: ++was, text }, now: { number: ++is, text } });
      continue;
    }
    const next = parts[i + 1];
    const isPair = next && (added ? next.removed : next.added);
    const out = removed ? value : isPair ? next.value : [];
    const come = added ? value : isPair ? next.value : [];
    if (isPair) i++;
    for (let at = 0; at < Math.max(out.length, come.length); at++)
      lines.push({
        then: at < out.length ? { number: ++was, text: out[at] } : null,
        now: at < come.length ? { number: ++is, text: come[at] } : null,
      });
  }
  return lines;
}

const isSame = ({ then, now }: ComparedLine) => then !== null && now !== null && then.text === now.text;

/** Leaves out equal lines farther than some from what differs. */
export function folded(lines: readonly ComparedLine[], around = 3): (ComparedLine | Fold)[] {
  const isNear = new Uint8Array(lines.length);
  lines.forEach((line, i) => {
    if (!isSame(line)) isNear.fill(1, Math.max(0, i - around), i + around + 1);
  });
  const found: (ComparedLine | Fold)[] = [];
  let left = 0;
  lines.forEach((line, i) => {
    if (!isNear[i]) left++;
    else {
      if (left) found.push({ left });
      left = 0;
      found.push(line);
    }
  });
  if (left) found.push({ left });
  return found;
}

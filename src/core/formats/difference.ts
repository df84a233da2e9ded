/** Differences between texts, as a unified diff (POSIX.1-2017, diff -u). */

/** A line of both texts, of the old one only, or of the new one only. */
export interface DifferenceLine {
  mark: ' ' | '-' | '+';
  text: string;
}

/** Lines that stand around a change. */
const CONTEXT = 3;

/**
 * Sets two lists side by side that are in the order of their keys.
 * @param old,fresh texts by their keys, ascending by code unit
 */
export function differenceOfSorted(
  old: readonly (readonly [key: string, text: string])[],
  fresh: readonly (readonly [key: string, text: string])[],
): DifferenceLine[] {
  const lines: DifferenceLine[] = [];
  for (let a = 0, b = 0; a < old.length || b < fresh.length;) {
    const isOld = a < old.length && (b === fresh.length || old[a][0] <= fresh[b][0]);
    const isFresh = b < fresh.length && (a === old.length || fresh[b][0] <= old[a][0]);
    const [before, after] = [isOld ? old[a++][1] : null, isFresh ? fresh[b++][1] : null];
    if (before === after) lines.push({ mark: ' ', text: before! });
    else {
      if (before !== null) lines.push({ mark: '-', text: before });
      if (after !== null) lines.push({ mark: '+', text: after });
    }
  }
  return lines;
}

const range = (start: number, count: number) => `${count === 0 ? start - 1 : start}${count === 1 ? '' : `,${count}`}`;

/** Writes a unified diff; '' when nothing differs. */
export function unifiedDifference(oldName: string, newName: string, lines: readonly DifferenceLine[]): string {
  const changed = lines.flatMap(({ mark }, at) => (mark === ' ' ? [] : [at]));
  if (changed.length === 0) return '';
  const hunks: [from: number, to: number][] = [];
  for (const at of changed) {
    const last = hunks.at(-1);
    if (last && at - CONTEXT <= last[1]) last[1] = Math.min(lines.length, at + CONTEXT + 1);
    else hunks.push([Math.max(0, at - CONTEXT), Math.min(lines.length, at + CONTEXT + 1)]);
  }
  const out = [`--- ${oldName}`, `+++ ${newName}`];
  let [oldLine, newLine, at] = [1, 1, 0];
  const pass = (to: number) => {
    for (; at < to; at++) {
      if (lines[at].mark !== '+') oldLine++;
      if (lines[at].mark !== '-') newLine++;
    }
  };
  for (const [from, to] of hunks) {
    pass(from);
    const [oldStart, newStart] = [oldLine, newLine];
    pass(to);
    out.push(`@@ -${range(oldStart, oldLine - oldStart)} +${range(newStart, newLine - newStart)} @@`);
    for (const { mark, text } of lines.slice(from, to)) out.push(mark + text);
  }
  return `${out.join('\n')}\n`;
}

/** What lies next to something in the direction of an arrow key. */
interface Placed {
  id: string;
  x: number;
  y: number;
  width?: number;
  height?: number;
}

/** The one next to the current one; the first when there is no current one, undefined when none lies there. */
export function besideOf<P extends Placed>(all: readonly P[], current: string, key: string): P | undefined {
  const from = all.find(({ id }) => id === current);
  if (!from) return all[0];
  const middle = ({ x, y, width = 0, height = 0 }: P) => [x + width / 2, y + height / 2];
  const [x, y] = middle(from);
  const way = (one: P) => {
    const [dx, dy] = [middle(one)[0] - x, middle(one)[1] - y];
    const [along, across] = key === 'ArrowLeft' || key === 'ArrowRight' ? [dx, dy] : [dy, dx];
    const ahead = key === 'ArrowLeft' || key === 'ArrowUp' ? -along : along;
    return ahead > 1 ? ahead + 2 * Math.abs(across) : Infinity;
  };
  return all.reduce<P | undefined>((best, one) => (way(one) < (best ? way(best) : Infinity) ? one : best), undefined);
}

/** How wide texts of the interface are, for pictures that place them themselves. */
let context: CanvasRenderingContext2D | null = null;
/** How wide a text of 12 pixels is. */
export function widthOf(text: string, weight = 400): number {
  context ??= document.createElement('canvas').getContext('2d')!;
  context.font = `${weight} 12px "Source Sans 3 Variable"`;
  return context.measureText(text).width;
}

/** A text as far as it fits into a width: cut at its end, or at its beginning where the end tells more. */
export function fitted(text: string, width: number, { keepsEnd = false, weight = 400 } = {}): string {
  const fits = (tried: string) => widthOf(tried, weight) <= width;
  if (fits(text)) return text;
  let [low, high] = [0, text.length];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (fits(keepsEnd ? `…${text.slice(-middle)}` : `${text.slice(0, middle)}…`)) low = middle;
    else high = middle - 1;
  }
  if (low < 2) return '';
  return keepsEnd ? `…${text.slice(-low)}` : `${text.slice(0, low)}…`;
}

/** Charts as files: SVG that stands by itself, PNG drawn from it, and the numbers as CSV. */
import type { Cell } from '$core/formats/csv';

const drawn = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
];

/** A drawing with everything that style sheets say of it written into it, on the paper of the theme. */
export function standaloneSvg(svg: SVGSVGElement): string {
  const { width, height } = svg.getBoundingClientRect();
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const own = [svg, ...svg.querySelectorAll('*')];
  [copy, ...copy.querySelectorAll('*')].forEach((element, i) => {
    const style = getComputedStyle(own[i]);
    for (const name of drawn) {
      const value = style.getPropertyValue(name);
      if (value) element.setAttribute(name, value);
    }
    element.removeAttribute('class');
    element.removeAttribute('style');
  });
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  if (!copy.hasAttribute('viewBox')) copy.setAttribute('viewBox', `0 0 ${Math.round(width)} ${Math.round(height)}`);
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  const colour = getComputedStyle(document.documentElement).getPropertyValue('--color-base-100').trim();
  for (const [name, value] of Object.entries({ width: '100%', height: '100%', fill: colour }))
    paper.setAttribute(name, value);
  copy.prepend(paper);
  return new XMLSerializer().serializeToString(copy);
}

/** Twice the size, for screens and slides. */
const SCALE = 2;

/** Draws an SVG into a PNG. @throws Error when the browser cannot */
export async function pngOf(svg: string): Promise<Blob> {
  const image = new Image();
  const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    await new Promise((resolve, reject) => {
      image.onload = resolve;
      image.onerror = () => reject(new Error('The picture could not be drawn.'));
      image.src = address;
    });
    const canvas = document.createElement('canvas');
    canvas.width = image.width * SCALE;
    canvas.height = image.height * SCALE;
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve, reject) =>
      canvas.toBlob(
        (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be drawn.'))),
        'image/png',
      ),
    );
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** What writes CSV is loaded when the first table is saved. */
export const csvOf = async (rows: readonly (readonly Cell[])[]) =>
  [...(await import('$core/formats/csv')).csvPieces(rows)].join('');

/** Hands a file to the person. */
export function saveFile(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

import type { ECharts } from 'echarts';

interface Charted {
  /** Called with the chart as soon as there is one. */
  ready: (chart: ECharts) => void;
  /** Called whenever the box has another width, in pixels. */
  resized?: (width: number) => void;
  /** Called when the theme has changed: colours are read anew. */
  themed: (name: string) => void;
  /**
   * Called with the place on the axis above which it was clicked, however high, and with what keys; charts without axes
   * have none.
   */
  clicked?: (at: number, event: MouseEvent) => void;
  /** Loads a kind of series besides bars. */
  series?: () => Promise<unknown>;
}

/**
 * Puts a chart into a box and keeps it in shape. ECharts is loaded with the first of them.
 * @returns what takes it away
 */
export function mountChart(box: HTMLElement, { ready, resized, themed, clicked, series }: Charted): () => void {
  let chart: ECharts | undefined;
  let gone = false;
  const sizes = new ResizeObserver(() => {
    resized?.(box.clientWidth);
    chart?.resize();
  });
  const themes = new MutationObserver(() => themed(document.documentElement.dataset.theme ?? ''));
  themes.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  void Promise.all([import('./echarts'), series?.()]).then(([{ init }]) => {
    if (gone) return;
    chart = init(box, null, { renderer: 'svg' });
    const made = chart;
    sizes.observe(box);
    resized?.(box.clientWidth);
    if (clicked)
      made.getZr().on('click', ({ offsetX, offsetY, event }) => {
        if (made.containPixel('grid', [offsetX, offsetY]))
          clicked(Number(made.convertFromPixel({ xAxisIndex: 0 }, offsetX)), event as unknown as MouseEvent);
      });
    ready(made);
  });
  return () => {
    gone = true;
    sizes.disconnect();
    themes.disconnect();
    chart?.dispose();
  };
}

/** A colour of the theme as it is now. */
export const ink = (variable: string) => getComputedStyle(document.documentElement).getPropertyValue(variable).trim();

const FONT = 'Source Sans 3 Variable';

/** How axes are written. */
export const axisText = () => ({ color: ink('--quiet'), fontFamily: FONT, fontSize: 12 });

/** How the words that follow the pointer look. */
export const tooltipLook = () => ({
  trigger: 'axis' as const,
  confine: true,
  backgroundColor: ink('--color-base-100'),
  borderColor: ink('--color-base-300'),
  textStyle: { color: ink('--color-base-content'), fontFamily: FONT, fontSize: 13 },
});

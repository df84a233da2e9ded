<!-- How share is spread over pages, from the richest to the poorest: what each has, and what they hold together. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import type { ECharts } from 'echarts';
  import type { ShareCurve } from '$core/answers';
  import { axisText, ink, mountChart, tooltipLook } from './chart';
  import { shareText } from '../dossier/dossierFacts';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    curve: ShareCurve;
    /** Called with the rank that is picked and the share there. */
    onpick: (rank: number, share: number) => void;
    height?: number;
  }
  let { curve, onpick, height = 150 }: Props = $props();

  let box: HTMLDivElement;
  let chart: ECharts | undefined = $state.raw();
  let theme = $state('');

  function draw() {
    if (!chart) return;
    const text = axisText();
    const line = { lineStyle: { color: ink('--color-base-300') } };
    const { points } = curve;
    chart.setOption({
      animation: false,
      grid: { left: 56, right: 48, top: 22, bottom: 24 },
      xAxis: {
        type: 'log',
        min: 1,
        max: Math.max(2, curve.pages),
        axisLabel: { ...text, formatter: number },
        splitLine: { show: false },
        axisLine: { lineStyle: { color: ink('--quiet') } },
        minorTick: { show: false },
      },
      yAxis: [
        {
          type: 'log',
          name: 'share',
          nameTextStyle: text,
          axisLabel: { ...text, formatter: (v: number) => `${v}×` },
          splitLine: line,
          nameGap: 8,
        },
        {
          type: 'value',
          min: 0,
          max: 1,
          interval: 0.5,
          name: texts.heldTogether,
          nameTextStyle: { ...text, align: 'right' },
          nameGap: 8,
          axisLabel: { ...text, formatter: (v: number) => `${100 * v}%` },
          splitLine: { show: false },
        },
      ],
      tooltip: {
        ...tooltipLook(),
        formatter: (params: unknown) => {
          const { rank, share, part } = points[(params as { dataIndex: number }[])[0].dataIndex];
          return `<b>Page ${number(rank)} of ${number(curve.pages)}</b> has ${shareText(share)}<br>The richest ${number(rank)} hold ${(100 * part).toFixed(1)}%<br>Click to select them`;
        },
      },
      series: [
        {
          type: 'line',
          symbol: 'none',
          lineStyle: { width: 2, color: ink('--color-primary') },
          areaStyle: { color: ink('--color-primary'), opacity: 0.12 },
          data: points.map(({ rank, share }) => [rank, Math.max(share, 1e-4)]),
        },
        {
          type: 'line',
          symbol: 'none',
          yAxisIndex: 1,
          lineStyle: { width: 1.5, type: 'dashed', color: ink('--lost') },
          data: points.map(({ rank, part }) => [rank, part]),
        },
      ],
    });
  }
  onMount(() =>
    mountChart(box, {
      series: () => import('./lines'),
      ready: (made) => (chart = made),
      themed: (name) => (theme = name),
      clicked: (rank) => {
        const point = curve.points.findLast((one) => one.rank <= rank);
        if (point) onpick(point.rank, point.share);
      },
    }),
  );
  $effect(() => {
    void theme;
    draw();
  });
</script>

<div
  bind:this={box}
  style:height="{height}px"
  class="cursor-pointer"
  role="img"
  aria-label={texts.halfOfTheShareIsHeld(number(curve.half), number(curve.pages))}
></div>

<!-- Pages by clicks from the start, stacked by verdict; what is selected stands out, the rest is faint. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import type { BarSeriesOption, ECharts } from 'echarts';
  import type { DepthBar } from '$core/answers';
  import { verdicts } from '$core/facts';
  import { axisText, ink, mountChart, tooltipLook } from './chart';
  import { number, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    bars: DepthBar[];
    /** The depths that the selection names, to mark their labels; null is "no route". */
    picked: (depth: number | null) => boolean;
    /** Called with a depth, and whether it is to be added to what is picked already. */
    onpick: (depth: number | null, add: boolean) => void;
    height?: number;
  }
  let { bars, picked, onpick, height = 136 }: Props = $props();

  const LEFT = 52;
  const RIGHT = 12;
  /** Below the axis stand its labels, and over them buttons. */
  const FOOT = 24;
  let box: HTMLDivElement;
  let chart: ECharts | undefined = $state.raw();
  let width = $state(0);
  let theme = $state('');

  const name = (depth: number | null) => (depth === null ? texts.noRoute : depth === 0 ? 'start' : String(depth));
  /** Labels this near to that of the last bar would run into it. */
  const crowded = $derived(bars[bars.length - 1]?.depth === null && bars.length > 12 ? 2 : 0);
  /** Every how many labels one is written, so that they never run into each other. */
  const step = $derived(Math.max(1, Math.ceil((bars.length * 34) / Math.max(1, width - LEFT - RIGHT))));
  const isWritten = (i: number) => (i % step === 0 && bars.length - 1 - i >= crowded) || bars[i]?.depth === null;
  const narrowed = $derived(bars.some(({ pages, selected }) => selected < pages));

  function series(): BarSeriesOption[] {
    const bar = (name: string, color: string, data: number[], faint: boolean): BarSeriesOption => ({
      name,
      type: 'bar',
      stack: 'pages',
      barWidth: '68%',
      barMaxWidth: 72,
      itemStyle: { color, opacity: faint ? 0.22 : 1 },
      emphasis: { disabled: true },
      data,
    });
    // Indexable at the foot, where lengths can be compared.
    const stacked = [...verdicts.keys()].reverse();
    const routed = (of: (bar: DepthBar) => number) => bars.map((b) => (b.depth === null ? 0 : of(b)));
    const used = stacked.filter((v) => bars.some((b) => b.depth !== null && b.byVerdict[v] > 0));
    const lost: BarSeriesOption = {
      name: texts.noRoute,
      type: 'bar',
      stack: 'pages',
      itemStyle: { color: `${ink('--lost')}22`, borderColor: ink('--lost'), borderType: 'dashed', borderWidth: 1.5 },
      emphasis: { disabled: true },
      data: bars.map((b) =>
        b.depth === null ? { value: b.pages, itemStyle: { opacity: narrowed && !b.selected ? 0.4 : 1 } } : '-',
      ),
    };
    const totals: BarSeriesOption = {
      name: 'total',
      type: 'bar',
      stack: 'pages',
      silent: true,
      data: bars.map(() => 0),
      label: {
        show: step === 1,
        position: 'top',
        distance: 3,
        color: ink('--color-base-content'),
        fontFamily: 'Source Sans 3 Variable',
        formatter: ({ dataIndex }) => number(bars[dataIndex].pages),
      },
    };
    return [
      ...used.map((v) =>
        bar(
          verdicts[v],
          ink(`--v-${verdicts[v]}`),
          routed((b) => b.selectedByVerdict[v]),
          false,
        ),
      ),
      ...used.map((v) =>
        bar(
          verdicts[v],
          ink(`--v-${verdicts[v]}`),
          routed((b) => b.byVerdict[v] - b.selectedByVerdict[v]),
          true,
        ),
      ),
      lost,
      totals,
    ];
  }

  /** What a bar is made of, in words. */
  function tooltip(at: number): string {
    const { depth, pages, selected, byVerdict } = bars[at];
    const head =
      depth === null ? texts.noRouteFromTheStart : depth === 0 ? texts.theStartPage : texts.clicksFromTheStart(depth);
    const lines = [...byVerdict.entries()].filter(([, n]) => n > 0).reverse();
    return [
      `<b>${head}</b>: ${number(pages)}${selected < pages ? texts.andSelected(number(selected)) : ''}`,
      ...lines.map(([v, n]) => `${verdictLabel[verdicts[v]]}: ${number(n)}`),
    ].join('<br>');
  }

  function draw() {
    if (!chart) return;
    const text = axisText();
    chart.setOption(
      {
        animation: false,
        grid: { left: LEFT, right: RIGHT, top: 20, bottom: FOOT },
        xAxis: {
          type: 'category',
          data: bars.map((b) => name(b.depth)),
          axisLabel: { ...text, interval: isWritten, margin: 7 },
          axisTick: { show: false },
          axisLine: { lineStyle: { color: ink('--quiet') } },
        },
        yAxis: {
          type: 'value',
          minInterval: 1,
          splitNumber: 3,
          axisLabel: { ...text, formatter: number },
          splitLine: { lineStyle: { color: ink('--color-base-300') } },
        },
        tooltip: {
          ...tooltipLook(),
          axisPointer: { type: 'shadow' },
          formatter: (params: unknown) => tooltip((params as { dataIndex: number }[])[0].dataIndex),
        },
        series: series(),
      },
      { replaceMerge: ['series'] },
    );
  }

  onMount(() =>
    mountChart(box, {
      ready: (made) => (chart = made),
      resized: (pixels) => (width = pixels),
      themed: (name) => (theme = name),
      // Anywhere above a label counts, so that the smallest bar can be hit.
      clicked: (at, { ctrlKey, metaKey, shiftKey }) => {
        if (bars[at]) onpick(bars[at].depth, ctrlKey || metaKey || shiftKey);
      },
    }),
  );

  $effect(() => {
    void theme;
    draw();
  });
</script>

<div role="group" aria-label={texts.pagesByDepth} class="relative">
  <div bind:this={box} style:height="{height + FOOT}px" class="cursor-pointer"></div>
  <div
    class="absolute bottom-0 left-0 grid w-full"
    style:padding="0 {RIGHT}px 0 {LEFT}px"
    style:grid-template-columns="repeat({bars.length}, minmax(0, 1fr))"
  >
    {#each bars as { depth, pages } (depth)}
      <button
        type="button"
        class="tabular h-5.5 w-fit min-w-full justify-self-center rounded px-0.5 text-xs whitespace-nowrap {picked(
          depth,
        )
          ? 'bg-primary text-primary-content'
          : 'hover:bg-primary/15'}"
        aria-pressed={picked(depth)}
        aria-label={texts.barInWords(depth === null ? texts.noRoute : texts.depthInWords(depth), number(pages))}
        title="{depth === null ? texts.noRouteHead : texts.depth(depth)}: {number(pages)}"
        onclick={(event) => onpick(depth, event.ctrlKey || event.metaKey || event.shiftKey)}
        >{picked(depth) ? name(depth) : ''}</button
      >
    {/each}
  </div>
</div>

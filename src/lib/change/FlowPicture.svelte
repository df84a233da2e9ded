<!-- Where pages went from one crawl to another: a stream from each value to each other one. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import type { ECharts } from 'echarts';
  import type { ChangeFlow, FlowCategory, Stream } from '$core/answers';
  import { axisText, ink, mountChart, tooltipLook } from '../charts/chart';
  import { number } from '../shell/words';
  import { colourOf, valueName } from './flowNames';
  import { texts } from './texts';

  interface Props {
    flow: ChangeFlow;
    streams: Stream[];
    category: FlowCategory;
    onpick: (stream: Stream) => void;
    height: number;
    /** Pixels for the names on either side. */
    margin: number;
  }
  let { flow, streams, category, onpick, height, margin }: Props = $props();
  let box: HTMLDivElement;
  let chart: ECharts | undefined = $state.raw();
  let theme = $state('');

  const nameThen = (i: number) => (i < 0 ? texts.came : valueName(category, flow.values[i].value));
  const nameNow = (i: number) => (i < 0 ? texts.went : valueName(category, flow.values[i].value));
  const colour = (i: number, of: 'then' | 'now') =>
    i < 0 ? ink(of === 'then' ? '--color-primary' : '--lost') : ink(colourOf(category, flow.values[i].value));
  /** Narrow streams are seen and can be picked. */
  const LEAST = 0.02;

  function draw() {
    if (!chart) return;
    const text = axisText();
    const all = streams.reduce((sum, { pages }) => sum + pages, 0);
    const then = [...new Set(streams.map(({ from }) => from))].sort((a, b) => a - b);
    const now = [...new Set(streams.map(({ to }) => to))].sort((a, b) => a - b);
    const node = (i: number, of: 'then' | 'now') => ({
      name: `${of} ${i}`,
      depth: of === 'then' ? 0 : 1,
      itemStyle: { color: colour(i, of), borderWidth: 0 },
      label: {
        position: of === 'then' ? ('left' as const) : ('right' as const),
        formatter: () =>
          i < 0
            ? of === 'then'
              ? nameThen(i)
              : nameNow(i)
            : `${of === 'then' ? nameThen(i) : nameNow(i)} ${number(flow.values[i][of])}`,
      },
    });
    chart.setOption(
      {
        animation: false,
        tooltip: { ...tooltipLook(), trigger: 'item', formatter: (params: unknown) => said(params as Hovered) },
        series: [
          {
            type: 'sankey',
            left: margin,
            right: margin + 16,
            top: 8,
            bottom: 8,
            nodeWidth: 10,
            nodeGap: 9,
            draggable: false,
            layoutIterations: 0,
            label: { ...text, color: ink('--color-base-content'), width: margin - 8, overflow: 'truncate' },
            lineStyle: { color: 'source', opacity: 0.38, curveness: 0.5 },
            emphasis: { focus: 'none', lineStyle: { opacity: 0.7 } },
            data: [...then.map((i) => node(i, 'then')), ...now.map((i) => node(i, 'now'))],
            links: streams.map((stream) => ({
              source: `then ${stream.from}`,
              target: `now ${stream.to}`,
              value: Math.max(stream.pages, LEAST * all),
              stream,
            })),
          },
        ],
      },
      true,
    );
  }
  type Hovered = { dataType?: string; data?: { stream?: Stream } };
  const said = ({ data }: Hovered) =>
    data?.stream ? texts.streamPages(nameThen(data.stream.from), nameNow(data.stream.to), data.stream.pages) : '';

  onMount(() =>
    mountChart(box, {
      series: () => import('../charts/sankey'),
      ready: (made) => {
        made.on('click', (params) => {
          const { data } = params as Hovered;
          if (data?.stream) onpick(data.stream);
        });
        chart = made;
      },
      themed: (name) => (theme = name),
    }),
  );
  $effect(() => {
    void theme;
    draw();
  });
</script>

<div bind:this={box} style:height="{height}px" class="cursor-pointer" role="img" aria-label={texts.thenAndNow}></div>

<!-- From which value to which pages went, as streams or as a matrix, with every stream in words beside it. -->
<script lang="ts">
  import type { ChangeFlow, FlowCategory, Stream } from '$core/answers';
  import Matrix from '../charts/Matrix.svelte';
  import Picture from '../charts/Picture.svelte';
  import { number } from '../shell/words';
  import FlowPicture from './FlowPicture.svelte';
  import { valueName } from './flowNames';
  import { texts } from './texts';

  interface Props {
    flow: ChangeFlow;
    category: FlowCategory;
    onlyMoved: boolean;
    select: string;
    onpick: (select: string) => void;
  }
  let { flow, category, onlyMoved, select, onpick }: Props = $props();

  /** Beyond so many values streams cross too often to be followed. */
  const MOST_STREAMED = 8;
  const HEIGHT = 218;
  const NARROW = 720;
  let width = $state(1000);
  const isNarrow = $derived(width < NARROW);
  const nameOf = (i: number, of: 'then' | 'now') =>
    i < 0 ? (of === 'then' ? texts.came : texts.went) : valueName(category, flow.values[i].value);
  const streams = $derived(flow.streams.filter(({ from, to }) => !onlyMoved || from !== to));
  const taking = $derived([...new Set(streams.flatMap(({ from, to }) => [from, to]))]);
  const rows = $derived([...new Set(streams.map(({ from }) => from))].sort((a, b) => a - b));
  const columns = $derived([...new Set(streams.map(({ to }) => to))].sort((a, b) => a - b));
  const streamAt = (i: number, j: number): Stream | undefined =>
    streams.find(({ from, to }) => from === rows[i] && to === columns[j]);
  const isMatrix = $derived(taking.length > MOST_STREAMED);
  const wordsOf = ({ from, to }: Stream) => texts.stream(nameOf(from, 'then'), nameOf(to, 'now'));
</script>

{#if streams.length === 0}
  <p class="quiet px-2 py-6">{texts.stayed}</p>
{:else}
  <Picture
    name="change-{category}"
    table={() => [
      ['then', 'now', 'pages', 'selection'],
      ...streams.map((stream) => [nameOf(stream.from, 'then'), nameOf(stream.to, 'now'), stream.pages, stream.select]),
    ]}
  >
    <div class="flex gap-3" bind:clientWidth={width}>
      <div class="min-w-0 flex-1">
        {#if isMatrix}
          <Matrix
            label={texts.thenAndNow}
            rows={rows.map((i) => nameOf(i, 'then'))}
            columns={columns.map((i) => nameOf(i, 'now'))}
            value={(i, j) => streamAt(i, j)?.pages ?? 0}
            shown={number}
            title={(i, j) =>
              texts.streamPages(nameOf(rows[i], 'then'), nameOf(columns[j], 'now'), streamAt(i, j)?.pages ?? 0)}
            isPale={(i, j) => rows[i] === columns[j]}
            onpick={(i, j) => onpick(streamAt(i, j)!.select)}
          />
        {:else}
          <FlowPicture
            {flow}
            {streams}
            {category}
            height={HEIGHT}
            margin={isNarrow ? 112 : 170}
            onpick={(stream) => onpick(stream.select)}
          />
        {/if}
      </div>
      <ul class="shrink-0 overflow-y-auto text-[0.8125rem] {isNarrow ? 'w-44' : 'w-72'}" style:max-height="{HEIGHT}px">
        {#each streams as stream (`${stream.from} ${stream.to}`)}
          <li>
            <button
              type="button"
              class="flex w-full gap-2 rounded px-1.5 py-0.5 text-left hover:bg-base-200 {stream.select === select
                ? 'bg-primary/15'
                : ''}"
              aria-pressed={stream.select === select}
              onclick={() => onpick(stream.select)}
            >
              <span class="min-w-0 flex-1 truncate" title={wordsOf(stream)}>{wordsOf(stream)}</span>
              <span class="tabular">{number(stream.pages)}</span>
            </button>
          </li>
        {/each}
      </ul>
    </div>
  </Picture>
{/if}

<!-- A bar for each crawl of a site, and the notes between them. -->
<script lang="ts">
  import { moment, number, verdictLabel } from '../shell/words';
  import NoteMarks from './NoteMarks.svelte';
  import { placeOfDay } from './series';
  import type { TimelineBar } from './series';
  import { texts } from './texts';

  interface Props {
    bars: TimelineBar[];
    notes: { id: number; day: string; text: string }[];
    here: number;
    label: string;
    /** A value as it is written. */
    shown?: (value: number) => string;
    hrefOf: (crawl: number) => string;
    height?: number;
  }
  let { bars, notes, here, label, shown = number, hrefOf, height = 170 }: Props = $props();
  const FOOT = 18;
  const EDGE = 14;
  const NOTE_LINE = 14;
  /** Lines for notes, which alternate so that neighbours can be read. */
  const LINES = 2;
  let width = $state(600);
  const head = $derived(notes.length ? 16 + LINES * NOTE_LINE : 16);
  const sumOf = ({ parts }: TimelineBar) => (parts ?? []).reduce((sum, { value }) => sum + value, 0);
  const most = $derived(Math.max(1e-9, ...bars.map(sumOf)));
  const slot = $derived(Math.min(120, (width - 2 * EDGE) / Math.max(1, bars.length)));
  const tall = (n: number) => ((height - FOOT - head) * n) / most;
  const stacked = (bar: TimelineBar) => {
    let below = 0;
    return (bar.parts ?? [])
      .filter(({ value }) => value > 0)
      .map(({ verdict, value }) => ({ verdict, value, y: height - FOOT - tall((below += value)) }));
  };
  const titleOf = (bar: TimelineBar) =>
    bar.parts === null
      ? texts.barOf(moment(bar.at), texts.notCounted)
      : [
          texts.barOf(moment(bar.at), shown(sumOf(bar))),
          ...bar.parts.flatMap(({ verdict, value }) =>
            verdict && value ? [`${verdictLabel[verdict]} ${number(value)}`] : [],
          ),
        ].join('\n');
  const noteAt = (day: string) => EDGE + placeOfDay(bars, day) * slot;
</script>

<div bind:clientWidth={width}>
  <svg {width} {height} class="max-w-full" role="group" aria-label={label}>
    {#each bars as bar, i (bar.id)}
      {@const x = EDGE + i * slot}
      <a href={hrefOf(bar.id)}>
        <title>{titleOf(bar)}</title>
        <rect {x} y={head} width={slot} height={height - head} fill="transparent" />
        {#if bar.parts === null}
          <text x={x + slot / 2} y={height - FOOT - 4} text-anchor="middle" font-size="12" fill="var(--quiet)">—</text>
        {:else}
          {#each stacked(bar) as { verdict, value, y } (verdict ?? '')}
            <rect
              x={x + slot * 0.15}
              {y}
              width={slot * 0.7}
              height={Math.max(1, tall(value))}
              fill={verdict ? `var(--v-${verdict})` : 'var(--color-primary)'}
              opacity={bar.id === here ? 1 : 0.6}
            />
          {/each}
          {#if slot > 34}<text
              x={x + slot / 2}
              y={height - FOOT - tall(sumOf(bar)) - 4}
              text-anchor="middle"
              font-size="11"
              fill="var(--color-base-content)">{shown(sumOf(bar))}</text
            >{/if}
        {/if}
        {#if slot > 40}<text
            x={x + slot / 2}
            y={height - 5}
            text-anchor="middle"
            font-size="11"
            fill="var(--quiet)"
            font-weight={bar.id === here ? 700 : 400}>{slot > 84 ? moment(bar.at) : bar.id}</text
          >{/if}
      </a>
    {/each}
    <NoteMarks {notes} placeOf={noteAt} lines={LINES} foot={height - FOOT} {width} />
  </svg>
</div>

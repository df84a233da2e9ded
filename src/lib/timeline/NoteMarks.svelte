<!-- Notes on dates, as lines with their words, within the drawing of a trend. -->
<script lang="ts">
  import { texts } from './texts';

  interface Props {
    notes: { id: number; day: string; text: string }[];
    /** Where a day is, in pixels. */
    placeOf: (day: string) => number;
    /** Lines for the words, which alternate so that neighbours can be read. */
    lines: number;
    /** Where the lines end, and how wide the drawing is. */
    foot: number;
    width: number;
  }
  let { notes, placeOf, lines, foot, width }: Props = $props();
  const LINE = 14;
  const LONG = 34;
</script>

{#each notes as { id, day, text }, i (id)}
  {@const x = placeOf(day)}
  {@const y = 12 + (i % lines) * LINE}
  {@const isLate = x > width * 0.7}
  <g>
    <title>{texts.note(day, text)}</title>
    <line x1={x} x2={x} y1={y - 8} y2={foot} stroke="var(--lost)" stroke-dasharray="3 3" />
    <text x={isLate ? x - 4 : x + 4} {y} text-anchor={isLate ? 'end' : 'start'} font-size="11" fill="var(--lost)"
      >{text.length > LONG ? `${text.slice(0, LONG - 1)}…` : text}</text
    >
  </g>
{/each}

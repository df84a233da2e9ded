<!-- How a site went from crawl to crawl: pages that may be indexed, and those of them without a route. -->
<script lang="ts">
  import { moment, number } from '../shell/words';
  import NoteMarks from '../timeline/NoteMarks.svelte';
  import { placeOfDay } from '../timeline/series';
  import { texts } from './texts';

  interface Props {
    crawls: { id: number; at: Date | null; known: number; indexable: number; noRoute: number; findings: number }[];
    notes: { id: number; day: string; text: string }[];
    here: number;
    hrefOf: (crawl: number) => string;
  }
  let { crawls, notes, here, hrefOf }: Props = $props();
  const HEIGHT = 96;
  const FOOT = 18;
  const TOP = $derived(notes.length ? 30 : 16);
  let width = $state(500);
  const most = $derived(Math.max(1, ...crawls.map(({ indexable }) => indexable)));
  const slot = $derived(Math.min(110, (width - 8) / crawls.length));
  const tall = (n: number) => ((HEIGHT - FOOT - TOP) * n) / most;
</script>

<div bind:clientWidth={width}>
  <svg {width} height={HEIGHT} class="max-w-full" role="group" aria-label={texts.indexablePagesByCrawl}>
    {#each crawls as { id, at, known, indexable, noRoute, findings }, i (id)}
      {@const x = 4 + i * slot}
      <a href={hrefOf(id)} aria-label={texts.crawlCounts(moment(at), number(indexable), number(noRoute), findings)}>
        <title>{texts.crawlCountsInFull(moment(at), number(known), number(indexable), number(noRoute), findings)}</title
        >
        <rect
          x={x + slot * 0.15}
          y={HEIGHT - FOOT - tall(indexable)}
          width={slot * 0.7}
          height={tall(indexable)}
          fill="var(--color-primary)"
          opacity={id === here ? 1 : 0.55}
        />
        {#if noRoute}<rect
            x={x + slot * 0.15}
            y={HEIGHT - FOOT - tall(noRoute)}
            width={slot * 0.7}
            height={tall(noRoute)}
            fill="var(--lost)"
          />{/if}
        {#if slot > 40}
          <text
            x={x + slot / 2}
            y={HEIGHT - FOOT - tall(indexable) - 4}
            text-anchor="middle"
            font-size="11"
            fill="var(--color-base-content)">{number(indexable)}</text
          >
          <text x={x + slot / 2} y={HEIGHT - 5} text-anchor="middle" font-size="11" fill="var(--quiet)"
            >{slot > 84 ? moment(at) : `no. ${id}`}</text
          >
        {/if}
      </a>
    {/each}
    <NoteMarks {notes} placeOf={(day) => 4 + placeOfDay(crawls, day) * slot} lines={1} foot={HEIGHT - FOOT} {width} />
  </svg>
</div>
<p class="quiet text-xs">{texts.indexablePagesByCrawlTheLowest}</p>

<!-- All crawls of a site as a trend of a number, with what stands out in words, its notes, and the crawls to come. -->
<script lang="ts">
  import { verdicts } from '$core/facts';
  import type { ListWindow } from '$core/lists';
  import type { Schedule } from '$core/schedule';
  import { spikes } from '$core/trend/spikes';
  import { trendNumbers } from '$core/trend/numbers';
  import type { TrendNumber } from '$core/trend';
  import Picture from '../charts/Picture.svelte';
  import { crawlPath } from '../shell/routes';
  import { moment, number, verdictLabel } from '../shell/words';
  import DateNotes from './DateNotes.svelte';
  import KeptCrawls from './KeptCrawls.svelte';
  import ScheduleForm from './ScheduleForm.svelte';
  import { numberBars, numberOf, verdictBars } from './series';
  import type { TimelineCrawl } from './series';
  import { texts } from './texts';
  import TimelineChart from './TimelineChart.svelte';

  interface Props {
    site: { id: number; saved: { name: string; over: 'pages' | 'links'; text: string }[] };
    here: number;
    timeline: {
      crawls: TimelineCrawl[];
      notes: { id: number; day: string; text: string }[];
      schedule: (Schedule & { paused: boolean }) | null;
      coming: Date[];
      zones: readonly string[];
      keep: number | null;
    };
    /** What is shown: a number by its name, `saved:NAME`, or '' for pages by verdict. */
    shown: string;
    onshow: (shown: string) => void;
  }
  let { site, here, timeline, shown, onshow }: Props = $props();
  const SAVED = 'saved:';
  const MOST_SPIKES = 3;
  const { crawls } = $derived(timeline);
  const saved = $derived(site.saved.find(({ name }) => shown === SAVED + name) ?? null);
  const named = $derived((trendNumbers as readonly string[]).includes(shown) ? (shown as TrendNumber) : null);

  /** What each crawl holds of the saved selection, as far as it has been counted. */
  let held = $state.raw(new Map<number, number | null>());
  async function count(of: typeof saved, all: readonly TimelineCrawl[]) {
    held = new Map();
    if (!of) return;
    const query = new URLSearchParams({ list: of.over, select: of.text, size: '0' });
    // The newest first, one after the other: each may have to be opened.
    for (const { id } of all.toReversed()) {
      const response = await fetch(`${crawlPath(site.id, id)}/rows?${query}`).catch(() => null);
      const total = response?.ok ? ((await response.json()) as ListWindow).total : null;
      if (of !== saved) return;
      held = new Map(held).set(id, total);
    }
  }
  $effect(() => void count(saved, crawls));

  const bars = $derived(
    saved
      ? numberBars(crawls, ({ id }) => held.get(id) ?? null)
      : named
        ? numberBars(crawls, (crawl) => numberOf(crawl, named))
        : verdictBars(crawls),
  );
  const name = $derived(saved ? saved.name : named ? texts.numberName(named) : texts.byVerdict);
  const write = $derived(named === 'topTen' ? texts.percent : number);

  /** Series in which leaps are looked for: that which is shown, or each verdict. */
  const series = $derived(
    saved || named
      ? [{ name, values: bars.map(({ parts }) => parts?.[0]?.value ?? null) }]
      : verdicts.map((verdict, i) => ({
          name: texts.pagesOf(verdictLabel[verdict]),
          values: crawls.map(({ counts }) => counts?.trend?.verdicts[i] ?? null),
        })),
  );
  const leaps = $derived(
    series
      .flatMap(({ name, values }) =>
        spikes(values, named === 'topTen' ? 0.02 : named === 'medianDepth' ? 1 : 3).map((spike) => ({
          name,
          ...spike,
        })),
      )
      .sort((a, b) => Math.abs(b.after - b.before) - Math.abs(a.after - a.before))
      .slice(0, MOST_SPIKES),
  );
</script>

<div class="flex gap-4">
  <div class="min-w-0 flex-1">
    <div class="flex items-center gap-2 text-xs">
      <label class="quiet flex items-center gap-1"
        >{texts.show}
        <select
          class="max-w-72 rounded border border-base-300 bg-base-100 px-1 leading-6 text-base-content"
          value={shown}
          onchange={({ currentTarget: { value } }) => onshow(value)}
        >
          <option value="">{texts.byVerdict}</option>
          {#each trendNumbers as one (one)}<option value={one}>{texts.numberName(one)}</option>{/each}
          {#if site.saved.length}
            <optgroup label={texts.savedSelections}>
              {#each site.saved as one (one.name)}
                <option value={SAVED + one.name}
                  >{one.over === 'links' ? texts.linkSelection(one.name) : one.name}</option
                >
              {/each}
            </optgroup>
          {/if}
        </select>
      </label>
      {#if saved && held.size < crawls.length}
        <span class="quiet" role="status">{texts.countedSoFar(held.size, crawls.length)}</span>
      {/if}
    </div>
    <div class="mt-1.5">
      <Picture
        name="timeline"
        table={() => [
          ['crawl', 'ended', ...(saved || named ? [name] : (bars[0]?.parts?.map(({ verdict }) => verdict) ?? []))],
          ...bars.map(({ id, at, parts }) => [id, at?.toISOString() ?? '', ...(parts ?? []).map(({ value }) => value)]),
        ]}
      >
        <TimelineChart
          {bars}
          notes={timeline.notes}
          {here}
          label={texts.overCrawls(name, crawls.length)}
          shown={write}
          hrefOf={(crawl) => `${crawlPath(site.id, crawl)}/change?picture=timeline`}
        />
      </Picture>
    </div>
    <ul class="text-[0.8125rem]">
      {#each leaps as { name, at, before, after } (`${name} ${at}`)}
        <li>
          {(after > before ? texts.rose : texts.fell)(name, write(before), write(after), moment(crawls[at].at))}
        </li>
      {:else}
        <li class="quiet">{crawls.length > 1 ? texts.noSpike : texts.oneCrawl}</li>
      {/each}
    </ul>
  </div>
  <div class="max-h-64 w-88 shrink-0 space-y-2 overflow-y-auto">
    <section>
      <h3 class="heading">{texts.notes}</h3>
      <DateNotes site={site.id} notes={timeline.notes} />
    </section>
    <section>
      <h3 class="heading">{texts.coming}</h3>
      <ScheduleForm site={site.id} schedule={timeline.schedule} coming={timeline.coming} zones={timeline.zones} />
    </section>
    <section>
      <h3 class="heading">{texts.kept}</h3>
      <KeptCrawls site={site.id} keep={timeline.keep} {crawls} />
    </section>
  </div>
</div>

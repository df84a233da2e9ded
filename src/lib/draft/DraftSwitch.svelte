<!-- Which version of the site all screens show: as crawled, as drafted, what differs, or what was predicted. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { crawlPath, versions } from '../shell/routes';
  import type { Version } from '../shell/routes';
  import type { DraftPlace } from './draft';
  import { texts } from './texts';

  let { place, version, current }: { place: DraftPlace; version: Version; current: string } = $props();
  const labels: Record<Version, [label: string, title: string]> = {
    crawled: [texts.asCrawled, texts.asCrawledTitle],
    drafted: [texts.asDrafted, texts.asDraftedTitle],
    difference: [texts.difference, texts.differenceTitle],
    predicted: [texts.prediction, texts.predictionTitle],
  };
  // A prediction is asked for on the screen of the draft; a crawl that came before all edits has none.
  const shown = $derived(versions.filter((one) => one !== 'predicted' || one === version));
  const pathOf = (to: Version) => crawlPath(place.site.id, place.crawl.id, to);
  const show = (to: Version) => goto(`${pathOf(to)}/${current}${page.url.search}`, { keepFocus: true, noScroll: true });
  const next = $derived(shown[(shown.indexOf(version) + 1) % shown.length]);
</script>

<div class="flex items-center gap-2 text-xs" role="group" aria-label={texts.version}>
  <a
    href="{pathOf(version)}/draft"
    class="rounded-full border border-white/40 px-2 leading-5 whitespace-nowrap hover:border-white"
    title={texts.openDraft}>{texts.edits(place.draft.edits)}</a
  >
  <span class="flex overflow-hidden rounded border border-white/30">
    {#each shown as one (one)}
      <button
        type="button"
        title={labels[one][1]}
        aria-pressed={one === version}
        data-key={one === next ? 'd' : undefined}
        class="px-2 leading-6 whitespace-nowrap {one === version ? 'bg-white text-[#1f2d38]' : 'hover:bg-white/15'}"
        onclick={() => show(one)}>{labels[one][0]}</button
      >
    {/each}
  </span>
</div>

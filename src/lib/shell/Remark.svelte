<!-- What a reader must know before trusting the numbers: how the crawl ended, and what it left out. -->
<script lang="ts">
  import { sentence } from '$core/messages';
  import type { Message } from '$core/messages';
  import { number } from './words';
  import { texts } from './texts';

  interface Props {
    /** Where the crawl is. */
    base: string;
    crawl: {
      state: string;
      reason: Message | null;
      limited: boolean;
      baseId: number | null;
      known: number;
      settings: {
        limit: number;
        knownLimit: number;
        depth: number | null;
        minutes: number | null;
        megabytes: number | null;
      };
    };
    /** When the site was closed to the crawl. */
    warning?: Message | null;
  }
  let { base, crawl, warning = null }: Props = $props();

  /** Whether it ended before all pages that it could fetch were fetched; only sitemaps may have been left. */
  const leavesPages = $derived(
    crawl.reason !== null && crawl.reason.code !== 'sitemaps_left' && crawl.reason.code !== 'sitemap_entries_limit',
  );
  const remarks = $derived([
    ...(crawl.reason ? [sentence(crawl.reason)] : []),
    ...(crawl.known >= crawl.settings.knownLimit ? [texts.noMoreAddressesWereTakenIn(number(crawl.known))] : []),
    ...(crawl.settings.depth !== null ? [texts.nothingDeeperWasFetched(crawl.settings.depth)] : []),
    ...(crawl.baseId !== null ? [texts.onlyASelectionWasFetchedAgain(crawl.baseId)] : []),
    ...(leavesPages || crawl.settings.depth !== null ? [texts.pagesThatOnlyUnfetchedPagesLink] : []),
  ]);
  const cut = $derived(crawl.state === 'stopped' || crawl.limited || crawl.settings.depth !== null);
  /** The limits the crawl had, which may be others when it goes on. */
  const limits = $derived(
    [
      { name: 'limit', label: texts.pagesAtMost, value: crawl.settings.limit },
      { name: 'depth', label: texts.clicksDeep, value: crawl.settings.depth },
      { name: 'minutes', label: 'minutes', value: crawl.settings.minutes },
      { name: 'megabytes', label: 'MiB', value: crawl.settings.megabytes },
    ].filter(({ value }) => value !== null),
  );
</script>

{#if warning}
  <p class="lost mt-1" role="alert">{sentence(warning)}</p>
{/if}
{#if remarks.length}
  <div class="quiet mt-1 flex items-baseline gap-3">
    <p>{remarks.join(' ')}</p>
    {#if cut && crawl.baseId === null}
      <details class="relative">
        <summary class="cursor-pointer font-semibold whitespace-nowrap text-primary hover:underline"
          >{texts.resumeTheCrawl}</summary
        >
        <form
          method="post"
          action="{base}/watch?/resume"
          class="panel absolute right-0 z-20 mt-1 w-64 p-3 text-base-content shadow-lg"
        >
          {#each limits as { name, label, value } (name)}
            <label class="mb-1.5 flex items-center gap-2">
              <input {name} value={number(value)} inputmode="numeric" class="input input-xs tabular w-24" />
              {label}
            </label>
          {/each}
          <p class="quiet mb-2 text-xs">
            {texts.whatWasFetchedIsKeptLeave}
          </p>
          <button class="btn btn-secondary btn-sm">{texts.resumeCrawl}</button>
        </form>
      </details>
    {/if}
  </div>
{/if}

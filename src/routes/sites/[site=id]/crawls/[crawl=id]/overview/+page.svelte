<script lang="ts">
  import { goto } from '$app/navigation';
  import Answer from '$lib/Answer.svelte';
  import DepthChart from '$lib/DepthChart.svelte';
  import Remark from '$lib/Remark.svelte';
  import { crawlPath } from '$lib/routes';
  import VerdictMark from '$lib/VerdictMark.svelte';
  import { number, shortAddress, verdictLabel } from '$lib/words';

  let { data } = $props();
  const base = $derived(crawlPath(data.site.id, data.crawl.id));
  const href = (select: string) => `${base}/reach${select ? `?select=${encodeURIComponent(select)}` : ''}`;
  const pages = $derived(data.verdicts.reduce((sum, { pages }) => sum + pages, 0));
  const host = $derived(new URL(data.site.start).host);
</script>

<svelte:head><title>Overview · {host} · Edge Map</title></svelte:head>
<main class="min-w-0 flex-1 overflow-y-auto px-5 py-4">
  <Answer pieces={data.answer} {href} />
  <Remark {base} crawl={data.crawl} warning={data.warning} />

  <div class="mt-4 grid grid-cols-2 gap-4">
    <section class="panel p-3">
      <h2 class="heading">What may be indexed</h2>
      <div class="mt-2 flex h-5 gap-px overflow-hidden rounded" aria-hidden="true">
        {#each data.verdicts as { verdict, pages: n } (verdict)}
          <span
            style:flex="{n} 0 1px"
            style:background="var(--v-{verdict})"
            title="{verdictLabel[verdict]}: {number(n)}"
          ></span>
        {/each}
      </div>
      <ul class="mt-2 grid grid-cols-2 gap-x-6">
        {#each data.verdicts as { verdict, pages: n } (verdict)}
          <li class="flex items-center gap-2 border-b border-base-300/60">
            <VerdictMark {verdict} />
            <a href={href(`verdict = ${verdict}`)} class="flex-1 truncate py-1 hover:underline"
              >{verdictLabel[verdict]}</a
            >
            <span class="tabular">{number(n)}</span>
            <span class="tabular quiet w-9 text-right text-xs"
              >{((100 * n) / pages).toFixed(n * 10 < pages ? 1 : 0)}%</span
            >
          </li>
        {/each}
      </ul>
    </section>

    <section class="panel p-3">
      <h2 class="heading">Clicks from the start</h2>
      <DepthChart
        bars={data.bars}
        height={150}
        picked={() => false}
        onpick={(depth) => goto(href(depth === null ? 'not reached' : `depth = ${depth}`))}
      />
    </section>

    <section class="panel p-3">
      <h2 class="heading">Sections</h2>
      <table class="mt-1 w-full">
        <thead class="quiet text-xs">
          <tr>
            <th class="text-left font-normal">First folder</th>
            <th class="text-right font-normal">Pages</th>
            <th class="text-right font-normal">Indexable</th>
            <th class="text-right font-normal">Median depth</th>
            <th class="text-right font-normal">No route</th>
          </tr>
        </thead>
        <tbody>
          {#each data.sections as { section, pages: n, indexable, medianDepth, lost } (section)}
            <tr class="border-t border-base-300/60">
              <td class="max-w-0 w-2/5 truncate py-1 font-mono text-[0.8125rem]">
                <a href={href(`section = "${section.replaceAll(/["\\]/g, '\\$&')}"`)} class="hover:underline"
                  >/{section}</a
                >
              </td>
              <td class="tabular text-right">{number(n)}</td>
              <td class="tabular text-right">{number(indexable)}</td>
              <td class="tabular text-right">{number(medianDepth)}</td>
              <td class="tabular text-right {lost ? 'lost' : 'quiet'}">{number(lost)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if data.moreSections}<p class="quiet mt-1">and {number(data.moreSections)} smaller ones</p>{/if}
    </section>

    <div class="space-y-4">
      {#if data.traps.length}
        <section class="panel p-3">
          <h2 class="heading">Addresses that grow without end</h2>
          <table class="mt-1 w-full">
            <thead class="quiet text-xs">
              <tr>
                <th class="text-left font-normal">Family</th>
                <th class="text-right font-normal">Fetched</th>
                <th class="text-right font-normal">Cut off</th>
              </tr>
            </thead>
            <tbody>
              {#each data.traps as { pattern, reason, fetched, cut, examples } (pattern)}
                <tr class="border-t border-base-300/60">
                  <td class="max-w-0 w-3/4 py-1">
                    <span class="block truncate font-mono text-[0.8125rem]" title={pattern}
                      >{shortAddress(pattern, data.site.start)}</span
                    >
                    <span class="quiet block"
                      >A trap: {reason}. For example
                      <a
                        class="font-mono text-xs break-all text-primary hover:underline"
                        href="{base}/reach?page={encodeURIComponent(examples[0])}"
                        >{shortAddress(examples[0], data.site.start)}</a
                      ></span
                    >
                  </td>
                  <td class="tabular text-right align-top">{number(fetched)}</td>
                  <td class="tabular text-right align-top">{number(cut)}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </section>
      {/if}
      <section class="panel p-3">
        <h2 class="heading">Which source knows which URL</h2>
        <table class="mt-1 w-full">
          <thead class="quiet text-xs">
            <tr>
              <th class="text-left font-normal">Source</th>
              <th class="text-right font-normal">Knows</th>
              <th class="text-right font-normal">Only it knows</th>
              <th class="text-right font-normal">No route</th>
            </tr>
          </thead>
          <tbody>
            {#each data.sources as { source, knows, alone, lost } (source)}
              <tr class="border-t border-base-300/60">
                <td class="py-1"><a href={href(`seen in ${source}`)} class="hover:underline">{source}</a></td>
                <td class="tabular text-right">{number(knows)}</td>
                <td class="tabular text-right">{number(alone)}</td>
                <td class="tabular text-right">
                  {#if lost}<a href={href(`seen in ${source} and not reached`)} class="lost hover:underline"
                      >{number(lost)}</a
                    >{:else}<span class="quiet">0</span>{/if}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      </section>

      <section class="panel p-3">
        <h2 class="heading">Files that were read</h2>
        <table class="mt-1 w-full">
          <tbody>
            {#each data.files.robots as { origin, status, fault } (origin)}
              <tr class="border-t border-base-300/60 first:border-0">
                <td class="max-w-0 w-3/5 truncate py-1 font-mono text-[0.8125rem]" title="{origin}/robots.txt"
                  >{shortAddress(`${origin}/robots.txt`, data.site.start)}</td
                >
                <td class="text-right {fault ? 'lost' : ''}"
                  >{fault ?? (status === 200 ? 'read' : `${status}: everything is open`)}</td
                >
              </tr>
            {/each}
            {#each data.files.sitemaps as { address, entries, fault, line, passedOver } (address)}
              <tr class="border-t border-base-300/60 first:border-0">
                <td class="max-w-0 w-3/5 truncate py-1 font-mono text-[0.8125rem]" title={address}
                  >{shortAddress(address, data.site.start)}</td
                >
                <td class="text-right">
                  {#if fault}<span class="lost">{fault}{line ? ` Line ${line}.` : ''}</span>{:else}{number(entries)} entries{/if}
                  {#if passedOver}<span class="quiet">, {number(passedOver)} outside</span>{/if}
                </td>
              </tr>
            {:else}
              <tr><td class="quiet py-1" colspan="2">No sitemap: robots.txt names none, and none was given.</td></tr>
            {/each}
          </tbody>
        </table>
      </section>
    </div>
  </div>
</main>

<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { Found } from '$core/findings';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import FindingTable from '$lib/findings/FindingTable.svelte';
  import IgnoredList from '$lib/findings/IgnoredList.svelte';
  import AnswerSheet from '$lib/rules/AnswerSheet.svelte';
  import Canonicals from '$lib/rules/Canonicals.svelte';
  import Hreflang from '$lib/rules/Hreflang.svelte';
  import PageRules from '$lib/rules/PageRules.svelte';
  import RobotsBench from '$lib/rules/RobotsBench.svelte';
  import { texts } from '$lib/rules/texts';
  import Variants from '$lib/rules/Variants.svelte';
  import Verdicts from '$lib/rules/Verdicts.svelte';
  import type { ListedRows } from '$lib/list/listedRows';
  import { screenState, withState } from '$lib/shell/address';
  import Answer from '$lib/shell/Answer.svelte';
  import Remark from '$lib/shell/Remark.svelte';
  import { crawlPath, findingHref, picturesOf } from '$lib/shell/routes';
  import Workspace from '$lib/shell/Workspace.svelte';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const { start } = $derived(data.site);
  const href = (select: string) => withState(page.url, { list: 'pages', select });
  const itemHref = (item: string) => withState(page.url, { item });
  const pageHref = (address: string) => withState(page.url, { page: address });
  const stateHref = (finding: Found) =>
    finding.over === 'files'
      ? findingHref(base, finding)
      : withState(page.url, { list: finding.over === 'links' ? 'edits' : 'pages', select: finding.select });
</script>

<svelte:head><title>{texts.pageTitle(new URL(start).host)}</title></svelte:head>
{#snippet question(rows: ListedRows)}
  <Answer pieces={data.answer} {href} />
  <Remark {base} crawl={data.crawl} />
  <section class="panel mt-2 shrink-0 px-2 pt-1.5 pb-1" aria-label={texts.picture}>
    <div class="pb-1 text-xs">
      <PictureTabs
        pictures={picturesOf('rules')}
        picture={view.picture}
        onpick={(picture) => goto(withState(page.url, { picture, item: '' }), { keepFocus: true, noScroll: true })}
      />
    </div>
    {#if data.verdicts}
      <div class="flex gap-4 px-2">
        <div class="max-h-66 min-w-0 flex-1 overflow-y-auto"><Verdicts rows={data.verdicts.rows} {href} /></div>
        <div class="max-h-66 w-[46%] shrink-0 overflow-y-auto">
          <h3 class="heading">{data.verdicts.findings.length ? texts.conflicts : texts.noConflicts}</h3>
          {#if data.verdicts.findings.length}
            <FindingTable
              findings={data.verdicts.findings}
              isHere={({ select }) => select !== '' && select === view.select}
              href={stateHref}
              site={data.site.id}
            />
          {/if}
          <IgnoredList site={data.site.id} ignored={data.verdicts.ignored} />
        </div>
      </div>
    {:else if data.robots}
      <div class="px-2">
        <RobotsBench
          robots={data.robots}
          site={data.site.id}
          {base}
          {start}
          {rows}
          item={view.item}
          {itemHref}
          {pageHref}
        />
      </div>
    {:else}
      <div class="max-h-72 overflow-y-auto px-2">
        {#if data.pageRules}<PageRules groups={data.pageRules} {href} />
        {:else if data.canonicals}
          <Canonicals canonicals={data.canonicals} {start} {href} {itemHref} {pageHref} />
        {:else if data.variants}
          <Variants variants={data.variants} site={data.site.id} {start} {href} {pageHref} />
        {:else if data.hreflang}
          <Hreflang hreflang={data.hreflang} item={view.item} {start} {itemHref} {pageHref} />
        {:else if data.sheet}
          <AnswerSheet rows={data.sheet} {base} {start} {href} {pageHref} />
        {/if}
      </div>
    {/if}
  </section>
{/snippet}
<Workspace {base} site={data.site} data={data.list} children={question} />

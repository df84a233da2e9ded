<script lang="ts">
  import { goto } from '$app/navigation';
  import type { CheckedBound } from '$core/watchList';
  import BrokenBounds from '$lib/watchList/BrokenBounds.svelte';
  import { texts as boundTexts } from '$lib/watchList/texts';
  import WatchList from '$lib/watchList/WatchList.svelte';
  import Answer from '$lib/shell/Answer.svelte';
  import KeyPagesDialog from '$lib/shell/KeyPagesDialog.svelte';
  import DepthChart from '$lib/charts/DepthChart.svelte';
  import FindingTable from '$lib/findings/FindingTable.svelte';
  import IgnoredList from '$lib/findings/IgnoredList.svelte';
  import MakeUp from '$lib/charts/MakeUp.svelte';
  import Picture from '$lib/charts/Picture.svelte';
  import Unlinked from '$lib/shell/Unlinked.svelte';
  import Remark from '$lib/shell/Remark.svelte';
  import { crawlPath, findingHref } from '$lib/shell/routes';
  import Explained from '$lib/shell/Explained.svelte';
  import Term from '$lib/shell/Term.svelte';
  import TrapTable from '$lib/charts/TrapTable.svelte';
  import Trend from '$lib/charts/Trend.svelte';
  import VerdictMark from '$lib/list/VerdictMark.svelte';
  import Table from '$lib/table/Table.svelte';
  import { shareText } from '$lib/dossier/dossierFacts';
  import { quote } from '$core/selection/language';
  import { verdicts } from '$core/facts';
  import { sentence, unvisitedText } from '$core/messages';
  import { number, shortAddress, verdictLabel } from '$lib/shell/words';
  import { texts } from './texts';

  let { data } = $props();
  const MOST_FINDINGS = 10;
  let allFindings = $state(false);
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const href = (select: string) => `${base}/reach${select ? `?select=${encodeURIComponent(select)}` : ''}`;
  const pages = $derived(data.verdicts.reduce((sum, { pages }) => sum + pages, 0));
  const host = $derived(new URL(data.site.start).host);
  /** Where what a bound counts is looked at. */
  function boundHref({ over, text }: CheckedBound): string {
    const finding = over === 'finding' ? data.findings.find(({ id }) => id === text) : undefined;
    if (finding) return findingHref(base, finding);
    if (over === 'finding') return `/findings/${text}`;
    return `${base}/reach?${new URLSearchParams({ ...(over === 'links' && { list: 'links' }), select: text })}`;
  }
</script>

<svelte:head><title>{texts.pageTitle(host)}</title></svelte:head>
<main class="min-w-0 flex-1 overflow-y-auto px-5 py-4">
  <Answer pieces={data.answer} {href} />
  {#if data.keyPages.length}<div class="mt-1"><Answer pieces={data.keyPages} {href} small /></div>{/if}
  <div class="flex items-baseline gap-4">
    <div class="flex-1"><Unlinked counts={data.unlinked} {href} /></div>
    <span class="text-xs"><KeyPagesDialog site={data.site.id} start={data.site.start} /></span>
  </div>
  <Remark {base} crawl={data.crawl} warning={data.warning} />
  <BrokenBounds bounds={data.bounds} hrefOf={boundHref} />

  <div class="mt-4 grid grid-cols-2 gap-4">
    <section class="panel p-3">
      <h2 class="heading"><Explained text={texts.whatMayBeIndexed} /></h2>
      <Picture
        name="verdicts"
        table={() => [['verdict', 'pages'], ...data.verdicts.map(({ verdict, pages }) => [verdict, pages])]}
      >
        <div class="pt-2"><MakeUp verdicts={data.verdicts} /></div>
      </Picture>
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
      <h2 class="heading">{texts.clicksFromTheStart}</h2>
      <Picture
        name="depth"
        table={() => [
          ['depth', 'pages', ...verdicts],
          ...data.bars.map(({ depth, pages, byVerdict }) => [depth ?? texts.noRoute, pages, ...byVerdict]),
        ]}
      >
        <DepthChart
          bars={data.bars}
          height={128}
          picked={() => false}
          onpick={(depth) => goto(href(depth === null ? 'not reached' : `depth = ${depth}`))}
        />
      </Picture>
    </section>

    <section class="panel col-span-2 p-3" id="findings">
      <h2 class="heading">{texts.mostCostlyProblems}</h2>
      <FindingTable
        findings={allFindings ? data.findings : data.findings.slice(0, MOST_FINDINGS)}
        href={(finding) => findingHref(base, finding)}
        site={data.site.id}
        why
      />
      {#if data.findings.length > MOST_FINDINGS}
        <button
          type="button"
          class="mt-1 text-primary hover:underline"
          aria-expanded={allFindings}
          onclick={() => (allFindings = !allFindings)}
          >{allFindings ? texts.showTheMostCostly(MOST_FINDINGS) : texts.showAll(number(data.findings.length))}</button
        >
      {/if}
      <IgnoredList site={data.site.id} ignored={data.ignored} />
    </section>

    <section class="panel col-span-2 p-3" id="watch-list">
      <h2 class="heading">{boundTexts.heading}</h2>
      <WatchList site={data.site} bounds={data.bounds} findings={data.watchable} hrefOf={boundHref} />
    </section>

    <div class="space-y-4">
      <section class="panel p-3">
        <h2 class="heading">{texts.sections}</h2>
        {#snippet medianDepthHead()}<Explained text={texts.medianDepth} />{/snippet}
        {#snippet shareHead()}<Term of="share" />{/snippet}
        {#snippet noRouteHead()}<Term of="no_route" />{/snippet}
        <Table
          columns={[
            { label: texts.firstFolder },
            { label: texts.pages, isNumber: true },
            { label: texts.indexable, isNumber: true },
            { label: medianDepthHead, isNumber: true },
            { label: shareHead, isNumber: true },
            { label: noRouteHead, isNumber: true },
          ]}
          rows={data.sections}
          key={({ section }) => section}
        >
          {#snippet row({ section, pages: n, indexable, medianDepth, share, noRoute })}
            <td class="max-w-0 w-2/5 truncate py-1 font-mono text-[0.8125rem]">
              <a href={href(`section = ${quote(section)}`)} class="hover:underline">/{section}</a>
            </td>
            <td class="tabular text-right">{number(n)}</td>
            <td class="tabular text-right">{number(indexable)}</td>
            <td class="tabular text-right">{number(medianDepth)}</td>
            <td class="tabular text-right" title={texts.shareOfAnAveragePage(shareText(n ? share / n : null))}
              >{shareText(share)}</td
            >
            <td class="tabular text-right {noRoute ? 'lost' : 'quiet'}">{number(noRoute)}</td>
          {/snippet}
        </Table>
        {#if data.moreSections}<p class="quiet mt-1">
            {texts.andSmaller(data.moreSections)}
          </p>{/if}
      </section>
      <section class="panel p-3">
        <h2 class="heading">{texts.protocolsAndHosts}</h2>
        <table class="mt-1 w-full">
          <tbody>
            {#each data.origins as { origin, pages: n, indexable } (origin)}
              <tr class="border-t border-base-300/60 first:border-0">
                <td class="max-w-0 w-3/5 truncate py-1 font-mono text-[0.8125rem]"
                  ><a class="hover:underline" href={href(`url starts ${quote(`${origin}/`)}`)}>{origin}</a></td
                >
                <td class="tabular text-right">{number(n)}</td>
                <td class="tabular quiet text-right">{texts.indexablePages(number(indexable))}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </section>
      {#if data.left.length}
        <section class="panel p-3">
          <h2 class="heading">{texts.notCrawledAndWhy}</h2>
          <table class="mt-1 w-full">
            <tbody>
              {#each data.left as { reason, pages: n } (reason)}
                <tr class="border-t border-base-300/60 first:border-0">
                  <td class="py-1">{unvisitedText(reason)}</td>
                  <td class="tabular text-right"
                    ><a class="hover:underline" href={href(`unvisited_reason = ${reason}`)}>{number(n)}</a></td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </section>
      {/if}
      {#if data.traps.length}
        <section class="panel p-3">
          <h2 class="heading"><Explained text={texts.addressesWithoutEnd} /></h2>
          <TrapTable
            traps={data.traps}
            start={data.site.start}
            hrefOf={(address) => `${base}/reach?page=${encodeURIComponent(address)}`}
          />
        </section>
      {/if}
    </div>
    <div class="space-y-4">
      {#if data.trend.length > 1}
        <section class="panel p-3">
          <h2 class="heading">{texts.fromCrawlToCrawl}</h2>
          <Picture
            name="trend"
            table={() => [
              ['crawl', 'known', 'indexable', texts.noRoute, 'findings'],
              ...data.trend.map(({ id, known, indexable, noRoute, findings }) => [
                id,
                known,
                indexable,
                noRoute,
                findings,
              ]),
            ]}
          >
            <Trend
              crawls={data.trend}
              notes={data.notes}
              here={data.crawl.id}
              hrefOf={(id) => `${crawlPath(data.site.id, id)}/overview`}
            />
          </Picture>
        </section>
      {/if}

      <section class="panel p-3">
        <h2 class="heading"><Explained text={texts.whichSourceKnows} /></h2>
        <Table
          columns={[
            { label: texts.source },
            { label: texts.knowsHead, isNumber: true },
            { label: texts.onlyItKnows, isNumber: true },
            { label: texts.noRouteHead, isNumber: true },
          ]}
          rows={data.sources}
          key={({ source }) => source}
        >
          {#snippet row({ source, knows, alone, lost })}
            <td class="py-1"><a href={href(`seen in ${source}`)} class="hover:underline">{source}</a></td>
            <td class="tabular text-right">{number(knows)}</td>
            <td class="tabular text-right">{number(alone)}</td>
            <td class="tabular text-right">
              {#if lost}<a href={href(`seen in ${source} and not reached`)} class="lost hover:underline"
                  >{number(lost)}</a
                >{:else}<span class="quiet">0</span>{/if}
            </td>
          {/snippet}
        </Table>
      </section>

      <section class="panel p-3" id="files">
        <h2 class="heading">{texts.filesThatWereRead}</h2>
        <table class="mt-1 w-full">
          <tbody>
            {#each data.files.robots as { origin, status, fault } (origin)}
              <tr class="border-t border-base-300/60 first:border-0">
                <td class="max-w-0 w-3/5 truncate py-1 font-mono text-[0.8125rem]" title={texts.robotsTxt(origin)}
                  >{shortAddress(`${origin}/robots.txt`, data.site.start)}</td
                >
                <td class="text-right {fault ? 'lost' : ''}"
                  >{fault ? sentence(fault) : status === 200 ? 'read' : texts.everythingIsOpen(status)}</td
                >
              </tr>
            {/each}
            {#each data.files.sitemaps as { address, entries, fault, line, skipped } (address)}
              <tr class="border-t border-base-300/60 first:border-0">
                <td class="max-w-0 w-3/5 truncate py-1 font-mono text-[0.8125rem]" title={address}
                  >{shortAddress(address, data.site.start)}</td
                >
                <td class="text-right">
                  {#if fault}<span class="lost">{sentence(fault)}{line ? texts.inLine(line) : ''}</span
                    >{:else}{texts.entries(entries)}{/if}
                  {#if skipped}<span class="quiet">{texts.outside(number(skipped))}</span>{/if}
                </td>
              </tr>
            {:else}
              <tr><td class="quiet py-1" colspan="2">{texts.noSitemapRobotsTxtNamesNone}</td></tr>
            {/each}
          </tbody>
        </table>
        {#if data.faults.length}
          <h3 class="heading mt-3">{texts.problemsInTheseFiles}</h3>
          <ul class="text-xs">
            {#each data.faults.slice(0, 40) as { name, file, line, evidence }, i (i)}
              <li class="border-t border-base-300/60 py-1 first:border-0">
                <span class="lost">{name}</span>{line ? texts.atLine(line) : ''}
                <span class="quiet block truncate font-mono" title={sentence(evidence)}
                  >{shortAddress(file, data.site.start)}: {sentence(evidence)}</span
                >
              </li>
            {/each}
          </ul>
          {#if data.faults.length > 40}<p class="quiet">{texts.andMore(number(data.faults.length - 40))}</p>{/if}
        {/if}
      </section>
    </div>
  </div>
</main>

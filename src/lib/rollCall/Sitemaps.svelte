<!-- The sitemaps that were read, how reading each ended, and where they disagree with what may be indexed. -->
<script lang="ts">
  import type { SitemapRow } from '$core/answers';
  import type { LiveCheck } from '$core/liveChecks';
  import { ruleText, sentence } from '$core/messages';
  import type { Message } from '$core/messages';
  import { LISTED } from '$core/sitemap';
  import { number, shortAddress } from '../shell/words';
  import LiveSitemap from './LiveSitemap.svelte';
  import Table from '../table/Table.svelte';
  import { texts } from './texts';

  interface Props {
    files: (SitemapRow & { check: LiveCheck<'sitemap'> | null })[];
    site: number;
    faults: { name: string; file: string; line: number | null; evidence: Message }[];
    href: (select: string) => string;
    /** Where the crawl is, and where it started. */
    base: string;
    start: string;
  }
  let { files, site, faults, href, base, start }: Props = $props();
  const MOST = 100;
</script>

{#if files.length === 0}
  <p class="quiet py-2">{texts.noSitemap}</p>
{:else}
  <p class="py-1 text-xs">
    <a class="text-primary hover:underline" href={href('seen in sitemap and not indexable')}
      >{texts.listedNotIndexable}</a
    >
    ·
    <a class="text-primary hover:underline" href={href('indexable and not seen in sitemap')}
      >{texts.indexableNotListed}</a
    >
  </p>
  <Table
    columns={[
      { label: texts.sitemap },
      { label: texts.foundAt, isApart: true },
      { label: texts.entries, isNumber: true },
      { label: texts.outside, isNumber: true },
      { label: texts.outcome, isApart: true },
    ]}
    rows={files}
    key={({ address }) => address}
    rowClass="align-top"
  >
    {#snippet row({ address, found, foundLine, index, level, entries, skipped, fault, advice, ...file })}
      <td class="max-w-0 w-1/4 truncate py-0.5 font-mono text-xs" style:padding-left="{level * 14}px" title={address}
        >{shortAddress(address, start)}</td
      >
      <td class="max-w-40 truncate py-0.5 pl-4 text-xs" title={index ? texts.inIndex(index) : undefined}
        >{index ? texts.inIndex(shortAddress(index, start)) : texts.origins[found]}{foundLine
          ? texts.originLine(foundLine)
          : ''}</td
      >
      <td class="tabular text-right">{number(entries)}</td>
      <td class="tabular text-right {skipped ? 'lost' : 'quiet'}">{number(skipped)}</td>
      <td class="pl-4">
        <span class={fault ? 'lost' : ''}
          >{fault ? sentence(fault) : file.isFeed ? texts.feed : texts.read}{file.faultLine
            ? texts.inLine(file.faultLine)
            : ''}</span
        >
        {#if advice}<span class="quiet block text-xs"
            >{texts.oddities(file.answer, file.closedBy && ruleText(file.closedBy), advice)}{texts.advice[advice]}</span
          >{/if}
        <span class="block"><LiveSitemap {site} {address} check={file.check} /></span>
      </td>
    {/snippet}
  </Table>
{/if}
{#if faults.length}
  <h3 class="heading mt-3">{texts.problems}</h3>
  <ul class="text-xs">
    {#each faults.slice(0, MOST) as { name, file, line, evidence }, i (i)}
      <li class="border-t border-base-300/60 py-1">
        <span class="lost">{name}</span>{line ? texts.line(line) : ''}
        <span class="quiet block truncate font-mono" title={sentence(evidence)}>{file}: {sentence(evidence)}</span>
      </li>
    {/each}
  </ul>
  {#if faults.length > MOST}<p class="quiet text-xs">{texts.andMore(faults.length - MOST)}</p>{/if}
{/if}
<p class="mt-2 pb-1 text-xs">
  <a class="text-primary hover:underline" href="{base}/sitemap" title={texts.writeSitemapMeans} download
    >{texts.writeSitemap}</a
  >
  {#if files.length}
    · <a class="text-primary hover:underline" href="{base}/sitemap?difference" title={texts.differenceMeans} download
      >{texts.difference}</a
    >
    · <a class="text-primary hover:underline" href={href(`${LISTED} and not seen in sitemap`)}>{texts.wouldCome}</a>
    · <a class="text-primary hover:underline" href={href(`seen in sitemap and not (${LISTED})`)}>{texts.wouldGo}</a>
  {/if}
  <span class="quiet block">{texts.checkAtTerminal}</span>
</p>

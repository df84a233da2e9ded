<!-- One page under several addresses: the ways of writing the host, the groups that the crawl has met, and live checks. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { Verdict } from '$core/facts';
  import type { LiveCheck } from '$core/liveChecks';
  import { sentence } from '$core/messages';
  import type { HostVariant, VariantKind } from '$core/rules';
  import { checkLive } from '../liveChecks/liveCheck';
  import VerdictMark from '../list/VerdictMark.svelte';
  import Table from '../table/Table.svelte';
  import { number, shortAddress, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  interface Row {
    address: string;
    verdict: Verdict;
    status: number | null;
    leadsTo: string;
    linked: boolean;
    listed: boolean;
  }
  interface Props {
    variants: {
      hosts: HostVariant[];
      total: number;
      groups: { kinds: VariantKind[]; settles: string | null; rows: Row[] }[];
      /** Addresses whose other variants can be asked for, and what was found of them. */
      sample: string[];
      checks: Record<string, LiveCheck<'variants'>>;
    };
    site: number;
    start: string;
    href: (select: string) => string;
    pageHref: (address: string) => string;
  }
  let { variants, site, start, href, pageHref }: Props = $props();

  /** How many pages have been checked; null while nobody asks. */
  let done = $state<number | null>(null);
  let asking = new AbortController();
  $effect(() => () => asking.abort());

  async function ask() {
    asking = new AbortController();
    done = 0;
    for (const address of variants.sample) {
      if (asking.signal.aborted || !(await checkLive(site, 'variants', address, asking.signal))) break;
      done++;
    }
    done = null;
    await invalidateAll();
  }
  const checked = $derived(variants.sample.flatMap((address) => variants.checks[address] ?? []));
</script>

<Table
  columns={[
    { label: texts.host },
    { label: texts.known, isNumber: true },
    { label: texts.linked, isNumber: true },
    { label: texts.listed, isNumber: true },
    { label: texts.canonical, isNumber: true, means: texts.canonicalMeans },
    { label: texts.indexable, isNumber: true },
    { label: texts.redirecting, isNumber: true },
    { label: texts.homePage, isApart: true },
  ]}
  rows={variants.hosts}
  key={({ origin }) => origin}
>
  {#snippet row({ origin, isStart, home, ...counts })}
    <td class="py-0.5 font-mono text-xs"
      ><a class="hover:underline" href={href(`url starts "${origin}/"`)}>{origin}</a>
      {#if isStart}<span class="badge badge-ghost badge-xs ml-1 font-sans">{texts.theStart}</span>{/if}</td
    >
    <td class="tabular text-right">{number(counts.pages)}</td>
    <td class="tabular text-right">{number(counts.linked)}</td>
    <td class="tabular text-right">{number(counts.listed)}</td>
    <td class="tabular text-right">{number(counts.canonical)}</td>
    <td class="tabular text-right {!isStart && counts.indexable ? 'lost' : ''}">{number(counts.indexable)}</td>
    <td class="tabular text-right">{number(counts.redirecting)}</td>
    <td class="pl-4 text-xs"
      >{#if home}<span class="inline-flex items-center gap-1"
          ><VerdictMark verdict={home.verdict} size={11} />{verdictLabel[home.verdict]}{home.leadsTo === `${origin}/`
            ? ''
            : `, ${texts.leadsTo(home.leadsTo)}`}</span
        >{:else}<span class="quiet">{texts.notCrawled}</span>{/if}</td
    >
  {/snippet}
</Table>
<p class="flex flex-wrap items-baseline gap-x-3 pt-2 text-xs">
  {#if done === null}
    <button type="button" class="text-primary hover:underline" title={texts.askLiveMeans} onclick={ask}
      >{texts.askLive(variants.sample.length)}</button
    >
  {:else}
    <span role="status">{texts.asking(done, variants.sample.length)}</span>
    <button type="button" class="text-primary hover:underline" onclick={() => asking.abort()}>{texts.stop}</button>
  {/if}
</p>
{#if checked.length}
  <h3 class="heading mt-2">{texts.liveResults}</h3>
  <ul class="text-xs">
    {#each checked as { address, result, fault } (address)}
      <li class="border-t border-base-300/60 py-0.5">
        <a class="font-mono hover:underline" href={pageHref(address)}>{shortAddress(address, start)}</a>
        {#if fault}<span class="lost">{sentence(fault)}</span>{/if}
        <ul class="pl-4">
          {#each result ?? [] as one (one.kind)}
            <li>
              <span class="quiet">{texts.variantKinds[one.kind]}:</span>
              {#if one.fault}{sentence(one.fault)}
              {:else if one.leadsTo !== null}<span class={one.leadsTo === address ? '' : 'lost'}
                  >{texts.liveSettles(shortAddress(one.leadsTo, start))}</span
                >
              {:else if one.status === 200}<span class="lost">{texts.liveStands(200)}</span>
              {:else}{texts.liveStatus(one.status ?? 0)}{/if}
            </li>
          {/each}
        </ul>
      </li>
    {/each}
  </ul>
{/if}
<h3 class="heading mt-2">{variants.total ? texts.groups(variants.total) : texts.noGroups}</h3>
<ul class="text-xs">
  {#each variants.groups as { kinds, settles, rows } (rows[0].address)}
    <li class="border-t border-base-300/60 py-1">
      <span class={settles === null ? 'lost' : ''}
        >{texts.differIn(kinds)}: {settles === null
          ? texts.settlesOnNone
          : texts.settlesOn(shortAddress(settles, start))}</span
      >
      <ul class="pl-4">
        {#each rows as { address, verdict, status, leadsTo, linked, listed } (address)}
          <li class="flex items-center gap-2">
            <VerdictMark {verdict} size={11} />
            <a class="min-w-0 truncate font-mono hover:underline" title={address} href={pageHref(address)}
              >{shortAddress(address, start)}</a
            >
            <span class="quiet whitespace-nowrap"
              >{status ?? '—'}{leadsTo === address ? '' : `, ${texts.leadsTo(shortAddress(leadsTo, start))}`}{linked
                ? `, ${texts.linked.toLowerCase()}`
                : ''}{listed ? `, ${texts.listed.toLowerCase()}` : ''}</span
            >
          </li>
        {/each}
      </ul>
    </li>
  {/each}
</ul>
{#if variants.total > variants.groups.length}
  <p class="quiet text-xs">{texts.andMoreGroups(variants.total - variants.groups.length)}</p>
{/if}

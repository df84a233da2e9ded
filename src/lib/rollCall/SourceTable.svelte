<!-- The sources of a crawl: which of them the picture compares, what each knows, and what of its file was left out. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { say } from '../shell/say.svelte';
  import Moment from '../shell/Moment.svelte';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Source {
    name: string;
    urls: number;
    alone: number;
    isChosen: boolean;
    from: { id: number; kind: 'list' | 'log'; lines: number; rejected: number; createdAt: Date } | null;
  }
  interface Props {
    site: number;
    sources: Source[];
    /** Crawls that can be made a source. */
    earlier: { id: number; name: string }[];
    onchoose: (names: string[]) => void;
    onimport: () => void;
  }
  let { site, sources, earlier, onchoose, onimport }: Props = $props();
  const chosen = $derived(sources.filter(({ isChosen }) => isChosen).map(({ name }) => name));

  const toggle = (name: string, isChosen: boolean) =>
    onchoose(sources.map((one) => one.name).filter((one) => (one === name ? !isChosen : chosen.includes(one))));

  async function takeCrawl(id: string) {
    const response = await fetch(`/sites/${site}/imports?crawl=${id}`, { method: 'POST' }).catch(() => null);
    const answer = (await response?.json().catch(() => null)) as { name?: string; message?: string } | null;
    if (!response?.ok || !answer?.name) return say(answer?.message ?? texts.crawlNotTaken, true);
    await invalidateAll();
    say(texts.crawlTaken(answer.name));
  }

  async function remove(id: number, name: string) {
    const response = await fetch(`/sites/${site}/imports?id=${id}`, { method: 'DELETE' }).catch(() => null);
    if (!response?.ok) return say(texts.couldNotBeRemoved, true);
    await invalidateAll();
    say(texts.isRemoved(name));
  }
</script>

<section class="panel max-h-88 w-76 shrink-0 overflow-y-auto p-3" aria-label={texts.sources}>
  <h2 class="heading">{texts.sources}</h2>
  <table class="mt-1 w-full">
    <thead class="quiet text-xs">
      <tr>
        <th colspan="2"></th>
        <th class="text-right font-normal">{texts.addresses}</th>
        <th class="text-right font-normal whitespace-nowrap" title={texts.onlyHereMeans}>{texts.onlyHere}</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      {#each sources as { name, urls, alone, isChosen, from } (name)}
        {@const label = texts.sourceLabel(name)}
        <tr class="border-t border-base-300/60 align-top">
          <td class="py-1"
            ><input
              type="checkbox"
              class="checkbox checkbox-xs align-middle"
              checked={isChosen}
              disabled={isChosen && chosen.length === 1}
              aria-label={texts.takesPart(label)}
              onchange={() => toggle(name, isChosen)}
            /></td
          >
          <td class="max-w-28 py-1 pl-1.5">
            <span class="block truncate" title={label}>{label}</span>
            {#if from}
              <span class="quiet block text-xs">{texts.kinds[from.kind]}, <Moment at={new Date(from.createdAt)} /></span
              >
              {#if from.rejected}
                <a
                  class="quiet block text-xs underline"
                  href="/sites/{site}/imports?id={from.id}"
                  title={texts.downloadThem}
                  download>{texts.rejected(from.rejected, from.lines)}</a
                >
              {/if}
            {/if}
          </td>
          <td class="tabular py-1 text-right">{number(urls)}</td>
          <td class="tabular py-1 text-right {alone ? 'lost' : 'quiet'}">{number(alone)}</td>
          <td class="py-1 pl-1 text-right"
            >{#if from}<button
                type="button"
                class="quiet hover:text-base-content"
                aria-label={texts.remove(label)}
                title={texts.remove(label)}
                onclick={() => remove(from.id, label)}>✕</button
              >{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <button type="button" class="btn btn-primary btn-sm mt-3" onclick={onimport}>{texts.importAFile}</button>
  <p class="quiet mt-1.5 text-xs">{texts.dropAFile}</p>
  {#if earlier.length}
    <select
      class="select select-xs mt-2 w-full"
      aria-label={texts.earlierCrawl}
      title={texts.earlierCrawlMeans}
      onchange={({ currentTarget }) => {
        const { value } = currentTarget;
        currentTarget.value = '';
        if (value) void takeCrawl(value);
      }}
    >
      <option value="">{texts.earlierCrawl}</option>
      {#each earlier as { id, name } (id)}<option value={id}>{name}</option>{/each}
    </select>
  {/if}
</section>

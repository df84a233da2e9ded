<!-- Words in the texts of all pages, each page with the sentence in which they stand. -->
<script lang="ts">
  import type { Snippet } from '$core/textIndex';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    search: {
      words: string;
      without: string;
      select: string;
      total: number;
      fault: string;
      isUnknown: boolean;
      hits: ({ address: string; title: string | null; depth: number | null } & Snippet)[];
    };
    start: string;
    isIndexed: boolean;
    hrefOf: (page: string) => string;
    hrefOfList: (select: string) => string;
    onfind: (words: string, without: string) => void;
    onsource: (page: string, line: number) => void;
    onmore: () => void;
  }
  let { search, start, isIndexed, hrefOf, hrefOfList, onfind, onsource, onmore }: Props = $props();
  let form: HTMLFormElement | undefined = $state();
  function find() {
    const asked = new FormData(form);
    onfind(String(asked.get('words')), String(asked.get('without')));
  }
</script>

<section class="panel col-span-2 flex min-h-0 min-w-0 flex-col" aria-label={texts.title}>
  <form
    bind:this={form}
    class="flex flex-wrap items-center gap-2 border-b border-base-300 px-3 py-2 text-xs"
    onsubmit={(event) => {
      event.preventDefault();
      find();
    }}
  >
    <!-- svelte-ignore a11y_autofocus -->
    <input
      class="input input-sm w-64 font-serif"
      name="words"
      type="search"
      autofocus
      required
      dir="auto"
      placeholder={texts.words}
      aria-label={texts.words}
      value={search.words}
    />
    <label class="flex min-w-0 flex-1 items-center gap-2"
      >{texts.without}
      <input
        class="input input-sm min-w-40 flex-1 font-mono"
        name="without"
        placeholder={texts.withoutExample}
        value={search.without}
      /></label
    >
    <button class="btn btn-primary btn-sm" disabled={!isIndexed}>{texts.find}</button>
  </form>
  {#if search.fault || search.isUnknown}
    <p class="lost px-3 py-2 text-xs" role="alert">{search.fault || texts.unknown}</p>
  {:else if search.words && isIndexed}
    <p class="flex gap-3 border-b border-base-300 px-3 py-1.5 text-xs" role="status">
      <span class="flex-1">{texts.found(search.total)}</span>
      <a class="text-primary hover:underline" href={hrefOfList(search.select)}>{texts.asList}</a>
    </p>
  {:else}
    <p class="quiet px-3 py-3 text-xs">{texts.about}</p>
  {/if}
  <ul class="min-h-0 flex-1 overflow-y-auto">
    {#each search.hits as { address, title, depth, place, before, words, after } (address)}
      <li class="border-b border-base-300/70 px-3 py-2">
        <p class="flex items-baseline gap-3 text-xs">
          <span class="min-w-0 flex-1 truncate"
            ><a class="font-mono hover:underline" href={hrefOf(address)} title={address}
              >{shortAddress(address, start)}</a
            >
            <span class="quiet">{title ?? ''} · {depth === null ? texts.noRoute : texts.depth(depth)}</span></span
          >
          {#if place}
            <button type="button" class="text-primary hover:underline" onclick={() => onsource(address, place.line)}
              >{texts.line(place.line)}</button
            >
          {/if}
        </p>
        <p class="mt-0.5 font-serif text-[15px] leading-snug break-words" dir="auto">
          {before}<mark class="rounded-xs bg-primary/20 text-inherit">{words}</mark>{after}
        </p>
      </li>
    {/each}
    {#if search.hits.length < search.total && search.hits.length > 0}
      <li class="px-3 py-2 text-xs">
        <button type="button" class="text-primary hover:underline" onclick={onmore}
          >{texts.more(number(search.total - search.hits.length))}</button
        >
      </li>
    {/if}
  </ul>
</section>

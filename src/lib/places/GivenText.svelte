<!-- A text that is not on the site yet: what it mentions, and the same text with the links that were chosen. -->
<script lang="ts">
  import type { PlaceRow } from '$core/places';
  import { say } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import { shortAddress } from '../shell/words';
  import { keyOf, proposed, roomOf, sentenceOf } from './places';
  import type { Range } from './range';
  import Sentence from './Sentence.svelte';
  import { texts } from './texts';

  let { base, start, hrefOf }: { base: string; start: string; hrefOf: (page: string) => string } = $props();

  interface Answer {
    html: string;
    places: PlaceRow[];
  }
  let text = $state('');
  let busy = $state(false);
  let answer = $state.raw<Answer | null>(null);
  let taken = $state.raw<Record<string, boolean>>({});
  let chosen = $state.raw<Record<string, Range>>({});
  const rangeOf = (one: PlaceRow): Range => chosen[keyOf(one)] ?? proposed(one);

  async function find() {
    busy = true;
    answer = await send<Answer>(`${base}/places`, 'POST', { text });
    taken = {};
    chosen = {};
    busy = false;
  }
  async function copy({ html, places }: Answer) {
    const links = places
      .filter((one) => taken[keyOf(one)])
      .map((one) => {
        const sentence = sentenceOf(one);
        return { target: one.target.address, anchor: sentence.slice(...rangeOf(one)), sentence: sentence.trim() };
      });
    const linked = await send<Answer>(`${base}/places`, 'POST', { text: html, links });
    if (!linked) return;
    const isCopied = await navigator.clipboard.writeText(linked.html).then(
      () => true,
      () => false,
    );
    say(isCopied ? texts.given.copied(links.length) : texts.given.notCopied, !isCopied);
  }
</script>

<section class="panel flex min-h-0 flex-col">
  <form
    class="flex min-h-0 flex-1 flex-col gap-2 p-3"
    onsubmit={(event) => {
      event.preventDefault();
      void find();
    }}
  >
    <label class="text-sm font-semibold" for="given">{texts.given.label}</label>
    <p class="quiet text-xs">{texts.given.about}</p>
    <textarea
      id="given"
      dir="auto"
      class="textarea min-h-40 w-full flex-1 font-serif text-[15px] leading-snug"
      bind:value={text}></textarea>
    <div><button class="btn btn-primary btn-xs" disabled={busy || text.trim() === ''}>{texts.given.find}</button></div>
  </form>
</section>
<section class="panel flex min-h-0 min-w-0 flex-col" aria-live="polite">
  {#if answer}
    {@const { html, places } = answer}
    <header class="flex items-center gap-3 border-b border-base-300 px-3 py-2 text-xs">
      <h2 class="flex-1 text-sm font-semibold">{texts.given.found(places.length)}</h2>
      <button
        type="button"
        class="btn btn-xs"
        disabled={!Object.values(taken).includes(true)}
        onclick={() => copy({ html, places })}>{texts.given.copy}</button
      >
    </header>
    <ul class="min-h-0 flex-1 overflow-y-auto">
      {#each places as one (keyOf(one))}
        {@const key = keyOf(one)}
        <li class="flex gap-2 border-b border-base-300/70 px-3 py-2">
          <input
            type="checkbox"
            class="checkbox checkbox-xs mt-1"
            aria-label={texts.given.linkTo(one.target.title || one.target.address)}
            checked={taken[key] ?? false}
            onchange={({ currentTarget }) => (taken = { ...taken, [key]: currentTarget.checked })}
          />
          <div class="min-w-0 flex-1">
            <p class="truncate text-xs">
              → <a class="font-mono hover:underline" href={hrefOf(one.target.address)}
                >{shortAddress(one.target.address, start)}</a
              >
              <span class="quiet">{one.target.title ?? ''}</span>
            </p>
            <Sentence
              text={sentenceOf(one)}
              range={rangeOf(one)}
              room={roomOf(one)}
              onchoose={(range) => (chosen = { ...chosen, [key]: range })}
            />
          </div>
        </li>
      {:else}
        <li class="quiet px-3 py-3">{texts.given.none}</li>
      {/each}
    </ul>
  {:else}
    <p class="quiet px-3 py-3">{busy ? texts.finding : texts.given.empty}</p>
  {/if}
</section>

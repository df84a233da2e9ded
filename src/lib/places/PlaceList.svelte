<!--
  Sentences that could link to a page, or those of a page that could link to others: taken, dismissed, and their words
  chosen, by key or by hand.
-->
<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { editOf } from '$core/draft/edit';
  import type { PlaceRow } from '$core/places';
  import { addEdits, removeEdits } from '../draft/draft';
  import type { DraftPlace } from '../draft/draft';
  import { sayUndoable } from '../shell/say.svelte';
  import { answerOf, send } from '../shell/send';
  import { number, shortAddress } from '../shell/words';
  import { keyOf, narrowedTo, proposed, roomOf, sentenceOf, valuesOf } from './places';
  import { moved, wholePhrase } from './range';
  import type { Range } from './range';
  import Sentence from './Sentence.svelte';
  import { texts } from './texts';

  interface Answer {
    before: (number | null)[];
    after: (number | null)[] | null;
    code: boolean;
    dismissed: number;
    more: boolean;
    places: PlaceRow[];
  }
  interface Props {
    base: string;
    site: { id: number; start: string };
    place: DraftPlace | null;
    /** The page that links lead to, or that they stand on. */
    page: { address: string; title: string | null };
    direction: 'to' | 'from';
    hrefOf: (page: string) => string;
    /** Where words are looked for by hand on pages without a link to a page. */
    hrefOfSearch: (words: string, without: string) => string;
    /** Opens the source of a page at a line, beside the list. */
    onsource: (page: string, line: number) => void;
    /** The next page. */
    onnext: () => Promise<void>;
  }
  let { base, site, place, page, direction, hrefOf, hrefOfSearch, onsource, onnext }: Props = $props();

  const UNDO_SECONDS = 8;
  const SIZE = 40;
  /** A paragraph with more links than this is crowded. */
  const MANY_LINKS = 3;
  const LEAST = [0.15, 0.2, 0.3, 0.4, 0.5];
  const LIKENESS = [0, 0.1, 0.2, 0.3, 0.5];
  const anything = () => ({ section: '', language: '', likeness: 0, contains: '' });
  let answer = $state.raw<Answer | null>(null);
  let busy = $state(false);
  /** As the settings of the site say, while nobody says otherwise. */
  let inCode = $state<boolean | null>(null);
  let linkedToo = $state(false);
  let least = $state(LEAST[0]);
  let size = $state(SIZE);
  let narrowing = $state(anything());
  let current = $state(0);
  /** Words that a person has chosen, by place. */
  let chosen = $state.raw<Record<string, Range>>({});
  let box: HTMLElement | undefined = $state();
  /** Whether the next page has been asked for by key: keys go on there. */
  let isByKey = false;

  const asked = $derived(`${direction} ${page.address}`);
  $effect(() => {
    void asked;
    untrack(begin);
  });
  function begin() {
    answer = null;
    current = 0;
    chosen = {};
    size = SIZE;
    narrowing = anything();
    const goesOn = isByKey;
    isByKey = false;
    void read().then(() => (goesOn ? focus(0) : undefined));
  }

  async function read() {
    const now = asked;
    busy = true;
    const query = new URLSearchParams({ [direction]: page.address, linked: String(linkedToo) });
    for (const [name, value] of Object.entries({ code: inCode, least, size }))
      if (value !== null) query.set(name, String(value));
    const found = await answerOf<Answer>(fetch(`${base}/places?${query}`), texts.failed);
    if (now !== asked) return;
    busy = false;
    if (found) answer = found;
  }

  /** What a person has done to places and the server has not answered yet. */
  type Doing = 'taken' | 'free' | 'gone';
  let doing = $state.raw<Record<string, Doing>>({});
  let sending: Promise<unknown> = Promise.resolve();
  const isTaken = (one: PlaceRow) => (doing[keyOf(one)] ?? (one.taken ? 'taken' : 'free')) === 'taken';

  const places = $derived((answer?.places ?? []).filter((one) => doing[keyOf(one)] !== 'gone'));
  const shown = $derived(narrowedTo(places, narrowing));
  const rangeOf = (one: PlaceRow): Range => chosen[keyOf(one)] ?? proposed(one);
  const choose = (one: PlaceRow, range: Range) => (chosen = { ...chosen, [keyOf(one)]: range });
  const filters = $derived([
    { of: 'section' as const, label: texts.section, all: texts.allSections },
    { of: 'language' as const, label: texts.language, all: texts.allLanguages },
  ]);

  async function focus(index: number) {
    current = Math.max(0, Math.min(shown.length - 1, index));
    await tick();
    (box?.querySelectorAll<HTMLElement>('[data-place]')[current] ?? box)?.focus();
  }
  /** Does something, after all that came before it, while the person goes on with the next place. */
  function inTurn(one: PlaceRow, state: Doing, act: () => Promise<unknown>) {
    doing = { ...doing, [keyOf(one)]: state };
    const own = (sending = sending.then(act).finally(async () => {
      if (own !== sending) return;
      await read();
      if (own === sending) doing = {};
    }));
  }
  function take(one: PlaceRow) {
    if (!place || isTaken(one)) return;
    const text = sentenceOf(one);
    const edit = editOf('add_link', one.source, {
      target: one.target.address,
      anchor: text.slice(...rangeOf(one)),
      placement: 'main',
      value: text.trim(),
    });
    inTurn(one, 'taken', () => addEdits(place, [edit]));
    return focus(current + 1);
  }
  function takeBack(one: PlaceRow) {
    inTurn(one, 'free', async () => {
      if (!one.taken) await read();
      const taken = answer?.places.find((now) => keyOf(now) === keyOf(one))?.taken;
      if (place && taken) await removeEdits(place, [taken]);
    });
  }
  function dismiss(one: PlaceRow) {
    const dismissal = { kind: 'place', what: one.source, target: one.target.address };
    const switched = (dismissed: boolean) => send(`/sites/${site.id}/dismissals`, 'POST', { ...dismissal, dismissed });
    inTurn(one, 'gone', async () => {
      if (await switched(true)) sayUndoable(texts.dismissedPlace, UNDO_SECONDS, () => void switched(false).then(read));
    });
    return focus(current);
  }
  const change = (one: PlaceRow, end: 'from' | 'to', step: 1 | -1) =>
    choose(one, moved(sentenceOf(one), rangeOf(one), end, step, roomOf(one)));
  const toPhrase = (one: PlaceRow) =>
    choose(one, wholePhrase(sentenceOf(one), rangeOf(one), roomOf(one), one.target.title ?? ''));
  const showMore = () => {
    size += SIZE;
    void read();
  };

  function goOn() {
    isByKey = true;
    // What is read anew after a change would take the way to another page back.
    void sending.then(onnext).finally(() => (isByKey = false));
  }

  function onkeydown(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    if (event.ctrlKey || event.metaKey || event.altKey || isByKey) return;
    const one = target.matches('[data-place]') ? shown[current] : undefined;
    const end = event.shiftKey ? 'from' : 'to';
    const ofPlace = one && {
      ArrowDown: () => focus(current + 1),
      ArrowUp: () => focus(current - 1),
      Enter: () => (isTaken(one) ? takeBack(one) : take(one)),
      d: () => dismiss(one),
      p: () => toPhrase(one),
      s: () => onsource(one.source, one.line),
      ArrowRight: () => change(one, end, 1),
      ArrowLeft: () => change(one, end, -1),
    };
    const ofPage = (one ?? target === box) ? { n: goOn } : {};
    const done = ({ ...ofPlace, ...ofPage } as Record<string, () => unknown>)[event.key];
    if (!done) return;
    event.preventDefault();
    event.stopPropagation();
    void done();
  }
  const share = (value: number) => value.toFixed(value < 0.1 ? 3 : 2);
  const values = (of: (number | null)[]) => [
    of[0] === null ? '—' : number(of[0]),
    of[1] === null ? '—' : number(of[1]),
    of[2] === null ? '—' : `${of[2].toFixed(2)}×`,
  ];
  const facts = [texts.facts.linking, texts.facts.depth, texts.facts.share];
  const quietLink = 'text-primary hover:underline';
  const choice = 'rounded border border-base-300 bg-base-100 px-1 leading-6';
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<section
  bind:this={box}
  class="panel flex min-h-0 min-w-0 flex-col"
  aria-label={texts.places(places.length, direction)}
  tabindex="-1"
  {onkeydown}
>
  <header class="border-b border-base-300 px-3 py-2 text-xs">
    <h2 class="truncate text-sm">
      {answer ? texts.places(shown.length, direction) : ''}
      <a class="font-semibold hover:underline" href={hrefOf(page.address)}>{page.title || page.address}</a>
    </h2>
    <div class="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1">
      <input
        class="input input-xs w-28"
        type="search"
        placeholder={texts.contains}
        aria-label={texts.contains}
        bind:value={narrowing.contains}
      />
      {#each filters as { of, label, all } (of)}
        {#if valuesOf(places, of).length > 1}
          <select class={choice} aria-label={label} bind:value={narrowing[of]}>
            <option value="">{all}</option>
            {#each valuesOf(places, of) as one (one)}<option value={one}>{one}</option>{/each}
          </select>
        {/if}
      {/each}
      <label class="flex items-center gap-1" title={texts.leastMeans}
        >{texts.least}
        <select class={choice} bind:value={least} onchange={() => read()}>
          {#each LEAST as one (one)}<option value={one}>{one}</option>{/each}
        </select></label
      >
      <label class="flex items-center gap-1" title={texts.likenessMeans}
        >{texts.likeness}
        <select class={choice} bind:value={narrowing.likeness}>
          {#each LIKENESS as one (one)}<option value={one}>{one || texts.any}</option>{/each}
        </select></label
      >
      <label class="flex items-center gap-1" title={texts.inCodeMeans}
        ><input
          type="checkbox"
          class="checkbox checkbox-xs"
          checked={inCode ?? answer?.code ?? false}
          onchange={({ currentTarget }) => ((inCode = currentTarget.checked), read())}
        />{texts.inCode}</label
      >
      <label class="flex items-center gap-1" title={texts.linkedTooMeans}
        ><input
          type="checkbox"
          class="checkbox checkbox-xs"
          bind:checked={linkedToo}
          onchange={() => read()}
        />{texts.linkedToo}</label
      >
      {#if direction === 'to' && page.title}
        <a class={quietLink} href={hrefOfSearch(page.title, page.address)}>{texts.find}</a>
      {/if}
    </div>
  </header>
  {#if answer && direction === 'to'}
    <dl class="tabular flex flex-wrap gap-x-5 gap-y-1 border-b border-base-300 px-3 py-1.5 text-xs" aria-live="polite">
      {#each facts as name, i (name)}
        <div class="flex gap-1.5">
          <dt class="quiet">{name}</dt>
          <dd>
            {values(answer.before)[i]}{#if answer.after && values(answer.after)[i] !== values(answer.before)[i]}<span
                class="ml-1">→ <b>{values(answer.after)[i]}</b></span
              >{/if}
          </dd>
        </div>
      {/each}
    </dl>
  {/if}
  <div class="min-h-0 flex-1 overflow-y-auto">
    {#if !answer}
      <p class="quiet px-3 py-3" role="status">{busy ? texts.finding : texts.failed}</p>
    {:else if places.length === 0}
      <p class="quiet px-3 py-3">
        {texts.none[direction]}
        {#if answer.dismissed}{texts.dismissed(answer.dismissed)}{/if}
      </p>
    {:else}
      <ul>
        {#each shown as one, i (keyOf(one))}
          <li
            class="border-b border-base-300/70 px-3 py-2 {i === current
              ? 'border-l-3 border-l-primary bg-base-200/60'
              : ''}"
          >
            <div class="flex items-baseline gap-3 text-xs">
              <span class="min-w-0 flex-1 truncate">
                {#if direction === 'to'}
                  <span class="font-mono" title={one.source}>{shortAddress(one.source, site.start)}</span>
                {:else}
                  → <span class="font-mono" title={one.target.address}
                    >{shortAddress(one.target.address, site.start)}</span
                  >
                  {one.target.title ?? ''}
                {/if}
                <span class="quiet"
                  >· {texts.line(one.line)}{direction === 'from' || one.depth === null
                    ? ''
                    : ` · ${texts.depth(one.depth)}`} · {texts.gives(share(one.shareGain))}</span
                >
              </span>
              {#if isTaken(one)}<span class="font-semibold text-primary">{texts.taken}</span>{/if}
            </div>
            <div
              class="mt-0.5 rounded-sm"
              data-place
              role="button"
              tabindex={i === current ? 0 : -1}
              aria-pressed={isTaken(one)}
              title={texts.why(texts.by[one.from], one.score.toFixed(2), one.relatedness.toFixed(2))}
              onfocus={() => (current = i)}
            >
              <Sentence
                text={sentenceOf(one)}
                range={rangeOf(one)}
                room={roomOf(one)}
                onchoose={(range) => choose(one, range)}
              />
            </div>
            {#if one.clash || (!isTaken(one) && one.links >= MANY_LINKS)}
              <p class="lost mt-0.5 text-xs">
                {one.clash ? texts.clash(shortAddress(one.clash, site.start)) : texts.crowded(one.links)}
              </p>
            {/if}
            {#if i === current}
              <div class="mt-1 flex flex-wrap items-baseline gap-x-3 gap-y-0.5 text-xs">
                {#if isTaken(one)}
                  <button type="button" class={quietLink} onclick={() => takeBack(one)}>{texts.takeBack}</button>
                {:else}
                  <button type="button" class={quietLink} disabled={!place} onclick={() => take(one)}
                    >{texts.take}</button
                  >
                  <button type="button" class={quietLink} onclick={() => dismiss(one)}>{texts.dismiss}</button>
                  <button type="button" class={quietLink} onclick={() => change(one, 'to', 1)}>{texts.widen}</button>
                  <button type="button" class={quietLink} onclick={() => change(one, 'to', -1)}>{texts.narrow}</button>
                  <button type="button" class={quietLink} onclick={() => toPhrase(one)}>{texts.phrase}</button>
                {/if}
                <button type="button" class={quietLink} onclick={() => onsource(one.source, one.line)}
                  >{texts.source}</button
                >
                {#if one.others.length}
                  <span class="quiet min-w-0 truncate"
                    >{texts.couldMean}
                    {#each one.others as other, j (other.address)}{j ? ', ' : ''}<a
                        class="underline"
                        href={hrefOf(other.address)}
                        title={other.title ?? ''}>{shortAddress(other.address, site.start)}</a
                      >{/each}</span
                  >
                {/if}
              </div>
            {/if}
          </li>
        {/each}
      </ul>
      <p class="quiet px-3 py-2 text-xs">
        {#if answer.more}<button type="button" class={quietLink} onclick={showMore}>{texts.more}</button>
        {:else}{texts.noFurther}{/if}
        {#if answer.dismissed}{texts.dismissed(answer.dismissed)}{/if}
      </p>
    {/if}
  </div>
  <footer class="quiet border-t border-base-300 px-3 py-1 text-xs">{texts.keys}</footer>
</section>

<!-- The selection as text: what pictures and findings write, and a person can change. -->
<script lang="ts">
  import { tick } from 'svelte';
  import {
    completeSelection,
    keywords,
    linkCatalogue,
    pageCatalogue,
    parseLinkSelection,
    parseSelection,
    tokenize,
  } from '$core/selection/language';
  import type { Offer, SelectionFault } from '$core/selection/language';
  import { recentSelections, rememberSelection } from './recent';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    /** What it is about. */
    over: 'pages' | 'links';
    select: string;
    /** Why the selection that is shown cannot be read. */
    fault: SelectionFault | null;
    total: number;
    /** What is counted: `pages`, `one-edit groups`. */
    noun: string;
    /** Where rows are counted and values are asked for. */
    base: string;
    site: number;
    onselect: (select: string) => void;
  }
  let { over, select, fault, total, noun, base, site, onselect }: Props = $props();

  // What is typed is the person's until it is sent; a picture that writes a selection replaces it.
  let typed = $derived(select);
  let input: HTMLInputElement;
  let layer: HTMLDivElement;
  let offers = $state.raw<Offer[]>([]);
  let from = $state(0);
  let chosen = $state(-1);
  /** How many rows the text holds that is being typed, or why that cannot be found out. */
  let counted = $state.raw<{ text: string; total: number; fault: SelectionFault | null } | null>(null);
  let values = $state.raw<{ fact: string; begins: string; list: string[] }>({ fact: '', begins: '', list: [] });

  const catalogue = $derived(over === 'pages' ? pageCatalogue : linkCatalogue);
  const parsed = $derived(over === 'pages' ? parseSelection(typed) : parseLinkSelection(typed));
  const changed = $derived(typed.trim() !== select.trim());
  const refused = $derived(counted?.text === typed.trim() ? counted.fault : null);
  const shownFault = $derived(changed ? (parsed.ok ? refused : parsed.fault) : fault);
  /** While words are still being written a fault at their end is none yet. */
  const unfinished = $derived(
    changed && !refused && shownFault !== null && shownFault.at + shownFault.length >= typed.trimEnd().length,
  );
  const pieces = $derived(colours(typed, shownFault && !unfinished ? shownFault : null));

  // Within a selection of links, steps speak of pages.
  const isKnown = (word: string) =>
    [catalogue, pageCatalogue].some(({ facts, words }) => Object.hasOwn(facts, word) || words.has(word));
  /** The text in runs of one colour each. */
  function colours(text: string, wrong: SelectionFault | null) {
    const runs: { text: string; as: string }[] = [];
    let at = 0;
    const push = (to: number, as: string) => {
      if (to > at)
        runs.push({
          text: text.slice(at, to),
          as: wrong && at >= wrong.at && at < wrong.at + Math.max(1, wrong.length) ? 'wrong' : as,
        });
      at = Math.max(at, to);
    };
    try {
      for (const token of tokenize(text)) {
        push(token.at, '');
        const as =
          token.kind === 'word'
            ? keywords.has(token.value)
              ? 'join'
              : isKnown(token.value)
                ? 'fact'
                : ''
            : token.kind;
        push(token.at + token.length, as);
      }
    } catch {
      push(wrong?.at ?? text.length, '');
    }
    push(text.length, wrong ? 'wrong' : '');
    return runs;
  }

  function complete() {
    const cursor = input.selectionStart ?? typed.length;
    let wants = '';
    const found = completeSelection(
      typed,
      cursor,
      (fact) => {
        wants = fact;
        return values.fact === fact ? values.list : [];
      },
      catalogue,
    );
    const begun = typed.slice(found.from, cursor);
    // A word that is complete needs no offer of itself.
    offers = found.offers.filter(({ text }) => text !== begun).slice(0, 40);
    from = found.from;
    chosen = -1;
    const begins = begun.startsWith('"') ? begun.slice(1) : '';
    if (wants && (values.fact !== wants || !begins.startsWith(values.begins) || values.list.length >= 60))
      void askValues(wants, begins);
  }
  async function askValues(fact: string, begins: string) {
    if (over !== 'pages' || (values.fact === fact && values.begins === begins)) return;
    const response = await fetch(`${base}/values?fact=${fact}&begins=${encodeURIComponent(begins)}`);
    if (!response.ok) return;
    values = { fact, begins, list: (await response.json()) as string[] };
    if (document.activeElement === input) complete();
  }
  async function take(offer: Offer) {
    const cursor = input.selectionStart ?? typed.length;
    const after = typed.slice(cursor);
    const spaced = /[(]$/.test(offer.text) || after.startsWith(' ') ? offer.text : `${offer.text} `;
    const place = from + spaced.length;
    typed = typed.slice(0, from) + spaced + after;
    await tick();
    input.focus();
    input.setSelectionRange(place, place);
    complete();
  }

  let timer: ReturnType<typeof setTimeout>;
  function oninput() {
    complete();
    clearTimeout(timer);
    const text = typed.trim();
    if (!parsed.ok || text === select.trim()) return;
    timer = setTimeout(async () => {
      const query = new URLSearchParams({ list: over, select: text, size: '0' });
      const response = await fetch(`${base}/rows?${query}`);
      if (typed.trim() !== text || !(response.ok || response.status === 400)) return;
      const { total, fault } = (await response.json()) as { total: number; fault: SelectionFault | null };
      counted = { text, total, fault };
    }, 150);
  }
  function send() {
    offers = [];
    rememberSelection(site, over, typed);
    onselect(typed.trim());
  }
  function onkeydown(event: KeyboardEvent) {
    const { key } = event;
    if (key === 'Escape') {
      if (offers.length) offers = [];
      else typed = select;
    } else if ((key === 'ArrowDown' || key === 'ArrowUp') && offers.length) {
      chosen = (chosen + (key === 'ArrowDown' ? 1 : -1) + offers.length + 1) % (offers.length + 1);
      if (chosen === offers.length) chosen = -1;
      document.getElementById(`offer-${chosen}`)?.scrollIntoView({ block: 'nearest' });
    } else if (key === 'ArrowDown') complete();
    else if ((key === 'Enter' || key === 'Tab') && chosen >= 0 && offers[chosen]) void take(offers[chosen]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  const tally = $derived.by(() => {
    if (shownFault) return '—';
    if (!changed) return `${number(total)} ${noun}`;
    return counted?.text === typed.trim() ? texts.pressEnter(number(counted.total), over) : '…';
  });
  const recent = $derived(offers.length && !typed.trim() ? recentSelections(site, over).slice(0, 6) : []);
</script>

<form
  class="relative flex min-w-0 flex-1 items-center gap-2"
  onsubmit={(event) => {
    event.preventDefault();
    send();
  }}
>
  <label for="selection" class="sr-only">{texts.selectionOf(over)}</label>
  <div class="relative min-w-0 flex-1">
    <div bind:this={layer} class="layer pointer-events-none absolute inset-0 overflow-hidden" aria-hidden="true">
      {#each pieces as { text, as }, i (i)}<span class={as}>{text}</span
        >{/each}{#if shownFault && !unfinished && shownFault.at >= typed.length}<span class="wrong">&nbsp;▲</span>{/if}
    </div>
    <input
      bind:this={input}
      id="selection"
      data-key="s"
      bind:value={typed}
      spellcheck="false"
      autocomplete="off"
      role="combobox"
      aria-expanded={offers.length > 0}
      aria-controls="offers"
      aria-activedescendant={chosen >= 0 ? `offer-${chosen}` : undefined}
      aria-autocomplete="list"
      placeholder={over === 'pages'
        ? texts.allPagesWriteASelectionSuch
        : 'All links. Write a selection, such as kind = click and to (broken)'}
      class="relative w-full bg-transparent"
      aria-invalid={shownFault !== null && !unfinished}
      aria-describedby={shownFault && !unfinished ? 'selection-fault' : undefined}
      {oninput}
      onscroll={() => (layer.scrollLeft = input.scrollLeft)}
      onfocus={complete}
      onclick={complete}
      onblur={() => (offers = [])}
      {onkeydown}
    />
    {#if offers.length || recent.length}
      <ul
        id="offers"
        role="listbox"
        aria-label={texts.suggestions}
        class="panel absolute top-full left-0 z-30 mt-1 max-h-64 w-96 max-w-full overflow-y-auto py-1 shadow-lg"
      >
        {#each offers as offer, i (offer.text)}
          <li
            id="offer-{i}"
            role="option"
            aria-selected={i === chosen}
            class="flex cursor-pointer gap-3 px-3 py-0.5 {i === chosen
              ? 'bg-primary text-primary-content'
              : 'hover:bg-base-200'}"
            onpointerdown={(event) => {
              event.preventDefault();
              void take(offer);
            }}
          >
            <span class="flex-1 truncate font-mono text-[0.8125rem]">{offer.text}</span>
            <span class="truncate text-xs {i === chosen ? '' : 'quiet'}">{offer.about}</span>
          </li>
        {/each}
        {#each recent as text (text)}
          <li
            role="option"
            aria-selected="false"
            class="flex cursor-pointer gap-3 border-t border-base-300/60 px-3 py-0.5 hover:bg-base-200"
            onpointerdown={(event) => {
              event.preventDefault();
              typed = text;
              send();
            }}
          >
            <span class="flex-1 truncate font-mono text-[0.8125rem]">{text}</span>
            <span class="quiet text-xs">{texts.recent}</span>
          </li>
        {/each}
      </ul>
    {/if}
  </div>
  <span class="tabular text-right font-semibold whitespace-nowrap" aria-live="polite">
    {tally}
  </span>
</form>
{#if shownFault && !unfinished}
  <p
    id="selection-fault"
    class="lost absolute top-full left-0 z-20 w-full border-y border-base-300 bg-base-100 px-3 py-1 text-xs"
    role="alert"
  >
    {shownFault.message}{changed ? '' : texts.nothingIsSelectedUntil}
  </p>
{/if}

<style>
  .layer,
  input {
    font-family: var(--font-mono);
    font-size: 0.8125rem;
    line-height: 1.75rem;
    height: 1.75rem;
    padding: 0 0.25rem;
    white-space: pre;
    border-radius: var(--radius-field);
  }
  /* The layer below shows the colours; of the input only the cursor is seen. */
  input:not(:placeholder-shown) {
    color: transparent;
    caret-color: var(--color-base-content);
  }
  input::placeholder {
    color: var(--quiet);
  }
  input::selection {
    background: color-mix(in oklab, var(--color-primary) 30%, transparent);
  }
  .fact {
    color: var(--color-primary);
    font-weight: 600;
  }
  .join {
    color: var(--v-canonicalised);
  }
  .text,
  .number {
    color: var(--lost);
  }
  .wrong {
    color: var(--color-error);
    text-decoration: underline wavy;
    text-underline-offset: 3px;
  }
</style>

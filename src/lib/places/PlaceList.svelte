<!-- Sentences of other pages that could link to a page: taken, dismissed, and their words chosen, by key or by hand. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { editOf } from '$core/draft/edit';
  import type { PhraseSource } from '$core/places';
  import { addEdits, removeEdits } from '../draft/draft';
  import type { DraftPlace } from '../draft/draft';
  import { sayUndoable } from '../shell/say.svelte';
  import { answerOf, send } from '../shell/send';
  import { number, shortAddress } from '../shell/words';
  import { moved, wholeWords } from './range';
  import type { Range } from './range';
  import { texts } from './texts';

  interface Found {
    source: string;
    line: number;
    column: number;
    before: string;
    anchor: string;
    after: string;
    room: [number, number];
    depth: number | null;
    section: string | null;
    /** The edit of the draft that adds this link. */
    taken: string | null;
    from: PhraseSource;
    relatedness: number;
    shareGain: number;
    others: { address: string; title: string | null }[];
  }
  interface Answer {
    before: (number | null)[];
    after: (number | null)[] | null;
    dismissed: number;
    places: Found[];
  }
  interface Props {
    base: string;
    site: { id: number; start: string };
    place: DraftPlace | null;
    target: { address: string; title: string | null };
    hrefOf: (page: string, at?: string) => string;
    /** The next page that needs links. */
    onnext: () => void;
  }
  let { base, site, place, target, hrefOf, onnext }: Props = $props();

  const UNDO_SECONDS = 8;
  let answer = $state.raw<Answer | null>(null);
  let busy = $state(false);
  let inCode = $state(false);
  let contains = $state('');
  let section = $state('');
  let current = $state(0);
  /** Words that a person has chosen, by source. */
  let chosen = $state.raw<Record<string, Range>>({});
  let list: HTMLUListElement | undefined = $state();

  $effect(() => {
    void target.address;
    answer = null;
    current = 0;
    chosen = {};
    section = '';
    void read();
  });

  async function read() {
    const asked = target.address;
    busy = true;
    const query = new URLSearchParams({ to: asked, code: String(inCode) });
    const found = await answerOf<Answer>(fetch(`${base}/places?${query}`), texts.failed);
    if (asked !== target.address) return;
    busy = false;
    if (found) answer = found;
  }

  const whole = ({ before, anchor, after }: Found) => before + anchor + after;
  const rangeOf = (one: Found): Range =>
    chosen[one.source] ?? [one.before.length, one.before.length + one.anchor.length];
  const roomOf = ({ before, anchor, room }: Found): Range => [
    before.length - room[0],
    before.length + anchor.length + room[1],
  ];
  const sections = $derived([...new Set((answer?.places ?? []).map((one) => one.section ?? ''))].sort());
  const shown = $derived(
    (answer?.places ?? []).filter(
      (one) =>
        (section === '' || one.section === section) &&
        (contains === '' || `${one.source} ${whole(one)}`.toLowerCase().includes(contains.toLowerCase())),
    ),
  );

  async function focus(index: number) {
    current = Math.max(0, Math.min(shown.length - 1, index));
    await tick();
    list?.querySelectorAll<HTMLElement>('[data-place]')[current]?.focus();
  }
  async function take(one: Found) {
    if (!place || one.taken) return;
    const [from, to] = rangeOf(one);
    const text = whole(one);
    const edit = editOf('add_link', one.source, {
      target: target.address,
      anchor: text.slice(from, to),
      placement: 'main',
      value: text.trim(),
    });
    if (!(await addEdits(place, [edit]))) return;
    await read();
    await focus(current + 1);
  }
  async function takeBack(one: Found) {
    if (!place || !one.taken) return;
    await removeEdits(place, [one.taken]);
    await read();
    await focus(current);
  }
  async function dismiss(one: Found) {
    const dismissal = { kind: 'place', what: one.source, target: target.address };
    const switched = (dismissed: boolean) => send(`/sites/${site.id}/dismissals`, 'POST', { ...dismissal, dismissed });
    if (!(await switched(true))) return;
    sayUndoable(texts.dismissedPlace, UNDO_SECONDS, () => void switched(false).then(read));
    await read();
    await focus(current);
  }
  const change = (one: Found, end: 'from' | 'to', step: 1 | -1) => {
    chosen = { ...chosen, [one.source]: moved(whole(one), rangeOf(one), end, step, roomOf(one)) };
  };
  /** Words over which a person has dragged. */
  function choose(one: Found, event: MouseEvent) {
    const selection = getSelection();
    const box = event.currentTarget as HTMLElement;
    if (!selection || selection.isCollapsed || !box.contains(selection.anchorNode)) return;
    const range = selection.getRangeAt(0);
    const before = document.createRange();
    before.selectNodeContents(box);
    before.setEnd(range.startContainer, range.startOffset);
    const from = before.toString().length;
    const words = wholeWords(whole(one), [from, from + range.toString().length], roomOf(one));
    if (words) chosen = { ...chosen, [one.source]: words };
    selection.removeAllRanges();
  }

  function onkeydown(event: KeyboardEvent) {
    const one = shown[current];
    if (!one || event.ctrlKey || event.metaKey || event.altKey) return;
    const end = event.shiftKey ? 'from' : 'to';
    const done = {
      ArrowDown: () => focus(current + 1),
      ArrowUp: () => focus(current - 1),
      Enter: () => take(one),
      d: () => dismiss(one),
      ArrowRight: () => change(one, end, 1),
      ArrowLeft: () => change(one, end, -1),
      n: onnext,
    }[event.key];
    if (!done || (event.key === 'Enter' && !(event.target as HTMLElement).matches('[data-place]'))) return;
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
</script>

<section class="panel flex min-h-0 min-w-0 flex-col" aria-label={texts.places(answer?.places.length ?? 0)}>
  <header class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-3 py-2 text-xs">
    <h2 class="min-w-0 flex-1 truncate text-sm">
      {answer ? texts.places(shown.length) : ''}
      <a class="font-semibold hover:underline" href={hrefOf(target.address)}>{target.title || target.address}</a>
    </h2>
    <label class="flex items-center gap-1" title={texts.inCodeMeans}
      ><input
        type="checkbox"
        class="checkbox checkbox-xs"
        bind:checked={inCode}
        onchange={() => read()}
      />{texts.inCode}</label
    >
    <select
      class="rounded border border-base-300 bg-base-100 px-1 leading-6"
      aria-label={texts.section}
      bind:value={section}
    >
      <option value="">{texts.allSections}</option>
      {#each sections as one (one)}<option value={one}>{one}</option>{/each}
    </select>
    <input
      class="input input-xs w-32"
      type="search"
      placeholder={texts.contains}
      aria-label={texts.contains}
      bind:value={contains}
    />
  </header>
  {#if answer}
    <dl class="tabular flex flex-wrap gap-x-5 gap-y-1 border-b border-base-300 px-3 py-1.5 text-xs" aria-live="polite">
      {#each facts as name, i (name)}
        <div class="flex gap-1.5">
          <dt class="quiet">{name}</dt>
          <dd>
            {values(answer.before)[i]}{#if answer.after}<span class="ml-1">→ <b>{values(answer.after)[i]}</b></span
              >{/if}
          </dd>
        </div>
      {/each}
    </dl>
  {/if}
  <div class="min-h-0 flex-1 overflow-y-auto">
    {#if !answer}
      <p class="quiet px-3 py-3" role="status">{busy ? texts.finding : texts.failed}</p>
    {:else if answer.places.length === 0}
      <p class="quiet px-3 py-3">
        {texts.none}
        {#if answer.dismissed}{texts.dismissed(answer.dismissed)}{/if}
      </p>
    {:else}
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
      <ul bind:this={list} {onkeydown}>
        {#each shown as one, i (one.source)}
          {@const [from, to] = rangeOf(one)}
          {@const text = whole(one)}
          <li
            class="border-b border-base-300/70 px-3 py-2 {i === current
              ? 'border-l-3 border-l-primary bg-base-200/60'
              : ''}"
          >
            <div class="flex items-baseline gap-3 text-xs">
              <span class="min-w-0 flex-1 truncate">
                <span class="font-mono" title={one.source}>{shortAddress(one.source, site.start)}</span>
                <span class="quiet"
                  >· {texts.line(one.line)}{one.depth === null ? '' : ` · ${texts.depth(one.depth)}`} · {texts.gives(
                    share(one.shareGain),
                  )}</span
                >
              </span>
              {#if one.taken}<span class="font-semibold text-primary">{texts.taken}</span>{/if}
            </div>
            <div
              class="mt-0.5 rounded-sm font-serif text-[15px] leading-snug break-words"
              data-place
              role="button"
              tabindex={i === current ? 0 : -1}
              aria-pressed={one.taken !== null}
              title={texts.why(texts.by[one.from], one.relatedness.toFixed(2))}
              onfocus={() => (current = i)}
              onmouseup={(event) => choose(one, event)}
            >
              {text.slice(0, from)}<mark class="rounded-xs bg-primary/20 text-inherit underline decoration-primary"
                >{text.slice(from, to)}</mark
              >{text.slice(to)}
            </div>
            {#if i === current}
              <div class="mt-1 flex flex-wrap items-baseline gap-x-3 gap-y-0.5 text-xs">
                {#if one.taken}
                  <button type="button" class={quietLink} onclick={() => takeBack(one)}>{texts.takeBack}</button>
                {:else}
                  <button type="button" class={quietLink} disabled={!place} onclick={() => take(one)}
                    >{texts.take}</button
                  >
                  <button type="button" class={quietLink} onclick={() => dismiss(one)}>{texts.dismiss}</button>
                  <button type="button" class={quietLink} onclick={() => change(one, 'to', 1)}>{texts.widen}</button>
                  <button type="button" class={quietLink} onclick={() => change(one, 'to', -1)}>{texts.narrow}</button>
                {/if}
                <a class={quietLink} href={hrefOf(one.source, `${one.line}:${one.column}`)}>{texts.edit}</a>
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
        {texts.noFurther}
        {#if answer.dismissed}{texts.dismissed(answer.dismissed)}{/if}
      </p>
    {/if}
  </div>
  <footer class="quiet border-t border-base-300 px-3 py-1 text-xs">{texts.keys}</footer>
</section>

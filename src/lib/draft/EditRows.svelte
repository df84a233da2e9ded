<!-- The edits of a draft: switched on and off, annotated, removed; each with what has become of it. -->
<script lang="ts">
  import type { Outcome } from '$core/draft';
  import Moment from '../shell/Moment.svelte';
  import { shortAddress } from '../shell/words';
  import { noteEdit, removeEdits, switchEdits } from './draft';
  import type { DraftPlace } from './draft';
  import { texts } from './texts';

  interface Row {
    id: string;
    source: string;
    text: string;
    note: string;
    at: Date;
    on: boolean;
    /** Why it cannot be made. */
    refusal: string | null;
    /** What has become of it on the website, and what is there instead; null before anybody looked. */
    outcome: { state: Outcome['state']; found: string | null } | null;
  }
  let { rows, place, start }: { rows: Row[]; place: DraftPlace; start: string } = $props();
  const colours: Record<Outcome['state'], string> = {
    live: 'calm text-primary',
    not_yet: 'quiet',
    otherwise: 'lost',
    unknown: 'quiet',
  };
  let noting = $state<string | null>(null);
  let note = $state('');
  const begin = (row: Row) => ([noting, note] = [row.id, row.note]);
  async function keep(row: Row) {
    if (await noteEdit(place, row.id, note.trim())) noting = null;
  }
  /** Addresses of the site are shown without its origin. */
  const shorten = (text: string) =>
    text.replaceAll(/https?:\/\/[^\s”]+[^\s”.]/g, (address) => shortAddress(address, start));
</script>

<ul class="text-xs">
  {#each rows as row (row.id)}
    <li class="flex items-start gap-2 border-t border-base-300/60 py-1.5 first:border-0">
      <input
        type="checkbox"
        class="checkbox checkbox-xs mt-0.5"
        checked={row.on}
        aria-label={texts.isOn(row.text)}
        onchange={() => switchEdits(place, [row.id], !row.on)}
      />
      <div class="min-w-0 flex-1">
        <div class="flex items-baseline gap-2">
          <span
            class="min-w-0 flex-1 truncate {row.source === '*' ? '' : 'font-mono'} {row.on ? '' : 'opacity-60'}"
            title={row.source}>{row.source === '*' ? texts.allPages : shortAddress(row.source, start)}</span
          >
          <span class="quiet whitespace-nowrap"><Moment at={row.at} /></span>
          <button type="button" class="text-primary hover:underline" onclick={() => begin(row)}>{texts.note}</button>
          <button type="button" class="text-primary hover:underline" onclick={() => removeEdits(place, [row.id])}
            >{texts.remove}</button
          >
        </div>
        <span class="block wrap-anywhere {row.on ? '' : 'opacity-60'}">{shorten(row.text)}</span>
        {#if row.outcome}
          <span class="block {colours[row.outcome.state]}"
            >{texts.outcomes[row.outcome.state]}{row.outcome.found ? `: ${shorten(row.outcome.found)}` : ''}</span
          >
        {/if}
        {#if row.refusal}<span class="lost block" role="alert">{row.refusal}</span>{/if}
        {#if noting === row.id}
          <form
            class="mt-1 flex gap-1.5"
            onsubmit={(event) => {
              event.preventDefault();
              void keep(row);
            }}
          >
            <input class="input input-xs flex-1" bind:value={note} maxlength="2000" aria-label={texts.noteOf} />
            <button class="btn btn-secondary btn-xs">{texts.save}</button>
          </form>
        {:else if row.note}<span class="quiet block italic">{row.note}</span>{/if}
      </div>
    </li>
  {/each}
</ul>

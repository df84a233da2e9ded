<!-- The drafts of a site: which is the current one, and new ones. -->
<script lang="ts">
  import Menu from '../shell/Menu.svelte';
  import { changeDraft } from './draft';
  import type { DraftPlace } from './draft';
  import { crawlPath } from '../shell/routes';
  import { draftName, texts } from './texts';

  let { drafts, place }: { drafts: { id: number; name: string }[]; place: DraftPlace } = $props();
  let name = $derived(place.draft.name);
  const change = (body: object) => changeDraft(place, body);
  const link = 'text-primary hover:underline';
</script>

<Menu label={place.draft.id ? draftName(place.draft) : texts.drafts}>
  {#snippet children(close)}
    <div class="grid w-80 gap-1 text-xs">
      {#if place.draft.id}
        <form
          class="flex gap-1.5 p-1"
          onsubmit={(event) => {
            event.preventDefault();
            void change({ do: 'name', id: place.draft.id, name }).then(close);
          }}
        >
          <input
            bind:value={name}
            maxlength="80"
            class="input input-xs flex-1"
            aria-label={texts.name}
            placeholder={texts.name}
          />
          <button class="btn btn-secondary btn-xs">{texts.rename}</button>
        </form>
      {/if}
      {#each drafts as one (one.id)}
        <div class="flex items-center gap-2 rounded px-2 py-1 hover:bg-base-200">
          <button
            type="button"
            class="min-w-0 flex-1 truncate text-left"
            onclick={() => void change({ do: 'use', id: one.id }).then(close)}>{draftName(one)}</button
          >
          {#if one.id === place.draft.id}<span class="quiet">{texts.current}</span>
          {:else}<a
              class={link}
              title={texts.compareTitle}
              href="{crawlPath(place.site.id, place.crawl.id, 'drafted')}/change?since=draft-{one.id}"
              >{texts.compareWith}</a
            >{/if}
          <button
            type="button"
            class={link}
            onclick={() => void change({ do: 'add', name: '', copyOf: one.id }).then(close)}>{texts.copy}</button
          >
          <button type="button" class={link} onclick={() => void change({ do: 'delete', id: one.id }).then(close)}
            >{texts.delete}</button
          >
        </div>
      {/each}
      <button
        type="button"
        class="rounded px-2 py-1 text-left text-primary hover:bg-base-200"
        onclick={() => void change({ do: 'add', name: '', copyOf: null }).then(close)}>{texts.newDraft}</button
      >
    </div>
  {/snippet}
</Menu>

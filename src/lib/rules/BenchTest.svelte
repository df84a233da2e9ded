<!-- Addresses that are tested against a draft, and rules that close them. -->
<script lang="ts">
  import { explainRobots, parseRobots } from '$core/robots';
  import type { ComposedRule } from '$core/robots';
  import { identify } from '$core/url';
  import { say } from '../shell/say.svelte';
  import { benchTexts as texts } from './benchTexts';

  interface Props {
    draft: string;
    token: string;
    /** Scheme and host that the draft is for. */
    host: string;
    base: string;
    /** The selection below. */
    select: string;
    oncompose: (picked: string[]) => Promise<ComposedRule[]>;
    /** Adds rules that close these paths to the draft. */
    onadd: (paths: string[]) => void;
  }
  let { draft, token, host, base, select, oncompose, onadd }: Props = $props();
  let given = $state('');
  let composed = $state.raw<ComposedRule[] | null>(null);

  const rulesOf = $derived(parseRobots(draft));
  const tested = $derived(
    given
      .split(/\s+/)
      .filter(Boolean)
      .slice(0, 200)
      .map((text) => ({ text, address: identify(text, `${host}/`)?.address ?? null })),
  );
  const explained = $derived(
    tested.map(({ text, address }) => ({ text, address, found: address && explainRobots(rulesOf, token, address) })),
  );

  async function takeSelected() {
    const query = new URLSearchParams({ list: 'pages', select, columns: 'url', format: 'tsv' });
    const response = await fetch(`${base}/export?${query}`).catch(() => null);
    if (!response?.ok) return say(texts.notTaken, true);
    const rows = (await response.text()).split('\n').slice(1).filter(Boolean);
    given = rows.slice(0, 200).join('\n');
    if (rows.length > 200) say(texts.tookFirst(200, rows.length));
  }
  async function compose() {
    composed = await oncompose(tested.flatMap(({ address }) => address ?? []));
  }
</script>

<textarea
  class="textarea textarea-xs h-18 w-full font-mono"
  aria-label={texts.addresses}
  placeholder={texts.addresses}
  bind:value={given}></textarea>
<p class="flex flex-wrap gap-x-3 py-0.5">
  <button type="button" class="text-primary hover:underline" title={texts.takeSelectedMeans} onclick={takeSelected}
    >{texts.takeSelected}</button
  >
  <button type="button" class="text-primary hover:underline" disabled={tested.length === 0} onclick={compose}
    >{texts.compose}</button
  >
</p>
{#if composed}
  <div class="rounded border border-base-300 p-1.5">
    {#if composed.length === 0}<p class="quiet">{texts.nothingToCompose}</p>
    {:else}
      {#each composed as { path, closes, alsoCloses } (path)}
        <p>
          <span class="font-mono">{texts.disallow(path)}</span>
          <span class="quiet">{texts.composedCloses(closes, alsoCloses.length)}</span>
        </p>
      {/each}
      <button
        type="button"
        class="text-primary hover:underline"
        onclick={() => onadd(composed!.map(({ path }) => path))}>{texts.addToDraft}</button
      >
    {/if}
  </div>
{/if}
<ul>
  {#each explained as { text, address, found }, i (i)}
    <li class="border-t border-base-300/60 py-0.5">
      <span class="block truncate font-mono" title={text}>{text}</span>
      {#if !found || !address}<span class="lost">{texts.noAddress}</span>
      {:else}
        <span class={found.allowed ? 'text-primary' : 'lost'}>{found.allowed ? texts.open : texts.closed}</span>
        <span>{texts.why(found)}</span>
        {#if found.matching.length > 1}
          <span class="quiet block">{texts.alsoMatch(found.matching.slice(1).map(({ rule }) => rule.line))}</span>
        {/if}
      {/if}
    </li>
  {/each}
</ul>

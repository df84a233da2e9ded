<!-- Addresses that are tested against a draft, and rules that close them. -->
<script lang="ts">
  import { explainRobots, parseRobots } from '$core/robots';
  import type { RuleChoice } from '$core/robots';
  import { identify } from '$core/url';
  import type { ListedRows } from '../list/listedRows';
  import { say } from '../shell/say.svelte';
  import { benchTexts as texts } from './benchTexts';

  interface Props {
    draft: string;
    token: string;
    /** Scheme and host that the draft is for. */
    host: string;
    /** The rows of the list below. */
    rows: ListedRows;
    oncompose: (picked: string[]) => Promise<RuleChoice[]>;
    /** Adds rules that close these paths to the draft. */
    onadd: (paths: string[]) => void;
  }
  let { draft, token, host, rows, oncompose, onadd }: Props = $props();
  /** As many addresses are tested at once. */
  const MOST = 200;
  let given = $state('');
  let composed = $state.raw<RuleChoice[] | null>(null);

  const rulesOf = $derived(parseRobots(draft));
  const tested = $derived(
    given
      .split(/\s+/)
      .filter(Boolean)
      .slice(0, MOST)
      .map((text) => ({ text, address: identify(text, `${host}/`)?.address ?? null })),
  );
  const explained = $derived(
    tested.map(({ text, address }) => ({ text, address, found: address && explainRobots(rulesOf, token, address) })),
  );

  async function takeRows() {
    try {
      const addresses = await rows.addresses();
      given = addresses.slice(0, MOST).join('\n');
      if (addresses.length > MOST) say(texts.tookFirst(MOST, addresses.length));
      composed = null;
    } catch {
      say(texts.notTaken, true);
    }
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
  <button type="button" class="text-primary hover:underline" title={texts.takeMeans(MOST)} onclick={takeRows}
    >{rows.picked ? texts.takePicked(rows.picked) : texts.takeSelected}</button
  >
  <button type="button" class="text-primary hover:underline" disabled={tested.length === 0} onclick={compose}
    >{texts.compose}</button
  >
</p>
{#if composed}
  {#if composed.length === 0}<p class="quiet">{texts.nothingToCompose}</p>{/if}
  {#each composed as { of, addresses, rules } (of)}
    <div class="mb-1 rounded border border-base-300 p-1.5">
      <p class="font-semibold">{texts.choice[of](addresses)}</p>
      {#each rules as { path, closes, alsoCloses } (path)}
        <p>
          <span class="font-mono">{texts.disallow(path)}</span>
          <span class="quiet">{texts.composedCloses(closes, alsoCloses.length)}</span>
        </p>
      {/each}
      <button type="button" class="text-primary hover:underline" onclick={() => onadd(rules.map(({ path }) => path))}
        >{texts.addToDraft}</button
      >
    </div>
  {/each}
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

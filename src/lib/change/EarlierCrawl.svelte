<!-- Which crawl this one is compared with, and how their pages are paired. -->
<script lang="ts">
  import { pairings, readMapRules } from '$core/compare/pairing';
  import { moment, number } from '../shell/words';
  import { texts } from './texts';

  interface Site {
    id: number;
    name: string;
    host: string;
    isThis: boolean;
    crawls: { id: number; at: Date | null; known: number | null }[];
  }
  interface Props {
    /** This site first. */
    sites: Site[];
    /** That of this site's start. */
    host: string;
    earlier: number | null;
    map: string;
    pair: string;
    onchange: (changes: { since?: string; map?: string; pair?: string }) => void;
  }
  let { sites, host, earlier, map, pair, onchange }: Props = $props();
  let typed = $derived(map.split(/[\s,]+/).join('\n'));
  let by = $derived(pair.split(',').filter(Boolean));
  const fault = $derived(readMapRules(typed).fault);
  let details: HTMLDetailsElement;

  /** A crawl of another site is compared by a rule: the hosts of both sites, until a person has said otherwise. */
  function choose(since: string) {
    const other = sites.find((site) => !site.isThis && site.crawls.some(({ id }) => String(id) === since));
    onchange(other && !map ? { since, map: `${other.host}=${host}` } : { since });
  }
</script>

<div class="flex items-center gap-2 text-xs">
  <label class="flex items-center gap-1"
    ><span class="quiet whitespace-nowrap">{texts.since}</span>
    <select
      class="max-w-64 rounded border border-base-300 bg-base-100 px-1 leading-6"
      value={String(earlier ?? '')}
      onchange={({ currentTarget: { value } }) => choose(value)}
    >
      {#if earlier === null}<option value="">{texts.thePreviousCrawl}</option>{/if}
      {#each sites as { id, name, isThis, crawls } (id)}
        <optgroup label={isThis ? texts.thisSite : texts.otherSite(name)}>
          {#each crawls as crawl (crawl.id)}
            <option value={String(crawl.id)}>{texts.crawlOf(crawl.id, moment(crawl.at), number(crawl.known))}</option>
          {/each}
        </optgroup>
      {/each}
    </select>
  </label>
  <details class="relative" bind:this={details}>
    <summary class="cursor-pointer whitespace-nowrap text-primary hover:underline"
      >{texts.pairing}{map || pair ? ' •' : ''}</summary
    >
    <form
      class="panel absolute right-0 z-30 mt-1 w-96 space-y-2 p-3 shadow-lg"
      aria-label={texts.pairingOf}
      onsubmit={(event) => {
        event.preventDefault();
        if (fault !== null) return;
        details.open = false;
        onchange({
          map: typed
            .trim()
            .split(/[\s,]+/)
            .join(' '),
          pair: by.join(','),
        });
      }}
    >
      <label class="block"
        >{texts.mapLabel}
        <textarea
          class="textarea textarea-sm mt-1 w-full font-mono"
          rows="3"
          bind:value={typed}
          aria-invalid={fault !== null}
          aria-describedby="map-hint"></textarea></label
      >
      <p id="map-hint" class={fault === null ? 'quiet' : 'lost'}>
        {fault === null ? texts.mapHint : texts.mapFault(fault)}
      </p>
      <fieldset class="flex gap-3">
        <legend class="quiet">{texts.pairBy}</legend>
        {#each pairings as name (name)}
          <label class="flex items-center gap-1"
            ><input type="checkbox" class="checkbox checkbox-xs" value={name} bind:group={by} />{texts.pairName(
              name,
            )}</label
          >
        {/each}
      </fieldset>
      <button class="btn btn-secondary btn-sm" disabled={fault !== null}>{texts.apply}</button>
    </form>
  </details>
</div>

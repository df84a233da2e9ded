<!-- The edits of the draft for whoever makes them on the website: page by page, ticked off as one goes. -->
<script lang="ts">
  import type { Block } from '$core/html';
  import { tickEdits } from '$lib/draft/draft';
  import { texts } from '$lib/draft/texts';
  import Answer from '$lib/shell/Answer.svelte';
  import { crawlPath } from '$lib/shell/routes';
  import { say } from '$lib/shell/say.svelte';
  import { shortAddress } from '$lib/shell/words';

  let { data } = $props();
  const place = $derived({ site: data.site, crawl: data.crawl, draft: data.draft });
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const { start } = $derived(data.site);
  let onlyOpen = $state(false);
  const fileHref = (format: string) => `${base}/draft/hand-over/files?format=${format}${onlyOpen ? '&open' : ''}`;
  const link = 'text-primary hover:underline';
  const shown = $derived(data.shown);
  const pages = $derived(
    (shown?.pages ?? [])
      .map((page) => ({ ...page, edits: page.edits.filter(({ done }) => !onlyOpen || !done) }))
      .filter(({ edits }) => edits.length > 0),
  );
  /** Edits of the head, and of links, are what a diff of the HTML can have. */
  const inHtml = /_link$|^(canonical|noindex|index|nofollow|follow)$/;
  const shorten = (text: string) =>
    text.replaceAll(/https?:\/\/[^\s”]+[^\s”.]/g, (address) => shortAddress(address, start));
  const headingOf = (source: string) =>
    source === '*' ? texts.everyPage : source.includes('*') ? texts.pagesOf(shortAddress(source, start)) : null;

  async function copy() {
    const [html, markdown] = ['html', 'markdown'].map((format) =>
      fetch(fileHref(format)).then(async (response) => {
        if (!response.ok) throw new Error(response.statusText);
        return response.text();
      }),
    );
    const blob = async (text: Promise<string>, type: string) => new Blob([await text], { type });
    try {
      await navigator.clipboard.write([
        new ClipboardItem({ 'text/html': blob(html, 'text/html'), 'text/plain': blob(markdown, 'text/plain') }),
      ]);
      say(texts.copied(pages.reduce((sum, { edits }) => sum + edits.length, 0)));
    } catch {
      say(texts.copyFailed, true);
    }
  }
</script>

<svelte:head><title>{texts.handOverTitle(new URL(start).host)}</title></svelte:head>
{#snippet sentence(label: string, { before, words, after }: Block, mark: string)}
  <p class="flex gap-2">
    <span class="quiet w-10 shrink-0">{label}</span>
    <span class="min-w-0 font-serif wrap-anywhere">{before}<mark class="text-inherit {mark}">{words}</mark>{after}</span
    >
  </p>
{/snippet}
<main class="min-w-0 flex-1 overflow-y-auto px-4 pt-3 pb-4">
  <div class="flex items-baseline gap-4">
    <div class="flex-1">
      <Answer
        pieces={[{ text: shown ? texts.handOverAnswer(shown.edits, shown.total, shown.done) : texts.handOverNothing }]}
        href={() => ''}
      />
    </div>
    <a class="text-xs {link}" href="{base}/draft">{texts.backToDraft}</a>
  </div>
  {#if shown}
    <div class="mt-2.5 flex flex-wrap items-center gap-x-3 gap-y-1 text-xs">
      <button type="button" class="btn btn-primary btn-xs" title={texts.copyTitle} onclick={copy}
        >{texts.copyAll}</button
      >
      <label class="flex items-center gap-1"
        ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={onlyOpen} />{texts.onlyOpen}</label
      >
      <b class="ml-4">{texts.asFiles}</b>
      {#each ['markdown', 'csv', 'diff', 'edits'] as const as format (format)}
        <a class={link} href={fileHref(format)} download>{texts.files[format]}</a>
      {/each}
      {#if shown.redirects}
        {#each ['redirects', 'nginx', 'apache'] as const as format (format)}
          <a class={link} href={fileHref(format)} download>{texts.files[format]}</a>
        {/each}
      {/if}
      {#each shown.robots as origin (origin)}
        <a class={link} href="{fileHref('robots')}&of={encodeURIComponent(origin)}" download
          >{texts.files.robots}{shown.robots.length > 1 ? ` (${new URL(origin).host})` : ''}</a
        >
      {/each}
      <a class={link} href="{base}/sitemap?select={encodeURIComponent('indexable and reached')}" download
        >{texts.sitemap}</a
      >
    </div>
    <div class="mt-3 grid gap-2.5">
      {#each pages as page (page.source)}
        {@const heading = headingOf(page.source)}
        <section class="panel px-3 py-2 text-xs">
          <h2 class="flex items-baseline gap-3 font-semibold">
            {#if heading}
              <span class="min-w-0 truncate">{heading}</span>
              {#if page.example}<span class="quiet truncate font-normal"
                  >{texts.asOn} <span class="font-mono">{shortAddress(page.example, start)}</span></span
                >{/if}
            {:else}
              <a
                class="min-w-0 truncate font-mono hover:underline"
                href={page.source}
                title={page.source}
                target="_blank"
                rel="noreferrer">{shortAddress(page.source, start)}</a
              >
            {/if}
            {#if page.editAt}
              <a class="font-normal {link}" href={page.editAt} target="_blank" rel="noreferrer">{texts.editPage}</a>
            {/if}
          </h2>
          {#if page.note}<p class="quiet italic">{page.note}</p>{/if}
          <ul>
            {#each page.edits as edit (edit.id)}
              <li class="flex items-start gap-2 border-t border-base-300/60 py-1.5 first:border-0">
                <input
                  type="checkbox"
                  class="checkbox checkbox-xs mt-0.5"
                  checked={edit.done}
                  aria-label={texts.isDone(edit.text)}
                  onchange={() => tickEdits(place, [edit.id], !edit.done)}
                />
                <div class="min-w-0 flex-1 {edit.done ? 'opacity-60' : ''}">
                  <p class="flex gap-3">
                    <span class="min-w-0 flex-1 wrap-anywhere {edit.done ? 'line-through' : ''}"
                      >{shorten(edit.text)}</span
                    >
                    {#if !edit.placed && inHtml.test(edit.op)}<span class="quiet whitespace-nowrap"
                        >{texts.notInDiff}</span
                      >{/if}
                  </p>
                  {#if edit.before && edit.op !== 'retarget_link'}
                    {@render sentence(texts.wasText, edit.before, 'bg-base-300')}
                  {/if}
                  {#if edit.after}
                    {@const label = edit.op === 'retarget_link' ? texts.inText : texts.isText}
                    {@render sentence(label, edit.after, 'bg-primary/20')}
                  {/if}
                  {#if edit.value}<pre
                      class="mt-1 max-h-60 overflow-auto bg-base-200 p-2 font-mono">{edit.value}</pre>{/if}
                  {#if edit.note}<p class="quiet italic">{edit.note}</p>{/if}
                </div>
              </li>
            {/each}
          </ul>
        </section>
      {/each}
    </div>
  {/if}
</main>

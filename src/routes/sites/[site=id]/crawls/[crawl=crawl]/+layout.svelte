<!-- The frame around the screens of a crawl: header, crawls on a line, questions. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import DraftSwitch from '$lib/draft/DraftSwitch.svelte';
  import EditDialog from '$lib/draft/EditDialog.svelte';
  import { redo, undo, watchDraft } from '$lib/draft/draft';
  import { provideEditing } from '$lib/draft/editing';
  import { texts as draftTexts } from '$lib/draft/texts';
  import Brand from '$lib/shell/Brand.svelte';
  import Finder from '$lib/shell/Finder.svelte';
  import Moment from '$lib/shell/Moment.svelte';
  import Keys from '$lib/shell/Keys.svelte';
  import { resumeTour, showStep, tourStep } from '$lib/tour/tour.svelte';
  import SoFar from '$lib/watch/SoFar.svelte';
  import { crawlPath, questions } from '$lib/shell/routes';
  import { switchTheme } from '$lib/shell/theme';
  import { markKeyPages } from '$lib/shell/keyPages';
  import { moment, number, shortAddress } from '$lib/shell/words';
  import { texts } from '$lib/shell/texts';

  let { data, children } = $props();
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const current = $derived(page.url.pathname.slice(base.length + 1));
  /** The question that the screen belongs to. */
  const asked = $derived(current.split('/')[0]);
  const ended = $derived(data.crawl.state === 'done' || data.crawl.state === 'stopped');
  /** Whether its screens can be opened: on all of it, or on what has come so far. */
  const readable = $derived(ended || data.crawl.soFar !== null);
  const host = $derived(new URL(data.site.start).host);
  const place = $derived({ site: data.site, crawl: data.crawl, draft: data.draft });
  let editDialog: ReturnType<typeof EditDialog> | undefined = $state();
  watchDraft(() => place);
  provideEditing(() => (ended && editDialog ? editDialog.open : null));
  /** The same screen of another crawl; a selection means the same there. */
  const screenOf = (crawl: { id: number; state: string }) =>
    crawl.state === 'done' || crawl.state === 'stopped'
      ? `${crawlPath(data.site.id, crawl.id, data.crawl.version)}/${current === 'watch' ? 'overview' : current}${page.url.search}`
      : `${crawlPath(data.site.id, crawl.id)}/watch`;
  const reader = $derived(page.url.searchParams.get('reader'));
  /** A question, read as the one before. */
  const hrefOf = (path: string) => `${base}/${path}${reader ? `?reader=${reader}` : ''}`;
  const countOf = (path: string) =>
    path === 'overview'
      ? 0
      : data.findings.filter(
          ({ question, screen }) => screen === path && questions.some(({ name }) => name === question),
        ).length;
  let again: HTMLFormElement | undefined = $state();
  let keys: ReturnType<typeof Keys>;
  onMount(resumeTour);
  /** The page whose dossier is open. */
  const open = $derived(page.url.searchParams.get('page'));
  const actions = $derived([
    ...(ended
      ? [
          {
            text: draftTexts.addEdit,
            about: draftTexts.editTitle,
            run: () => editDialog?.open([]),
          },
        ]
      : []),
    ...(open
      ? [
          {
            text: texts.markKey,
            about: shortAddress(open, data.site.start),
            run: () => void markKeyPages(data.site.id, [open], true),
          },
        ]
      : []),
    ...(data.draft.undoable
      ? [{ text: draftTexts.undo, about: draftTexts.edits(data.draft.edits), run: () => void undo(place) }]
      : []),
    ...(data.draft.redoable
      ? [{ text: draftTexts.redo, about: draftTexts.edits(data.draft.edits), run: () => void redo(place) }]
      : []),
    ...(ended
      ? [{ text: texts.crawlAgain, about: texts.withTheSettingsOfTheSite, run: () => again?.requestSubmit() }]
      : []),
    ...(ended
      ? [
          {
            text: texts.timelineAction,
            about: texts.notesAndComingCrawls,
            run: () => void goto(`${base}/change?picture=timeline`),
          },
        ]
      : []),
    {
      text: texts.settings,
      about: texts.scopeLimitsCrawlRateUserAgent,
      run: () => void goto(`/settings?site=${data.site.id}`),
    },
    { text: texts.allSites, about: texts.andANewOne, run: () => void goto('/') },
    { text: texts.lightOrDarkAction, about: 'theme', run: switchTheme },
    { text: texts.tour, about: texts.theScreensInTwoMinutes, run: () => showStep(0) },
    { text: texts.keys, about: texts.whatTheKeyboardDoes, run: () => keys.open() },
  ]);

  function walk(step: number) {
    const at = questions.findIndex(({ path }) => path === asked);
    if (readable) void goto(hrefOf(questions[(at + step + questions.length) % questions.length].path));
  }
</script>

<Keys bind:this={keys} onwalk={walk} />
{#if ended}<EditDialog bind:this={editDialog} {place} />{/if}
{#if readable && tourStep() !== null}
  {#await import('$lib/tour/Tour.svelte') then { default: Tour }}<Tour {base} start={data.site.start} />{/await}
{/if}
<div class="flex h-screen min-w-[1000px] flex-col overflow-hidden">
  <Brand>
    <a
      href="/"
      class="max-w-60 truncate rounded border border-white/25 px-2.5 py-0.5 font-mono text-xs hover:border-white/60"
      title={texts.allSitesThisIs(data.site.start)}>{data.site.name ?? host} ▾</a
    >
    <ol class="flex items-center" aria-label={texts.crawlsOfThisSite}>
      {#each data.crawls as crawl (crawl.id)}
        {@const here = crawl.id === data.crawl.id}
        <li class="flex items-center before:h-px before:w-4 before:bg-white/30 first:before:hidden">
          <a
            href={screenOf(crawl)}
            class="flex h-6 items-center gap-2 px-0.5"
            aria-current={here ? 'true' : undefined}
            title={texts.crawlInFull(crawl.id, moment(crawl.at), number(crawl.known))}
            aria-label={texts.crawlCounted(moment(crawl.at), number(crawl.known))}
          >
            <span class="block rounded-full {here ? 'size-3 bg-[#f2935c]' : 'size-2 bg-white/50 hover:bg-white'}"
            ></span>
          </a>
        </li>
      {/each}
      <li class="tabular pl-2 text-xs whitespace-nowrap">
        <Moment at={data.crawl.at} />{ended ? ` · ${number(data.crawl.known)} URLs` : ''}
      </li>
    </ol>
    <span class="flex-1"></span>
    {#if ended && data.draft.edits > 0}<DraftSwitch {place} version={data.crawl.version} {current} />{/if}
    {#if readable}
      <Finder
        {base}
        site={data.site}
        findings={data.findings}
        crawls={data.crawls.map((crawl) => ({ id: crawl.id, at: crawl.at, href: screenOf(crawl) }))}
        ready={readable}
        {actions}
      />
    {/if}
    <a href="/settings?site={data.site.id}" class="text-xs hover:underline">{texts.settings}</a>
    {#if ended}
      <form bind:this={again} method="post" action="/sites/{data.site.id}?/again">
        <button class="btn btn-secondary btn-sm whitespace-nowrap" title={texts.crawlAgainWithTheSettings(host)}
          >{texts.crawlAgain}</button
        >
      </form>
    {/if}
  </Brand>
  {#if current !== 'watch' && data.crawl.soFar}<SoFar {base} crawl={data.crawl} at={data.crawl.soFar} />{/if}
  <div class="relative flex min-h-0 flex-1">
    {#if current !== 'watch'}
      <nav class="w-40 shrink-0 border-r border-base-300 p-2" aria-label={texts.questions}>
        {#each questions as { path, name, question } (path)}
          {@const here = path === asked}
          <a
            href={hrefOf(path)}
            aria-current={here ? 'page' : undefined}
            class="mb-1 block rounded border-l-3 px-2.5 py-1.5 {here
              ? 'border-primary bg-base-100'
              : 'border-transparent hover:bg-base-100/60'}"
          >
            <span class="flex items-baseline justify-between font-semibold"
              >{name}{#if countOf(path)}<span class="tabular quiet text-xs font-normal" title={texts.findings}
                  >{countOf(path)}</span
                >{/if}</span
            >
            <span class="quiet block text-xs">{question}</span>
          </a>
        {/each}
      </nav>
    {/if}
    {@render children()}
  </div>
</div>

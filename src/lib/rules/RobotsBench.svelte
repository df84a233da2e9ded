<!-- The robots bench: the file that was fetched beside a draft, and what the draft would change. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import type { AnalysisSettings } from '$core/analysis';
  import type { LiveCheck } from '$core/liveChecks';
  import { sentence } from '$core/messages';
  import type { Message } from '$core/messages';
  import { withDisallowed } from '$core/robots';
  import type { JudgedDraft, RobotsEffectCounts } from '$core/robotsEffect';
  import type { FileAnswer } from '$core/snapshot';
  import { saveFile } from '../charts/picture';
  import { checkLive } from '../liveChecks/liveCheck';
  import Moment from '../shell/Moment.svelte';
  import type { ListedRows } from '../list/listedRows';
  import { say } from '../shell/say.svelte';
  import { bytes, shortAddress } from '../shell/words';
  import BenchAddresses from './BenchAddresses.svelte';
  import BenchChange from './BenchChange.svelte';
  import BenchTest from './BenchTest.svelte';
  import BenchVersions from './BenchVersions.svelte';
  import { openBench } from './bench';
  import type { Bench } from './bench';
  import RobotsEditor from './RobotsEditor.svelte';
  import { benchTexts as texts } from './benchTexts';

  interface File {
    origin: string;
    status: number | null;
    fault: Message | null;
    body: string;
    answer: FileAnswer | null;
    check: LiveCheck<'robots'> | null;
  }
  interface Props {
    robots: {
      files: File[];
      tokens: string[];
      settings: AnalysisSettings;
      drafts: { id: number; origin: string; name: string; note: string; savedAt: Date }[];
      fetchedAt: Date;
    };
    site: number;
    base: string;
    start: string;
    /** The rows of the list below. */
    rows: ListedRows;
    item: string;
    itemHref: (origin: string) => string;
    pageHref: (address: string) => string;
  }
  let { robots, site, base, start, rows, item, itemHref, pageHref }: Props = $props();

  const file = $derived(robots.files.find(({ origin }) => origin === item) ?? robots.files[0]);
  const host = $derived(file.origin);
  const before = $derived(file.status !== null && file.status < 300 && !file.fault ? file.body : null);
  let draft = $state('');
  let token = $state('');
  let judged = $state.raw<JudgedDraft | null>(null);
  let costs = $state.raw<{ counts: RobotsEffectCounts; routesLost: string[] } | null>(null);
  let ofLine = $state.raw<{ line: number; count: number; addresses: string[] } | null>(null);
  let shown = $state<'change' | 'line' | 'test' | 'versions'>('change');
  let trouble = $state('');
  let isAsking = $state(false);
  let bench: Bench | null = null;

  /** The effect is worked out when nobody has typed for so long. */
  const IDLE_MS = 350;
  let idle: ReturnType<typeof setTimeout> | undefined;
  const leaving = new AbortController();

  /** A draft that is not saved outlives a visit to another screen, in this tab. */
  const keptAs = () => `edgemap.robots.${site}.${host}`;

  async function begin() {
    bench?.close();
    bench = openBench({
      base: location.origin + base,
      origin: host,
      before,
      settings: $state.snapshot(robots.settings),
    });
    judged = costs = ofLine = null;
    trouble = '';
    draft = sessionStorage.getItem(keptAs()) ?? before ?? '';
    token ||= robots.tokens[0];
    const own = bench;
    try {
      await own.begun;
      if (own === bench) await judge();
    } catch {
      if (own === bench) trouble = texts.notLoaded;
    }
  }
  onMount(() => () => {
    clearTimeout(idle);
    leaving.abort();
    bench?.close();
    bench = null;
  });
  $effect(() => {
    // What is fetched again or saved leaves the draft as it is.
    void [host, base];
    untrack(() => void begin());
  });

  let isJudging = false;
  let isStale = false;
  /** Judges the draft; keystrokes that come meanwhile are judged together afterwards. */
  async function judge(): Promise<void> {
    const own = bench;
    if (!own) return;
    if (isJudging) return void (isStale = true);
    isJudging = true;
    try {
      const answer = await own.ask({ ask: 'judge', text: draft, token });
      if (own === bench) judged = answer.judged;
    } catch {
      if (own === bench) trouble = texts.notJudged;
    }
    isJudging = false;
    if (isStale) {
      isStale = false;
      return judge();
    }
    clearTimeout(idle);
    idle = setTimeout(() => void workOut(), IDLE_MS);
  }
  let isWorkingOut = false;
  /** Works out what the draft costs, and again where it was changed meanwhile. */
  async function workOut(): Promise<void> {
    const own = bench;
    if (!own || isWorkingOut) return;
    isWorkingOut = true;
    const [text, of] = [draft, token];
    const found = await own.effect(text, of).catch(() => null);
    isWorkingOut = false;
    if (own !== bench || text !== draft || of !== token) return workOut();
    if (found) costs = found;
    else trouble = texts.notWorkedOut;
  }
  function change(text: string) {
    if (text === draft) return;
    draft = text;
    if (text === (before ?? '')) sessionStorage.removeItem(keptAs());
    else sessionStorage.setItem(keptAs(), text);
    costs = null;
    void judge();
  }
  async function look(line: number) {
    const found = await bench?.ask({ ask: 'decided', text: draft, token, line }).catch(() => null);
    if (found) ofLine = { line, ...found };
  }

  const HOVERED = 8;
  /** What a rule of a file decides, in some lines. */
  const describe = (text: () => string) => async (line: number) => {
    const found = await bench?.ask({ ask: 'decided', text: text(), token, line }).catch(() => null);
    if (!found) return null;
    const shown = found.addresses.slice(0, HOVERED).map((address) => shortAddress(address, start));
    const more = found.count > shown.length ? [texts.andMore(found.count - shown.length)] : [];
    return [texts.decides(line, found.count), ...shown, ...more];
  };

  const compose = async (picked: string[]) =>
    (await bench?.ask({ ask: 'compose', picked }).catch(() => null))?.choices ?? [];
  function addComposed(paths: string[]) {
    change(withDisallowed(draft, token, paths));
    shown = 'change';
  }

  const download = () => saveFile('robots.txt', new Blob([draft], { type: 'text/plain' }));

  async function fetchAgain() {
    isAsking = true;
    const check = await checkLive(site, 'robots', `${host}/robots.txt`, leaving.signal);
    isAsking = false;
    if (!check) return;
    await invalidateAll();
    if (check.fault) say(sentence(check.fault), true);
  }
  const live = $derived(file.check?.result ?? null);
  const same = (a: string, b: string) => a.replace(/\r\n?/g, '\n').trimEnd() === b.replace(/\r\n?/g, '\n').trimEnd();
  const liveText = $derived.by(() => {
    if (!live) return '';
    if (live.fault) return sentence(live.fault);
    if (draft !== (before ?? '') && same(live.body, draft)) return texts.liveIsDraft;
    return same(live.body, before ?? '') ? texts.liveIsSame : texts.liveIsOther;
  });
  const paths = $derived([...new Set((judged?.sections ?? []).map(({ section }) => `/${section}/`))]);
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 pb-1 text-xs">
  {#if robots.files.length > 1}
    <span class="flex gap-2"
      >{#each robots.files as { origin } (origin)}<a
          class={origin === host ? 'font-semibold' : 'text-primary hover:underline'}
          aria-current={origin === host}
          href={itemHref(origin)}>{origin}</a
        >{/each}</span
    >
  {/if}
  <span class="quiet"
    >{#if file.fault}<span class="lost">{sentence(file.fault)}</span>{:else}{texts.answered(
        file.status,
        bytes(new TextEncoder().encode(file.body).length),
        file.answer?.redirects ?? 0,
      )}{/if} · <Moment at={new Date(robots.fetchedAt)} /></span
  >
  <button type="button" class="text-primary hover:underline" disabled={isAsking} onclick={fetchAgain}
    >{isAsking ? texts.fetching : texts.fetchAgain}</button
  >
  {#if live && file.check?.endedAt}
    <span>{liveText} <span class="quiet"><Moment at={new Date(file.check.endedAt)} /></span></span>
    {#if !live.fault && !same(live.body, draft)}
      <button type="button" class="text-primary hover:underline" onclick={() => change(live.body)}
        >{texts.loadLive}</button
      >
    {/if}
  {/if}
  <label class="quiet ml-auto flex items-center gap-1"
    >{texts.crawler}
    <input
      class="input input-xs w-28 font-mono text-base-content"
      list="tokens"
      value={token}
      onchange={({ currentTarget }) => {
        token = currentTarget.value.trim() || robots.tokens[0];
        costs = null;
        void judge();
      }}
    /></label
  >
  <datalist id="tokens"
    >{#each robots.tokens as one (one)}<option value={one}></option>{/each}</datalist
  >
</div>
{#if trouble}<p class="lost text-xs" role="alert">{trouble}</p>{/if}
<div class="flex h-76 gap-2">
  <div class="flex min-w-0 flex-1 flex-col">
    <p class="quiet text-xs">{texts.fetched}</p>
    <div class="min-h-0 flex-1">
      {#key host}<RobotsEditor
          text={before ?? ''}
          label={texts.fetched}
          readOnly
          describe={describe(() => before ?? '')}
          decided={judged?.decidedBefore ?? []}
        />{/key}
    </div>
  </div>
  <div class="flex min-w-0 flex-1 flex-col">
    <p class="quiet flex gap-3 text-xs">
      {texts.draft}
      <button type="button" class="text-primary hover:underline" onclick={() => change(before ?? '')}
        >{texts.reset}</button
      >
      <button type="button" class="text-primary hover:underline" onclick={download}>{texts.download}</button>
    </p>
    <div class="min-h-0 flex-1">
      {#key host}
        <RobotsEditor
          text={draft}
          label={texts.draft}
          describe={describe(() => draft)}
          decided={judged?.decidedAfter ?? []}
          {paths}
          onchange={change}
          online={(line) => void look(line)}
        />
      {/key}
    </div>
  </div>
  <div class="flex w-68 shrink-0 flex-col text-xs xl:w-88">
    <div class="flex gap-3" role="tablist" aria-label={texts.parts}>
      {#each ['change', 'line', 'test', 'versions'] as const as part (part)}
        <button
          type="button"
          role="tab"
          aria-selected={shown === part}
          class={shown === part ? 'font-semibold' : 'text-primary hover:underline'}
          onclick={() => (shown = part)}>{texts.part[part]}</button
        >
      {/each}
    </div>
    <div class="min-h-0 flex-1 overflow-y-auto pt-1" role="tabpanel" aria-label={texts.part[shown]}>
      {#if shown === 'change'}
        {#if judged}<BenchChange {judged} {costs} {start} {pageHref} />
        {:else}<p class="quiet">{texts.judging}</p>{/if}
      {:else if shown === 'line'}
        {#if !ofLine}<p class="quiet">{texts.putTheCursor}</p>
        {:else}
          <p>{texts.decides(ofLine.line, ofLine.count)}</p>
          <BenchAddresses addresses={ofLine.addresses} count={ofLine.count} {start} {pageHref} />
        {/if}
      {:else if shown === 'test'}
        <BenchTest {draft} {token} {host} {rows} oncompose={compose} onadd={addComposed} />
      {:else}
        <BenchVersions {draft} {before} {host} {site} drafts={robots.drafts} onopen={change} />
      {/if}
    </div>
  </div>
</div>

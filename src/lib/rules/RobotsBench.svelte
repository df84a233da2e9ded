<!-- The robots bench: the file that was fetched beside a draft, and what the draft would change. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import type { AnalysisSettings } from '$core/analysis';
  import type { LiveCheck } from '$core/liveChecks';
  import { sentence } from '$core/messages';
  import type { Message } from '$core/messages';
  import { explainRobots, parseRobots } from '$core/robots';
  import type { ComposedRule } from '$core/robots';
  import type { JudgedDraft, RobotsEffectCounts } from '$core/robotsEffect';
  import type { FileAnswer } from '$core/snapshot';
  import { identify } from '$core/url';
  import { saveFile } from '../charts/picture';
  import { checkLive } from '../liveChecks/liveCheck';
  import Moment from '../shell/Moment.svelte';
  import { say } from '../shell/say.svelte';
  import { bytes, number, shortAddress } from '../shell/words';
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
    /** The selection below. */
    select: string;
    item: string;
    itemHref: (origin: string) => string;
    pageHref: (address: string) => string;
  }
  let { robots, site, base, start, select, item, itemHref, pageHref }: Props = $props();

  const file = $derived(robots.files.find(({ origin }) => origin === item) ?? robots.files[0]);
  const host = $derived(file.origin);
  const before = $derived(file.status !== null && file.status < 300 && !file.fault ? file.body : null);
  let draft = $state('');
  let token = $state('');
  let judged = $state.raw<JudgedDraft | null>(null);
  let costs = $state.raw<{ counts: RobotsEffectCounts; routesLost: string[] } | null>(null);
  let ofLine = $state.raw<{ line: number; count: number; addresses: string[] } | null>(null);
  let shown = $state<'change' | 'line' | 'test' | 'versions'>('change');
  let given = $state('');
  let composed = $state.raw<ComposedRule[] | null>(null);
  let name = $state('');
  let note = $state('');
  let compared = $state.raw<{ name: string; text: string } | null>(null);
  let difference = $state.raw<{ mark: string; text: string }[] | null>(null);
  let trouble = $state('');
  let isAsking = $state(false);
  let bench: Bench | null = null;

  /** The effect is worked out when nobody has typed for so long. */
  const IDLE_MS = 350;
  let idle: ReturnType<typeof setTimeout> | undefined;
  const leaving = new AbortController();

  async function begin() {
    bench?.close();
    bench = openBench();
    judged = costs = ofLine = null;
    trouble = '';
    draft = before ?? '';
    token ||= robots.tokens[0];
    const own = bench;
    try {
      await own.ask({
        ask: 'begin',
        given: {
          base: location.origin + base,
          origin: host,
          before,
          settings: $state.snapshot(robots.settings),
        },
      });
      if (own === bench) await judge();
    } catch {
      if (own === bench) trouble = texts.notLoaded;
    }
  }
  onMount(() => () => {
    clearTimeout(idle);
    leaving.abort();
    bench?.close();
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
    if (!bench) return;
    if (isJudging) return void (isStale = true);
    isJudging = true;
    try {
      const answer = await bench.ask({ ask: 'judge', text: draft, token });
      judged = answer.judged;
    } catch {
      trouble = texts.notJudged;
    }
    isJudging = false;
    if (isStale) {
      isStale = false;
      return judge();
    }
    clearTimeout(idle);
    idle = setTimeout(() => void workOut(), IDLE_MS);
  }
  async function workOut() {
    const [text, of] = [draft, token];
    const found = await bench?.ask({ ask: 'effect', text, token: of }).catch(() => void (trouble = texts.notWorkedOut));
    if (found && text === draft && of === token) costs = found;
  }
  function change(text: string) {
    if (text === draft) return;
    draft = text;
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
    const picked = tested.flatMap(({ address }) => address ?? []);
    const answer = await bench?.ask({ ask: 'compose', picked }).catch(() => null);
    composed = answer?.rules ?? [];
  }
  function addComposed() {
    const lines = composed!.map(({ path }) => `Disallow: ${path}`).join('\n');
    const has = /^\s*user-agent\s*:\s*\*\s*$/im.exec(draft);
    if (!has) return change(`${draft.replace(/\n*$/, draft ? '\n\n' : '')}User-agent: *\n${lines}\n`);
    const at = has.index + has[0].length;
    change(`${draft.slice(0, at)}\n${lines}${draft.slice(at)}`);
    composed = null;
    shown = 'change';
  }

  async function save() {
    const body = JSON.stringify({ origin: host, name, note, body: draft });
    const response = await fetch(`/sites/${site}/drafts`, { method: 'POST', body }).catch(() => null);
    const answer = (await response?.json().catch(() => null)) as { message?: string } | null;
    if (!response?.ok) return say(answer?.message ?? texts.notSaved, true);
    say(texts.saved(name));
    name = note = '';
    await invalidateAll();
  }
  async function bodyOf(id: number): Promise<string | null> {
    const response = await fetch(`/sites/${site}/drafts?id=${id}`).catch(() => null);
    if (response?.ok) return ((await response.json()) as { body: string }).body;
    say(texts.notOpened, true);
    return null;
  }
  async function open(id: number) {
    const body = await bodyOf(id);
    if (body !== null) change(body);
  }
  async function remove(id: number, of: string) {
    const response = await fetch(`/sites/${site}/drafts`, { method: 'DELETE', body: JSON.stringify({ id }) }).catch(
      () => null,
    );
    if (!response?.ok) return say(texts.notRemoved, true);
    say(texts.removed(of));
    await invalidateAll();
  }
  async function compareWith(of: string, text: string) {
    compared = { name: of, text };
    const { diffLines } = await import('diff');
    difference = diffLines(text, draft).flatMap(({ value, added, removed }) =>
      value
        .replace(/\n$/, '')
        .split('\n')
        .map((line) => ({ mark: added ? '+' : removed ? '-' : ' ', text: line })),
    );
  }
  async function saveDifference() {
    const { createTwoFilesPatch } = await import('diff');
    const patch = createTwoFilesPatch(compared!.name, 'draft', compared!.text, draft);
    saveFile('robots.diff', new Blob([patch], { type: 'text/plain' }));
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
  const most = $derived(Math.max(1, ...(judged?.sections ?? []).map(({ closed, opened }) => closed + opened)));
  const percent = (part: number) => `${(100 * part).toFixed(part && Math.abs(part) < 0.01 ? 2 : 1)}%`;
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
  <div class="flex w-88 shrink-0 flex-col text-xs">
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
        {#if !judged}<p class="quiet">{texts.judging}</p>
        {:else}
          <table class="w-full">
            <tbody>
              {#each [['closed', judged.closed.count], ['opened', judged.opened.count], ['still', judged.still]] as const as [kind, count] (kind)}
                <tr class="border-b border-base-300/60"
                  ><td class="py-0.5">{texts.changes[kind]}</td><td
                    class="tabular text-right {kind === 'closed' && count ? 'lost font-semibold' : ''}"
                    >{number(count)}</td
                  ></tr
                >
              {/each}
              {#if costs}
                {#each ['indexable_lost', 'indexable_won', 'routes_lost', 'listed_closed'] as const as kind (kind)}
                  <tr class="border-b border-base-300/60"
                    ><td class="py-0.5">{texts.costs[kind]}</td><td
                      class="tabular text-right {kind !== 'indexable_won' && costs.counts[kind] ? 'lost' : ''}"
                      >{number(costs.counts[kind])}</td
                    ></tr
                  >
                {/each}
                <tr class="border-b border-base-300/60"
                  ><td class="py-0.5">{texts.costs.share_lost}</td><td
                    class="tabular text-right {costs.counts.share_lost > 0 ? 'lost' : ''}"
                    >{percent(costs.counts.share_lost)}</td
                  ></tr
                >
              {:else}
                <tr><td colspan="2" class="quiet py-0.5">{texts.workingOut}</td></tr>
              {/if}
            </tbody>
          </table>
          {#if judged.sections.length}
            <h4 class="heading mt-2">{texts.bySection}</h4>
            {#each judged.sections as { section, closed, opened } (section)}
              <div class="flex items-center gap-2 py-0.5">
                <span class="w-28 truncate font-mono" title={section}>/{section}</span>
                <span class="flex h-2.5 flex-1"
                  ><span style:width="{(100 * closed) / most}%" style:background="var(--color-secondary)"></span><span
                    style:width="{(100 * opened) / most}%"
                    style:background="var(--color-primary)"
                  ></span></span
                >
                <span class="tabular">{texts.closedOpened(closed, opened)}</span>
              </div>
            {/each}
          {/if}
          {#each [['closed', judged.closed], ['opened', judged.opened], ['routes', { count: costs?.counts.routes_lost ?? 0, addresses: costs?.routesLost ?? [] }]] as const as [kind, { count, addresses }] (kind)}
            {#if count}
              <h4 class="heading mt-2">{texts.lists[kind]}</h4>
              <ul class="font-mono">
                {#each addresses as address (address)}
                  <li class="truncate">
                    <a class="hover:underline" title={address} href={pageHref(address)}
                      >{shortAddress(address, start)}</a
                    >
                  </li>
                {/each}
                {#if count > addresses.length}<li class="quiet font-sans">
                    {texts.andMore(count - addresses.length)}
                  </li>{/if}
              </ul>
            {/if}
          {/each}
        {/if}
      {:else if shown === 'line'}
        {#if !ofLine}<p class="quiet">{texts.putTheCursor}</p>
        {:else}
          <p>{texts.decides(ofLine.line, ofLine.count)}</p>
          <ul class="font-mono">
            {#each ofLine.addresses as address (address)}
              <li class="truncate">
                <a class="hover:underline" title={address} href={pageHref(address)}>{shortAddress(address, start)}</a>
              </li>
            {/each}
            {#if ofLine.count > ofLine.addresses.length}<li class="quiet font-sans">
                {texts.andMore(ofLine.count - ofLine.addresses.length)}
              </li>{/if}
          </ul>
        {/if}
      {:else if shown === 'test'}
        <textarea
          class="textarea textarea-xs h-18 w-full font-mono"
          aria-label={texts.addresses}
          placeholder={texts.addresses}
          bind:value={given}></textarea>
        <p class="flex flex-wrap gap-x-3 py-0.5">
          <button
            type="button"
            class="text-primary hover:underline"
            title={texts.takeSelectedMeans}
            onclick={takeSelected}>{texts.takeSelected}</button
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
              <button type="button" class="text-primary hover:underline" onclick={addComposed}
                >{texts.addToDraft}</button
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
                  <span class="quiet block"
                    >{texts.alsoMatch(found.matching.slice(1).map(({ rule }) => rule.line))}</span
                  >
                {/if}
              {/if}
            </li>
          {/each}
        </ul>
      {:else}
        <form
          class="space-y-1"
          onsubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <input
            class="input input-xs w-full"
            aria-label={texts.versionName}
            placeholder={texts.versionName}
            bind:value={name}
            required
            maxlength="80"
          />
          <input
            class="input input-xs w-full"
            aria-label={texts.versionNote}
            placeholder={texts.versionNote}
            bind:value={note}
            maxlength="2000"
          />
          <button class="btn btn-primary btn-xs">{texts.saveVersion}</button>
          <button type="button" class="btn btn-xs" onclick={() => compareWith(texts.fetchedName, before ?? '')}
            >{texts.compareWithFetched}</button
          >
        </form>
        <ul class="mt-1">
          {#each robots.drafts.filter(({ origin }) => origin === host) as { id, name: of, note: said, savedAt } (id)}
            <li class="border-t border-base-300/60 py-0.5">
              <span class="font-semibold">{of}</span> <span class="quiet"><Moment at={new Date(savedAt)} /></span>
              {#if said}<span class="quiet block">{said}</span>{/if}
              <span class="flex gap-3">
                <button type="button" class="text-primary hover:underline" onclick={() => open(id)}
                  >{texts.openVersion}</button
                >
                <button
                  type="button"
                  class="text-primary hover:underline"
                  onclick={async () => {
                    const body = await bodyOf(id);
                    if (body !== null) await compareWith(of, body);
                  }}>{texts.compareVersion}</button
                >
                <button type="button" class="text-primary hover:underline" onclick={() => remove(id, of)}
                  >{texts.removeVersion}</button
                >
              </span>
            </li>
          {:else}<li class="quiet">{texts.noVersions}</li>{/each}
        </ul>
        {#if difference && compared}
          <h4 class="heading mt-2">{texts.differenceTo(compared.name)}</h4>
          {#if difference.every(({ mark }) => mark === ' ')}<p class="quiet">{texts.noDifference}</p>
          {:else}
            <pre class="overflow-x-auto font-mono">{#each difference as { mark, text }, i (i)}<span
                  class="block {mark === '+' ? 'text-primary' : mark === '-' ? 'lost' : 'quiet'}">{mark} {text}</span
                >{/each}</pre>
            <button type="button" class="text-primary hover:underline" onclick={saveDifference}
              >{texts.saveDifference}</button
            >
          {/if}
        {/if}
      {/if}
    </div>
  </div>
</div>

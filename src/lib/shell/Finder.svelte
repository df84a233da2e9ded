<!-- Finds anything by its name: pages, selections, findings, screens, actions. Opened by / and by Ctrl-K. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { parseLinkSelection, parseSelection, quote } from '$core/selection/language';
  import { carriedOver, screenState, withState } from './address';
  import { listTabs } from '../list/lists';
  import { findingHref, questions } from './routes';
  import { recentSelections } from '../selection/recent';
  import { moment, number, shortAddress } from './words';
  import { texts } from './texts';

  interface Entry {
    text: string;
    about: string;
    /** Addresses and selections are written as such. */
    mono?: boolean;
    run: () => void;
  }
  interface Props {
    base: string;
    site: { id: number; start: string; saved: { name: string; over: 'pages' | 'links'; text: string }[] };
    findings: {
      id: string;
      name: string;
      question: string;
      over: 'pages' | 'links' | 'files';
      select: string;
      edits: number;
    }[];
    crawls: { id: number; at: Date | null; href: string }[];
    /** Whether the crawl can be asked questions. */
    ready: boolean;
    actions: { text: string; about: string; run: () => void }[];
  }
  let { base, site, findings, crawls, ready, actions }: Props = $props();

  let dialog: HTMLDialogElement;
  let input: HTMLInputElement;
  let text = $state('');
  let chosen = $state(0);
  let pages = $state.raw<{ of: string; list: { url: string; title: string | null }[] }>({ of: '', list: [] });

  export function open() {
    text = '';
    chosen = 0;
    dialog.showModal();
    input.focus();
  }

  /** The screen that shows lists: this one, or Reach. */
  const withList = $derived(
    ['reach', 'flow'].includes(page.url.pathname.split('/').at(-1)!) ? page.url.pathname : `${base}/reach`,
  );
  const toSelection =
    (select: string, over: 'pages' | 'links' = 'pages') =>
    () =>
      void goto(withState(page.url, { list: over, select }, withList));
  const to = (href: string) => () => void goto(href);

  const entries = $derived.by((): Entry[] => {
    const wanted = text.trim();
    const low = wanted.toLowerCase();
    const fits = (entry: Entry) => !low || `${entry.text} ${entry.about}`.toLowerCase().includes(low);
    const all: Entry[] = [];
    if (ready) {
      if (wanted && parseSelection(wanted).ok)
        all.push({ text: wanted, about: texts.selectPages, mono: true, run: toSelection(wanted) });
      else if (wanted && parseLinkSelection(wanted).ok)
        all.push({ text: wanted, about: texts.selectLinks, mono: true, run: toSelection(wanted, 'links') });
      if (wanted && pages.of === wanted)
        all.push(
          ...pages.list.map(({ url, title }) => ({
            text: shortAddress(url, site.start),
            about: title ?? 'page',
            mono: true,
            run: () => void goto(withState(page.url, { page: url }, withList)),
          })),
        );
      all.push(
        ...questions.map(({ path, name, question }) => ({ text: name, about: question, run: to(`${base}/${path}`) })),
        ...questions.flatMap(({ path, name, pictures }) =>
          pictures.map(({ picture, label }) => ({
            text: `${name}: ${label}`,
            about: 'picture',
            run: to(withState(page.url, { picture }, `${base}/${path}`)),
          })),
        ),
        ...listTabs.map(({ list, label }) => ({
          text: texts.listNamed(label.toLowerCase()),
          about: 'list',
          run: to(
            withState(
              page.url,
              { list, select: carriedOver(screenState(page.url).list, list, screenState(page.url).select) },
              withList,
            ),
          ),
        })),
        ...site.saved.map(({ name, over, text }) => ({
          text: name,
          about: texts.savedSelectionOf(over),
          run: toSelection(text, over),
        })),
        ...findings.map((finding) => ({
          text: finding.name,
          about: `${finding.question}, ${number(finding.edits)} ${finding.edits === 1 ? 'edit' : 'edits'}`,
          run: to(findingHref(base, finding)),
        })),
        ...(wanted
          ? []
          : recentSelections(site.id, 'pages')
              .slice(0, 5)
              .map((select) => ({ text: select, about: 'recent', mono: true, run: toSelection(select) }))),
      );
    }
    all.push(
      ...actions,
      ...crawls.map(({ at, href, id }) => ({ text: texts.crawlOf(moment(at)), about: texts.crawl(id), run: to(href) })),
    );
    const own = all.filter((entry) => entry.mono && wanted);
    const others = all.filter((entry) => !(entry.mono && wanted)).filter(fits);
    const list = [...own, ...others].slice(0, 60);
    if (ready && wanted)
      list.push({
        text: `url has ${quote(wanted)}`,
        about: texts.selectAllPagesWhoseAddress,
        mono: true,
        run: toSelection(`url has ${quote(wanted)}`),
      });
    return list;
  });

  let timer: ReturnType<typeof setTimeout>;
  function oninput() {
    chosen = 0;
    clearTimeout(timer);
    const wanted = text.trim();
    if (!wanted || !ready) return;
    timer = setTimeout(async () => {
      const test = quote(wanted);
      const query = new URLSearchParams({
        select: `url has ${test} or title has ${test}`,
        sort: 'depth',
        columns: 'url,title',
        size: '8',
      });
      const response = await fetch(`${base}/rows?${query}`).catch(() => null);
      if (!response?.ok || text.trim() !== wanted) return;
      const { rows } = (await response.json()) as { rows: { cells: { url: string; title: string | null } }[] };
      pages = { of: wanted, list: rows.map(({ cells }) => cells) };
    }, 120);
  }
  function take(entry: Entry | undefined) {
    if (!entry) return;
    dialog.close();
    entry.run();
  }
  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') chosen = Math.min(entries.length - 1, chosen + 1);
    else if (event.key === 'ArrowUp') chosen = Math.max(0, chosen - 1);
    else if (event.key === 'Enter') take(entries[chosen]);
    else return;
    document.getElementById(`found-${chosen}`)?.scrollIntoView({ block: 'nearest' });
    event.preventDefault();
  }
  // A page that is open stays out of the way of what is looked for.
  const here = $derived(screenState(page.url).page);
</script>

<svelte:window
  onkeydown={(event) => {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
      event.preventDefault();
      if (dialog.open) dialog.close();
      else open();
    }
  }}
/>
<button
  type="button"
  data-key="/"
  data-tour="finder"
  class="flex w-64 min-w-24 shrink items-center justify-between gap-2 rounded border border-white/25 px-2.5 leading-7 text-neutral-content/80 hover:border-white/60"
  onclick={open}
>
  <span class="truncate">{texts.findAUrlOrWrite}</span><kbd class="font-mono text-xs" aria-hidden="true">/</kbd>
</button>
<dialog
  bind:this={dialog}
  class="panel mx-auto mt-24 w-160 overflow-hidden p-0 text-base-content backdrop:bg-black/40"
  aria-label={texts.find}
  onclick={(event) => {
    if (event.target === dialog) dialog.close();
  }}
>
  <input
    bind:this={input}
    bind:value={text}
    {oninput}
    {onkeydown}
    role="combobox"
    aria-expanded="true"
    aria-controls="found"
    aria-activedescendant="found-{chosen}"
    aria-label={texts.findAUrlASelection}
    placeholder={here ? texts.findAPageASelection : texts.addressOrTitleSelectionFindingScreen}
    spellcheck="false"
    autocomplete="off"
    class="w-full border-b border-base-300 bg-transparent px-4 py-2.5 text-base outline-none"
  />
  <ul id="found" role="listbox" aria-label={texts.found} class="max-h-96 overflow-y-auto py-1">
    {#each entries as entry, i (i)}
      <li
        id="found-{i}"
        role="option"
        aria-selected={i === chosen}
        class="flex cursor-pointer items-baseline gap-3 px-4 py-1 {i === chosen
          ? 'bg-primary text-primary-content'
          : ''}"
        onpointermove={() => (chosen = i)}
        onclick={() => take(entry)}
        onkeydown={undefined}
      >
        <span class="min-w-0 flex-1 truncate {entry.mono ? 'font-mono text-[0.8125rem]' : ''}">{entry.text}</span>
        <span class="max-w-64 truncate text-xs {i === chosen ? '' : 'quiet'}">{entry.about}</span>
      </li>
    {:else}
      <li class="quiet px-4 py-2" role="option" aria-selected="false">{texts.nothingHasThisName}</li>
    {/each}
  </ul>
</dialog>

<!-- Imports a file: says how it would be read, reads it with progress, and can be stopped. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { say } from '../shell/say.svelte';
  import { texts } from './texts';

  interface Preview {
    layout: { hasHeader: boolean; addressColumn: number; numbers: { name: string; isDate: boolean }[] };
    rows: string[][];
  }
  interface Outcome {
    id: number;
    addresses: number;
    matched: number;
    fresh: number;
    rejected: number;
    before: { id: number; name: string } | null;
  }

  let { site }: { site: number } = $props();
  let dialog: HTMLDialogElement;
  let picker: HTMLInputElement;
  let file = $state.raw<File | null>(null);
  let kind = $state<'list' | 'log'>('list');
  let name = $state('');
  let column = $state<string | null>(null);
  let preview = $state.raw<Preview | null>(null);
  let trouble = $state('');
  /** Percent that has been read; null while nothing is under way. */
  let percent = $state<number | null>(null);
  let sending: XMLHttpRequest | null = null;
  /** Whether it can still be stopped: what has been read is stored in one go. */
  const isReading = $derived(percent !== null && percent < 100);

  /** The beginning of a list, which shows how it is laid out. */
  const BEGINNING = 1 << 18;
  /** Files without a type would come without a body. */
  const BYTES = { 'content-type': 'application/octet-stream' };
  const endings = /(\.(gz|zst|zstd|csv|tsv|txt|log|json|jsonl|ndjson|xlsx))+$/i;
  const looksLikeLog = (one: File) => /\.log\b|access/i.test(one.name);

  /** Asks for a file. */
  export const choose = () => picker.click();
  /** Begins with a file that was dropped. */
  export function open(given: File) {
    file = given;
    kind = looksLikeLog(given) ? 'log' : 'list';
    name = given.name.replace(endings, '').slice(0, 80) || given.name.slice(0, 80);
    column = null;
    preview = null;
    trouble = '';
    percent = null;
    dialog.showModal();
  }
  const query = (more: Record<string, string> = {}) =>
    new URLSearchParams({ kind, name, file: file!.name, ...(column !== null && { column }), ...more });

  $effect(() => {
    if (file && kind === 'list') void look(file, column);
  });
  async function look(of: File, _column: string | null) {
    const whole = /\.xlsx$/i.test(of.name);
    const body = whole ? of : of.slice(0, BEGINNING);
    const response = await fetch(`/sites/${site}/imports?${query({ preview: '1' })}`, {
      method: 'POST',
      body,
      headers: BYTES,
    }).catch(() => null);
    if (of !== file) return;
    const answer = (await response?.json().catch(() => null)) as (Preview & { message?: string }) | null;
    preview = response?.ok ? answer : null;
    trouble = response?.ok ? '' : (answer?.message ?? texts.noPreview);
  }

  const named = ({ layout }: Preview, isDate: boolean) =>
    layout.numbers.filter((one) => one.isDate === isDate).map(({ name }) => name);

  function send() {
    const request = new XMLHttpRequest();
    sending = request;
    percent = 0;
    trouble = '';
    request.upload.onprogress = ({ loaded, total }) => (percent = Math.floor((100 * loaded) / Math.max(1, total)));
    request.onload = () => void arrived(request);
    request.onerror = () => failed(texts.failed);
    request.onabort = () => failed(texts.stopped);
    request.open('POST', `/sites/${site}/imports?${query()}`);
    request.setRequestHeader('content-type', BYTES['content-type']);
    request.send(file);
  }
  function failed(text: string) {
    sending = null;
    percent = null;
    trouble = text;
  }
  async function arrived(request: XMLHttpRequest) {
    let answer: (Outcome & { message?: string }) | null = null;
    try {
      answer = JSON.parse(request.responseText) as Outcome & { message?: string };
    } catch {
      // Told below.
    }
    if (request.status !== 200 || !answer) return failed(answer?.message ?? texts.failed);
    sending = null;
    percent = null;
    dialog.close();
    await invalidateAll();
    const { id, addresses, matched, fresh, rejected, before } = answer;
    say(
      before?.id === id ? texts.importedBefore(before.name) : texts.imported(name, addresses, matched, fresh, rejected),
    );
  }
</script>

<input
  bind:this={picker}
  type="file"
  class="sr-only"
  tabindex="-1"
  aria-label={texts.importAFile}
  onchange={({ currentTarget }) => {
    if (currentTarget.files?.[0]) open(currentTarget.files[0]);
    currentTarget.value = '';
  }}
/>
<dialog
  bind:this={dialog}
  class="m-auto w-[44rem] max-w-[90vw] rounded border border-base-300 bg-base-100 p-5 text-base-content shadow-xl backdrop:bg-black/40"
  aria-label={texts.importAFile}
  onclose={() => isReading && sending?.abort()}
>
  {#if file}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <h2 class="font-serif text-lg wrap-anywhere">{texts.dialogTitle(file.name)}</h2>
      <fieldset class="mt-3 grid grid-cols-2 gap-x-6 gap-y-3" disabled={percent !== null}>
        <div>
          <span class="block font-semibold">{texts.kind}</span>
          {#each [['list', texts.kindList], ['log', texts.kindLog]] as const as [value, label] (value)}
            <label class="mr-3 inline-flex items-center gap-1.5"
              ><input type="radio" class="radio radio-xs" name="kind" {value} bind:group={kind} />{label}</label
            >
          {/each}
        </div>
        <label class="block">
          <span class="block font-semibold">{texts.name}</span>
          <input bind:value={name} required maxlength="80" class="input input-sm w-full" />
        </label>
        {#if kind === 'log'}
          <p class="quiet col-span-2">{texts.logMeans}</p>
        {:else if preview}
          {@const header = preview.layout.hasHeader ? preview.rows[0] : null}
          <label class="block">
            <span class="block font-semibold">{texts.column}</span>
            <select
              class="select select-sm w-full"
              value={String(preview.layout.addressColumn + 1)}
              onchange={({ currentTarget }) => (column = currentTarget.value)}
            >
              {#each preview.rows[0] ?? [] as cell, i (i)}
                <option value={String(i + 1)}>{i + 1}{header ? `: ${cell}` : ''}</option>
              {/each}
            </select>
          </label>
          <p class="quiet self-end">{texts.numbersFound(named(preview, false), named(preview, true))}</p>
          <div class="col-span-2 max-h-52 overflow-auto rounded border border-base-300">
            <table class="w-full font-mono text-xs">
              <tbody>
                {#each preview.rows as row, r (r)}
                  <tr
                    class="border-b border-base-300/60 last:border-0 {r === 0 && header
                      ? 'bg-base-200 font-semibold'
                      : ''}"
                  >
                    {#each row as cell, c (c)}
                      <td
                        class="max-w-72 truncate px-2 py-0.5 {c === preview.layout.addressColumn
                          ? 'bg-primary/10'
                          : ''}"
                        title={cell}>{cell}</td
                      >
                    {/each}
                  </tr>
                {/each}
              </tbody>
            </table>
          </div>
        {/if}
      </fieldset>
      {#if trouble}<p class="lost mt-3" role="alert">{trouble}</p>{/if}
      <div class="mt-4 flex items-center gap-3">
        {#if percent === null}
          <button class="btn btn-primary btn-sm" disabled={kind === 'list' && !preview}>{texts.import}</button>
          <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog.close()}>{texts.cancel}</button>
        {:else}
          {#if isReading}
            <button type="button" class="btn btn-outline btn-sm" onclick={() => sending?.abort()}>{texts.stop}</button>
          {/if}
          <progress class="progress w-48" value={percent} max="100"></progress>
          <span role="status" class="tabular">{percent < 100 ? texts.reading(percent) : texts.storing}</span>
        {/if}
      </div>
    </form>
  {/if}
</dialog>

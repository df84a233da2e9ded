<!-- Marks key pages from a list: pasted, or a text or CSV file. -->
<script lang="ts">
  import { addressesIn } from '$core/url';
  import { markKeyPages } from './keyPages';
  import { texts } from './texts';

  let { site, start }: { site: number; start: string } = $props();
  let dialog: HTMLDialogElement;
  let text = $state('');
  const addresses = $derived(addressesIn(text, start));

  async function mark() {
    if (!(await markKeyPages(site, addresses, true))) return;
    text = '';
    dialog.close();
  }
  async function read(event: Event & { currentTarget: HTMLInputElement }) {
    text = (await event.currentTarget.files?.[0]?.text()) ?? text;
  }
</script>

<button type="button" class="text-primary hover:underline" onclick={() => dialog.showModal()}>{texts.keyList}</button>
<dialog bind:this={dialog} class="modal" aria-label={texts.keyList}>
  <form
    class="modal-box"
    onsubmit={(event) => {
      event.preventDefault();
      void mark();
    }}
  >
    <h2 class="font-serif text-lg">{texts.keyListTitle}</h2>
    <p class="quiet mt-1 text-xs">{texts.keyListHint}</p>
    <textarea
      class="textarea mt-2 h-48 w-full font-mono text-xs"
      bind:value={text}
      aria-label={texts.keyListAddresses}
      spellcheck="false"></textarea>
    <input
      type="file"
      accept=".txt,.csv,.tsv"
      class="file-input mt-1 file-input-xs"
      aria-label={texts.keyListFile}
      onchange={read}
    />
    <div class="mt-3 flex items-center gap-2">
      <span class="quiet flex-1 text-xs" role="status">{texts.addressesFound(addresses.length)}</span>
      <button type="button" class="btn btn-ghost btn-sm" onclick={() => dialog.close()}>{texts.cancel}</button>
      <button class="btn btn-primary btn-sm" disabled={addresses.length === 0}>{texts.markThem}</button>
    </div>
  </form>
</dialog>

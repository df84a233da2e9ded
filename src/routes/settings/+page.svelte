<!-- Everything that decides how a site is crawled, on one screen. -->
<script lang="ts">
  import { enhance } from '$app/forms';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { agents, presetOf } from '$core/settings';
  import type { AgentName } from '$core/settings';
  import type { ScopeSettings } from '$core/scope';
  import { readStartAddress } from '$core/url';
  import Brand from '$lib/shell/Brand.svelte';
  import FieldGroup from '$lib/settings/FieldGroup.svelte';
  import ListField from '$lib/settings/ListField.svelte';
  import PatternTester from '$lib/settings/PatternTester.svelte';
  import { allFields, fieldGroups } from '$lib/settings/settingsFields';
  import { folderOf } from '$lib/settings/settingsForm';
  import type { Faults, Typed } from '$lib/settings/settingsForm';
  import { texts } from '$lib/settings/texts';
  import { crawlPath } from '$lib/shell/routes';

  let { data, form } = $props();
  const typed: Typed = $derived({ ...data.typed, ...(form && 'typed' in form ? form.typed : {}) });
  const faults: Faults = $derived((form && 'faults' in form ? form.faults : undefined) ?? {});
  const notice = $derived(
    form && 'notice' in form ? form.notice : page.url.searchParams.has('saved') ? texts.theSettingsAreSaved : '',
  );
  const wrong = $derived(Object.keys(faults).length);
  const notStart = $derived(Object.keys(faults).find((name) => name !== 'start'));
  let sending = $state(false);
  let element = $state<HTMLFormElement>();
  let scope = $state.raw<ScopeSettings | null>(null);

  /** The scope as it stands in the fields, for the tester; those of a form that cannot be read are left as they are. */
  function readScope() {
    if (!element) return;
    const fields = new FormData(element);
    const text = (name: string) => String(fields.get(name) ?? '').trim();
    const lines = (name: string) =>
      text(name)
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean);
    const start = readStartAddress(text('start'));
    scope = start.ok
      ? {
          start: start.address,
          hosts: lines('hosts'),
          subdomains: text('subdomains') === 'on',
          folder: folderOf(text('folder')),
          include: lines('include'),
          exclude: lines('exclude'),
          dropParameters: lines('dropParameters'),
          sortParameters: text('sortParameters') === 'on',
        }
      : null;
  }
  $effect(() => {
    void typed;
    readScope();
  });

  function chooseAgent(name: AgentName) {
    const input = (field: string) => element!.elements.namedItem(field) as HTMLInputElement;
    input('userAgent').value = agents[name].userAgent;
    input('token').value = agents[name].token;
  }
  const preset = $derived(presetOf(typed.userAgent, typed.token));
  const storedWords = $derived(
    [
      data.stored.headers.length ? texts.headers(data.stored.headers.join(', ')) : '',
      data.stored.cookie ? texts.aCookie : '',
      data.stored.basic ? texts.aUserAndPassword : '',
    ].filter(Boolean),
  );
</script>

<svelte:head><title>{texts.pageTitle}</title></svelte:head>
<div class="flex h-screen flex-col">
  <Brand>
    <a href="/" class="rounded border border-white/25 px-2.5 py-0.5 text-xs hover:border-white/60">{texts.allSites}</a>
    <span class="flex-1"></span>
  </Brand>
  <div class="flex min-h-0 flex-1">
    <nav class="w-48 shrink-0 border-r border-base-300 p-2" aria-label={texts.settings}>
      {#each [...fieldGroups, { id: 'secrets', title: texts.secrets }] as { id, title } (id)}
        <a href="#{id}" class="block rounded px-2.5 py-1.5 hover:bg-base-100">{title}</a>
      {/each}
      <div class="mt-4 space-y-2 border-t border-base-300 px-2.5 pt-3">
        {#if data.site && data.newest !== null}
          <a
            class="block text-primary hover:underline"
            title={texts.scheduleMeans}
            href="{crawlPath(data.site.id, data.newest)}/change?picture=timeline">{texts.schedule}</a
          >
        {/if}
        {#if data.sites.length > 0}
          <label class="block">
            <span class="quiet text-xs">{texts.copyFrom}</span>
            <select
              class="select select-xs w-full font-mono"
              onchange={({ currentTarget }) => {
                const params = new URLSearchParams(page.url.search);
                params.set('like', currentTarget.value);
                params.delete('saved');
                if (currentTarget.value) void goto(`/settings?${params}`);
              }}
            >
              <option value="">{texts.anotherSite}</option>
              {#each data.sites as { id, start } (id)}<option value={id}>{start}</option>{/each}
            </select>
          </label>
        {/if}
        <form method="post" action="?/import" enctype="multipart/form-data" use:enhance>
          <label class="block cursor-pointer text-primary hover:underline">
            {texts.importAFile}
            <input
              type="file"
              name="file"
              accept=".json,application/json"
              class="sr-only"
              onchange={({ currentTarget }) => currentTarget.form!.requestSubmit()}
            />
          </label>
        </form>
        {#if data.site}
          <a href="/sites/{data.site.id}/settings.json" download class="block text-primary hover:underline"
            >{texts.exportAsAFile}</a
          >
        {/if}
      </div>
    </nav>
    <form
      bind:this={element}
      method="post"
      action="?/save"
      class="flex min-w-0 flex-1 flex-col"
      oninput={readScope}
      use:enhance={() => {
        sending = true;
        return async ({ update }) => {
          await update({ reset: false });
          sending = false;
        };
      }}
    >
      <div class="relative min-h-0 flex-1 space-y-4 overflow-y-auto px-6 py-4">
        <section class="max-w-4xl">
          <h1 class="font-serif text-2xl"><label for="start">{texts.settingsOfTheSite}</label></h1>
          <input
            id="start"
            name="start"
            value={typed.start}
            placeholder={texts.httpsWwwExampleOrg}
            autocomplete="off"
            spellcheck="false"
            readonly={Boolean(data.site)}
            class="input mt-2 w-full font-mono"
            aria-invalid={Boolean(faults.start)}
            aria-describedby="start-fault"
          />
          <p id="start-fault" class={faults.start ? 'lost' : 'quiet'} role={faults.start ? 'alert' : undefined}>
            {faults.start ?? (data.site ? texts.aSiteIsIdentified : texts.theAddressOfThePage)}
          </p>
          {#if data.like}<p class="mt-1">{texts.copiedFrom(data.like)}</p>{/if}
        </section>
        {#each fieldGroups as group (group.id)}
          <div class="max-w-4xl">
            <FieldGroup {group} {typed} {faults}>
              {#if group.id === 'scope'}
                <ListField typed={typed.lists} fault={faults.lists} hidden={data.hidden} />
                <PatternTester {scope} known={data.known} more={data.more} />
              {:else if group.id === 'reader'}
                <div class="mt-3 flex flex-wrap items-center gap-1.5">
                  <span class="quiet">{texts.askAs}</span>
                  {#each Object.entries(agents) as [name, { label }] (name)}
                    <button
                      type="button"
                      aria-pressed={preset === name}
                      class="rounded-full border border-base-300 px-2 text-xs leading-5 hover:border-primary"
                      onclick={() => chooseAgent(name as AgentName)}>{label}</button
                    >
                  {/each}
                </div>
              {/if}
            </FieldGroup>
          </div>
        {/each}
        <section id="secrets" class="panel max-w-4xl scroll-mt-4 p-4" aria-labelledby="secrets-title">
          <h2 id="secrets-title" class="font-serif text-lg">{texts.secrets}</h2>
          <p class="quiet">
            {texts.sentOnlyToTheHosts}
          </p>
          <p class="mt-1">{storedWords.length ? texts.storedNow(storedWords.join('; ')) : texts.nothingIsStoredNow}</p>
          <div class="mt-3 grid grid-cols-2 gap-x-6 gap-y-3">
            <label class="block">
              <span class="font-semibold">{texts.requestHeaders}</span>
              <textarea
                name="headers"
                rows="3"
                spellcheck="false"
                autocomplete="off"
                placeholder={texts.xPreview}
                class="textarea textarea-sm w-full font-mono"></textarea>
              <span class={faults.headers ? 'lost' : 'quiet'}>{faults.headers ?? texts.nameValueOneALine}</span>
            </label>
            <label class="block">
              <span class="font-semibold">{texts.cookie}</span>
              <input name="cookie" spellcheck="false" autocomplete="off" class="input input-sm w-full font-mono" />
              <span class={faults.cookie ? 'lost' : 'quiet'}>{faults.cookie ?? 'name=value; name=value'}</span>
            </label>
            <label class="block">
              <span class="font-semibold">{texts.user}</span>
              <input name="user" spellcheck="false" autocomplete="off" class="input input-sm w-full font-mono" />
              <span class={faults.user ? 'lost' : 'quiet'}>{faults.user ?? texts.forBasicAuthentication}</span>
            </label>
            <label class="block">
              <span class="font-semibold">{texts.password}</span>
              <input
                name="password"
                type="password"
                autocomplete="new-password"
                class="input input-sm w-full font-mono"
              />
              <span class="quiet">{texts.forBasicAuthentication}</span>
            </label>
            <label class="col-span-2 flex items-center gap-2">
              <input type="checkbox" name="forget" class="checkbox checkbox-xs" />
              {texts.deleteTheStoredSecrets}
            </label>
          </div>
        </section>
      </div>
      <div class="flex items-center gap-3 border-t border-base-300 bg-base-100 px-6 py-2.5">
        <button formaction="?/crawl" class="btn btn-secondary btn-sm" disabled={sending}>{texts.saveAndCrawl}</button>
        <button class="btn btn-outline btn-sm" disabled={sending}>{texts.save}</button>
        <p role="status" class={wrong || (form && 'notice' in form && !('typed' in form)) ? 'lost' : ''}>
          {#if wrong}{texts.fieldsNeedCorrection(wrong)}{notStart
              ? ` (${allFields.find(({ name }) => name === notStart)?.label ?? (notStart === 'lists' ? texts.knownUrls : texts.secrets)}): ${faults[notStart]}`
              : '.'}{:else}{notice}{/if}
        </p>
      </div>
    </form>
  </div>
</div>

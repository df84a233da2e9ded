<!-- When a site is crawled by itself, and when that is next. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import type { Schedule } from '$core/schedule';
  import Moment from '../shell/Moment.svelte';
  import { say } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import { texts } from './texts';

  interface Props {
    site: number;
    schedule: (Schedule & { paused: boolean }) | null;
    coming: Date[];
    zones: readonly string[];
  }
  let { site, schedule, coming, zones }: Props = $props();
  const everyNames = ['day', 'week', 'month'] as const;
  const begin = () =>
    schedule ?? {
      every: 'week' as const,
      at: '03:00',
      day: 1,
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      paused: false,
    };
  let draft = $state(untrack(begin));
  async function save(changes: { paused?: boolean } = {}) {
    const { every, at, day, zone, paused } = { ...draft, ...changes };
    if (!(await send(`/sites/${site}/schedule`, 'PUT', { every, at, day: every === 'day' ? 0 : day, zone, paused })))
      return;
    draft = { ...draft, ...changes };
    await invalidateAll();
    say(texts.scheduleSaved);
  }
  async function stop() {
    if (!(await send(`/sites/${site}/schedule`, 'DELETE'))) return;
    await invalidateAll();
    say(texts.scheduleStopped);
  }
  function choose(every: Schedule['every']) {
    draft = { ...draft, every, day: every === 'day' ? 0 : 1 };
  }
</script>

<form
  class="space-y-1 text-xs"
  onsubmit={(event) => {
    event.preventDefault();
    void save();
  }}
>
  <div class="flex flex-wrap items-center gap-1">
    <select
      class="select select-xs w-28"
      aria-label={texts.every}
      value={draft.every}
      onchange={({ currentTarget: { value } }) => choose(value as Schedule['every'])}
    >
      {#each everyNames as name (name)}<option value={name}>{texts.everyName(name)}</option>{/each}
    </select>
    {#if draft.every === 'week'}
      <select class="select select-xs w-28" aria-label={texts.weekday} bind:value={draft.day}>
        {#each [1, 2, 3, 4, 5, 6, 0] as day (day)}<option value={day}>{texts.weekdayName(day)}</option>{/each}
      </select>
    {:else if draft.every === 'month'}
      <select class="select select-xs w-20" aria-label={texts.dayOfMonth} bind:value={draft.day}>
        {#each Array.from({ length: 28 }, (_, i) => i + 1) as day (day)}<option value={day}>{day}.</option>{/each}
        <option value={0}>{texts.lastDay}</option>
      </select>
    {/if}
    <input type="time" class="input input-xs w-22" aria-label={texts.at} bind:value={draft.at} required />
    <input class="input input-xs w-40" aria-label={texts.zone} list="zones" bind:value={draft.zone} required />
    <datalist id="zones"
      >{#each zones as zone (zone)}<option value={zone}></option>{/each}</datalist
    >
    <button class="btn btn-secondary btn-xs">{texts.saveSchedule}</button>
    {#if schedule}
      <button type="button" class="text-primary hover:underline" onclick={() => save({ paused: !schedule.paused })}
        >{schedule.paused ? texts.goOn : texts.pause}</button
      >
      <button type="button" class="text-primary hover:underline" onclick={stop}>{texts.stopSchedule}</button>
    {/if}
  </div>
  {#if !schedule}<p class="quiet">{texts.noSchedule}</p>
  {:else if schedule.paused}<p class="lost">{texts.isPaused}</p>
  {:else}
    <ol class="flex flex-wrap gap-x-3">
      {#each coming as at (at.getTime())}<li class="tabular"><Moment {at} /></li>{/each}
    </ol>
  {/if}
  <p class="quiet">{texts.scheduleMeans}</p>
</form>

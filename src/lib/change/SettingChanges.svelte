<!-- Settings in which two crawls differ, with what that makes incomparable: what speaks against a number comes before it. -->
<script lang="ts">
  import type { SettingChange } from '$core/compare';
  import { allFields } from '../settings/settingsFields';
  import { texts } from './texts';

  interface Props {
    changes: SettingChange[];
    /** Sentences about limits at which a crawl ended. */
    remarks: string[];
  }
  let { changes, remarks }: Props = $props();
  const label = (name: string) =>
    allFields.find((field) => field.name === name || field.name.startsWith(`${name}.`))?.label ?? name;
  const telling = $derived(changes.filter(({ against }) => against !== null));
</script>

{#each remarks as remark (remark)}<p class="lost mt-0.5">{remark}</p>{/each}
{#if changes.length}
  <details class="mt-0.5 text-xs" open={telling.length > 0 && telling.length < 4}>
    <summary class="quiet cursor-pointer">{texts.settingsDiffer(changes.length)}</summary>
    <ul class="pl-4">
      {#each changes as { name, before, after, against } (name)}
        <li>
          {texts.settingChanged(label(name), before, after)}
          <span class={against ? 'lost' : 'quiet'}>({texts.against(against)})</span>
        </li>
      {/each}
    </ul>
  </details>
{/if}

<!-- One group of settings, drawn from its description. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { FieldGroup } from './settingsFields';
  import type { Faults, Typed } from './settingsForm';

  interface Props {
    group: FieldGroup;
    typed: Typed;
    faults: Faults;
    children?: Snippet;
  }
  let { group, typed, faults, children }: Props = $props();
</script>

<section id={group.id} class="panel scroll-mt-4 p-4" aria-labelledby="{group.id}-title">
  <h2 id="{group.id}-title" class="font-serif text-lg">{group.title}</h2>
  <p class="quiet">{group.about}</p>
  <div class="mt-3 grid grid-cols-2 gap-x-6 gap-y-3">
    {#each group.fields as field (field.name)}
      {@const fault = faults[field.name]}
      {@const hintId = `${field.name}-hint`}
      {#if field.type === 'flag'}
        <label class="flex items-start gap-2">
          <input
            type="checkbox"
            name={field.name}
            class="checkbox checkbox-xs mt-0.5"
            checked={typed[field.name] === 'on'}
            aria-describedby={hintId}
          />
          <span>
            <span class="block font-semibold">{field.label}</span>
            <span id={hintId} class="quiet">{field.hint}</span>
          </span>
        </label>
      {:else if field.type === 'choice'}
        <fieldset class="col-span-2" aria-describedby={hintId}>
          <legend class="font-semibold">{field.label}</legend>
          <div class="flex flex-wrap gap-x-5">
            {#each field.options as { value, label } (value)}
              <label class="flex items-center gap-2">
                <input
                  type="radio"
                  name={field.name}
                  {value}
                  class="radio radio-xs"
                  checked={typed[field.name] === value}
                />
                {label}
              </label>
            {/each}
          </div>
          <span id={hintId} class="quiet">{field.hint}</span>
        </fieldset>
      {:else}
        <label class="block {field.type === 'text' && field.wide ? 'col-span-2' : ''}">
          <span class="font-semibold">{field.label}</span>
          {#if field.type === 'number'}
            <span class="flex items-center gap-2">
              <input
                name={field.name}
                inputmode="decimal"
                placeholder={field.empty}
                value={typed[field.name]}
                class="input input-sm tabular w-28"
                aria-invalid={Boolean(fault)}
                aria-describedby={hintId}
              />
              {field.unit}
            </span>
          {:else if field.type === 'lines'}
            <textarea
              name={field.name}
              rows="2"
              spellcheck="false"
              placeholder={field.example}
              value={typed[field.name]}
              class="textarea textarea-sm min-h-14 w-full font-mono"
              aria-invalid={Boolean(fault)}
              aria-describedby={hintId}></textarea>
          {:else}
            <input
              name={field.name}
              spellcheck="false"
              autocomplete="off"
              placeholder={field.example}
              value={typed[field.name]}
              class="input input-sm w-full font-mono"
              aria-invalid={Boolean(fault)}
              aria-describedby={hintId}
            />
          {/if}
          <span id={hintId} class={fault ? 'lost' : 'quiet'}>{fault ?? field.hint}</span>
        </label>
      {/if}
    {/each}
  </div>
  {@render children?.()}
</section>

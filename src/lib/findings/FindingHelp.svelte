<!-- What is to be said of a finding, beside its name; loaded when a person asks for it. -->
<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import Menu from '../shell/Menu.svelte';
  import type FindingAbout from './FindingAbout.svelte';
  import { texts } from './texts';

  let { finding, site }: Omit<ComponentProps<typeof FindingAbout>, 'close'> = $props();
</script>

<Menu label="?" about={texts.aboutFinding(finding.name)}>
  {#snippet children(close)}
    {#await import('./FindingAbout.svelte') then { default: About }}
      <About {finding} {site} {close} />
    {:catch}
      <p class="lost p-2">
        {texts.aboutNotLoaded}
        <a class="underline" href="/findings/{finding.id}">{texts.withAnExampleBeforeAndAfter}</a>
      </p>
    {/await}
  {/snippet}
</Menu>

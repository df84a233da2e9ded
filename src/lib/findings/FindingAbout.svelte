<!-- What a finding means, how to fix it, when it is no problem, and how to ignore it. -->
<script lang="ts">
  import { guidance } from '$core/findings/guidance';
  import { findings } from '$core/findings/catalogue';
  import { ignore } from './ignore';
  import { texts } from './texts';

  interface Props {
    finding: {
      id: string;
      name: string;
      over: string;
      rule: string;
      why: string;
      remedy: string;
      related?: readonly string[];
    };
    /** The site in which it can be ignored; without it there is no such choice. */
    site?: number;
    close: () => void;
  }
  let { finding, site, close }: Props = $props();
  const nameOfFinding = (id: string) => findings.find((one) => one.id === id)?.name ?? id;
  let reason = $state('');
  let within = $state('');

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    if (site !== undefined && (await ignore(site, finding, within, reason))) close();
  }
</script>

<div class="w-96 p-2 text-sm">
  <h3 class="font-serif text-base leading-snug">{finding.name}</h3>
  <dl class="mt-1.5 space-y-1.5">
    {#each [[texts.rule, finding.rule], [texts.whyItMatters, finding.why], [texts.fix, finding.remedy], [texts.whenToIgnoreIt, guidance[finding.id]?.ignore]] as [label, text] (label)}
      {#if text}
        <div>
          <dt class="heading text-xs">{label}</dt>
          <dd>{text}</dd>
        </div>
      {/if}
    {/each}
  </dl>
  {#if finding.related?.length}
    <p class="quiet mt-1.5 text-xs">
      {texts.itMayComeOfOrLead}
      {#each finding.related as id, i (id)}{i ? ', ' : ''}<a class="text-primary underline" href="/findings/{id}"
          >{nameOfFinding(id)}</a
        >{/each}
    </p>
  {/if}
  <p class="mt-2">
    <a class="text-primary underline" href="/findings/{finding.id}">{texts.withAnExampleBeforeAndAfter}</a>
  </p>
  {#if site !== undefined}
    <form class="mt-3 border-t border-base-300 pt-2" onsubmit={submit}>
      <h4 class="heading text-xs">{texts.ignoreItInThisSite}</h4>
      <label class="mt-1 block"
        >{texts.reason}
        <input bind:value={reason} required maxlength="500" class="input input-xs mt-0.5 w-full" />
      </label>
      {#if finding.over !== 'files'}
        <label class="mt-1 block"
          >{texts.onlyWhereThisHolds}
          <input
            bind:value={within}
            class="input input-xs mt-0.5 w-full font-mono"
            placeholder={finding.over === 'pages' ? 'path starts "/archive/"' : 'from (path starts "/archive/")'}
            spellcheck="false"
          />
        </label>
        <p class="quiet text-xs">{texts.aSelectionLeaveItEmpty}</p>
      {/if}
      <button class="btn btn-outline btn-xs mt-1.5">{texts.ignoreFinding}</button>
    </form>
  {/if}
</div>

<script lang="ts">
  import GaugePick from './GaugePick.svelte'
  import Jobs from './Jobs.svelte'
  import Looked from './Looked.svelte'
  import Photos from './Photos.svelte'
  import Plates from './Plates.svelte'
  import ReadFields from './ReadFields.svelte'
  import VisitTrouble from './VisitTrouble.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** What can only be read dead and drained: the air, the plates, what is under the cover, what looks wrong. */
  let { state: at }: { state: VisitState } = $props()
  const fields = $derived(at.view!.read)
  const figures = $derived(fields.filter((field) => field.kind === 'quantity'))
  const OFF_BY = 'gauge.air_low'
  const parts = $derived(at.view!.parts)
</script>

<div class="grid gap-3">
  <ReadFields state={at} fields={figures.filter((field) => field.slot !== OFF_BY)} />
</div>
{#if at.view!.air_check}
  <p
    class="text-sm {at.view!.air_check.unneeded
      ? 'rounded-box border-2 border-success px-3 py-2 font-bold'
      : 'text-neutral'}"
  >
    {at.view!.air_check.says}
  </p>
{/if}
{#if figures.some((field) => field.slot === OFF_BY)}
  <GaugePick state={at} reads="air" />
  <details class="rounded-box border border-base-300 px-3">
    <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
      >How far the air gauge may be off</summary
    >
    <div class="grid gap-3 pb-3">
      <ReadFields state={at} fields={figures.filter((field) => field.slot === OFF_BY)} />
    </div>
  </details>
{/if}
<Plates system={at.visit!.system.id} />
<Photos state={at} />
<div class="grid gap-3">
  <ReadFields state={at} fields={fields.filter((field) => field.kind === 'words')} />
  <Looked state={at} fields={fields.filter((field) => field.kind === 'flag')} />
</div>
{#if parts.length}
  <details class="rounded-box border border-base-300 px-3">
    <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
      >Parts along the flow</summary
    >
    <ol class="grid list-decimal gap-1 pb-3 pl-6">
      {#each parts as part (part.title)}
        <li><span class="font-bold">{part.title}.</span> {part.look}</li>
      {/each}
    </ol>
  </details>
{/if}
<VisitTrouble state={at} />
<Jobs state={at} />

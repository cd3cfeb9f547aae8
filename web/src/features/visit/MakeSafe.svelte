<script lang="ts">
  import Confirm from './Confirm.svelte'
  import DrainSeries from './DrainSeries.svelte'
  import Power from './Power.svelte'
  import ReadFields from './ReadFields.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  let { state: at }: { state: VisitState } = $props()
  const view = $derived(at.view!)
</script>

{#if view.drain}
  <p class="rounded-box bg-[var(--zd-sand)] px-4 py-3" data-testid="drain">{view.drain.says}</p>
{/if}
<Power state={at} />
<div class="grid gap-2">
  {#each view.make_safe as step (step.id)}<Confirm {step} state={at} />{/each}
</div>
{#if view.knee}
  <details class="rounded-box border border-base-300 px-3" open={at.value('found.knee') != null}>
    <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
      >While it drains: did the gauge collapse?</summary
    >
    <div class="grid gap-2 pb-3">
      <p class="text-sm">
        The gauge falls slowly, then drops to zero. Where it drops is the pre-charge.
      </p>
      <ReadFields state={at} fields={[view.knee]} />
      <DrainSeries state={at} />
    </div>
  </details>
{/if}

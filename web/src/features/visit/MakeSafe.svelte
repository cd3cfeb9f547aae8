<script lang="ts">
  import Confirm from './Confirm.svelte'
  import Power from './Power.svelte'
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

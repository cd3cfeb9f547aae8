<script lang="ts">
  import type { VisitState } from '../../domain/visit.svelte'

  /** Turning although watching is advised, or more is not worth the time. */
  let { state: at }: { state: VisitState } = $props()
</script>

{#if at.view!.set.may_turn}
  <button
    type="button"
    class="btn min-h-12 btn-ghost"
    disabled={!at.open}
    onclick={() => at.setOrder(at.order, true)}>Turn now instead</button
  >
{/if}

<script lang="ts">
  import type { Step, VisitState } from '../../domain/visit.svelte'

  /** The one thing that is next, wherever one looks; a press goes there. */
  let { state: at, ongo }: { state: VisitState; ongo: (step: Step) => void } = $props()
  const next = $derived(at.view!.next)
</script>

{#if at.open && next.step !== at.step}
  <button
    type="button"
    class="flex min-h-12 w-full cursor-pointer items-center gap-2 bg-[var(--zd-sand)] px-4 py-1 text-left text-sm"
    data-testid="next"
    onclick={() => ongo(next.step)}
  >
    <span class="font-bold">Next</span>
    <span class="line-clamp-2 flex-1">{next.says}</span>
    <span aria-hidden="true">›</span>
  </button>
{/if}

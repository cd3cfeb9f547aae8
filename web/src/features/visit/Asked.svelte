<script lang="ts">
  import type { VisitState } from '../../domain/visit.svelte'

  /** What is odd about a reading, under it; one press where it was seen before the condition changed. */
  let { state: at, slot }: { state: VisitState; slot: string } = $props()
  const asked = $derived(at.view!.questions.filter((question) => question.slot === slot))
</script>

{#each asked as question (question.asks)}
  <p role="status" class="mt-1 rounded-box border-2 border-warning px-3 py-2 text-sm font-bold">
    {question.asks}
    {#if question.earlier && at.open}
      <button
        type="button"
        class="btn mt-2 min-h-12 w-full"
        onclick={() => at.check(at.view!.seen_earlier.slot, true)}>Yes, seen earlier</button
      >
    {/if}
  </p>
{/each}

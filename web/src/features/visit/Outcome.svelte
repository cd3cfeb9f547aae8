<script lang="ts">
  import type { VisitState } from '../../domain/visit.svelte'

  /** What the trouble was in the end: the customer's report says so. */
  let { state: at }: { state: VisitState } = $props()
  const outcomes = $derived(at.view!.outcomes)
  const was = $derived(at.value('was'))
  const choices = $derived([...outcomes, { id: 'other', title: 'Something else' }])
</script>

{#if outcomes.length}
  <section aria-labelledby="was" class="grid gap-2">
    <h2 id="was" class="font-bold">What was it in the end?</h2>
    {#each choices as each (each.id)}
      <button
        type="button"
        class="btn min-h-12 justify-start text-left {was === each.id ? 'btn-primary' : ''}"
        aria-pressed={was === each.id}
        disabled={!at.open}
        onclick={() => at.put('was', was === each.id ? '' : each.id)}>{each.title}</button
      >
    {/each}
  </section>
{/if}
